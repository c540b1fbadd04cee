"""A day at a simulated machine: gauge, presetter, agent and bar feeder run together against a batch, and the log keeps
size with them. Everything the devices say is made up; what the log makes of it is not."""

import random
import time
from bisect import bisect_right
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from typing import Any

from toreuma.core.errors import ToreumaError
from toreuma.core.measure import Characteristic
from toreuma.core.memo import Check, never_cancel
from toreuma.core.model import Job
from toreuma.core.simulate.timeline import Timeline
from toreuma.devices import BarFeeder, BarState, Gauge, MachineAgent, MachineState, Presetter, PresetTool, Reading
from toreuma.devices.simulated.started import Simulated
from toreuma.devices.simulated.world import SizeWorld
from toreuma.engine.engine import Engine
from toreuma.engine.logbook.book import Book, begin_run
from toreuma.log import Note, OffsetSet, PartMade, Stop, Store

__all__ = ["DayReport", "machine_settings", "run_day"]

FOLLOWED = 2
"""So many sizes are looked at through the day: of each tool that with the closest limits."""
EVERY = 5
LEAST_STEP_MM = 0.001
APART, WORTH = 5, 0.12
"""Offsets are at least so many parts apart and so large a share of the limits, but before one is crossed."""
READ_S, DAY_S = 4.0, 120.0
SLOWER = 1.03
"""The machine takes so much longer than planned."""
STEP_S = 0.5
"""Line and load are told this closely in the machine's time."""


@dataclass(kw_only=True)
class DayReport:
    """``within`` parts were inside their limits in every size that was followed; ``without`` would have been had nobody
    set an offset or changed an edge. ``told`` is what the log said of each size at the end."""

    run: int
    batch: int
    parts: int = 0
    within: int = 0
    without: int = 0
    measured: int = 0
    offsets: int = 0
    edges: int = 0
    bars: int = 0
    alarms: int = 0
    warnings: int = 0
    preset: int = 0
    told: dict[str, list[str]] = field(default_factory=dict)

    def words(self) -> list[str]:
        """The day in a few lines."""
        return [
            f"run {self.run}: {self.parts} of {self.batch} parts, {self.measured} sizes measured",
            f"{self.within} parts inside their limits; {self.without} would have been without offsets and new edges",
            f"{self.offsets} offsets set, {self.edges} edges changed, {self.warnings} warnings before a limit",
            f"{self.preset} tools preset, {self.bars} bars used up, {self.alarms} alarms",
            *(f"{what}: {'; '.join(words)}" for what, words in self.told.items()),
        ]


def machine_settings(timeline: Timeline, program: str, batch: int, job: Job, speed: float = 1.0) -> dict[str, Any]:
    """What a simulated machine needs to follow a proved program: when which line runs, and the load there."""
    starts = [span.start_s for span in timeline.spans]
    steps, at, last = [], 0.0, -1
    while at < timeline.total_s and timeline.spans:
        span = timeline.spans[max(bisect_right(starts, at) - 1, 0)]
        if span.motion.line != last:
            cuts = span.motion.feed is not None
            steps.append((round(at * SLOWER, 2), span.motion.line, 45.0 if cuts else 4.0))
            last = span.motion.line
        at += STEP_S
    return {
        "program": program, "cycle_s": max(timeline.total_s, 1.0) * SLOWER, "steps": steps, "speed": speed,
        "batch": batch,
    }  # fmt: skip


def followed_lines(book: Book) -> list[Characteristic]:
    """Sizes worth following: of each tool the diameter with the closest limits, the closest first."""
    turned = [one for one in book.lines if one.key.endswith(" d") and one.tolerance and book.tool_of(one)]
    closest: dict[str, Characteristic] = {}
    for one in sorted(turned, key=lambda one: one.tolerance or 0.0):
        closest.setdefault(book.tool_of(one), one)
    return list(closest.values())[:FOLLOWED]


class _Day:
    """The worlds of the sizes, and what is done about them."""

    def __init__(self, store: Store, book: Book, lines: list[Characteristic], seed: int) -> None:
        source = random.Random(seed)
        self.store, self.book, self.lines = store, book, lines
        self.now: dict[str, SizeWorld] = {}
        self.left_alone: dict[str, SizeWorld] = {}
        for line in lines:
            band = line.tolerance or 0.02
            world = SizeWorld(
                start=0.25 * band, warm=-0.3 * band, tau_s=1500.0, wear=band / 60, noise=band / 22,
                source=random.Random(source.random()),
            )  # fmt: skip
            self.now[line.key] = world
            self.left_alone[line.key] = replace(world, source=random.Random(source.random()))
        self.report = DayReport(run=book.run.id, batch=book.run.batch)
        self.last_set: dict[str, int] = {}

    def made(self, part: int, t_s: float) -> dict[str, float]:
        """A part comes off; gives its sizes."""
        sizes, fine, alone = {}, True, True
        for line in self.lines:
            assert line.aim is not None
            sizes[line.key] = line.aim + self.now[line.key].made(part, t_s)
            fine = fine and line.within(sizes[line.key])
            alone = alone and line.within(line.aim + self.left_alone[line.key].made(part, t_s))
        self.report.parts, self.report.within = part, self.report.within + fine
        self.report.without += alone
        return sizes

    def correct(self, line: Characteristic, part: int, at: float) -> None:
        """What the log asks for is done, as somebody who trusts it would."""
        found = self.book.size(line.key)
        tool = self.book.tool_of(line)
        if found.fit is None:
            return
        self.report.warnings += found.fit.crosses is not None
        step = round(found.fit.correction / LEAST_STEP_MM) * LEAST_STEP_MM
        worth = max(WORTH * (line.tolerance or 0.0), LEAST_STEP_MM)
        if part - self.last_set.get(tool, 0) < APART or (abs(step) < worth and found.fit.crosses is None) or not step:
            return
        self.set_offset(tool, step, part, at, "through the run")

    def first(self, at: float) -> None:
        """Offsets from the first article."""
        for one, _ in self.book.article(1).offsets:
            step = round(one.mm / LEAST_STEP_MM) * LEAST_STEP_MM
            if one.axis == "X" and abs(step) >= LEAST_STEP_MM:
                self.set_offset(one.tool, step, 1, at, "first article")

    def set_offset(self, tool: str, mm: float, part: int, at: float, why: str) -> None:
        self.store.add(self.book.run.id, OffsetSet(after_part=part, tool=tool, axis="X", mm=mm, at=at, why=why))
        self.last_set[tool] = part
        self.report.offsets += 1
        for line in self.lines:
            if self.book.tool_of(line) == tool:
                self.now[line.key].offset += mm

    def look_at_edges(self, part: int, at: float) -> None:
        for edge in self.book.edges():
            due = min((one for one in (edge.by_cost, edge.by_risk) if one is not None), default=None)
            if due is not None and edge.parts >= due:
                self.change(edge.tool.id, part, at, worn=edge.share is not None and edge.share > 0.5)

    def change(self, tool: str, part: int, at: float, worn: bool, seen: str = "flank") -> None:
        self.book.change_edge(tool, part, at, seen=seen, wear_mm=0.2 if worn else None, worn=worn, note="simulated")
        self.report.edges += 1
        for line in self.lines:
            if self.book.tool_of(line) == tool:
                self.now[line.key].new_since = part


def run_day(
    store: Store,
    job: Job,
    batch: int = 85,
    speed: float = 1200.0,
    seed: int = 1,
    engine: Engine | None = None,
    check: Check = never_cancel,
    tell: Callable[[str], None] = lambda words: None,
) -> DayReport:
    """Run a batch with all devices. ``speed`` is seconds of the machine in one of ours. Raises `ToreumaError` where the
    job cannot be planned, has no size to follow, or a device does not come up."""
    engine = engine or Engine()
    job = job.changed(stock=job.stock.changed(supply=job.stock.supply.changed(batch=batch)))
    begun = time.time()
    run = begin_run(store, engine, job, begun, simulated=True)
    book = Book(store, run, engine)
    lines = followed_lines(book)
    if not lines:
        raise ToreumaError("day", "the drawing has no diameter with limits that an offset moves", "give one a fit")
    day = _Day(store, book, lines, seed)
    outcome = engine.follow(job)
    settings = machine_settings(outcome.timeline, outcome.written.name if outcome.written else "O1", batch, job, speed)
    supply = book.sides[0].supply
    pitch, parts_of_bar = supply.pitch_mm or 100.0, supply.parts or 20
    with (
        Simulated("gauge", noise_mm=0.0003, seed=seed) as press,
        Simulated("presetter", seed=seed) as preset,
        Simulated("machine", **settings) as lathe,
        Simulated("feeder", bar_mm=parts_of_bar * pitch + 80.0, pitch_mm=pitch, rest_mm=80.0) as bars,
    ):
        devices = (
            Gauge("gauge", press.where, simulated=True), Presetter("presetter", preset.where, simulated=True),
            MachineAgent("machine", lathe.where, simulated=True), BarFeeder("bar feeder", bars.where, simulated=True),
        )  # fmt: skip
        for device in devices:
            device.start()
        try:
            _preset(preset, devices[1], job, store, day)
            lathe.tell("start")
            _batch(day, devices, press, lathe, bars, settings["cycle_s"], parts_of_bar * pitch + 80.0, check, tell)
        finally:
            for device in devices:
                device.stop()
    book.end(time.time())
    for line in lines:
        day.report.told[str(line.what)] = [str(words) for _, words in book.size(line.key).says]
    return day.report


def _preset(simulated: Simulated, device: Any, job: Job, store: Store, day: _Day) -> None:
    """Tools are measured before the machine runs; what was measured is noted."""
    for tool in job.tools:
        simulated.tell(f"T{tool.station} 60 {100 + tool.station}")
    simulated.tell("drop")
    end, seen = time.monotonic() + READ_S, 0
    while seen < len(job.tools) and time.monotonic() < end:
        for event in device.take():
            if isinstance(event.what, PresetTool):
                seen += 1
                words = f"T{event.what.station} preset: X {event.what.x_mm:.3f}, Z {event.what.z_mm:.3f} mm (simulated)"
                store.note(day.book.run.ident, Note(words=words, at=event.at, kind="preset", run=day.book.run.id))
        time.sleep(0.02)
    day.report.preset = seen


def _batch(
    day: _Day, devices: tuple[Any, ...], press: Simulated, lathe: Simulated, bars: Simulated, cycle_s: float,
    bar_mm: float, check: Check, tell: Callable[[str], None],
) -> None:  # fmt: skip
    """Until the batch is made, or the machine is heard no more."""
    gauge, _, agent, feeder = devices
    begun, end, made, from_bar = day.book.run.begun, time.monotonic() + DAY_S, 0, 0
    trouble_at = day.report.batch // 2
    while made < day.report.batch and time.monotonic() < end:
        check()
        state = next((e.what for e in reversed(agent.take()) if isinstance(e.what, MachineState)), None)
        for part in range(made + 1, (state.parts or 0) + 1 if state is not None else 0):
            t_s = part * cycle_s
            sizes = day.made(part, t_s)
            made, from_bar = part, from_bar + 1
            day.store.add(day.book.run.id, PartMade(number=part, at=begun + t_s, seconds=cycle_s))
            bars.tell(f"fed {from_bar}")
            if part == 1 or part % EVERY == 0:
                _measure(day, gauge, press, sizes, part, begun + t_s)
                tell(
                    f"part {part}: {day.report.measured} sizes, {day.report.offsets} offsets, {day.report.edges} edges"
                )
            if part == trouble_at:
                _break(day, agent, lathe, part, begun + t_s)
        at_end = any(isinstance(e.what, BarState) and e.what.state == "END" for e in feeder.take())
        if at_end and from_bar:
            day.store.add(day.book.run.id, Stop(part=made, operation="", kind="bar end", at=begun + made * cycle_s))
            bars.tell(f"bar {bar_mm}")
            from_bar = 0
            day.report.bars += 1
        time.sleep(0.01)


def _first_article(day: _Day, sizes: dict[str, float], at: float) -> None:
    """The first part is measured in everything that has a number: as close as its means allow."""
    source = random.Random(day.report.run)
    off = {day.book.tool_of(line): sizes[line.key] - (line.aim or 0.0) for line in day.lines}
    for line in day.book.lines:
        if line.key in sizes or line.aim is None or line.quantity not in ("diameter", "wires", "length", "depth"):
            continue
        sigma = (line.uncertainty_um or 10.0) / 2000
        moved = off.get(day.book.tool_of(line), 0.0) if line.quantity in ("diameter", "wires") else 0.0
        value = line.aim + moved + source.gauss(0.0, sigma)
        day.book.enter(1, line.key, round(value, 4), at, f"{line.means} (simulated)", 2 * sigma)
        day.report.measured += 1


def _measure(day: _Day, gauge: Any, press: Simulated, sizes: dict[str, float], part: int, at: float) -> None:
    """The button is pressed for every size that is followed; a reading that does not come is not made up."""
    for line in day.lines:
        gauge.take()
        press.tell(f"{sizes[line.key]:.5f}")
        end = time.monotonic() + READ_S
        reading = None
        while reading is None and time.monotonic() < end:
            reading = next((e.what for e in gauge.take() if isinstance(e.what, Reading)), None)
            time.sleep(0.002)
        if reading is None:
            continue
        day.book.enter(part, line.key, reading.mm, at, "simulated gauge", 0.001)
        day.report.measured += 1
    day.look_at_edges(part, at)  # a new edge takes its wear back: what is to be corrected is seen behind it
    if part == 1:
        _first_article(day, sizes, at)
        day.first(at)
    else:
        for line in day.lines:
            day.correct(line, part, at)


def _break(day: _Day, agent: Any, lathe: Simulated, part: int, at: float) -> None:
    """A tool breaks: the machine stands with an alarm, as its agent says; the edge is changed, and it goes on."""
    lathe.tell("alarm tool broken")
    end, heard = time.monotonic() + READ_S, False
    while not heard and time.monotonic() < end:
        heard = any(isinstance(e.what, MachineState) and e.what.alarms for e in agent.take())
        time.sleep(0.01)
    if not heard:
        return
    tool = day.book.tool_of(day.lines[0])
    day.store.add(
        day.book.run.id, Stop(part=part, operation="", kind="broken tool", at=at, note="tool broken (simulated)")
    )
    day.change(tool, part, at, worn=False, seen="broken")
    day.report.alarms += 1
    lathe.tell("clear")
    lathe.tell("start")
