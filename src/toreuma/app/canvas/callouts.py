"""Callouts: the few numbers a drawing gives of a feature, where it stands, each of which can be edited there."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any, Literal

from toreuma.core.geometry.symbols import Symbol
from toreuma.core.model import Part
from toreuma.core.scene import Scene
from toreuma.core.units import System, show

__all__ = ["Callout", "Word", "callouts"]

Where = Literal["above", "bore", "front", "back"]


@dataclass(frozen=True)
class Word:
    """A piece of a callout; with a ``field`` it is a number that can be edited."""

    text: str
    field: str = ""


@dataclass(frozen=True)
class Callout:
    """The words of one feature, at (z, r) on it, written on the side ``where`` there is air."""

    feature: int
    at: tuple[float, float]
    where: Where
    words: tuple[Word, ...]


def callouts(part: Part, scene: Scene, symbols: Iterable[Symbol], system: System) -> list[Callout]:
    """One callout for every feature that can be seen in the section."""
    marks: dict[int, list[tuple[float, float]]] = {}
    for index, void in scene.shape.voids:
        marks.setdefault(index, []).extend(scene.shape.edge_of(void))
    for symbol in symbols:
        marks.setdefault(symbol.feature, []).extend(symbol.points)
    found = []
    for index, feature in enumerate(part.features):
        if marks.get(index):
            where = _where(feature)
            found.append(Callout(index, _place(marks[index], where), where, WORDS[feature.kind](feature, system)))
    return found


def _where(feature: Any) -> Where:
    side = getattr(feature, "on", None) or getattr(feature, "end", None) or getattr(feature, "side", "outside")
    places: dict[str, Where] = {"outside": "above", "inside": "bore", "front": "front", "back": "back"}
    return places[side]


def _place(marks: list[tuple[float, float]], where: Where) -> tuple[float, float]:
    z, r = [m[0] for m in marks], [m[1] for m in marks]
    middle = (min(z) + max(z)) / 2
    if where == "above":
        return middle, max(r)
    if where == "bore":
        return middle, min(r)
    return (max(z) if where == "front" else min(z)), (min(r) + max(r)) / 2


def _number(feature: Any, field: str, system: System, before: str = "", empty: str = "") -> Word:
    value = getattr(feature, field)
    return Word(before + (empty if value is None else show(value, "mm", system, trim=True).number), field)


def _groove(f: Any, system: System) -> tuple[Word, ...]:
    return _number(f, "width_mm", system), Word(" × "), _number(f, "d_mm", system, "Ø")


def _face_groove(f: Any, system: System) -> tuple[Word, ...]:
    size = (_number(f, "d_mm", system, "Ø"), Word(" × "), _number(f, "width_mm", system), Word(" × "))
    return *size, _number(f, "depth_mm", system)


def _relief(f: Any, system: System) -> tuple[Word, ...]:
    """Radius by depth for forms E and F as DIN 509 writes them, length by depth for a thread's run-out."""
    head = Word("" if f.form == "thread" else f"{f.form} ")
    first = "length_mm" if f.form == "thread" else "radius_mm"
    return head, _number(f, first, system), Word(" × "), _number(f, "depth_mm", system)


def _thread(f: Any, system: System) -> tuple[Word, ...]:
    return Word(f.designation, "designation"), Word(" × "), _number(f, "length_mm", system)


def _axial_hole(f: Any, system: System) -> tuple[Word, ...]:
    tapped = (Word(f.thread + "  "),) if f.thread else ()
    return *tapped, _number(f, "d_mm", system, "Ø"), Word(" × "), _number(f, "depth_mm", system, empty="through")


def _centre_hole(f: Any, system: System) -> tuple[Word, ...]:
    return _number(f, "d_mm", system, "Ø"), Word(" / "), _number(f, "mouth_d_mm", system, "Ø"), Word(" 60°")


def _holes(f: Any, system: System) -> tuple[Word, ...]:
    holes = (Word(f"{f.count} × "), _number(f, "d_mm", system, "Ø"))
    if f.on == "outside":
        return *holes, Word(" × "), _number(f, "depth_mm", system, empty="through")
    return *holes, Word(" on "), _number(f, "circle_d_mm", system, "Ø")


def _flats(f: Any, system: System) -> tuple[Word, ...]:
    return Word(f"{f.count} flats, axis to flat "), _number(f, "distance_mm", system)


def _slot(f: Any, system: System) -> tuple[Word, ...]:
    return Word("slot "), _number(f, "width_mm", system), Word(" × "), _number(f, "depth_mm", system)


WORDS: dict[str, Callable[[Any, System], tuple[Word, ...]]] = {
    "groove": _groove,
    "face_groove": _face_groove,
    "relief": _relief,
    "thread": _thread,
    "axial_hole": _axial_hole,
    "centre_hole": _centre_hole,
    "holes": _holes,
    "flats": _flats,
    "slot": _slot,
}
