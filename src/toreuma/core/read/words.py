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
    """One line: its number in the text from 1, its words, its comments, and what could not be read."""

    line: int
    words: tuple[tuple[str, float], ...]
    comments: tuple[str, ...]
    unread: str

    @cached_property
    def _last(self) -> dict[str, float]:
        return dict(self.words)

    def value(self, letter: str) -> float | None:
        """The last number that stands behind a letter."""
        return self._last.get(letter)


def blocks_of(text: str, dialect: Dialect) -> Iterator[Block]:
    """Split program text into blocks. Lines that are only a tape mark give empty blocks."""
    opening, closing = dialect.comment
    pattern = re.compile(re.escape(opening) + r"([^" + re.escape(closing) + r"]*)" + re.escape(closing))
    for number, line in enumerate(text.splitlines()[:MAX_LINES], 1):
        raw = line[:MAX_LINE_LENGTH].strip()
        comments = tuple(match.strip() for match in pattern.findall(raw)) if opening in raw else ()
        rest = pattern.sub(" ", raw) if comments else raw
        rest = rest.replace("%", " ").lstrip("/ ")
        yield Block(number, *_words_of(rest, comments))


@lru_cache(maxsize=20_000)
def _words_of(text: str, comments: tuple[str, ...]) -> tuple[tuple[tuple[str, float], ...], tuple[str, ...], str]:
    """Words, comments, and what could not be read; after an edit most blocks are the ones read before."""
    words, at = [], 0
    while match := _WORD.match(text, at):
        words.append((match.group(1).upper(), float(match.group(2))))
        at = match.end()
    return tuple(words), comments, text[at:].strip()
