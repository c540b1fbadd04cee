"""Which tools go into machine and work at all, each with the insert that suits the cut best."""

import math
from collections.abc import Collection, Iterable

import shapely

from toreuma.core.advise.candidate import Rejected
from toreuma.core.advise.wishes import Wish
from toreuma.core.cutting.bars import bar_limit
from toreuma.core.geometry.bore_steps import step_at
from toreuma.core.geometry.elements import Arc, Segment
from toreuma.core.geometry.region import box, without_film
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Carrier, Insert, Job, RoughOd, TurningTool
from toreuma.core.model.catalogue import Catalogue, InsertCarrier, Seat
from toreuma.core.model.tool import BoringTool, Drill
from toreuma.core.plan.hold.standing import compliance
from toreuma.core.reach.tool_reach import Surface, surface_metal
from toreuma.core.scene import Scene, once_a_scene
from toreuma.core.spoken import q, said

__all__ = [
    "COSTLY",
    "bar_reach_mm",
    "least_bore_mm",
    "looseness_um",
    "most_nose_mm",
    "rough_nose_mm",
    "served_bore_z",
    "tools_for",
]


AHEAD_MM, AHEAD_OF_NOSE_MM, FAR_MM = 1e-6, 0.05, 1e4
PAST_BORE_MM = 3.0

CLAMP_DIAMETERS = 2.5

LIFT_OFF_MM = 0.5
"""Room a bar needs besides its own size: clearance to the far wall, and to lift off."""

FINISH_DEPTH_MM = 0.5

FACED_ROOM_MM, LEAST_EDGED_MM = 0.5, 6.0
"""Room a bar needs to the wall behind it when its nose has faced a step; no bar breaks edges of narrower places."""
SERVED_MM, FILM_MM = 0.01, 0.01
"""Places along Z that count as one; thinner metal asks for no bar."""

LEAST_DEPTH_MM, MOST_DEPTH_MM = 0.8, 2.5
"""Depths of cut a chip former for roughing is chosen for."""

ROUGH_NOSES = ((16.0, 0.4), (160.0, 0.8), (math.inf, 1.2))
"""Usual noses for roughing, by the largest diameter of the blank, mm."""

MOST_FINISH_NOSE_MM = 0.8

NOSE_OF_ALLOWANCE = 1.5
"""A finishing allowance of two thirds of the nose radius or more keeps the nose cutting."""

LOOSE_UM, LOOSE_NOSE_MM = 10.0, 0.4
"""Where the piece gives way by more than this under 100 N, a smaller nose pushes less."""


_Choice = tuple[TurningTool | BoringTool, tuple[str, ...], bool]


def tools_for(
    job: Job, scene: Scene, wish: Wish, store: Catalogue, nose_mm: float, rack: Collection[str]
) -> tuple[list[_Choice], list[Rejected]]:
    """What sits in the turret already, then the carriers that machine and bore take, each with its most suitable
    insert; and those that do not go in."""
    inside = wish.surface is not None and wish.surface.kind == "bore"
    kind = BoringTool if inside else TurningTool
    found: list[_Choice] = [
        (tool, (tool.name or tool.id,), True)
        for tool in job.tools
        if isinstance(tool, kind) and tool.insert.chip_window and not _does_not_fit(job, scene, tool, wish)
    ]
    names, rejected = {tool.name for tool, _, _ in found}, []
    stations = job.machine.carriers[0]
    seats: dict[Seat, tuple[Insert | None, Insert | None]] = {}
    fresh: list[_Choice] = []
    for carrier in store.carriers:
        if (carrier.bar is not None) is not inside:
            continue
        if carrier.code not in rack and not _suits(carrier, stations):
            continue
        if carrier.seat not in seats:
            fitting = [
                insert
                for insert in store.inserts
                if carrier.seat.takes(insert) and (insert.code in rack or _usual(insert, job.stock.material.group))
            ]
            held = [insert for insert in fitting if insert.code in rack]
            best = _best_insert(job, scene, wish, held, nose_mm) or _best_insert(job, scene, wish, fitting, nose_mm)
            seats[carrier.seat] = best, next(iter(fitting), None)
        insert, any_insert = seats[carrier.seat]
        if any_insert is None:
            continue
        tool = carrier.with_insert(insert or any_insert, "T0")
        if why := _does_not_fit(job, scene, tool, wish):
            rejected.append(Rejected(carrier.code, why))
        elif insert is not None and tool.name not in names:
            fresh.append((tool, (insert.code, carrier.code), False))
    if inside:
        rejected.sort(key=lambda one: _far_off(one, store, least_bore_mm(scene)))
    kept = _bars(fresh, rack, _floor_r(job, scene, wish)) if inside else _shanks(fresh, rack, stations.shank_mm)
    return [*found, *kept], rejected


def _far_off(one: Rejected, store: Catalogue, bore_mm: float) -> tuple[bool, float, bool]:
    """Bars that go into the bore first, the stoutest and stiffest before the others; then the slimmest that do not."""
    bar = next((carrier.bar for carrier in store.carriers if carrier.code == one.title), None)
    if bar is None:
        return True, 0.0, True
    too_wide = bar.least_bore_mm > bore_mm
    return too_wide, bar.least_bore_mm if too_wide else -bar_limit(bar) * bar.diameter_mm, bar.back


COSTLY = ("cermet", "ceramic", "CBN", "PCD")
"""Tool materials that are proposed where they are in the drawer, and for hardened steel."""


def _usual(insert: Insert, group: str) -> bool:
    return insert.material not in COSTLY or group == "H"


def _suits(carrier: InsertCarrier, stations: Carrier) -> bool:
    """Metric shanks and bars go into metric stations, those of the inch into those of the inch."""
    if carrier.bar is not None:
        return _same_system(carrier.bar.diameter_mm, stations.bar_mm)
    return carrier.holder is None or _same_system(carrier.holder.shank_width_mm, stations.shank_mm)


def _same_system(one_mm: float, other_mm: float) -> bool:
    """Both are whole millimetres, or neither is."""
    return (abs(one_mm - round(one_mm)) < WHOLE_MM) is (abs(other_mm - round(other_mm)) < WHOLE_MM)


WHOLE_MM = 0.01


SLIM, SIZES_OF_SLIM = ("V", "D", "R"), 3
"""Shapes that copy: how wide the shank is may decide what they reach, and so many sizes of it are looked at."""


def _shanks(choices: list[_Choice], rack: Collection[str], shank_mm: float) -> list[_Choice]:
    """Of holders that differ in little but their shank those that suit the stations best, and what is in the drawer."""
    sizes: dict[tuple[object, ...], set[float]] = {}
    off = [abs(_shank_mm(tool) - shank_mm) for tool, _, _ in choices]
    alike = [_style(tool) for tool, _, _ in choices]
    for away, style in zip(off, alike, strict=True):
        sizes.setdefault(style, set()).add(round(away, 3))
    best = {style: sorted(each)[: SIZES_OF_SLIM if style[0] in SLIM else 1][-1] for style, each in sizes.items()}
    return [
        choice
        for choice, away, style in zip(choices, off, alike, strict=True)
        if away <= best[style] + 1e-3 or all(code in rack for code in choice[1])
    ]


def _style(tool: TurningTool | BoringTool) -> tuple[object, ...]:
    carrier = tool.bar if isinstance(tool, BoringTool) else tool.holder
    insert = tool.insert
    return insert.shape, insert.clearance_deg > 0, carrier.entering_angle_deg, tool.hand


def _shank_mm(tool: TurningTool | BoringTool) -> float:
    return tool.holder.shank_width_mm if isinstance(tool, TurningTool) else tool.bar.diameter_mm


FACING_ROOM_MM = 0.8
"""Between a bar and the far wall, while its tip is on the axis."""

STOUTEST = 2
"""So many diameters of bars of one style are looked at closely, the stoutest that go in."""

PLAIN_FIRST = ("steel", "tungsten alloy", "carbide")


def _floor_r(job: Job, scene: Scene, wish: Wish) -> float:
    """Radius of the room above the floor of a blind bore, which is faced to the axis, mm; without end where there is
    none."""
    bore, void = scene.shape.bore, scene.shape.void
    if bore is None or void is None or float(void.bounds[0]) <= scene.profile.back_z + 1e-6:
        return math.inf
    deep = float(void.bounds[0])
    floor = max((r for s in bore.segments for z, r in (s.start, s.end) if z < deep + SERVED_MM), default=math.inf)
    return min(floor, _hole_mm(job, scene, wish, least_bore_mm(scene)) / 2)


def _bars(choices: list[_Choice], rack: Collection[str], floor_r: float) -> list[_Choice]:
    """Of bars of one style the stoutest that go in, and on a floor get their edge to the axis, of the plainest material
    that does; and what is in the drawer."""
    kept: dict[tuple[object, ...], dict[float, _Choice]] = {}
    for choice in choices:
        tool = choice[0]
        assert isinstance(tool, BoringTool)
        sizes = kept.setdefault((*_style(tool), tool.bar.back, tool.insert.ic_mm), {})
        other = sizes.get(tool.bar.diameter_mm)
        if other is None or _plain(tool) < _plain(other[0]):
            sizes[tool.bar.diameter_mm] = choice
    facing = [
        one for sizes in kept.values() for one in sizes.values() if _behind_axis_mm(one[0]) < floor_r - FACING_ROOM_MM
    ]
    chosen: set[int] = set()
    for sizes in kept.values():
        able = [d for d in sizes if not facing or _behind_axis_mm(sizes[d][0]) < floor_r - FACING_ROOM_MM]
        chosen |= {id(sizes[d]) for d in sorted(able, reverse=True)[:STOUTEST]}
    return [one for one in choices if id(one) in chosen or all(code in rack for code in one[1])]


def _behind_axis_mm(tool: TurningTool | BoringTool) -> float:
    """How far a bar stands beyond the axis while its tip is on it."""
    assert isinstance(tool, BoringTool)
    return tool.bar.functional_width_mm + tool.bar.diameter_mm / 2


def _plain(tool: TurningTool | BoringTool) -> tuple[int, bool]:
    assert isinstance(tool, BoringTool)
    return PLAIN_FIRST.index(tool.bar.material), tool.bar.damped


def _does_not_fit(job: Job, scene: Scene, tool: TurningTool | BoringTool, wish: Wish) -> str:
    takes = job.machine.carriers[0]
    if isinstance(tool, TurningTool):
        ahead = -float(shape_of(tool).core[:, 0].min()) if wish.use == "face" else 0.0
        if ahead > AHEAD_MM:
            return said(
                "its cutting edge stands {} ahead of its nose: it would cut into the face", q(ahead, "mm", ".1f")
            )
        if wish.use == "face" and _holder_ahead(tool, scene):
            return "its holder stands ahead of its nose: it would meet the face before the nose is at the middle"
        height = tool.holder.shank_height_mm or tool.holder.shank_width_mm
        if height > takes.shank_mm + 0.5:
            return said(
                "its shank is {} high, the stations take {}", q(height, "mm", "g"), q(takes.shank_mm, "mm", "g")
            )
        small = 2 * height < takes.shank_mm
        return (
            said("a {} shank is lost in stations of {}", q(height, "mm", "g"), q(takes.shank_mm, "mm", "g"))
            if small
            else ""
        )
    bar = tool.bar
    if tool.hand == "left" and not bar.back:
        return "a left-hand bar leads out of the bore"
    if bar.diameter_mm > takes.bar_mm:
        return said("the bar is Ø {}, the stations take {}", q(bar.diameter_mm, "mm", "g"), q(takes.bar_mm, "mm", "g"))
    least, depth = least_bore_mm(scene), bar_reach_mm(scene)
    if bar.least_bore_mm > least:
        return said(
            "it needs a bore of {}, the smallest here is {}", q(bar.least_bore_mm, "mm", "g"), q(least, "mm", ".4g")
        )
    hole, needed = _hole_mm(job, scene, wish, least), bar.functional_width_mm + bar.diameter_mm / 2 + LIFT_OFF_MM
    if needed > hole:
        return said(
            "it needs a hole of {} to lift off in, there will be one of {}",
            q(needed, "mm", ".4g"),
            q(hole, "mm", ".4g"),
        )
    across = bar.functional_width_mm + bar.diameter_mm / 2
    faced = _faced_to(scene)
    if faced is not None and across - faced[1] > faced[0] - FACED_ROOM_MM:
        return said("it meets the wall before its nose has faced the step down to Ø {}", q(2 * faced[1], "mm", "g"))
    if faced is not None and faced[2] and wish.use == "finish" and 2 * faced[1] >= LEAST_EDGED_MM:
        hole = min(hole, 2 * faced[1])  # its nose breaks the edge of the narrower place
    if hole < bar.least_cut_mm:
        return said(
            "its flank asks for a hole of {}, there will be one of {}",
            q(bar.least_cut_mm, "mm", ".4g"),
            q(hole, "mm", ".4g"),
        )
    if depth / bar.diameter_mm > bar_limit(bar):
        return f"L/D {depth / bar.diameter_mm:.1f}, {bar.material} goes to {bar_limit(bar):g}"
    if bar.functional_length_mm < depth + CLAMP_DIAMETERS * bar.diameter_mm:
        return said(
            "{} long: {} are needed in front of the clamp",
            q(bar.functional_length_mm, "mm", "g"),
            q(depth, "mm", ".0f"),
        )
    return ""


def _faced_to(scene: Scene) -> tuple[float, float, bool] | None:
    """Radius of the bore in front of the step on which the metal ends, the one the step goes down to with what breaks
    its edge, and whether anything does; None for a floor, whose middle a drill without a point clears."""
    bore = scene.shape.bore
    at = step_at(bore.segments[1:], served_bore_z(scene)) if bore is not None else None
    if bore is None or at is None:
        return None
    whole = range(1, len(bore.segments))
    number = next(
        n for n in whole if all(abs(z - at) < 1e-6 for z, _ in (bore.segments[n].start, bore.segments[n].end))
    )
    step = bore.segments[number]
    edge = bore.segments[number + 1] if number + 1 < len(bore.segments) and bore.corners[number + 1] else step
    return (step.start[1], edge.end[1], edge is not step) if step.end[1] > SERVED_MM else None


def _holder_ahead(tool: TurningTool, scene: Scene) -> bool:
    """What carries the insert lies in front of the nose along Z, within the face."""
    shape = shape_of(tool)
    front = box(-FAR_MM, -FAR_MM, -shape.nose_radius - AHEAD_OF_NOSE_MM, scene.stock_r)
    return any(shapely.MultiPoint(piece).convex_hull.intersects(front) for piece in shape.bodies)


def _hole_mm(job: Job, scene: Scene, wish: Wish, least: float) -> float:
    """Diameter of the hole a bar finds: of the blank, or of the drill that is there; finishing finds a blind one
    roughed, of a through one the hole behind the part stays as it was drilled."""
    low = served_bore_z(scene)
    step = step_at(scene.shape.bore.segments[1:], low) if scene.shape.bore is not None else None
    way = shapely.clip_by_rect(scene.stock, (low if step is None else step) + SERVED_MM, 0, FAR_MM, FAR_MM)
    there = 0.0 if way.is_empty else 2 * float(way.bounds[1])
    if there <= 0:
        drills = [t.d_mm for t in job.tools if isinstance(t, Drill) and t.form not in ("spot", "centre", "step")]
        there = max((d for d in drills if d < least), default=least)
    void = scene.shape.void
    through = void is not None and float(void.bounds[0]) <= scene.profile.back_z + 1e-6
    behind = through and float(scene.stock.bounds[0]) < scene.profile.back_z - 1e-6
    return max(there, least - 2 * FINISH_DEPTH_MM) if wish.use == "finish" and not behind else there


@once_a_scene
def bar_reach_mm(scene: Scene) -> float:
    """How far a bar must stand out for the bore, from the front of the blank."""
    return 0.0 if scene.shape.void is None else scene.stock_front_z - served_bore_z(scene) + PAST_BORE_MM


@once_a_scene
def least_bore_mm(scene: Scene) -> float:
    """Diameter of the narrowest place of the bore down to where there is metal to cut, mm: behind a step that ends
    there no bar has to go."""
    bore = scene.shape.bore
    if bore is None:
        return 0.0
    low = served_bore_z(scene)
    places = [point for s in bore.segments[1:] for point in (s.start, s.end) if point[1] > 1e-6]
    step = step_at(bore.segments[1:], low)
    in_front = [r for s in bore.segments[1:] for r in _radii_before(s, (low if step is None else step) + SERVED_MM)]
    return 2 * min(in_front, default=min(r for _, r in places))


def _radii_before(segment: Segment, low: float) -> list[float]:
    """Radii at the ends of as much of a segment as lies in front of a place."""
    ends = sorted((segment.start, segment.end))
    (z0, r0), (z1, r1) = ends
    if z1 <= low:
        return []
    if z0 < low:
        r0 = r0 + (r1 - r0) * (low - z0) / (z1 - z0)
    return [r for r in (r0, r1) if r > 1e-6]


@once_a_scene
def served_bore_z(scene: Scene) -> float:
    """How deep there is metal in the bore, along Z; its floor or its far end where there is none at all."""
    void = scene.shape.void
    if void is None:
        return 0.0
    metal = without_film(surface_metal(scene, Surface("bore")), FILM_MM)
    return float(void.bounds[0] if metal.is_empty else metal.bounds[0])


def _best_insert(job: Job, scene: Scene, wish: Wish, inserts: Iterable[Insert], nose_mm: float) -> Insert | None:
    """The insert for the material and the kind of cut, with the largest nose that the corners allow."""
    group = job.stock.material.group
    known = {row.tool_material for row in job.stock.material.speeds}
    fit = [one for one in inserts if one.chip_window and _grade_fits(one, group) and one.material in known]
    corner = _smallest_corner(scene, wish.surface)
    if wish.use == "finish":
        fit = [i for i in fit if min(point[1] for point in i.chip_window) <= FINISH_DEPTH_MM]
        fit = [i for i in fit if i.shape == "R" or i.nose_radius_mm <= corner + 1e-6]
        return max(
            fit, key=lambda i: (_suits_hard(i, group), -_mid_depth(i), -abs(i.nose_radius_mm - nose_mm)), default=None
        )
    wanted, nose = _wanted_depth_mm(scene, wish.surface), rough_nose_mm(scene)
    return max(
        fit,
        key=lambda i: (
            _suits_hard(i, group),
            -abs(min(_mid_depth(i), MOST_DEPTH_MM) - wanted),
            -abs(i.nose_radius_mm - nose),
        ),
        default=None,
    )


def _wanted_depth_mm(scene: Scene, surface: Surface | None) -> float:
    """A depth of cut that suits the metal there is: its mean thickness, within what is usual."""
    if surface is None:
        return MOST_DEPTH_MM
    metal = surface_metal(scene, surface)
    if metal.is_empty:
        return MOST_DEPTH_MM
    z0, r0, z1, r1 = metal.bounds
    along = (r1 - r0) if surface.kind == "front" else (z1 - z0)
    return float(min(max(metal.area / max(along, 1e-6), LEAST_DEPTH_MM), MOST_DEPTH_MM))


def rough_nose_mm(scene: Scene) -> float:
    """The nose that is usual for roughing pieces of this size, mm."""
    d = 2 * scene.stock_r
    return next(nose for most, nose in ROUGH_NOSES if d <= most)


def _suits_hard(insert: Insert, group: str) -> int:
    """CBN first for hardened steel, then ceramic."""
    return {"CBN": 2, "ceramic": 1}.get(insert.material, 0) if group == "H" else 0


def most_nose_mm(job: Job, scene: Scene) -> float:
    """The nose wanted for finishing: as large as the allowance takes (2/3 of the nose or more is left to cut), small
    where the piece gives way."""
    left = [op.leave_radial_mm for op in job.operations if isinstance(op, RoughOd) and op.leave_radial_mm > 0]
    by_depth = NOSE_OF_ALLOWANCE * min(left, default=FINISH_DEPTH_MM)
    give = looseness_um(job, scene)
    return min(by_depth, LOOSE_NOSE_MM if give is not None and give > LOOSE_UM else MOST_FINISH_NOSE_MM)


def looseness_um(job: Job, scene: Scene) -> float | None:
    """How far the free end or the middle of the blank gives way under 100 N, um; None where that is not known."""
    piece = compliance(job, scene, scene.stock)
    if piece is None:
        return None
    return piece.worst[1] * 100.0 * 1000.0


def _mid_depth(insert: Insert) -> float:
    depths = [point[1] for point in insert.chip_window]
    return (min(depths) + max(depths)) / 2


def _grade_fits(insert: Insert, group: str) -> bool:
    return not insert.grade or any(word.startswith(group) for word in insert.grade.split())


def _smallest_corner(scene: Scene, surface: Surface | None) -> float:
    """Smallest hollow radius of the surface, mm; sharp inner corners ask for nothing."""
    chain = scene.shape.bore if surface is not None and surface.kind == "bore" else scene.profile
    if chain is None:
        return 1e9
    inside = surface is not None and surface.kind == "bore"
    hollow = [s.radius for s in chain.segments if isinstance(s, Arc) and _is_hollow(s, inside)]
    return min(hollow, default=1e9)


def _is_hollow(arc: Arc, inside: bool) -> bool:
    """The metal lies outside the arc: its centre is in the air."""
    (z0, r0), (z1, r1), centre = arc.start, arc.end, arc.centre
    middle = ((z0 + z1) / 2, (r0 + r1) / 2)
    above = centre[1] > middle[1] if abs(z1 - z0) > 1e-9 else centre[0] > middle[0]
    return above is not inside
