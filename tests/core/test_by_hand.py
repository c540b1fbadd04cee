"""A part turned round by hand: bored jaws, what is measured, every finding with a cure that mends it."""

import pytest

from tests.support.kept import plan
from toreuma.core.channels.by_hand import turned_by_hand
from toreuma.core.model import Job, PartOff
from toreuma.files.jobs import job_text, parse_job
from toreuma.shipped.library import demo_job


def codes(job: Job) -> set[str]:
    made = turned_by_hand(job, plan(job))
    assert made is not None
    return {one.code for one in made.findings}


def held(job: Job, **changes: object) -> Job:
    return job.changed(setups=(job.setup, job.setups[1].changed(hold=job.setups[1].hold.changed(**changes))))


def test_it_says_what_is_bored_measured_and_how_long_it_takes() -> None:
    job = demo_job("seat-ring")
    made = turned_by_hand(job, plan(job))
    assert made is not None
    numbers = {key: one.number for key, one in made.reasons.items()}
    d = job.part.outside[job.second_hold.element].d_mm
    assert numbers["bored"] == numbers["grip_d"] == pytest.approx(d, abs=0.03)  # the middle of its limits
    # What stands out of the jaws, and what they hold of it, is the part and what is still to be faced.
    assert numbers["datum"] == pytest.approx(-plan(job).scene.profile.back_z)
    assert numbers["out"] <= numbers["datum"] + numbers["excess"]
    assert made.seconds == pytest.approx(sum(act.seconds for act in made.channels[1]))
    slower = job.changed(turn_round={"turn_s": 60})
    assert turned_by_hand(slower, plan(slower)).seconds == pytest.approx(made.seconds + 40)
    assert parse_job(job_text(slower)).turn_round == slower.turn_round


@pytest.mark.parametrize(
    ("changes", "code"),
    [
        ({"jaws": "hard", "bored_d_mm": None}, "turn.hard"),
        ({"bored_d_mm": None}, "turn.bore"),
        ({"bored_d_mm": 90.0}, "turn.bore"),
        ({"bored_depth_mm": None}, "turn.seat"),
    ],
)
def test_jaws_that_do_not_suit_are_told_and_mended(changes: dict[str, object], code: str) -> None:
    job = held(demo_job("seat-ring"), **changes)
    made = turned_by_hand(job, plan(job))
    assert made is not None
    found = next(one for one in made.findings if one.code == code)
    assert code not in codes(found.cures[0].apply(job))


def test_a_part_that_falls_is_caught_before_it_is_gripped_again() -> None:
    job = demo_job("spear")
    seat = next(n for n, one in enumerate(job.part.outside) if one.name == "Guide")
    grip = {"element": seat, "grip_length_mm": 6}
    job = job.changed(second_hold=grip, setups=(job.setup, demo_job("seat-ring").setups[1]))
    job = held(job, stick_out_mm=40.0, grip_length_mm=6.0)
    made = turned_by_hand(job, plan(job))
    assert made is not None
    found = next(one for one in made.findings if one.code == "turn.falls")
    cured = found.cures[0].apply(job)
    assert next(op for op in cured.operations if isinstance(op, PartOff)).taken == "caught"
    assert "turn.falls" not in codes(cured)


def test_a_second_spindle_takes_the_part_itself() -> None:
    hub = demo_job("runner-hub")
    assert turned_by_hand(hub, plan(hub)) is None
    spear = demo_job("spear")
    assert turned_by_hand(spear, plan(spear)) is None
