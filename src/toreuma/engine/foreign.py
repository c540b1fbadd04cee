"""A program that nobody here planned: which language it is in, what it does, and what is known besides."""

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from pathlib import Path
from typing import Any

from toreuma.core.dialect import Dialect
from toreuma.core.errors import ProgramError
from toreuma.core.findings import Finding
from toreuma.core.meanings import MEANINGS
from toreuma.core.model import Machine
from toreuma.core.read import Given, Nose, Program, read
from toreuma.core.read.guess import Guess, guess
from toreuma.engine.channel_texts import taken_apart
from toreuma.engine.library import library
from toreuma.files.reading import bytes_of

__all__ = ["Foreign", "given_of", "language_of", "neighbours_of", "program_bytes_text", "read_foreign"]

MOST_BYTES = 50_000_000
MOST_NEIGHBOUR_BYTES = 2_000_000
MOST_NEIGHBOURS = 500
NAMED = re.compile(r"^[O:P]?0*(\d{1,8})", re.I)


@dataclass(frozen=True, kw_only=True)
class Foreign:
    """A text, the language it was read in, why that one, and what it does."""

    text: str
    dialect: Dialect
    guess: Guess | None
    given: Given
    program: Program
    channel: int = 1
    others: Mapping[int, Program] = field(default_factory=dict)
    """Programs of further channels that stand in the same text."""


def program_bytes_text(path: Path, most: int = MOST_BYTES) -> str:
    """The text of a program file: UTF-8, or Latin-1 where it is not. Raises `ToreumaError`."""
    try:
        data = bytes_of(path, most)
    except FileNotFoundError:
        raise ProgramError(path.name, "there is no such file", "check the file's name") from None
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = data.decode("latin-1")
    return text.replace("\0", "")


def language_of(text: str, name: str | None = None) -> tuple[Dialect, Guess | None]:
    """The dialect that is named, or the one the text is most likely in. Raises `ProgramError`."""
    if name is not None:
        return library().dialect(name), None
    found = guess(text, library().dialect("system-a"))
    language = found.applied(library().dialect(found.dialect))
    if found.units == "inch":
        begun = language.power_on.model_copy(update={"units": "inch"})
        language = language.model_copy(update={"power_on": begun})
    return language, found


def read_foreign(
    text: str, *, name: str | None = None, given: Given | None = None, machine: Machine | None = None
) -> Foreign:
    """Read a text as what it most likely is, as the machine it is for has its words and numbers; every change of what
    is in force is kept. Raises `ProgramError`."""
    language, found = language_of(text, name or (machine.dialect if machine is not None else None))
    language = language if machine is None else language.set_at(machine)
    words = None if machine is None else machine.own_words
    known = given or Given()
    texts = taken_apart(text, language)
    programs = {
        channel: read(each, language, None, machine=words, given=known, watched=True) for channel, each in texts.items()
    }
    if found is not None and found.units == "inch":
        programs = {channel: _asked_units(program, found) for channel, program in programs.items()}
    first = min(programs)
    others = {channel: program for channel, program in programs.items() if channel != first}
    return Foreign(
        text=text, dialect=language, guess=found, given=known, program=programs[first], channel=first, others=others
    )


def _asked_units(program: Program, found: Guess) -> Program:
    """Units that nobody said and that were taken all the same are a question."""
    because = "; ".join(one.what for one in found.units_because)
    line = found.units_because[0].line if found.units_because else 1
    what = f"line {line}: nothing says the units; inches were taken, as {because}"
    asked = Finding("warning", "program.units", what, "say the unit first", line=line)
    return replace(program, findings=(*program.findings, asked))


def neighbours_of(path: Path) -> dict[int, str]:
    """Programs that lie in the same folder, by the number their file's name begins with."""
    found: dict[int, str] = {}
    try:
        files = sorted(one for one in path.resolve().parent.iterdir() if one.is_file())[:MOST_NEIGHBOURS]
    except OSError:
        return found
    for one in files:
        match = NAMED.match(one.stem)
        if one.name == path.name or match is None or one.stat().st_size > MOST_NEIGHBOUR_BYTES:
            continue
        try:
            found.setdefault(int(match[1]), program_bytes_text(one, MOST_NEIGHBOUR_BYTES))
        except OSError:
            continue
    return found


def given_of(data: Any, where: str) -> Given:
    """What a file of tools and other knowledge says that reading needs. Raises `ProgramError`.

    ``tools`` have ``station``, ``nose_mm`` and ``tip``; ``datums`` places [z, x] on diameter; ``variables`` numbers;
    ``skip`` the switches that leave blocks out.
    """
    if not isinstance(data, dict | list):
        raise ProgramError(where, "tools are a list, or an object with 'tools'", "see: toreuma help program-files")
    noses: dict[int, Nose] = {}
    rows = data if isinstance(data, list) else data.get("tools", data if _all_stations(data) else [])
    for station, row in tool_rows(rows, where):
        nose = _first(row, NOSE_KEYS)
        if nose is not None:
            tip = _first(row, TIP_KEYS)
            noses[station] = Nose(
                _number(nose, where, "the nose"), int(_number(3 if tip is None else tip, where, "tip"))
            )
    more = data if isinstance(data, dict) else {}
    return Given(
        noses=noses,
        datums={str(key).upper(): _place(value, where) for key, value in _mapping(more, "datums", where).items()},
        variables={
            int(str(key).lstrip("#")): _number(value, where, f"#{key}")
            for key, value in _mapping(more, "variables", where).items()
            if str(key).lstrip("#").isdigit()
        },
        words={str(word).upper(): _meaning(value, where) for word, value in _mapping(more, "words", where).items()},
        skipped=frozenset(int(_number(one, where, "skip")) for one in more.get("skip", []) or []),
    )


NOSE_KEYS = ("nose_mm", "nose_radius_mm", "nose", "nose_radius", "radius", "r")
TIP_KEYS = ("tip", "tip_number", "quadrant", "tip_direction", "orientation")
STATION_KEYS = ("station", "tool", "t", "number", "id")


def tool_rows(rows: Any, where: str) -> list[tuple[int, dict[str, Any]]]:
    """Tools with their stations, however they are listed. Raises `ProgramError`."""
    pairs = (
        list(rows.items())
        if isinstance(rows, dict)
        else [(None, row) for row in rows]
        if isinstance(rows, list)
        else []
    )
    found = []
    for key, row in pairs:
        if isinstance(row, str):
            row = {"code": row}
        if not isinstance(row, dict):
            raise ProgramError(
                where, "a tool is an object with its station and code", "see: toreuma help program-files"
            )
        named = key if key is not None else _first(row, STATION_KEYS)
        digits = re.search(r"\d+", str(named if named is not None else ""))
        if digits is None:
            raise ProgramError(where, "a tool has no station", "give each one 'station'")
        number = int(digits[0])
        found.append((number // 100 if number >= 100 else number, row))
    return found


def _all_stations(data: dict[str, Any]) -> bool:
    return bool(data) and all(re.fullmatch(r"T?\d{1,4}", str(key), re.I) for key in data)


def _first(row: Mapping[str, Any], keys: tuple[str, ...]) -> Any:
    lower = {str(key).lower(): value for key, value in row.items()}
    return next((lower[key] for key in keys if lower.get(key) is not None), None)


def _number(value: Any, where: str, what: str) -> float:
    try:
        number = float(value)
    except (TypeError, ValueError):
        raise ProgramError(where, f"{what} is no number", "write a plain number") from None
    if not abs(number) < 1e9:
        raise ProgramError(where, f"{what} is no usable number", "write a plain number")
    return number


def _mapping(data: Mapping[str, Any], key: str, where: str) -> dict[str, Any]:
    found = data.get(key) or {}
    if not isinstance(found, dict):
        raise ProgramError(where, f"'{key}' is no object", f'write "{key}": {{...}}')
    return found


def _meaning(value: Any, where: str) -> str:
    if value not in MEANINGS:
        raise ProgramError(where, f"nothing is called '{str(value)[:40]}'", "see: toreuma help program-words")
    return str(value)


def _place(value: Any, where: str) -> tuple[float, float]:
    if isinstance(value, dict):
        value = [value.get("z", 0.0), value.get("x", 0.0)]
    if not isinstance(value, list) or len(value) != 2:
        raise ProgramError(where, "a datum is [z, x]", "x is on diameter, mm")
    return _number(value[0], where, "z"), _number(value[1], where, "x") / 2


def with_neighbours(given: Given, path: Path, skip: Iterable[int] = ()) -> Given:
    """The same, with the programs beside a file, and further blocks left out."""
    return replace(given, neighbours=neighbours_of(path), skipped=given.skipped | set(skip))
