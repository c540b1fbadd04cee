"""A new operation of a kind, filled in from what the part and the tools give."""

from collections.abc import Mapping
from typing import Any

from toreuma.core.kinds.operations import OPERATIONS
from toreuma.core.model import Job, Operation
from toreuma.core.model.feature import HolePattern, ThreadFeature
from toreuma.core.standards.threads import Thread
from toreuma.core.standards.threads.form import form_of

__all__ = ["fresh_operation", "with_feature"]


def fresh_operation(job: Job, kind: str, threads: Mapping[str, Thread]) -> dict[str, Any] | str:
    """The fields of a new operation with the first tool and the first feature that suit it; or why there is none."""
    declared = OPERATIONS[kind]
    suits = [t.id for t in job.tools if t.kind in declared.tools and (t.mount != "still") == declared.milled]
    others = [t.id for t in job.tools if t.kind in declared.tools]
    tool = next(iter((*suits, *others, *(t.id for t in job.tools))), "T1")
    entry: dict[str, Any] = {"id": job.free_operation_id(), "kind": kind, "name": declared.label, "tool": tool}
    if not declared.cuts:
        return entry
    index = _first(job, kind, declared.cuts)
    if index is None:
        return f"the part has no {declared.names_what_it_cuts}: give it one on the part stage first"
    feature = job.part.features[index]
    entry["feature"] = index
    if isinstance(feature, ThreadFeature):
        thread = threads.get(feature.designation)
        if thread is None:
            return f"no standard here knows the thread '{feature.designation}'"
        entry |= {"name": f"Thread {feature.designation}", "form": form_of(thread, feature.side, feature.designation)}
        return entry
    if feature.name:
        entry["name"] = f"{declared.label}: {feature.name}" if declared.milled else feature.name
    if isinstance(feature, HolePattern) and feature.thread in threads:
        entry["form"] = form_of(threads[feature.thread], "inside", feature.thread)
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
        return operation.changed(
            feature=index, form=form_of(threads[feature.designation], feature.side, feature.designation)
        )
    if isinstance(feature, HolePattern):
        known = threads.get(feature.thread)
        form = form_of(known, "inside", feature.thread) if known is not None else None
        return operation.changed(feature=index, form=form)
    return operation.changed(feature=index)
