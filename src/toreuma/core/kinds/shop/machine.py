"""What the shop asks of a machine."""

from toreuma.core.kinds.shop.field import YES_NO, ShopField
from toreuma.core.model import Machine

__all__ = ["machine_fields"]

LIVE = {"max_rpm": 5000, "power_kw": 3.7, "torque_nm": 28}
C_AXIS = {"brake_nm": 200, "follow_nm": 50}
SECOND = {
    "max_rpm": 5000,
    "power": [{"rpm": 0, "power_kw": 0}, {"rpm": 1500, "power_kw": 7.5}, {"rpm": 5000, "power_kw": 7.5}],
    "travel_mm": 500,
    "least_gap_mm": 150,
}
CARRIER_KINDS = (("turret", "turret"), ("gang plate", "gang plate"), ("milling spindle", "milling spindle"))


def machine_fields(machine: Machine) -> tuple[ShopField, ...]:
    """Everything of a machine a person may type."""
    found = [*_SPINDLE, *_SLIDES]
    for index, carrier in enumerate(machine.carriers):
        found += _carrier(f"carriers.{index}", carrier.name, carrier.live is not None)
    found += _c_axis("c_axis", machine.c_axis is not None, "Main spindle as an axis")
    found.append(
        ShopField(
            path="second",
            label="second spindle",
            form="part",
            options=(("none", None), ("faces the first", SECOND)),
            why="takes the part over, so that both ends are finished",
            heading="Second spindle",
        )
    )
    if machine.second is not None:
        found += _SECOND_FIELDS
    return (*found, *_ROUND_IT)


_SPINDLE = (
    ShopField(
        path="max_rpm",
        usual=(500, 12000),
        label="highest speed",
        unit="rpm",
        heading="Main spindle",
        why="caps every surface speed on small diameters",
    ),
    ShopField(
        path="power",
        label="power by speed",
        unit="kW",
        form="curve",
        why="what a cut may draw at its speed: 0:0 1500:15 4500:15 is rpm:kW at each corner",
    ),
    ShopField(
        path="short_power",
        label="short rating",
        unit="kW",
        form="curve",
        empty="none",
        why="what may be drawn for some minutes",
    ),
    ShopField(
        path="torque_nm",
        label="largest torque",
        unit="N m",
        empty="as the power gives",
        why="at the spindle: it caps slow heavy cuts and large drills",
        usual=(10, 5000),
    ),
    ShopField(
        path="efficiency",
        usual=(0.5, 0.98),
        label="reaches the cut",
        unit="share",
        why="what belts and bearings leave of the power",
    ),
    ShopField(
        path="spindle_bore_mm",
        usual=(10, 250),
        label="bore of the spindle",
        unit="mm",
        empty="every bar goes through",
        why="the largest bar; a thicker blank is sawn",
    ),
    ShopField(
        path="surface_speed",
        label="constant surface speed",
        form="choice",
        options=YES_NO,
        why="without it the speed is the same on every diameter",
    ),
    ShopField(
        path="speeds_rpm",
        label="only these speeds",
        unit="rpm",
        form="list",
        empty="every speed",
        why="a gearbox has a ladder of them",
    ),
    ShopField(
        path="feeds_mm_rev",
        label="only these feeds",
        unit="mm/rev",
        form="list",
        empty="every feed",
        why="a feed box has a ladder of them",
    ),
    ShopField(path="spindle_ramp_rpm_s", label="speeds up by", unit="", why="rpm a second: time lost at every change"),
)

_SLIDES = (
    ShopField(
        path="rapid_x_mm_min",
        usual=(1000, 40000),
        label="rapid across",
        unit="mm/min",
        why="time between cuts, on radius",
        heading="Slides",
    ),
    ShopField(path="rapid_z_mm_min", usual=(1000, 60000), label="rapid along", unit="mm/min", why="time between cuts"),
    ShopField(
        path="rapids",
        label="rapid in two axes",
        form="choice",
        options=(("not known: both ways are looked at", "unsaid"), ("straight", "straight"), ("bent", "bent")),
        why="bent: each axis goes as fast as it can, and the tool comes through where nobody drew it",
    ),
    ShopField(path="acceleration_mm_s2", label="acceleration, mm/s²", why="short rapids never reach their speed"),
    ShopField(
        path="travel_x_mm", usual=(50, 800), label="travel across", unit="mm", empty="not looked at", why="on radius"
    ),
    ShopField(
        path="travel_z_mm",
        usual=(50, 6000),
        label="travel along",
        unit="mm",
        empty="not looked at",
        why="how far tools come",
    ),
)


def _carrier(path: str, name: str, live: bool) -> list[ShopField]:
    found = [
        ShopField(path=f"{path}.name", label="name", form="text", heading=f"Tools: {name}"),
        ShopField(
            path=f"{path}.kind",
            label="kind",
            form="choice",
            options=CARRIER_KINDS,
            why="whether all tools turn with it, stand side by side, or are changed",
        ),
        ShopField(path=f"{path}.stations", usual=(1, 60), label="stations", why="how many tools are at hand"),
        ShopField(
            path=f"{path}.shank_mm", usual=(8, 50), label="shank", unit="mm", why="height it takes without packing"
        ),
        ShopField(path=f"{path}.bar_mm", label="round shanks up to", unit="mm", why="bars and drills; bushings below"),
        ShopField(
            path=f"{path}.station_pitch_mm",
            label="from tool to tool",
            unit="mm",
            why="neighbours that would hit the work",
        ),
        ShopField(path=f"{path}.tool_change_s", label="tool change", unit="s", why="time lost between operations"),
        ShopField(path=f"{path}.reference_d_mm", label="reference point at Ø", unit="mm", why="where it is parked"),
        ShopField(
            path=f"{path}.reference_from_nose_mm", label="in front of the chuck", unit="mm", why="where it is parked"
        ),
        ShopField(
            path=f"{path}.side",
            label="comes from",
            form="choice",
            options=(("above", "above"), ("below", "below")),
            why="which way round tools stand",
        ),
        ShopField(
            path=f"{path}.y_mm", label="Y to each side", unit="mm", why="0: none; wants it for slots off the axis"
        ),
        ShopField(
            path=f"{path}.nose_d_mm",
            label="Ø of a milling spindle's nose",
            unit="mm",
            why="0: not known, and then not looked at; it follows its tools into the work",
        ),
        ShopField(path=f"{path}.through_tool_bar", label="coolant through tools, bar", why="deep drills want it"),
        ShopField(
            path=f"{path}.live",
            label="driven tools",
            form="part",
            options=(("none", None), ("driven", LIVE)),
            why="holes beside the axis, flats, slots",
        ),
    ]
    if live:
        found += [
            ShopField(path=f"{path}.live.max_rpm", label="driven up to", unit="rpm", why="small drills want speed"),
            ShopField(path=f"{path}.live.power_kw", label="power at the tool", unit="kW", why="continuous"),
            ShopField(path=f"{path}.live.torque_nm", label="torque at the tool", unit="N m", why="limits large drills"),
        ]
    return found


def _c_axis(path: str, there: bool, heading: str) -> list[ShopField]:
    found = [
        ShopField(
            path=path,
            label="C axis",
            form="part",
            options=(("none", None), ("there", C_AXIS)),
            heading=heading,
            why="the spindle stands at an angle while a driven tool cuts",
        )
    ]
    if there:
        found += [
            ShopField(path=f"{path}.brake_nm", label="brake holds", unit="N m", why="0: it has none"),
            ShopField(path=f"{path}.follow_nm", label="follows with", unit="N m", why="while it turns in step"),
            ShopField(path=f"{path}.engage_s", label="engages in", unit="s", why="time lost"),
        ]
    return found


_SECOND_FIELDS = (
    ShopField(path="second.max_rpm", label="highest speed", unit="rpm"),
    ShopField(path="second.power", label="power by speed", unit="kW", form="curve"),
    ShopField(path="second.travel_mm", label="travel", unit="mm", why="whether it reaches the part"),
    ShopField(path="second.least_gap_mm", label="closest to the first", unit="mm", why="between both noses"),
    ShopField(path="second.push_n", label="gives up at", unit="N", why="push against the part while it grips"),
)
_ROUND_IT = (
    ShopField(
        path="tailstock",
        label="tailstock",
        form="choice",
        options=YES_NO,
        heading="Round it",
        why="long pieces bend without a centre",
    ),
    ShopField(path="steady", label="steady rest", form="choice", options=YES_NO, why="carries long pieces"),
    ShopField(
        path="catcher", label="parts catcher", form="choice", options=YES_NO, why="else parts fall into the chips"
    ),
    ShopField(
        path="coolant",
        label="coolant",
        form="choice",
        options=(("flood", "flood"), ("mist", "mist"), ("none", "none")),
        why="dry cuts are derated",
    ),
    ShopField(path="dialect", label="program words", form="text", why="how its control wants programs written"),
    ShopField(
        path="words",
        label="its own words",
        form="words",
        empty="as the dialect says",
        why="what its builder's words mean: M68 clamp_work, M69 unclamp, M45 nothing",
    ),
    ShopField(
        path="lift_mm",
        usual=(0.05, 2),
        label="draws back by",
        unit="mm",
        empty="as the dialect says",
        why="a number of its control: between cuts of a cycle that does not say",
    ),
    ShopField(
        path="peck_back_mm",
        usual=(0.05, 5),
        label="back into a hole to",
        unit="mm",
        empty="as the dialect says",
        why="a number of its control: so far above where the drill was, it feeds again",
    ),
    ShopField(
        path="thread_run_out",
        usual=(0, 3),
        label="threads run out, leads",
        empty="as the dialect says",
        why="a number of its control: a thread cycle of one pass comes out at 45° so far before its end",
    ),
    ShopField(
        path="time_ratio",
        usual=(0.7, 1.6),
        label="real time over computed",
        unit="ratio",
        why="what a part really takes: doors, waiting and look-ahead; the log learns it",
    ),
    ShopField(
        path="warm_up_min",
        usual=(3, 240),
        label="warms up with",
        unit="min",
        empty="not known",
        why="time constant after a cold start: sizes drift for about three of it; the log learns it",
    ),
    ShopField(path="per_h", label="an hour of it", unit="money", empty="the house rules'", why="cost of a part"),
)
