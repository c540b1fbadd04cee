"""Tools, reach and advice under odd conditions: tiny and huge parts, inch jobs, nothing that fits, work stopped."""

import json
import math
from datetime import datetime
from pathlib import Path
from typing import Any

import pytest
from pydantic import ValidationError

from tests.core.test_tool_shapes import boring, insert, turning
from toreuma.core.advise import advise, compare, reach_view, wishes
from toreuma.core.advise.carriers import looseness_um, most_nose_mm
from toreuma.core.advise.from_rack import with_rack
from toreuma.core.cutting.lab import free_situation
from toreuma.core.cutting.life import life_min
from toreuma.core.cutting.situation import Cut
from toreuma.core.errors import Cancelled, JobError
from toreuma.core.geometry.from_code import insert_from, tool_from
from toreuma.core.geometry.insert_picture import insert_picture
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Job, Part
from toreuma.core.model.catalogue import Catalogue, RackItem
from toreuma.core.model.properties import properties_of, with_property
from toreuma.core.model.tool import Drill, ThreadingTool, ThreadInsert
from toreuma.core.plan.turret.stations import bushing, station_words, turned_to
from toreuma.core.reach.tool_reach import Surface, reach_on, surface_metal
from toreuma.core.scene import build_scene
from toreuma.core.standards.codes import decode
from toreuma.core.standards.codes.respell import respelled, symbols_at
from toreuma.engine.search import edges_of, found_in, is_known, thing_of
from toreuma.engine.shop import put_on_rack
from toreuma.files.aside import free_name
from toreuma.files.jobs import job_text, parse_job
from toreuma.files.rack import load_rack, rack_csv, rack_faults, read_rack, save_rack
from toreuma.shipped.library import catalogue, demo_job, known_threads, machines, materials
from toreuma.shipped.standards import code_tables

OUTSIDE = Surface("outside")


def scaled(job: Job, factor: float) -> Job:
    outside = [
        {"z_mm": round(z * factor, 4), "d_mm": round(d * factor, 4)}
        for z, d in ((0, 20), (-20, 20), (-20, 12), (-40, 12), (-40, 30), (-60, 30))
    ]
    part = Part.model_validate({"outside": outside})
    hold = job.setup.hold.changed(stick_out_mm=100 * factor)
    stock = job.stock.changed(d_mm=round(34 * factor, 4), face_allowance_mm=factor)
    return job.changed(part=part, stock=stock).with_setup(hold=hold)


@pytest.mark.parametrize("factor", [0.05, 0.3, 8.0])
def test_tiny_and_huge_parts_have_answers_or_say_why_not(spear: Job, factor: float) -> None:
    job = scaled(spear, factor)
    scene = build_scene(job)
    for wish in wishes(job, scene):
        found = advise(job, scene, wish, catalogue(), threads=known_threads(job.part))
        assert found.candidates or found.rejected
        for one in found.candidates[:2]:
            assert one.left_mm2 >= 0
            if wish.surface is not None:
                view = reach_view(scene, one.tool, wish.surface)
                assert view.numbers[0].number >= 0


def test_a_part_as_large_as_its_blank_asks_for_no_turning(spear: Job) -> None:
    part = Part.model_validate({"outside": [{"z_mm": 0, "d_mm": 32}, {"z_mm": -50, "d_mm": 32}]})
    job = spear.changed(part=part, stock=spear.stock.changed(face_allowance_mm=0))
    asked = {wish.use for wish in wishes(job, build_scene(job))}
    assert asked == {"part_off"}
    scene = build_scene(job)
    assert surface_metal(scene, OUTSIDE).area < 1e-6
    assert reach_on(scene, turning("C"), OUTSIDE).area_mm2 == 0


def test_an_empty_store_gives_an_empty_answer(spear: Job) -> None:
    bare = spear.changed(tools=())
    scene = build_scene(bare)
    for wish in wishes(bare, scene):
        found = advise(bare, scene, wish, Catalogue())
        assert found.best is None
        assert found.split is None


def test_advice_stops_when_it_is_told_to(spear: Job) -> None:
    scene, seen = build_scene(spear), []
    wish = next(w for w in wishes(spear, scene) if w.key == "rough outside")

    def check() -> None:
        if len(seen) > 2:
            raise Cancelled

    with pytest.raises(Cancelled):
        advise(spear, scene, wish, catalogue(), check=check, progress=seen.append)
    assert 0 < seen[0] < seen[-1] < 1


def test_a_tool_that_goes_nowhere_leaves_everything(spear: Job) -> None:
    job = demo_job("runner-hub")
    scene = build_scene(job)
    thick = boring(diameter=16)
    thick = thick.changed(bar=thick.bar.changed(diameter_mm=80.0, functional_width_mm=40.5))
    bore = Surface("bore")
    reach = reach_on(scene, thick, bore)
    metal = surface_metal(scene, bore).area
    assert reach.area_mm2 > 0.9 * metal
    view = reach_view(scene, thick, bore)
    assert view.spots[0].reason in ("bar against the far wall", "jaws")
    assert reach_on(scene, turning("C"), bore).area_mm2 > 0.5 * metal  # an outside tool does not bore


def test_compare_leaves_rows_open_for_tools_without_an_insert(spear: Job) -> None:
    drill = Drill(id="T9", station=9, d_mm=10, flute_length_mm=60, overall_length_mm=100, shank_d_mm=10)
    table = compare(spear, build_scene(spear), turning("C"), drill, OUTSIDE, 0.2, 1.0)
    by_name = {(row[0] or row[1]).name: row for row in table.rows}  # type: ignore[union-attr]
    assert by_name["cutting force"][1] is None
    assert by_name["left on the part"][1] is not None


def test_life_follows_taylor() -> None:
    """vc T^m = C: at 1.19 times the speed and m = 0.25 half the life is left (1.189 = 2^0.25)."""
    slant, c45 = machines()["slant-bed"], materials()["C45"]

    def life(tool_material: str, faster: float, feed: float = 0.25) -> float:
        situation = free_situation(c45, slant, tool_material, 50.0, 60.0, 0.8, 95.0)
        assert situation.row is not None
        return life_min(situation, Cut(2.0, feed, situation.row.rough_m_min * faster))

    assert life("coated carbide", 1.0) == pytest.approx(15.0)
    assert life("coated carbide", 2**0.25) == pytest.approx(7.5)
    assert life("high-speed steel", 2**0.25) == pytest.approx(3.75)  # m = 0.125
    assert life("coated carbide", 1.0, 0.5) == pytest.approx(15.0 * 0.5 ** (0.35 / 0.25))


def test_every_thing_of_the_store_can_be_found_and_drawn() -> None:
    store = catalogue()
    entries = found_in(store, (), "")
    assert len(entries) == len(store.inserts) + len(store.carriers) + len(store.tools)
    for entry in entries:
        thing: Any = thing_of(store, entry.code)
        assert thing is not None, entry.code
        area = insert_picture(thing).top.area if hasattr(thing, "ic_mm") else shape_of(thing).cutting.area
        assert area > 0
    wanted = {*(f"TP M8x1 {form}" for form in "BCE"), *(f"TL M8x1 {form}" for form in "BC")}
    assert {e.code for e in found_in(store, (), "tap m8x1")} == wanted
    held = (RackItem(code="CNMG120408-even", edges_left=3, place="drawer 2"), RackItem(code="own-1"))
    first = found_in(store, held, "")[:2]
    assert {e.code for e in first} == {"CNMG120408-even", "own-1"}
    assert "drawer 2, 3 edges left" in first[0].words
    assert edges_of(store, "CNMG120408-even") == 4
    assert is_known(store, "VNMG 331")  # not in the catalogue, but a designation
    assert not is_known(store, "what is this")


def test_every_carrier_of_the_catalogue_is_as_its_code_says() -> None:
    tables = code_tables()
    for carrier in catalogue().carriers:
        if carrier.bar is not None and carrier.bar.back:
            continue  # no standard lists them
        code: Any = decode(carrier.code, tables)
        assert carrier.seat.shape == code.shape
        assert carrier.seat.clearance_deg == tables.insert.clearance_deg[code.clearance]
        assert (carrier.hand == "left") == (code.hand == "L")
        own = carrier.bar or carrier.holder
        assert own is not None
        assert own.functional_length_mm == code.length_mm
    for one in catalogue().inserts:
        read: Any = decode(one.code, tables)
        assert (one.shape, one.ic_mm, one.thickness_mm) == (read.shape, read.ic_mm, read.thickness_mm)
        assert one.edges >= 1
        feeds = [f for f, _ in one.chip_window]
        assert max(feeds) <= 0.75 * one.nose_radius_mm + 1e-6 or one.shape == "R"


def test_the_rack_is_read_and_written_and_bad_rows_are_named(tmp_path: Path) -> None:
    path = tmp_path / "deep" / "rack.json"
    assert load_rack(path) == ()
    items = (RackItem(code="CNMG120408-even", edges_left=3, place="drawer 2"), RackItem(code="TD 5 HSS 118"))
    save_rack(items, path)
    assert load_rack(path) == items
    table = tmp_path / "rack.csv"
    table.write_text(rack_csv(items), encoding="utf-8")
    assert read_rack(table) == (items, [])
    as_json = tmp_path / "list.json"
    as_json.write_text(json.dumps([{"code": "A", "edges_left": 1}, {"code": "B", "edges_left": -4}]))
    found, problems = read_rack(as_json)
    assert [item.code for item in found] == ["A"]
    assert problems[0].startswith("row 2")


@pytest.mark.parametrize(
    "content",
    [
        b"",
        b"code\n" + b"x" * 200_000,
        b'[{"code": "A"}, 3]',
        b"[" * 100_000,
        b"\x00\xff\xfe" * 50,
        b"a,b\n1,2\n",
        b"[1, 2, 3]",
        b"[{]",
        b"<html>",
        "tök;edges\n".encode("latin-1"),
    ],
)
def test_a_list_that_is_none_ends_in_one_line(tmp_path: Path, content: bytes) -> None:
    path = tmp_path / "list.csv"
    path.write_bytes(content)
    with pytest.raises(JobError) as caught:
        read_rack(path)
    assert "\n" not in str(caught.value)
    with pytest.raises(JobError):
        read_rack(tmp_path / "none.csv")


def test_a_rack_that_cannot_be_written_says_so(tmp_path: Path) -> None:
    blocked = tmp_path / "file"
    blocked.write_text("a file where a folder should be")
    with pytest.raises(JobError, match="cannot be written"):
        save_rack((), blocked / "rack.json")
    broken = tmp_path / "rack.json"
    broken.write_text("{not json")
    with pytest.raises(JobError, match="no rack"):
        load_rack(broken)


@pytest.mark.parametrize(
    ("text", "codes"),
    [
        ('[{"code": "A"}, 7, {"code": "B", "edges_left": -1}, {"code": "C", "price": 3.5}]', ["A", "C"]),
        ("{not json", []),
        ('{"code": "A"}', []),
        ("[" * 100_000, []),
    ],
)
def test_a_rack_that_cannot_be_read_whole_is_set_aside_and_never_lost(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, text: str, codes: list[str]
) -> None:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path))
    path = tmp_path / "rack.json"
    path.write_text(text)
    assert rack_faults()
    for code in ("NEW 1", "NEW 2"):
        put_on_rack([RackItem(code=code)])
    assert [item.code for item in load_rack()] == [*codes, "NEW 1", "NEW 2"]
    assert not rack_faults()
    aside = [one for one in tmp_path.iterdir() if one.name.startswith("rack-")]
    assert [one.read_text() for one in aside] == [text]


def test_what_is_set_aside_never_takes_a_name_that_is_taken(tmp_path: Path) -> None:
    path, day = tmp_path / "rack.json", datetime(2026, 11, 28)
    (tmp_path / "rack-2026-11-28-1.json").write_text("x")
    assert free_name(path, day).name == "rack-2026-11-28-2.json"


def test_jobs_carry_every_kind_of_tool_and_what_was_seen(spear: Job) -> None:
    tools = [tool.changed(id=f"X{i}", station=10 + i) for i, tool in enumerate(catalogue().tools[::14])]
    trial = {"tool": "CNMG", "cut": "Rough the outside", "chip": "long strings"}
    job = spear.changed(tools=(*spear.tools, *tools, boring().changed(id="B1")), trials=(trial,))
    again = parse_job(job_text(job))
    assert again == job
    assert again.trials[0].chip == "long strings"


def test_threading_tools_need_something_to_carry_them() -> None:
    tooth = ThreadInsert(
        profile_deg=60, full_profile=True, pitch_mm=(1, 1), tip_radius_mm=0.1, width_mm=2, profile_depth_mm=0.7
    )
    with pytest.raises(ValidationError, match="needs a holder"):
        ThreadingTool(id="T1", station=1, insert=tooth)
    with pytest.raises(ValidationError, match="smallest pitch"):
        tooth.changed(pitch_mm=(2.0, 1.0))


def test_codes_become_shapes_and_other_codes() -> None:
    tables = code_tables()
    for text in ("CNMG120408", "RCMT10T3M0", "LNMX301940", "WNMG 432", "HNMG050408", "KNUX160405R11"):
        code: Any = decode(text, tables)
        assert insert_picture(insert_from(code, tables)).top.area > 0
    for text in ("PCLNR2525M12", "SVVBN1616H16", "A25R-PCLNL12", "E12Q-SDUCR07", "SRDCN2020K10"):
        assert shape_of(tool_from(decode(text, tables), tables)).cutting.area > 0  # type: ignore[arg-type]
    code = decode("CNMG120408", tables)
    shapes = symbols_at(code, 1, tables)
    assert shapes["S"] == "square"
    assert respelled(code, 1, "D", tables) == "DNMG150408"  # the same inscribed circle
    assert respelled(decode("CNMG 432-x", tables), 7, "3", tables) == "CNMG 4 3 3-x"
    holder = decode("PCLNR2525M12", tables)
    assert symbols_at(holder, 5, tables) == {"R": "right", "L": "left", "N": "neutral"}
    assert decode(respelled(holder, 6, "32", tables), tables).shank_height_mm == 32  # type: ignore[union-attr]
    bar = decode("A25R-PCLNR12", tables)
    assert "32" in symbols_at(bar, 2, tables)
    assert insert("C").edges == 2


def test_every_tool_shows_its_sizes_with_their_symbols() -> None:
    for tool in (*catalogue().tools, boring(), turning("C")):
        properties = properties_of(tool)
        assert properties, tool.kind
        for one in properties:
            assert one.unit in ("mm", "deg")
            if one.value is not None:
                assert with_property(tool, one.path, one.value) == tool
    symbols = {one.symbol for one in properties_of(turning("C"))}
    assert {"IC", "S", "RE", "KAPR", "WF", "LF", "LH", "B", "H"} <= symbols
    with pytest.raises(ValidationError):
        with_property(turning("C"), ("insert", "ic_mm"), -1.0)


def test_codes_on_the_rack_become_tools_that_can_be_advised() -> None:
    job = demo_job("spear").changed(tools=())
    scene = build_scene(job)
    codes = ("DNMG150612-own", "PDJNL2020M15", "PDJNR2020M15", "no code at all", "A25R-PCLNR12")
    store = with_rack(catalogue(), codes, code_tables())
    assert len(store.inserts) == len(catalogue().inserts) + 1
    assert len(store.carriers) == len(catalogue().carriers) + 3
    wish = next(w for w in wishes(job, scene) if w.key == "rough outside")
    best = advise(job, scene, wish, store, codes).best
    assert best is not None
    assert best.codes == ("DNMG150612-own", "PDJNR2020M15")


def test_the_nose_follows_the_allowance_and_the_stiffness() -> None:
    stud, hub = (demo_job(name).with_setup(operations=()) for name in ("vane-stud", "runner-hub"))
    assert looseness_um(stud, build_scene(stud)) > 10  # type: ignore[operator]
    assert most_nose_mm(stud, build_scene(stud)) == 0.4
    assert most_nose_mm(hub, build_scene(hub)) == pytest.approx(0.75)


def test_tools_at_the_second_spindle_are_mirrored() -> None:
    for tool in (turning("D", 93), boring("C"), *catalogue().tools[-8:]):
        main, sub = shape_of(tool), shape_of(turned_to(_job_with(tool), tool.id).tools[0])
        assert sub.tip == (-main.tip[0], main.tip[1])
        assert shape_of(tool.changed(spindle="sub", hand="left")).tip == shape_of(tool.changed(hand="right")).tip
    hub = demo_job("runner-hub").machine
    assert station_words(24, hub) == "milling spindle"
    assert station_words(1, hub) == "lower turret"
    assert bushing(boring(diameter=16), hub) == "bushing Ø 40 to Ø 16 mm"
    assert bushing(turning("C"), hub) == ""


def _job_with(tool: Any) -> Job:
    return demo_job("spear").changed(tools=(tool,))


def test_pull_and_form_tools_have_their_shapes() -> None:
    pull = next(tool for tool in catalogue().tools if tool.kind == "pull")
    shape = shape_of(pull)
    edge = shape.core[1] - shape.core[0]
    assert math.degrees(math.atan2(edge[1], edge[0])) == pytest.approx(pull.pull_deg)
    form = next(tool for tool in catalogue().tools if tool.kind == "form")
    assert shape_of(form).cutting.bounds == pytest.approx((-1.5, 0, 1.5, 6))
