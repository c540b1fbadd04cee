"""Program text as numbered blocks of words."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property, lru_cache

from toreuma.core.dialect import Dialect

__all__ = ["Block", "blocks_of"]

MAX_LINES = 500_000
MAX_LINE_LENGTH = 2000

_WORD = re.compile(r"\s*([A-Z])\s*([+-]?(?:\d+\.?\d*|\.\d+))", re.I)


@dataclass(frozen=True)
class Block:
    """One line: its number in the text from 1 and what stands in it, taken apart when it is asked for."""

    line: int
    text: str
    marks: tuple[str, str]

    @property
    def words(self) -> tuple[tuple[str, float], ...]:
        return self._read[0]

    @property
    def comments(self) -> tuple[str, ...]:
        return self._read[1] if self.marks[0] in self.text else ()

    @property
    def unread(self) -> str:
        """What could not be read."""
        return self._read[2]

    def value(self, letter: str) -> float | None:
        """The last number that stands behind a letter."""
        return self._last.get(letter)

    @cached_property
    def _last(self) -> dict[str, float]:
        return dict(self.words)

    @cached_property
    def _read(self) -> tuple[tuple[tuple[str, float], ...], tuple[str, ...], str]:
        return _taken_apart(self.text, self.marks)


def blocks_of(text: str, dialect: Dialect) -> Iterator[Block]:
    """Split program text into blocks. Lines that are only a tape mark give empty blocks."""
    for number, line in enumerate(text.splitlines()[:MAX_LINES], 1):
        yield Block(number, line[:MAX_LINE_LENGTH].strip(), dialect.comment)


@lru_cache(maxsize=20_000)
def _taken_apart(text: str, marks: tuple[str, str]) -> tuple[tuple[tuple[str, float], ...], tuple[str, ...], str]:
    """Words, comments, and what could not be read; after an edit most blocks are the ones read before."""
    comments: tuple[str, ...] = ()
    if marks[0] in text:
        opening, closing = (re.escape(mark) for mark in marks)
        pattern = re.compile(f"{opening}([^{closing}]*){closing}")
        comments = tuple(match.strip() for match in pattern.findall(text))
        text = pattern.sub(" ", text)
    text = text.replace("%", " ").lstrip("/ ")
    words, at = [], 0
    while match := _WORD.match(text, at):
        words.append((match.group(1).upper(), float(match.group(2))))
        at = match.end()
    return tuple(words), comments, text[at:].strip()
