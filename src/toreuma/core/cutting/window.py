"""The chip window of an insert: the area of feed and depth in which its chip former breaks chips."""

from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

__all__ = ["ChipWindow"]


@dataclass(frozen=True)
class ChipWindow:
    """``corners`` are (feed mm/rev, depth mm) of a convex area; only the part up to ``reach`` of it is used.

    A reach of 0.5 goes to the middle of the window, 1 to its far end. A blade has one depth, its width, and only
    the feeds matter: ``depth_matters`` is False.
    """

    corners: tuple[tuple[float, float], ...]
    reach: float = 0.5
    depth_matters: bool = True

    @cached_property
    def _low(self) -> tuple[float, float]:
        feeds, depths = zip(*self.corners, strict=True)
        return min(feeds), min(depths)

    @cached_property
    def _used(self) -> tuple[tuple[float, float], ...]:
        (f0, a0), share = self._low, self.reach
        return tuple((f0 + share * (f - f0), a0 + share * (a - a0)) for f, a in self.corners)

    @cached_property
    def words(self) -> str:
        """How far it is used."""
        reach = {0.5: "to its middle", 1.0: "to its end"}.get(self.reach, f"to {self.reach:.0%} of it")
        return f"chip window, {reach}"

    @cached_property
    def _sides(self) -> tuple[tuple[float, float, float, float], ...]:
        """Its sides with the shallower end first: depth and feed of both ends."""
        used = self._used
        each = (sorted(((a1, f1), (a2, f2))) for (f1, a1), (f2, a2) in pairwise((*used, used[0])))
        return tuple((*low, *high) for low, high in each)

    @cached_property
    def depths(self) -> tuple[float, float]:
        """Least and largest depth in use, mm."""
        depths = [a for _, a in self._used]
        return min(depths), max(depths)

    def feeds_at(self, ap_mm: float) -> tuple[float, float]:
        """Least and largest feed in use at a depth, mm/rev; beyond the window those at its nearer end."""
        if not self.depth_matters:
            feeds = [f for f, _ in self._used]
            return min(feeds), max(feeds)
        low, high = self.depths
        at = min(max(ap_mm, low), high)
        met = []
        for a1, f1, a2, f2 in self._sides:
            if a1 - 1e-9 <= at <= a2 + 1e-9:
                met += [f1, f2] if a2 - a1 < 1e-9 else [f1 + (f2 - f1) * (at - a1) / (a2 - a1)]
        return min(met), max(met)
