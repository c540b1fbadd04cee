"""What once hurt is tried again, and a few fresh cases of everything that takes a file or a text from outside."""

import random
from pathlib import Path

import pytest

from .fuzz import CORPUS, outcome_of
from .targets import TARGETS

EVERY_DAY = {"job": 40, "program": 25, "rack": 40, "machine": 10, "hold": 10, "material": 10, "own values": 10,
             "journal": 10, "clip": 20, "text": 80}  # fmt: skip
"""Drawings, models and whole plans take longer: ``./run fuzz`` tries those."""


@pytest.fixture(autouse=True)
def own_home(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path / "home"))


@pytest.mark.parametrize("path", sorted(CORPUS.iterdir()), ids=lambda path: path.name)
def test_what_once_hurt_is_taken_or_told(path: Path, tmp_path: Path) -> None:
    name = path.name.split("--")[0].replace("-", " ")
    assert outcome_of(TARGETS[name], path.read_bytes(), tmp_path)[0] in ("taken", "told")


@pytest.mark.parametrize("name", EVERY_DAY)
def test_what_is_made_wrong_is_taken_or_told(name: str, tmp_path: Path) -> None:
    became = set()
    for number in range(EVERY_DAY[name]):
        folder = tmp_path / str(number)
        folder.mkdir()
        outcome, what = outcome_of(TARGETS[name], TARGETS[name].make(random.Random(number)), folder)
        assert outcome != "fault", f"{name}, case {number}: {what}"
        became.add(outcome)
    assert "taken" in became, "some of it is still sound"
