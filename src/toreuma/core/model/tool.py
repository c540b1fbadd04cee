"""Cutting tools: what cuts, and what carries it. Symbols in brackets are those of ISO 13399."""

import math
from typing import Annotated, Literal

from pydantic import Field, model_validator

from toreuma.core.value import Identifier, Name, Positive, Value

__all__ = [
    "Bar",
    "BarPuller",
    "BarStop",
    "Blade",
    "BoringTool",
    "ChamferMill",
    "Drill",
    "EndMill",
    "FormTool",
    "GroovingTool",
    "Hand",
    "Holder",
    "Insert",
    "KnurlingTool",
    "Mill",
    "PartingTool",
    "PullTool",
    "Reamer",
    "Tap",
    "ThreadInsert",
    "ThreadMill",
    "ThreadingTool",
    "Tool",
    "TurningTool",
]

Hand = Literal["right", "left"]
TOOTH_SHORT_MM = 0.02
"""A tooth this much lower than its thread still cuts it."""

ChipPoint = tuple[Positive, Positive]
Amount = Annotated[float, Field(ge=0, le=1e4)]


class Insert(Value):
    """An indexable insert. For rectangles and parallelograms ``ic_mm`` is the shorter height."""

    shape: Literal["C", "D", "E", "M", "V", "S", "T", "R", "W", "H", "O", "P", "L", "A", "B", "K"] = Field(
        description="ISO 1832 shape letter"
    )
    included_angle_deg: float = Field(ge=20, le=135, description="Corner angle (EPSR); not used for round")
    ic_mm: Positive = Field(description="Inscribed circle (IC)")
    edge_length_mm: Positive | None = Field(default=None, description="(L), for rectangles and parallelograms")
    thickness_mm: Positive = Field(description="(S)")
    nose_radius_mm: Amount = Field(description="(RE); not used for round")
    clearance_deg: float = Field(default=0.0, ge=0, le=35, description="(AN)")
    double_sided: bool = Field(default=False, description="Both faces cut")
    material: Name = Field(default="coated carbide", description="Tool material")
    grade: Name = Field(default="", description="Application range by ISO 513")
    chip_former: Name = Field(default="", description="Name of the chip former: maker's free text")
    chip_window: tuple[ChipPoint, ...] = Field(
        default=(), description="Corners (feed mm/rev, depth mm on radius) of the area where chips break"
    )
    code: Name = ""

    @property
    def corners(self) -> int:
        """Corners that cut, of one face; a round insert is turned eight times or so."""
        count = {"T": 3, "W": 3, "S": 4, "P": 5, "H": 6, "O": 8, "R": 8}.get(self.shape, 2)
        return count if self.shape != "L" else 4

    @property
    def edges(self) -> int:
        """Edges the insert gives, both faces counted."""
        return self.corners * (2 if self.double_sided else 1)


CHIP_ROOM = 0.95
"""Share of the least bore in a list that the flank itself asks for; the rest is for chips: typical."""


class Holder(Value):
    """A square shank holder pointing at the axis."""

    entering_angle_deg: float = Field(ge=30, le=120, description="Between cutting edge and feed (KAPR)")
    shank_width_mm: Positive = Field(description="(B)")
    shank_height_mm: Positive | None = Field(default=None, description="(H); empty: as wide")
    functional_width_mm: Positive = Field(description="From the tip to the far side of the shank (WF)")
    functional_length_mm: Positive = Field(description="From the tip to the end of the shank (LF)")
    head_length_mm: Positive = Field(description="(LH)")
    code: Name = ""


class Bar(Value):
    """A round boring bar."""

    entering_angle_deg: float = Field(ge=30, le=120, description="(KAPR)")
    diameter_mm: Positive = Field(description="(DCON)")
    functional_width_mm: Positive = Field(description="From the bar's axis to the tip (WF)")
    functional_length_mm: Positive = Field(description="From the tip to the end of the bar (LF)")
    least_bore_mm: Positive = Field(description="Smallest bore it goes into (DMIN)")
    material: Literal["steel", "tungsten alloy", "carbide"] = "steel"
    damped: bool = False
    coolant: bool = False
    back: bool = Field(default=False, description="Its edge looks back along the bar: it cuts on its way out")
    stick_out_mm: Positive | None = Field(default=None, description="Out of its holder (OHX); empty: usable length")
    code: Name = ""

    @property
    def least_cut_mm(self) -> float:
        """Smallest bore its edge may cut without its flank rubbing; lists keep some room for chips in DMIN."""
        return CHIP_ROOM * self.least_bore_mm


class Blade(Value):
    """A parting or grooving blade on a block."""

    width_mm: Positive = Field(description="Cutting width (CW)")
    corner_radius_mm: Amount = Field(description="(RE)")
    depth_mm: Positive = Field(description="Largest depth of cut on radius (CDX)")
    block_width_mm: Positive = Field(description="Width of the block behind the blade")
    functional_length_mm: Positive = Field(description="(LF)")
    material: Name = "coated carbide"
    grade: Name = ""
    feed_range_mm_rev: tuple[Positive, Positive] = (0.05, 0.15)
    front_deg: float = Field(default=0.0, ge=0, le=20, description="The front leans: its free end goes ahead (PSIR)")
    code: Name = ""


class ThreadInsert(Value):
    """A threading insert. A full profile cuts one pitch and its crest; a partial one a range of pitches."""

    profile_deg: float = Field(ge=20, le=90, description="Angle between the flanks (PNA)")
    full_profile: bool
    pitch_mm: tuple[Positive, Positive] = Field(description="Smallest and largest pitch (TPX)")
    tip_radius_mm: Amount = Field(description="(RE)")
    tip_flat_mm: Amount = Field(default=0.0, description="Flat at the tip, between the flanks; 0 for a rounded point")
    width_mm: Positive = Field(description="Width of the tooth at its foot")
    profile_depth_mm: Positive = Field(description="Height of the tooth (HC)")
    material: Name = "coated carbide"
    grade: Name = ""
    code: Name = ""

    def goes(self, depth_mm: float) -> bool:
        """Whether its tooth is as high as a thread is deep, mm on radius; a little less does: crests are not sharp."""
        return self.profile_depth_mm >= depth_mm - TOOTH_SHORT_MM

    @model_validator(mode="after")
    def _ordered(self) -> "ThreadInsert":
        if self.pitch_mm[0] > self.pitch_mm[1]:
            raise ValueError("the smallest pitch must not be larger than the largest")
        return self


class _Tool(Value):
    id: Identifier
    name: Name = ""
    station: int = Field(ge=1, le=200)
    hand: Hand = "right"
    spindle: Literal["main", "sub"] = Field(default="main", description="Which spindle it works at")
    mount: Literal["still", "axial", "radial"] = Field(
        default="still", description="Held still, or driven with its axis along Z or along X"
    )


class TurningTool(_Tool):
    kind: Literal["turning"] = "turning"
    insert: Insert
    holder: Holder


class BoringTool(_Tool):
    kind: Literal["boring"] = "boring"
    insert: Insert
    bar: Bar


class PartingTool(_Tool):
    kind: Literal["parting"] = "parting"
    blade: Blade
    programmed_corner: Literal["free end", "chuck side"] = Field(
        default="free end", description="Which corner of the blade the program moves"
    )


class GroovingTool(_Tool):
    """A blade for grooves. ``tip_deg`` 180 is a square front; less is a V of that angle."""

    kind: Literal["grooving"] = "grooving"
    where: Literal["outside", "inside", "face"] = "outside"
    blade: Blade
    tip_deg: float = Field(default=180.0, ge=20, le=180)
    round_tip: bool = Field(default=False, description="Full radius: the corner radius is half the width")
    bar: Bar | None = Field(default=None, description="What carries it in a bore")
    first_cut_mm: tuple[Positive, Positive] | None = Field(
        default=None, description="Diameters of the first cut in a face (DAXN, DAXX)"
    )


class ThreadingTool(_Tool):
    kind: Literal["threading"] = "threading"
    where: Literal["outside", "inside"] = "outside"
    insert: ThreadInsert
    holder: Holder | None = None
    bar: Bar | None = None

    @model_validator(mode="after")
    def _carried(self) -> "ThreadingTool":
        if (self.bar if self.where == "inside" else self.holder) is None:
            raise ValueError("a threading tool needs a holder outside and a bar in a bore")
        return self


class PullTool(_Tool):
    """A thin blade that plunges and then turns away from the chuck at a low entering angle, with thin wide chips."""

    kind: Literal["pull"] = "pull"
    blade: Blade
    pull_deg: float = Field(default=8.0, ge=2, le=45, description="Between its long edge and the axis (KAPR)")


class FormTool(_Tool):
    """A tool ground to a shape that is plunged into the work."""

    kind: Literal["form"] = "form"
    outline_mm: tuple[tuple[float, float], ...] = Field(
        min_length=3, max_length=200, description="Corners (z, r) from the programmed point, all bulging outward"
    )
    block_width_mm: Positive = 20.0
    functional_length_mm: Positive = 80.0
    material: Name = "high-speed steel"
    feed_range_mm_rev: tuple[Positive, Positive] = (0.02, 0.06)
    code: Name = ""


class Drill(_Tool):
    """A tool that cuts into the full along the axis."""

    kind: Literal["drill"] = "drill"
    form: Literal["twist", "spade", "indexable", "centre", "spot", "step", "flat"] = "twist"
    d_mm: Positive = Field(description="(DC)")
    point_deg: float = Field(default=118.0, gt=30, le=180, description="(SIG)")
    flute_length_mm: Positive = Field(description="Deepest hole (LCF)")
    overall_length_mm: Positive = Field(description="(OAL)")
    shank_d_mm: Positive = Field(description="(DCON)")
    centre_form: Literal["A", "B", "R"] = Field(default="A", description="Of a centre drill (ISO 866, 2540, 2541)")
    pilot_d_mm: Positive | None = Field(default=None, description="Front of a centre drill or a step drill")
    step_length_mm: Positive | None = Field(default=None, description="Of a step drill, from its point to the step")
    step_deg: float = Field(default=90.0, gt=30, le=180, description="Of the step; 180 is square")
    material: Name = "coated carbide"
    feed_mm_rev: tuple[Positive, Positive] = (0.05, 0.2)
    code: Name = ""

    @model_validator(mode="after")
    def _stepped(self) -> "Drill":
        if self.form == "step" and (self.pilot_d_mm is None or self.step_length_mm is None):
            raise ValueError("a step drill needs the diameter and the length of its front")
        if self.pilot_d_mm is not None and self.pilot_d_mm >= self.d_mm:
            raise ValueError("the front of a drill must be thinner than the drill")
        return self


class Reamer(_Tool):
    kind: Literal["reamer"] = "reamer"
    d_mm: Positive = Field(description="(DC)")
    fit: Name = Field(default="H7", description="Tolerance of the hole it makes")
    lead_mm: Amount = Field(default=1.0, description="Length of the lead in front")
    flute_length_mm: Positive
    overall_length_mm: Positive
    shank_d_mm: Positive
    material: Name = "high-speed steel"
    code: Name = ""


SHANK_FREE_MM = 0.1
"""A shank goes into a hole wider by this on diameter: those of long taps are made so (ISO 2283)."""


class Tap(_Tool):
    kind: Literal["tap"] = "tap"
    thread: Name = Field(description="Thread it cuts, as M8 or 6-32 UNC")
    d_mm: Positive
    pitch_mm: Positive = Field(description="(TP)")
    form: Literal["through", "blind", "forming"] = "through"
    lead_pitches: Positive = Field(default=4.0, description="Length of the lead in pitches (form B 4, C 2.5, E 1.75)")
    taper: float = Field(default=0.0, ge=0, lt=0.5, description="Growth of its diameter along its length")
    gauge_mm: Amount = Field(default=0.0, description="Of a taper tap, from its end to its gauge plane")
    flute_length_mm: Positive
    overall_length_mm: Positive
    shank_d_mm: Positive
    material: Name = "high-speed steel"
    code: Name = ""

    @model_validator(mode="after")
    def _gauged(self) -> "Tap":
        if self.taper > 0 and self.gauge_mm <= 0:
            raise ValueError("a taper tap needs the length from its end to its gauge plane")
        return self

    def depth_mm(self, length_mm: float) -> float:
        """How deep its end goes for a length of full thread; a taper tap goes to its gauge plane for any."""
        return self.gauge_mm if self.taper > 0 else length_mm + self.lead_pitches * self.pitch_mm

    def follows_into(self, hole_d_mm: float) -> bool:
        """Its shank is thinner than the hole and may follow the thread into it."""
        return self.shank_d_mm <= hole_d_mm - SHANK_FREE_MM


class _Mill(_Tool):
    """A driven tool with teeth round its body, held by a shank."""

    mount: Literal["still", "axial", "radial"] = "radial"
    d_mm: Positive = Field(description="(DC)")
    teeth: int = Field(ge=1, le=40, description="(ZEFP)")
    flute_length_mm: Positive = Field(description="Deepest cut with its sides (APMX)")
    overall_length_mm: Positive = Field(description="(OAL)")
    shank_d_mm: Positive = Field(description="(DCON)")
    stick_out_mm: Positive | None = Field(default=None, description="Out of its holder (OHX); empty: 1.6 flutes")
    material: Name = "coated carbide"
    fz_mm: tuple[Positive, Positive] = Field(default=(0.03, 0.08), description="Least and largest feed of a tooth")
    code: Name = ""

    @property
    def out_mm(self) -> float:
        """What stands out of its holder."""
        return min(self.stick_out_mm or 1.6 * self.flute_length_mm, self.overall_length_mm)


class EndMill(_Mill):
    """A driven mill that cuts with its sides and its end."""

    kind: Literal["end_mill"] = "end_mill"
    corner_radius_mm: Amount = Field(default=0.0, description="(RE)")
    centre_cutting: bool = Field(default=True, description="May go straight down")


class ChamferMill(_Mill):
    """A driven mill with a cone in front, for edges; its end is blunt and does not cut."""

    kind: Literal["chamfer_mill"] = "chamfer_mill"
    point_deg: float = Field(default=90.0, gt=30, lt=180, description="Across its cone")
    tip_d_mm: Amount = Field(default=0.0, description="Across its end")

    @model_validator(mode="after")
    def _coned(self) -> "ChamferMill":
        if self.tip_d_mm >= self.d_mm:
            raise ValueError("the end of a chamfer mill must be thinner than the mill")
        return self


class ThreadMill(_Mill):
    """A driven mill with the teeth of a thread: in rows over all its flutes, or a single one at its end."""

    kind: Literal["thread_mill"] = "thread_mill"
    profile_deg: float = Field(default=60.0, gt=20, lt=120, description="Across a tooth")
    pitch_mm: tuple[Positive, Positive] = Field(description="Smallest and largest pitch it cuts")
    rows: Literal["all", "one"] = Field(default="all", description="Of teeth: over the flutes, or one at its end")

    @model_validator(mode="after")
    def _pitched(self) -> "ThreadMill":
        if self.pitch_mm[0] > self.pitch_mm[1]:
            raise ValueError("the smallest pitch of a thread mill must not be above its largest")
        if self.rows == "all" and self.pitch_mm[0] != self.pitch_mm[1]:
            raise ValueError("rows of teeth cut one pitch; a mill for several has one row")
        return self

    def pitch_d_mm(self, pitch_mm: float) -> float:
        """Diameter on which its teeth are half a pitch wide; crests are an eighth of its smallest pitch (ISO 68-1)."""
        half = math.radians(self.profile_deg / 2)
        return self.d_mm - (pitch_mm / 2 - self.pitch_mm[0] / 8) / math.tan(half)


Mill = EndMill | ChamferMill | ThreadMill


class KnurlingTool(_Tool):
    """Wheels on a holder that press ridges into a turning piece: one for straight ridges, two for crossing ones."""

    kind: Literal["knurling"] = "knurling"
    form: Literal["RAA", "RGE"] = "RAA"
    pitch_mm: Positive = Field(description="From ridge to ridge of the wheels")
    wheel_d_mm: Positive = Field(default=20.0, description="Of the wheels")
    wheel_width_mm: Positive = Field(default=8.0, description="Of the wheels, along Z")
    head_mm: Positive = Field(default=25.0, description="Across the holder, along Z")
    length_mm: Positive = Field(default=100.0, description="From the wheels to the turret")
    material: Name = "high-speed steel"
    feed_mm_rev: tuple[Positive, Positive] = Field(default=(0.1, 0.3), description="Along the piece (typical)")
    code: Name = ""


class BarStop(_Tool):
    """A flat stop in the turret, against which the bar is fed out."""

    kind: Literal["bar_stop"] = "bar_stop"
    d_mm: Positive = Field(default=20.0, description="Of its face")
    length_mm: Positive = Field(default=60.0, description="From its face to the turret")
    code: Name = ""


class BarPuller(_Tool):
    """A gripper in the turret that draws the bar out: its fingers spring over the bar's end up to their stop."""

    kind: Literal["bar_puller"] = "bar_puller"
    grips_mm: tuple[Positive, Positive] = Field(description="Smallest and largest diameter it grips")
    grip_mm: Positive = Field(default=8.0, description="How far the fingers reach over the bar")
    finger_mm: Positive = Field(default=6.0, description="Thickness of the fingers")
    length_mm: Positive = Field(default=60.0, description="From its stop to the turret")
    code: Name = ""

    @model_validator(mode="after")
    def _ordered(self) -> "BarPuller":
        if self.grips_mm[0] > self.grips_mm[1]:
            raise ValueError("the smallest diameter it grips must not be larger than the largest")
        return self


Tool = Annotated[
    TurningTool
    | BoringTool
    | PartingTool
    | GroovingTool
    | PullTool
    | FormTool
    | ThreadingTool
    | Drill
    | Reamer
    | Tap
    | EndMill
    | ChamferMill
    | ThreadMill
    | KnurlingTool
    | BarStop
    | BarPuller,
    Field(discriminator="kind"),
]
