"""Ratios measured in one run: what the window and the planning cost against the bare libraries under them."""

import json
import math
import os
import resource
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Mapping, Sequence
from functools import partial
from pathlib import Path

from toreuma.core.standards.threads import Thread
from toreuma.engine.engine import Engine

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
sys.path.insert(0, str(Path(__file__).parent.parent))

import numpy as np
import shapely
from PySide6.QtCore import QEventLoop, QSettings
from PySide6.QtWidgets import QApplication, QMainWindow
from tests.support.hundred import hundred_operations

from benchmarks import closing, random_parts, textbook
from benchmarks.everyday import bench as everyday_bench
from benchmarks.judge import bench as judge_bench
from benchmarks.judge import mutate
from benchmarks.papers import charting, printing
from toreuma.app.picture.space.renderer import Camera, Renderer
from toreuma.app.session import Session
from toreuma.app.shell.shot import settle
from toreuma.app.shell.start import application
from toreuma.app.shell.window import MainWindow
from toreuma.app.theme import load_theme
from toreuma.core.advise import advise, wishes
from toreuma.core.channels.balance import balance
from toreuma.core.channels.hand_over import hand_over
from toreuma.core.channels.schedule import schedule
from toreuma.core.critic import critique
from toreuma.core.critic.opened_early import interrupted_cut
from toreuma.core.cutting.limits import used
from toreuma.core.dialect import Dialect
from toreuma.core.geometry.region import EMPTY, Region, region_from_points
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.memo import Memo
from toreuma.core.model import Job, Pins
from toreuma.core.model.catalogue import Catalogue
from toreuma.core.motion import Motion
from toreuma.core.plan import Plan, plan
from toreuma.core.plan.sides.second_side import plan_sides
from toreuma.core.post import post
from toreuma.core.propose.search import best
from toreuma.core.prove.space import Space
from toreuma.core.reach.tool_reach import Surface, reach_on
from toreuma.core.read import Program, read
from toreuma.core.scene import build_scene
from toreuma.engine.follow import Outcome
from toreuma.engine.judging import prove_whole
from toreuma.engine.pair import PairProof, prove_channels
from toreuma.engine.proving import prove_plan
from toreuma.shipped.library import catalogue, demo_job, demo_names, dialect, known_threads


def seconds(work: Callable[[], object], times: int = 5) -> float:
    """Median time of several runs."""
    taken = []
    for _ in range(times):
        begun = time.perf_counter()
        work()
        taken.append(time.perf_counter() - begun)
    return statistics.median(taken)


def least(one: Callable[[], object], other: Callable[[], object], times: int) -> tuple[float, float]:
    """Least time of each of two, by turns, so that what else the machine does falls on both."""
    taken = [(seconds(one, 1), seconds(other, 1)) for _ in range(times)]
    return min(a for a, _ in taken), min(b for _, b in taken)


def window_shown() -> None:
    app = application()

    def bare() -> None:
        window = QMainWindow()
        window.resize(1280, 800)
        window.show()
        app.processEvents()
        window.grab()
        window.close()

    def ours() -> None:
        session = Session()
        with tempfile.TemporaryDirectory() as folder:
            window = MainWindow(session, QSettings(f"{folder}/s.ini", QSettings.Format.IniFormat))
            window.resize(1280, 800)
            window.show()
            app.processEvents()
            window.grab()
            session.close()
            window.files.may_leave = lambda: True  # type: ignore[method-assign]
            window.close()
            window.deleteLater()

    a, b = seconds(bare), seconds(ours)
    print(f"window shown / bare Qt window shown: {b / a:.1f} ({1000 * b:.0f} ms / {1000 * a:.0f} ms)")


def edit_to_picture() -> None:
    """An edit from the change of the job to the repainted window, split into planning and painting."""

    def pinned(operation: str, **pins: float) -> Callable[[Job], Job]:
        return lambda j: j.with_operation(operation, lambda op: op.changed(pins=op.pins.changed(**pins)))

    def profile(step: int) -> Callable[[Job], Job]:
        def change(j: Job) -> Job:
            elements = list(j.part.outside)
            elements[6] = elements[6].changed(d_mm=24 - 0.05 * step)
            elements[5] = elements[5].changed(d_mm=24 - 0.05 * step)
            return j.changed(part=j.part.changed(outside=tuple(elements)))

        return change

    def swapped(step: int) -> Callable[[Job], Job]:
        def change(j: Job) -> Job:
            ops = list(j.operations)
            ops[2 + step % 2], ops[1 + step % 2] = ops[1 + step % 2], ops[2 + step % 2]
            return j.with_setup(operations=tuple(ops))

        return change

    edits: dict[str, Callable[[int], Callable[[Job], Job]]] = {
        "profile dimension": profile,
        "depth of cut": lambda step: pinned("op2", ap_mm=1.5 - 0.02 * step),
        "surface speed": lambda step: pinned("op4", vc_m_min=150.0 + step),
        "order": swapped,
    }
    _edits(demo_job("spear"), "op2", edits, 20)
    feeds = {"a feed of the middle one of 100 operations": lambda step: pinned("g48", feed_mm_rev=0.05 + 0.001 * step)}
    _edits(hundred_operations(), "g48", feeds, 7)


def _edits(job: Job, selected: str, edits: dict[str, Callable[[int], Callable[[Job], Job]]], times: int) -> None:
    app, session = application(), Session()
    settings = QSettings(tempfile.mktemp(suffix=".ini"), QSettings.Format.IniFormat)
    window = MainWindow(session, settings)
    window.resize(1280, 800)
    window.show()
    session.show(job)
    window.set_stage("operations")
    session.select(operation=selected)
    settle(session)
    waiting = QEventLoop()
    session.outcome_changed.connect(waiting.quit)
    for name, make in edits.items():
        drawn, planning, painting, bare = [], [], [], []
        for step in range(1, times + 1):
            before = session.outcome
            begun = time.perf_counter()
            session.attempt(make(step))
            app.processEvents()
            drawn.append(time.perf_counter() - begun)
            if session.outcome is None or session.outcome.job is not session.job:
                waiting.exec()  # the window's own loop sleeps between events; polling would slow the planning thread
            planned = time.perf_counter()
            app.processEvents()
            painting.append(time.perf_counter() - planned)
            planning.append(planned - begun)
            settle(session)
            bare.append(_bare_of_edit(before, session.outcome))
        first, a, b, least = (1000 * statistics.median(x) for x in (drawn, planning, painting, bare))
        worst = 1000 * sorted(drawn)[math.ceil(0.95 * len(drawn)) - 1]
        print(
            f"edit to picture, {name}: section drawn {first:.0f} ms, 95 of 100 within {worst:.0f} ms; "
            f"passes {a + b:.0f} ms (planned, written, read back {a:.0f}; painted {b:.0f}), "
            f"{(a + b) / least:.1f} times the bare polygon work of what changed ({least:.1f} ms)"
        )
    session.close()
    window.files.may_leave = lambda: True  # type: ignore[method-assign]
    window.close()


def _bare_of_edit(before: Outcome | None, after: Outcome | None) -> float:
    """Seconds that one bare hull, buffer and difference take for every move an edit has changed."""
    assert before is not None
    assert after is not None
    shapes = {tool.station: shape_of(tool) for tool in after.job.tools}
    known = {one.operation.id: one.motions for one in before.plan.operations}
    begun = time.perf_counter()
    for planned in after.plan.operations:
        if known.get(planned.operation.id) != planned.motions:
            bare_cut(planned.before, planned.motions, shapes)
    return time.perf_counter() - begun


def bare_cut(stock: Region, motions: Sequence[Motion], shapes: Mapping[int, ToolShape], part: Region = EMPTY) -> None:
    """One hull, one difference and one test against the part for every move, straight in shapely."""
    for motion in motions:
        shape = shapes.get(motion.station)
        if shape is None:
            continue
        ends = np.array([motion.start, motion.end]) - np.array(shape.tip)
        spread = (ends[:, None, :] + shape.core[None]).reshape(-1, 2)
        swept = shapely.buffer(shapely.convex_hull(shapely.multipoints(spread)), shape.nose_radius)
        shapely.intersects(swept, part)
        if not motion.is_rapid:
            stock = shapely.difference(stock, swept)


def plan_and_prove() -> None:
    """Planning and proving the demo against the same count of bare polygon operations."""
    job, language = demo_job("spear"), dialect("system-a")

    def whole() -> None:
        prove_plan(plan(job), language)

    planned = plan(job)
    program = read(post(planned, language).text, language, planned.scene.reference)
    shapes = {tool.station: shape_of(tool) for tool in job.tools}

    def bare() -> None:
        shapely.union_all([region_from_points(planned.scene.profile.points), planned.scene.stock])
        bare_cut(planned.scene.stock, program.motions, shapes, planned.scene.part)

    a, b = least(bare, whole, 7)
    print(f"plan + prove spear / one bare shapely hull, buffer, difference and test a move: {b / a:.1f} "
          f"({1000 * b:.0f} ms / {1000 * a:.0f} ms, {len(program.motions)} moves)")  # fmt: skip


def proving() -> None:
    """Proof and verdict of every demo job that has no second channel, against its bare polygon work."""
    engine = Engine()
    for name in demo_names():
        sides = engine.sides(demo_job(name))
        if engine.transfer(sides) is not None:
            continue
        language = engine.language(sides[0].job)
        each = []
        for side in sides:
            program = read(post(side, language).text, language, side.scene.reference)
            each.append((side, program, {tool.station: shape_of(tool) for tool in side.job.tools}))

        def bare(each: list[tuple[Plan, Program, dict[int, ToolShape]]] = each) -> None:
            for side, program, shapes in each:
                bare_cut(side.scene.stock, program.motions, shapes, side.scene.part)

        def ours(sides: tuple[Plan, ...] = sides, language: Dialect = language) -> None:
            prove_whole(sides, language)

        a, b = least(bare, ours, 3)
        moves = sum(len(program.motions) for _, program, _ in each)
        print(f"proof and verdict of {name} / bare polygon work: {b / a:.1f} ({1000 * b:.0f} ms, {moves} moves)")


def reading() -> None:
    """100 000 blocks read, against only splitting the lines."""
    head = "G18 G21 G40 G99\nT0101\nG50 S3000\nG96 S100 M3\nG0 X50. Z2.\nG1 F0.1 X40.\n"
    body = "".join(f"N{10 * n} X{40 + n % 7}.5 Z-{n % 90}.25\n" for n in range(100_000))
    text, language = head + body + "M30\n", dialect("system-a")
    a, b = least(lambda: [line.split() for line in text.splitlines()], lambda: read(text, language, (200.0, 100.0)), 5)
    print(f"reading 100 000 blocks / splitting the lines: {b / a:.0f} ({b:.2f} s / {a:.2f} s)")


def commands() -> None:
    """What a command of the standards takes to load and answer, against importing its libraries."""
    bare = [sys.executable, "-c", "import typer, pydantic, numpy"]
    ours = [sys.executable, "-m", "toreuma", "decode", "CNMG 120408"]
    quiet = subprocess.DEVNULL
    a, b = least(lambda: subprocess.run(bare, check=True), lambda: subprocess.run(ours, check=True, stdout=quiet), 7)
    print(f"toreuma decode / importing typer, pydantic and numpy: {b / a:.1f} ({1000 * b:.0f} ms / {1000 * a:.0f} ms)")


def storing() -> None:
    """The store of tools read, against its text alone."""
    text = catalogue().model_dump_json()
    a, b = least(lambda: json.loads(text), lambda: Catalogue.model_validate_json(text), 7)
    print(f"store of {len(catalogue().tools)} tools / its JSON: {b / a:.1f} ({1000 * b:.0f} ms / {1000 * a:.0f} ms)")


def reaching() -> None:
    """25 tools tried on one part, against one bare union of hulls and one buffer a tool."""
    job, store = demo_job("spear"), catalogue()
    carriers = [carrier for carrier in store.carriers if carrier.holder is not None][:25]
    tools = [c.with_insert(next(i for i in store.inserts if c.seat.takes(i)), "T1") for c in carriers]
    outside = Surface("outside")

    def whole() -> None:
        scene = build_scene(job)
        for tool in tools:
            reach_on(scene, tool, outside)

    points = np.asarray(build_scene(job).profile.points)
    edges = np.stack([points[:-1], points[1:]], axis=1)

    def bare() -> None:
        for tool in tools:
            shape = shape_of(tool)
            for core in (shape.core, *shape.bodies):
                spread = (edges[:, :, None, :] - core[None, None]).reshape(len(edges), -1, 2)
                shapely.buffer(shapely.union_all(shapely.convex_hull(shapely.linestrings(spread))), 0.8)

    a, b = seconds(bare, 3), seconds(whole, 3)
    print(f"reach of 25 tools / bare shapely hulls, union and buffer: {b / a:.1f} ({b:.2f} s / {a:.2f} s)")


def advising() -> None:
    """All wishes of a job, from the whole store against every tenth tool of it."""
    for name in ("spear", "gate-spindle", "runner-hub", "strainer-union"):
        job, whole = demo_job(name), catalogue()
        few = whole.changed(carriers=whole.carriers[::10], tools=whole.tools[::10])
        bare, threads = job.changed(tools=()), known_threads(job.part)

        def asked(store: Catalogue, bare: Job = bare, threads: Mapping[str, Thread] = threads) -> None:
            scene = build_scene(bare)
            for wish in wishes(bare, scene):
                advise(bare, scene, wish, store, (), threads)

        a, b = seconds(partial(asked, few), 3), seconds(partial(asked, whole), 3)
        print(f"advice for {name}: whole store / a tenth of it: {b / a:.1f} ({b:.2f} s / {a:.2f} s)")


def choosing() -> None:
    """Numbers of one roughing cut, against one look at all its limits; and a job planned again at 0.3 of the power."""
    job = demo_job("spear")
    proposal = plan(job).operations[1].cuts.proposal
    assert proposal is not None
    steps = ((6.0, 60.0), (4.0, 30.0))
    a = seconds(lambda: used(proposal.situation, proposal.cut), 50)
    b = seconds(lambda: best(proposal.situation, steps), 3)
    print(f"choosing a cut / one look at its limits: {b / a:.0f} ({1000 * b:.0f} ms / {1000 * a:.2f} ms)")
    points = tuple(point.changed(power_kw=0.3 * point.power_kw) for point in job.machine.power)
    weak = job.changed(machine=job.machine.changed(power=points))
    c, d = seconds(lambda: plan(job), 3), seconds(lambda: plan(weak), 3)
    print(f"planning with 0.3 of the power / with all of it: {d / c:.1f} ({d:.2f} s / {c:.2f} s)")


def hundred() -> None:
    """An edit in the middle of a hundred operations, planned, written and read back, against the whole anew."""
    job, memo = hundred_operations(), Memo()
    begun = time.perf_counter()
    Engine(memo=memo).follow(job)
    whole = time.perf_counter() - begun
    changes: dict[str, dict[str, object]] = {
        "a feed": {"pins": Pins(feed_mm_rev=0.06)},
        "another way": {"method": "straight"},
        "left out": {"enabled": False},
    }
    for name, change in changes.items():
        edited = job.with_operation("g48", lambda op, c=change: op.changed(**c))  # type: ignore[misc]
        begun = time.perf_counter()
        Engine(memo=memo).follow(edited)
        taken = time.perf_counter() - begun
        print(f"hundred operations, {name} of the middle one / all of them: {taken / whole:.3f} "
              f"({1000 * taken:.0f} ms / {1000 * whole:.0f} ms)")  # fmt: skip


def interruption() -> None:
    """The runner hub with its holes and flats cut before the turning, and after one click."""
    job = demo_job("runner-hub")
    early = [one for one in job.operations if one.kind in ("holes", "flats")]
    planned = plan(job.with_setup(operations=(*early, *(one for one in job.operations if one not in early))))
    mended = planned.job
    for finding in critique(planned):
        if finding.code == "order.opened":
            mended = finding.cures[0].apply(mended)
    after = plan(mended)
    cuts = [interrupted_cut(one.operations) for one in (planned, after)]
    words = " / ".join(f"{seconds:.1f} s and {hits} hits" for seconds, hits in cuts)
    longer = planned.times.total_s / after.times.total_s
    print(f"interrupted cut, holes and flats first / last: {words}; cycle {longer:.2f} times as long")


def balancing() -> None:
    """Parts made complete: the steady cycle with both spindles at work against everything one after another."""
    for name in ("runner-hub", "vane-stud"):
        job = demo_job(name)
        job = job.changed(program=job.program.changed(parts=max(job.program.parts, 2)))
        sides = plan_sides(job)
        taken = hand_over(job, sides[0])
        assert taken is not None
        found, written = balance(job, sides, taken), schedule(job, sides, taken).cycle_s
        proof = prove_channels(job, sides, taken, dialect(job.program.dialect))
        print(f"{name}, both spindles at work / one after another: {written / found.in_turn_s:.3f} ({written:.1f} s / "
              f"{found.in_turn_s:.1f} s, read back {proof.cycle_s:.1f} s), no schedule below {found.bound_s:.1f} s; "
              f"{'proved' if proof.ok else 'NOT PROVED'}")  # fmt: skip
        in_space(name, proof)


def in_space(name: str, proof: PairProof) -> None:
    """Pictures of the run in space, a second of it apart, against the ten a second that playing wants."""
    space, renderer, theme = Space(proof.scenery), Renderer(), load_theme("light")
    low, high, _ = space.reach
    camera = Camera(z=(low + high) / 2, half_mm=(high - low) / 2)
    count = 60
    begun = time.perf_counter()
    for n in range(count):
        renderer.draw(space.at(proof.scenery.seconds * 0.2 + n), camera, (900, 520), theme, fine=False)
    rate = count / (time.perf_counter() - begun)
    print(f"{name}, pictures in space a second / 10: {rate / 10:.1f}")


def main() -> int:
    if sys.argv[1:2] == ["parts"]:
        numbers = [int(text) for text in sys.argv[2:4]]
        random_parts.main(*(numbers + [300, 1][len(numbers) :]))
        return 0
    if sys.argv[1:2] == ["judge"]:
        judge_bench.main(*(int(text) for text in sys.argv[2:5]))
        return 0
    if sys.argv[1:2] == ["everyday"]:
        everyday_bench.main(*(int(text) for text in sys.argv[2:4]))
        return 0
    if sys.argv[1:2] == ["mutate"]:
        mutate.asked(sys.argv[2:])
        return 0
    window_shown()
    edit_to_picture()
    plan_and_prove()
    proving()
    reading()
    commands()
    storing()
    reaching()
    advising()
    choosing()
    hundred()
    interruption()
    balancing()
    printing()
    charting()
    textbook.compare()
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    print(f"memory at the highest: {peak:.0f} MB")
    status = closing.main(200 if "--all" in sys.argv else 20)
    QApplication.quit()
    return status if "--all" in sys.argv else 0


if __name__ == "__main__":
    raise SystemExit(main())
