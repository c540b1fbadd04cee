"""Speeds, feeds and depths of a program held against what hold, machine and tools stand, whatever was planned."""

import re

import pytest

from tests.support.kept import plan, prove_plan
from tests.support.long import everyday
from toreuma.core.findings import Finding, Severity
from toreuma.core.model import Job
from toreuma.core.post import post
from toreuma.core.prove import limits
from toreuma.engine.engine import Engine
from toreuma.engine.judging import prove_whole
from toreuma.shipped.library import demo_job, demo_names, dialect

LANGUAGE = dialect("system-a")

EXCESSES: tuple[tuple[Severity, float], ...] = (("warning", 1.5), ("error", 1.1), ("warning", 1.9))
"""How bad, and what share of the limit is used."""


def told(job: Job, was: str, now: str) -> dict[str, Finding]:
    """What is said of the first side with the first piece of its program that looks so put otherwise, by code."""
    planned = plan(job)
    text = post(planned, LANGUAGE).text
    changed = re.sub(was, now, text, count=1)
    assert changed != text
    return {one.code: one for one in prove_plan(planned, LANGUAGE, changed).findings}


@pytest.mark.parametrize("name", everyday(demo_names(), "spear", "vane-stud"))
def test_planned_programs_stay_within_every_limit(name: str) -> None:
    engine = Engine()
    sides = engine.sides(demo_job(name))
    found = [one for proof in prove_whole(sides, engine.language(sides[0].job)).proofs for one in proof.findings]
    assert [one.what for one in found if one.code.startswith(("limits.", "told.")) or one.code == "power.over"] == []


def test_a_clamp_beyond_the_chuck_is_unsafe(spear: Job) -> None:
    """The plate of this chuck says 4000 or less; near the axis nothing else holds the spindle."""
    slow = spear.with_setup(hold=spear.setup.hold.changed(max_rpm=2000))
    found = told(slow, r"G50 S\d+", "G50 S40000")["limits.spindle"]
    assert found.severity == "error"
    assert "chuck plate allows 2000 rpm" in found.what


def test_a_clamp_that_is_lost_lets_the_spindle_run_to_its_top(spear: Job) -> None:
    slow = spear.with_setup(hold=spear.setup.hold.changed(max_rpm=2000))
    assert "limits.spindle" in told(slow, r"N\d+ G50 S\d+\n", "")


@pytest.mark.parametrize(
    ("was", "now", "code"),
    [
        (r"F0\.(\d+)", r"F\g<1>.", "limits.feed"),
        (r"G96 S(\d+)", r"G96 S\g<1>0", "limits.surface_speed"),
        (r"G97 S(\d+)", r"G97 S\g<1>00", "limits.spindle"),
    ],
)
def test_a_lost_point_or_one_nought_too_many_is_unsafe(was: str, now: str, code: str) -> None:
    found = told(demo_job("spear"), was, now)
    assert code in found
    assert any(one.severity == "error" for one in found.values())


def test_a_thread_faster_than_the_slide_loses_its_step() -> None:
    found = told(demo_job("spear"), r"(G32 \S+) F2\.", r"\1 F80.")
    assert found["limits.axis"].severity == "error"


def test_a_little_faster_is_unlike_the_plan_and_much_faster_is_unsafe(spear: Job) -> None:
    planned = plan(spear)
    text = post(planned, LANGUAGE).text
    speed = int(re.search(r"G96 S(\d+)", text).group(1))  # type: ignore[union-attr]
    little = told(spear, rf"G96 S{speed}", f"G96 S{round(1.1 * speed)}")["told.speed"]
    much = told(spear, rf"G96 S{speed}", f"G96 S{2 * speed}")["told.speed"]
    assert (little.severity, much.severity) == ("warning", "error")


def test_the_feed_of_a_single_move_counts(spear: Job) -> None:
    """Near the centre the blade is to feed slower: with that feed lost the rest of the cut would be told nothing."""
    planned = plan(spear)
    text = post(planned, LANGUAGE).text
    part_off = text[text.index("PART OFF") :]
    slow = re.findall(r" F[\d.]+", part_off)[-1]
    assert len(set(re.findall(r" F[\d.]+", part_off))) > 1
    at = text.rindex(slow)
    changed = text[:at] + text[at + len(slow) :]
    assert "told.feed" in {one.code for one in prove_plan(planned, LANGUAGE, changed).findings}


def test_an_offcut_depth_beyond_the_edge_is_told(spear: Job) -> None:
    """All roughing passes but the deepest are gone: one cut takes what was planned for several."""
    planned = plan(spear)
    lines = post(planned, LANGUAGE).text.splitlines()
    begin = next(n for n, line in enumerate(lines) if "OP 2" in line)
    end = next(n for n, line in enumerate(lines) if "OP 3" in line)
    cuts = [n for n in range(begin, end) if " G1 Z" in lines[n]]
    feed = cuts[0]  # it says the feed
    kept = [*lines[:feed], *lines[cuts[-2] - 1 : cuts[-2]], f"{lines[cuts[-2]]} F0.3", *lines[cuts[-2] + 1 :]]
    found = {one.code for one in prove_plan(planned, LANGUAGE, "\n".join(kept) + "\n").findings}
    assert found & {"limits.depth", "power.over", "limits.grip"}


def test_what_breaks_is_not_hidden_by_a_wider_excess_of_a_table(spear: Job, monkeypatch: pytest.MonkeyPatch) -> None:
    """Of one kind in one operation the unsafe cut is told, though another is farther beyond its table."""
    planned = plan(spear)
    told = [limits._Met(share, Finding(how, "limits.feed", f"{how} {share}", "")) for how, share in EXCESSES]
    monkeypatch.setattr(limits, "_met", lambda *given: iter(told))
    found = [one for one in prove_plan(planned, LANGUAGE).findings if one.code == "limits.feed"]
    assert found
    assert {one.what for one in found} == {"error 1.1"}
