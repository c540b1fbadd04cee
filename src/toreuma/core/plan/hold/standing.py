"""What the hold allows: grip at speed, the highest safe speed, whip, stick-out, and the findings about them."""

import math
from dataclasses import dataclass, replace

from toreuma.core.cutting import grip
from toreuma.core.cutting.beam import Compliance, compliance_of
from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.ring import ovality_um
from toreuma.core.cutting.situation import Gripped
from toreuma.core.cutting.spindle_limits import free_bar, quiet_up_to_rpm, spindle_limits
from toreuma.core.cutting.whip import first_bending_rpm, whip_limit_rpm
from toreuma.core.findings import Finding
from toreuma.core.geometry.region import Region, box, polygons, union
from toreuma.core.model import Chuck, Hold, Job, SteadyRest
from toreuma.core.plan.ground.given import Given
from toreuma.core.plan.hold.checks import Standing, hold_findings
from toreuma.core.plan.hold.hardest import Hardest
from toreuma.core.scene import Scene

__all__ = ["HoldNumbers", "compliance", "gripped", "held_piece", "hold_numbers", "needed_grip_n", "speed_limits"]


@dataclass(frozen=True, kw_only=True)
class HoldNumbers:
    """What a person reads about the hold; ``limits`` are the speed limits of machine and hold.

    Numbers that cannot be known are None.
    """

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
    def reasons(self) -> tuple[Evidence, ...]:
        """All that is known, in the order people ask."""
        every = (self.stick_out, self.needed, self.at_rest, self.safe_speed, self.force, self.whip, self.ovality)
        return tuple(evidence for evidence in every if evidence is not None)


def speed_limits(given: Given) -> tuple[Limit, ...]:
    """What limits the spindle's speed whatever is cut."""
    return spindle_limits(given.machine, given.hold, given.stock, given.centre, given.rest)


def gripped(given: Given, scene: Scene, cut_d_mm: float) -> Gripped:
    """The hold as a cut on a diameter sees it; the overhang is that of the foremost cut."""
    overhang = 0.0 if given.centre is not None else given.hold.stick_out_mm
    if not scene.steady.is_empty and isinstance(given.rest, SteadyRest):  # what lies behind the rest tilts nothing
        overhang = min(overhang, max(scene.stock_front_z - given.rest.z_mm, 0.0))
    return Gripped(given.hold, cut_d_mm, 2 * scene.grip_r, overhang)


def hold_numbers(job: Job, scene: Scene, cut: Hardest) -> HoldNumbers:
    """Numbers and findings of the setup's hold, for its hardest cut."""
    hold, given, needed_n = job.setup.hold, Given.of(job), needed_grip_n(job, scene, cut)
    limits, safe_rpm = list(speed_limits(given)), _safe_rpm(job, needed_n)
    if safe_rpm is not None and 0 < safe_rpm < math.inf:
        limits.append(Limit("grip at speed", math.floor(safe_rpm), "rpm"))
    ovality = _ovality(job, scene)
    standing = Standing(
        needed_n=needed_n,
        at_rest_n=hold.force_n,
        quiet_rpm=quiet_up_to_rpm(given.hold, given.stock),
        stick_out_ratio=hold.stick_out_mm / (2 * scene.stock_r),
        ovality_um=None if ovality is None else ovality[0],
    )
    return HoldNumbers(
        force=cut.why,
        needed=grip.required_grip(*_cut_in_hold(job, scene, cut)),
        at_rest=_at_rest(job),
        safe_speed=None if safe_rpm is None else _safe_speed(job, needed_n, safe_rpm),
        whip=_whip(given),
        ovality=None if ovality is None else ovality[1],
        stick_out=_stick_out(job, scene, standing.stick_out_ratio),
        limits=tuple(limits),
        findings=tuple(hold_findings(job, scene, standing)),
    )


def needed_grip_n(job: Job, scene: Scene, cut: Hardest) -> float:
    """Grip a cut asks for, N, safety included."""
    return grip.required_grip_n(*_cut_in_hold(job, scene, cut))


def _cut_in_hold(job: Job, scene: Scene, cut: Hardest) -> tuple[Hold, float, float, float, float, float, float]:
    place = gripped(Given.of(job), scene, 2 * scene.stock_r)
    forces = (cut.cutting_n, cut.feed_n, cut.passive_n)
    return (place.hold, *forces, place.cut_d_mm, place.grip_d_mm, place.overhang_mm)


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


def _safe_rpm(job: Job, needed_n: float) -> float | None:
    """Highest speed at which the grip holds the hardest cut; never above the plate. None where that is unknown."""
    hold = job.setup.hold
    safe = grip.safe_speed_rpm(hold, needed_n)
    return None if safe is None else min(hold.max_rpm, safe)


def _safe_speed(job: Job, needed_n: float, safe_rpm: float) -> Evidence:
    hold = job.setup.hold
    by_grip = grip.safe_speed_rpm(hold, needed_n)
    limits = [Limit("chuck plate", hold.max_rpm, "rpm"), Limit("grip at speed", by_grip or 0.0, "rpm")]
    least = min(limits, key=lambda limit: limit.number)
    inputs = [Input("grip at rest", "F0", hold.force_n or 0.0, "N"), Input("grip needed", "F req", needed_n, "N")]
    if isinstance(hold, Chuck) and hold.jaw_mass_kg and hold.jaw_centre_r_mm:
        inputs += [
            Input("jaws", "z", float(hold.jaw_count), ""),
            Input("mass of one jaw", "m", hold.jaw_mass_kg, "kg"),
            Input("its centre of mass at radius", "r", hold.jaw_centre_r_mm, "mm"),
        ]
    return Evidence(
        "highest safe speed",
        "n safe",
        safe_rpm,
        "rpm",
        formula="n = 30/π · √((F0 − F req) / Σ m r), at most the plate",
        source=grip.SOURCE,
        inputs=tuple(inputs),
        limits=tuple(replace(limit, bit=limit is least) for limit in limits),
    )


def _whip(given: Given) -> Evidence | None:
    bar = free_bar(given.hold, given.stock)
    if bar is None:
        return None
    return Evidence(
        "quiet bar up to",
        "n whip",
        whip_limit_rpm(*bar),
        "rpm",
        formula="n = ½ · 30/π · 3.516 √(E I/(ρ A L⁴))",
        source="first bending frequency of a cantilever (Timoshenko, Vibration Problems in Engineering)",
        inputs=(
            Input("bar standing free behind the spindle", "L", bar[0], "mm"),
            Input("it begins to whip at", "n1", first_bending_rpm(*bar), "rpm"),
        ),
    )


def _stick_out(job: Job, scene: Scene, ratio: float) -> Evidence:
    hold = job.setup.hold
    return Evidence(
        "stick-out over diameter",
        "L/D",
        ratio,
        "ratio",
        formula="L/D; up to 3 free, 3 to 5 with care, more needs a centre or the second spindle",
        inputs=(Input("stick-out", "L", hold.stick_out_mm, "mm"), Input("diameter", "D", 2 * scene.stock_r, "mm")),
    )


def _ovality(job: Job, scene: Scene) -> tuple[float, Evidence] | None:
    """For a blank with a bore in jaws: how far the grip presses it out of round, um on radius."""
    hold, e = job.setup.hold, job.stock.material.e_n_mm2
    if not isinstance(hold, Chuck) or hold.force_n is None or e is None:
        return None
    held = scene.stock.intersection(box(scene.jaw_face_z - hold.grip_length_mm, 0, scene.jaw_face_z, 1e4))
    if held.is_empty or held.bounds[1] < 1e-6:
        return None
    inner, outer, length = float(held.bounds[1]), float(held.bounds[3]), hold.grip_length_mm
    number = ovality_um(hold.force_n, hold.jaw_count, outer, inner, length, e)
    return number, Evidence(
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
    return compliance_of(stock, scene.supports, e)
