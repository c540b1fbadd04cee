"""Programs of two channels: written, read back together, proved on both spindles, and every sabotage caught."""

import itertools
import re
from collections.abc import Callable
from functools import cache

import pytest

from tests.support.handed import Planned, handed, planned_demo
from tests.support.kept import plan, plan_sides, prove_channels
from tests.support.long import everyday
from toreuma.core.channels.hand_over import hand_over
from toreuma.core.model import Job, SecondHold, ThreadFeature
from toreuma.core.plan.sides.second_side import second_setup
from toreuma.core.prove.together import together
from toreuma.engine.pair import PairProof, read_channels, references, texts_of
from toreuma.shipped.library import demo_job, dialect, machines


def planned() -> Planned:
    return planned_demo("runner-hub")


@cache
def texts() -> dict[int, str]:
    return texts_of(*planned(), dialect("system-a"))


@cache
def proof() -> PairProof:
    return prove_channels(*planned(), dialect("system-a"))


def test_the_runner_hub_is_made_complete() -> None:
    made = proof()
    assert made.ok, [one.what for one in made.findings if one.severity == "error"]
    assert made.gouge_um <= 2
    assert made.leftover_um == 0
    assert (made.first.contacts, made.second.contacts) == ((), ())
    _, sides, taken = planned()
    together_s = sum(side.times.total_s for side in sides) + taken.seconds
    assert made.ran.seconds == pytest.approx(together_s, rel=0.05)


def test_the_second_side_is_cut_on_what_the_first_really_left() -> None:
    """The blank of the second side is the simulated piece: it is as long as the slug less the first face."""
    ends = proof().first.final.bounds
    assert ends[2] - ends[0] == pytest.approx(44.0, abs=0.01)
    assert proof().second.final.bounds[2] == pytest.approx(0.0, abs=0.002)


def test_no_two_channels_move_at_the_same_time_while_one_waits_for_the_other() -> None:
    moves = [one for one in proof().ran.happened if one.motion is not None and one.end_s > one.start_s]
    for channel in (1, 2):
        mine = [one for one in moves if one.channel == channel]
        assert all(a.end_s <= b.start_s + 1e-6 for a, b in itertools.pairwise(mine))
    cuts = [one for one in moves if one.motion and not one.motion.is_rapid]
    for a, b in itertools.pairwise(cuts):
        assert a.end_s <= b.start_s + 1e-6


def test_every_mark_is_there_once_in_both_channels() -> None:
    marks = [re.findall(r"M(1\d\d) P12", text) for text in texts().values()]
    assert marks[0] == marks[1] == [str(101 + n) for n in range(len(marks[0]))]


def spoiled(channel: int, pattern: str, instead: str) -> dict[int, str]:
    found = dict(texts())
    found[channel] = re.sub(pattern, instead, found[channel])
    assert found[channel] != texts()[channel], pattern
    return found


PARK = r"\n(N\d+ )G28 U0\nN\d+ G28 W0\n(N\d+ M5\nN\d+ M105)"

SABOTAGE = {
    "a carrier not parked": (spoiled, 2, PARK, r"\n\2", "transfer.park", "not parked"),
    "a wait removed": (spoiled, 1, r"N\d+ M107 P12\n", "", "wait.stuck", "for ever"),
    "a wait swapped": (spoiled, 1, r"M106 P12\n(N\d+ )M107 P12", r"M107 P12\n\1M106 P12", "wait.stuck", "swapped"),
    "deeper than the jaws are set": (spoiled, 2, r"B-28\.", "B-31.", "transfer.depth", "deeper"),
    "a wrong datum": (spoiled, 2, r"G10 L2 P2 Z-42\.", "G10 L2 P2 Z-41.5", "transfer.datum", "0.500 mm"),
    "no datum": (spoiled, 2, r"N\d+ G10 L2 P2 Z-42\.\n", "", "transfer.datum", "never set"),
    "second jaws not opened": (spoiled, 2, r"N\d+ M81\n", "", "transfer.closed", "not opened"),
    "first jaws not opened": (spoiled, 1, r"N\d+ M11\n", "", "transfer.gripped", "still grips"),
    "the second hold never closes": (spoiled, 2, r"N\d+ M82\n", "", "transfer.lost", "without having closed"),
    "angles not matched": (spoiled, 2, r"N\d+ M86\n", "", "transfer.phase", "no angle"),
    "in rapid to the grip": (spoiled, 2, r"G1 B-28\. F600\.", "G0 B-28.", "transfer.rapid", "rapid"),
    "a tool moved meanwhile": (
        spoiled, 1, r"(N\d+ M106 P12)", r"\1\nG0 X100. Z-10.", "transfer.moving", "handed over",
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", everyday(SABOTAGE, "a wait swapped", "a wrong datum", "first jaws not opened"))
def test_a_spoiled_hand_over_is_caught(name: str) -> None:
    make, channel, pattern, instead, code, words = SABOTAGE[name]
    made = prove_channels(*planned(), dialect("system-a"), make(channel, pattern, instead))
    found = {one.code: one.what for one in made.findings if one.severity == "error"}
    assert words in found[code], found


def test_a_hold_opened_on_a_turning_spindle_is_caught() -> None:
    both = {channel: re.sub(r"N\d+ M5\n", "", text) for channel, text in texts().items()}
    made = prove_channels(*planned(), dialect("system-a"), both)
    assert "transfer.turning" in {one.code for one in made.findings}


def at_speed(rpm: float) -> Planned:
    job, sides, _ = planned()
    turning = job.changed(hand_over=job.hand_over.changed(rpm=rpm))
    taken = hand_over(turning, sides[0])
    assert taken is not None
    return turning, sides, taken


def test_both_at_speed_is_allowed_and_too_fast_is_not() -> None:
    language = dialect("system-a")
    fine = at_speed(1000)
    assert prove_channels(*fine, language).ok
    fast = {channel: text.replace("M84 S1000", "M84 S4900") for channel, text in texts_of(*fine, language).items()}
    made = prove_channels(*fine, language, fast)
    assert "4200 rpm" in {one.code: one.what for one in made.findings}["transfer.speed"]


PLANNED: dict[str, tuple[Callable[[Job], Job], str]] = {
    "a grip on a thread": (
        lambda j: j.changed(part=j.part.changed(features=(
            *j.part.features, ThreadFeature(designation="M78x2-6g", from_z_mm=-22, length_mm=18)))), "thread"),
    "parted off before it is held": (lambda j: parted(), "parted off before"),
}  # fmt: skip


def parted() -> Job:
    """The spear on the twin-spindle machine: its route parts it off, and the second spindle is to take it released."""
    spear = demo_job("spear")
    seat = next(n for n, one in enumerate(spear.part.outside) if one.name == "Thread seat")
    twin = machines()["twin-spindle mill-turn"]
    return spear.changed(machine=twin, second_hold=SecondHold(element=seat, grip_length_mm=6), hand_over={})


@pytest.mark.parametrize("name", PLANNED)
def test_a_wrong_hand_over_is_seen_from_the_plan(name: str) -> None:
    change, words = PLANNED[name]
    job = change(planned()[0])
    made = hand_over(job, plan(job))
    assert made is not None
    assert any(words in one.what or words in one.why for one in made.findings if one.severity == "error")


def from_bar(**changes: object) -> Planned:
    """The spear from bar on the twin-spindle machine, gripped on its guide and cut off between both."""
    guide = next(n for n, one in enumerate(demo_job("spear").part.outside) if one.name == "Guide")
    grip = SecondHold(element=guide, grip_length_mm=6)
    over = {"how": "parted", "rpm": 1000, **changes}
    job = parted().changed(second_hold=grip, hand_over=over)
    whole = job.changed(setups=(job.setup, second_setup(job)))
    return handed(whole)


def test_a_bar_is_cut_off_while_both_hold_it() -> None:
    job, sides, taken = from_bar()
    assert [one.code for one in taken.findings if one.severity == "error"] == []
    language = dialect("system-a")
    made = prove_channels(job, sides, taken, language)
    assert made.ok, [one.what for one in made.findings if one.severity == "error"]
    assert made.first.parted
    cuts = [one for one in made.ran.happened if one.motion is not None and one.motion.section >= 0]
    off = max(one.motion.section for one in cuts if one.motion)
    closed = next(one.end_s for one in made.ran.happened if one.mark is not None and one.mark.what == "second_close")
    assert all((one.start_s >= closed - 1e-6) == (one.motion.section == off) for one in cuts if one.motion)
    early = {channel: re.sub(r"N\d+ M82\n", "", text) for channel, text in made.texts.items()}
    assert "transfer.lost" in {one.code for one in prove_channels(job, sides, taken, language, early).findings}


def test_what_is_twisted_off_is_refused() -> None:
    assert "transfer.still" in {one.code for one in from_bar(rpm=0)[2].findings}


@cache
def drawn() -> Planned:
    """The stud in a row, its bar drawn out by the second spindle instead of fed to a stop."""
    job = demo_job("vane-stud")
    fed = next(op.id for op in job.operations if op.kind == "feed_bar")
    job = job.changed(hand_over=job.hand_over.changed(how="pulled"))
    sides = plan_sides(job)
    told = {one.code: one for one in hand_over(job, sides[0]).findings}
    job = told["transfer.fed"].cures[0].apply(job)
    assert not job.operation(fed).enabled
    return handed(job)


@cache
def drawn_proof() -> PairProof:
    return prove_channels(*drawn(), dialect("system-a"))


def test_bar_is_drawn_out_cut_off_and_is_as_long_as_the_next_part_wants() -> None:
    _, sides, taken = drawn()
    assert taken.findings == ()
    assert "loop.feed" not in {one.code for one in sides[0].all_findings}
    made = drawn_proof()
    assert made.ok, [one.what for one in made.findings if one.severity == "error"]
    assert (made.gouge_um <= 2, made.leftover_um, made.contacts) == (True, 0, ())
    assert len(made.made) == 2
    piece = made.scenery.pieces[0]
    scene = sides[0].scene
    assert piece.drawn_mm == pytest.approx(scene.stock_front_z - scene.profile.back_z + 2.5, abs=0.001)
    before, after = (made.scenery.at(at).holds[0].metal.bounds[2] for at in (piece.pull.start_s, piece.pull.end_s))
    assert after - before == pytest.approx(piece.drawn_mm, abs=0.01)
    # The next part begins with what the last cut left, where the first one began.
    later = made.scenery.at(piece.back.end_s + 0.01).holds[0].metal
    assert later.bounds[2] == pytest.approx(scene.stock_front_z, abs=0.01)


def test_a_bar_drawn_too_far_is_seen_from_the_plan() -> None:
    job, sides, _ = drawn()
    wrong = job.changed(hand_over=job.hand_over.changed(pull_mm=60.0))
    found = next(one for one in hand_over(wrong, sides[0]).findings if one.code == "transfer.pull")
    assert "too long" in found.why
    assert hand_over(found.cures[0].apply(wrong), sides[0]).findings == ()
    slug = demo_job("runner-hub")
    slug = slug.changed(hand_over=slug.hand_over.changed(how="pulled"))
    assert "transfer.bar" in {one.code for one in hand_over(slug, plan(slug)).findings}


@pytest.mark.parametrize(
    ("channel", "pattern", "instead", "code", "words"),
    [
        (1, r"N\d+ M11\n", "", "transfer.gripped", "draws at the bar"),
        (1, r"N\d+ M10\n", "", "transfer.unheld", "stays open"),
        (2, r"(G1 )?B0\.03\S*( F\S+)?", r"G1 B0.3 F23.6", "transfer.pull", "too long"),
    ],
)
def test_a_spoiled_pull_is_caught(channel: int, pattern: str, instead: str, code: str, words: str) -> None:
    texts = dict(drawn_proof().texts)
    pull = re.search(r"DRAWS .*\n(N\d+ )(?:G1 )?B(\S+)", texts[2])
    assert pull is not None
    if channel == 2:
        pattern, instead = rf"{re.escape(pull.group(0))}", pull.group(0).replace(f"B{pull.group(2)}", "B0.9")
    texts[channel] = re.sub(pattern, instead, texts[channel])
    assert texts[channel] != drawn_proof().texts[channel]
    made = prove_channels(*drawn(), dialect("system-a"), texts)
    found = {one.code: one.what for one in made.findings if one.severity == "error"}
    assert words in found.get(code, ""), found


def test_inch_programs_mean_the_same() -> None:
    job, sides, taken = planned()
    inch = job.changed(units="inch")
    made = prove_channels(inch, plan_sides(inch), taken, dialect("system-a"))
    assert made.ok, [one.what for one in made.findings if one.severity == "error"]
    assert sides[0].scene.profile.back_z == -42


def test_lines_are_counted_on_from_channel_to_channel() -> None:
    job, sides, _ = planned()
    ran = read_channels(job, sides, texts(), dialect("system-a"))
    first = len(texts()[1].splitlines())
    assert all((one.line > first) == (one.channel == 2) for one in ran.happened)
    assert references(sides[0])[1] != references(sides[0])[2]
    assert together({}, job.machine).seconds == 0
