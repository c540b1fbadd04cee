"""Bores that are much wider in front than behind are drilled in two steps, the wide one first: the long drill of the
narrow place then has less to go, and a bar less to cut."""

from collections.abc import Callable, Sequence
from dataclasses import replace
from itertools import pairwise

from toreuma.core.advise.wishes import LEAST_DRILLED_MM, PIERCED_SHARE, Wish
from toreuma.core.geometry.part_shape import PartShape
from toreuma.core.geometry.region import box
from toreuma.core.scene import Scene

__all__ = [
    "FRONT_KEY",
    "FRONT_WORDS",
    "before_it_widens",
    "in_front_only",
    "is_pierced",
    "is_wider",
    "narrows_at",
    "opens_behind",
    "with_front_drilled",
]

FRONT_KEY, FRONT_WORDS = "drill bore front", "Drill the front of the bore"
WIDER, LEAST_STEP_MM, LEAST_LONG = 1.6, 1.5, 0.8
"""So much wider a front is drilled by itself: over what is behind, on radius, and as long in its own diameters."""
CORE_SHARE = 0.8
"""Looked at inside this share of the narrow place."""
PAST_MM, BEHIND_STEP_MM = 1.0, 0.75
"""A narrow drill goes so far into what is drilled wider from the other end; on radius, what is wider to a bar."""
INSIDE_MM, FAR_MM = 0.05, 1e4


def with_front_drilled(scene: Scene, wishes: Sequence[Wish]) -> tuple[Wish, ...]:
    """The wishes with a drill for the wide front of the bore before the one for the rest, where there is one; or
    before the bars, where the rest is drilled and they do not go into so narrow a hole."""
    end = narrows_at(scene)
    before = ("drill bore",) if end is None or not _is_tight(scene, end) else ("drill bore", "rough bore")
    at = next((n for n, one in enumerate(wishes) if one.key in before), None)
    if at is None or end is None:
        return tuple(wishes)
    front = Wish(key=FRONT_KEY, use="drill", words=FRONT_WORDS)
    return (*wishes[:at], front, *wishes[at:])


def _is_tight(scene: Scene, end_z: float) -> bool:
    """The hole in the wide front is so narrow that it is drilled up before a bar goes in."""
    front = scene.stock.intersection(box(end_z, 0.0, scene.profile.front_z, FAR_MM))
    bore = scene.shape.bore
    if front.is_empty or bore is None:
        return False
    before = (one for one in bore.segments[1:-1] if one.start[0] > end_z + INSIDE_MM)
    wide = min((r for one in before for _, r in (one.start, one.end)), default=0.0)
    hole = float(front.bounds[1])
    return hole < PIERCED_SHARE * wide and wide - hole > LEAST_DRILLED_MM


def narrows_at(scene: Scene) -> float | None:
    """Where the wide front of the bore ends, along Z; None where it has none worth a drill of its own."""
    bore = scene.shape.bore
    if bore is None:
        return None
    places = [point for s in bore.segments[1:-1] for point in (s.start, s.end) if point[1] > INSIDE_MM]
    narrow = min((r for _, r in places), default=0.0)
    first = next((n for n, (_, r) in enumerate(places) if not _is_wide(r, narrow)), len(places))
    if first in (0, len(places)):
        return None
    end = min(z for z, _ in places[:first])
    least = min(r for _, r in places[:first])
    return end if scene.profile.front_z - end >= LEAST_LONG * 2 * least else None


def _is_wide(r: float, narrow: float) -> bool:
    return r >= WIDER * narrow and r - narrow >= LEAST_STEP_MM


def is_wider(r: float, narrow: float) -> bool:
    """By as much as a bar from the other end cuts plainly, and one from this end does not get behind."""
    return r - narrow >= BEHIND_STEP_MM


def before_it_widens(
    scene: Scene, past_mm: float = PAST_MM, is_wide: Callable[[float, float], bool] = _is_wide
) -> tuple[Scene, float] | None:
    """The scene as if the blank ended where the bore widens again or a little behind, and how deep that is, mm: from
    the other end the rest is cut wider. None where it does not widen."""
    bore = scene.shape.bore
    if bore is None:
        return None
    places = [point for s in bore.segments[1:-1] for point in (s.start, s.end) if point[1] > INSIDE_MM]
    narrow = min((r for _, r in places), default=0.0)
    last = max((n for n, (_, r) in enumerate(places) if not is_wide(r, narrow)), default=len(places))
    if last + 1 >= len(places):
        return None
    end = places[last][0] - past_mm
    cut = replace(scene, stock=scene.stock.intersection(box(end, 0, FAR_MM, FAR_MM)))
    return cut, -end


def opens_behind(shape: PartShape, least_mm: float = 0.0) -> bool:
    """The bore is wider behind its narrowest place, all the way to the back and so far along it: plain to see from the
    other end."""
    if shape.bore is None:
        return False
    places = [point for s in shape.bore.segments[1:-1] for point in (s.start, s.end) if point[1] > INSIDE_MM]
    narrow = min((r for _, r in places), default=0.0)
    last = max((n for n, (_, r) in enumerate(places) if r < narrow + INSIDE_MM), default=len(places))
    behind = places[last:]
    opens = len(behind) > 1 and all(a[1] <= b[1] + INSIDE_MM for a, b in pairwise(behind))
    return opens and behind[0][0] - behind[-1][0] >= least_mm


def is_pierced(scene: Scene) -> bool:
    """Nothing stands in the narrow place of the bore any more."""
    bore = scene.shape.bore
    if bore is None or scene.shape.void is None:
        return True
    narrow = min((r for s in bore.segments[1:-1] for _, r in (s.start, s.end) if r > INSIDE_MM), default=0.0)
    low = float(scene.shape.void.bounds[0])
    return bool(scene.stock.intersection(box(low, 0.0, FAR_MM, CORE_SHARE * narrow)).area < INSIDE_MM**2)


def in_front_only(scene: Scene) -> Scene:
    """The scene as if the blank ended where the wide front of the bore does."""
    end = narrows_at(scene)
    if end is None:
        return scene
    return replace(scene, stock=scene.stock.intersection(box(end + INSIDE_MM, 0, FAR_MM, FAR_MM)))
