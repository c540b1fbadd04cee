"""A program that nobody planned, in the real window: dropped, read, mended, compared, saved."""

import time
from pathlib import Path

import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QCheckBox, QComboBox, QLineEdit, QMessageBox, QPushButton

from tests.support.window import Window
from toreuma.app.forms.label import Label
from toreuma.app.stages.operations.stage import OperationsStage
from toreuma.app.stages.program.stage import ProgramStage
from toreuma.app.stages.program.study.desk import Desk

OLD = (
    "%\nO815 (OLD CARD)\nG21 G40 G99\nG28 U0 W0\nT0101 (CNMG 120408)\nG50 S2500\nG96 S180 M3\n"
    "G0 X62. Z0. M8\nG1 X-1.6 F.2\nG0 X5O. Z2.\nG1 Z-35. F.3\nX62.\nG0 X100. Z100.\nM45\nT0303 (DRILL 12)\n"
    "G97 S900\nG0 X0. Z5.\nG74 R1.\n"
    "G74 Z-30. Q8000 F.15\nG0 Z100.\nM30\n%\n"
)
MOST_S = 30


def waited(desk: Desk) -> None:
    until = time.monotonic() + MOST_S
    while time.monotonic() < until:
        QApplication.processEvents()
        if desk.study is not None and not desk.busy and not desk.editor._timer.isActive():
            return
        time.sleep(0.005)
    pytest.fail("the desk did not come to rest")


@pytest.fixture
def desk(bare: Window, tmp_path: Path) -> Desk:
    path = tmp_path / "O815.nc"
    path.write_bytes(OLD.encode("latin-1"))
    bare.take(path)
    stage = bare.at(ProgramStage)
    waited(stage.desk)
    stage.may_leave = lambda: True  # type: ignore[method-assign]
    return stage.desk


def words(desk: Desk) -> str:
    return "\n".join(label.text() for label in desk.known.findChildren(Label))


def press(desk: Desk, text: str) -> None:
    button = next(one for one in desk.known.findChildren(QPushButton) if one.text() == text)
    button.click()
    waited(desk)


def test_a_program_dropped_on_the_window_is_read_and_told_about(bare: Window, desk: Desk) -> None:
    assert bare.stage == "program"
    assert bare.pages.currentWidget() is desk
    told = words(desk)
    assert "G-code system A" in told
    assert "The letter O stands in a number" in told
    assert "What M45 does on this machine is not known" in told
    heads = [one.text() for one in desk.known.findChildren(QPushButton)]
    assert any("CNMG 120408" in one for one in heads)
    assert any("drill, DRILL 12" in one for one in heads)
    assert "not understood" in desk.state.text()


def test_a_cure_changes_one_word_and_can_be_undone(desk: Desk) -> None:
    press(desk, "Write a zero")
    assert "G0 X50. Z2." in desk.editor.toPlainText()
    assert "not understood" not in desk.state.text()
    desk.editor.undo()
    assert desk.editor.toPlainText() == OLD


def test_typing_is_read_again_and_the_metal_follows_the_line(desk: Desk) -> None:
    press(desk, "Write a zero")
    assert desk.cut is not None
    before = desk.cut.proof.final.area
    desk.editor.replace_all(desk.editor.toPlainText().replace("Z-35.", "Z-20."))
    waited(desk)
    assert desk.cut.proof.final.area > before
    desk.editor.go_to(9)
    first = desk.picture.metal()
    desk.editor.go_to(12)
    later = desk.picture.metal()
    assert first is not None
    assert later is not None
    assert later.area < first.area


def test_a_line_in_one_sentence_with_what_is_in_force(desk: Desk) -> None:
    desk.editor.go_to(9)
    assert desk.strip.sentence.text() == "Line 9:  Straight cut to Z 0.000 mm, Ø −1.600 mm at 0.2 mm/rev"
    assert "F 0.2 mm/rev from line 9" in desk.strip.force.text()
    assert "S180 surface speed from line 7" in desk.strip.force.text()
    assert "clamp 2500 rpm from line 6" in desk.strip.force.text()


def test_a_click_on_a_move_goes_to_its_line(desk: Desk) -> None:
    press(desk, "Write a zero")
    view = desk.picture.view()
    assert view is not None
    at = view.point(-20.0, 25.0)
    QTest.mouseClick(desk.picture, Qt.MouseButton.LeftButton, pos=at.toPoint())
    assert desk.editor.line == 11
    assert desk.picture.nearest(QPointF(1.0, 1.0)) is None


def test_what_an_m_word_does_is_asked_once(desk: Desk) -> None:
    box = next(one for one in desk.known.findChildren(QComboBox) if "M45" in one.accessibleName())
    box.setCurrentIndex(box.findData("nothing"))
    box.activated.emit(box.currentIndex())
    waited(desk)
    assert "M45" not in words(desk)


def test_blank_and_tools_are_completed_and_bad_ones_told(desk: Desk) -> None:
    assert desk.study is not None
    assert desk.study.blank_is_usual
    entry = desk.known.fields["blank"]
    entry.setText("D65 L")
    entry.editingFinished.emit()
    waited(desk)
    assert "was not understood" in words(desk)
    assert desk.known.fields["blank"].text() == "D65 L"
    desk.known.fields["blank"].setText("D65 L90 Z1 J-50")
    desk.known.fields["blank"].editingFinished.emit()
    waited(desk)
    assert desk.study.blank.d_mm == 65
    field = desk.known.fields["tool 3 d_mm"]
    field.setText("14")
    field.editingFinished.emit()
    waited(desk)
    assert desk.study.tools[1].tool.d_mm == 14  # type: ignore[union-attr]
    assert isinstance(desk.known.fields["tool 3 d_mm"], QLineEdit)
    assert desk.known.fields["tool 3 d_mm"].text() == "14"


def test_search_replace_and_a_line_number(desk: Desk) -> None:
    bar = desk.find_bar
    bar.open()
    bar.wanted.setText("X62.")
    assert bar.find_next()
    assert desk.editor.line == 8
    bar.instead.setText("X63.")
    bar.replace_all()
    assert desk.editor.toPlainText().count("X63.") == 2
    bar.wanted.setText("15")
    bar.find_next()
    assert desk.editor.line == 15
    bar.wanted.setText("nowhere")
    assert not bar.find_next()


def test_tools_are_folded_and_a_line_inside_unfolds(desk: Desk) -> None:
    desk.editor.fold(5, True)
    block = desk.editor.document().findBlockByNumber(8)
    assert not block.isVisible()
    desk.editor.go_to(9)
    assert block.isVisible()


def test_numbering_and_moving_a_tool_from_the_menu(desk: Desk) -> None:
    desk.renumber(10)
    assert "N10 G21 G40 G99" in desk.editor.toPlainText()
    desk.renumber(0)
    assert desk.editor.toPlainText() == OLD
    desk.shift("3 Z-0.5")
    waited(desk)
    assert "G0 X0. Z4.5" in desk.editor.toPlainText()
    said: list[str] = []
    desk.message.connect(lambda _, text: said.append(text))
    desk.shift("rubbish")
    assert "Not understood" in said[-1]


def test_programs_are_compared_by_move(desk: Desk, tmp_path: Path) -> None:
    other = tmp_path / "machine.nc"
    other.write_text(OLD.replace("F.3", "F.25").replace("G0 X62. Z0. M8", "G00 X62.0 Z0 M08"), "utf-8")
    desk.compare_with(other)
    assert desk.compared.isVisible()
    assert "1 places differ" in desk.compared.says.text()
    assert desk.compared.table.item(0, 2).text() == "feeds"
    desk.compare_with(desk.path or other)
    assert "Both do the same" in desk.compared.says.text()


def test_saving_and_a_disk_that_cannot_be_written(desk: Desk, tmp_path: Path) -> None:
    said: list[tuple[str, str]] = []
    desk.message.connect(lambda kind, text: said.append((kind, text)))
    desk.editor.replace_all(OLD.replace("X5O.", "X50."))
    assert desk.modified
    assert desk.save()
    assert not desk.modified
    assert (tmp_path / "O815.nc").read_text("utf-8").count("X50.") == 1
    desk.editor.replace_all(OLD)
    assert not desk._write(tmp_path / "no" / "such" / "O1.nc")
    assert said[-1][0] == "error"
    assert desk.editor.toPlainText() == OLD


def test_leaving_unsaved_text_is_asked_about(bare: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    path = tmp_path / "O1.nc"
    path.write_text(OLD, "utf-8")
    bare.take(path)
    stage = bare.at(ProgramStage)
    waited(stage.desk)
    stage.desk.editor.replace_all("O1\nM30\n")
    asked = []
    answer = [QMessageBox.StandardButton.Cancel]
    monkeypatch.setattr(QMessageBox, "question", lambda *a, **k: (asked.append(a), answer[0])[1])
    bare.take(path)
    assert len(asked) == 1
    assert stage.desk.editor.toPlainText() == "O1\nM30\n"
    answer[0] = QMessageBox.StandardButton.Discard
    bare.take(path)
    waited(stage.desk)
    assert stage.desk.editor.toPlainText() == OLD


def test_any_file_ends_in_words_and_the_window_lives(bare: Window, tmp_path: Path) -> None:
    for name, data in (("a.nc", b""), ("b.nc", bytes(range(256)) * 40), ("c.nc", b"Dear all,\nhello\nworld\n")):
        path = tmp_path / name
        path.write_bytes(data)
        bare.take(path)
        waited(bare.at(ProgramStage).desk)
        bare.at(ProgramStage).desk.saved = bare.at(ProgramStage).desk.editor.toPlainText()
    assert bare.isVisible()


def test_completion_offers_what_may_follow(desk: Desk) -> None:
    offers = desk.editor._offers("G1 ", "")
    assert offers[0].startswith("X   ")
    assert any(one.startswith(",R") for one in offers)
    words = desk.editor._offers("", "G9")
    assert [one.split()[0] for one in words][:2] == ["G9", "G90"]


def test_long_text_stays_fluid(bare: Window, tmp_path: Path) -> None:
    lines = "".join(f"X{50 - n % 20 / 10:.3f} Z-{n / 1000:.3f}\n" for n in range(20_000))
    path = tmp_path / "long.nc"
    path.write_text(f"O1\nG21 G99\nT0101\nG97 S500 M3\nG0 X60. Z2.\nG1 X50. Z0. F.2\n{lines}M30\n", "utf-8")
    bare.take(path)
    desk = bare.at(ProgramStage).desk
    QApplication.processEvents()
    began = time.monotonic()
    desk.editor.go_to(15_000)
    QTest.keyClicks(desk.editor, "X1")
    QApplication.processEvents()
    typed = time.monotonic() - began
    desk.stop()
    desk.saved = desk.editor.toPlainText()
    assert typed < 2.0


def test_a_program_is_held_against_the_open_job(window: Window, tmp_path: Path) -> None:
    stage = window.at(ProgramStage)
    window.set_stage("program")
    text = window.session.outcome.program.text  # type: ignore[union-attr]
    path = tmp_path / "machine.nc"
    path.write_text(text, "utf-8")
    window.take(path)
    desk = stage.desk
    waited(desk)
    stage.may_leave = lambda: True  # type: ignore[method-assign]

    def held() -> str:
        desk.hold_against()
        until = time.monotonic() + MOST_S
        while desk._holding is not None and time.monotonic() < until:
            QApplication.processEvents()
            time.sleep(0.005)
        return words(desk)

    assert "finished" in held()
    desk.editor.replace_all(text.replace("Z-79.5", "Z-93."))
    waited(desk)
    assert desk.known.against is None
    assert "unsafe" in held()
    desk.stop()


def test_switches_variables_and_speeds(bare: Window, tmp_path: Path) -> None:
    path = tmp_path / "O2.nc"
    path.write_text(
        "O2\nG21 G99\nT0101\nG97 S500 M3\nG0 X50. Z2.\n/G1 Z-5. F.2\nG1 Z-#500 F.2\nM98 P77\nM30\n", "utf-8"
    )
    bare.take(path)
    stage = bare.at(ProgramStage)
    desk = stage.desk
    waited(desk)
    stage.may_leave = lambda: True  # type: ignore[method-assign]
    assert desk.study is not None
    assert "O77" in words(desk)
    assert len(desk.study.motions_of(6)) == 1
    box = next(one for one in desk.known.findChildren(QCheckBox) if one.text().endswith("/"))
    box.setChecked(True)
    waited(desk)
    assert desk.study.motions_of(6) == ()
    entry = desk.known.fields["variable #500"]
    entry.setText("12,5")
    entry.editingFinished.emit()
    waited(desk)
    assert desk.study.motions_of(7)[0].end[0] == -12.5
    desk.change_speed("1 500 640")
    waited(desk)
    assert "G97 S640 M3" in desk.editor.toPlainText()
    desk.stop()


TURNED = (
    "O7\nG21 G40 G99\nT0101 (CNMG 120408)\nG50 S2500\nG96 S180 M3\nG0 X50. Z2.\nG1 X36. F.3\nZ-30. F.2\nX52.\n"
    "G0 X150. Z100.\nT0303 (GROOVE 3 WIDE)\nG97 S800 M3\nG0 X38. Z-15.\nG1 X30. F.08\nG0 X38.\nG0 X150. Z100.\nM30\n"
)


def test_a_program_becomes_a_job_whose_stretches_are_planned_anew(bare: Window, desk: Desk) -> None:
    desk.take(TURNED, None)
    waited(desk)
    desk._on_said("blank", "50 x 80")
    waited(desk)
    menu = next(one for one in desk.work.menu().actions() if one.text() == "Take it as a job")
    menu.trigger()
    until = time.monotonic() + MOST_S
    while bare.stage != "operations" and time.monotonic() < until:
        QApplication.processEvents()
        time.sleep(0.005)
    assert bare.stage == "operations"
    session = bare.session
    assert [one.kind for one in session.job.operations] == ["as_written", "as_written"]  # type: ignore[union-attr]
    while not [one for one in session.findings() if one.code == "written.kept"] and time.monotonic() < until:
        QApplication.processEvents()
        time.sleep(0.005)
    session.select(operation="op2")
    QApplication.processEvents()
    buttons = bare.at(OperationsStage).numbers.findChildren(QPushButton)
    next(one for one in buttons if one.text() == "Plan it anew").click()
    assert [one.kind for one in session.job.operations] == ["as_written", "groove"]  # type: ignore[union-attr]
    session.undo()
    assert [one.kind for one in session.job.operations] == ["as_written", "as_written"]  # type: ignore[union-attr]
    assert desk.editor.toPlainText() == TURNED
