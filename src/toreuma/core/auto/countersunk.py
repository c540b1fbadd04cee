"""The edge of a drilled hole that no bar goes into, broken with a pointed drill of its angle."""

import math

from toreuma.core.advise.wishes import front_edge
from toreuma.core.auto.steps import ID, RouteStep
from toreuma.core.geometry.region import box, polygons, without_film
from toreuma.core.model import DrillHole
from toreuma.core.model.catalogue import Catalogue
from toreuma.core.model.tool import Drill
from toreuma.core.reach.tool_reach import Surface, surface_metal
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said

__all__ = ["countersunk"]

FILM_MM, SAME_MM, WIDE_MM, FAR_MM = 0.01, 0.03, 0.05, 1e4
MOST_MM = 4.0
"""Larger edges are turned."""


def _standing(scene: Scene) -> tuple[float, float, float] | None:
    """The metal that stands in the front edge, where that is all of a chamfer of 45 degrees."""
    metal = without_film(surface_metal(scene, Surface("bore")), FILM_MM)
    front = scene.profile.front_z
    edge = next((one for one in polygons(metal) if one.bounds[2] > front - SAME_MM), None)
    if edge is None:
        return None
    low, inner, _, mouth = edge.bounds
    deep, tall = front - low, mouth - inner
    whole = abs(deep - tall) <= SAME_MM and abs(edge.area - deep * tall / 2) <= SAME_MM * deep
    return (low, inner, mouth) if whole else None


def _toothed(scene: Scene) -> tuple[float, float, float] | None:
    """The drawn chamfer, where a thread has left pieces of it and nothing else of the bore is to be cut."""
    edge = front_edge(scene) if scene.cut_before else None
    if edge is None:
        return None
    metal = without_film(surface_metal(scene, Surface("bore")), FILM_MM)
    behind = metal.intersection(box(scene.profile.back_z - SAME_MM, 0.0, edge[0] - SAME_MM, edge[2] + FAR_MM))
    return edge if without_film(behind, FILM_MM).is_empty else None


def countersunk(scene: Scene, store: Catalogue) -> RouteStep | None:
    """A step that breaks the front edge of the bore; None where that is no chamfer of 45 degrees, or no drill fits."""
    front = scene.profile.front_z
    edge = _standing(scene) or _toothed(scene)
    if edge is None or front - edge[0] > MOST_MM:
        return None
    mouth = edge[2]
    able = [
        one
        for one in store.tools
        if isinstance(one, Drill)
        and one.form == "spot"
        and abs(one.point_deg - 90) < 1
        and one.d_mm / 2 > mouth + WIDE_MM
    ]
    tool = min(able, key=lambda one: one.d_mm, default=None)
    if tool is None:
        return None
    deep_mm = mouth / math.tan(math.radians(tool.point_deg / 2))
    words = said("Ø {}, {}°: breaks the edge to Ø {}", q(tool.d_mm, "mm", "g"), f"{tool.point_deg:g}", q(2 * mouth))
    operation = DrillHole(id=ID, name="Break the edge of the bore", tool=ID, depth_mm=round(deep_mm - front, 3))
    return RouteStep(group="finish bore", operation=operation, tool=tool, reasons=(words, "no bar goes into the hole"))
