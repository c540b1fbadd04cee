"""Metal the person asked to stay, as for grinding: by the finishing cuts that leave it."""

from collections.abc import Sequence
from dataclasses import dataclass

from toreuma.core.model import CutGroove, Face, FinishBore, FinishOd, Operation
from toreuma.core.verdict.drawn import Drawn
from toreuma.core.verdict.side import SideMade

__all__ = ["Asked", "asked_to_stay"]

SAME_MM = 1e-3
FAR_MM = 1e6


@dataclass(frozen=True)
class Asked:
    """An operation leaves so much on what lies on a side of the section between two places along Z."""

    operation: str
    leave_mm: float
    side: str
    low_z: float
    high_z: float
    feature: int | None = None
    face_z: float | None = None

    def covers(self, drawn: Drawn) -> bool:
        """All of a drawn thing lies there."""
        low, high = float(drawn.points[:, 0].min()), float(drawn.points[:, 0].max())
        if self.feature is not None:
            return drawn.feature == self.feature
        if self.face_z is not None:
            return abs(low - self.face_z) < SAME_MM and abs(high - self.face_z) < SAME_MM
        return drawn.side == self.side and self.low_z - SAME_MM <= low and high <= self.high_z + SAME_MM


def asked_to_stay(sides: Sequence[SideMade]) -> tuple[Asked, ...]:
    """What the last cut of every stretch leaves on purpose, in places of the drawing."""
    found: list[Asked] = []
    for side in sides:
        for operation in side.job.operations:
            one = _of(operation, side) if operation.enabled else None
            if one is not None:
                found.append(one)
    return tuple(found)


def _of(operation: Operation, side: SideMade) -> Asked | None:
    if not isinstance(operation, Face | FinishOd | FinishBore | CutGroove) or operation.leave_mm <= 0:
        return None
    name = operation.name or operation.id
    if isinstance(operation, CutGroove):
        return Asked(name, operation.leave_mm, "", 0.0, 0.0, feature=operation.feature)
    if isinstance(operation, Face):
        return Asked(name, operation.leave_mm, "", 0.0, 0.0, face_z=side.drawn_z(0.0))
    ends = [side.drawn_z(z) for z in (operation.from_z_mm, operation.to_z_mm) if z is not None]
    low, high = (min(ends), max(ends)) if len(ends) == 2 else (-FAR_MM, FAR_MM)
    if len(ends) == 1:  # from the front to there, or from there to the back
        toward_front = (operation.to_z_mm is not None) is not side.turned
        low, high = (ends[0], FAR_MM) if toward_front else (-FAR_MM, ends[0])
    return Asked(name, operation.leave_mm, "inside" if operation.kind == "finish_bore" else "outside", low, high)
