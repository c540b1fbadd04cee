"""Waits between channels, and the part going from one spindle to the other."""

from collections.abc import Callable
from functools import cache

import pytest

from tests.support.kept import plan
from toreuma.core.channels.hand_over import hand_over
from toreuma.core.channels.transfer import Transfer
from toreuma.core.channels.waits import Act, Wait, laid_out
from toreuma.core.model import Chuck, HandOver, HolesBeside, Job, SecondHold
from toreuma.core.plan import Plan
from toreuma.shipped.library import demo_job

BOTH = frozenset((1, 2))


def act(seconds: float) -> Act:
    return Act("work", "work", seconds)


def test_channels_wait_for_the_later_one() -> None:
    channels = {1: (act(2), Wait(1, BOTH), act(1), Wait(2, BOTH)), 2: (act(5), Wait(1, BOTH), Wait(2, BOTH), act(3))}
    laid = laid_out(channels)
    assert laid.stuck == ()
    assert laid.times[1] == ((0, 2), (2, 5), (5, 6), (6, 6))
    assert laid.times[2][3] == (6, 9)
    assert laid.total_s == 9
    assert laid.waited_s(channels) == {1: 3, 2: 1}


@pytest.mark.parametrize(
    ("one", "two", "why"),
    [
        ((Wait(1, BOTH), Wait(2, BOTH)), (Wait(2, BOTH), Wait(1, BOTH)), "swapped"),
        ((Wait(1, BOTH), Wait(2, BOTH)), (Wait(1, BOTH),), "ended"),
        ((Wait(1, BOTH),), (act(1),), "ended"),
        ((Wait(1, BOTH), Wait(3, BOTH)), (Wait(1, BOTH), Wait(2, BOTH)), "never comes"),
        ((Wait(1, frozenset((1, 3))),), (), "no channel 3"),
    ],
)
def test_who_waits_for_ever_is_found(one: tuple[Wait, ...], two: tuple[Act | Wait, ...], why: str) -> None:
    stuck = laid_out({1: one, 2: two}).stuck
    assert any(why in item.why for item in stuck)


@cache
def planned() -> tuple[Job, Plan]:
    job = demo_job("runner-hub")
    return job, plan(job)


def taken(change: Callable[[Job], Job] = lambda job: job, again: bool = False) -> Transfer:
    job, first = planned()
    job = change(job)
    made = hand_over(job, plan(job) if again else first)
    assert made is not None
    return made


def codes(made: Transfer) -> dict[str, str]:
    found: dict[str, str] = {}
    for one in made.findings:
        if one.severity == "error":
            found[one.code] = found.get(one.code, "") + one.what
    return found


def asked(**changes: object) -> Callable[[Job], Job]:
    return lambda job: job.changed(hand_over=job.hand_over.changed(**changes))


def test_the_runner_hub_is_taken_over() -> None:
    made = taken()
    assert codes(made) == {}
    second = planned()[0].machine.second
    assert second.least_gap_mm < made.gap_mm < second.retracted_gap_mm
    assert made.gap_mm + made.back_mm == pytest.approx(second.retracted_gap_mm)
    assert made.reasons["datum"].number == -42
    assert made.reasons["excess"].number == pytest.approx(2.0)
    assert made.jaws.bounds[0] == pytest.approx(made.jaw_face_z)
    assert made.piece.intersection(made.jaws).area < 0.05


def held(**changes: float) -> Callable[[Job], Job]:
    """The hold of the second side changed."""
    return lambda job: job.changed(
        setups=(job.setup, job.setups[1].changed(hold=job.setups[1].hold.changed(**changes)))
    )


def order(made: Transfer) -> list[str]:
    """All acts of both channels by when they begin."""
    rows = [
        (start, n, item.code)
        for n, channel in enumerate(made.channels)
        for (start, _), item in zip(made.laid.times[channel], made.channels[channel], strict=True)
        if isinstance(item, Act)
    ]
    return [code for _, _, code in sorted(rows)]


def test_nothing_lets_go_before_the_other_holds() -> None:
    steps = order(taken())
    for early, late in (
        ("park", "come"), ("open_second", "come"), ("blow", "come"), ("phase", "feed"), ("feed", "close_second"),
        ("confirm", "open_main"), ("open_main", "retreat"), ("retreat", "ask"),
    ):  # fmt: skip
        assert steps.index(early) < steps.index(late), (early, late)
    turning = order(taken(asked(rpm=1500, phase=False)))
    assert turning.index("sync") < turning.index("come")
    assert "phase" not in turning
    drawn = order(taken(asked(how="pulled")))
    assert drawn.index("open_main") < drawn.index("pull") < drawn.index("close_main") < drawn.index("part_off")


@pytest.mark.parametrize(
    ("change", "code", "words"),
    [
        (asked(rpm=4600), "transfer.speed", "4200 rpm"),
        (asked(phase=False), "transfer.phase", "wrench flats"),
        (asked(push_n=9000), "transfer.push", "4000 N"),
        (asked(park_d_mm=150), "transfer.park", "lower turret"),
        (asked(how="parted"), "transfer.uncut", "parts it off"),
        (held(stick_out_mm=12.5), "transfer.jaws", "between the jaws"),
        (held(grip_length_mm=60), "transfer.depth", "jaws are"),
        (lambda j: j.changed(second_hold=SecondHold(element=2, grip_length_mm=5)), "second.shape", "no cylinder"),
    ],
)
def test_what_must_hold_before_it_is_checked(change: Callable[[Job], Job], code: str, words: str) -> None:
    job = change(planned()[0])
    made = hand_over(job, plan(job))
    assert words in codes(made)[code]
    cures = [one.cures[0] for one in made.findings if one.code == code and one.cures]
    if cures:
        cured = cures[0].apply(job)
        assert code not in codes(hand_over(cured, plan(cured)))


def test_spindles_that_cannot_meet_say_how_much_is_missing() -> None:
    def apart(job: Job, **changes: float) -> Job:
        return job.changed(machine=job.machine.changed(second=job.machine.second.changed(**changes)))

    assert "closer" in codes(taken(lambda j: apart(j, least_gap_mm=300)))["transfer.reach"]
    assert "go back" in codes(taken(lambda j: apart(j, travel_mm=105)))["transfer.room"]


def test_a_longer_neighbour_in_the_turret_is_seen() -> None:
    """A boring bar beside the parked tool reaches farther in than the tool itself."""
    job, first = planned()
    turret = job.machine.carriers[0].changed(reference_d_mm=215, station_pitch_mm=30)
    low = job.changed(machine=job.machine.changed(carriers=(turret, job.machine.carriers[1])))
    found = codes(hand_over(low, first))["transfer.park"]
    assert "lower turret" in found


def test_without_a_second_spindle_nothing_is_handed_over() -> None:
    job, first = planned()
    assert hand_over(job.changed(hand_over=None), first) is None
    alone = job.machine.changed(second=None, carriers=tuple(c.changed(reaches=("main",)) for c in job.machine.carriers))
    assert hand_over(job.changed(machine=alone), first) is None


def test_one_channel_does_it_all_in_order() -> None:
    job, first = planned()
    one = job.machine.changed(carriers=tuple(c.changed(channel=1) for c in job.machine.carriers))
    made = hand_over(job.changed(machine=one), first)
    assert list(made.channels) == [1]
    steps = [item.code for item in made.channels[1] if isinstance(item, Act)]
    assert steps.index("close_second") < steps.index("open_main") < steps.index("retreat")


def test_settings_have_their_limits() -> None:
    assert isinstance(planned()[0].setups[1].hold, Chuck)
    assert any(isinstance(op, HolesBeside) for op in planned()[0].operations)
    with pytest.raises(ValueError, match="rpm"):
        HandOver(rpm=-1)


def unfaced(job: Job) -> Job:
    other = job.setups[1]
    left = tuple(op for op in other.operations if op.kind != "face")
    return job.changed(setups=(job.setup, other.changed(operations=left)))


@pytest.mark.parametrize(
    ("change", "code"),
    [
        (unfaced, "transfer.length"),
        (lambda j: j.changed(hand_over=j.hand_over.changed(approach_mm=900)), "transfer.room"),
        (lambda j: j.changed(hand_over=j.hand_over.changed(how="parted", rpm=500)), "transfer.uncut"),
        (lambda j: j.changed(hand_over=j.hand_over.changed(how="pulled", rpm=500)), "transfer.bar"),
    ],
)
def test_every_condition_has_a_cure_that_mends_it(change: Callable[[Job], Job], code: str) -> None:
    wrong = change(planned()[0])
    made = hand_over(wrong, plan(wrong))
    assert made is not None
    found = next(one for one in made.findings if one.code == code)
    assert found.cures
    for cure in found.cures:
        mended = cure.apply(wrong)
        after = hand_over(mended, plan(mended))
        assert after is not None
        assert code not in {one.code for one in after.findings}, cure.label
