"""What a spindle can do besides turning: stand at an angle, and face another one to take the part over."""

from pydantic import Field

from toreuma.core.value import Positive, Share, Value

__all__ = ["CAxis", "PowerPoint", "SecondSpindle"]


class PowerPoint(Value):
    """One corner of the spindle motor's curve; straight lines in between."""

    rpm: float = Field(ge=0)
    power_kw: float = Field(ge=0, description="Motor power available at this speed")


class CAxis(Value):
    """The spindle as an axis: it stands at an angle under a brake, or turns slowly in step with other axes."""

    rapid_deg_s: Positive = 360.0
    engage_s: float = Field(default=1.0, ge=0, le=60, description="From turning to standing at its zero")
    brake_nm: float = Field(default=0.0, ge=0, le=1e5, description="Torque its brake holds; 0: it has none")
    brake_s: float = Field(default=0.3, ge=0, le=10, description="To close, and again to open")
    follow_nm: Positive = Field(default=50.0, description="Torque it holds while it moves")


class SecondSpindle(Value):
    """A spindle that faces the first one and comes along Z to take the part."""

    max_rpm: Positive
    power: tuple[PowerPoint, ...] = Field(min_length=2, description="Continuous rating, by rising speed")
    efficiency: Share = 0.85
    travel_mm: Positive = Field(description="How far it moves along Z")
    least_gap_mm: float = Field(ge=0, le=1e4, description="Between the faces of both spindle noses, when it is closest")
    rapid_mm_min: Positive = 20000.0
    push_n: Positive = Field(default=3000.0, description="Force along Z at which its drive gives up")
    sync_s: float = Field(default=1.0, ge=0, le=60, description="To match the speed of the other spindle")
    phase_s: float = Field(default=0.8, ge=0, le=60, description="To match its angle as well")
    clamp_s: float = Field(default=1.0, ge=0, le=60, description="To open or to close")
    c_axis: CAxis | None = None

    @property
    def retracted_gap_mm(self) -> float:
        """Between the spindle noses when it stands back."""
        return self.least_gap_mm + self.travel_mm
