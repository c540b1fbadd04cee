"""A lathe's control by the judge's own reading: program text into straight and round ways, block by block."""

import math
import re
from dataclasses import dataclass, field, replace

from benchmarks.judge.cycles import Leg, faced, grooved, roughed, threaded

__all__ = ["NotJudged", "Way", "blocks_of", "together", "ways"]

WORD = re.compile(r"([A-Z])\s*([+-]?(?:\d+\.?\d*|\.\d+))")
KNOWN = frozenset(
    {0, 1, 2, 3, 4, 18, 20, 21, 28, 32, 40, 50, 54, 55, 70, 71, 72, 75, 76, 80, 83, 84, 90, 92, 94, 96, 97, 98, 99}
)


class NotJudged(Exception):
    """The text asks for more than this judge knows."""


@dataclass
class Way:
    """``how``: rapid, feed, thread with its lead, or centre in or out; from (z, r) to (z, r), mm; ``centre`` of a round
    one."""

    how: str
    start: tuple[float, float]
    end: tuple[float, float]
    station: int
    line: int
    feed: float = 0.0
    per_minute: bool = False
    rpm: float = 0.0
    surface: bool = False
    clamp: float | None = None
    centre: tuple[float, float] | None = None
    clockwise: bool = False
    turned: float = 0.0
    second: bool = False


@dataclass
class _Control:
    at: tuple[float, float]
    home: tuple[float, float]
    unit: float = 1.0
    group: str = ""
    feed: float = 0.0
    per_minute: bool = False
    surface: bool = False
    speed: float = 0.0
    clamp: float | None = None
    on: bool = False
    station: int = 0
    taper: float = 0.0
    driven: frozenset[int] = frozenset()
    second_home: tuple[float, float] | None = None
    second: bool = False
    datum: float = 0.0
    firsts: dict[str, dict[str, float]] = field(default_factory=dict)
    blocks: list[tuple[int, list[tuple[str, str]]]] = field(default_factory=list)
    next: int = 0
    found: list[Way] = field(default_factory=list)


def ways(text: str, home: tuple[float, float], driven: frozenset[int] = frozenset()) -> list[Way]:
    """Every way of the tools that stand still; of ``driven`` ones only where they leave the carrier. Raises
    `NotJudged` for words this control does not have."""
    c = _Control(home, home, driven=driven, blocks=blocks_of(text))
    while _next(c):
        pass
    return c.found


def together(
    texts: dict[int, str], homes: dict[int, tuple[tuple[float, float], tuple[float, float]]], driven: frozenset[int],
    length: float,
) -> tuple[list[Way], list[Way]]:  # fmt: skip
    """The ways at the main and at the second spindle of channels that wait for each other at marks, phase by phase.

    ``homes`` are the places of each carrier's reference point, seen from both spindles; the second side counts from the
    other end of a part of this ``length``. Raises `NotJudged`.
    """
    each = {}
    for channel, text in texts.items():
        here, there = homes[channel]
        each[channel] = _Control(here, here, driven=driven, blocks=blocks_of(text), second_home=there)
    found: list[Way] = []
    waiting: dict[int, str] = {}
    while len(waiting) < len(each) or set(waiting.values()) != {"end"}:
        for channel, c in each.items():
            mark = ""
            while not mark:
                at = c.blocks[c.next][1] if c.next < len(c.blocks) else []
                code = next((f"M{float(n):g}" for letter, n in at if letter == "M" and 101 <= float(n) <= 199), "")
                if code:
                    c.next += 1
                    mark = code
                elif not at or not _next(c):
                    mark = "end"
            waiting[channel] = mark
            found += c.found
            c.found.clear()
        if len(set(waiting.values())) > 1:
            raise NotJudged(f"the channels wait at different marks: {waiting}")
    shift = [c.datum + length for c in each.values() if c.datum]
    ways_second = [_shifted(one, shift[0] if shift else length) for one in found if one.second]
    return [one for one in found if not one.second], ways_second


def _shifted(one: Way, along: float) -> Way:
    if abs(along) < 1e-9:
        return one
    centre = None if one.centre is None else (one.centre[0] + along, one.centre[1])
    return replace(one, start=(one.start[0] + along, one.start[1]), end=(one.end[0] + along, one.end[1]), centre=centre)


def blocks_of(text: str) -> list[tuple[int, list[tuple[str, str]]]]:
    """Words of every block that has some, with its line."""
    each = (
        (number, WORD.findall(re.sub(r"\([^)]*\)", "", line).strip().lstrip("/ ")))
        for number, line in enumerate(text.splitlines(), 1)
    )
    return [(number, words) for number, words in each if words]


def _next(c: _Control) -> bool:
    """Obey the next block; False behind the last one."""
    if c.next >= len(c.blocks):
        return False
    number, words = c.blocks[c.next]
    c.next += 1
    return _block(c, words, number)


def _block(c: _Control, words: list[tuple[str, str]], line: int) -> bool:
    values = {letter: float(number) for letter, number in words}
    codes = [f"{float(number):g}" for letter, number in words if letter == "G"]
    if c.second_home is not None and _handed(c, values, words, codes):
        return True
    if int(values.get("T", c.station * 100)) // 100 in c.driven:
        _turning_tool(c, values)
        return True
    if any(float(code) not in KNOWN for code in codes) or set(values) & set("CYBPQ") - {"P", "Q"}:
        raise NotJudged(f"line {line}: {words}")
    for code in codes:
        _mode(c, code, values, line)
    cycle = next((code for code in codes if code in ("70", "71", "72", "75", "76")), None)
    if cycle is not None:
        c.feed = values["F"] * c.unit if "F" in values else c.feed
        _several(c, cycle, values, line)
        return True
    if "T" in values:
        c.station, c.feed = int(values["T"]) // 100, 0.0
    if "S" in values and "50" not in codes:
        c.speed = values["S"]
    if "F" in values:
        c.feed = values["F"] * c.unit
    for letter, number in words:
        if letter == "M" and float(number) in (25, 26):
            c.found.append(Way("centre in" if float(number) == 25 else "centre out", c.at, c.at, c.station, line))
        if letter == "M" and float(number) in (3, 4, 5, 30):
            c.on = float(number) in (3, 4)
            if float(number) == 30:
                return False
        elif letter == "M" and float(number) not in (0, 1, 3, 4, 5, 8, 9, 25, 26, 76, 77, 78, 79):
            raise NotJudged(f"line {line}: M{number}")
    if "4" in codes or "50" in codes:
        return True
    if "28" in codes:
        z = c.home[0] if "Z" in values or "W" in values else c.at[0]
        r = c.home[1] if "X" in values or "U" in values else c.at[1]
        _go(c, "rapid", (z, r), line)
        return True
    if any(letter in values for letter in "XZUW"):
        _travel(c, values, line, codes)
    return True


def _handed(c: _Control, values: dict[str, float], words: list[tuple[str, str]], codes: list[str]) -> bool:
    """A block that concerns the second spindle; True where nothing else is in it."""
    told = [float(number) for letter, number in words if letter == "M"]
    if 98 in told:  # the parts after the first are made the same way: only the first is followed
        return True
    if 91 in told or 92 in told:
        c.second = 92 in told
        c.at = c.home = (c.second_home if c.second else c.home) or c.home
    if "10" in codes:
        c.datum = values.get("Z", 0.0) * c.unit
    return "B" in values or "10" in codes or any(one in (10, 11) or 80 <= one <= 92 for one in told)


def _several(c: _Control, code: str, values: dict[str, float], line: int) -> None:
    """A cycle of several blocks: the first is kept, the last makes the ways."""
    if not any(letter in values for letter in ("PQ" if code in ("70", "71", "72") else "XZUW")):
        c.firsts[code] = values
        return
    at = c.at
    try:
        if code in ("75", "76"):
            z = values["Z"] * c.unit if "Z" in values else at[0] + values.get("W", 0.0) * c.unit
            r = values["X"] * c.unit / 2 if "X" in values else at[1] + values.get("U", 0.0) * c.unit / 2
            if code == "75":
                legs = list(grooved(at, (z, r), values, c.unit))
            else:
                legs = list(threaded(at, (z, r), c.firsts.get(code, {}), values, c.unit, c.feed))
        else:
            contour = _contour(c, values, line, skip=code != "70")
            if code != "70":
                rough = roughed if code == "71" else faced
                legs = list(rough(at, contour, c.firsts.get(code, {}), values, c.unit))
            else:
                legs = [leg for _, leg in contour] + [Leg("rapid", at)]
    except ValueError as error:
        raise NotJudged(f"line {line}: G{code}: {error}") from None
    for leg in legs:
        _go(c, leg.how, leg.end, line, leg.centre, leg.clockwise)


def _contour(c: _Control, values: dict[str, float], line: int, skip: bool) -> list[tuple[tuple[float, float], Leg]]:
    """The ways between two block numbers, from where the tool is; they are not run again behind the cycle."""
    named = {float(number): n for n, (_, words) in enumerate(c.blocks) for letter, number in words if letter == "N"}
    begin, end = named.get(values.get("P", -1)), named.get(values.get("Q", -1))
    if begin is None or end is None or end < begin:
        raise ValueError("no contour")
    own = _Control(c.at, c.home, unit=c.unit, group="0")
    own.station = -1
    for number, words in c.blocks[begin : end + 1]:
        mine = {letter: float(text) for letter, text in words}
        for letter, text in words:
            if letter == "G" and f"{float(text):g}" in ("0", "1", "2", "3"):
                own.group = f"{float(text):g}"
        if any(letter in mine for letter in "XZUW"):
            _travel(own, mine, number, [])
    if skip and begin >= c.next:
        c.next = end + 1
    return [(one.start, Leg(one.how, one.end, one.centre, one.clockwise)) for one in own.found]


def _turning_tool(c: _Control, values: dict[str, float]) -> None:
    """A block of a driven tool: only where it ends counts."""
    c.station = int(values.get("T", c.station * 100)) // 100
    c.group = ""
    z, r = c.at
    c.at = (values["Z"] * c.unit if "Z" in values else z, values["X"] * c.unit / 2 if "X" in values else r)


def _mode(c: _Control, code: str, values: dict[str, float], line: int) -> None:
    if code in ("0", "1", "2", "3", "32", "83", "84", "90", "92", "94"):
        c.group = code
    elif code == "80":
        c.group = ""
    elif code in ("20", "21"):
        c.unit = 25.4 if code == "20" else 1.0
    elif code in ("96", "97"):
        c.surface = code == "96"
    elif code in ("98", "99"):
        c.per_minute = code == "98"
    elif code == "50":
        c.clamp = values.get("S")


def _travel(c: _Control, values: dict[str, float], line: int, codes: list[str]) -> None:
    z, r = c.at
    z = values["Z"] * c.unit if "Z" in values else z + values.get("W", 0.0) * c.unit
    r = values["X"] * c.unit / 2 if "X" in values else r + values.get("U", 0.0) * c.unit / 2
    begin = c.at
    if c.group == "0":
        _go(c, "rapid", (z, r), line)
    elif c.group == "1":
        _go(c, "feed", (z, r), line)
    elif c.group in ("2", "3"):
        _round(c, (z, r), values, line)
    elif c.group == "32":
        _go(c, "thread", (z, r), line)
    elif c.group == "84":
        back = values.get("R", begin[0] / c.unit) * c.unit
        _go(c, "rapid", (back, begin[1]), line)
        _go(c, "thread", (z, begin[1]), line)
        _go(c, "thread", (back, begin[1]), line)
    elif c.group == "83":
        back = values.get("R", begin[0] / c.unit) * c.unit
        for how, place in (("rapid", back), ("feed", z), ("rapid", back)):
            _go(c, how, (place, begin[1]), line)
    elif c.group in ("90", "92", "94"):
        c.taper = values["R"] * c.unit if "R" in values else 0.0 if codes else c.taper
        how = "thread" if c.group == "92" else "feed"
        if c.group == "94":
            corners = [(z + c.taper, begin[1]), (z, r), (begin[0], r), begin]
        else:
            corners = [(begin[0], r + c.taper), (z, r), (z, begin[1]), begin]
        hows = ("rapid", how, "rapid" if c.group == "92" else "feed", "rapid")
        for one, place in zip(hows, corners, strict=True):
            _go(c, one, place, line)
    else:
        raise NotJudged(f"line {line}: a place without a way")


def _round(c: _Control, end: tuple[float, float], values: dict[str, float], line: int) -> None:
    a, b, clockwise = c.at, end, c.group == "2"
    if "R" in values:
        r, half = abs(values["R"]) * c.unit, math.dist(a, b) / 2
        if half < 1e-9:
            raise NotJudged(f"line {line}: a round way from a place to itself")
        r = max(r, half)
        rise = math.sqrt(r * r - half * half)
        up = (-(b[1] - a[1]) / (2 * half), (b[0] - a[0]) / (2 * half))
        left = (not clockwise) is not (values["R"] < 0)
        sign = 1.0 if left else -1.0
        middle = ((a[0] + b[0]) / 2 + sign * rise * up[0], (a[1] + b[1]) / 2 + sign * rise * up[1])
    else:
        middle = (a[0] + values.get("K", 0.0) * c.unit, a[1] + values.get("I", 0.0) * c.unit)
    _go(c, "feed", end, line, middle, clockwise)


def _go(
    c: _Control, how: str, end: tuple[float, float], line: int, middle: tuple[float, float] | None = None,
    clockwise: bool = False,
) -> None:  # fmt: skip
    if math.dist(c.at, end) > 1e-9:
        before = c.found[-1] if c.found else None
        one = Way(how, c.at, end, c.station, line, c.feed, c.per_minute, c.speed if c.on else 0.0, c.surface, c.clamp,
                  middle, clockwise, second=c.second)  # fmt: skip
        if (
            how == "thread"
            and before is not None
            and before.how == "thread"
            and before.end == one.start
            and before.feed
        ):
            long = max(abs(before.end[0] - before.start[0]), abs(before.end[1] - before.start[1]))
            one.turned = (before.turned + long / before.feed) % 1.0
        c.found.append(one)
    c.at = end
