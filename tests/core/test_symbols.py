"""What a drawing shows of threads, holes, flats and slots."""

from typing import Any

import pytest

from toreuma.core.geometry.part_shape import build_part
from toreuma.core.geometry.symbols import Symbol, symbols_of
from toreuma.core.model import Part
from toreuma.shipped.library import known_threads

OUTSIDE = [{"z_mm": 0, "d_mm": 24}, {"z_mm": -30, "d_mm": 24}, {"z_mm": -30, "d_mm": 40}, {"z_mm": -60, "d_mm": 40}]
INSIDE = [{"z_mm": 0, "d_mm": 10}, {"z_mm": -60, "d_mm": 10}]


def drawn(feature: dict[str, Any], bored: bool = False) -> list[Symbol]:
    part = Part.model_validate({"outside": OUTSIDE, "inside": INSIDE if bored else [], "features": [feature]})
    return symbols_of(part, build_part(part), known_threads(part))


def test_an_outside_thread_has_its_root_inside_the_metal() -> None:
    """M24: least minor diameter of 6g is 19.855 (d2 min less 0.616 P)."""
    root, end = drawn({"kind": "thread", "designation": "M24", "from_z_mm": 0, "length_mm": 20})
    assert root.style == "thin"
    assert root.points[0] == (0, pytest.approx(9.98, abs=0.1))
    assert root.points[1][0] == -20
    assert end.style == "edge"


def test_an_unknown_thread_is_not_drawn() -> None:
    assert drawn({"kind": "thread", "designation": "M24xx", "from_z_mm": 0, "length_mm": 20}) == []


def test_an_inside_thread_has_its_root_in_the_wall() -> None:
    feature = {"kind": "thread", "side": "inside", "designation": "M12", "from_z_mm": 0, "length_mm": 20}
    root = drawn(feature, bored=True)[0]
    assert root.points[0][1] == pytest.approx(6.0, abs=0.01)


def test_holes_in_the_face_are_as_deep_as_they_are() -> None:
    feature = {"kind": "holes", "on": "front", "count": 3, "d_mm": 3, "depth_mm": 8, "circle_d_mm": 16}
    edge, centre = drawn(feature)
    assert {z for z, _ in edge.points} == {0, -8}
    assert {r for _, r in edge.points} == {6.5, 9.5}
    assert centre.style == "centre"
    through = drawn({**feature, "depth_mm": None})[0]
    assert min(z for z, _ in through.points) == -60
    back = drawn({**feature, "on": "back"})[0]
    assert {z for z, _ in back.points} == {-60, -52}


def test_holes_round_the_outside_start_at_the_surface() -> None:
    edge = drawn({"kind": "holes", "on": "outside", "d_mm": 4, "depth_mm": 6, "z_mm": -45})[0]
    assert max(r for _, r in edge.points) == pytest.approx(20)
    assert min(r for _, r in edge.points) == pytest.approx(14)
    assert {z for z, _ in edge.points} == {-47, -43}


def test_flats_are_crossed_down_to_the_axis_or_the_bore() -> None:
    feature = {"kind": "flats", "count": 2, "distance_mm": 17, "from_z_mm": -40, "to_z_mm": -60}
    symbols = drawn(feature)
    assert [symbol.style for symbol in symbols] == ["edge", "thin", "thin"]
    assert min(r for _, r in symbols[1].points) == 0
    assert min(r for _, r in drawn(feature, bored=True)[1].points) == pytest.approx(5)


@pytest.mark.parametrize("ends", [(-10, -10), (-20, -10), (0, 0)])
def test_flats_of_no_length_are_not_drawn(ends: tuple[float, float]) -> None:
    feature = {"kind": "flats", "count": 2, "distance_mm": 8, "from_z_mm": ends[0], "to_z_mm": ends[1]}
    assert drawn(feature, bored=True) == []


def test_keyways_lie_in_the_wall_they_are_cut_into() -> None:
    slot = {"kind": "slot", "width_mm": 6, "depth_mm": 3.5, "from_z_mm": -32, "to_z_mm": -55}
    assert min(r for _, r in drawn(slot)[0].points) == pytest.approx(16.5)
    inside = drawn({**slot, "on": "inside", "depth_mm": 2}, bored=True)[0]
    assert max(r for _, r in inside.points) == pytest.approx(7)
    face = drawn({**slot, "on": "front"})[0]
    assert min(z for z, _ in face.points) == pytest.approx(-3.5)
