"""Sentences in the person's units: sizes inside a text written in mm, shown in inches."""

import re

from toreuma.core.units import System, show

__all__ = ["spoken"]

NUMBER = r"[-\u2212]?\d[\d\u2009]*(?:\.\d+)?"
UNITS = {"mm/rev": "mm/rev", "mm²": "mm2", "mm": "mm", "µm": "um", "m/min": "m/min", "kW": "kW", "N": "N"}
WITH_UNIT = re.compile(
    rf"(?P<first>{NUMBER})(?: to (?P<last>{NUMBER}))? (?P<unit>{'|'.join(UNITS)})(?![\w³²/])", re.UNICODE
)
ALONG_Z = re.compile(rf"\bZ (?P<first>{NUMBER})(?: to (?P<last>{NUMBER}))?(?! ?(?:mm|in)\b| to [-\u2212\d])(?![\d.])")


def spoken(text: str, system: System) -> str:
    """The text with every size and every place along Z in the person's units."""
    if system == "mm":
        return text
    return ALONG_Z.sub(_place, WITH_UNIT.sub(_size, text))


def _number(text: str) -> float:
    return float(text.replace("\u2212", "-").replace("\u2009", ""))


def _size(match: "re.Match[str]") -> str:
    unit = UNITS[match["unit"]]
    if unit == "um" and not match.string[: match.start()].endswith(("Ra ", "Rt ", "finish ")):
        unit = "size_um"
    first = show(_number(match["first"]), unit, "inch", trim=True)
    if match["last"] is None:
        return str(first)
    return f"{first.number} to {show(_number(match['last']), unit, 'inch', trim=True)}"


def _place(match: "re.Match[str]") -> str:
    ends = [match["first"], *([match["last"]] if match["last"] else [])]
    return "Z " + " to ".join(show(_number(end), "mm", "inch", trim=True).number for end in ends)
