"""A thread said to stand on the shaft that is there: the shaft is parted, for its thread wants limits of its own."""

from dataclasses import replace

from toreuma.core.line.piece import Piece
from toreuma.core.line.place import SAME_MM
from toreuma.core.line.step import CornerWord, Step, read_step

__all__ = ["threaded"]


def threaded(outside: list[Step], piece: Piece, back: bool) -> list[Step]:
    """The steps of the outside with a thread at the front of the first one, or at the back of the last. Raises
    `Misread`."""
    piece.take("thread")
    piece.tokens = [one for one in piece.tokens if one.low not in ("back", "rear", "front", "from")]
    said = read_step(piece)
    shaft = outside[-1 if back else 0]
    whole = shaft.length_mm or 0.0
    length = said.length_mm if said.length_mm is not None else whole
    if length > whole + SAME_MM:
        raise piece.wrong(f"the thread is longer than its shaft, {whole:g} mm", "type a shorter one", piece.tokens[0])
    mine, others = _shared(shaft.corners, back)
    thread = replace(said, length_mm=length, corners=(*said.corners, *mine))
    rest = replace(shaft, length_mm=round(whole - length, 9), corners=others)
    kept = [rest] if whole - length > SAME_MM else []
    if not kept:  # what is said of the shaft is said of its thread
        thread = replace(thread, relief=said.relief or shaft.relief, name=said.name or shaft.name)
    return [*outside[:-1], *kept, thread] if back else [thread, *kept, *outside[1:]]


def _shared(corners: tuple[CornerWord, ...], back: bool) -> tuple[tuple[CornerWord, ...], tuple[CornerWord, ...]]:
    """Corners of the thread's end, and those of what is left of the shaft."""
    own, other = ("back", "front") if back else ("front", "back")
    mine = [replace(one, where=own) for one in corners if one.where in ("", own, "both")]  # type: ignore[arg-type]
    rest = [replace(one, where=other) for one in corners if one.where in (other, "both")]  # type: ignore[arg-type]
    return tuple(mine), tuple(rest)
