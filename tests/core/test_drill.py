"""Drilling on the axis: as deep as the part allows, through with point and breakthrough, in pecks; proved."""

import itertools
import math
from typing import Any

import pytest

from tests.support.kept import plan, prove
from toreuma.core.cutting.holes import drilling
from toreuma.core.geometry.region import box
from toreuma.core.model import DrillHole, Face, Job, ReamHole
from toreuma.core.model.tool import Drill, Reamer
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.post import post
from toreuma.core.prove import Proof
from toreuma.core.read import read
from toreuma.files.jobs import job_text, parse_job
from toreuma.shipped.library import demo_job, dialect, machines


def twist(d: float = 8.0, **changes: Any) -> Drill:
    usual = {"flute_length_mm": 75.0, "overall_length_mm": 117.0, "shank_d_mm": d, "material": "high-speed steel"}
    return Drill(**{"id": "D", "station": 5, "d_mm": d, "feed_mm_rev": (0.08, 0.16), **usual, **changes})


SPOT = twist(6.0, id="S", station=4, form="spot", point_deg=120.0, flute_length_mm=12.0, overall_length_mm=60.0)


def drilled(hole: dict[str, Any] | None = None, tool: Drill | None = None, **operation: Any) -> Job:
    """The spear's bar, faced, spotted and drilled; with a hole on the axis of the part."""
    spear = demo_job("spear")
    features = ({"kind": "axial_hole", "d_mm": 8.0, "depth_mm": 20.0, **(hole or {})},)
    outside = [{"z_mm": 0, "d_mm": 24}, {"z_mm": -40, "d_mm": 24}]
    job = spear.changed(
        part={"outside": outside, "features": features}, tools=(*spear.tools[:3], SPOT, tool or twist())
    )
    operations = (Face(id="a", tool="T1"), DrillHole(id="s", tool="S"), DrillHole(id="d", tool="D", **operation))
    return job.with_setup(operations=operations)


def op(job: Job, name: str = "d") -> OperationPlan:
    found = plan(job).of(name)
    assert found is not None
    return found


def proved(job: Job) -> Proof:
    planned, language = plan(job), dialect("system-a")
    program = read(post(planned, language).text, language, planned.scene.reference)
    return prove(job, planned.scene, program, planned.declared)


def codes(job: Job) -> set[str]:
    return {finding.code for finding in plan(job).all_findings}


@pytest.mark.parametrize("angle", [118.0, 135.0, 140.0])
def test_a_blind_hole_ends_at_its_full_diameter(angle: float) -> None:
    """Depth to the full diameter 20, and a point of D/2 / tan(sigma/2): 0.300 D at 118 and 0.182 D at 140 degrees."""
    job = drilled({"point_deg": angle}, twist(point_deg=angle))
    deepest = min(motion.end[0] for motion in op(job).motions)
    assert deepest == pytest.approx(-(20 + 4 / math.tan(math.radians(angle) / 2)), abs=2e-3)
    proof = proved(job)
    assert proof.gouge_um <= 2
    assert not proof.contacts
    hole = [f for f in proof.findings if f.severity == "error" and f.code == "gouge"]
    assert not hole
    steps = [s for s, m in zip(proof.steps, proof.program.motions, strict=True) if m.section == 2 and s.removed_mm2 > 1]
    numbers = op(job).reasons
    assert steps[0].power_kw == pytest.approx(numbers["power"].number, rel=0.01)
    assert steps[0].force_n == pytest.approx(numbers["thrust"].number, rel=0.01)


def test_a_through_hole_goes_through_with_its_point() -> None:
    job = drilled({"depth_mm": None}, breakthrough_mm=1.5)
    deepest = min(motion.end[0] for motion in op(job).motions)
    assert deepest == pytest.approx(-40 - 0.300 * 8 - 1.5, abs=5e-3)
    assert "to the back" in op(job).reasons["depth"].formula
    assert proved(job).gouge_um <= 2


def test_the_spot_is_as_wide_as_the_hole() -> None:
    """depth = d/2 / tan(sigma/2) where the cone meets the edge of the hole."""
    narrow = drilled({"d_mm": 4.0}, twist(4.0))
    assert min(motion.end[0] for motion in op(narrow, "s").motions) == pytest.approx(
        -2.0 / math.tan(math.radians(60)), abs=0.005
    )
    wide = min(motion.end[0] for motion in op(drilled(), "s").motions)  # a hole wider than the spot
    assert wide == pytest.approx(-0.95 * 3.0 / math.tan(math.radians(60)), abs=0.005)


def test_pecks_shrink_and_come_out_between() -> None:
    job = drilled({"d_mm": 4.0, "depth_mm": 30.0}, twist(4.0))
    ends = [motion.end[0] for motion in op(job).motions if not motion.is_rapid]
    steps = [a - b for a, b in zip([0.0, *ends], ends, strict=False)]
    assert len(ends) > 3
    assert steps[0] == pytest.approx(2.5 * 4.0, abs=2.0)  # it begins in the spot
    assert all(later <= earlier + 1e-6 for earlier, later in itertools.pairwise(steps))
    rapids = [motion for motion in op(job).motions if motion.is_rapid]
    assert sum(motion.end[0] > 0 for motion in rapids) >= len(ends)
    whole = op(drilled({"d_mm": 4.0, "depth_mm": 30.0}, twist(4.0), peck=False))
    assert sum(not motion.is_rapid for motion in whole.motions) == 1
    assert whole.times.total_s < op(job).times.total_s
    typed = op(drilled({"d_mm": 4.0, "depth_mm": 30.0}, twist(4.0), peck_mm=2.0))
    assert max(m.segment.length for m in typed.motions if not m.is_rapid) <= 2.5 + 1e-6 + 2.0
    proof = proved(job)
    assert not proof.contacts
    assert proof.gouge_um <= 2


def test_numbers_come_with_torque_and_thrust_and_fit_the_power() -> None:
    job = drilled()
    numbers = op(job).reasons
    torque, thrust = drilling(job.stock.material, 8.0, numbers["f"].number, 118.0)
    assert (numbers["torque"].number, numbers["thrust"].number) == (torque, thrust)
    assert numbers["n"].number == math.floor(1000 * numbers["vc"].number / (math.pi * 8.0))
    weak = job.changed(machine=job.machine.changed(efficiency=0.01))
    power = op(weak).reasons["power"]
    assert power.number <= power.limits[0].number * 1.01
    assert op(weak).reasons["f"].bit.label.startswith("power")  # type: ignore[union-attr]
    pinned = job.with_operation("d", lambda o: o.changed(pins={"vc_m_min": 10.0, "feed_mm_rev": 0.05}))
    assert op(pinned).reasons["f"].number == 0.05
    assert op(pinned).reasons["vc"].pinned
    geared = op(job.changed(machine=machines()["geared lathe"])).reasons
    assert geared["n"].number in machines()["geared lathe"].speeds_rpm
    assert geared["f"].number in machines()["geared lathe"].feeds_mm_rev


@pytest.mark.parametrize(
    ("job", "code"),
    [
        (drilled(tool=twist(flute_length_mm=15.0)), "drill.flute"),
        (drilled(tool=twist(9.0)), "drill.wide"),
        (drilled({"end": "back"}), "drill.wide"),
        (drilled(tool=twist(material="boron nitride")), "speed.unknown"),
        (drilled({"depth_mm": 30.0}).with_operation("s", lambda o: o.changed(enabled=False)), "drill.wanders"),
        (drilled().with_operation("a", lambda o: o.changed(enabled=False)), "drill.unfaced"),
        (drilled().with_operation("d", lambda o: o.changed(tool="T1")), "tool.kind"),
        (drilled().with_setup(centre={"d_mm": 20.0}), "drill.centre"),
        (drilled(depth_mm=30.0), "gouge"),
    ],
)
def test_what_goes_wrong_is_said(job: Job, code: str) -> None:
    found = codes(job)
    if code == "gouge":  # a typed depth is kept, and the proof finds what it does to the part
        assert proved(job).gouge_um > 1000
    else:
        assert code in found


def test_a_pointed_spot_under_a_flat_drill_is_noted() -> None:
    pointed = drilled()
    pointed = pointed.changed(tools=tuple(t.changed(point_deg=90.0) if t.id == "S" else t for t in pointed.tools))
    assert "drill.spot_angle" in codes(pointed)
    assert "drill.spot_angle" not in codes(drilled())


def test_the_job_is_kept_and_inches_change_nothing() -> None:
    job = drilled(peck_mm=3.0)
    assert parse_job(job_text(job)) == job
    inch = job.changed(units="inch")
    assert proved(inch).gouge_um <= 2
    assert [m.end for m in op(inch).motions] == [m.end for m in op(job).motions]


def reamed(drill_d: float = 7.8, reamer: dict[str, Any] | None = None, **hole: Any) -> Job:
    """A hole drilled smaller and reamed to 8 mm."""
    job = drilled({"point_deg": 118.0, **hole}, twist(drill_d, shank_d_mm=min(drill_d, 7.5), flute_length_mm=75.0))
    usual = {"id": "R", "station": 6, "d_mm": 8.0, "lead_mm": 1.0, "flute_length_mm": 60.0, "overall_length_mm": 110.0}
    tool = Reamer(**{**usual, "shank_d_mm": 7.5, **(reamer or {})})
    return job.changed(tools=(*job.tools, tool)).with_setup(operations=(*job.operations, ReamHole(id="r", tool="R")))


def test_a_hole_is_reamed_through_and_blind() -> None:
    through = reamed(depth_mm=None)
    deepest = min(m.end[0] for m in op(through, "r").motions)
    assert deepest == pytest.approx(-41.1, abs=0.1)  # to where the drill was full
    proof = proved(through)
    assert proof.gouge_um <= 2
    assert not proof.contacts
    left = proof.final.difference(plan(through).scene.part).intersection(box(-39, 0, -1, 4.05))
    assert left.area < 1e-3  # the hole is to size
    blind = op(reamed(), "r")
    deepest = min(m.end[0] for m in blind.motions)
    assert -21 <= deepest <= -19
    assert blind.reasons["ap"].number == pytest.approx(0.1, abs=1e-6)
    assert proved(reamed()).gouge_um <= 2


@pytest.mark.parametrize(
    ("job", "code"),
    [
        (reamed(7.0), "ream.much"),
        (reamed(7.99), "ream.little"),
        (reamed(3.0), "ream.full"),
        (reamed(reamer={"d_mm": 9.0}), "ream.wide"),
        (reamed(reamer={"flute_length_mm": 10.0, "shank_d_mm": 8.0}), "drill.flute"),
        (reamed().with_operation("r", lambda o: o.changed(tool="D")), "tool.kind"),
    ],
)
def test_what_goes_wrong_with_a_reamer_is_said(job: Job, code: str) -> None:
    assert code in codes(job)


def test_drill_and_reamer_take_pins_and_factors_alike() -> None:
    """One way for all tools on the axis: derates, the pinned clamp, and speeds near nothing."""
    job = reamed()
    dry = job.changed(conditions=job.conditions.changed(coolant="dry"))
    for name in ("d", "r"):
        assert op(dry, name).reasons["vc"].number == pytest.approx(0.6 * op(job, name).reasons["vc"].number, abs=0.1)
        slow = job.with_operation(name, lambda o: o.changed(pins={"clamp_rpm": 90.0}))
        assert op(slow, name).reasons["n"].number == 90
        crawling = job.with_operation(name, lambda o: o.changed(pins={"vc_m_min": 1e-3}))
        assert op(crawling, name).reasons["n"].number == 1
        assert op(crawling, name).motions


def test_what_governs_a_drill_is_named() -> None:
    planned = op(drilled({"d_mm": 12.0}, twist(12.0)))
    assert planned.governed_by == "usual in 1.4404 for Ø 12 mm"
    weak = drilled({"d_mm": 12.0}, twist(12.0))
    points = tuple(point.changed(power_kw=0.03 * point.power_kw) for point in weak.machine.power)
    weak = weak.changed(machine=weak.machine.changed(power=points))
    assert str(op(weak).governed_by).startswith("power")


def test_feed_begins_where_a_pointed_drill_first_touches_the_open_hole() -> None:
    """A cone of 90 degrees in a hole of 8 meets its edge 4 mm behind its point; half a millimetre of way is left."""
    cone = twist(16.0, id="E", station=6, form="spot", point_deg=90.0, flute_length_mm=24.0, overall_length_mm=98.0)
    job = drilled()
    job = job.changed(tools=(*job.tools, cone))
    broken = job.with_setup(operations=(*job.operations, DrillHole(id="e", tool="E", depth_mm=None)))
    motions = op(broken, "e").motions
    fed = next(n for n, motion in enumerate(motions) if not motion.is_rapid)
    assert motions[fed - 1].end[0] == pytest.approx(-4.0 + 0.3, abs=0.05)
    assert motions[fed].end[0] == pytest.approx(-4.0, abs=1e-3)
    assert not proved(broken).contacts


def test_a_drill_into_the_full_begins_in_front_of_the_face() -> None:
    first = next(motion for motion in op(drilled(), "s").motions if not motion.is_rapid)
    assert first.segment.start[0] == pytest.approx(0.5)
