"""Pieces that are features of their own: grooves, threads, holes, flats, slots, knurls, reliefs, centres."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from pydantic import TypeAdapter, ValidationError

from toreuma.core.line.fault import Misread
from toreuma.core.line.piece import Piece, tidy_thread
from toreuma.core.line.reliefs import relief_fields
from toreuma.core.line.step import ReliefWord
from toreuma.core.model import Feature
from toreuma.core.standards.threads import Thread

__all__ = ["FEATURE_WORDS", "Ground", "Waiting", "feature_of", "read_feature"]

FEATURE: TypeAdapter[Any] = TypeAdapter(Feature)

COUNTED = ("g", "groove", "grooves", "v", "slot", "slots", "hole", "holes", "cross", "flats", "drill")
"""What there may be several of."""

Fields = dict[str, Any]
CENTRE_SIZES = ((1.0, 2.12), (1.6, 3.35), (2.0, 4.25), (2.5, 5.3), (3.15, 6.7), (4.0, 8.5), (6.3, 13.2))
"""Pilot and mouth of centre holes form A (ISO 6411, ISO 866), mm."""


@dataclass(frozen=True)
class Ground:
    """What a feature may ask of the part it stands on: its whole length, mm, and the diameter of a side at a Z."""

    whole_mm: float
    d_at: Callable[[str, float], float]


@dataclass(frozen=True)
class Waiting:
    """A feature whose place waits for the length of the part; ``make`` gives its fields, one set per feature."""

    start: int
    end: int
    make: Callable[["Ground"], list[Fields]]
    note: str = ""
    """What was understood otherwise than written, for the person to read."""


def feature_of(fields: Fields, start: int, end: int) -> Any:
    """A feature of the model. Raises `Misread` where its numbers cannot be."""
    try:
        return FEATURE.validate_python(fields)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        name = str(first["loc"][-1]).rsplit("_", 1)[0].replace("_", " ")
        raise Misread(
            start, end, f"{name} {first['msg'][0].lower()}{first['msg'][1:]}", "type another number"
        ) from None


@dataclass(frozen=True)
class _At:
    """Where along Z: from the front or the back face, or in the middle."""

    mm: float | None
    from_back: bool = False
    middle: bool = False

    def front_edge(self, whole_mm: float, width_mm: float) -> float:
        """Z of the edge nearer the front of something so wide, whose nearer edge stands there."""
        if self.middle:
            return round(-(whole_mm - width_mm) / 2, 6)
        if self.from_back:
            return round(-whole_mm + (self.mm or 0.0) + width_mm, 6)
        return round(-(self.mm or 0.0), 6)

    def place(self, whole_mm: float) -> float:
        return self.front_edge(whole_mm, 0.0)


def _at(piece: Piece, required: str = "") -> _At | None:
    """``at 12``, ``at 12 from back``, ``at middle``, ``@12``."""
    if not piece.take("at", "@"):
        if required:
            raise piece.wrong(f"where the {required} stands is missing", "type at 12, or at 12 from back")
        return None
    if piece.take("middle", "centre", "center"):
        return _At(None, middle=True)
    if piece.take("front"):
        return _At(0.0)
    if piece.take("back"):
        return _At(0.0, from_back=True)
    mm = piece.length("the place")
    if piece.take("from"):
        if piece.take("front"):
            return _At(mm)
        if not piece.take("back", "rear"):
            raise piece.wrong("'from' is not finished", "type from back")
        return _At(mm, from_back=True)
    return _At(mm)


def _more(piece: Piece, fields: Fields) -> None:
    """What is left: a name, and anything else of the feature as ``field=value``."""
    while (token := piece.peek()) is not None:
        if token.kind == "name":
            piece.at += 1
            fields["name"] = token.text.strip("'“”")
        elif token.kind == "word" and _assigned(piece):
            _assign(piece, fields)
        else:
            raise piece.wrong(f"'{token.text}' does not belong here", "see F1 for what this piece may say")


def _assigned(piece: Piece) -> bool:
    ahead = 1
    while (token := piece.peek(ahead)) is not None and token.kind == "word":
        ahead += 1
    return piece.is_next("=", ahead=ahead)


def _assign(piece: Piece, fields: Fields) -> None:
    words, first = [], piece.peek()
    while (token := piece.take_kind("word")) is not None:
        words.append(token.low)
    piece.take("=")
    stem = "_".join(words)
    word = piece.take_kind("word")
    if word is not None:
        fields[stem] = {"yes": True, "no": False}.get(word.low, word.text)
        return
    if stem in ("start", "step", "wall", "point"):
        fields[f"{stem}_deg"] = piece.plain("an angle")
    elif stem == "count":
        fields[stem] = round(piece.plain("a number"))
    else:
        if not piece.kind_is("number") and not piece.is_next("-"):
            raise piece.wrong("a value is missing", "type name=value", first)
        fields[f"{stem}_mm"] = piece.length("a length")


def _groove(piece: Piece, side: str) -> Waiting:
    """``g 3 x 24 at 12``: width, diameter of the floor, front edge; several places with commas or a pitch."""
    start = piece.start
    count = _count(piece)
    piece.take("g", "groove", "v")
    vee = piece.tokens[piece.at - 1].low == "v"
    if count == 1:
        count = _count(piece)
    first, floor_size = piece.length("the width of the groove"), None
    width_size = piece.size(first)
    sharp = vee and not piece.is_next("x")
    if sharp:
        floor, width = first, 0.0
    else:
        if not piece.take("x"):
            raise piece.wrong("the diameter of the floor is missing", "type width x floor, such as g 3 x 24 at 12")
        width, floor = first, piece.length("the diameter of the floor")
        floor_size = piece.size(floor)
    width, floor = (round(n + (s.middle_mm if s else 0.0), 6) for n, s in ((width, width_size), (floor, floor_size)))
    note = "a groove is cut to the middle of its limits" if width_size or floor_size else ""
    fields: Fields = {"kind": "groove", "side": side, "width_mm": width, "d_mm": floor}
    places: list[_At] = []
    pitch = None
    while (token := piece.peek()) is not None:
        if piece.is_next("at", "@") or (piece.is_next(",", "&", "and") and places):
            if piece.take(",", "&", "and"):
                mm = piece.length("the next place")
                places.append(_At(mm, places[-1].from_back))
            else:
                places.append(_at(piece, "groove"))  # type: ignore[arg-type]
        elif piece.take("pitch"):
            pitch = piece.length("the pitch")
        elif piece.take("angle"):
            fields["wall_deg"] = piece.plain("the angle between the walls") / 2
        elif token.kind == "word" and _assigned(piece):
            _assign(piece, fields)
        elif piece.take("wall"):
            fields["wall_deg"] = piece.plain("the angle of a wall")
        elif piece.take("r"):
            fields["floor_round_mm"] = piece.length("the radius of the floor corners")
        elif piece.take("break", "c"):
            fields["edge_break_mm"] = piece.length("the edge break")
        elif token.kind == "name" or (token.kind == "word" and _assigned(piece)):
            _more(piece, fields)
        else:
            raise piece.wrong(
                f"'{token.text}' is not understood in a groove", "expected at 12, r0.4, break 0.2, angle 40"
            )
    if vee and "wall_deg" not in fields:
        raise piece.wrong("a V groove needs its angle", "type angle 40, between the walls")
    if not places:
        raise piece.wrong("where the groove stands is missing", "type at 12, at 12 from back, or at middle")
    if count > 1 and pitch is None and len(places) == 1:
        raise piece.wrong("how far the grooves are apart is missing", "type pitch 6, or every place: at 6, 12, 18")

    def make(ground: Ground) -> list[Fields]:
        found = []
        for place in places:
            wide = width or _sharp_width(ground.d_at(side, place.place(ground.whole_mm)), floor, fields["wall_deg"])
            z = place.front_edge(ground.whole_mm, wide)
            step = (pitch or 0.0) * (-1 if place.from_back else 1)
            run = range(count if pitch else 1)
            found += [{**fields, "width_mm": wide, "z_mm": round(z - i * step, 6)} for i in run]
        return found

    return Waiting(start, piece.end, make, note)


def _sharp_width(d_mm: float, floor_mm: float, wall_deg: float) -> float:
    """Width at the surface of a V whose walls meet on the floor, a little more so that they do."""
    return math.ceil(1000 * abs(d_mm - floor_mm) * math.tan(math.radians(wall_deg))) / 1000


def _count(piece: Piece) -> int:
    """``6 x`` or ``6`` in front of what there are several of."""
    token = piece.peek()
    if token is None or token.kind != "number" or "." in token.text or not 1 < token.plain <= 720:
        return 1
    if piece.is_next("x", ahead=1):
        if not piece.is_next(*COUNTED, ahead=2):
            return 1
        piece.at += 2
    elif piece.is_next("off", *COUNTED, ahead=1):
        piece.at += 1
    else:
        return 1
    return int(token.plain)


def _face_groove(piece: Piece) -> Waiting:
    """``face g 92 > 84 x 2.9 back``: both walls, depth, which face."""
    start = piece.start
    piece.take("face")
    piece.take("g", "groove")
    one = piece.length("the diameter of the outer wall")
    if not piece.take(">", "-", "/"):
        raise piece.wrong("the diameter of the other wall is missing", "type both: face g 92 > 84 x 2.9")
    other = piece.length("the diameter of the inner wall")
    if not piece.take("x"):
        raise piece.wrong("the depth is missing", "type face g 92 > 84 x 2.9")
    depth = piece.length("the depth")
    high, low = max(one, other), min(one, other)
    fields: Fields = {"kind": "face_groove", "d_mm": high, "width_mm": round((high - low) / 2, 6), "depth_mm": depth}
    while piece.peek() is not None:
        if piece.take("front", "back"):
            fields["end"] = piece.tokens[piece.at - 1].low
        elif piece.take("r"):
            fields["floor_round_mm"] = piece.length("the radius of the floor corners")
        elif piece.is_next("wall") and not _assigned(piece) and piece.take("wall"):
            fields["wall_deg"] = piece.plain("the angle of a wall")
        elif not piece.take("in", "on", "the", "face"):
            _more(piece, fields)
    return Waiting(start, piece.end, lambda ground: [fields])


def _thread(piece: Piece, side: str) -> Waiting:
    """``thread M24x2 x 20 at 10``: a thread on a surface that is there."""
    start = piece.start
    piece.take("thread")
    token = piece.peek()
    thread = piece.thread()
    if thread is None or token is None:
        raise piece.wrong("the thread is missing", "type its designation, such as M24x2-6g or 1/2-13 UNC")
    fields: Fields = {"kind": "thread", "side": side, "designation": tidy_thread(token.text)}
    if piece.take("x", "long"):
        fields["length_mm"] = piece.length("the length of full thread")
    place = _at(piece) or _At(0.0)
    if "length_mm" not in fields:
        raise piece.wrong("the length of the thread is missing", "type x 20 behind it")
    _more(piece, fields)
    length = fields["length_mm"]
    return Waiting(
        start, piece.end, lambda ground: [{**fields, "from_z_mm": place.front_edge(ground.whole_mm, length)}]
    )


def _relief(piece: Piece, side: str) -> Waiting:
    """``relief F 0.6x0.3 at 26``: in the corner there, the relieved cylinder toward the front unless it says back."""
    start = piece.start
    piece.take("relief", "undercut")
    if piece.take("sizes"):
        return _sized_relief(piece, start, side)
    form = "E"
    pitch: float | None = None
    token = piece.take_kind("word") if piece.is_next("e", "f", "for", "thread") else None
    if token is not None and token.low in ("e", "f"):
        form = token.text.upper()
    elif token is not None:
        piece.take("pitch")
        thread = piece.thread()
        pitch = thread.pitch_mm if thread else piece.length("the pitch")
    first = second = None
    if pitch is None and piece.kind_is("number"):
        first = piece.length("the radius")
        if not piece.take("x"):
            raise piece.wrong("the depth of the relief is missing", "type radius x depth, such as F 0.6x0.3")
        second = piece.length("the depth")
    fields = relief_fields(piece, ReliefWord("" if pitch else form, first, second), pitch, 0.0)
    place = _at(piece, "relief")
    assert place is not None
    fields["toward"] = "back" if piece.take("back") else "front"
    piece.take("front")
    _more(piece, fields)
    return Waiting(start, piece.end, lambda ground: [{"side": side, **fields, "z_mm": place.place(ground.whole_mm)}])


def _sized_relief(piece: Piece, start: int, side: str) -> Waiting:
    """``relief sizes F radius=0.6 depth=0.3 length=2.5 face depth=0.2 at 26``: every size typed."""
    fields: Fields = {"kind": "relief", "form": "E", "side": side}
    if piece.take("thread"):
        if piece.take("="):
            piece.take("yes")
        fields["form"] = "thread"
    elif piece.is_next("e", "f"):
        fields["form"] = piece.tokens[piece.at].text.upper()
        piece.at += 1
    place: _At | None = None
    while piece.peek() is not None:
        if piece.is_next("at", "@"):
            place = _at(piece)
        elif piece.is_next("back", "front") and not piece.is_next("=", ahead=1):
            fields["toward"] = piece.tokens[piece.at].low
            piece.at += 1
        else:
            token = piece.peek()
            if token is not None and token.kind == "word" and _assigned(piece):
                _assign(piece, fields)
            else:
                _more(piece, fields)
    if place is None:
        raise piece.wrong("where the relief stands is missing", "type at 26")
    return Waiting(start, piece.end, lambda ground: [{**fields, "z_mm": place.place(ground.whole_mm)}])


def _holes(piece: Piece) -> Waiting:
    """``6 x 6.6 on 50``, ``4 x M6 x 14 on 70 first 45 back``; ``cross 2 x 5 at 25`` round the outside."""
    start = piece.start
    cross = piece.take("cross")
    count = 1
    counted = piece.is_next("x", "holes", "hole", ahead=1)
    if piece.kind_is("number") and counted and not _lonely(piece, cross):
        count = int(piece.plain("how many holes"))
        piece.take("x")
    cross = piece.take("cross") or cross
    piece.take("holes", "hole")
    token = piece.peek()
    thread = piece.thread()
    d = round(thread.tap_drill_mm, 4) if thread is not None else piece.length("the diameter of the holes")
    fields: Fields = {"kind": "holes", "on": "outside" if cross else "front", "count": count, "d_mm": d}
    if thread is not None and token is not None:
        fields["thread"] = tidy_thread(token.text)
    piece.size(d)
    place: _At | None = None
    while piece.peek() is not None:
        if piece.take("on", "pcd", "bc"):
            if piece.take("front", "back"):
                fields["on"] = piece.tokens[piece.at - 1].low
            else:
                fields["circle_d_mm"] = piece.length("the diameter of the hole circle")
        elif piece.take("x", "deep"):
            fields["depth_mm"] = piece.length("the depth")
            piece.take("deep")
        elif piece.take("through", "thru"):
            fields.pop("depth_mm", None)
        elif piece.take("front", "back"):
            fields["on"] = piece.tokens[piece.at - 1].low
        elif piece.take("drill"):
            fields["d_mm"] = piece.length("the diameter of the drill")
        elif piece.take("first", "from"):
            fields["start_deg"] = piece.plain("the angle of the first hole")
        elif piece.take("step"):
            fields["step_deg"] = piece.plain("the angle between holes")
        elif piece.is_next("at", "@"):
            place = _at(piece)
        else:
            _more(piece, fields)
    if cross and place is None:
        raise piece.wrong("where the holes stand is missing", "type at 38, from the front to their middle")
    if not cross and not fields.get("circle_d_mm"):
        raise piece.wrong("the hole circle is missing", "type on 50, its diameter")
    return Waiting(
        start,
        piece.end,
        lambda ground: [{**fields, "z_mm": place.place(ground.whole_mm) if place is not None else 0.0}],
    )


def _lonely(piece: Piece, cross: bool) -> bool:
    """``cross 18 x 12 at 38`` has no count: diameter and depth."""
    third = piece.peek(2)
    if not cross or third is None:
        return False
    return "." in piece.tokens[piece.at].text or not (
        piece.is_next("x", "at", "@", "through", ahead=3) or third.kind == "thread"
    )


def _axial_hole(piece: Piece) -> Waiting:
    """``hole 8.5 x 30``, ``hole M10 x 20 x 30 back``: full depth, or thread and then drill; no depth is through."""
    start = piece.start
    piece.take("drill", "hole", "tap")
    token = piece.peek()
    thread: Thread | None = piece.thread()
    d = round(thread.tap_drill_mm, 4) if thread is not None else piece.length("the diameter of the hole")
    fields: Fields = {"kind": "axial_hole", "d_mm": d}
    if thread is not None and token is not None:
        fields["thread"] = tidy_thread(token.text)
    while piece.peek() is not None:
        if piece.take("x", "deep"):
            depth = piece.length("the depth")
            if thread is not None and "thread_length_mm" not in fields:
                fields["thread_length_mm"] = depth
                fields["depth_mm"] = round(depth + 5 * thread.pitch_mm, 2)
            else:
                fields["depth_mm"] = depth
            piece.take("deep")
        elif piece.take("through", "thru"):
            fields.pop("depth_mm", None)
        elif piece.take("from"):
            continue
        elif piece.take("front", "back"):
            fields["end"] = piece.tokens[piece.at - 1].low
        elif piece.is_next("point") and _assigned(piece):
            _assign(piece, fields)
        elif piece.take("point"):
            fields["point_deg"] = piece.plain("the point angle")
        elif piece.take("flat"):
            fields["point_deg"] = 180.0
        elif piece.take("drill"):
            fields["d_mm"] = piece.length("the diameter of the drill")
        else:
            _more(piece, fields)
    return Waiting(start, piece.end, lambda ground: [fields])


def _centre(piece: Piece) -> Waiting:
    """``centre 2.5``, ``centre 2.5 / 5.3 back``, ``centre 4 both``."""
    start = piece.start
    piece.take("centre", "center")
    piece.take("hole", "holes", "a")
    pilot = piece.length("the diameter of the pilot")
    mouth = next((m for p, m in CENTRE_SIZES if abs(p - pilot) < 0.01), round(2.12 * pilot, 3))
    if piece.take("/", ">"):
        mouth = piece.length("the diameter of the mouth")
    ends = ["front"]
    if piece.take("front", "back"):
        ends = [piece.tokens[piece.at - 1].low]
    elif piece.take("both"):
        ends = ["front", "back"]
        piece.take("ends")
    fields: Fields = {"kind": "centre_hole", "d_mm": pilot, "mouth_d_mm": mouth}
    _more(piece, fields)
    return Waiting(start, piece.end, lambda ground: [{**fields, "end": end} for end in ends])


def _flats(piece: Piece) -> Waiting:
    """``2 flats 50 x 16 at 0``: across, length, place; ``flat`` alone is from the axis."""
    start = piece.start
    count = _count(piece) if piece.kind_is("number") else 2
    one = piece.take("flat")
    piece.take("flats", "x")
    size = piece.length("the size across the flats")
    piece.take("across")
    fields: Fields = {"kind": "flats", "count": 1 if one else count}
    fields["distance_mm"] = size if one or count % 2 else round(size / 2, 6)
    length = None
    if piece.take("x"):
        length = piece.length("the length of the flats")
    place = _at(piece) or _At(0.0)
    if piece.take("to"):
        length = abs(piece.length("where the flats end") - (place.mm or 0.0))
    if length is None:
        raise piece.wrong("the length of the flats is missing", "type 2 flats 50 x 16 at 0")
    if piece.take("first"):
        fields["start_deg"] = piece.plain("the angle of the first flat")
    _more(piece, fields)
    run = length

    def make(ground: Ground) -> list[Fields]:
        z = place.front_edge(ground.whole_mm, run)
        return [{**fields, "from_z_mm": z, "to_z_mm": round(z - run, 6)}]

    return Waiting(start, piece.end, make)


def _slot(piece: Piece, side: str) -> Waiting:
    """``slot 6 x 3.5 at 10 to 30``, ``12 slots 6 x 4 x 8 at 0 from back``: width, depth, length."""
    start = piece.start
    count = _count(piece)
    face = piece.take("face")
    piece.take("slot", "slots", "keyway", "pocket")
    width = piece.length("the width of the slot")
    if not piece.take("x"):
        raise piece.wrong("the depth of the slot is missing", "type width x depth, such as slot 6 x 3.5 at 10 to 30")
    depth = piece.length("the depth of the slot")
    on = "front" if face else side
    fields: Fields = {"kind": "slot", "on": on, "count": count, "width_mm": width, "depth_mm": depth}
    length = piece.length("the length of the slot") if piece.take("x") else None
    place = _At(0.0)
    while piece.peek() is not None:
        if piece.is_next("at", "@"):
            place = _at(piece) or place
            if piece.take("to"):
                length = abs(piece.length("where the slot ends") - (place.mm or 0.0))
        elif piece.take("inside", "outside", "front", "back"):
            fields["on"] = piece.tokens[piece.at - 1].low
        elif piece.take("first"):
            fields["start_deg"] = piece.plain("the angle of the first slot")
        elif piece.take("square"):
            fields["round_ends"] = False
        elif piece.take("off"):
            fields["off_mm"] = piece.length("how far it is off the axis")
        else:
            _more(piece, fields)
    if fields["on"] in ("front", "back"):
        fields["length_mm"] = length or 0.0
        return Waiting(start, piece.end, lambda ground: [fields])
    if length is None:
        raise piece.wrong("the length of the slot is missing", "type slot 6 x 3.5 at 10 to 30")
    run = length

    def make(ground: Ground) -> list[Fields]:
        z = place.front_edge(ground.whole_mm, run)
        return [{**fields, "from_z_mm": z, "to_z_mm": round(z - run, 6)}]

    return Waiting(start, piece.end, make)


def _knurl(piece: Piece) -> Waiting:
    """``knurl RGE 0.8 x 16 at 2``."""
    start = piece.start
    piece.take("knurl")
    fields: Fields = {"kind": "knurl"}
    token = piece.take_kind("word") if piece.is_next("rge", "raa", "diamond", "straight") else None
    fields["form"] = "RGE" if token is not None and token.low in ("rge", "diamond") else "RAA"
    fields["pitch_mm"] = piece.length("the pitch") if piece.kind_is("number") else 0.8
    if not piece.take("x"):
        raise piece.wrong("the length of the knurl is missing", "type knurl RGE 0.8 x 16 at 2")
    length = fields["length_mm"] = piece.length("the length")
    place = _at(piece) or _At(0.0)
    _more(piece, fields)
    return Waiting(
        start, piece.end, lambda ground: [{**fields, "from_z_mm": place.front_edge(ground.whole_mm, length)}]
    )


FEATURE_WORDS = ("g", "groove", "v", "face", "thread", "relief", "undercut", "drill", "hole", "tap", "centre", "center",
                 "cross", "flats", "flat", "slot", "slots", "keyway", "pocket", "knurl")  # fmt: skip


def read_feature(piece: Piece, side: str) -> Waiting | None:
    """A feature from a piece that begins with its word, or with how many there are; None for a step."""
    first, second, third = piece.peek(), piece.peek(1), piece.peek(2)
    words = [t.low for t in (first, second, third) if t is not None and t.kind == "word"]
    if first is None or math.isnan(first.plain):
        return None
    counted = first.kind == "number"
    lead = words[0] if not counted and words else next((w for w in words if w not in ("x", "off")), "")
    if not counted and first.kind != "word":
        lead = ""
    if lead == "face":
        after = words[1] if len(words) > 1 else ""
        return _slot(piece, side) if after in ("slot", "slots", "pocket") else _face_groove(piece)
    makers: dict[tuple[str, ...], Callable[[], Waiting]] = {
        ("g", "groove", "grooves", "v"): lambda: _groove(piece, side),
        ("thread",): lambda: _thread(piece, side),
        ("relief", "undercut"): lambda: _relief(piece, side),
        ("cross",): lambda: _holes(piece),
        ("drill", "hole", "tap"): lambda: _axial_hole(piece),
        ("centre", "center"): lambda: _centre(piece),
        ("flats", "flat"): lambda: _flats(piece),
        ("slot", "slots", "keyway", "pocket"): lambda: _slot(piece, side),
        ("knurl",): lambda: _knurl(piece),
    }
    on_circle = any(t.kind == "word" and t.low in ("on", "pcd", "bc") for t in piece.tokens)
    if counted and on_circle and piece.is_next("x", ahead=1):
        return _holes(piece)
    if counted and lead in ("holes", "hole") and piece.is_next("x", "holes", "hole", ahead=1):
        return _holes(piece)
    if counted and second is not None and second.low not in ("x", "off", lead):
        return None
    if (
        counted
        and third is not None
        and third.kind == "number"
        and third.tight
        and second is not None
        and second.low == lead
    ):
        return None  # a fit, as in 20 g6
    for names, make in makers.items():
        if lead in names:
            return make()
    return None
