"""Everyday parts of many kinds from their line to the finished piece, by the judge's word and the proof's."""

import pytest
from benchmarks.everyday.bench import came_of
from benchmarks.everyday.kinds import KINDS, everyday

SAMPLE = (0, 3, 5, 7, 8, 12, 15, 17, 18, 26, 29, 32)
"""A shaft, a stud, a bush, a spacer, a washer, a nut, a nozzle, a gear blank, a housing, a cap, a ball stud, an inch
bush: what was once left open by a route."""


@pytest.mark.parametrize("seed", SAMPLE)
def test_a_route_makes_it_and_the_judge_agrees(seed: int) -> None:
    came = came_of(everyday(seed))
    assert came.fault == ""
    assert came.finished, (came.words, came.open, came.dangers)
    assert not came.dishonest
    assert came.court is None or not came.court.hits
    assert came.cycle_s < 3 * came.plain_s


def test_there_are_five_and_twenty_kinds_and_each_is_drawn_anew() -> None:
    assert len(KINDS) >= 25
    lines = {everyday(seed).line for seed in range(4 * len(KINDS))}
    assert len(lines) > 2.5 * len(KINDS)
