"""Rapids in two axes: where a tool really comes along when each axis goes as fast as it can."""

from itertools import pairwise

import pytest

from toreuma.core.model import Job, Machine
from toreuma.core.motion import STOPPED, Motion
from toreuma.core.post import post
from toreuma.core.simulate.clock import rapid_time_s
from toreuma.core.simulate.rapids import bent_ways, goes_bent, timed_legs
from toreuma.engine.engine import Engine
from toreuma.engine.judging import prove_whole
from toreuma.shipped.library import machines

START, END = (5.0, 60.0), (-95.0, 10.0)


def machine(rapids: str, **changes: float) -> Machine:
    return machines()["slant-bed"].changed(rapids=rapids, **changes)


def moved(start: tuple[float, float] = START, end: tuple[float, float] = END) -> Motion:
    return Motion.rapid(start, end, STOPPED, 1)


@pytest.mark.parametrize(("rapid_x", "rapid_z"), [(12000, 24000), (24000, 12000), (9000, 9000)])
def test_the_way_is_that_of_two_axes_which_do_not_wait_for_each_other(rapid_x: float, rapid_z: float) -> None:
    """Far from speeding up and slowing down each axis runs at its own speed until it is there."""
    one = machine("bent", rapid_x_mm_min=rapid_x, rapid_z_mm_min=rapid_z, acceleration_mm_s2=1e6)
    total = max(6000 / rapid_z, 3000 / rapid_x)
    for share, leg in timed_legs(moved(), one):
        minutes = share * total / 60
        z = max(START[0] - rapid_z * minutes, END[0])
        r = max(START[1] - rapid_x * minutes, END[1])
        assert leg.end == pytest.approx((z, r), abs=0.4)


def test_the_way_is_whole_and_takes_the_time_of_the_slower_axis() -> None:
    legs = timed_legs(moved(), machine("bent"))
    assert legs[0][1].start == START
    assert legs[-1] == (1.0, legs[-1][1])
    assert legs[-1][1].end == END
    assert all(a[1].end == b[1].start and a[0] < b[0] for a, b in pairwise(legs))
    assert rapid_time_s(START, END, machine("bent")) > 0


def test_where_nobody_says_both_ways_are_looked_at() -> None:
    assert bent_ways(moved(), machine("straight")) == [moved()]
    assert moved() in bent_ways(moved(), machine("unsaid"))
    assert moved() not in bent_ways(moved(), machine("bent"))
    assert not goes_bent(moved((5, 60), (5, 10)), machine("bent"))
    assert not goes_bent(moved((5, 60), (-95, 60)), machine("bent"))


def contacts(job: Job, rapids: str) -> list[str]:
    """What meets when the first tool goes from beside the bar to the middle of its face in one rapid."""
    job = job.changed(machine=job.machine.changed(rapids=rapids, rapid_z_mm_min=1200, rapid_x_mm_min=24000))
    engine = Engine()
    plans = engine.sides(job)
    front, r = plans[0].scene.stock_front_z, plans[0].scene.stock_r
    lines = post(plans[0], engine.language(job)).text.splitlines()
    at = next(n for n, line in enumerate(lines) if line.endswith("M8")) + 1
    way = [f"G0 X{2 * r + 200:.3f}", f"Z{front - 20:.3f}", f"X4. Z{front + 6:.3f}", f"Z{front + 30:.3f}"]
    text = "\n".join([*lines[:at], *way, *lines[at:]]) + "\n"
    return [one.what for one in prove_whole(plans, engine.language(job), {0: text}).proofs[0].contacts]


def test_a_bent_rapid_runs_into_the_bar_beside_the_straight_way(spear: Job) -> None:
    assert contacts(spear, "straight") == []
    assert "rapid in metal" in contacts(spear, "bent")
    assert "rapid in metal" in contacts(spear, "unsaid")
