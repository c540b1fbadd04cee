"""Holes with a thread in the axis, of every usual kind: drilled, tapped or cut with a bar, and proved; what a tap
leaves wrong is told."""

import pytest

from tests.support.long import everyday
from toreuma.core.model import Job
from toreuma.core.model.tool import Tap
from toreuma.core.post import post
from toreuma.core.standards.threads.same import cuts_thread
from toreuma.engine.engine import Engine
from toreuma.engine.fresh import new_job
from toreuma.shipped.library import catalogue

DONE = ("finished", "finished but for")
TAPPED = ["M10", "M24x1.5", "G1/8", "G1/4", "G3/4", "NPT 1/8", "NPT 1/2", "1/4-20 UNC", "1/2-13 UNC", "3/4-16 UNF",
          "Rc1/4", "Rp1/2", "M10x1"]  # fmt: skip
BORED = ["M10", "G1/4", "NPT 1/4", "NPT 1/2", "3/4-16 UNF", "1/4-20 UNC"]


def job_of(line: str, machine: str = "slant-bed") -> Job:
    return new_job("part", "mm", "C45", machine, line)[0]


@pytest.mark.parametrize("thread", everyday(TAPPED, "G1/4", "NPT 1/8"))
@pytest.mark.parametrize("deep", ["x 18", "through"])
def test_a_tapped_hole_is_made(thread: str, deep: str) -> None:
    long = 40 if deep == "x 18" else 25
    found = Engine().route(job_of(f"45 x {long} c1; hole {thread} {deep}"))
    assert found.state in DONE, found.words
    assert any(isinstance(one, Tap) for one in found.job.tools)


@pytest.mark.parametrize("thread", everyday(BORED, "NPT 1/4"))
def test_a_bore_that_is_a_thread_is_made_down_to_its_floor(thread: str) -> None:
    found = Engine().route(job_of(f"45 x 40 c1; bore {thread} x 18"))
    assert found.state in DONE, found.words


def test_a_taper_tap_goes_to_its_gauge_plane_and_no_turn_farther() -> None:
    """ASME B1.20.1 allows one turn either way."""
    engine = Engine()
    found = engine.route(job_of("45 x 40 c1; hole NPT 1/8 x 18"))
    tap = next(one for one in found.job.tools if isinstance(one, Tap))
    row = next(one for one in engine.verdict(found.job).rows if one.key == "thread in feature 0")
    assert row.state == "made"
    for turns, state in ((0.8, "made"), (1.5, "wrong"), (-1.5, "open")):
        off = tap.changed(gauge_mm=tap.gauge_mm - turns * tap.pitch_mm)  # it is shorter than it was: it goes too deep
        job = found.job.changed(tools=tuple(off if one.id == tap.id else one for one in found.job.tools))
        sides = engine.sides(found.job)
        text = post(sides[0], engine.language(found.job)).text
        whole = engine.prove_whole(engine.sides(job), {0: text})
        made = next(one for one in whole.verdict.rows if one.key == "thread in feature 0")
        assert made.state == state, (turns, made)


@pytest.mark.parametrize(
    ("tap", "wanted", "does"),
    [
        ("M8", "M8-LH", False),
        ("NPT 1/4", "1/4-18 NPT", True),
        ("NPT 1/4", "NPTF 1/4", False),
        ("G1/4", "1/4 BSPP", True),
        ("G1/4", "Rp1/4", True),
        ("G1/4", "Rc1/4", False),
        ("Rc1/4", "BSPT 1/4", True),
        ("1/2-14 NPT", "G1/2", False),
    ],
)
def test_a_tap_is_known_by_its_thread(tap: str, wanted: str, does: bool) -> None:
    assert cuts_thread(tap, 1.3368, wanted) is does


def test_a_left_hand_thread_is_not_tapped_with_a_right_hand_tap() -> None:
    found = Engine().route(job_of("45 x 40 c1; hole M10-LH x 18"))
    assert found.state == "not finished"
    beside = Engine().route(job_of("60 x 30; 4 x M8-LH x 14 on 40", "twin-spindle mill-turn"))
    assert beside.state in DONE, beside.words
    assert any(one.kind == "thread_mill" for one in beside.job.tools)


def test_shanks_of_long_taps_follow_into_the_core() -> None:
    long = [one for one in catalogue().tools if isinstance(one, Tap) and one.name.startswith("TL")]
    assert len(long) > 40
    assert all(one.shank_d_mm < one.d_mm - one.pitch_mm for one in long)
