"""What goes wrong with holes on the axis."""

from collections.abc import Callable, Iterator

from toreuma.core.cutting.figures import Figures
from toreuma.core.findings import Finding, Severity
from toreuma.core.model import DrillHole
from toreuma.core.model.tool import Drill
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.numbers.drilling import Hole
from toreuma.core.spoken import q, said

__all__ = ["drill_findings", "too_weak"]

WANDERS_DIAMETERS = 3.0
"""Deeper holes than this in diameters are spotted first."""


def drill_findings(work: Work, operation: DrillHole, tool: Drill, hole: Hole) -> list[Finding]:
    """What goes wrong with holes: flutes too short, a wandering point, a pip, a spot that is too pointed."""

    def told(severity: Severity, code: str, what: str, why: str, at: tuple[float, float] | None = None) -> Finding:
        return Finding(severity, code, what, why, operation=operation.id, at=at)

    return [*_too_deep(tool, hole, told), *_start(tool, hole, work.given.neighbours.begun_by, told)]


def _too_deep(tool: Drill, hole: Hole, told: Callable[..., Finding]) -> Iterator[Finding]:
    depth = hole.start_z - hole.end_z
    if depth > tool.flute_length_mm + 1e-6:
        flutes = q(tool.flute_length_mm, "mm", "g")
        what = said("{} deep, the flutes of {} are {} long", q(depth, "mm", ".1f"), tool.id, flutes)
        why = "the chips have no way out and the drill breaks: take a longer one"
        yield told("error", "drill.flute", what, why, (hole.end_z, 0.0))


def _start(tool: Drill, hole: Hole, before: Drill | None, told: Callable[..., Finding]) -> Iterator[Finding]:
    """How the tool finds its way in."""
    diameters = (hole.start_z - hole.end_z) / tool.d_mm
    if hole.start_z > 0.02 and tool.form in ("centre", "spot"):
        what = said("the front still stands {} before its place", q(hole.start_z))
        why = "face first: the spot would be cut away again, or a pip pushes the point aside"
        yield told("warning", "drill.unfaced", what, why)
    if tool.form in ("twist", "step") and before is None and diameters > WANDERS_DIAMETERS and hole.start_z > -1.0:
        what = f"{tool.id} starts without a spot or centre and goes {diameters:.1f} diameters deep"
        yield told("warning", "drill.wanders", what, "a long drill wanders at the start: spot it first")
    if tool.form == "flat" and before is None:
        what = f"{tool.id} has no point and starts on the full"
        why = "nothing guides it: drill the hole with a point first, and let the flat one clear its floor"
        yield told("warning", "drill.flat_start", what, why)
    if before is None or before.form != "spot" or tool.form != "twist":
        return
    if before.point_deg < tool.point_deg - 0.5:
        what = f"the spot is {before.point_deg:g}°, the drill's point {tool.point_deg:g}°"
        why = "the lips touch first with their corners: spot with an angle not smaller than the drill's"
        yield told("note", "drill.spot_angle", what, why)


def too_weak(operation: DrillHole, figures: Figures) -> list[Finding]:
    power, there, rpm = figures.power_kw or 0.0, figures.power_there_kw or 0.0, figures.rpm or 0.0
    if power <= there * 1.0005:
        return []
    what = said(
        "power at the edge {}, at most {} ({})",
        q(power, "kW", ".2f"),
        q(there, "kW", ".2f"),
        f"spindle at {rpm:.0f} rpm",
    )
    return [Finding("error", "power.short", what, "the spindle stalls in the hole: less feed", operation=operation.id)]
