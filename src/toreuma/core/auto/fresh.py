"""A new operation of a kind, filled in from what the part and the tools give."""

from collections.abc import Mapping
from typing import Any

from toreuma.core.model import Job, Operation
from toreuma.core.model.feature import ThreadFeature
from toreuma.core.plan.kinds import KINDS
from toreuma.core.standards.threads import Thread
from toreuma.core.standards.threads.form import form_of

__all__ = ["fresh_operation", "with_feature"]

TOOLS = {
    "part_off": ("parting",),
    "drill": ("drill",),
    "ream": ("reamer",),
    "rough_bore": ("boring",),
    "finish_bore": ("boring",),
    "groove": ("grooving", "parting", "form"),
    "thread": ("threading",),
    "tap": ("tap",),
    "feed_bar": ("bar_stop", "bar_puller"),
    "holes": ("drill", "tap", "reamer"),
    "flats": ("end_mill",),
    "slot": ("end_mill",),
}
MILLED = {"holes": "holes beside the axis", "flats": "flats", "slot": "slot"}
GROOVES = ("groove", "face_groove", "relief")


def fresh_operation(job: Job, kind: str, threads: Mapping[str, Thread]) -> dict[str, Any] | str:
    """The fields of a new operation with the first tool and the first feature that suit it; or why there is none."""
    wanted = TOOLS.get(kind, ("turning",))
    suits = [t.id for t in job.tools if t.kind in wanted and (t.mount != "still") == (kind in MILLED)]
    others = [t.id for t in job.tools if t.kind in wanted]
    tool = next(iter((*suits, *others, *(t.id for t in job.tools))), "T1")
    entry: dict[str, Any] = {"id": job.free_operation_id(), "kind": kind, "name": KINDS[kind].label, "tool": tool}
    if kind == "groove":
        index = _first(job, kind, GROOVES)
        if index is None:
            return "the part has no groove or relief: give it one on the part stage first"
        entry |= {"feature": index, "name": job.part.features[index].name or entry["name"]}
    if kind in MILLED:
        index = _first(job, kind, (kind,))
        if index is None:
            return f"the part has no {MILLED[kind]}: give it one on the part stage first"
        entry |= {
            "feature": index,
            "name": f"{entry['name']}: {name}" if (name := job.part.features[index].name) else entry["name"],
        }
    if kind == "thread":
        index = _first(job, kind, ("thread",))
        if index is None:
            return "the part has no thread: give it one on the part stage first"
        feature = job.part.features[index]
        assert isinstance(feature, ThreadFeature)
        thread = threads.get(feature.designation)
        if thread is None:
            return f"no standard here knows the thread '{feature.designation}'"
        entry |= {"feature": index, "name": f"Thread {feature.designation}", "form": form_of(thread, feature.side)}
    return entry


def _first(job: Job, kind: str, kinds: tuple[str, ...]) -> int | None:
    """The first feature of these kinds that no operation cuts yet, else the first at all."""
    cut = {getattr(one, "feature", -1) for one in job.operations if one.kind == kind}
    fitting = [index for index, feature in enumerate(job.part.features) if feature.kind in kinds]
    return next((index for index in fitting if index not in cut), fitting[0] if fitting else None)


def with_feature(operation: Operation, job: Job, index: int, threads: Mapping[str, Thread]) -> Operation:
    """The operation turned to another groove or thread of the part."""
    feature = job.part.features[index]
    if isinstance(feature, ThreadFeature) and feature.designation in threads:
        return operation.changed(feature=index, form=form_of(threads[feature.designation], feature.side))
    return operation.changed(feature=index)
