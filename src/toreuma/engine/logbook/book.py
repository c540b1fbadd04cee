"""The logbook in use: a job is brought to the machine, sizes come in, and the next run begins from what was seen."""

import json
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime

from toreuma.core.cutting.figures import Figure
from toreuma.core.errors import ToreumaError
from toreuma.core.measure import Characteristic
from toreuma.core.model import Job
from toreuma.core.model.identity import fingerprint, job_id
from toreuma.core.plan import Plan
from toreuma.core.read.compare import differences
from toreuma.core.spoken import q, said
from toreuma.core.verdict import Verdict
from toreuma.engine.engine import Engine
from toreuma.engine.foreign import read_foreign
from toreuma.engine.hand_changes import written
from toreuma.engine.inspection import inspection_list
from toreuma.engine.logbook.constants import constants_of, counted
from toreuma.engine.logbook.cutters import Cutters
from toreuma.engine.logbook.edges import EdgeNow, cutting_of_tool, edges_now, with_use
from toreuma.engine.logbook.first_article import FirstArticle, first_article, size_of
from toreuma.engine.logbook.renewed import learned_since
from toreuma.engine.logbook.through_run import SizeRun, run_of_size
from toreuma.engine.pair import texts_of
from toreuma.log import EdgeUsed, Measurement, Note, Observation, PartMade, RunKept, Store

__all__ = ["Book", "Taught", "begin_run", "taught"]

WARM_UP_S = 1800.0
"""Half an hour, against which a machine's time constant is told."""
LATEST = 2000
"""Of a size that was measured oftener the latest are looked at; the chart shows all."""
USUAL_S = 60.0
"""A part nobody timed takes this long."""


@dataclass(frozen=True, kw_only=True)
class Taught:
    """What the last run of a job taught: sentences, and lines by which an edited program differs from ours."""

    run: RunKept | None
    says: tuple[str, ...]
    edited: tuple[str, ...]


def begin_run(store: Store, engine: Engine, job: Job, at: float, simulated: bool = False) -> int:
    """A job goes to the machine: it is kept as it stands, with its programs and the constants it was planned with, and
    every edge that cuts is new. Raises `ToreumaError` for one that cannot be planned."""
    sides = engine.sides(job)
    programs = json.dumps(_programs(engine, job, sides))
    revision = store.keep_job(
        job_id(job), job.name, fingerprint(job), job.revision, job.model_dump_json(), at, programs
    )
    constants = {
        f"{one.kind} {one.cutting}".strip(): [one.learned.value, one.learned.spread, one.learned.count]
        for one in constants_of(store, job.stock.material, job.machine.name)
    }
    planned_s = engine.part_time(sides).number
    run = store.begin_run(
        revision, job.machine.name, job.stock.material.name, job.stock.supply.batch, at, planned_s, simulated,
        json.dumps(constants),
    )  # fmt: skip
    store.add(run, *new_edges(sides, at))
    return run


def new_edges(sides: Sequence[Plan], at: float) -> list[EdgeUsed]:
    """The first corner of every tool that cuts."""
    found: dict[str, EdgeUsed] = {}
    for plan in sides:
        for planned in plan.operations:
            tool = plan.job.tool(planned.operation.tool)
            if tool is None or not planned.motions or planned.times.cutting_s <= 0:
                continue
            part = getattr(tool, "insert", None) or getattr(tool, "blade", None) or tool
            found.setdefault(
                tool.id,
                EdgeUsed(
                    tool=tool.id, code=getattr(part, "code", "") or tool.name, corner=1, from_part=1, at=at,
                    cutting=getattr(part, "material", ""),
                ),
            )  # fmt: skip
    return [found[key] for key in sorted(found)]


def _programs(engine: Engine, job: Job, sides: tuple[Plan, ...]) -> list[tuple[str, str]]:
    language, taken = engine.language(job), engine.transfer(sides)
    try:
        if taken is not None:
            return [(f"channel {n}", text) for n, text in texts_of(sides[0].job, sides, taken, language).items()]
        return [(one.name, one.text) for one in (written(side, language) for side in sides)]
    except ToreumaError:
        return []


class Book:
    """One run with the job it was made from: planned and judged once, then asked as often as sizes come in."""

    def __init__(self, store: Store, run: int, engine: Engine | None = None, verdict: Verdict | None = None) -> None:
        self.store, self.run = store, store.run(run)
        self.job = Job.model_validate_json(store.content_of(run))
        engine = engine or Engine()
        self.sides = engine.sides(self.job)
        self.verdict = verdict or engine.verdict(self.job)
        self.lines: tuple[Characteristic, ...] = inspection_list(self.job.part)
        self._cutters = Cutters(self.sides, self.verdict)

    @property
    def s_per_part(self) -> float:
        """What a part takes: as they were made, else as planned."""
        parts = self.store.parts(self.run.id)
        known = [one.seconds for one in parts if one.seconds]
        if known:
            return sum(known) / len(known)
        return self.run.planned_s or USUAL_S

    def tool_of(self, line: Characteristic) -> str:
        """Who cuts a line; empty for nobody an offset moves."""
        cutter = self._cutters.of(line) if line.row != "outside back" else self._cutters.of_back()
        return cutter.tool if cutter is not None else ""

    def names(self) -> dict[str, str]:
        """Tools in words."""
        return self._cutters.names()

    def made(self) -> int:
        """How many parts are made, by parts and by sizes."""
        return self.store.last_part(self.run.id)

    def article(self, part: int = 1) -> FirstArticle:
        """The split of a part's sizes."""
        measured = self.store.measurements(self.run.id, part=part)
        return first_article(self.lines, measured, self.sides, self.verdict, part)

    def size(self, key: str, as_usual: bool = True) -> SizeRun:
        """A size through the run; without ``as_usual`` from this run alone, with nothing known of how its machine warms
        up. Raises `ToreumaError` for a line that is not there."""
        line = next((one for one in self.lines if one.key == key), None)
        if line is None:
            raise ToreumaError("log", f"the inspection list has no line '{key}'", "choose one of its lines")
        store, run, warm = self.store, self.run, self.job.machine.warm_up_min
        return run_of_size(
            line, store.measurements(run.id, key, last=LATEST), store.offsets(run.id), store.edges(run.id),
            self.tool_of(line), run.begun, self.s_per_part, 60 * warm if warm is not None and as_usual else None,
        )  # fmt: skip

    def measured_keys(self) -> list[str]:
        """Lines that were measured, in the order of the list."""
        return list(self.measured())

    def measured(self) -> dict[str, int]:
        """How often each line was measured, in the order of the list."""
        seen: dict[str, int] = {}
        for size, count in self.store.sizes(self.run.id).items():
            line = size_of(size)[0]
            seen[line] = seen.get(line, 0) + count
        return {one.key: seen[one.key] for one in self.lines if one.key in seen}

    def edges(self) -> tuple[EdgeNow, ...]:
        """Edges that are in, with when to change them."""
        return edges_now(self.sides, self.store.edges(self.run.id), self.made(), self.job.conditions)

    def change_edge(
        self, tool: str, after_part: int, at: float, seen: str = "flank", wear_mm: float | None = None,
        worn: bool = True, note: str = "",
    ) -> None:  # fmt: skip
        """The edge of a tool is turned or changed behind a part; what it cut is written down. Raises `ToreumaError`."""
        now = next((one for one in self.store.edges(self.run.id) if one.tool == tool and one.to_part is None), None)
        if now is None:
            raise ToreumaError("log", f"{tool} has no edge in", "choose a tool that cuts in this run")
        done = with_use(now, self.sides, after_part)
        self.store.end_edge(EdgeUsed(**{**done.__dict__, "seen": seen, "wear_mm": wear_mm, "worn": worn, "note": note}))
        fresh = EdgeUsed(
            tool=tool, code=now.code, corner=now.corner + 1, from_part=after_part + 1, at=at, cutting=now.cutting
        )
        self.store.add(self.run.id, fresh)

    def life_planned(self, tool: str) -> float | None:
        """Minutes of cut an edge of a tool was planned to last."""
        return cutting_of_tool(self.sides, tool)[3]

    def enter(
        self,
        part: int,
        key: str,
        value: float,
        at: float,
        gauge: str = "",
        uncertainty: float | None = None,
        instead: bool = False,
    ) -> int:
        """A size of a part; the part is kept with it where it was not. ``instead`` of what was found there before,
        which is struck; else both count as their mean. Raises `ToreumaError`."""
        line = next((one for one in self.lines if one.key == size_of(key)[0]), None)
        if line is None:
            raise ToreumaError("log", f"the inspection list has no line '{key}'", "choose one of its lines")
        if line.quantity in ("diameter", "length") and not value > 0:
            raise ToreumaError("log", f"{value:g} is no size of '{line.what}'", "type what the gauge shows, above 0")
        if part < 1:
            raise ToreumaError("log", f"there is no part {part}", "parts count from 1")
        usual = line.uncertainty_um / 1000 if line.uncertainty_um is not None else 0.0
        entries: list[PartMade | Measurement | Observation] = []
        if part not in {one.number for one in self.store.parts(self.run.id)}:
            entries.append(PartMade(number=part, at=at))
        entries.append(
            Measurement(
                part=part, size=key, value=value, at=at, gauge=gauge or line.means,
                uncertainty=usual if uncertainty is None else uncertainty,
            )
        )  # fmt: skip
        seen = self._finish_seen(line, value, at)
        if seen is not None:
            entries.insert(0, seen)
        before = self._before(part, key) if instead else ()
        return self.store.add(self.run.id, *entries, instead_of=before)[-1]

    def take_back(self, part: int, key: str) -> None:
        """What was found there does not count any more."""
        for one in self._before(part, key):
            self.store.strike(one)

    def _before(self, part: int, key: str) -> list[int]:
        return [one.id for one in self.store.measurements(self.run.id, part=part) if one.size == key]

    def _finish_seen(self, line: Characteristic, value: float, at: float) -> Observation | None:
        """A measured finish against theory, for the shop's own constants."""
        cutter = self._cutters.of(line) if line.quantity == "finish" else None
        theory = cutter.planned.reasons.get(Figure.ROUGHNESS) if cutter is not None else None
        if theory is None or theory.number <= 0 or value <= 0:
            return None
        computed = theory.number / counted("ra", self.job.stock.material)
        return Observation(kind="ra", of=self.run.material, computed=computed, found=value, at=at)

    def observe_power(self, operation: str, motor_kw: float, at: float) -> None:
        """What the spindle took in an operation, kW at the motor, against what its cut was computed to take. Raises
        `ToreumaError`."""
        for side in self.sides:
            for planned in side.operations:
                if operation in (planned.operation.id, planned.operation.name) and planned.figures.power_kw:
                    found = motor_kw * side.job.machine.efficiency
                    computed = planned.figures.power_kw / counted("force", self.job.stock.material)
                    seen = Observation(kind="force", of=self.run.material, computed=computed, found=found, at=at)
                    self.store.add(self.run.id, seen)
                    return
        raise ToreumaError("log", f"no operation '{operation}' has a power that was computed", "name one that turns")

    def end(self, at: float) -> None:
        """The run is over: what it says of the machine's time and warming up, and of the bend, is kept with it."""
        run, seen = self.run, list[Observation]()
        known = [one.seconds for one in self.store.parts(run.id) if one.seconds]
        if known and run.planned_s > 0:
            mean = sum(known) / len(known)
            computed = run.planned_s / self.job.machine.time_ratio
            seen.append(Observation(kind="time", of=run.machine, computed=computed, found=mean, at=at))
        bend = self.article(1).split.of("bend")
        if bend is not None and bend.matters:
            computed = 1.0 / counted("bend", self.job.stock.material)
            seen.append(Observation(kind="bend", of=run.material, computed=computed, found=bend.value, at=at))
        for key in self.measured_keys():
            fit = self.size(key, as_usual=False).fit
            if fit is not None and abs(fit.warm.mm) > fit.warm.uncertainty:
                seen.append(Observation(kind="warm-up", of=run.machine, computed=WARM_UP_S, found=fit.tau_s, at=at))
        self.store.add(run.id, *seen)
        self.store.end_run(run.id, at)


def taught(store: Store, job: Job) -> Taught:
    """What the log knows of a job from its last run. A job nobody ran says only what the shop has learned since."""
    runs = store.runs(job_id(job))
    notes = store.notes(job_id(job))
    if not runs:
        return Taught(run=None, says=_learned_told(job), edited=())
    run = runs[0]
    says = [_ran(store, run)]
    totals: dict[tuple[str, str], float] = {}
    for one in store.offsets(run.id):
        totals[(one.tool, one.axis)] = totals.get((one.tool, one.axis), 0.0) + one.mm
    for (tool, axis), mm in sorted(totals.items()):
        says.append(said("{}: offset {} was brought to {}", tool, axis, q(mm, "mm", "+.3f")))
    says += _edges_told(store.edges(run.id))
    for stop in store.stops(run.id):
        says.append(
            f"{stop.operation or 'the machine'} at part {stop.part}: {stop.kind}{f', {stop.note}' if stop.note else ''}"
        )
    says += [f"noted: {one.words}" for one in notes if one.kind == "note"]
    says += [f"tried: {one.words}" for one in notes if one.kind == "trial"]
    if run.fingerprint != fingerprint(job):
        says.append("the job has changed since then")
    says += _learned_told(job)
    return Taught(run=run, says=tuple(says), edited=tuple(_edited(store, run, notes)))


def _learned_told(job: Job) -> tuple[str, ...]:
    return tuple(said("the shop has learned: {}", one) for one in learned_since(job))


def _edges_told(edges: Sequence[EdgeUsed]) -> list[str]:
    """Edges of each tool that came out: how many parts they made, and what was seen."""
    found: dict[tuple[str, str], list[EdgeUsed]] = {}
    for one in edges:
        if one.to_part is not None and one.seen not in ("none", ""):
            found.setdefault((one.tool, one.seen), []).append(one)
    says = []
    for (tool, seen), ones in sorted(found.items()):
        parts = [(one.to_part or 0) - one.from_part + 1 for one in ones]
        made = f"{min(parts)}" if min(parts) == max(parts) else f"{min(parts)} to {max(parts)}"
        minutes = sum(one.minutes for one in ones) / len(ones)
        count = "an edge" if len(ones) == 1 else f"{len(ones)} edges"
        says.append(f"{tool}: {count} made {made} parts, {minutes:.1f} min of cut, then {seen}")
    return says


def _ran(store: Store, run: RunKept) -> str:
    day = datetime.fromtimestamp(run.begun, UTC).strftime("%Y-%m-%d")
    parts = len(store.parts(run.id))
    known = [one.seconds for one in store.parts(run.id) if one.seconds]
    words = (
        f"last run {day} on the {run.machine}{' (simulated)' if run.simulated else ''}: {parts} of {run.batch} parts"
    )
    if known and run.planned_s:
        words += f", {sum(known) / len(known):.0f} s a part against {run.planned_s:.0f} s planned"
    return words


def _edited(store: Store, run: RunKept, notes: Sequence[Note]) -> list[str]:
    """The program as it stood at the machine against what was sent, by move."""
    last = next((one for one in notes if one.kind == "program" and one.run == run.id), None)
    sent = store.programs_of(run.id)
    if last is None or not sent:
        return []
    ours, theirs = read_foreign(sent[0][1]).program, read_foreign(last.words).program
    return [one.what for one in differences(ours, theirs)]
