"""What came of a program, in lines."""

from typing import Any

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
    found += [_beside(row, system) for row in rows["beside"]]
    for row in rows["threads"]:
        front, back = _plain(row["front_z"], system), _plain(row["back_z"], system)
        found.append(f"thread, lead {_plain(row['lead_mm'], system)}   Z {front} … {back}, {row['passes']} passes")
    more = len(found) - MOST_LINES
    return [*found[:MOST_LINES], *([f"{more} more"] if more > 0 else [])]


def _beside(row: dict[str, Any], system: System) -> str:
    """A hole, a flat or a slot, and at which angle the first stands."""

    def n(key: str) -> str:
        return _plain(row[key], system)

    angle = f"from {row['start_deg']:g}°" if row["count"] > 1 else f"at {row['start_deg']:g}°"
    if row["kind"] == "holes":
        where = f"on Ø {n('circle_d_mm')}" if row["on"] == "front" else f"across   Z {n('z_mm')}"
        deep = f"{n('depth_mm')} deep" if "depth_mm" in row else "through"
        size = f"Ø {n('d_mm')} {row.get('thread', '')}".strip()
        return f"{row['count']} × {size} {where}, {deep}, {angle}"
    if row["kind"] == "flats":
        return f"{row['count']} × flat {n('distance_mm')} from the axis   Z {n('from_z_mm')} … {n('to_z_mm')}, {angle}"
    long = f"Z {n('from_z_mm')} … {n('to_z_mm')}" if row["on"] == "outside" else f"{n('length_mm')} long in the face"
    return f"{row['count']} × slot {n('width_mm')} wide, {n('depth_mm')} deep   {long}, {angle}"


def _plain(mm: float, system: System) -> str:
    text = f"{mm / 25.4:.4f}" if system == "inch" else f"{mm:.3f}"
    return text.rstrip("0").rstrip(".").replace("-", "−")
