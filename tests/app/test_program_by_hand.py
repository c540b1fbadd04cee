"""The planned program worked on in its stage: typed, marked, undone, chosen between mine and the plan's."""

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QComboBox, QPushButton

from tests.support.window import Window
from toreuma.app.shell.shot import settle
from toreuma.app.stages.program.stage import ProgramStage


def judged(window: Window) -> None:
    """Until the whole part is judged, not only this side proved."""
    for _ in range(200):
        if settle(window.session) and window.session.verdict is not None:
            return
        QTest.qWait(20)


def typed(window: Window, was: str, now: str, settled: Callable[[], None]) -> None:
    text = window.program.text
    assert was in text.toPlainText()
    text.replace_all(text.toPlainText().replace(was, now, 1))
    text.flush()
    settled()


def test_what_is_typed_is_proved_marked_and_undone(window: Window, settled: Callable[[], None]) -> None:
    window.set_stage("program")
    settled()
    before = window.program.text.toPlainText()
    typed(window, "M8\n", "M8\nG4 P500\n", settled)
    assert "G4 P500" in window.program.text.toPlainText()
    assert len(window.session.job.program.by_hand) == 1
    assert any("changed by hand" in words for marks in window.program._marks().values() for _, words in marks)
    assert any(one.dwell_s == 0.5 for one in window.session.outcome.program.motions)
    window.session.undo()
    settled()
    assert window.program.text.toPlainText() == before
    assert window.session.job.program.by_hand == ()


def test_a_spoiled_line_is_told_at_its_line_and_the_text_stays(window: Window, settled: Callable[[], None]) -> None:
    window.set_stage("program")
    settled()
    typed(window, "G54", "G55", settled)
    assert "G55" in window.program.text.toPlainText()
    judged(window)
    assert window.session.verdict.state == "unsafe"
    line = next(n for n, one in enumerate(window.program.text.toPlainText().split("\n"), 1) if "G55" in one)
    assert any(
        one.line is not None and one.line >= line for one in window.session.findings() if one.severity == "error"
    )


def test_keys_in_the_text_do_not_move_its_cursor_away(window: Window, settled: Callable[[], None]) -> None:
    window.set_stage("program")
    settled()
    text = window.program.text
    text.setFocus()
    text.go_to(8)
    QTest.keyClick(text, Qt.Key.Key_End)
    QTest.keyClicks(text, " M1")
    text.flush()
    settled()
    assert text.line == 8
    assert text.toPlainText().split("\n")[7].endswith("G54 M1")


def test_the_plans_words_are_taken_again(window: Window, settled: Callable[[], None]) -> None:
    window.set_stage("program")
    settled()
    typed(window, "M8\n", "M8\nG4 P500\n", settled)
    button = next(one for one in window.reasons.findChildren(QPushButton) if one.text().startswith("Take the plan"))
    button.click()
    settled()
    assert "G4 P500" not in window.program.text.toPlainText()


def test_a_plan_that_changes_there_asks(window: Window, settled: Callable[[], None]) -> None:
    window.set_stage("program")
    settled()
    typed(window, "M8\n", "M8\nG4 P500\n", settled)
    first = window.session.outcome.sections[0]
    window.session.attempt(lambda job: job.with_operation(first, lambda one: one.changed(name="other words")))
    settled()
    assert "program.by_hand" in {one.code for one in window.session.findings()}
    assert "G4 P500" not in window.program.text.toPlainText()
    button = next(one for one in window.reasons.findChildren(QPushButton) if one.text() == "Take mine")
    button.click()
    settled()
    assert "G4 P500" in window.program.text.toPlainText()


def test_another_dialect_and_other_ways_of_writing_before_the_eyes(window: Window, settled: Callable[[], None]) -> None:
    window.set_stage("program")
    settled()

    def choose(name: str, value: object) -> None:
        box = next(one for one in window.reasons.findChildren(QComboBox) if one.accessibleName() == name)
        box.setCurrentIndex(box.findData(value))
        box.activated.emit(box.currentIndex())
        settled()

    choose("Words of the program", "system-b")
    assert "G92 S" in window.program.text.toPlainText()
    choose("Words of the program", "iso")
    assert "T1 D1" in window.program.text.toPlainText()
    choose("Block numbers", "none")
    assert not any(one.startswith("N") for one in window.program.text.toPlainText().split("\n"))
    judged(window)
    assert window.session.verdict.state in ("finished", "finished but for")


def test_the_planned_program_as_a_text_of_its_own(window: Window, settled: Callable[[], None]) -> None:
    window.set_stage("program")
    settled()
    stage = window.at(ProgramStage)
    stage.edit_planned()
    assert window.pages.currentWidget() is stage.desk
    assert stage.desk.editor.toPlainText() == window.program.shown_text()
    stage.desk.close_desk()
    assert window.pages.currentWidget() is not stage.desk
    stage.desk.stop()
