"""Mills that a carrier drives: typical sizes and tooth feeds."""

import math
from collections.abc import Iterator
from typing import Any

__all__ = ["mills"]


def mills() -> Iterator[dict[str, Any]]:
    """Rows of end mills, for steel and for aluminium, with square and with rounded corners, ball ends, and mills for
    edges and threads."""
    for d in (2.0, 3.0, 4.0, 5.0, 6.0, 8.0, 10.0, 12.0, 16.0, 20.0, 25.0):
        yield _mill(f"EM {d:g} HM", d, 3 if d < 6 else 4)
    for d in (3.0, 4.0, 5.0, 6.0, 8.0, 10.0, 12.0, 16.0, 20.0):
        yield {**_mill(f"EM {d:g} AL", d, 2 if d < 6 else 3), "material": "uncoated carbide",
               "fz_mm": [round(0.004 * d, 4), round(0.013 * d, 4)]}  # fmt: skip
    for d in (4.0, 6.0, 8.0, 10.0, 12.0, 16.0):
        for corner in (0.5, 1.0):
            if corner < d / 5:
                yield {**_mill(f"EM {d:g} R{corner:g}", d, 4), "corner_radius_mm": corner}
    for d in (3.0, 4.0, 6.0, 8.0, 10.0, 12.0):
        yield {**_mill(f"EB {d:g} HM", d, 2), "corner_radius_mm": d / 2}

    yield from _chamfer_mills()
    yield from _thread_mills()


def _chamfer_mills() -> Iterator[dict[str, Any]]:
    """Cones of 60, 90 and 120 degrees on a blunt end."""
    for angle, sizes in ((90, (4.0, 6.0, 8.0, 10.0, 12.0, 16.0, 20.0)), (60, (6.0, 10.0)), (120, (8.0, 12.0))):
        for d in sizes:
            tip = 0.2 if d < 6 else 1.0 if d < 12 else 2.0
            yield {
                "name": f"CM {d:g} {angle}",
                "kind": "chamfer_mill",
                "d_mm": d,
                "tip_d_mm": tip,
                "point_deg": angle,
                "teeth": 3 if d < 6 else 4,
                "flute_length_mm": round((d - tip) / 2 / math.tan(math.radians(angle / 2)) + 0.5 * d, 1),
                "overall_length_mm": round(40 + 3 * d, 0),
                "shank_d_mm": max(d, 6.0),
                "stick_out_mm": round(20 + d, 0),
                "material": "coated carbide",
                "fz_mm": [round(0.0015 * d, 4), round(0.006 * d, 4)],
            }


ROWED = ((3.0, 0.5, 2.3), (4.0, 0.7, 3.0), (5.0, 0.8, 3.8), (6.0, 1.0, 4.6), (8.0, 1.25, 6.0), (10.0, 1.5, 7.8),
         (12.0, 1.75, 9.0), (14.0, 2.0, 10.0), (16.0, 2.0, 12.0), (20.0, 2.5, 14.0), (24.0, 3.0, 16.0),
         (30.0, 3.5, 20.0))  # fmt: skip
"""Smallest thread, its pitch, and the diameter of the mill with rows of teeth, mm: typical."""

FINE_ROWED = ((8.0, 1.0, 6.0), (12.0, 1.0, 9.0), (14.0, 1.5, 10.0), (20.0, 1.5, 16.0), (24.0, 2.0, 16.0),
              (30.0, 2.0, 20.0))  # fmt: skip
SINGLE = ((0.5, 1.0, 3.8, 14.0, 60.0), (0.8, 1.5, 6.0, 20.0, 60.0), (1.0, 2.0, 8.0, 26.0, 60.0),
          (1.5, 3.0, 12.0, 38.0, 60.0), (1.5, 3.0, 16.0, 50.0, 60.0), (2.5, 4.5, 20.0, 60.0, 60.0),
          (1.3, 2.4, 10.0, 32.0, 55.0))  # fmt: skip
"""Pitches from and to, diameter, reach and flanks of mills with one row: typical."""


def _thread_mills() -> Iterator[dict[str, Any]]:
    """With rows for coarse and fine threads, twice the thread's diameter long; with one row for several pitches."""
    rows = [(f"TM M{size:g} {pitch:g}", pitch, d, 2.0 * size) for size, pitch, d in ROWED]
    rows += [(f"TM {d:g} {pitch:g}", pitch, d, 2.0 * size) for size, pitch, d in FINE_ROWED]
    for name, pitch, d, long in rows:
        yield _thread_mill(name, d, (pitch, pitch), "all", long, 60.0)
    for low, high, d, reach, flank in SINGLE:
        yield _thread_mill(f"TM {d:g} {low:g}-{high:g} {flank:g}", d, (low, high), "one", reach, flank)


def _thread_mill(
    name: str, d: float, pitches: tuple[float, float], rows: str, long: float, flank: float
) -> dict[str, Any]:
    return {
        "name": name,
        "kind": "thread_mill",
        "d_mm": d,
        "teeth": 3 if d < 8 else 4,
        "profile_deg": flank,
        "pitch_mm": list(pitches),
        "rows": rows,
        "flute_length_mm": long,
        "overall_length_mm": round(long + 4 * d + 20, 0),
        "shank_d_mm": next(shank for shank in (4.0, 6.0, 8.0, 10.0, 12.0, 16.0, 20.0) if shank >= d),
        "stick_out_mm": round(long + 2.0, 1),
        "material": "coated carbide",
        "fz_mm": [round(0.002 * d, 4), round(0.008 * d, 4)],
    }


def _mill(name: str, d: float, teeth: int) -> dict[str, Any]:
    return {
        "name": name,
        "kind": "end_mill",
        "d_mm": d,
        "teeth": teeth,
        "flute_length_mm": round(2.2 * d, 0),
        "overall_length_mm": round(38 + 4 * d, 0),
        "shank_d_mm": max(d, 6.0),
        "material": "coated carbide",
        "fz_mm": [round(0.0016 * d, 4), round(0.009 * d, 4)],
    }
