"""Which operation, and which line of the program, made a place of the finished piece."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import shapely

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.region import Region
from toreuma.core.verdict.row import Made
from toreuma.core.verdict.side import SideMade

__all__ = ["Makers"]

OFF_MM = 0.006
"""Metal this far off a surface is gone once the surface is made."""

SAME_MM = 0.05


@dataclass(frozen=True)
class _States:
    """The metal of a side: before its first section, and after each."""

    sections: tuple[int, ...]
    metal: tuple[Region, ...]


class Makers:
    """Looks places up in what every side was like after each of its operations."""

    def __init__(self, sides: Sequence[SideMade]) -> None:
        self._sides = tuple(sides)
        self._states = [_states(side) for side in sides]

    def of(self, points: Points, normals: Points) -> Made | None:
        """Who cut these places (n, 2) last; None where they came with the blank."""
        chosen = np.unique(np.linspace(0, len(points) - 1, 5).round().astype(int))
        probes = points[chosen] + OFF_MM * normals[chosen]
        for number in range(len(self._sides) - 1, -1, -1):
            side, states = self._sides[number], self._states[number]
            here = side.here(probes)
            inside = np.array([shapely.contains_xy(metal, here[:, 0], here[:, 1]) for metal in states.metal])
            last = [int(np.flatnonzero(column)[-1]) for column in inside.T if column.any()]
            last = [one for one in last if one < len(states.sections)]
            if last:
                section = states.sections[max(last)]
                which = next(n for n, column in enumerate(inside.T) if column.any())
                return self._made(number, section, side.here(points[chosen[which : which + 1]]))
        return None

    def holds(self, points: Points, normals: Points) -> tuple[int, ...]:
        """The sides, counted from 0, in whose hold some of these places (n, 2) were cut."""
        probes = points + OFF_MM * normals
        found = []
        for number, (side, states) in enumerate(zip(self._sides, self._states, strict=True)):
            here = side.here(probes)
            begun, left = (
                shapely.contains_xy(metal, here[:, 0], here[:, 1]) for metal in (states.metal[0], states.metal[-1])
            )
            if (begun & ~left).any():
                found.append(number)
        return tuple(found)

    def of_operation(self, number: int, name: str) -> Made | None:
        """An operation of a side, by its place in the route."""
        side = self._sides[number]
        place = next((n for n, one in enumerate(side.job.operations, 1) if one.id == name), 0)
        section = next((n for n, one in enumerate(side.proof.program.sections) if one.number == place), None)
        return self.of_section(number, section) if section is not None else None

    def of_section(self, number: int, section: int) -> Made | None:
        """The operation of a section of a side, and the last line it cuts on."""
        program = self._sides[number].proof.program
        lines = [one.line for one in program.motions if one.section == section and not one.is_rapid and not one.event]
        if not lines or not 0 <= section < len(program.sections):
            return None
        return Made(number, program.sections[section].title, max(lines))

    def _made(self, number: int, section: int, place: Points) -> Made:
        program = self._sides[number].proof.program
        cuts = [one for one in program.motions if one.section == section and not one.is_rapid and not one.event]
        title = program.sections[section].title if 0 <= section < len(program.sections) else ""
        if not cuts:
            return Made(number, title, 0)
        lines = [shapely.LineString(one.segment.points(0.01)) for one in cuts]
        away = shapely.distance(lines, shapely.Point(place[0]))
        return Made(number, title, cuts[int(np.flatnonzero(away <= away.min() + SAME_MM)[-1])].line)


def _states(side: SideMade) -> _States:
    """A piece that is off counts with what is still held."""
    sections = tuple(section for section, _ in side.proof.states)
    metal = [side.proof.before, *(region for _, region in side.proof.states)]
    if side.proof.parted:
        metal[-1] = shapely.union(metal[-1], side.proof.final)
    for one in metal:
        shapely.prepare(one)
    return _States(sections, tuple(metal))
