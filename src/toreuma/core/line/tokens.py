"""The smallest pieces of a line: numbers, words, threads and signs, each with its place in the text."""

import re
from dataclasses import dataclass

from toreuma.core.units import System

__all__ = ["MM_OF", "Token", "tokens_of"]

MM_OF: dict[str, float] = {"mm": 1.0, "in": 25.4, "inch": 25.4, '"': 25.4, "″": 25.4, "thou": 0.0254}

_CLASS = r"(?:\s*-?\s*(?<!\d)\d[a-hA-H](?:\d[a-hA-H])?(?![\w]))?"
_LEFT = r"(?:\s*-?\s*LH\b)?"
_SIZE = r"(?:#\d+|\d+[-\s]\d+/\d+|\d+/\d+|\d*\.?\d+)"
_THREADS = (
    r"MJ?\s?\d+(?:[.,]\d+)?(?:[x×*](?:Ph[\d.]+P)?\d*[.,]?\d+)?(?:\(P[\d.]+\))?"
    + _LEFT
    + _CLASS
    + _LEFT
    + r"(?:(?![\w])|(?=[x×*]\d))",
    r"Tr\s?\d+(?:\.\d+)?\s?[x×*]\s?\d+(?:\.\d+)?(?:\(P[\d.]+\))?"
    + _LEFT
    + r"(?:\s*-?\s*\d[a-hA-H])?"
    + _LEFT
    + r"(?![\w])",
    _SIZE + r"\s*-\s*\d+(?:\.\d+)?\s*UN[A-Z]{0,2}(?:\s*-?\s*[123][AB])?" + _LEFT + r"(?![\w])",
    _SIZE + r"\s*-\s*\d+\s*ACME(?:\s*-?\s*\d[GC])?",
    r"(?:NP(?:TF?|SM)\s*" + _SIZE + r"|" + _SIZE + r"(?:-\d+(?:\.\d+)?)?\s*-?\s*NP(?:TF?|SM))\b",
    r"\d+/\d+-\d+(?![/\d])",
    r"(?:#|No\.?\s?)\d+-\d+(?![/\d])",
    r"UN(?:C|F|EF)?\s*" + _SIZE + r"(?:-\d+(?![\d/]))?(?:\s*-?\s*[123][AB])?(?![\w])",
    r"(?:Rp|Rc)\s?\d+(?:/\d+)?(?:\s\d/\d)?",
    r"(?:\d+[- ])?\d+/\d+\"?\s*BSP[PT]?\b",
)
_PIPE = re.compile(r"G\d+(?:[- ]\d+/\d+|/\d+)?\"?(?:\s?-?\s?[AB]\b)?(?![\w.,])")
"""Written tight and large, so that ``g 3`` stays a groove."""
_PIPE_APART = re.compile(r"G (?:\d+[- ])?\d+/\d+\"?(?:\s?-?\s?[AB]\b)?(?![\w.,])(?![^/;\n]*(?:\bat\b|@))")
"""With a blank where a fraction follows and no place: grooves stand at one."""

_BEFORE_TAPER = ("", "/", ";", "\n", "bore")
_BEFORE_PIPE = (*_BEFORE_TAPER, "hole", "thread", "tapped", ",")
"""What a designation in two words may stand behind; ``R 1/4`` behind a comma is a radius."""

_TAPER = re.compile(r"R ?(?:\d+[- ])?\d+/\d+(?![\w.,])")
_TAPER_SAID = re.compile(r"R\d+(?:[- ]\d+/\d+|/\d+)?(?![\w.,])")
"""A taper pipe thread: at the beginning of a piece with a fraction, or anything said to be a thread; else R is a
radius."""

_FRACTION = r"(?:(?P<whole>\d+)(?:-|\s))?(?P<over>\d+)/(?P<under>2|4|8|16|32|64)(?!\d|[.,]\d)"
_PATTERN = re.compile(
    r"(?P<blank>[ \t\r\u2009]+)"
    r"|(?P<name>'[^'\n]*'?|“[^”\n]*”?)"
    r"|(?P<fraction>" + _FRACTION + r")"
    r"|(?P<number>\d+(?:[.,]\d+)?|[.,]\d+)"
    r"|(?P<word>[A-Za-zµ]+)"
    r"|(?P<limit>\+\s*/?\s*-|±)"
    r"|(?P<sign>[-+/;\n,>×*()=:°ØøΦφ⌀#\"″&])"
)
_THREAD = re.compile("|".join(f"(?:{one})" for one in _THREADS), re.I)


_UNIT = re.compile(r"\s*(mm|inch|in(?!\s+(?:the\s+)?(?:bore|hole|front|back|face)\b)|thou|\"|″)(?![A-Za-z])", re.I)
"""``at 5 in the bore`` says where, no inches."""

_FIT = re.compile(r"m\d{1,2}(?![\w.,(])(?!\s*[x×*]\s*\d+[.,]?\d*\s*(?:deep|on|pcd|bc)\b)", re.I)
_ON_CIRCLE = re.compile(r"[^/;\n]*\b(?:on|pcd|bc)\b", re.I)
"""``20 m6`` is a shaft, ``4 M6 on 50`` are holes."""


@dataclass(frozen=True)
class Token:
    """``kind`` is number, word, thread, name, limit or sign; ``text`` as typed, words in small letters too.

    ``mm`` is a number's value in mm when it is a length, ``plain`` its value without a unit.
    """

    kind: str
    text: str
    start: int
    end: int
    plain: float = 0.0
    mm: float = 0.0
    tight: bool = False
    """Nothing stands between it and the token before."""

    @property
    def low(self) -> str:
        return self.text.lower()


def tokens_of(text: str, system: System) -> list[Token]:
    """All pieces of a text; what is no piece at all becomes a token of kind ``other``."""
    text = text.replace("\u2212", "-").replace("–", "-")
    found: list[Token] = []
    at, gap = 0, True
    while at < len(text):
        thread = _thread_at(text, at, found)
        if thread is not None:
            found.append(Token("thread", text[at:thread], at, thread, tight=not gap))
            at, gap = thread, False
            continue
        match = _PATTERN.match(text, at)
        if match is None:
            found.append(Token("other", text[at], at, at + 1, tight=not gap))
            at, gap = at + 1, False
            continue
        kind = str(match.lastgroup if match.lastgroup not in ("whole", "over", "under") else "fraction")
        end = match.end()
        if kind == "blank":
            at, gap = end, True
            continue
        if kind in ("fraction", "number"):
            token, end = _number(text, at, match, system, not gap)
            found.append(token)
        else:
            sign = "x" if match.group() in "×*" else match.group()
            word = kind == "word" or sign == "x"
            found.append(Token("word" if word else kind, sign, at, end, tight=not gap))
        at, gap = end, False
    return found


def _thread_at(text: str, at: int, before: list[Token]) -> int | None:
    """Where a thread's designation that begins here ends."""
    if at and (text[at - 1].isalnum() or text[at - 1] in ".,/#"):
        return None
    if before and before[-1].kind == "number" and _FIT.match(text, at) and not _ON_CIRCLE.match(text, at):
        return None
    last = before[-1].low if before else ""
    taper = _TAPER_SAID if last in ("thread", "tap") else _TAPER if last in _BEFORE_TAPER else None
    pipe = _PIPE.match(text, at) or (_PIPE_APART.match(text, at) if last in _BEFORE_PIPE else None)
    match = pipe or (taper.match(text, at) if taper else None) or _THREAD.match(text, at)
    if match is None:
        return None
    metric = re.match(r"(MJ?\s?\d+(?:[.,]\d+)?)[x×*](\d*[.,]?\d+)", match.group(), re.I)
    if metric and float(metric.group(2).replace(",", ".")) > 8:  # no pitch: the length, written tight
        return at + len(metric.group(1))
    if re.match(r"\d*\.?\d+\s+\d+/", match.group()):  # the blank may part two numbers
        return None if before and before[-1].kind == "number" and before[-1].end == at else at + len(match.group())
    return at + len(match.group().rstrip())


def _number(text: str, at: int, match: "re.Match[str]", system: System, tight: bool) -> tuple[Token, int]:
    """A number with the unit that may follow it."""
    end = match.end()
    if match["fraction"]:
        over, under = float(match["over"]), float(match["under"])
        parted = system == "mm" and text[end : end + 1] in ("x", "×", "*")  # 12/16x20 are two steps
        if (over >= under or parted) and match["whole"] is None:  # 18/4 parts two steps, it is no fraction
            plain = match.re.match(text, at)
            assert plain is not None
            number = re.compile(r"\d+").match(text, at)
            assert number is not None
            value, end = float(number.group()), number.end()
        else:
            value = float(match["whole"] or 0) + over / under
    else:
        value = float(match["number"].replace(",", "."))
    scale = 25.4 if system == "inch" else 1.0
    unit = _UNIT.match(text, end)
    if unit is not None:
        scale, end = MM_OF[unit.group(1).lower()], unit.end()
    return Token("number", text[at:end], at, end, plain=value, mm=round(value * scale, 9), tight=tight), end
