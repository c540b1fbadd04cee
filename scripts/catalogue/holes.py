"""Drills, centre and spot drills, reamers and taps. Lengths: ISO 235 (DIN 338), ISO 494 (DIN 340), DIN 1869,
DIN 6537, DIN 333, DIN 212, ISO 529."""

from bisect import bisect_left
from collections.abc import Iterator
from fractions import Fraction
from typing import Any

from toreuma.core.geometry.centre_forms import CentreForm, centre_profile
from toreuma.core.standards.threads import thread_of
from toreuma.shipped.standards import thread_tables

__all__ = ["hole_tools"]

Row = dict[str, Any]

# up to and including this diameter: flute and overall length, mm
JOBBER = (
    (0.53, 6, 22), (0.6, 7, 24), (0.67, 8, 26), (0.75, 9, 28), (0.85, 10, 30), (0.95, 11, 32), (1.06, 12, 34),
    (1.18, 14, 36), (1.32, 16, 38), (1.5, 18, 40), (1.7, 20, 43), (1.9, 22, 46), (2.12, 24, 49), (2.36, 27, 53),
    (2.65, 30, 57), (3.0, 33, 61), (3.35, 36, 65), (3.75, 39, 70), (4.25, 43, 75), (4.75, 47, 80), (5.3, 52, 86),
    (6.0, 57, 93), (6.7, 63, 101), (7.5, 69, 109), (8.5, 75, 117), (9.5, 81, 125), (10.6, 87, 133), (11.8, 94, 142),
    (13.2, 101, 151), (14.0, 108, 160), (15.0, 114, 169), (16.0, 120, 178), (17.0, 125, 184), (18.0, 130, 191),
    (19.0, 135, 198), (20.0, 140, 205),
    # taper shanks (ISO 235, DIN 345)
    (21.2, 145, 243), (22.4, 150, 248), (23.6, 155, 276), (25.0, 160, 281), (26.5, 165, 286), (28.0, 170, 291),
    (30.0, 175, 296), (31.5, 180, 301), (33.5, 185, 334),
)  # fmt: skip

# up to and including this diameter: flute and overall length, mm (ISO 494, DIN 340)
LONG_DRILLS = (
    (1.06, 33, 56), (1.18, 37, 60), (1.32, 41, 65), (1.5, 45, 70), (1.7, 50, 76), (1.9, 53, 80), (2.12, 56, 85),
    (2.36, 59, 90), (2.65, 62, 95), (3.0, 66, 100), (3.35, 69, 106), (3.75, 73, 112), (4.25, 78, 119), (4.75, 82, 126),
    (5.3, 87, 132), (6.0, 91, 139), (6.7, 97, 148), (7.5, 102, 156), (8.5, 109, 165), (9.5, 115, 175), (10.6, 121, 184),
    (11.8, 128, 195), (13.2, 134, 205), (14.0, 140, 214), (15.0, 144, 220), (16.0, 149, 227),
)  # fmt: skip

# up to and including this diameter: flute and overall length, mm (DIN 1869, row 1)
EXTRA_LONG_DRILLS = (
    (2.12, 85, 125), (2.65, 95, 140), (3.35, 100, 150), (3.75, 115, 165), (4.25, 120, 175), (4.75, 125, 185),
    (5.3, 135, 195), (6.0, 140, 205), (6.7, 150, 215), (7.5, 155, 225), (8.5, 165, 240), (9.5, 175, 250),
    (10.6, 185, 265), (11.8, 195, 280), (13.2, 205, 295),
)  # fmt: skip

CORES = (1.6, 2.05, 2.1, 3.3, 3.7, 4.2, 5.8, 6.8, 7.8, 8.8, 9.8, 10.2, 11.8, 12.8)
"""Between the halves: core holes of threads, and what is left for reamers."""

# up to and including this diameter: flute and overall length of the short and of the long form, shank, mm
CARBIDE = (
    (3.75, 20, 62, 28, 66, 6), (4.75, 24, 66, 36, 74, 6), (6.0, 28, 66, 44, 82, 6), (7.0, 34, 79, 53, 91, 8),
    (8.0, 41, 79, 53, 91, 8), (10.0, 47, 89, 61, 103, 10), (12.0, 55, 102, 71, 118, 12), (14.0, 60, 107, 77, 124, 14),
    (16.0, 65, 115, 83, 133, 16), (18.0, 73, 123, 93, 143, 18), (20.0, 79, 131, 101, 153, 20),
)  # fmt: skip

HALVES = (2.05, 2.15, 2.25, 2.35, 2.65, 2.75, 2.85, 3.15, 3.25, 3.35, 3.75, 4.25, 4.65, 5.25, 5.55, 6.75, 7.45, 7.55,
          8.25, 8.75, 9.25, 9.35, 10.25, 11.25, 12.25, 13.25, 15.25, 17.25)  # fmt: skip
"""Between the tenths: core holes of threads that are cut or formed, and clearance holes."""

# inch: number drills 1 to 76, letters, fractions in sixty-fourths
NUMBERS = """.2280 .2210 .2130 .2090 .2055 .2040 .2010 .1990 .1960 .1935 .1910 .1890 .1850 .1820 .1800 .1770 .1730 .1695
.1660 .1610 .1590 .1570 .1540 .1520 .1495 .1470 .1440 .1405 .1360 .1285 .1200 .1160 .1130 .1110 .1100 .1065 .1040 .1015
.0995 .0980 .0960 .0935 .0890 .0860 .0820 .0810 .0785 .0760 .0730 .0700 .0670 .0635 .0595 .0550 .0520 .0465 .0430 .0420
.0410 .0400 .0390 .0380 .0370 .0360 .0350 .0330 .0320 .0310 .0292 .0280 .0260 .0250 .0240 .0225 .0210 .0200"""
LETTERS = """.234 .238 .242 .246 .250 .257 .261 .266 .272 .277 .281 .290 .295 .302 .316 .323 .332 .339 .348 .358 .368
.377 .386 .397 .404 .413"""

CENTRES = ((1.0, 3.15), (1.25, 3.15), (1.6, 4.0), (2.0, 5.0), (2.5, 6.3), (3.15, 8.0), (4.0, 10.0), (5.0, 12.5),
           (6.3, 16.0), (8.0, 20.0), (10.0, 25.0))  # fmt: skip

GUARDED = ((1.0, 4.0), (1.25, 5.0), (1.6, 6.3), (2.0, 8.0), (2.5, 10.0), (3.15, 11.2), (4.0, 14.0), (5.0, 18.0),
           (6.3, 20.0), (8.0, 25.0), (10.0, 31.5))  # fmt: skip
"""Pilot and body of centre drills form B (ISO 2540)."""

# up to and including this diameter: flute, overall, shank, mm (DIN 212)
REAMERS = (
    (3.0, 15, 61, 3.0), (3.75, 18, 70, 3.55), (4.25, 19, 75, 4.0), (4.75, 21, 80, 4.5), (5.3, 23, 86, 5.0),
    (6.0, 26, 93, 5.6), (6.7, 28, 101, 6.3), (7.5, 31, 109, 7.1), (8.5, 33, 117, 8.0), (9.5, 36, 125, 9.0),
    (10.6, 38, 133, 10.0), (11.8, 41, 142, 10.0), (13.2, 44, 151, 10.0), (14.0, 47, 160, 12.5), (15.0, 50, 162, 12.5),
    (16.0, 52, 170, 12.5), (17.0, 54, 175, 14.0), (18.0, 56, 182, 14.0), (19.0, 58, 189, 16.0), (20.0, 60, 195, 16.0),
    (25.0, 68, 240, 20.0), (32.0, 77, 290, 25.0),
)  # fmt: skip

IT7_UM = ((3.0, 10), (6.0, 12), (10.0, 15), (18.0, 18), (30.0, 21), (50.0, 25))

# diameter: flute, overall, shank, mm (ISO 529)
TAPS = (
    (2.0, 8, 41, 2.5), (2.5, 9.5, 44.5, 2.8), (3.0, 11, 48, 3.15), (3.5, 13, 50, 3.55), (4.0, 13, 53, 4.0),
    (5.0, 16, 58, 5.0), (6.0, 19, 66, 6.3), (8.0, 22, 72, 8.0), (10.0, 24, 80, 10.0), (12.0, 29, 89, 9.0),
    (14.0, 30, 95, 11.2), (16.0, 32, 102, 12.5), (18.0, 37, 112, 14.0), (20.0, 37, 112, 14.0), (22.0, 38, 118, 16.0),
    (24.0, 45, 130, 18.0), (27.0, 45, 135, 20.0), (30.0, 48, 138, 20.0), (36.0, 57, 162, 25.0), (48.0, 70, 190, 35.5),
)  # fmt: skip

# by size of the thread: flute, overall, shank, mm (ISO 529 in inches, ISO 2284 for pipes)
INCH_TAPS = {
    "4": (11, 48, 3.15), "6": (13, 50, 3.55), "8": (13, 53, 4.5), "10": (16, 58, 5.0), "1/4": (19, 66, 6.3),
    "5/16": (22, 72, 8.0), "3/8": (24, 80, 10.0), "7/16": (25, 85, 8.0), "1/2": (29, 89, 9.0), "5/8": (32, 102, 12.5),
    "3/4": (37, 112, 14.0), "7/8": (38, 118, 16.0), "1": (45, 130, 18.0),
}  # fmt: skip
PIPE_TAPS = {
    "1/16": (14, 52, 5.6), "1/8": (15, 59, 8.0), "1/4": (19, 67, 10.0), "3/8": (21, 75, 12.5), "1/2": (26, 87, 16.0),
    "3/4": (28, 96, 20.0), "1": (33, 109, 25.0),
}  # fmt: skip

# flute, overall, shank, and how far its small end stands out of the ring gauge: inches (ASME B94.9)
NPT_TAPS = {
    "1/16": (0.6875, 2.125, 0.3125, 0.312), "1/8": (0.75, 2.125, 0.3125, 0.312), "1/4": (1.0625, 2.4375, 0.5625, 0.459),
    "3/8": (1.0625, 2.5625, 0.7, 0.454), "1/2": (1.375, 3.125, 0.6875, 0.579), "3/4": (1.375, 3.25, 0.9063, 0.565),
    "1": (1.75, 3.75, 1.125, 0.678),
}  # fmt: skip

RC_GAUGE_MM = {"1/16": 10.1, "1/8": 10.1, "1/4": 15.0, "3/8": 15.4, "1/2": 20.5, "3/4": 21.8, "1": 26.0}
"""From the end of a taper tap to its gauge plane (ISO 2284)."""

COARSE = "M2 M2.5 M3 M3.5 M4 M5 M6 M8 M10 M12 M14 M16 M18 M20 M22 M24 M27 M30"
FINE = """M4x0.5 M5x0.5 M6x0.75 M8x1 M8x0.75 M10x1 M10x1.25 M12x1 M12x1.25 M12x1.5 M14x1.5 M16x1.5 M18x1.5 M20x1.5
M22x1.5 M24x1.5 M24x2 M27x2 M30x1.5 M30x2"""
UNC = "4-40 6-32 8-32 10-24 1/4-20 5/16-18 3/8-16 7/16-14 1/2-13 5/8-11 3/4-10 7/8-9 1-8"
UNF = "4-48 6-40 8-36 10-32 1/4-28 5/16-24 3/8-24 7/16-20 1/2-20 5/8-18 3/4-16 7/8-14"
PIPE = "G1/8 G1/4 G3/8 G1/2 G3/4 G1"
THREADS = (
    *f"{COARSE} {FINE}".split(),
    *(f"{size} UNC" for size in UNC.split()),
    *(f"{size} UNF" for size in UNF.split()),
    *PIPE.split(),
)
FORMED = ["M2", "M2.5", "M3", "M4", "M5", "M6", "M8", "M10", "M12", "M8x1", "M10x1", "M12x1.5"]


def hole_tools() -> Iterator[Row]:
    """Rows of everything that makes holes along its own axis."""
    yield from _twist()
    yield from _inch_twist()
    yield from _deep()
    yield from _carbide()
    yield from _large()
    yield from _special()
    yield from _reamers()
    yield from _long_reamers()
    yield from _inch_reamers()
    yield from _taps()


def _row_for(table: tuple[tuple[float, ...], ...], d: float) -> tuple[float, ...]:
    return table[min(bisect_left([row[0] for row in table], d - 1e-6), len(table) - 1)][1:]


def _hss(name: str, d: float, lengths: tuple[tuple[float, ...], ...] = JOBBER) -> Row:
    flute, overall = _row_for(lengths, d)
    return {
        "name": name,
        "kind": "drill",
        "form": "twist",
        "d_mm": round(d, 4),
        "point_deg": 118,
        "flute_length_mm": flute,
        "overall_length_mm": overall,
        "shank_d_mm": round(d, 4),
        "material": "high-speed steel",
        "feed_mm_rev": [round(max(0.012 * d, 0.005), 3), round(max(0.025 * d, 0.01), 3)],
    }


def _twist() -> Iterator[Row]:
    tenths = [n / 10 for n in range(5, 201)]
    quarters = [n / 4 for n in range(81, 129)]
    for d in sorted({*tenths, *HALVES, *quarters}):
        yield _hss(f"TD {d:g} HSS 118", d)


def _inch_twist() -> Iterator[Row]:
    for number, inches in enumerate(NUMBERS.split(), 1):
        yield _hss(f"TD #{number} HSS 118", 25.4 * float(inches))
    for letter, inches in zip("ABCDEFGHIJKLMNOPQRSTUVWXYZ", LETTERS.split(), strict=True):
        yield _hss(f"TD {letter} HSS 118", 25.4 * float(inches))
    for up in range(2, 51):
        whole, down = up, 64
        while whole % 2 == 0:
            whole, down = whole // 2, down // 2
        yield _hss(f"TD {whole}/{down} HSS 118", 25.4 * up / 64)


def _deep() -> Iterator[Row]:
    """Long and extra long drills for deep holes, of usual sizes."""
    halves = [n / 2 for n in range(2, 33)]
    for d in sorted({*halves, *CORES}):
        yield _hss(f"TD {d:g} HSS L 118", d, LONG_DRILLS)
        if 2 <= d <= EXTRA_LONG_DRILLS[-1][0]:
            yield _hss(f"TD {d:g} HSS XL 118", d, EXTRA_LONG_DRILLS)
    for up in range(2, 33):
        part = Fraction(up, 32)
        if 25.4 * part <= EXTRA_LONG_DRILLS[-1][0]:
            yield _hss(f"TD {part} HSS L 118", 25.4 * float(part), LONG_DRILLS)
            if up > 2:
                yield _hss(f"TD {part} HSS XL 118", 25.4 * float(part), EXTRA_LONG_DRILLS)


def _carbide() -> Iterator[Row]:
    for n in range(30, 201):
        d = n / 10
        short, short_all, long, long_all, shank = _row_for(CARBIDE, d)
        for name, flute, overall in (("HM3D", short, short_all), ("HM5D", long, long_all)):
            yield {
                "name": f"TD {d:g} {name} 140",
                "kind": "drill",
                "form": "twist",
                "d_mm": d,
                "point_deg": 140,
                "flute_length_mm": flute,
                "overall_length_mm": overall,
                "shank_d_mm": shank,
                "material": "coated carbide",
                "feed_mm_rev": [round(0.012 * d, 3), round(0.03 * d, 3)],
            }


def _large() -> Iterator[Row]:
    for d in (*range(14, 31), *range(32, 61, 2)):
        for times in (2, 3, 4, 5):
            yield {
                "name": f"ID {d} {times}D",
                "kind": "drill",
                "form": "indexable",
                "d_mm": float(d),
                "point_deg": 176,
                "flute_length_mm": times * d,
                "overall_length_mm": times * d + 80,
                "shank_d_mm": 20.0 if d < 18 else 25.0 if d < 30 else 32.0 if d < 42 else 40.0,
                "material": "coated carbide",
                "feed_mm_rev": [0.05, 0.14],
            }
    for d in (20.0, 22.0, 24.0, 26.0, 28.0, 30.0):
        yield {
            "name": f"SD {d:g} 5D 140",
            "kind": "drill",
            "form": "spade",
            "d_mm": d,
            "point_deg": 140,
            "flute_length_mm": 5 * d,
            "overall_length_mm": 5 * d + 85,
            "shank_d_mm": 25.0,
            "material": "coated carbide",
            "feed_mm_rev": [0.15, 0.35],
        }


def _special() -> Iterator[Row]:
    for front, d, length, angle in ((4.2, 6.0, 12.0, 90.0), (5.0, 8.0, 16.0, 90.0), (6.8, 9.0, 20.0, 90.0),
                                    (8.5, 12.0, 24.0, 180.0), (10.2, 14.0, 28.0, 90.0)):  # fmt: skip
        yield {
            "name": f"ST {front:g}-{d:g} {angle:g}",
            "kind": "drill",
            "form": "step",
            "d_mm": d,
            "pilot_d_mm": front,
            "step_length_mm": length,
            "step_deg": angle,
            "point_deg": 118,
            "flute_length_mm": round(length + 3 * d, 0),
            "overall_length_mm": round(length + 3 * d + 45, 0),
            "shank_d_mm": d,
            "material": "high-speed steel",
            "feed_mm_rev": [round(0.012 * front, 3), round(0.02 * front, 3)],
        }
    for d in (*(n / 10 for n in range(30, 161)), *(n / 2 for n in range(33, 41)), 22.0, 24.0):
        for long, name in ((3, f"FD {d:g} 180"), (5, f"FD {d:g} 5D 180")):
            yield {
                "name": name,
                "kind": "drill",
                "form": "flat",
                "d_mm": d,
                "point_deg": 180,
                "flute_length_mm": round(long * d, 1),
                "overall_length_mm": round(long * d + 50, 1),
                "shank_d_mm": d,
                "material": "coated carbide",
                "feed_mm_rev": [round(0.008 * d, 3), round(0.018 * d, 3)],
            }
    forms: dict[CentreForm, tuple[tuple[float, float], ...]] = {"A": CENTRES, "B": GUARDED, "R": CENTRES}
    for form, pilot, d in ((form, *row) for form, rows in forms.items() for row in rows):
        end = centre_profile(form, pilot, d)[-1][0]
        yield {
            "name": f"CD {form}{pilot:g}",
            "kind": "drill",
            "form": "centre",
            **({} if form == "A" else {"centre_form": form}),
            "d_mm": d,
            "pilot_d_mm": pilot,
            "point_deg": 118,
            "flute_length_mm": round(max(2.2 * pilot + 1.1 * d, end + 1.0), 1),
            "overall_length_mm": 35 + 2.5 * d,
            "shank_d_mm": d,
            "material": "high-speed steel",
            "feed_mm_rev": [0.03, 0.1],
        }
    for point, sizes in ((90, (3, 4, 6, 8, 10, 12, 16, 20)), (120, (6, 10, 16)), (142, (6, 10, 16, 20))):
        for d in sizes:
            yield {
                "name": f"SP {d} {point}",
                "kind": "drill",
                "form": "spot",
                "d_mm": float(d),
                "point_deg": point,
                "flute_length_mm": d * 1.5,
                "overall_length_mm": 50 + 3 * d,
                "shank_d_mm": d,
                "material": "coated carbide",
                "feed_mm_rev": [0.05, 0.15],
            }


def _reamers() -> Iterator[Row]:
    for d in (3, 3.5, 4, 4.5, 5, 5.5, *range(6, 21), 22, 24, 25, 26, 28, 30, 32):
        flute, overall, shank = _row_for(REAMERS, d)
        yield _reamer(f"RM {d:g} H7", d, flute, overall, shank)


def _reamer(name: str, d: float, flute: float, overall: float, shank: float) -> Row:
    """A reamer is as large as the middle of the hole it makes (ISO 286-1, IT7); all in mm."""
    it7 = next(um for most, um in IT7_UM if d <= most)
    return {
        "name": name,
        "kind": "reamer",
        "d_mm": round(d + it7 / 2000, 4),
        "fit": "H7",
        "lead_mm": 1.0,
        "flute_length_mm": flute,
        "overall_length_mm": overall,
        "shank_d_mm": shank,
        "material": "high-speed steel",
    }


LONG_REAMERS = (
    (5, 133, 23), (6, 138, 26), (7, 150, 31), (8, 156, 33), (9, 162, 36), (10, 168, 38), (11, 175, 41), (12, 182, 44),
    (13, 182, 44), (14, 189, 47), (15, 204, 50), (16, 210, 52), (18, 219, 56), (20, 228, 60), (22, 237, 64),
    (24, 268, 68), (25, 268, 68), (28, 277, 71), (30, 281, 73), (32, 317, 77),
)  # fmt: skip
"""Reamers with a Morse taper, diameter, overall length and flutes, mm (DIN 208)."""

SLEEVED_MM, NECK_SHARE = 25.0, 0.92
"""What of the taper stands in its sleeve beyond a plain shank's grip, and the neck behind the flutes (typical)."""


def _long_reamers() -> Iterator[Row]:
    for d, overall, flute in LONG_REAMERS:
        yield _reamer(f"RL {d} H7", d, flute, overall - SLEEVED_MM, round(NECK_SHARE * d, 1))


INCH_REAMERS = (
    ("1/8", 3.5, 0.875, 0.117), ("5/32", 4.0, 1.0, 0.1492), ("3/16", 4.5, 1.125, 0.1792), ("7/32", 5.0, 1.25, 0.2095),
    ("1/4", 6.0, 1.5, 0.2405), ("9/32", 6.0, 1.5, 0.2485), ("5/16", 6.0, 1.5, 0.2792), ("11/32", 6.0, 1.5, 0.2792),
    ("3/8", 7.0, 1.75, 0.3105), ("13/32", 7.0, 1.75, 0.3105), ("7/16", 7.0, 1.75, 0.373), ("15/32", 7.0, 1.75, 0.373),
    ("1/2", 8.0, 2.0, 0.4355), ("9/16", 8.0, 2.0, 0.4355), ("5/8", 9.0, 2.25, 0.562), ("11/16", 9.0, 2.25, 0.562),
    ("3/4", 9.5, 2.5, 0.6245), ("13/16", 9.5, 2.5, 0.6245), ("7/8", 10.0, 2.625, 0.7495),
    ("15/16", 10.0, 2.625, 0.7495),
    ("1", 10.5, 2.75, 0.8745),
)  # fmt: skip
"""Chucking reamers with a straight shank, overall length, flutes and shank, inch (ASME B94.2)."""


def _inch_reamers() -> Iterator[Row]:
    for name, overall, flute, shank in INCH_REAMERS:
        sizes = round(25.4 * flute, 2), round(25.4 * overall, 2), round(25.4 * shank, 3)
        yield _reamer(f"RM {name} H7", 25.4 * float(Fraction(name)), *sizes)


LONG_TAPS = (
    (3.0, 66, 2.24), (4.0, 73, 3.15), (5.0, 79, 4.0), (6.4, 89, 4.5), (8.0, 97, 6.3), (10.0, 108, 8.0),
    (12.0, 119, 9.0), (12.8, 119, 9.0), (14.0, 127, 11.2), (16.0, 137, 12.5), (20.0, 149, 14.0),
    (24.0, 172, 18.0), (25.5, 172, 18.0),
)  # fmt: skip
"""Long taps with a thin shank, which follow deep into a hole (ISO 2283): up to and including a diameter, overall length
and shank, mm."""


def _long_taps() -> Iterator[Row]:
    tables = thread_tables()
    for name in (one for one in THREADS if not one.startswith("G")):
        thread = thread_of(name, tables)
        if not LONG_TAPS[0][0] - 0.3 <= thread.d_mm <= LONG_TAPS[-1][0]:
            continue
        overall, shank = _row_for(LONG_TAPS, thread.d_mm)
        if shank > min(thread.tap_drill_mm - 0.1, thread.d_mm - thread.pitch_mm):  # the shank would not follow
            continue
        for form, lead, letter in (("through", 4.0, "B"), ("blind", 2.5, "C")):
            yield {
                "name": f"TL {name} {letter}",
                "kind": "tap",
                "thread": name,
                "d_mm": round(thread.d_mm, 3),
                "pitch_mm": round(thread.pitch_mm, 4),
                "form": form,
                "lead_pitches": lead,
                "flute_length_mm": _tap_sizes(name, thread.d_mm)[0],
                "overall_length_mm": overall,
                "shank_d_mm": shank,
                "material": "high-speed steel",
            }


def _tap_sizes(name: str, d_mm: float) -> tuple[float, ...]:
    """Flute, overall length and shank."""
    if name.startswith("G"):
        return PIPE_TAPS[name[1:]]
    if name.startswith("M"):
        return _row_for(TAPS, d_mm)
    return INCH_TAPS[name.rsplit(" ", 1)[0].rsplit("-", 1)[0]]


def _taper_taps() -> Iterator[Row]:
    """For NPT and NPTF, and for Rc: they go in to their gauge plane."""
    tables = thread_tables()
    rows = []
    for size, (flute, overall, shank, past) in NPT_TAPS.items():
        ring = tables.npt.sizes[size].hand_tight_in
        sizes = tuple(round(25.4 * one, 2) for one in (flute, overall, shank, past + ring))
        rows += [(f"{kind} {size}", *sizes) for kind in ("NPT", "NPTF")]
    rows += [(f"Rc{size}", *(float(one) for one in PIPE_TAPS[size]), gauge) for size, gauge in RC_GAUGE_MM.items()]
    for name, flute, overall, shank, gauge in rows:
        thread = thread_of(name, tables)
        yield {
            "name": f"TP {name}",
            "kind": "tap",
            "thread": name,
            "d_mm": round(thread.d_mm, 3),
            "pitch_mm": round(thread.pitch_mm, 4),
            "form": "blind",
            "lead_pitches": 2.5,
            "taper": 0.0625,
            "gauge_mm": gauge,
            "flute_length_mm": flute,
            "overall_length_mm": overall,
            "shank_d_mm": shank,
            "material": "high-speed steel",
        }


def _taps() -> Iterator[Row]:
    yield from _long_taps()
    yield from _taper_taps()
    tables = thread_tables()
    cut = [(name, form, lead, letter) for name in THREADS for form, lead, letter in (("through", 4.0, "B"),
           ("blind", 2.5, "C"))]  # fmt: skip
    for name, form, lead, letter in (*cut, *((name, "forming", 2.5, "E") for name in FORMED)):
        thread = thread_of(name, tables)
        flute, overall, shank = _tap_sizes(name, thread.d_mm)
        yield {
            "name": f"TP {name} {letter}",
            "kind": "tap",
            "thread": name,
            "d_mm": round(thread.d_mm, 3),
            "pitch_mm": round(thread.pitch_mm, 4),
            "form": form,
            "lead_pitches": lead if form != "forming" else 1.75,
            "flute_length_mm": flute,
            "overall_length_mm": overall,
            "shank_d_mm": shank,
            "material": "high-speed steel",
        }
