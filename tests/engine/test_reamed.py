"""Bores that are no work for a bar: drilled, their edges broken, reamed; and those a bar still bores."""

import pytest

from toreuma.engine.engine import Engine
from toreuma.engine.fresh import new_job


def made(line: str) -> tuple[str, list[str]]:
    job, _ = new_job("part", "mm", "C45", "slant-bed", line)
    found = Engine().route(job)
    return found.state, [one.kind for setup in found.job.setups for one in setup.operations]


@pytest.mark.parametrize(
    "line",
    [
        "16 x 24 c0.5 both; bore 6 H7 through",
        "20 x 30 c1 both; bore 8 H7 through c0.5 both",
        "40 x 50 c1 both; bore 16 H7 through c1 both",
    ],
)
def test_a_small_or_deep_bore_with_limits_is_reamed(line: str) -> None:
    state, kinds = made(line)
    assert state in ("finished", "finished but for")
    assert kinds.count("ream") == 1
    assert "rough_bore" not in kinds
    assert kinds.index("drill") < kinds.index("ream") < kinds.index("part_off")


@pytest.mark.parametrize(
    "line",
    [
        "40 x 30 c1 both; bore 20 H7 through c1 both",  # short and wide: a bar keeps it true
        "20 x 30 c1 both; bore 8 through c0.5 both",  # no limits: a drill makes it
        "30 x 25; bore 12 H7 x 18 c0.5",  # a reamer does not get to a flat floor
    ],
)
def test_other_bores_are_not(line: str) -> None:
    state, kinds = made(line)
    assert state in ("finished", "finished but for")
    assert "ream" not in kinds


def test_the_reason_says_what_a_reamer_does_not_do() -> None:
    job, _ = new_job("part", "mm", "C45", "slant-bed", "16 x 24 c0.5 both; bore 6 H7 through")
    chosen = next(one for one in Engine().route(job).chosen if one.what == "Ream the bore")
    assert any("follows the drilled hole" in reason for reason in chosen.reasons)
