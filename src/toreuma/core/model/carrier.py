"""What carries tools: a turret, a gang plate or a milling spindle, what it reaches and what it can drive."""

from typing import Literal

from pydantic import Field, model_validator

from toreuma.core.value import Name, Positive, Value

__all__ = ["Carrier", "LiveDrive", "SpindleName"]

SpindleName = Literal["main", "sub"]


class LiveDrive(Value):
    """The drive of tools that turn by themselves."""

    max_rpm: Positive
    power_kw: Positive = Field(description="Continuous, at the tool")
    torque_nm: Positive = Field(description="Largest, at low speed")
    run_up_s: float = Field(default=0.5, ge=0, le=60, description="To come to speed, and to turn back")


class Carrier(Value):
    """One tool carrier. Its stations are numbered on from those of the carriers before it."""

    name: Name = "turret"
    kind: Literal["turret", "gang plate", "milling spindle"] = Field(
        default="turret", description="All tools turn with it, stand side by side, or sit in it one at a time"
    )
    stations: int = Field(ge=1, le=200)
    channel: int = Field(default=1, ge=1, le=8, description="The program that moves it")
    side: Literal["above", "below"] = Field(default="above", description="Of the spindle axis, where it comes from")
    reaches: tuple[SpindleName, ...] = Field(default=("main",), min_length=1, max_length=2)
    shank_mm: Positive = Field(default=20.0, description="Shank height the stations take without packing")
    bar_mm: Positive = Field(default=25.0, description="Largest round shank the stations take; bushings below that")
    station_pitch_mm: Positive = Field(default=80.0, description="Distance of neighbouring tools")
    tool_change_s: float = Field(default=2.0, ge=0)
    reference_d_mm: Positive = Field(description="Diameter at its reference point")
    reference_from_nose_mm: Positive = Field(description="Reference point in front of the main chuck body's face")
    live: LiveDrive | None = Field(default=None, description="Drives tools; empty: they stand still")
    y_mm: float = Field(default=0.0, ge=0, le=1e4, description="Travel square to X and Z, to each side; 0: none")
    nose_d_mm: float = Field(default=0.0, ge=0, le=1e4, description="Of a milling spindle's nose; 0: not known")
    through_tool_bar: float = Field(default=0.0, ge=0, le=1000, description="Coolant through the tool; 0: none")

    @model_validator(mode="after")
    def _once(self) -> "Carrier":
        if len(set(self.reaches)) != len(self.reaches):
            raise ValueError("a carrier reaches a spindle once")
        return self
