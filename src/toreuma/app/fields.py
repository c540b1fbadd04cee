"""Which fields of which value a person may type, and how each is called."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from toreuma.core.cutting.evidence import Evidence
from toreuma.core.model import Job, Operation

__all__ = ["BLANK_FIELDS", "OPERATION_FIELDS", "Field", "operation_change", "typed_evidence"]


@dataclass(frozen=True)
class Field:
    """A field by name, its label, its internal unit and what it is measured on."""

    name: str
    label: str
    unit: str
    measured_on: str = ""
    empty: str = ""


_STRETCH = (
    Field("to_z_mm", "stretch ends at Z", "mm", empty="back edge"),
    Field("extension_mm", "extension past the end", "mm", "along Z", empty="proposed"),
)

OPERATION_FIELDS: dict[str, tuple[Field, ...]] = {
    "face": (
        Field("leave_mm", "left on the face", "mm", "along Z"),
        Field("past_centre_mm", "nose past the centre", "mm", "on radius"),
    ),
    "rough_od": (
        Field("leave_radial_mm", "left for finishing", "mm", "on radius"),
        Field("leave_axial_mm", "left on faces", "mm", "along Z"),
        *_STRETCH,
    ),
    "finish_od": (Field("wanted_ra_um", "wanted Ra", "um"), Field("lead_mm", "run-in and run-out", "mm"), *_STRETCH),
    "part_off": (
        Field("steady_below_d_mm", "steady speed below Ø", "mm", "on diameter"),
        Field("slow_below_d_mm", "slower feed below Ø", "mm", "on diameter"),
        Field("slow_share", "share of feed kept", "share"),
    ),
}

BLANK_FIELDS: tuple[tuple[str, Field], ...] = (
    ("stock", Field("d_mm", "bar", "mm", "on diameter")),
    ("stock", Field("face_allowance_mm", "facing allowance", "mm", "along Z")),
    ("hold", Field("stick_out_mm", "stick-out from the jaws", "mm", "along Z")),
    ("hold", Field("grip_length_mm", "grip length", "mm", "along Z")),
    ("hold", Field("max_rpm", "chuck plate limit", "rpm")),
)


def typed_evidence(field: Field, number: float) -> Evidence:
    """A typed field in the form every number is shown in."""
    return Evidence(field.label, "", number, field.unit, measured_on=field.measured_on)


def operation_change(operation_id: str, name: str, number: float | None) -> Callable[[Job], Job]:
    """The change of a job that sets one field of an operation."""

    def change(job: Job) -> Job:
        def edit(operation: Operation) -> Operation:
            changed: Any = operation.changed(**{name: number})
            return changed  # type: ignore[no-any-return]

        return job.with_operation(operation_id, edit)

    return change
