"""One block in one plain sentence."""

from collections.abc import Sequence

from toreuma.core.geometry.elements import Arc
from toreuma.core.motion import Motion
from toreuma.core.read.spans import Span
from toreuma.core.spoken import q, said

__all__ = ["WORDS", "sentence_of", "words_of"]

WORDS = {
    "rapid": "moves at rapid",
    "line": "cuts straight",
    "arc_clockwise": "cuts an arc with the clock",
    "arc_counter_clockwise": "cuts an arc against the clock",
    "thread": "moves in step with the spindle",
    "dwell": "waits",
    "call": "runs another program",
    "return": "goes back to the program that called",
    "plane": "works in the plane of Z and X",
    "inch": "inches",
    "mm": "millimetres",
    "compensation_off": "the nose goes on the way again",
    "compensation_left": "the nose goes to the left of the way",
    "compensation_right": "the nose goes to the right of the way",
    "clamp": "no speed above",
    "work_offset": "first datum",
    "second_offset": "second datum",
    "datum_3": "third datum",
    "datum_4": "fourth datum",
    "datum_5": "fifth datum",
    "datum_6": "sixth datum",
    "surface_speed": "constant surface speed",
    "fixed_speed": "constant turns",
    "feed_per_minute": "feed per minute",
    "feed_per_rev": "feed per turn",
    "stop": "stops until somebody starts it again",
    "optional_stop": "stops where the switch is on",
    "spindle_forward": "spindle forward",
    "spindle_reverse": "spindle in reverse",
    "spindle_stop": "spindle stops",
    "coolant_on": "coolant on",
    "coolant_off": "coolant off",
    "mist_on": "mist on",
    "end": "the program ends",
    "end_again": "the program ends",
    "reference": "goes to the reference point",
    "reference_straight": "goes to the reference point",
    "second_reference": "goes to the second reference point",
    "machine_place": "goes to a place of the machine",
    "local_shift": "shifts the datum",
    "set_datum": "writes a datum or an offset",
    "absolute": "numbers are places",
    "incremental": "numbers are ways",
    "tool_change": "changes the tool",
    "macro": "runs a program with arguments",
    "cycle_off": "ends the cycle",
    "turn_cycle": "a turning pass of four corners",
    "face_cycle": "a facing pass of four corners",
    "thread_cycle": "a pass of a thread",
    "rough_cycle": "roughs along Z down to a contour",
    "rough_face_cycle": "roughs across down to a contour",
    "pattern_cycle": "cuts a contour again and again",
    "finish_cycle": "finishes along a contour",
    "face_peck_cycle": "pecks along Z",
    "groove_cycle": "pecks along X",
    "whole_thread_cycle": "a whole thread",
    "peck_cycle": "drills in pecks",
    "tap_cycle": "taps",
    "bore_cycle": "bores, out at the feed",
    "drill_cycle": "drills",
    "dwell_drill_cycle": "drills and waits",
    "peck_side_cycle": "drills in the side",
    "tap_side_cycle": "taps in the side",
    "bore_side_cycle": "bores in the side",
    "exact": "stops at the end of the move",
    "exact_on": "stops at the end of every move",
    "through_on": "goes through corners",
    "rigid_tap": "taps in step",
    "orient": "spindle stands at its angle",
    "nothing": "moves neither tool nor work",
    "clamp_work": "the hold closes",
    "unclamp": "the hold opens",
    "c_axis_on": "the work turns as an axis",
    "c_axis_off": "the spindle turns again",
    "live_forward": "the driven tool turns",
    "live_stop": "the driven tool stops",
}


def words_of(name: str) -> str:
    """A meaning in words."""
    return WORDS.get(name, name.replace("_", " "))


def sentence_of(spans: Sequence[Span], motions: Sequence[Motion]) -> str:
    """What a block does: what it switches, and where its moves lead. ``motions`` are those of its line."""
    parts: list[str] = []
    moves = [one for one in motions if one.segment.length > 1e-9]
    for span in spans:
        if span.name and (not moves or span.name not in ("rapid", "line", "arc_clockwise", "arc_counter_clockwise")):
            parts.append(words_of(span.name))
        elif span.kind == "tool":
            parts.append(f"tool {span.text.strip()[1:].lstrip('0') or '0'}")
        elif span.kind == "unknown":
            parts.append(f"{span.text.strip()} is not known")
    text = ", ".join(dict.fromkeys(parts))
    if moves:
        text = said("{}; {}", text, _moves(moves)) if text else _moves(moves)
    if any(one.dwell_s for one in motions):
        text = f"{text} {sum(one.dwell_s for one in motions):g} s".strip()
    if not text and any(span.kind == "comment" for span in spans):
        return "A comment"
    return text[:1].upper() + text[1:] if text else "Nothing"


def _moves(moves: Sequence[Motion]) -> str:
    last = moves[-1]
    z, d = q(last.end[0], "mm", "-.3f"), q(2 * last.end[1], "mm", "-.3f")
    if len(moves) > 1:
        cuts = sum(not one.is_rapid for one in moves)
        return said("{} moves, {} of them cuts, ending at Z {}, Ø {}", len(moves), cuts, z, d)
    if last.is_rapid:
        how = "rapid"
    elif last.in_step:
        how = "in step with the spindle"
    elif isinstance(last.segment, Arc):
        how = said("arc of radius {}", q(last.segment.radius, "mm", ".3f"))
    else:
        how = "straight cut"
    text = said("{} to Z {}, Ø {}", how, z, d)
    if last.feed is None:
        return text
    unit = "mm/min" if last.per_minute else "mm/rev"
    return said("{} at {}", text, q(last.feed, unit, ".4g"))
