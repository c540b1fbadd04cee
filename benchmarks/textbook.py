"""Cycle times of the demo jobs against a plain textbook plan of the same cuts.

The textbook turns with one tool outside and one inside, the one that finishes, at one depth and one feed each, the
largest that keeps every limit in every cut of it; grooves, threads, drilling and parting off stay as they are.
"""

from toreuma.core.model import Job
from toreuma.core.plan import Plan
from toreuma.core.plan.sides.second_side import plan_sides
from toreuma.shipped.library import demo_job, demo_names

__all__ = ["compare", "textbook"]

TURNING = {"outside": ("rough_od", "finish_od", "face"), "inside": ("rough_bore", "finish_bore")}


def textbook(job: Job, sides: tuple[Plan, ...]) -> Job:
    """The job with one turning tool for each side of the metal, and its numbers pinned."""
    setups = []
    for setup, planned in zip(job.setups, sides, strict=True):
        operations = setup.operations
        for kinds in TURNING.values():
            operations = _plain(job, operations, planned, kinds)
        setups.append(setup.changed(operations=operations))
    return job.changed(setups=tuple(setups))


def _plain(job: Job, operations, planned: Plan, kinds: tuple[str, ...]):  # type: ignore[no-untyped-def]
    own = [op for op in operations if op.kind in kinds]
    finish = next((op for op in own if op.kind.startswith("finish")), None)
    if finish is None:
        return operations
    alone = job.changed(
        setups=(planned.job.setup.changed(operations=tuple(op.changed(tool=finish.tool) for op in own)),)
    )
    first = plan_sides(planned.job.changed(setups=alone.setups))[0]
    feeds = [one.reasons["f"].number for one in first.operations if "f" in one.reasons and one.motions]
    depths = [one.reasons["ap_max"].number for one in first.operations if "ap_max" in one.reasons and one.motions]
    if not feeds:
        return operations
    pins = {"feed_mm_rev": min(feeds)}
    plain, roughed = [], False
    for op in operations:
        if op.kind not in kinds:
            plain.append(op)
            continue
        if op.kind.startswith("rough"):
            if roughed:  # one roughing with one tool takes all
                continue
            roughed = True
        depth = {"ap_mm": min(depths)} if depths and not op.kind.startswith("finish") else {}
        plain.append(op.changed(tool=finish.tool, pins=op.pins.changed(**pins, **depth)))
    return tuple(plain)


def compare() -> None:
    """Print the ratio for every demo job."""
    for name in demo_names():
        job = demo_job(name)
        sides = plan_sides(job)
        ours = sum(side.times.total_s for side in sides)
        theirs = sum(side.times.total_s for side in plan_sides(textbook(job, sides)))
        print(f"cycle of {name} / textbook plan: {ours / theirs:.2f} ({ours:.0f} s / {theirs:.0f} s)")
