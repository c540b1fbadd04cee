"""Programs of driven tools: the second judge finds nothing wrong with the planned ones, and harm it sees is told."""

import random
from functools import cache

import pytest
from benchmarks.judge.changes import every_change
from benchmarks.judge.mutate import Bench

from tests.core.test_milled import CUT
from tests.support.long import everyday

QUICK = (
    "holes in a face",
    "holes round the outside",
    "flats by turning the work",
    "a keyway as wide as its mill",
    "a hexagon",
    "a slot in the face",
)


@cache
def bench(name: str) -> Bench:
    return Bench(CUT[name])


@pytest.mark.parametrize("name", QUICK)
def test_the_judge_finds_every_drawn_wall_where_it_is_drawn(name: str) -> None:
    case, planned = bench(name).driven
    assert case is not None
    assert planned[0].clean


@pytest.mark.long
@pytest.mark.parametrize("name", sorted(set(CUT) - set(QUICK)))
def test_the_judge_finds_every_other_wall(name: str) -> None:
    assert bench(name).driven[1][0].clean


@pytest.mark.parametrize(
    ("name", "was", "now", "how"),
    [
        ("holes in a face", "G0 C120.", "G0 C130.", "lost"),
        ("holes in a face", "Z-53.201", "Z-43.201", "left"),
        ("holes round the outside", "C135.", "C125.", "lost"),
        ("a keyway as wide as its mill", "X42.", "X43.", "left"),
        ("a hexagon", "X46.", "X45.5", "lost"),
        ("a slot in the face", "Z-3.", "Z-2.8", "left"),
        ("a slot in the face", "G1 Z-0.75", "G0 Z-0.75", "hits"),
    ],
)
def test_harm_is_seen_by_the_judge_and_told_by_the_proof(name: str, was: str, now: str, how: str) -> None:
    one = bench(name)
    text = one.texts[0].replace(was, now)
    case, planned = one.driven
    assert case is not None
    harmed = one.driven_by(case, 0, text)
    assert getattr(harmed, how)
    assert harmed.worse_than(planned[0])
    verdict, _ = one.proved({0: text})
    assert verdict.state in ("unsafe", "not finished")


@pytest.mark.parametrize("left_in", ["", "G0 Z-24."])
def test_the_work_does_not_turn_about_a_tool_that_stands_in_it(left_in: str) -> None:
    """The way out of a hole is lost, or too short, and the work turns to the next one."""
    one = bench("holes in a face")
    text = one.texts[0].replace("N200 G0 Z-20.", f"N200 {left_in}".rstrip())
    assert text != one.texts[0]
    verdict, found = one.proved({0: text})
    assert verdict.state == "unsafe"
    assert any("tool in metal while the work turns" in each.what and "line" in each.what for each in found)


@pytest.mark.parametrize("name", everyday(QUICK, "a hexagon"))
def test_no_harmful_change_of_a_driven_tool_slips_through(name: str) -> None:
    one = bench(name)
    changes = random.Random(8).sample(list(every_change(one.texts[0])), 5)
    outcomes = [one.tried(0, change) for change in changes]
    assert [each for each in outcomes if each.how == "MISSED"] == []
