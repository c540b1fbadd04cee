"""What the next tools ask of a drilled hole: a tap its lead, a reamer its stock, a boring bar its diameter."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.cutting.figures import Figure, Reasons
from toreuma.core.findings import Cure, Finding
from toreuma.core.model import DrillHole, FinishBore, Job, Operation, ReamHole, RoughBore, TapHole
from toreuma.core.model.feature import AxialHole
from toreuma.core.model.tool import BoringTool, Drill, Reamer, Tap, Tool
from toreuma.core.plan.axis.ream import reaming_stock_mm
from toreuma.core.plan.axis.tap import CLEAR_PITCHES
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.numbers.drilling import Hole, point_length_mm
from toreuma.core.spoken import q, said

__all__ = ["needs_after"]

LIFT_OFF_MM = 0.15
"""A bar needs at least this to come off the wall it has cut."""

SAME_MM = 0.02


@dataclass(frozen=True, kw_only=True)
class _Need:
    """What one later operation asks for: least diameter and least depth to the full diameter, mm, and why."""

    operation: Operation
    words: str
    least_d_mm: float | None = None
    most_d_mm: float | None = None
    least_depth_mm: float | None = None


def needs_after(work: Work, operation: DrillHole, tool: Drill, hole: Hole) -> tuple[Reasons, tuple[Finding, ...]]:
    """Evidence of what is asked, and findings where this hole, the last one drilled, does not give it."""
    if tool.form in ("centre", "spot") or any(one.kind == "drill" for one, _ in work.given.neighbours.goes_on):
        return {}, ()
    needs = list(_needs(work))
    if not needs:
        return {}, ()
    depth = -hole.end_z - point_length_mm(tool)
    inputs = [Input(f"{need.words}, diameter", "", need.least_d_mm, "mm") for need in needs if need.least_d_mm]
    inputs += [Input(f"{need.words}, depth", "", need.least_depth_mm, "mm") for need in needs if need.least_depth_mm]
    if not hole.is_through and any(isinstance(n.operation, RoughBore | FinishBore) for n in needs):
        inputs.append(Input("cone that stays on the floor", "", point_length_mm(tool), "mm"))
    asked = Evidence(
        "asked by the next tools",
        "",
        depth,
        "mm",
        measured_on="deep",
        inputs=tuple(inputs),
        formula="diameter and depth to the full diameter that later operations need",
    )
    return {Figure.NEXT: asked}, tuple(_unmet(operation, tool, hole, depth, needs))


def _needs(work: Work) -> Iterator[_Need]:
    for operation, tool in work.given.neighbours.goes_on:
        maker = NEEDS.get(operation.kind)
        need = maker(work, operation, tool) if maker is not None else None
        if need is not None:
            yield need
        if isinstance(operation, RoughBore | FinishBore):  # what comes after finds another hole
            return


def _of_tap(work: Work, operation: Operation, tool: Tool) -> _Need | None:
    if not isinstance(operation, TapHole) or not isinstance(tool, Tap):
        return None
    holes = [one for one in work.given.part.features if isinstance(one, AxialHole) and one.thread]
    wanted = operation.depth_mm or next((one.thread_length_mm for one in holes if one.thread_length_mm), None)
    bore = tool.d_mm - (0.5 if tool.form == "forming" else 1.0) * tool.pitch_mm
    lead = (tool.lead_pitches + CLEAR_PITCHES) * tool.pitch_mm
    deep = wanted + lead if wanted is not None else None
    return _Need(
        operation=operation,
        words=said("{} with {} of lead and room", tool.thread, q(lead, "mm", ".1f")),
        least_d_mm=bore - 0.15 * tool.pitch_mm,
        most_d_mm=bore + 0.2 * tool.pitch_mm,
        least_depth_mm=deep,
    )


def _of_reamer(_: Work, operation: Operation, tool: Tool) -> _Need | None:
    if not isinstance(operation, ReamHole) or not isinstance(tool, Reamer):
        return None
    stock = reaming_stock_mm(tool)
    return _Need(
        operation=operation,
        words=said("reamer Ø {}", q(tool.d_mm, "mm", "g", bare=True)),
        least_d_mm=tool.d_mm - 2 * stock,
        most_d_mm=tool.d_mm - 0.4 * stock,
    )


def _of_bar(_: Work, operation: Operation, tool: Tool) -> _Need | None:
    if not isinstance(operation, RoughBore | FinishBore) or not isinstance(tool, BoringTool):
        return None
    room = tool.bar.functional_width_mm + tool.bar.diameter_mm / 2 + LIFT_OFF_MM
    return _Need(operation=operation, words=f"bar of {tool.id} with room to lift off", least_d_mm=room)


NEEDS: dict[str, Callable[[Work, Operation, Tool], _Need | None]] = {
    "tap": _of_tap,
    "ream": _of_reamer,
    "rough_bore": _of_bar,
    "finish_bore": _of_bar,
}


def _unmet(operation: DrillHole, tool: Drill, hole: Hole, depth: float, needs: list[_Need]) -> Iterator[Finding]:
    for need in needs:
        name = need.operation.name or need.operation.id
        place = (hole.end_z, 0.0)
        if need.least_d_mm is not None and tool.d_mm < need.least_d_mm - SAME_MM:
            what = said(
                "'{}' asks for a hole of Ø {}, this one is Ø {}", name, q(need.least_d_mm), q(tool.d_mm, "mm", "g")
            )
            yield Finding(
                "warning", "next.narrow", what, f"{need.words}: a larger drill", operation=operation.id, at=place
            )
        if need.most_d_mm is not None and tool.d_mm > need.most_d_mm + SAME_MM:
            what = said(
                "'{}' asks for a hole of Ø {} at most, this one is Ø {}",
                name,
                q(need.most_d_mm),
                q(tool.d_mm, "mm", "g"),
            )
            yield Finding(
                "warning", "next.wide", what, f"{need.words}: a smaller drill", operation=operation.id, at=place
            )
        if need.least_depth_mm is not None and not hole.is_through and depth < need.least_depth_mm - SAME_MM:
            short = need.least_depth_mm - depth
            what = said(
                "'{}' asks for {} to the full diameter, this is {} short",
                name,
                q(need.least_depth_mm, "mm", ".1f"),
                q(short, "mm", ".1f"),
            )
            cure = Cure(
                said("Drill {} deep", q(need.least_depth_mm, "mm", ".1f")), _deeper(operation.id, need.least_depth_mm)
            )
            yield Finding("warning", "next.shallow", what, need.words, operation=operation.id, at=place, cures=(cure,))


def _deeper(identifier: str, depth_mm: float) -> Callable[[Job], Job]:
    return lambda job: job.with_operation(identifier, lambda op: op.changed(depth_mm=round(depth_mm, 2)))
