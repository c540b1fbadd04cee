"""Dimensions on a drawing board, as ISO 129-1 draws them, and balloons that number what is measured."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from toreuma.papers.picture.board import Board

__all__ = ["Balloon", "along", "balloons", "datum_mark", "leader", "rows_of"]

TEXT_MM, OVER_MM, GAP_MM, ARROW_MM = 2.8, 1.5, 0.8, 2.2
LETTER = 0.6
"""Width of a figure over its height."""
BALLOON_MM = 2.9
LEAST_MM = 2 * BALLOON_MM + 0.8
"""From one number in a row to the next."""


def width_of(words: str, size_mm: float = TEXT_MM) -> float:
    """Room some words take on paper, mm."""
    return len(words) * size_mm * LETTER


def along(board: Board, z0: float, z1: float, r0: float, r1: float, y: float, words: str) -> None:
    """A length along Z on a line at ``y`` on paper; its extension lines come from (z0, r0) and (z1, r1)."""
    (xa, ya), (xb, yb) = sorted(((board.x(z0), board.y(r0)), (board.x(z1), board.y(r1))))
    down = 1 if y > max(ya, yb) else -1
    for x, start in ((xa, ya), (xb, yb)):
        board.paper_line([(x, start + down * GAP_MM), (x, y + down * OVER_MM)])
    room = xb - xa
    inside = room >= 2 * ARROW_MM + 1
    fits = room >= width_of(words) + 2
    if inside:
        board.paper_line([(xa, y), (xb, y)])
        board.arrow(xa, y, 1, 0)
        board.arrow(xb, y, -1, 0)
    else:
        board.paper_line([(xa - 3 * ARROW_MM / 2, y), (xb + 3 * ARROW_MM / 2, y)])
        board.arrow(xa, y, -1, 0)
        board.arrow(xb, y, 1, 0)
    if fits:
        board.text((xa + xb) / 2, y - 0.8, words)
        return
    at = xb + (0.0 if inside else 3 * ARROW_MM / 2) + 0.8
    if at + width_of(words) < board.width:
        board.text(at, y - 0.8 if not inside else y + 0.9, words, anchor="start")
    else:
        board.text(xa - (0.8 if inside else 3 * ARROW_MM / 2 + 0.8), y + 0.9, words, anchor="end")


def leader(board: Board, z: float, r: float, x: float, y: float, words: str, anchor: str = "start") -> None:
    """Words at the end of a line that points at a place, with an arrow there."""
    at = (board.x(z), board.y(r))
    end = x + (width_of(words) if anchor == "start" else -width_of(words))
    board.paper_line([at, (x, y), (end, y)])
    board.arrow(*at, x - at[0], y - at[1])
    board.text(x, y - 0.8, words, anchor=anchor)


def datum_mark(board: Board, z: float, r: float, y: float, words: str) -> None:
    """Where a coordinate is nothing: a filled triangle on a line out of the part, with its words."""
    x = board.x(z)
    board.paper_line([(x, board.y(r)), (x, y)], "middle")
    board.polygon([(x - 1.6, y - 2.8), (x + 1.6, y - 2.8), (x, y)])
    board.text(x, y - 3.6, words, bold=True)


@dataclass(frozen=True)
class Balloon:
    """A number and the place (z, r) it stands for, above the axis or, with a negative r, below."""

    number: int
    z: float
    r: float


def balloons(board: Board, wanted: Sequence[Balloon]) -> None:
    """Numbers in circles in rows above and below the drawing, each with a line to its place."""
    for upper in (True, False):
        row = sorted((one for one in wanted if (one.r >= 0) == upper), key=lambda one: board.x(one.z))
        deep = rows_of(len(row), board.width)
        for lane in range(deep):
            _row(board, row[lane::deep], upper, lane)


def rows_of(count: int, width_mm: float) -> int:
    """In so many rows are numbers put on a drawing so wide."""
    return max(1, math.ceil(count * LEAST_MM / max(width_mm - 2 * BALLOON_MM, LEAST_MM)))


def _row(board: Board, row: Sequence[Balloon], upper: bool, lane: int) -> None:
    if not row:
        return
    y = BALLOON_MM + 0.5 + lane * (LEAST_MM + 0.6)
    y = y if upper else board.height - y
    for one, x in zip(row, _spread([board.x(one.z) for one in row], LEAST_MM, board.width), strict=True):
        at = (board.x(one.z), board.y(one.r))
        foot = y + (BALLOON_MM if upper else -BALLOON_MM)
        board.paper_line([(x, foot), at])
        board.circle(*at, 0.45, fill="#000")
        board.circle(x, y, BALLOON_MM, "middle")
        board.text(x, y + 1.0, str(one.number), 2.8, bold=True)


def _spread(places: Sequence[float], least: float, width: float) -> list[float]:
    """Places moved apart to the least distance and kept on the paper, as little as may be."""
    found = list(places)
    low, high = BALLOON_MM + 0.5, width - BALLOON_MM - 0.5
    for _ in range(200):
        moved = False
        for n in range(len(found) - 1):
            short = least - (found[n + 1] - found[n])
            if short > 1e-3:
                found[n] -= short / 2
                found[n + 1] += short / 2
                moved = True
        for n, place in enumerate(found):
            kept = min(max(place, low + n * least), high - (len(found) - 1 - n) * least)
            moved = moved or abs(kept - place) > 1e-3
            found[n] = kept
        if not moved:
            break
    return found
