"""A program cut section by section: what a section did is remembered under all that it depends on.

That is the ground (part, blank, hold, machine, tools, what must not be cut), the state it begins in, and its moves;
where in the program it stands is added when the result is taken.
"""

from collections.abc import Callable, Hashable
from dataclasses import dataclass, replace
from itertools import groupby
from typing import Any

from toreuma.core.geometry.region import Region
from toreuma.core.memo import Check, Memo
from toreuma.core.model import Job
from toreuma.core.motion import Motion
from toreuma.core.prove.cutter import Cutter, MoveDone
from toreuma.core.prove.sunk import MilledPiece

__all__ = ["CutThrough", "cut_through"]

TOLD = ("contacts", "gouges", "loose", "fed", "missed", "dead", "rolled", "tapped", "chords")
"""What a cutter lists with the line it happened on."""


@dataclass(frozen=True)
class CutThrough:
    """Every move's step, and the stock after each section."""

    steps: tuple[MoveDone, ...]
    states: tuple[tuple[int, Region], ...]


@dataclass(frozen=True, kw_only=True)
class _Left:
    """What a section left: its steps, the state behind it, and what it told, lines counted from its own first."""

    steps: tuple[MoveDone, ...]
    stock: Region
    piece: Region
    centre_in: bool
    after_thread: bool
    station: int | None
    closed: bool
    told: dict[str, tuple[Any, ...]]
    milled: MilledPiece | None


def cut_through(
    cutter: Cutter, job: Job, motions: tuple[Motion, ...], memo: Memo | None, check: Check,
    progress: Callable[[float], None],
) -> CutThrough:  # fmt: skip
    """Obey all moves of a program. Whatever ``check`` raises stops the work."""
    ground = _ground(cutter, job, memo) if memo is not None else None
    steps: list[MoveDone] = []
    states: list[tuple[int, Region]] = []
    for section, run in groupby(motions, key=lambda motion: motion.section):
        own = tuple(run)
        done = len(steps)

        def tell(count: int, done: int = done) -> None:
            check()
            progress((done + count) / len(motions))

        if memo is None or cutter.open_line is not None or cutter.cut_open:
            steps += cutter.obey_all(own, tell)
        else:
            steps += _remembered(cutter, own, memo, ground, tell)
        states.append((section, cutter.stock))
    return CutThrough(tuple(steps), tuple(states))


def _ground(cutter: Cutter, job: Job, memo: Memo) -> Hashable:
    setup = job.setup
    parts = (job.part, job.stock, setup.hold, setup.centre, setup.rest, job.machine, job.tools, cutter.guarded)
    return memo.digest(parts)


def _remembered(
    cutter: Cutter, motions: tuple[Motion, ...], memo: Memo, ground: Hashable, tell: Callable[[int], None]
) -> tuple[MoveDone, ...]:
    """Obey a section, or take what it did when it was met in this state before."""
    driven = any(motion.driven is not None for motion in motions)
    base = 0 if driven else motions[0].line  # bodies in space keep the lines they were cut on
    moves = tuple(replace(motion, line=motion.line - base, section=0) for motion in motions)
    rings = tuple(memo.digest(one.raised) for one in cutter.rolled)
    so_far = (cutter.centre_in, cutter.after_thread, cutter.station, rings)
    state = (memo.digest(cutter.stock), memo.digest(cutter.piece), *so_far)
    key = ("cut", ground, state, cutter.milled.history, moves)
    fresh = False

    def obey() -> _Left:
        nonlocal fresh
        fresh = True
        known = {name: len(getattr(cutter, name)) for name in TOLD}
        steps = cutter.obey_all(motions, tell)
        told = {name: tuple(_moved(one, -base) for one in getattr(cutter, name)[known[name] :]) for name in TOLD}
        if driven:
            cutter.milled.history = key
        milled = cutter.milled.copy() if driven else None
        closed = cutter.open_line is None and not cutter.cut_open
        return _Left(
            steps=steps,
            stock=cutter.stock,
            piece=cutter.piece,
            centre_in=cutter.centre_in,
            after_thread=cutter.after_thread,
            station=cutter.station,
            closed=closed,
            told=told,
            milled=milled,
        )

    left = memo.get(key, obey)
    if fresh:
        return left.steps
    if not left.closed:  # the hold stays open beyond the section: it is obeyed again
        return cutter.obey_all(motions, tell)
    cutter.stock, cutter.piece = left.stock, left.piece
    cutter.centre_in, cutter.after_thread, cutter.station = left.centre_in, left.after_thread, left.station
    for name in TOLD:
        getattr(cutter, name).extend(_moved(one, base) for one in left.told[name])
    if left.milled is not None:
        cutter.milled = left.milled.copy()
    return left.steps


def _moved(told: Any, lines: int) -> Any:
    """Something told of a line, so many lines farther on."""
    if isinstance(told, int):
        return told + lines
    if isinstance(told, tuple):
        return told[0] + lines, *told[1:]
    return replace(told, line=told.line + lines)
