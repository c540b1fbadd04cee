"""Features that are said within a step: its thread, its relief, its knurl, its flats."""

from dataclasses import replace
from typing import Any

from toreuma.core.line.elements import End, Side, is_edge
from toreuma.core.line.fault import Misread
from toreuma.core.line.feature_words import feature_of
from toreuma.core.line.piece import Piece
from toreuma.core.line.place import Placed
from toreuma.core.line.reliefs import relief_fields
from toreuma.core.line.step import Step
from toreuma.core.line.tables import LineTables
from toreuma.core.line.tokens import Token
from toreuma.core.model import Size
from toreuma.core.standards.threads import Thread
from toreuma.core.units import System

__all__ = ["RUN_OUT_PITCHES", "attached", "seat_of", "seated"]

RUN_OUT_PITCHES = 4.0
"""From the last full turn to a shoulder without a relief: the long distance a2 of DIN 76-1, which the flank of a
threading insert needs."""


BLIND_PITCHES = 5.0
"""The same in a bore: about the overhang e1 of DIN 76-1, for the insert stands ahead of its tooth."""


def seat_of(thread: Thread, side: Side) -> tuple[float, Size]:
    """Nominal diameter and limits of what a thread is cut into: the crest outside, the minor diameter inside."""
    if side == "outside":
        limits, d = thread.external.major, round(thread.d_mm, 6)
    else:
        limits, d = thread.internal.minor, round(thread.internal.minor.min, 4)
    return d, Size(lower_um=round(1000 * (limits.min - d), 1), upper_um=round(1000 * (limits.max - d), 1))


def seated(step: Step, side: Side) -> Step:
    """A step with a thread has the size its thread wants."""
    if step.thread is None:
        return step
    d, size = seat_of(step.thread, side)
    return replace(step, d0=d, size=step.size or size)


def attached(
    placed: list[Placed],
    side: Side,
    tables: LineTables,
    units: System,
    only: int | None = None,
    floor: End | None = None,
) -> list[Any]:
    """Features of the steps of a side, from the front to the back; ``only`` those of one. ``floor`` is the end at which
    a bore has one. Raises `Misread`."""
    found: list[Any] = []
    for index, one in enumerate(placed):
        if only is not None and index != only:
            continue
        step = one.step
        fields: list[dict[str, Any]] = []
        relief = _relief(placed, index, side, tables, units) if step.relief is not None else None
        if step.thread is not None:
            fields.append(_thread(placed, index, side, relief, floor))
        if relief is not None:
            at_shoulder = any(_ends_at_shoulder(placed, index, side))
            fields.append(relief if at_shoulder else _between(relief, one.d0))
        length = round(one.z0 - one.z1, 6)
        if step.knurl is not None:
            lead, trail = (_leg(one, end) for end in ("front", "back"))
            fields.append(
                {
                    "kind": "knurl",
                    "form": step.knurl[0],
                    "pitch_mm": step.knurl[1],
                    "from_z_mm": round(one.z0 - lead, 6),
                    "length_mm": round(length - lead - trail, 6),
                }
            )
        if step.flats is not None:
            count, across = step.flats
            fields.append(
                {
                    "kind": "flats",
                    "count": count,
                    "distance_mm": round(across / 2, 6),
                    "from_z_mm": one.z0,
                    "to_z_mm": one.z1,
                }
            )
        found += [feature_of(f, step.start, step.end) for f in fields]
    return found


def _leg(one: Placed, end: str) -> float:
    """What a corner takes of the length at an end of a step."""
    return max(
        (c.size_mm for c in one.step.corners if c.where in (end, "both") or (not c.where and end == "front")),
        default=0.0,
    )


def _ends_at_shoulder(placed: list[Placed], index: int, side: Side) -> tuple[bool, bool]:
    """Whether a step has an inner corner in front and behind."""
    front = is_edge(placed, index, "front", side) is False
    return front, is_edge(placed, index, "back", side) is False


def _relief(placed: list[Placed], index: int, side: Side, tables: LineTables, units: System) -> dict[str, Any]:
    one = placed[index]
    step = one.step
    assert step.relief is not None
    front, back = _ends_at_shoulder(placed, index, side)
    if not front and not back and (step.thread is None or index == len(placed) - 1):
        raise Misread(
            step.start, step.end, "there is no shoulder for a relief", "put it on a step that meets a larger one"
        )
    piece = Piece([Token("name", "", step.start, step.end)], tables, units)
    pitch = step.thread.pitch_mm if step.thread is not None else None
    fields = relief_fields(piece, step.relief, pitch, one.d0, side)
    z, toward = (one.z0, "back") if front and not back else (one.z1, "front")
    return {**fields, "side": side, "z_mm": z, "toward": toward}


def _between(relief: dict[str, Any], d_mm: float) -> dict[str, Any]:
    """The run-out of a thread that no shoulder ends: as long and as deep as its relief, a groove."""
    inward = -2 if relief["side"] == "outside" else 2
    return {
        "kind": "groove", "side": relief["side"], "z_mm": round(relief["z_mm"] + relief["length_mm"], 6),
        "width_mm": relief["length_mm"], "d_mm": round(d_mm + inward * relief["depth_mm"], 6),
        "floor_round_mm": relief["radius_mm"],
    }  # fmt: skip


def _thread(
    placed: list[Placed], index: int, side: Side, relief: dict[str, Any] | None, floor: End | None
) -> dict[str, Any]:
    """A thread over its whole step, but for a relief or, at a shoulder or a floor, its run-out."""
    one = placed[index]
    thread = one.step.thread
    assert thread is not None
    front, back = _ends_at_shoulder(placed, index, side)
    front = front or (floor == "front" and index == 0)
    back = back or (floor == "back" and index == len(placed) - 1)
    start, length = one.z0, one.z0 - one.z1
    pitches = RUN_OUT_PITCHES if side == "outside" else BLIND_PITCHES
    taken = relief["length_mm"] if relief is not None else pitches * thread.pitch_mm
    if relief is not None or front or back:
        at_front = front and not back
        length -= taken
        start -= taken if at_front else 0.0
    entry = {"entry": "back"} if front and not back else {}
    if length <= 0:
        what = f"{thread.designation} has no room: the step is {one.z0 - one.z1:g} mm long"
        raise Misread(one.step.start, one.step.end, what, "make the step longer")
    return {
        "kind": "thread", "side": side, "designation": one.step.thread_text, "from_z_mm": round(start, 6),
        "length_mm": round(length, 6), **entry,
    }  # fmt: skip
