"""The blank before the first cut, and what it comes from."""

import math
from typing import Annotated, Literal

from pydantic import Field

from toreuma.core.model.material import Material
from toreuma.core.model.part import Element
from toreuma.core.value import Positive, Value

__all__ = ["FreeBlank", "PolygonBar", "RoundBar", "Stock", "Supply", "TubeBar"]

Amount = Annotated[float, Field(ge=0, le=1e5)]


class Supply(Value):
    """How the material arrives and what it costs."""

    bar_length_mm: Positive = 3000.0
    remnant_mm: Amount = Field(default=80.0, description="Shortest rest of a bar that can still be held")
    regrip_mm: Amount = Field(default=0.0, description="Lost on every part besides cut and facing")
    part_off_mm: Positive | None = Field(default=None, description="Width of the cut; empty: that of the blade")
    back_to_back: bool = Field(default=False, description="Two parts on one blank, turned round and cut apart")
    batch: int = Field(default=1, ge=1, le=10_000_000)
    price_per_kg: Amount = 0.0
    currency: str = Field(default="", max_length=8)


class _Stock(Value):
    face_allowance_mm: float = Field(default=1.0, ge=0, le=1e4, description="How far the blank stands in front of Z 0")
    length_mm: Positive | None = Field(default=None, description="Length of a sawn piece; empty: a bar")
    skin: Literal["clean", "scale", "hard"] = Field(default="clean", description="What the surface is like")
    skin_mm: Amount = Field(default=0.0, description="How deep scale or hard skin goes, on radius")
    runout_mm: Amount = Field(default=0.0, description="How far the surface runs out, full reading")
    supply: Supply = Supply()
    material: Material


class RoundBar(_Stock):
    """A round bar or a slug sawn from one."""

    kind: Literal["round"] = "round"
    d_mm: Positive

    @property
    def largest_d_mm(self) -> float:
        """Diameter of the circle that holds the whole section, mm."""
        return self.d_mm

    @property
    def round_d_mm(self) -> float:
        """Largest diameter that is metal all round, mm."""
        return self.d_mm

    def section_mm2(self) -> float:
        """Area of the section, mm2."""
        return math.pi / 4 * self.d_mm**2


class PolygonBar(_Stock):
    """A square or hexagonal bar, measured across flats."""

    kind: Literal["polygon"] = "polygon"
    sides: Literal[4, 6] = 6
    across_mm: Positive

    @property
    def largest_d_mm(self) -> float:
        """Diameter of the circle that holds the whole section, mm."""
        return self.across_mm / math.cos(math.pi / self.sides)

    @property
    def round_d_mm(self) -> float:
        """Largest diameter that is metal all round, mm."""
        return self.across_mm

    def section_mm2(self) -> float:
        """Area of the section, mm2."""
        return self.sides * (self.across_mm / 2) ** 2 * math.tan(math.pi / self.sides)


class TubeBar(_Stock):
    """A tube, or a blank with a hole drilled or cast in it."""

    kind: Literal["tube"] = "tube"
    d_mm: Positive
    bore_d_mm: Positive
    bore_depth_mm: Positive | None = Field(default=None, description="From the front of the blank; empty: through")

    @property
    def largest_d_mm(self) -> float:
        """Diameter of the circle that holds the whole section, mm."""
        return self.d_mm

    @property
    def round_d_mm(self) -> float:
        """Largest diameter that is metal all round, mm."""
        return self.d_mm

    def section_mm2(self) -> float:
        """Area of the section, mm2."""
        return math.pi / 4 * (self.d_mm**2 - self.bore_d_mm**2)


class FreeBlank(_Stock):
    """A casting or forging: the part with an allowance all over, a profile of its own; or a piece from another hold.

    A profile of its own starts on the axis at the front of the blank, Z 0 of these elements.
    """

    kind: Literal["free"] = "free"
    allowance_mm: Amount = 3.0
    outline: tuple[tuple[float, float], ...] = Field(
        default=(), max_length=100_000, description="The half section (z, r) as another hold left it, all round"
    )
    opened: tuple[int, ...] = Field(
        default=(), max_length=500, description="Milled features of the part that another hold has cut already"
    )
    outside: tuple[Element, ...] = Field(default=(), max_length=2000)
    inside: tuple[Element, ...] = Field(default=(), max_length=2000)


Stock = Annotated[RoundBar | PolygonBar | TubeBar | FreeBlank, Field(discriminator="kind")]
