"""The monkey, kills and a stretch of a working day, as far as the long set has time for them."""

import subprocess
import sys
from pathlib import Path

import pytest

from .kills import case

ROOT = Path(__file__).parents[2]


@pytest.mark.long
def test_whatever_is_done_in_the_window_it_goes_on(tmp_path: Path) -> None:
    said = subprocess.run(
        [sys.executable, "-m", "tests.fuzz.monkey", "200", "3"], cwd=ROOT, capture_output=True, text=True
    )
    assert said.returncode == 0 or "kinds of fault: 0" in said.stdout, said.stdout[-2000:]
    assert "200 actions" in said.stdout, said.stderr[-2000:]


@pytest.mark.long
@pytest.mark.parametrize("seed", [1, 2])
def test_windows_that_are_killed_lose_no_more_than_is_promised(seed: int) -> None:
    outcome = case(seed)
    assert outcome.kills == 2
    assert outcome.edits > 0
    assert not outcome.faults


@pytest.mark.long
def test_memory_does_not_grow_with_the_edits() -> None:
    said = subprocess.run([sys.executable, "-m", "tests.fuzz.hours", "300"], cwd=ROOT, capture_output=True, text=True)
    assert said.returncode == 0, said.stdout[-1000:] + said.stderr[-1000:]
