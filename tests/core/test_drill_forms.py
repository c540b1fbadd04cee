"""Step drills and flat ones, and what the next tool asks of a hole."""

from typing import Any

import pytest

from tests.core.test_drill import drilled, op, proved, twist
from toreuma.core.geometry.region import box
from toreuma.core.model import DrillHole, Job, ReamHole, TapHole
from toreuma.core.model.tool import Reamer, Tap
from toreuma.core.plan.numbers.drilling import point_length_mm

STEP = twist(12.0, form="step", pilot_d_mm=8.0, step_length_mm=24.0, step_deg=90.0, flute_length_mm=60.0)
FLAT = twist(10.0, id="F", form="flat", point_deg=180.0, station=6)


def metal_at(job: Job, z: float) -> float:
    """Radius of the hole the plan leaves at a place."""
    line = op(job).after.intersection(box(z, 0, z + 0.01, 100))
    return float(line.bounds[1])


def test_a_step_drill_makes_both_diameters_at_once() -> None:
    job = drilled({"d_mm": 12.0}, STEP, depth_mm=6.0, peck=False)
    assert metal_at(job, -3.0) == pytest.approx(6.0, abs=0.01)
    assert metal_at(job, -20.0) == pytest.approx(4.0, abs=0.01)
    assert point_length_mm(STEP) == pytest.approx(24.0 + 2.0)
    proof = proved(job)
    assert not proof.contacts
    assert min(motion.end[0] for motion in op(job).motions) == pytest.approx(-6.0 - 26.0, abs=0.01)


@pytest.mark.parametrize("changes", [{"step_length_mm": None}, {"pilot_d_mm": None}, {"pilot_d_mm": 12.0}])
def test_a_step_drill_without_its_step_is_refused(changes: dict[str, Any]) -> None:
    with pytest.raises(ValueError, match="front"):
        twist(12.0, **{"form": "step", "pilot_d_mm": 8.0, "step_length_mm": 24.0, **changes})


def test_a_flat_drill_clears_the_floor_its_point_left() -> None:
    hole = {"d_mm": 10.0, "depth_mm": 20.0, "point_deg": 180.0}
    job = drilled(hole, twist(10.0))
    job = job.changed(tools=(*job.tools, FLAT)).with_setup(
        operations=(*job.operations, DrillHole(id="f", tool="F", peck=False))
    )
    pointed, flat = op(job, "d"), op(job, "f")
    assert pointed.after.intersection(box(-20, 0, -19.5, 4.0)).area > 1.0
    assert flat.after.intersection(box(-20, 0, 0, 5)).area == pytest.approx(0, abs=0.01)
    assert not [finding for finding in flat.findings if finding.code == "drill.flat_start"]
    assert proved(job).gouge_um < 2


def test_a_flat_drill_alone_is_told_to_come_second() -> None:
    job = drilled({"d_mm": 10.0}, FLAT.changed(id="D", station=5))
    job = job.with_setup(operations=(job.operations[0], job.operations[2]))
    assert "drill.flat_start" in {finding.code for finding in op(job).findings}


def followed(operation: Any, tool: Any, d: float, depth: float | None) -> Job:
    job = drilled({"d_mm": d, "depth_mm": depth or 30.0, "thread": "M10", "thread_length_mm": 20.0}, twist(d))
    job = job.with_operation("d", lambda one: one.changed(depth_mm=depth))
    return job.changed(tools=(*job.tools, tool)).with_setup(operations=(*job.operations, operation))


TAP = Tap(id="N", station=6, thread="M10", d_mm=10.0, pitch_mm=1.5, form="blind", lead_pitches=2.5,
          flute_length_mm=40, overall_length_mm=90, shank_d_mm=8.0)  # fmt: skip
REAMER = Reamer(id="N", station=6, d_mm=10.0, flute_length_mm=40, overall_length_mm=120, shank_d_mm=10.0)


def test_a_tap_asks_for_its_lead_and_a_cure_gives_it() -> None:
    """20 mm of thread, 2.5 pitches of lead and half of one for room: 24.5 mm."""
    job = followed(TapHole(id="n", tool="N"), TAP, 8.5, 22.0)
    (short,) = [finding for finding in op(job).findings if finding.code == "next.shallow"]
    mended = short.cures[0].apply(job)
    assert mended.operation("d").depth_mm == pytest.approx(24.5)
    assert "next.shallow" not in {finding.code for finding in op(mended).findings}
    assert {one.label.split(",")[1].strip() for one in op(job).reasons["next"].inputs} == {"diameter", "depth"}


@pytest.mark.parametrize(("d", "code"), [(8.0, "next.narrow"), (8.5, ""), (9.0, "next.wide")])
def test_a_tap_asks_for_its_drill(d: float, code: str) -> None:
    found = {f.code for f in op(followed(TapHole(id="n", tool="N"), TAP, d, 26.0)).findings}
    assert found & {"next.narrow", "next.wide"} == ({code} if code else set())


@pytest.mark.parametrize(("d", "code"), [(9.0, "next.narrow"), (9.8, ""), (9.95, "next.wide")])
def test_a_reamer_asks_for_its_stock(d: float, code: str) -> None:
    found = {f.code for f in op(followed(ReamHole(id="n", tool="N"), REAMER, d, 26.0)).findings}
    assert found & {"next.narrow", "next.wide"} == ({code} if code else set())


def test_only_the_last_drill_is_asked() -> None:
    job = followed(TapHole(id="n", tool="N"), TAP, 8.0, 22.0)
    assert not [finding for finding in op(job, "s").findings if finding.code.startswith("next")]
