"""Programs spoiled by slips of the keys, by half, by nonsense: told in lines, never a traceback, never long."""

import random
import time

import pytest

from tests.reading.corpus import CORPUS
from toreuma.core.read import kind_of
from toreuma.engine.foreign import given_of, read_foreign
from toreuma.engine.study import Asked, study_of
from toreuma.shipped.library import dialect_names

LETTERS = "GXZUWRIKFSTMPQNOLCDABY0123456789.-+#[]/(),;%= \n:*"
MOST_S = 5.0


def spoiled(text: str, luck: random.Random) -> str:
    """One to six slips."""
    letters = list(text)
    for _ in range(luck.randint(1, 6)):
        if not letters:
            break
        at, what = luck.randrange(len(letters)), luck.random()
        until = min(len(letters), at + luck.randint(1, 30))
        if what < 0.3:
            letters[at] = luck.choice(LETTERS)
        elif what < 0.5:
            del letters[at]
        elif what < 0.7:
            letters.insert(at, luck.choice(LETTERS))
        elif what < 0.85:
            letters[at:at] = letters[at:until]
        else:
            del letters[at:until]
    return "".join(letters)


@pytest.mark.parametrize("seed", [1, *(pytest.param(seed, marks=pytest.mark.long) for seed in range(2, 11))])
def test_spoiled_programs_end_in_lines(seed: int) -> None:
    luck = random.Random(seed)
    for _ in range(300):
        sample = luck.choice(CORPUS)
        text = spoiled(sample.text, luck)
        name = luck.choice([sample.dialect, None, *dialect_names()])
        began = time.monotonic()
        found = read_foreign(text, name=name, given=given_of(sample.given or {}, "given"))
        assert time.monotonic() - began < MOST_S, text
        for one in found.program.findings:
            assert "\n" not in one.what
            assert len(one.what) < 300
            assert kind_of(one)


@pytest.mark.parametrize("seed", range(3))
def test_spoiled_programs_are_studied_without_a_fault(seed: int) -> None:
    luck = random.Random(100 + seed)
    for _ in range(40):
        study = study_of(spoiled(luck.choice(CORPUS).text, luck), Asked())
        assert study.blank.d_mm > 0
        assert len(study.tools) == len(study.overview.tools)


@pytest.mark.parametrize(
    "text",
    [
        "\0\0\0",
        "%" * 5000,
        "(" * 3000,
        "#1=" + "[" * 500 + "1" + "]" * 500,
        "G1 X" + "9" * 300,
        "N1 GOTO 1",
        "O1\nM98 P1\nM99",
        "WHILE[1 EQ 1]DO1\nWHILE[1 EQ 1]DO2\nG1X1.\nEND2\nEND1",
        "#1=0\nN1#1=#1+1\n" + "G1 X50. Z-[#1*.0001] F.2\n" * 60 + "IF[1 EQ 1]GOTO1",
        "G21\nT0101\nG0X0Z0\nG83 Z-1000000. Q1 F.1",
        "G71 U.0001 R0\nG71 P1 Q2\nN1 G0 X0\nN2 G1 Z-99999.",
        "\ufeffO1\nG0 X1.\nM30",
        "G65 P1 A1. A2. I1. J1. I2. J2.\nM30\nO1\nM99",
    ],
)
def test_hostile_text_ends_at_once(text: str) -> None:
    began = time.process_time()
    found = read_foreign(text)
    assert time.process_time() - began < MOST_S
    assert isinstance(found.program.motions, tuple)
