"""Random turned parts with bores, and drawings of them in the ways people draw."""

import math
import random
from pathlib import Path
from typing import Any

import ezdxf
from ezdxf.math import arc_to_bulge

from toreuma.core.geometry.elements import Line, Segment
from toreuma.core.geometry.part_shape import PartShape, build_part
from toreuma.core.model import Part


def random_part(rng: random.Random, bored: bool) -> Part:
    """Steps, tapers and arcs outside; a stepped through or blind bore inside."""
    z, d = 0.0, round(rng.uniform(24, 40), 2)
    outside: list[dict[str, Any]] = [{"z_mm": 0.0, "d_mm": d}]
    for _ in range(rng.randint(2, 5)):
        length = round(rng.uniform(6, 18), 2)
        kind = rng.choice(("cylinder", "step", "taper", "arc"))
        if kind == "cylinder":
            z -= length
        elif kind == "step":
            d = round(max(24.0, d + rng.choice((-6, 4, 8))), 2)
            if d == outside[-1]["d_mm"]:
                d = round(d + 3, 2)
            outside.append({"z_mm": round(z, 3), "d_mm": d})
            z -= length
        else:
            z -= length
            d = round(max(24.0, d + rng.uniform(-4, 6)), 2)
        one: dict[str, Any] = {"z_mm": round(z, 3), "d_mm": d}
        if kind == "arc":
            one |= {
                "kind": "arc",
                "radius_mm": round(rng.uniform(12, 30), 2),
                "bulge": rng.choice(("convex", "concave")),
            }
        outside.append(one)
    return Part.model_validate({"outside": outside, "inside": _bore(rng, -z) if bored else []})


def _bore(rng: random.Random, length: float) -> list[dict[str, Any]]:
    d = round(rng.uniform(10, 14), 2)
    first = round(rng.uniform(0.25, 0.4) * length, 2)
    inside: list[dict[str, Any]] = [{"z_mm": 0.0, "d_mm": d}, {"z_mm": -first, "d_mm": d}]
    small = round(d - rng.uniform(2, 4), 2)
    if rng.random() < 0.5:
        inside.append({"z_mm": -first, "d_mm": small})
    second = round(rng.uniform(0.5, 0.8) * length, 2)
    inside.append({"z_mm": -second, "d_mm": small})
    if rng.random() < 0.6:
        inside.append({"z_mm": round(-length, 3), "d_mm": small})
    return inside


def outline_of(shape: PartShape) -> list[Segment]:
    return [s for s in shape.outlines[0] if max(abs(s.start[1]), abs(s.end[1])) > 1e-9]


def draw_dxf(path: Path, part: Part, way: str, inch: bool = False) -> None:
    """``way``: lines, polyline, spline, mirrored, block, gaps, low (drawn below the axis)."""
    document = ezdxf.new("R2010", setup=True)
    document.header["$INSUNITS"] = 1 if inch else 4
    k = 1 / 25.4 if inch else 1.0
    space: Any = document.modelspace()
    outline = outline_of(build_part(part))
    low, high = min(s.start[0] for s in outline), max(s.start[0] for s in outline)
    space.add_line((low * k - 3 * k, 0), (high * k + 3 * k, 0), dxfattribs={"linetype": "CENTER", "layer": "AXIS"})
    target: Any = space
    if way == "block":
        target = document.blocks.new("PROFILE")
        outer = document.blocks.new("OUTER")
        outer.add_blockref("PROFILE", (0, 0))
        space.add_blockref("OUTER", (0, 0))
    if way == "polyline":
        _polylines(target, outline, k)
    for index, segment in enumerate(outline if way != "polyline" else []):
        for sign in (1, -1) if way == "mirrored" else (-1,) if way == "low" else (1,):
            _one(target, segment, k, sign, way, index)
    space.add_text("Ø 30", dxfattribs={"layer": "DIMS"})
    document.saveas(path)


def _one(space: Any, segment: Segment, k: float, sign: int, way: str, index: int) -> None:
    short = 0.01 * k if way == "gaps" and index % 3 == 0 else 0.0
    (z0, r0), (z1, r1) = segment.start, segment.end
    if isinstance(segment, Line):
        length = segment.length * k
        share = 1 - min(short / length, 0.5) if length else 1.0
        end = (z0 + share * (z1 - z0), r0 + share * (r1 - r0))
        space.add_line((z0 * k, sign * r0 * k), (end[0] * k, sign * end[1] * k))
        return
    if way == "spline":
        points = [(z * k, sign * r * k) for z, r in segment.points(1e-5)]
        space.add_spline_control_frame(points) if len(points) < 4 else space.add_spline(points)
        return
    c = segment.centre
    angles = [math.degrees(math.atan2(sign * (r - c[1]), z - c[0])) for z, r in (segment.start, segment.end)]
    if segment.clockwise == (sign > 0):
        angles.reverse()
    space.add_arc((c[0] * k, sign * c[1] * k), segment.radius * k, angles[0], angles[1])


def _polylines(space: Any, outline: list[Segment], k: float) -> None:
    runs: list[list[Segment]] = [[outline[0]]]
    for segment in outline[1:]:
        if math.dist(segment.start, runs[-1][-1].end) < 1e-9:
            runs[-1].append(segment)
        else:
            runs.append([segment])
    for run in runs:
        points = []
        for segment in run:
            bulge = 0.0
            if not isinstance(segment, Line):
                c = segment.centre
                a, b = (math.atan2(r - c[1], z - c[0]) for z, r in (segment.start, segment.end))
                bulge = (
                    -arc_to_bulge(c, b, a, segment.radius)[2]
                    if segment.clockwise
                    else arc_to_bulge(c, a, b, segment.radius)[2]
                )
            points.append((segment.start[0] * k, segment.start[1] * k, bulge))
        points.append((run[-1].end[0] * k, run[-1].end[1] * k, 0.0))
        space.add_lwpolyline(points, format="xyb")


def with_extras(rng: random.Random, part: Part, shape: PartShape) -> Part:
    """The part with holes round the outside or in the face, and flats or a keyway, where there is room."""
    profile = shape.profile
    level = [
        s for s in profile.segments if isinstance(s, Line) and abs(s.start[1] - s.end[1]) < 1e-9 and s.length > 5.5
    ]
    found: list[dict[str, Any]] = []
    front_r = profile.segments[0].end[1]
    hollow = shape.region.bounds[1] > 0 or shape.void is not None
    bore_r = float(shape.void.bounds[3]) if shape.void is not None else 0.0
    if front_r - bore_r > 5 and rng.random() < 0.7:
        found.append(
            {
                "kind": "holes",
                "on": "front",
                "count": rng.choice((1, 2, 3, 4, 6)),
                "d_mm": round(rng.uniform(1.5, 3), 2),
                "depth_mm": round(rng.uniform(2, 4), 2),
                "circle_d_mm": round(front_r + bore_r, 2),
                "start_deg": round(rng.uniform(0, 50), 2),
            }
        )
    if level and rng.random() < 0.6:
        s = rng.choice(level)
        found.append(
            {
                "kind": "holes",
                "on": "outside",
                "count": rng.choice((1, 2, 3)) if hollow else 1,
                "d_mm": round(rng.uniform(1.5, 3), 2),
                "depth_mm": round(rng.uniform(1.5, 3), 2),
                "z_mm": round((s.start[0] + s.end[0]) / 2, 3),
                "start_deg": round(rng.uniform(60, 80), 2),
            }
        )
        level.remove(s)
    if level and rng.random() < 0.7:
        s = rng.choice(level)
        z0, z1, r = s.start[0], s.end[0], s.start[1]
        if rng.random() < 0.5:
            middle = round((z0 + z1) / 2, 3)
            found.append(
                {
                    "kind": "flats",
                    "count": rng.choice((1, 2, 4)),
                    "distance_mm": round(r - rng.uniform(0.8, 1.6), 2),
                    "from_z_mm": round(middle + 1.5, 3),
                    "to_z_mm": round(middle - 1.5, 3),
                    "start_deg": round(rng.uniform(0, 80), 2),
                }
            )
        else:
            found.append(
                {
                    "kind": "slot",
                    "width_mm": 2.0,
                    "depth_mm": 1.5,
                    "from_z_mm": round(z0 - 0.5, 3),
                    "to_z_mm": round(z1 + 0.5, 3),
                    "start_deg": 200.0,
                }
            )
    return Part.model_validate({**part.model_dump(), "features": found})


def matches(wanted: tuple[Any, ...], got: tuple[Any, ...]) -> bool:
    """Every feature is there once with its size and place."""
    left = list(got)
    for feature in wanted:
        same = next((other for other in left if _alike(feature, other)), None)
        if same is None:
            return False
        left.remove(same)
    return not left


def _alike(a: Any, b: Any) -> bool:
    if a.kind != b.kind or getattr(a, "on", "") != getattr(b, "on", "") or a.count != b.count:
        return False
    for name in type(a).model_fields:
        x, y = getattr(a, name), getattr(b, name)
        if name == "start_deg":
            turn = 360 / a.count
            if min((x - y) % turn, (y - x) % turn) > 0.02:
                return False
        elif isinstance(x, float) and name not in ("step_deg",) and (y is None or abs(x - y) > 0.002):
            return False
    return True
