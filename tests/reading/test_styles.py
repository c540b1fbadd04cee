"""Random programs in random manners are read as they were meant, to the resolution they were written in."""

import pytest

from tests.reading.styles import random_program
from toreuma.core.read import kind_of
from toreuma.engine.foreign import read_foreign
from toreuma.engine.reading_report import how_of

SAME_MM = 2e-3
EVERYDAY = range(150)


def differences(seed: int, name: str | None) -> str:
    """What was read otherwise than meant; empty where nothing was."""
    made = random_program(seed)
    found = read_foreign(made.text, name=made.dialect if name is None else None).program
    if name is not None and read_foreign(made.text).dialect.id != made.dialect:
        return f"taken for {read_foreign(made.text).dialect.id}, it is {made.dialect}"
    broken = [one.what for one in found.findings if kind_of(one) == "not understood"]
    if broken:
        return "; ".join(broken[:3])
    read = [one for one in found.motions if one.segment.length > 1e-9]
    if len(read) != len(made.moves):
        return f"{len(read)} moves instead of {len(made.moves)}"
    for one, meant in zip(read, made.moves, strict=True):
        ends = abs(one.end[0] - meant.z), abs(2 * one.end[1] - meant.d)
        feed = abs((one.feed or 0.0) - (meant.feed or 0.0))
        if how_of(one)[0] != meant.how or max(ends) > SAME_MM or feed > 1e-3:
            return f"line {one.line}: {how_of(one)} {one.end[0]:.4f} {2 * one.end[1]:.4f} {one.feed} instead of {meant}"
    return ""


@pytest.mark.parametrize("name", [None, "guessed"])
def test_random_manners_are_read_as_meant(name: str | None) -> None:
    wrong = {seed: words for seed in EVERYDAY if (words := differences(seed, name))}
    assert not wrong, f"{len(wrong)}: " + "\n".join(f"{k}: {v}" for k, v in list(wrong.items())[:5])


@pytest.mark.long
def test_many_random_manners() -> None:
    wrong = {seed: words for seed in range(1000, 4000) if (words := differences(seed, None))}
    assert not wrong, f"{len(wrong)}: " + "\n".join(f"{k}: {v}" for k, v in list(wrong.items())[:5])
