"""How long a part should take by a plain sum: volume at the rate that machine and an ordinary insert allow, one
finishing cut over the contour, parting off, threads, and a few seconds for every tool. No plan is looked at."""

import math
from collections.abc import Iterable

import shapely

from toreuma.core.geometry.part_shape import build_part
from toreuma.core.model import Job
from toreuma.core.scene import build_scene

__all__ = ["estimate_s"]

SPEED_M_MIN = {"P": 180.0, "M": 130.0, "K": 160.0, "N": 250.0, "S": 40.0, "H": 100.0}
"""Ordinary coated carbide; textbook middle values by ISO 513 group."""
ROUGH_FEED, FINISH_FEED, DRILL_FEED, PART_FEED = 0.22, 0.12, 0.12, 0.06
MOST_DEPTH_MM, DEPTH_SHARE = 2.5, 0.06
"""Depth of cut: not more than this share of the diameter."""
MOVES_S = 4.0
"""Of each tool, besides its change: to the work and back, speed up."""
MILLED_S = 8.0
"""A place milled or drilled beside the axis."""


def estimate_s(job: Job) -> float:
    """Seconds for one part, both sides."""
    shape, scene = build_part(job.part), build_scene(job)
    material, machine = job.stock.material, job.machine
    solid, blank = shape.region, scene.stock
    front, back = solid.bounds[2], solid.bounds[0]
    blank = blank.intersection(shapely.box(back - 3.0, 0.0, front + 5.0, 1e4))
    speed = SPEED_M_MIN[material.group]
    top = max(machine.power, key=lambda one: one.power_kw).power_kw
    d = 2 * float(solid.bounds[3])
    depth = min(MOST_DEPTH_MM, max(0.3, DEPTH_SHARE * d))
    rpm = min(1000 * speed / (math.pi * d), machine.max_rpm)
    by_insert = rpm * math.pi * d / 1000 * depth * ROUGH_FEED
    by_power = top * machine.efficiency * 60_000 / (material.kc11_n_mm2 * (0.2**-material.mc))
    removed = (_volume([blank]) - _volume([solid])) / 1000
    seconds = 60 * removed / min(by_insert, by_power)
    seconds += 60 * _contour(solid) / (FINISH_FEED * rpm)
    seconds += 60 * (d / 2) / (PART_FEED * min(2 * rpm, machine.max_rpm))
    tools = 3 + (1 if job.part.inside else 0)
    if job.part.inside or any(one.kind == "axial_hole" for one in job.part.features):
        tools += 1
        bore = 2 * float(min((r for _, r in _points(solid) if r > 0.1), default=5.0))
        seconds += 60 * (front - back) / (DRILL_FEED * min(1000 * 0.6 * speed / (math.pi * bore), machine.max_rpm))
    for one in job.part.features:
        if one.kind in ("holes", "flats", "slot"):
            seconds += MILLED_S * getattr(one, "count", 1)
            tools += 2
        elif one.kind != "relief":
            tools += 1
        if one.kind == "thread":
            slow = min(1000 * 0.6 * speed / (math.pi * d), machine.max_rpm, 2000.0)
            seconds += 60 * 10 * (one.length_mm + 6) / (1.5 * slow)
    change = max(carrier.tool_change_s for carrier in machine.carriers)
    return float(seconds + tools * (change + MOVES_S))


def _volume(regions: Iterable[shapely.Geometry]) -> float:
    """mm3 by Pappus."""
    return sum(2 * math.pi * part.centroid.y * part.area for one in regions for part in shapely.get_parts(one))


def _points(solid: shapely.Geometry) -> list[tuple[float, float]]:
    return [(x, y) for x, y in shapely.get_coordinates(solid)]


def _contour(solid: shapely.Geometry) -> float:
    """Length of all that is turned, mm."""
    return float(sum(one.length for one in shapely.get_parts(solid.boundary)))
