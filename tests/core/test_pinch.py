"""Two tools that rough at the same time: passes in couples, one speed, the deeper one behind, proved over time."""

import re
from functools import cache

import pytest

from tests.support.handed import Planned, handed
from tests.support.kept import plan, prove_channels
from toreuma.core.channels.schedule import Pinched, schedule
from toreuma.core.cutting.speed import spindle_rpm
from toreuma.core.model import Job, RoughOd
from toreuma.core.plan.turn.pinch import LAG_MM, couples, is_pinched, pinched_s
from toreuma.engine.pair import PairProof
from toreuma.shipped.library import demo_job, dialect


def rough_of(job: Job) -> RoughOd:
    return next(op for op in job.operations if isinstance(op, RoughOd))


def asked(**changes: object) -> Job:
    """The hub with a second roughing tool of another shape, as somebody might choose it first."""
    job = demo_job("runner-hub")
    return job.with_operation(rough_of(job).id, lambda op: op.changed(pinch_tool="T13", **changes))


@cache
def pinched() -> Job:
    """The same with every cure taken but the power's."""
    job = asked()
    for code in ("pinch.shape", "pinch.moves"):
        found = next(one for one in plan(job).of(rough_of(job).id).findings if one.code == code)
        job = found.cures[0].apply(job)
    return job


@cache
def planned() -> Planned:
    return handed(pinched())


@cache
def proof() -> PairProof:
    return prove_channels(*planned(), dialect("system-a"))


def codes(job: Job) -> set[str]:
    return {one.code for one in plan(job).of(rough_of(job).id).findings}


def test_what_stands_against_it_is_said_with_its_cure() -> None:
    assert {"pinch.shape", "pinch.moves"} <= codes(asked())
    assert not {"pinch.shape", "pinch.moves"} & codes(pinched())
    job = pinched()
    tool = rough_of(job).tool
    free = next(n for n in range(1, 13) if n not in {one.station for one in job.tools})
    beside = job.changed(tools=(*job.tools, job.tool(tool).changed(id="B", station=free)))
    beside = beside.with_operation(rough_of(job).id, lambda op: op.changed(pinch_tool="B"))
    assert "pinch.channel" in codes(beside)
    same_side = tuple(one.changed(side="below") for one in job.machine.carriers)
    assert "pinch.side" in codes(job.changed(machine=job.machine.changed(carriers=same_side)))


def test_the_power_of_both_has_a_limit_and_a_cure() -> None:
    found = next(one for one in plan(pinched()).of(rough_of(pinched()).id).findings if one.code == "pinch.power")
    gentler = found.cures[0].apply(pinched())
    assert "pinch.power" not in codes(gentler)
    told = plan(gentler).of(rough_of(gentler).id).reasons
    assert told["pinch_power"].number == pytest.approx(2 * told["power"].number)
    assert told["pinch_vc"].number < told["vc"].number


def test_every_pass_is_taken_once_and_the_deeper_one_behind() -> None:
    job = pinched()
    made = plan(job).of(rough_of(job).id)
    assert is_pinched(job, made)
    found = couples(job, made)
    assert sum(2 if one.follow else 1 for one in found) == len(made.cuts.strokes)
    assert sum(bool(one.follow) for one in found) >= 3
    for one in (pair for pair in found if pair.follow):
        levels = [min(m.end[1] for m in row if not m.is_rapid) for row in (one.lead, one.follow)]
        assert levels[1] < levels[0]
        assert {m.station for m in one.follow} != {m.station for m in one.lead}
        cut = max((m for m in one.lead if m.feed), key=lambda m: m.length)
        wait = max(m.dwell_s for m in one.follow)
        rpm = spindle_rpm(cut.spindle, cut.start[1], job.machine.max_rpm)
        assert wait * cut.feed * rpm / 60 == pytest.approx(LAG_MM)
    assert pinched_s(job, made) < 0.85 * made.times.total_s


def test_both_programs_cut_it_clean() -> None:
    made = proof()
    assert made.ok, [one.what for one in made.findings if one.severity == "error"]
    assert made.gouge_um <= 2
    assert (made.leftover_um, made.contacts) == (0, ())
    both = [
        (a, b) for a in made.ran.happened for b in made.ran.happened
        if a.channel < b.channel and a.motion and b.motion and not a.motion.is_rapid and not b.motion.is_rapid
        and min(a.end_s, b.end_s) - max(a.start_s, b.start_s) > 0.5
    ]  # fmt: skip
    assert len(both) >= 3  # they do cut at the same time
    rows = schedule(*planned()).begin
    assert {item.leads for row in rows.values() for item in row if isinstance(item, Pinched)} == {True, False}


def spoiled(channel: int, pattern: str, instead: str) -> PairProof:
    texts = dict(proof().texts)
    texts[channel] = re.sub(pattern, instead, texts[channel])
    assert texts[channel] != proof().texts[channel]
    return prove_channels(*planned(), dialect("system-a"), texts)


BEHIND = 1


@pytest.mark.parametrize(
    ("pattern", "instead", "code"),
    [
        (r"N\d+ G4 P\d+\n(N\d+ G1)", r"\1", "beside.ahead"),
        (r"M93", "G50 S2000\nG96 S150 M3", "beside.speed"),
        (r"(BEHIND\)\n\(.*\)\n(?:.*\n){4}N\d+ )X\S+", r"\1X-200.", "beside.meet"),
    ],
)
def test_a_spoiled_couple_is_caught(pattern: str, instead: str, code: str) -> None:
    made = spoiled(BEHIND, pattern, instead)
    assert code in {one.code for one in made.findings if one.severity == "error"}


def test_what_carries_the_tools_is_seen_to_meet() -> None:
    """A tool far past the axis is in the way of no other tool, but of the nose behind one."""
    made = spoiled(2, r"(REAM THE BORE\)\n(?:.*\n){3}N\d+ G0 )X\S+", r"\1X-150.")
    told = [one.what for one in made.findings if one.code == "beside.meet"]
    assert any("the milling spindle behind T17 and T3 meet" in one for one in told), told
    assert "milling spindle" not in " ".join(one.what for one in proof().findings)
