"""All single changes of a program that matter: what fingers, files and copying do to one line."""

import re
from collections.abc import Iterator
from dataclasses import dataclass

__all__ = ["Change", "every_change", "same_meaning"]

WORD = re.compile(r"([A-Z])(-?\d+\.?\d*|-?\.\d+)")
MEANS_NUMBER = frozenset("XZUWIKRPQCYFSBHD")


@dataclass(frozen=True)
class Change:
    """One line of a program, counted from 1, as it was and as it is now; ``text`` is the whole of it."""

    kind: str
    line: int
    was: str
    now: str
    text: str


def every_change(text: str) -> Iterator[Change]:
    """Every single change of every line but comments and the first two."""
    lines = text.splitlines()
    for at, line in enumerate(lines):
        bare = re.sub(r"\([^)]*\)", "", line).strip()
        if not bare or bare.startswith(("%", "O", "<")):
            continue
        yield _with(lines, at, "deleted", [])
        yield _with(lines, at, "doubled", [line, line])
        if at + 1 < len(lines) and re.sub(r"\([^)]*\)", "", lines[at + 1]).strip() not in ("", "%", bare):
            swapped = [*lines[:at], lines[at + 1], line, *lines[at + 2 :]]
            yield Change("swapped", at + 1, line, lines[at + 1], _joined(swapped))
        for kind, now in _of_line(line):
            if now != line:
                yield _with(lines, at, kind, [now])


def _of_line(line: str) -> Iterator[tuple[str, str]]:
    inside_comment = [(m.start(), m.end()) for m in re.finditer(r"\([^)]*\)", line)]
    for word in WORD.finditer(line):
        if any(a <= word.start() < b for a, b in inside_comment):
            continue
        letter, number = word.group(1), word.group(2)

        def put(now: str, word: "re.Match[str]" = word) -> str:
            return (line[: word.start()] + now + line[word.end() :]).replace("  ", " ").rstrip()

        yield f"{letter} lost", put("")
        if letter in MEANS_NUMBER:
            yield from ((f"{letter} {kind}", put(letter + now)) for kind, now in _of_number(number))
        elif letter == "G":
            yield from ((f"G{number} to G{now}", put(f"G{now}")) for now in _other_g(number))
        elif letter == "M":
            yield from ((f"M{number} to M{now}", put(f"M{now}")) for now in _other_m(number))
        elif letter == "T" and len(number) == 4:
            yield from ((kind, put(f"T{now}")) for kind, now in _other_t(number))


def _of_number(number: str) -> Iterator[tuple[str, str]]:
    for place, sign in enumerate(number):
        if sign.isdigit():
            after = len(number.partition(".")[0])
            fine = "digit" if place < after else "decimal" if place < after + 3 else "last decimal"
            yield fine, number[:place] + str((int(sign) + 1) % 10) + number[place + 1 :]
            yield fine, number[:place] + str((int(sign) + 5) % 10) + number[place + 1 :]
    yield "sign", number[1:] if number.startswith("-") else "-" + number
    if "." in number:
        yield "point lost", number.replace(".", "", 1)
        yield "point moved", _moved(number, 1)
    else:
        yield "times ten", number + "0"
    yield "nought", "0." if "." in number else "0"


def _moved(number: str, places: int) -> str:
    whole, _, rest = number.partition(".")
    return f"{whole}{rest[:places] or '0'}.{rest[places:]}"


def _other_g(number: str) -> tuple[str, ...]:
    return {
        "0": ("1", "2"), "00": ("01",), "1": ("0", "2", "3"), "2": ("1", "3", "0"), "3": ("1", "2", "0"),
        "96": ("97",), "97": ("96",), "98": ("99",), "99": ("98",), "20": ("21",), "21": ("20",),
        "54": ("55", "53"), "32": ("1", "0"), "70": ("71",), "71": ("72", "70"), "76": ("70", "92"),
        "83": ("84", "80"), "84": ("83",), "90": ("94", "92"), "92": ("90", "94"), "94": ("90",), "50": ("52",),
        "28": ("30", "0"), "4": ("1",),
    }.get(number, ())  # fmt: skip


def _other_m(number: str) -> tuple[str, ...]:
    return {"3": ("4", "5"), "4": ("3", "5"), "8": ("9",), "30": ("0",), "5": ("3",)}.get(number, ())


def _other_t(number: str) -> Iterator[tuple[str, str]]:
    tool, offset = number[:2], number[2:]
    after = f"{int(tool) % 12 + 1:02d}"
    if offset != "00":
        yield "T offset of another", tool + after
        yield "T tool of another", after + offset
        yield "T offset nought", tool + "00"
    yield "T tool and offset of another", after + (after if offset != "00" else "00")


def same_meaning(text: str) -> Iterator[Change]:
    """Changes of how a line is written that mean nothing."""
    lines = text.splitlines()
    for at, line in enumerate(lines):
        if "(" in line or not WORD.search(line) or line.startswith(("O", "%")):
            continue
        yield _with(lines, at, "blanks lost", [line.replace(" ", "")])
        yield _with(lines, at, "comment added", [line + " (LOOK HERE)"])
        yield _with(lines, at, "empty line", ["", line])
        yield _with(lines, at, "blanks doubled", [line.replace(" ", "  ")])
        if re.match(r"G[0-4] ", line):
            yield _with(lines, at, "G with a nought", [re.sub(r"^G", "G0", line)])
        if re.search(r"\.\d*(?= |$)", line):
            yield _with(lines, at, "noughts behind", [re.sub(r"(\.\d*)(?= |$)", r"\g<1>0", line)])
            yield _with(lines, at, "noughts before", [re.sub(r"([XZ]-?)(\d)", r"\g<1>0\g<2>", line)])
        if not re.match(r"N\d", line):
            yield _with(lines, at, "number added", [f"N9{at:03d} {line}"])


def _with(lines: list[str], at: int, kind: str, now: list[str]) -> Change:
    return Change(
        kind, at + 1, lines[at], now[0] if len(now) == 1 else kind, _joined([*lines[:at], *now, *lines[at + 1 :]])
    )


def _joined(lines: list[str]) -> str:
    return "\n".join(lines) + "\n"
