"""What of a part still asks for a tool: its surfaces, grooves, threads and holes."""

from dataclasses import dataclass
from typing import Literal

import numpy as np
import shapely

from toreuma.core.geometry.elements import Line
from toreuma.core.geometry.region import Region, box, polygons, rings, without_film
from toreuma.core.model import Job, Operation, Tool
from toreuma.core.model.feature import AxialHole, CentreHole, FaceGroove, Groove, Knurl, Relief, ThreadFeature
from toreuma.core.model.tool import Drill
from toreuma.core.reach.tool_reach import Surface, rolled_on, surface_metal
from toreuma.core.scene import Scene

__all__ = ["PARTED_ROOM_MM", "Wish", "asked_for", "front_edge", "wishes"]

Use = Literal["rough", "finish", "face", "groove", "thread", "drill", "tap", "centre", "knurl", "part_off", "feed_bar"]

ON_THE_AXIS = ("tap",)
"""Cut by operations that name no feature of the part."""

LEAST_MM2, LEAST_EDGE_MM2, EDGE_MM = 0.05, 0.004, 0.01
PIERCED_SHARE, LEAST_DRILLED_MM = 0.7, 1.2
"""A hole is drilled up where it is smaller than this share of the bore, and by so much on radius."""
PARTED_ROOM_MM = 12.0
"""Between the part's back face and the jaws: a sawn piece is parted off from here on."""
THIN_MM, THICK_SHARE = 0.7, 0.08
"""Metal hardly anywhere thicker than this, but at broken edges, is taken by the finishing cut alone."""
FLAT_MM, TEETH_TURNS = 1e-3, 4
"""An outline that rises less is level; one that turns so often between rising and falling has teeth."""

FILM_MM, SAME_MM = 0.005, 1e-4
FAR_MM = 1e4
ROUND_MM, NEAR_MM = 0.8, 4.0
"""A usual nose, and how much air is looked at about what stands."""

LEFT_SHARE = 0.2
"""A groove of which less than this stands is cut already; corners the blade cannot reach stay."""


@dataclass(frozen=True, kw_only=True)
class Wish:
    """One thing to be cut. ``key`` tells wishes of a part apart; ``feature`` is its index among the features."""

    key: str
    use: Use
    words: str
    surface: Surface | None = None
    feature: int = -1

    def is_cut_by(self, operation: Operation, tool: Tool | None) -> bool:
        """The operation cuts this with its tool: its kind does, and where it cuts one feature of the part, it is this
        one. What a drill makes on the axis is told by its form."""
        if self.use in ("centre", "drill") and operation.kind == "drill":
            form = tool.form if isinstance(tool, Drill) else "twist"
            return form == "centre" if self.use == "centre" else form not in ("centre", "spot")
        if self.use in ("rough", "finish"):
            inside = self.surface is not None and self.surface.kind == "bore"
            return operation.kind == f"{self.use}_{'bore' if inside else 'od'}"
        feature = getattr(operation, "feature", None)
        same = feature == self.feature or (feature is None and (self.feature < 0 or self.use in ON_THE_AXIS))
        return same and operation.kind == self.use


def wishes(job: Job, scene: Scene) -> tuple[Wish, ...]:
    """Everything on the part that a turning tool, a drill or a tap cuts, in the order it is usually cut."""
    found: list[Wish] = []
    if surface_metal(scene, Surface("front")).area > LEAST_MM2:
        found.append(Wish(key="face", use="face", words="Face the front", surface=Surface("front")))
    outside = Surface("outside")
    if (metal := surface_metal(scene, outside)).area > LEAST_MM2 and not _is_cut(scene, metal):
        if _is_thick(metal):
            found.append(Wish(key="rough outside", use="rough", words="Rough the outside", surface=outside))
        found.append(Wish(key="finish outside", use="finish", words="Finish the outside", surface=outside))
    bore = Surface("bore")
    if scene.shape.void is not None and _is_worth((metal := surface_metal(scene, bore)), scene):
        if _is_pierced_only(scene, metal):
            found.append(Wish(key="drill bore", use="drill", words="Drill for the bore"))
        if _is_thick(metal):
            found.append(Wish(key="rough bore", use="rough", words="Rough the bore", surface=bore))
        found.append(Wish(key="finish bore", use="finish", words="Finish the bore", surface=bore))
    found += [wish for index, feature in enumerate(job.part.features) for wish in _left_of(scene, index, feature)]
    if _is_parted(job, scene):
        found.append(Wish(key="part off", use="part_off", words="Part off"))
    if _runs_from_bar(job):
        found.append(Wish(key="feed bar", use="feed_bar", words="Feed the bar"))
    return tuple(found)


def _is_cut(scene: Scene, metal: Region) -> bool:
    """Another hold has cut all of the outside: what stands is in inner corners, where the round of a nose does not
    come."""
    if not scene.cut_before:
        return False
    z0, r0, z1, r1 = metal.bounds
    air = box(z0 - NEAR_MM, r0 - NEAR_MM, z1 + NEAR_MM, r1 + NEAR_MM).difference(scene.part)
    rolled = air.buffer(-ROUND_MM).buffer(ROUND_MM - FILM_MM)
    return bool(metal.intersection(rolled).area <= LEAST_EDGE_MM2)


def _is_worth(metal: Region, scene: Scene) -> bool:
    """There is metal in the bore; of what another hold has cut the edge at the front may be all that is left."""
    if metal.area > LEAST_MM2 or not scene.cut_before:
        return bool(metal.area > LEAST_MM2)
    front = scene.profile.front_z - EDGE_MM
    if any(one.bounds[2] > front and one.area > LEAST_EDGE_MM2 for one in polygons(metal)):
        return True
    edge = front_edge(scene)  # where a thread runs through it, the section shows but a piece of a tooth
    if edge is None:
        return False
    low, _, mouth = edge
    left = without_film(metal.intersection(box(low, 0.0, scene.profile.front_z, mouth)), FILM_MM)
    return not left.is_empty


def front_edge(scene: Scene) -> tuple[float, float, float] | None:
    """The chamfer that breaks the front edge of the bore, as drawn: where it ends along Z, its inner and its outer
    radius, mm; None where there is none of 45 degrees."""
    bore = scene.shape.bore
    for one in bore.segments if bore is not None else ():
        (z0, mouth), (low, inner) = one.start, one.end
        if abs(z0 - scene.profile.front_z) < SAME_MM and low < z0 - SAME_MM:
            return (
                (low, inner, mouth) if isinstance(one, Line) and abs((z0 - low) - (mouth - inner)) < SAME_MM else None
            )
    return None


def _runs_from_bar(job: Job) -> bool:
    """Several parts in one run, one after the other from the bar, which nothing else draws out."""
    drawn = job.hand_over is not None and job.hand_over.how == "pulled"
    return job.program.parts > 1 and job.stock.kind != "free" and job.stock.length_mm is None and not drawn


def _is_parted(job: Job, scene: Scene) -> bool:
    """A bar, or a sawn piece that stands out far enough behind the part."""
    if job.stock.kind == "free":
        return False
    return job.stock.length_mm is None or scene.clear_z < scene.profile.back_z - PARTED_ROOM_MM


def asked_for(scene: Scene, wish: Wish) -> bool:
    """There is metal for a wish of a surface as the blank stands."""
    if wish.surface is None:
        return True
    metal = surface_metal(scene, wish.surface)
    if wish.surface.kind == "outside" and _is_cut(scene, metal):
        return False
    if wish.surface.kind == "bore" and wish.use == "finish":
        return _is_worth(metal, scene)
    return metal.area > LEAST_MM2 and (wish.use != "rough" or _is_thick(metal))


def _is_thick(metal: Region) -> bool:
    """There is something to rough."""
    return bool(metal.buffer(-THIN_MM / 2).area > THICK_SHARE * metal.area)


def _is_pierced_only(scene: Scene, metal: Region) -> bool:
    """There is no hole in the bore, or one far too small for a bar and for the narrowest place; what lies in front of
    the part is faced off first."""
    part = shapely.clip_by_rect(scene.stock, -FAR_MM, 0.0, scene.profile.front_z - FILM_MM, FAR_MM)
    hole = 0.0 if part.is_empty else float(part.bounds[1])
    if hole <= 0:
        return True
    bore = scene.shape.bore
    drawn = [r for s in bore.segments[1:] for _, r in (s.start, s.end) if r > EDGE_MM] if bore is not None else []
    wanted = min([float(metal.bounds[3]), *drawn])
    return hole < PIERCED_SHARE * wanted and wanted - hole > LEAST_DRILLED_MM and _is_thick(metal)


def _stands(scene: Scene, index: int, feature: object) -> bool:
    """The metal of a feature is still there, and on this side."""
    if isinstance(feature, ThreadFeature):
        return _unthreaded(scene, feature)
    if isinstance(feature, Knurl):
        middle = feature.from_z_mm - feature.length_mm / 2
        return not rolled_on(scene).intersects(shapely.LineString([(middle, 0), (middle, 1e4)]))
    if getattr(feature, "end", "front") == "back":
        return False
    void = next((one for at, one in scene.shape.voids if at == index), None)
    if void is None:
        return True
    if isinstance(feature, AxialHole | CentreHole):
        return bool(scene.stock.intersection(void.cut).area > LEAST_MM2)
    whole = void.cut.intersection(scene.shape.solid)
    return bool(scene.stock.intersection(whole).area > LEFT_SHARE * whole.area)


def _left_of(scene: Scene, index: int, feature: object) -> list[Wish]:
    """What a feature still asks for: of a tapped hole that was drilled from the other end, the tap."""
    if _stands(scene, index, feature):
        return _of(index, feature)
    tapped = isinstance(feature, AxialHole) and feature.end == "front" and scene.cut_before
    return [one for one in _of(index, feature) if one.use == "tap"] if tapped else []


def _unthreaded(scene: Scene, feature: ThreadFeature) -> bool:
    """No teeth stand where the thread will be: the blank's outline is smooth there."""
    low, high = feature.from_z_mm - feature.length_mm, feature.from_z_mm
    turns = 0
    for ring in rings(scene.stock):
        inside = ring[(ring[:, 0] > low) & (ring[:, 0] < high)]
        rises = np.diff(inside[:, 1])
        rises = np.sign(rises[np.abs(rises) > FLAT_MM])
        turns += int((np.diff(rises) != 0).sum())
    return turns < TEETH_TURNS


def _of(index: int, feature: object) -> list[Wish]:
    def wish(use: Use, words: str, surface: Surface | None = None) -> Wish:
        return Wish(key=f"{use} {index}", use=use, words=words, surface=surface, feature=index)

    groove = Surface("groove", index)
    if isinstance(feature, Groove):
        side = "" if feature.side == "outside" else " in the bore"
        return [wish("groove", feature.name or f"Groove{side}", groove)]
    if isinstance(feature, FaceGroove):
        return [wish("groove", feature.name or "Groove in the face", groove)]
    if isinstance(feature, Relief):
        return [wish("groove", feature.name or "Relief", groove)]
    if isinstance(feature, ThreadFeature):
        return [wish("thread", f"Thread {feature.designation}")]
    if isinstance(feature, Knurl):
        return [wish("knurl", feature.name or f"Knurl {feature.form} {feature.pitch_mm:g}")]
    if isinstance(feature, CentreHole):
        return [wish("centre", "Centre hole")]
    if isinstance(feature, AxialHole):
        tapped = [wish("tap", f"Tap {feature.thread}")] if feature.thread else []
        return [wish("drill", feature.name or "Axial hole"), *tapped]
    return []
