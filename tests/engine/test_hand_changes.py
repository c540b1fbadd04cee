"""A planned program changed by hand: kept where the plan still writes the same, told where it does not."""

import pytest

from toreuma.core.model import Job
from toreuma.core.plan import Plan
from toreuma.engine.engine import Engine
from toreuma.engine.hand_changes import changes_from, stretches, without_change, written
from toreuma.shipped.library import demo_job, dialect

LANGUAGE = dialect("system-a")


@pytest.fixture
def planned() -> Plan:
    return Engine().plan(demo_job("spear"))


def changed(plan: Plan, was: str, now: str) -> Job:
    text = written(plan, LANGUAGE).text
    assert was in text
    found = changes_from(text.replace(was, now, 1), plan, LANGUAGE)
    assert found is not None
    return plan.job.changed(program=plan.job.program.changed(by_hand=found))


def test_stretches_are_the_operations_in_order(planned: Plan) -> None:
    pieces = stretches(written(planned, LANGUAGE).text, planned, LANGUAGE)
    assert [one for one, _ in pieces] == ["", *(one.operation.id for one in planned.operations if one.motions)]
    assert not any(line.startswith("N1") for _, text in pieces for line in text.split("\n"))


def test_a_change_is_written_and_numbers_run_on(planned: Plan) -> None:
    job = changed(planned, "M8\n", "M8\nG4 P500\n")
    made = written(Engine().plan(job), LANGUAGE)
    assert "G4 P500" in made.text
    assert len(made.taken) == 1
    assert made.open == ()
    numbers = [int(line.split()[0][1:]) for line in made.text.split("\n") if line.startswith("N")]
    assert numbers == list(range(10, 10 * len(numbers) + 1, 10))
    assert made.planned == written(planned, LANGUAGE).text


def test_what_is_proved_is_the_changed_text(planned: Plan) -> None:
    engine = Engine()
    job = changed(planned, "F0.", "F0.9")
    whole = engine.prove_whole(engine.sides(job), {})
    assert whole.verdict.state == "unsafe"
    assert any(one.code == "told.feed" for proof in whole.proofs for one in proof.findings)


def test_a_plan_that_changes_elsewhere_keeps_the_hand(planned: Plan) -> None:
    job = changed(planned, "M8\n", "M8\nG4 P500\n")
    first = next(one for one in planned.operations if one.motions).operation.id
    other = next(one.operation for one in reversed(planned.operations) if one.motions)
    assert other.id != first
    later = job.with_setup(operations=tuple(one for one in job.operations if one.id != other.id))
    made = written(Engine().plan(later), LANGUAGE)
    assert "G4 P500" in made.text


def test_a_plan_that_changes_there_asks_mine_or_the_plans(planned: Plan) -> None:
    job = changed(planned, "M8\n", "M8\nG4 P500\n")
    operation = next(one.operation for one in planned.operations if one.motions)
    renamed = job.with_operation(operation.id, lambda one: one.changed(name="another name"))
    plan = Engine().plan(renamed)
    made = written(plan, LANGUAGE)
    assert "G4 P500" not in made.text
    (finding,) = made.findings
    assert finding.code == "program.by_hand"
    mine, plans = finding.cures
    again = written(Engine().plan(mine.apply(renamed)), LANGUAGE)
    assert "G4 P500" in again.text
    assert written(Engine().plan(plans.apply(renamed)), LANGUAGE).findings == ()


def test_a_comment_that_is_gone_leaves_nothing_to_hold_on_to(planned: Plan) -> None:
    text = written(planned, LANGUAGE).text
    line = next(one for one in text.split("\n") if one.startswith("(OP 2"))
    assert changes_from(text.replace(line + "\n", ""), planned, LANGUAGE) is None
    assert changes_from(text, planned, LANGUAGE) == ()


def test_a_change_is_taken_back(planned: Plan) -> None:
    job = changed(planned, "M8\n", "M8\nG4 P500\n")
    assert without_change(job, job.program.by_hand[0]).program.by_hand == ()
    kept = Job.model_validate_json(job.model_dump_json())
    assert kept.program.by_hand == job.program.by_hand
