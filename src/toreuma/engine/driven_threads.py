"""Threads that a mill goes round in holes beside the axis, by the standard one of their size and lead."""

from collections.abc import Sequence

from toreuma.core.geometry.milled import sunk_of
from toreuma.core.geometry.region import Region
from toreuma.core.model import HolePattern, ThreadForm
from toreuma.core.model.tool import ThreadMill
from toreuma.core.motion import Motion
from toreuma.core.prove.orbits import Orbit, chord_of, is_at, orbit_of
from toreuma.core.standards.threads import thread_of
from toreuma.core.standards.threads.form import form_of
from toreuma.engine.written_threads import standard_names
from toreuma.shipped.standards import thread_tables

__all__ = ["MilledThread", "milled_thread"]

SAME_MM = 0.02
FLAT_SHARE = 0.6495
"""Of the pitch: from the pitch diameter to the nominal one (ISO 68-1)."""

NEAR_SHARE = 0.3
"""Of the lead: so much wider or narrower than its nominal size a thread may come out."""

FULL_FROM_PITCHES = 0.5
"""It is full so far above the end of the mill."""

MilledThread = tuple[ThreadForm, float]
"""The thread, and the level down to which it is full, mm."""


def milled_thread(cuts: Sequence[Motion], tool: ThreadMill, pattern: HolePattern, part: Region) -> MilledThread | None:
    """The thread that every hole of a pattern gets; None where one of them gets none or another."""
    chords = [one for one in (chord_of(motion, tool) for motion in cuts) if one is not None]
    orbits: list[Orbit] = []
    for place in sunk_of(0, pattern, part):
        here = [one for one in chords if is_at(one, place, place.d_mm)]
        orbit = orbit_of(here, place.middle, tool.pitch_mm[0], SAME_MM)
        if orbit is None or (orbits and abs(orbit.lead_mm - orbits[0].lead_mm) > SAME_MM):
            return None
        orbits.append(orbit)
    first = orbits[0]
    lead = round(abs(first.lead_mm), 3)
    size = 2 * first.radius + tool.pitch_d_mm(lead) + FLAT_SHARE * lead
    name = next(iter(standard_names(size, lead, NEAR_SHARE * lead)), "")
    if not name:
        return None
    name = f"{name}-LH" if first.lead_mm < 0 else name
    return form_of(thread_of(name, thread_tables()), "inside", name), first.low + FULL_FROM_PITCHES * lead
