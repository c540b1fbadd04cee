"""How the blank is held."""

from typing import Annotated, Literal

from pydantic import Field

from toreuma.core.model.base import Name, Positive, Value

__all__ = ["Chuck"]


class Chuck(Value):
    """A jaw chuck gripping outside. All lengths along Z are measured from the front of the jaws."""

    kind: Literal["chuck"] = "chuck"
    name: Name = ""
    stick_out_mm: Positive = Field(description="From the front of the jaws to the front of the bar")
    grip_length_mm: Positive = Field(description="Length of bar inside the jaws")
    jaw_length_mm: Positive = Field(description="How far the jaws stand out of the chuck body")
    jaw_height_mm: Positive = Field(description="Radial height of the jaws above the grip")
    body_d_mm: Positive
    body_length_mm: Positive = 80.0
    max_rpm: Positive = Field(description="Limit on the chuck's own plate")
    tool_clearance_mm: Annotated[float, Field(ge=0)] = Field(
        default=1.0, description="Smallest distance any tool keeps from jaws and chuck"
    )
