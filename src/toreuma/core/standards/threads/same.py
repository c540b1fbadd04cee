"""Whether two designations name the same thread, however they are written."""

import re

from toreuma.core.standards.threads.inches import INCH_SIZE, MM, inch_size, listed_size
from toreuma.core.standards.threads.metric import METRIC
from toreuma.core.standards.threads.npsm import NPSM
from toreuma.core.standards.threads.pipe import NPT, PIPE

__all__ = ["cuts_thread", "is_left_hand", "nominal_d_mm"]

INCH = re.compile(
    rf"^#?(?P<size>{INCH_SIZE})(?:\"|in)?\s*-?\s*(?P<tpi>(?<=[-\s])\d+(?:\.\d+)?)?\s*-?\s*(?P<series>UN\w*)?", re.I
)

OTHER_FORM = re.compile(r"BS|NP|ACME|BUTT", re.I)
"""A thread of the same diameter and pitch with other flanks."""

PITCH_SHARE = 0.1
"""The core of a hole tells the pitch within this share of it."""

SAME_MM = 0.005


def cuts_thread(tool_thread: str, pitch_mm: float, wanted: str, core_d_mm: float | None = None) -> bool:
    """Whether a tap of a thread and a pitch cuts the wanted one. Where the wanted one does not say its pitch, the
    hole's core does."""
    if is_left_hand(tool_thread) is not is_left_hand(wanted):
        return False
    if _plain(tool_thread) == _plain(wanted):
        return True
    pipes = _pipe(tool_thread), _pipe(wanted)
    if pipes != (None, None):
        tap, hole = pipes
        into_rp = tap is not None and hole is not None and (tap[0], hole[0]) == ("G", "RP") and tap[1] == hole[1]
        return tap == hole or into_rp  # what a G tap cuts lies within the limits of Rp
    for read in (_metric, _inch):
        own, other = read(tool_thread), read(wanted)
        if own is None or other is None:
            continue
        if abs(own[0] - other[0]) > SAME_MM:
            return False
        pitch = other[1]
        if pitch is None and core_d_mm is not None:
            return abs(other[0] - core_d_mm - pitch_mm) <= PITCH_SHARE * pitch_mm
        return pitch is not None and abs(pitch - pitch_mm) <= SAME_MM
    return False


def is_left_hand(designation: str) -> bool:
    """Whether a designation names a left-hand thread."""
    return bool(re.search(r"LH\b", designation, re.I))


def nominal_d_mm(designation: str) -> float | None:
    """The diameter that a metric or an inch thread is named by, mm; None for others."""
    found = _metric(designation) or _inch(designation)
    return found[0] if found is not None else None


def _plain(designation: str) -> str:
    """Without class, blanks and case."""
    text = re.sub(r"[\s-]+\d[A-Z]{1,2}(\d[A-Z]{1,2})?$", "", designation.strip().upper())
    return text.replace(" ", "").lstrip("#")


def _pipe(text: str) -> tuple[str, str] | None:
    """Family and size of a pipe thread."""
    plain = re.sub(r"\s*-?\s*LH$", "", text.strip(), flags=re.I)
    for pattern, family in ((NPT, "NPT"), (NPSM, "NPSM"), (PIPE, "")):
        match = pattern.match(plain)
        if match is None:
            continue
        said = match.groupdict()
        size = listed_size(next(said[one] for one in ("a", "b", "size", "size2") if said.get(one)))
        kind = (said.get("kind") or said.get("kind2") or "").upper()
        dry = "F" if said.get("dry") or said.get("dry2") else ""
        kind = {"BSP": "G", "BSPP": "G", "BSPT": "RC", "R": "RC"}.get(kind, kind)
        return family + dry + kind, size
    return None


def _metric(text: str) -> tuple[float, float | None] | None:
    """Diameter and pitch, mm."""
    match = METRIC.match(text.strip())
    if match is None:
        return None
    pitch = match["p"] or match["p2"] or match["p3"]
    return float(match["d"].replace(",", ".")), float(pitch.replace(",", ".")) if pitch else None


def _inch(text: str) -> tuple[float, float | None] | None:
    match = INCH.match(text.strip())
    if match is None or not (match["tpi"] or match["series"]) or OTHER_FORM.search(text):
        return None
    size = match["size"]
    numbered = size.isdigit() and int(size) <= 12 and match["tpi"] is not None
    d = inch_size(f"#{size}" if numbered else listed_size(size))
    return d * MM, MM / float(match["tpi"]) if match["tpi"] and float(match["tpi"]) > 0 else None
