"""Edits a person might make, by chance: numbers, hold, blank, tools, order, what is left out and what comes again."""

import random
from collections.abc import Callable

from pydantic import ValidationError

from toreuma.core.errors import ToreumaError
from toreuma.core.model import Centre, HolesBeside, Job, Operation, ReamHole
from toreuma.core.model.tool import Reamer
from toreuma.core.scene import build_scene
from toreuma.shipped.library import catalogue, machines, materials

__all__ = ["edited"]

Edit = Callable[[Job, random.Random], Job]


def edited(job: Job, source: random.Random) -> Job:
    """The job after one edit that gives a job that can be."""
    for _ in range(40):
        try:
            changed = source.choice(EDITS)(job, source)
            build_scene(changed)
        except (ValidationError, ToreumaError, IndexError):  # nothing of that kind to edit
            continue
        if changed != job:
            return changed
    return job


def _operation(job: Job, source: random.Random) -> Operation:
    return source.choice(job.operations)


def _pin(job: Job, source: random.Random) -> Job:
    one = _operation(job, source)
    field, value = source.choice([("feed_mm_rev", 0.11), ("ap_mm", 0.9), ("vc_m_min", 93.0), ("clamp_rpm", 640.0)])
    kept = None if getattr(one.pins, field) is not None else value
    return job.with_operation(one.id, lambda op: op.changed(pins=op.pins.changed(**{field: kept})))


def _number(job: Job, source: random.Random) -> Job:
    one = _operation(job, source)
    fields = ("leave_radial_mm", "leave_axial_mm", "leave_mm", "walls_mm", "breakthrough_mm", "lead_mm", "depth_mm",
              "past_centre_mm", "extension_mm", "to_z_mm", "slow_below_d_mm", "start_mm", "peck_mm")  # fmt: skip
    field = source.choice([name for name in fields if name in type(one).model_fields])
    value = -source.uniform(1, 30) if field == "to_z_mm" else source.choice([0.1, 0.25, 0.6, 1.5, 8.0])
    return job.with_operation(one.id, lambda op: op.changed(**{field: value}))


def _way(job: Job, source: random.Random) -> Job:
    one = _operation(job, source)
    fields = ("written", "pattern", "method", "allow_away", "infeed", "division", "by", "peck", "varied", "rigid")
    field = source.choice([name for name in fields if name in type(one).model_fields])
    options = {"written": ("moves", "passes", "whole"), "pattern": ("along_z", "along_x", "contour"),
               "method": ("plunges", "plunge_turn", "straight"), "infeed": ("modified", "radial", "flank"),
               "division": ("area", "depth"), "by": ("", "y", "polar")}.get(field, (True, False))  # fmt: skip
    value = source.choice(options)
    return job.with_operation(one.id, lambda op: op.changed(**{field: value}))


def _off_or_on(job: Job, source: random.Random) -> Job:
    return job.with_operation(_operation(job, source).id, lambda op: op.changed(enabled=not op.enabled))


def _taken_out(job: Job, source: random.Random) -> Job:
    out = _operation(job, source).id
    return job.with_setup(operations=tuple(one for one in job.operations if one.id != out))


def _moved(job: Job, source: random.Random) -> Job:
    order = list(job.operations)
    order.insert(source.randrange(len(order)), order.pop(source.randrange(len(order))))
    return job.with_setup(operations=tuple(order))


def _reamed(job: Job, source: random.Random) -> Job:
    """A reamer behind everything, on the axis or in holes beside it."""
    identifier = "reamer"
    if job.tool(identifier) is None:
        tool = next(one for one in catalogue().tools if isinstance(one, Reamer))
        station = source.randint(1, job.machine.stations)
        job = job.changed(tools=(*job.tools, tool.changed(id=identifier, station=station, mount="axial")))
    beside = [n for n, one in enumerate(job.part.features) if one.kind == "holes"]
    name = job.free_operation_id()
    extra = HolesBeside(id=name, tool=identifier, feature=beside[0]) if beside else ReamHole(id=name, tool=identifier)
    return job.with_setup(operations=(*job.operations, extra))


def _tool(job: Job, source: random.Random) -> Job:
    at = source.randrange(len(job.tools))
    tool = job.tools[at]
    insert, blade = getattr(tool, "insert", None), getattr(tool, "blade", None)
    if insert is not None and hasattr(insert, "nose_radius_mm"):
        changed = tool.changed(insert=insert.changed(nose_radius_mm=source.choice([0.2, 0.4, 0.8, 1.2])))
    elif blade is not None:
        changed = tool.changed(blade=blade.changed(width_mm=round(blade.width_mm * source.choice([0.8, 1.1]), 3)))
    elif "d_mm" in type(tool).model_fields:
        changed = tool.changed(d_mm=round(tool.d_mm * source.choice([0.9, 1.05]), 2))
    else:
        changed = tool.changed(station=source.randint(1, job.machine.stations))
    return job.changed(tools=(*job.tools[:at], changed, *job.tools[at + 1 :]))


def _hold(job: Job, source: random.Random) -> Job:
    hold, field = job.setup.hold, source.choice(["stick_out_mm", "tool_clearance_mm", "force_n", "grip_length_mm"])
    value = {"stick_out_mm": hold.stick_out_mm + source.choice([-2.0, 1.0, 6.0]), "tool_clearance_mm": 4.5,
             "force_n": 9000.0, "grip_length_mm": hold.grip_length_mm * 0.8}[field]  # fmt: skip
    return job.with_setup(hold=hold.changed(**{field: value}))


def _centre(job: Job, source: random.Random) -> Job:
    return job.with_setup(centre=None if job.setup.centre is not None else Centre(d_mm=25.0))


def _blank(job: Job, source: random.Random) -> Job:
    stock = job.stock
    if source.random() < 0.3:
        return job.changed(stock=stock.changed(material=materials()[source.choice(["C45", "1.4404", "AlMgSi1"])]))
    if "d_mm" in type(stock).model_fields and source.random() < 0.7:
        return job.changed(stock=stock.changed(d_mm=stock.d_mm + source.choice([0.5, 2.0])))
    return job.changed(stock=stock.changed(face_allowance_mm=source.choice([0.5, 1.5, 2.5])))


def _drawing(job: Job, source: random.Random) -> Job:
    at = source.randrange(1, len(job.part.outside))
    outside = list(job.part.outside)
    outside[at] = outside[at].changed(d_mm=round(outside[at].d_mm + source.choice([-0.2, 0.1]), 3))
    return job.changed(part=job.part.changed(outside=tuple(outside)))


def _circumstances(job: Job, source: random.Random) -> Job:
    field, value = source.choice(
        [("stance", "gentle"), ("stance", "hard"), ("attended", False), ("coolant", "dry"), ("aim", "output")]
    )
    return job.changed(conditions=job.conditions.changed(**{field: value}))


def _machine(job: Job, source: random.Random) -> Job:
    return job.changed(machine=source.choice(list(machines().values())))


def _handed(job: Job, source: random.Random) -> Job:
    return job.changed(hand_over=None) if job.hand_over is not None else _pin(job, source)


EDITS: tuple[Edit, ...] = (
    _pin, _number, _number, _way, _off_or_on, _taken_out, _moved, _reamed, _tool, _tool, _hold, _centre, _blank,
    _drawing, _circumstances, _machine, _handed,
)  # fmt: skip
