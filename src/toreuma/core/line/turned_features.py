"""Features that are turned: grooves, face grooves, threads, reliefs, knurls."""

import math

from toreuma.core.line.feature_words import At, Fields, Ground, Waiting, assign, counted, is_assigned, more_of, place_at
from toreuma.core.line.piece import Piece, tidy_thread
from toreuma.core.line.reliefs import relief_fields
from toreuma.core.line.step import ReliefWord

__all__ = ["face_groove", "groove", "knurl", "relief", "thread"]

FLOOR_SHARE = 0.35
"""No groove leaves so little of its surface's diameter."""


def groove(piece: Piece, side: str) -> Waiting:
    """``g 3 x 24 at 12``: width, diameter of the floor, front edge; several places with commas or a pitch."""
    start = piece.start
    count = counted(piece)
    piece.take("g", "groove", "v")
    vee = piece.tokens[piece.at - 1].low == "v"
    plain = False
    if count == 1:
        count = counted(piece)
    first, floor_size = piece.length("the width of the groove"), None
    width_size = piece.size(first)
    depth = 0.0
    piece.take("wide")
    sharp = vee and not piece.is_next("x")
    if sharp:
        floor, width = first, 0.0
    else:
        if not piece.take("x") and not piece.is_next("Ø", "ø", "dia"):
            raise piece.wrong("the diameter of the floor is missing", "type width x floor, such as g 3 x 24 at 12")
        plain = piece.kind_is("number")
        width, floor = first, piece.length("the diameter of the floor")
        floor_size = piece.size(floor)
        depth = floor if piece.take("deep") else 0.0
        plain = plain and not depth and floor_size is None
    width, floor = (round(n + (s.middle_mm if s else 0.0), 6) for n, s in ((width, width_size), (floor, floor_size)))
    note = "a groove is cut to the middle of its limits" if width_size or floor_size else ""
    fields: Fields = {"kind": "groove", "side": side, "width_mm": width, "d_mm": floor}
    places: list[At] = []
    pitch = None
    while (token := piece.peek()) is not None:
        if piece.is_next("at", "@") or (piece.is_next(",", "&", "and") and places):
            if piece.take(",", "&", "and"):
                mm = piece.length("the next place")
                places.append(At(mm, places[-1].from_back))
            else:
                places.append(place_at(piece, "groove"))  # type: ignore[arg-type]
        elif piece.take("pitch"):
            pitch = piece.length("the pitch")
        elif piece.take("angle"):
            fields["wall_deg"] = piece.plain("the angle between the walls") / 2
        elif token.kind == "word" and is_assigned(piece):
            assign(piece, fields)
        elif piece.take("wall"):
            fields["wall_deg"] = piece.plain("the angle of a wall")
        elif piece.take("r"):
            fields["floor_round_mm"] = piece.length("the radius of the floor corners")
        elif piece.take("dia", "deep", "wide", "diameter"):
            continue
        elif piece.take("break", "c"):
            fields["edge_break_mm"] = piece.length("the edge break")
        elif token.kind == "name" or (token.kind == "word" and is_assigned(piece)):
            more_of(piece, fields)
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

    def is_depth(ground: Ground) -> bool:
        """No floor is so far from the surface: a plain number is how deep the groove is."""
        surface = ground.d_at(side, places[0].place(ground.whole_mm))
        return plain and (floor < surface if side == "inside" else 0 < floor < FLOOR_SHARE * surface)

    def told(ground: Ground) -> str:
        where = " in the bore" if side == "inside" else ""
        return note or (f"the groove is read as {floor:g} mm deep{where}" if is_depth(ground) else "")

    def make(ground: Ground) -> list[Fields]:
        found = []
        for place in places:
            surface = ground.d_at(side, place.place(ground.whole_mm))
            wide = width or _sharp_width(surface, floor, fields["wall_deg"])
            if deep := depth or (floor if is_depth(ground) else 0.0):
                fields["d_mm"] = round(surface + (-2 if side == "outside" else 2) * deep, 6)
            z = place.front_edge(ground.whole_mm, wide)
            step = (pitch or 0.0) * (-1 if place.from_back else 1)
            run = range(count if pitch else 1)
            found += [{**fields, "width_mm": wide, "z_mm": round(z - i * step, 6)} for i in run]
        return found

    instead = Waiting.instead if note else "for a floor so narrow write its Ø, such as g 2 x Ø 5 at 10"
    return Waiting(start, piece.end, make, told, instead)


def _sharp_width(d_mm: float, floor_mm: float, wall_deg: float) -> float:
    """Width at the surface of a V whose walls meet on the floor, a little more so that they do."""
    return math.ceil(1000 * abs(d_mm - floor_mm) * math.tan(math.radians(wall_deg))) / 1000


def face_groove(piece: Piece) -> Waiting:
    """``face g 92 > 84 x 2.9 back``: both walls, depth, which face; or outer wall, width,
    depth: ``face g 92 x 4 x 2.9``."""
    start = piece.start
    piece.take("face")
    piece.take("g", "groove")
    one = piece.length("the diameter of the outer wall")
    sized = piece.is_next("x") and piece.kind_is("number", 1) and piece.is_next("x", ahead=2)
    if sized and piece.take("x"):
        other = one - 2 * piece.length("the width of the groove")
    elif piece.take(">", "-", "/"):
        other = piece.length("the diameter of the inner wall")
    else:
        raise piece.wrong("the diameter of the other wall is missing", "type both: face g 92 > 84 x 2.9")
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
        elif piece.is_next("wall") and not is_assigned(piece) and piece.take("wall"):
            fields["wall_deg"] = piece.plain("the angle of a wall")
        elif not piece.take("in", "on", "the", "face"):
            more_of(piece, fields)
    return Waiting(start, piece.end, lambda ground: [fields])


def thread(piece: Piece, side: str) -> Waiting:
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
    place = place_at(piece) or At(0.0, from_back=piece.take("back", "rear"))
    if place.from_back and not place.mm:
        fields["entry"] = "back"
    if "length_mm" not in fields:
        raise piece.wrong("the length of the thread is missing", "type x 20 behind it")
    more_of(piece, fields)
    length = fields["length_mm"]
    return Waiting(
        start, piece.end, lambda ground: [{**fields, "from_z_mm": place.front_edge(ground.whole_mm, length)}]
    )


def relief(piece: Piece, side: str) -> Waiting:
    """``relief F 0.6x0.3 at 26``: in the corner there, the relieved cylinder toward the front unless it says back."""
    start = piece.start
    piece.take("relief", "undercut")
    if piece.take("sizes"):
        return _sized_relief(piece, start, side)
    form = "E"
    pitch: float | None = None
    token = piece.take_kind("word") if piece.is_next("e", "f", "g", "h", "for", "thread") else None
    if token is not None and token.low in ("e", "f", "g", "h"):
        form = token.text.upper()
    elif token is not None:
        piece.take("pitch")
        thread = piece.thread()
        pitch = thread.pitch_mm if thread else piece.length("the pitch")
    short = bool(pitch is not None and piece.take("short"))
    first = second = None
    if pitch is None and piece.kind_is("number"):
        first = piece.length("the radius")
        if not piece.take("x"):
            raise piece.wrong("the depth of the relief is missing", "type radius x depth, such as F 0.6x0.3")
        second = piece.length("the depth")
    fields = relief_fields(
        piece,
        ReliefWord("" if pitch else form, short, first, second),
        pitch,
        0.0,
        "inside" if side == "inside" else "outside",
    )
    place = place_at(piece, "relief")
    assert place is not None
    fields["toward"] = "back" if piece.take("back") else "front"
    piece.take("front")
    more_of(piece, fields)
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
    place: At | None = None
    while piece.peek() is not None:
        if piece.is_next("at", "@"):
            place = place_at(piece)
        elif piece.is_next("back", "front") and not piece.is_next("=", ahead=1):
            fields["toward"] = piece.tokens[piece.at].low
            piece.at += 1
        else:
            token = piece.peek()
            if token is not None and token.kind == "word" and is_assigned(piece):
                assign(piece, fields)
            else:
                more_of(piece, fields)
    if place is None:
        raise piece.wrong("where the relief stands is missing", "type at 26")
    return Waiting(start, piece.end, lambda ground: [{**fields, "z_mm": place.place(ground.whole_mm)}])


def knurl(piece: Piece) -> Waiting:
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
    place = place_at(piece) or At(0.0)
    more_of(piece, fields)
    return Waiting(
        start, piece.end, lambda ground: [{**fields, "from_z_mm": place.front_edge(ground.whole_mm, length)}]
    )
