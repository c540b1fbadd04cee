"""What an operation gives the choice of its numbers to go by: material, tool, hold, the piece as it will be."""

import math
from dataclasses import replace

import numpy as np

from toreuma.core.cutting.beam import Compliance, compliance_of
from toreuma.core.cutting.corner import usable_depth_mm
from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.cutting.figures import Figure, Reasons
from toreuma.core.cutting.interruption import hits_per_s, polygon_share
from toreuma.core.cutting.life import LEAST_LIFE_MIN
from toreuma.core.cutting.situation import Bend, Cut, Situation, Use
from toreuma.core.cutting.window import ChipWindow
from toreuma.core.geometry.region import Region
from toreuma.core.model import Blade, Insert, Machine, Pins
from toreuma.core.model.conditions import Conditions
from toreuma.core.model.material import LIFE_MIN
from toreuma.core.model.part import turned_size
from toreuma.core.model.steps import Steps
from toreuma.core.model.tool import PullTool
from toreuma.core.motion import Spindle
from toreuma.core.plan.ground.given import Given
from toreuma.core.plan.ground.result import OperationFault
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.hold.standing import gripped, held_piece, speed_limits
from toreuma.core.plan.numbers.derates import REACH, counted
from toreuma.core.propose.proposal import Proposal, propose
from toreuma.core.propose.search import Costs, Fixed, MetalStep
from toreuma.core.spoken import q, said

__all__ = [
    "ALLOWANCE_SHARE",
    "BAND_SHARE",
    "FREE_BAND_MM",
    "bend_of",
    "blade_situation",
    "insert_situation",
    "interruption",
    "proposed",
    "pull_situation",
    "rung_of_feed",
    "rung_of_speed",
    "size_bend",
    "spindle_of",
]

ALLOWANCE_SHARE = 0.5
"""Roughing may bend the piece by this share of what it leaves for finishing."""

BAND_SHARE = 0.5
"""Finishing may spend this share of a diameter's limits on bending."""

PLACES = 5
"""Looked at along a cylinder."""

EDGE_SHARE = 0.8
"""A long edge pulled at a low angle is used up to this share."""

LEAST_CUT_MM = 0.05
"""A largest depth below this is no cut but rubbing, pass after pass."""

FREE_BAND_MM = 0.2
"""Limits taken for a diameter without any, mm on diameter: the middle of general tolerances."""


def insert_situation(
    work: Work, insert: Insert, use: Use, entering_deg: float, d_mm: float, mean_d_mm: float
) -> Situation:
    """The situation of a turning cut. Diameters: the largest and the middle one cut, mm."""
    if not insert.chip_window:
        raise OperationFault(
            "window.missing", "the insert has no chip window", "give the insert one or pin feed and depth"
        )
    nose = insert.ic_mm / 2 if insert.shape == "R" else insert.nose_radius_mm
    base = _base(work, insert.material, use, d_mm, mean_d_mm)
    return replace(
        base,
        nose_mm=nose,
        entering_deg=entering_deg,
        window=ChipWindow(tuple(insert.chip_window), _reach(work.given.conditions)),
        usable_depth_mm=usable_depth_mm(insert.shape, work.shape.edge_length, entering_deg),
    )


def blade_situation(work: Work, blade: Blade, d_mm: float) -> Situation:
    """The situation of a blade that plunges: its depth of cut is its width."""
    low, high = blade.feed_range_mm_rev
    base = _base(work, blade.material, "part_off", d_mm, d_mm / 2)
    window = ChipWindow(((low, 0.0), (high, 0.0)), _reach(work.given.conditions), depth_matters=False)
    return replace(base, window=window)


def pull_situation(work: Work, tool: PullTool, d_mm: float, mean_d_mm: float) -> Situation:
    """The situation of a long edge pulled at a low angle: it takes the feeds of its blade, and depths up to what its
    edge reaches."""
    blade = tool.blade
    low, high = blade.feed_range_mm_rev
    deepest = EDGE_SHARE * blade.width_mm * math.tan(math.radians(tool.pull_deg))
    corners = ((low, LEAST_CUT_MM), (high, LEAST_CUT_MM), (high, deepest), (low, deepest))
    return replace(
        _base(work, blade.material, "rough", d_mm, mean_d_mm),
        nose_mm=blade.corner_radius_mm,
        entering_deg=tool.pull_deg,
        window=ChipWindow(corners, _reach(work.given.conditions)),
        usable_depth_mm=deepest,
        thinning=math.sin(math.radians(tool.pull_deg)),
    )


def _base(work: Work, tool_material: str, use: Use, d_mm: float, mean_d_mm: float) -> Situation:
    given = work.given
    factors = counted(given, use == "rough", d_mm, work.interruption)
    harm = math.prod(one.speed for one in factors if one.effect == "harm")
    wish = math.prod(one.speed for one in factors if one.effect == "wish")
    material = given.stock.material
    situation = Situation(
        material=material,
        machine=given.machine,
        tool_material=tool_material,
        use=use,
        d_mm=d_mm,
        mean_d_mm=max(mean_d_mm, 1e-3),
        nose_mm=0.0,
        entering_deg=90.0,
        feed_share=math.prod(one.feed for one in factors),
        harm=harm,
        wish=wish,
        speed_limits=speed_limits(given),
        gripped=gripped(given, work.scene, d_mm),
        clamp_pin_rpm=_turns(given.steps, work.operation.pins.clamp_rpm),
        steps=given.steps,
        factors=tuple((one.name, one.speed) for one in factors if one.speed != 1),
    )
    if situation.row is None and work.operation.pins.vc_m_min is None:
        known = ", ".join(row.tool_material for row in material.speeds) or "none"
        raise OperationFault(
            "speed.unknown",
            f"no starting speed for {tool_material} in {material.name} (known: {known})",
            "pin a surface speed or add one to the material",
        )
    exponent = situation.row.exponent if situation.row else 0.25
    wanted = LIFE_MIN * wish ** (-1 / exponent) if given.conditions.aim == "output" else LEAST_LIFE_MIN
    return replace(situation, least_life_min=max(wanted, LEAST_LIFE_MIN))


def _reach(conditions: Conditions) -> float:
    return REACH[conditions.stance]


def bend_of(work: Work, after: Region, nose_from: float, nose_to: float, leave_mm: float) -> Bend | None:
    """Where the piece gives way most in roughing, as it is when the cut is through."""
    found = _compliance(work, after)
    if found is None:
        return None
    inside = [(float(c), float(z)) for z, c in zip(found.z, found.mm_per_n, strict=True) if nose_to <= z <= nose_from]
    if not inside:
        return None
    worst, z = max(inside)
    allowed = max(ALLOWANCE_SHARE * leave_mm, 0.02)
    return (
        Bend(
            worst, allowed, said("{} of what is left, at Z {}", f"{ALLOWANCE_SHARE:.0%}", q(z, "mm", ".0f", bare=True))
        )
        if worst > 0
        else None
    )


def size_bend(work: Work, after: Region, nose_to: float) -> Bend | None:
    """The diameter whose limits suffer most from bending in finishing: by how much it changes along it. What is the
    same all along is a constant that the first article takes out."""
    found = _compliance(work, after, finishing=True)
    if found is None:
        return None
    worst: Bend | None = None
    profile = work.scene.profile
    for index, element in enumerate(work.given.part.outside):
        segments = [profile.segments[i] for i in profile.segments_of(index) if not profile.corners[i]]
        if not segments or element.d_mm <= 0 or segments[-1].end[0] < nose_to:
            continue
        ends = [end for segment in segments for end in (segment.start[0], segment.end[0])]
        along = [float(found.at(z)) for z in np.linspace(min(ends), max(ends), PLACES)]
        size = turned_size(element, "outside")
        band = FREE_BAND_MM if size is None else (size.upper_um - size.lower_um) / 1000
        allowed = max(BAND_SHARE * band / 2, 5e-4)
        label = said("{} of the limits of Ø {}", f"{BAND_SHARE:.0%}", q(element.d_mm, "mm", "g"))
        one = Bend(
            max(along) - min(along),
            allowed,
            label if size is not None else said("usual for Ø {}", q(element.d_mm, "mm", "g")),
        )
        if one.mm_per_n > 0 and (worst is None or one.mm_per_n / one.allowed_mm > worst.mm_per_n / worst.allowed_mm):
            worst = one
    return worst


def _compliance(work: Work, after: Region, finishing: bool = False) -> Compliance | None:
    given, scene = work.given, work.scene
    after = held_piece(after, scene.jaw_face_z)
    e = given.stock.material.e_n_mm2
    if e is None or after.is_empty or not after.bounds[0] < scene.jaw_face_z + 1.0 < after.bounds[2]:
        return None  # stiffness unknown, or nothing that reaches into the hold
    return work.memo.of(compliance_of, after, scene.supports_followed if finishing else scene.supports, e)


def proposed(work: Work, situation: Situation, steps: tuple[MetalStep, ...], depth_mm: float | None = None) -> Proposal:
    """The numbers of the operation. ``depth_mm`` is given where the stock decides it."""
    pins, conditions = work.operation.pins, work.given.conditions
    fixed = _fixed(pins, work.given, depth_mm)
    costs = Costs(conditions.machine_per_h, conditions.edge_cost, conditions.edge_change_min)
    rounded = tuple((round(height, 3), float(max(round(length), 1))) for height, length in steps)
    given = depth_mm is not None
    unpinned = replace(situation, clamp_pin_rpm=None), Fixed(ap_mm=depth_mm)

    def numbers(situation: Situation, fixed: Fixed, free: Cut | None) -> Proposal:
        return work.memo.of(propose, situation, rounded, fixed, conditions.aim, costs, given, free)

    if (situation, fixed) == unpinned:
        return _worth_cutting(numbers(situation, fixed, None), steps, fixed)
    return _worth_cutting(numbers(situation, fixed, numbers(*unpinned, None).cut), steps, fixed)


def _worth_cutting(proposal: Proposal, steps: tuple[MetalStep, ...], fixed: Fixed) -> Proposal:
    """A proposal, unless what the limits leave is no cut. Raises `OperationFault`."""
    deepest = max((height for height, _ in steps), default=0.0)
    if fixed.ap_mm is not None or proposal.cut.ap_mm >= LEAST_CUT_MM or deepest <= 4 * LEAST_CUT_MM:
        return proposal
    ends = next(
        (use for use in proposal.uses if not use.kind.floor and not use.kind.table and "ap" in use.kind.on), None
    )
    by = f"{ends.kind.name} ({ends.label})" if ends is not None else "the limits"
    raise OperationFault(
        "cut.none",
        said("{} leaves {} of depth, which is no cut", by, q(proposal.cut.ap_mm, "mm", ".3f")),
        "grip longer or harder, another tool, or pin a depth to see what it would take",
    )


def _fixed(pins: Pins, given: Given, depth_mm: float | None) -> Fixed:
    vc = pins.vc_m_min
    if vc is not None and given.machine.surface_speed:
        vc = given.steps.surface(vc, typed=True)
    return Fixed(depth_mm if depth_mm is not None else pins.ap_mm, pins.feed_mm_rev, vc)


def _turns(steps: Steps, rpm: float | None) -> float | None:
    return None if rpm is None else steps.turns(rpm, typed=True)


def interruption(work: Work, proposal: Proposal) -> Reasons:
    """Hits a second on a bar with corners, and the share of a turn that is metal half way to them."""
    stock = work.given.stock
    if stock.kind != "polygon":
        return {}
    rpm, corner = proposal.figures.rpm or 0.0, stock.largest_d_mm
    middle = (corner + stock.across_mm) / 4
    share = polygon_share(stock.sides, stock.across_mm, middle)
    hits = Evidence(
        "hits a second",
        "",
        hits_per_s(stock.sides, rpm),
        "ratio",
        formula="sides · n / 60, until the corners are off",
        inputs=(
            Input("metal half way to the corners", "", 100 * share, "%"),
            Input("across corners", "d", corner, "mm"),
            Input("round from", "d", stock.across_mm, "mm"),
        ),
    )
    return {Figure.HITS: hits}


def spindle_of(work: Work, proposal: Proposal, clamp_rpm: float | None = None) -> Spindle:
    """How the spindle is told to turn: at a surface speed with its clamp, or at the rung the machine has."""
    figures = proposal.figures
    if not work.given.machine.surface_speed:
        return Spindle("fixed", work.given.steps.turns(figures.rpm or 0.0))
    return Spindle("surface", proposal.cut.vc_m_min, clamp_rpm or figures.clamp_rpm)


def rung_of_speed(machine: Machine, rpm: float) -> float:
    """A spindle speed the machine has: the rung at or below, the lowest where there is none, or the speed itself."""
    rungs = machine.speeds_rpm
    return max((rung for rung in rungs if rung <= rpm * (1 + 1e-9)), default=rungs[0]) if rungs else rpm


def rung_of_feed(machine: Machine, feed: float) -> float:
    """A feed the machine has: the rung at or below, or the feed itself."""
    rungs = machine.feeds_mm_rev
    return max((rung for rung in rungs if rung <= feed * (1 + 1e-9)), default=rungs[0]) if rungs else feed
