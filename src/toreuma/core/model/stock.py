"""The blank before the first cut."""

from typing import Literal

from pydantic import Field

from toreuma.core.model.base import Positive, Value
from toreuma.core.model.material import Material

__all__ = ["RoundBar"]


class RoundBar(Value):
    """A round bar, sticking out in front of Z 0 by the facing allowance."""

    kind: Literal["round"] = "round"
    d_mm: Positive
    face_allowance_mm: float = Field(default=1.0, ge=0, le=1e4, description="How far the bar stands in front of Z 0")
    material: Material
