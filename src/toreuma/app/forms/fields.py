"""Which fields of blank, hold and job a person may type, and how each is called."""

from collections.abc import Callable
from typing import Any

from toreuma.core.cutting.evidence import Evidence
from toreuma.core.kinds.field import Field
from toreuma.core.model import Job, Operation

__all__ = [
    "BAR_FIELDS",
    "BORED_FIELDS",
    "CENTRE_FIELDS",
    "CONDITION_FIELDS",
    "DRIVER_FIELDS",
    "HOLD_FIELDS",
    "HOLD_KIND_FIELDS",
    "PARTS_FIELD",
    "PART_FIELDS",
    "RANGE_FIELDS",
    "RELIEF_FIELDS",
    "REST_FIELDS",
    "SECOND_FIELDS",
    "SKIN_FIELDS",
    "STOCK_FIELDS",
    "STOCK_SIZES",
    "SUPPLY_FIELDS",
    "TRANSFER_FIELDS",
    "TURN_FIELDS",
    "WITH_CENTRE",
    "operation_change",
    "typed_evidence",
]


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

DRIVER_FIELDS: tuple[Field, ...] = (
    Field("force_n", "push on the pins", "N", empty="unknown"),
    *(one for one in HOLD_FIELDS if one.name in ("max_rpm", "friction", "safety", "tool_clearance_mm")),
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
    "driver": (
        Field("pins_d_mm", "circle of the pins", "mm", _D),
        Field("pin_width_mm", "pins wide", "mm", _R),
        Field("pin_length_mm", "pins stand out", "mm", _Z),
    ),
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

REST_FIELDS: dict[str, tuple[Field, ...]] = {
    "steady": (Field("z_mm", "stands at Z", "mm", _Z), Field("frame_mm", "frame long", "mm", _Z)),
    "follow": (Field("behind_mm", "behind the nose", "mm", _Z),),
}

SECOND_FIELDS: tuple[Field, ...] = (
    Field("begins_mm", "begins behind its front edge", "mm", _Z),
    Field("grip_length_mm", "grip length", "mm", _Z),
    Field("clearance_mm", "kept free of the shoulder", "mm", _Z),
)

PART_FIELDS: tuple[Field, ...] = (
    Field("edge_break_mm", "break sharp edges", "mm", "chamfer leg"),
    Field("ra_um", "Ra unless marked", "um", empty="open"),
)


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
