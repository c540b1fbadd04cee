"""The line of a job's part: read into the job, and written from it."""

from functools import cache
from typing import Any

from toreuma.core.line import Line, LineTables, read_line, written_line
from toreuma.core.model import Element, Job, Part
from toreuma.core.units import System
from toreuma.shipped.standards import fit_tables, relief_tables, thread_tables

__all__ = ["line_of", "line_tables", "said", "with_part"]

SAME_MM = 1e-6


@cache
def line_tables() -> LineTables:
    """The tables a line is read with."""
    return LineTables(fit_tables(), thread_tables(), relief_tables())


def said(text: str, units: System, name: str = "") -> Line:
    """What a line says, read with the standards that ship."""
    return read_line(text, units, line_tables(), name)


def line_of(part: Part, units: System, named: bool = False) -> str:
    """The line of a part; without the names of its surfaces unless they are wanted."""
    return written_line(part, units, line_tables(), named)


def with_part(job: Job, part: Part) -> Job:
    """The job with a part that was said anew: surfaces and features that are still there keep their names, features
    their order, and operations the features they cut."""
    old = job.part
    features, places = _ordered(old.features, part.features)
    new = part.changed(
        name=old.name,
        outside=_named(old.outside, part.outside),
        inside=_named(old.inside, part.inside),
        features=tuple(features),
    )
    if new == old:
        return job
    return _followed(job, places).changed(part=new)


def _named(old: tuple[Element, ...], new: tuple[Element, ...]) -> tuple[Element, ...]:
    """Elements with the names of those that ended at the same place, or stood at the same one of as many."""
    found = []
    for index, element in enumerate(new):
        same = next((o for o in old if o.kind == element.kind and _near(o, element)), None)
        if same is None and len(old) == len(new):
            same = old[index]
        found.append(element.changed(name=same.name) if same is not None and not element.name else element)
    return tuple(found)


def _near(one: Element, other: Element) -> bool:
    return abs(one.z_mm - other.z_mm) < SAME_MM and abs(one.d_mm - other.d_mm) < SAME_MM


def _ordered(old: tuple[Any, ...], new: tuple[Any, ...]) -> tuple[list[Any], dict[int, int]]:
    """The new features in the order of the old ones, and where each old one went."""
    left = list(new)
    taken: dict[int, Any] = {}
    for same in (_is_same, _is_alike):
        for index, feature in enumerate(old):
            if index in taken:
                continue
            match = next((one for one in left if same(feature, one)), None)
            if match is not None:
                left.remove(match)
                taken[index] = match if match.name else match.changed(name=feature.name)
    order = sorted(taken)
    return [*(taken[i] for i in order), *left], {index: place for place, index in enumerate(order)}


def _is_same(one: Any, other: Any) -> bool:
    return bool(one.changed(name="") == other.changed(name=""))


def _is_alike(one: Any, other: Any) -> bool:
    return bool(one.kind == other.kind)


def _followed(job: Job, places: dict[int, int]) -> Job:
    """The job whose operations cut the same features where they stand now; those of features that are gone go too."""
    setups = []
    for setup in job.setups:
        operations = []
        for operation in setup.operations:
            feature = getattr(operation, "feature", None)
            if feature is None:
                operations.append(operation)
            elif feature in places:
                operations.append(operation.changed(feature=places[feature]))
        setups.append(setup.changed(operations=tuple(operations)))
    return job.changed(setups=tuple(setups))
