"""Fresh jobs, other blanks for a part, first sizes of features, and the shipped data behind them."""

from typing import Any

import pytest

from tests.support.kept import plan
from toreuma.core.advise.carriers import COSTLY
from toreuma.core.errors import PartError, StandardError
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.model import Job
from toreuma.core.units import System
from toreuma.engine.features import feature_on, new_feature, standard_reliefs
from toreuma.engine.fresh import copied, fresh_job, new_job, next_bar_mm, restocked, short_name, starter_line
from toreuma.engine.library import library
from toreuma.engine.line import said, with_part
from toreuma.engine.proposals import settled
from toreuma.files.jobs import job_text, parse_job
from toreuma.shipped.library import demo_job, demo_names, holds, machines, materials, starters
from toreuma.shipped.standards import bar_sizes_mm, relief_tables


def with_feature(job: Job, feature: dict[str, Any]) -> Job:
    return job.changed(part=job.part.changed(features=(*job.part.features, feature)))


def test_the_next_bar_cleans_up() -> None:
    assert next_bar_mm(30.0, "mm") == 32
    assert next_bar_mm(31.5, "mm") == 35
    assert next_bar_mm(12.0, "inch") == pytest.approx(0.5625 * 25.4)
    assert next_bar_mm(700.0, "mm") == 701


@pytest.mark.parametrize("name", ["spear", "seat-ring", "runner-hub", "sheave", "vane-stud"])
def test_a_fresh_job_of_every_demo_part_has_no_errors(name: str) -> None:
    demo = demo_job(name)
    job = fresh_job(demo.part, name, demo.units)
    assert not [finding for finding in plan(job).findings if finding.severity == "error"]
    if job.stock.kind == "free" or job.second_hold is None:  # cut from one side
        assert job.setup.hold.stick_out_mm > -build_part(demo.part).profile.back_z
    else:  # turned round
        assert job.setup.hold.stick_out_mm + job.setup.hold.grip_length_mm == pytest.approx(job.stock.length_mm)


@pytest.mark.parametrize("kind", ["round", "hexagon", "square", "tube", "free"])
@pytest.mark.parametrize("name", ["spear", "seat-ring", "sheave"])
def test_another_blank_still_holds_the_part(name: str, kind: str) -> None:
    job = restocked(demo_job(name), kind)
    scene = plan(job).scene
    assert scene.stock_r >= scene.profile.largest_r
    assert job.stock.material == demo_job(name).stock.material
    if kind != "tube":  # a tube may be thinner than a blind bore's bottom
        assert scene.part.difference(scene.stock).area < 1e-6 or job.stock.length_mm is not None


def test_features_are_proposed_where_there_is_room() -> None:
    spear, ring = demo_job("spear"), demo_job("seat-ring")
    for kind in ("groove", "thread", "relief", "slot", "holes", "flats"):
        build_part(with_feature(spear, feature_on(spear, "outside", 2, kind)).part)
    for kind in ("groove", "slot"):
        build_part(with_feature(ring, feature_on(ring, "inside", 2, kind)).part)
    for kind in ("centre_hole", "axial_hole", "flats"):
        build_part(
            with_feature(fresh_job(demo_job("vane-stud").part, "x"), new_feature(demo_job("vane-stud"), kind)).part
        )
    for kind in ("face_groove", "holes"):
        build_part(with_feature(ring, new_feature(ring, kind)).part)


def test_no_feature_is_proposed_on_a_cone_end_or_an_arc() -> None:
    spear = demo_job("spear")
    for index in (0, 7):
        with pytest.raises(PartError):
            feature_on(spear, "outside", index, "groove")


def test_threads_are_proposed_in_the_system_of_the_job() -> None:
    spear = demo_job("spear")
    assert feature_on(spear, "outside", 6, "thread")["designation"] == "M24"
    stud = demo_job("vane-stud")
    assert feature_on(stud, "outside", 1, "thread")["designation"] == "5/16-24 UNF"


def test_a_relief_behind_a_thread_is_its_run_out() -> None:
    relief = feature_on(demo_job("spear"), "outside", 6, "relief")
    assert (relief["form"], relief["length_mm"], relief["depth_mm"]) == ("thread", 7.0, 1.5)
    assert feature_on(demo_job("spear"), "outside", 2, "relief")["form"] == "E"
    assert {row["form"] for row in standard_reliefs("F")} == {"F"}


def test_shipped_data_is_whole_and_sourced() -> None:
    assert len(materials()) >= 15
    for material in materials().values():
        assert material.source
        assert material.e_n_mm2
        assert material.alpha_um_m_k
        plastic = material.kc11_n_mm2 <= 200
        assert plastic or material.hardness_hb or material.group == "H"
        tools = {row.tool_material for row in material.speeds}
        assert tools
        assert tools <= {*COSTLY, "coated carbide", "uncoated carbide", "high-speed steel"}
    assert {material.group for material in materials().values()} == set("PMKNSH")
    assert {"toolroom lathe", "slant-bed", "gang lathe", "twin-spindle mill-turn"} <= set(machines())
    assert {hold.kind for hold in holds()} == {"chuck", "collet", "mandrel", "driver"}
    assert relief_tables().source
    assert list(bar_sizes_mm("inch")) == sorted(bar_sizes_mm("inch"))


def test_all_demo_jobs_plan_without_errors() -> None:
    assert demo_names() == [
        "bleed-screw",
        "gate-spindle",
        "runner-hub",
        "seat-ring",
        "sheave",
        "spear",
        "strainer-union",
        "vane-stud",
    ]
    for name in demo_names():
        job = demo_job(name)
        assert not [finding for finding in plan(job).all_findings if finding.severity == "error"]
        assert "Fennow Leat" in job.part.name
    assert demo_job("vane-stud").units == "inch"


LINE = "30 x 18 c1 / 44 x 27 / 62 x 15"


def said_anew(job: Job, line: str) -> Job:
    read = said(line, job.units)
    assert read.part is not None
    return settled(job, with_part(job, read.part))


def test_what_is_proposed_follows_the_part_until_it_is_set() -> None:
    job, _ = new_job("a pin", "mm", "4140", "slant-bed", LINE)
    assert (job.stock.largest_d_mm, job.setup.hold.stick_out_mm) == (65, 69)  # type: ignore[union-attr]
    wider = said_anew(job, "30 x 18 c1 / 44 x 27 / 70 x 15")
    assert wider.stock.kind == "round"
    assert wider.stock.length_mm == 62  # Ø 75 does not go through the spindle: a sawn piece
    assert wider.second_hold is not None
    thinner = said_anew(wider, "30 x 18 / 44 x 60")
    assert thinner.stock.kind == "round"
    assert (thinner.stock.d_mm, thinner.stock.length_mm) == (45, None)
    assert thinner.second_hold is None
    fixed = settled(thinner, thinner.changed(stock=thinner.stock.changed(d_mm=50.0)))
    assert "blank" not in fixed.follows
    assert "stick_out" in fixed.follows
    again = said_anew(fixed, "30 x 18 / 44 x 80")
    assert again.stock.kind == "round"
    assert again.stock.d_mm == 50
    assert again.setup.hold.stick_out_mm == 1 + 98 + 8
    hold = again.setup.hold.changed(stick_out_mm=120.0)
    set_out = settled(again, again.with_setup(hold=hold))
    assert said_anew(set_out, "30 x 18 / 44 x 20").setup.hold.stick_out_mm == 120


@pytest.mark.parametrize("system", ["mm", "inch"])
@pytest.mark.parametrize("name", list(starters()))
def test_every_starter_is_a_part_with_a_blank_it_comes_out_of(name: str, system: System) -> None:
    job, _ = new_job(name, system, "", "", starter_line(name, system))
    scene = plan(job).scene
    assert scene.part.difference(scene.stock.buffer(1e-4)).area < 1e-6
    assert (job.stock.kind == "polygon") is (name == "nut")


@pytest.mark.parametrize(
    ("typed", "name", "near"),
    [
        ("4140", "42CrMo4", True),
        ("316L", "1.4404", False),
        ("12L14", "11SMnPb30", False),
        ("uns s31603", "1.4404", False),
        ("X2CrNiMoN22-5-3", "1.4462", False),
        ("en aw 6082 t6", "AlMgSi1", False),
        ("AISI 304", "1.4301", False),
        ("C360-type brass", "CuZn36Pb3", False),
        ("Acetal", "POM-C", False),
        ("CuSn12-type bronze", "CuSn12", False),
    ],
)
def test_a_material_is_found_by_any_of_its_names(typed: str, name: str, near: bool) -> None:
    material, named = library().material(typed)
    assert material.name == name
    assert bool(named.note) is near


def test_a_material_nobody_knows_says_which_are_close() -> None:
    with pytest.raises(StandardError, match=r"1\.4404"):
        library().material("316LX")
    with pytest.raises(StandardError, match="list of materials"):
        library().material("zzzz")


def test_names_of_any_length_begin_a_job() -> None:
    for name in ("x" * 5000, "half \ud800 a character", "", "Ø" * 200):
        job, _ = new_job(name, "mm")
        assert len(job.name) <= 120
        assert parse_job(job_text(copied(job, short_name(job.name, " copy")))).name.endswith(" copy")
