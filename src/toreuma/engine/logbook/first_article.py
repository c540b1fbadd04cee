"""A first article: the sizes that were found, split into causes, in words, with the offsets they ask for."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from toreuma.core.measure import Characteristic
from toreuma.core.measure.split import Offset, Sized, Split, effect_words, split
from toreuma.core.plan import Plan
from toreuma.core.spoken import q, said
from toreuma.core.verdict import Verdict
from toreuma.engine.logbook.cutters import Cutter, Cutters, second
from toreuma.log import Measurement

__all__ = ["ArticleRow", "FirstArticle", "at_place", "first_article", "size_of"]

AT = "@"
"""Behind the key of a size: at which Z of its cylinder it was measured."""

LONG_MM, FROM_END_MM = 15.0, 3.0
"""A cylinder so long may be measured near both of its ends."""

USUAL_U_MM = 0.01
"""A gauge nobody knows is taken to be uncertain by this, k = 2."""

TURNED = {"diameter": "diameter", "wires": "wires", "length": "length", "depth": "length"}


@dataclass(frozen=True, kw_only=True)
class ArticleRow:
    """A line of the inspection list with what was found: ``error`` over what was aimed at, ``rest`` what no cause
    explains; None where nothing was measured. ``tool`` is who cut it, in words."""

    line: Characteristic
    found: float | None = None
    uncertainty: float = 0.0
    error: float | None = None
    rest: float | None = None
    tool: str = ""

    @property
    def within(self) -> bool | None:
        """Whether it lies within its limits; None where nothing was measured or the drawing gives none."""
        if self.found is None or (self.line.lower is None and self.line.upper is None):
            return None
        return self.line.within(self.found)


@dataclass(frozen=True, kw_only=True)
class FirstArticle:
    """``says`` are the causes in sentences, the surest and largest first; ``offsets`` with what each is for."""

    part: int
    rows: tuple[ArticleRow, ...]
    split: Split
    says: tuple[str, ...]
    offsets: tuple[tuple[Offset, str], ...]
    left: tuple[str, ...]


def size_of(key: str) -> tuple[str, float | None]:
    """The key of a line, and where along Z it was measured, if that was said."""
    line, _, place = key.partition(AT)
    try:
        return line, float(place) if place else None
    except ValueError:
        return line, None


def at_place(key: str, z: float) -> str:
    """The key of a size at a place of its cylinder."""
    return f"{key}{AT}{z:g}"


def first_article(
    lines: Sequence[Characteristic], measured: Iterable[Measurement], sides: Sequence[Plan], verdict: Verdict, part: int
) -> FirstArticle:
    """Split the sizes of one part. Sizes measured more than once count as their mean."""
    cutters = Cutters(sides, verdict)
    names = cutters.names()
    known = {one.key: one for one in lines}
    of_size: dict[str, list[Measurement]] = {}
    for one in measured:
        if one.part == part and not one.struck and size_of(one.size)[0] in known:
            of_size.setdefault(one.size, []).append(one)
    sizes, rows = [], []
    for key, taken in of_size.items():
        name, z = size_of(key)
        line = known[name]
        found, u = float(np.mean([one.value for one in taken])), _uncertainty(taken, line)
        error = found - line.aim if line.aim is not None and line.is_sized else None
        sized = _sized(key, line, z, cutters, error, u) if error is not None else None
        if sized is not None:
            sizes.append(sized)
        cutter = cutters.of(line)
        rows.append(
            ArticleRow(
                line=line, found=found, uncertainty=u, error=error, tool=names.get(cutter.tool, "") if cutter else ""
            )
        )
    could = [one for line in lines for one in _could(line, cutters, set(of_size))]
    made = split(sizes, could, names)
    rows = [replace(row, rest=made.rest.get(key)) for row, key in zip(rows, of_size, strict=True)]
    rows += [ArticleRow(line=line) for line in lines if not any(size_of(key)[0] == line.key for key in of_size)]
    effects = sorted(made.effects, key=lambda one: (not one.told, not one.matters, -one.at_most_mm))
    return FirstArticle(
        part=part,
        rows=tuple(sorted(rows, key=lambda row: row.line.number)),
        split=made,
        says=tuple(_against(one.kind, effect_words(one, names), made, names) for one in effects),
        offsets=tuple((one, _offset_words(one, names)) for one in made.offsets),
        left=tuple(_left(made, known, sizes)),
    )


def _uncertainty(taken: Sequence[Measurement], line: Characteristic) -> float:
    """Of the mean, k = 2, mm: that of the gauge, or of the one the inspection list names."""
    usual = line.uncertainty_um / 1000 if line.uncertainty_um is not None else USUAL_U_MM
    every = [one.uncertainty or usual for one in taken]
    return float(np.sqrt(np.mean(np.square(every))) / np.sqrt(len(every)))


def _sized(key: str, line: Characteristic, z: float | None, cutters: Cutters, error: float, u: float) -> Sized | None:
    """A size as the split wants it; None for one that no offset moves."""
    if line.quantity not in TURNED or line.note or line.key.endswith(("major-diameter", "minor-diameter")):
        return None  # crests are cut by one tool and trimmed by another; where a full thread ends nobody sees exactly
    cutter = cutters.of(line) if line.row != "outside back" else cutters.of_back()
    if cutter is None:
        return None
    quantity: Literal["diameter", "wires", "length"] = TURNED[line.quantity]  # type: ignore[assignment]
    at = z if z is not None else line.at[0]
    if quantity == "length":
        front = cutters.of_front
        other = "" if front is None else _in_hold(front)
        return Sized(
            key=key, what=str(line.what), quantity=quantity, tool=_in_hold(cutter), other=other, z=at, error_mm=error,
            sigma_mm=max(u / 2, 1e-5), hold=cutter.hold,
        )  # fmt: skip
    return Sized(
        key=key, what=_named(line, z), quantity=quantity, tool=cutter.tool, z=cutters.place(cutter, at), error_mm=error,
        sigma_mm=max(u / 2, 1e-5), hold=cutter.hold, bend_mm=cutters.bend_mm(cutter, at),
    )  # fmt: skip


def _in_hold(cutter: Cutter) -> str:
    return cutter.tool if cutter.hold == 0 else second(cutter.tool)


def _named(line: Characteristic, z: float | None) -> str:
    return line.what if z is None else said("{} at Z {}", line.what, q(z, "mm", "-g", bare=True))


def _could(line: Characteristic, cutters: Cutters, done: set[str]) -> list[Sized]:
    """Sizes of a line that were not measured: as it is, and near both ends of a long cylinder."""
    if not line.is_sized or line.aim is None:
        return []
    places: list[float | None] = [] if line.key in done else [None]
    if line.quantity == "diameter" and line.ends_z is not None and abs(line.ends_z[0] - line.ends_z[1]) > LONG_MM:
        high, low = max(line.ends_z), min(line.ends_z)
        places += [high - FROM_END_MM, low + FROM_END_MM]
    u = line.uncertainty_um / 1000 if line.uncertainty_um is not None else USUAL_U_MM
    found = [_sized(line.key if z is None else at_place(line.key, z), line, z, cutters, 0.0, u) for z in places]
    return [one for one in found if one is not None and one.key not in done]


def _against(kind: str, words: str, made: Split, names: dict[str, str]) -> str:
    """Lengths tell of one tool against another."""
    if kind != "offset Z" or not made.datum:
        return words
    return said("{} (against {}, which cut the face)", words, names.get(made.datum, made.datum))


def _offset_words(one: Offset, names: dict[str, str]) -> str:
    amount = q(one.mm, "mm", "+.3f")
    words = said("{}: {} {}", names.get(one.tool, one.tool), one.axis, amount)
    words = said("{} on diameter", words) if one.axis == "X" else words
    words = said("{} (± {})", words, q(one.uncertainty_mm, "mm", ".3f"))
    return words if one.sure else said("{}; it brings these sizes right, whatever the cause", words)


def _left(made: Split, known: dict[str, Characteristic], sizes: Sequence[Sized]) -> list[str]:
    """Sizes that no cause explains: further off than three of their deviations."""
    found = []
    for one in sizes:
        rest = made.rest.get(one.key, 0.0)
        if abs(rest) > 3 * np.hypot(one.sigma_mm, 0.002):
            found.append(said("{} is off by {} that nothing else explains", one.what, q(rest, "mm", "+.3f")))
    return found
