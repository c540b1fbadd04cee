"""The shop folder: what is written comes back, what is broken is named and left, the rest works."""

import json
import os
from pathlib import Path

import pytest

from toreuma.core.errors import JobError
from toreuma.core.kinds.shop import FIELDS_OF, range_of
from toreuma.core.model import JawSet
from toreuma.engine.fresh import new_job
from toreuma.engine.house import by_house_rules
from toreuma.engine.library import library, renew
from toreuma.engine.proposals import next_bar
from toreuma.engine.shop import by_likeness, every, exported, keep, of_shop, taken_in, with_field
from toreuma.files.rack import read_rack
from toreuma.files.shop import FOLDERS, load_shop, shop_folder
from toreuma.shipped.library import demo_job


@pytest.fixture(autouse=True)
def home(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path / "home"))
    renew()
    yield tmp_path  # type: ignore[misc]
    renew()


def test_an_entry_like_another_is_kept_and_ships_nothing_away() -> None:
    by_likeness("machine", "Ours", "slant-bed", [("max_rpm", 3300), ("carriers.0.stations", 8)], "its manual")
    ours, ships = library().machines["Ours"], library().machines["slant-bed"]
    assert (ours.max_rpm, ours.carriers[0].stations, ships.max_rpm) == (3300, 8, 4500)
    assert every("machine")[0] == ("Ours", True)
    body = json.loads((shop_folder() / "machines" / "ours.json").read_text())
    assert (body["toreuma"], body["source"]) == ("machine", "its manual; else like slant-bed")
    assert body["date"]


@pytest.mark.parametrize("kind", ["machine", "hold", "centre", "rest", "material", "tool", "insert", "holder"])
def test_every_kind_is_copied_written_and_read_the_same(kind: str) -> None:
    like = list(of_shop(kind))[-1]
    entry = by_likeness(kind, "Zed 1", like, [], "own")
    renew()
    assert library().shop.of(kind)["Zed 1"].value == entry.value
    assert not library().shop.problems


def test_every_field_of_every_shipped_entry_can_be_shown() -> None:
    for kind in ("machine", "hold", "centre", "rest", "material", "rules", "tool", "insert", "holder"):
        for value in of_shop(kind).values():
            for field in FIELDS_OF[kind](value):
                if field.form == "number":
                    low, high = range_of(value, field.path)
                    assert low is None or high is None or low < high


def test_what_is_broken_is_named_and_the_rest_works() -> None:
    by_likeness("hold", "our chuck", "three-jaw chuck 200", [], "own")
    folder = shop_folder() / "holds"
    (folder / "half.json").write_text('{"toreuma": "hold", "format": 1, "val')
    (folder / "newer.json").write_text('{"toreuma": "hold", "format": 99, "value": {}}')
    (folder / "wrong.json").write_text('{"toreuma": "machine", "format": 1, "value": {}}')
    (folder / "bad.json").write_text('{"toreuma": "hold", "format": 1, "value": {"kind": "chuck", "max_rpm": -1}}')
    (folder / "deep.json").write_text("[" * 100_000)
    (folder / "bytes.json").write_bytes(b"\xff\xfe\x00")
    (folder / "list.json").write_text("[1, 2]")
    renew()
    assert "our chuck" in library().holds
    told = {str(problem).split(":")[0] for problem in library().shop.problems}
    names = ("half", "newer", "wrong", "bad", "deep", "bytes", "list")
    assert told == {f"shop/holds/{name}.json" for name in names}
    assert any("newer Toreuma" in str(problem) for problem in library().shop.problems)
    assert all((folder / f"{name}.json").exists() for name in names)


@pytest.mark.skipif(os.geteuid() == 0, reason="root writes everywhere")
def test_a_folder_that_cannot_be_written_says_so() -> None:
    by_likeness("bar", "round 45", "", [("size_mm", 45)], "own")
    (shop_folder() / "bars").chmod(0o500)
    with pytest.raises(JobError, match="cannot be written"):
        by_likeness("bar", "round 50", "", [("size_mm", 50)], "own")


def test_a_shop_that_is_a_file_is_read_as_empty_and_says_so_when_written() -> None:
    shop_folder().parent.mkdir(parents=True)
    shop_folder().write_text("not a folder")
    renew()
    assert load_shop().entries == ()
    with pytest.raises(JobError, match="cannot be written"):
        by_likeness("bar", "round 45", "", [("size_mm", 45)], "own")


def test_one_entry_or_all_go_to_another_shop(home: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    by_likeness("machine", "Ours", "gang lathe", [], "own")
    by_likeness("bar", "round 45", "", [("size_mm", 45)], "own")
    path = home / "all.json"
    path.write_text(exported(None, None))
    monkeypatch.setenv("TOREUMA_HOME", str(home / "other"))
    renew()
    names, problems = taken_in(path)
    assert names == ["machine Ours", "bar round 45"]
    assert not problems
    path.write_text('[{"toreuma": "machine"}, 3]')
    names, problems = taken_in(path)
    assert (names, len(problems)) == ([], 2)


def test_an_own_bar_is_taken_before_one_that_must_be_bought() -> None:
    by_likeness("bar", "round 45", "", [("size_mm", 45)], "own")
    assert next_bar(36, "mm").size_mm == 45
    assert next_bar(20, "mm").size_mm == 22
    assert next_bar(60, "mm").size_mm == 65


def test_a_tube_of_the_shop_is_taken_where_its_wall_holds_the_part() -> None:
    by_likeness("bar", "tube 70 x 40", "", [("size_mm", 70), ("shape", "tube"), ("bore_d_mm", 40)], "own")
    bush, _ = new_job("a bush", "mm", "", "", "60 x 40 / 68 x 10; bore 48 through")
    assert (bush.stock.kind, bush.stock.largest_d_mm) == ("tube", 70)  # type: ignore[union-attr]
    for line in (
        "60 x 40 / 68 x 10; bore 30 through",
        "60 x 40 / 68 x 10; bore 48 x 20",
        "60 x 40 / 72 x 10; bore 48 through",
    ):
        assert new_job("a part", "mm", "", "", line)[0].stock.kind == "round"


@pytest.mark.parametrize("path", ["nothing", "carriers.7.stations", "second.travel_mm", "max_rpm.x"])
def test_a_field_that_is_not_there_is_one_line(path: str) -> None:
    with pytest.raises(JobError):
        with_field(library().machines["slant-bed"], path, 3)


def test_entries_of_every_kind_have_a_folder() -> None:
    assert len(set(FOLDERS.values())) == len(FOLDERS)


@pytest.mark.parametrize(
    "table",
    [
        "code,edges_left,place\nCNMG120408-even,4,A1\n",
        "Designation;Qty;Drawer;Unit price\nCNMG120408-even;4;A1;7,50\n",
        "Part no\tpcs\tbin\nCNMG120408-even\t4\tA1\n",
    ],
)
def test_a_list_of_tools_is_read_by_whatever_its_columns_are_called(home: Path, table: str) -> None:
    path = home / "tools.csv"
    path.write_text(table)
    items, problems = read_rack(path)
    assert (items[0].code, items[0].edges_left, items[0].place) == ("CNMG120408-even", 4, "A1")
    assert not problems


def test_a_list_without_codes_says_which_columns_it_has(home: Path) -> None:
    path = home / "tools.csv"
    path.write_text("colour,weight\nred,3\n")
    with pytest.raises(JobError, match="colour, weight"):
        read_rack(path)
    items, _ = read_rack(path, columns={"code": "colour"})
    assert items[0].code == "red"


def test_the_house_says_how_threads_are_cut_and_what_a_job_begins_with() -> None:
    rules = [("thread_infeed", "radial"), ("thread_division", "depth"), ("spring_passes", 3), ("edge_break_mm", 0.4)]
    by_likeness("rules", "house rules", "", [*rules, ("stance", "gentle"), ("face_allowance_mm", 2.0)], "ours")
    job, _ = new_job("a stud", "mm", "", "", "M16x1.5 x 20 relief / 24 x 20")
    assert (job.part.edge_break_mm, job.conditions.stance, job.stock.face_allowance_mm) == (0.4, "gentle", 2)
    route = by_house_rules(demo_job("spear"), library().rules)
    thread = next(one for one in route.operations if one.kind == "thread")
    assert (thread.infeed, thread.division, thread.spring_passes) == ("radial", "depth", 3)


def test_every_set_of_jaws_is_a_hold_of_its_own() -> None:
    entry = by_likeness("hold", "Ours", "three-jaw chuck 200", [], "its plate")
    bored = JawSet(name="bored 62", jaws="soft", bored_d_mm=62.0)
    keep("hold", "Ours", entry.value.changed(jaw_sets=(bored, JawSet(name="n" * 120))))
    renew()
    holds = library().holds
    dressed, body = holds["Ours, bored 62"], holds["Ours"]
    assert (dressed.jaws, dressed.bored_d_mm, dressed.force_n) == ("soft", 62.0, body.force_n)
    assert (body.bored_d_mm, dressed.jaw_sets) == (entry.value.bored_d_mm, ())
    assert sum(name.startswith("Ours") for name in holds) == 3
    fields = [field.path for field in FIELDS_OF["hold"](body)]
    assert "jaw_sets.1.bored_d_mm" in fields
    keep("hold", "Ours", with_field(body, "jaw_sets", ()))
    renew()
    assert [name for name in library().holds if name.startswith("Ours")] == ["Ours"]
