"""A bore of one diameter that a reamer sizes: drilled a little smaller, its edge broken, reamed."""

from collections.abc import Iterable
from dataclasses import replace

from toreuma.core.advise.bore_drills import THROUGH_MM, past_through_mm
from toreuma.core.advise.carriers import least_bore_mm, served_bore_z
from toreuma.core.auto.countersunk import countersunk
from toreuma.core.auto.steps import ID, RouteStep, spot_for
from toreuma.core.geometry.region import box
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import DrillHole, Job, ReamHole
from toreuma.core.model.catalogue import Catalogue
from toreuma.core.model.feature import Groove, Relief, ThreadFeature
from toreuma.core.model.tool import Drill, Reamer
from toreuma.core.plan.axis.ream import FOLLOWS_MM, reaming_stock_mm
from toreuma.core.plan.numbers.drilling import point_length_mm
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said

__all__ = ["edge_alone", "reamed_bore"]

SMALL_D_MM, DEEP_RATIO = 12.0, 2.8
"""Bores up to this diameter, and deeper ones over their diameter, are no work for a bar: it gives way."""

EDGE_D_MM = 18.0
"""The edge alone of bores up to this diameter is broken with a pointed drill."""

SAME_MM, FAR_MM = 1e-3, 1e4
MOST_STOCK = 2.0
"""A drill leaves no more than so many times what is usual for the reamer."""


def reamed_bore(job: Job, scene: Scene, store: Catalogue) -> tuple[RouteStep, ...]:
    """The steps of such a bore; none where it is another one, a bar does it well, or reamer or drill are missing."""
    d = _one_diameter(job, scene)
    if d is None:
        return ()
    deep = scene.stock_front_z - scene.profile.back_z
    if d > SMALL_D_MM and deep < DEEP_RATIO * d:
        return ()
    reamer = _reamer(job, store, d, -scene.profile.back_z)
    drill = _drill(job, store, reamer, deep) if reamer is not None else None
    if reamer is None or drill is None:
        return ()
    steps = []
    spot = spot_for(drill, store) if drill.form == "twist" else None
    if spot is not None:
        words = said("Ø {}, {}°: starts the drill in the middle", q(spot.d_mm, "mm", "g"), f"{spot.point_deg:g}")
        steps.append(_step("drill bore", DrillHole(id=ID, name="Spot", tool=ID), spot, words))
    left = said("Ø {} leaves {} on diameter for the reamer", q(drill.d_mm, "mm", "g"), q(reamer.d_mm - drill.d_mm))
    past = past_through_mm(job)
    steps.append(
        _step("drill bore", DrillHole(id=ID, name="Drill for the reamer", tool=ID, breakthrough_mm=past), drill, left)
    )
    drilled = scene.stock.difference(box(-FAR_MM, 0.0, FAR_MM, d / 2))
    edge = countersunk(replace(scene, stock=drilled), store)
    steps += [edge] if edge is not None else []
    words = said(
        "Ø {} {}: sizes a bore so small or so deep that a bar would bend away in it", q(d, "mm", "g"), reamer.fit
    )
    follows = "follows the drilled hole: where it must run true to the outside, bore it"
    steps.append(_step("finish bore", ReamHole(id=ID, name="Ream the bore", tool=ID), reamer, words, follows))
    return tuple(steps)


def edge_alone(scene: Scene, store: Catalogue) -> RouteStep | None:
    """A pointed drill for the edge of a small bore, where nothing else of it is left to be cut."""
    return countersunk(scene, store) if least_bore_mm(scene) <= EDGE_D_MM else None


def _step(group: str, operation: DrillHole | ReamHole, tool: Drill | Reamer, *reasons: str) -> RouteStep:
    return RouteStep(group=group, operation=operation, tool=tool, reasons=reasons)


def _one_diameter(job: Job, scene: Scene) -> float | None:
    """The diameter of a bore in the full that is the same all through and has limits."""
    inside = job.part.inside
    cut = (one for one in job.part.features if isinstance(one, Groove | Relief | ThreadFeature))
    if not inside or scene.stock.bounds[1] > SAME_MM or any(one.side == "inside" for one in cut):
        return None
    if served_bore_z(scene) > scene.profile.back_z + SAME_MM:
        return None
    if any(one.grind_mm is not None for one in inside):
        return None  # it is turned smaller, and ground
    sizes = {round(one.d_mm, 4) for one in inside}
    limits = [one.size for one in inside if one.size is not None]
    return inside[0].d_mm if len(sizes) == 1 and limits else None


def _reamer(job: Job, store: Catalogue, d: float, deep: float) -> Reamer | None:
    size = next(one.size for one in job.part.inside if one.size is not None)
    low, high = d + size.lower_um / 1000, d + size.upper_um / 1000
    fits = (one for one in store.tools if isinstance(one, Reamer) and low <= one.d_mm <= high)
    able = (one for one in fits if _reach_mm(one) >= deep + one.lead_mm + THROUGH_MM - SAME_MM)
    return min(able, key=lambda one: abs(one.d_mm - (low + high) / 2), default=None)


def _reach_mm(reamer: Reamer) -> float:
    """How deep it goes: its flutes, and a thinner shank behind them up to what holds it."""
    if reamer.shank_d_mm > reamer.d_mm - FOLLOWS_MM:
        return reamer.flute_length_mm
    return min((float(one[:, 0].min()) for one in shape_of(reamer).held), default=reamer.flute_length_mm)


def _drill(job: Job, store: Catalogue, reamer: Reamer, deep: float) -> Drill | None:
    """The largest that leaves the reamer its share; one that needs no spot where two are alike."""
    usual = reaming_stock_mm(reamer)

    def able(one: Drill) -> bool:
        left = reamer.d_mm - one.d_mm
        reach = deep + past_through_mm(job) + point_length_mm(one)
        return usual - SAME_MM <= left <= MOST_STOCK * usual and one.flute_length_mm >= reach

    drills: Iterable[Drill] = (one for one in store.tools if isinstance(one, Drill))
    return max(
        (one for one in drills if one.form in ("twist", "indexable") and able(one)),
        key=lambda one: (one.material != "high-speed steel", one.d_mm, -one.overall_length_mm),
        default=None,
    )
