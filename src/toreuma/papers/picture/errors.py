"""A first article drawn on the part: at every size that was measured, how far it is off."""

from collections.abc import Sequence
from dataclasses import dataclass

from shapely.affinity import scale as scaled

from toreuma.core.geometry.region import union
from toreuma.core.scene import Scene
from toreuma.papers.picture.board import Board

__all__ = ["ErrorMark", "errors_on_part"]

TALL_MM = 12.0
"""The largest error is drawn so long, mm of the picture."""
LEAST_MM = 0.002
"""Errors below this are not blown up to fill the picture."""
OUT, IN, INK = "#c03a2b", "#2f8f9d", "#1d2327"


@dataclass(frozen=True)
class ErrorMark:
    """``number`` of the line, its place (z, r), and ``error_mm`` over what was aimed at; ``within`` its limits."""

    number: int
    z: float
    r: float
    error_mm: float
    within: bool
    words: str


def errors_on_part(scene: Scene, marks: Sequence[ErrorMark], room: tuple[float, float], ink: str = INK) -> str:
    """An SVG: bars at each size, outward where it came out large; those out of limits are filled and say so."""
    z0, _, z1, high = scene.part.bounds
    side = 14.0
    fits = min((room[0] - 2 * side) / (z1 - z0), (room[1] - 2 * (TALL_MM + 8)) / (2 * high))
    spare = max((room[0] - (z1 - z0) * fits) / 2, side)
    tall = max((room[1] - 2 * high * fits) / 2, TALL_MM + 8)
    board = Board((z0, -high, z1, high), fits, (spare, tall, spare, tall), ink=ink)
    board.region(union([scene.part, scaled(scene.part, 1, -1, origin=(0, 0))]), "middle")
    board.line([(z0 - 3 / fits, 0.0), (z1 + 3 / fits, 0.0)], "centre")
    most = max([LEAST_MM, *(abs(one.error_mm) for one in marks)])
    for one in marks:
        x, y = board.x(one.z), board.y(one.r)
        outward = -1.0 if one.r >= 0 else 1.0
        long = TALL_MM * one.error_mm / most * outward
        colour = IN if one.within else OUT
        board.bar(x - 1.1, y, 2.2, long, colour, filled=not one.within)
        above = min(y, y + long) if outward < 0 else max(y, y + long)
        board.label(x, above - 1.2 if outward < 0 else above + 4.2, one.words, colour, 3.6)
    return board.svg
