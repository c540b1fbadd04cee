"""Mills that a carrier drives: typical sizes and tooth feeds."""

from collections.abc import Iterator
from typing import Any

__all__ = ["mills"]


def mills() -> Iterator[dict[str, Any]]:
    """Rows of end mills, for steel and for aluminium, with square and with rounded corners, and ball ends."""
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
