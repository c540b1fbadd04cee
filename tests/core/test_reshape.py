"""Parts turned, scaled and with their steps moved: nothing is lost on the way."""

import pytest

from toreuma.core.edit.reshape import copied_steps, mirrored, moved_step, scaled, step_of, without_steps
from toreuma.core.errors import PartError
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.model import Part
from toreuma.engine.line import line_of, said
from toreuma.shipped.library import demo_job, demo_names


def part_of(line: str) -> Part:
    part = said(line, "mm").part
    assert part is not None
    return part


PIN = part_of("20 h6 x 26 c1 / 30 x 12 / 24 x 44 / 20 x 14 c1; g 3 x 18 at 10; g 3 x 20 at 60")


@pytest.mark.parametrize("name", demo_names())
def test_turned_twice_is_the_part_again(name: str) -> None:
    part = demo_job(name).part
    region = build_part(part).region
    twice = build_part(mirrored(mirrored(part))).region
    assert twice.symmetric_difference(region).area < 1e-3


def test_scaled_by_an_inch_and_back() -> None:
    big = scaled(PIN, 25.4)
    assert build_part(big).region.area == pytest.approx(25.4**2 * build_part(PIN).region.area, rel=1e-4)
    assert big.outside[1].size == PIN.outside[1].size
    assert line_of(scaled(big, 1 / 25.4), "mm") == line_of(PIN, "mm")
    with pytest.raises(PartError):
        scaled(PIN, 0)


def test_a_step_moves_with_what_stands_on_it() -> None:
    moved = moved_step(PIN, "outside", 0, 1)
    assert line_of(moved, "mm").startswith("30 x 12 / 20 h6 x 26 c1")
    assert [f.z_mm for f in moved.features] == [-22, -60]  # type: ignore[union-attr]
    assert build_part(moved).profile.back_z == -96
    assert line_of(moved_step(moved, "outside", 1, -1), "mm") == line_of(PIN, "mm")


def test_a_run_is_copied_and_taken_out() -> None:
    long = copied_steps(PIN, "outside", (1, 2))
    assert build_part(long).profile.back_z == -152
    assert len(long.features) == 3
    short = without_steps(long, "outside", (1, 2))
    assert line_of(short, "mm").startswith("20 h6 x 26 c1 / 30 x 12 / 24 x 44")
    with pytest.raises(PartError):
        without_steps(PIN, "outside", (0, 1, 2, 3))


def test_a_face_and_its_surface_are_one_step() -> None:
    assert [step_of(PIN, "outside", index) for index in range(8)] == [0, 0, 1, 1, 2, 2, 3, 3]


def test_a_through_bore_stays_through() -> None:
    bush = part_of("30 x 10 / 40 x 20; bore 16 through")
    longer = copied_steps(bush, "outside", (1,))
    assert longer.inside[-1].z_mm == -50
