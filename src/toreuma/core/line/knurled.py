"""A knurl that takes only a part of a cylinder parts it: what is knurled is turned smaller before."""

from collections.abc import Sequence
from dataclasses import replace

from toreuma.core.geometry.knurled import ROOM_PITCHES
from toreuma.core.line.elements import end_of_corner
from toreuma.core.line.feature_words import Fields
from toreuma.core.line.place import SAME_MM, Placed

__all__ = ["parted_at_knurls"]


def parted_at_knurls(placed: list[Placed], fields: Sequence[Fields]) -> list[Placed]:
    """The outside with cylinders parted where a knurl on them begins and ends."""
    for knurl in (one for one in fields if one["kind"] == "knurl"):
        begins, ends = knurl["from_z_mm"], knurl["from_z_mm"] - knurl["length_mm"]
        here = next((one for one in placed if one.z0 + SAME_MM >= begins and ends >= one.z1 - SAME_MM), None)
        if here is None:
            continue
        edges = sum(2 * c.size_mm if c.where == "both" else c.size_mm for c in here.step.corners)
        if begins - ends >= here.z0 - here.z1 - ROOM_PITCHES * knurl["pitch_mm"] - edges:
            continue
        for z in (begins, ends):
            placed = _parted(placed, z)
    return placed


def _parted(placed: list[Placed], z: float) -> list[Placed]:
    at = next((n for n, one in enumerate(placed) if one.z0 - SAME_MM > z > one.z1 + SAME_MM), None)
    if at is None or abs(placed[at].d0 - placed[at].d1) > SAME_MM:
        return placed
    one = placed[at]
    ahead, behind = [], []
    for corner in one.step.corners:
        ends = end_of_corner(placed, at, corner, "outside", through=True)
        ahead += [replace(corner, where="front")] if "front" in ends else []
        behind += [replace(corner, where="back")] if "back" in ends else []
    first = replace(one, step=replace(one.step, corners=tuple(ahead)), z1=z)
    # What stands on the step stands on its first part: it is said there once.
    bare = replace(one.step, corners=tuple(behind), thread=None, relief=None, knurl=None, flats=None)
    return [*placed[:at], first, replace(one, step=bare, z0=z), *placed[at + 1 :]]
