"""Sentences in inches: sizes and places change, names and codes do not."""

import pytest

from toreuma.core.advise import advise, wishes
from toreuma.core.plan import plan
from toreuma.core.scene import build_scene
from toreuma.core.spoken import spoken
from toreuma.shipped.library import catalogue, demo_job, known_threads


@pytest.mark.parametrize(
    ("text", "inches"),
    [
        ("leaves 25.4 mm", "leaves 1 in"),
        ("f 0.127 to 0.254 mm/rev", "f 0.005 to 0.01 in/rev"),
        ("80° leaves 645.16 mm² at Z -25.4 to -50.8 mm: 5°", "80° leaves 1 in² at Z \u22121 to \u22122 in: 5°"),
        ("stays between Z \u221250.8 mm and Z \u221225.4 mm", "stays between Z \u22122 in and Z \u22121 in"),
        ("Finish on to Z -25.4", "Finish on to Z \u22121"),
        ("vc 30.48 m/min, 1.5 kW", "vc 100 ft/min, 2.01 hp"),
        ("M24x2-6g, CNMG120408 in PCLNR2020K12, ISO 513", "M24x2-6g, CNMG120408 in PCLNR2020K12, ISO 513"),
        ("L/D 7.7, steel goes to 4", "L/D 7.7, steel goes to 4"),
        ("out of round by 25.4 \u00b5m", "out of round by 1 thou"),
        ("Ra 1.6 \u00b5m wanted", "Ra 63 \u00b5in wanted"),
    ],
)
def test_sizes_are_spoken_in_inches(text: str, inches: str) -> None:
    assert spoken(text, "inch").replace("\u2009", "") == inches
    assert spoken(text, "mm") == text


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
