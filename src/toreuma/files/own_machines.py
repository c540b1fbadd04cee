"""The person's own values of machines: what a shop learns of one by running it."""

from pydantic import ValidationError

from toreuma.core.errors import JobError
from toreuma.core.model import Machine
from toreuma.files.own_values import Layer

__all__ = ["MACHINES"]

FIELDS = ("time_ratio", "warm_up_min")


def _changed(machine: Machine, field: str, value: object, source: str) -> Machine:
    if field not in FIELDS:
        raise JobError(f"machine {machine.name}", f"has no value '{field}'", f"choose from {', '.join(FIELDS)}")
    try:
        kept = {**dict(machine.sources), field: source[:120] or "own"}
        return machine.changed(**{field: value}, sources=tuple(sorted(kept.items())))
    except ValidationError as error:
        what = error.errors()[0]["msg"]
        raise JobError(f"{machine.name}, {field}", f"cannot be {value}: {what}", "type a usual value") from error


MACHINES = Layer("machine", "machines.json", lambda _: list(FIELDS), _changed)
