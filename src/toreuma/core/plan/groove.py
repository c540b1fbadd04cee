"""Grooves and reliefs, outside, in a bore and in a face: plunges that leave a little, then both walls to the floor.

The blade is seen coming from above (`frame`). What its nose may do is the envelope of the part with this groove open;
where that lies deeper than with the groove closed, the blade dips into the groove: that region is planned in.
"""

import math
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
import shapely

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.findings import Finding
from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.envelope import Envelope, upper_envelope
from toreuma.core.geometry.minkowski import sweep
from toreuma.core.geometry.reach import blocked_by_body, blocked_by_part, covered
from toreuma.core.geometry.region import EMPTY, Region, box, polygons, union
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.memo import fingerprint
from toreuma.core.model import CutGroove
from toreuma.core.model.feature import FaceGroove
from toreuma.core.model.tool import Blade, FormTool, GroovingTool, PartingTool
from toreuma.core.plan.frame import FACE, INSIDE, OUTSIDE, Frame
from toreuma.core.plan.groove_checks import groove_findings
from toreuma.core.plan.grounds import blade_situation, proposed, spindle_of
from toreuma.core.plan.result import Cuts, OperationFault, Pass
from toreuma.core.plan.work import APPROACH_MM, Path, Work
from toreuma.core.propose.proposal import Proposal

__all__ = ["plan_groove"]

OVERLAP = 0.8
"""Neighbouring plunges stand apart by at most this share of the blade's flat."""

LAYER_SHARE = 0.4
"""Plunging and turning goes down by this share of the blade's width at a time."""

TURN_LIFT_MM = 0.05
"""The blade bends when it turns sideways and would cut deeper: it turns so much above the floor of its plunge."""

PECK_SHARE = 1.0
PECK_LIFT_MM = 0.15
"""Chips are broken every so many widths by lifting off a little."""

BODY_CLEAR_MM = 0.3
FAR_MM = 1e4
LEAST_MM = 0.02
LEAST_AREA_MM2 = 0.02
SAME_MM = 1e-4
HAIR_MM = 5e-4
LEAST_SHARE = 0.3
"""A blade that gets in less than this share of the depth does not go in: only its round corners do."""


@dataclass(frozen=True)
class _Ground:
    """The groove in its frame: ``dip`` holds the nose centres from which the blade is in it, ``line`` is the lowest
    way through it, from large z to small z; ``top`` is just above the work, ``safe`` where the blade travels."""

    frame: Frame
    shape: ToolShape
    dip: Region
    line: Points
    top: float
    safe: float


def plan_groove(work: Work, operation: CutGroove) -> Cuts:
    """Cut one groove or relief of the part."""
    blade = _blade(work)
    void = _void(work, operation)
    ground = _ground(work, operation, void, 0.0, blade)
    if ground.dip.is_empty:
        raise OperationFault(
            "groove.leave",
            f"with {operation.leave_mm:g} mm left all round there is no room for the blade",
            "leave less, or a narrower blade",
        )
    wide = ground.line[0, 0] - ground.line[-1, 0] > LEAST_MM
    rough = _ground(work, operation, void, operation.walls_mm, blade) if wide and operation.walls_mm > 0 else ground
    if rough.dip.is_empty or _depth(rough) < _depth(ground) - 2 * max(operation.walls_mm, LEAST_MM):
        rough = ground
    proposal = _proposal(work, void, blade)
    values = dict(proposal.numbers)
    feed = values["f"].number
    path = Path(work, spindle_of(work, proposal), ground.frame, ground.safe)
    plunges = _plunges(work, rough, blade)
    drawn = _rough(work, operation, path, rough, plunges, feed, blade)
    finished = operation.leave_mm == 0 and wide
    if finished:
        drawn += _finish(path, ground, feed)
    note: tuple[Finding, ...] = ()
    if path.motions:
        path.leave()
    else:
        note = (Finding("note", "groove.nothing", "there is nothing left to cut in it", operation=operation.id),)
    values["plunges"] = Evidence(
        "plunges",
        "i",
        float(len(plunges)),
        "",
        formula=f"no farther apart than {OVERLAP:.0%} of the flat of the blade",
        inputs=(Input("width of the blade", "CW", blade.width_mm, "mm"),),
    )
    done = ground if operation.leave_mm == 0 else rough
    return Cuts(
        tuple(path.motions),
        tuple(drawn),
        values,
        (*note, *groove_findings(work, operation, void, blade)),
        proposal,
        coverage=lambda: _coverage(done),
    )


def _blade(work: Work) -> Blade:
    tool = work.tool
    if isinstance(tool, GroovingTool | PartingTool):
        return tool.blade
    if isinstance(tool, FormTool):
        width = float(np.ptp([z for z, _ in tool.outline_mm]))
        return Blade(
            width_mm=width, corner_radius_mm=0.0, depth_mm=tool.functional_length_mm,
            block_width_mm=tool.block_width_mm, functional_length_mm=tool.functional_length_mm, material=tool.material,
            feed_range_mm_rev=tool.feed_range_mm_rev,
        )  # fmt: skip
    raise OperationFault("tool.kind", f"{tool.id} is not a grooving tool", "choose a grooving tool")


def _void(work: Work, operation: CutGroove) -> Region:
    """What the feature takes away. Raises `OperationFault`."""
    void = next((one for index, one in work.scene.shape.voids if index == operation.feature), None)
    features = work.job.part.features
    if void is None or features[operation.feature].kind not in ("groove", "face_groove", "relief"):
        raise OperationFault(
            "groove.none", f"the part has no groove number {operation.feature + 1}", "choose a groove of the part"
        )
    return void.cut


def _frame(work: Work, operation: CutGroove) -> Frame:
    feature = work.job.part.features[operation.feature]
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


def _ground(work: Work, operation: CutGroove, void: Region, leave: float, blade: Blade) -> _Ground:
    frame = _frame(work, operation)
    leave += operation.leave_mm
    key = ("groove", work.tool, operation.feature, work.scene.part_key, work.job.part.features,
           fingerprint(work.stock), work.scene.jaw_face_z, leave)  # fmt: skip
    return work.memo.get(key, lambda: _computed(work, void, frame, leave, blade))


def _computed(work: Work, void: Region, frame: Frame, leave: float, blade: Blade) -> _Ground:
    scene, shape = work.scene, frame.shape(work.shape)
    opened, part, stock = (frame.region(region) for region in (void, scene.part, work.stock))
    closed = part.union(frame.region(void.intersection(scene.shape.solid)))
    z0, _, z1, _ = opened.bounds
    margin = blade.width_mm + blade.block_width_mm + APPROACH_MM
    near = (z0 - margin, z1 + margin)
    top = float(shapely.clip_by_rect(stock, z0 - 0.5, -FAR_MM, z1 + 0.5, FAR_MM).bounds[3])
    safe = _safe(work, frame, shape, void, top)
    bodies = blocked_by_body(union([part, stock]).difference(opened), shape.bodies, _clear(shape, blade), -FAR_MM)
    fixed = blocked_by_body(frame.region(scene.fixed), (*shape.bodies, shape.core), BODY_CLEAR_MM, -FAR_MM)
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
        return _Ground(frame, shape, EMPTY, np.zeros((0, 2)), top, safe)
    if shallow:
        raise OperationFault(
            "groove.narrow",
            f"the blade of {work.tool.id}, {blade.width_mm:g} mm wide, does not go into the groove",
            "a narrower blade, or look at what stands in its way",
        )
    return _Ground(frame, shape, dip, _through(open_, dip), top, safe)


def _clear(shape: ToolShape, blade: Blade) -> float:
    """What holder and stem keep clear by: a stem is only a little slimmer than its blade."""
    return min(BODY_CLEAR_MM, 0.4 * 0.1 * blade.width_mm) if shape.is_blade else 0.02


def _safe(work: Work, frame: Frame, shape: ToolShape, void: Region, top: float) -> float:
    """Where the nose travels: above the work, or in a bore as far from the far wall as the bar needs."""
    above = top + shape.nose_radius + APPROACH_MM
    if not frame.flip_r:
        return above
    way = shapely.clip_by_rect(work.stock, void.bounds[0], 0, FAR_MM, FAR_MM)
    ceiling = float(way.bounds[1]) - BODY_CLEAR_MM - shape.height
    if ceiling < top + shape.nose_radius + LEAST_MM:
        raise OperationFault(
            "bore.narrow",
            f"{work.tool.id} does not fit the bore of Ø {2 * float(way.bounds[1]):.2f} mm",
            "a thinner bar, or open the bore first",
        )
    return min(above, ceiling)


def _through(envelope: Envelope, dip: Region) -> Points:
    """The lowest way through the dip, from its front to its back edge."""
    z0, _, z1, high = dip.bounds
    if z1 - z0 < LEAST_MM:
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


def _depth(ground: _Ground) -> float:
    return float(np.ptp(ground.line[:, 1])) if len(ground.line) else 0.0


def _proposal(work: Work, void: Region, blade: Blade) -> Proposal:
    radii = void.intersection(work.scene.shape.solid).bounds
    situation = blade_situation(work, blade, 2 * radii[3])
    return proposed(work, situation, ((blade.width_mm, max(radii[3] - radii[1], 0.1)),), blade.width_mm)


def _plunges(work: Work, ground: _Ground, blade: Blade) -> list[tuple[float, float]]:
    """Places and depths of the plunges, from the middle outward; only where there is metal to take."""
    z0, z1 = float(ground.line[-1, 0]), float(ground.line[0, 0])
    envelope = Envelope(ground.line)
    flat = max(blade.width_mm - 2 * blade.corner_radius_mm, 0.3 * blade.width_mm)
    inset = min(SAME_MM, (z1 - z0) / 4)
    count = max(1, math.ceil((z1 - z0) / (OVERLAP * flat) - 1e-6) + 1) if z1 - z0 > LEAST_MM else 1
    places = [(z0 + z1) / 2] if count == 1 else [float(z) for z in np.linspace(z1 - inset, z0 + inset, count)]
    middle = (z0 + z1) / 2
    found = []
    for z in sorted(places, key=lambda z: (abs(z - middle), -z)):
        depth = envelope.height(z) if z1 - z0 > LEAST_MM else float(ground.line[:, 1].min())
        found.append((z, depth))
    return found


def _metal(work: Work, ground: _Ground, path: list[tuple[float, float]]) -> float:
    """Area the blade would take along a way of its nose, mm2."""
    swept = _swept(ground, path)
    return float(swept.intersection(ground.frame.region(work.stock)).area)


def _swept(ground: _Ground, path: list[tuple[float, float]]) -> Region:
    return sweep(np.array(path), ground.shape.core, ground.shape.nose_radius, 0.005)


def _rough(
    work: Work,
    operation: CutGroove,
    path: Path,
    ground: _Ground,
    plunges: list[tuple[float, float]],
    feed: float,
    blade: Blade,
) -> list[Pass]:
    """Down at every place where metal is met; or down and sideways, layer by layer."""
    begin = ground.top + ground.shape.nose_radius + 0.2
    worth = [(z, depth) for z, depth in plunges if _metal(work, ground, [(z, begin), (z, depth)]) > LEAST_AREA_MM2]
    if operation.method == "plunge_turn" and len(worth) > 1:
        return _layers(path, ground, worth, feed, blade, begin)
    drawn = []
    for z, depth in worth:
        _over(path, ground, z)
        path.rapid(r=min(begin, ground.safe))
        first = len(path.motions)
        for bottom in _pecks(begin, depth, blade.width_mm if operation.method == "plunges" else math.inf):
            path.feed(feed, r=bottom)
            if bottom > depth + SAME_MM:
                path.feed(feed, r=bottom + PECK_LIFT_MM)
        drawn.append(Pass(tuple(m.segment for m in path.motions[first:]), blade.width_mm))
        path.rapid(r=ground.safe)
    return drawn


def _layers(
    path: Path, ground: _Ground, plunges: list[tuple[float, float]], feed: float, blade: Blade, begin: float
) -> list[Pass]:
    """Plunge by a part of the width, lift a little, turn to the other wall; deeper, and back."""
    low, high = min(depth for _, depth in plunges), float(ground.line[:, 1].max())
    count = max(1, math.ceil((high - low) / (LAYER_SHARE * blade.width_mm)))
    levels = np.linspace(high, low, count + 1)[1:]
    line = Envelope(ground.line).with_levels(levels).points
    drawn, toward_chuck = [], True
    for level in levels:
        inside = line[line[:, 1] <= level + 1e-6, 0]
        ends = (float(inside.max()), float(inside.min()))
        start, end = ends if toward_chuck else ends[::-1]
        if not path.motions or abs(path.nose[0] - start) > 1e-6:
            _over(path, ground, start)
            path.rapid(r=min(begin, ground.safe))
        first = len(path.motions)
        path.feed(feed, z=start, r=float(level))
        path.feed(feed, r=float(level) + TURN_LIFT_MM)
        path.feed(feed, z=end)
        drawn.append(Pass(tuple(m.segment for m in path.motions[first:]), blade.width_mm))
        toward_chuck = not toward_chuck
    path.rapid(r=ground.safe)
    return drawn


def _over(path: Path, ground: _Ground, z: float) -> None:
    """Above a place, ready to go down."""
    if not path.motions:
        path.come(z, ground.safe)
        return
    path.rapid(r=ground.safe)
    path.rapid(z=z)


def _pecks(begin: float, depth: float, step: float) -> list[float]:
    """Bottoms of the pecks of one plunge, the last at its depth."""
    step = PECK_SHARE * step
    count = max(1, math.ceil((begin - depth) / step - 1e-6)) if math.isfinite(step) else 1
    return [begin + (depth - begin) * (i + 1) / count for i in range(count)]


def _finish(path: Path, ground: _Ground, feed: float) -> list[Pass]:
    """The front wall down to the middle of the floor, then the back wall down to the same place."""
    line = ground.line
    low = float(line[:, 1].min())
    floor = line[line[:, 1] < low + SAME_MM, 0]
    middle = float((floor.max() + floor.min()) / 2)
    drawn = []
    for way in (_half(line, middle, low), _half(line[::-1], middle, low)):
        _over(path, ground, float(way[0, 0]))
        path.rapid(r=min(float(way[0, 1]) + 0.5, ground.safe))
        first = len(path.motions)
        path.feed(feed, *map(float, way[0]))
        path.along(path.recovered(way, 0.0005), feed)
        drawn.append(Pass(tuple(m.segment for m in path.motions[first:]), 0.1, finishing=True))
        path.feed(feed, r=low + 0.1)
        path.rapid(r=ground.safe)
    return drawn


def _half(line: Points, middle: float, low: float) -> Points:
    """The way from one end of the line down to the middle of the floor."""
    falling = line[0, 0] > line[-1, 0]
    kept = [point for point in line if (point[0] > middle) is falling and abs(point[0] - middle) > 1e-9]
    way = np.vstack([*kept, [middle, low]]) if kept else np.array([[middle, line[0, 1]], [middle, low]])
    same = [True, *(bool(np.abs(a - b).max() > 1e-9) for a, b in pairwise(way))]
    return np.asarray(way[same])


def _coverage(ground: _Ground) -> Region:
    """What the blade leaves clean: all it passes over in the groove."""
    z0, _, z1, _ = ground.dip.bounds
    wider = union([ground.dip, box(z0, float(ground.line[:, 1].max()), z1, ground.safe)])
    clean = ground.frame.region(covered(wider, ground.shape))
    return clean.intersection(box(-FAR_MM, 0, FAR_MM, FAR_MM))
