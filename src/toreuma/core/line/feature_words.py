"""What pieces that are features have in common: where they stand, how many there are, and what else is said of them."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from pydantic import TypeAdapter, ValidationError

from toreuma.core.line.fault import Misread
from toreuma.core.line.piece import Piece
from toreuma.core.model import Feature

__all__ = ["At", "Fields", "Ground", "Waiting", "assign", "counted", "feature_of", "is_assigned", "more_of", "place_at"]

FEATURE: TypeAdapter[Any] = TypeAdapter(Feature)

COUNTED = ("g", "groove", "grooves", "v", "slot", "slots", "hole", "holes", "cross", "flats", "drill")
"""What there may be several of."""

Fields = dict[str, Any]


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
    note: Callable[["Ground"], str] = lambda ground: ""
    """What was understood otherwise than written, for the person to read; ``instead`` says what else may be typed."""
    instead: str = "the drawing's limits stand on the sheet"


@dataclass(frozen=True)
class At:
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


def place_at(piece: Piece, required: str = "") -> At | None:
    """``at 12``, ``at 12 from back``, ``at middle``, ``@12``; ``from 12``, where ``to 30`` follows."""
    from_to = piece.is_next("from") and piece.kind_is("number", 1) and piece.is_next("to", ahead=2)
    if not piece.take("at", "@") and not (from_to and piece.take("from")):
        if required:
            raise piece.wrong(f"where the {required} stands is missing", "type at 12, or at 12 from back")
        return None
    if piece.take("middle", "centre", "center"):
        return At(None, middle=True)
    if piece.take("front"):
        return At(0.0)
    if piece.take("back"):
        return At(0.0, from_back=True)
    mm = piece.length("the place")
    if piece.take("from"):
        if piece.take("front"):
            return At(mm)
        if not piece.take("back", "rear"):
            raise piece.wrong("'from' is not finished", "type from back")
        return At(mm, from_back=True)
    return At(mm)


def more_of(piece: Piece, fields: Fields) -> None:
    """What is left: a name, and anything else of the feature as ``field=value``."""
    while (token := piece.peek()) is not None:
        if token.kind == "name":
            piece.at += 1
            fields["name"] = token.text.strip("'“”")
        elif token.kind == "word" and is_assigned(piece):
            assign(piece, fields)
        else:
            raise piece.wrong(f"'{token.text}' does not belong here", "see F1 for what this piece may say")


def is_assigned(piece: Piece) -> bool:
    ahead = 1
    while (token := piece.peek(ahead)) is not None and token.kind == "word":
        ahead += 1
    return piece.is_next("=", ahead=ahead)


def assign(piece: Piece, fields: Fields) -> None:
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


def counted(piece: Piece) -> int:
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
