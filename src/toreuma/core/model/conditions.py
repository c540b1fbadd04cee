"""How a job is to be run: how boldly, who watches, with or without coolant, and which derates are left out."""

from typing import Literal

from pydantic import Field

from toreuma.core.value import Name, Positive, Value

__all__ = ["Conditions", "LeftOut"]


class LeftOut(Value):
    """A derate the person leaves out, and why."""

    derate: Name
    reason: str = Field(min_length=1, max_length=300)


class Conditions(Value):
    stance: Literal["gentle", "normal", "hard"] = "normal"
    attended: bool = Field(default=True, description="Somebody watches the machine")
    aim: Literal["output", "cost"] = Field(default="output", description="Most metal per minute, or least cost")
    machine_per_h: Positive = Field(default=60.0, description="Cost of an hour of the machine, in any currency")
    edge_cost: float = Field(default=2.5, ge=0, le=1e6, description="Cost of one cutting edge, in the same currency")
    edge_change_min: Positive = Field(default=2.0, description="Minutes to change an edge")
    offset_error_um: Positive = Field(default=10.0, description="How far the offsets of two tools may be apart")
    coolant: Literal["usual", "dry"] = "usual"
    left_out: tuple[LeftOut, ...] = Field(default=(), max_length=50)

    def reason_for(self, derate: str) -> str:
        """Why a derate is left out; empty when it counts."""
        return next((one.reason for one in self.left_out if one.derate == derate), "")
