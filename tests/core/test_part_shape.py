"""Bores, grooves, reliefs and holes as regions."""

import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from toreuma.core.errors import PartError
from toreuma.core.geometry.elements import Arc
from toreuma.core.geometry.part_shape import PartShape, build_part
from toreuma.core.geometry.region import box, rotated_volume
from toreuma.core.model import Element, Part
from toreuma.core.model.feature import Groove

SHAFT = [{"z_mm": 0, "d_mm": 40}, {"z_mm": -60, "d_mm": 40}]


def build(*features: dict[str, Any], outside: Any = None, **part: Any) -> PartShape:
    return build_part(Part.model_validate({"outside": outside or SHAFT, "features": features, **part}))


def lost(shape: PartShape) -> float:
    """Volume the bore and features take from a plain shaft, mm3."""
    return rotated_volume(build().region) - rotated_volume(shape.region)


def test_a_through_bore_takes_its_cylinder() -> None:
    shape = build(inside=[{"z_mm": 0, "d_mm": 20}, {"z_mm": -60, "d_mm": 20}])
    assert lost(shape) == pytest.approx(math.pi * 100 * 60)
    assert shape.region.bounds[1] == pytest.approx(10)


def test_a_blind_bore_has_a_flat_bottom_or_ends_on_the_axis() -> None:
    flat = build(inside=[{"z_mm": 0, "d_mm": 20}, {"z_mm": -30, "d_mm": 20}])
    assert lost(flat) == pytest.approx(math.pi * 100 * 30)
    cone = build(inside=[{"z_mm": 0, "d_mm": 20}, {"z_mm": -30, "d_mm": 20}, {"z_mm": -40, "d_mm": 0}])
    assert lost(cone) == pytest.approx(math.pi * 100 * (30 + 10 / 3))


def test_chamfers_open_a_bore_at_both_mouths() -> None:
    """A ring of triangular section at each end: 2 pi (10 + 1/3) * 1/2 each."""
    chamfer = {"kind": "chamfer", "size_mm": 1}
    shape = build(inside=[{"z_mm": 0, "d_mm": 20, "corner": chamfer}, {"z_mm": -60, "d_mm": 20, "corner": chamfer}])
    assert lost(shape) == pytest.approx(math.pi * 100 * 60 + 2 * 2 * math.pi * (10 + 1 / 3) / 2)


def test_sizes_are_cut_to_the_middle_of_their_limits() -> None:
    """Ø40 h6 is 0/-16: the cylinder stands at 39.992, and the face before it runs out there as well."""
    sized = [SHAFT[0], {**SHAFT[1], "size": {"fit": "h6", "lower_um": -16, "upper_um": 0}}]
    shape = build(outside=sized)
    assert 2 * shape.profile.largest_r == pytest.approx(39.992)
    assert shape.profile.segments[0].end[1] == pytest.approx(19.996)


def test_sharp_outer_edges_are_broken_and_inner_corners_are_not() -> None:
    stepped = [{"z_mm": 0, "d_mm": 20}, {"z_mm": -20, "d_mm": 20}, {"z_mm": -20, "d_mm": 40}, {"z_mm": -60, "d_mm": 40}]
    shape = build(outside=stepped, edge_break_mm=0.3, inside=[{"z_mm": 0, "d_mm": 8}, {"z_mm": -60, "d_mm": 8}])
    assert sum(shape.profile.corners) == 3  # front edge, shoulder's outer edge, back edge
    assert shape.bore is not None
    assert sum(shape.bore.corners) == 2


def test_a_groove_takes_a_ring() -> None:
    groove = {"kind": "groove", "z_mm": -20, "width_mm": 4, "d_mm": 34}
    assert lost(build(groove)) == pytest.approx(math.pi * (400 - 289) * 4)
    inside = {**groove, "side": "inside", "d_mm": 26}
    bored = build(inside, inside=[{"z_mm": 0, "d_mm": 20}, {"z_mm": -60, "d_mm": 20}])
    assert lost(bored) == pytest.approx(math.pi * 100 * 60 + math.pi * (169 - 100) * 4)


def test_leaning_walls_make_a_v_and_then_an_error() -> None:
    """Walls of 17 degrees from 13 wide: 5 deep leaves a floor of 13 - 2*5*tan 17 = 9.943."""
    v = {"kind": "groove", "z_mm": -20, "width_mm": 13, "d_mm": 30, "wall_deg": 17}
    region = build(v).region
    floor = 13 - 10 * math.tan(math.radians(17))
    section = 400 * 0 + (13 + floor) / 2 * 5
    assert build().region.area - region.area == pytest.approx(section)
    with pytest.raises(PartError, match=r"walls meet.*use a width"):
        build({**v, "wall_deg": 60})


def test_floor_rounds_and_edge_breaks_are_true() -> None:
    groove = {"kind": "groove", "z_mm": -20, "width_mm": 4, "d_mm": 34, "floor_round_mm": 0.5, "edge_break_mm": 0.2}
    shape = build(groove)
    sharp = 4 * 3 - 2 * (1 - math.pi / 4) * 0.25 + 2 * 0.02
    assert build().region.area - shape.region.area == pytest.approx(sharp, abs=1e-3)
    arcs = [s for ring in shape.outlines for s in ring if isinstance(s, Arc)]
    assert [round(arc.radius, 3) for arc in arcs] == [0.5, 0.5]


def test_a_face_groove_stands_in_its_face() -> None:
    groove = {"kind": "face_groove", "d_mm": 30, "width_mm": 3, "depth_mm": 2}
    assert lost(build(groove)) == pytest.approx(math.pi * (225 - 144) * 2)
    back = build({**groove, "end": "back"}).region
    assert not back.contains(build().region)
    assert lost(build({**groove, "end": "back"})) == pytest.approx(math.pi * (225 - 144) * 2)


def test_a_thread_relief_runs_out_at_thirty_degrees() -> None:
    stepped = [{"z_mm": 0, "d_mm": 20}, {"z_mm": -30, "d_mm": 20}, {"z_mm": -30, "d_mm": 40}, {"z_mm": -60, "d_mm": 40}]
    relief = {"kind": "relief", "form": "thread", "z_mm": -30, "length_mm": 5, "depth_mm": 1, "radius_mm": 0.5}
    taken = build(outside=stepped).region.area - build(relief, outside=stepped).region.area
    ramp = 1 / math.tan(math.radians(30))
    assert taken == pytest.approx(5 - ramp / 2 - (1 - math.pi / 4) * 0.25, abs=1e-3)


def test_a_shallow_relief_leaves_its_radius_in_the_corner() -> None:
    """Form E with a radius larger than its depth: the arc stands above the cylinder too."""
    stepped = [{"z_mm": 0, "d_mm": 20}, {"z_mm": -30, "d_mm": 20}, {"z_mm": -30, "d_mm": 40}, {"z_mm": -60, "d_mm": 40}]
    relief = {"kind": "relief", "form": "E", "z_mm": -30, "length_mm": 2.5, "depth_mm": 0.2, "radius_mm": 0.8}
    plain, relieved = build(outside=stepped).region, build(relief, outside=stepped).region
    assert relieved.difference(plain).area > 0.01
    assert plain.difference(relieved).area > 0.1


def test_drilled_and_centred() -> None:
    """Ø10 drilled 20 deep with a 118 degree point: point length 0.3004 d."""
    hole = {"kind": "axial_hole", "d_mm": 10, "depth_mm": 20}
    point = 5 / math.tan(math.radians(59))
    assert lost(build(hole)) == pytest.approx(math.pi * 25 * (20 + point / 3))
    assert lost(build({"kind": "axial_hole", "d_mm": 10})) == pytest.approx(math.pi * 25 * 60)
    assert lost(build({"kind": "centre_hole", "d_mm": 2.5, "mouth_d_mm": 5.3, "end": "back"})) > 10


WRONG = [
    ({"features": [{"kind": "groove", "z_mm": -20, "width_mm": 4, "d_mm": 44}]}, "features[0].d_mm"),
    ({"features": [{"kind": "groove", "z_mm": 20, "width_mm": 4, "d_mm": 30}]}, "features[0].z_mm"),
    ({"features": [{"kind": "groove", "side": "inside", "z_mm": -2, "width_mm": 4, "d_mm": 30}]}, "features[0].side"),
    ({"features": [{"kind": "groove", "z_mm": -20, "width_mm": 4, "d_mm": 0}]}, "features[0].kind"),
    ({"features": [{"kind": "axial_hole", "d_mm": 10, "depth_mm": 70}]}, "features[0].depth_mm"),
    ({"features": [{"kind": "face_groove", "d_mm": 30, "width_mm": 20, "depth_mm": 2}]}, "features[0].width_mm"),
    ({"inside": [{"z_mm": -5, "d_mm": 20}, {"z_mm": -60, "d_mm": 20}]}, "inside[0].z_mm"),
    ({"inside": [{"z_mm": 0, "d_mm": 50}, {"z_mm": -60, "d_mm": 20}]}, "inside[0].d_mm"),
    ({"inside": [{"z_mm": 0, "d_mm": 20}]}, "inside[0].z_mm"),
    ({"inside": [{"z_mm": 0, "d_mm": 20}, {"z_mm": -80, "d_mm": 20}]}, "inside[1].z_mm"),
    ({"inside": [{"z_mm": 0, "d_mm": 20}, {"z_mm": -20, "d_mm": 44}, {"z_mm": -60, "d_mm": 20}]}, "part.inside"),
    ({"inside": [{"z_mm": 0, "d_mm": 9}, {"z_mm": -20, "d_mm": 9, "corner": {"kind": "round", "size_mm": 9}},
                 {"z_mm": -20, "d_mm": 5}, {"z_mm": -60, "d_mm": 5}]}, "inside[1].corner"),
]  # fmt: skip


@pytest.mark.parametrize(("fields", "place"), WRONG)
def test_what_cannot_be_names_its_place(fields: dict[str, Any], place: str) -> None:
    with pytest.raises(PartError) as caught:
        build_part(Part.model_validate({"outside": SHAFT, **fields}))
    assert place in str(caught.value)
    assert caught.value.cure


def test_what_fills_a_groove_is_as_thick_as_the_groove_is_deep() -> None:
    from toreuma.core.geometry.region import thickness

    grooved = build({"kind": "groove", "z_mm": -20, "width_mm": 8, "d_mm": 34}).region
    filling = build().region.difference(grooved)
    assert thickness(filling, grooved) == pytest.approx(3.0, abs=0.01)


@settings(max_examples=60, deadline=None)
@given(
    step=st.sampled_from((-6.0, -2.0, 2.0, 6.0)),
    gap=st.sampled_from((0.0, 0.05, 0.2, 0.5, 3.0)),
    at_back=st.booleans(),
    width=st.floats(1.0, 6.0),
    depth=st.floats(0.5, 3.0),
    edge=st.sampled_from((0.0, 0.1, 0.3, 0.6)),
    lean=st.sampled_from((0.0, 10.0)),
)
def test_a_groove_takes_nothing_but_itself(
    step: float, gap: float, at_back: bool, width: float, depth: float, edge: float, lean: float
) -> None:
    """Beside a shoulder, on either end of it, the face of the shoulder stays whole."""
    shoulder, d = -20.0, 40.0
    ends = (40.0, 40.0 + step) if at_back else (40.0 + step, 40.0)
    outside = (
        Element(z_mm=0.0, d_mm=ends[0]), Element(z_mm=shoulder, d_mm=ends[0]), Element(z_mm=shoulder, d_mm=ends[1]),
        Element(z_mm=-45.0, d_mm=ends[1]),
    )  # fmt: skip
    front = shoulder + gap + width if at_back else shoulder - gap
    groove = Groove(z_mm=front, width_mm=width, d_mm=d - 2 * depth, edge_break_mm=edge, wall_deg=lean)
    bare = build_part(Part(outside=outside)).region
    try:
        cut = build_part(Part(outside=outside, features=(groove,))).region
    except PartError:
        return
    taken = bare.difference(cut)
    assert taken.difference(box(front - width - edge, d / 2 - depth, front + edge, d / 2)).area < 1e-9
