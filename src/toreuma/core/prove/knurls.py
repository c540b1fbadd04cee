"""Knurls as they were rolled: what the wheels raised, held against the ridges that are drawn."""

from collections.abc import Iterator
from dataclasses import dataclass

import shapely

from toreuma.core.findings import Finding, Severity
from toreuma.core.geometry.knurled import knurled, nominal_d_mm
from toreuma.core.geometry.region import Region, box, union
from toreuma.core.model import Job
from toreuma.core.model.tool import KnurlingTool
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said
from toreuma.core.standards.knurls import pressed_mm, raised_mm

__all__ = ["Rolled", "knurl_findings", "rolled_by"]

DEPTH_MM, END_MM = 0.03, 0.2
"""Ridges may be so much too low or too high, and end so far from where they are drawn."""

GAP_MM = 0.003
"""So far apart stock and ridges are one."""


@dataclass(frozen=True)
class Rolled:
    """A stretch pressed by wheels: ``line`` of the program, the ring ``raised``, and how deep it was ``pressed_mm``."""

    line: int
    station: int
    raised: Region
    pressed_mm: float

    def grown_on(self, stock: Region) -> Region:
        """The stock with what was raised, which may hang a chord's height above it."""
        low, bottom, high, _ = self.raised.bounds
        gap = box(low, bottom - GAP_MM, high, bottom).intersection(stock.buffer(GAP_MM, join_style="mitre"))
        return union([stock, gap, self.raised])


def rolled_by(tool: KnurlingTool, line: int, stock: Region, swept: Region) -> Rolled | None:
    """What wheels that sweep over a region do to the stock; None where they do not touch it."""
    pressed = stock.intersection(swept)
    if pressed.is_empty or pressed.area < 1e-6:
        return None
    low, root, high, _ = pressed.bounds
    surface = float(shapely.clip_by_rect(stock, low, 0, high, 1e4).bounds[3])
    deep = surface - root
    whole = pressed_mm(tool.form, tool.pitch_mm)
    up = raised_mm(tool.form, tool.pitch_mm) * deep / whole
    return Rolled(line, tool.station, box(low, surface, high, surface + up), deep)


def knurl_findings(job: Job, scene: Scene, final: Region, rolled: list[Rolled]) -> Iterator[Finding]:
    """Knurls that are not there, not deep enough, too deep, or elsewhere, and those of the part that nothing rolls."""
    wanted = {one.feature for one in job.operations if one.kind == "knurl" and one.enabled}
    for index, knurl in knurled(job.part):
        low, high = knurl.from_z_mm - knurl.length_mm, knurl.from_z_mm
        nominal = nominal_d_mm(job.part, index, knurl)
        name = knurl.name or f"knurl {knurl.form} {knurl.pitch_mm:g}"
        there = shapely.clip_by_rect(final, low + END_MM, 0, high - END_MM, 1e4)
        d = 2 * float(there.bounds[3]) if not there.is_empty else 0.0
        if index not in wanted:
            if d < nominal - 2 * DEPTH_MM or not scene.cut_before:
                what = f"{name} is not rolled by any operation"
                severity: Severity = "note" if len(job.setups) > 1 else "warning"
                why = "the part has a smooth cylinder there, below its drawn diameter"
                yield Finding(severity, "knurl.missing", what, why, at=(high, 0.0))
            continue
        lines = [one.line for one in rolled]
        line = lines[0] if lines else None
        if not any(one.raised.bounds[0] < high and low < one.raised.bounds[2] for one in rolled):
            what = f"{name} is not rolled"
            yield Finding("error", "knurl.open", what, "the cylinder stays smooth, and below its drawn diameter")
            continue
        if abs(d - nominal) > 2 * DEPTH_MM:
            sense = "too high" if d > nominal else "too low"
            what = said("{}: the ridges come to Ø {}, Ø {} is drawn: {}", name, q(d), q(nominal), sense)
            yield Finding("error", "knurl.depth", what, "the wheels are pressed in wrongly", line=line)
        ends = min(one.raised.bounds[0] for one in rolled), max(one.raised.bounds[2] for one in rolled)
        if ends[0] > low + END_MM or ends[1] < high - END_MM:
            what = said("{} is rolled from Z {} to {}", name, q(ends[1], bare=True), q(ends[0]))
            why = said("it is drawn from Z {} to {}", q(high, bare=True), q(low))
            yield Finding("error", "knurl.short", what, why, line=line)
