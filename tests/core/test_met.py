"""Where an edge meets metal on its way: pieces that cut, and long stretches in the air between them."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from toreuma.core.geometry.elements import Line
from toreuma.core.geometry.region import Region, box, union
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.plan.ground.met import BEFORE_MM, BEHIND_MM, MetMetal

NOSE = 0.4
EDGE = ToolShape(
    core=np.array([[0.0, 0.0], [0.3, 6.0], [4.0, 6.0]]),
    nose_radius=NOSE,
    bodies=(),
    tip=(-NOSE, -NOSE),
    entering_angle_deg=93.0,
    edge_length=6.0,
)
WAY = [Line((0.0, 10.0), (-60.0, 10.0))]


def standing(*spans: tuple[float, float]) -> Region:
    """A shaft finished to the way but for rings that stand 0.5 higher."""
    top = 10.0 - NOSE
    return union([box(-60, 0, 0, top), *(box(low, top, high, top + 0.5) for high, low in spans)])


@given(st.lists(st.floats(min_value=2, max_value=56), min_size=1, max_size=4, unique=True))
@settings(max_examples=30, deadline=None)
def test_every_place_that_cuts_lies_in_a_piece_that_is_fed(places: list[float]) -> None:
    met = MetMetal(standing(*((-at, -at - 1.0) for at in places)), EDGE)
    pieces = met.parted(WAY)
    assert [cuts for _, cuts in pieces] == [n % 2 == 0 for n in range(len(pieces))]
    assert sum(one.length for way, _ in pieces for one in way) == pytest.approx(60.0, abs=1e-6)
    left_out = [(way[0].start[0], way[-1].end[0]) for way, cuts in pieces if not cuts]
    for begin, end in left_out:
        assert begin - end > 4.0
        assert not any(end - NOSE < -at < begin + NOSE or end - NOSE < -at - 1.0 < begin + NOSE for at in places)


def test_two_rings_far_apart_are_cut_apart_with_room_before_and_behind() -> None:
    pieces = MetMetal(standing((-5.0, -8.0), (-40.0, -45.0)), EDGE).parted(WAY)
    assert [cuts for _, cuts in pieces] == [True, False, True]
    begin, end = pieces[1][0][0].start[0], pieces[1][0][-1].end[0]
    assert -8.0 - 2 * BEHIND_MM - 2 * NOSE < begin < -8.0
    assert -40.0 < end < -40.0 + BEFORE_MM + 2 * NOSE


def test_what_is_cut_already_is_no_metal_in_front() -> None:
    met = MetMetal(standing((-5.0, -8.0)), EDGE)
    assert not met.is_free(np.array([[-6.0, 10.2]]), 0.1)
    assert met.in_front(-20.0).is_free(np.array([[-6.0, 10.2]]), 0.1)
