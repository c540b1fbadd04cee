"""What the drawing leaves for grinding: turned to it, told beside *finished*, and nowhere taken for the size."""

import pytest
from benchmarks.judge.drawing import outlines

from toreuma.core.geometry.part_shape import build_part
from toreuma.core.model import Part
from toreuma.engine.engine import Engine
from toreuma.engine.fresh import new_job
from toreuma.engine.inspection import inspection_list
from toreuma.engine.judging import prove_whole
from toreuma.engine.line import line_of, said

SHAFT = "25 k6 x 30 ra 0.4 grind 0.3 / 35 x 20"


def part_of(text: str) -> Part:
    line = said(text, "mm")
    assert line.part is not None, line.faults
    return line.part


def test_the_turned_diameter_is_larger_outside_and_smaller_in_a_bore() -> None:
    part = part_of(SHAFT + "; bore 12 H7 x 20 grind 0.2")
    shape = build_part(part)
    assert shape.profile.segments[1].start[1] == pytest.approx(25.3 / 2)
    assert shape.bore is not None
    assert shape.bore.segments[1].start[1] == pytest.approx(11.8 / 2)
    solid, (bore, *_) = outlines(part.model_dump(mode="json"))
    assert 25.3 / 2 in solid[:, 1].round(6)
    assert 11.8 / 2 in bore[:, 1].round(6)


def test_it_is_said_as_it_is_read() -> None:
    part = part_of(SHAFT)
    assert part_of(line_of(part, "mm")) == part
    assert part_of("25 k6 x 30 for grinding 0.3 ra 0.4 / 35 x 20") == part


def test_the_sheet_measures_what_is_turned() -> None:
    seat = next(one for one in inspection_list(part_of(SHAFT)) if one.key == "outside 1 d")
    assert (seat.nominal, seat.lower, seat.upper) == (25.3, 25.25, 25.35)
    assert "grinding" in seat.from_where


def test_it_is_finished_but_for_the_grinding() -> None:
    """No finishing for Ra 0.4, no limits of a k6; what the cutter leaves is measured against the turned size."""
    job, _ = new_job("p", "mm", "16MnCr5", "slant-bed", SHAFT)
    engine = Engine()
    found = engine.route(job)
    assert found.state == "finished but for"
    assert "grinding" in found.words
    whole = prove_whole(engine.sides(found.job), engine.language(found.job))
    row = next(one for one in whole.verdict.rows if one.key == "outside 1")
    assert row.state == "allowed"
    assert "0.3" in row.left
    size = next(one for one in whole.proofs[0].sizes if one.nominal_mm == pytest.approx(25.3))
    assert size.limits_mm == pytest.approx((25.25, 25.35))
    assert size.ok
    finishing = next(op for op in found.job.operations if op.kind == "finish_od")
    assert finishing.wanted_ra_um > 1


def test_a_bore_that_is_ground_is_not_reamed() -> None:
    job, _ = new_job("p", "mm", "16MnCr5", "slant-bed", "40 x 20; bore 12 H7 through grind 0.2")
    assert "ream" not in [op.kind for op in Engine().route(job).job.operations]
