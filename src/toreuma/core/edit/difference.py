"""What differs between two states of a job: surface by surface, operation by operation, then everything else."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from difflib import SequenceMatcher
from typing import Any

from toreuma.core.model import Job
from toreuma.core.value import Value

__all__ = ["Difference", "differences"]

UNITS = {"mm": "mm", "um": "µm", "deg": "°", "rpm": "rpm", "kw": "kW", "s": "s", "n": "N"}
LISTED = {"part": ("outside", "inside", "features"), "setups": ("operations",)}
"""Lists that are compared one by one, by what holds them."""


@dataclass(frozen=True)
class Difference:
    """``before`` and ``after`` are values in words; one of them is empty for what came or went."""

    where: str
    before: str
    after: str

    def __str__(self) -> str:
        if not self.before:
            return f"{self.where}: new, {self.after}"
        if not self.after:
            return f"{self.where}: taken out"
        return f"{self.where}: {self.before} → {self.after}"


def differences(old: Job, new: Job) -> tuple[Difference, ...]:
    """Everything that is not the same in both, in the order a person looks for it."""
    return tuple(_all(old, new))


def _all(old: Job, new: Job) -> Iterator[Difference]:
    yield from _in_order("surface outside", old.part.outside, new.part.outside)
    yield from _in_order("surface inside", old.part.inside, new.part.inside)
    yield from _in_order("feature", old.part.features, new.part.features)
    for side, (a, b) in enumerate(zip(old.setups, new.setups, strict=False), start=1):
        name = "operation" if len(new.setups) == 1 else f"operation of side {side}"
        yield from _by_id(name, a.operations, b.operations)
    if len(old.setups) != len(new.setups):
        yield Difference("sides", str(len(old.setups)), str(len(new.setups)))
    yield from _by_id("tool", old.tools, new.tools)
    for field in ("name", "units"):
        yield from _in_value(field, getattr(old, field), getattr(new, field))
    yield from _in_value("part", *(_without(one.part, LISTED["part"]) for one in (old, new)))
    for name in ("stock", "machine", "second_hold", "hand_over", "turn_round", "program", "prove_out", "conditions"):
        yield from _in_value(name, *(_data(getattr(one, name)) for one in (old, new)))
    for a, b in zip(old.setups, new.setups, strict=False):
        yield from _in_value("hold", _without(a, LISTED["setups"]), _without(b, LISTED["setups"]))
    if old.trials != new.trials:
        yield Difference("trials", str(len(old.trials)), str(len(new.trials)))
    if old.follows != new.follows:
        yield Difference(
            "what follows the part", ", ".join(old.follows) or "nothing", ", ".join(new.follows) or "nothing"
        )
    yield from _in_value("other", old.__pydantic_extra__ or {}, new.__pydantic_extra__ or {})


def _in_order(what: str, old: Sequence[Value], new: Sequence[Value]) -> Iterator[Difference]:
    """Things known by their place: what is the same on both sides holds the others in their place."""
    if old == new:
        return
    keys = [[one.model_dump_json(exclude_none=True) for one in side] for side in (old, new)]
    for tag, a0, a1, b0, b1 in SequenceMatcher(None, keys[0], keys[1], autojunk=False).get_opcodes():
        if tag == "equal":
            continue
        both = min(a1 - a0, b1 - b0)
        for i in range(both):
            yield from _in_value(f"{what} {b0 + i + 1}", _data(old[a0 + i]), _data(new[b0 + i]))
        for i in range(a0 + both, a1):
            yield Difference(f"{what} {i + 1}", _in_short(old[i]), "")
        for i in range(b0 + both, b1):
            yield Difference(f"{what} {i + 1}", "", _in_short(new[i]))


def _by_id(what: str, old: Sequence[Any], new: Sequence[Any]) -> Iterator[Difference]:
    before, after = {one.id: one for one in old}, {one.id: one for one in new}
    for key, one in before.items():
        if key not in after:
            yield Difference(_called(what, one), _in_short(one), "")
    for key, one in after.items():
        if key not in before:
            yield Difference(_called(what, one), "", _in_short(one))
        else:
            yield from _in_value(_called(what, before[key]), _data(before[key]), _data(one))
    kept = [[key for key in side if key in before and key in after] for side in (before, after)]
    if kept[0] != kept[1]:
        yield Difference(f"order of {what}s", ", ".join(kept[0]), ", ".join(kept[1]))


def _called(what: str, one: Any) -> str:
    """What has an id, by the name a person gave it."""
    name = getattr(one, "name", "")
    return f"{what} {one.id}" + (f", {name}" if name and name != one.id else "")


def _data(value: Any) -> Any:
    return value.model_dump(mode="json") if isinstance(value, Value) else value


def _without(value: Value, names: Iterable[str]) -> Any:
    return value.model_dump(mode="json", exclude=set(names))


def _in_value(where: str, old: Any, new: Any) -> Iterator[Difference]:
    if old == new:
        return
    if isinstance(old, dict) and isinstance(new, dict) and old.get("kind") == new.get("kind"):
        for key in (*old, *(one for one in new if one not in old)):
            yield from _in_value(f"{where}, {key}", old.get(key), new.get(key))
        return
    field = where.rpartition(", ")[2]
    plain, unit = _worded(field)
    yield Difference(where[: len(where) - len(field)] + plain, _said(old, unit), _said(new, unit))


def _worded(field: str) -> tuple[str, str]:
    """A field's name as words, and its unit."""
    stem, _, last = field.rpartition("_")
    if stem and last in UNITS:
        return ("diameter" if stem == "d" else stem).replace("_", " "), UNITS[last]
    return field.replace("_", " "), ""


def _said(value: Any, unit: str) -> str:
    if value is None or value == "":
        return "none"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, int | float):
        return f"{value:g} {unit}".strip()
    if isinstance(value, str):
        return value[:60]
    if isinstance(value, dict):
        return str(value.get("name") or value.get("code") or value.get("kind") or f"{len(value)} values")[:60]
    return f"{len(value)} of them" if isinstance(value, list) else str(value)[:60]


def _in_short(one: Any) -> str:
    """A thing that came or went, in a few words."""
    words = [str(getattr(one, name)) for name in ("name", "kind") if getattr(one, name, "")]
    sizes = [f"{_worded(name)[0]} {value:g}" for name, value in one if isinstance(value, float)][:3]
    return ", ".join(dict.fromkeys([*words, *sizes]))[:100]
