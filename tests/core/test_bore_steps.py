"""Where a bore narrows by a step, and regions whose answers come as collections."""

import pytest
import shapely

from toreuma.core.geometry.bore_steps import step_at
from toreuma.core.geometry.elements import Line
from toreuma.core.geometry.region import EMPTY, depth_inside, without_film

WALLS = (
    Line((0.0, 10.0), (-12.0, 10.0)), Line((-12.0, 10.0), (-12.0, 4.2)), Line((-12.0, 4.2), (-12.2, 4.0)),
    Line((-12.2, 4.0), (-20.0, 4.0)), Line((-20.0, 4.0), (-20.0, 8.0)), Line((-20.0, 8.0), (-30.0, 8.0)),
)  # fmt: skip


@pytest.mark.parametrize(
    ("z", "found"),
    [(-12.0, -12.0), (-12.2, -12.0), (-12.7, None), (-11.9, None), (-20.0, None), (-30.0, None), (0.0, None)],
)
def test_a_step_inward_is_found_with_the_broken_edge_behind_it(z: float, found: float | None) -> None:
    assert step_at(WALLS, z) == found


def test_what_lines_lie_beside_a_region_does_not_matter() -> None:
    square = shapely.box(0, 0, 10, 10)
    mixed = shapely.GeometryCollection([shapely.LineString([(20, 0), (30, 0)]), square])
    assert depth_inside(EMPTY, mixed) == 0.0
    assert depth_inside(square, EMPTY) == 0.0
    assert without_film(EMPTY, 0.01).is_empty
