"""Knurled cylinders: turned below their drawn diameter first, with the ridges standing above that afterwards."""

from collections.abc import Iterator

from toreuma.core.errors import PartError
from toreuma.core.geometry.region import Region, box, union
from toreuma.core.model.feature import Knurl
from toreuma.core.model.part import Element, Part
from toreuma.core.standards.knurls import blank_d_mm

__all__ = ["ROOM_PITCHES", "as_turned", "knurled", "nominal_d_mm", "ridges"]

ROOM_PITCHES = 2.0
"""A knurl takes its whole cylinder but for corners and so many pitches: what is beside it is turned below size."""

NEAR_MM = 1e-6


def as_turned(part: Part) -> Part:
    """The part as it is turned before anything is knurled. Raises `PartError` where a knurl has no cylinder."""
    outside = list(part.outside)
    for index, knurl in knurled(part):
        first, last = _cylinder(part, index, knurl)
        d = blank_d_mm(knurl.form, part.outside[last].d_mm, knurl.pitch_mm)
        for at in (first, last):
            outside[at] = outside[at].changed(d_mm=d)
    return part if tuple(outside) == part.outside else part.changed(outside=tuple(outside))


def knurled(part: Part) -> Iterator[tuple[int, Knurl]]:
    """The knurls of a part with their place among its features."""
    for index, feature in enumerate(part.features):
        if isinstance(feature, Knurl):
            yield index, feature


def nominal_d_mm(part: Part, index: int, knurl: Knurl) -> float:
    """Diameter over the ridges of a feature of the part, mm. Raises `PartError` where it has no cylinder."""
    return part.outside[_cylinder(part, index, knurl)[1]].d_mm


def ridges(part: Part) -> Region:
    """The rings in which the ridges of all knurls stand, upper half, mm."""
    found = []
    for index, knurl in knurled(part):
        d = nominal_d_mm(part, index, knurl)
        low = blank_d_mm(knurl.form, d, knurl.pitch_mm) / 2
        found.append(box(knurl.from_z_mm - knurl.length_mm, low, knurl.from_z_mm, d / 2))
    return union(found)


def _cylinder(part: Part, index: int, knurl: Knurl) -> tuple[int, int]:
    """The elements at the ends of the cylinder the knurl lies on."""
    elements, middle = part.outside, knurl.from_z_mm - knurl.length_mm / 2

    def refused(field: str, what: str, cure: str) -> PartError:
        return PartError(index, field, what, cure, "features")

    for last in range(1, len(elements)):
        before, here = elements[last - 1], elements[last]
        level = here.kind == "line" and abs(before.d_mm - here.d_mm) < NEAR_MM
        if not level or not here.z_mm < middle < before.z_mm:
            continue
        room = ROOM_PITCHES * knurl.pitch_mm + _corner(before) + _corner(here)
        length = before.z_mm - here.z_mm
        if knurl.length_mm > length + NEAR_MM:
            raise refused("length_mm", "the knurl is longer than its cylinder", "make it shorter")
        if knurl.length_mm < length - room:
            what = f"the knurl takes {knurl.length_mm:g} mm of a cylinder {length:g} mm long"
            raise refused("length_mm", what, "split the cylinder where the knurl ends: it is turned smaller before")
        if blank_d_mm(knurl.form, here.d_mm, knurl.pitch_mm) <= knurl.pitch_mm:
            raise refused("pitch_mm", "the pitch is too coarse for this diameter", "choose a finer one")
        return last - 1, last
    raise refused("from_z_mm", "the knurl lies on no cylinder of the outside", "move it onto one")


def _corner(element: Element) -> float:
    return element.corner.size_mm if element.corner is not None else 0.0
