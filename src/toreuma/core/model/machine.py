"""The machine as far as times, speeds and power need it."""

import itertools
from typing import Literal

from pydantic import Field, model_validator

from toreuma.core.model.base import Name, Positive, Share, Value

__all__ = ["Machine", "PowerPoint"]


class PowerPoint(Value):
    """One corner of the spindle motor's curve; straight lines in between."""

    rpm: float = Field(ge=0)
    power_kw: float = Field(ge=0, description="Motor power available at this speed")


class Machine(Value):
    name: Name
    max_rpm: Positive
    power: tuple[PowerPoint, ...] = Field(min_length=2, description="Continuous rating, by rising speed")
    short_power: tuple[PowerPoint, ...] = Field(default=(), description="Intermittent rating, by rising speed")
    short_minutes: Positive = Field(default=10.0, description="How long the intermittent rating may be drawn")
    surface_speed: bool = Field(default=True, description="Has constant surface speed")
    speeds_rpm: tuple[Positive, ...] = Field(
        default=(), max_length=100, description="The only spindle speeds there are, rising; empty: every speed"
    )
    feeds_mm_rev: tuple[Positive, ...] = Field(
        default=(), max_length=200, description="The only feeds there are, rising; empty: every feed"
    )
    speed_override_pct: tuple[Positive, Positive] = Field(default=(50.0, 120.0), description="Of the spindle's switch")
    feed_override_pct: tuple[float, Positive] = Field(default=(0.0, 150.0), description="Of the feed's switch")
    efficiency: Share = Field(default=0.8, description="Share of motor power that reaches the cut")
    rapid_x_mm_min: Positive = Field(description="Rapid of the cross slide, on radius")
    rapid_z_mm_min: Positive
    acceleration_mm_s2: Positive = 1500.0
    tool_change_s: float = Field(default=2.0, ge=0)
    spindle_ramp_rpm_s: Positive = Field(default=1500.0, description="How fast the spindle changes speed")
    stations: int = Field(ge=1, le=200)
    carrier: Literal["turret", "gang plate"] = Field(default="turret", description="What the stations are on")
    milling_stations: int = Field(
        default=0, ge=0, le=200, description="The last so many stations are tools of a milling spindle, one at a time"
    )
    second_spindle: bool = Field(default=False, description="A second spindle faces the first")
    shank_mm: Positive = Field(default=20.0, description="Shank height the stations take without packing")
    bar_mm: Positive = Field(default=25.0, description="Largest round shank the stations take; bushings below that")
    station_pitch_mm: Positive = Field(default=80.0, description="Distance of neighbouring tools")
    reference_d_mm: Positive = Field(description="Diameter at the reference point of the turret")
    reference_from_nose_mm: Positive = Field(description="Reference point in front of the chuck body's face")

    @model_validator(mode="after")
    def _rising(self) -> "Machine":
        rising = (
            ("speeds of the power curve", [point.rpm for point in self.power]),
            ("speeds of the intermittent rating", [point.rpm for point in self.short_power]),
            ("spindle speeds of the ladder", self.speeds_rpm),
            ("feeds of the ladder", self.feeds_mm_rev),
        )
        for name, numbers in rising:
            if any(later <= earlier for earlier, later in itertools.pairwise(numbers)):
                raise ValueError(f"the {name} must rise from one to the next")
        return self
