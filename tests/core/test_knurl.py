"""Knurls: sizes to DIN 82, a whole part with one, and what a spoiled program makes of it."""

import re

import pytest

from tests.support.kept import plan, prove_plan
from tests.support.long import everyday
from toreuma.core.advise import wishes
from toreuma.core.dialect import Dialect
from toreuma.core.errors import PartError
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.model import Job, Part, RollKnurl
from toreuma.core.model.tool import KnurlingTool
from toreuma.core.plan.sides.second_side import turned_part
from toreuma.core.post import post
from toreuma.core.scene import build_scene
from toreuma.core.standards.knurls import PITCHES_MM, KnurlForm, blank_d_mm, pressed_mm, raised_mm
from toreuma.engine.engine import Engine
from toreuma.engine.features import feature_on
from toreuma.engine.fresh import fresh_job
from toreuma.shipped.library import catalogue


@pytest.mark.parametrize(
    ("form", "nominal", "pitch", "blank"),
    [("RAA", 20.0, 0.8, 19.6), ("RAA", 12.0, 0.5, 11.75), ("RGE", 20.0, 1.0, 19.33), ("RGE", 40.0, 1.6, 38.928)],
)
def test_the_blank_is_that_of_the_standard(form: KnurlForm, nominal: float, pitch: float, blank: float) -> None:
    assert blank_d_mm(form, nominal, pitch) == pytest.approx(blank)
    assert 2 * raised_mm(form, pitch) == pytest.approx(nominal - blank)
    assert raised_mm(form, pitch) + pressed_mm(form, pitch) == pytest.approx(pitch / 2)


def headed(form: str = "RAA", pitch: float = 0.8, head_d: float = 24.0, **knurl: float) -> Part:
    """A screw with a knurled head at the front and a shank behind it."""
    return Part.model_validate(
        {
            "name": "trim screw",
            "outside": [
                {"z_mm": 0, "d_mm": head_d, "corner": {"kind": "chamfer", "size_mm": 0.8}},
                {"z_mm": -14, "d_mm": head_d, "corner": {"kind": "chamfer", "size_mm": 0.8}},
                {"z_mm": -14, "d_mm": 14},
                {"z_mm": -44, "d_mm": 14},
            ],
            "features": [
                {"kind": "knurl", "form": form, "pitch_mm": pitch, "from_z_mm": -0.8, "length_mm": 12.4, **knurl}
            ],
        }
    )


def shouldered() -> Part:
    """A knurled collar between two larger shoulders."""
    ds = [(0, 20), (-10, 20), (-10, 30), (-16, 30), (-16, 24), (-31, 24), (-31, 30), (-40, 30)]
    outside = [{"z_mm": z, "d_mm": d} for z, d in ds]
    knurl = {"kind": "knurl", "form": "RGE", "pitch_mm": 1.0, "from_z_mm": -16.5, "length_mm": 14.0}
    return Part.model_validate({"name": "collar", "outside": outside, "features": [knurl]})


PARTS = {
    "a straight one at the end": headed(),
    "a crossing one at the end": headed("RGE", 1.0),
    "a fine one on a thin head": headed("RAA", 0.5, 16.0),
    "one between shoulders": shouldered(),
}


@pytest.mark.parametrize("units", everyday(["mm", "inch"], "mm"))
@pytest.mark.parametrize("name", everyday(PARTS, "one between shoulders"))
@pytest.mark.long
def test_a_proposed_route_turns_rolls_and_proves_it(name: str, units: str, language: Dialect) -> None:
    job = fresh_job(PARTS[name], name, units)  # type: ignore[arg-type]
    found = Engine().route(job).job
    kinds = [one.kind for one in found.operations]
    assert kinds.count("knurl") == 1
    assert kinds.index("finish_od") < kinds.index("knurl")
    planned = plan(found)
    knurl = next(one for one in planned.operations if one.operation.kind == "knurl")
    assert knurl.motions, knurl.findings
    assert not any(one.severity == "error" for one in knurl.findings)
    proof = prove_plan(planned, language)
    assert not [one.what for one in proof.findings if one.severity == "error"]
    assert proof.gouge_um <= 2
    assert proof.leftover_um == 0
    feature, part = found.part.features[0], found.part
    head = max(e.d_mm for e in part.outside if e.z_mm < feature.from_z_mm < 0 or name.startswith("one"))  # type: ignore[union-attr]
    assert 2 * proof.final.bounds[3] == pytest.approx(head, abs=0.05)
    assert knurl.reasons["blank"].number < head


@pytest.fixture(scope="module")
def routed() -> Job:
    return Engine().route(fresh_job(headed(), "screw")).job


def spoiled(job: Job, pattern: str, instead: str, language: Dialect) -> set[str]:
    planned = plan(job)
    text = post(planned, language).text
    start = text.index("KNURL")
    head, tail = text[:start], text[start:]
    changed = re.sub(pattern, instead, tail, count=1)
    assert changed != tail
    return {one.code for one in prove_plan(planned, language, head + changed).findings if one.severity == "error"}


@pytest.mark.parametrize(
    ("pattern", "instead", "code"),
    [
        (r"G1 X23\.2", "G1 X23.9", "knurl.open"),
        (r"G1 X23\.2", "G1 X22.6", "knurl.depth"),
        (r"Z-39\.2 F", "Z-36. F", "knurl.short"),
    ],
)
def test_a_spoiled_knurl_is_caught(routed: Job, language: Dialect, pattern: str, instead: str, code: str) -> None:
    assert code in spoiled(routed, pattern, instead, language)


@pytest.mark.long
def test_a_part_that_is_turned_end_for_end_for_it_says_so() -> None:
    found = Engine().route(fresh_job(headed(), "screw"))
    assert found.job.part != headed()
    assert found.words.endswith("the part is turned end for end")


def test_a_knurl_left_out_is_a_smooth_cylinder(routed: Job, language: Dialect) -> None:
    planned = plan(routed)
    text = post(planned, language).text
    at = text.index("(OP", text.index("FINISH"))
    lines = text.splitlines()
    first = next(n for n, line in enumerate(lines) if "KNURL" in line and line.startswith("(OP"))
    after = next(n for n in range(first + 1, len(lines)) if lines[n].startswith("(OP") or "M30" in lines[n])
    without = "\n".join(lines[:first] + lines[after:])
    assert at > 0
    assert "knurl.open" in {one.code for one in prove_plan(planned, language, without).findings}


@pytest.mark.parametrize(
    ("changes", "code"),
    [({"form": "RGE"}, "knurl.other"), ({"pitch_mm": 1.2}, "knurl.other"), ({"wheel_width_mm": 60.0}, "knurl.wide"),
     ({"head_mm": 80.0, "wheel_d_mm": 1.0}, "knurl.holder")],
)  # fmt: skip
def test_wheels_that_do_not_suit_are_told(routed: Job, changes: dict[str, object], code: str) -> None:
    tools = tuple(t.changed(**changes) if isinstance(t, KnurlingTool) else t for t in routed.tools)
    planned = plan(routed.changed(tools=tools))
    knurl = next(one for one in planned.operations if one.operation.kind == "knurl")
    assert code in {one.code for one in knurl.findings}


def test_a_cylinder_that_is_not_turned_yet_is_told(routed: Job) -> None:
    first = tuple(one for one in routed.operations if one.kind == "knurl")
    rest = tuple(one for one in routed.operations if one.kind != "knurl")
    planned = plan(routed.with_setup(operations=(*first, *rest)))
    assert "knurl.blank" in {one.code for one in planned.operations[0].findings}


@pytest.mark.parametrize(
    ("changes", "words"),
    [({"length_mm": 6.0}, "split"), ({"length_mm": 20.0}, "shorter"), ({"from_z_mm": -60.0}, "cylinder")],
)
def test_a_knurl_that_cannot_be_says_why(changes: dict[str, float], words: str) -> None:
    with pytest.raises(PartError, match=words):
        build_part(headed().changed(features=(headed().features[0].changed(**changes),)))


def test_it_is_seen_from_the_other_end_and_added_to_a_surface() -> None:
    part = headed()
    there = turned_part(part).features[0]
    assert (there.from_z_mm, there.length_mm) == (pytest.approx(-30.8), 12.4)  # type: ignore[union-attr]
    assert build_part(turned_part(part)).ridges.area == pytest.approx(build_part(part).ridges.area)
    job = fresh_job(part.changed(features=()), "screw")
    added = feature_on(job, "outside", 1, "knurl")
    assert added["pitch_mm"] in PITCHES_MM
    assert build_part(part.changed(features=(added,))).ridges.area > 0


def test_every_pitch_of_the_standard_has_wheels() -> None:
    wheels = {(t.form, t.pitch_mm) for t in catalogue().tools if isinstance(t, KnurlingTool)}
    assert wheels == {(form, pitch) for form in ("RAA", "RGE") for pitch in PITCHES_MM}
    assert RollKnurl(id="k", tool="T1", feature=0).dwell_turns == 3


def test_a_knurl_that_nothing_rolls_is_said(routed: Job, language: Dialect) -> None:
    smooth = routed.with_setup(operations=tuple(one for one in routed.operations if one.kind != "knurl"))
    told = {one.code: one.severity for one in prove_plan(plan(smooth), language).findings}
    assert told["knurl.missing"] == "warning"
    assert "knurl.missing" not in {one.code for one in prove_plan(plan(routed), language).findings}


@pytest.mark.parametrize("bar_d", [23.4, 24.0, 25.0])
def test_a_bar_about_as_thick_as_the_ridges_is_no_knurl(bar_d: float) -> None:
    """Between turned and drawn diameter, at the drawn one, and above it."""
    job = fresh_job(headed("RGE", 1.6), "screw")
    job = job.changed(stock=job.stock.changed(d_mm=bar_d))
    assert "knurl" in {one.use for one in wishes(job, build_scene(job))}
