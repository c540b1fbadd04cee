"""What flat mills open from one side, layer by layer, as plane regions: how much metal each move really meets.

A move meets what stands between its own level and the lowest one that was opened there before; whoever asks says how
much metal there is in such a column.
"""

from collections.abc import Callable, Iterator

import shapely

from toreuma.core.geometry.region import EMPTY, Region, box

__all__ = ["Layers"]

SAME_MM = 1e-6
FILM_MM2 = 1e-4
"""Areas smaller than this come from chords."""


class Layers:
    """Levels along the axis of the tool, each with the region (u, v) across it that is open down to there."""

    def __init__(self) -> None:
        self._open: dict[float, Region] = {}

    def cut(self, region: Region, level: float, metal_mm3: Callable[[Region, float, float | None], float]) -> float:
        """Open a region down to a level; gives the volume of metal met, mm3.

        ``metal_mm3`` measures the metal over a region from a level up to another, or all above it.
        """
        rest, volume = region, 0.0
        near = {at: self._near(opened, region) for at, opened in self._open.items()}
        for at, opened in near.items():
            if at <= level + SAME_MM:
                rest = rest.difference(opened)
        for at in sorted(near):
            if at > level + SAME_MM and not rest.is_empty:
                under = rest.intersection(near[at])
                volume += metal_mm3(under, level, at) if under.area > FILM_MM2 else 0.0
                rest = rest.difference(near[at])
        if rest.area > FILM_MM2:
            volume += metal_mm3(rest, level, None)
        self._open[level] = shapely.union(self._open.get(level, EMPTY), region)
        return volume

    def copy(self) -> "Layers":
        made = Layers()
        made._open = dict(self._open)
        return made

    def each(self) -> Iterator[tuple[float, Region]]:
        """Every level with what is open down to it."""
        yield from self._open.items()

    @staticmethod
    def _near(opened: Region, region: Region) -> Region:
        u0, v0, u1, v1 = region.bounds
        return shapely.clip_by_rect(opened, u0, v0, u1, v1) if opened.intersects(box(u0, v0, u1, v1)) else EMPTY
