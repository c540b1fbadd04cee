"""What a shop keeps besides machines, holds, materials and tools: its bars, and its house rules."""

from typing import Literal

from pydantic import Field

from toreuma.core.value import Identifier, Name, Positive, Value

__all__ = ["BarSize", "HouseRules"]


class BarSize(Value):
    """A size of bar or tube that lies in the rack or can be had; ``size_mm`` is across flats where it has some."""

    shape: Literal["round", "hexagon", "square", "tube"] = "round"
    size_mm: Positive
    bore_d_mm: Positive | None = Field(default=None, description="Bore of a tube")
    material: Name = Field(default="", description="Only of this material; empty: of any")
    length_mm: Positive = 3000.0
    price_per_kg: float = Field(default=0.0, ge=0, le=1e5)
    note: Name = ""


class HouseRules(Value):
    """How a shop begins a job, until the person says otherwise in the job."""

    stance: Literal["gentle", "normal", "hard"] = "normal"
    attended: bool = Field(default=True, description="Somebody watches the machine")
    aim: Literal["output", "cost"] = "output"
    coolant: Literal["usual", "dry"] = "usual"
    machine_per_h: Positive = Field(default=60.0, description="Cost of an hour where the machine names none")
    edge_cost: float = Field(default=2.5, ge=0, le=1e6, description="Cost of one cutting edge")
    edge_change_min: Positive = Field(default=2.0, description="Minutes to change an edge")
    offset_error_um: Positive = Field(default=10.0, description="How far the offsets of two tools may be apart")
    face_allowance_mm: float = Field(default=1.0, ge=0, le=100, description="How far a blank stands in front of Z 0")
    bar_allowance_mm: float = Field(
        default=1.0, ge=0, le=50, description="A bar is at least so much larger than the part"
    )
    edge_break_mm: float = Field(default=0.0, ge=0, le=10, description="On sharp outer edges that are not drawn")
    general_tolerance: Literal["", "f", "m", "c", "v"] = Field(default="", description="ISO 2768-1 class")
    thread_infeed: Literal["modified", "radial", "flank", "alternating"] = "modified"
    thread_division: Literal["area", "depth"] = Field(default="area", description="Passes of equal area or equal depth")
    spring_passes: int = Field(default=1, ge=0, le=10, description="Of a thread, at its full depth")
    arcs: Literal["R", "IK"] = Field(default="R", description="How arcs are written")
    dialect: Identifier | None = Field(
        default=None, description="How programs are written; empty: as the machine wants"
    )
    currency: str = Field(default="", max_length=8)
