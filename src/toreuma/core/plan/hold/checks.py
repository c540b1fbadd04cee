"""What is wrong with a hold, and what would mend it."""

import math
from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise

import shapely

from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.region import box
from toreuma.core.geometry.workholding import centre_mouth
from toreuma.core.model import CentreHole, Chuck, Collet, Element, FaceDriver, Job
from toreuma.core.plan.hold.rests import rest_findings
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said

__all__ = ["hold_findings"]

BORED_WITHIN_MM = 0.1
"""How far the bore of soft jaws may differ from what they hold."""

ROUND_SHARE = 0.5
"""Share of the tightest diameter's limits that the grip may use up."""

STANDS_MM, FAR_MM = 0.02, 1e4

FREE_RATIO, CARE_RATIO = 3.0, 5.0
"""Stick-out over diameter: up to the first free, up to the second with care."""


@dataclass(frozen=True, kw_only=True)
class Standing:
    """How the piece stands in its hold; None where it cannot be known.

    Grip needed and at rest in N, the speed up to which the bar behind stays quiet, stick-out over diameter, and how
    far the grip presses a ring out of round, um on radius.
    """

    needed_n: float
    at_rest_n: float | None
    quiet_rpm: float | None
    stick_out_ratio: float
    ovality_um: float | None


def hold_findings(job: Job, scene: Scene, standing: Standing) -> Iterable[Finding]:
    place = (scene.jaw_face_z, scene.grip_r)
    yield from _weak(job, standing, place)
    yield from _fits(job, 2 * scene.grip_r, place)
    yield from _centred(job)
    yield from _driven(job, scene, place)
    yield from rest_findings(job, scene)
    if job.setup.centre is None and job.setup.rest is None and standing.stick_out_ratio > FREE_RATIO:
        word = "needs a centre" if standing.stick_out_ratio > CARE_RATIO else "3 to 5 wants care"
        yield Finding(
            "warning",
            "hold.long",
            f"the bar sticks out {standing.stick_out_ratio:.1f} times its diameter",
            f"up to 3 stands free; {word}; the deflection drawn along the piece says how much it gives way",
        )
    yield from _out_of_round(job, scene, standing.ovality_um, place)
    yield from _whips(job, standing.quiet_rpm)


def _weak(job: Job, standing: Standing, place: tuple[float, float]) -> Iterable[Finding]:
    """The grip at rest is less than the hardest cut asks for."""
    hold = job.setup.hold
    needed, at_rest = standing.needed_n, standing.at_rest_n
    if at_rest is not None and at_rest < needed:
        if isinstance(hold, FaceDriver):
            what = said("the pins are pushed with {}, the hardest cut asks for {}", q(at_rest, "N", ".0f"),
                        q(needed, "N", ".0f"))  # fmt: skip
            why = "the piece stops in the cut: a smaller cut, pins on a wider circle, or more push"
            yield Finding("warning", "hold.weak", what, why, at=place)
            return
        longer = math.ceil(hold.grip_length_mm * needed / at_rest)
        yield Finding(
            "warning",
            "hold.weak",
            f"the grip at rest is {at_rest / 1000:.1f} kN, the hardest cut asks for {needed / 1000:.1f} kN",
            "with the wanted safety the piece may slip or tilt out of the jaws",
            at=place,
            cures=(Cure(f"Grip {longer} mm long", lambda j: _with_hold(j, grip_length_mm=float(longer))),),
        )


def _fits(job: Job, grip_d: float, place: tuple[float, float]) -> Iterable[Finding]:
    """The hold takes the diameter, its soft jaws are bored for it, and a collet has its shape."""
    hold = job.setup.hold
    span = hold.range_mm if isinstance(hold, Collet) else hold.grip_range_mm if isinstance(hold, Chuck) else None
    soft = isinstance(hold, Chuck) and hold.jaws == "soft"  # bored as small as the piece wants
    if span is not None and not (0.0 if soft else span[0]) - 1e-6 <= grip_d <= span[1] + 1e-6:
        yield Finding(
            "error",
            "hold.range",
            said(
                "the hold takes Ø {} to {}, the blank is Ø {} there",
                q(span[0], "mm", "g", bare=True),
                q(span[1], "mm", "g"),
                q(grip_d, "mm", "g"),
            ),
            "the jaws do not reach it or stand past their guides",
            at=place,
        )
    if isinstance(hold, Chuck) and soft:
        yield from _bored(job, hold, grip_d, place)
    if isinstance(hold, Collet) and job.stock.kind == "polygon" and job.stock.sides != 6:
        yield Finding("warning", "hold.shape", "a round collet does not hold a square bar", "use one of its shape")


def _driven(job: Job, scene: Scene, place: tuple[float, float]) -> Iterable[Finding]:
    """Pins drive a sawn piece that a centre pushes on them, on a back face wider than they are."""
    hold, centre = job.setup.hold, job.setup.centre
    if not isinstance(hold, FaceDriver):
        return
    if centre is None:
        what = "nothing pushes the piece on the pins of the driver"
        yield Finding("error", "driver.centre", what, "it falls out: a centre in front, and a centre hole for it")
    elif hold.force_n is not None and centre.force_n < hold.force_n:
        what = said("the pins are reckoned with {}, the centre pushes {}", q(hold.force_n, "N", ".0f"),
                    q(centre.force_n, "N", ".0f"))  # fmt: skip
        cure = Cure("Reckon with the centre's push", lambda j: _with_hold(j, force_n=max(centre.force_n, 1.0)))
        yield Finding("error", "driver.push", what, "the piece stops in the cut", at=place, cures=(cure,))
    if job.stock.kind != "free" and job.stock.length_mm is None:
        what = "a bar through the spindle has no back face for the pins"
        yield Finding("error", "driver.piece", what, "saw it to a piece: type its length on the stock")
    low_r, high_r = _back_face(scene)
    if hold.around_d_mm / 2 > high_r + 1e-6 or hold.pins_d_mm / 2 - hold.pin_width_mm / 2 < low_r - 1e-6:
        what = said("the pins bite from Ø {} to {}, the back face is Ø {} to {}",
                    q(hold.pins_d_mm - hold.pin_width_mm, "mm", "g", bare=True), q(hold.around_d_mm, "mm", "g"),
                    q(2 * low_r, "mm", "g", bare=True), q(2 * high_r, "mm", "g"))  # fmt: skip
        yield Finding("error", "driver.pins", what, "they stand beside it: pins on another circle", at=place)


def _back_face(scene: Scene) -> tuple[float, float]:
    """From and to what radius the back of the blank is metal, mm."""
    back = float(scene.stock.bounds[0])
    met = scene.stock.intersection(box(back, 0.0, back + 0.1, 1e5))
    return (0.0, 0.0) if met.is_empty else (float(met.bounds[1]), float(met.bounds[3]))


def _centred(job: Job) -> Iterable[Finding]:
    """A centre needs a cone that it fills."""
    centre = job.setup.centre
    if centre is not None:
        mouth = 2 * centre_mouth(job.part)[0]
        if mouth == 0:
            hole = CentreHole(d_mm=2.5, mouth_d_mm=5.3)
            yield Finding(
                "error",
                "centre.hole",
                "the centre has no 60° centre hole to sit in",
                "a centre needs a 60° cone in the front face",
                at=(0.0, 0.0),
                cures=(Cure("Add a centre hole A 2.5", lambda j: _with_feature(j, hole)),)
                if not job.part.inside
                else (),
            )
        elif mouth > centre.largest_mouth_mm:
            yield Finding(
                "error",
                "centre.size",
                said(
                    "the cone is Ø {} wide, the centre fits up to {}",
                    q(mouth, "mm", "g"),
                    q(centre.largest_mouth_mm, "mm", "g"),
                ),
                "its point does not fill the cone",
                at=(0.0, mouth / 2),
            )


def _whips(job: Job, quiet: float | None) -> Iterable[Finding]:
    """The bar behind the spindle begins to whip below the speed that is allowed."""
    hold = job.setup.hold
    if quiet is not None and quiet < min(job.machine.max_rpm, hold.max_rpm):
        yield Finding(
            "warning",
            "hold.whip",
            f"the bar behind the spindle stays quiet up to {quiet:.0f} rpm",
            "guard it, run it in a liner, or cut it short; the speed is clamped there",
            cures=(Cure("Keep the bar inside the spindle", lambda j: _with_hold(j, bar_behind_mm=0.0)),),
        )


def _bored(job: Job, hold: Chuck, grip_d: float, place: tuple[float, float]) -> Iterable[Finding]:
    """Soft jaws bored to another diameter, or not as deep as the grip."""
    if hold.bored_d_mm is not None and abs(hold.bored_d_mm - grip_d) > BORED_WITHIN_MM:
        yield Finding(
            "warning",
            "hold.bored",
            said(
                "the soft jaws are bored to Ø {}, the blank is Ø {}",
                q(hold.bored_d_mm, "mm", "g"),
                q(grip_d, "mm", "g"),
            ),
            "they touch on edges or in the middle only",
            at=place,
            cures=(
                Cure(
                    said("Bore them to Ø {}", q(grip_d, "mm", "g")),
                    lambda j: _with_hold(j, bored_d_mm=round(grip_d, 3)),
                ),
            ),
        )
    if hold.bored_depth_mm is not None and hold.bored_depth_mm < hold.grip_length_mm - 1e-6:
        yield Finding(
            "error",
            "hold.bored",
            said(
                "the soft jaws are bored {} deep, the grip is {} long",
                q(hold.bored_depth_mm, "mm", "g"),
                q(hold.grip_length_mm, "mm", "g"),
            ),
            "the piece rests on the step before that",
            at=place,
            cures=(
                Cure(
                    said("Grip {}", q(hold.bored_depth_mm, "mm", "g")),
                    lambda j: _with_hold(j, grip_length_mm=hold.bored_depth_mm),
                ),
            ),
        )


def _cut_here(scene: Scene, before: Element, here: Element, inside: bool) -> bool:
    """Metal stands on the middle of a cylinder, which this hold has to take away."""
    z, r = (before.z_mm + here.z_mm) / 2, here.d_mm / 2
    room = (0.0, r - STANDS_MM) if inside else (r + STANDS_MM, FAR_MM)
    return bool(shapely.intersects(scene.stock, shapely.LineString([(z, room[0]), (z, max(room[1], 0.0))])))


def _out_of_round(job: Job, scene: Scene, ovality_um: float | None, place: tuple[float, float]) -> Iterable[Finding]:
    """The grip presses the ring farther out of round than half of the tightest diameter it cuts allows."""
    sides = ((job.part.outside, False), (job.part.inside, True))
    pairs = [(before, here, inside) for chain, inside in sides for before, here in pairwise(chain)]
    sized = [here for before, here, inside in pairs if here.size is not None and _cut_here(scene, before, here, inside)]
    if ovality_um is None or not sized:
        return
    tightest = min(sized, key=lambda e: e.size.upper_um - e.size.lower_um if e.size else math.inf)
    band = tightest.size.upper_um - tightest.size.lower_um if tightest.size else math.inf
    across = 2 * ovality_um
    if across <= ROUND_SHARE * band:
        return
    force_n = job.setup.hold.force_n or 0.0
    gentler = math.floor(force_n * ROUND_SHARE * band / across / 100) * 100.0
    yield Finding(
        "warning",
        "hold.oval",
        said(
            "the grip presses the ring {} out of round across its diameter, Ø {} has {} in all",
            q(across, "um", ".0f"),
            q(tightest.d_mm, "mm", "g"),
            q(band, "um", ".0f"),
        ),
        "turned round under the grip, it springs back when the jaws open",
        at=place,
        cures=(Cure(f"Grip with {gentler / 1000:g} kN", lambda j: _with_hold(j, force_n=gentler)),) if gentler else (),
    )


def _with_hold(job: Job, **changes: object) -> Job:
    return job.with_setup(hold=job.setup.hold.changed(**changes))


def _with_feature(job: Job, feature: CentreHole) -> Job:
    return job.changed(part=job.part.changed(features=(*job.part.features, feature)))
