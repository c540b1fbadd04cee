"""The inspection list against the standards' own numbers, and the means against what a shop would take."""

import pytest

from tests.support.long import everyday
from toreuma.core.cautions import ALWAYS, cautions_for
from toreuma.core.geometry.tip_number import tip_number
from toreuma.core.measure import Characteristic
from toreuma.core.measure.gauges import gauge_for, how_often
from toreuma.core.model import Job, Part
from toreuma.engine.inspection import inspection_list
from toreuma.engine.line import said
from toreuma.shipped.library import demo_job, demo_names
from toreuma.shipped.standards import gauge_tables


def part_of(line: str) -> Part:
    read = said(line, "mm")
    assert read.part is not None, read.faults
    return read.part


def by_key(part: Part) -> dict[str, Characteristic]:
    return {one.key: one for one in inspection_list(part)}


@pytest.mark.parametrize("name", demo_names())
def test_every_line_has_a_place_a_number_and_a_means(name: str) -> None:
    found = inspection_list(demo_job(name).part)
    assert [one.number for one in found] == list(range(1, len(found) + 1))
    assert len({one.key for one in found}) == len(found)
    for one in found:
        assert one.means
        assert one.often
        if one.lower is not None and one.upper is not None:
            assert one.lower < one.upper


def test_limits_of_a_fit_and_of_general_tolerances() -> None:
    """ISO 286-2: 25 H7 0/+21 um; ISO 2768-1 m: 30 to 120 mm +-0.3, 6 to 30 mm +-0.2."""
    found = by_key(demo_job("runner-hub").part)
    bore = found["inside 1 d"]
    assert (bore.lower, bore.upper) == (25.0, 25.021)
    overall = found["length overall"]
    assert (overall.lower, overall.upper) == (41.7, 42.3)
    shoulder = found["shoulder 2"]
    assert (shoulder.lower, shoulder.upper) == (21.8, 22.2)


def test_a_thread_is_measured_by_crest_wires_and_rings() -> None:
    """ISO 965-1 M24x2-6g: major 23.682 to 23.962, pitch 22.493 to 22.663; wire P/(2 cos 30) = 1.1547."""
    found = by_key(demo_job("spear").part)
    crest = found["feature 0 major-diameter"]
    assert (crest.lower, crest.upper) == pytest.approx((23.682, 23.962), abs=5e-4)
    wires = found["feature 0 over-three-wires"]
    over = 3 * 1.1547 - 2 / 2 * 3**0.5
    assert (wires.lower, wires.upper) == pytest.approx((22.493 + over, 22.663 + over), abs=2e-3)
    assert "1.155" in wires.means
    assert "go and no-go M24x2-6g" in found["feature 0 M24x2-6g"].means
    assert "outside 6 d" not in found  # the seat has no limits but those of the crest


def test_a_shaft_with_a_thread_keeps_limits_of_its_own() -> None:
    part = part_of("20 h6 x 40 c1; M20x1.5-6g x 12; general m")
    sizes = [one for one in inspection_list(part) if one.quantity == "diameter" and one.upper == 20.0]
    assert [(one.lower, one.upper) for one in sizes] == [(19.987, 20.0)]


@pytest.mark.parametrize(
    ("size", "tolerance", "side", "means", "often"),
    [
        (20.0, 0.013, "outside", "dial comparator, set with a block", "every 5th part"),  # 20 h6
        (22.0, 0.021, "outside", "micrometer", "every 5th part"),  # IT7
        (50.0, 0.062, "outside", "micrometer", "every 10th part"),  # IT9
        (50.0, 0.600, "outside", "calliper", "first, last, new edge"),
        (25.0, 0.021, "inside", "bore gauge with a dial, set in a ring", "every 5th part"),
        (60.0, 0.030, "inside", "three-point bore micrometer, set in a ring", "every 5th part"),
        (1.5, 0.1, "inside", "pin gauges", "first, last, new edge"),
    ],
)
def test_the_simplest_means_that_is_fine_enough(
    size: float, tolerance: float, side: str, means: str, often: str
) -> None:
    found, fine = gauge_for("diameter", side, size, tolerance, gauge_tables())
    assert found is not None
    assert fine
    assert found.name == means
    assert found.uncertainty_um <= 200 * tolerance
    assert how_often(size, tolerance) == often


def test_where_no_means_is_fine_enough_the_finest_is_named_and_said_to_be_coarse() -> None:
    found, fine = gauge_for("diameter", "outside", 20.0, 0.004, gauge_tables())
    assert found is not None
    assert not fine
    assert found.uncertainty_um == 1.5
    assert gauge_for("diameter", "outside", 5000.0, 0.1, gauge_tables()) == (None, False)


def test_a_bore_read_from_the_back_lies_where_the_drawing_has_it() -> None:
    front = part_of("30 x 40; bore 16 H7 x 22")
    back = front.changed(inside_from_back=True)
    one, other = (next(c for c in inspection_list(p) if c.quantity == "depth") for p in (front, back))
    assert one.nominal == other.nominal == 22.0
    assert other.ends_z == (-40.0, -18.0)


@pytest.mark.parametrize("name", everyday(demo_names(), "spear", "seat-ring"))
def test_cautions_fit_the_hold_and_end_with_who_comes_first(name: str) -> None:
    job = demo_job(name)
    found = cautions_for(job)
    assert found[-1] == ALWAYS
    assert any("chuck's own plate" in one for one in found) == (job.setup.hold.kind == "chuck")
    assert any("whips" in one for one in found) == (job.stock.kind != "free" and job.stock.length_mm is None)


def test_tips_are_counted_as_controls_count_them(spear: Job) -> None:
    """Outside toward the chuck 3, a left-hand tool 4, a bar in a bore toward the chuck 2."""
    turning = next(tool for tool in spear.tools if tool.kind == "turning")
    assert tip_number(turning) == 3
    assert tip_number(turning.changed(hand="left")) == 4
    boring = next(tool for tool in demo_job("seat-ring").tools if tool.kind == "boring")
    assert tip_number(boring) == 2
    drill = next(tool for tool in demo_job("runner-hub").tools if tool.kind == "drill")
    assert tip_number(drill) is None
