"""True shapes of tools: inscribed circles, points, hands and sides."""

import math
from typing import Any

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from toreuma.core.geometry.insert_outline import corner_deg, outline
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model.tool import (
    Bar,
    Blade,
    BoringTool,
    Drill,
    GroovingTool,
    Holder,
    Insert,
    Reamer,
    Tap,
    ThreadingTool,
    ThreadInsert,
    TurningTool,
)

ANGLES = {"C": 80, "D": 55, "E": 75, "M": 86, "V": 35, "S": 90, "T": 60, "W": 80, "P": 108, "H": 120, "O": 135}


def insert(shape: str, ic: float = 12.7, radius: float = 0.8, **more: Any) -> Insert:
    angle = {**ANGLES, "R": 90, "K": 55, "L": 90}[shape]
    return Insert(
        shape=shape,
        included_angle_deg=angle,
        ic_mm=ic,
        thickness_mm=4.76,
        nose_radius_mm=radius,
        **more,  # type: ignore[arg-type]
    )


def turning(shape: str, entering: float = 95, **more: Any) -> TurningTool:
    holder = Holder(
        entering_angle_deg=entering,
        shank_width_mm=25,
        functional_width_mm=32,
        functional_length_mm=150,
        head_length_mm=30,
    )
    return TurningTool(id="T1", station=1, insert=insert(shape, **more), holder=holder)


def boring(shape: str = "C", diameter: float = 16, **more: Any) -> BoringTool:
    bar = Bar(
        entering_angle_deg=95,
        diameter_mm=diameter,
        functional_width_mm=diameter / 2 + 3,
        functional_length_mm=150,
        least_bore_mm=diameter + 4,
    )
    return BoringTool(id="T1", station=1, insert=insert(shape, ic=9.525, radius=0.4), bar=bar, **more)


@pytest.mark.parametrize("shape", sorted(ANGLES))
def test_the_inscribed_circle_touches_every_edge(shape: str) -> None:
    tool = insert(shape)
    corners = outline(tool, 0.0, 1.4)
    ring = shapely.LinearRing(corners)
    centre = corners[0] + tool.ic_mm / 2 / math.sin(math.radians(corner_deg(tool)) / 2) * np.array(
        [math.cos(1.4 - math.radians(corner_deg(tool)) / 2), math.sin(1.4 - math.radians(corner_deg(tool)) / 2)]
    )
    edges = [shapely.LineString(pair) for pair in zip(ring.coords[:-1], ring.coords[1:], strict=True)]
    distances = [edge.distance(shapely.Point(centre)) for edge in edges]
    assert distances == pytest.approx([tool.ic_mm / 2] * len(edges), abs=1e-9)


@given(
    shape=st.sampled_from(sorted(ANGLES)),
    entering=st.floats(45, 107.5),
    ic=st.sampled_from([6.35, 9.525, 12.7, 19.05]),
    radius=st.sampled_from([0.2, 0.4, 0.8, 1.2]),
)
def test_the_rounded_insert_stays_inside_the_sharp_one_and_reaches_its_edges(
    shape: str, entering: float, ic: float, radius: float
) -> None:
    tool = turning(shape, entering, ic=ic, radius=radius)
    form = shape_of(tool)
    sharp = shapely.Polygon(outline(tool.insert, 0.0, math.radians(180 - entering)))
    corner = math.radians(corner_deg(tool.insert))
    centre = np.array(
        [math.cos(math.radians(180 - entering) - corner / 2), math.sin(math.radians(180 - entering) - corner / 2)]
    )
    moved = shapely.affinity.translate(form.cutting, *(centre * radius / math.sin(corner / 2)))
    assert moved.difference(sharp.buffer(1e-6)).area < 1e-9
    assert sharp.area - moved.area < len(sharp.exterior.coords) * radius**2 * 3.5
    low = float(form.cutting.bounds[1])
    assert low == pytest.approx(-radius, abs=1e-3) or low < -radius  # nothing but an edge lies deeper than the nose


def test_hands_and_sides_are_mirrors() -> None:
    for tool in (turning("C"), turning("V", 72.5), boring("D"), _groover("face"), _threader()):
        right, left = shape_of(tool), shape_of(tool.changed(hand="left"))
        assert np.allclose(left.core, right.core * [-1, 1])
        assert left.body.symmetric_difference(shapely.affinity.scale(right.body, -1, 1, origin=(0, 0))).area < 1e-9
        assert left.tip == (-right.tip[0], right.tip[1])
    bar, out = shape_of(boring("C")), shape_of(turning("C", ic=9.525, radius=0.4))
    assert np.allclose(bar.core, out.core * [1, -1])
    assert bar.tip == (out.tip[0], -out.tip[1])


def _groover(where: str, **more: Any) -> GroovingTool:
    blade = Blade(width_mm=3, corner_radius_mm=0.2, depth_mm=12, block_width_mm=12, functional_length_mm=60)
    return GroovingTool(id="T2", station=2, where=where, blade=blade, **more)  # type: ignore[arg-type]


def _threader() -> ThreadingTool:
    tooth = ThreadInsert(
        profile_deg=60, full_profile=True, pitch_mm=(1.5, 1.5), tip_radius_mm=0.2, width_mm=4, profile_depth_mm=1.2
    )
    return ThreadingTool(id="T3", station=3, insert=tooth, holder=turning("C").holder)


def test_blades_point_where_they_plunge() -> None:
    assert shape_of(_groover("outside")).cutting.bounds[1] == pytest.approx(-0.2, abs=1e-3)
    face = shape_of(_groover("face"))
    assert face.cutting.bounds[0] == pytest.approx(-0.2, abs=1e-3)
    assert face.cutting.bounds[3] - face.cutting.bounds[1] == pytest.approx(3, abs=1e-3)
    full = shape_of(_groover("outside", round_tip=True))
    assert full.nose_radius == 1.5
    v = shape_of(_groover("outside", tip_deg=40.0))
    top = v.cutting.bounds[3]
    assert top == pytest.approx(12, abs=0.5)
    width_at_2 = v.cutting.intersection(shapely.LineString([(-9, 1.8), (9, 1.8)])).length
    half = math.radians(20)
    assert width_at_2 == pytest.approx(2 * (0.2 / math.cos(half) + 1.8 * math.tan(half)), abs=1e-3)


def test_threading_teeth_have_their_flank_angle() -> None:
    tooth = shape_of(_threader()).cutting
    widths = [tooth.intersection(shapely.LineString([(-9, r), (9, r)])).length for r in (0.3, 0.8)]
    assert (widths[1] - widths[0]) / 0.5 == pytest.approx(2 * math.tan(math.radians(30)), abs=1e-3)


def test_drills_have_their_point_length() -> None:
    """Point length D/2 / tan(sigma/2): 0.300 D for 118 degrees, 0.182 D for 140 (plain trigonometry)."""
    for angle, share in ((118, 0.300), (140, 0.182)):
        drill = Drill(
            id="T4", station=4, d_mm=10, point_deg=angle, flute_length_mm=60, overall_length_mm=100, shank_d_mm=10
        )
        form = shape_of(drill)
        across = form.cutting.intersection(shapely.LineString([(share * 10, -9), (share * 10, 9)])).length
        assert across == pytest.approx(10, abs=0.03)
        assert form.cutting.bounds[2] == 60
        assert form.body.bounds[2] == 100
    centre = Drill(
        id="T5",
        station=5,
        form="centre",
        d_mm=6.3,
        pilot_d_mm=2.5,
        flute_length_mm=8,
        overall_length_mm=45,
        shank_d_mm=6.3,
    )
    form = shape_of(centre)
    low = form.cutting.intersection(shapely.LineString([(2.0, -9), (2.0, 9)])).length
    assert low == pytest.approx(2.5)  # the pilot, in front of the cone
    for axial in (
        Reamer(id="R", station=1, d_mm=8, flute_length_mm=30, overall_length_mm=80, shank_d_mm=8),
        Tap(
            id="P",
            station=1,
            thread="M8",
            d_mm=8,
            pitch_mm=1.25,
            flute_length_mm=22,
            overall_length_mm=90,
            shank_d_mm=6,
        ),
    ):
        assert shape_of(axial).cutting.bounds[3] == pytest.approx(4)


def test_a_right_hand_blade_sits_at_the_end_of_its_block_toward_the_chuck() -> None:
    """As a turning tool of its hand, it gets to a shoulder on the chuck's side; the left-hand one is its mirror."""
    right, left = (shape_of(_groover("outside", hand=hand)) for hand in ("right", "left"))
    for shape, sign in ((right, 1), (left, -1)):
        cutting, block = shape.cutting.bounds, shape.bodies[1]
        far = (block[:, 0] * sign).max() - max(sign * cutting[0], sign * cutting[2])
        near = (block[:, 0] * sign).min() - min(sign * cutting[0], sign * cutting[2])
        assert near == pytest.approx(0, abs=1e-6)
        assert far > 5
