"""Changes of one word of a program that mend what was found in its line."""

import re
from collections.abc import Callable
from dataclasses import dataclass

from toreuma.core.dialect import Dialect
from toreuma.core.findings import Finding

__all__ = ["TextCure", "text_cures"]


@dataclass(frozen=True, slots=True)
class TextCure:
    """``line`` counted from 1 becomes ``after``; with ``insert``, ``after`` is a line of its own before it."""

    label: str
    line: int
    before: str
    after: str
    insert: bool = False

    def applied(self, text: str) -> str:
        """The text with the change made; unchanged where the line is another one by now."""
        lines = text.split("\n")
        if not 0 < self.line <= len(lines) or lines[self.line - 1].rstrip("\r") != self.before:
            return text
        if self.insert:
            lines.insert(self.line - 1, self.after)
        else:
            lines[self.line - 1] = self.after
        return "\n".join(lines)


_NUMBER = r"[+-]?(?:\d+\.?\d*|\.\d+)"


def text_cures(finding: Finding, text: str, dialect: Dialect) -> tuple[TextCure, ...]:
    """What would mend a finding, each with the line as it would stand."""
    lines = text.split("\n")
    if finding.line is None or not 0 < finding.line <= len(lines) or finding.code not in _CURES:
        return ()
    before = lines[finding.line - 1].rstrip("\r")
    if finding.code == "speed.no_clamp":
        found: Changed = ("Put a clamp of 2000 rpm before it", f"{dialect.codes['clamp']} S2000")
    elif finding.code == "program.end":
        found = ("Put an end behind it", f"{before}\n{dialect.codes['end']}")
    else:
        found = _CURES[finding.code](before)
    if found is None or found[1] == before:
        return ()
    label, after = found
    return (TextCure(label, finding.line, before, after, insert=finding.code in INSERTED),)


INSERTED = ("speed.no_clamp",)
Changed = tuple[str, str] | None


def _zero(line: str) -> Changed:
    after = re.sub(r"(?<=[0-9.])O(?=[0-9.\s]|$)|(?<=[XZUWRFS])O(?=[0-9.])", "0", line, flags=re.I)
    return ("Write a zero", after)


def _point(line: str) -> Changed:
    match = re.search(r"([XZUWR]\s*[+-]?\d+)(?![\d.])", line, re.I)
    return None if match is None else (f"Write {match[1]}.", line[: match.end()] + "." + line[match.end() :])


def _without_feed(line: str) -> Changed:
    return ("Take F out", re.sub(rf"\s*F\s*{_NUMBER}", "", line, flags=re.I))


def _first_out(line: str) -> Changed:
    for letter in "XZUWFSRTPQIK":
        found = list(re.finditer(rf"{letter}\s*{_NUMBER}\s*", line, re.I))
        if len(found) > 1:
            return (f"Keep the last {letter}", line[: found[0].start()] + line[found[0].end() :])
    return None


def _closed(line: str) -> Changed:
    return ("Close the comment", line + ")")


def _turned(line: str) -> Changed:
    match = re.search(r"Z\s*(\d*\.?\d+)", line, re.I)
    return (
        None
        if match is None
        else (f"Write Z-{match[1]}", line[: match.start()] + f"Z-{match[1]}" + line[match.end() :])
    )


def _smaller(line: str) -> Changed:
    match = re.search(r"F\s*(\d+)\.?(?!\d)", line, re.I)
    if match is None:
        return None
    return (f"Write F.{match[1]}", line[: match.start()] + f"F.{match[1]}" + line[match.end() :])


def _comma(line: str) -> Changed:
    match = re.search(r"(?<![,A-Z])([RCA])\s*(?=[\d.+-])", line, re.I)
    return None if match is None else (f"Write ,{match[1]}", line[: match.start()] + "," + line[match.start() :])


def _forward(line: str) -> Changed:
    return ("Write M3", re.sub(r"M\s*0*4(?!\d)", "M3", line, flags=re.I))


def _own_offset(line: str) -> Changed:
    match = re.search(r"T\s*(\d{1,2})(\d{2})(?!\d)", line, re.I)
    if match is None:
        return None
    station = int(match[1])
    return (f"Use offset {station}", line[: match.start()] + f"T{station:02d}{station:02d}" + line[match.end() :])


_CURES: dict[str, Callable[[str], Changed]] = {
    "program.no_point": _point,
    "program.point": _point,
    "feed.rapid": _without_feed,
    "program.twice": _first_out,
    "program.sign": _turned,
    "feed.large": _smaller,
    "corner.plain": _comma,
    "spindle.reverse": _forward,
    "tool.offset": _own_offset,
    "speed.no_clamp": lambda line: None,
    "program.end": lambda line: None,
    "program.unread": lambda line: _zero(line) if re.search(r"[0-9.]O", line, re.I) else None,
    "program.comment": _closed,
}
