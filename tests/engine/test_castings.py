"""Castings and forgings: gripped by what they are behind, turned round, and finished as sawn pieces are."""

import pytest
import shapely

from tests.engine.test_held_well import DONE, job_of
from tests.support.long import everyday
from toreuma.core.errors import JobError
from toreuma.core.model import Job
from toreuma.core.scene import build_scene
from toreuma.engine.engine import Engine
from toreuma.engine.stock_line import with_blank


def cast(line: str, machine: str = "slant-bed", material: str = "GJL-250", blank: str = "casting 3") -> Job:
    return with_blank(job_of(line, machine, material=material), blank)


@pytest.mark.parametrize(
    ("line", "machine"),
    everyday(
        [
            ("120 x 20 c1 / 80 x 30 c1; bore 50 H7 through c1", "slant-bed"),
            ("200 x 25 c2 both; bore 60 H7 through c1 both", "slant-bed"),
            ("90 x 40 c1 both; bore 60 x 25 / 30 through", "slant-bed"),
            ("60 x 30 / 100 x 15 c1; bore 40 H7 through c1", "toolroom lathe"),
            ("60 h7 x 60 c1 / 90 x 20 c1 both / 60 h7 x 20 c1 back", "slant-bed"),
            ("80 x 50 c1; bore 50 x 30 from back", "slant-bed"),
            ("30 x 12 c0.5 / 50 x 8 c0.5; bore 12 H7 through", "gang lathe"),
        ],
        ("120 x 20 c1 / 80 x 30 c1; bore 50 H7 through c1", "slant-bed"),
        ("60 x 30 / 100 x 15 c1; bore 40 H7 through c1", "toolroom lathe"),
    ),
)
def test_a_casting_is_finished_in_two_holds(line: str, machine: str) -> None:
    found = Engine().route(cast(line, machine))
    assert found.state in DONE, found.words
    assert found.job.second_hold is not None


def test_the_chuck_is_chosen_by_what_it_grips() -> None:
    """A hub behind a wide flange goes into the jaws, whatever the flange measures."""
    job = cast("160 x 20 c1 / 60 x 40 c1")
    d = 60 + 2 * 3.0
    low, high = job.setup.hold.grip_range_mm  # type: ignore[union-attr]
    assert low <= d <= high < 166
    assert job.setup.hold.stick_out_mm + job.setup.hold.grip_length_mm == pytest.approx(20 + 40 + 2 * 3.0)


def test_the_pocket_of_a_casting_opens_at_its_own_face_only() -> None:
    scene = build_scene(cast("80 x 50 c1; bore 50 x 30 from back"))
    at_front = scene.stock.intersection(shapely.LineString([(-1.0, 0.0), (-1.0, 100.0)]))
    assert at_front.length == pytest.approx(40 + 3.0)
    at_back = scene.stock.intersection(shapely.LineString([(-45.0, 0.0), (-45.0, 100.0)]))
    assert at_back.length == pytest.approx(43.0 - 22.0)


@pytest.mark.parametrize(
    ("text", "wanted"),
    [
        ("D60", {"kind": "round", "d_mm": 60.0, "length_mm": None}),
        ("bar 60", {"kind": "round", "d_mm": 60.0, "length_mm": None}),
        ("60 x 80", {"kind": "round", "d_mm": 60.0, "length_mm": 80.0}),
        ("D60 d20", {"kind": "tube", "d_mm": 60.0, "bore_d_mm": 20.0}),
        ("HEX 46 L55", {"kind": "polygon", "sides": 6, "across_mm": 46.0, "length_mm": 55.0}),
        ("SQ 50", {"kind": "polygon", "sides": 4}),
        ("forging 2.5", {"kind": "free", "allowance_mm": 2.5, "skin": "scale"}),
    ],
)
def test_a_blank_is_said_in_one_line(text: str, wanted: dict[str, object]) -> None:
    job = with_blank(job_of("40 x 30 c1 / 50 x 20"), text)
    said = job.stock.model_dump()
    assert {key: said[key] for key in wanted} == wanted
    assert "blank" not in job.follows


def test_inches_are_inches() -> None:
    job = with_blank(job_of("1 x 2", units="inch"), "1.25")
    assert job.stock.largest_d_mm == pytest.approx(31.75)


@pytest.mark.parametrize("text", ["Dx", "casting -3", "casting 900", "D60 d80", "0 50, -30 50", ""])
def test_a_blank_that_cannot_be_is_one_clear_line(text: str) -> None:
    with pytest.raises(JobError, match="write it as"):
        with_blank(job_of("40 x 30 c1 / 50 x 20"), text)
