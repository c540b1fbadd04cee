"""Threads whose form and basic sizes are known, without limits: knuckle threads (DIN 405) and buttress threads
(DIN 513, ASME B1.9). They are told, and no plan is made of them: nothing would say whether they came out right."""

import re
from collections.abc import Callable
from dataclasses import dataclass

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads.inches import INCH_SIZE, MM, inch_size, listed_size

__all__ = ["BasicThread", "basic_thread"]

_NUMBER = r"\d+(?:[.,]\d+)?"
_LEFT = r"(?P<left>\s*-?\s*LH)?"

KNUCKLE = re.compile(
    rf"^Rd\s*(?P<d>{_NUMBER})(?:\s*[x×*]\s*(?:1\s*/\s*(?P<tpi>\d+)|(?P<p>{_NUMBER}))(?:\")?)?{_LEFT}(?:\s*-\s*\w+)?$",
    re.I,
)
"""``Rd 40x1/6``, ``Rd40``, ``Rd 40x4.233``."""

METRIC_BUTTRESS = re.compile(
    rf"^S\s*(?P<d>{_NUMBER})\s*[x×*]\s*(?P<lead>{_NUMBER})(?:\s*\(?\s*P\s*(?P<p>{_NUMBER})\s*\)?)?"
    rf"{_LEFT}(?:\s*-\s*\w+)?$",
    re.I,
)
"""``S 40x7``, ``S 40x14(P7) LH``."""

INCH_BUTTRESS = re.compile(
    rf"^(?:(?:PUSH|PULL)[\s-]*)?(?:N?BUTT(?:RESS)?\s*(?P<a>{INCH_SIZE})\s*-\s*(?P<tpi>\d+)"
    rf"|(?P<b>{INCH_SIZE})\s*-\s*(?P<tpi2>\d+)\s*-?\s*(?:(?:PUSH|PULL)[\s-]*)?N?BUTT(?:RESS)?)"
    rf"(?:\s*-?\s*[23][AB]?)?{_LEFT}$",
    re.I,
)
"""``2-4 BUTT-2A``, ``BUTT 2-4``."""

KNUCKLE_TPI = ((8.0, 12.0, 10), (14.0, 38.0, 8), (40.0, 100.0, 6), (105.0, 200.0, 4))
"""Diameters from and to, mm, and their threads per inch (DIN 405-1)."""

LARGEST_MM = 10_000.0
LONGEST = 40
"""No designation is written with so many letters."""

NO_LIMITS = "basic sizes only: its limits are not listed here, take them from the standard"


@dataclass(frozen=True)
class BasicThread:
    """Basic diameters of a pair, mm: ``pitch_d_mm`` both have, ``minor_d_mm`` and ``major_d_mm`` outside and inside.
    ``flanks_deg`` stand from the square to the axis, the loaded one first; ``depth_mm`` is radial."""

    designation: str
    family: str
    pitch_mm: float
    starts: int
    flanks_deg: tuple[float, float]
    pitch_d_mm: float
    minor_d_mm: tuple[float, float]
    major_d_mm: tuple[float, float]
    depth_mm: tuple[float, float]
    source: str

    @property
    def words(self) -> str:
        """In one line, for who asks for a plan of it."""
        (d3, d1), (d, d4) = self.minor_d_mm, self.major_d_mm
        return (
            f"pitch {self.pitch_mm:.3f} mm, outside Ø {d:.3f}, pitch Ø {self.pitch_d_mm:.3f}, core Ø {d3:.3f}; inside "
            f"Ø {d4:.3f} and core Ø {d1:.3f}"
        )


def basic_thread(designation: str) -> BasicThread | None:
    """The thread of a designation, None where it is none of these. Raises `StandardError`."""
    for pattern, make in FAMILIES if len(designation) < LONGEST else ():
        if match := pattern.match(designation.strip()):
            return make(match)
    return None


def _knuckle(match: "re.Match[str]") -> BasicThread:
    """``d2 = d - P/2``, ``d3 = d - P``, ``D4 = d + P/10``, ``D1 = d - 0.9 P`` (DIN 405-1)."""
    name, d = match.string.strip(), _number(match["d"])
    usual = next((tpi for low, high, tpi in KNUCKLE_TPI if low <= d <= high), None)
    if match["tpi"]:
        tpi = float(match["tpi"])
    elif match["p"]:
        tpi = round(MM / max(_number(match["p"]), 1e-3), 2)
    elif usual is not None:
        tpi = usual
    else:
        raise StandardError(name, "the standard has no such diameter", "use 8 to 200 mm")
    if usual is None or abs(tpi - usual) > 0.02:
        known = f"Rd {d:g} has {usual} threads per inch" if usual else "use 8 to 200 mm"
        raise StandardError(name, "the standard has no such thread", known)
    p = MM / usual
    return BasicThread(
        designation=f"Rd {d:g}x1/{usual}{_left(match)}",
        family="knuckle",
        pitch_mm=p,
        starts=1,
        flanks_deg=(15.0, 15.0),
        pitch_d_mm=d - p / 2,
        minor_d_mm=(d - p, d - 0.9 * p),
        major_d_mm=(d, d + 0.1 * p),
        depth_mm=(0.5 * p, 0.5 * p),
        source="DIN 405-1, basic sizes; rounds of 0.23851 P outside, inside 0.22105 P at root and 0.25597 P at crest",
    )


def _metric_buttress(match: "re.Match[str]") -> BasicThread:
    """``d2 = d - 0.75 P``, ``d3 = d - 1.73554 P``, ``D1 = d - 1.5 P`` (DIN 513-1)."""
    name, d, lead = match.string.strip(), _number(match["d"]), _number(match["lead"])
    p = _number(match["p"]) if match["p"] else lead
    starts = round(lead / p) if 0 < p <= lead < d < LARGEST_MM else 0
    if not 0 < p < d / 2 or abs(starts * p - lead) > 1e-9:
        raise StandardError(name, "the standard has no such thread", "write it like S 40x7, or S 40x14(P7)")
    return BasicThread(
        designation=f"S {d:g}x{lead:g}{f'(P{p:g})' if starts > 1 else ''}{_left(match)}",
        family="buttress",
        pitch_mm=p,
        starts=starts,
        flanks_deg=(3.0, 30.0),
        pitch_d_mm=d - 0.75 * p,
        minor_d_mm=(d - 1.73554 * p, d - 1.5 * p),
        major_d_mm=(d, d),
        depth_mm=(0.86777 * p, 0.75 * p),
        source="DIN 513-1, basic sizes; root outside round with 0.12427 P",
    )


def _inch_buttress(match: "re.Match[str]") -> BasicThread:
    """Height 0.6 p; ``h_s = 0.66271 p`` deep from the crest on either side (ASME B1.9)."""
    said, tpi = match["a"] or match["b"], float(match["tpi"] or match["tpi2"])
    d, p = inch_size(said) * MM, MM / tpi if tpi else 0.0
    if not 0 < p < d / 2 or d > LARGEST_MM:
        raise StandardError(match.string.strip(), "the standard has no such thread", "write it like 2-4 BUTT")
    return BasicThread(
        designation=f"{listed_size(said)}-{tpi:g} BUTT{_left(match)}",
        family="buttress",
        pitch_mm=p,
        starts=1,
        flanks_deg=(7.0, 45.0),
        pitch_d_mm=d - 0.6 * p,
        minor_d_mm=(d - 1.32542 * p, d - 1.2 * p),
        major_d_mm=(d, d + 0.12542 * p),
        depth_mm=(0.66271 * p, 0.66271 * p),
        source="ASME B1.9, basic sizes without allowance; root round with 0.07141 p",
    )


def _number(text: str) -> float:
    return float(text.replace(",", "."))


def _left(match: "re.Match[str]") -> str:
    return " LH" if match["left"] else ""


FAMILIES: tuple[tuple[re.Pattern[str], Callable[["re.Match[str]"], BasicThread]], ...] = (
    (KNUCKLE, _knuckle),
    (METRIC_BUTTRESS, _metric_buttress),
    (INCH_BUTTRESS, _inch_buttress),
)
