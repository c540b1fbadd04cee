"""Whether the holder of a driven tool stands in jaws, chuck or metal beside the cut."""

import shapely
from shapely.affinity import translate

from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.region import Region, depth_inside, union
from toreuma.core.model import Job
from toreuma.core.model.tool import Mill, Tap
from toreuma.core.motion import Motion
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.hold.cures import stick_out_more
from toreuma.core.spoken import q, said

__all__ = ["holder_in_the_way"]

TOUCH_MM = 0.05


def holder_in_the_way(work: Work, motions: list[Motion]) -> tuple[Finding, ...]:
    """The deepest place where the holder would stand in something, in the plane the tool stands in."""
    body = translate(_behind(work), -work.shape.tip[0], -work.shape.tip[1])
    ends = {motion.end for motion in motions if not motion.is_rapid and not motion.event}
    solids = {"jaws or chuck": work.scene.fixed, "the part": work.stock}
    worst: tuple[float, str, Region] | None = None
    along = 0.0
    for name, solid in solids.items():
        for z, x in ends:
            met = translate(body, z, x).intersection(solid)
            deep = depth_inside(met, solid) if met.area > TOUCH_MM**2 else 0.0
            if name != "the part" and deep > TOUCH_MM:
                along = max(along, float(met.bounds[2] - met.bounds[0]))
            if deep > TOUCH_MM and (worst is None or deep > worst[0]):
                worst = deep, name, met
    if worst is None:
        return ()
    deep, name, met = worst
    what = said("the holder of {} would stand {} in {}", work.tool.id, q(deep, "mm", ".1f"), name)
    cures = _drawn_out(work, body, solids[name], ends)
    if name != "the part":
        cures.append(stick_out_more(float(int(along) + 2)))
    at = met.representative_point()
    why = "draw the tool out farther, take a longer one, or stick the piece out"
    place = float(at.x), float(at.y)
    return (Finding("error", "driven.holder", what, why, operation=work.operation.id, at=place, cures=tuple(cures)),)


def _behind(work: Work) -> Region:
    """What comes behind the cutting part; of a tap whose shank follows its thread only what holds it."""
    tool = work.tool
    if isinstance(tool, Tap) and tool.follows_into(tool.d_mm - tool.pitch_mm):
        return union([shapely.MultiPoint(piece).convex_hull for piece in work.shape.held])
    return work.shape.body


def _drawn_out(work: Work, body: Region, solid: Region, ends: set[tuple[float, float]]) -> list[Cure]:
    """A mill drawn out of its holder far enough, where it is long enough."""
    tool = work.tool
    if not isinstance(tool, Mill):
        return []
    for more in (2.0, 5.0, 10.0, 15.0, 20.0, 30.0):
        out = tool.out_mm + more
        if out > 0.7 * tool.overall_length_mm:
            return []
        by = (0.0, more) if tool.mount == "radial" else (more, 0.0)
        moved = translate(body, *by)
        if not any(shapely.intersects(translate(moved, z, x), solid) for z, x in ends):
            label = said("Draw {} out {} more", tool.id, q(more, "mm", "g"))
            return [Cure(label, lambda j, far=out: _out(j, tool.id, far))]  # type: ignore[misc]
    return []


def _out(job: Job, tool_id: str, out: float) -> Job:
    return job.changed(tools=tuple(one.changed(stick_out_mm=out) if one.id == tool_id else one for one in job.tools))
