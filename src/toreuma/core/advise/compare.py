"""Two tools on one cut, side by side: force, power, finish, place in the chip window, leftover, life."""

import math
from dataclasses import dataclass

from toreuma.core.cutting import finish, force
from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.cutting.life import life_evidence
from toreuma.core.cutting.situation import Cut, Situation
from toreuma.core.model import Insert, Job, Tool
from toreuma.core.model.tool import BoringTool, TurningTool
from toreuma.core.reach.tool_reach import Surface, reach_on
from toreuma.core.scene import Scene

__all__ = ["Comparison", "compare"]

STANDING_NOTE = "a flat shoulder keeps this much where the leading edge leans away from it"


@dataclass(frozen=True)
class Comparison:
    """The same rows for both tools; a row is None where a tool has no such number."""

    names: tuple[str, str]
    rows: tuple[tuple[Evidence | None, Evidence | None], ...]


def compare(
    job: Job, scene: Scene, first: Tool, second: Tool, surface: Surface, feed_mm_rev: float, ap_mm: float
) -> Comparison:
    """Both tools at one feed (mm/rev) and depth (mm on radius). Only turning and boring tools have cutting numbers."""
    columns = [_column(job, scene, tool, surface, feed_mm_rev, ap_mm) for tool in (first, second)]
    keys = list(dict.fromkeys([*columns[0], *columns[1]]))
    rows = tuple((columns[0].get(key), columns[1].get(key)) for key in keys)
    return Comparison((first.name or first.id, second.name or second.id), rows)


def _column(job: Job, scene: Scene, tool: Tool, surface: Surface, feed: float, ap: float) -> dict[str, Evidence]:
    found: dict[str, Evidence] = {}
    if isinstance(tool, TurningTool | BoringTool):
        carrier = tool.holder if isinstance(tool, TurningTool) else tool.bar
        found |= _cutting(job, tool.insert, carrier.entering_angle_deg, feed, ap)
    left = reach_on(scene, tool, surface).area_mm2
    found["left"] = Evidence("left on the part", "", left, "mm2", formula="metal of the surface less what it covers")
    return found


def _cutting(job: Job, insert: Insert, entering_deg: float, feed: float, ap: float) -> dict[str, Evidence]:
    material = job.stock.material
    nose = insert.ic_mm / 2 if insert.shape == "R" else insert.nose_radius_mm
    row = next((s for s in material.speeds if s.tool_material == insert.material), None)
    vc = row.rough_m_min if row is not None else 1.0
    situation = Situation(
        material=material,
        machine=job.machine,
        tool_material=insert.material,
        use="rough",
        d_mm=100.0,
        mean_d_mm=50.0,
        nose_mm=nose,
        entering_deg=entering_deg,
    )
    cut = Cut(ap, feed, vc)
    seen = situation.see(cut)
    inputs = (
        Input("feed", "f", feed, "mm/rev"),
        Input("depth", "ap", ap, "mm"),
        Input("effective entering angle", "κe", seen.edge.entering_deg, "deg"),
        Input("equivalent chip thickness", "he", seen.edge.thickness_mm, "mm"),
    )
    found = {"force": Evidence("cutting force", "Fc", seen.cutting_n, "N", formula="Fc = kc1.1 he^-mc ap f",
                               source=force.KIENZLE, inputs=inputs)}  # fmt: skip
    found["passive"] = Evidence("passive force", "Fp", seen.passive_n, "N", source="Colwell 1954",
                                formula="share of Fc, square to the chord of the engaged edge")  # fmt: skip
    if row is not None:
        power = force.cutting_power_kw(seen.cutting_n, vc)
        found["power"] = Evidence("power at the edge", "Pc", power, "kW", formula="Pc = Fc vc / 60000",
                                  source=force.KIENZLE,
                                  inputs=(Input("surface speed", "vc", vc, "m/min"),))  # fmt: skip
    if nose > 0:
        found["ra"] = finish.finish_evidence(material, feed, nose)
    if insert.chip_window:
        found["window"] = _window(insert, feed, ap)
    if row is not None:
        found["life"] = life_evidence(situation, cut)
    found["edges"] = Evidence("edges", "", float(insert.edges), "", formula="corners, on both faces where both cut")
    lean = max(90.0 - entering_deg, 0.0)
    if insert.shape != "R":
        standing = ap * math.tan(math.radians(lean))
        found["standing"] = Evidence("left standing at a shoulder", "", standing, "mm", formula="ap tan(90° − κ)",
                                     note=STANDING_NOTE, measured_on="along Z")  # fmt: skip
    return found


def _window(insert: Insert, feed: float, ap: float) -> Evidence:
    """How far inside the chip window the cut lies: 1 in its middle, 0 on its border, less than 0 outside."""
    feeds, depths = zip(*insert.chip_window, strict=True)
    shares = [
        1 - abs(2 * (value - low) / (high - low) - 1)
        for value, low, high in ((feed, min(feeds), max(feeds)), (ap, min(depths), max(depths)))
        if high > low
    ]
    note = "chips break" if min(shares) >= 0 else "outside the window: strings of chips, or crushed ones"
    return Evidence("place in the chip window", "", min(shares), "ratio", note=note,
                    formula="1 in the middle, 0 on the border, by feed and by depth")  # fmt: skip
