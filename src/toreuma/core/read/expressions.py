"""Numbers that a program computes: variables, arithmetic and functions in brackets, and conditions.

The usual way of writing on controls with variables: ``#1``, ``#[#2+1]``, ``[#1*SIN[30]]``, ``#1 GT 5``. Angles are in
degrees. A variable that was never set is vacant: None. Nothing here is executed but arithmetic on numbers.
"""

import math
import re
from collections.abc import Callable
from dataclasses import dataclass

__all__ = ["Expression", "ExpressionError", "Variables", "parse"]

MOST_DEPTH = 40
"""Brackets in brackets deeper than this are a slip of the keys."""

LARGEST = 1e12


class ExpressionError(ValueError):
    """What is wrong with an expression, in words."""


@dataclass(frozen=True, slots=True)
class Expression:
    """``how`` says what is done with ``of``: a number, the variable whose number they give, or a function of them."""

    how: str
    of: tuple["Expression", ...] = ()
    number: float = 0.0


_TOKEN = re.compile(r"\s*(#|\[|\]|[-+*/,]|\d+\.?\d*|\.\d+|[A-Z]+)", re.I)

LEVELS = (("OR", "XOR"), ("AND",), ("EQ", "NE", "GT", "GE", "LT", "LE"), ("+", "-"), ("*", "/", "MOD"))
"""Operators that bind weakest first. OR and AND join conditions here, so they are weaker than comparisons."""

FUNCTIONS: dict[str, Callable[[float], float]] = {
    "SIN": lambda a: math.sin(math.radians(a)),
    "COS": lambda a: math.cos(math.radians(a)),
    "TAN": lambda a: math.tan(math.radians(a)),
    "ASIN": lambda a: math.degrees(math.asin(a)),
    "ACOS": lambda a: math.degrees(math.acos(a)),
    "ATAN": lambda a: math.degrees(math.atan(a)),
    "SQRT": math.sqrt,
    "SQR": math.sqrt,
    "ABS": abs,
    "ROUND": lambda a: math.copysign(math.floor(abs(a) + 0.5), a),
    "RND": lambda a: math.copysign(math.floor(abs(a) + 0.5), a),
    "FIX": lambda a: float(math.trunc(a)),
    "FUP": lambda a: math.copysign(math.ceil(abs(a)), a),
    "LN": math.log,
    "EXP": math.exp,
}

NEVER_VACANT = frozenset(("EQ", "NE"))


class _Parser:
    """Reads one expression from a text, from a place in it on."""

    def __init__(self, text: str, at: int) -> None:
        self.text, self.at, self.depth = text, at, 0

    def peek(self) -> str:
        match = _TOKEN.match(self.text, self.at)
        return match[1].upper() if match else ""

    def take(self) -> str:
        match = _TOKEN.match(self.text, self.at)
        if match is None:
            raise ExpressionError(f"something is missing behind '{self.text[: self.at][-12:].strip()}'")
        self.at = match.end()
        return match[1].upper()

    def level(self, n: int) -> Expression:
        if n == len(LEVELS):
            return self.factor()
        left = self.level(n + 1)
        while (name := self.peek()) in LEVELS[n]:
            self.take()
            left = Expression(name, (left, self.level(n + 1)))
        return left

    def bracket(self) -> Expression:
        self.depth += 1
        if self.depth > MOST_DEPTH:
            raise ExpressionError(f"more than {MOST_DEPTH} brackets in each other")
        if self.take() != "[":
            raise ExpressionError("a bracket [ is missing")
        found = self.level(0)
        if self.peek() == "," or self.peek() == "]":
            if self.take() == ",":
                found = Expression("pair", (found, self.level(0)))
                if self.take() != "]":
                    raise ExpressionError("a bracket ] is missing")
        else:
            raise ExpressionError("a bracket ] is missing")
        self.depth -= 1
        return found

    def factor(self) -> Expression:
        token = self.peek()
        if token in ("-", "+"):
            self.take()
            inner = self.factor_within()
            return Expression("minus", (inner,)) if token == "-" else inner
        return self.factor_within()

    def factor_within(self) -> Expression:
        self.depth += 1
        if self.depth > MOST_DEPTH:
            raise ExpressionError(f"more than {MOST_DEPTH} signs or brackets in each other")
        found = self._factor()
        self.depth -= 1
        return found

    def _factor(self) -> Expression:
        token = self.peek()
        if token == "[":
            return self.bracket()
        token = self.take()
        if token == "#":
            return Expression("variable", (self.bracket() if self.peek() == "[" else self.factor_within(),))
        if token[0].isdigit() or token[0] == ".":
            return Expression("number", (), float(token))
        if token in ("-", "+"):
            inner = self.factor_within()
            return Expression("minus", (inner,)) if token == "-" else inner
        if token in ("ATAN", "ATN"):
            first = self.bracket()
            if self.peek() == "/":
                self.take()
                return Expression("ATAN2", (first, self.bracket()))
            return Expression("ATAN2", first.of) if first.how == "pair" else Expression("ATAN", (first,))
        if token == "POW":
            pair = self.bracket()
            if pair.how != "pair":
                raise ExpressionError("POW takes two numbers")
            return Expression("POW", pair.of)
        if token in FUNCTIONS:
            return Expression(token, (self.bracket(),))
        raise ExpressionError(f"'{token}' is no function that is known")


def parse(text: str, at: int = 0, *, bare: bool = False) -> tuple[Expression, int]:
    """The expression that stands at a place in a text, and where it ends.

    A bracket, a variable or a number with its sign; with ``bare`` the operators behind it too. Raises
    `ExpressionError`.
    """
    parser = _Parser(text, at)
    found = parser.level(0) if bare else parser.factor()
    return found, parser.at


class Variables:
    """Values of variables: 1 to 33 belong to the program that is run, the rest to all. None is vacant."""

    def __init__(self, given: dict[int, float] | None = None) -> None:
        self.common: dict[int, float | None] = dict(given or {})
        self.local: dict[int, float | None] = {}
        self.place: Callable[[int], float | None] = lambda index: None
        """Where the tool is, by the machine's own variable for it; None for others."""
        self.unset: list[int] = []
        """Common ones that were asked for and never set, since this was last emptied."""

    def get(self, number: float) -> float | None:
        index = round(number)
        if abs(number - index) > 1e-6 or not 0 <= index < 100_000:
            raise ExpressionError(f"there is no variable #{number:g}")
        if index == 0:
            return None
        if index <= 33:
            return self.local.get(index)
        if index not in self.common:
            if index >= 1000 and (at := self.place(index)) is not None:
                return at
            if index >= 1000:
                raise ExpressionError(f"#{index} is the machine's own and not known here")
            self.unset.append(index)
        return self.common.get(index)

    def set(self, number: float, value: float | None) -> None:
        index = round(number)
        if abs(number - index) > 1e-6 or not 1 <= index < 100_000:
            raise ExpressionError(f"there is no variable #{number:g} that could be set")
        (self.local if index <= 33 else self.common)[index] = value

    def value(self, expression: Expression) -> float | None:
        """What an expression gives; None where it is a vacant variable. Raises `ExpressionError`."""
        how, of = expression.how, expression.of
        if how == "number":
            return expression.number
        if how == "variable":
            return self.get(self.number(of[0]))
        if how in NEVER_VACANT:
            a, b = self.value(of[0]), self.value(of[1])
            return float((a == b) == (how == "EQ"))
        found = self._computed(how, [self.number(one) for one in of])
        if not abs(found) <= LARGEST:
            raise ExpressionError("the number becomes larger than a control can hold")
        return found

    def number(self, expression: Expression) -> float:
        """The same, a vacant variable counting as 0."""
        return self.value(expression) or 0.0

    @staticmethod
    def _computed(how: str, n: list[float]) -> float:
        try:
            if how == "minus":
                return -n[0]
            if how in FUNCTIONS:
                return FUNCTIONS[how](n[0])
            return _TWO[how](*n)
        except KeyError:
            raise ExpressionError("two numbers in a bracket mean nothing here") from None
        except ZeroDivisionError:
            raise ExpressionError("a division by zero") from None
        except (ValueError, OverflowError):
            raise ExpressionError(f"{how} of {n[0]:g} does not exist") from None


_TWO: dict[str, Callable[[float, float], float]] = {
    "+": lambda a, b: a + b,
    "-": lambda a, b: a - b,
    "*": lambda a, b: a * b,
    "/": lambda a, b: a / b,
    "MOD": math.fmod,
    "ATAN2": lambda a, b: math.degrees(math.atan2(a, b)) % 360.0,
    "POW": math.pow,
    "GT": lambda a, b: float(a > b),
    "GE": lambda a, b: float(a >= b),
    "LT": lambda a, b: float(a < b),
    "LE": lambda a, b: float(a <= b),
    "AND": lambda a, b: float(bool(a) and bool(b)) if a in (0, 1) and b in (0, 1) else float(int(a) & int(b)),
    "OR": lambda a, b: float(bool(a) or bool(b)) if a in (0, 1) and b in (0, 1) else float(int(a) | int(b)),
    "XOR": lambda a, b: float(int(a) ^ int(b)),
}
