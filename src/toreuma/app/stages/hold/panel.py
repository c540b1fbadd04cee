"""Left panel of the hold stage: what grips the blank, what supports it, and what grips it the second time."""

from collections.abc import Callable
from typing import Any

from toreuma.app.forms.fields import (
    BORED_FIELDS,
    CENTRE_FIELDS,
    DRIVER_FIELDS,
    HOLD_FIELDS,
    HOLD_KIND_FIELDS,
    RANGE_FIELDS,
    RELIEF_FIELDS,
    REST_FIELDS,
    SECOND_FIELDS,
)
from toreuma.app.forms.rows import RowColumn
from toreuma.core.kinds.field import Field
from toreuma.core.model import Job
from toreuma.core.plan.hold.rests import in_the_middle
from toreuma.core.units import System, show
from toreuma.engine.library import library

__all__ = ["HoldPanel"]

Span = tuple[float, float]
WIDEST_MM = 1000.0

SECOND = {"grip_length_mm": 15.0}
RELIEF = {"length_mm": 5.0, "height_mm": 8.0}


class HoldPanel(RowColumn):
    """Choices from the shipped holds, every number of the one chosen, the centre, and the second hold."""

    def _fill(self) -> None:
        job = self.session.job
        if job is None:
            self.start(())
            return
        hold, second = job.setup.hold, job.second_hold
        relief = hold.relief if hold.kind == "chuck" else None
        soft = hold.kind == "chuck" and hold.jaws == "soft"
        rest = job.setup.rest.kind if job.setup.rest is not None else ""
        shown = (hold.kind, soft, relief is None, job.setup.centre is None, rest, second is None)
        key = (*shown, len(job.part.outside))
        fresh = self.start(key)
        if fresh:
            self.heading("Machine")
        every = tuple((name, name) for name in library().machines)
        own = job.machine.name
        options = every if own in library().machines else ((f"{own}  (this job's own)", own), *every)
        self.choice("machine", "Cut on", options, own, _with_machine)
        self.text("machine", "muted", _machine_facts(job, self.session.system))
        if fresh:
            self.heading("First hold")
        names = tuple((one.name, one.name) for one in library().holds.values())
        known = hold.name in [name for name, _ in names]
        options = names if known else ((hold.name or "this job's own", hold.name), *names)
        self.choice("hold", "Held in", options, hold.name, _with_named)
        if hold.kind == "chuck":
            jaws = (("Hard, serrated", "hard"), ("Soft, bored to size", "soft"))
            self.choice("jaws", "Jaws", jaws, hold.jaws, lambda j, v: _with_hold(j, jaws=v))
            sides = (("Outside", "outside"), ("In the bore", "inside"))
            self.choice("side", "Grip", sides, hold.side, lambda j, v: _with_hold(j, side=v))
        usual = DRIVER_FIELDS if hold.kind == "driver" else HOLD_FIELDS
        for field in (*(BORED_FIELDS if soft else ()), *usual, *HOLD_KIND_FIELDS[hold.kind]):
            self._hold_row(hold, field)
        if hold.kind in ("chuck", "collet"):
            name = "grip_range_mm" if hold.kind == "chuck" else "range_mm"
            self._range_rows("hold", getattr(hold, name), lambda j, span: _with_hold(j, **{name: span}))
        if hold.kind == "chuck":
            fronts = (("As they are", False), ("Cut back in front", True))
            self.choice("relieved", "Jaw fronts", fronts, relief is not None, _with_relief)
            for field in RELIEF_FIELDS if relief is not None else ():
                self._relief_row(relief, field)
        if fresh:
            self.heading("Support")
        centre = job.setup.centre
        named = [(name, name) for name in library().centres]
        if centre is not None and centre.name not in library().centres:
            named.insert(0, (f"{centre.name or 'centre'}  (this job's own)", centre.name))
        self.choice("centre", "Centre", (("None", None), *named), centre.name if centre else None, _with_centre)
        for field in CENTRE_FIELDS if job.setup.centre is not None else ():
            self._centre_row(job.setup.centre, field)
        self._rest(job)
        if fresh:
            self.heading("Second hold")
        surfaces = [("Not wanted", -1)]
        surfaces += [(e.name or f"Element {i + 1}", i) for i, e in enumerate(job.part.outside) if e.kind == "line"]
        self.choice("second", "Grips on", surfaces, second.element if second else -1, _with_second)
        for field in SECOND_FIELDS if second is not None else ():
            self._second_row(second, field)
        if second is not None:
            self._range_rows("second", second.range_mm, _with_second_range)
        if fresh:
            self.end()

    def _rest(self, job: Job) -> None:
        """The rest between the ends, and where it stands."""
        rest = job.setup.rest
        named = [(name, name) for name in library().rests]
        if rest is not None and rest.name not in library().rests:
            named.insert(0, (f"{rest.name or 'rest'}  (this job's own)", rest.name))
        self.choice("rest", "Rest", (("None", None), *named), rest.name if rest else None, _with_rest)
        for field in REST_FIELDS[rest.kind] if rest is not None else ():
            self.typed(f"rest.{field.name}", field, getattr(rest, field.name),
                       lambda job, number, n=field.name: job.with_setup(rest=job.setup.rest.changed(**{n: number})))  # type: ignore[misc]  # fmt: skip

    def _hold_row(self, hold: Any, field: Field) -> None:
        name = field.name
        self.typed(
            f"hold.{name}",
            field,
            getattr(hold, name),
            lambda job, number, n=name: _with_hold(job, **{n: number}),  # type: ignore[misc]
        )

    def _range_rows(self, key: str, span: Span | None, change: Callable[[Job, Span], Job]) -> None:
        """The diameters jaws can take, as two numbers."""
        now = span or (0.0, WIDEST_MM)
        for index, field in enumerate(RANGE_FIELDS):

            def put(job: Job, number: float | None, at: int = index) -> Job:
                ends = list(now)
                ends[at] = number if number is not None else (0.0, WIDEST_MM)[at]
                return change(job, (ends[0], ends[1]))

            self.typed(f"{key}.{field.name}", field, None if span is None else span[index], put)

    def _relief_row(self, relief: Any, field: Field) -> None:
        name = field.name
        self.typed(
            f"relief.{name}",
            field,
            getattr(relief, name),
            lambda job, number, n=name: _with_hold(job, relief=job.setup.hold.relief.changed(**{n: number})),  # type: ignore[misc]
        )

    def _centre_row(self, centre: Any, field: Field) -> None:
        name = field.name
        self.typed(
            f"centre.{name}",
            field,
            getattr(centre, name),
            lambda job, number, n=name: job.with_setup(centre=job.setup.centre.changed(**{n: number})),  # type: ignore[misc]
        )

    def _second_row(self, second: Any, field: Field) -> None:
        name = field.name
        self.typed(
            f"second.{name}",
            field,
            getattr(second, name),
            lambda job, number, n=name: job.changed(second_hold=job.second_hold.changed(**{n: number})),  # type: ignore[misc]
        )


def _with_machine(job: Job, name: str) -> Job:
    return job.changed(machine=library().machines.get(name, job.machine))


def _machine_facts(job: Job, system: System) -> str:
    machine = job.machine
    power = show(max(point.power_kw for point in machine.power), "kW", system)
    stations = ", ".join(f"{one.stations} stations on the {one.name}" for one in machine.carriers)
    words = [f"{power} of motor, up to {machine.max_rpm:.0f} rpm, {stations}."]
    if machine.speeds_rpm:
        words.append(f"{len(machine.speeds_rpm)} spindle speeds from {machine.speeds_rpm[0]:.0f} rpm.")
    if machine.feeds_mm_rev:
        least = show(machine.feeds_mm_rev[0], "mm/rev", system)
        words.append(f"{len(machine.feeds_mm_rev)} feeds from {least}.")
    if not machine.surface_speed:
        words.append("No constant surface speed.")
    return " ".join(words)


def _with_hold(job: Job, **changes: Any) -> Job:
    return job.with_setup(hold=job.setup.hold.changed(**changes))


def _with_named(job: Job, name: str) -> Job:
    """Another hold, with the stick-out and grip the person had."""
    found = next((one for one in library().holds.values() if one.name == name), None)
    if found is None:
        return job
    now = job.setup.hold
    return job.with_setup(hold=found.changed(stick_out_mm=now.stick_out_mm, grip_length_mm=now.grip_length_mm))


def _with_relief(job: Job, wanted: bool) -> Job:
    return _with_hold(job, relief=RELIEF if wanted else None)


def _with_centre(job: Job, name: str | None) -> Job:
    if name is None:
        return job.with_setup(centre=None)
    return job.with_setup(centre=library().centres.get(name, job.setup.centre))


def _with_rest(job: Job, name: str | None) -> Job:
    """Another rest; a steady stands in the middle of what sticks out until it is put elsewhere."""
    found = library().rests.get(name or "")
    if name is None or found is None:
        return job if name is not None else job.with_setup(rest=None)
    return job.with_setup(rest=in_the_middle(job, found))


def _with_second(job: Job, element: int) -> Job:
    if element < 0:
        return job.changed(second_hold=None)
    if job.second_hold is None:
        return job.changed(second_hold={**SECOND, "element": element})
    return job.changed(second_hold=job.second_hold.changed(element=element))


def _with_second_range(job: Job, span: Any) -> Job:
    assert job.second_hold is not None
    return job.changed(second_hold=job.second_hold.changed(range_mm=span))
