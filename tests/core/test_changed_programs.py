"""Programs with one thing changed: harm is told, what means the same is not; the harm by the second judge's word."""

import random
import re
from functools import cache

import pytest
from benchmarks.judge.changes import every_change, same_meaning
from benchmarks.judge.mutate import Bench

from tests.support.long import everyday
from toreuma.shipped.library import demo_job

JOBS = ("spear", "strainer-union", "seat-ring", "bleed-screw")
EVERY_DAY, LONG = 10, 120
"""Changes a job, of some thousands there are."""


@cache
def bench(name: str) -> Bench:
    return Bench(demo_job(name))


def sample(name: str, seed: int, count: int) -> list[tuple[int, object]]:
    each = [(number, change) for number, text in bench(name).texts.items() for change in every_change(text)]
    return random.Random(seed).sample(each, count)


def missed(name: str, seed: int, count: int) -> list[str]:
    outcomes = [bench(name).tried(number, change) for number, change in sample(name, seed, count)]
    return [
        f"{one.change.line}: {one.change.was} -> {one.change.now}: {one.what}"
        for one in outcomes
        if one.how == "MISSED"
    ]


@pytest.mark.parametrize("name", everyday(JOBS, "bleed-screw"))
def test_no_harmful_change_slips_through(name: str) -> None:
    assert missed(name, 1, EVERY_DAY) == []


@pytest.mark.long
@pytest.mark.parametrize("name", JOBS)
def test_no_harmful_change_of_many_slips_through(name: str) -> None:
    assert missed(name, 2, LONG) == []


@pytest.mark.parametrize("name", everyday(JOBS, "bleed-screw"))
def test_another_way_of_writing_the_same_is_not_told(name: str) -> None:
    every = [(number, change) for number, text in bench(name).texts.items() for change in same_meaning(text)]
    for number, change in random.Random(3).sample(every, 24):
        assert bench(name).tried(number, change).how == "same", change.now


@pytest.mark.parametrize(
    ("was", "now"),
    [
        ("G99", "G98"), ("G54", "G55"), ("M3", "M4"), ("G96", "G97"), ("T0101", "T0102"), ("T0101", "T0202"),
        ("M30", "M0"), ("G21", "G20"), ("G50 S", "G50 S9"),
    ],
)  # fmt: skip
def test_a_changed_mode_tool_or_datum_is_told(was: str, now: str) -> None:
    case = bench("spear")
    text = case.texts[0]
    assert was in text
    verdict, _ = case.proved({0: text.replace(was, now, 1)})
    assert verdict.state == "unsafe", (was, now)


def test_a_later_part_that_comes_out_otherwise_is_told() -> None:
    case = bench("vane-stud")
    first, later = re.finditer(r"X0\.25 Z-1\.11861", case.texts[1])
    text = case.texts[1]
    verdict, _ = case.proved({1: text[: later.start()] + "X0.26 Z-1.11861" + text[later.end() :]})
    assert first.start() < text.index("M30") < later.start()
    assert verdict.state == "not finished"
    assert "on part 2: 0.127 mm stands" in verdict.words
