"""A profile as the steps it could have been typed in."""

from dataclasses import dataclass

from toreuma.core.line.place import SAME_MM, Placed
from toreuma.core.line.step import CornerWord, Step
from toreuma.core.model import Element

__all__ = ["StepOf", "steps_of"]


@dataclass(frozen=True)
class StepOf:
    """A step, and how many elements of the profile it is: one, or two with the face it begins with."""

    placed: Placed
    elements: int


def steps_of(elements: tuple[Element, ...]) -> list[StepOf]:
    """Steps of a profile, each with the corners at its ends said where they are."""
    found: list[StepOf] = []
    z, d = 0.0, 0.0
    face: Element | None = None
    for element in elements:
        flat = element.kind == "line" and abs(element.z_mm - z) < SAME_MM and element.size is None
        flat = flat and element.grind_mm is None
        if flat and face is None and abs(element.d_mm - d) > SAME_MM:
            face, z, d = element, element.z_mm, element.d_mm
            continue
        corners: list[CornerWord] = []
        if face is not None and face.corner is not None:
            corners.append(CornerWord(face.corner.kind, face.corner.size_mm, "front"))
        if element.corner is not None:
            corners.append(CornerWord(element.corner.kind, element.corner.size_mm, "back"))
        step = Step(
            start=0,
            end=0,
            d0=d,
            d1=element.d_mm if abs(element.d_mm - d) > SAME_MM or element.kind == "arc" else None,
            size=element.size,
            length_mm=round(z - element.z_mm, 9),
            radius_mm=element.radius_mm if element.kind == "arc" else None,
            hollow=element.kind == "arc" and element.bulge == "concave",
            corners=tuple(corners),
            ra_um=element.ra_um,
            grind_mm=element.grind_mm,
            name=element.name,
            face_name=face.name if face is not None else "",
            face_ra_um=face.ra_um if face is not None else None,
        )
        found.append(StepOf(Placed(step, z, d, element.z_mm, element.d_mm), 2 if face is not None else 1))
        z, d, face = element.z_mm, element.d_mm, None
    if face is not None:  # a face at the very end
        before = found[-1].placed.d1 if found else 0.0
        step = Step(start=0, end=0, d0=before, d1=d, length_mm=0.0, name=face.name)
        found.append(StepOf(Placed(step, z, before, z, d), 1))
    return found
