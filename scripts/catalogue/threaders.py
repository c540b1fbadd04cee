"""Threading tools: teeth of full and of partial profile, on shanks and on bars for the bores they are for."""

from collections.abc import Iterator
from typing import Any

__all__ = ["threaders"]

Row = dict[str, Any]
GRADE = {"grade": "P15-P30 M15-M30"}

SHANK = {
    "entering_angle_deg": 90.0,
    "shank_width_mm": 20.0,
    "shank_height_mm": 20.0,
    "functional_width_mm": 25.0,
    "functional_length_mm": 125.0,
    "head_length_mm": 26.0,
}
SMALL = {
    **SHANK,
    "shank_width_mm": 12.0,
    "shank_height_mm": 12.0,
    "functional_width_mm": 16.0,
    "functional_length_mm": 80.0,
    "head_length_mm": 18.0,
}

BARS = {5: (3.7, 6.3, 60.0), 6: (4.6, 7.8, 80.0), 8: (5.8, 9.9, 100.0), 10: (7.2, 12.4, 125.0), 12: (9.0, 16.0, 120.0),
        16: (11.0, 20.0, 150.0), 20: (13.5, 25.0, 200.0), 25: (17.0, 32.0, 250.0)}  # fmt: skip
"""By diameter: the tip beyond the middle of the bar, least bore, length, mm."""

METRIC = (0.5, 0.7, 0.75, 0.8, 1.0, 1.25, 1.5, 1.75, 2.0, 2.5, 3.0, 3.5, 4.0, 4.5, 5.0, 5.5, 6.0)
UNIFIED = (40, 36, 32, 28, 24, 20, 18, 16, 14, 13, 12, 11, 10, 9, 8, 7, 6, 5, 4.5, 4)
WHITWORTH = (28, 19, 14, 11)
TAPER_60 = (27, 18, 14, 11.5, 8)
TRAPEZOIDAL = (1.5, 2.0, 3.0, 4.0, 5.0, 6.0, 7.0, 8.0, 9.0, 10.0, 12.0)
ACME = (16, 14, 12, 10, 8, 6, 5, 4, 3)


def threaders() -> Iterator[Row]:
    """Rows of every threading tool."""
    yield from _metric()
    yield from _inch_60()
    yield from _whitworth()
    yield from _taper_60()
    yield from _partial()
    yield from _flat_root()


def _tooth(code: str, profile: float, pitch: float, tip: float, depth: float, full: bool = True, **more: Any) -> Row:
    return {
        "code": code,
        "profile_deg": profile,
        "full_profile": full,
        "pitch_mm": [round(pitch, 4), round(pitch, 4)],
        "tip_radius_mm": round(tip, 3),
        "width_mm": round(1.6 * pitch + 0.6, 2),
        "profile_depth_mm": round(depth, 3),
        **GRADE,
        **more,
    }


def _outside(name: str, tooth: Row, shank: Row = SHANK) -> Row:
    return {"name": name, "kind": "threading", "where": "outside", "insert": {**tooth, "code": name}, "holder": shank}


def _inside(name: str, tooth: Row, d: int) -> Row:
    tip, least, length = BARS[d]
    tip = max(tip, round(d / 2 + tooth["profile_depth_mm"] + 0.4, 2))
    least = max(least, round(d / 2 + tip + 0.7, 1))
    bar = {
        "entering_angle_deg": 90.0,
        "diameter_mm": float(d),
        "functional_width_mm": tip,
        "functional_length_mm": length,
        "least_bore_mm": least,
    }
    return {"name": name, "kind": "threading", "where": "inside", "insert": {**tooth, "code": name}, "bar": bar}


def _fitting(depth: float) -> list[int]:
    """Bars whose head takes a tooth of this height."""
    return [d for d in BARS if 0.09 * d <= depth + 0.45 and depth <= 0.17 * d + 0.05]


def _metric() -> Iterator[Row]:
    """Tip rounds of 0.144 P outside and half of that inside; heights 0.613 P and 0.541 P with some room (ISO 68-1)."""
    for pitch in METRIC:
        tooth = _tooth("", 60.0, pitch, 0.1443 * pitch, 0.66 * pitch)
        name = f"TE {pitch:g} 60F"
        yield _outside(name, tooth)
        if pitch <= 1.5:
            yield _outside(f"{name} 12", tooth, SMALL)
        tooth = _tooth("", 60.0, pitch, 0.072 * pitch, 0.58 * pitch)
        yield from _on_bars(f"TI {pitch:g} 60F", tooth, 0.58 * pitch, 16 if 1.5 <= pitch <= 2.0 else 0)


def _on_bars(name: str, tooth: Row, depth: float, usual: int) -> Iterator[Row]:
    """One tooth on every bar that takes it; the usual bar without its size in the name."""
    sizes = _fitting(depth)
    for d in (*((usual,) if usual else ()), *(one for one in sizes if one != usual)):
        yield _inside(name if d == usual else f"{name} {d}", tooth, d)


def _inch_60() -> Iterator[Row]:
    for per_inch in UNIFIED:
        pitch = 25.4 / per_inch
        yield _outside(f"TE {per_inch:g}UN 60F", _tooth("", 60.0, pitch, 0.1443 * pitch, 0.66 * pitch))
        tooth = _tooth("", 60.0, pitch, 0.072 * pitch, 0.58 * pitch)
        yield from _on_bars(f"TI {per_inch:g}UN 60F", tooth, 0.58 * pitch, 0)


def _whitworth() -> Iterator[Row]:
    """Crests and roots rounded by 0.1373 P, height 0.6403 P (ISO 228-1)."""
    for per_inch in WHITWORTH:
        pitch = 25.4 / per_inch
        tooth = _tooth("", 55.0, pitch, 0.1373 * pitch, 0.66 * pitch)
        yield _outside(f"TE {per_inch:g}W 55F", tooth)
        yield from _on_bars(f"TI {per_inch:g}W 55F", tooth, 0.66 * pitch, 0)


def _taper_60() -> Iterator[Row]:
    """Height 0.8 P, flats of some 0.04 P at crest and root (ASME B1.20.1)."""
    for per_inch in TAPER_60:
        pitch = 25.4 / per_inch
        tooth = _tooth("", 60.0, pitch, 0.03 * pitch, 0.82 * pitch)
        yield _outside(f"TE {per_inch:g}NPT 60F", tooth)
        yield from _on_bars(f"TI {per_inch:g}NPT 60F", tooth, 0.82 * pitch, 0)


def _partial() -> Iterator[Row]:
    for low, high, profile, carrier in ((0.5, 1.5, 60.0, SMALL), (1.75, 3.0, 60.0, SHANK), (3.5, 5.0, 60.0, SHANK),
                                        (0.5, 1.5, 55.0, SMALL), (1.25, 2.5, 55.0, SHANK)):  # fmt: skip
        name = f"TE {low:g}-{high:g} {profile:g}P"
        yield _outside(name, _range(low, high, profile, 0.07 * low + 0.02), carrier)
    for low, high, profile, bars in ((0.5, 1.5, 60.0, (6, 8, 10, 12)), (1.75, 3.0, 60.0, (12, 16)),
                                     (1.25, 2.5, 55.0, (12, 10)), (0.5, 1.5, 55.0, (6, 8))):  # fmt: skip
        name = f"TI {low:g}-{high:g} {profile:g}P"
        for d in bars:
            yield _inside(name if d == 12 else f"{name} {d}", _range(low, high, profile, 0.05 * low + 0.02), d)


def _range(low: float, high: float, profile: float, tip: float) -> Row:
    return {
        "profile_deg": profile,
        "full_profile": False,
        "pitch_mm": [low, high],
        "tip_radius_mm": round(tip, 3),
        "width_mm": round(high * 1.4, 2),
        "profile_depth_mm": round(0.75 * high, 2),
        **GRADE,
    }


def _flat_root() -> Iterator[Row]:
    """Flat of the root: 0.366 P - 0.536 ac (ISO 2904), 0.3707 P - 0.259 of the clearance on diameter (ASME B1.5)."""
    for pitch, flank, name in (
        *((pitch, 30.0, f"{pitch:g}") for pitch in TRAPEZOIDAL),
        *((25.4 / per_inch, 29.0, f"{per_inch}TPI") for per_inch in ACME),
    ):
        if flank == 30.0:
            clearance = 0.15 if pitch < 2 else 0.25 if pitch < 6 else 0.5
            flat = 0.366 * pitch - 0.536 * clearance
        else:
            clearance = 0.254 if pitch > 2.5 else 0.127
            flat = 0.3707 * pitch - 0.259 * 2 * clearance
        tooth = {
            "profile_deg": flank,
            "full_profile": True,
            "pitch_mm": [round(pitch, 4), round(pitch, 4)],
            "tip_radius_mm": round(min(0.05 * pitch, 0.5 * clearance), 3),
            "tip_flat_mm": round(flat, 3),
            "width_mm": round(0.9 * pitch + 0.8, 2),
            "profile_depth_mm": round(0.55 * pitch + clearance + 0.05, 3),
            **GRADE,
        }
        yield _outside(f"TE {name} {flank:g}F", tooth)
        depth = tooth["profile_depth_mm"]
        for d in [one for one in BARS if 2.4 * depth <= one <= 9 * depth]:
            yield _inside(f"TI {name} {flank:g}F" if d == 16 else f"TI {name} {flank:g}F {d}", tooth, d)
