"""What came of a program, in lines."""

from toreuma.core.units import System, show
from toreuma.engine.check_report import piece_rows
from toreuma.engine.study import Cut

__all__ = ["piece_lines"]

MOST_LINES = 40


def piece_lines(cut: Cut, system: System) -> list[str]:
    """Steps outside and in the bore, and threads, front to back."""
    found = []
    rows = piece_rows(cut)
    for name, word in (("outside", "Ø"), ("bore", "bore Ø")):
        for row in rows[name]:
            front, back, one, other = (
                show(row[key], "mm", system, trim=True) for key in ("front_z", "back_z", "front_d", "back_d")
            )
            size = one if one == other else f"{one} … {other}" + (" curved" if row["curved"] else "")
            found.append(f"{word} {size}  Z {front} … {back}")
    for row in rows["threads"]:
        front, back = (show(row[key], "mm", system, trim=True) for key in ("front_z", "back_z"))
        found.append(f"thread, lead {show(row['lead_mm'], 'mm', system, trim=True)}  Z {front} … {back}")
    more = len(found) - MOST_LINES
    return [*found[:MOST_LINES], *([f"{more} more"] if more > 0 else [])]
