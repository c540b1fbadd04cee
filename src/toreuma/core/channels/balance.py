"""The shortest steady cycle: side two of one part at the second spindle while side one of the next is cut at the first.

Between two hand-overs each spindle works through its side in order; a channel does one thing at a time. Which carrier
takes a tool is the solver's to choose, where the carrier reaches the spindle and can drive the tool.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from toreuma.core.channels.crossing import crossings
from toreuma.core.channels.keep_apart import held_back
from toreuma.core.channels.schedule import unloading, works
from toreuma.core.channels.transfer import Transfer
from toreuma.core.cutting.evidence import Evidence
from toreuma.core.memo import Check, never_cancel
from toreuma.core.model import Carrier, Job, Tool
from toreuma.core.model.carrier import SpindleName
from toreuma.core.model.tool import Mill
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.plan.route import Plan
from toreuma.core.plan.turn.pinch import pinched_s
from toreuma.core.plan.turret.at_spindle import points_at
from toreuma.core.plan.turret.stations import placed

__all__ = [
    "Balanced", "TimeSlot", "as_found", "balance", "cycle_numbers", "moved_words", "one_after_another_s", "ran_numbers",
]  # fmt: skip

TICKS_PER_S = 100
SPINDLES: tuple[SpindleName, SpindleName] = ("main", "sub")


@dataclass(frozen=True, kw_only=True)
class TimeSlot:
    """An operation of a side (0 or 1) in the cycle, s after the hand-over, on a carrier (counted from 0)."""

    side: int
    operation: str
    name: str
    carrier: int
    start_s: float
    end_s: float


@dataclass(frozen=True, kw_only=True)
class Balanced:
    """A steady cycle. ``bound_s`` is what no schedule can go below, ``in_turn_s`` the same work one after another.

    ``moved`` are tools the schedule wants on another carrier, with that carrier's number.
    """

    slots: tuple[TimeSlot, ...]
    hand_over_s: float
    cycle_s: float
    bound_s: float
    in_turn_s: float
    moved: tuple[tuple[str, int], ...]

    @property
    def gap(self) -> float:
        """How much of the cycle may still be in vain, as a share of it."""
        return (self.cycle_s - self.bound_s) / self.cycle_s if self.cycle_s > 0 else 0.0

    @property
    def ratio(self) -> float:
        """The cycle against the same work one after another."""
        return self.cycle_s / self.in_turn_s if self.in_turn_s > 0 else 1.0


def one_after_another_s(job: Job, sides: Sequence[Plan], taken: Transfer) -> float:
    """The same work with one spindle at a time, s."""
    cut = sum(one.times.total_s for row in works(sides, taken) for one in row)
    return cut + taken.seconds + sum(one.seconds for one in unloading(job))


def cycle_numbers(found: Balanced) -> tuple[Evidence, ...]:
    """The cycle, what it cannot go below, and what it saves."""
    return (
        Evidence("steady cycle", "", found.cycle_s, "s", formula="hand-over, then both sides at the same time"),
        Evidence("no schedule is below", "", found.bound_s, "s", formula="bound of the search over all schedules"),
        Evidence("may still be in vain", "", found.gap, "share", formula="(cycle − bound) / cycle"),
        Evidence("one after another", "", found.in_turn_s, "s", formula="both sides and the hand-over in turn"),
        Evidence("cycle against that", "", found.ratio, "share", formula="steady cycle / one after another"),
    )


def moved_words(found: Balanced, job: Job | None) -> str:
    """Which tools it wants elsewhere."""
    if not found.slots:
        return "No carrier reaches the second side with the tools it needs."
    if not found.moved or job is None:
        return "Every tool stays where it sits."
    words = (f"{tool} on the {job.machine.carriers[number].name}" for tool, number in found.moved)
    return f"It wants {', '.join(words)}."


def as_found(job: Job, found: Balanced) -> Job:
    """The tools on the carriers a schedule wants them on, as far as there are free stations."""
    for tool, number in found.moved:
        taken = {one.station for one in job.tools}
        stations = job.machine.stations_of(job.machine.carriers[number])
        free = next((station for station in stations if station not in taken), None)
        job = placed(job, tool, free) if free is not None else job
    return job


def ran_numbers(cycle_s: float, found: Balanced | None) -> tuple[Evidence, ...]:
    """The cycle as the programs ran it, and against the same work one after another where that is known."""
    ran = Evidence("cycle as read back", "", cycle_s, "s", formula="from one hand-over to the next")
    if found is None or found.in_turn_s <= 0:
        return (ran,)
    share = Evidence(
        "that against one after another",
        "",
        cycle_s / found.in_turn_s,
        "share",
        formula="read back / one after another",
    )
    return (ran, share)


def balance(
    job: Job,
    sides: Sequence[Plan],
    taken: Transfer,
    seconds: float = 10.0,
    check: Check = never_cancel,
    better: Callable[[float, float], None] = lambda cycle_s, bound_s: None,
) -> Balanced:
    """Look for the shortest cycle, at most so many ``seconds``.

    ``better`` is told of every better cycle with the bound so far; whatever ``check`` raises stops the search.
    """
    from ortools.sat.python import cp_model  # loaded when it is first asked for: it takes a second

    cycle = _Cycle(cp_model.CpModel(), job, sides, taken)
    solver: Any = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = seconds
    solver.parameters.num_workers = 1

    def tell(cost: float, bound: float) -> None:
        better(_seconds(cost / cycle.weight, taken), _seconds(bound / cycle.weight, taken))

    watch = _watch(cp_model, check, tell)
    status = solver.Solve(cycle.model, watch)
    watch.stopped()
    in_turn = one_after_another_s(job, sides, taken)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return Balanced(
            slots=(), hand_over_s=taken.seconds, cycle_s=in_turn, bound_s=taken.seconds, in_turn_s=in_turn, moved=()
        )
    long = _seconds(solver.Value(cycle.end), taken)
    bound = min(max(_seconds(solver.BestObjectiveBound() / cycle.weight, taken), 0.0), long)
    return Balanced(
        slots=cycle.slots(solver),
        hand_over_s=taken.seconds,
        cycle_s=long,
        bound_s=bound,
        in_turn_s=in_turn,
        moved=cycle.moved(solver),
    )


class _Cycle:
    """The cycle as the solver sees it: a start for every operation, a carrier for every tool."""

    def __init__(self, model: Any, job: Job, sides: Sequence[Plan], taken: Transfer) -> None:
        self.model, self._job = model, job
        self.work = works(sides, taken)
        self._carriers = job.machine.carriers
        self._horizon = sum(_ticks(job, one) for row in self.work for one in row) + 100 * TICKS_PER_S
        self.end = model.NewIntVar(0, self._horizon, "end")
        self._choice: dict[tuple[str, int], Any] = {}
        self._starts: dict[tuple[int, int], Any] = {}
        self._busy: dict[int, list[Any]] = {channel: [] for channel in {one.channel for one in self._carriers}}
        self._seat_tools()
        for side, row in enumerate(self.work):
            self._spindle(side, row)
        self._unload()
        for intervals in self._busy.values():
            model.AddNoOverlap(intervals)
        # A tool stays where it is unless that costs time.
        stays = [self._choice[tool.id, _now(job, tool)] for tool in job.tools]
        self.weight = len(job.tools) + 1
        model.Minimize(self.weight * self.end - sum(stays))

    def _seat_tools(self) -> None:
        """Every tool sits on one carrier, none has more than its stations."""
        for tool in self._job.tools:
            for number, carrier in enumerate(self._carriers):
                self._choice[tool.id, number] = self.model.NewBoolVar(f"{tool.id} on {carrier.name}")
            self.model.AddExactlyOne([self._choice[tool.id, number] for number in range(len(self._carriers))])
        for number, carrier in enumerate(self._carriers):
            self.model.Add(sum(self._choice[tool.id, number] for tool in self._job.tools) <= carrier.stations)

    def _spindle(self, side: int, row: Sequence[OperationPlan]) -> None:
        """A spindle cuts one thing after the other, in the order of its route."""
        before = None
        for index, one in enumerate(row):
            ticks = _ticks(self._job, one)
            start = self._starts[side, index] = self.model.NewIntVar(0, self._horizon, f"{side} {index}")
            self.model.Add(start + ticks <= self.end)
            if before is not None:
                self.model.Add(start >= before)
            before = start + ticks
            for held in held_back(self._job, one.operation.tools):
                interval = self.model.NewFixedSizeIntervalVar(start, ticks, f"{side} {index} {held}")
                self._busy.setdefault(held, []).append(interval)
            for tool in self._job.tools:
                if tool.id in one.operation.tools:
                    self._occupy(side, tool, one, start, f"{side} {index} {tool.id}")

    def _occupy(self, side: int, tool: Tool, one: OperationPlan, start: Any, name: str) -> None:
        """The carrier the tool sits on is busy meanwhile; one that cannot do it does not get the tool."""
        for number, carrier in enumerate(self._carriers):
            here = self._choice[tool.id, number]
            if not _can(carrier, tool, one, side):
                self.model.Add(here == 0)
            interval = self.model.NewOptionalFixedSizeIntervalVar(
                start, _ticks(self._job, one), here, f"{name} {number}"
            )
            self._busy[carrier.channel].append(interval)
            for passing in crossings(self._job, number, SPINDLES[side]):
                self._busy.setdefault(passing, []).append(interval)

    def _unload(self) -> None:
        """The finished part leaves the second hold behind the last cut of its side."""
        row = self.work[1]
        ticks = round(sum(one.seconds for one in unloading(self._job)) * TICKS_PER_S)
        start = self.model.NewIntVar(0, self._horizon, "unload")
        if row:
            self.model.Add(start >= self._starts[1, len(row) - 1] + _ticks(self._job, row[-1]))
        self.model.Add(start + ticks <= self.end)
        self._busy[max(self._busy)].append(self.model.NewFixedSizeIntervalVar(start, ticks, "out"))

    def slots(self, solver: Any) -> tuple[TimeSlot, ...]:
        """The operations in the cycle that was found."""
        found = []
        for (side, index), start in self._starts.items():
            one = self.work[side][index]
            at = solver.Value(start) / TICKS_PER_S
            name = one.operation.name or one.operation.id
            seat = self._seat(one.operation.tool, solver)
            found.append(
                TimeSlot(
                    side=side,
                    operation=one.operation.id,
                    name=name,
                    carrier=seat,
                    start_s=at,
                    end_s=at + _ticks(self._job, one) / TICKS_PER_S,
                )
            )
        return tuple(found)

    def moved(self, solver: Any) -> tuple[tuple[str, int], ...]:
        """Tools that sit elsewhere in it, and on which carrier."""
        seats = ((tool, self._seat(tool.id, solver)) for tool in self._job.tools)
        return tuple((tool.id, seat) for tool, seat in seats if seat != _now(self._job, tool))

    def _seat(self, tool: str, solver: Any) -> int:
        return next(n for n in range(len(self._carriers)) if solver.Value(self._choice[tool, n]))


def _seconds(ticks: float, taken: Transfer) -> float:
    """Length of the whole cycle, the hand-over with it."""
    return ticks / TICKS_PER_S + taken.seconds


def _ticks(job: Job, one: OperationPlan) -> int:
    return max(round(pinched_s(job, one) * TICKS_PER_S), 1)


def _now(job: Job, tool: Tool) -> int:
    return job.machine.carriers.index(job.machine.carrier_of(tool.station))


def _can(carrier: Carrier, tool: Tool, one: OperationPlan, side: int) -> bool:
    """The carrier reaches the spindle, the tool faces it there, is driven if need be, and has the Y it asks for."""
    if SPINDLES[side] not in carrier.reaches or not points_at(carrier, tool, SPINDLES[side]):
        return False
    if tool.mount != "still" and carrier.live is None:
        return False
    across = isinstance(tool, Mill) and max((abs(m.driven.y[1]) for m in one.motions if m.driven), default=0.0)
    polar = any(m.driven is not None and m.driven.polar for m in one.motions)
    return not across or polar or across <= carrier.y_mm


def _watch(cp_model: Any, check: Check, better: Callable[[float, float], None]) -> Any:
    """Tells of every better schedule and ends the search when ``check`` raises, which is raised again afterwards."""

    class Watch(cp_model.CpSolverSolutionCallback):  # type: ignore[misc]
        def __init__(self) -> None:
            super().__init__()
            self._why: BaseException | None = None

        def on_solution_callback(self) -> None:
            try:
                check()
                better(self.ObjectiveValue(), self.BestObjectiveBound())
            except BaseException as why:
                self._why = why
                self.StopSearch()

        def stopped(self) -> None:
            if self._why is not None:
                raise self._why

    return Watch()
