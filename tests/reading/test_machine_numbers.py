"""Numbers of a control that a machine has its own way: how far cycles draw back, where pecks begin, how threads end."""

import re

import pytest

from toreuma.core.model import Job, Machine
from toreuma.core.post import post
from toreuma.core.read.kinds import kind_of
from toreuma.engine.engine import Engine
from toreuma.engine.foreign import Foreign, read_foreign
from toreuma.engine.judging import prove_whole
from toreuma.engine.library import library
from toreuma.shipped.library import demo_job

THREAD = "O1\nG21 G99 G18\nT0101\nG97 S500 M3\nG0 X22. Z4.\n{words}G92 X19.2 Z-20. F2.\nX18.9\nG0 X60. Z60.\nM30\n"
HOLE = "O1\nG21 G99 G18\nT0202\nG97 S500 M3\nG0 X0 Z2.\nG83 Z-20. Q5000 R0 F0.1\nG80\nG0 X60. Z60.\nM30\n"
GROOVE = "O1\nG21 G99 G18\nT0303\nG97 S500 M3\nG0 X31. Z-10.\nG75 X20. P2000 F0.1\nG0 X60. Z60.\nM30\n"


def of(text: str, **numbers: object) -> Foreign:
    own: Machine = library().machine("slant-bed").changed(**numbers)
    return read_foreign(text, machine=own)


def threaded(found: Foreign) -> list[tuple[float, float]]:
    return [(m.end[0], round(2 * m.end[1], 3)) for m in found.program.motions if m.in_step]


def test_a_thread_ends_square_unless_the_machine_has_a_run_out() -> None:
    assert threaded(of(THREAD.format(words=""))) == [(-20.0, 19.2), (-20.0, 18.9)]


def test_a_thread_runs_out_over_as_many_leads_as_the_machine_has_set() -> None:
    found = threaded(of(THREAD.format(words=""), thread_run_out=1.0))
    assert found == [(-18.0, 19.2), (-20.0, 23.2), (-18.0, 18.9), (-20.0, 22.9)]


def test_words_of_the_machine_switch_the_run_out_off_and_on() -> None:
    words = ("M23 chamfer_on", "M24 chamfer_off")
    off = of(THREAD.format(words="M24\n"), thread_run_out=1.0, words=words)
    assert threaded(off) == [(-20.0, 19.2), (-20.0, 18.9)]
    assert len(threaded(of(THREAD.format(words="M23\n"), thread_run_out=0.5, words=words))) == 4


def test_a_run_out_that_is_asked_for_and_has_no_number_is_a_question() -> None:
    found = of(THREAD.format(words="M23\n"), words=("M23 chamfer_on",))
    (asked,) = [one for one in found.program.findings if one.code == "thread.run_out"]
    assert kind_of(asked) == "question"
    assert asked.line == 7


@pytest.mark.parametrize("back", [None, 0.2])
def test_a_deep_hole_is_gone_on_with_as_near_as_the_machine_comes_back(back: float | None) -> None:
    found = of(HOLE, peck_back_mm=back)
    begun = [m.segment.start[0] for m in found.program.motions if m.feed is not None]
    assert begun[1] == pytest.approx(-3 + (back or 0.5))


@pytest.mark.parametrize("lift", [None, 0.1])
def test_a_groove_draws_back_as_far_as_the_machine_has_set(lift: float | None) -> None:
    found = of(GROOVE, lift_mm=lift)
    radii = [m.end[1] for m in found.program.motions]
    first = next(n for n, r in enumerate(radii) if r == pytest.approx(13.5))
    assert radii[first + 1] - radii[first] == pytest.approx(lift or 0.5)


def written(job: Job, **numbers: object) -> str:
    return post(Engine().sides(on(job, **numbers))[0], Engine().language(on(job, **numbers))).text


def on(job: Job, **numbers: object) -> Job:
    return job.changed(machine=job.machine.changed(**numbers))


def test_a_planned_thread_ends_square_on_a_machine_that_runs_threads_out() -> None:
    job = demo_job("vane-stud")
    assert "G92" in written(job)
    by_moves = written(job, thread_run_out=1.0)
    assert "G92" not in by_moves
    assert by_moves.count("G32") > 5
    by_word = written(job, thread_run_out=1.0, words=("M23 chamfer_on", "M24 chamfer_off"))
    lines = by_word.splitlines()
    first = next(n for n, line in enumerate(lines) if "G92" in line)
    assert lines[first - 1].endswith("M24")
    assert by_word.count("M24") == 1


@pytest.mark.parametrize("numbers", [{"thread_run_out": 1.0}, {"thread_run_out": 1.0, "words": ("M24 chamfer_off",)}])
def test_what_is_written_for_such_a_machine_is_proved(numbers: dict[str, object]) -> None:
    engine, job = Engine(), demo_job("vane-stud")
    found = []
    for each in (job, on(job, **numbers)):
        sides = engine.sides(each)
        found.append(prove_whole(sides, engine.language(each)).verdict.words)
    assert found[0] == found[1]


def test_a_plan_is_written_in_the_words_of_its_machine() -> None:
    job = demo_job("vane-stud")
    text = written(job, words=("M168 catcher_in", "M3 nothing"))
    assert "M168" in text
    assert "M77" not in text
    assert re.search(r"\bM3\b", text)
