"""Every control's words: what is written is read back as what was meant, whatever it is written in."""

import numpy as np
import pytest

from tests.support.long import everyday
from toreuma.core.dialect import Dialect
from toreuma.core.geometry.region import depth_inside
from toreuma.engine.engine import Engine
from toreuma.engine.further_parts import verdict_of_pair
from toreuma.engine.judging import prove_whole
from toreuma.engine.pair import prove_channels
from toreuma.shipped.library import demo_job, demo_names, dialect, dialect_names

ALL = [(name, language) for name in demo_names() for language in dialect_names() if language != "system-a"]
FEW = [("spear", "iso"), ("spear", "system-b"), ("seat-ring", "system-c"), ("bleed-screw", "system-a-steps")]


@pytest.mark.parametrize(("name", "language"), everyday(ALL, *FEW))
def test_a_demo_job_is_proved_in_every_dialect(name: str, language: str) -> None:
    engine, job = Engine(), demo_job(name)
    found = {}
    for each in ("system-a", language):
        sides = engine.sides(job, dialect=each)
        taken = engine.transfer(sides)
        if taken is None:
            whole = engine.prove_whole(sides, {}, each)
            found[each] = whole.verdict, [proof.final for proof in whole.proofs]
        else:
            proof = prove_channels(job, sides, taken, engine.language(job, each))
            found[each] = verdict_of_pair(sides, taken, proof), [proof.first.final, proof.second.final]
    (usual, finals), (other, others) = found.values()
    assert other.state == usual.state
    for one, two in zip(finals, others, strict=True):
        assert max(depth_inside(one.difference(two), one), depth_inside(two.difference(one), two)) < 0.002


@pytest.mark.parametrize("language", dialect_names())
def test_inches_come_back_in_every_dialect(language: str) -> None:
    engine, job = Engine(), demo_job("spear").changed(units="inch")
    whole = engine.prove_whole(engine.sides(job, dialect=language), {}, language)
    assert whole.verdict.state in ("finished", "finished but for")
    assert max(proof.gouge_um for proof in whole.proofs) < 2
    assert not np.isnan(whole.proofs[0].time_s)


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"codes": {"rapid": "G0"}}, "no code for"),
        ({"also": {"M77": "make coffee"}}, "nothing is called"),
        ({"also": {"Q5": "nothing"}}, "no G or M word"),
        ({"pause": "{dwell} {hours}"}, "hours"),
        ({"whole_numbers": "sometimes"}, "whole_numbers"),
    ],
)
def test_a_dialect_that_cannot_be_is_refused_in_words(change: dict[str, object], words: str) -> None:
    data = dialect("system-a").model_dump() | change
    with pytest.raises(ValueError, match=words):
        Dialect.model_validate(data)


def test_a_machine_says_what_its_own_words_mean() -> None:
    language = dialect("system-a")
    own = {"M68": "clamp_work", "m08": "nothing"}
    assert language.vocabulary(own)["M68"] == "clamp_work"
    assert language.vocabulary(own)["M8"] == "nothing"
    assert language.vocabulary({})["M10"] == "clamp_work"
    assert "M10" not in language.vocabulary(None)


SPELLED = ["WAIT {mark} WITH {channels}", "*{mark}-{channels}", "HOLD{mark}"]


@pytest.mark.parametrize("template", everyday(SPELLED, "HOLD{mark}"))
def test_channels_wait_by_words_of_a_dialect(template: str) -> None:
    engine, job = Engine(), demo_job("runner-hub")
    own = dialect("system-a").changed(wait=template)
    found = []
    for each in (dialect("system-a"), own):
        sides = engine.sides(job)
        taken = engine.transfer(sides)
        assert taken is not None
        proof = prove_channels(job, sides, taken, each)
        waits = [(one.mark.number, one.mark.channels) for one in proof.ran.happened if one.mark is not None]
        found.append((verdict_of_pair(sides, taken, proof).state, waits))
    assert found[0] == found[1]
    assert len(found[0][1]) > 1
    assert template.split("{")[0].strip() in proof.texts[1]
    assert "M101" not in proof.texts[1]


@pytest.mark.parametrize("template", ["", "WAIT", "W{mark}{mark}", "W{mark} {hours}"])
def test_a_wait_that_names_no_mark_is_refused(template: str) -> None:
    with pytest.raises(ValueError, match=r"wait|asks for"):
        dialect("system-a").changed(wait=template)


OTHER_LETTERS = {
    "peck_cycle": ("Z{bottom} R{above} D{peck} F{feed}",),
    "tap_cycle": ("Z{bottom} R{above} K{lead}",),
    "thread_cycle": ("X{x} Z{z} E{lead}",),
    "groove_cycle": ("X{x} Z{z} I{peck} K{step} F{feed}",),
    "face_peck_cycle": ("X{x} Z{bottom} D{peck} F{feed}",),
    "whole_thread_cycle": ("X{x} Z{z} K{height} D{first_depth} A{flank} F{lead}",),
    "rough_cycle": ("P{first} Q{last} U{leave_across} W{leave_along} D{depth} F{feed}",),
    "rough_face_cycle": ("P{first} Q{last} U{leave_across} W{leave_along} D{depth} F{feed}",),
    "pattern_cycle": ("K{out_along} I{out_across} R{count}", "A{first} B{last} U{leave_across} W{leave_along} F{feed}"),
    "finish_cycle": ("L{first} H{last} F{feed}",),
}
"""Every cycle with letters of its own, in one block and in two."""


@pytest.mark.parametrize("name", everyday([*demo_names()], "spear", "bleed-screw"))
def test_cycles_are_read_in_the_letters_in_which_they_are_written(name: str) -> None:
    usual = dialect("system-a")
    own = usual.changed(cycles={**usual.cycles, **OTHER_LETTERS}, cycles_also={})
    engine, job = Engine(), demo_job(name)
    found = {}
    for each in (usual, own):
        sides = engine.sides(job)
        taken = engine.transfer(sides)
        if taken is None:
            whole = prove_whole(sides, each)
            found[each.cycles["finish_cycle"]] = whole.verdict, [proof.final for proof in whole.proofs]
        else:
            proof = prove_channels(job, sides, taken, each)
            found[each.cycles["finish_cycle"]] = (
                verdict_of_pair(sides, taken, proof),
                [proof.first.final, proof.second.final],
            )
    (planned, finals), (other, others) = found.values()
    assert other.words == planned.words
    for one, two in zip(finals, others, strict=True):
        assert max(depth_inside(one.difference(two), one), depth_inside(two.difference(one), two)) < 0.002


@pytest.mark.parametrize(
    ("form", "words"),
    [
        (("Z{bottom} Q{deep}",), "U{depth}"),
        (("Q{bottom} R{above}",), "stands behind Z"),
        (("Z{bottom} S{peck}",), "never a number"),
        (("Z{bottom} R{above} R{peck}",), "twice"),
        (("Z{bottom}", "R{above}", "Q{peck}"), "one or two"),
    ],
)
def test_a_form_that_cannot_be_is_refused_in_words(form: tuple[str, ...], words: str) -> None:
    with pytest.raises(ValueError, match=words):
        dialect("system-a").changed(cycles={"peck_cycle": form})
