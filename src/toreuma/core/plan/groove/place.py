"""The room a blade has in a groove, outside, in a bore and in a face, seen with the blade coming from above (`frame`).

What its nose may do is the envelope of the part with this groove open; where that lies deeper than with the groove
closed, the blade dips into the groove: that region is planned in.
"""

from dataclasses import dataclass

import numpy as np
import shapely

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.envelope import Envelope, upper_envelope
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.geometry.reach import blocked_by_body, blocked_by_part, covered
from toreuma.core.geometry.region import EMPTY, Region, box, polygons, union
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.memo import Memo
from toreuma.core.model import CutGroove
from toreuma.core.model.feature import FaceGroove
from toreuma.core.model.tool import Blade, GroovingTool, PartingTool
from toreuma.core.plan.ground.frame import FACE, INSIDE, OUTSIDE, Frame
from toreuma.core.plan.ground.given import Given
from toreuma.core.plan.ground.path import APPROACH_MM
from toreuma.core.plan.ground.result import OperationFault
from toreuma.core.plan.ground.work import Work
from toreuma.core.spoken import q, said

__all__ = ["FAR_MM", "LEAST_MM", "ROOM_MM", "Ground", "coverage", "groove_zone", "ground_of", "void_of"]

BODY_CLEAR_MM = 0.3
FAR_MM = 1e4
LEAST_MM = 0.02
HAIR_MM = 5e-4

ROOM_MM = 0.002
"""A blade with more room than this beside it has two walls to cut."""

LEAST_SHARE = 0.3
"""A blade that gets in less than this share of the depth does not go in: only its round corners do."""


@dataclass(frozen=True, kw_only=True)
class Ground:
    """The groove in its frame: ``dip`` holds the nose centres from which the blade is in it, ``line`` is the lowest
    way through it, from large z to small z; ``top`` is just above the work, ``safe`` where the blade travels."""

    frame: Frame
    shape: ToolShape
    dip: Region
    line: Points
    top: float
    safe: float

    @property
    def depth(self) -> float:
        return float(np.ptp(self.line[:, 1])) if len(self.line) else 0.0

    @property
    def is_wide(self) -> bool:
        """The blade has room beside it."""
        return bool(self.line[0, 0] - self.line[-1, 0] > ROOM_MM)


def void_of(work: Work, operation: CutGroove) -> Region:
    """What the feature takes away. Raises `OperationFault`."""
    void = next((one for index, one in work.scene.shape.voids if index == operation.feature), None)
    features = work.given.part.features
    if void is None or features[operation.feature].kind not in ("groove", "face_groove", "relief"):
        raise OperationFault(
            "groove.none", f"the part has no groove number {operation.feature + 1}", "choose a groove of the part"
        )
    return void.cut


def _frame(work: Work, operation: CutGroove) -> Frame:
    feature = work.given.part.features[operation.feature]
    if isinstance(feature, FaceGroove):
        if feature.end == "back":
            raise OperationFault("groove.back", "the groove is in the back face", "cut it in the second hold")
        wanted, frame = "face", FACE
    else:
        side = getattr(feature, "side", "outside")
        wanted, frame = (side, INSIDE if side == "inside" else OUTSIDE)
    where = work.tool.where if isinstance(work.tool, GroovingTool) else "outside"
    if where != wanted:
        raise OperationFault("tool.where", f"{work.tool.id} cuts {_where(where)}", f"choose a blade {_where(wanted)}")
    return frame


def _where(where: str) -> str:
    return {"outside": "outside grooves", "inside": "grooves in a bore", "face": "grooves in a face"}[where]


def groove_zone(memo: Memo, given: Given, operation: CutGroove) -> tuple[float, float] | None:
    """The stretch along Z in which the blade, its block and what carries it can meet anything: beside an outside
    groove; before one in a bore or a face, all the way out."""
    voids = memo.of(build_part, given.part).voids
    void = next((one for index, one in voids if index == operation.feature), None)
    if void is None:
        return None
    pieces = [piece for tool in given.tools for shape in (shape_of(tool),) for piece in (*shape.bodies, shape.core)]
    reach = max((float(np.abs(piece[:, 0]).max()) for piece in pieces), default=0.0)
    blades = [tool.blade for tool in given.tools if isinstance(tool, GroovingTool | PartingTool)]
    wide = max((blade.width_mm for blade in blades), default=reach)
    z0, _, z1, _ = void.cut.bounds
    margin = wide + APPROACH_MM + reach
    feature = given.part.features[operation.feature]
    outside = not isinstance(feature, FaceGroove) and getattr(feature, "side", "outside") == "outside"
    return z0 - margin, z1 + margin if outside else FAR_MM


def ground_of(work: Work, operation: CutGroove, void: Region, leave: float, blade: Blade) -> Ground:
    """The ground of a groove for one of its tools. Raises `OperationFault` where the blade does not go in."""
    frame, scene = _frame(work, operation), work.scene
    zone = work.memo.of(groove_zone, work.memo, work.given, operation) or (-FAR_MM, FAR_MM)
    solids = _Solids(void=void, part=scene.part, solid=scene.shape.solid, fixed=scene.fixed, stock=work.stock)
    return work.memo.of(_computed, solids, zone, frame, work.shape, leave + operation.leave_mm, blade, work.tool.id)


@dataclass(frozen=True, kw_only=True)
class _Solids:
    """What stands round a groove: ``solid`` is the part with its grooves filled, ``fixed`` the hold and the centre."""

    void: Region
    part: Region
    solid: Region
    fixed: Region
    stock: Region


def _computed(
    solids: _Solids, zone: tuple[float, float], frame: Frame, own: ToolShape, leave: float, blade: Blade, tool: str
) -> Ground:
    shape = frame.shape(own)

    def seen(region: Region) -> Region:
        return frame.region(shapely.clip_by_rect(region, zone[0], -FAR_MM, zone[1], FAR_MM))

    opened, part, stock = (seen(region) for region in (solids.void, solids.part, solids.stock))
    closed = part.union(seen(solids.void.intersection(solids.solid)))
    z0, _, z1, _ = opened.bounds
    margin = blade.width_mm + APPROACH_MM
    near = (z0 - margin, z1 + margin)
    there = shapely.clip_by_rect(stock, z0 - 0.5, -FAR_MM, z1 + 0.5, FAR_MM)
    top = float((opened if there.is_empty else there).bounds[3])
    safe = _safe(solids, frame, shape, top, tool)
    bodies = blocked_by_body(union([part, stock]).difference(opened), shape.bodies, _clear(shape, blade), -FAR_MM)
    fixed = blocked_by_body(seen(solids.fixed), (*shape.bodies, shape.core), BODY_CLEAR_MM, -FAR_MM)
    held = union([bodies, fixed])
    shut = upper_envelope(union([blocked_by_part(closed, shape, leave, leave), held]), near[1], near[0])

    def dip_into(solid: Region) -> tuple[Envelope, Region]:
        open_ = upper_envelope(union([blocked_by_part(solid, shape, leave, leave), held]), near[1], near[0])
        deeper = polygons(shut.below(-FAR_MM).difference(open_.below(-FAR_MM)))
        return open_, min(deeper, key=lambda one: float(one.bounds[1]), default=EMPTY)

    open_, dip = dip_into(part)
    exact = dip.bounds[1] if not dip.is_empty else top
    if exact > float(opened.bounds[1]) + shape.nose_radius + leave + LEAST_MM:
        # A blade exactly as wide as its groove has no room at all: give it half a micrometre on each side.
        wider, slot = dip_into(part.difference(opened.buffer(HAIR_MM, join_style="mitre")))
        if not slot.is_empty and slot.bounds[1] < exact - LEAST_MM:
            open_, dip = wider, slot
    wanted = float(opened.intersection(closed).bounds[3] - opened.bounds[1])
    shallow = dip.is_empty or dip.bounds[3] - dip.bounds[1] < LEAST_SHARE * wanted
    if shallow and leave > 0:  # no room for an allowance
        return Ground(frame=frame, shape=shape, dip=EMPTY, line=np.zeros((0, 2)), top=top, safe=safe)
    if shallow:
        raise OperationFault(
            "groove.narrow",
            said("the blade of {}, {} wide, does not go into the groove", tool, q(blade.width_mm, "mm", "g")),
            "a narrower blade, or look at what stands in its way",
        )
    over = _over(stock, dip, shape)
    if over > top + LEAST_MM and not frame.flip_r:  # it stands beside a groove that is open at its end
        top, safe = over, _safe(solids, frame, shape, over, tool)
    return Ground(frame=frame, shape=shape, dip=dip, line=_through(open_, dip), top=top, safe=safe)


def _over(stock: Region, dip: Region, shape: ToolShape) -> float:
    """The highest metal that any part of the edge passes above."""
    low = dip.bounds[0] + float(shape.core[:, 0].min()) - shape.nose_radius
    high = dip.bounds[2] + float(shape.core[:, 0].max()) + shape.nose_radius
    there = shapely.clip_by_rect(stock, low, -FAR_MM, high, FAR_MM)
    return float(there.bounds[3]) if not there.is_empty else -FAR_MM


def _clear(shape: ToolShape, blade: Blade) -> float:
    """What holder and stem keep clear by: a stem is only a little slimmer than its blade."""
    return min(BODY_CLEAR_MM, 0.4 * 0.1 * blade.width_mm) if shape.is_blade else 0.02


def _safe(solids: _Solids, frame: Frame, shape: ToolShape, top: float, tool: str) -> float:
    """Where the nose travels: above the work, or in a bore as far from the far wall as the bar needs."""
    above = top + shape.nose_radius + APPROACH_MM
    if not frame.flip_r:
        return above
    way = shapely.clip_by_rect(solids.stock, solids.void.bounds[0], 0, FAR_MM, FAR_MM)
    ceiling = float(way.bounds[1]) - BODY_CLEAR_MM - shape.height
    if ceiling < top + shape.nose_radius + LEAST_MM:
        raise OperationFault(
            "bore.narrow",
            said("{} does not fit the bore of Ø {}", tool, q(2 * float(way.bounds[1]))),
            "a thinner bar, or open the bore first",
        )
    return min(above, ceiling)


def _through(envelope: Envelope, dip: Region) -> Points:
    """The lowest way through the dip, from its front to its back edge."""
    z0, _, z1, high = dip.bounds
    if z1 - z0 < ROOM_MM:
        middle = (z0 + z1) / 2
        return np.array([[middle, high], [middle, dip.bounds[1]], [middle, high]])
    points = envelope.points
    inner = points[(points[:, 0] < z1 - 1e-9) & (points[:, 0] > z0 + 1e-9)]
    ends = [
        points[np.abs(points[:, 0] - z) < 1e-9]
        if (np.abs(points[:, 0] - z) < 1e-9).any()
        else [[z, envelope.height(z)]]
        for z in (z1, z0)
    ]
    return np.vstack([ends[0], inner, ends[1]])


def coverage(ground: Ground) -> Region:
    """What the blade leaves clean: all it passes over in the groove."""
    z0, _, z1, _ = ground.dip.bounds
    wider = union([ground.dip, box(z0, float(ground.line[:, 1].max()), z1, ground.safe)])
    clean = ground.frame.region(covered(wider, ground.shape))
    return clean.intersection(box(-FAR_MM, 0, FAR_MM, FAR_MM))
