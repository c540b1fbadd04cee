"""Operations: what is cut, with which tool, and the numbers the person fixed."""

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from toreuma.core.model.operation_base import Milling, OperationBase, ThreadForm
from toreuma.core.model.written_move import WrittenMove
from toreuma.core.value import Identifier, Length, Positive, Share, Value

__all__ = [
    "AsWritten",
    "CutGroove",
    "CutThread",
    "DrillHole",
    "Face",
    "FeedBar",
    "FinishBore",
    "FinishOd",
    "HolesBeside",
    "MillFlats",
    "MillSlot",
    "Operation",
    "PartOff",
    "ReamHole",
    "RollKnurl",
    "RoughBore",
    "RoughOd",
    "TapHole",
    "WrittenThread",
]

Allowance = Annotated[float, Field(ge=0, le=100)]


Written = Literal["moves", "passes", "whole"]
"""Move by move; each pass as one cycle of the control; or all of it as one."""


def _written_before(data: Any, meaning: Written) -> Any:
    """Older files say only whether a cycle is written."""
    if isinstance(data, dict) and isinstance(data.get("cycle"), bool):
        data = {**data, "written": meaning if data["cycle"] else "moves"}
        del data["cycle"]
    return data


class Face(OperationBase):
    """Face the front square to the axis, past the centre."""

    kind: Literal["face"] = "face"
    leave_mm: Allowance = Field(default=0.0, description="Left on the face for a later cut")
    past_centre_mm: Allowance = Field(default=0.2, description="How far the nose centre runs past the axis")
    written: Literal["moves", "passes"] = Field(default="moves", description="Move by move, or a cycle for each pass")


class _Contour(OperationBase):
    from_z_mm: Length | None = Field(default=None, description="Start of the stretch; empty: the front")
    to_z_mm: Length | None = Field(default=None, description="End of the stretch; empty: the back edge")
    extension_mm: Allowance | None = Field(default=None, description="How far past the end; empty: proposed")


class _Roughing(_Contour):
    leave_axial_mm: Allowance = Field(default=0.1, description="Left for finishing, along Z")
    written: Written = Field(default="moves", description="Move by move, a cycle for each pass, or one for all")
    varied: bool = Field(default=False, description="Deeper and shallower by turns, so that the notch moves")
    chip_break_mm: Positive | None = Field(
        default=None, description="The feed breaks off every so many mm to break the chip; empty: never"
    )
    chip_break: Literal["retract", "stop"] = Field(
        default="retract", description="It goes back a little, or stands for a turn and a half"
    )


class _Finishing(_Contour):
    wanted_ra_um: Positive = Field(default=1.6, description="Roughness the feed is chosen for")
    leave_mm: Allowance = Field(default=0.0, description="Left on radius for another finishing cut")
    allow_away: bool = Field(default=False, description="May also cut away from the chuck, into undercuts")


class RoughOd(_Roughing):
    """Rough the outside toward the chuck in even passes."""

    kind: Literal["rough_od"] = "rough_od"
    leave_radial_mm: Allowance = Field(default=0.4, description="Left for finishing, on radius")
    pattern: Literal["along_z", "along_x", "contour", "pull", "plunge"] = Field(
        default="along_z",
        description="Passes along the axis, toward the axis, or parallel to the contour; pulled away from the chuck "
        "at a low entering angle; plunged side by side with a blade",
    )
    pinch_tool: Identifier | None = Field(
        default=None,
        description="Takes every other pass at the same time, from the other side of the axis; empty: none",
    )

    @property
    def tools(self) -> tuple[str, ...]:
        return (self.tool,) if self.pinch_tool is None else (self.tool, self.pinch_tool)


class FinishOd(_Finishing):
    """Finish the outside in one cut along the contour."""

    kind: Literal["finish_od"] = "finish_od"
    lead_mm: Positive = Field(default=0.5, description="Length of the run-in")
    written: Literal["moves", "whole"] = Field(
        default="moves", description="Move by move, or as the cycle that follows the contour of a roughing cycle"
    )


class RoughBore(_Roughing):
    """Rough the bore toward the chuck in even passes."""

    kind: Literal["rough_bore"] = "rough_bore"
    leave_radial_mm: Allowance = Field(default=0.3, description="Left for finishing, on radius")


class FinishBore(_Finishing):
    """Finish the bore in one cut along its contour."""

    kind: Literal["finish_bore"] = "finish_bore"
    lead_mm: Positive = Field(default=0.5, description="Length of the run-in")


class PartOff(OperationBase):
    """Cut the part from the bar, with the back edge broken on the way."""

    kind: Literal["part_off"] = "part_off"
    steady_below_d_mm: Positive = Field(default=12.0, description="Spindle speed stays steady below this diameter")
    slow_below_d_mm: Allowance = Field(default=4.0, description="Feed is slowed below this diameter")
    slow_share: Share = Field(default=0.5, description="Share of the feed that is kept near the centre")
    taken: Literal["falls", "caught", "picked"] = Field(
        default="falls", description="The part falls, is caught, or is held by a pick-off while it is cut off"
    )
    leave_axial_mm: Allowance = Field(
        default=0.0, description="Left on the back face for the second side, which then cuts the back edge as well"
    )

    @model_validator(mode="before")
    @classmethod
    def _as_before(cls, data: Any) -> Any:
        if isinstance(data, dict) and isinstance(data.get("catcher"), bool):
            data = {**data, "taken": "caught" if data["catcher"] else "falls"}
            del data["catcher"]
        return data


class FeedBar(OperationBase):
    """Feed the bar to a stop for the next part, or draw it out with a gripper."""

    kind: Literal["feed_bar"] = "feed_bar"
    dwell_s: float = Field(default=1.0, ge=0, le=60, description="For opening, and again for closing")
    draw_mm_min: Positive = Field(default=2000.0, description="Speed at which a gripper draws")


class DrillHole(OperationBase):
    """Drill, spot or centre on the axis, from the front."""

    kind: Literal["drill"] = "drill"
    depth_mm: Positive | None = Field(
        default=None, description="To the full diameter, from the front; empty: as deep as the part allows"
    )
    breakthrough_mm: Allowance = Field(default=1.0, description="How far the point's corner runs past a through hole")
    peck: bool = Field(default=True, description="In pecks where the hole is deep")
    peck_mm: Positive | None = Field(default=None, description="Each peck; empty: a schedule that shrinks with depth")
    written: Written = Field(
        default="moves", description="Move by move; as a cycle with equal pecks that lifts a little, or wholly out"
    )

    @model_validator(mode="before")
    @classmethod
    def _as_before(cls, data: Any) -> Any:
        return _written_before(data, "whole")


class CutGroove(OperationBase):
    """Cut a groove or relief of the part."""

    kind: Literal["groove"] = "groove"
    feature: int = Field(ge=0, description="Which of the part's features, counted from 0")
    method: Literal["plunges", "plunge_turn", "straight"] = Field(
        default="plunges",
        description="From the middle outward breaking chips; down and sideways in layers; or straight down",
    )
    walls_mm: Allowance = Field(default=0.15, description="Left by the plunges for the walls to be finished")
    leave_mm: Allowance = Field(default=0.0, description="Left all round for another tool")
    written: Literal["moves", "whole"] = Field(
        default="moves", description="Move by move, or its plunges as the control's grooving cycle"
    )
    root_tool: Identifier | None = Field(default=None, description="Opens the root after the first tool; empty: none")
    wall_tool: Identifier | None = Field(default=None, description="Finishes the walls; empty: the tool before it")

    @property
    def tools(self) -> tuple[str, ...]:
        return tuple(dict.fromkeys(one for one in (self.tool, self.root_tool, self.wall_tool) if one is not None))


class CutThread(OperationBase):
    """Cut a thread of the part with a single-point tool."""

    kind: Literal["thread"] = "thread"
    feature: int = Field(ge=0, description="Which of the part's features, counted from 0")
    form: ThreadForm
    infeed: Literal["modified", "radial", "flank", "alternating"] = Field(
        default="modified", description="A degree beside the flank; square; along the flank; from both flanks in turn"
    )
    division: Literal["area", "depth", "typed"] = Field(
        default="area", description="Passes of equal chip area, of equal depth, or as typed"
    )
    passes: int | None = Field(default=None, ge=1, le=100, description="Empty: by pitch and material")
    typed_mm: tuple[Positive, ...] = Field(
        default=(), max_length=100, description="Depth after each pass, on radius, rising"
    )
    spring_passes: int = Field(default=1, ge=0, le=10, description="Passes more at the full depth")
    start_mm: Positive | None = Field(default=None, description="Run-in in front of the thread; empty: computed")
    written: Written = Field(default="moves", description="Move by move, a cycle for each pass, or one for all")
    measured_over_wires_mm: Positive | None = Field(
        default=None, description="Size over the best wires found on a cut thread, to be cut again; empty: a new one"
    )

    @model_validator(mode="before")
    @classmethod
    def _as_before(cls, data: Any) -> Any:
        return _written_before(data, "passes")

    @property
    def threads_cut(self) -> tuple[tuple[int, ThreadForm], ...]:
        return ((self.feature, self.form),)


class WrittenThread(Value):
    """A thread of the part that moves of a program cut."""

    feature: int = Field(ge=0, description="Which of the part's features, counted from 0")
    form: ThreadForm


class AsWritten(OperationBase):
    """A stretch of a program that was read, kept move by move until it is planned anew."""

    kind: Literal["as_written"] = "as_written"
    moves: tuple[WrittenMove, ...] = Field(min_length=1, max_length=200_000)
    threads: tuple[WrittenThread, ...] = ()
    milled: tuple[Milling, ...] = ()
    assumed: tuple[str, ...] = Field(default=(), max_length=50, description="What nobody said of its tool or threads")

    @property
    def threads_cut(self) -> tuple[tuple[int, ThreadForm], ...]:
        return tuple((one.feature, one.form) for one in self.threads)

    @property
    def milling(self) -> tuple[Milling, ...]:
        return self.milled


class RollKnurl(OperationBase):
    """Press ridges into a cylinder with a knurling tool."""

    kind: Literal["knurl"] = "knurl"
    feature: int = Field(ge=0, description="Which of the part's features, counted from 0")
    dwell_turns: float = Field(default=3.0, ge=1, le=50, description="Turns it stands at both ends for the ridges")


class TapHole(OperationBase):
    """Tap the hole on the axis."""

    kind: Literal["tap"] = "tap"
    depth_mm: Positive | None = Field(default=None, description="Of full thread; empty: as the part says")
    rigid: bool = Field(default=True, description="Feed in step with the spindle; otherwise in a floating holder")


class ReamHole(OperationBase):
    """Bring a drilled hole on the axis to size."""

    kind: Literal["ream"] = "ream"
    depth_mm: Positive | None = Field(
        default=None, description="To the full diameter, from the front; empty: as deep as part and hole allow"
    )
    breakthrough_mm: Allowance = Field(default=1.0, description="How far the lead runs past a through hole")


class _Milled(OperationBase):
    feature: int = Field(ge=0, description="Which of the part's features, counted from 0")

    @property
    def milling(self) -> tuple[Milling, ...]:
        return (Milling(feature=self.feature),)


class HolesBeside(_Milled):
    """Spot, drill, ream or tap the holes of a pattern with a driven tool, or mill their thread, the work standing at an
    angle."""

    kind: Literal["holes"] = "holes"
    peck: bool = Field(default=True, description="Peck where the hole is deep")
    peck_mm: Positive | None = Field(default=None, description="First peck; empty: by diameter")
    breakthrough_mm: Allowance = Field(default=1.0, description="How far the full diameter runs past a through hole")
    form: ThreadForm | None = Field(default=None, description="Of the holes' thread, for a thread mill")

    @property
    def milling(self) -> tuple[Milling, ...]:
        return (Milling(feature=self.feature, form=self.form),)


class _EndMilled(_Milled):
    leave_mm: Allowance = Field(default=0.2, description="Left on floor and walls for the last cut; 0: one cut")
    by: Literal["", "y", "polar"] = Field(
        default="", description="Across with Y, or by turning the work; empty: Y where the carrier has it"
    )
    edge_tool: Identifier | None = Field(
        default=None, description="Breaks the edges afterwards; empty: they stay sharp"
    )

    @property
    def milling(self) -> tuple[Milling, ...]:
        edges = () if self.edge_tool is None else (Milling(feature=self.feature, edges_only=True),)
        return (*super().milling, *edges)


class MillFlats(_EndMilled):
    """Mill flats, one after the other, the work standing at an angle."""

    kind: Literal["flats"] = "flats"

    @property
    def tools(self) -> tuple[str, ...]:
        return (self.tool,) if self.edge_tool is None else tuple(dict.fromkeys((self.tool, self.edge_tool)))


class MillSlot(_EndMilled):
    """Mill a slot, keyway or pocket in layers; wider than the mill, from the middle outward."""

    kind: Literal["slot"] = "slot"
    start_tool: Identifier | None = Field(
        default=None, description="Drills a hole first in which the mill goes down; empty: it goes down by itself"
    )

    @property
    def tools(self) -> tuple[str, ...]:
        return tuple(dict.fromkeys(one for one in (self.tool, self.start_tool, self.edge_tool) if one is not None))


Operation = Annotated[
    Face
    | RoughOd
    | FinishOd
    | RoughBore
    | FinishBore
    | PartOff
    | DrillHole
    | ReamHole
    | CutGroove
    | CutThread
    | TapHole
    | RollKnurl
    | HolesBeside
    | MillFlats
    | MillSlot
    | FeedBar
    | AsWritten,
    Field(discriminator="kind"),
]
