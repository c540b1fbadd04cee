"""The tools of a side chosen together: one for alike work, and no more than the carrier has stations."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace

from toreuma.core.advise.advice import Advice
from toreuma.core.advise.candidate import Candidate
from toreuma.core.advise.seated import behind
from toreuma.core.auto.steps import FLOOR, REST, SPOT, RouteStep
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Job, PartingTool, Relief, Tool, TurningTool
from toreuma.core.model.tool import BoringTool, Drill, GroovingTool
from toreuma.core.plan.numbers.drilling import point_length_mm
from toreuma.core.plan.turn.bore import FACED_MM
from toreuma.core.reach.relieved import slides_in

__all__ = ["FEW", "Choice", "also_facing", "by_need", "spared", "together"]

FLAT = 180.0
SAME_MM2, SQUARE_DEG = 0.3, 90.0
"""Leftovers that count as the same; entering angles from which on a tool faces."""

NARROW = 0.6
"""A blade narrower than this share of the one advised costs more time in a groove than a change of tool."""

OUTSIDE = ("rough outside", "finish outside", "face")
POINT_DEG = 1.0
FEW = "stations are few"

FIRST_NEEDED = (
    "feed bar", "part off", "rough outside", "face", "finish outside", "thread", "drill bore", "rough bore", "tap",
    "drill", "groove", "groove inside", "relief inside", "finish bore",
)  # fmt: skip
"""What is kept where not all tools have a station, the most needed first; then everything else, and then what only
cleans up: spots, broken edges, what a first tool leaves."""

Choice = tuple[RouteStep, Advice]
"""A step with the advice its tool was taken from."""


def together(steps: Sequence[Choice]) -> list[Choice]:
    """The steps with one blade for grooves that it cuts as well as another, and one spot drill."""
    return _one_spot(_one_blade(list(steps)), exact=True)


def spared(job: Job, steps: Sequence[Choice], stations: int, known: Mapping[str, Tool]) -> list[Choice]:
    """The steps with as few tools as the machine has stations, as far as that goes; what costs least is given up
    first. ``known`` are tools that sit there anyway."""
    kept = list(steps)
    for saving in SAVINGS:
        if len({tool.name for step, _ in kept for tool in step.tools} | set(known)) <= stations:
            break
        kept = saving(kept, job)
    return kept


def by_need(steps: Sequence[RouteStep]) -> list[str]:
    """The names of the tools, those that can be done without last."""

    def need(step: RouteStep) -> int:
        cleans = _spots(step) or step.operation.name.endswith(REST) or _breaks_edge(step)
        if cleans or step.group not in FIRST_NEEDED:
            return len(FIRST_NEEDED) + cleans
        return FIRST_NEEDED.index(step.group)

    ranked: dict[str, int] = {}
    for step in steps:
        for tool in step.tools:
            ranked[tool.name] = min(need(step), ranked.get(tool.name, need(step)))
    return sorted(ranked, key=lambda name: ranked[name])


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


def _spots(step: RouteStep) -> bool:
    return step.operation.name == SPOT


def _breaks_edge(step: RouteStep) -> bool:
    """A pointed drill only breaks an edge."""
    return step.group == "finish bore" and isinstance(step.tool, Drill)


# What is shared at no price


def _one_blade(steps: list[Choice]) -> list[Choice]:
    """Grooves by the fewest blades, where these are among the candidates of each and leave no more; of those that cut
    as many grooves the widest."""
    found = list(steps)
    open_ = {index: _blades(one) for index, one in enumerate(steps) if _by_one_blade(one)}
    while len(open_) > 1:
        able = {name: blade for blades in open_.values() for name, blade in blades.items()}
        cuts = {name: [index for index, blades in open_.items() if name in blades] for name in able}
        name = max(able, key=lambda n: (len(cuts[n]), able[n].blade.width_mm, able[n].hand == "right", n), default="")
        if len(cuts.get(name, ())) < 2:
            return found
        for index in cuts[name]:
            found[index] = _by_blade(found[index], name)
            del open_[index]
    return found


def _by_one_blade(one: Choice) -> bool:
    step = one[0]
    return step.group == "groove" and not step.also and isinstance(step.tool, GroovingTool)


def _blades(one: Choice, share: float = NARROW) -> dict[str, GroovingTool]:
    """Blades that leave no more of a groove than the one advised, and are no narrower than a share of it, by name."""
    step, advice = one
    blades = [c for c in advice.candidates if isinstance(c.tool, GroovingTool)]
    least = min((c.left_mm2 for c in blades), default=0.0)
    whole = min((c.rank[:1] for c in blades), default=())  # those that come down to the floor, where there are any
    able = (c.tool for c in blades if c.left_mm2 <= least + SAME_MM2 and c.rank[:1] <= whole)
    wide = share * step.tool.blade.width_mm  # type: ignore[union-attr]
    return {tool.name: tool for tool in able if isinstance(tool, GroovingTool) and tool.blade.width_mm >= wide}


def _by_blade(one: Choice, name: str) -> Choice:
    step, advice = one
    if step.tool.name == name:
        return one
    best = next(c for c in advice.candidates if c.tool.name == name)
    return replace(step, tool=best.tool, reasons=(*best.reasons, "cuts another groove as well: one tool less")), advice


def _one_spot(steps: list[Choice], exact: bool) -> list[Choice]:
    """One spot drill for all that is spotted: ``exact``, with a point not sharper than the one advised; else the one
    that breaks an edge, or the widest."""
    pointed = [step.tool for step, _ in steps if _spots(step) and isinstance(step.tool, Drill)]
    pointed += [step.tool for step, _ in steps if _breaks_edge(step) and isinstance(step.tool, Drill)]
    breaking = {step.tool.name for step, _ in steps if _breaks_edge(step)}

    def shared(step: RouteStep) -> RouteStep:
        mine = step.tool
        if not _spots(step) or not isinstance(mine, Drill):
            return step
        able = [one for one in pointed if not exact or one.point_deg > mine.point_deg - POINT_DEG]
        best = max(able, key=lambda one: (not exact and one.name in breaking, one.d_mm))
        if best.name == mine.name:
            return step
        return replace(step, tool=best, reasons=("serves another hole as well: one tool less",))

    return [(shared(step), advice) for step, advice in steps]


# What is given up where stations are few


def _facing_shared(steps: list[Choice], job: Job) -> list[Choice]:
    """Facing with a tool that is there anyway."""
    return [(_shared(step, advice, steps) if step.group == "face" else step, advice) for step, advice in steps]


def _shared(face: RouteStep, advice: Advice, steps: Sequence[Choice]) -> RouteStep:
    """Facing with the best of the tools other steps need."""
    needed = {tool.name for step, _ in steps if step is not face for tool in step.tools}
    one = next((candidate for candidate in advice.candidates if candidate.tool.name in needed), None)
    if one is None:
        return _with_same_holder(face, advice, steps)
    return replace(face, tool=one.tool, reasons=(*one.reasons, f"serves another cut as well: {FEW}"), also=())


def _with_same_holder(face: RouteStep, advice: Advice, steps: Sequence[Choice]) -> RouteStep:
    """Facing with a tool of the same holder that another cut needs, with its insert."""
    holders = {one.tool.holder for one in advice.candidates if isinstance(one.tool, TurningTool)}
    others = (step.tool for step, _ in steps if step is not face and isinstance(step.tool, TurningTool))
    same = next((tool for tool in others if isinstance(tool, TurningTool) and tool.holder in holders), None)
    return face if same is None else replace(face, tool=same, reasons=(f"serves another cut as well: {FEW}",))


def _one_spot_for_all(steps: list[Choice], job: Job) -> list[Choice]:
    return _one_spot(steps, exact=False)


def _rest_by_the_finisher(steps: list[Choice], job: Job) -> list[Choice]:
    """What the rougher leaves, roughed with the finishing tool: no second rougher."""
    finisher = next((step.tool for step, _ in steps if _is_main(step, "finish outside")), None)
    if finisher is None:
        return steps
    return [
        (replace(step, tool=finisher, reasons=(f"the finishing tool takes it: {FEW}",)), advice)
        if step.group == "rough outside" and step.operation.name.endswith(REST) and step.tool.hand == finisher.hand
        else (step, advice)
        for step, advice in steps
    ]


def _one_outside(steps: list[Choice], job: Job) -> list[Choice]:
    """The outside with one tool: the rougher where it finishes as much, else the strongest that does."""
    rougher = next((step.tool for step, _ in steps if _is_main(step, "rough outside")), None)
    finish = next((pair for pair in steps if _is_main(pair[0], "finish outside")), None)
    if rougher is None or finish is None or not finish[1].candidates:
        return steps
    able = finish[1].candidates
    least = min(one.left_mm2 for one in able)
    full = [one for one in able if one.left_mm2 <= least + SAME_MM2]
    full = [one for one in full if all(slides_in(shape_of(one.tool), relief) for relief in _undercuts(job))] or full
    same = any(one.tool.name == rougher.name for one in full)
    tool = rougher if same else max(full, key=lambda one: one.strength).tool
    if finish[1].split is not None and least > SAME_MM2:  # the helper was chosen for what the finisher leaves
        tool = finish[0].tool
    why = f"serves roughing and finishing: {FEW}"
    return [
        (replace(step, tool=tool, reasons=(why,)), advice)
        if step.group in ("rough outside", "finish outside", "face")
        and step.tool.name in (rougher.name, finish[0].tool.name)
        else (step, advice)
        for step, advice in steps
    ]


def _undercuts(job: Job) -> list[Relief]:
    """Those of the outside that a slim tool takes along."""
    reliefs = (one for one in job.part.features if isinstance(one, Relief))
    return [one for one in reliefs if one.side == "outside" and one.form != "thread"]


def _no_rest(steps: list[Choice], job: Job) -> list[Choice]:
    """Without a second tool for what a first one leaves outside: it is told as left open, or the other side's."""
    return [
        (step, advice)
        for step, advice in steps
        if not (step.group == "finish outside" and step.operation.name.endswith(REST))
    ]


def _unspotted(steps: list[Choice], job: Job) -> list[Choice]:
    return [(step, advice) for step, advice in steps if not _spots(step)]


def _one_bar(steps: list[Choice], job: Job) -> list[Choice]:
    """A bore with one bar: the finishing one, and where the roughing one does not go into the hole that is there, the
    slimmer."""
    mine, theirs = ([step for step, _ in steps if step.group == group] for group in ("finish bore", "rough bore"))
    bars = [step for step in mine if isinstance(step.tool, BoringTool)]
    if not bars or not theirs:
        return steps
    tool, changed = bars[0].tool, "rough bore"
    if isinstance(theirs[0].tool, BoringTool) and isinstance(tool, BoringTool):
        slim = theirs[0].tool
        tool, changed = (slim, "finish bore") if slim.bar.diameter_mm < tool.bar.diameter_mm else (tool, changed)
    why = f"serves roughing and finishing: {FEW}"
    return [
        (replace(step, tool=tool, reasons=(why,)), advice)
        if step.group == changed and isinstance(step.tool, BoringTool)
        else (step, advice)
        for step, advice in steps
    ]


def _grooved_by_the_parting_blade(steps: list[Choice], job: Job) -> list[Choice]:
    """Square grooves outside with the blade that parts off, where a parting blade goes into all of them."""
    off = next((pair for pair in steps if pair[0].group == "part off"), None)
    square = [pair for pair in steps if _is_square(pair[0])]
    if off is None or not square:
        return steps
    widest = min(max(tool.blade.width_mm for tool in _blades(pair, 0.0).values()) for pair in square)
    able = (one for one in off[1].candidates if isinstance(one.tool, PartingTool))
    best = next((one for one in able if _fits(one.tool, widest)), None)
    if best is None:
        return steps
    why = f"cuts grooves and parts off: {FEW}"
    grooves = [step for step, _ in square]
    return [
        (replace(step, tool=best.tool, reasons=(why,)), advice) if step is off[0] or step in grooves else (step, advice)
        for step, advice in steps
    ]


def _floor_by_the_bar(steps: list[Choice], job: Job) -> list[Choice]:
    """Without the drill that clears a flat floor, where a bar comes down to it anyway and faces it to the axis, and so
    low a cone as the drill before leaves with it."""
    named = (step.tool for step, _ in steps if step.group == "drill bore" and step.operation.name != FLOOR)
    drills = [tool for tool in named if isinstance(tool, Drill) and tool.form not in ("spot", "centre")]
    if any(point_length_mm(tool) > FACED_MM for tool in drills):
        return steps
    floor_r = min((one.d_mm / 2 for one in job.part.inside if one.d_mm > 0), default=0.0)
    bars = [step.tool.bar for step, _ in steps if step.group == "finish bore" and isinstance(step.tool, BoringTool)]
    bored = any(bar.functional_width_mm + bar.diameter_mm / 2 <= floor_r for bar in bars)
    return [pair for pair in steps if not (bored and pair[0].operation.name == FLOOR)]


def _is_square(step: RouteStep) -> bool:
    tool = step.tool
    plain = isinstance(tool, GroovingTool) and tool.where == "outside" and not tool.round_tip and tool.tip_deg == FLAT
    return step.group == "groove" and not step.also and plain and tool.hand == "right"


def _fits(blade: object, widest_mm: float) -> bool:
    square = isinstance(blade, PartingTool) and blade.hand == "right" and blade.blade.front_deg == 0
    return square and blade.blade.width_mm <= widest_mm + 1e-6  # type: ignore[attr-defined]


def _is_main(step: RouteStep, group: str) -> bool:
    return step.group == group and not step.operation.name.endswith(REST) and isinstance(step.tool, TurningTool)


SAVINGS: tuple[Callable[[list[Choice], Job], list[Choice]], ...] = (
    _facing_shared, _one_spot_for_all, _rest_by_the_finisher, _one_bar, _grooved_by_the_parting_blade,
    _floor_by_the_bar, _one_outside, _no_rest, _unspotted,
)  # fmt: skip
