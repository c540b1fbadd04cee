"""From typed dimensions to true lines and arcs, and clear words for what cannot be."""

import math

import pytest

from toreuma.core.errors import PartError
from toreuma.core.geometry.elements import Arc, Line
from toreuma.core.geometry.profile import build_profile
from toreuma.core.geometry.region import region_from_points, rotated_volume
from toreuma.core.model import Part


def part(*elements: dict) -> Part:  # type: ignore[type-arg]
    return Part.model_validate({"outside": list(elements)})


def test_a_stepped_shaft_is_what_it_says() -> None:
    profile = build_profile(part({"z_mm": 0, "d_mm": 20}, {"z_mm": -10, "d_mm": 20}, {"z_mm": -10, "d_mm": 30},
                                 {"z_mm": -25, "d_mm": 30}))  # fmt: skip
    assert [type(s) for s in profile.segments] == [Line] * 5
    assert (profile.back_z, profile.front_z, profile.largest_r) == (-25, 0, 15)
    volume = rotated_volume(region_from_points(profile.points))
    assert volume == pytest.approx(math.pi * (100 * 10 + 225 * 15), rel=1e-9)


def test_a_ball_has_the_volume_of_a_ball() -> None:
    profile = build_profile(part({"kind": "arc", "z_mm": -10, "d_mm": 20, "radius_mm": 10},
                                 {"kind": "arc", "z_mm": -20, "d_mm": 0, "radius_mm": 10}))  # fmt: skip
    assert rotated_volume(region_from_points(profile.points)) == pytest.approx(4 / 3 * math.pi * 1000, rel=1e-4)


def test_chamfers_and_rounds_sit_on_their_corner() -> None:
    profile = build_profile(part(
        {"z_mm": 0, "d_mm": 20, "corner": {"kind": "chamfer", "size_mm": 1}},
        {"z_mm": -10, "d_mm": 20, "corner": {"kind": "round", "size_mm": 2}},
        {"z_mm": -10, "d_mm": 30},
        {"z_mm": -20, "d_mm": 30, "corner": {"kind": "round", "size_mm": 0.5}},
    ))  # fmt: skip
    chamfer, inner, back = profile.segments[1], profile.segments[3], profile.segments[6]
    assert (chamfer.start, chamfer.end) == (pytest.approx((0, 9)), pytest.approx((-1, 10)))
    assert isinstance(inner, Arc)
    assert inner.clockwise
    assert inner.centre == pytest.approx((-8, 12))
    assert isinstance(back, Arc)
    assert not back.clockwise
    assert profile.outside_end == 6  # the back edge is left to parting off
    assert profile.corners[1]
    assert profile.elements[1] == 0


@pytest.mark.parametrize(
    ("elements", "element", "field", "words"),
    [
        ([{"z_mm": 0, "d_mm": 20}, {"z_mm": 0, "d_mm": 20}], 1, "z_mm", "no length"),
        ([{"z_mm": 2, "d_mm": 20}], 0, "z_mm", "in front of"),
        ([{"z_mm": 0, "d_mm": 20}], 0, "z_mm", "no length"),
        ([{"kind": "arc", "z_mm": -5, "d_mm": 20}], 0, "radius_mm", "needs a radius"),
        ([{"kind": "arc", "z_mm": -5, "d_mm": 20, "radius_mm": 2}], 0, "radius_mm", "too small"),
        ([{"kind": "arc", "z_mm": -20, "d_mm": 2, "radius_mm": 11, "bulge": "concave"}], 0, "radius_mm", "axis"),
        ([{"z_mm": 0, "d_mm": 10}, {"kind": "arc", "z_mm": -1, "d_mm": 30, "radius_mm": 10.1}],
         1, "radius_mm", "in front"),
        ([{"z_mm": 0, "d_mm": 20, "corner": {"kind": "chamfer", "size_mm": 15}}, {"z_mm": -9, "d_mm": 20}],
         0, "corner", "larger than the edge"),
        ([{"z_mm": 0, "d_mm": 20}, {"z_mm": -9, "d_mm": 20, "corner": {"kind": "round", "size_mm": 1}},
          {"z_mm": -19, "d_mm": 20}], 1, "corner", "no corner"),
        ([{"z_mm": 0, "d_mm": 20}, {"z_mm": -20, "d_mm": 20}, {"z_mm": -20, "d_mm": 30}, {"z_mm": -10, "d_mm": 30},
          {"z_mm": -10, "d_mm": 4}, {"z_mm": -30, "d_mm": 4}], None, "z_mm", "crosses itself"),
    ],
)  # fmt: skip
def test_what_cannot_be_names_element_and_field(elements: list, element: int, field: str, words: str) -> None:  # type: ignore[type-arg]
    with pytest.raises(PartError) as caught:
        build_profile(part(*elements))
    assert words in str(caught.value)
    assert caught.value.field == field
    if element is not None:
        assert caught.value.element == element


def test_cylinders_of_one_diameter_with_other_limits_meet_in_a_step() -> None:
    """20 k6 is +2 to +15 um, 20 h9 -52 to 0 (ISO 286): each is turned to its own middle, and none is a cone."""
    k6, h9 = ({"lower_um": low, "upper_um": high} for low, high in ((2, 15), (-52, 0)))
    seat = {"z_mm": -20, "d_mm": 20, "size": k6}
    shaft = {"z_mm": -50, "d_mm": 20, "size": h9}
    profile = build_profile(part({"z_mm": 0, "d_mm": 20}, seat, shaft))
    ends = [(segment.start, segment.end) for segment in profile.segments[1:4]]
    assert ends == [
        ((0, pytest.approx(10.00425)), (-20, pytest.approx(10.00425))),
        ((-20, pytest.approx(10.00425)), (-20, pytest.approx(9.987))),
        ((-20, pytest.approx(9.987)), (-50, pytest.approx(9.987))),
    ]
    # One without limits keeps its size, whichever side of the other it lies on.
    for elements in ((seat, {"z_mm": -50, "d_mm": 20}), ({"z_mm": -30, "d_mm": 20}, {**seat, "z_mm": -50})):
        radii = [s.start[1] for s in build_profile(part({"z_mm": 0, "d_mm": 20}, *elements)).segments
                 if abs(s.start[1] - s.end[1]) < 1e-9 and s.start[1] > 1]  # fmt: skip
        assert sorted(radii) == [pytest.approx(10), pytest.approx(10.00425)]
