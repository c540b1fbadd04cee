"""Reading the line: pieces, what each says, and the part they make together."""

import re
from dataclasses import dataclass, replace

from pydantic import ValidationError

from toreuma.core.line.fault import Fault, Misread
from toreuma.core.line.features import read_feature
from toreuma.core.line.heard import Said
from toreuma.core.line.hole_features import axial_hole
from toreuma.core.line.made import part_of, short_threads
from toreuma.core.line.piece import Piece
from toreuma.core.line.place import SAME_MM
from toreuma.core.line.step import NOUNS, read_corner, read_step
from toreuma.core.line.tables import LineTables
from toreuma.core.line.threaded import threaded
from toreuma.core.line.tokens import Token, tokens_of
from toreuma.core.line.wording import tidied, worded
from toreuma.core.model import Part
from toreuma.core.units import System

__all__ = ["Line", "read_line"]

BEYOND = "a number here is beyond what a lathe can hold", "type a usual size"
MOST_LETTERS, MOST_DIGITS = 20_000, 30
HOLES = ("hole", "drill", "tap")
BEHIND_HOLE = "begin it with ;, or say both depths of a tapped hole, as in hole M8 x 20 x 25"
CLASSES = {"fine": "f", "medium": "m", "coarse": "c", "rough": "c"}
OUTSIDE, INSIDE = ("out", "outside", "od"), ("bore", "inside", "id", "internal", "inner")


@dataclass(frozen=True)
class Line:
    """What a line said: the part, where it can be made, and every place that was not understood."""

    part: Part | None
    faults: tuple[Fault, ...] = ()
    notes: tuple[Fault, ...] = ()
    """What was understood otherwise than written."""

    @property
    def is_whole(self) -> bool:
        return self.part is not None and not self.faults


def read_line(text: str, units: System, tables: LineTables, name: str = "") -> Line:
    """The part a line says, in mm. Pieces at its end that are not finished are left out and named as faults; a fault
    before a piece that can be read leaves no part."""
    endless = _endless(text)
    if endless is not None:
        return Line(None, (endless,))
    said, faults = Said(), list[Fault]()
    mode, spoiled, begins = "outside", False, ""
    for piece, after in _pieces(text, units, tables):
        if piece is None:
            mode = "outside"
            continue
        try:
            begins = begins or _lead(piece)
            if begins in HOLES and piece.kind_is("number"):
                raise piece.wrong("a step stands behind a hole", BEHIND_HOLE)
            mode = _take(piece, said, mode)
            spoiled = spoiled or bool(faults)
        except Misread as error:
            faults.append(error.fault)
        except (ValidationError, OverflowError):
            faults.append(Fault(piece.start, piece.end, *BEYOND))
        if after:
            mode, begins = "outside", ""
    if spoiled:
        return Line(None, tuple(faults))
    try:
        part = part_of(said, tables, units, name)
        return Line(part, tuple(faults), (*said.notes, *short_threads(part, said, units)))
    except Misread as error:
        return Line(None, (*faults, error.fault))
    except (ValidationError, OverflowError):
        return Line(None, (*faults, Fault(0, len(text), *BEYOND)))


def _endless(text: str) -> Fault | None:
    """No person types so much, and reading it would take minutes."""
    if len(text) > MOST_LETTERS:
        return Fault(MOST_LETTERS, len(text), f"a line of {len(text)} letters is too long", "take a part of it away")
    digits = re.search(rf"\d{{{MOST_DIGITS + 1},}}", text)
    if digits is None:
        return None
    return Fault(*digits.span(), f"a number of {len(digits.group())} digits", "type a usual number")


def _pieces(text: str, units: System, tables: LineTables) -> list[tuple[Piece | None, bool]]:
    """Pieces between ``/``, ``;``, line ends and commas followed by a blank, and whether a new section begins."""
    found: list[tuple[Piece | None, bool]] = []
    tokens: list[Token] = []
    before = ""
    every = tokens_of(tidied(text), units)
    for index, token in enumerate(every):
        if _parts(every, index, tokens):
            found += _said_by(tokens, tables, units, before, token.text in ";\n")
            tokens, before = [], token.text
        else:
            tokens.append(token)
    return [*found, *_said_by(tokens, tables, units, before, True)]


def _said_by(
    tokens: list[Token], tables: LineTables, units: System, before: str, ends: bool
) -> list[tuple[Piece | None, bool]]:
    """The pieces of some tokens behind a sign, and whether a new section begins behind the last."""
    spoken = worded(tokens) if tokens else ()
    pieces: list[Piece | None] = [Piece(one, tables, units, apart=before not in ("", "/")) for one in spoken if one]
    return [(one, ends and one is pieces[-1]) for one in pieces]


def _parts(every: list[Token], index: int, before: list[Token]) -> bool:
    """Whether a token parts two pieces."""
    token = every[index]
    if token.kind != "sign" or token.text not in "/;,\n":
        return False
    if token.text in ";\n":
        return True
    after = every[index + 1] if index + 1 < len(every) else None
    if token.text == ",":
        return not _goes_on(before, after)
    if after is None or not before:
        return True
    if token.tight and after.tight:  # two limits, a centre's mouth, or steps typed without blanks
        low = before[-1].low
        if after.low in ("+", "-") or (after.kind == "number" and after.plain == 0 and before[-1].kind == "number"):
            return False
        if before[-1].kind == "number" and after.kind == "number":
            near = 0 < abs(before[-1].mm - after.mm) <= 0.02 * before[-1].mm
            return not (near or before[0].low in ("centre", "center", "face")) or low == "x"
    return not (before[0].low in ("centre", "center") and after.kind == "number" and len(before) <= 5)


def _goes_on(before: list[Token], after: Token | None) -> bool:
    """A comma among the places of grooves."""
    if after is None or after.kind != "number" or not before:
        return False
    is_groove = any(t.low in ("g", "groove", "grooves", "v") for t in before[:3])
    return is_groove and any(t.low in ("at", "@") for t in before)


def _take(piece: Piece, said: Said, mode: str) -> str:
    """Read a piece; gives the side that the next one is on. Raises `Misread`."""
    if piece.take(*OUTSIDE):
        mode = "outside"
    elif piece.take(*INSIDE):
        mode = "inside"
    sunk = piece.take("counterbore", "cbore", "counterbored")
    mode = "inside" if sunk else mode
    if piece.peek() is None:
        return mode
    if piece.is_next("thread") and not any(one.low in ("at", "@") for one in piece.tokens):
        if mode == "outside" and _is_there(piece, said):
            back = any(one.low in ("back", "rear") for one in piece.tokens)
            said.outside = threaded(said.outside, piece, back)
            return mode
        piece.take("thread")  # a step that is a thread, not one on a surface that is there
    if _is_tapped(piece):
        said.features.append(axial_hole(piece))
        return mode
    if (here := _side_said(piece)) is not None:
        waiting = read_feature(piece, here)
        if waiting is not None:
            said.features.append(waiting)
            return mode
    steps = said.inside if mode == "inside" else said.outside
    corner = read_corner(piece)
    if corner is not None:
        said.loose.append((mode, len(steps), corner))
        return mode
    if _general(piece, said):
        return mode
    waiting = read_feature(piece, mode)
    if waiting is not None:
        said.features.append(waiting)
        return mode
    token = piece.peek()
    if token is not None and token.kind == "word" and token.low not in (*_STEP_WORDS, *NOUNS):
        raise piece.wrong(f"'{token.text}' is not known", "begin a piece with a diameter, bore, g, hole, length …")
    if mode == "inside" and piece.tokens[-1].low == "flat":  # as the floor of a bore is
        piece.tokens = piece.tokens[:-1]
    step = read_step(piece)
    steps.append(replace(step, deep=True) if sunk else step)
    return mode


def _lead(piece: Piece) -> str:
    """The word a section begins with."""
    first = piece.peek()
    return first.low if first is not None else ""


def _is_there(piece: Piece, said: Said) -> bool:
    """Behind a comma, ``thread M16 x 30`` is cut on the Ø 16 that begins or ends the part."""
    if not piece.apart or not said.outside or not piece.kind_is("thread", 1):
        return False
    here = said.outside[-1 if any(one.low in ("back", "rear") for one in piece.tokens) else 0]
    piece.take("thread")
    thread = piece.thread()
    piece.at = 0
    whole = here.thread is None and here.d0 is not None and here.d1 is None and here.length_mm is not None
    return thread is not None and whole and abs((here.d0 or 0.0) - thread.d_mm) < SAME_MM


def _is_tapped(piece: Piece) -> bool:
    """A thread that is said to be deep, or tapped, goes into a hole."""
    return piece.kind_is("thread") and any(one.low in ("deep", "tap", "tapped") for one in piece.tokens)


def _side_said(piece: Piece) -> str | None:
    """The side a feature is said to be on at its end, ``inside`` or ``in the bore``; the words are read."""
    tokens = piece.tokens
    if len(tokens) < 3 or tokens[-1].low not in (*INSIDE, *OUTSIDE) or tokens[0].kind == "thread":
        return None
    if not any(one.low in ("g", "groove", "grooves", "v", "relief", "undercut") for one in tokens[:3]):
        return None
    side = "inside" if tokens.pop().low in INSIDE else "outside"
    while len(tokens) > 2 and tokens[-1].low in ("in", "the", "on"):
        tokens.pop()
    return side


_STEP_WORDS = ("hex", "hexagon", "sw", "af", "square", "tip", "ball", "sphere", "nose", "dia", "diameter", "d", "cone")


def _general(piece: Piece, said: Said) -> bool:
    """What holds for the whole part: ``length 118``, ``break 0.3``, ``ra 3.2``, ``general medium``."""
    if piece.take("length", "overall", "oal"):
        piece.take("length")
        said.length_mm = piece.length("the whole length")
    elif piece.take("break", "edges", "deburr"):
        piece.take("edges", "all", "c")
        said.general["edge_break_mm"] = piece.length("the edge break")
    elif piece.is_next("ra") and piece.kind_is("number", 1):
        piece.take("ra")
        said.general["ra_um"] = piece.plain("the roughness in µm")
    elif piece.take("general", "tolerance", "iso"):
        while piece.take("tolerance", "class", "-"):
            pass
        token = piece.peek()
        if piece.kind_is("number"):
            piece.at += 1
            piece.take("-")
            token = piece.peek()
        letter = CLASSES.get(token.low, token.low) if token is not None else ""
        letter = letter[:1] if letter[1:] in ("h", "k", "l") else letter  # with the class of geometry, as mK
        if letter not in ("f", "m", "c", "v"):
            raise piece.wrong(
                "the class of the general tolerance is missing", "type general m (ISO 2768: f, m, c or v)"
            )
        piece.at += 1
        said.general["general_tolerance"] = letter
    else:
        return False
    piece.done()
    return True
