"""Blades for parting off and grooving, tools that pull and form, stops, pullers and knurls: typical sizes."""

from collections.abc import Iterator
from typing import Any

__all__ = ["blades"]

Row = dict[str, Any]
BLOCK = {"block_width_mm": 12.0, "functional_length_mm": 125.0, "grade": "P20-P35 M20-M35"}
ANY = {**BLOCK, "grade": "P10-P35 M15-M35 K15-K30"}
SHARP = {**BLOCK, "grade": "N05-N25 S10-S25", "material": "uncoated carbide"}

PARTING = ((1.5, 8.0), (2.0, 16.0), (2.0, 25.0), (2.5, 18.0), (2.5, 30.0), (3.0, 22.0), (3.0, 35.0),
           (3.0, 45.0), (4.0, 35.0), (4.0, 55.0), (5.0, 45.0), (5.0, 60.0), (6.0, 54.0), (6.0, 65.0))  # fmt: skip

CIRCLIP_MM = (1.1, 1.3, 1.6, 1.85, 2.15, 2.65, 3.15, 4.15)
"""Widths of grooves for circlips (DIN 471, DIN 472), mm."""

SMALL_CIRCLIP_MM = (0.5, 0.7, 0.8, 0.9)
"""The same for shafts from 3 to 8 mm."""

OUTSIDE = ((1.0, 3.0), (1.5, 4.0), (1.5, 8.0), (2.0, 8.0), (2.0, 14.0), (2.5, 10.0), (3.0, 14.0), (4.0, 18.0),
           (5.0, 20.0), (6.0, 22.0), (8.0, 25.0))  # fmt: skip

INSIDE_BARS = ((5.0, 6.0), (6.0, 8.0), (8.0, 11.0), (10.0, 14.0), (12.0, 17.0), (16.0, 22.0), (20.0, 28.0),
               (25.0, 36.0), (32.0, 46.0))  # fmt: skip
"""Diameter of the bar and least bore, mm."""

FACE = ((2.0, ((10, 16), (15, 25), (24, 40)), 6.0), (3.0, ((14, 20), (18, 28), (24, 40), (38, 65), (60, 110)), 12.0),
        (4.0, ((20, 32), (30, 48), (40, 90), (80, 200)), 18.0), (5.0, ((30, 50), (45, 80), (75, 200)), 25.0),
        (6.0, ((40, 70), (65, 120), (110, 200)), 25.0))  # fmt: skip
"""Width, diameters of the first cut, depth, mm."""


def blades() -> Iterator[Row]:
    """Rows of everything that plunges, and of what moves the bar."""
    yield from _parting()
    yield from _outside()
    yield from _inside()
    yield from _face()
    yield from _others()


def _blade(code: str, width: float, depth: float, feed: tuple[float, float], corner: float, **more: Any) -> Row:
    return {
        "code": code,
        "width_mm": width,
        "corner_radius_mm": corner,
        "depth_mm": depth,
        "feed_range_mm_rev": [round(feed[0], 3), round(feed[1], 3)],
        **more,
    }


def _both(row: Row) -> Iterator[Row]:
    """A tool of either hand: a left-hand one has its block on the chuck's side, free of a shoulder in front."""
    yield row
    yield {**row, "name": f"{row['name']} L", "hand": "left", "blade": {**row["blade"], "code": f"{row['name']} L"}}


def _parting() -> Iterator[Row]:
    for width, depth in PARTING:
        name = f"PB {width:g} {depth:g}"
        feed = (0.03 + 0.01 * width, 0.06 + 0.03 * width)
        yield from _both({"name": name, "kind": "parting", "blade": _blade(name, width, depth, feed, 0.2, **BLOCK)})
    for hand, letter in (("right", "R"), ("left", "L")):
        for width, depth, angle in ((2.0, 16.0, 6.0), (3.0, 22.0, 6.0)):
            name = f"PB {width:g} {depth:g} {angle:g}{letter}"
            feed = (0.02 + 0.01 * width, 0.05 + 0.02 * width)
            blade = _blade(name, width, depth, feed, 0.2, front_deg=angle, **BLOCK)
            yield {"name": name, "kind": "parting", "hand": hand, "blade": blade}


def _outside() -> Iterator[Row]:
    for width, depth in OUTSIDE:
        name = f"GO {width:g} {depth:g}"
        corner = 0.1 if width < 2 else 0.2
        blade = _blade(name, width, depth, (0.04, 0.05 + 0.03 * width), corner, **BLOCK)
        yield from _both({"name": name, "kind": "grooving", "where": "outside", "blade": blade})
    for width in SMALL_CIRCLIP_MM:
        name = f"GO {width:g} 1.2"
        blade = _blade(name, width, 1.2, (0.01, 0.02 + 0.02 * width), 0.05, **ANY)
        yield from _both({"name": name, "kind": "grooving", "where": "outside", "blade": blade})
    for width in CIRCLIP_MM:
        depth = round(1.5 * width, 1)
        name = f"GO {width:g} {depth:g}"
        blade = _blade(name, width, depth, (0.03, 0.05 + 0.02 * width), 0.1, **ANY)
        yield from _both({"name": name, "kind": "grooving", "where": "outside", "blade": blade})
    for width in (2.0, 3.0, 4.0, 5.0, 6.0, 8.0):
        name = f"GR {width:g}"
        blade = _blade(name, width, 4 * width, (0.05, 0.05 + 0.03 * width), width / 2, **ANY)
        yield {"name": name, "kind": "grooving", "where": "outside", "round_tip": True, "blade": blade}
    for angle, width in ((30.0, 8.0), (38.0, 6.0), (36.0, 8.0), (34.0, 8.0), (40.0, 8.0), (60.0, 5.0), (90.0, 6.0)):
        name = f"GV {angle:g} {width:g}"
        blade = _blade(name, width, 18.0, (0.05, 0.15), 0.4, **BLOCK)
        yield {"name": name, "kind": "grooving", "where": "outside", "tip_deg": angle, "blade": blade}
    for pitch, corner in ((2.34, 0.15), (3.56, 0.2), (4.7, 0.3)):  # ribs of pulleys to ISO 9982, 40 degrees
        name = f"GV 40 {pitch:g}"
        blade = _blade(name, pitch, 8.0, (0.03, 0.1), corner, **BLOCK)
        yield {"name": name, "kind": "grooving", "where": "outside", "tip_deg": 40.0, "blade": blade}


def _inside() -> Iterator[Row]:
    sized = [(1.2, 10.0, 14.0), (2.0, 16.0, 22.0), (3.0, 20.0, 28.0)]
    for d, least in INSIDE_BARS:
        widths = (0.8, 1.0, 1.1, 1.3, 1.5, 1.6, 1.85, 2.0, 2.15, 2.65, 3.0, 3.15, 4.0, 4.15, 5.0, 6.0)
        sized += [(width, d, least) for width in widths if 0.1 * d <= width <= 0.32 * d]
    for width, d, least in dict.fromkeys(sized):
        name = f"GI {width:g} {d:g}"
        blade = _blade(name, width, round(d / 5, 1), (0.03, 0.1), 0.1, **(BLOCK if (width, d) in OLD else ANY))
        bar = {
            "entering_angle_deg": 90.0,
            "diameter_mm": d,
            "functional_width_mm": round(d / 2 + d / 5 + 0.5, 2),
            "functional_length_mm": 10 * d,
            "least_bore_mm": least,
        }
        if d / 2 + bar["functional_width_mm"] > least:
            bar["functional_width_mm"] = round(least - d / 2 - 0.1, 2)
        yield {"name": name, "kind": "grooving", "where": "inside", "blade": blade, "bar": bar}


OLD = ((1.2, 10.0), (2.0, 16.0), (3.0, 20.0))


def _face() -> Iterator[Row]:
    for width, ranges, depth in FACE:
        for low, high in ranges:
            name = f"GF {width:g} {low}-{high}"
            blade = _blade(f"GF {width:g}", width, depth, (0.05, 0.12), 0.2, **ANY)
            yield {
                "name": name,
                "kind": "grooving",
                "where": "face",
                "first_cut_mm": [float(low), float(high)],
                "blade": blade,
            }


def _others() -> Iterator[Row]:
    yield {"name": "BS 20", "kind": "bar_stop", "d_mm": 20.0, "length_mm": 60.0}
    for low, high in ((6.0, 16.0), (14.0, 32.0), (30.0, 52.0)):
        yield {
            "name": f"BG {high:g}",
            "kind": "bar_puller",
            "grips_mm": [low, high],
            "grip_mm": 8.0,
            "finger_mm": 6.0,
            "length_mm": 70.0,
        }
    for pitch in (0.5, 0.6, 0.8, 1.0, 1.2, 1.6):
        for form, head in (("RAA", 20.0), ("RGE", 25.0)):
            yield {
                "name": f"KN {form} {pitch:g}",
                "kind": "knurling",
                "form": form,
                "pitch_mm": pitch,
                "wheel_d_mm": 20.0,
                "wheel_width_mm": 8.0,
                "head_mm": head,
                "length_mm": 60.0,
                "feed_mm_rev": [0.1, 0.3],
            }
    for width, depth, angle in ((3.0, 12.0, 8.0), (4.0, 18.0, 6.0), (6.0, 18.0, 25.0)):
        name = f"PL {width:g} {angle:g}"
        feed = (0.2, 0.8) if angle < 20 else (0.15, 0.6)
        blade = _blade(name, width, depth, feed, 0.4, **BLOCK)
        yield {"name": name, "kind": "pull", "pull_deg": angle, "blade": blade}
    yield {"name": "FM 45x1.5", "kind": "form", "outline_mm": [[0, 0], [1.5, 1.5], [1.5, 6], [-1.5, 6], [-1.5, 1.5]]}
