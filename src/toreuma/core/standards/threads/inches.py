"""Sizes as the inch standards write them: ``1/2``, ``1-1/8``, ``#10``, ``.250``."""

import re
from fractions import Fraction

from toreuma.core.errors import StandardError

__all__ = ["INCH_SIZE", "MM", "inch_size", "listed_size"]

MM = 25.4

LARGEST_IN = 1000.0
"""No list goes so far."""

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
    """The size as the tables list it: decimals as the fraction they are, or the numbered size."""
    plain = re.sub(r"\s+", "-", text.strip())
    if "/" in plain or plain.startswith("#"):
        return plain
    size = float(plain)
    if size > LARGEST_IN:
        return plain
    numbered = next((n for n in range(13) if abs(0.060 + 0.013 * n - size) < 5e-5), None)
    if "." in plain and numbered is not None:
        return f"#{numbered}"
    sixteenths = round(16 * size)
    if "." not in plain or sixteenths == 0 or abs(sixteenths / 16 - size) > 6e-4:
        return f"{size:g}"
    whole, rest = divmod(Fraction(sixteenths, 16), 1)
    return "-".join(str(one) for one in (whole, rest) if one)
