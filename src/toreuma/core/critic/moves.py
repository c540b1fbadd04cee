"""What moving one operation in front of others needs, and the cure that does it."""

from collections.abc import Callable

from toreuma.core.findings import Cure
from toreuma.core.model import Job, Operation

__all__ = ["may_pass", "move_before", "moved", "name_of"]

AFTER: dict[str, tuple[str, ...]] = {
    "finish_od": ("rough_od", "face"),
    "rough_bore": ("drill",),
    "finish_bore": ("rough_bore", "drill"),
    "ream": ("drill", "rough_bore"),
    "tap": ("drill",),
    "thread": ("rough_od", "finish_od", "groove", "finish_bore"),
    "groove": ("rough_od", "rough_bore"),
    "drill": ("face", "drill"),
    "rough_od": ("rough_od",),
}
"""Kinds that have to come before a kind, as a rule; parting off comes last, feeding the bar first."""

LAST, FIRST = "part_off", "feed_bar"


def moved(operation: str, before: str) -> Callable[[Job], Job]:
    """Put one operation right in front of another."""

    def apply(job: Job) -> Job:
        moving = job.operation(operation)
        if moving is None:
            return job
        rest = [one for one in job.operations if one.id != operation]
        at = next((i for i, one in enumerate(rest) if one.id == before), len(rest))
        return job.with_setup(operations=(*rest[:at], moving, *rest[at:]))

    return apply


def move_before(operation: Operation, other: Operation) -> Cure:
    """The cure that puts one operation right in front of another."""
    return Cure(f"Move '{name_of(operation)}' before '{name_of(other)}'", moved(operation.id, other.id))


def name_of(operation: Operation) -> str:
    return operation.name or operation.id


def may_pass(moving: Operation, others: list[Operation]) -> bool:
    """Nothing among the others has to come before the one that is to be moved in front of them."""
    needed = AFTER.get(moving.kind, ())
    return moving.kind != LAST and not any(one.kind in (*needed, LAST, FIRST) for one in others)
