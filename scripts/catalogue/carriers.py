"""Holders and boring bars by family, metric and inch, of both hands; sizes as ISO 5610 and ISO 6261 have them."""

from typing import Any

from toreuma.core.standards.codes import decode
from toreuma.shipped.standards import code_tables

__all__ = ["carriers"]

TABLES = code_tables()

# clamping, shape, style and clearance; hands; shank and size of the insert
HOLDERS: tuple[tuple[str, str, str], ...] = (
    ("PCLN", "RL", "1616H09 1616H12 2020K12 2525M12 2525M16 3232P16 3232P19"),
    ("PCBN", "RL", "2020K12"),
    ("SCLC", "RL", "1010E06 1212F06 1212F09 1616H09 2020K09 2020K12 2525M12"),
    ("PDJN", "RL", "2020K11 2020K15 2525M15 3232P15"),
    ("PDNN", "N", "2020K15 2525M15"),
    ("SDJC", "RL", "1010E07 1212F07 1212F11 1616H11 2020K11 2525M11"),
    ("SDHC", "RL", "1212F07 1212F11 1616H11 2020K11 2525M11"),
    ("SDNC", "N", "1212F07 1616H11 2020K11 2525M11"),
    ("MVJN", "RL", "2020K16 2525M16 3232P16"),
    ("MVVN", "N", "2020K16 2525M16"),
    ("SVJB", "RL", "1212F11 1616H16 2020K16 2525M16"),
    ("SVHB", "RL", "1212F11 1616H16 2020K16 2525M16"),
    ("SVPB", "RL", "1212F11 1616H16 2020K16 2525M16"),
    ("SVVB", "N", "1212F11 1616H16 2020K16 2525M16"),
    ("SVJC", "RL", "1010E11 1212F11 1616H16 2020K16 2525M16"),
    ("SVPC", "RL", "1212F11 1616H16 2020K16 2525M16"),
    ("PWLN", "RL", "1616H06 2020K08 2525M08 3232P08"),
    ("PTGN", "RL", "2020K16 2525M16 2525M22 3232P22"),
    ("STGC", "RL", "1010E11 1212F11 1616H16 2020K16"),
    ("PSBN", "RL", "2020K12"),
    ("SSDC", "N", "1212F09 1616H09 2020K12"),
    ("PSSN", "RL", "2020K12 2525M12 2525M15 3232P19"),
    ("PSDN", "N", "2020K12 2525M12"),
    ("SRDC", "N", "1616H06 1616H08 2020K10 2525M12"),
    ("SRGC", "RL", "1616H06 2020K10 2525M12"),
)

INCH_HOLDERS: tuple[tuple[str, str, str], ...] = (
    ("PCLN", "RL", "10-4B 12-4B 16-4D 20-4E"),
    ("MCLN", "RL", "12-4B 16-4D 20-5E"),
    ("SCLC", "RL", "06-2A 08-3A 10-3B 12-3B 16-4D"),
    ("PDJN", "RL", "12-4B 16-4D 20-4E"),
    ("SDJC", "RL", "06-2A 08-2A 10-3B 12-3B 16-3D"),
    ("MVJN", "RL", "12-3B 16-3D 20-3E"),
    ("SVJB", "RL", "10-3B 12-3B 16-3D"),
    ("SVPB", "RL", "10-3B 12-3B 16-3D"),
    ("SVJC", "RL", "08-2A 10-3B 12-3B 16-3D"),
    ("PWLN", "RL", "12-4B 16-4D 20-4E"),
    ("PTGN", "RL", "12-3B 16-3D 16-4D"),
)

# bar kind by material; clamping, shape, style, clearance and size with the diameters it is usual on
METRIC_BARS: tuple[tuple[str, str, str, str], ...] = (
    ("A", "SCLC", "06", "6 8 10 12"),
    ("A", "SCLC", "09", "16 20"),
    ("A", "PCLN", "12", "25 32 40 50"),
    ("A", "SDUC", "07", "10 12 16"),
    ("A", "SDUC", "11", "20 25 32"),
    ("A", "SDQC", "07", "12 16"),
    ("A", "SDQC", "11", "20 25"),
    ("A", "SVUB", "16", "25 32"),
    ("A", "SVQB", "16", "25 32"),
    ("A", "PWLN", "06", "20 25"),
    ("A", "PWLN", "08", "32 40"),
    ("A", "STFC", "09", "8"),
    ("A", "STFC", "11", "10 12 16"),
    ("A", "STFC", "16", "25"),
    ("A", "STFP", "11", "12 16"),
    ("A", "PDUN", "15", "32 40 50"),
    ("E", "SCLC", "06", "5 6 8 10 12"),
    ("E", "SCLC", "09", "16 20"),
    ("E", "SDUC", "07", "10 12 16"),
    ("E", "SDUC", "11", "20 25"),
    ("E", "STFC", "09", "8"),
    ("E", "STFC", "11", "10 12 16"),
    ("J", "SCLC", "06", "8 10 12"),
    ("J", "SCLC", "09", "16 20"),
    ("J", "SDUC", "07", "12 16"),
    ("D", "PCLN", "12", "25 32 40 50"),
    ("D", "SDUC", "11", "25 32"),
    ("G", "SCLC", "09", "16 20"),
)

INCH_BARS: tuple[tuple[str, str, str, str], ...] = (
    ("A", "SCLC", "2", "06M 08Q"),
    ("A", "SCLC", "3", "10R 12S 16T"),
    ("A", "MCLN", "4", "16T 20U 24U"),
    ("A", "SDUC", "2", "08Q 10R"),
    ("A", "SDUC", "3", "12S 16T"),
    ("E", "SCLC", "2", "06M 08R"),
    ("E", "SCLC", "3", "10R 12S 16T"),
)

# length letter by diameter: steel, heavy metal and damped steel, carbide
LENGTHS = {
    5: "F F F", 6: "F F H", 8: "H H K", 10: "K K M", 12: "M M Q", 16: "R R R", 20: "S S S", 25: "T T T", 32: "U U U",
    40: "V V V", 50: "W W W",
}  # fmt: skip

TIP_MM = {5: 3.5, 6: 4.5, 8: 5.5, 10: 7, 12: 9, 16: 11, 20: 13, 25: 17, 32: 22, 40: 27, 50: 35}
LEAST_MM = {5: 6.5, 6: 8, 8: 10, 10: 13, 12: 16, 16: 20, 20: 25, 25: 32, 32: 40, 40: 50, 50: 63}
"""By bar diameter: the tip beyond the middle of the bar (f) and the least bore (ISO 6261)."""

OFFSET_MM = {8: 10, 10: 12, 12: 16, 16: 20, 20: 25, 25: 32, 32: 40, 40: 50}
STRAIGHT_MM = {8: 7, 10: 9, 12: 11, 16: 13, 20: 17, 25: 22, 32: 27, 40: 35}
"""By shank width: from the tip to the far side (f) of offset shanks, and of styles A, B (ISO 5610)."""

METRIC_OF_INCH = {6: 10, 8: 12, 10: 16, 12: 20, 16: 25, 20: 32, 24: 40}


def carriers() -> list[dict[str, Any]]:
    """Rows of every holder and bar; metric ones first."""
    holders = [
        _holder(f"{head}{hand}{size}") for head, hands, sizes in HOLDERS for size in sizes.split() for hand in hands
    ]
    bars = [_bar(code) for code in _metric_bars()]
    inch = [
        _holder(f"{head}{hand}-{size}")
        for head, hands, sizes in INCH_HOLDERS
        for size in sizes.split()
        for hand in hands
    ]
    inch_bars = [
        _bar(f"{kind}{size}-{head}{hand}{edge}")
        for kind, head, edge, sizes in INCH_BARS
        for size in sizes.split()
        for hand in "RL"
    ]
    return [*holders, *bars, *_back(), *inch, *inch_bars]


def _metric_bars() -> list[str]:
    found = []
    for kind, head, edge, diameters in METRIC_BARS:
        for d in diameters.split():
            steel, heavy, carbide = LENGTHS[int(d)].split()
            letter = {"A": steel, "J": heavy, "D": heavy, "E": carbide, "G": carbide}[kind]
            found += [f"{kind}{int(d):02d}{letter}-{head}{hand}{edge}" for hand in "RL"]
    return found


def _seat(code: Any) -> dict[str, Any]:
    ic = code.ic_mm
    if code.shape == "R" and code.system == "metric":
        ic = TABLES.insert.round_metric_mm[code.positions[-1].symbol]
    return {"shape": code.shape, "ic_mm": ic, "clearance_deg": TABLES.insert.clearance_deg[code.clearance]}


def _holder(text: str) -> dict[str, Any]:
    """Width over the tip: offset styles stand out, A and B a little, those in the middle half of the shank; a round
    insert ends half of its own width beyond."""
    code: Any = decode(text, TABLES)
    width, seat = code.shank_width_mm, _seat(code)
    nearest = min(OFFSET_MM, key=lambda w: abs(w - width))
    if code.hand == "N":
        over = width / 2 + (seat["ic_mm"] / 2 if code.shape == "R" else 0.0)
    else:
        over = (STRAIGHT_MM if code.style in "AB" else OFFSET_MM)[nearest] + (width - nearest)
    return {
        "code": text,
        "hand": "left" if code.hand == "L" else "right",
        "seat": seat,
        "clamping": code.clamping,
        "holder": {
            "code": text,
            "entering_angle_deg": 90.0 if code.shape == "R" else code.entering_angle_deg,
            "shank_width_mm": width,
            "shank_height_mm": code.shank_height_mm,
            "functional_width_mm": round(over, 3),
            "functional_length_mm": code.length_mm or LENGTH_MM[nearest],
            "head_length_mm": round(1.6 * code.ic_mm + 6, 1),
        },
    }


LENGTH_MM = {8: 60, 10: 70, 12: 80, 16: 100, 20: 125, 25: 150, 32: 170, 40: 200}


def _bar(text: str) -> dict[str, Any]:
    code: Any = decode(text, TABLES)
    d = code.shank_diameter_mm
    nearest = min(TIP_MM, key=lambda one: abs(one - d))
    return {
        "code": text,
        "hand": "left" if code.hand == "L" else "right",
        "seat": _seat(code),
        "clamping": code.clamping,
        "bar": {
            "code": text,
            "entering_angle_deg": code.entering_angle_deg,
            "diameter_mm": d,
            "functional_width_mm": round(TIP_MM[nearest] * d / nearest, 2),
            "functional_length_mm": code.length_mm,
            "least_bore_mm": round(LEAST_MM[nearest] * max(d / nearest, 1.0), 1),
            "material": code.material,
            "damped": code.damped,
            "coolant": code.coolant,
        },
    }


def _back() -> list[dict[str, Any]]:
    """Bars whose edge looks back, for undercuts behind a collar; no standard lists them. Typical sizes: the tip stands
    out 0.9 of the bar, so that the bar clears a collar 0.4 of it high."""
    found = []
    for d, length, ic, symbol in (
        (12, 150, 6.35, "07"),
        (16, 200, 6.35, "07"),
        (20, 250, 9.525, "11"),
        (25, 300, 9.525, "11"),
    ):
        code = f"BK{d} DC{symbol}"
        bar = {
            "code": code,
            "entering_angle_deg": 93.0,
            "diameter_mm": d,
            "functional_width_mm": round(0.9 * d, 1),
            "functional_length_mm": length,
            "least_bore_mm": round(1.45 * d + 1.0, 1),
            "material": "steel",
            "back": True,
        }
        seat = {"shape": "D", "ic_mm": ic, "clearance_deg": 7}
        found.append({"code": code, "hand": "right", "seat": seat, "clamping": "S", "bar": bar})
    return found
