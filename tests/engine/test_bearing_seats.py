"""Seats in bores with an undercut in their corner, as bearings want them, and deep grooves in a face."""

import pytest

from tests.support.long import everyday
from toreuma.core.model import CutGroove, FinishBore
from toreuma.engine.engine import Engine
from toreuma.engine.fresh import new_job

DONE = ("finished", "finished but for")
SEATS = [
    "80 x 60 c1; bore 62 K7 x 18 relief E / 50 through",
    "60 x 40 c1; bore 42 H7 x 14 relief F / 30 through",
    "120 x 40 c1; bore 90 J7 x 20 relief F / 70 through c1",
]


@pytest.mark.parametrize("line", everyday(SEATS, SEATS[1]))
def test_the_finishing_bar_slides_into_the_undercut(line: str) -> None:
    found = Engine().route(new_job("seat", "mm", "C45", "slant-bed", line)[0])
    assert found.state in DONE, found.words
    operations = [one for setup in found.job.setups for one in setup.operations]
    assert not any(isinstance(one, CutGroove) for one in operations)
    into_face = " relief F" in line
    bores = [one for one in operations if isinstance(one, FinishBore)]
    assert any(one.allow_away is into_face for one in bores)


THREADS = ["60 x 50 c1; bore M42x1.5 x 20 relief / 30 through", "60 x 40 c1; bore G1 x 18 relief / 24 through"]


@pytest.mark.parametrize("line", everyday(THREADS, THREADS[0]))
def test_the_run_out_of_a_thread_in_a_bore_is_cut_once_its_shoulder_is(line: str) -> None:
    found = Engine().route(new_job("nut", "mm", "C45", "slant-bed", line)[0])
    assert found.state in DONE, found.words
    kinds = [one.kind for one in found.job.operations]
    assert kinds.index("finish_bore") < kinds.index("groove") < kinds.index("thread")


@pytest.mark.parametrize(
    "line",
    everyday(["60 x 40 c1; face g 50 x 5 x 12", "90 x 40 c1; face g 70 x 6 x 15"], "60 x 40 c1; face g 50 x 5 x 12"),
)
def test_a_deep_groove_in_a_face_is_opened_to_its_floor_before_its_walls(line: str) -> None:
    engine = Engine()
    found = engine.route(new_job("ring", "mm", "C45", "slant-bed", line)[0])
    assert found.state in DONE, found.words
    side = next(
        one for one in engine.sides(found.job) if any(isinstance(o.operation, CutGroove) for o in one.operations)
    )
    made = next(one for one in side.operations if isinstance(one.operation, CutGroove))
    deep = 12.0 if "x 12" in line else 15.0
    ways = [one.segment for one in made.motions if not one.is_rapid]
    first = next(n for n, one in enumerate(ways) if min(one.end[0], one.start[0]) < -(deep - 1.0))
    assert all(abs(one.start[1] - one.end[1]) < 1e-6 for one in ways[: first + 1])  # straight in, none along a wall
