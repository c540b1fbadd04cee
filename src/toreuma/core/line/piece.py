"""One piece of the line, read from left to right."""

import re

from toreuma.core.errors import ToreumaError
from toreuma.core.line.fault import Misread
from toreuma.core.line.tables import LineTables
from toreuma.core.line.tokens import Token
from toreuma.core.model import Size
from toreuma.core.standards.fits import tolerance_of
from toreuma.core.standards.threads import Thread, thread_of
from toreuma.core.units import System

__all__ = ["Piece", "known_thread", "tidy_thread"]

MOST_UM = 20_000.0
SIGNS_OF_DIAMETER = ("°", "Ø", "ø", "Φ", "φ", "⌀")


def known_thread(text: str, tables: LineTables) -> Thread:
    """The thread of a designation written in any of the usual ways. Raises `StandardError`."""
    return thread_of(tidy_thread(text), tables.threads)


def tidy_thread(text: str) -> str:
    """A designation as the standards write it: ``m12x1,5 6g`` becomes ``M12x1.5-6g``."""
    tidy = text.strip().replace("×", "x").replace("*", "x")
    if tidy[:1] in "mM":
        tidy = "M" + tidy[1:].replace(",", ".")
        tidy = re.sub(r"\s*[xX]\s*", "x", tidy)
        tidy = re.sub(r"\s+(?=\d[a-hA-H])", "-", tidy)
    elif tidy[:1] in "GR" and tidy[1:2] in " 0123456789":
        tidy = tidy[0] + re.sub(r"\s*-?\s*([AB])$", r"\1", tidy[1:].strip().replace('"', ""))
    elif tidy[:2].lower() == "tr":
        tidy = "Tr" + re.sub(r"\s*[xX]\s*", "x", tidy[2:].strip())
    return tidy


class Piece:
    """The tokens between two separators, and how far they have been read. ``apart``: no ``/`` stands before them, so
    that they need not be the next step."""

    def __init__(self, tokens: list[Token], tables: LineTables, system: System, apart: bool = False) -> None:
        self.tokens, self.tables, self.system, self.apart = tokens, tables, system, apart
        self.at = 0

    @property
    def start(self) -> int:
        return self.tokens[0].start

    @property
    def end(self) -> int:
        return self.tokens[-1].end

    @property
    def scale(self) -> float:
        """Millimetres of a plain number."""
        return 25.4 if self.system == "inch" else 1.0

    def peek(self, ahead: int = 0) -> Token | None:
        """A token that is not read yet."""
        return self.tokens[self.at + ahead] if self.at + ahead < len(self.tokens) else None

    def is_next(self, *words: str, ahead: int = 0) -> bool:
        """Whether one of some words or signs comes next."""
        token = self.peek(ahead)
        return token is not None and token.kind in ("word", "sign", "limit") and token.low in words

    def take(self, *words: str) -> bool:
        """Read one of some words, if it comes next."""
        if self.is_next(*words):
            self.at += 1
            return True
        return False

    def kind_is(self, kind: str, ahead: int = 0) -> bool:
        token = self.peek(ahead)
        return token is not None and token.kind == kind

    def take_kind(self, kind: str) -> Token | None:
        token = self.peek()
        if token is None or token.kind != kind:
            return None
        self.at += 1
        return token

    def wrong(self, what: str, expected: str, token: Token | None = None) -> Misread:
        """The fault at a token, by default at the next one, or behind the last."""
        token = token or self.peek()
        if token is None:
            return Misread(self.end, self.end, what, expected)
        return Misread(token.start, token.end, what, expected)

    def length(self, what: str) -> float:
        """A length in mm. Raises `Misread`."""
        self.skip_diameter_signs()
        negative = self.take("-")
        token = self.take_kind("number")
        if token is None:
            found = self.peek()
            shown = f"'{found.text}' stands where {what} should" if found else f"{what} is missing"
            raise self.wrong(shown, f"type {what}, such as {'3/4' if self.system == 'inch' else '24'}")
        return -token.mm if negative else token.mm

    def plain(self, what: str) -> float:
        """A number that is no length. Raises `Misread`."""
        negative = self.take("-")
        token = self.take_kind("number")
        if token is None:
            raise self.wrong(f"{what} is missing", f"type {what}, such as 30")
        self.take("°", "deg", "degrees")
        return -token.plain if negative else token.plain

    def skip_diameter_signs(self) -> None:
        while self.take(*SIGNS_OF_DIAMETER, "dia", "diameter"):
            pass

    def thread(self) -> Thread | None:
        """A thread, if one comes next. Raises `Misread`."""
        token = self.take_kind("thread")
        if token is None:
            return None
        text = token.text
        if text[:1] in "mM" and "x" not in text.lower() and self._pitch_apart(text):
            self.at += 1
            text = f"{text}x{self.tokens[self.at].plain:g}"
            self.at += 1
        try:
            return known_thread(text, self.tables)
        except ToreumaError as error:
            raise self.wrong(f"{text}: {error.what}", error.cure, token) from None

    def _pitch_apart(self, text: str) -> bool:
        """``M24 x 2 x 20``: the first of two numbers is the pitch, where it can be one; that of ``M6 x 13 x 17`` is a
        length."""
        first = self.is_next("x") and self.kind_is("number", 1)
        if not (first and self.is_next("x", ahead=2) and self.kind_is("number", 3)):
            return False
        size = re.match(r"[\d.,]+", text[1:].strip())
        return size is None or 2 * self.tokens[self.at + 1].plain < float(size.group().replace(",", "."))

    # Limits

    def size(self, d_mm: float) -> Size | None:
        """Limits of a diameter, if they come next: ``h7``, ``+0.02/-0.01``, ``-0.04/-0.06``, ``±0.05``."""
        token = self.peek()
        if token is None:
            return None
        if token.kind == "limit":
            self.at += 1
            half = abs(self.length("the tolerance")) * 1000
            return self._limits(-half, half, token)
        if token.kind == "word" and self._is_zone():
            zone = token.text + self.tokens[self.at + 1].text
            try:
                found = tolerance_of(d_mm, zone, self.tables.fits)
            except ToreumaError as error:
                if token.low in ("c", "r"):
                    return None
                raise Misread(token.start, self.tokens[self.at + 1].end, error.what, error.cure) from None
            self.at += 2
            return Size(fit=zone, lower_um=found.lower_um, upper_um=found.upper_um)
        if token.low in ("+", "-") and self.kind_is("number", 1):
            return self._typed_limits()
        return None

    def _is_zone(self) -> bool:
        """A letter and a grade written as one."""
        letter, grade = self.peek(), self.peek(1)
        if letter is None or grade is None or grade.kind != "number" or not grade.tight:
            return False
        return len(letter.text) <= 2 and letter.low not in ("x", "ra") and grade.text.isdigit() and int(grade.text) >= 3

    def _typed_limits(self) -> Size:
        begin = self.tokens[self.at]
        first = self._signed()
        self.take("/", ",")
        token = self.peek()
        second = 0.0
        if token is not None and token.low in ("+", "-") and self.kind_is("number", 1):
            second = self._signed()
        elif token is not None and token.kind == "number" and token.plain == 0:
            self.at += 1
        low, high = sorted((first, second))
        return self._limits(round(low * 1000, 4), round(high * 1000, 4), begin)

    def _limits(self, low_um: float, high_um: float, token: Token) -> Size:
        if max(abs(low_um), abs(high_um)) > MOST_UM:
            raise self.wrong(
                "limits so far from the size are none", "type them as +0.02/-0.01 or a letter as h7", token
            )
        return Size(lower_um=low_um, upper_um=high_um)

    def _signed(self) -> float:
        sign = -1.0 if self.is_next("-") else 1.0
        self.at += 1
        return sign * self.tokens_number()

    def tokens_number(self) -> float:
        token = self.take_kind("number")
        assert token is not None
        return token.mm

    def two_limits(self, first: Token) -> tuple[float, Size | None]:
        """The nominal diameter and limits of ``.3745/.3735``: both limits written out; the larger is the nominal."""
        second = self.peek(1)
        apart = abs(first.mm - second.mm) if self.is_next("/") and second is not None and second.tight else 0.0
        if second is not None and second.kind == "number" and 0 < apart <= 0.02 * first.mm:
            self.at += 2
            low, high = sorted((first.mm, second.mm))
            return high, Size(lower_um=round((low - high) * 1000, 4), upper_um=0.0)
        return first.mm, None

    def done(self) -> None:
        """Nothing may be left. Raises `Misread`."""
        token = self.peek()
        if token is not None:
            raise self.wrong(f"'{token.text}' does not belong here", "see F1 for what a piece may say")
