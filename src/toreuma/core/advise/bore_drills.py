"""Drills for bores: how large, how deep, and what is hollow where the part comes off."""

import math

from toreuma.core.advise.ask import Ask, Verdict
from toreuma.core.advise.carriers import least_bore_mm, served_bore_z
from toreuma.core.advise.wishes import PARTED_ROOM_MM
from toreuma.core.geometry.region import box
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Job
from toreuma.core.model.catalogue import Catalogue
from toreuma.core.model.feature import AxialHole
from toreuma.core.model.tool import Drill, Tap
from toreuma.core.plan.axis.tap import CLEAR_PITCHES, PAST_PITCHES
from toreuma.core.plan.numbers.drilling import carried_feed_mm_rev, usual_feed_mm_rev
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said
from toreuma.core.standards.threads.same import cuts_thread

__all__ = ["BORE_ALLOWANCE_MM", "THROUGH_MM", "drill_for_bore", "parted_hollow_mm", "past_hole_mm", "past_through_mm"]

BORE_ALLOWANCE_MM = 0.5
"""What a drill leaves on radius for boring."""

LEAST_ALLOWANCE_MM = 0.1
"""The same where a bar finds no room otherwise: what a finishing cut takes."""

AT_HAND_MM, NO_FLOOR = 1.0, 1000.0
"""A drill at hand may leave so much more on radius than another; one that leaves a cone on a flat floor comes last."""

RUBS_SHARE, RUBS = 0.4, 100.0
"""A drill that the spindle lets be fed by less than this share of what is usual rubs: smaller ones come first."""

THROUGH_MM = 1.0
FLAT_DEG = 170.0
"""From this point angle on a drill leaves a floor that a bar can face."""

SAME_DRILL_MM, DRILLED_RA_UM = 0.011, 3.2
"""A drill is of a bore's own size; the finish a drill makes."""

PARTED_MM = 5.0
"""Behind the part: room for the blade that parts it off."""
BORED_MM, LEAST_HOLLOW_MM = 2.5, 4.0
"""A drill leaves so much of a bore at most, on radius; smaller hollows are no help to a blade."""


def past_through_mm(job: Job) -> float:
    """How far a drill goes past a through bore, mm: through the cut that parts the part off, where there is one."""
    stock = job.stock
    if stock.kind == "free":
        return THROUGH_MM
    behind = job.setup.hold.stick_out_mm - stock.face_allowance_mm + job.part.outside[-1].z_mm
    return PARTED_MM if stock.length_mm is None or behind > PARTED_ROOM_MM else THROUGH_MM


def past_hole_mm(job: Job, hole: AxialHole, store: Catalogue) -> float:
    """How far a drill goes past a through hole, mm: through a tapped one as far as the tap that follows asks for, where
    the bar goes on behind it."""
    if not hole.thread or past_through_mm(job) <= THROUGH_MM:
        return THROUGH_MM
    fitting = [
        one
        for one in store.tools
        if isinstance(one, Tap) and cuts_thread(one.thread, one.pitch_mm, hole.thread, hole.d_mm)
    ]
    ahead = [one for one in fitting if one.form == "through"] or fitting
    leads = [(one.lead_pitches + PAST_PITCHES + CLEAR_PITCHES) * one.pitch_mm for one in ahead]
    return min(leads, default=0.0) + THROUGH_MM


def drill_for_bore(ask: Ask, tool: Drill, point: float) -> Verdict:
    """The largest drill that leaves something to bore."""
    scene, units = ask.scene, ask.job.units
    assert scene.shape.void is not None
    narrow = least_bore_mm(scene)
    allowance = LEAST_ALLOWANCE_MM if ask.tight else BORE_ALLOWANCE_MM
    largest = narrow - 2 * allowance
    fills = abs(tool.d_mm - narrow) < SAME_DRILL_MM
    too_large = said("Ø {} leaves less than {} on radius for boring", q(tool.d_mm, "mm", "g"), q(allowance, "mm", "g"))
    if tool.d_mm > largest + 1e-6 and not fills:
        return too_large
    through = served_bore_z(scene) <= scene.profile.back_z + 1e-6
    met = scene.stock.intersection(box(-1e5, 0, 1e5, tool.d_mm / 2))
    begins = 0.0 if met.is_empty else min(float(met.bounds[2]), 0.0)
    depth = begins - served_bore_z(scene) + (point + past_through_mm(ask.job) if through else 0.0)
    flat = through or tool.point_deg >= FLAT_DEG
    blind = float(scene.shape.void.bounds[0]) > scene.profile.back_z + 1e-6
    to_size = fills and (flat or not blind or _is_cleared(ask, tool, depth)) and _is_drilled(ask.job, narrow)
    if tool.d_mm > largest + 1e-6 and not to_size:
        return too_large
    if tool.flute_length_mm < depth:
        return said("its flutes are {} long, {} are needed", q(tool.flute_length_mm, "mm", "g"), q(depth, "mm", ".1f"))
    if begins < 0 and (reaches := _free_length_mm(tool)) < depth - begins:
        return said("it stands out {}, {} are needed", q(reaches, "mm", "g"), q(depth - begins, "mm", ".1f"))
    left = max((narrow - tool.d_mm) / 2, 0.0)
    reasons: tuple[str, ...] = (
        said("Ø {} drills the narrowest place to its size: it has no limits", q(tool.d_mm, "mm", "g"))
        if to_size
        else said("Ø {} leaves {} on radius at the narrowest place", q(tool.d_mm, "mm", "g"), q(left)),
        said(
            "{} of flute for {}, point {}°",
            q(tool.flute_length_mm, "mm", "g"),
            q(depth, "mm", ".1f"),
            f"{tool.point_deg:g}",
        ),
    )
    if not through and flat:
        reasons = (*reasons, "leaves the floor nearly flat: the boring bar gets down to it")
    usual = 0.0 if _usual_size(tool.d_mm, units) else 1.0
    # What is at hand is taken where it is about as large, never a small drill because it lies there.
    size = left // AT_HAND_MM + (0.0 if flat else NO_FLOOR)
    fed = carried_feed_mm_rev(ask.job.machine, ask.job.stock.material, tool)
    if fed < RUBS_SHARE * usual_feed_mm_rev(ask.job.stock.material, tool):
        size += RUBS
        reasons = (*reasons, said("the spindle carries no more than {} with it: it would rub", q(fed, "mm/rev", ".3f")))
    if ask.tight:
        return (size, left, usual, tool.flute_length_mm), reasons, 0.0
    return (size, left // BORE_ALLOWANCE_MM, usual, left, tool.flute_length_mm), reasons, 0.0


def _free_length_mm(tool: Drill) -> float:
    """How far it stands out of what holds it."""
    return min((float(one[:, 0].min()) for one in shape_of(tool).bodies), default=math.inf)


def _is_cleared(ask: Ask, tool: Drill, depth: float) -> bool:
    """A drill without a point follows it and leaves the floor as it is drawn: flat, into a sharp corner."""
    floor = ask.job.part.inside[-1].corner if ask.job.part.inside else None
    return floor is None and any(
        isinstance(one, Drill) and one.form == "flat" and abs(one.d_mm - tool.d_mm) < SAME_DRILL_MM
        and one.flute_length_mm >= depth
        for one in ask.store.tools
    )  # fmt: skip


def _is_drilled(job: Job, d_mm: float) -> bool:
    """A drill makes this place of the bore well enough: it has no limits and no fine finish."""
    part = job.part
    here = [one for one in part.inside if abs(one.d_mm - d_mm) < SAME_DRILL_MM]
    finest = min((one.ra_um or part.ra_um or DRILLED_RA_UM for one in here), default=DRILLED_RA_UM)
    spans = [(one, before.z_mm) for before, one in zip((part.inside[0], *part.inside), part.inside, strict=False)]
    threaded = any(
        thread.kind == "thread" and thread.side == "inside"
        and thread.from_z_mm > one.z_mm + SAME_DRILL_MM and thread.from_z_mm - thread.length_mm < front - SAME_DRILL_MM
        for thread in part.features for one, front in spans if abs(one.d_mm - d_mm) < SAME_DRILL_MM
    )  # fmt: skip
    return bool(here) and not threaded and finest >= DRILLED_RA_UM and all(one.size is None for one in here)


def _usual_size(d_mm: float, units: str) -> bool:
    """Whole and half millimetres, or thirty-seconds of an inch: what every drawer has."""
    step = 25.4 / 32 if units == "inch" else 0.5
    return abs(d_mm / step - round(d_mm / step)) < 0.01


def parted_hollow_mm(scene: Scene) -> float:
    """Radius that is surely hollow where the part comes off, mm: of a through bore, less what drilling may leave, or of
    a tube."""
    void, back = scene.shape.void, scene.profile.back_z
    behind = scene.stock.intersection(box(back - PARTED_MM, 0, back, 1e4))
    tube = 0.0 if behind.is_empty else max(float(behind.bounds[1]), 0.0)
    if void is None or float(void.bounds[0]) > back + 1e-6:
        return tube
    bored = least_bore_mm(scene) / 2 - BORED_MM
    return max(tube, bored if bored > LEAST_HOLLOW_MM else 0.0)
