"""Every program of the corpus is read right, or what is wrong with it is told in its line."""

import pytest

from tests.reading.corpus import CORPUS, Sample
from toreuma.core.motion import Motion
from toreuma.core.read import kind_of
from toreuma.core.read.state import HOME
from toreuma.engine.foreign import Foreign, given_of, read_foreign
from toreuma.engine.reading_report import how_of

KINDS = {"n": "not understood", "q": "question", "s": "suspicious"}


def reading(sample: Sample) -> Foreign:
    return read_foreign(sample.text, name=sample.dialect, given=given_of(sample.given or {}, "given"))


def shown(motion: Motion) -> str:
    z, r = motion.end
    places = ["-" if z == HOME[0] else f"{z:.3f}", "-" if r == HOME[1] else f"{2 * r:.3f}"]
    how = how_of(motion)
    behind = f" {motion.dwell_s:.3f}" if how == "dwell" else "" if motion.feed is None else f" {motion.feed:.4f}"
    return f"{motion.line} {how[0]} {' '.join(places)}{behind}".replace("-0.000", "0.000")


def meant(text: str) -> list[str]:
    found = []
    for move in filter(None, (one.strip() for one in text.split(","))):
        first, *rest = move.split()
        places = [one if one == "-" else f"{float(one):.3f}" for one in rest[:2]]
        more = f" {float(rest[2]):.{3 if first[-1] == 'd' else 4}f}" if len(rest) > 2 else ""
        found.append(f"{first[:-1]} {first[-1]} {' '.join(places)}{more}".replace("-0.000", "0.000"))
    return found


@pytest.mark.parametrize("sample", CORPUS, ids=lambda one: one.name)
def test_a_program_is_read_as_it_was_meant(sample: Sample) -> None:
    found = reading(sample)
    told = sorted((one.line or 0, kind_of(one)) for one in found.program.findings)
    expected = sorted((int(one.strip()[:-1]), KINDS[one.strip()[-1]]) for one in sample.told.split(",") if one.strip())
    assert set(expected) <= set(told), [(one.line, kind_of(one), one.what) for one in found.program.findings]
    surplus = [one for one in told if one not in expected and one[1] != "suspicious"]
    assert not surplus, [(one.line, kind_of(one), one.what) for one in found.program.findings]
    if sample.moves is not None:
        assert [shown(one) for one in found.program.motions] == meant(sample.moves)


def test_the_corpus_is_large_enough_and_names_are_its_own() -> None:
    assert len(CORPUS) >= 90
    assert len({one.name for one in CORPUS}) == len(CORPUS)
