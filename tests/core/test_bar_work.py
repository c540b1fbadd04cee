"""Bar work: the bar fed to a stop, parts in a loop, and how the part comes off."""

import math
import re

import pytest

from tests.support.kept import plan, prove
from tests.support.routes import proof_of, tool_of
from toreuma.core.dialect import Dialect
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import FeedBar, Job
from toreuma.core.plan.bar.feed_bar import bar_before
from toreuma.core.post import post
from toreuma.core.prove import Proof
from toreuma.core.read import read
from toreuma.files.jobs import job_text, parse_job
from toreuma.shipped.library import demo_job


def fed(parts: int = 1) -> Job:
    """The spear from bar, with the bar fed to a stop before the first cut."""
    job, stop = demo_job("spear"), tool_of("BS 20", 6)
    job = job.changed(tools=(*job.tools, stop), program=job.program.changed(parts=parts))
    return job.with_setup(operations=(FeedBar(id="feed", tool=stop.id, name="Feed the bar"), *job.operations))


def text_of(job: Job, language: Dialect) -> str:
    return post(plan(job), language).text


def proof_of_text(job: Job, text: str, language: Dialect) -> Proof:
    planned = plan(job)
    program = read(text, language, planned.scene.reference)
    return prove(job, planned.scene, program, planned.declared, before=bar_before(job, planned.scene))


def errors(proof: Proof) -> set[str]:
    return {finding.code for finding in proof.findings if finding.severity == "error"}


def test_the_bar_comes_out_to_where_the_plan_has_it() -> None:
    job = fed()
    feed = plan(job).operations[0]
    part = -plan(job).scene.profile.back_z
    assert feed.reasons["length"].number == pytest.approx(part + 3.0 + feed.after.bounds[2], abs=1e-6)
    assert feed.before.bounds[2] < feed.after.bounds[2] - part
    proof = proof_of(job)
    assert (proof.contacts, proof.leftover_um, proof.gouge_um < 2, errors(proof)) == ((), 0, True, set())


def test_the_program_stops_the_spindle_opens_waits_and_closes(language: Dialect) -> None:
    lines = [line.split(" ", 1)[-1] for line in text_of(fed(), language).splitlines()]
    start = lines.index("T0606")
    first = lines[start : lines.index("T0600")]
    assert first[1] == "M5"
    assert [word for word in first if word in ("M11", "M10", "G4 P1000")] == ["M11", "G4 P1000", "M10", "G4 P1000"]


def test_parts_in_a_loop_are_one_program_called_so_many_times(language: Dialect) -> None:
    job = fed(parts=12)
    text = text_of(job, language)
    assert f"M98 P{job.program.number + 1} L12" in text
    assert text.count("M99") == 1
    proof = proof_of(job)
    assert proof.program.parts == 12
    assert (proof.contacts, proof.leftover_um, errors(proof)) == ((), 0, set())


@pytest.mark.parametrize(
    ("old", "new", "code"),
    [
        ("M10\n", "M8\n", "hold.open"),
        ("M11\n", "M3\nM11\n", "hold.turning"),
        ("Z0.5\n", "Z1.5\n", "bar.length"),
        ("M98 P1002", "M98 P1009", "program.call"),
    ],
)
def test_a_spoiled_bar_feed_is_caught(old: str, new: str, code: str, language: Dialect) -> None:
    job = fed(parts=3)
    text = text_of(job, language)
    front = plan(job).scene.stock_front_z
    old = old.replace("Z0.5", f"Z{front:g}." if front == int(front) else f"Z{front:g}")
    new = new.replace("Z1.5", f"Z{front + 1:g}." if front == int(front) else f"Z{front + 1:g}")
    assert old in text
    proof = proof_of_text(job, text.replace(old, new, 1), language)
    assert code in {finding.code for finding in proof.findings}


def test_a_loop_without_a_bar_feed_is_an_error_in_the_plan() -> None:
    job = demo_job("spear")
    looped = job.changed(program=job.program.changed(parts=5))
    assert "loop.feed" in {finding.code for finding in plan(looped).findings}
    off = job.operations[-1].id
    bare = looped.with_operation(off, lambda op: op.changed(enabled=False))
    assert "loop.part_off" in {finding.code for finding in plan(bare).findings}


def test_the_bar_is_fed_first_and_only_where_there_is_one() -> None:
    job = fed()
    last = job.with_setup(operations=(*job.operations[1:], job.operations[0]))
    assert "bar.order" in {finding.code for finding in plan(last).all_findings}
    hub = demo_job("runner-hub")
    stop = tool_of("BS 20", 12)
    hub = hub.changed(tools=(stop,)).with_setup(operations=(FeedBar(id="f", tool=stop.id),))
    assert [finding.code for finding in plan(hub).operations[0].findings] == ["bar.none"]


@pytest.mark.parametrize(("taken", "words"), [("caught", ("M76", "M77")), ("picked", ("M78", "M79")), ("falls", ())])
def test_where_the_part_goes(taken: str, words: tuple[str, ...], language: Dialect) -> None:
    job = demo_job("spear").with_operation("op5", lambda op: op.changed(taken=taken))
    text = text_of(job, language)
    assert [word for word in ("M76", "M77", "M78", "M79") if word in text.split()] == list(words)
    assert errors(proof_of(job)) == set()


def test_older_files_said_only_whether_it_is_caught() -> None:
    text = job_text(demo_job("spear")).replace('"taken": "falls"', '"catcher": true')
    assert parse_job(text).operation("op5").taken == "caught"


def test_a_leaning_front_cuts_through_on_the_parts_side_first() -> None:
    job = demo_job("spear")
    blade = tool_of("PB 3 22 6R", 3)
    job = job.changed(tools=tuple(blade if tool.id == "T3" else tool for tool in job.tools))
    core = shape_of(blade).core
    back_by = 2.6 * math.tan(math.radians(6))
    assert core[:, 1].min() == 0
    assert sorted(core[:, 1])[1] == pytest.approx(back_by)
    off = plan(job).of("op5")
    assert off is not None
    assert off.reasons["nub"].number == 0
    deepest = min(motion.end[1] for motion in off.motions)
    assert deepest == pytest.approx(-0.05 - back_by - 0.2, abs=1e-3)
    proof = proof_of(job)
    assert (proof.contacts, proof.gouge_um < 2, proof.parted, errors(proof)) == ((), True, True, set())


def test_a_square_front_leaves_a_nub_somewhere() -> None:
    off = plan(demo_job("spear")).of("op5")
    assert off is not None
    assert off.reasons["nub"].number == pytest.approx(3.0)


def test_an_offset_left_active_and_one_missing(language: Dialect) -> None:
    job = demo_job("spear")
    text = text_of(job, language)
    found = {f.code for f in proof_of_text(job, text.replace("T0300", "M9"), language).findings}
    assert "tool.offset_left" in found
    found = {f.code for f in proof_of_text(job, text.replace("T0202\n", "T0200\n", 1), language).findings}
    assert "tool.no_offset" in found


def test_far_past_the_centre_is_told_once_an_operation(language: Dialect) -> None:
    job = demo_job("spear")
    text = text_of(job, language)
    past = next(line for line in text.splitlines() if " X-" in line)
    number = past.split(" X-")[1].split(" ")[0]
    proof = proof_of_text(job, text.replace(f" X-{number}", " X-12.", 1), language)
    found = [finding for finding in proof.findings if finding.code == "axis.past_centre"]
    (finding,) = found
    assert "6.00 mm past the centre" in finding.what
    assert "axis.past_centre" not in {f.code for f in proof_of(job).findings}


def drawn(parts: int = 3, gripper: str = "BG 32") -> Job:
    """The spear from bar, with the bar drawn out by a gripper."""
    job, tool = demo_job("spear"), tool_of(gripper, 6)
    job = job.changed(tools=(*job.tools, tool), program=job.program.changed(parts=parts))
    return job.with_setup(operations=(FeedBar(id="feed", tool=tool.id, name="Draw the bar out"), *job.operations))


def test_a_gripper_draws_the_bar_to_where_the_plan_has_it(language: Dialect) -> None:
    job = drawn()
    feed = plan(job).operations[0]
    assert feed.findings == ()
    assert feed.reasons["length"].name == "bar drawn out"
    proof = proof_of_text(job, text_of(job, language), language)
    assert (proof.contacts, proof.leftover_um, proof.gouge_um < 2, errors(proof)) == ((), 0, True, set())
    slides = [m for m in feed.motions if m.per_minute]
    # Over the end of the bar while the hold grips it, out with it while the hold is open, off it when it grips again.
    assert [m.end[0] - m.start[0] > 0 for m in slides] == [False, True, True]
    events = [m.event for m in feed.motions if m.event]
    assert events == ["unclamp", "clamp"]


@pytest.mark.parametrize(
    ("pattern", "instead", "code"),
    [
        (r"Z-79\. F2000\.", "Z-75. F2000.", "bar.missed"),
        (r"(M11\nN\d+ G4 P1000\nN\d+ )Z1\.5", r"\1Z4.5", "bar.length"),
        (r"N\d+ M10\n", "", "hold.open"),
        (r"N\d+ G99\nN\d+ M9", "", "spindle.stopped"),
    ],
)
def test_a_gripper_that_misses_or_draws_wrongly_is_caught(
    pattern: str, instead: str, code: str, language: Dialect
) -> None:
    text = text_of(drawn(), language)
    spoiled = re.sub(pattern, instead, text, count=1)
    if code == "spindle.stopped":  # the feed stays in mm a minute, and the spindle is never started
        spoiled = re.sub(r"G96 S(\d+) M3", r"G96 S\1", spoiled)
    assert spoiled != text
    assert code in errors(proof_of_text(drawn(), spoiled, language))


def test_a_bar_that_does_not_fit_the_gripper_is_refused_with_its_reason() -> None:
    codes = {one.code for one in plan(drawn(gripper="BG 16")).all_findings}
    assert "bar.grip" in codes
    short = drawn()
    short = short.with_setup(hold=short.setup.hold.changed(stick_out_mm=short.setup.hold.stick_out_mm - 4))
    found = next((one for one in plan(short).all_findings if one.code == "bar.short_end"), None)
    assert found is not None
    assert "bar.short_end" not in {one.code for one in plan(found.cures[0].apply(short)).all_findings}
