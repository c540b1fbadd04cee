"""Sizes as the inch standards write them: ``1/2``, ``1-1/8``, ``#10``, ``.250``."""

import re

from toreuma.core.errors import StandardError

__all__ = ["INCH_SIZE", "MM", "inch_size", "listed_size"]

MM = 25.4

INCH_SIZE = r"#?\d+(?:\.\d+)?(?:[- ]\d+/\d+|/\d+)?|\.\d+"
"""What a size may look like, for use in a pattern."""


def inch_size(text: str) -> float:
    """Diameter in inches. Numbered sizes are 0.060 + 0.013 N. Raises `StandardError`."""
    plain = text.strip().replace(" ", "-")
    if plain.startswith("#"):
        return round(0.060 + 0.013 * int(plain[1:].split(".")[0]), 4)
    whole, _, fraction = plain.rpartition("-")
    try:
        if "/" not in fraction:
            return float(fraction if not whole else plain)
        top, bottom = fraction.split("/")
        return (float(whole) if whole else 0.0) + float(top) / float(bottom)
    except (ValueError, ZeroDivisionError):
        raise StandardError(text, "this is not a size in inches", "write it like 1/2, 1-1/8, #10 or .250") from None


def listed_size(text: str) -> str:
    """The size as the tables list it."""
    plain = re.sub(r"\s+", "-", text.strip())
    return plain if "/" in plain or plain.startswith("#") else f"{float(plain):g}"
