"""Work on the text: what a word does, one block in a sentence, cures of one word, numbering, shifting, comparing."""

import pytest

from tests.reading.corpus import CORPUS, A
from toreuma.core.motion import Motion
from toreuma.core.read import Program, read
from toreuma.core.read.compare import differences, same_moves
from toreuma.core.read.rewrite import renumbered, shifted, with_speed
from toreuma.core.read.sentence import WORDS, sentence_of
from toreuma.core.read.spans import spans_of
from toreuma.core.read.text_cures import text_cures
from toreuma.core.spoken import spoken
from toreuma.engine.engine import Engine
from toreuma.shipped.library import demo_job, dialect

LANGUAGE = dialect("system-a")


def reading(text: str) -> Program:
    return read(text, LANGUAGE, None)


def test_words_are_told_apart_by_what_they_do() -> None:
    line = "N10 G0 X50. (OUT) G96 S180 M3 T0101 F.2 Q77 M68 G4"
    found = {span.text.strip(): span.kind for span in spans_of(line, LANGUAGE)}
    assert found == {
        "N10": "number", "G0": "move", "X50.": "place", "(OUT)": "comment", "G96": "speed", "S180": "speed",
        "M3": "speed", "T0101": "tool", "F.2": "speed", "Q77": "setting", "M68": "unknown", "G4": "wait",
    }  # fmt: skip
    assert [span.kind for span in spans_of("M68", LANGUAGE, {"M68": "clamp_work"})] == ["setting"]
    assert [span.kind for span in spans_of("IF [#1 GT 5] GOTO 10 (AGAIN)", LANGUAGE)] == ["steer", "comment"]


@pytest.mark.parametrize("sample", CORPUS[::7], ids=lambda one: one.name)
def test_spans_cover_every_word_and_nothing_twice(sample: object) -> None:
    for line in sample.text.splitlines():  # type: ignore[attr-defined]
        covered = [n for span in spans_of(line, LANGUAGE) for n in range(span.start, span.end)]
        assert len(covered) == len(set(covered))
        assert all(n in covered for n, c in enumerate(line) if not c.isspace() and c not in "%/")


@pytest.mark.parametrize(
    ("line", "words"),
    [
        ("G1 Z-10. F.2", "Straight cut to Z −10.000 mm, Ø 50.000 mm at 0.2 mm/rev"),
        ("G0 X60.", "Rapid to Z 2.000 mm, Ø 60.000 mm"),
        ("G96 S200 M3", "Constant surface speed, spindle forward"),
        ("M68", "M68 is not known"),
        ("(HELLO)", "A comment"),
        ("M30", "The program ends"),
        ("G4 X1.5", "Waits 1.5 s"),
    ],
)
def test_a_block_in_one_sentence(line: str, words: str) -> None:
    text = A + "G0 X50. Z2.\n" + line + "\nM30\n"
    program = reading(text)
    moves: list[Motion] = [one for one in program.motions if one.line == 7]
    assert spoken(sentence_of(spans_of(line, LANGUAGE), moves), "mm") == words


def test_every_meaning_that_is_written_has_words() -> None:
    missing = [name for name in LANGUAGE.codes if name not in WORDS]
    assert len(missing) < 25, missing


@pytest.mark.parametrize(
    ("line", "code", "after"),
    [
        ("G0 X5O. Z2.", "program.unread", "G0 X50. Z2."),
        ("G0 X50. Z2. F.2", "feed.rapid", "G0 X50. Z2."),
        ("G0 X50. X52. Z2.", "program.twice", "G0 X52. Z2."),
        ("G0 X50. Z2. (come near", "program.comment", "G0 X50. Z2. (come near)"),
        ("G1 Z-5. F20.", "feed.large", "G1 Z-5. F.20"),
        ("G1 Z-5. R3. F.2\nX60.", "corner.plain", "G1 Z-5. ,R3. F.2"),
        ("G0 X50 Z2.", "program.no_point", "G0 X50. Z2."),
        ("M4", "spindle.reverse", "M3"),
    ],
)
def test_a_cure_changes_one_word_and_mends_what_was_found(line: str, code: str, after: str) -> None:
    text = A + "G0 X70. Z3.\n" + line + "\nM30"
    found = next(one for one in reading(text).findings if one.code == code)
    (cure,) = text_cures(found, text, LANGUAGE)
    assert cure.after == after
    mended = cure.applied(text)
    assert mended != text
    assert code not in {one.code for one in reading(mended).findings}


def test_a_clamp_goes_before_the_line_that_needs_it() -> None:
    text = "O1\nG21G99\nT0101\nG96 S150 M3\nG0 X20. Z1.\nG1 Z-5. F.2\nM30"
    found = next(one for one in reading(text).findings if one.code == "speed.no_clamp")
    mended = text_cures(found, text, LANGUAGE)[0].applied(text)
    assert mended.split("\n")[5:7] == ["G50 S2000", "G1 Z-5. F.2"]


def test_a_cure_of_a_line_that_is_another_by_now_changes_nothing() -> None:
    text = A + "G0 X5O. Z2.\nM30"
    (cure,) = text_cures(next(one for one in reading(text).findings if one.code == "program.unread"), text, LANGUAGE)
    assert cure.applied(text.replace("X5O.", "X51.")) == text.replace("X5O.", "X51.")


@pytest.mark.parametrize("step", [10, 5, 0])
@pytest.mark.parametrize("sample", [one for one in CORPUS if one.moves], ids=lambda one: one.name)
def test_numbering_anew_changes_no_move(sample: object, step: int) -> None:
    text = sample.text  # type: ignore[attr-defined]
    found = renumbered(text, LANGUAGE, step)
    if found.left:
        assert found.text == text
        return
    before, after = reading(text), reading(found.text)
    assert [(m.line, m.end, m.feed) for m in after.motions] == [(m.line, m.end, m.feed) for m in before.motions]


def test_numbers_that_are_led_to_are_followed() -> None:
    text = "O1\nG71 P10 Q20 U0 W0\nN10 G0 X20.\nN20 G1 Z-5.\nGOTO 99\nX1.\nN99 M30"
    found = renumbered(text, LANGUAGE, 10).text.split("\n")
    assert found[1] == "N10 G71 P20 Q30 U0 W0"
    assert found[4:] == ["N40 GOTO 60", "N50 X1.", "N60 M30"]
    bare = renumbered(text, LANGUAGE, 0).text.split("\n")
    assert bare[0:3] == ["O1", "G71 P10 Q20 U0 W0", "N10 G0 X20."]
    assert renumbered("N1 GOTO #1\nN2 M30", LANGUAGE, 10).left == (1,)


def test_one_tool_is_shifted_and_no_other() -> None:
    text = A + "G0 X50. Z2.\nG1 Z-10. F.2\nG28 U0 W0\nT0202\nG0 X40. Z2.\nG1 Z-4.\nM30"
    moved = reading(shifted(text, LANGUAGE, 2, "Z", -0.25).text)
    before = reading(text)
    by = [(a.end[0] - b.end[0], a.station) for a, b in zip(moved.motions, before.motions, strict=True)]
    assert all(way == pytest.approx(-0.25 if station == 2 else 0.0) for way, station in by)
    across = reading(shifted(text, LANGUAGE, 1, "X", 0.1).text)
    assert across.motions[0].end[1] == pytest.approx(25.05)


def test_a_speed_is_changed_wherever_it_counts() -> None:
    text = A + "G0 X50. Z2.\nG1 Z-1. F.2\nT0202\nG96 S150\nG1 Z-2.\nG50 S150\nM30"
    found = with_speed(text, LANGUAGE, 1, 150, 180)
    assert found.changed == 1
    assert found.text.split("\n")[4] == "G96 S180 M3"
    assert "G50 S150" in found.text


def test_programs_are_compared_by_what_they_do() -> None:
    one = reading(A + "N5 G0 X50. Z2.\nG01 Z-10.000 F0.20\nG0 X60.\nM30")
    other = reading(A + "G0 X50. Z2. (NEAR)\nG1 Z-10. F.2\nG0X60.\nM30")
    assert same_moves(one, other)
    assert differences(one, other) == ()
    changed = reading(A + "G0 X50. Z2.\nG1 Z-10. F.15\nG0 X60.\nM30")
    (found,) = differences(one, changed)
    assert (found.what, found.here[0].line, found.there[0].feed) == ("feeds", 7, 0.15)
    more = reading(A + "G0 X50. Z2.\nG1 Z-10. F.2\nX52.\nG0 X60.\nM30")
    (found,) = differences(one, more)
    assert (found.what, found.there[0].d) == ("only there", 52.0)
    deeper = reading(A + "G0 X50. Z2.\nG1 Z-10.5 F.2\nG0 X60.\nM30")
    assert {one.what for one in differences(one, deeper)} == {"places"}


def test_a_planned_program_is_itself_and_a_change_is_found() -> None:
    engine, job = Engine(), demo_job("spear")
    text = engine.prove_whole(engine.sides(job), {}).proofs[0].program.text
    assert differences(reading(text), reading(text)) == ()
    spoiled = text.replace("Z-79.5", "Z-79.6")
    assert spoiled != text
    assert differences(reading(text), reading(spoiled))
