"""Operations: what is cut, with which tool, and the numbers the person fixed."""

from typing import Annotated, Literal

from pydantic import Field

from toreuma.core.model.base import Identifier, Length, Name, Positive, Share, Value

__all__ = [
    "CutGroove",
    "DrillHole",
    "Face",
    "FinishBore",
    "FinishOd",
    "Operation",
    "PartOff",
    "Pins",
    "ReamHole",
    "RoughBore",
    "RoughOd",
]

Allowance = Annotated[float, Field(ge=0, le=100)]


class Pins(Value):
    """Numbers the person fixed; what is not pinned is proposed."""

    vc_m_min: Positive | None = None
    feed_mm_rev: Positive | None = None
    ap_mm: Positive | None = Field(default=None, description="Largest depth per pass, on radius")
    clamp_rpm: Positive | None = None


class _Operation(Value):
    id: Identifier
    name: Name = ""
    tool: Identifier
    enabled: bool = True
    pins: Pins = Pins()


class Face(_Operation):
    """Face the front square to the axis, past the centre."""

    kind: Literal["face"] = "face"
    leave_mm: Allowance = Field(default=0.0, description="Left on the face for a later cut")
    past_centre_mm: Allowance = Field(default=0.2, description="How far the nose centre runs past the axis")


class _Contour(_Operation):
    from_z_mm: Length | None = Field(default=None, description="Start of the stretch; empty: the front")
    to_z_mm: Length | None = Field(default=None, description="End of the stretch; empty: the back edge")
    extension_mm: Allowance | None = Field(default=None, description="How far past the end; empty: proposed")


class RoughOd(_Contour):
    """Rough the outside toward the chuck in even passes."""

    kind: Literal["rough_od"] = "rough_od"
    leave_radial_mm: Allowance = Field(default=0.4, description="Left for finishing, on radius")
    leave_axial_mm: Allowance = Field(default=0.1, description="Left for finishing, along Z")


class FinishOd(_Contour):
    """Finish the outside in one cut along the contour."""

    kind: Literal["finish_od"] = "finish_od"
    lead_mm: Positive = Field(default=2.0, description="Length of the run-in and the run-out")
    wanted_ra_um: Positive = Field(default=1.6, description="Roughness the feed is chosen for")
    leave_mm: Allowance = Field(default=0.0, description="Left on radius for another finishing cut")
    allow_away: bool = Field(default=False, description="May also cut away from the chuck, into undercuts")


class RoughBore(_Contour):
    """Rough the bore toward the chuck in even passes."""

    kind: Literal["rough_bore"] = "rough_bore"
    leave_radial_mm: Allowance = Field(default=0.3, description="Left for finishing, on radius")
    leave_axial_mm: Allowance = Field(default=0.1, description="Left for finishing, along Z")


class FinishBore(_Contour):
    """Finish the bore in one cut along its contour."""

    kind: Literal["finish_bore"] = "finish_bore"
    lead_mm: Positive = Field(default=1.0, description="Length of the run-in and the run-out")
    wanted_ra_um: Positive = Field(default=1.6, description="Roughness the feed is chosen for")
    leave_mm: Allowance = Field(default=0.0, description="Left on radius for another finishing cut")
    allow_away: bool = Field(default=False, description="May also cut away from the chuck, into undercuts")


class PartOff(_Operation):
    """Cut the part from the bar, with the back edge broken on the way."""

    kind: Literal["part_off"] = "part_off"
    steady_below_d_mm: Positive = Field(default=12.0, description="Spindle speed stays steady below this diameter")
    slow_below_d_mm: Allowance = Field(default=4.0, description="Feed is slowed below this diameter")
    slow_share: Share = Field(default=0.5, description="Share of the feed that is kept near the centre")


class DrillHole(_Operation):
    """Drill, spot or centre on the axis, from the front."""

    kind: Literal["drill"] = "drill"
    depth_mm: Positive | None = Field(
        default=None, description="To the full diameter, from the front; empty: as deep as the part allows"
    )
    breakthrough_mm: Allowance = Field(default=1.0, description="How far the point's corner runs past a through hole")
    peck: bool = Field(default=True, description="In pecks where the hole is deep")
    peck_mm: Positive | None = Field(default=None, description="Each peck; empty: a schedule that shrinks with depth")


class CutGroove(_Operation):
    """Cut a groove or relief of the part."""

    kind: Literal["groove"] = "groove"
    feature: int = Field(ge=0, description="Which of the part's features, counted from 0")
    method: Literal["plunges", "plunge_turn", "straight"] = Field(
        default="plunges",
        description="From the middle outward breaking chips; down and sideways in layers; or straight down",
    )
    walls_mm: Allowance = Field(default=0.15, description="Left by the plunges for the walls to be finished")
    leave_mm: Allowance = Field(default=0.0, description="Left all round for another tool")


class ReamHole(_Operation):
    """Bring a drilled hole on the axis to size."""

    kind: Literal["ream"] = "ream"
    depth_mm: Positive | None = Field(
        default=None, description="To the full diameter, from the front; empty: as deep as part and hole allow"
    )
    breakthrough_mm: Allowance = Field(default=1.0, description="How far the lead runs past a through hole")


Operation = Annotated[
    Face | RoughOd | FinishOd | RoughBore | FinishBore | PartOff | DrillHole | ReamHole | CutGroove,
    Field(discriminator="kind"),
]
