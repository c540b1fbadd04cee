"""The route: every operation of the job planned on the stock the ones before it left."""

from dataclasses import dataclass, replace
from functools import cached_property

import shapely

from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.region import Region, box, union
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.memo import Check, Memo, never_cancel
from toreuma.core.model import Job, Operation, Tool
from toreuma.core.model.steps import Steps
from toreuma.core.plan.among.told import told_by_others
from toreuma.core.plan.bar.feed_bar import bar_before, loop_findings
from toreuma.core.plan.bar.supply import SupplyNumbers, cut_width_mm, supply_numbers
from toreuma.core.plan.ground.given import Given
from toreuma.core.plan.ground.opened import interruption_finding, interruption_of, interruption_reasons, opened_by
from toreuma.core.plan.ground.result import Cuts, OperationFault, OperationPlan
from toreuma.core.plan.ground.sizes import no_such_tool
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.hold.hardest import expected_cut, planned_cut
from toreuma.core.plan.hold.second_grip import SecondGrip, second_grip
from toreuma.core.plan.hold.standing import HoldNumbers, hold_numbers
from toreuma.core.plan.kinds import KINDS, Kind
from toreuma.core.plan.numbers.argue import beyond_limits
from toreuma.core.plan.turret.at_spindle import not_there
from toreuma.core.plan.turret.stations import neighbours
from toreuma.core.scene import Scene, placed
from toreuma.core.simulate.clock import Times, times_of
from toreuma.core.spoken import q, said

__all__ = ["Plan", "plan"]


FAR_MM = 1e5

BEYOND = (ArithmeticError, LookupError, ValueError, shapely.errors.ShapelyError)
"""What sizes nobody foresaw end in: the operation is not planned and says so, the others are."""


@dataclass(frozen=True, kw_only=True)
class Plan:
    """The planned job. ``operations`` holds the enabled ones in order; ``steps`` are those of its control."""

    job: Job
    scene: Scene
    hold: HoldNumbers
    supply: SupplyNumbers
    second: SecondGrip | None
    operations: tuple[OperationPlan, ...]
    findings: tuple[Finding, ...]
    steps: Steps

    @property
    def opened(self) -> tuple[int, ...]:
        """Milled features that are open at the end."""
        before = self.job.stock.opened if self.job.stock.kind == "free" else ()
        cut = (index for op in self.operations if op.motions for index in op.cuts.opens)
        return tuple(sorted({*before, *cut}))

    @property
    def times(self) -> Times:
        return sum((op.times for op in self.operations), Times())

    @property
    def all_findings(self) -> tuple[Finding, ...]:
        return (*self.findings, *(finding for op in self.operations for finding in op.findings))

    def of(self, operation_id: str) -> OperationPlan | None:
        return next((op for op in self.operations if op.operation.id == operation_id), None)

    @cached_property
    def declared(self) -> Region:
        """What the plan itself says will be left on the part: out of every finishing tool's reach, or unplanned."""
        scene = self.scene
        around = box(scene.profile.back_z, 0, scene.stock_front_z, scene.stock_r)
        clean = union(op.covered for op in self.operations)
        return around.difference(union([scene.part, clean]))


def plan(job: Job, memo: Memo | None = None, check: Check = never_cancel, steps: Steps | None = None) -> Plan:
    """Plan all operations of a job. ``steps`` are those in which its control is told speeds and feeds.

    Raises `PartError` when the profile is impossible and whatever ``check`` raises to cancel. An operation that
    cannot be planned gets an error finding and leaves the stock as it was.
    """
    memo = memo or Memo()
    scene = memo.of(placed, job.part, job.stock, job.setup.hold, job.setup.centre, job.machine, job.setup.rest)
    supply = memo.of(supply_numbers, job.part, job.stock, cut_width_mm(job), scene)
    second, given = second_grip(job, scene), Given.of(job, steps)
    planned = told_by_others(job, _operations(job, scene, given, memo, check))
    hold = hold_numbers(job, scene, planned_cut(planned) or expected_cut(job))
    held = (*_blank_findings(job, scene), *hold.findings, *supply.findings, *(second.findings if second else ()))
    findings = (*held, *loop_findings(job), *neighbours(job, scene, planned))
    return Plan(
        job=job,
        scene=scene,
        hold=hold,
        supply=supply,
        second=second,
        operations=planned,
        findings=findings,
        steps=given.steps,
    )


def _operations(job: Job, scene: Scene, given: Given, memo: Memo, check: Check) -> tuple[OperationPlan, ...]:
    planned: list[OperationPlan] = []
    stock = bar_before(job, scene)
    opened = job.stock.opened if job.stock.kind == "free" else ()
    for operation in job.operations:
        check()
        if not operation.enabled:
            continue
        result = _one(job, replace(given, opened=opened), operation, stock, memo)
        planned.append(result)
        stock = result.after
        if result.motions and result.cuts.opens:
            opened = tuple(sorted({*opened, *result.cuts.opens}))
    return tuple(planned)


def _one(job: Job, given: Given, operation: Operation, stock: Region, memo: Memo) -> OperationPlan:
    """One operation on the stock it meets."""
    tools: list[Tool] = []
    for identifier in operation.tools:
        found = job.tool(identifier)
        if found is None:
            return _failed(operation, stock, _missing(job, operation, identifier))
        if found.station > job.machine.stations:
            return _failed(operation, stock, _no_station(job, operation, found))
        tools.append(found)
    wrong = no_such_tool(operation, tools) or not_there(job, operation, tools)
    if wrong is not None:
        return _failed(operation, stock, wrong)
    if operation.kind == "part_off" and job.is_pair:
        return _failed(operation, stock, _stays_in_one(operation))
    kind = KINDS[operation.kind]
    centre = None if operation.centre_back else given.centre
    given = replace(given, centre=centre, tools=tuple(tools), neighbours=kind.neighbours(job, operation))
    zone = memo.of(kind.zone, memo, given, operation)
    near = stock if zone is None else shapely.clip_by_rect(stock, zone[0], -FAR_MM, zone[1], FAR_MM)
    if near.is_empty and not kind.brings_metal:
        return _failed(operation, stock, _gone(operation))
    return memo.of(_whole, memo, given, operation, stock, near, zone)


@dataclass(frozen=True)
class _Made:
    """The cuts of an operation, timed, with what they have to say."""

    cuts: Cuts
    times: Times
    findings: tuple[Finding, ...]


def _work(memo: Memo, given: Given, operation: Operation, stock: Region) -> Work:
    scene = memo.of(placed, given.part, given.stock, given.hold, given.centre, given.machine, given.rest)
    tool = given.tools[0]
    return Work(
        given=given, scene=scene, operation=operation, tool=tool, shape=memo.of(shape_of, tool), stock=stock, memo=memo
    )


def _made(memo: Memo, given: Given, operation: Operation, stock: Region) -> _Made:
    """What the kind of the operation makes of it."""
    kind, work = KINDS[operation.kind], _work(memo, given, operation, stock)
    try:
        cuts = _interrupted(kind, work, operation, kind.plan(work, operation))
    except OperationFault as fault:
        told = Finding(
            "error", fault.code, fault.what, fault.cure, operation=operation.id, at=fault.at, cures=fault.cures
        )
        return _Made(Cuts(motions=(), passes=(), reasons={}), Times(), (told,))
    except BEYOND as error:
        return _Made(Cuts(motions=(), passes=(), reasons={}), Times(), (_beyond(operation, error),))
    if not all(motion.is_finite for motion in cuts.motions):
        return _Made(Cuts(motions=(), passes=(), reasons={}), Times(), (_astray(operation),))
    findings = (*cuts.findings, *beyond_limits(operation, cuts.proposal))
    return _Made(cuts, times_of(cuts.motions, given.machine), findings)


def _whole(
    memo: Memo, given: Given, operation: Operation, stock: Region, near: Region, zone: tuple[float, float] | None
) -> OperationPlan:
    """The operation with the whole stock before and after it; ``near`` is what its cuts depend on."""
    made = memo.of(_made, memo, given, operation, near)
    cuts, after = made.cuts, stock
    if cuts.motions and cuts.becomes is None:
        after = _work(memo, given, operation, stock).after(cuts.motions, cuts.chord_mm)
    return OperationPlan(
        operation=operation,
        cuts=cuts,
        before=stock,
        after=cuts.becomes or after,
        times=made.times,
        findings=made.findings,
        zone=zone,
    )


def _interrupted(kind: Kind, work: Work, operation: Operation, cuts: Cuts) -> Cuts:
    """The cuts, planned again more gently where what is open already interrupts them."""
    opened, machine = work.given.opened, work.given.machine
    if not opened or cuts.opens or not cuts.motions:
        return cuts
    removed = work.stock.difference(work.after(cuts.motions, cuts.chord_mm))
    places = opened_by(work.given.part, work.scene.part, opened)
    found = interruption_of(cuts.motions, removed, places, machine)
    if found is None:
        return cuts
    gentler = kind.plan(replace(work, interruption=found), operation)
    found = interruption_of(gentler.motions, removed, places, machine) or found
    told = (*gentler.findings, interruption_finding(operation, found))
    reasons = {**gentler.reasons, **interruption_reasons(found)}
    return replace(gentler, reasons=reasons, findings=told, interruption=found)


def _gone(operation: Operation) -> Finding:
    what, cure = "no metal of the blank is left where it works", "choose a larger blank, or look at what is cut before"
    return Finding("error", "stock.gone", what, cure, operation=operation.id)


def _astray(operation: Operation) -> Finding:
    what, cure = "no way could be worked out for it", "look at the blank and at the numbers typed for it"
    return Finding("error", "moves.nowhere", what, cure, operation=operation.id)


def _beyond(operation: Operation, error: Exception) -> Finding:
    what = f"it could not be worked out ({type(error).__name__}: {error})"
    why = "nothing of it is written; look at the sizes of its tool and of the surface, and tell who keeps the software"
    return Finding("error", "plan.fault", what, why, operation=operation.id)


def _missing(job: Job, operation: Operation, identifier: str) -> Finding:
    known = ", ".join(tool.id for tool in job.tools) or "none"
    what = f"there is no tool '{identifier}' in the job"
    return Finding("error", "tool.missing", what, f"the job has: {known}", operation=operation.id)


def _no_station(job: Job, operation: Operation, tool: Tool) -> Finding:
    what = f"{tool.id} sits in station {tool.station}, the machine has {job.machine.stations}"
    return Finding("error", "tool.station", what, "the turret cannot turn to it", operation=operation.id)


def _stays_in_one(operation: Operation) -> Finding:
    return Finding(
        "note",
        "pair.stays",
        "two parts back to back: the first end is not parted off",
        "the program of the second end makes this cut",
        operation=operation.id,
    )


def _failed(operation: Operation, stock: Region, fault: Finding) -> OperationPlan:
    return OperationPlan(
        operation=operation,
        cuts=Cuts(motions=(), passes=(), reasons={}),
        before=stock,
        after=stock,
        times=Times(),
        findings=(fault,),
    )


def _through_spindle(job: Job) -> list[Finding]:
    """A bar goes through the bore of the spindle."""
    bore, stock = job.machine.spindle_bore_mm, job.stock
    if bore is None or stock.kind == "free" or stock.length_mm is not None or stock.largest_d_mm <= bore + 1e-6:
        return []
    hold = job.setup.hold
    length = round(hold.stick_out_mm + hold.grip_length_mm, 1)
    cure = Cure(f"Saw a piece {length:g} mm long", lambda j: j.changed(stock=j.stock.changed(length_mm=length)))
    what = said("the bar is Ø {}, the spindle's bore Ø {}", q(stock.largest_d_mm, "mm", "g"), q(bore, "mm", "g"))
    return [Finding("error", "stock.bore", what, "it does not go through", cures=(cure,))]


def _blank_findings(job: Job, scene: Scene) -> tuple[Finding, ...]:
    """Blank and hold against the part."""
    found = []
    largest = 2 * scene.profile.largest_r
    if largest > 2 * scene.stock_r + 1e-6:
        wanted = float(int(largest) + 2)
        z = next(p[0] for p in scene.profile.points if p[1] == scene.profile.largest_r)
        found.append(
            Finding(
                "error",
                "stock.small",
                said(
                    "the bar Ø {} is smaller than the part Ø {}", q(2 * scene.stock_r, "mm", "g"), q(largest, "mm", "g")
                ),
                "the part cannot come out of it",
                at=(float(z), largest / 2),
                cures=_wider_bar(job, wanted),
            )
        )
    found += _through_spindle(job)
    half_made = job.stock.kind == "free" and bool(job.stock.outline)
    one_hold = job.second_hold is None and len(job.setups) == 1 and not half_made
    if scene.profile.back_z < scene.clear_z - 1e-6 and one_hold:
        more = float(int(scene.clear_z - scene.profile.back_z) + 6)
        behind = scene.clear_z > scene.jaw_face_z + 1e-6 and not scene.steady.is_empty
        words = "the part reaches {} behind the front of the rest" if behind else "the part reaches {} into the jaws"
        out = Cure(said("Stick the bar out {} more", q(more, "mm", "g")), lambda j: _farther_out(j, more))
        found.append(
            Finding(
                "error",
                "hold.inside",
                said(words, q(scene.clear_z - scene.profile.back_z)),
                "its back end cannot be cut there",
                at=(scene.profile.back_z, scene.stock_r),
                cures=() if behind else (out,),
            )
        )
    return tuple(found)


def _wider_bar(job: Job, d_mm: float) -> tuple[Cure, ...]:
    if job.stock.kind not in ("round", "tube"):
        return ()
    return (Cure(said("Use bar Ø {}", q(d_mm, "mm", "g")), lambda j: j.changed(stock=j.stock.changed(d_mm=d_mm))),)


def _farther_out(job: Job, more_mm: float) -> Job:
    hold = job.setup.hold
    return job.with_setup(hold=hold.changed(stick_out_mm=hold.stick_out_mm + more_mm))
