"""What carries a slender piece between its ends."""

from typing import Annotated, Literal

from pydantic import Field

from toreuma.core.value import Length, Name, Positive, Value

__all__ = ["FollowRest", "Rest", "SteadyRest"]

Amount = Annotated[float, Field(ge=0, le=1e4)]


class _Rest(Value):
    name: Name = ""
    range_mm: tuple[Positive, Positive] = Field(description="Diameters its rollers close on")
    roller_mm: Positive = Field(default=12.0, description="Width of its rollers along Z")
    max_rpm: Positive = Field(default=3000.0, description="Limit of its rollers")


class SteadyRest(_Rest):
    """Stands on the bed and carries the piece at one place; in this hold only what lies in front of it is cut."""

    kind: Literal["steady"] = "steady"
    z_mm: Length = Field(default=-50.0, description="Middle of its rollers, from the finished front")
    frame_mm: Positive = Field(default=50.0, description="Its frame along Z")
    frame_d_mm: Positive = Field(default=300.0, description="Outside of its frame")
    arm_mm: Amount = Field(default=30.0, description="Its rollers stand in from the frame by it, on radius")


class FollowRest(_Rest):
    """Rides on the saddle and carries the piece on what the tool has just turned, behind the tool."""

    kind: Literal["follow"] = "follow"
    behind_mm: Positive = Field(default=12.0, description="From the nose to the middle of its rollers")


Rest = Annotated[SteadyRest | FollowRest, Field(discriminator="kind")]
