"""Program text as numbered blocks of words."""

import re
from collections.abc import Iterator
from functools import lru_cache
from typing import NamedTuple

from toreuma.core.dialect import Dialect
from toreuma.core.read.expressions import Expression, ExpressionError, parse
from toreuma.core.read.statements import Statement, begins_statement, statement_of

__all__ = ["MAX_LINES", "Block", "BlockText", "blocks_of", "wait_pattern"]

MAX_LINES = 500_000
BOTH = "12"
ODD = str.maketrans({"\u2212": "-", "\u2013": "-", "\u00a0": " ", "\u2009": " ", "\u202f": " ", "\ufeff": None})
"""Signs that text processors put in place of plain ones."""

_SAYS = re.compile(r"(DPRNT|BPRNT|POPEN|PCLOS|SETVN)\b", re.I)
"""Lines that print something and move nothing."""
MAX_LINE_LENGTH = 2000

_ENDLESS = re.compile(r"\d{16}")
"""No control takes a number of so many digits."""

_NUMBER = r"([+-]?(?:\d+\.?\d*|\.\d+))"
_WORD = re.compile(r"\s*(,\s*[ACR]|[A-Z])\s*([+-]?)\s*(\d+\.?\d*|\.\d+)", re.I)
_COMPUTED = re.compile(r"\s*(,\s*[ACR]|[A-Z])\s*(?=[+-]?\s*[\[#])", re.I)
_WITHOUT_POINT = re.compile(r"(,?)\s*([XZYUWRIKCBAV])\s*[+-]?\s*0*[1-9]\d*(?![\d.])", re.I)
_BLOCK = re.compile(rf"(?=[XZUW]|.*G\d)(?:[A-Z]\s*{_NUMBER}\s*[;,]?\s*)+", re.I)
_NAMED = re.compile(r"O\s*<([^>]*)>", re.I)
_SKIPPED = re.compile(r"(N\s*\d+\s*)?/\s*([1-9](?!\d))?", re.I)
_NUMBERED = re.compile(r"N\s*(\d+)\s*", re.I)
NONE: frozenset[str] = frozenset()
_NEAT, _NEAT_WORD = re.compile(rf"(?:[A-Z]{_NUMBER}\s*)*"), re.compile(f"([A-Z]){_NUMBER}")
"""A block as it is mostly written, which is taken apart at once."""


class BlockText(NamedTuple):
    """What stands in a line: its words in order, comments, what could not be read, the last number behind each letter,
    and the letters of places whose number has no point. Lines of the same text share it.

    Letters behind a comma keep it: ",R". ``computed`` are words whose number is an expression, by their place among
    the words, where 0 stands for it; ``steers`` is a line that moves nothing. ``skip`` is the switch that leaves the
    block out, 0 for none. ``wrong`` says what is written that no control would read so; ``behind`` is a comment up to
    the end of the line that reads like one more block.
    """

    words: tuple[tuple[str, float], ...]
    comments: tuple[str, ...]
    unread: str
    last: dict[str, float]
    whole: frozenset[str] = frozenset()
    computed: tuple[tuple[int, Expression], ...] = ()
    steers: Statement | None = None
    skip: int = 0
    wrong: str = ""
    behind: str = ""


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

    def with_words(self, words: tuple[tuple[str, float], ...]) -> "Block":
        """The same line saying other words, each place as the control means it."""
        return self._replace(said=self.said._replace(words=words, last=dict(words), whole=NONE, computed=()))


def blocks_of(text: str, dialect: Dialect, first_line: int = 1) -> Iterator[Block]:
    """Split program text into blocks. Lines that are only a tape mark give empty blocks."""
    marks, to_end = dialect.comment, dialect.comment_to_end
    wait = wait_pattern(dialect.wait) if dialect.waits_by_words else None
    for number, line in enumerate(text.splitlines()[:MAX_LINES], first_line):
        if len(line) > MAX_LINE_LENGTH or _ENDLESS.search(line):
            yield Block(number, line[:MAX_LINE_LENGTH], BlockText((), (), line[:MAX_LINE_LENGTH], {}))
            continue
        stripped = line.translate(ODD).strip() if not line.isascii() else line.strip()
        said = wait.sub(_as_m_word, stripped) if wait is not None else stripped
        yield Block(number, stripped, _taken_apart(said, marks, to_end))


@lru_cache(maxsize=32)
def wait_pattern(template: str) -> re.Pattern[str]:
    """What a wait by words looks like, its blanks as they come."""
    parts = re.split(r"(\{mark\}|\{channels\}|\s+)", template)
    made = [{"{mark}": r"(?P<mark>\d{1,4})", "{channels}": r"(?P<channels>\d{1,4})"}.get(one)
            or (r"\s*" if one.isspace() else re.escape(one)) for one in parts if one]  # fmt: skip
    return re.compile(r"(?<![A-Z])" + "".join(made), re.I)


def _as_m_word(match: "re.Match[str]") -> str:
    """A wait by words in the words of the others; with nobody named, both channels come."""
    return f"M{match['mark']} P{match.groupdict().get('channels') or BOTH}"


@lru_cache(maxsize=20_000)
def _taken_apart(text: str, marks: tuple[str, str], to_end: str) -> BlockText:
    """After an edit most lines are the ones read before."""
    if _NEAT.fullmatch(text):
        neat = tuple([(letter, float(number)) for letter, number in _NEAT_WORD.findall(text)])
        return BlockText(neat, (), "", dict(neat), _whole(text))
    if to_end and (behind := _like_a_block(text, to_end)):
        return _taken_apart(text[: text.rindex(behind)], marks, to_end)._replace(behind=behind, comments=(behind,))
    text, comments, wrong = _without_comments(text, marks, to_end)
    if text.startswith("%"):
        return BlockText((), (*comments, text[1:].strip()) if text[1:].strip() else comments, "", {}, wrong=wrong)
    text, skip = _skipped(text)
    if text.startswith(":") and text[1:2].isdigit():
        text = f"O{text[1:]}"
    if named := _NAMED.match(text):
        comments, text = (named[1].strip(), *comments), text[named.end() :]
        return BlockText((("O", 0.0),), comments, text.strip(), {"O": 0.0}, skip=skip, wrong=wrong)
    if _SAYS.match(text):
        return BlockText((), (*comments, text), "", {}, skip=skip, wrong=wrong)
    number = _NUMBERED.match(text)
    behind = text[number.end() :] if number else text
    if begins_statement(behind):
        words = (("N", float(number[1])),) if number else ()
        try:
            return BlockText(words, comments, "", dict(words), steers=statement_of(behind), skip=skip, wrong=wrong)
        except ExpressionError as error:
            return BlockText(words, comments, behind, dict(words), skip=skip, wrong=str(error))
    return _words_of(text, comments, skip, wrong)


def _words_of(text: str, comments: tuple[str, ...], skip: int, wrong: str) -> BlockText:
    words: list[tuple[str, float]] = []
    computed: list[tuple[int, Expression]] = []
    at = 0
    while at < len(text):
        if match := _WORD.match(text, at):
            letter, sign, number = match.groups()
            words.append((_plain(letter), float(sign + number)))
            at = match.end()
        elif match := _COMPUTED.match(text, at):
            try:
                expression, at = parse(text, match.end())
            except ExpressionError as error:
                wrong = wrong or str(error)
                break
            computed.append((len(words), expression))
            words.append((_plain(match[1]), 0.0))
        else:
            break
    unread = text[at:].strip()
    if re.match(r"O[\d.]*\s*(?![\d<])", unread, re.I) and at and text[at - 1].isdigit():
        wrong = wrong or "the letter O stands in a number, where a zero is meant"
    late = next((n for n, word in enumerate(words) if word[0] == "O" and n and words[0][0] != "N"), None)
    if late is not None and not unread:
        wrong = wrong or "the letter O stands among the words, where a zero is meant"
    return BlockText(tuple(words), comments, unread, dict(words), _whole(text[:at]), tuple(computed), None, skip, wrong)


def _plain(letter: str) -> str:
    return letter.replace(" ", "").replace("\t", "").upper()


def _without_comments(text: str, marks: tuple[str, str], to_end: str) -> tuple[str, tuple[str, ...], str]:
    """The line without its comments, those, and what is wrong with them."""
    comments: list[str] = []
    wrong = ""
    if marks[0] in text:
        opening, closing = (re.escape(mark) for mark in marks)
        pattern = re.compile(f"{opening}([^{closing}]*){closing}")
        comments += [match.strip() for match in pattern.findall(text)]
        text = pattern.sub(" ", text)
        if marks[0] in text:
            begin = text.index(marks[0])
            comments.append(text[begin + len(marks[0]) :].strip())
            text, wrong = text[:begin], f"the comment is not closed with {marks[1]}"
    if to_end and to_end in text:
        begin = text.index(to_end)
        if behind := text[begin + len(to_end) :].strip():
            comments.append(behind)
        text = text[:begin]
    return text.strip(), tuple(comments), wrong


def _like_a_block(text: str, to_end: str) -> str:
    """What stands behind the words of a block and the mark, where that reads like a block of its own."""
    before, _, behind = text.partition(to_end)
    behind = behind.strip()
    return behind if before.strip() and _BLOCK.fullmatch(behind) else ""


def _skipped(text: str) -> tuple[str, int]:
    """The block without the stroke that leaves it out, and the number of the switch."""
    match = _SKIPPED.match(text)
    if match is None:
        return text, 0
    return (match[1] or "") + text[match.end() :].lstrip("/ "), int(match[2] or 1)


def _whole(text: str) -> frozenset[str]:
    """Letters of places whose number has no point; a nothing is one with or without."""
    if not _WITHOUT_POINT.search(text):
        return NONE
    return frozenset(comma + letter.upper() for comma, letter in _WITHOUT_POINT.findall(text))
