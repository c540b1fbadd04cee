"""The shop in the window: an entry of one's own is made, typed, kept, drawn, used and taken out."""

import re
from pathlib import Path

import pytest
from PySide6.QtWidgets import QComboBox, QLineEdit
from pytestqt.qtbot import QtBot

from tests.support.window import Window
from toreuma.app.stages.shop.page import KINDS, ShopPage
from toreuma.app.stages.shop.stage import ShopStage
from toreuma.core.post import post
from toreuma.engine.engine import Engine
from toreuma.engine.library import library, renew
from toreuma.files.shop import shop_folder
from toreuma.shipped.library import demo_job


@pytest.fixture
def shop(window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> ShopPage:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path / "home"))
    renew()
    window.set_stage("shop")
    return window.at(ShopStage).shop


def put(page: ShopPage, path: str, text: str) -> None:
    row = page.form.rows[path]
    if isinstance(row.entry, QComboBox):
        row.entry.setCurrentIndex(int(text))
        row.entry.activated.emit(int(text))
        return
    assert isinstance(row.entry, QLineEdit)
    row.entry.setText(text)
    row.entry.setModified(True)
    row.entry.editingFinished.emit()


def test_a_machine_of_ones_own_is_drawn_and_kept_as_it_is_typed(shop: ShopPage, qtbot: QtBot) -> None:
    shop.open("machine", "slant-bed")
    assert not shop.form.rows["max_rpm"].entry.isEnabled()
    shop.make_new("Ours", "slant-bed")
    before = shop.drawing.grab().toImage()
    put(shop, "max_rpm", "3300")
    put(shop, "spindle_bore_mm", "110")
    put(shop, "power", "0:0 1200:11 3300:11")
    put(shop, "second", "1")
    ours = library().machines["Ours"]
    assert (ours.max_rpm, ours.spindle_bore_mm, ours.power[1].power_kw) == (3300, 110, 11)
    assert ours.second is not None
    assert "second.travel_mm" in shop.form.rows
    assert shop.drawing.grab().toImage() != before


def test_what_is_typed_wrong_stays_and_says_why(shop: ShopPage) -> None:
    shop.open("machine", "slant-bed")
    shop.make_new("Ours", "slant-bed")
    put(shop, "max_rpm", "-3")
    put(shop, "spindle_bore_mm", "60")
    row = shop.form.rows["max_rpm"]
    assert row.entry.text() == "-3"  # type: ignore[union-attr]
    assert "greater than 0" in row.says.text()
    put(shop, "power", "fast")
    assert "corner of the curve" in shop.form.rows["power"].says.text()
    assert library().machines["Ours"].max_rpm == 4500
    put(shop, "spindle_bore_mm", "400")
    assert shop.form.rows["spindle_bore_mm"].says.text().startswith("Unusual")


def test_inch_is_typed_and_shown_in_an_inch_job(shop: ShopPage, window: Window) -> None:
    window.switch_units()
    shop.open("machine", "slant-bed")
    shop.make_new("Ours", "slant-bed")
    put(shop, "spindle_bore_mm", "2 1/2")
    assert library().machines["Ours"].spindle_bore_mm == pytest.approx(63.5)


@pytest.mark.parametrize("kind", [one for one, _, _ in KINDS])
def test_every_kind_shows_every_entry_without_a_fault(shop: ShopPage, kind: str) -> None:
    shop.open(kind)
    for row in range(0, shop.list.count(), max(shop.list.count() // 12, 1)):
        shop.list.setCurrentRow(row)
        assert shop.form.rows
        shop.grab()


def test_a_machine_is_used_in_the_open_job_and_taken_out_of_the_shop(shop: ShopPage, window: Window) -> None:
    shop.open("machine", "slant-bed")
    shop.make_new("Ours", "slant-bed")
    shop.use.click()
    assert window.session.job is not None
    assert window.session.job.machine.name == "Ours"
    shop.remove.click()
    assert "Ours" not in library().machines
    assert window.session.job.machine.name == "Ours"


def test_a_broken_entry_is_said_and_the_rest_is_there(shop: ShopPage, tmp_path: Path) -> None:
    folder = tmp_path / "home" / "shop" / "machines"
    folder.mkdir(parents=True)
    (folder / "x.json").write_text("{")
    renew()
    shop.refresh()
    assert "x.json" in shop.says.text()
    assert shop.list.count() >= 6


def test_entries_are_written_and_taken_in(shop: ShopPage, tmp_path: Path) -> None:
    shop.open("hold", "collet 42")
    shop.export_to(tmp_path / "collet.json")
    shop.import_from(tmp_path / "collet.json")
    assert "collet 42" in library().shop.of("hold")
    (tmp_path / "bad.json").write_text("nothing")
    shop.import_from(tmp_path / "bad.json")
    assert "bad.json" in shop.says.text()


def test_the_rack_keeps_edges_place_price_and_what_was_measured(shop: ShopPage) -> None:
    shop.open("rack")
    assert "Nothing on the rack" in shop.title.text()
    shop.new_name.setText("CNMG120408-even")
    shop.new_name.returnPressed.emit()
    for path, text in (("edges_left", "7"), ("place", "drawer 3"), ("price", "8.5"), ("measured", "R 0.79")):
        put(shop, path, text)
    item = library().rack()[0]
    assert (item.code, item.edges_left, item.place, item.price, item.measured) == (
        "CNMG120408-even", 7, "drawer 3", 8.5, "R 0.79",
    )  # fmt: skip
    shop.remove.click()
    assert library().rack() == ()


@pytest.mark.parametrize(
    ("typed", "names"), [("4140", ["42CrMo4"]), ("s32750", ["1.4410"]), ("nylon 66", ["PA66", "PA66-GF30"])]
)
def test_a_material_is_found_by_its_other_names(shop: ShopPage, typed: str, names: list[str]) -> None:
    shop.open("material", "C45")
    shop.filter.setText(typed)
    assert [shop.list.item(n).text() for n in range(shop.list.count())] == names


def test_a_control_of_ones_own_is_typed_and_a_machine_writes_in_its_words(shop: ShopPage) -> None:
    shop.open("dialect", "G-code system A")
    assert not shop.form.rows["line_step"].entry.isEnabled()
    shop.make_new("corner control", "G-code system A")
    put(shop, "whole_numbers", "2")
    put(shop, "cycles.thread_cycle", "X{x} Z{z} E{lead}")
    put(shop, "codes.clamp_work", "M68")
    put(shop, "codes.face_peck_cycle", "")
    put(shop, "line_step", "0")
    own = library().shop.of("dialect")["corner control"].value
    assert own.changes.keys() == {"whole_numbers", "cycles", "codes", "line_step"}
    assert "a pass of a thread" in shop.says.text()
    made = library().dialect("corner-control")
    assert made.cycles["thread_cycle"] == ("X{x} Z{z} E{lead}",)
    assert not made.has("face_peck_cycle")
    text = post(Engine().sides(demo_job("vane-stud"), dialect="corner-control")[0], made).text
    assert re.search(r"^G92 X\S+ Z\S+ E\S+$", text, re.M)


@pytest.mark.parametrize(
    ("path", "text", "words"),
    [
        ("cycles.tap_cycle", "Z{bottom} Q{rubbish}", "U{depth}"),
        ("codes.rapid", "", "no code for rapid"),
        ("codes.rapid", "X0", "no G or M word"),
        ("also", "M7 mist_on, M5", "no word with what it means"),
        ("tool_word", "T{place}", "asks for"),
        ("decimals.mm", "many", "number"),
        ("line_step", "-3", "0 or more"),
        ("decimals.mm", "", "both"),
    ],
)
def test_a_control_that_cannot_be_is_told_at_the_field(shop: ShopPage, path: str, text: str, words: str) -> None:
    shop.open("dialect", "G-code system B")
    shop.make_new("corner control", "G-code system B")
    put(shop, path, text)
    row = shop.form.rows[path]
    assert row.entry.text() == text  # type: ignore[union-attr]
    assert words in row.says.text()
    assert not library().shop.of("dialect")["corner control"].value.changes


@pytest.mark.parametrize("changes", ['{"also": ["M7"]}', '{"codes": {"rapid": 5}}', '{"no such": 1}', '{"cycles": 3}'])
def test_a_control_whose_file_is_spoiled_is_told_and_can_be_taken_out(shop: ShopPage, changes: str) -> None:
    shop.open("dialect", "G-code system A")
    shop.make_new("corner control", "G-code system A")
    (path,) = shop_folder().glob("dialects/*.json")
    path.write_text(re.sub(r'"changes": \{\}', f'"changes": {changes}', path.read_text()))
    renew()
    shop.open("dialect", "corner control")
    assert shop.form.value is None
    assert "mend its file" in shop.says.text() or "cannot be used" in shop.says.text()
    assert shop.remove.isEnabled()
