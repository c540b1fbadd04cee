"""The finished part as a turner dimensions it: outside and inside profiles, sizes, finish, features."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from toreuma.core.model.feature import Feature
from toreuma.core.value import Length, Name, Positive, Value

__all__ = ["Corner", "Element", "Part", "Size", "limits_turned", "turned_size"]

GROUND_LATER_UM = 50.0
"""What is ground next is turned to its size and this much on either side: usual, grinding takes out the rest."""

Diameter = Annotated[float, Field(ge=0, le=1e5)]


class Corner(Value):
    """What happens at the end of an element where it meets the next one."""

    kind: Literal["chamfer", "round"]
    size_mm: Positive = Field(description="Leg of the chamfer measured along each edge, or radius of the round")


class Size(Value):
    """Limits of a diameter, as deviations from the nominal one. Programs aim at the middle."""

    fit: Name = Field(default="", description="Tolerance letter and grade the limits come from; empty: typed limits")
    lower_um: float = Field(ge=-1e5, le=1e5)
    upper_um: float = Field(ge=-1e5, le=1e5)

    @model_validator(mode="after")
    def _ordered(self) -> "Size":
        if self.lower_um > self.upper_um:
            raise ValueError("the lower limit must not stand above the upper one")
        return self

    @property
    def middle_mm(self) -> float:
        """How far the middle of the limits lies from the nominal diameter."""
        return (self.lower_um + self.upper_um) / 2000


class Element(Value):
    """One line or arc of a profile, given by where it ends."""

    kind: Literal["line", "arc"] = "line"
    z_mm: Length = Field(description="Z of the end, 0 at the finished front face, negative toward the chuck")
    d_mm: Diameter = Field(description="Diameter at the end")
    radius_mm: Positive | None = Field(default=None, description="Arc radius")
    bulge: Literal["convex", "concave"] = Field(default="convex", description="Which way an arc bows, seen from metal")
    corner: Corner | None = None
    size: Size | None = Field(default=None, description="Limits of the diameter of a cylinder")
    ra_um: Positive | None = Field(default=None, description="Roughness wanted on this surface")
    grind_mm: Annotated[float, Field(gt=0, le=20)] | None = Field(
        default=None, description="What turning leaves on the diameter for grinding, which makes limits and finish"
    )
    name: Name = ""


def turned_size(element: Element, side: str) -> Size | None:
    """Limits of a diameter, ``outside`` or ``inside``, as turning leaves it, as deviations from the nominal one: larger
    outside and smaller inside by what is ground off."""
    if element.grind_mm is None:
        return element.size
    more = 1000 * element.grind_mm * (1 if side == "outside" else -1)
    return Size(lower_um=more - GROUND_LATER_UM, upper_um=more + GROUND_LATER_UM)


def limits_turned(element: Element, side: str) -> tuple[float, float] | None:
    """The same as diameters, mm."""
    size = turned_size(element, side)
    return None if size is None else (element.d_mm + size.lower_um / 1000, element.d_mm + size.upper_um / 1000)


class Part(Value):
    """The outside profile starts on the axis at Z 0 and runs toward the chuck; the back face closes it.

    The inside profile starts on the axis at Z 0 as well: its first element ends at the mouth of the bore. A last
    element on the back face makes a through bore; one that ends before it, a flat bottom.
    """

    name: Name = ""
    outside: tuple[Element, ...] = Field(min_length=1, max_length=2000)
    inside: tuple[Element, ...] = Field(default=(), max_length=2000)
    inside_from_back: bool = Field(default=False, description="The bore opens in the back face and is read from there")
    features: tuple[Feature, ...] = Field(default=(), max_length=500)
    edge_break_mm: float = Field(default=0.0, ge=0, le=100, description="Chamfer on sharp outer edges not drawn")
    general_tolerance: Literal["", "f", "m", "c", "v"] = Field(default="", description="ISO 2768-1 class")
    ra_um: Positive | None = Field(default=None, description="Roughness of surfaces without a mark of their own")
