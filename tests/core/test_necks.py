"""Necks drawn as steps, written as grooves: the same solid, and only where a groove can say it."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from toreuma.core.edit.necks import necks_as_grooves
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.model import Part
from toreuma.core.model.feature import Groove
from toreuma.engine.fresh import new_job


def drawn(line: str) -> Part:
    return new_job("part", "mm", "C45", "slant-bed", line)[0].part


@given(
    st.floats(min_value=4, max_value=40),
    st.floats(min_value=1, max_value=25),
    st.floats(min_value=0.5, max_value=8),
    st.sampled_from([0.0, 0.2, 0.4]),
)
@settings(max_examples=40, deadline=None)
def test_the_solid_stays_the_same(long: float, wide: float, deep: float, broken: float) -> None:
    long, wide, deep = round(long, 2), round(wide, 2), round(deep, 2)
    edge = f" c{broken} both" if broken else ""
    part = drawn(f"40 x {long}{edge} / {40 - 2 * deep:g} x {wide} / 40 x {long}{edge}")
    found = necks_as_grooves(part)
    assert found is not None
    assert [one.width_mm for one in found.features if isinstance(one, Groove)] == [pytest.approx(wide)]
    assert build_part(found).region.symmetric_difference(build_part(part).region).area < 1e-6


@pytest.mark.parametrize(
    "line",
    [
        "40 x 20 / 30 x 30 / 40 x 20",  # too wide to be plunged
        "40 x 20 / 30 h7 x 10 / 40 x 20",  # a seat with limits
        "40 x 20 / 30 x 10 r1 / 40 x 20",  # a round in its corner
        "40 x 20 / 30 x 10 / 44 x 20",  # no two of one height
        "40 x 20 / 50 x 10 / 40 x 20",  # a collar
        "40 h7 x 20 / 30 x 10 / 40 x 20",  # two surfaces, one with limits
    ],
)
def test_what_is_no_plain_neck_stays_as_it_is(line: str) -> None:
    assert necks_as_grooves(drawn(line)) is None


def test_two_necks_are_two_grooves_and_limits_beside_them_stay() -> None:
    part = drawn("30 h7 x 10 c1 / 24 x 4 / 30 h7 x 12 / 24 x 4 / 30 h7 x 10 c1 back")
    found = necks_as_grooves(part)
    assert found is not None
    assert [(one.z_mm, one.d_mm) for one in found.features if isinstance(one, Groove)] == [(-10.0, 24.0), (-26.0, 24.0)]
    assert {one.size.fit for one in found.outside if one.size is not None} == {"h7"}
