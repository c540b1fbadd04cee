"""What a drawing usually says: each missing thing is named once, its cure says it, and what is said is not asked."""

import pytest

from tests.support.kept import plan
from toreuma.core.advise.unsaid import unsaid
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.model import Job
from toreuma.core.standards.threads import thread_of
from toreuma.engine.fresh import new_job
from toreuma.shipped.library import demo_job, demo_names
from toreuma.shipped.standards import thread_tables

BARE = "M24 x 20 / 30 x 10 ra 0.8 / 40 h6 x 20 / 50 x 5"
SAID = (
    "M24-6g x 20 relief c1 / 30 h7 x 10 ra 0.8 r0.4 / 40 h6 x 20 relief E / 50 x 5 c1 back"
    "; break 0.3; general m; ra 3.2"
)


def job_of(line: str) -> Job:
    return new_job("a part", "mm", "", "", line)[0]


def codes(job: Job) -> list[str]:
    return [finding.code.removeprefix("unsaid.") for finding in unsaid(job.part)]


def test_what_is_missing_is_named_and_what_is_said_is_not() -> None:
    assert codes(job_of(BARE)) == ["general", "finish", "edges", "end", "end", "class", "seat", "corner"]
    assert codes(job_of(SAID)) == []


@pytest.mark.parametrize("job", [job_of(BARE), *(demo_job(name) for name in demo_names())], ids=lambda job: job.name)
def test_every_cure_says_what_was_missing_and_leaves_a_part(job: Job) -> None:
    for finding in unsaid(job.part):
        for cure in finding.cures:
            cured = cure.apply(job)
            build_part(cured.part)
            assert len(unsaid(cured.part)) < len(unsaid(job.part))
            for feature in cured.part.features:
                name = feature.designation if feature.kind == "thread" else getattr(feature, "thread", "")
                if name:
                    thread_of(name, thread_tables())


def test_a_bar_thicker_than_the_spindle_is_said_with_the_piece_to_saw() -> None:
    job = job_of("60 x 40")
    narrow = job.changed(machine=job.machine.changed(spindle_bore_mm=50.0))
    findings = [one for one in plan(narrow).findings if one.code == "stock.bore"]
    assert len(findings) == 1
    cured = findings[0].cures[0].apply(narrow)
    assert not [one for one in plan(cured).findings if one.code == "stock.bore"]
    assert not [one for one in plan(job).findings if one.code == "stock.bore"]
