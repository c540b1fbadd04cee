"""Parts that people brought: each line found a fault once."""

import pytest

from toreuma.core.verdict import Verdict
from toreuma.engine.engine import Engine
from toreuma.engine.fresh import new_job

FINISHED = ("finished", "finished but for")


def verdict(line: str, machine: str, material: str) -> Verdict:
    engine = Engine()
    drawn, _ = new_job("Strange", "mm", material, machine, line)
    job = engine.route(drawn).job
    return engine.prove_whole(engine.sides(job), {}).verdict


def test_ridges_of_a_knurl_stay_on_when_the_axis_is_drilled() -> None:
    made = verdict("16 x 30 c0.5; knurl RGE 1 x 15 at 10; hole M6 x 12", "gang lathe", "11SMnPb30")
    assert made.state == "finished", made.words


def test_the_core_of_a_thread_is_measured_behind_the_counterbore() -> None:
    made = verdict("40 x 25 c1; hole M10 x 15; bore 20 x 8", "slant-bed", "AlMgSi1")
    assert made.state == "finished", made.words


@pytest.mark.parametrize("material", ["AlMgSi1", "POM"])
def test_a_button_does_not_finish_square_corners(material: str) -> None:
    made = verdict("30 x 12 r3 / 22 x 20 / 30 x 12 r3; hole 8 through", "slant-bed", material)
    assert made.state in FINISHED, made.words


def test_small_deep_holes_are_tapped_with_a_shank_that_follows() -> None:
    made = verdict("60 x 15 c1; 6 x M4 on 45", "twin-spindle mill-turn", "C45")
    assert made.state in FINISHED, made.words
