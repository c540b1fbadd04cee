"""The words of a line by what they do, with their places in the text: for colouring, completing and changing them."""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from toreuma.core.dialect import Dialect, short
from toreuma.core.read.words import wait_pattern

__all__ = ["Kind", "Span", "kind_of_name", "spans_of"]

Kind = Literal["move", "cut", "place", "speed", "tool", "wait", "steer", "number", "comment", "setting", "unknown"]


@dataclass(frozen=True, slots=True)
class Span:
    """From ``start`` to ``end`` in the line; ``name`` is what a G or M word means, empty for others."""

    start: int
    end: int
    kind: Kind
    text: str
    name: str = ""


CUTTING = ("line", "arc_clockwise", "arc_counter_clockwise", "thread", "changing_lead")
SPEEDS = (
    "surface_speed", "fixed_speed", "clamp", "spindle_forward", "spindle_reverse", "spindle_stop", "feed_per_minute",
    "feed_per_rev", "live_forward", "live_reverse", "live_stop", "sync", "sync_off", "speed_shared",
)  # fmt: skip
STEERING = ("call", "return", "end", "end_again", "macro", "macro_modal", "macro_off")
WAITING = ("dwell", "stop", "optional_stop")

_WORD = re.compile(r",?\s*[A-Z]\s*[+-]?\s*(?:\d+\.?\d*|\.\d+|\[[^\]]*\]|#\d+)", re.I)
_STEER = re.compile(r"\s*(?:N\s*\d+\s*)?(?:#|IF\b|IF\[|WHILE|DO\s*\d|END\s*\d|GOTO)", re.I)


def kind_of_name(name: str) -> Kind:
    """What a meaning is, to the eye."""
    if name == "rapid" or "reference" in name or name == "machine_place":
        return "move"
    if name in CUTTING or name.endswith("_cycle"):
        return "cut"
    if name in SPEEDS:
        return "speed"
    if name in STEERING:
        return "steer"
    if name in WAITING:
        return "wait"
    return "tool" if name == "tool_change" else "setting"


class _Vocabulary:
    """Words of one dialect and machine, kept by identity of what they are made from."""

    def __init__(self, dialect: Dialect, machine: Mapping[str, str] | None) -> None:
        self.names = dialect.vocabulary(machine)
        self.marks, self.to_end = dialect.comment, dialect.comment_to_end
        self.wait = wait_pattern(dialect.wait) if dialect.waits_by_words else None
        self.wait_from = dialect.wait_from if machine is not None else 10**9


@lru_cache(maxsize=16)
def _vocabulary(dialect_json: str, machine: tuple[tuple[str, str], ...] | None) -> _Vocabulary:
    return _Vocabulary(Dialect.model_validate_json(dialect_json), None if machine is None else dict(machine))


def spans_of(line: str, dialect: Dialect, machine: Mapping[str, str] | None = None) -> list[Span]:
    """The words of a line, from left to right; what nothing explains is unknown."""
    known = _vocabulary(dialect.model_dump_json(), None if machine is None else tuple(sorted(machine.items())))
    return _spans(line, known)


def _spans(line: str, known: _Vocabulary) -> list[Span]:
    found: list[Span] = []
    at = 0
    if number := re.match(r"\s*:\d+", line):
        at = number.end()
        found.append(Span(number.start(), at, "steer", number[0]))
    elif _STEER.match(line):
        cut = min(
            (line.find(mark) for mark in (known.marks[0], known.to_end) if mark and mark in line), default=len(line)
        )
        found.append(Span(0, cut, "steer", line[:cut]))
        at = cut
    while at < len(line):
        if line[at].isspace() or line[at] in "%/":
            at += 1
            continue
        if line.startswith(known.marks[0], at):
            end = line.find(known.marks[1], at + 1)
            end = len(line) if end < 0 else end + len(known.marks[1])
            found.append(Span(at, end, "comment", line[at:end]))
        elif known.to_end and line.startswith(known.to_end, at):
            end = len(line)
            found.append(Span(at, end, "comment", line[at:end]))
        elif known.wait is not None and (match := known.wait.match(line, at)):
            end = match.end()
            found.append(Span(at, end, "wait", match[0]))
        elif match := _WORD.match(line, at):
            end = match.end()
            found.append(_word(at, end, match[0], known))
        else:
            end = next((n for n in range(at + 1, len(line)) if line[n].isspace() or line[n] in "(;"), len(line))
            found.append(Span(at, end, "unknown", line[at:end]))
        at = max(end, at + 1)
    return found


def _word(start: int, end: int, text: str, known: _Vocabulary) -> Span:
    plain = re.sub(r"\s", "", text).upper()
    letter, number = plain.lstrip(",")[0], plain.lstrip(",")[1:]
    if letter in "GM" and re.fullmatch(r"\d+(\.\d+)?", number):
        name = known.names.get(short(plain), "")
        if not name and letter == "M" and float(number) >= known.wait_from:
            return Span(start, end, "wait", text)
        return Span(start, end, kind_of_name(name) if name else "unknown", text, name)
    kinds: dict[str, Kind] = {"T": "tool", "D": "tool", "S": "speed", "F": "speed", "N": "number", "O": "steer",
                              "P": "setting", "Q": "setting", "L": "setting"}  # fmt: skip
    return Span(start, end, kinds.get(letter, "place"), text)
