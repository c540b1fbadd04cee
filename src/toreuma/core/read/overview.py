"""What a program is made of: its tools in order of use, what each does, how far it goes, and what is said beside it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from toreuma.core.motion import Motion
from toreuma.core.read.state import MOVES_NOTHING, Program
from toreuma.core.read.words import Block

__all__ = ["Extreme", "Overview", "ToolUse", "Work", "overview"]

Work = Literal["turning", "boring", "facing", "grooving", "threading", "drilling", "tapping", "driven", "moving"]

NEAR_LINES = 3
"""A comment so many lines before or behind a tool's call may belong to it."""

HOME_WORDS = (("G", 28.0), ("G", 30.0), ("G", 53.0))
"""To a reference point, or a place of the machine."""

AXIS_MM = 0.05
"""Cuts this near to the axis and along it are drilled."""

LEAST_MM = 1e-6
FRONT_MM = -2.0
"""Cuts across the axis in front of this are facing, behind it grooves or parting off."""


@dataclass(frozen=True, slots=True)
class Extreme:
    """The farthest place along one way, mm, and its line."""

    mm: float
    line: int


@dataclass(frozen=True, kw_only=True)
class ToolUse:
    """One tool: where it is called first, what stands beside that, and what its cuts are.

    Places are of its cuts, mm: ``nearest`` to the axis and ``widest`` on diameter, ``deepest`` and ``front`` along Z.
    """

    station: int
    offset: int
    line: int
    comments: tuple[str, ...]
    work: Work
    inside: bool
    leads_mm: tuple[float, ...]
    feeds: tuple[float, ...]
    per_minute: bool
    """Its feeds are told a minute, mm/min; else a turn, mm."""
    speeds: tuple[tuple[str, float], ...]
    """Whether of the surface or turns a minute, and how much: m/min or rpm."""
    clamps_rpm: tuple[float, ...]
    cuts: int
    nearest: Extreme | None
    widest: Extreme | None
    deepest: Extreme | None
    front: Extreme | None


@dataclass(frozen=True, kw_only=True)
class Overview:
    """``farthest`` and ``outermost`` are of every move in known places; ``machine_words`` are M words asked about,
    ``idle_words`` those of them that were taken as moving nothing."""

    tools: tuple[ToolUse, ...]
    number: int | None
    title: str
    deepest: Extreme | None
    outermost: Extreme | None
    machine_words: tuple[str, ...]
    idle_words: tuple[str, ...]
    missing: tuple[int, ...]
    variables: tuple[str, ...]
    skips: tuple[int, ...]
    parts: int


def overview(program: Program, blocks: Sequence[Block], home: tuple[float, float]) -> Overview:
    """Look through a program that was read; ``home`` is where its reference point was taken to be."""
    known = [one for one in program.motions if one.driven is None and home[0] != one.end[0] and home[1] != one.end[1]]
    first = next((block for block in blocks if "O" in block.said.last), None)
    titled = next((block for block in blocks[:10] if block.comments), None)
    asked = [one for one in program.findings if one.code in ("program.m_word", "program.variable")]
    return Overview(
        tools=tuple(_tools(program, blocks)),
        number=None if first is None else int(first.value("O") or 0),
        title=titled.comments[0] if titled is not None else "",
        deepest=_extreme(known, 0, most=False),
        outermost=_extreme(known, 1, most=True),
        machine_words=tuple(_word_of(one.what) for one in asked if one.code == "program.m_word"),
        idle_words=tuple(_word_of(one.what) for one in asked if MOVES_NOTHING in one.why),
        missing=program.missing,
        variables=tuple(_word_of(one.what) for one in asked if one.code == "program.variable"),
        skips=tuple(sorted({block.said.skip for block in blocks if block.said.skip})),
        parts=program.parts,
    )


def _word_of(what: str) -> str:
    """The word a question is about: M68 or #500."""
    return next((one for one in what.replace(":", " ").split() if one[0] in "M#" and any(c.isdigit() for c in one)), "")


def _tools(program: Program, blocks: Sequence[Block]) -> Iterator[ToolUse]:
    calls = _calls(blocks)
    seen: dict[int, list[Motion]] = {}
    for motion in program.motions:
        if motion.station:
            seen.setdefault(motion.station, []).append(motion)
    for station, motions in seen.items():
        line, offset, comments = calls.get(station, (motions[0].line, station, ()))
        cuts = [one for one in motions if not one.is_rapid and not one.event and one.segment.length > LEAST_MM]
        spindles = list(dict.fromkeys(one.spindle for one in cuts or motions))
        yield ToolUse(
            station=station,
            offset=offset,
            line=line,
            comments=comments,
            work=_work(cuts, blocks, _inside(motions)),
            inside=_inside(motions),
            leads_mm=tuple(dict.fromkeys(one.feed or 0.0 for one in cuts if one.in_step)),
            feeds=tuple(dict.fromkeys(one.feed or 0.0 for one in cuts if not one.in_step)),
            per_minute=bool(cuts) and all(one.per_minute for one in cuts if not one.in_step),
            speeds=tuple(dict.fromkeys((one.mode, one.value) for one in spindles if one.value)),
            clamps_rpm=tuple(dict.fromkeys(one.clamp_rpm for one in spindles if one.clamp_rpm)),
            cuts=len(cuts),
            nearest=_extreme(cuts, 1, most=False),
            widest=_extreme(cuts, 1, most=True),
            deepest=_extreme(cuts, 0, most=False),
            front=_extreme(cuts, 0, most=True),
        )


def _calls(blocks: Sequence[Block]) -> dict[int, tuple[int, int, tuple[str, ...]]]:
    """By station: the line it is first called in, its offset, and the comments beside."""
    found: dict[int, tuple[int, int, tuple[str, ...]]] = {}
    for n, block in enumerate(blocks):
        number = block.value("T")
        if not number:
            continue
        whole = int(number)
        station, offset = (whole // 100, whole % 100) if whole >= 100 else (whole, int(block.value("D") or whole))
        if station and station not in found:
            found[station] = block.line, offset, tuple(_beside(blocks, n))
    return found


def _beside(blocks: Sequence[Block], at: int) -> Iterator[str]:
    """Comments of the block itself, then of lines that are nothing else before it, then behind it."""
    yield from blocks[at].comments
    for n in range(at - 1, max(at - 1 - NEAR_LINES, -1), -1):
        if blocks[n].said.last.keys() - {"N", "G", "S", "M"} and not _goes_home(blocks[n]):
            break
        yield from blocks[n].comments
    for n in range(at + 1, min(at + 1 + NEAR_LINES, len(blocks))):
        if "T" in blocks[n].said.last:
            break
        yield from blocks[n].comments


def _goes_home(block: Block) -> bool:
    """The tool goes away before the next one is called."""
    return any(word in HOME_WORDS for word in block.words) and not block.said.last.keys() & {"T", "F"}


def _work(cuts: Sequence[Motion], blocks: Sequence[Block], inside: bool) -> Work:
    """What the cuts of a tool look like."""
    if not cuts:
        return "moving"
    if any(one.driven is not None for one in cuts):
        return "driven"
    on_axis = all(abs(one.end[1]) < AXIS_MM and abs(one.start[1]) < AXIS_MM for one in cuts)
    threads = [one for one in cuts if one.in_step]
    if threads:
        return "tapping" if on_axis else "threading"
    if on_axis:
        return "drilling"
    across = sum(one.length for one in cuts if abs(one.end[0] - one.start[0]) < LEAST_MM and one.end[1] < one.start[1])
    along = sum(abs(one.end[0] - one.start[0]) for one in cuts)
    lines = {one.line for one in cuts}
    if any(block.line in lines and any(word == ("G", 75.0) for word in block.words) for block in blocks):
        return "grooving"
    if any(block.line in lines and any(word == ("G", 72.0) for word in block.words) for block in blocks):
        return "facing"
    if across > 0 and along < 0.2 * across:
        near_front = max(one.end[0] for one in cuts) > FRONT_MM
        return "facing" if near_front and min(one.end[1] for one in cuts) < 1.0 else "grooving"
    return "boring" if inside else "turning"


def _inside(motions: Sequence[Motion]) -> bool:
    """Whether a tool goes into a bore: behind its cuts along Z it comes away toward the axis."""
    votes = 0
    for one in motions:
        if not one.is_rapid and abs(one.end[0] - one.start[0]) < LEAST_MM and one.length > LEAST_MM:
            votes += 1 if one.end[1] > one.start[1] > AXIS_MM else 0 if one.end[1] > one.start[1] else -1
    if any(not one.is_rapid and abs(one.end[0] - one.start[0]) > LEAST_MM for one in motions):
        votes = 0
    for before, after in pairwise(motions):
        along = not before.is_rapid and before.end[0] < before.start[0] - LEAST_MM
        out = after.end[1] - after.start[1]
        if along and out and abs(after.end[0] - after.start[0]) <= abs(out) + 1:
            votes += 1 if out < 0 else -1
    return votes > 0


def _extreme(motions: Sequence[Motion], axis: int, *, most: bool) -> Extreme | None:
    if not motions:
        return None
    sign = -1 if most else 1
    place, line = min(((one.end[axis], one.line) for one in motions), key=lambda pair: (sign * pair[0], pair[1]))
    return Extreme(2 * place if axis == 1 else place, line)
