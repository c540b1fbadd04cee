"""Run-outs of threads (DIN 76-1) and undercuts (DIN 509) against published values."""

import math

import pytest

from tests.support.long import everyday
from toreuma.core.errors import JobError
from toreuma.core.model import Part
from toreuma.core.standards.reliefs import run_out, run_out_fields, usual_undercut
from toreuma.engine.engine import Engine
from toreuma.engine.features import standard_reliefs
from toreuma.engine.fresh import fresh_job
from toreuma.engine.judging import prove_whole
from toreuma.engine.line import said
from toreuma.shipped.standards import relief_tables

TABLES = relief_tables()

OUTSIDE = {
    0.2: (0.7, 0.5), 0.5: (1.75, 1.25), 0.7: (2.45, 1.75), 0.8: (2.8, 2.0), 1: (3.5, 2.5), 1.25: (4.4, 3.2),
    1.5: (5.2, 3.8), 1.75: (6.1, 4.3), 2: (7.0, 5.0), 2.5: (8.7, 6.3), 3: (10.5, 7.5), 3.5: (12.0, 9.0),
    4: (14.0, 10.0),    4.5: (16.0, 11.0), 5: (17.5, 12.5), 6: (21.0, 15.0),
}  # fmt: skip
"""g2 of forms A and B by pitch, mm."""

INSIDE = {
    0.5: (2.7, 2.0),
    1: (5.2, 3.7),
    1.25: (6.7, 4.9),
    1.5: (7.8, 5.6),
    2: (10.3, 7.3),
    3: (15.2, 10.7),
    6: (30.0, 21.0),
}
"""g2 of forms C and D."""

FLOORS = {0.5: 1.1, 1: 2.1, 1.25: 2.7, 1.5: 3.2, 1.75: 3.9, 2: 4.5, 2.5: 5.6, 3: 6.7, 4: 9.0}
"""g1 of form A."""

BELOW = {0.5: 0.8, 0.8: 1.3, 1: 1.6, 1.25: 2.0, 1.5: 2.3, 1.75: 2.6, 2: 3.0, 2.5: 3.6, 3: 4.4, 3.5: 5.0, 4: 5.7, 6: 8.3}
"""d less dg of form A."""


@pytest.mark.parametrize(("pitch", "lengths"), OUTSIDE.items())
def test_the_whole_length_outside(pitch: float, lengths: tuple[float, float]) -> None:
    assert tuple(run_out_fields(TABLES, pitch, "outside", short)["length_mm"] for short in (False, True)) == lengths


@pytest.mark.parametrize(("pitch", "lengths"), INSIDE.items())
def test_the_whole_length_inside(pitch: float, lengths: tuple[float, float]) -> None:
    assert tuple(run_out_fields(TABLES, pitch, "inside", short)["length_mm"] for short in (False, True)) == lengths


@pytest.mark.parametrize(("pitch", "floor"), FLOORS.items())
def test_what_is_cut_keeps_the_floor_before_the_slope(pitch: float, floor: float) -> None:
    """A slope of 30 degrees over the depth takes the rest of the length; the table rounds to a tenth."""
    fields = run_out_fields(TABLES, pitch, "outside")
    cut = fields["length_mm"] - fields["depth_mm"] / math.tan(math.radians(30))
    assert run_out(TABLES, pitch, "outside").floor_mm == floor
    assert cut == pytest.approx(floor, abs=0.13)


@pytest.mark.parametrize(("pitch", "below"), BELOW.items())
def test_the_diameter_outside(pitch: float, below: float) -> None:
    assert 2 * run_out_fields(TABLES, pitch, "outside")["depth_mm"] == pytest.approx(below)


@pytest.mark.parametrize(
    ("name", "d", "pitch"), [("M24x1.5", 24, 1.5), ("M30x2", 30, 2), ("M16", 16, 2), ("M10", 10, 1.5)]
)
def test_inside_the_diameter_is_half_a_millimetre_above_the_thread(name: str, d: float, pitch: float) -> None:
    bore = d - 1.082532 * pitch
    assert bore + 2 * run_out_fields(TABLES, pitch, "inside")["depth_mm"] == pytest.approx(d + 0.5, abs=0.002)


def test_a_pitch_that_is_not_listed_takes_the_next_larger_one_and_says_so() -> None:
    fields = run_out_fields(TABLES, 25.4 / 18, "outside")
    assert fields["length_mm"] == 5.2
    assert fields["name"] == "run-out of pitch 1.5"
    assert "name" not in run_out_fields(TABLES, 1.5, "outside")
    with pytest.raises(JobError, match="no run-out is listed"):
        run_out(TABLES, 8.0, "outside")


@pytest.mark.parametrize(
    ("text", "length"), [("M24x2 x 30 relief / 30 x 10", 7.0), ("M24x2 x 30 relief short / 30 x 10", 5.0)]
)
def test_the_line_brings_the_usual_run_out_or_the_short_one(text: str, length: float) -> None:
    part = said(text, "mm").part
    assert part is not None
    relief = part.features[1]
    assert relief.length_mm == length  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("d", "size"),
    [
        (2, (0.2, 0.1)),
        (3, (0.2, 0.1)),
        (10, (0.4, 0.2)),
        (18, (0.4, 0.2)),
        (20, (0.8, 0.3)),
        (80, (0.8, 0.3)),
        (120, (1.2, 0.4)),
    ],
)
def test_undercuts_of_the_usual_load_by_diameter(d: float, size: tuple[float, float]) -> None:
    """One column of the standard; those for alternating loads are another."""
    row = usual_undercut(TABLES, d)
    assert (row.radius_mm, row.depth_mm) == size


@pytest.mark.parametrize(
    ("form", "name", "length", "face"),
    [
        ("E", "0.2 x 0.1", 1.0, 0), ("E", "0.4 x 0.2", 2.0, 0), ("E", "0.6 x 0.3", 2.5, 0), ("E", "0.8 x 0.3", 2.5, 0),
        ("E", "1 x 0.2", 2.5, 0), ("E", "1.2 x 0.2", 2.5, 0), ("E", "1.2 x 0.4", 4.0, 0), ("E", "1.6 x 0.3", 4.0, 0),
        ("E", "2.5 x 0.4", 5.0, 0), ("E", "4 x 0.5", 7.0, 0), ("F", "0.6 x 0.2", 2.0, 0.1),
        ("F", "0.8 x 0.3", 2.5, 0.2),
        ("F", "1 x 0.4", 4.0, 0.3), ("F", "1.6 x 0.3", 4.0, 0.2), ("F", "2.5 x 0.4", 5.0, 0.3),
        ("F", "4 x 0.5", 7.0, 0.3), ("G", "0.4 x 0.2", 0.9, 0.2), ("H", "0.8 x 0.3", 2.0, 0.05),
        ("H", "1.2 x 0.3", 2.4, 0.05),
    ],
)  # fmt: skip
def test_sizes_of_undercuts(form: str, name: str, length: float, face: float) -> None:
    row = next(one for one in standard_reliefs(form) if one["name"] == name)
    assert (row["length_mm"], row["face_depth_mm"]) == (length, face)


@pytest.mark.parametrize(
    ("form", "size"),
    everyday(
        [("E", "0.4 x 0.2"), ("E", "0.8 x 0.3"), ("E", "1.2 x 0.4"), ("G", "0.4 x 0.2"), ("H", "0.8 x 0.3"),
         ("H", "1.2 x 0.3")],
        ("E", "0.4 x 0.2"), ("H", "0.8 x 0.3"),
    ),
)  # fmt: skip
def test_a_finishing_nose_leaves_the_round_of_a_shallow_relief(form: str, size: str) -> None:
    """The round of the relief is larger than it is deep: it stands in the corner, and a sharper nose keeps off it."""
    row = next(one for one in standard_reliefs(form) if one["name"] == size)
    fields = {key: row[key] for key in ("length_mm", "depth_mm", "radius_mm", "face_depth_mm")}
    ends = [(0, 40.0), (-30, 40.0), (-30, 60.0), (-50, 60.0)]
    part = Part.model_validate({
        "outside": [{"z_mm": z, "d_mm": d} for z, d in ends],
        "features": [{"kind": "relief", "form": form, "z_mm": -30, **fields}],
    })  # fmt: skip
    engine = Engine()
    sides = engine.sides(engine.route(fresh_job(part, "seat")).job)
    whole = prove_whole(sides, engine.language(sides[0].job))
    assert whole.verdict.dangers == ()
    assert max(proof.gouge_um for proof in whole.proofs) <= 2
