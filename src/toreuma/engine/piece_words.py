"""What came of a program, in lines."""

from toreuma.core.units import System
from toreuma.engine.check_report import piece_rows
from toreuma.engine.study import Cut

__all__ = ["piece_lines"]

MOST_LINES = 40


def piece_lines(cut: Cut, system: System) -> list[str]:
    """Steps outside and in the bore, grooves in the face and threads, front to back; plain numbers in the system's
    unit."""
    found = []
    rows = piece_rows(cut)
    for name, word in (("outside", "Ø"), ("bore", "bore Ø")):
        for row in rows[name]:
            front, back, one, other = (_plain(row[key], system) for key in ("front_z", "back_z", "front_d", "back_d"))
            size = one if one == other else f"{one} … {other}" + (" curved" if row["curved"] else "")
            found.append(f"{word} {size}   Z {front} … {back}")
    for row in rows["face_grooves"]:
        outer, inner, deep = (_plain(row[key], system) for key in ("outer_d", "inner_d", "depth"))
        found.append(f"face groove Ø {outer} … {inner}   {deep} deep")
    for row in rows["threads"]:
        front, back = _plain(row["front_z"], system), _plain(row["back_z"], system)
        found.append(f"thread, lead {_plain(row['lead_mm'], system)}   Z {front} … {back}, {row['passes']} passes")
    more = len(found) - MOST_LINES
    return [*found[:MOST_LINES], *([f"{more} more"] if more > 0 else [])]


def _plain(mm: float, system: System) -> str:
    text = f"{mm / 25.4:.4f}" if system == "inch" else f"{mm:.3f}"
    return text.rstrip("0").rstrip(".").replace("-", "−")
