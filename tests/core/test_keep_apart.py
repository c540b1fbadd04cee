"""Tools that would meet are kept apart: neither program nor schedule lets both work at once."""

from itertools import product

import pytest

from tests.support.handed import handed
from toreuma.core.channels.balance import balance
from toreuma.core.channels.keep_apart import held_back, kept_apart
from toreuma.core.model import Job
from toreuma.engine.engine import Engine
from toreuma.engine.pair import PairProof, prove_channels
from toreuma.shipped.library import demo_job, dialect


def working(proof: PairProof, job: Job, tool: str) -> list[tuple[float, float]]:
    """From when to when a tool moves at feed, by the programs as they ran."""
    station = job.tool(tool).station
    moves = (one for one in proof.ran.happened if one.motion is not None and one.motion.station == station)
    return [(one.start_s, one.end_s) for one in moves if not one.motion.is_rapid]


def at_once_s(proof: PairProof, job: Job, one: str, other: str) -> float:
    both = product(working(proof, job, one), working(proof, job, other))
    return sum(max(0.0, min(a[1], b[1]) - max(a[0], b[0])) for a, b in both)


def test_two_tools_kept_apart_never_work_at_the_same_time() -> None:
    job = demo_job("vane-stud")
    before = prove_channels(*handed(job), dialect=dialect("system-a"))
    firsts, seconds = ([op.tool for op in setup.operations] for setup in job.setups)
    pairs = product(dict.fromkeys(firsts), dict.fromkeys(seconds))
    meeting = [pair for pair in pairs if at_once_s(before, job, *pair) > 0.1]
    assert meeting
    one, other = meeting[0]
    kept = kept_apart(job, one, other)[0].apply(job)
    after = prove_channels(*handed(kept), dialect=dialect("system-a"))
    assert at_once_s(after, kept, one, other) == 0
    assert after.ok
    assert kept_apart(kept, other, one) == ()
    slots = balance(*handed(kept)).slots
    named = {op.id: op.tool for op in kept.setups[0].operations}, {op.id: op.tool for op in kept.setups[1].operations}
    mine = [slot for slot in slots if slot.side == 0 and named[0][slot.operation] == one]
    theirs = [slot for slot in slots if slot.side == 1 and named[1][slot.operation] == other]
    for a, b in product(mine, theirs):
        assert a.end_s <= b.start_s + 0.011 or b.end_s <= a.start_s + 0.011


def test_only_tools_of_a_pair_are_held_back() -> None:
    job = demo_job("vane-stud")
    assert job.hand_over is not None
    kept = job.changed(hand_over=job.hand_over.changed(apart=(("T1", "T11"), ("T1", "T12"))))
    assert len(held_back(kept, ["T1"])) == 2
    assert held_back(kept, ["T12"]) != held_back(kept, ["T11"])
    assert held_back(kept, ["T2", "T3"]) == ()
    assert kept_apart(job.changed(hand_over=None), "T1", "T11") == ()


@pytest.mark.long
def test_a_proposed_route_keeps_apart_what_would_meet() -> None:
    """Bar stop and spot drill of the back plate come to the axis at the same time."""
    found = Engine().route(demo_job("vane-stud"))
    assert found.state in ("finished", "finished but for")
    assert found.job.hand_over is not None
    assert found.job.hand_over.apart
