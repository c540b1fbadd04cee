"""Program text as numbered blocks of words."""

import re
from collections.abc import Iterator
from functools import lru_cache
from typing import NamedTuple

from toreuma.core.dialect import Dialect

__all__ = ["MAX_LINES", "Block", "BlockText", "blocks_of"]

MAX_LINES = 500_000
MAX_LINE_LENGTH = 2000

_ENDLESS = re.compile(r"\d{16}")
"""No control takes a number of so many digits."""

_NUMBER = r"([+-]?(?:\d+\.?\d*|\.\d+))"
_WORD = re.compile(rf"\s*([A-Z])\s*{_NUMBER}", re.I)
_WITHOUT_POINT = re.compile(r"([XZYUWRIKCBAV])\s*[+-]?0*[1-9]\d*(?![\d.])", re.I)
NONE: frozenset[str] = frozenset()
_NEAT, _NEAT_WORD = re.compile(rf"(?:[A-Z]{_NUMBER}\s*)*"), re.compile(f"([A-Z]){_NUMBER}")
"""A block as it is mostly written, which is taken apart at once."""


class BlockText(NamedTuple):
    """What stands in a line: its words in order, comments, what could not be read, the last number behind each letter,
    and the letters of places whose number has no point. Lines of the same text share it."""

    words: tuple[tuple[str, float], ...]
    comments: tuple[str, ...]
    unread: str
    last: dict[str, float]
    whole: frozenset[str] = frozenset()


class Block(NamedTuple):
    """One line: its number in the text from 1, its text, and what that says."""

    line: int
    text: str
    said: BlockText

    @property
    def words(self) -> tuple[tuple[str, float], ...]:
        return self.said.words

    @property
    def comments(self) -> tuple[str, ...]:
        return self.said.comments

    @property
    def unread(self) -> str:
        """What could not be read."""
        return self.said.unread

    def value(self, letter: str) -> float | None:
        """The last number that stands behind a letter."""
        return self.said.last.get(letter)


def blocks_of(text: str, dialect: Dialect, first_line: int = 1) -> Iterator[Block]:
    """Split program text into blocks. Lines that are only a tape mark give empty blocks."""
    marks = dialect.comment
    for number, line in enumerate(text.splitlines()[:MAX_LINES], first_line):
        if len(line) > MAX_LINE_LENGTH or _ENDLESS.search(line):
            yield Block(number, line[:MAX_LINE_LENGTH], BlockText((), (), line[:MAX_LINE_LENGTH], {}))
            continue
        stripped = line.strip()
        yield Block(number, stripped, _taken_apart(stripped, marks))


@lru_cache(maxsize=20_000)
def _taken_apart(text: str, marks: tuple[str, str]) -> BlockText:
    """After an edit most lines are the ones read before."""
    if _NEAT.fullmatch(text):
        neat = tuple([(letter, float(number)) for letter, number in _NEAT_WORD.findall(text)])
        return BlockText(neat, (), "", dict(neat), _whole(text))
    comments: tuple[str, ...] = ()
    if marks[0] in text:
        opening, closing = (re.escape(mark) for mark in marks)
        pattern = re.compile(f"{opening}([^{closing}]*){closing}")
        comments = tuple(match.strip() for match in pattern.findall(text))
        text = pattern.sub(" ", text)
    text = text.replace("%", " ").lstrip("/ ")
    words, at = [], 0
    while match := _WORD.match(text, at):
        letter, number = match.groups()
        words.append((letter.upper(), float(number)))
        at = match.end()
    return BlockText(tuple(words), comments, text[at:].strip(), dict(words), _whole(text[:at]))


def _whole(text: str) -> frozenset[str]:
    """Letters of places whose number has no point; a nothing is one with or without."""
    return frozenset(letter.upper() for letter in _WITHOUT_POINT.findall(text)) if _WITHOUT_POINT.search(text) else NONE
