"""Numbers as the line writes them: the fewest digits that read back the same."""

from toreuma.core.units import System

__all__ = ["length_text", "plain_text"]

NEAT_INCH, MOST = 5, 9


def plain_text(value: float, most: int = MOST) -> str:
    """A number without trailing zeros."""
    text = f"{value:.{most}f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def length_text(mm: float, units: System) -> str:
    """A length in mm as it is typed in a job's unit; neat millimetres in an inch job stay millimetres."""
    if units == "mm":
        return plain_text(mm, 6)
    inch = mm / 25.4
    if abs(round(inch, NEAT_INCH) * 25.4 - mm) < 1e-7:
        return plain_text(inch, NEAT_INCH)
    if abs(round(mm, 4) - mm) < 1e-9:
        return f"{plain_text(mm, 4)}mm"
    return plain_text(inch)
