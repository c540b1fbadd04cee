"""Lines that steer a program instead of moving: a variable set, a condition, a loop, a jump."""

import re
from dataclasses import dataclass

from toreuma.core.read.expressions import Expression, ExpressionError, parse

__all__ = ["Assign", "Branch", "Loop", "LoopEnd", "Statement", "begins_statement", "statement_of"]


@dataclass(frozen=True, slots=True)
class Assign:
    """``#[target] = value``; several may stand in a line."""

    target: Expression
    value: Expression


@dataclass(frozen=True, slots=True)
class Branch:
    """``IF [condition] GOTO n``, ``IF [condition] THEN #i=...``, or ``GOTO n`` where there is no condition."""

    condition: Expression | None
    to: Expression | None = None
    then: tuple[Assign, ...] = ()


@dataclass(frozen=True, slots=True)
class Loop:
    """``WHILE [condition] DO n``; without a condition it runs on."""

    condition: Expression | None
    number: int


@dataclass(frozen=True, slots=True)
class LoopEnd:
    """``END n``."""

    number: int


Statement = tuple[Assign, ...] | Branch | Loop | LoopEnd

_BEGINS = re.compile(r"#|IF\s*\[|WHILE\s*\[|DO\s*\d|END\s*\d|GOTO", re.I)
_NUMBERED = re.compile(r"\s*(DO|END)\s*(\d+)\s*$", re.I)


def begins_statement(text: str) -> bool:
    return _BEGINS.match(text) is not None


def statement_of(text: str) -> Statement:
    """The statement a line is, its block number and comments taken off. Raises `ExpressionError`."""
    upper = text.upper()
    if upper.startswith("#"):
        found, at = _assignments(text, 0)
        _nothing_behind(text, at)
        return found
    if upper.startswith("GOTO"):
        to, at = parse(text, 4)
        _nothing_behind(text, at)
        return Branch(None, to)
    if upper.startswith("IF"):
        condition, at = parse(text, 2)
        word = re.compile(r"\s*(GOTO|THEN)", re.I).match(text, at)
        if word is None:
            raise ExpressionError("an IF goes on with GOTO or THEN")
        if word[1].upper() == "GOTO":
            to, at = parse(text, word.end())
            _nothing_behind(text, at)
            return Branch(condition, to)
        then, at = _assignments(text, word.end())
        _nothing_behind(text, at)
        return Branch(condition, None, then)
    condition_of_loop = None
    if upper.startswith("WHILE"):
        condition_of_loop, at = parse(text, 5)
        text = text[at:]
    match = _NUMBERED.match(text)
    if match is None:
        raise ExpressionError("a loop goes on with DO and a number")
    if match[1].upper() == "END":
        return LoopEnd(int(match[2]))
    return Loop(condition_of_loop, int(match[2]))


def _assignments(text: str, at: int) -> tuple[tuple[Assign, ...], int]:
    found = []
    while text[at:].strip().startswith("#"):
        target, at = parse(text, at)
        equals = re.compile(r"\s*=").match(text, at)
        if equals is None:
            raise ExpressionError("a variable stands alone: an = is missing")
        value, at = parse(text, equals.end(), bare=True)
        found.append(Assign(target.of[0], value))
        at += len(text[at:]) - len(text[at:].lstrip(" ,"))
    if not found:
        raise ExpressionError("a variable is missing")
    return tuple(found), at


def _nothing_behind(text: str, at: int) -> None:
    if text[at:].strip():
        raise ExpressionError(f"'{text[at:].strip()[:20]}' was not expected there")
