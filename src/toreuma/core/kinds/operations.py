"""Operation kinds, each declared once: name, fields, what it cuts and with which tools, and when."""

from toreuma.core.kinds.field import FEATURE_OF_PART, TOOL_OF_JOB, Field
from toreuma.core.kinds.registry import OperationKind, declared
from toreuma.core.model import Operation

__all__ = ["OPERATIONS", "RANKS"]

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

OPERATIONS: dict[str, OperationKind] = declared(
    Operation,
    face=OperationKind(
        label="Face",
        fields=(
            Field("leave_mm", "left on the face", "mm", "along Z"),
            Field("past_centre_mm", "nose past the centre", "mm", "on radius"),
            Field("written", "Written", "", options=WRITTEN[:2]),
        ),
        tools=("turning",),
        ranks={"face": 10},
    ),
    rough_od=OperationKind(
        label="Rough outside",
        fields=(
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
        tools=("turning",),
        ranks={"rough outside": 30},
    ),
    finish_od=OperationKind(
        label="Finish outside",
        fields=(
            Field("wanted_ra_um", "wanted Ra", "um"),
            Field("leave_mm", "left for another cut", "mm", "on radius"),
            Field("lead_mm", "run-in", "mm"),
            _AWAY,
            Field("written", "Written", "", options=AS_ONE),
            *_STRETCH,
        ),
        tools=("turning",),
        ranks={"finish outside": 50},
    ),
    rough_bore=OperationKind(
        label="Rough the bore",
        fields=(
            Field("varied", "Depths", "", options=(("even", False), ("deeper and shallower by turns", True))),
            Field("written", "Written", "", options=WRITTEN),
            *_CHIP_BREAKS,
            Field("leave_radial_mm", "left for finishing", "mm", "on radius"),
            Field("leave_axial_mm", "left on faces", "mm", "along Z"),
            *_STRETCH,
        ),
        tools=("boring",),
        ranks={"rough bore": 40},
    ),
    finish_bore=OperationKind(
        label="Finish the bore",
        fields=(
            Field("wanted_ra_um", "wanted Ra", "um"),
            Field("leave_mm", "left for another cut", "mm", "on radius"),
            _AWAY,
            *_STRETCH,
        ),
        tools=("boring",),
        ranks={"finish bore": 70},
    ),
    drill=OperationKind(
        label="Drill on the axis",
        fields=(
            Field(
                "written",
                "Written",
                "",
                options=(
                    ("move by move", "moves"),
                    ("as a cycle, wholly out", "whole"),
                    ("as a cycle, lifting", "passes"),
                ),
            ),
            Field("depth_mm", "depth to the full diameter", "mm", empty="as the part"),
            Field("breakthrough_mm", "past a through hole", "mm"),
            Field("peck_mm", "each peck", "mm", empty="shrinking"),
        ),
        tools=("drill",),
        ranks={"centre": 15, "drill bore": 20, "drill": 80},
    ),
    ream=OperationKind(
        label="Ream on the axis",
        fields=(
            Field("depth_mm", "depth to the full diameter", "mm", empty="as the part"),
            Field("breakthrough_mm", "past a through hole", "mm"),
        ),
        tools=("reamer",),
    ),
    groove=OperationKind(
        label="Groove",
        fields=(
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
        tools=("grooving", "parting", "form"),
        cuts=("groove", "face_groove", "relief"),
        names_what_it_cuts="groove or relief",
        ranks={"groove": 60, "groove inside": 65, "relief inside": 75},
    ),
    thread=OperationKind(
        label="Thread",
        fields=(
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
        tools=("threading",),
        cuts=("thread",),
        names_what_it_cuts="thread",
        ranks={"thread": 90},
    ),
    tap=OperationKind(
        label="Tap on the axis",
        fields=(
            Field("depth_mm", "length of full thread", "mm", "along Z", empty="as the part"),
            Field("rigid", "Holder", "", options=(("rigid, in step with the spindle", True), ("floating", False))),
        ),
        tools=("tap",),
        ranks={"tap": 85},
    ),
    holes=OperationKind(
        label="Holes beside the axis",
        fields=(
            Field("feature", "Holes", "", options=FEATURE_OF_PART),
            Field("peck", "Pecks", "", options=(("where the hole is deep", True), ("never", False))),
            Field("peck_mm", "first peck", "mm", empty="by diameter"),
            Field("breakthrough_mm", "past a through hole", "mm"),
        ),
        tools=("drill", "tap", "reamer", "thread_mill"),
        cuts=("holes",),
        names_what_it_cuts="holes beside the axis",
        milled=True,
    ),
    flats=OperationKind(
        label="Mill flats",
        fields=(
            Field("feature", "Flats", "", options=FEATURE_OF_PART),
            Field("by", "Across", "", options=ACROSS),
            Field("leave_mm", "left for the last cut", "mm"),
            Field("edge_tool", "Breaks the edge in front", "", options=TOOL_OF_JOB),
        ),
        tools=("end_mill",),
        cuts=("flats",),
        names_what_it_cuts="flats",
        milled=True,
    ),
    slot=OperationKind(
        label="Mill a slot",
        fields=(
            Field("feature", "Slot", "", options=FEATURE_OF_PART),
            Field("leave_mm", "left on the walls for the last cut", "mm"),
            Field("start_tool", "Drills a start hole", "", options=TOOL_OF_JOB),
            Field("edge_tool", "Breaks the edges", "", options=TOOL_OF_JOB),
        ),
        tools=("end_mill",),
        cuts=("slot",),
        names_what_it_cuts="slot",
        milled=True,
    ),
    knurl=OperationKind(
        label="Knurl",
        fields=(
            Field("feature", "Knurl", "", options=FEATURE_OF_PART),
            Field("dwell_turns", "turns it stands at the ends", ""),
        ),
        tools=("knurling",),
        cuts=("knurl",),
        names_what_it_cuts="knurl",
        ranks={"knurl": 55},
    ),
    feed_bar=OperationKind(
        label="Feed the bar",
        fields=(Field("dwell_s", "to open, and to close", "s"), Field("draw_mm_min", "a gripper draws at", "mm/min")),
        tools=("bar_stop", "bar_puller"),
        ranks={"feed bar": 0},
    ),
    as_written=OperationKind(
        label="As written",
        fields=(),
        tools=(
            "turning",
            "boring",
            "parting",
            "grooving",
            "threading",
            "drill",
            "reamer",
            "tap",
            "form",
            "pull",
            "end_mill",
            "chamfer_mill",
            "thread_mill",
        ),
        only_read=True,
    ),
    part_off=OperationKind(
        label="Part off",
        fields=(
            Field(
                "taken",
                "The part",
                "",
                options=(("falls", "falls"), ("is caught", "caught"), ("is held by the pick-off", "picked")),
            ),
            Field("steady_below_d_mm", "steady speed below Ø", "mm", "on diameter"),
            Field("slow_below_d_mm", "slower feed below Ø", "mm", "on diameter"),
            Field("slow_share", "share of feed kept", "share"),
            Field("leave_axial_mm", "left on faces", "mm", "along Z"),
        ),
        tools=("parting",),
        ranks={"part off": 100},
    ),
)

RANKS = {group: rank for kind in OPERATIONS.values() for group, rank in kind.ranks.items()}
"""When each group of steps of a proposed route is cut, the lowest first."""
