"""Callouts: the few numbers a drawing gives of a feature, where it stands, each of which can be edited there."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any, Literal

from toreuma.core.geometry.symbols import Symbol
from toreuma.core.kinds.features import FEATURES
from toreuma.core.kinds.registry import Word
from toreuma.core.model import Part
from toreuma.core.scene import Scene
from toreuma.core.units import System

__all__ = ["Callout", "Word", "callouts"]

Where = Literal["above", "bore", "front", "back"]


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
            found.append(
                Callout(index, _place(marks[index], where), where, FEATURES[feature.kind].callout(feature, system))
            )
    return found


def _where(feature: Any) -> Where:
    side = str(getattr(feature, "on", None) or getattr(feature, "end", None) or getattr(feature, "side", "outside"))
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
