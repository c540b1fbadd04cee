"""Sizes pulled at: a corner moved along Z, a cylinder made thicker; what belongs together stays together."""

from typing import Any, Literal

from toreuma.core.model import Part

__all__ = ["moved_corner", "widened"]

Side = Literal["outside", "inside"]
SAME_MM = 1e-6


def _chain(part: Part, side: Side) -> list[Any]:
    return list(part.outside if side == "outside" else part.inside)


def moved_corner(part: Part, side: Side, element: int, z_mm: float) -> Part:
    """The end of an element at another Z, with the faces that stand there. Raises pydantic's `ValidationError`."""
    elements = _chain(part, side)
    old = elements[element].z_mm
    first = last = element
    while first > 0 and abs(elements[first - 1].z_mm - old) < SAME_MM:
        first -= 1
    while last + 1 < len(elements) and abs(elements[last + 1].z_mm - old) < SAME_MM:
        last += 1
    for index in range(first, last + 1):
        elements[index] = elements[index].changed(z_mm=z_mm)
    return part.changed(**{side: tuple(elements)})


def widened(part: Part, side: Side, element: int, d_mm: float) -> Part:
    """A cylinder of another diameter, with the ends of what meets it there. Raises pydantic's `ValidationError`."""
    elements = _chain(part, side)
    old = elements[element].d_mm
    first = last = element
    while first > 0 and abs(elements[first - 1].d_mm - old) < SAME_MM:
        first -= 1
    while last + 1 < len(elements) and abs(elements[last + 1].d_mm - old) < SAME_MM:
        last += 1
    for index in range(first, last + 1):
        elements[index] = elements[index].changed(d_mm=d_mm)
    return part.changed(**{side: tuple(elements)})
