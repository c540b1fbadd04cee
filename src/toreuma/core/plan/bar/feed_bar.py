"""Feeding the bar to a stop, or drawing it with a gripper: as far out of the spindle as the plan holds it."""

from collections.abc import Iterator

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.cutting.figures import Figure
from toreuma.core.findings import Finding
from toreuma.core.geometry.region import Region, box
from toreuma.core.model import FeedBar, Job, Operation
from toreuma.core.model.tool import BarPuller, BarStop
from toreuma.core.motion import STOPPED
from toreuma.core.plan.bar.supply import cut_width_mm
from toreuma.core.plan.ground.given import Neighbours
from toreuma.core.plan.ground.path import APPROACH_MM, Path
from toreuma.core.plan.ground.result import Cuts, OperationFault
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.hold.cures import stick_out_more
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said

__all__ = ["BAR_KINDS", "bar_before", "is_fed", "loop_findings", "plan_feed_bar"]

BAR_KINDS = ("round", "polygon", "tube")


def is_fed(job: Job) -> bool:
    """The route begins by feeding the bar."""
    first = next((operation for operation in job.operations if operation.enabled), None)
    return first is not None and first.kind == "feed_bar"


def beside_bar(job: Job, operation: Operation) -> Neighbours:
    """Whether the bar is fed before anything is cut, and how wide the cut was that took the part before off."""
    first = next((one for one in job.operations if one.enabled), None)
    return Neighbours(is_first=first is not None and first.id == operation.id, cut_off_mm=cut_width_mm(job))


def bar_before(job: Job, scene: Scene) -> Region:
    """What the part before left in the hold: the bar up to the cut that took it off."""
    end = scene.profile.back_z - cut_width_mm(job)
    return scene.stock.intersection(box(-1e5, 0, end, 1e5)) if is_fed(job) else scene.stock


def plan_feed_bar(work: Work, operation: FeedBar) -> Cuts:
    """The stop goes to where the bar shall end; the hold opens, the bar comes out against it, the hold closes.

    A gripper goes over the bar's end instead, and draws.
    """
    tool, stock = work.tool, work.given.stock
    if not isinstance(tool, BarStop | BarPuller):
        raise OperationFault("tool.kind", f"{tool.id} feeds no bar", "choose a bar stop or a gripper")
    if stock.kind not in BAR_KINDS or stock.length_mm is not None:
        what = "the blank is no bar" if stock.kind not in BAR_KINDS else "the blank is a piece cut to length, no bar"
        raise OperationFault("bar.none", what, "choose a bar on the stock stage, or take this out")
    if not work.given.neighbours.is_first:
        raise OperationFault("bar.order", "the bar is fed before anything is cut", "move this to the front")
    place = work.scene.stock_front_z
    end = float(work.stock.bounds[2])
    path = Path(work, STOPPED)
    findings: list[Finding] = []
    if isinstance(tool, BarPuller):
        findings += _out_of_grip(work, operation, tool, end)
        path.come(end + tool.grip_mm + APPROACH_MM, 0.0)
        path.slide(operation.draw_mm_min, end)
        path.event("unclamp", operation.dwell_s)
        path.slide(operation.draw_mm_min, place)
        path.event("clamp", operation.dwell_s)
        path.slide(operation.draw_mm_min, place + tool.grip_mm + APPROACH_MM)
    else:
        path.come(place + APPROACH_MM, 0.0)
        path.rapid(z=place)
        path.event("unclamp", operation.dwell_s)
        path.event("clamp", operation.dwell_s)
        path.rapid(z=place + APPROACH_MM)
    path.leave()
    fed = place - end
    values = {
        Figure.LENGTH: Evidence(
            "bar drawn out" if isinstance(tool, BarPuller) else "bar fed out", "", fed, "mm", measured_on="along Z",
            formula="part, part-off cut and facing",
            inputs=(Input("part", "l", -work.scene.profile.back_z, "mm"),
                    Input("part-off", "w", work.given.neighbours.cut_off_mm, "mm"),
                    Input("facing", "a", place, "mm")),
        ),
    }  # fmt: skip
    return Cuts(
        motions=tuple(path.motions), passes=(), reasons=values, findings=tuple(findings), becomes=work.scene.stock
    )


def _out_of_grip(work: Work, operation: FeedBar, tool: BarPuller, end: float) -> Iterator[Finding]:
    """The bar is too thick or too thin for the gripper, or its end too near the hold."""
    low, high = tool.grips_mm
    d = 2 * work.scene.stock_r
    if not low <= d <= high:
        what = said(
            "{} grips Ø{} to Ø{}, the bar is Ø{}",
            tool.id,
            q(low, "mm", "g", bare=True),
            q(high, "mm", "g", bare=True),
            q(d, "mm", "g", bare=True),
        )
        yield Finding("error", "bar.grip", what, "it slips, or does not go over the bar", operation=operation.id)
    near = work.scene.clear_z + work.given.hold.tool_clearance_mm
    if end - tool.grip_mm < near:
        missing = near - (end - tool.grip_mm)
        out = end - work.scene.clear_z
        what = said(
            "the end of the bar stands {} out, the fingers reach {} over it",
            q(out, "mm", ".1f"),
            q(tool.grip_mm, "mm", "g"),
        )
        cure = stick_out_more(float(int(missing) + 1))
        yield Finding("error", "bar.short_end", what, "they run into the hold", operation=operation.id, cures=(cure,))


def loop_findings(job: Job) -> tuple[Finding, ...]:
    """Several parts in one run need a bar that is fed and a part that comes off."""
    if job.program.parts == 1:
        return ()
    found, cut = [], any(one.kind == "part_off" and one.enabled for one in job.operations)
    drawn = job.hand_over is not None and job.hand_over.how == "pulled"
    if not is_fed(job) and not drawn:
        what = f"{job.program.parts} parts in one run, and nothing feeds the bar"
        found.append(Finding("error", "loop.feed", what, "the second part would be cut in air: feed the bar first"))
    if not cut:
        what = f"{job.program.parts} parts in one run, and no part is parted off"
        found.append(Finding("error", "loop.part_off", what, "the first part would be cut again"))
    return tuple(found)
