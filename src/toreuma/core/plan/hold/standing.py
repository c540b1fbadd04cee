"""What the hold allows: grip at speed, the highest safe speed, whip, stick-out, and the findings about them."""

import math
from dataclasses import dataclass, replace

from toreuma.core.cutting import grip
from toreuma.core.cutting.beam import Compliance, compliance_of
from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.ring import ovality_um
from toreuma.core.cutting.situation import Gripped
from toreuma.core.cutting.whip import first_bending_rpm, whip_limit_rpm
from toreuma.core.findings import Finding
from toreuma.core.geometry.region import Region, box, polygons, union
from toreuma.core.model import Chuck, Job, Machine, Tool
from toreuma.core.plan.ground.given import Given
from toreuma.core.plan.hold.checks import hold_findings
from toreuma.core.scene import Scene

__all__ = [
    "HoldNumbers",
    "compliance",
    "gripped",
    "held_piece",
    "hold_numbers",
    "live_limits",
    "needed_grip",
    "speed_limits",
]

FEED_SHARE, PASSIVE_SHARE = 0.5, 0.4
"""Feed and passive force as shares of the cutting force, where only that is known: typical near 90 degrees."""


@dataclass(frozen=True)
class HoldNumbers:
    """``limits`` are the speed limits of machine and hold; numbers that cannot be known are None."""

    force: Evidence
    needed: Evidence
    at_rest: Evidence | None
    safe_speed: Evidence | None
    whip: Evidence | None
    ovality: Evidence | None
    stick_out: Evidence
    limits: tuple[Limit, ...]
    findings: tuple[Finding, ...]

    @property
    def numbers(self) -> tuple[Evidence, ...]:
        """All that is known, in the order people ask."""
        every = (self.stick_out, self.needed, self.at_rest, self.safe_speed, self.force, self.whip, self.ovality)
        return tuple(evidence for evidence in every if evidence is not None)


def speed_limits(given: Given) -> tuple[Limit, ...]:
    """What limits the spindle's speed whatever is cut: machine, chuck plate, bar behind the spindle, centre."""
    whip = _whip(given)
    limits = [Limit("machine", given.machine.max_rpm, "rpm"), Limit("chuck plate", given.hold.max_rpm, "rpm")]
    if whip is not None and whip.number < math.inf:
        limits.append(Limit("bar behind the spindle", math.floor(whip.number), "rpm"))
    if given.centre is not None:
        limits.append(Limit("live centre", given.centre.max_rpm, "rpm"))
    return tuple(limits)


def live_limits(machine: Machine, tool: Tool) -> tuple[Limit, ...]:
    """What limits the speed of a driven tool."""
    live = machine.carrier_of(tool.station).live
    return (Limit("drive of the tool", live.max_rpm, "rpm"),) if live is not None else ()


def gripped(given: Given, scene: Scene, cut_d_mm: float) -> Gripped:
    """The hold as a cut on a diameter sees it; the overhang is that of the foremost cut."""
    overhang = 0.0 if given.centre is not None else given.hold.stick_out_mm
    return Gripped(given.hold, cut_d_mm, 2 * scene.grip_r, overhang)


def hold_numbers(job: Job, scene: Scene, cutting: Evidence) -> HoldNumbers:
    """Numbers and findings of the setup's hold, for the cutting force of its hardest cut."""
    needed = needed_grip(job, scene, cutting)
    at_rest = _at_rest(job)
    safe = _safe_speed(job, needed)
    given = Given.of(job)
    whip = _whip(given)
    limits = list(speed_limits(given))
    if safe is not None and 0 < safe.number < math.inf:
        limits.append(Limit("grip at speed", math.floor(safe.number), "rpm"))
    stick_out = _stick_out(job, scene)
    ovality = _ovality(job, scene)
    findings = tuple(hold_findings(job, scene, needed, at_rest, whip, stick_out, ovality))
    return HoldNumbers(cutting, needed, at_rest, safe, whip, ovality, stick_out, tuple(limits), findings)


def needed_grip(job: Job, scene: Scene, cutting: Evidence) -> Evidence:
    """Grip for a cutting force, with the feed and passive force that go with it."""
    place = gripped(Given.of(job), scene, 2 * scene.stock_r)
    known = {one.symbol: one.number for one in cutting.inputs}
    feed_n = known.get("Ff", FEED_SHARE * cutting.number)
    passive_n = known.get("Fp", PASSIVE_SHARE * cutting.number)
    return grip.required_grip(
        place.hold, cutting.number, feed_n, passive_n, place.cut_d_mm, place.grip_d_mm, place.overhang_mm
    )


def _at_rest(job: Job) -> Evidence | None:
    hold = job.setup.hold
    if hold.force_n is None:
        return None
    rpm = min(hold.max_rpm, job.machine.max_rpm)
    at_top = grip.grip_at_speed_n(hold, rpm) or 0.0
    return Evidence(
        "grip at rest",
        "F0",
        hold.force_n,
        "N",
        formula="typed: the sum of all jaws, measured or from the chuck's sheet",
        inputs=(Input(f"left at {rpm:.0f} rpm", "F", at_top, "N"),),
        source=grip.SOURCE,
    )


def _safe_speed(job: Job, needed: Evidence) -> Evidence | None:
    """Highest speed at which the grip holds the hardest cut; never above the plate."""
    hold = job.setup.hold
    safe = grip.safe_speed_rpm(hold, needed.number)
    if safe is None or hold.force_n is None:
        return None
    limits = [Limit("chuck plate", hold.max_rpm, "rpm"), Limit("grip at speed", safe, "rpm")]
    least = min(limits, key=lambda limit: limit.number)
    inputs = [Input("grip at rest", "F0", hold.force_n, "N"), Input("grip needed", "F req", needed.number, "N")]
    if isinstance(hold, Chuck) and hold.jaw_mass_kg and hold.jaw_centre_r_mm:
        inputs += [
            Input("jaws", "z", float(hold.jaw_count), ""),
            Input("mass of one jaw", "m", hold.jaw_mass_kg, "kg"),
            Input("its centre of mass at radius", "r", hold.jaw_centre_r_mm, "mm"),
        ]
    return Evidence(
        "highest safe speed",
        "n safe",
        least.number,
        "rpm",
        formula="n = 30/π · √((F0 − F req) / Σ m r), at most the plate",
        source=grip.SOURCE,
        inputs=tuple(inputs),
        limits=tuple(replace(limit, bit=limit is least) for limit in limits),
    )


def _whip(given: Given) -> Evidence | None:
    """Half the first bending frequency of the bar that stands free behind the spindle."""
    hold, stock, material = given.hold, given.stock, given.stock.material
    if hold.bar_behind_mm <= 0 or stock.length_mm is not None or stock.kind == "free":
        return None
    if material.e_n_mm2 is None:
        return None
    area = stock.section_mm2()
    r = stock.round_d_mm / 2
    bore = stock.bore_d_mm / 2 if stock.kind == "tube" else 0.0
    i = math.pi / 4 * (r**4 - bore**4)
    first = first_bending_rpm(hold.bar_behind_mm, material.e_n_mm2, i, area, material.density_kg_m3)
    return Evidence(
        "quiet bar up to",
        "n whip",
        whip_limit_rpm(hold.bar_behind_mm, material.e_n_mm2, i, area, material.density_kg_m3),
        "rpm",
        formula="n = ½ · 30/π · 3.516 √(E I/(ρ A L⁴))",
        source="first bending frequency of a cantilever (Timoshenko, Vibration Problems in Engineering)",
        inputs=(
            Input("bar standing free behind the spindle", "L", hold.bar_behind_mm, "mm"),
            Input("it begins to whip at", "n1", first, "rpm"),
        ),
    )


def _stick_out(job: Job, scene: Scene) -> Evidence:
    hold = job.setup.hold
    return Evidence(
        "stick-out over diameter",
        "L/D",
        hold.stick_out_mm / (2 * scene.stock_r),
        "ratio",
        formula="L/D; up to 3 free, 3 to 5 with care, more needs a centre or the second spindle",
        inputs=(Input("stick-out", "L", hold.stick_out_mm, "mm"), Input("diameter", "D", 2 * scene.stock_r, "mm")),
    )


def _ovality(job: Job, scene: Scene) -> Evidence | None:
    """For a blank with a bore in jaws: how far the grip presses it out of round."""
    hold, e = job.setup.hold, job.stock.material.e_n_mm2
    if not isinstance(hold, Chuck) or hold.force_n is None or e is None:
        return None
    held = scene.stock.intersection(box(scene.jaw_face_z - hold.grip_length_mm, 0, scene.jaw_face_z, 1e4))
    if held.is_empty or held.bounds[1] < 1e-6:
        return None
    inner, outer, length = float(held.bounds[1]), float(held.bounds[3]), hold.grip_length_mm
    number = ovality_um(hold.force_n, hold.jaw_count, outer, inner, length, e)
    return Evidence(
        "out of round under the grip",
        "Δr",
        number,
        "um",
        formula="ring under z equal loads: Δr = W R³/(2 E I) · k(z)",
        source="Roark, circular rings; thin ring, bending only: an estimate",
        inputs=(
            Input("grip", "F0", hold.force_n, "N"),
            Input("wall", "t", outer - inner, "mm"),
            Input("gripped length", "l", length, "mm"),
        ),
        measured_on="on radius",
    )


def held_piece(stock: Region, hold_z: float) -> Region:
    """The piece of the stock that the hold carries: what hangs together with the metal behind ``hold_z``."""
    pieces = polygons(stock)
    held = [piece for piece in pieces if piece.bounds[0] < hold_z + 1.0]
    return union(held) if held else stock


def compliance(job: Job, scene: Scene, stock: Region) -> Compliance | None:
    """How the piece gives way along its free length as it is now; None when the material's stiffness is unknown."""
    e = job.stock.material.e_n_mm2
    if e is None or stock.is_empty or stock.bounds[2] <= scene.jaw_face_z + 1.0:
        return None
    return compliance_of(stock, scene.jaw_face_z, e, supported=job.setup.centre is not None)
