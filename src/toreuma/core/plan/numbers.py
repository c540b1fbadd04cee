"""The numbers of an operation, proposed with their reasons or pinned by the person."""

import math
from dataclasses import replace

from toreuma.core.cutting import finish, force
from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.speed import clamp_inputs, lowest, surface_speed_rpm
from toreuma.core.findings import Cure, Finding
from toreuma.core.model import Insert, Job, Operation, Pins
from toreuma.core.plan.derates import counted, life_factor
from toreuma.core.plan.result import OperationFault

__all__ = ["clamp", "finish_feed", "no_beyond", "passes", "power", "rough_depth", "rough_feed", "surface_speed"]

NOSE_SHARE = 0.5
"""Roughing feed at most this share of the nose radius."""

LEAST_DEPTH_MM = 0.02
"""A depth per pass below this is no cut."""

EDGE_SHARE = 2 / 3
"""Depth at most this share of the cutting edge."""


def _pin(evidence: Evidence, pins: Pins, field: str) -> Evidence:
    """The evidence with the person's own number in it, where there is one."""
    wanted = getattr(pins, field)
    if wanted is None:
        return replace(evidence, pin=field)
    return replace(evidence, pin=field, pinned=True, proposed=evidence.number, number=wanted)


def surface_speed(job: Job, tool_material: str, use: str, pins: Pins) -> Evidence:
    """Starting surface speed, m/min, less every derate that counts; ``use`` is rough, finish or part_off."""
    material = job.stock.material
    row = next((row for row in material.speeds if row.tool_material == tool_material), None)
    if row is None and pins.vc_m_min is None:
        known = ", ".join(row.tool_material for row in material.speeds) or "none"
        raise OperationFault(
            "speed.unknown",
            f"no starting speed for {tool_material} in {material.name} (known: {known})",
            "pin a surface speed or add one to the material",
        )
    number = getattr(row, f"{use}_m_min") if row else float(pins.vc_m_min or 0)
    evidence = Evidence(
        "surface speed",
        "vc",
        number,
        "m/min",
        formula="middle of the usual range for material and tool material",
        source=material.source,
        note=f"{material.name}, ISO 513 group {material.group}, {tool_material}, {use.replace('_', ' ')}",
    )
    return _pin(_derated(evidence, job, tool_material), pins, "vc_m_min")


def _derated(evidence: Evidence, job: Job, tool_material: str) -> Evidence:
    """A speed with the factor of every derate that counts, each named."""
    factors = [one for one in counted(job) if one.speed != 1]
    if not factors:
        return evidence
    share = math.prod(one.speed for one in factors)
    longer = life_factor(share, tool_material)
    return replace(
        evidence,
        number=evidence.number * share,
        formula=f"{evidence.formula}, times the factors",
        inputs=(
            Input("table", "vc", evidence.number, "m/min"),
            *(Input(one.name, "×", one.speed, "ratio") for one in factors),
        ),
        note=f"{evidence.note}; an edge lasts {longer:.1f} times as long as at the table's speed (estimate)",
    )


def clamp(vc: float, hold_limits: tuple[Limit, ...], pins: Pins, steady_below_d: float | None = None) -> Evidence:
    """Highest spindle speed, rpm: the lowest of machine, hold and, near a centre, a steady speed."""
    limits = list(hold_limits)
    if steady_below_d:
        limits.append(Limit(f"steady below Ø {steady_below_d:g} mm", surface_speed_rpm(vc, steady_below_d), "rpm"))
    evidence = lowest("speed clamp", "n max", "rpm", limits, formula="lowest of the limits; n = 1000 vc / (π d)")
    evidence = replace(evidence, number=float(math.floor(evidence.number)))
    pinned = _pin(evidence, pins, "clamp_rpm")
    return replace(pinned, inputs=clamp_inputs(vc, pinned.number))


def rough_feed(job: Job, insert: Insert, pins: Pins) -> Evidence:
    """Roughing feed: middle of the chip window, at most half the nose radius; derates do not go below the window."""
    window = _window(insert)
    nose = insert.ic_mm / 2 if insert.shape == "R" else insert.nose_radius_mm
    limits = [
        Limit("middle of the chip window", (window[0] + window[1]) / 2, "mm/rev"),
        Limit("half the nose radius", NOSE_SHARE * nose, "mm/rev"),
    ]
    evidence = lowest(
        "feed",
        "f",
        "mm/rev",
        limits,
        formula="f ≤ 0.5 rε",
        inputs=(
            Input("nose radius", "rε", nose, "mm"),
            Input("window from", "f", window[0], "mm/rev"),
            Input("window to", "f", window[1], "mm/rev"),
        ),
        source="chip window of the insert",
    )
    factors = [one for one in counted(job) if one.feed != 1]
    share = math.prod(one.feed for one in factors)
    most = min(limit.number for limit in limits[1:])
    number = min(max(evidence.number * share, min(window[0], evidence.number)), most)
    inputs = (*evidence.inputs, *(Input(one.name, "×", one.feed, "ratio") for one in factors))
    return _pin(replace(evidence, number=round(number, 3), inputs=inputs), pins, "feed_mm_rev")


def finish_feed(insert: Insert, ra_um: float, pins: Pins) -> Evidence:
    """Finishing feed for a wanted roughness, inside the chip window."""
    nose = insert.ic_mm / 2 if insert.shape == "R" else insert.nose_radius_mm
    window = _window(insert)
    limits = [
        Limit(f"Ra {ra_um:g} µm wanted", finish.feed_for_ra(ra_um, nose), "mm/rev"),
        Limit("end of the chip window", window[1], "mm/rev"),
        Limit("half the nose radius", NOSE_SHARE * nose, "mm/rev"),
    ]
    evidence = lowest(
        "feed",
        "f",
        "mm/rev",
        limits,
        formula="f = √(8 rε · 4 Ra / 1000)",
        source=finish.SOURCE,
        inputs=(Input("nose radius", "rε", nose, "mm"), Input("wanted Ra", "Ra", ra_um, "um")),
    )
    return _pin(replace(evidence, number=math.floor(evidence.number * 1000) / 1000), pins, "feed_mm_rev")


def _window(insert: Insert) -> tuple[float, float, float, float]:
    """Feed and depth range of the chip window: f from, f to, ap from, ap to."""
    if not insert.chip_window:
        raise OperationFault(
            "window.missing", "the insert has no chip window", "give the insert one or pin feed and depth"
        )
    feeds, depths = zip(*insert.chip_window, strict=True)
    return min(feeds), max(feeds), min(depths), max(depths)


def rough_depth(
    insert: Insert, entering_deg: float, edge_mm: float, job: Job, vc: float, feed: float, rpm: float, pins: Pins
) -> Evidence:
    """Largest depth per pass on radius: chip window, edge length, and the power there is at that speed."""
    window = _window(insert)
    available = force.available_power_kw(job.machine, rpm)
    per_mm = force.cutting_power_kw(force.cutting_force_n(job.stock.material, 1.0, feed, entering_deg), vc)
    limits = [
        Limit("middle of the chip window", (window[2] + window[3]) / 2, "mm"),
        Limit("two thirds of the edge", EDGE_SHARE * edge_mm * math.sin(math.radians(entering_deg)), "mm"),
        Limit(f"power at {rpm:.0f} rpm", available / per_mm, "mm"),
    ]
    evidence = lowest(
        "largest depth",
        "ap max",
        "mm",
        limits,
        formula="ap ≤ P η 60000 / (kc f vc)",
        source=force.KIENZLE,
        measured_on="on radius",
        inputs=(
            Input("power at the edge", "P η", available, "kW"),
            Input("feed", "f", feed, "mm/rev"),
            Input("surface speed", "vc", vc, "m/min"),
        ),
    )
    if evidence.number < LEAST_DEPTH_MM and pins.ap_mm is None:
        raise OperationFault(
            "power.none",
            f"the spindle has no power to cut at {rpm:.0f} rpm ({available:.2f} kW at the edge)",
            "pin a lower feed or another surface speed",
        )
    return _pin(evidence, pins, "ap_mm")


def passes(depths: list[float], largest: Evidence) -> dict[str, Evidence]:
    """Count of passes and the deepest one really taken."""
    deepest = max(depths, default=0.0)
    return {
        "passes": Evidence("passes", "i", float(len(depths)), "", formula="even passes not above the largest depth"),
        "ap": Evidence(
            "depth taken",
            "ap",
            deepest,
            "mm",
            measured_on=largest.measured_on,
            formula="each step divided evenly, not above the largest depth",
            limits=(Limit("largest depth", largest.number, "mm", True),),
        ),
    }


def power(
    job: Job, ap: float, feed: float, vc: float, entering_deg: float, clamp_rpm: float, d_mm: float
) -> dict[str, Evidence]:
    """Cutting force and power at the largest diameter, against what the spindle has at that speed."""
    cut = force.cutting_force_n(job.stock.material, ap, feed, entering_deg)
    rpm = min(surface_speed_rpm(vc, d_mm), clamp_rpm, job.machine.max_rpm)
    speed = rpm * math.pi * d_mm / 1000
    available = force.available_power_kw(job.machine, rpm)
    material = job.stock.material
    return {
        "force": Evidence(
            "cutting force",
            "Fc",
            cut,
            "N",
            formula="Fc = kc1.1 h^-mc · ap · f, h = f sin κ",
            source=force.KIENZLE,
            inputs=(
                Input("specific force", "kc1.1", material.kc11_n_mm2, "N/mm2"),
                Input("depth", "ap", ap, "mm"),
                Input("feed", "f", feed, "mm/rev"),
                Input("entering angle", "κ", entering_deg, "deg"),
            ),
        ),
        "power": Evidence(
            "power at the edge",
            "Pc",
            force.cutting_power_kw(cut, speed),
            "kW",
            formula="Pc = Fc vc / 60000",
            source=force.KIENZLE,
            inputs=(Input("cutting force", "Fc", cut, "N"), Input("surface speed", "vc", speed, "m/min")),
            limits=(Limit(f"spindle at {rpm:.0f} rpm", available, "kW", True),),
        ),
    }


def no_beyond(job: Job, operation: Operation, numbers: dict[str, Evidence]) -> list[Finding]:
    """Pinned numbers beyond a limit, and power above what there is: flagged, never changed."""
    found = []
    for evidence in numbers.values():
        for limit in evidence.limits:
            if not evidence.pinned or limit.label.startswith("Ra ") or evidence.number <= limit.number * 1.0001:
                continue
            if evidence.unit != limit.unit:
                continue
            found.append(
                Finding(
                    "warning",
                    f"pin.{evidence.pin}",
                    f"{evidence.name} is pinned at {evidence.number:.4g}, limit {limit.number:.4g} ({limit.label})",
                    "a pinned number is kept as it stands",
                    operation.id,
                    cures=(_unpin(operation.id, evidence.pin),),
                )
            )
            break
    drawn = numbers.get("power")
    if drawn is not None and drawn.limits and drawn.number > drawn.limits[0].number * 1.0001:
        share = drawn.number / drawn.limits[0].number if drawn.limits[0].number > 0 else math.inf
        found.append(
            Finding(
                "error",
                "power.short",
                f"{drawn.number:.2f} kW needed at the edge, {drawn.limits[0].number:.2f} kW there "
                f"({drawn.limits[0].label})",
                "the spindle slows down or stalls in the cut",
                operation.id,
                cures=_ease(job, operation, numbers, 1 / share),
            )
        )
    return found


def _unpin(operation_id: str, field: str) -> Cure:
    def apply(job: Job) -> Job:
        return job.with_operation(operation_id, lambda op: op.changed(pins=op.pins.changed(**{field: None})))

    return Cure("Use the proposed number", apply)


def _ease(job: Job, operation: Operation, numbers: dict[str, Evidence], share: float) -> tuple[Cure, ...]:
    """Cures for too little power: less depth where there is a choice of depth, less feed otherwise.

    Less speed would not help below the motor's base speed, where power falls with it.
    """
    if "ap_max" in numbers:
        depth = math.floor(100 * numbers["ap"].number * share) / 100
        return _pin_cure(operation.id, f"Limit the depth to {depth:g} mm", "ap_mm", depth)
    feed = math.floor(1000 * numbers["f"].number * share ** (1 / (1 - job.stock.material.mc))) / 1000
    return _pin_cure(operation.id, f"Lower the feed to {feed:g} mm/rev", "feed_mm_rev", feed)


def _pin_cure(operation_id: str, label: str, field: str, number: float) -> tuple[Cure, ...]:
    if number <= 0:
        return ()

    def apply(job: Job) -> Job:
        return job.with_operation(operation_id, lambda op: op.changed(pins=op.pins.changed(**{field: number})))

    return (Cure(label, apply),)
