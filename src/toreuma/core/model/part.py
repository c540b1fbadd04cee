"""The finished part: its outside profile as a turner dimensions it."""

from typing import Annotated, Literal

from pydantic import Field

from toreuma.core.model.base import Length, Name, Positive, Value

__all__ = ["Corner", "Element", "Part"]

Diameter = Annotated[float, Field(ge=0, le=1e5)]


class Corner(Value):
    """What happens at the end of an element where it meets the next one."""

    kind: Literal["chamfer", "round"]
    size_mm: Positive = Field(description="Leg of the chamfer measured along each edge, or radius of the round")


class Element(Value):
    """One line or arc of the profile, given by where it ends."""

    kind: Literal["line", "arc"] = "line"
    z_mm: Length = Field(description="Z of the end, 0 at the finished front face, negative toward the chuck")
    d_mm: Diameter = Field(description="Diameter at the end")
    radius_mm: Positive | None = Field(default=None, description="Arc radius")
    bulge: Literal["convex", "concave"] = Field(default="convex", description="Which way an arc bows")
    corner: Corner | None = None
    name: Name = ""


class Part(Value):
    """The outside profile starts on the axis at Z 0 and runs toward the chuck; the back face closes it."""

    name: Name = ""
    outside: tuple[Element, ...] = Field(min_length=1, max_length=2000)
