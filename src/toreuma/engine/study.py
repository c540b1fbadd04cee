"""A program under study: read, its tools filled in, cut out of a blank, all over again at every edit."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from toreuma.core.dialect import Dialect
from toreuma.core.errors import ToreumaError
from toreuma.core.findings import Finding
from toreuma.core.geometry.region import EMPTY, Region
from toreuma.core.memo import Check, Memo, never_cancel
from toreuma.core.model import Job, Machine
from toreuma.core.model.tool import BarStop, Drill, EndMill, Reamer, Tap
from toreuma.core.motion import Motion
from toreuma.core.prove import Proof, prove
from toreuma.core.read import Given, Nose, Program
from toreuma.core.read.guess import Guess
from toreuma.core.read.overview import Overview, ToolUse, overview
from toreuma.core.read.words import blocks_of
from toreuma.core.scene import Scene, build_scene
from toreuma.core.simulate.replay import Replay
from toreuma.core.simulate.timeline import Timeline, timeline_of
from toreuma.engine.driven_work import mount_of
from toreuma.engine.foreign import read_foreign
from toreuma.engine.foreign_blank import Blank, blank_of
from toreuma.engine.foreign_job import OF_THE_CUT, assumed_of, from_tools, home_beside, job_of, softened
from toreuma.engine.foreign_tools import Filled, filled
from toreuma.engine.library import library

__all__ = ["Asked", "Cut", "Study", "cut_of", "study_of", "usual_blank"]

FAR = (600.0, 400.0)
"""Where the reference point is taken to be, (z, r) in mm, unless a blank is larger."""

BAR_STEP_MM, BEHIND_MM = 5.0, 30.0
"""A blank nobody named is as wide as the widest cut, in steps of so much, and goes on so far behind the deepest."""

WALL_SHARE = 1.5
"""A bar is taken so many times as wide as its hole, where nothing is cut outside."""

MOST_OF_ENDLESS = 1000
"""So many moves of a program that does not end are cut, to show what it does."""

BORED_MM, LEAST_HOLE_MM = 1.0, 4.0
"""A hole that is there before it is bored is taken so much smaller; there is none smaller than that."""


@dataclass(frozen=True, kw_only=True)
class Asked:
    """What the person said of a program: its language, blank, tools by station, machine, and more that is known."""

    dialect: str | None = None
    blank: str = ""
    tools: Mapping[int, Mapping[str, Any]] = field(default_factory=dict)
    machine: str | None = None
    given: Given = field(default_factory=Given)
    seen: Blank | None = None
    """The blank that was taken for this program before, where nobody named one: it does not shrink under an edit."""


@dataclass(frozen=True, kw_only=True)
class Study:
    """A text as it was read, before it is cut. ``fault`` says where what the person said cannot be."""

    text: str
    asked: Asked
    dialect: Dialect
    guess: Guess | None
    program: Program
    overview: Overview
    tools: tuple[Filled, ...]
    blank: Blank
    blank_is_usual: bool
    machine: Machine | None
    given: Given
    faults: tuple[ToreumaError, ...]

    @property
    def endless_line(self) -> int | None:
        """Where it was found out that the program goes on and on; None where it ends."""
        return next((one.line for one in self.program.findings if one.code == "program.endless"), None)

    def uses(self, station: int) -> ToolUse | None:
        return next((one for one in self.overview.tools if one.station == station), None)

    def motions_of(self, line: int) -> tuple[Motion, ...]:
        return tuple(one for one in self.program.motions if one.line == line)


@dataclass(frozen=True, kw_only=True)
class Cut:
    """What came of cutting it."""

    study: Study
    job: Job
    scene: Scene
    replay: Replay
    proof: Proof
    findings: tuple[Finding, ...]
    assumed: tuple[str, ...]


def study_of(text: str, asked: Asked) -> Study:
    """Read a text as it is asked. Nothing raises but a dialect or machine that is not there (`ToreumaError`)."""
    shop = library()
    machine = shop.machine(asked.machine) if asked.machine else None
    faults: list[ToreumaError] = []
    blank, usual = Blank(kind="round", d_mm=50, length_mm=100), not asked.blank.strip()
    if not usual:
        try:
            blank = blank_of(asked.blank)
        except ToreumaError as error:
            faults.append(error)
    known = replace(asked.given, home=home_beside(blank, at_least=FAR))
    name = asked.dialect or None
    found = read_foreign(text, name=name, given=known, machine=machine)
    seen = overview(found.program, list(blocks_of(text, found.dialect)), known.home)
    tools: list[Filled] = []
    inch = any(one.what == "units" and one.value == "inch" for one in found.program.in_force)
    for use in seen.tools:
        for row in (asked.tools.get(use.station), None):
            try:
                tools.append(filled(use, row, "tools", inch))
                break
            except ToreumaError as error:
                if row is not None or use.station not in asked.tools:
                    faults.append(error)
    tools = [_standing(one, found.program) for one in tools]
    if usual:
        blank = usual_blank(seen, tools, asked.seen)
    noses = {**{one.tool.station: Nose(one.nose_mm) for one in tools if one.nose_mm > 0}, **known.noses}
    home = home_beside(blank, at_least=FAR)
    if home != known.home or any(one.code == "side.nose" for one in found.program.findings):
        known = replace(known, noses=noses, home=home)
        found = read_foreign(text, name=name, given=known, machine=machine)
    return Study(
        text=text,
        asked=asked,
        dialect=found.dialect,
        guess=found.guess,
        program=found.program,
        overview=seen,
        tools=tuple(tools),
        blank=blank,
        blank_is_usual=usual,
        machine=machine,
        given=known,
        faults=tuple(faults),
    )


def _standing(one: Filled, program: Program) -> Filled:
    """A tool, mounted the way in which it is driven."""
    mount = mount_of(one.tool, program.motions)
    return one if mount is None else replace(one, tool=one.tool.changed(mount=mount))


def usual_blank(seen: Overview, made: Sequence[Filled], before: Blank | None = None) -> Blank:
    """A bar that the cuts of a program fit into, and no smaller than the one before; with a hole where something is
    bored that nothing drills."""
    cutting = [one for one in seen.tools if one.cuts]
    holes = (one.tool for one in made if isinstance(one.tool, Drill | Reamer | Tap | EndMill))
    drilled = max((one.d_mm for one in holes if one.mount == "still"), default=0.0)
    bored = [one for one in cutting if one.inside and one.widest is not None and one.nearest is not None]
    hole = max([drilled, *(one.widest.mm for one in bored if one.widest is not None)])
    rows = [one for one in cutting if one.widest is not None and not one.inside]
    turned = [one for one in rows if one.work != "driven"] or rows  # a mill comes in at feed from far out
    outside = [one.widest.mm for one in turned if one.widest is not None]
    widest = max([*outside, WALL_SHARE * hole]) if outside or hole else 50.0
    deepest = min((one.deepest.mm for one in cutting if one.deepest is not None), default=-50.0)
    stops = {one.tool.station for one in made if isinstance(one.tool, BarStop)}
    front = max((one.front.mm for one in seen.tools
                 if one.front is not None and (one.work == "facing" or one.station in stops)), default=0.0)  # fmt: skip
    d = max(BAR_STEP_MM * -(-min(max(widest, 5.0), 1000.0) // BAR_STEP_MM), BAR_STEP_MM)
    length = min(max(-deepest, 10.0) + BEHIND_MM, 3000.0)
    front = min(max(front, 0.0), 5.0)
    least = min((one.nearest.mm for one in bored if one.nearest is not None), default=0.0)
    bore = float(int(least - BORED_MM)) if bored and not drilled else 0.0
    if before is not None:
        d, length = max(d, before.d_mm), max(length, before.length_mm - before.front_z)
        front = max(front, before.front_z)
    kind = "tube" if bore >= LEAST_HOLE_MM else "round"
    return Blank(
        kind=kind, d_mm=d, bore_mm=bore if kind == "tube" else 0.0, length_mm=round(length + front), front_z=front
    )


def cut_of(
    study: Study,
    memo: Memo | None = None,
    check: Check = never_cancel,
    progress: Callable[[float], None] = lambda share: None,
) -> Cut:
    """Cut a program out of its blank. Raises `ToreumaError` where blank and tools make no job."""
    job = job_of(study.blank, study.tools, study.machine)
    scene = build_scene(job)
    program = by_tool(from_tools(study.program, study.tools))
    endless = study.endless_line is not None and len(program.motions) > MOST_OF_ENDLESS
    if endless:
        marks = tuple(one for one in program.marks if one.at <= MOST_OF_ENDLESS)
        program = replace(program, motions=program.motions[:MOST_OF_ENDLESS], marks=marks)
    proof = prove(job, scene, program, EMPTY, check, progress, memo=memo)
    read = {id(one) for one in study.program.findings}
    kept = [one for one in proof.findings if id(one) in read or one.code in OF_THE_CUT]
    findings = tuple(softened(kept, program, study.tools, proof.contacts))
    timeline = timeline_of(program.motions, job.machine)
    return Cut(
        study=study,
        job=job,
        scene=scene,
        replay=Replay(job, scene.stock, timeline, _ends(timeline, proof.states)),
        proof=proof,
        findings=findings,
        assumed=(
            *assumed_of(study.blank, study.tools, study.machine, usual=study.blank_is_usual),
            *((f"only its first {MOST_OF_ENDLESS} moves were cut: it does not end",) if endless else ()),
        ),
    )


def by_tool(program: Program) -> Program:
    """The same with every run of a tool as a section of its own, so that an edit is cut again from there on only."""
    sections, before = -1, None
    moved = []
    for one in program.motions:
        if one.station != before:
            sections, before = sections + 1, one.station
        moved.append(replace(one, section=sections))
    return replace(program, motions=tuple(moved), sections=())


def _ends(timeline: Timeline, states: tuple[tuple[int, Region], ...]) -> list[tuple[int, Region]]:
    """The metal behind the last move of every section."""
    last: dict[int, int] = {}
    for n, span in enumerate(timeline.spans):
        last[span.motion.section] = n
    return [(last[section], region) for section, region in states if section in last]
