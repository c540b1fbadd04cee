"""A blank in one line, where there is no job: ``D50 L80``, ``50 x 80``, ``D60 d30 L40``, ``HEX 24 L60``, or corners."""

import re
from dataclasses import dataclass
from itertools import pairwise

from toreuma.core.errors import ProgramError

__all__ = ["Blank", "blank_of"]

INCH = 25.4
MOST_MM = 5000.0
NUMBER = r"([+-]?(?:\d+\.?\d*|\.\d+))\s*((?i:MM|IN(?:CH)?)|\")?"
NAMES = {
    "HEX": "hex", "SQ": "square", "SQUARE": "square", "BORE": "bore", "D": "d", "d": "bore", "Ø": "d", "ø": "d",
    "OD": "d", "ID": "bore", "L": "length", "l": "length", "Z": "front", "z": "front", "J": "jaws", "JAWS": "jaws",
    "X": "d", "B": "bore",
}  # fmt: skip
BY = re.compile(
    rf"^\s*(?:bar|rod|round|tube)?\s*[DØø]?\s*{NUMBER}(?:\s*/\s*[dØø]?\s*{NUMBER})?\s*[x×*]\s*L?\s*{NUMBER}",
    re.IGNORECASE,
)
"""Size by length, as a bar or a tube is ordered: ``50 x 80``, ``60/30 x 40``."""

EXAMPLE = 'write it as "D50 L80", "50 x 80", "D60 d30 L40", "HEX 24 L60", or corners "0 50, -30 50, -80 60"'


@dataclass(frozen=True, kw_only=True)
class Blank:
    """A blank: round, tube, hexagon or square, or corners (z, d) from its front. mm.

    ``front_z`` is where its front stands, ``jaws_z`` the front of the jaws; None where nobody said.
    """

    kind: str
    d_mm: float = 0.0
    bore_mm: float = 0.0
    length_mm: float = 0.0
    corners: tuple[tuple[float, float], ...] = ()
    front_z: float = 0.0
    jaws_z: float | None = None
    material: str = ""

    @property
    def back_z(self) -> float:
        return min(z for z, _ in self.corners) if self.corners else self.front_z - self.length_mm

    @property
    def widest_mm(self) -> float:
        return max(d for _, d in self.corners) if self.corners else self.d_mm


def blank_of(line: str, scale: float = 1.0, *, cut_to_length: bool = True) -> Blank:
    """Read the line. A plain number is mm, times ``scale``; without ``cut_to_length`` a bar needs no length, and a
    number alone is its diameter. Raises `ProgramError`."""
    text = BY.sub(_in_letters, line.strip())
    if re.match(rf"^\s*{NUMBER}[\s/]+{NUMBER}\s*[,;]", text):
        return _corners(text, scale)
    if not cut_to_length and re.fullmatch(rf"\s*(?:bar)?\s*{NUMBER}\s*", text, re.IGNORECASE):
        text = "D" + re.sub(r"(?i)^\s*bar", "", text).strip()
    found: dict[str, float] = {}
    at = 0
    word = re.compile(rf"\s*,?\s*(HEX|SQ(?:UARE)?|BORE|[A-Za-zØø]+)?\s*[:=]?\s*{NUMBER}")
    while at < len(text):
        match = word.match(text, at)
        if match is None:
            raise ProgramError("blank", f"'{text[at:].strip()[:20]}' was not understood", EXAMPLE)
        letters = match[1] or ""
        name = NAMES.get(letters) or NAMES.get(letters.upper())
        if name is None or name in found:
            raise ProgramError("blank", f"'{match[0].strip()[:20]}' was not understood", EXAMPLE)
        found[name] = float(match[2]) * (INCH if (match[3] or "").upper() in ("IN", "INCH", '"') else scale)
        at = match.end()
    return _plain(found, cut_to_length)


def _in_letters(match: re.Match[str]) -> str:
    d, d_unit, bore, bore_unit, length, unit = match.groups()
    hollow = f" d{bore}{bore_unit or ''}" if bore else ""
    return f"D{d}{d_unit or ''}{hollow} L{length}{unit or ''}"


def _plain(found: dict[str, float], cut_to_length: bool) -> Blank:
    size = found.get("d") or found.get("hex") or found.get("square")
    length = found.get("length", 0.0)
    if not size or (not length and cut_to_length):
        raise ProgramError("blank", "it needs a size across and a length", EXAMPLE)
    if not (0 < size <= MOST_MM and 0 <= length <= MOST_MM):
        raise ProgramError("blank", f"its sizes have to lie between 0 and {MOST_MM:g} mm", EXAMPLE)
    bore = found.get("bore", 0.0)
    if not 0 <= bore < size:
        raise ProgramError("blank", "its bore is not smaller than itself", EXAMPLE)
    kind = "hex" if "hex" in found else "square" if "square" in found else "tube" if bore else "round"
    return Blank(
        kind=kind, d_mm=size, bore_mm=bore, length_mm=length, front_z=found.get("front", 0.0), jaws_z=found.get("jaws")
    )


def _corners(text: str, scale: float) -> Blank:
    rows = [re.match(rf"^\s*{NUMBER}[\s/]+{NUMBER}\s*$", one) for one in re.split(r"[,;\n]", text) if one.strip()]
    if len(rows) < 2 or any(row is None for row in rows):
        raise ProgramError("blank", "its corners are pairs of Z and diameter", EXAMPLE)
    pairs = [(float(row[1]) * scale, float(row[3]) * scale) for row in rows if row is not None]
    if any(b[0] > a[0] for a, b in pairwise(pairs)) or any(d <= 0 for _, d in pairs):
        raise ProgramError("blank", "its corners go from the front to the back, with diameters above 0", EXAMPLE)
    length = pairs[0][0] - pairs[-1][0]
    if not 0 < length <= MOST_MM:
        raise ProgramError("blank", f"its length has to lie between 0 and {MOST_MM:g} mm", EXAMPLE)
    return Blank(kind="free", corners=tuple(pairs), length_mm=length, front_z=pairs[0][0])
