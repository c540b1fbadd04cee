"""Sentences in inches: sizes and places change, names and codes do not."""

import json
import pickle

import pytest

from tests.support.kept import plan
from toreuma.core.advise import advise, wishes
from toreuma.core.findings import place_text
from toreuma.core.scene import build_scene
from toreuma.core.spoken import q, said, spoken
from toreuma.shipped.library import catalogue, demo_job, known_threads

MINUS = "\u2212"


@pytest.mark.parametrize(
    ("sentence", "millimetres", "inches"),
    [
        (said("leaves {}", q(25.4, "mm", "g")), "leaves 25.4 mm", "leaves 1 in"),
        (
            said("f {} to {}", q(0.127, "mm/rev", "g", bare=True), q(0.254, "mm/rev", "g")),
            "f 0.127 to 0.254 mm/rev",
            "f 0.005 to 0.01 in/rev",
        ),
        (said("on to Z {}", q(-25.4, bare=True)), "on to Z -25.40", f"on to Z {MINUS}1"),
        (said("vc {}, {}", q(30.48, "m/min"), q(1.5, "kW", ".1f")), "vc 30.48 m/min, 1.5 kW", "vc 100 ft/min, 2.01 hp"),
        (said("{} in PCLNR2020K12, 5 mm named by itself", "CNMG"), "CNMG in PCLNR2020K12, 5 mm named by itself", ""),
        (said("{}: {}", said("Ø{}", q(50.8, bare=True, form="g")), "out"), "Ø50.8: out", "Ø2: out"),
        ("a " + said("cut of {}", q(25.4)) + " there", "a cut of 25.40 mm there", "a cut of 1 in there"),
        (place_text(-50.8, 12.7), f"Z {MINUS}50.800 mm, Ø 25.400 mm", f"Z {MINUS}2 in, Ø 1 in"),
    ],
)
def test_a_sentence_is_read_in_the_persons_units(sentence: str, millimetres: str, inches: str) -> None:
    assert sentence == millimetres == spoken(sentence, "mm")
    assert spoken(sentence, "inch").replace("\u2009", "") == (inches or millimetres)
    assert json.loads(json.dumps(sentence)) == millimetres
    assert spoken(pickle.loads(pickle.dumps(sentence)), "inch") == spoken(sentence, "inch")


def test_nothing_said_of_an_inch_job_is_left_in_millimetres() -> None:
    job = demo_job("vane-stud")
    scene = build_scene(job)
    texts = [text for finding in plan(job).all_findings for text in (finding.what, finding.why)]
    for wish in wishes(job, scene):
        found = advise(job, scene, wish, catalogue(), threads=known_threads(job.part))
        texts += [text for one in found.candidates for text in (*one.reasons, one.against)]
        texts += [one.why for one in found.rejected]
    assert len(texts) > 50
    for text in texts:
        assert " mm" not in spoken(text, "inch"), text
