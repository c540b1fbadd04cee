"""Workpiece material as the cutting formulas need it."""

from typing import Literal

from pydantic import Field

from toreuma.core.value import Name, Positive, Value

__all__ = ["Material", "StartSpeed"]


LIFE_MIN = 15.0
"""Minutes of cutting the starting speeds are meant for: the usual base of makers' tables."""


class StartSpeed(Value):
    """Starting surface speed for one tool material, middle of the usual range."""

    tool_material: Name
    rough_m_min: Positive
    finish_m_min: Positive
    part_off_m_min: Positive
    exponent: float = Field(default=0.25, gt=0.02, lt=1, description="m of vc T^m = C (Taylor)")
    source: str = Field(default="", max_length=400, description="Where they come from, where not from the table")

    def constant(self, use: Literal["rough", "finish", "part_off"]) -> float:
        """C of vc T^m = C: the surface speed, m/min, at which an edge lasts one minute."""
        vc: float = getattr(self, f"{use}_m_min")
        return float(vc * LIFE_MIN**self.exponent)


class Material(Value):
    """Typical literature values, each with its source; the person may edit them."""

    name: Name
    group: Literal["P", "M", "K", "N", "S", "H"] = Field(description="ISO 513 letter")
    density_kg_m3: Positive
    kc11_n_mm2: Positive = Field(description="Specific cutting force at 1 mm chip thickness (Kienzle)")
    mc: float = Field(ge=0, lt=1, description="Kienzle exponent")
    e_n_mm2: Positive | None = Field(default=None, description="Young's modulus")
    alpha_um_m_k: Positive | None = Field(default=None, description="Thermal expansion, µm per m and K")
    conductivity_w_m_k: Positive | None = Field(default=None, description="Thermal conductivity")
    heat_j_kg_k: Positive | None = Field(default=None, description="Specific heat")
    drill_feed_mm_rev: Positive | None = Field(
        default=None, description="Usual feed of a drill of 10 mm of high-speed steel"
    )
    mill_feed_mm: Positive | None = Field(
        default=None, description="Usual feed of a tooth of an end mill of 10 mm of carbide"
    )
    finish_ratio: Positive = Field(default=1.0, description="Roughness found over what feed and nose leave in theory")
    work_hardens: bool = Field(default=False, description="The turned surface is harder than what lies below")
    coolant: Name = Field(default="", description="What is usual")
    caution: str = Field(default="", max_length=400, description="One plain sentence where chips can hurt")
    hardness_hb: Positive | None = Field(default=None, description="Brinell hardness as delivered")
    speeds: tuple[StartSpeed, ...] = ()
    source: Name = ""
    sources: tuple[tuple[Name, Name], ...] = Field(default=(), description="Of values of the person's own, by field")

    def source_of(self, field: str) -> str:
        """Where a value of the person's own comes from; empty for one that ships."""
        return dict(self.sources).get(field, "")
