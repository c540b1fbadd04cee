"""How a job is to be run: how boldly, who watches, with or without coolant, and which derates are left out."""

from typing import Literal

from pydantic import Field

from toreuma.core.model.base import Name, Value

__all__ = ["Conditions", "LeftOut"]


class LeftOut(Value):
    """A derate the person leaves out, and why."""

    derate: Name
    reason: str = Field(min_length=1, max_length=300)


class Conditions(Value):
    stance: Literal["gentle", "normal", "hard"] = "normal"
    attended: bool = Field(default=True, description="Somebody watches the machine")
    coolant: Literal["usual", "dry"] = "usual"
    left_out: tuple[LeftOut, ...] = Field(default=(), max_length=50)

    def reason_for(self, derate: str) -> str:
        """Why a derate is left out; empty when it counts."""
        return next((one.reason for one in self.left_out if one.derate == derate), "")
