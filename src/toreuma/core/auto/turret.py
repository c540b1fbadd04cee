"""Which station each tool sits in, apart from its neighbours as far as there is room; and doing with fewer tools."""

import itertools
from collections.abc import Mapping, Sequence
from dataclasses import replace

from toreuma.core.advise.advice import Advice
from toreuma.core.advise.candidate import Candidate
from toreuma.core.advise.seated import behind
from toreuma.core.auto.steps import RouteStep
from toreuma.core.model import Job, Tool, TurningTool
from toreuma.core.model.tool import BoringTool
from toreuma.core.plan.turret.at_spindle import faces, facing_other, reaching

__all__ = ["also_facing", "seated", "spared"]

SAME_MM2, SQUARE_DEG = 0.3, 90.0
"""Leftovers that count as the same; entering angles from which on a tool faces."""

Advised = tuple[RouteStep, Advice]


def spared(steps: Sequence[Advised], stations: int, known: Mapping[str, Tool]) -> list[Advised]:
    """The steps with as few tools as the machine has stations, as far as that goes: facing with a tool that is
    there anyway, then drilling without a spot, then a bore with one bar, then the outside with one tool."""
    kept = list(steps)

    def too_many() -> bool:
        return len({tool.name for step, _ in kept for tool in step.tools} | set(known)) > stations

    if too_many():
        kept = [
            (_shared(step, advice, kept), advice) if step.group == "face" else (step, advice) for step, advice in kept
        ]
    if too_many():
        kept = [(step, advice) for step, advice in kept if step.operation.name != "Spot"]
    for few, many in (("finish bore", "rough bore"), ("rough outside", "finish outside")):
        if too_many():
            kept = _with_one(kept, few, many)
    return kept


def also_facing(advice: Advice) -> Advice:
    """Advice for roughing with a tool first that faces as well, where it leaves no more: one tool less."""
    best = advice.best
    if best is None or advice.split is not None or _faces(best):
        return advice
    one = next((c for c in advice.candidates if _faces(c) and c.left_mm2 <= best.left_mm2 + SAME_MM2), None)
    if one is None:
        return advice
    first = replace(one, against="", reasons=(*one.reasons, "faces as well: one tool less than with the strongest"))
    others = (behind(c, first) if c.strength <= first.strength else c for c in advice.candidates if c is not one)
    told = (c if c.against else replace(c, against="it does not face: one tool more") for c in others)
    return replace(advice, candidates=(first, *told))


def _faces(one: Candidate) -> bool:
    """Its edge is not ahead of its nose, and it is fed toward the axis or the chuck."""
    tool = one.tool
    return isinstance(tool, TurningTool) and tool.hand == "right" and tool.holder.entering_angle_deg >= SQUARE_DEG


def _with_one(steps: list[Advised], keeps: str, gives: str) -> list[Advised]:
    """The steps with the tool of one group for another one as well; where a bar of the one does not go into the hole
    that the other finds, the other way round."""
    mine, theirs = ([step for step, _ in steps if step.group == group] for group in (keeps, gives))
    if not mine or not theirs:
        return steps
    tool, changed = mine[0].tool, gives
    if isinstance(tool, BoringTool) and isinstance(theirs[0].tool, BoringTool):
        slim = theirs[0].tool
        tool, changed = (slim, keeps) if slim.bar.diameter_mm < tool.bar.diameter_mm else (tool, gives)
    reason = "serves roughing and finishing: stations are few"
    return [
        (replace(step, tool=tool, reasons=(reason,)), advice) if step.group == changed else (step, advice)
        for step, advice in steps
    ]


def _shared(face: RouteStep, advice: Advice, steps: Sequence[Advised]) -> RouteStep:
    """Facing with the best of the tools other steps need."""
    needed = {tool.name for step, _ in steps if step is not face for tool in step.tools}
    one = next((candidate for candidate in advice.candidates if candidate.tool.name in needed), None)
    if one is None:
        return _with_same_holder(face, advice, steps)
    return RouteStep(
        group=face.group,
        operation=face.operation,
        tool=one.tool,
        reasons=(*one.reasons, "serves another cut as well: stations are few"),
    )


def _with_same_holder(face: RouteStep, advice: Advice, steps: Sequence[Advised]) -> RouteStep:
    """Facing with a tool of the same holder that another cut needs, with its insert."""
    holders = {one.tool.holder for one in advice.candidates if isinstance(one.tool, TurningTool)}
    others = (step.tool for step, _ in steps if step is not face and isinstance(step.tool, TurningTool))
    same = next((tool for tool in others if isinstance(tool, TurningTool) and tool.holder in holders), None)
    return face if same is None else replace(face, tool=same, reasons=("serves another cut as well: stations are few",))


def seated(job: Job, names: Sequence[str], tools: Mapping[str, Tool], known: Mapping[str, Tool]) -> dict[str, Tool]:
    """Tools by name with station and id, evenly spread over what is free on carriers that reach the spindle in hand;
    ``known`` ones stay where they sit, and none of the job's tools loses its station.

    Where there are more tools than stations, the last ones get numbers past the turret's end, and planning says so. A
    tool that would face away from the spindle is taken of the other hand.
    """
    placed = {name: known[name] for name in names if name in known}
    fresh = [name for name in names if name not in known]
    taken = {tool.station for tool in (*known.values(), *job.tools)}
    there = [station for carrier in reaching(job) for station in job.machine.stations_of(carrier)]
    free = [station for station in sorted(there) if station not in taken]
    apart = max(1, len(free) // max(len(fresh), 1))
    chosen = free[::apart][: len(fresh)]
    beyond = max([job.machine.stations, *taken]) + 1
    chosen += range(beyond, beyond + len(fresh) - len(chosen))
    named = {tool.id for tool in (*known.values(), *job.tools)}
    for name, station in zip(fresh, chosen, strict=True):
        # A tool that was moved keeps its name: another one in its old place gets one that nobody has.
        numbers = itertools.chain((station,), itertools.count(1))
        free_name = next(text for n in numbers if (text := f"T{n}") not in named)
        named.add(free_name)
        tool = tools[name].changed(id=free_name, station=station)
        placed[name] = tool if faces(job, tool) else facing_other(tool)
    return placed
