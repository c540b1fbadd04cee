"""A step of the outside or the bore as typed: a diameter and a length, and what stands on it."""

import math
from dataclasses import dataclass, replace
from typing import Literal

from toreuma.core.line.piece import Piece, tidy_thread
from toreuma.core.model import Size
from toreuma.core.standards.threads import Thread

__all__ = ["CornerWord", "ReliefWord", "Step", "flipped_corners", "read_corner", "read_step"]

Where = Literal["", "front", "back", "both"]
ENDS = ("front", "back", "both")
NOUNS = (
    *(
        "collar",
        "shoulder",
        "seat",
        "journal",
        "shank",
        "spigot",
        "hub",
        "rim",
        "flange",
        "neck",
        "head",
        "body",
        "step",
    ),
    *("land", "pilot", "boss", "stub", "cylinder", "rod", "pin", "barrel", "register"),
)
"""What a step may be called in front of its diameter: its name."""
IDLE = ("with", "for", "and", "a", "an", "the", "of", "wide", "thick", "mm", "af", "equally", "spaced", "sharp")
"""Words that say nothing more."""


@dataclass(frozen=True)
class CornerWord:
    """A chamfer or round; without ``where`` it goes to the edge or corner it can only mean."""

    kind: Literal["chamfer", "round"]
    size_mm: float
    where: Where = ""
    angle_deg: float = 45.0
    to_d_mm: float | None = None
    """The diameter a chamfer reaches, in place of its size."""


@dataclass(frozen=True)
class ReliefWord:
    """``form`` empty: a thread's run-out on a thread, ``short`` or the usual one, else form E by diameter."""

    form: str = ""
    short: bool = False
    radius_mm: float | None = None
    depth_mm: float | None = None


@dataclass(frozen=True, kw_only=True)
class Step:
    """``start`` and ``end`` are its place in the text. ``d0`` None begins where the step before ended; ``length_mm``
    None is what is left of the whole length, or through. Lengths in mm, angles to the axis."""

    start: int
    end: int
    d0: float | None = None
    d1: float | None = None
    size: Size | None = None
    thread: Thread | None = None
    thread_text: str = ""
    """Its designation as typed."""
    length_mm: float | None = None
    to_mm: float | None = None
    from_back: bool = False
    deep: bool = False
    through: bool = False
    slope: float | None = None
    """Growth of the radius along the length, for tapers given by their angle."""
    radius_mm: float | None = None
    hollow: bool = False
    corners: tuple[CornerWord, ...] = ()
    relief: ReliefWord | None = None
    knurl: tuple[str, float] | None = None
    flats: tuple[int, float] | None = None
    """How many, and across."""
    ra_um: float | None = None
    grind_mm: float | None = None
    """What is left on the diameter for grinding."""
    name: str = ""
    tip_mm: float | None = None
    ball: bool = False
    """Radius of a rounded tip."""
    face_name: str = ""
    face_ra_um: float | None = None
    """Of the face the step begins with."""

    @property
    def tapers(self) -> bool:
        return self.d1 is not None or self.slope is not None or self.d0 is None


def flipped_corners(step: Step) -> tuple[CornerWord, ...]:
    """Corners of a step whose front and back change places."""
    other = {"front": "back", "back": "front"}
    return tuple(replace(c, where=other.get(c.where, c.where)) for c in step.corners)  # type: ignore[arg-type]


def read_corner(piece: Piece) -> CornerWord | None:
    """A piece that is a corner and nothing else, as ``r5`` between two steps; None for anything else."""
    token = piece.peek()
    lone = len(piece.tokens) - piece.at <= 4 and token is not None and token.kind == "word"
    if not lone or token is None or token.low not in ("c", "r", "chamfer", "radius", "round", "fillet"):
        return None
    corner = _corner(piece, Step(start=piece.start, end=piece.end))
    piece.done()
    return corner


def read_step(piece: Piece) -> Step:
    """A step from its piece. Raises `Misread`."""
    step = _tail(piece, _head(piece, Step(start=piece.start, end=piece.end)))
    if step.d0 is None and step.d1 is None and step.tip_mm is None:
        raise piece.wrong("a diameter is missing", "begin with one, such as 30 x 18", piece.tokens[0])
    piece.done()
    return step


def _head(piece: Piece, step: Step) -> Step:
    """The diameter, or where a taper runs from and to."""
    token = piece.take_kind("name")
    if token is not None:
        step = replace(step, name=token.text.strip("'“”"))
    word = piece.peek()
    if word is not None and word.kind == "word" and word.low in NOUNS:
        piece.at += 1
        step = replace(step, name=step.name or word.text)
        piece.take("dia", "diameter")
    if piece.take("ball", "sphere"):
        radius = piece.take("r", "radius")
        across = piece.length("the diameter of the ball")
        return replace(step, tip_mm=across if radius else across / 2, ball=True)
    if piece.take("tip", "nose"):
        piece.take("r", "radius")
        return replace(step, tip_mm=piece.length("the radius of the tip"))
    for shape, count in (("hex", 6), ("hexagon", 6), ("sw", 6), ("af", 6), ("square", 4)):
        if piece.take(shape):
            across = piece.length("the size across flats")
            while piece.take("af", "across", "flats"):
                pass
            corners = math.floor(1e4 * across / math.cos(math.pi / count)) / 1e4  # never wider than the bar
            return replace(step, flats=(count, across), d0=corners)
    if piece.take(">"):
        return replace(step, d1=piece.length("the diameter the taper ends at"))
    before = piece.at
    thread = piece.thread()
    if thread is not None:
        typed = tidy_thread(" ".join(t.text for t in piece.tokens[before : piece.at]))
        return replace(step, thread=thread, thread_text=typed, d0=round(thread.d_mm, 6))
    piece.take("cone", "d")
    piece.skip_diameter_signs()
    first = piece.peek()
    d0 = piece.length("a diameter")
    assert first is not None
    d0, size = piece.two_limits(first) if first.kind == "number" else (d0, None)
    step = replace(step, d0=d0, size=size or piece.size(d0))
    if piece.is_next("-") and piece.is_next(">", ahead=1):
        piece.at += 1
    taper = piece.is_next("to") and piece.kind_is("number", 1) and piece.is_next("x", ahead=2)
    if piece.take(">") or (taper and piece.take("to")):
        return replace(step, d1=piece.length("the diameter the taper ends at"))
    return step


def _tail(piece: Piece, step: Step) -> Step:
    """Everything behind the diameter, in any order."""
    while (token := piece.peek()) is not None:
        before = piece.at
        step = _word(piece, step)
        if piece.at == before:
            expected = "a length as x 18, c1, r2, a fit as h7, relief, knurl, ra 0.8, through, from back"
            raise piece.wrong(f"'{token.text}' is not understood in a step", f"expected {expected}")
    return step


def _word(piece: Piece, step: Step) -> Step:
    token = piece.peek()
    assert token is not None
    if piece.take("x", "by", "long"):
        if step.length_mm is not None:
            raise piece.wrong("the length stands twice", "give one length to a step", token)
        length = piece.length("the length of the step")
        piece.take("long")
        return replace(step, length_mm=length)
    if token.kind == "number" and step.length_mm is None and piece.is_next("long", "deep", ahead=1):
        length = piece.length("the length of the step")
        piece.take("long", "deep")
        return replace(step, length_mm=length)
    if piece.take(*IDLE, "long", "dia", "diameter") or _run_out(piece):
        return step
    if piece.take("to"):
        return replace(step, to_mm=piece.length("where the step ends, from the front"))
    if piece.take("from") or piece.is_next("back"):
        if not piece.take("back", "rear"):
            raise piece.wrong("'from' is not finished", "type from back")
        return replace(step, from_back=True)
    if piece.take("deep"):
        return replace(step, deep=True)
    if piece.take("through", "thru"):
        return replace(step, through=True)
    if piece.take("ra"):
        return replace(step, ra_um=piece.plain("the roughness in µm"))
    if piece.take("grind", "grinding", "ground"):
        return replace(step, grind_mm=piece.length("what is left on the diameter for grinding"))
    if piece.take("face"):
        return _face(piece, step)
    if piece.is_next("n") and piece.kind_is("number", 1):
        raise piece.wrong("roughness grades are not read", "write the roughness as ra 0.8", token)
    if token.kind == "name":
        piece.at += 1
        return replace(step, name=token.text.strip("'“”"))
    if piece.is_next("angle", "included", "cone", "at") or piece.is_next("taper"):
        return _angled(piece, step)
    if piece.is_next("arc") or (token.text == "R" and step.d1 is not None and not token.tight):
        return _arc(piece, step)
    if piece.take("hollow", "concave"):
        return replace(step, hollow=True)
    if piece.is_next("relief", "undercut"):
        return replace(step, relief=_relief(piece))
    if piece.take("knurl", "knurled"):
        return replace(step, knurl=_knurl(piece))
    if piece.take("flats"):
        across = piece.length("the size across the flats")
        return replace(step, flats=(2, across))
    corner = _corner(piece, step)
    if corner is not None:
        return replace(step, corners=(*step.corners, corner))
    size = piece.size(step.d0) if step.d0 else None
    return replace(step, size=size) if size is not None else step


def _run_out(piece: Piece) -> bool:
    """``with run-out``: a thread without a relief has one."""
    if not piece.take("run", "runout"):
        return False
    piece.take("-")
    piece.take("out")
    return True


def _face(piece: Piece, step: Step) -> Step:
    """``face ra 0.8``, ``face 'Shoulder'``: what is said of the face the step begins with."""
    token = piece.take_kind("name")
    if token is not None:
        return replace(step, face_name=token.text.strip("'“”"))
    if not piece.take("ra"):
        raise piece.wrong("'face' needs what is said of it", "type face ra 0.8, or face and a name in quotes")
    return replace(step, face_ra_um=piece.plain("the roughness in µm"))


def _corner(piece: Piece, step: Step) -> CornerWord | None:
    """``c1``, ``r2``, ``1x45``, ``c3x15``, each with front, back or both."""
    token, after = piece.peek(), piece.peek(1)
    assert token is not None
    kind: Literal["chamfer", "round"]
    to_d: float | None = None
    if token.low in ("c", "chamfer") and after is not None and after.low == "to":
        piece.at += 2
        kind, size, to_d = "chamfer", 0.0, piece.length("the diameter the chamfer reaches")
    elif token.kind == "word" and token.low in ("c", "r", "chamfer", "radius", "round", "fillet"):
        if after is None or after.kind != "number":
            raise piece.wrong(f"'{token.text}' needs its size", f"type {token.low}1", token)
        piece.at += 1
        kind = "chamfer" if token.low.startswith("c") else "round"
        size = piece.length("the size of the corner")
    elif token.kind == "number" and step.length_mm is not None and piece.is_next("x", ahead=1) and _is_45(piece):
        kind, size = "chamfer", piece.length("the size of the chamfer")
    else:
        return None
    angle = 45.0
    if kind == "chamfer" and piece.is_next("x") and piece.kind_is("number", 1):
        piece.take("x")
        angle = piece.plain("the angle of the chamfer")
        if not 0 < angle < 90:
            raise piece.wrong(f"a chamfer of {angle:g}° cannot be", "use more than 0° and less than 90° to the axis")
    if size <= 0 and to_d is None:
        raise piece.wrong("a corner needs a size above 0", "type c1 or r2", token)
    where: Where = ""
    for end in ENDS:
        if piece.take(end) or (
            piece.is_next("at", "on") and piece.is_next(end, ahead=1) and piece.take("at", "on") and piece.take(end)
        ):
            where = end  # type: ignore[assignment]
            piece.take("ends", "end", "edge", "edges")
            break
    return CornerWord(kind, size, where, angle, to_d)


def _is_45(piece: Piece) -> bool:
    angle = piece.peek(2)
    return angle is not None and angle.kind == "number" and angle.plain in (15.0, 20.0, 30.0, 45.0, 60.0)


def _angled(piece: Piece, step: Step) -> Step:
    """``angle 15`` to the axis, ``included 30``, ``taper 1:10``; a minus narrows toward the chuck."""
    word = piece.peek()
    assert word is not None
    piece.at += 1
    if word.low == "at" and not piece.kind_is("number"):
        raise piece.wrong("'at' is not understood in a step", "type angle 15, or to 40", word)
    first = piece.plain("the angle")
    ratio = piece.take(":")
    if ratio:
        second = piece.plain("the second number of the ratio")
        if second <= 0:
            raise piece.wrong("a taper needs a number above 0", "type taper 1:10", word)
        slope = first / second / 2
    else:
        whole = word.low in ("included", "cone") or piece.take("included", "incl")
        half = first / 2 if whole else first
        if not 0 < abs(half) < 89.5:
            raise piece.wrong(f"{half:g}° to the axis is no taper", "use more than 0° and less than 90°", word)
        slope = math.tan(math.radians(half))
    return replace(step, slope=slope)


def _arc(piece: Piece, step: Step) -> Step:
    piece.take("arc")
    piece.take("r", "radius")
    return replace(step, radius_mm=piece.length("the radius of the arc"))


def _relief(piece: Piece) -> ReliefWord:
    """``relief``, ``relief short``, ``relief E``, ``relief F 0.6x0.3``."""
    piece.take("relief", "undercut")
    if piece.take("short"):
        return ReliefWord(short=True)
    token = piece.peek()
    if token is None or token.kind != "word" or token.low not in ("e", "f", "g", "h"):
        return ReliefWord()
    piece.at += 1
    form = token.text.upper()
    if not piece.kind_is("number"):
        return ReliefWord(form)
    radius = piece.length("the radius of the relief")
    if not piece.take("x"):
        raise piece.wrong("the depth of the relief is missing", "type radius x depth, such as F 0.6x0.3")
    return ReliefWord(form, radius_mm=radius, depth_mm=piece.length("the depth of the relief"))


def _knurl(piece: Piece) -> tuple[str, float]:
    """Form and pitch: ``knurl``, ``knurl 0.8``, ``knurl diamond 1``, ``knurl RGE 0.8``, ``medium diamond``."""
    form, pitch = "RAA", 0.0
    sizes = {"fine": 0.6, "medium": 1.0, "coarse": 1.6}
    while (token := piece.peek()) is not None:
        if token.low in ("rge", "diamond", "crossed"):
            form = "RGE"
        elif token.low in ("raa", "straight", "axial"):
            form = "RAA"
        elif token.low in sizes:
            pitch = sizes[token.low]
        elif token.kind == "number" and pitch == 0:
            pitch = token.mm
        else:
            break
        piece.at += 1
    return form, pitch or 0.8
