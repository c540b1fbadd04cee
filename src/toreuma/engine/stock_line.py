"""The blank of a job in one line: a bar, a sawn piece, a tube, or a casting: ``D60``, ``D60 L80``, ``casting 3``."""

import re

from toreuma.core.errors import JobError, ProgramError
from toreuma.core.model import Job
from toreuma.core.units import System
from toreuma.engine.foreign_blank import INCH, NUMBER, blank_of
from toreuma.engine.proposals import proposed

__all__ = ["with_blank"]

GROWN = re.compile(rf"^\s*(?P<how>cast(?:ing)?|forg(?:ing|ed))\s*\+?\s*(?:{NUMBER})?\s*$", re.IGNORECASE)
USUAL_ALLOWANCE_MM, MOST_ALLOWANCE_MM = 3.0, 50.0
CAST_SKIN_MM, FORGED_SKIN_MM = 1.0, 0.5
"""How deep a skin goes: typical."""
EXAMPLE = 'write it as "D60", "D60 L80", "D80 d50", "HEX 24", or "casting 3"'
SIDES = {"hex": 6, "square": 4}
KEPT = ("material", "supply", "face_allowance_mm", "skin", "skin_mm", "runout_mm")


def with_blank(job: Job, line: str) -> Job:
    """The job cut from that blank; hold and stick-out follow it as far as nobody set them. Raises `JobError`."""
    kept = job.stock.model_dump(include=set(KEPT)) | {"material": job.stock.material}
    follows = tuple(one for one in job.follows if one != "blank")
    return proposed(job.changed(stock=kept | _sizes(line, job.units), follows=follows))


def _sizes(line: str, system: System) -> dict[str, object]:
    scale = INCH if system == "inch" else 1.0
    if grown := GROWN.match(line):
        skin, deep = ("hard", CAST_SKIN_MM) if grown["how"].lower().startswith("cast") else ("scale", FORGED_SKIN_MM)
        unit = (grown[3] or "").upper()
        of = INCH if unit.startswith("IN") or unit == '"' else 1.0 if unit else scale
        allowance = float(grown[2]) * of if grown[2] else USUAL_ALLOWANCE_MM
        if not 0 < allowance <= MOST_ALLOWANCE_MM:
            raise JobError("blank", f"an allowance lies between 0 and {MOST_ALLOWANCE_MM:g} mm", EXAMPLE)
        return {"kind": "free", "allowance_mm": allowance, "face_allowance_mm": allowance,
                "skin": skin, "skin_mm": min(deep, allowance / 2)}  # fmt: skip
    try:
        blank = blank_of(line, scale, cut_to_length=False)
    except ProgramError as error:
        raise JobError("blank", error.what, EXAMPLE) from None
    if blank.corners:
        raise JobError("blank", "corners are no bar", EXAMPLE)
    length = {"length_mm": blank.length_mm or None}
    if blank.kind in SIDES:
        return {"kind": "polygon", "sides": SIDES[blank.kind], "across_mm": blank.d_mm} | length
    if blank.kind == "tube":
        return {"kind": "tube", "d_mm": blank.d_mm, "bore_d_mm": blank.bore_mm} | length
    return {"kind": "round", "d_mm": blank.d_mm} | length
