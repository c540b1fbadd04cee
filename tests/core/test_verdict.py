"""Whether a part is finished: by everything its drawing asks for, whatever the plan says of itself."""

import re
from collections.abc import Callable

import pytest

from tests.support.engine import judged
from tests.support.long import everyday
from toreuma.core.model import Job, TubeBar
from toreuma.core.plan.sides.second_side import plan_sides
from toreuma.core.post import post
from toreuma.core.verdict import Verdict
from toreuma.engine.judging import prove_whole
from toreuma.shipped.library import demo_job, demo_names, dialect

FORMED_BY_THE_BAR = ("strainer-union", "vane-stud", "bleed-screw")


@pytest.fixture
def spear() -> Job:
    return demo_job("spear")


def with_text(job: Job, change: Callable[[str], str], side: int = 0) -> Verdict:
    """The verdict with one side's program changed."""
    sides, language = plan_sides(job), dialect("system-a")
    text = post(sides[side], language).text
    changed = change(text)
    assert changed != text
    return prove_whole(sides, language, {side: changed}).verdict


def states(verdict: Verdict) -> dict[str, str]:
    return {row.what: row.state for row in verdict.rows}


def without(job: Job, *kinds: str) -> Job:
    """The job with operations of some kinds switched off."""
    operations = tuple(one.changed(enabled=one.enabled and one.kind not in kinds) for one in job.operations)
    return job.with_setup(operations=operations)


def section(text: str, title: str) -> tuple[int, int]:
    """Where an operation begins and ends in a program."""
    begin = text.index(title)
    return begin, text.find("\n(OP ", begin)


def out(text: str, title: str) -> str:
    """The program without the moves of an operation."""
    begin, end = section(text, title)
    lines = [one for one in text[begin:end].splitlines() if not re.search(r"[XZ]-?\d", one)]
    return text[:begin] + "\n".join(lines) + text[end:]


@pytest.mark.parametrize("name", demo_names())
def test_a_demo_job_is_finished_but_for_corners_and_what_it_has_no_machine_for(name: str) -> None:
    verdict = judged(demo_job(name))
    assert [row.what for row in verdict.open] == (["Keyway"] if name == "sheave" else [])
    assert not verdict.dangers
    rounded = [row for row in verdict.but_for if "run-out of the thread" not in row.left]
    assert all(row.nose_mm is not None and row.nose_mm <= 0.8 for row in rounded)
    if name not in FORMED_BY_THE_BAR:
        assert all(
            row.made is not None for row in verdict.rows if row.key.startswith("outside") and row.state == "made"
        )


def test_every_surface_names_the_operation_and_the_line_that_made_it(spear: Job) -> None:
    sides = plan_sides(spear)
    text = post(sides[0], dialect("system-a")).text.splitlines()
    rows = {row.what: row for row in judged(spear).rows}
    assert rows["Guide"].made.operation == "FINISH OUTSIDE"  # type: ignore[union-attr]
    assert "X21.97" in text[rows["Guide"].made.line - 1] or "Z" in text[rows["Guide"].made.line - 1]  # type: ignore[union-attr]
    assert rows["back face"].made.operation == "PART OFF"  # type: ignore[union-attr]
    assert rows["Nut thread"].made.operation.startswith("THREAD")  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("kind", "what"),
    [("thread", "Nut thread"), ("groove", "Thread relief"), ("part_off", "off the bar"), ("finish_od", "Guide")],
)
def test_an_operation_that_is_dropped_is_told_by_what_it_would_have_made(spear: Job, kind: str, what: str) -> None:
    verdict = judged(without(spear, kind))
    assert verdict.state == "not finished"
    assert states(verdict)[what] == "open"
    assert any(finding.what.startswith(what) for finding in verdict.findings)


def test_a_chamfer_that_nothing_cuts_is_open(spear: Job) -> None:
    """The finishing cut ends in front of the last chamfer; the plan says so itself, and it is still not finished."""
    job = spear.with_operation("op5", lambda one: one.changed(to_z_mm=-68.0)) if spear.operation("op5") else spear
    finish = next(one for one in job.operations if one.kind == "finish_od")
    job = job.with_operation(finish.id, lambda one: one.changed(to_z_mm=-60.0))
    verdict = judged(job)
    assert verdict.state == "not finished"
    assert any("chamfer" in row.what for row in verdict.open)


def test_a_second_side_left_out_leaves_the_part_on_its_blank() -> None:
    job = demo_job("seat-ring")
    verdict = judged(job.changed(setups=job.setups[:1], second_hold=None))
    assert verdict.state == "not finished"
    assert states(verdict)["back face"] == "open"


def test_what_the_person_leaves_for_grinding_may_stay(spear: Job) -> None:
    finish = next(one for one in spear.operations if one.kind == "finish_od")
    verdict = judged(spear.with_operation(finish.id, lambda one: one.changed(leave_mm=0.15)))
    guide = next(row for row in verdict.rows if row.what == "Guide")
    assert guide.state == "allowed"
    assert "0.15 mm" in guide.left


def test_metal_the_blank_never_had_is_missed() -> None:
    job = demo_job("spear")
    bar = job.stock
    hollow = TubeBar(d_mm=bar.d_mm, bore_d_mm=12.0, material=bar.material, supply=bar.supply,  # type: ignore[union-attr]
                       face_allowance_mm=bar.face_allowance_mm)  # fmt: skip
    verdict = judged(job.changed(stock=hollow))
    assert not verdict.finished
    assert any(row.state == "wrong" and row.cure == "a blank with metal there" for row in verdict.rows)


def test_parting_off_short_of_the_centre_leaves_it_on_the_bar(spear: Job) -> None:
    def shorter(text: str) -> str:
        begin, end = section(text, "PART OFF")
        return text[:begin] + re.sub(r"X-0\.\d+", "X0.8", text[begin:], count=1) if end < 0 else text

    verdict = with_text(spear, shorter)
    assert not verdict.finished
    assert states(verdict)["off the bar"] == "open"


def test_a_surface_open_in_two_places_and_short_in_a_third_tells_all_three(spear: Job) -> None:
    """The finish stands off the neck by 0.1 and by 0.15, and goes 0.08 into it between."""
    neck = "X18. Z-40.494\n"
    steps = "X18.2 Z-40.994\nZ-43.\nX18. Z-43.1\nZ-45.\nX17.84 Z-45.1\nZ-46.\nX18.3 Z-46.3\nZ-48.\nX18. Z-48.2\n"
    verdict = with_text(spear, lambda text: text.replace(neck, neck + steps))
    row = next(row for row in verdict.rows if row.state == "open")
    assert len(re.findall(r"0\.1[05]\d mm (?:stands )?at Z", row.left)) == 2
    assert "0.08" in row.left
    assert row.left.endswith("of metal is missing")


def test_a_seat_below_the_thread_and_a_shoulder_beside_it_are_seen(spear: Job) -> None:
    """Only the threading tool, in step with the spindle, may go below the cylinder a thread sits on."""
    small = with_text(spear, lambda text: text.replace("X23.823", "X23.023").replace("X23.822", "X23.022"))
    assert small.state == "unsafe"
    assert any(finding.code == "gouge" for finding in small.dangers)


@pytest.mark.parametrize(
    ("was", "now", "code"),
    [
        ("T0202", "T0203", "tool.offset"),
        ("T0101", "T0202", "told.tool"),
        ("G54", "G55", "datum.other"),
        ("G54", "G54\nG10 L2 P1 Z-5.", "datum.set"),
        ("S4000", "S40000", "told.speed"),
        ("G99", "G98", "told.feed"),
        ("M3\n", "M4\n", "spindle.reverse"),
    ],
)
def test_an_offset_a_datum_or_a_mode_of_another_is_unsafe(spear: Job, was: str, now: str, code: str) -> None:
    verdict = with_text(spear, lambda text: text.replace(was, now, 1))
    assert verdict.state == "unsafe"
    assert code in {finding.code for finding in verdict.dangers}


def test_a_lead_a_hair_too_long_is_another_thread(spear: Job) -> None:
    def longer(text: str) -> str:
        begin, _ = section(text, "THREAD M24")
        return text[:begin] + re.sub(r"(G32 .*?F)2\.", r"\g<1>2.005", text[begin:])

    verdict = with_text(spear, longer)
    assert not verdict.finished


TAP = "(OP 5: TAP"
SPOILED: dict[str, Callable[[str], str]] = {
    "no tap": lambda text: out(text, TAP),
    "a tap 3 mm short": lambda text: text.replace("G84 Z-0.37812", "G84 Z-0.26"),
    "another pitch": lambda text: text.replace("F0.03125", "F0.02778"),
    "no hole": lambda text: out(text, "(OP 4: TAPPED HOLE"),
    "a hole too short": lambda text: text.replace("Z-0.43197", "Z-0.33"),
}


@pytest.mark.parametrize("what", everyday(SPOILED, "a tap 3 mm short", "another pitch"))
def test_a_tapped_hole_is_as_deep_and_of_the_thread_that_is_drawn(what: str) -> None:
    stud = demo_job("vane-stud")
    verdict = with_text(stud, SPOILED[what], side=1)
    assert not verdict.finished, what
    in_solid = any("tap in solid metal" in finding.what for finding in verdict.dangers)
    assert in_solid is what.startswith(("no hole", "a hole"))
    whole = with_text(stud, lambda text: text.replace("SPOT", "SPOT IT"), side=1)
    assert whole.finished


def test_a_drill_of_another_size_spoils_a_tapped_hole() -> None:
    stud = demo_job("vane-stud")
    drill = next(one for one in stud.tools if one.kind == "drill" and one.form == "twist")
    wide = stud.changed(tools=tuple(one.changed(d_mm=3.0) if one is drill else one for one in stud.tools))
    assert not judged(wide).finished


def test_what_a_drill_and_a_bar_are_held_in_does_not_go_into_the_part() -> None:
    """Far deeper than they stand out."""
    stud = demo_job("vane-stud")
    deep = with_text(stud, lambda text: text.replace("Z-0.43197", "Z-2.9"), side=1)
    assert {"contact", "gouge"} <= {finding.code for finding in deep.dangers}
    assert any("holder in metal" in finding.what for finding in deep.dangers)
    ring = demo_job("seat-ring")
    inward = with_text(ring, lambda text: re.sub(r"(BORE.*?G1 Z)-\d+\.\d*", r"\1-290.", text, count=1, flags=re.S))
    assert any("holder in" in finding.what for finding in inward.dangers)


def test_an_axis_goes_no_farther_than_its_reference_point(spear: Job) -> None:
    """A point that was lost."""
    verdict = with_text(spear, lambda text: text.replace("X132. Z51.5", "X13200. Z51.5", 1))
    assert "travel.over" in {finding.code for finding in verdict.dangers}
