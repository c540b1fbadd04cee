"""Which fields of which value a person may type, and how each is called."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from toreuma.core.cutting.evidence import Evidence
from toreuma.core.model import Job, Operation

__all__ = [
    "BAR_FIELDS",
    "BORED_FIELDS",
    "CENTRE_FIELDS",
    "CONDITION_FIELDS",
    "FEATURE_FIELDS",
    "FEATURE_NAMES",
    "FEATURE_PLACES",
    "HOLD_FIELDS",
    "HOLD_KIND_FIELDS",
    "OPERATION_FIELDS",
    "PARTS_FIELD",
    "PART_FIELDS",
    "RANGE_FIELDS",
    "RELIEF_FIELDS",
    "SECOND_FIELDS",
    "SKIN_FIELDS",
    "STOCK_FIELDS",
    "STOCK_SIZES",
    "SUPPLY_FIELDS",
    "TOOL_OF_JOB",
    "TRANSFER_FIELDS",
    "TURN_FIELDS",
    "WITH_CENTRE",
    "Field",
    "operation_change",
    "typed_evidence",
]


@dataclass(frozen=True)
class Field:
    """A field by name, its label, its internal unit and what it is measured on; ``options`` are label and value of
    each choice where it is one."""

    name: str
    label: str
    unit: str
    measured_on: str = ""
    empty: str = ""
    options: tuple[tuple[str, object], ...] = ()


FEATURE_OF_PART: tuple[tuple[str, object], ...] = (("feature", "feature"),)
"""Stands for the features of the part that the operation can cut."""

TOOL_OF_JOB: tuple[tuple[str, object], ...] = (("tool", "tool"),)
"""Stands for the tools of the job, and none."""

ACROSS: tuple[tuple[str, object], ...] = (
    ("with Y where there is one", ""),
    ("with Y", "y"),
    ("by turning the work", "polar"),
)

WRITTEN: tuple[tuple[str, object], ...] = (
    ("move by move", "moves"),
    ("a cycle for each pass", "passes"),
    ("one cycle for all", "whole"),
)
AS_ONE = (WRITTEN[0], WRITTEN[2])

_STRETCH = (
    Field("from_z_mm", "stretch starts at Z", "mm", empty="front"),
    Field("to_z_mm", "stretch ends at Z", "mm", empty="back edge"),
    Field("extension_mm", "extension past the end", "mm", "along Z", empty="proposed"),
)

_CHIP_BREAKS = (
    Field("chip_break_mm", "break chips every", "mm", empty="never"),
    Field("chip_break", "Chips break", "", options=(("by going back a little", "retract"), ("by a stop", "stop"))),
)
_AWAY = Field(
    "allow_away", "Undercuts", "", options=(("toward the chuck only", False), ("both ways, into undercuts", True))
)

OPERATION_FIELDS: dict[str, tuple[Field, ...]] = {
    "face": (
        Field("leave_mm", "left on the face", "mm", "along Z"),
        Field("past_centre_mm", "nose past the centre", "mm", "on radius"),
        Field("written", "Written", "", options=WRITTEN[:2]),
    ),
    "rough_od": (
        Field(
            "pattern",
            "Passes",
            "",
            options=(
                ("along the axis", "along_z"),
                ("toward the axis", "along_x"),
                ("parallel to the contour", "contour"),
                ("pulled away from the chuck", "pull"),
                ("plunged with a blade", "plunge"),
            ),
        ),
        Field("varied", "Depths", "", options=(("even", False), ("deeper and shallower by turns", True))),
        Field("written", "Written", "", options=WRITTEN),
        Field("pinch_tool", "Second tool at once", "", options=TOOL_OF_JOB),
        *_CHIP_BREAKS,
        Field("leave_radial_mm", "left for finishing", "mm", "on radius"),
        Field("leave_axial_mm", "left on faces", "mm", "along Z"),
        *_STRETCH,
    ),
    "rough_bore": (
        Field("varied", "Depths", "", options=(("even", False), ("deeper and shallower by turns", True))),
        Field("written", "Written", "", options=WRITTEN),
        *_CHIP_BREAKS,
        Field("leave_radial_mm", "left for finishing", "mm", "on radius"),
        Field("leave_axial_mm", "left on faces", "mm", "along Z"),
        *_STRETCH,
    ),
    "finish_bore": (
        Field("wanted_ra_um", "wanted Ra", "um"),
        Field("leave_mm", "left for another cut", "mm", "on radius"),
        _AWAY,
        *_STRETCH,
    ),
    "groove": (
        Field("feature", "Groove", "", options=FEATURE_OF_PART),
        Field(
            "method",
            "How",
            "",
            options=(
                ("Plunges from the middle, breaking chips", "plunges"),
                ("Plunge and turn, layer by layer", "plunge_turn"),
                ("Straight plunges", "straight"),
            ),
        ),
        Field("walls_mm", "left for finishing the walls", "mm"),
        Field("leave_mm", "left for another tool", "mm"),
        Field("written", "Plunges written", "", options=AS_ONE),
        Field("root_tool", "Opens the root", "", options=TOOL_OF_JOB),
        Field("wall_tool", "Finishes the walls", "", options=TOOL_OF_JOB),
    ),
    "thread": (
        Field("feature", "Thread", "", options=FEATURE_OF_PART),
        Field(
            "infeed",
            "Infeed",
            "",
            options=(
                ("A degree beside the flank", "modified"),
                ("Square to the axis", "radial"),
                ("Along the flank", "flank"),
                ("From both flanks in turn", "alternating"),
            ),
        ),
        Field(
            "division",
            "Passes of",
            "",
            options=(("equal chip area", "area"), ("equal depth", "depth"), ("typed depths", "typed")),
        ),
        Field("passes", "passes", "", empty="by pitch"),
        Field("spring_passes", "spring passes", ""),
        Field("start_mm", "run-in", "mm", "along Z", empty="computed"),
        Field("measured_over_wires_mm", "found over wires, to cut again", "mm", empty="new thread"),
        Field("written", "Written", "", options=WRITTEN),
    ),
    "tap": (
        Field("depth_mm", "length of full thread", "mm", "along Z", empty="as the part"),
        Field("rigid", "Holder", "", options=(("rigid, in step with the spindle", True), ("floating", False))),
    ),
    "drill": (
        Field(
            "written",
            "Written",
            "",
            options=(("move by move", "moves"), ("as a cycle, wholly out", "whole"), ("as a cycle, lifting", "passes")),
        ),
        Field("depth_mm", "depth to the full diameter", "mm", empty="as the part"),
        Field("breakthrough_mm", "past a through hole", "mm"),
        Field("peck_mm", "each peck", "mm", empty="shrinking"),
    ),
    "ream": (
        Field("depth_mm", "depth to the full diameter", "mm", empty="as the part"),
        Field("breakthrough_mm", "past a through hole", "mm"),
    ),
    "finish_od": (
        Field("wanted_ra_um", "wanted Ra", "um"),
        Field("leave_mm", "left for another cut", "mm", "on radius"),
        Field("lead_mm", "run-in and run-out", "mm"),
        _AWAY,
        Field("written", "Written", "", options=AS_ONE),
        *_STRETCH,
    ),
    "holes": (
        Field("feature", "Holes", "", options=FEATURE_OF_PART),
        Field("peck", "Pecks", "", options=(("where the hole is deep", True), ("never", False))),
        Field("peck_mm", "first peck", "mm", empty="by diameter"),
        Field("breakthrough_mm", "past a through hole", "mm"),
    ),
    "flats": (
        Field("feature", "Flats", "", options=FEATURE_OF_PART),
        Field("by", "Across", "", options=ACROSS),
        Field("leave_mm", "left for the last cut", "mm"),
        Field("edge_tool", "Breaks the edge in front", "", options=TOOL_OF_JOB),
    ),
    "slot": (
        Field("feature", "Slot", "", options=FEATURE_OF_PART),
        Field("leave_mm", "left on the walls for the last cut", "mm"),
        Field("start_tool", "Drills a start hole", "", options=TOOL_OF_JOB),
        Field("edge_tool", "Breaks the edges", "", options=TOOL_OF_JOB),
    ),
    "feed_bar": (Field("dwell_s", "to open, and to close", "s"), Field("draw_mm_min", "a gripper draws at", "mm/min")),
    "part_off": (
        Field(
            "taken",
            "The part",
            "",
            options=(("falls", "falls"), ("is caught", "caught"), ("is held by the pick-off", "picked")),
        ),
        Field("steady_below_d_mm", "steady speed below Ø", "mm", "on diameter"),
        Field("slow_below_d_mm", "slower feed below Ø", "mm", "on diameter"),
        Field("slow_share", "share of feed kept", "share"),
    ),
}

WITH_CENTRE = Field("centre_back", "Live centre", "", options=(("in", False), ("drawn back", True)))
"""Asked only where the hold has one."""

_Z = "along Z"
_R = "on radius"
_D = "on diameter"

TRANSFER_FIELDS = (
    Field("rpm", "both turn at", "rpm"),
    Field("approach_mm", "rapid ends before the grip", "mm", _Z),
    Field("feed_mm_min", "feed to the grip", "mm/min"),
    Field("push_n", "push at most", "N"),
    Field("pull_mm", "bar drawn out", "mm", _Z, empty="to the next cut"),
    Field("dwell_s", "settles before closing", "s"),
    Field("park_d_mm", "carriers wait at Ø", "mm", _D, empty="reference"),
)

PARTS_FIELD = Field("parts", "parts in one run", "")

TURN_FIELDS = (
    Field("clean_s", "burrs off, jaws wiped", "s"),
    Field("turn_s", "turned round and tightened", "s"),
    Field("check_s", "checked and measured", "s"),
    Field("runout_um", "may run out by", "um"),
)

CONDITION_FIELDS = (
    Field("machine_per_h", "machine, an hour", "money"),
    Field("edge_cost", "a cutting edge", "money"),
    Field("edge_change_min", "changing an edge", "min"),
    Field("offset_error_um", "offsets of two tools differ by", "um"),
)

STOCK_SIZES: dict[str, tuple[Field, ...]] = {
    "round": (Field("d_mm", "diameter of the bar", "mm", _D),),
    "polygon": (Field("across_mm", "across flats", "mm"),),
    "tube": (
        Field("d_mm", "outside", "mm", _D),
        Field("bore_d_mm", "bore", "mm", _D),
        Field("bore_depth_mm", "bore deep", "mm", _Z, empty="through"),
    ),
    "free": (Field("allowance_mm", "allowance all over", "mm"),),
}

STOCK_FIELDS: tuple[Field, ...] = (
    Field("face_allowance_mm", "facing allowance", "mm", _Z),
    Field("length_mm", "sawn piece, length", "mm", _Z, empty="bar"),
)

SKIN_FIELDS: tuple[Field, ...] = (
    Field("skin_mm", "skin goes deep", "mm", _R),
    Field("runout_mm", "runs out", "mm", "full reading"),
)

BAR_FIELDS: tuple[Field, ...] = (
    Field("bar_length_mm", "length of a bar", "mm"),
    Field("remnant_mm", "shortest rest to hold", "mm"),
    Field("part_off_mm", "part-off cut", "mm", empty="blade"),
    Field("regrip_mm", "lost by gripping again", "mm"),
)

SUPPLY_FIELDS: tuple[Field, ...] = (
    Field("batch", "parts in the batch", ""),
    Field("price_per_kg", "price per kg", "ratio"),
)

HOLD_FIELDS: tuple[Field, ...] = (
    Field("stick_out_mm", "stick-out", "mm", _Z),
    Field("grip_length_mm", "grip length", "mm", _Z),
    Field("force_n", "grip at rest, all jaws", "N", empty="unknown"),
    Field("max_rpm", "plate limit", "rpm"),
    Field("friction", "friction", "ratio", empty="by jaw"),
    Field("safety", "wanted safety", "ratio"),
    Field("bar_behind_mm", "bar free behind spindle", "mm", _Z),
    Field("tool_clearance_mm", "tools keep clear by", "mm"),
)

HOLD_KIND_FIELDS: dict[str, tuple[Field, ...]] = {
    "chuck": (
        Field("jaw_length_mm", "jaws stand out", "mm", _Z),
        Field("jaw_height_mm", "jaws high", "mm", _R),
        Field("jaw_mass_kg", "mass of one jaw", "kg", empty="unknown"),
        Field("jaw_centre_r_mm", "its centre of mass", "mm", _R, empty="unknown"),
    ),
    "collet": (Field("cap_length_mm", "cap stands out", "mm", _Z), Field("cap_d_mm", "cap", "mm", _D)),
    "mandrel": (Field("d_mm", "mandrel", "mm", _D), Field("length_mm", "reaches in", "mm", _Z)),
}

BORED_FIELDS: tuple[Field, ...] = (
    Field("bored_d_mm", "bored to", "mm", _D, empty="the blank"),
    Field("bored_depth_mm", "bored deep", "mm", _Z, empty="through"),
)

RANGE_FIELDS: tuple[Field, ...] = (
    Field("range_from", "takes from", "mm", _D, empty="any"),
    Field("range_to", "takes up to", "mm", _D, empty="any"),
)

RELIEF_FIELDS: tuple[Field, ...] = (Field("length_mm", "cut back", "mm", _Z), Field("height_mm", "cut open", "mm", _R))

CENTRE_FIELDS: tuple[Field, ...] = (
    Field("d_mm", "body", "mm", _D),
    Field("point_length_mm", "point long", "mm", _Z),
    Field("largest_mouth_mm", "fits mouths up to", "mm", _D),
    Field("max_rpm", "speed limit", "rpm"),
)

SECOND_FIELDS: tuple[Field, ...] = (
    Field("grip_length_mm", "grip length", "mm", _Z),
    Field("clearance_mm", "kept free of the shoulder", "mm", _Z),
)

PART_FIELDS: tuple[Field, ...] = (
    Field("edge_break_mm", "break sharp edges", "mm", "chamfer leg"),
    Field("ra_um", "Ra unless marked", "um", empty="open"),
)

_AT_Z = Field("z_mm", "front edge at Z", "mm")
_WIDTH = Field("width_mm", "width", "mm")
_START = Field("start_deg", "first at", "deg")
_COUNT = Field("count", "count", "")

FEATURE_FIELDS: dict[str, tuple[Field, ...]] = {
    "groove": (
        _AT_Z,
        Field("width_mm", "width at the surface", "mm", _Z),
        Field("d_mm", "floor", "mm", _D),
        Field("wall_deg", "walls lean", "deg"),
        Field("floor_round_mm", "floor corners R", "mm"),
        Field("edge_break_mm", "edges broken", "mm"),
    ),
    "face_groove": (
        Field("d_mm", "outer wall", "mm", _D),
        Field("width_mm", "width", "mm", _R),
        Field("depth_mm", "depth", "mm", _Z),
        Field("wall_deg", "walls lean", "deg"),
        Field("floor_round_mm", "floor corners R", "mm"),
    ),
    "relief": (
        Field("z_mm", "shoulder at Z", "mm"),
        Field("length_mm", "length", "mm", _Z),
        Field("depth_mm", "depth", "mm", _R),
        Field("face_depth_mm", "into the shoulder", "mm", _Z),
        Field("radius_mm", "radius", "mm"),
    ),
    "thread": (Field("from_z_mm", "starts at Z", "mm"), Field("length_mm", "full thread", "mm", _Z)),
    "axial_hole": (
        Field("d_mm", "drill", "mm", _D),
        Field("depth_mm", "full depth", "mm", _Z, empty="through"),
        Field("point_deg", "point angle", "deg"),
    ),
    "centre_hole": (Field("d_mm", "pilot", "mm", _D), Field("mouth_d_mm", "mouth", "mm", _D)),
    "holes": (
        _COUNT,
        Field("d_mm", "holes", "mm", _D),
        Field("depth_mm", "depth", "mm", empty="through"),
        Field("circle_d_mm", "pitch circle", "mm", _D),
        Field("z_mm", "at Z", "mm"),
        _START,
        Field("step_deg", "step", "deg", empty="even"),
    ),
    "flats": (
        _COUNT,
        Field("distance_mm", "axis to flat", "mm", _R),
        Field("from_z_mm", "from Z", "mm"),
        Field("to_z_mm", "to Z", "mm"),
        _START,
    ),
    "slot": (
        _COUNT,
        _WIDTH,
        Field("depth_mm", "depth", "mm"),
        Field("from_z_mm", "from Z", "mm"),
        Field("to_z_mm", "to Z", "mm"),
        Field("length_mm", "length in a face", "mm", "0: right across"),
        Field("off_mm", "middle off the axis", "mm", "in a face"),
        Field("round_ends", "Ends", "", options=(("round", True), ("with corners", False))),
        Field("corner_radius_mm", "radius of its corners", "mm"),
        _START,
    ),
}

FEATURE_PLACES: dict[str, tuple[str, tuple[tuple[str, str], ...]]] = {
    "groove": ("side", (("Outside", "outside"), ("In the bore", "inside"))),
    "face_groove": ("end", (("Front face", "front"), ("Back face", "back"))),
    "relief": ("side", (("Outside", "outside"), ("In the bore", "inside"))),
    "thread": ("side", (("Outside", "outside"), ("In the bore", "inside"))),
    "axial_hole": ("end", (("From the front", "front"), ("From the back", "back"))),
    "centre_hole": ("end", (("Front face", "front"), ("Back face", "back"))),
    "holes": ("on", (("Front face", "front"), ("Back face", "back"), ("Round the outside", "outside"))),
    "slot": ("on", (("Outside", "outside"), ("In the bore", "inside"), ("Front face", "front"), ("Back face", "back"))),
}

FEATURE_NAMES: dict[str, str] = {
    "groove": "Groove",
    "face_groove": "Face groove",
    "relief": "Relief",
    "thread": "Thread",
    "axial_hole": "Axial hole",
    "centre_hole": "Centre hole",
    "holes": "Holes",
    "flats": "Flats",
    "slot": "Slot or pocket",
}


def typed_evidence(field: Field, number: float) -> Evidence:
    """A typed field in the form every number is shown in."""
    return Evidence(field.label, "", number, field.unit, measured_on=field.measured_on)


def operation_change(operation_id: str, name: str, number: object) -> Callable[[Job], Job]:
    """The change of a job that sets one field of an operation."""

    def change(job: Job) -> Job:
        def edit(operation: Operation) -> Operation:
            changed: Any = operation.changed(**{name: number})
            return changed  # type: ignore[no-any-return]

        return job.with_operation(operation_id, edit)

    return change
