"""Both ends of a thread: a chamfer down to its root, a neck, or a run-out; a sharp end has a feather edge."""

from collections.abc import Iterator
from dataclasses import dataclass

from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.elements import Segment
from toreuma.core.model import CutThread, Job, Part
from toreuma.core.model.feature import ThreadFeature
from toreuma.core.model.part import Corner
from toreuma.core.plan.ground.work import Work
from toreuma.core.spoken import q, said

__all__ = ["sharp_ends"]

ENOUGH = 0.85
"""A chamfer this share as high as the thread is deep does away with the feather edge."""

BESIDE_PITCHES = 1.0
"""An edge this near to the end of the thread is met by it."""


@dataclass(frozen=True)
class _End:
    """An edge of the cylinder that the thread runs over: height of what breaks it, mm on radius."""

    place: tuple[float, float]
    broken_mm: float


def sharp_ends(work: Work, operation: CutThread, feature: ThreadFeature) -> list[Finding]:
    """Edges at which the thread begins or ends without a chamfer as high as it is deep."""
    depth = operation.form.depth_mm
    if depth is None:
        return []
    found = []
    for end in _ends(work, operation, feature):
        if end.broken_mm < ENOUGH * depth:
            wide = round(depth + 0.05, 1)
            edge = said("the edge at Z {} is broken by {}", q(end.place[0], bare=True), q(end.broken_mm))
            what = said("{}, the thread is {} deep", edge, q(depth))
            cures = _chamfer(work.given.part, feature, end.place, wide)
            why = "its first turn is a feather edge that cuts fingers and jams the nut"
            found.append(Finding("note", "thread.edge", what, why, operation=operation.id, at=end.place, cures=cures))
    return found


def _ends(work: Work, operation: CutThread, feature: ThreadFeature) -> Iterator[_End]:
    """The edges that fall toward the air; against a shoulder there is none."""
    chain = work.scene.profile if feature.side == "outside" else work.scene.shape.bore
    if chain is None:
        return
    segments, corners = chain.segments, chain.corners
    middle = feature.from_z_mm - feature.length_mm / 2
    beside = BESIDE_PITCHES * operation.form.pitch_mm
    at = next((i for i, one in enumerate(segments) if not corners[i] and _over(one, middle)), None)
    if at is None:
        return
    sign = 1.0 if feature.side == "outside" else -1.0
    own = segments[at]
    for step, place, limit in ((-1, own.start, feature.from_z_mm), (1, own.end, feature.from_z_mm - feature.length_mm)):
        if not 0 <= at + step < len(segments):
            continue
        near = segments[at + step]
        broken = abs(near.end[1] - near.start[1]) if corners[at + step] else 0.0
        far = near.start if step < 0 else near.end
        beyond = segments[at + 2 * step] if corners[at + step] and 0 <= at + 2 * step < len(segments) else near
        outermost = beyond.start if step < 0 else beyond.end
        falls = sign * (min(sign * far[1], sign * outermost[1]) * sign - place[1]) < -1e-6
        reached = place[0] <= limit + broken + beside if step < 0 else place[0] >= limit - broken - beside
        if falls and reached and not _necked(work, feature, place):
            yield _End(place, broken)


def _over(one: Segment, z: float) -> bool:
    low, high = sorted((one.start[0], one.end[0]))
    return low < z < high


def _necked(work: Work, feature: ThreadFeature, place: tuple[float, float]) -> bool:
    """A relief or groove takes the edge away."""
    for index, one in enumerate(work.given.part.features):
        if one.kind in ("relief", "groove") and getattr(one, "side", "outside") == feature.side:
            void = next((v.cut for i, v in work.scene.shape.voids if i == index), None)
            if void is not None and void.bounds[0] - 0.1 <= place[0] <= void.bounds[2] + 0.1:
                return True
    return False


def _chamfer(part: Part, feature: ThreadFeature, place: tuple[float, float], wide_mm: float) -> tuple[Cure, ...]:
    """A chamfer at the corner of the drawing that lies there."""
    side = "outside" if feature.side == "outside" else "inside"
    elements = getattr(part, side)
    near = [i for i, e in enumerate(elements) if abs(e.z_mm - place[0]) < 2 * wide_mm + 0.5]
    index = min(
        near, key=lambda i: abs(elements[i].d_mm / 2 - place[1]) + abs(elements[i].z_mm - place[0]), default=None
    )
    if index is None:
        return ()

    def apply(job: Job) -> Job:
        kept = getattr(job.part, side)
        changed = tuple(
            one.changed(corner=Corner(kind="chamfer", size_mm=wide_mm)) if i == index else one
            for i, one in enumerate(kept)
        )
        return job.changed(part=job.part.changed(**{side: changed}))

    return (Cure(said("Chamfer that edge by {}", q(wide_mm, "mm", "g")), apply),)
