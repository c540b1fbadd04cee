"""A program written anew without doing anything else: numbered, shifted, or with another speed. Text in, text out.

Comments stay as they are. Nothing raises: a line that cannot be changed safely is left, and its number told.
"""

import re
from dataclasses import dataclass

from toreuma.core.dialect import Dialect
from toreuma.core.read.words import blocks_of

__all__ = ["Rewritten", "renumbered", "shifted", "with_speed"]

_COMMENT = re.compile(r"(\([^)]*\)?|;.*$)")
_N = re.compile(r"^(\s*/?\s*)N\s*\d+\s*", re.I)


@dataclass(frozen=True, slots=True)
class Rewritten:
    """The text, how many lines changed, and lines (from 1) that could not be changed safely."""

    text: str
    changed: int
    left: tuple[int, ...] = ()


def _outside_comments(line: str, change: "object") -> str:
    """Apply a change to what stands outside comments."""
    pieces = _COMMENT.split(line)
    return "".join(piece if n % 2 else change(piece) for n, piece in enumerate(pieces))  # type: ignore[operator]


def renumbered(text: str, dialect: Dialect, step: int = 10) -> Rewritten:
    """Block numbers that rise evenly; P, Q and GOTO lead where they led. ``step`` 0 keeps only numbers that are led to.

    A number that is worked out (``GOTO #1``) cannot be followed: its line is told, and no number is changed at all.
    """
    blocks = list(blocks_of(text, dialect))
    computed = tuple(one.line for one in blocks if re.search(r"GOTO\s*[\[#]", one.text, re.I))
    if computed:
        return Rewritten(text, 0, computed)
    lines = text.split("\n")
    wanted = _led_to(text, dialect)
    new: dict[tuple[int, int], list[tuple[int, int]]] = {}
    program, number = 0, 0
    plan: list[int | None] = []
    for block in blocks:
        if "O" in block.said.last:
            program, number = program + 1, 0
        own = block.said.last.get("N")
        solid = bool(block.said.words or block.said.steers is not None) and "O" not in block.said.last
        keeps = own is not None and (program, int(own)) in wanted
        if not solid or (step == 0 and not keeps):
            plan.append(None)
            continue
        number += step or 10
        plan.append(number)
        if own is not None:
            new.setdefault((program, int(own)), []).append((len(plan) - 1, number))
    found, program = [], 0
    for at, (line, block, number_of) in enumerate(zip(lines, blocks, plan, strict=False)):
        if "O" in block.said.last:
            program += 1
        found.append(_renumbered_line(line, number_of, _Leads(program, at, new), dialect))
    found += lines[len(blocks) :]
    joined = "\n".join(found)
    return Rewritten(joined, sum(a != b for a, b in zip(lines, found, strict=True)))


def _led_to(text: str, dialect: Dialect) -> set[tuple[int, int]]:
    """Programs, counted, and the numbers in them that something leads to."""
    found: set[tuple[int, int]] = set()
    program = 0
    for block in blocks_of(text, dialect):
        if "O" in block.said.last:
            program += 1
        found |= {(program, number) for number in _references(block.text, dialect)}
        found |= {(FIRST, int(number)) for number in _BACK.findall(_COMMENT.sub("", block.text))}
    return found


_BACK = re.compile(r"M\s*99\s*P\s*(\d+)", re.I)
FIRST = 1
"""A return with a number leads to a block of the program that called: the first one in the text."""
_GOTO = re.compile(r"(GOTO\s*)(\d+)", re.I)


def _references(text: str, dialect: Dialect) -> list[int]:
    found = [int(match[2]) for match in _GOTO.finditer(text)]
    plain = _COMMENT.sub("", text)
    if _follows(plain, dialect):
        found += [int(float(match[2])) for match in re.finditer(r"([PQ])\s*(\d+)(?![\d.])", plain, re.I)]
    return found


def _follows(plain: str, dialect: Dialect) -> bool:
    """Whether a block has a contour between two numbers."""
    names = {
        dialect.codes.get(name, "") for name in ("rough_cycle", "rough_face_cycle", "pattern_cycle", "finish_cycle")
    }
    words = {f"G{float(number):g}" for number in re.findall(r"G\s*(\d+(?:\.\d+)?)", plain, re.I)}
    return bool(words & names) and bool(re.search(r"P\s*\d+.*Q\s*\d+|Q\s*\d+.*P\s*\d+", plain, re.I))


@dataclass(frozen=True, slots=True)
class _Leads:
    """Where numbers in one line lead: as the reader goes, behind it first, else to the first of its program."""

    program: int
    at: int
    new: dict[tuple[int, int], list[tuple[int, int]]]

    def to(self, number: int, *, program: int | None = None, back: bool = False) -> int:
        """The new number of the block an old one leads to; with ``back`` the nearest before it."""
        places = self.new.get((self.program if program is None else program, number), [])
        before = [new for at, new in places if at < self.at]
        behind = [new for at, new in places if at >= self.at]
        if back and before:
            return before[-1]
        return behind[0] if behind else before[0] if before else number


def _renumbered_line(line: str, number: int | None, leads: _Leads, dialect: Dialect) -> str:
    def change(piece: str) -> str:
        piece = _GOTO.sub(lambda match: f"{match[1]}{leads.to(int(match[2]))}", piece)
        if _follows(piece, dialect):
            word = re.compile(rf"G0*{dialect.codes.get('finish_cycle', 'G70')[1:]}(?!\d)", re.I)
            back = word.search(piece.replace(" ", "")) is not None
            piece = re.sub(
                r"([PQ]\s*)(\d+)(?![\d.])",
                lambda match: f"{match[1]}{leads.to(int(match[2]), back=back)}",
                piece,
                flags=re.I,
            )
        return _BACK.sub(lambda match: match[0].replace(match[1], f"{leads.to(int(match[1]), program=FIRST)}"), piece)

    bare = _N.sub(r"\1", line)
    bare = _outside_comments(bare, change)
    if number is None or not bare.strip():
        return bare
    skip = re.match(r"\s*/\s*\d?\s*", bare)
    head = skip[0] if skip else ""
    return f"{head}N{number} {bare[len(head) :].lstrip()}"


def shifted(text: str, dialect: Dialect, station: int, axis: str, by: float) -> Rewritten:
    """Every place of one tool along X (on diameter) or Z moved by so much, in the program's units.

    Ways, cycles' depths and allowances stay. Places that are worked out are left, and their lines told.
    """
    lines, now = text.split("\n"), 0
    found, left, changed = [], [], 0
    for line, block in zip(lines, blocks_of(text, dialect), strict=False):
        number = block.said.last.get("T")
        if number:
            now = int(number) // 100 if number >= 100 else int(number)
        words = {f"G{value:g}" for letter, value in block.words if letter == "G"}
        other = words & {"G28", "G30", "G53", "G50", "G92", "G10", "G4", "G52", "G65", "G74"} and not words & {
            "G0",
            "G1",
        }
        if now != station or other or axis not in block.said.last:
            found.append(line)
            continue
        if any(block.words[n][0] == axis for n, _ in block.said.computed):
            left.append(block.line)
            found.append(line)
            continue
        found.append(_outside_comments(line, lambda piece: _moved(piece, axis, by)))
        changed += found[-1] != line
    found += lines[len(found) :]
    return Rewritten("\n".join(found), changed, tuple(left))


def _moved(piece: str, axis: str, by: float) -> str:
    def put(match: re.Match[str]) -> str:
        number = match[2].replace(" ", "")
        places = max(len(number.partition(".")[2]), len(f"{by:.6f}".rstrip("0").partition(".")[2]))
        text = f"{float(number) + by:.{places}f}"
        text = text if "." in text else f"{text}."
        return f"{match[1]}{'0.' if float(text) == 0 else text}"

    return re.sub(rf"({axis}\s*)([+-]?\s*(?:\d+\.?\d*|\.\d+))", put, piece, flags=re.I)


def with_speed(text: str, dialect: Dialect, station: int, old: float, new: float) -> Rewritten:
    """Another number behind S wherever a tool is told that speed; clamps stay."""
    lines, now, changed = text.split("\n"), 0, 0
    found = []
    for line, block in zip(lines, blocks_of(text, dialect), strict=False):
        number = block.said.last.get("T")
        if number:
            now = int(number) // 100 if number >= 100 else int(number)
        words = {f"G{value:g}" for letter, value in block.words if letter == "G"}
        is_clamp = dialect.codes.get("clamp", "") in words and not words & {"G96", "G97"}
        if now == station and not is_clamp and any(word == ("S", old) for word in block.words):
            line = _outside_comments(line, lambda piece: _speed(piece, old, new))
            changed += 1
        found.append(line)
    found += lines[len(found) :]
    return Rewritten("\n".join(found), changed)


def _speed(piece: str, old: float, new: float) -> str:
    def put(match: re.Match[str]) -> str:
        return f"{match[1]}{new:g}" if float(match[2]) == old else match[0]

    return re.sub(r"(S\s*)(\d+\.?\d*)", put, piece, flags=re.I)
