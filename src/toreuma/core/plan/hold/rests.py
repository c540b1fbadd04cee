"""What a steady or a follow rest needs, and what it leaves uncut."""

from collections.abc import Iterable

import shapely

from toreuma.core.findings import Cure, Finding
from toreuma.core.model import Job, Rest, SteadyRest
from toreuma.core.scene import Scene, build_scene
from toreuma.core.spoken import q, said

__all__ = ["in_the_middle", "rest_findings"]

SAME_MM = 1e-6

TRUE_MM = 0.05
"""Runout up to which rollers may run on a blank as it is."""


def in_the_middle(job: Job, rest: Rest) -> Rest:
    """A steady in the middle of what stands free of the hold; another rest as it is. Raises `PartError`."""
    if not isinstance(rest, SteadyRest):
        return rest
    return rest.changed(z_mm=_middle(build_scene(job)))


def _middle(scene: Scene) -> float:
    return round((scene.jaw_face_z + scene.stock_front_z) / 2, 1)


def rest_findings(job: Job, scene: Scene) -> Iterable[Finding]:
    """Place, diameter and surface under the rollers. A rest carries a piece, it holds nothing."""
    rest = job.setup.rest
    if rest is None:
        return
    if isinstance(rest, SteadyRest):
        yield from _standing(job, scene, rest)
    elif job.setup.centre is None:
        why = "behind the tool it carries, in front of it nothing does: a centre in front"
        yield Finding("warning", "rest.centre", "a follow rest without a centre", why)
    r = _radius_under(job, scene)
    low, high = rest.range_mm
    if r > 0 and not low - SAME_MM <= 2 * r <= high + SAME_MM:
        what = said("the rest takes Ø {} to {}, the piece is Ø {} there", q(low, "mm", "g", bare=True),
                    q(high, "mm", "g"), q(2 * r, "mm", "g"))  # fmt: skip
        yield Finding("error", "rest.range", what, "its rollers do not close on it: another rest")


def _standing(job: Job, scene: Scene, rest: SteadyRest) -> Iterable[Finding]:
    low, high = rest.z_mm - rest.frame_mm / 2, rest.z_mm + rest.frame_mm / 2
    if (
        scene.steady.is_empty
        or low < scene.jaw_face_z - SAME_MM
        or rest.z_mm + rest.roller_mm / 2 > scene.stock_front_z
    ):
        what = said("the rest stands from Z {} to {}, the piece is free from Z {} to {}", q(low, "mm", "g", bare=True),
                    q(high, "mm", "g", bare=True), q(scene.jaw_face_z, "mm", "g", bare=True),
                    q(scene.stock_front_z, "mm", "g", bare=True))  # fmt: skip
        middle = _middle(scene)
        cures = (Cure(said("Stand it at Z {}", q(middle, "mm", "g", bare=True)), lambda j: _moved(j, middle)),)
        yield Finding("error", "rest.place", what, "it runs into the jaws or carries nothing", cures=cures)
        return
    if not job.machine.steady:
        what = f"the bed of the {job.machine.name} is not said to take a steady"
        yield Finding("warning", "rest.machine", what, "look whether it stands there; the shop's machine says so")
    if job.stock.kind == "polygon":
        yield Finding(
            "error", "rest.surface", "the rollers meet corners", "turn a round band first, or a sleeve round it"
        )
    elif job.stock.skin != "clean" or job.stock.runout_mm > TRUE_MM:
        why = "it hands its runout on to the cut: turn a band for it between centres first"
        yield Finding("warning", "rest.surface", "the rollers run on a surface that is not said to be true", why)


def _moved(job: Job, z_mm: float) -> Job:
    rest = job.setup.rest
    return job.with_setup(rest=rest.changed(z_mm=z_mm)) if isinstance(rest, SteadyRest) else job


def _radius_under(job: Job, scene: Scene) -> float:
    """Of the blank under a steady, of the finished piece under a follow rest, mm; 0 where nothing is."""
    rest = job.setup.rest
    if not isinstance(rest, SteadyRest):
        return float(scene.profile.largest_r)
    half = rest.roller_mm / 2
    under = shapely.clip_by_rect(scene.stock, rest.z_mm - half, 0.0, rest.z_mm + half, 1e5)
    return 0.0 if under.is_empty else float(under.bounds[3])
