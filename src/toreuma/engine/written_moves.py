"""Moves that were read, as data of an operation that keeps them."""

from collections.abc import Iterator, Sequence
from typing import cast, get_args

from toreuma.core.geometry.elements import Arc
from toreuma.core.model import WrittenDriven, WrittenEvent, WrittenMove
from toreuma.core.motion import Event, Motion, Spindle

__all__ = ["KEPT", "moves_of"]

SAME_MM = 1e-9
KEPT: tuple[Event, ...] = get_args(WrittenEvent)[1:]
"""What a machine does in a stretch that is kept."""


def moves_of(motions: Sequence[Motion], moved: float) -> Iterator[WrittenMove]:
    """Moves of one tool, their Z less by ``moved`` mm; the first is a rapid to where they begin."""
    spindle: Spindle | None = None
    braked, begun = False, False
    for one in motions:
        if one.event in KEPT:
            begun = True
            yield _stands(one, moved)
            continue
        if one.event:
            braked = one.event == "brake_on" if one.event.startswith(("brake", "c_axis")) else braked
            continue
        if one.length <= SAME_MM and not one.dwell_s:
            continue
        if not begun and not one.is_rapid:
            begun = True
            yield _begin(one, moved, braked)
        begun = True
        z, r = one.end
        arc = one.segment if isinstance(one.segment, Arc) else None
        changed = one.spindle != spindle
        spindle = one.spindle
        yield WrittenMove(
            z_mm=z - moved,
            r_mm=r,
            how="rapid" if one.is_rapid else "thread" if one.in_step else "feed",
            feed=one.feed,
            per_minute=one.per_minute,
            centre=None if arc is None else (arc.centre[0] - moved, arc.centre[1]),
            clockwise=True if arc is None else arc.clockwise,
            dwell_s=one.dwell_s,
            speed=(spindle.mode, spindle.value, spindle.clamp_rpm) if changed and one.driven is None else None,
            driven=_driven(one, 1, braked),
        )


def _stands(one: Motion, moved: float) -> WrittenMove:
    z, r = one.end
    return WrittenMove(z_mm=z - moved, r_mm=r, dwell_s=one.dwell_s, event=cast("WrittenEvent", one.event))


def _begin(first: Motion, moved: float, braked: bool) -> WrittenMove:
    z, r = first.start
    return WrittenMove(z_mm=z - moved, r_mm=r, driven=_driven(first, 0, braked))


def _driven(one: Motion, end: int, braked: bool) -> WrittenDriven | None:
    driven = one.driven
    if driven is None:
        return None
    return WrittenDriven(rpm=driven.rpm, c_deg=driven.c_deg, y_mm=driven.y[end], polar=driven.polar, braked=braked)
