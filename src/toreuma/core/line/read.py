"""Reading the line: pieces, what each says, and the part they make together."""

import math
import re
from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Any

from pydantic import ValidationError

from toreuma.core.errors import PartError
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.line.attached import attached, seated
from toreuma.core.line.elements import End, elements_of
from toreuma.core.line.fault import Fault, Misread
from toreuma.core.line.feature_words import Fields, Ground, Waiting, feature_of
from toreuma.core.line.features import read_feature
from toreuma.core.line.hole_features import BEHIND_PITCHES, axial_hole
from toreuma.core.line.knurled import parted_at_knurls
from toreuma.core.line.piece import Piece
from toreuma.core.line.place import SAME_MM, Placed, placed_bore, placed_outside
from toreuma.core.line.step import NOUNS, CornerWord, Step, flipped_corners, read_corner, read_step
from toreuma.core.line.tables import LineTables
from toreuma.core.line.threaded import threaded
from toreuma.core.line.tokens import Token, tokens_of
from toreuma.core.line.wording import plain_text, worded
from toreuma.core.model import Part
from toreuma.core.units import System

__all__ = ["Line", "read_line"]

BEYOND = "a number here is beyond what a lathe can hold", "type a usual size"
TAPPED_MM = 8.0
"""A bore with a thread up to this size is tapped: threading bars begin above it."""
MOST_LETTERS, MOST_DIGITS = 20_000, 30
SUM_MM = 0.02
"""Lengths written with four places of an inch may miss their sum by so much."""
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


class _Said:
    """What the pieces have said so far."""

    def __init__(self) -> None:
        self.outside: list[Step] = []
        self.inside: list[Step] = []
        self.features: list[Waiting] = []
        self.loose: list[tuple[str, int, CornerWord]] = []
        """Corners said between two steps: the side, how many steps stood before, and the corner."""
        self.notes: list[Fault] = []
        """What was understood otherwise than written, or may be meant otherwise."""
        self.length_mm: float | None = None
        self.general: dict[str, Any] = {}


def read_line(text: str, units: System, tables: LineTables, name: str = "") -> Line:
    """The part a line says, in mm. Pieces at its end that are not finished are left out and named as faults; a fault
    before a piece that can be read leaves no part."""
    endless = _endless(text)
    if endless is not None:
        return Line(None, (endless,))
    said, faults = _Said(), list[Fault]()
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
        part = _part(said, tables, units, name)
        return Line(part, tuple(faults), (*said.notes, *_short_threads(part, said, units)))
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
    every = tokens_of(plain_text(text), units)
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


def _take(piece: Piece, said: _Said, mode: str) -> str:
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
    step = read_step(piece)
    steps.append(replace(step, deep=True) if sunk else step)
    return mode


def _lead(piece: Piece) -> str:
    """The word a section begins with."""
    first = piece.peek()
    return first.low if first is not None else ""


def _is_there(piece: Piece, said: _Said) -> bool:
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


def _general(piece: Piece, said: _Said) -> bool:
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


def _part(said: _Said, tables: LineTables, units: System, name: str) -> Part | None:
    """The part of everything said; None where there is no outside yet. Raises `Misread`."""
    if not said.outside:
        return None
    outside = _cornered([seated(s, "outside") for s in _tipped(said.outside)], said, "outside")
    placed = placed_outside(outside, said.length_mm)
    whole = -placed[-1].z1
    last = placed[-1].step
    if said.length_mm is not None and abs(whole - said.length_mm) > SUM_MM:
        what = f"the steps come to {_mm(whole, units)}, the length says {_mm(said.length_mm, units)}"
        raise Misread(last.start, last.end, what, "change a step, or leave one length out")
    tapped = _as_tapped(said.inside)
    if tapped is not None:
        said.features.append(tapped)
        said.inside = []
    inside = _cornered([seated(s, "inside") for s in said.inside], said, "inside")
    bore, from_back = placed_bore(inside, whole)
    through = bool(bore) and abs(bore[-1].z1 + whole) < SAME_MM
    ground = Ground(whole, lambda side, z: _d_at(placed if side == "outside" else bore, z))
    fields = [(one, waiting) for waiting in said.features for one in waiting.make(ground)]
    said.notes += [Fault(w.start, w.end, note, w.instead) for w in said.features if (note := w.note(ground))]
    said.notes += _widening(bore, from_back, units)
    features = [feature_of(one, waiting.start, waiting.end) for one, waiting in fields]
    features += attached(placed, "outside", tables, units)
    placed = parted_at_knurls(placed, [one for one, _ in fields])
    floor: End | None = None if through else "front" if from_back else "back"
    features += attached(_seen(bore, whole) if from_back else bore, "inside", tables, units, floor=floor)
    part = Part(
        name=name,
        outside=elements_of(placed, "outside"),
        inside=elements_of(_flipped(bore) if from_back else bore, "inside", through) if bore else (),
        inside_from_back=from_back,
        features=tuple(features),
        **said.general,
    )
    _check(part, placed, bore, [w for _, w in fields])
    return part


def _as_tapped(steps: list[Step]) -> Waiting | None:
    """A bore that is nothing but a small thread is a tapped hole: no bar goes into it."""
    if len(steps) != 1 or steps[0].thread is None or steps[0].thread.d_mm > TAPPED_MM or steps[0].to_mm is not None:
        return None
    step, thread = steps[0], steps[0].thread
    assert thread is not None
    if step.corners or step.relief or step.size or step.ra_um or step.deep or step.name:
        return None
    fields: Fields = {
        "kind": "axial_hole", "end": "back" if step.from_back else "front", "thread": step.thread_text,
        "d_mm": round(thread.tap_drill_mm, 4),
    }  # fmt: skip
    if step.length_mm is not None and not step.through:
        fields |= {
            "thread_length_mm": step.length_mm,
            "depth_mm": round(step.length_mm + BEHIND_PITCHES * thread.pitch_mm, 2),
        }
    return Waiting(step.start, step.end, lambda ground: [fields])


def _widening(bore: list[Placed], from_back: bool, units: System) -> Iterator[Fault]:
    """A step of the bore that is wider than the one in front of it is cut from behind: often its depth is meant."""
    for before, here in pairwise(bore if not from_back else []):
        step = here.step
        if not step.from_back and not before.step.from_back and here.d0 > before.d1 + SAME_MM and not step.through:
            what = f"Ø {_mm(here.d0, units)} lies behind Ø {_mm(before.d1, units)}"
            yield Fault(step.start, step.end, what, "if it begins at the face, write it first")


def _short_threads(part: Part | None, said: _Said, units: System) -> Iterator[Fault]:
    """A thread in a bore that ends at its floor: how much of it is full."""
    last = next((one for one in reversed(said.inside) if one.thread is not None and not one.from_back), None)
    if part is None or last is None or last.thread is None or last.relief is not None or last.length_mm is None:
        return
    made = next(
        (f for f in part.features if f.kind == "thread" and f.side == "inside" and f.designation == last.thread_text),
        None,
    )
    if made is not None and made.length_mm < last.length_mm - SAME_MM:
        short = _mm(last.length_mm - made.length_mm, units)
        what = f"{last.thread_text}: {_mm(made.length_mm, units)} of full thread, its run-out takes {short}"
        cure = f"for all of it full, type hole {last.thread_text} x {_mm(last.length_mm, units)}"
        yield Fault(last.start, last.end, what, cure)


def _d_at(placed: list[Placed], z: float) -> float:
    """Diameter of a side at a Z, mm; that of the nearest step beyond its ends."""
    one = next((p for p in placed if p.z0 + SAME_MM >= z > p.z1 + SAME_MM), placed[-1] if placed else None)
    if one is None:
        return 0.0
    share = (one.z0 - z) / (one.z0 - one.z1) if one.z0 > one.z1 else 1.0
    return one.d0 + min(max(share, 0.0), 1.0) * (one.d1 - one.d0)


def _seen(bore: list[Placed], whole: float) -> list[Placed]:
    """A bore that is read from the back as it lies seen from the front."""
    return [Placed(p.step, round(-whole - p.z1, 9), p.d1, round(-whole - p.z0, 9), p.d0) for p in reversed(bore)]


def _flipped(bore: list[Placed]) -> list[Placed]:
    """A bore read from the back: what is said of front and back changes places."""
    return [replace(p, step=replace(p.step, corners=flipped_corners(p.step))) for p in bore]


def _mm(value: float, units: System) -> str:
    return f"{value / 25.4:.4g} in" if units == "inch" else f"{value:g} mm"


def _cornered(steps: list[Step], said: _Said, side: str) -> list[Step]:
    """Steps with the corners that were said between them: a chamfer goes to the outer edge there, a round to the inner
    corner; before the first step and behind the last there is only the edge."""
    found = list(steps)
    for mode, index, corner in said.loose:
        if mode != side or not found:
            continue
        if index == 0 or index >= len(found):
            at, end = (0, "front") if index == 0 else (len(found) - 1, "back")
        else:
            before, after = found[index - 1], found[index]
            ends_at = before.d1 if before.d1 is not None else before.d0
            begins_at = after.d0 if after.d0 is not None else ends_at
            rises = ((begins_at or 0.0) > (ends_at or 0.0)) == (side == "outside")
            at, end = (index - 1, "back") if rises == (corner.kind == "round") else (index, "front")
        mine = replace(corner, where=corner.where or end)  # type: ignore[arg-type]
        found[at] = replace(found[at], corners=(*found[at].corners, mine))
    return found


def _tipped(steps: list[Step]) -> list[Step]:
    """A rounded tip as the arc it is, tangent to the cone behind it; a ball goes on past its middle to the neck."""
    found = list(steps)
    for index, step in enumerate(found):
        if step.tip_mm is None:
            continue
        if index:
            raise Misread(step.start, step.end, "a tip stands at the front", "begin the line with it")
        behind = found[1] if len(found) > 1 else None
        slope = step.slope if step.slope is not None else behind.slope if behind is not None else None
        half = math.atan(slope if slope is not None else math.inf)
        if half <= 0:
            raise Misread(step.start, step.end, "a tip needs a cone that widens behind it", "type > 14 included 50")
        r = step.tip_mm
        neck = behind.d0 if step.ball and behind is not None else None
        if slope is not None:
            end_d, length = 2 * r * math.cos(half), r * (1 - math.sin(half))
        elif neck is not None and 0 < neck < 2 * r:
            end_d, length = neck, r + math.sqrt(r**2 - neck**2 / 4)
        else:
            end_d, length = 2 * r, r
        found[index] = replace(
            step, d0=0.0, d1=round(end_d, 6), length_mm=round(length, 6), slope=None, radius_mm=r, tip_mm=None
        )
    return found


def _check(part: Part, outside: list[Placed], inside: list[Placed], waiting: list[Waiting]) -> None:
    """A part that cannot be built is a fault of the piece it comes from. Raises `Misread`."""
    try:
        build_part(part)
    except PartError as error:
        span = _span(error, part, outside, inside, waiting)
        raise Misread(*span, error.what, error.cure) from None


def _span(
    error: PartError, part: Part, outside: list[Placed], inside: list[Placed], waiting: list[Waiting]
) -> tuple[int, int]:
    if error.section == "features" and 0 <= error.element < len(waiting):
        return waiting[error.element].start, waiting[error.element].end
    placed, elements = (inside, part.inside) if error.section == "inside" else (outside, part.outside)
    if 0 <= error.element < len(elements):
        z = elements[error.element].z_mm
        step = next((p.step for p in placed if p.z0 + SAME_MM >= z >= p.z1 - SAME_MM), placed[-1].step)
        return step.start, step.end
    return placed[0].step.start, placed[-1].step.end
