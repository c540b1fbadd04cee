"""What goes wrong with holes on the axis."""

from toreuma.core.cutting.figures import Figures
from toreuma.core.findings import Finding
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
    found = []
    depth = hole.start_z - hole.end_z
    if depth > tool.flute_length_mm + 1e-6:
        found.append(
            Finding(
                "error",
                "drill.flute",
                said(
                    "{} deep, the flutes of {} are {} long",
                    q(depth, "mm", ".1f"),
                    tool.id,
                    q(tool.flute_length_mm, "mm", "g"),
                ),
                "the chips have no way out and the drill breaks: take a longer one",
                operation=operation.id,
                at=(hole.end_z, 0.0),
            )
        )
    if hole.start_z > 0.02 and tool.form in ("centre", "spot"):
        found.append(
            Finding(
                "warning",
                "drill.unfaced",
                said("the front still stands {} before its place", q(hole.start_z)),
                "face first: the spot would be cut away again, or a pip pushes the point aside",
                operation=operation.id,
            )
        )
    before = work.given.neighbours.begun_by
    if (
        tool.form in ("twist", "step")
        and before is None
        and depth > WANDERS_DIAMETERS * tool.d_mm
        and hole.start_z > -1.0
    ):
        found.append(
            Finding(
                "warning",
                "drill.wanders",
                f"{tool.id} starts without a spot or centre and goes {depth / tool.d_mm:.1f} diameters deep",
                "a long drill wanders at the start: spot it first",
                operation=operation.id,
            )
        )
    if tool.form == "flat" and before is None:
        found.append(
            Finding(
                "warning",
                "drill.flat_start",
                f"{tool.id} has no point and starts on the full",
                "nothing guides it: drill the hole with a point first, and let the flat one clear its floor",
                operation=operation.id,
            )
        )
    if (
        before is not None
        and before.form == "spot"
        and tool.form == "twist"
        and before.point_deg < tool.point_deg - 0.5
    ):
        found.append(
            Finding(
                "note",
                "drill.spot_angle",
                f"the spot is {before.point_deg:g}°, the drill's point {tool.point_deg:g}°",
                "the lips touch first with their corners: spot with an angle not smaller than the drill's",
                operation=operation.id,
            )
        )
    return found


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
