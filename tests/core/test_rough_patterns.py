"""Roughing away from the chuck at a low angle, and plunging side by side."""

import math
import time
from itertools import pairwise

import pytest

from tests.support.kept import plan
from tests.support.routes import proof_of, tool_of
from toreuma.core.cutting.life import life_min
from toreuma.core.geometry.elements import Arc
from toreuma.core.model import Job
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.shipped.library import demo_job


def roughed(pattern: str, name: str) -> tuple[Job, OperationPlan]:
    """The spear, roughed with another tool in another way."""
    job = demo_job("spear")
    tool = tool_of(name, 6)
    job = job.changed(tools=(*job.tools, tool))
    job = job.with_operation("op2", lambda op: op.changed(pattern=pattern, tool=tool.id))
    planned = plan(job).of("op2")
    assert planned is not None
    return job, planned


@pytest.mark.parametrize(("pattern", "name"), [("pull", "PL 6 25"), ("plunge", "GO 4 18"), ("plunge", "PB 3 22")])
def test_it_is_proved(pattern: str, name: str) -> None:
    job, planned = roughed(pattern, name)
    proof = proof_of(job)
    assert proof.gouge_um < 2
    assert not proof.contacts
    assert not [finding for finding in proof.findings if finding.severity == "error"]
    usual = plan(demo_job("spear")).of("op2")
    assert usual is not None
    assert planned.removed.area > 0.9 * usual.removed.area


def test_a_pulled_edge_goes_away_from_the_chuck_with_a_raised_feed() -> None:
    _, planned = roughed("pull", "PL 6 25")
    long = [m for m in planned.motions if not m.is_rapid and m.segment.length > 10]
    assert long
    assert all(motion.end[0] > motion.start[0] for motion in long)
    feed, chip = planned.reasons["f"].number, planned.reasons["h"].number
    assert chip == pytest.approx(feed * math.sin(math.radians(25)))
    usual = plan(demo_job("spear")).of("op2")
    assert usual is not None
    assert feed > 1.3 * usual.reasons["f"].number


def test_it_rolls_in_and_leaves_slowly() -> None:
    _, planned = roughed("pull", "PL 6 25")
    feed = planned.reasons["f"].number
    arcs = [m for m in planned.motions if isinstance(m.segment, Arc)]
    assert len(arcs) >= planned.reasons["passes"].number / 2
    assert all(motion.feed == pytest.approx(feed / 2) for motion in arcs)
    last = [m for m in planned.motions if m.feed == pytest.approx(feed / 2) and not isinstance(m.segment, Arc)]
    assert any(motion.end[0] > 0 for motion in last)
    assert planned.reasons["shoulder"].number > 0


def test_a_life_at_a_low_angle_counts_the_chip_and_not_the_feed() -> None:
    _, planned = roughed("pull", "PL 6 25")
    proposal = planned.cuts.proposal
    assert proposal is not None
    thick = proposal.situation.changed(thinning=1.0)
    assert life_min(proposal.situation, proposal.cut) > 2 * life_min(thick, proposal.cut)


def test_plunges_stand_closer_on_a_slope() -> None:
    _, planned = roughed("plunge", "GO 4 18")
    places = sorted({round(m.end[0], 3) for m in planned.motions if not m.is_rapid and m.end[1] < m.start[1]})
    gaps = [b - a for a, b in pairwise(places)]
    assert max(gaps) == pytest.approx(0.8 * 3.6, abs=0.01)
    assert min(gaps) < 1.5


@pytest.mark.parametrize(("pattern", "name", "needs"), [("pull", "GO 4 18", "pull"), ("plunge", "PL 6 25", "blade")])
def test_the_wrong_tool_is_told(pattern: str, name: str, needs: str) -> None:
    _, planned = roughed(pattern, name)
    assert [finding.code for finding in planned.findings] == ["tool.kind"]
    assert needs in planned.findings[0].what


def test_a_depth_of_cut_far_too_small_ends_the_operation_at_once(spear: Job) -> None:
    job = spear.with_operation("op2", lambda op: op.changed(pins=op.pins.changed(ap_mm=0.001)))
    assert job.operation("op2").kind == "rough_od"  # type: ignore[union-attr]
    began = time.monotonic()
    assert "moves.many" in {finding.code for finding in plan(job).all_findings}
    assert time.monotonic() - began < 30
