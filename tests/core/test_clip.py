"""Copied from one job, pasted into another: what comes is what went, with its tools, or one clear line."""

import pytest

from tests.support.kept import plan
from toreuma.core.edit.clip import clip_of_feature, clip_of_hold, clip_of_operation, pasted
from toreuma.core.errors import JobError
from toreuma.core.model import Job
from toreuma.engine.fresh import new_job
from toreuma.shipped.library import demo_job, demo_names


@pytest.fixture
def blank_job() -> Job:
    return new_job("another", "mm", "", "", "30 x 40 / 50 x 20")[0]


@pytest.mark.parametrize("name", demo_names())
def test_every_operation_of_every_demo_job_comes_over_with_its_tools(name: str, blank_job: Job) -> None:
    source = demo_job(name)
    job = blank_job
    for operation in source.operations:
        job = pasted(job, clip_of_operation(source, operation.id))
    assert [one.kind for one in job.operations] == [one.kind for one in source.operations]
    assert len({one.id for one in job.operations}) == len(job.operations)
    tools = {tool.id: tool.name for tool in job.tools}
    assert [[tools[t] for t in one.tools] for one in job.operations] == [
        [source.tool(t).name for t in one.tools]  # type: ignore[union-attr]
        for one in source.operations
    ]
    assert len(job.tools) == len({t for one in source.operations for t in one.tools})
    assert len({tool.station for tool in job.tools}) == len(job.tools)


def test_pasted_twice_it_stands_twice_and_shares_its_tool() -> None:
    spear = demo_job("spear")
    text = clip_of_operation(spear, spear.operations[1].id)
    job = pasted(pasted(spear, text), text, after=spear.operations[0].id)
    assert len(job.operations) == len(spear.operations) + 2
    assert job.operations[1].kind == spear.operations[1].kind
    assert job.tools == spear.tools
    plan(job)


def test_a_feature_and_a_hold_come_over(blank_job: Job) -> None:
    spear = demo_job("spear")
    job = pasted(blank_job, clip_of_feature(spear, 0))
    assert job.part.features == (spear.part.features[0],)
    assert pasted(blank_job, clip_of_hold(spear)).setup.hold == spear.setup.hold


@pytest.mark.parametrize(
    "text", ["", "30 x 18", "{", '{"toreuma": "clip"}', '{"toreuma": "clip", "operation": {"kind": "zz"}}', "[" * 9999]
)
def test_anything_else_on_the_clipboard_is_one_line(text: str, blank_job: Job) -> None:
    with pytest.raises(JobError):
        pasted(blank_job, text)
