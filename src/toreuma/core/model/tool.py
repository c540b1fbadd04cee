"""Cutting tools: insert or blade, and what carries it. Symbols in brackets are those of ISO 13399."""

from typing import Annotated, Literal

from pydantic import Field

from toreuma.core.model.base import Identifier, Name, Positive, Value

__all__ = ["Blade", "Holder", "Insert", "PartingTool", "Tool", "TurningTool"]

Hand = Literal["right", "left"]
ChipPoint = tuple[Positive, Positive]


class Insert(Value):
    """An indexable insert: a rhomb, a triangle or a disc."""

    shape: Literal["C", "D", "E", "M", "V", "S", "T", "R"] = Field(description="ISO 1832 shape letter")
    included_angle_deg: float = Field(ge=20, le=120, description="Corner angle (EPSR); not used for round")
    ic_mm: Positive = Field(description="Inscribed circle (IC)")
    thickness_mm: Positive = Field(description="(S)")
    nose_radius_mm: Positive = Field(description="(RE); not used for round")
    material: Name = Field(default="coated carbide", description="Tool material")
    grade: Name = Field(default="", description="Application range by ISO 513")
    chip_window: tuple[ChipPoint, ...] = Field(
        default=(), description="Corners (feed mm/rev, depth mm on radius) of the area where chips break"
    )
    code: Name = ""


class Holder(Value):
    """A square shank holder pointing at the axis."""

    entering_angle_deg: float = Field(ge=30, le=120, description="Between cutting edge and feed (KAPR)")
    shank_width_mm: Positive = Field(description="(B)")
    functional_width_mm: Positive = Field(description="From the tip to the far side of the shank (WF)")
    functional_length_mm: Positive = Field(description="From the tip to the end of the shank (LF)")
    head_length_mm: Positive = Field(description="(LH)")
    code: Name = ""


class Blade(Value):
    """A parting or grooving blade on a block."""

    width_mm: Positive = Field(description="Cutting width (CW)")
    corner_radius_mm: Positive = Field(description="(RE)")
    depth_mm: Positive = Field(description="Largest depth of cut on radius (CDX)")
    block_width_mm: Positive = Field(description="Width of the block behind the blade")
    functional_length_mm: Positive = Field(description="(LF)")
    material: Name = "coated carbide"
    grade: Name = ""
    feed_range_mm_rev: tuple[Positive, Positive] = (0.05, 0.15)
    code: Name = ""


class _Tool(Value):
    id: Identifier
    name: Name = ""
    station: int = Field(ge=1, le=200)
    hand: Hand = "right"


class TurningTool(_Tool):
    kind: Literal["turning"] = "turning"
    insert: Insert
    holder: Holder


class PartingTool(_Tool):
    kind: Literal["parting"] = "parting"
    blade: Blade
    programmed_corner: Literal["free end", "chuck side"] = Field(
        default="free end", description="Which corner of the blade the program moves"
    )


Tool = Annotated[TurningTool | PartingTool, Field(discriminator="kind")]
