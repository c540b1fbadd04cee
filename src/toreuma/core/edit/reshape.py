"""Parts turned end for end, scaled, and with steps moved, copied and taken out. Features stay on their steps."""

from typing import Any, Literal

from toreuma.core.errors import PartError
from toreuma.core.line.elements import elements_of
from toreuma.core.line.fault import Misread
from toreuma.core.line.place import SAME_MM, Placed
from toreuma.core.line.steps import steps_of
from toreuma.core.model import Part
from toreuma.core.model.feature import Feature
from toreuma.core.plan.sides.second_side import turned_part

__all__ = ["copied_steps", "mirrored", "moved_step", "scaled", "step_of", "without_steps"]

Side = Literal["outside", "inside"]
Z_FIELDS = ("z_mm", "from_z_mm", "to_z_mm")


def mirrored(part: Part) -> Part:
    """The part end for end: what was its back is its front."""
    return turned_part(part)


def scaled(part: Part, factor: float) -> Part:
    """Every length times a factor; limits, threads by name and roughness stay. Raises `PartError`."""
    if not 1e-3 <= factor <= 1e3:
        raise PartError(-1, "", f"a part cannot be scaled by {factor:g}", "use a factor from 0.001 to 1000")
    found: Part = part.changed(**_times(part, factor))
    return found


def _times(value: Any, factor: float) -> dict[str, Any]:
    """The fields of a value with its lengths scaled."""
    return {name: _scaled(name, getattr(value, name), factor) for name in type(value).model_fields}


def _scaled(name: str, held: Any, factor: float) -> Any:
    if isinstance(held, tuple):
        return tuple(_scaled(name, one, factor) for one in held)
    if hasattr(type(held), "model_fields"):
        return held.changed(**_times(held, factor)) if name != "size" else held
    if name.endswith("_mm") and isinstance(held, int | float):
        return round(held * factor, 6)
    return held


def step_of(part: Part, side: Side, element: int) -> int:
    """The step an element belongs to: a face and the surface behind it are one."""
    at = -1
    steps = steps_of(_chain(part, side))
    for index, one in enumerate(steps):
        at += one.elements
        if element <= at:
            return index
    return max(len(steps) - 1, 0)


def _chain(part: Part, side: Side) -> Any:
    return part.outside if side == "outside" else part.inside


def _steps(part: Part, side: Side) -> list[Placed]:
    return [one.placed for one in steps_of(_chain(part, side))]


def moved_step(part: Part, side: Side, index: int, by: int) -> Part:
    """A step moved past its neighbours. Raises `PartError`."""
    order = list(range(len(_steps(part, side))))
    target = min(max(index + by, 0), len(order) - 1)
    order.insert(target, order.pop(index))
    return _in_order(part, side, order)


def copied_steps(part: Part, side: Side, indices: tuple[int, ...]) -> Part:
    """A run of steps once more, behind its last one, with what stands on it. Raises `PartError`."""
    order = list(range(len(_steps(part, side))))
    last = max(indices)
    return _in_order(part, side, [*order[: last + 1], *sorted(indices), *order[last + 1 :]])


def without_steps(part: Part, side: Side, indices: tuple[int, ...]) -> Part:
    """The part without some steps and what stands on them. Raises `PartError`."""
    kept = [index for index in range(len(_steps(part, side))) if index not in indices]
    if not kept and side == "outside":
        raise PartError(-1, "", "nothing would be left of the outside", "keep one step", side)
    return _in_order(part, side, kept) if kept else part.changed(inside=())


def _in_order(part: Part, side: Side, order: list[int]) -> Part:
    """The steps of a side in another order, some of them twice or not at all."""
    old = _steps(part, side)
    placed: list[Placed] = []
    z = 0.0
    for index in order:
        one = old[index]
        length = one.z0 - one.z1
        placed.append(Placed(one.step, round(z, 6), one.d0, round(z - length, 6), one.d1))
        z -= length
    through = bool(part.inside) and abs(part.inside[-1].z_mm - part.outside[-1].z_mm) < SAME_MM
    try:
        elements = elements_of(placed, side, through)
    except Misread as error:
        raise PartError(-1, "", error.fault.what, error.fault.expected, side) from None
    features = _carried(part, side, old, order, placed)
    changes: dict[str, Any] = {side: elements, "features": tuple(features)}
    if side == "outside" and through:
        changes["inside"] = (*part.inside[:-1], part.inside[-1].changed(z_mm=elements[-1].z_mm))
    found: Part = part.changed(**changes)
    return found


def _carried(part: Part, side: Side, old: list[Placed], order: list[int], placed: list[Placed]) -> list[Feature]:
    """Features where their steps went; those on a step that is there twice stand on both."""
    found: list[Feature] = []
    for feature in part.features:
        z = getattr(feature, "from_z_mm", getattr(feature, "z_mm", None))
        on = getattr(feature, "side", getattr(feature, "on", "outside"))
        home = _home(old, z) if z is not None and on == side else None
        if home is None:
            found.append(feature)
            continue
        for place, index in enumerate(order):
            if index == home:
                found.append(_shifted(feature, placed[place].z0 - old[index].z0))
    return found


def _home(old: list[Placed], z: float) -> int | None:
    """The step a place lies on."""
    return next((i for i, one in enumerate(old) if one.z0 + SAME_MM >= z > one.z1 + SAME_MM), None)


def _shifted(feature: Any, by_mm: float) -> Any:
    moved = {name: round(getattr(feature, name) + by_mm, 6) for name in Z_FIELDS if hasattr(feature, name)}
    return feature.changed(**moved)
