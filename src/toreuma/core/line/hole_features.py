"""Holes on the axis and beside it, centres, flats and slots."""

import re

from toreuma.core.geometry.centre_forms import CENTRE_FORMS, CentreForm, cone_mouth
from toreuma.core.line.feature_words import At, Fields, Ground, Waiting, assign, counted, is_assigned, more_of, place_at
from toreuma.core.line.piece import Piece, tidy_thread
from toreuma.core.standards.threads import Thread

__all__ = ["BEHIND_PITCHES", "axial_hole", "centre", "flats", "holes", "slot"]


BEHIND_PITCHES = 5
"""A hole is drilled so much deeper than its full thread, in pitches: about the overhang e1 of DIN 76-1."""


USUAL_PILOTS = ((6.0, 1.0), (10.0, 1.6), (16.0, 2.0), (25.0, 2.5), (40.0, 3.15), (63.0, 4.0), (100.0, 5.0),
                (160.0, 6.3), (1e9, 10.0))  # fmt: skip
"""Diameter up to which, and pilot of ISO 866, mm: typical."""


def holes(piece: Piece) -> Waiting:
    """``6 x 6.6 on 50``, ``4 x M6 x 14 on 70 first 45 back``; ``cross 2 x 5 at 25`` round the outside."""
    start = piece.start
    cross = piece.take("cross")
    count = 1
    counted = piece.is_next("x", "holes", "hole", "off", ahead=1)
    if piece.kind_is("number") and counted and not _lonely(piece, cross):
        count = int(piece.plain("how many holes"))
        piece.take("x", "off")
    cross = piece.take("cross") or cross
    piece.take("holes", "hole")
    token = piece.peek()
    thread = piece.thread()
    d = round(thread.tap_drill_mm, 4) if thread is not None else piece.length("the diameter of the holes")
    fields: Fields = {"kind": "holes", "on": "outside" if cross else "front", "count": count, "d_mm": d}
    if thread is not None and token is not None:
        fields["thread"] = tidy_thread(token.text)
    piece.size(d)
    place: At | None = None
    drilled = False
    while piece.peek() is not None:
        if piece.take("on", "pcd", "bc"):
            if piece.peek() is None and "circle_d_mm" in fields:
                break  # on 60 PCD
            if piece.take("front", "back"):
                fields["on"] = piece.tokens[piece.at - 1].low
            else:
                while piece.take("pcd", "bc", "a", "circle", "pitch", "of"):
                    pass
                fields["circle_d_mm"] = piece.length("the diameter of the hole circle")
        elif piece.take("x", "deep"):
            depth = piece.length("the depth")
            if thread is not None and "thread_length_mm" not in fields:
                fields["thread_length_mm"] = depth
                fields["depth_mm"] = round(depth + BEHIND_PITCHES * thread.pitch_mm, 2)
            else:
                fields["depth_mm"], drilled = depth, True
            piece.take("deep")
        elif piece.take("through", "thru"):
            fields.pop("depth_mm", None)
        elif piece.take("equally", "spaced", "holes", "hole", "equi", "eq", "sp", "circle", "dia"):
            continue
        elif piece.take("front", "back"):
            fields["on"] = piece.tokens[piece.at - 1].low
        elif piece.take("drill"):
            fields["d_mm"] = piece.length("the diameter of the drill")
        elif piece.take("first", "from"):
            fields["start_deg"] = piece.plain("the angle of the first hole")
        elif piece.take("step"):
            fields["step_deg"] = piece.plain("the angle between holes")
        elif piece.is_next("at", "@"):
            place = place_at(piece)
        else:
            more_of(piece, fields)
    if cross and place is None:
        raise piece.wrong("where the holes stand is missing", "type at 38, from the front to their middle")
    if not cross and not fields.get("circle_d_mm"):
        if place is None or fields["on"] != "front":
            raise piece.wrong("the hole circle is missing", "type on 50, its diameter; or at 20, square to the axis")
        fields["on"] = "outside"

    def make(ground: Ground) -> list[Fields]:
        """Holes in a face whose drill would come to the other one go through."""
        through = not drilled and "thread_length_mm" in fields and fields.get("depth_mm", 0.0) >= ground.whole_mm
        if fields["on"] != "outside" and through:
            fields.pop("depth_mm")
        return [{**fields, "z_mm": place.place(ground.whole_mm) if place is not None else 0.0}]

    return Waiting(start, piece.end, make)


def _lonely(piece: Piece, cross: bool) -> bool:
    """``cross 18 x 12 at 38`` has no count: diameter and depth."""
    third = piece.peek(2)
    if not cross or third is None:
        return False
    return "." in piece.tokens[piece.at].text or not (
        piece.is_next("x", "at", "@", "through", ahead=3) or third.kind == "thread"
    )


def axial_hole(piece: Piece) -> Waiting:
    """``hole 8.5 x 30``, ``hole M10 x 20 x 30 back``: full depth, or thread and then drill; no depth is through."""
    start = piece.start
    piece.take("drill", "hole", "tap")
    token = piece.peek()
    thread: Thread | None = piece.thread()
    d = round(thread.tap_drill_mm, 4) if thread is not None else piece.length("the diameter of the hole")
    fields: Fields = {"kind": "axial_hole", "d_mm": d}
    if thread is not None and token is not None:
        fields["thread"] = tidy_thread(token.text)
    drilled = False
    while piece.peek() is not None:
        if piece.take("x", "deep", "tap", "tapped"):
            if piece.peek() is None:
                break
            piece.take("x")
            depth = piece.length("the depth")
            if thread is not None and "thread_length_mm" not in fields:
                fields["thread_length_mm"] = depth
                fields["depth_mm"] = round(depth + BEHIND_PITCHES * thread.pitch_mm, 2)
            elif drilled:
                raise piece.wrong("the depth stands twice", "give one depth to a hole", piece.tokens[piece.at - 1])
            else:
                fields["depth_mm"], drilled = depth, True
            piece.take("deep")
        elif piece.take("through", "thru"):
            fields.pop("depth_mm", None)
        elif piece.take("from"):
            continue
        elif piece.take("front", "back"):
            fields["end"] = piece.tokens[piece.at - 1].low
        elif piece.is_next("point") and is_assigned(piece):
            assign(piece, fields)
        elif piece.take("point"):
            fields["point_deg"] = piece.plain("the point angle")
        elif piece.take("flat"):
            fields["point_deg"] = 180.0
        elif piece.take("drill"):
            fields["d_mm"] = piece.length("the diameter of the drill")
        else:
            more_of(piece, fields)

    def make(ground: Ground) -> list[Fields]:
        """A hole whose drill would come to the back face goes through."""
        through = not drilled and "thread_length_mm" in fields and fields.get("depth_mm", 0.0) >= ground.whole_mm
        return [{name: value for name, value in fields.items() if name != "depth_mm" or not through}]

    return Waiting(start, piece.end, make)


def centre(piece: Piece) -> Waiting:
    """``centre 2.5``, ``centre B2.5/8``, ``centre 2.5 / 5.3 back``, ``centre R 4 both``; the form may stand behind."""
    start = piece.start
    piece.take("centre", "center")
    piece.take("hole", "holes", "drill")
    piece.take("form", "type")
    form = _centre_form(piece)
    usual = piece.peek() is None or piece.is_next("front", "back", "both")
    pilot, mouth = (0.0, 0.0) if usual else _pilot(piece)
    form = form or _centre_form(piece) or "A"
    if mouth is None:
        mouth = piece.length("the diameter of the mouth") if piece.take("/", ">") else cone_mouth(pilot, form)
    ends = ["front"]
    if piece.take("front", "back"):
        ends = [piece.tokens[piece.at - 1].low]
    elif piece.take("both"):
        ends = ["front", "back"]
        piece.take("ends")
    fields: Fields = {"kind": "centre_hole", "form": form, "d_mm": pilot, "mouth_d_mm": mouth}
    more_of(piece, fields)

    def sized(ground: Ground, end: str) -> Fields:
        if not usual:
            return {**fields, "end": end}
        d = _usual_pilot_mm(ground, end)
        return {**fields, "end": end, "d_mm": d, "mouth_d_mm": cone_mouth(d, form)}

    def told(ground: Ground) -> str:
        sizes = sorted({_usual_pilot_mm(ground, end) for end in ends}) if usual else []
        return " and ".join(f"centre {form}{size:g}: usual for its diameter" for size in sizes)

    instead = "for another size write it, such as centre A2.5"
    return Waiting(start, piece.end, lambda ground: [sized(ground, end) for end in ends], told, instead)


def _usual_pilot_mm(ground: Ground, end: str) -> float:
    """The pilot of a centre hole that a shaft of the diameter at an end usually gets, mm."""
    d = ground.d_at("outside", 0.0 if end == "front" else -ground.whole_mm)
    return next(pilot for most, pilot in USUAL_PILOTS if d <= most)


def flats(piece: Piece) -> Waiting:
    """``2 flats 50 x 16 at 0``: across, length, place; ``flat`` alone is from the axis."""
    start = piece.start
    count = counted(piece) if piece.kind_is("number") else 2
    one = piece.take("flat")
    piece.take("flats", "x")
    size = piece.length("the size across the flats")
    while piece.take("across", "af", "flats"):
        pass
    fields: Fields = {"kind": "flats", "count": 1 if one else count}
    fields["distance_mm"] = size if one or count % 2 else round(size / 2, 6)
    length = None
    if piece.take("x"):
        length = piece.length("the length of the flats")
    place = place_at(piece) or At(0.0)
    if piece.take("to"):
        length = abs(piece.length("where the flats end") - (place.mm or 0.0))
    if length is None:
        raise piece.wrong("the length of the flats is missing", "type 2 flats 50 x 16 at 0")
    if piece.take("first"):
        fields["start_deg"] = piece.plain("the angle of the first flat")
    more_of(piece, fields)
    run = length

    def make(ground: Ground) -> list[Fields]:
        z = place.front_edge(ground.whole_mm, run)
        made = {**fields, "from_z_mm": z, "to_z_mm": round(z - run, 6)}
        r = ground.d_at("outside", z - run / 2) / 2
        if one and size > r:  # measured over the flat to the other side
            made["distance_mm"] = round(size - r, 6)
        return [made]

    return Waiting(start, piece.end, make)


def slot(piece: Piece, side: str) -> Waiting:
    """``slot 6 x 3.5 at 10 to 30``, ``12 slots 6 x 4 x 8 at 0 from back``: width, depth, length; ``keyway 6 JS9 x 2.8
    through bore``."""
    start = piece.start
    count = counted(piece)
    face = piece.take("face")
    piece.take("slot", "slots", "keyway", "pocket")
    width = piece.length("the width of the slot")
    limits = piece.size(width)
    note = "a slot is cut to the middle of its limits" if limits else ""
    width = round(width + (limits.middle_mm if limits else 0.0), 6)
    piece.take("wide")
    if not piece.take("x"):
        raise piece.wrong("the depth of the slot is missing", "type width x depth, such as slot 6 x 3.5 at 10 to 30")
    depth, length = _depth_and_length(piece)
    on = "front" if face else side
    fields: Fields = {"kind": "slot", "on": on, "count": count, "width_mm": width, "depth_mm": depth}
    place, through = At(0.0), False
    while piece.peek() is not None:
        if piece.is_next("at", "@", "from"):
            before = piece.at
            place = place_at(piece) or place
            if piece.at == before:
                more_of(piece, fields)
            if piece.take("to"):
                length = abs(piece.length("where the slot ends") - (place.mm or 0.0))
        elif piece.take("inside", "outside", "front", "back"):
            fields["on"] = piece.tokens[piece.at - 1].low
        elif piece.take("on", "the"):
            continue
        elif piece.take("face"):
            fields["on"] = "back" if fields["on"] == "back" else "front"
        elif piece.take("in", "bore"):
            fields["on"] = "inside"
        elif piece.take("through", "thru"):
            through = True
        elif piece.take("first"):
            fields["start_deg"] = piece.plain("the angle of the first slot")
        elif piece.take("square"):
            fields["round_ends"] = False
        elif piece.take("off"):
            fields["off_mm"] = piece.length("how far it is off the axis")
        else:
            more_of(piece, fields)
    if fields["on"] in ("front", "back"):
        fields["length_mm"] = length or 0.0
        return Waiting(start, piece.end, lambda ground: [fields], lambda ground: note)
    if length is None and not through:
        raise piece.wrong("the length of the slot is missing", "type slot 6 x 3.5 at 10 to 30, or through bore")

    def make(ground: Ground) -> list[Fields]:
        run = ground.whole_mm if length is None else length
        z = place.front_edge(ground.whole_mm, run)
        return [{**fields, "from_z_mm": z, "to_z_mm": round(z - run, 6)}]

    return Waiting(start, piece.end, make, lambda ground: note)


def _depth_and_length(piece: Piece) -> tuple[float, float | None]:
    """The depth of a slot, then its length where it is said; ``20 long x 3 deep`` is said the other way round."""
    first = piece.length("the depth of the slot")
    if piece.take("long"):
        if not piece.take("x"):
            raise piece.wrong("the depth of the slot is missing", "type slot 6 x 3.5 x 20, or 20 long x 3.5 deep")
        depth = piece.length("the depth of the slot")
        piece.take("deep")
        return depth, first
    piece.take("deep")
    length = piece.length("the length of the slot") if piece.take("x") else None
    piece.take("long")
    return first, length


def _centre_form(piece: Piece) -> CentreForm | None:
    """The letter of a centre hole's form, if it comes next."""
    return next((one for one in CENTRE_FORMS if piece.take(one.lower())), None)


def _pilot(piece: Piece) -> tuple[float, float | None]:
    """The pilot, and the mouth where both are written like a fraction: ``B5/16`` is no five sixteenths."""
    token = piece.peek()
    if token is not None and token.kind == "number" and piece.system == "mm":
        pair = re.fullmatch(r"(\d+)/(\d+)", token.text.strip())
        if pair:
            piece.at += 1
            return float(pair[1]), float(pair[2])
    return piece.length("the diameter of the pilot"), None
