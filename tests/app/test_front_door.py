"""The front door: a new part typed from nothing, the last jobs, files that come while another job is open."""

from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from tests.support.window import Window
from toreuma.app.shell.shot import settle
from toreuma.core.model import Job
from toreuma.shipped.library import demo_job, starters
from toreuma.shipped.paths import data_path


def job_of(window: Window) -> Job:
    assert window.session.job is not None
    return window.session.job


def typed(qtbot: QtBot, text: str) -> None:
    qtbot.keyClicks(QApplication.focusWidget(), text)


def press(qtbot: QtBot, key: Qt.Key, *held: Qt.KeyboardModifier) -> None:
    modifier = held[0] if held else Qt.KeyboardModifier.NoModifier
    qtbot.keyClick(QApplication.focusWidget(), key, modifier)


@pytest.fixture
def shown(bare: Window, qtbot: QtBot) -> Window:
    bare.show()
    qtbot.waitExposed(bare)
    bare.activateWindow()
    bare.first.begin_typing()
    return bare


def begin(window: Window, qtbot: QtBot, name: str = "A pin", material: str = "316L") -> None:
    """A new part by keyboard alone; the line is ready to be typed over."""
    typed(qtbot, name)
    press(qtbot, Qt.Key.Key_Tab)
    press(qtbot, Qt.Key.Key_Tab)
    typed(qtbot, material)
    press(qtbot, Qt.Key.Key_Return)


def test_a_new_part_is_typed_by_keyboard_alone(shown: Window, qtbot: QtBot) -> None:
    begin(shown, qtbot)
    job = job_of(shown)
    assert (job.name, job.stock.material.name, shown.stage) == ("A pin", "1.4404", "part")
    assert QApplication.focusWidget() is shown.part.line.text
    typed(qtbot, "30 x 18 c1 / 44 x 27")
    assert [e.d_mm for e in job_of(shown).part.outside] == [30, 30, 44, 44]
    typed(qtbot, " / 62 h7 x 15; bore 16 through")
    assert settle(shown.session)
    job = job_of(shown)
    assert (job.stock.largest_d_mm, job.setup.hold.stick_out_mm) == (65, 69)  # type: ignore[union-attr]
    assert len(job.part.inside) == 2
    shown.session.undo()  # the whole typing at once
    assert [e.d_mm for e in job_of(shown).part.outside] == [30, 30]


def test_a_mistake_is_underlined_and_what_stands_before_it_is_kept(shown: Window, qtbot: QtBot) -> None:
    begin(shown, qtbot)
    typed(qtbot, "30 x 18 / 44 x 27; zorp")
    line = shown.part.line
    assert "zorp" in line.says.text()
    marks = line.text.extraSelections()
    assert [mark.cursor.selectedText() for mark in marks] == ["zorp"]
    assert job_of(shown).part.outside[-1].d_mm == 44
    for _ in range(6):
        press(qtbot, Qt.Key.Key_Backspace)
    assert not line.says.isVisible()


def test_table_and_line_say_the_same(shown: Window, qtbot: QtBot) -> None:
    begin(shown, qtbot)
    typed(qtbot, "30 x 18 c1 / 44 x 27")
    shown.part.outside.type_into(3, 2, "-60")
    assert shown.part.line.text.toPlainText() == "30 x 18 c1 / 44 x 42"
    shown.part.outside.type_into(1, 3, "28 h6")
    assert shown.part.line.text.toPlainText().startswith("30>28 h6 x 18") or "28 h6" in (
        shown.part.line.text.toPlainText()
    )
    shown.switch_units()
    assert shown.part.line.text.toPlainText().endswith("1.73228mm") or "mm" in shown.part.line.text.toPlainText()


@pytest.mark.parametrize("name", [next(iter(starters())), "nozzle"])
def test_a_starter_is_a_part_at_once(shown: Window, qtbot: QtBot, name: str) -> None:
    qtbot.mouseClick(shown.first.starters[name], Qt.MouseButton.LeftButton)
    assert job_of(shown).name == name
    assert len(job_of(shown).part.outside) > 3


def test_a_material_nobody_knows_is_said_while_it_is_typed(shown: Window, qtbot: QtBot) -> None:
    strip = shown.first.strip
    strip.material.setText("4140")
    assert "42CrMo4" in strip.says.text()
    strip.material.setText("wood")
    assert strip.material.property("bad")
    qtbot.keyClick(strip.material, Qt.Key.Key_Return)
    assert shown.session.job is None
    assert strip.material.text() == "wood"


def test_a_second_drawing_begins_a_job_of_its_own(shown: Window, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch) -> None:
    begin(shown, qtbot, material="316L")
    first = job_of(shown)
    monkeypatch.setattr(shown.imports, "may_leave", lambda: True)
    shown.start_import(data_path("demo", "vane-stud.dxf"))
    qtbot.waitUntil(lambda: shown.imports.found is not None, timeout=20_000)
    shown.imports.accept_button.click()
    assert settle(shown.session)
    job = job_of(shown)
    assert (job.name, job.units) == ("vane-stud", "inch")
    assert job.stock.material == first.stock.material
    assert job.stock.largest_d_mm < 20  # type: ignore[union-attr]
    assert not [f for f in shown.session.findings() if f.code == "stock.small"]


def test_the_first_page_comes_again_with_the_last_jobs(shown: Window, qtbot: QtBot, tmp_path: Path) -> None:
    begin(shown, qtbot)
    typed(qtbot, "30 x 18 / 44 x 27")
    path = tmp_path / "a pin.toreuma"
    assert shown.files.save_to(path)
    shown.go_home()
    assert shown.pages.currentWidget() is shown.first
    card = shown.first.cards[str(path)]
    assert "A pin" in card.accessibleName()
    assert "1.4404" in card.accessibleName()
    assert shown.first.strip.material.text() == "1.4404"
    qtbot.mouseClick(card, Qt.MouseButton.LeftButton)
    assert shown.pages.currentWidget() is not shown.first
    shown.go_home()
    shown.set_stage("part")
    assert shown.pages.currentWidget() is not shown.first


def test_a_job_file_that_broke_is_shown_as_that(shown: Window, tmp_path: Path, qtbot: QtBot) -> None:
    begin(shown, qtbot)
    path = tmp_path / "b.toreuma"
    assert shown.files.save_to(path)
    path.write_text("{broken")
    shown.go_home()
    assert "cannot be read" in shown.first.cards[str(path)].accessibleName()


def test_copied_in_one_window_and_pasted_in_another(shown: Window, qtbot: QtBot) -> None:
    shown.session.show(demo_job("spear"))
    assert settle(shown.session)
    shown.set_stage("operations")
    shown.session.select(operation=job_of(shown).operations[1].id)
    shown.clipboard.copy()
    begin_another = shown.first.strip
    begin_another.name.setText("other")
    shown.begin_part()
    shown.set_stage("operations")
    shown.clipboard.paste()
    assert settle(shown.session)
    assert [one.kind for one in job_of(shown).operations] == [demo_job("spear").operations[1].kind]
    assert shown.isWindowModified()
    assert shown.windowTitle().startswith("other")


def test_help_is_about_what_is_in_focus_and_can_be_searched(shown: Window, qtbot: QtBot) -> None:
    shown.switch_help()
    assert shown.help.key == "door"
    begin(shown, qtbot)
    shown.open_help(shown.topic())
    assert shown.help.key == "line"
    shown.help.search.setText("circlip zebra")
    assert "No page speaks" in shown.help.text.toPlainText()
    shown.help.search.setText("equal chip area")
    assert "Thread" in shown.help.text.toPlainText()
    shown.session.show(demo_job("spear"))
    assert settle(shown.session)
    shown.set_stage("operations")
    shown.route.view.setFocus()
    shown.session.select(operation=job_of(shown).operations[0].id)
    assert shown.topic() == f"operation:{job_of(shown).operations[0].kind}"
    shown.switch_help()
    assert "Faces from outside" in shown.help.text.toPlainText()


def test_first_lines_of_a_stage_go_for_good(shown: Window, qtbot: QtBot) -> None:
    begin(shown, qtbot)
    assert shown.hint.isVisible()
    shown.hint.closed.emit(shown.hint.key)
    assert not shown.hint.isVisible()
    shown.set_stage("stock")
    assert shown.hint.isVisible()
    shown.set_stage("part")
    assert not shown.hint.isVisible()


def test_find_knows_threads_fits_codes_materials_the_shop_and_help(shown: Window) -> None:
    found = {}
    for text in ("M12x1.75", "25 H7", "CNMG120408", "316L", "slant-bed", "House rules", "Cut lab", "part in words"):
        shown.finder.open()
        shown.finder.edit.setText(text)
        found[text] = shown.finder.list.item(0).text()
    assert "thread on the bench" in found["M12x1.75"]
    assert "fit on the bench" in found["25 H7"]
    assert "code on the bench" in found["CNMG120408"] or "store" in found["CNMG120408"]
    assert "1.4404" in found["316L"]
    shown.finder.open()
    shown.finder.edit.setText("M12x1.75")
    shown.finder.run_current()
    assert shown.stage == "bench"
    assert shown.bench.threads.entry.text() == "M12x1.75"
    shown.finder.open()
    shown.finder.edit.setText("zebra crossing")
    assert "Nothing is called" in shown.finder.list.item(0).text()


def test_every_action_stands_once_in_the_menu_with_its_key(shown: Window) -> None:
    words = [action.text() for menu in shown.menuBar().actions() for action in menu.menu().actions() if action.text()]
    assert len(words) == len(set(words))
    assert set(words) == {one.words for one in shown.actions_known}


def test_steps_are_moved_and_copied_in_the_table(shown: Window, qtbot: QtBot) -> None:
    begin(shown, qtbot)
    typed(qtbot, "20 x 10 / 30 x 5 / 40 x 8")
    table = shown.part.outside
    table.view.setCurrentIndex(table.model.index(3, 2))
    table.edit("ahead")
    assert shown.part.line.text.toPlainText() == "30 x 5 / 20 x 10 / 40 x 8"
    table.view.setCurrentIndex(table.model.index(5, 2))
    table.edit("copy")
    assert shown.part.line.text.toPlainText() == "30 x 5 / 20 x 10 / 40 x 8 / 40 x 8"
    table.type_into(1, 2, "12 long")
    assert job_of(shown).part.outside[1].z_mm == -12
    table.type_into(3, 2, "4 from back")
    assert job_of(shown).part.outside[3].z_mm == job_of(shown).part.outside[-1].z_mm + 4
    shown.part.mirror()
    assert shown.part.line.text.toPlainText().startswith("40 x")


def test_any_file_that_comes_leads_on_or_says_why(shown: Window, qtbot: QtBot, tmp_path: Path) -> None:
    said: list[str] = []
    shown.session.message.connect(lambda level, text: said.append(text))
    shown._notice.setText("")
    for name, content, words in (
        ("a.png", "nothing", "begin one"),
        ("a.pdf", "%PDF-1.4", "a.pdf"),
        ("a.toreuma", "{", "a.toreuma"),
    ):
        (tmp_path / name).write_text(content)
        shown.take(tmp_path / name)
        assert words in shown._notice.text()
        assert shown.session.job is None
        assert shown.pages.currentWidget() is shown.first
    (tmp_path / "a.dxf").write_text("nothing")
    shown.take(tmp_path / "a.dxf")
    qtbot.waitUntil(lambda: "a.dxf" in shown._notice.text(), timeout=20_000)
    assert shown.pages.currentWidget() is shown.first
    (tmp_path / "a.json").write_text("[]")
    shown.take(tmp_path / "a.json")
    assert shown.stage == "shop"


def test_both_ends_are_said_in_one_place(shown: Window, qtbot: QtBot) -> None:
    begin(shown, qtbot)
    typed(qtbot, "30 x 18 / 44 x 27")
    assert settle(shown.session)
    shown.session.select()
    for key, text in (("end.Front end", "C1"), ("end.Back end", "R0.5")):
        line = shown.reasons.lines[key]
        line.setText(text)
        line.setModified(True)
        line.editingFinished.emit()
    first, last = job_of(shown).part.outside[0].corner, job_of(shown).part.outside[-1].corner
    assert first is not None
    assert last is not None
    assert (first.kind, first.size_mm, last.kind, last.size_mm) == ("chamfer", 1, "round", 0.5)


def test_a_number_and_a_field_of_the_shop_say_what_they_are(shown: Window, qtbot: QtBot) -> None:
    shown.session.show(demo_job("spear"))
    shown.set_stage("operations")
    assert settle(shown.session)
    shown.session.select(operation=job_of(shown).operations[1].id)
    QApplication.processEvents()
    row = next(row for row in shown.reasons.rows.values() if row._evidence.formula)
    row.entry.setFocus()
    shown.switch_help()
    text = shown.help.text.toPlainText()
    assert row._evidence.formula.split()[0] in text
    assert "Source" in text or "limit" in text
    shown.open_shop("machine", "slant-bed")
    QApplication.processEvents()
    field = shown.stages["shop"].shop.form.rows["max_rpm"]
    assert "surface speed" in field.help_page()[1]


def test_a_last_job_begins_the_next_one_and_leaves_the_list(shown: Window, qtbot: QtBot, tmp_path: Path) -> None:
    begin(shown, qtbot)
    typed(qtbot, "30 x 18 / 44 x 27")
    path = str(tmp_path / "a pin.toreuma")
    assert shown.files.save_to(Path(path))
    shown.go_home()
    actions = shown.first.menu_of(path).actions()
    actions[1].trigger()
    assert job_of(shown).name == "A pin copy"
    assert shown.session.path is None
    assert shown.pages.currentWidget() is not shown.first
    shown.go_home()
    shown.first.menu_of(path).actions()[2].trigger()
    assert path not in shown.first.cards
    assert Path(path).exists()
    assert len(shown.first.menu_of("demo:spear").actions()) == 2
