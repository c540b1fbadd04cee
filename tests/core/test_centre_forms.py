"""Centre holes of forms A, B and R: sizes of the standard, as typed, as drawn, and as drilled."""

import itertools
import math

import pytest
import shapely
from shapely.affinity import translate

from tests.support.command import toreuma
from toreuma.core.geometry.centre_forms import centre_profile, centre_seat, cone_mouth
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.kinds.features import FEATURES
from toreuma.core.model.feature import CentreHole
from toreuma.core.model.tool import Drill
from toreuma.engine.fresh import new_job
from toreuma.files.jobs import load_job

SIZES = [
    # ISO 6411: pilot, mouth of A and R, mouth of B
    (1.0, 2.12, 3.15), (1.6, 3.35, 5.0), (2.0, 4.25, 6.3), (2.5, 5.3, 8.0), (3.15, 6.7, 10.0), (4.0, 8.5, 12.5),
    (6.3, 13.2, 18.0), (10.0, 21.2, 28.0),
]  # fmt: skip


@pytest.mark.parametrize(("pilot", "plain", "guarded"), SIZES)
def test_mouths_are_those_of_the_standard(pilot: float, plain: float, guarded: float) -> None:
    assert cone_mouth(pilot) == cone_mouth(pilot, "R") == plain
    assert cone_mouth(pilot, "B") == guarded


def centre_of(words: str) -> CentreHole:
    job, _ = new_job("pin", "mm", "C45", "slant-bed", f"25 x 60; {words}")
    found = job.part.features[0]
    assert isinstance(found, CentreHole)
    return found


@pytest.mark.parametrize(
    ("words", "form", "pilot", "mouth"),
    [
        ("centre 2.5", "A", 2.5, 5.3),
        ("centre A2/4.25", "A", 2.0, 4.25),
        ("centre B2.5/8", "B", 2.5, 8.0),
        ("centre B5/16", "B", 5.0, 16.0),
        ("centre 3.15 B", "B", 3.15, 10.0),
        ("centre hole form R 4 / 8.5", "R", 4.0, 8.5),
    ],
)
def test_forms_as_they_are_typed(words: str, form: str, pilot: float, mouth: float) -> None:
    made = centre_of(words)
    assert (made.form, made.d_mm, made.mouth_d_mm) == (form, pilot, mouth)


def test_a_guarded_centre_is_sixty_degrees_inside_and_a_hundred_and_twenty_outside() -> None:
    (x1, r1), (x2, r2), (x3, r3) = centre_profile("B", 2.5, 8.0)[2:]
    assert math.degrees(math.atan2(r2 - r1, x2 - x1)) == pytest.approx(30)
    assert math.degrees(math.atan2(r3 - r2, x3 - x2)) == pytest.approx(60)
    assert 2 * r2 == pytest.approx(5.3)


def test_a_round_centre_leans_as_a_centre_does_where_it_touches() -> None:
    radius, deep = centre_seat(CentreHole(form="R", d_mm=2.5, mouth_d_mm=5.3))
    profile = centre_profile("R", 2.5, 5.3)
    before, after = next((a, b) for a, b in itertools.pairwise(profile[2:]) if b[1] >= radius - 1e-6)
    assert math.degrees(math.atan2(after[1] - before[1], after[0] - before[0])) == pytest.approx(30, abs=1.5)
    assert 0 < deep < 1.0


def test_a_centre_sits_behind_the_guard() -> None:
    assert centre_seat(CentreHole(form="B", d_mm=2.5, mouth_d_mm=8.0)) == pytest.approx(
        (2.65, 1.35 / math.tan(math.pi / 3))
    )
    assert centre_seat(CentreHole(d_mm=2.5, mouth_d_mm=5.3)) == (2.65, 0.0)


@pytest.mark.parametrize("form", ["A", "B", "R"])
def test_the_drill_of_a_form_fills_its_hole(form: str) -> None:
    job, _ = new_job("pin", "mm", "C45", "slant-bed", f"25 x 60; centre {form} 2.5")
    hole = build_part(job.part).region
    body = {"A": 6.3, "B": 10.0, "R": 6.3}[form]
    drill = Drill(
        id="CD", station=1, form="centre", centre_form=form, d_mm=body, pilot_d_mm=2.5, point_deg=118,
        flute_length_mm=20, overall_length_mm=50, shank_d_mm=body,
    )  # fmt: skip
    shape = shape_of(drill)
    deep = centre_profile(form, 2.5, cone_mouth(2.5, form))[-1][0]  # type: ignore[arg-type]
    metal = shapely.union_all([shapely.Polygon(piece).buffer(0) for piece in (shape.core, *shape.ahead)])
    sunk = translate(metal, xoff=-deep)
    upper = shapely.clip_by_rect(sunk, -60, 0, 0, 100)
    assert upper.intersection(hole).area < 0.002


def test_another_form_takes_its_usual_mouth_along() -> None:
    hole = CentreHole(d_mm=2.5, mouth_d_mm=5.3)
    along = FEATURES["centre_hole"].along
    assert along(hole, {"form": "B"}) == {"form": "B", "mouth_d_mm": 8.0}
    assert along(hole, {"d_mm": 4.0}) == {"d_mm": 4.0, "mouth_d_mm": 8.5}
    assert along(hole.changed(mouth_d_mm=6.0), {"form": "B"}) == {"form": "B"}


@pytest.mark.parametrize(("words", "tool"), [("centre B2.5", "CD B2.5"), ("centre R 2.5 both", "CD R2.5")])
def test_the_drill_of_its_form_is_proposed_and_the_part_is_finished(words: str, tool: str, tmp_path) -> None:  # type: ignore[no-untyped-def]
    path = tmp_path / "pin.toreuma"
    made = toreuma("new", path, "--line", f"25 h6 x 60; {words}", "--material", "C45", "--machine", "slant-bed")
    assert made.returncode == 0
    assert toreuma("auto", path, "-o", path).returncode == 0
    assert tool in [one.name for one in load_job(path).tools]
    assert toreuma("prove", path).stdout.splitlines()[0] == "pin: finished"
