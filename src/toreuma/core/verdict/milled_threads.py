"""The row of a thread that a mill made in a hole beside the axis."""

from collections.abc import Sequence
from dataclasses import replace

from toreuma.core.geometry.milled import Sunk
from toreuma.core.model import ThreadForm
from toreuma.core.model.tool import ThreadMill
from toreuma.core.prove.orbits import Chord, orbit_of
from toreuma.core.spoken import q, said
from toreuma.core.verdict.makers import Makers
from toreuma.core.verdict.row import Made, Row
from toreuma.core.verdict.side import SideMade

__all__ = ["milled_thread_row"]

LEAD_SHARE = 0.02
FULL_FROM_PITCHES = 0.5
"""The thread is full so far above the end of the mill."""

DEPTH_PITCHES, DEPTH_MM = 1.0, 0.05
SAME_GROOVE_PITCHES = 0.02
SIZE_MM = 0.002


def milled_thread_row(
    row: Row, chords: Sequence[Chord], place: Sunk, form: ThreadForm, side: SideMade, number: int, makers: Makers
) -> Row:
    """Pitch, hand, pitch diameter and depth of what the turns of a mill leave in one hole."""
    tool = next((one for one in side.job.tools if one.station == chords[0].station), None)
    section = next((one.section for one in side.proof.program.motions if one.line == chords[0].line), -1)
    maker = makers.of_section(number, section)
    made = Made(number, maker.operation if maker else "", chords[0].line)
    orbit = orbit_of(chords, place.middle, form.pitch_mm, SAME_GROOVE_PITCHES * form.pitch_mm)
    if not isinstance(tool, ThreadMill) or orbit is None:
        return replace(row, state="open", found="drilled", left="no mill goes a whole turn round in every hole",
                       cure="a thread-milling operation", made=made)  # fmt: skip
    pitch_d = 2 * orbit.radius + tool.pitch_d_mm(form.pitch_mm)
    top = orbit.high + (tool.flute_length_mm if tool.rows == "all" else 0.0)
    full = min(top, place.top) - orbit.low - FULL_FROM_PITCHES * form.pitch_mm
    found = said("pitch Ø {}, {} of full thread", q(pitch_d, "mm", ".3f"), q(full))
    wrong = _wrong(form, orbit.lead_mm, orbit.in_step, pitch_d, tool)
    if wrong:
        return replace(
            row, state="wrong", found=found, left=wrong, cure="the mill on the thread's own helix", made=made
        )
    wanted = place.top - (place.level if place.threaded_to is None else place.threaded_to)
    least = wanted - (DEPTH_PITCHES * form.pitch_mm if place.threaded_to is None else DEPTH_MM)
    if top < place.top - form.pitch_mm or full < least:
        left = said("{} of full thread are wanted", q(wanted))
        return replace(row, state="open", found=found, left=left, cure="deeper turns, or more of them", made=made)
    return replace(row, state="made", found=found, left="", cure="", made=made)


def _wrong(form: ThreadForm, lead: float, in_step: bool, pitch_d: float, tool: ThreadMill) -> str:
    """What is wrong with the thread; empty where nothing is."""
    wanted = -form.lead_mm if form.left_hand else form.lead_mm
    several = tool.rows == "all" and form.starts > 1
    if abs(lead - wanted) > LEAD_SHARE * form.pitch_mm or several:
        if abs(lead + wanted) <= LEAD_SHARE * form.pitch_mm:
            return "it comes out of the other hand"
        return said("a lead of {} is wanted, the mill climbs {} a turn", q(form.lead_mm, "mm", "g"), q(abs(lead)))
    if not in_step:
        return "turns of the mill do not follow the grooves of those before"
    low, high = form.pitch_d_mm
    if not low - SIZE_MM <= pitch_d <= high + SIZE_MM:
        limits = q(low, "mm", ".3f", bare=True), q(high, "mm", ".3f")
        return said("its pitch diameter is {}, limits {} to {}", q(pitch_d, "mm", ".3f"), *limits)
    return ""
