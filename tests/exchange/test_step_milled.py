"""Milled extras found on a solid, one kind at a time."""

from pathlib import Path
from typing import Any

import pytest

from toreuma.core.geometry.milled import sunk_of
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.model import Part
from toreuma.exchange.imports import Imported
from toreuma.exchange.step_in import read_step
from toreuma.exchange.step_out import part_solid, write_step

FLANGE = [{"z_mm": 0, "d_mm": 30}, {"z_mm": -20, "d_mm": 30}, {"z_mm": -20, "d_mm": 60}, {"z_mm": -40, "d_mm": 60}]
THROUGH = [{"z_mm": 0, "d_mm": 16}, {"z_mm": -40, "d_mm": 16}]


def back(tmp_path: Path, *features: dict[str, Any], **part: Any) -> Imported:
    path = tmp_path / "solid.step"
    write_step(part_solid(Part.model_validate({"outside": FLANGE, "features": features, **part})), path)
    found = read_step(path)
    assert found.deviation_um < 1
    return found


def test_a_bolt_circle_through_a_flange(tmp_path: Path) -> None:
    holes = {"kind": "holes", "on": "front", "count": 5, "d_mm": 5.5, "circle_d_mm": 46, "z_mm": -20, "start_deg": 12}
    one: Any = back(tmp_path, holes, inside=THROUGH).part.features[0]
    assert (one.count, one.d_mm, one.depth_mm, one.circle_d_mm, one.z_mm) == (5, 5.5, None, 46, -20)
    assert one.start_deg % 72 == pytest.approx(12, abs=0.01)


def test_a_row_of_holes_that_is_no_full_circle(tmp_path: Path) -> None:
    holes = {"kind": "holes", "on": "back", "count": 3, "step_deg": 25, "start_deg": 40, "d_mm": 4, "depth_mm": 6}
    found: Any = back(tmp_path, {**holes, "circle_d_mm": 44}).part.features[0]
    assert (found.on, found.count, found.step_deg, found.depth_mm) == ("back", 3, 25, 6)
    assert found.start_deg == pytest.approx(40, abs=0.01)


def test_unevenly_spaced_holes_stay_single(tmp_path: Path) -> None:
    singles = [
        {"kind": "holes", "on": "front", "d_mm": 3, "depth_mm": 5, "circle_d_mm": 20, "start_deg": angle}
        for angle in (0, 50, 170)
    ]
    found: list[Any] = list(back(tmp_path, *singles).part.features)
    assert sorted(one.start_deg for one in found) == pytest.approx([0, 50, 170], abs=0.01)
    assert all(one.count == 1 for one in found)


def test_a_cross_hole_right_through(tmp_path: Path) -> None:
    one: Any = back(
        tmp_path, {"kind": "holes", "on": "outside", "d_mm": 6, "z_mm": -30, "start_deg": 30}
    ).part.features[0]
    assert (one.on, one.count, one.depth_mm, one.z_mm) == ("outside", 1, None, -30)
    assert one.start_deg % 180 == pytest.approx(30, abs=0.01)


def test_a_cross_hole_into_the_bore_only(tmp_path: Path) -> None:
    hole = {"kind": "holes", "on": "outside", "d_mm": 5, "z_mm": -30, "depth_mm": 25, "start_deg": 75}
    one: Any = back(tmp_path, hole, inside=THROUGH).part.features[0]
    assert (one.count, one.depth_mm) == (1, None)
    assert one.start_deg == pytest.approx(75, abs=0.01)


@pytest.mark.parametrize("count", [1, 2, 4, 6])
def test_flats_and_polygons(tmp_path: Path, count: int) -> None:
    flats = {"kind": "flats", "count": count, "distance_mm": 27.5, "from_z_mm": -25, "to_z_mm": -35, "start_deg": 10}
    one: Any = back(tmp_path, flats).part.features[0]
    assert (one.kind, one.count, one.distance_mm, one.from_z_mm, one.to_z_mm) == ("flats", count, 27.5, -25, -35)
    assert (one.start_deg - 10) % (360 / count) == pytest.approx(0, abs=0.01)


@pytest.mark.parametrize("count", [1, 3])
def test_keyways_outside(tmp_path: Path, count: int) -> None:
    slot = {"kind": "slot", "width_mm": 8, "depth_mm": 4, "from_z_mm": -22, "to_z_mm": -38, "count": count}
    one: Any = back(tmp_path, slot).part.features[0]
    assert (one.on, one.count, one.width_mm, one.depth_mm) == ("outside", count, 8, 4)
    assert (one.from_z_mm, one.to_z_mm) == (-22, -38)


def test_a_keyway_in_the_bore(tmp_path: Path) -> None:
    slot = {"kind": "slot", "on": "inside", "width_mm": 5, "depth_mm": 2.3, "from_z_mm": 0, "to_z_mm": -40}
    one: Any = back(tmp_path, slot, inside=THROUGH).part.features[0]
    assert (one.on, one.width_mm, one.depth_mm) == ("inside", 5, 2.3)


def test_a_part_bored_from_the_back_is_turned_round(tmp_path: Path) -> None:
    """A stepped blind bore can only be described from the front, so the back becomes the front."""
    outside = [{"z_mm": 0, "d_mm": 40}, {"z_mm": -50, "d_mm": 40}]
    bore = [{"z_mm": 0, "d_mm": 20}, {"z_mm": -10, "d_mm": 20}, {"z_mm": -10, "d_mm": 12}, {"z_mm": -25, "d_mm": 12}]
    holes = {"kind": "holes", "on": "back", "count": 3, "d_mm": 4, "depth_mm": 5, "circle_d_mm": 30}
    path = tmp_path / "solid.step"
    write_step(part_solid(Part.model_validate({"outside": outside, "inside": bore, "features": [holes]})), path)
    text = path.read_text()
    found = read_step(path)
    assert [(e.z_mm, e.d_mm) for e in found.part.inside] == [(0, 20), (-10, 20), (-10, 12), (-25, 12)]
    assert found.part.features[0].on == "back"  # type: ignore[union-attr]
    assert "ISO-10303-21" in text


def test_a_pocket_that_is_none_of_these_is_named(tmp_path: Path) -> None:
    slot = {"kind": "slot", "on": "front", "width_mm": 6, "depth_mm": 4, "length_mm": 12}
    found = back(tmp_path, slot)
    assert found.part.features == ()
    assert any("could not be told" in word for word in found.warnings)


@pytest.mark.parametrize(
    "slot",
    [
        {"on": "front", "length_mm": 20, "round_ends": False, "corner_radius_mm": 3},
        {"on": "front", "length_mm": 14, "round_ends": False, "corner_radius_mm": 2, "off_mm": 5},
        {"on": "front", "length_mm": 20},
        {"on": "back", "length_mm": 20, "round_ends": False},
    ],
)
def test_a_pocket_takes_its_area_times_its_depth_out_of_the_solid(slot: dict[str, Any]) -> None:
    """The solid that leaves loses what the plan mills: the area of the pocket times its depth."""
    from OCP.BRepGProp import BRepGProp
    from OCP.GProp import GProp_GProps

    def volume(*features: dict[str, Any]) -> float:
        found = GProp_GProps()
        BRepGProp.VolumeProperties_s(part_solid(Part.model_validate({"outside": FLANGE, "features": features})), found)
        return float(found.Mass())

    pocket = {"kind": "slot", "width_mm": 10, "depth_mm": 4, **slot}
    part = Part.model_validate({"outside": FLANGE, "features": (pocket,)})
    (place,) = sunk_of(0, part.features[0], build_part(part).region)  # type: ignore[arg-type]
    assert volume() - volume(pocket) == pytest.approx(4 * place.region.area, rel=1e-3)
