"""Where steps lie: from diameters and lengths to places along Z."""

from dataclasses import dataclass

from toreuma.core.line.fault import Misread
from toreuma.core.line.step import Step

__all__ = ["Placed", "placed_bore", "placed_outside"]

SAME_MM = 1e-6


@dataclass(frozen=True)
class Placed:
    """A step with its ends: Z from the front, mm, negative toward the chuck, and diameters, mm."""

    step: Step
    z0: float
    d0: float
    z1: float
    d1: float


def _fault(step: Step, what: str, expected: str) -> Misread:
    return Misread(step.start, step.end, what, expected)


def _own_length(step: Step, d0: float) -> float | None:
    """The length a step says, or that follows from its taper; None where it says none."""
    if step.length_mm is not None:
        return step.length_mm
    if step.d1 is not None and step.slope:
        length = (step.d1 - d0) / 2 / step.slope
        return abs(length)
    return None


def _end_d(step: Step, d0: float, length: float) -> float:
    if step.d1 is not None:
        return step.d1
    d1 = round(d0 + 2 * length * (step.slope or 0.0), 6)
    if d1 < 0:
        raise _fault(step, "the taper runs below the axis", "use a smaller angle or a shorter step")
    return d1


def placed_outside(steps: list[Step], whole_mm: float | None) -> list[Placed]:
    """Steps from the front to the back. One step may leave its length open when the whole length is given."""
    open_mm = _left_over(steps, whole_mm)
    found: list[Placed] = []
    z, d = 0.0, 0.0
    for step in steps:
        if step.from_back and step.to_mm is None:
            what = "outside steps follow one another from the front"
            raise _fault(step, what, "write them in that order, or 30 to 18 from back for where one ends")
        d0 = d if step.d0 is None else step.d0
        length = _own_length(step, d0)
        if step.through and length is not None:
            what = "a step of the outside does not go through the part"
            raise _fault(step, what, "holes square to the axis are written cross 3 x 5 at 20; in the axis, hole 8.5")
        if step.to_mm is not None:
            if step.from_back and whole_mm is None:
                raise _fault(step, "the whole length is not known", "add a piece such as length 118")
            end = step.to_mm if not step.from_back else (whole_mm or 0.0) - step.to_mm
            length = end + z
        if length is None:
            length = open_mm
        if length is None:
            raise _fault(step, "the step has no length", "type it behind the diameter: 30 x 18")
        if length < 0 and step.to_mm is not None:
            raise _fault(step, "the step ends before it begins", "type a place farther from the front")
        if abs(length) < SAME_MM and not step.tapers:
            raise _fault(step, "the step has no length", "type more than 0: 30 x 18")
        d1 = _end_d(step, d0, length)
        z1 = round(z - length, 9)
        found.append(Placed(step, z, d0, z1, d1))
        z, d = z1, d1
    return found


def _left_over(steps: list[Step], whole_mm: float | None) -> float | None:
    """The length of the one step that gives none."""
    silent = [s for s in steps if s.length_mm is None and s.to_mm is None and not (s.d1 is not None and s.slope)]
    if not silent or whole_mm is None:
        return None
    if len(silent) > 1:
        raise _fault(silent[1], "two steps have no length", "leave only one open: the whole length gives that")
    if any(s.to_mm is not None for s in steps):
        at = steps.index(silent[0])
        if at + 1 < len(steps):
            raise _fault(silent[0], "the step has no length", "type it behind the diameter: 30 x 18")
    d, used = 0.0, 0.0
    for step in steps:
        d0 = d if step.d0 is None else step.d0
        length = 0.0 if step is silent[0] else _own_length(step, d0)
        if step.to_mm is not None:
            length = (step.to_mm if not step.from_back else whole_mm - step.to_mm) - used
        used += length or 0.0
        d = _end_d(step, d0, length or 0.0)
    left = round(whole_mm - used, 9)
    if left <= SAME_MM:
        raise _fault(silent[0], f"nothing of the whole length is left for it: the others are {used:g} mm long",
                     "shorten one of them, or give a larger length")  # fmt: skip
    return left


def placed_bore(steps: list[Step], whole_mm: float) -> tuple[list[Placed], bool]:
    """Steps of the bore from the front to the back, and whether a blind one opens in the back face and is read from
    there."""
    if not steps:
        return [], False
    through = [s for s in steps if s.through or (s.length_mm is None and s.to_mm is None and not (s.d1 and s.slope))]
    if len(through) > 1:
        raise _fault(through[1], "two steps go through", "only one can; give the other its length")
    front = [s for s in steps if s not in through and not s.from_back]
    back = [s for s in steps if s not in through and s.from_back]
    ahead = _run(front, 0.0)
    behind = _run(back, 0.0)
    used = (-ahead[-1].z1 if ahead else 0.0) + (-behind[-1].z1 if behind else 0.0)
    if used > whole_mm + SAME_MM:
        raise _fault(
            steps[-1],
            f"the bore is {used:g} mm deep and the part {whole_mm:g} mm long",
            "steps follow one another: shorten one, or write counterbore 46 x 18 for a depth from the face",
        )
    left = round(whole_mm - used, 9)
    if through:
        last = ahead[-1].d1 if ahead else 0.0
        step = through[0]
        d0 = last if step.d0 is None else step.d0
        middle = [Placed(step, -(used_ahead := -ahead[-1].z1 if ahead else 0.0), d0, round(-used_ahead - left, 9),
                         _end_d(step, d0, left))]  # fmt: skip
        return [*ahead, *(middle if left > SAME_MM else []), *_turned(behind, whole_mm)], False
    if behind and not ahead:
        return behind, left > SAME_MM if left > SAME_MM else False
    if behind and left > SAME_MM:
        raise _fault(back[0], "two blind bores are more than one bore", "make one of them a hole, or one through")
    return [*ahead, *_turned(behind, whole_mm)], False


def _run(steps: list[Step], z: float) -> list[Placed]:
    """Steps one behind the other from a face inward."""
    found: list[Placed] = []
    d = 0.0
    for step in steps:
        d0 = d if step.d0 is None else step.d0
        length = step.to_mm + z if step.to_mm is not None else _own_length(step, d0)
        if step.deep and step.length_mm is not None:
            length = step.length_mm + z
        if length is None or length < 0 or (abs(length) < SAME_MM and not step.tapers):
            raise _fault(step, "the step of the bore has no length", "type 24 x 30, or 24 through")
        d1 = _end_d(step, d0, length)
        found.append(Placed(step, z, d0, round(z - length, 9), d1))
        z, d = found[-1].z1, d1
    return found


def _turned(run: list[Placed], whole_mm: float) -> list[Placed]:
    """A run from the back face as it lies seen from the front."""
    return [Placed(p.step, round(-whole_mm - p.z1, 9), p.d1, round(-whole_mm - p.z0, 9), p.d0) for p in reversed(run)]
