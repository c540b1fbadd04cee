"""The real window: type, drag, undo, and see the numbers and the drawing change."""

import math
import sys
from collections.abc import Callable
from pathlib import Path

import pytest
from PySide6.QtCore import QMimeData, QPoint, QPointF, Qt, QUrl
from PySide6.QtGui import QDropEvent, QFont, QFontMetrics, QImage
from PySide6.QtWidgets import QAbstractButton, QApplication, QComboBox, QLineEdit, QPushButton
from pytestqt.qtbot import QtBot

from tests.support.window import Window
from toreuma.app.forms.findings import FindingCard
from toreuma.app.forms.format import clock
from toreuma.app.shell.header import Header
from toreuma.app.shell.shot import settle
from toreuma.app.stages.all import STAGES
from toreuma.app.theme import load_theme
from toreuma.core.model import Job
from toreuma.files.jobs import job_text, load_job, save_job
from toreuma.shipped.library import demo_job

Wait = Callable[[], None]


def picture(widget) -> QImage:  # type: ignore[no-untyped-def]
    return widget.grab().toImage()


def type_into(qtbot: QtBot, entry: QLineEdit, text: str) -> None:
    QApplication.processEvents()
    entry.setFocus()
    entry.selectAll()
    qtbot.keyClicks(entry, text)
    qtbot.keyClick(entry, Qt.Key.Key_Return)


def test_the_first_page_opens_a_demo_in_one_click(bare: Window, qtbot: QtBot) -> None:
    assert bare.pages.currentWidget() is bare.first
    qtbot.mouseClick(bare.first.cards["demo:spear"], Qt.MouseButton.LeftButton)
    assert settle(bare.session)
    assert bare.pages.currentWidget() is not bare.first
    assert bare.header.title.text() == "Regulating spear"


def test_every_stage_has_a_key_and_draws_something_of_its_own(window: Window, qtbot: QtBot) -> None:
    seen = []
    for stage, key in ((one.key, one.shortcut.removeprefix("Ctrl+")) for one in STAGES):
        qtbot.keyClick(window, getattr(Qt.Key, f"Key_{key}"), Qt.KeyboardModifier.ControlModifier)
        assert window.stage == stage
        assert window.header.buttons[stage].isChecked()
        seen.append(picture(window))
    assert all(a != b for i, a in enumerate(seen) for b in seen[:i])


# Numbers


def test_a_depth_of_cut_replans_and_redraws(window: Window, qtbot: QtBot, settled: Wait) -> None:
    window.set_stage("operations")
    window.session.select(operation="op2")
    before, passes = picture(window.canvas), window.reasons.rows["passes"]._value.text()
    row = window.reasons.rows["ap_max"]
    type_into(qtbot, row.entry, "0.8")
    settled()
    assert window.session.job is not None
    assert window.session.job.operation("op2").pins.ap_mm == 0.8  # type: ignore[union-attr]
    assert int(window.reasons.rows["passes"]._value.text()) > int(passes)
    assert row.pin.isChecked()
    assert picture(window.canvas) != before
    qtbot.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    settled()
    assert window.reasons.rows["passes"]._value.text() == passes
    assert not window.reasons.rows["ap_max"].pin.isChecked()
    qtbot.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier)
    settled()
    assert window.reasons.rows["ap_max"].entry.text() == "0.800"


def test_a_surface_speed_in_other_units(window: Window, qtbot: QtBot, settled: Wait) -> None:
    window.set_stage("operations")
    window.session.select(operation="op4")
    time = window.session.outcome.plan.of("op4").times.cutting_s  # type: ignore[union-attr]
    type_into(qtbot, window.reasons.rows["vc"].entry, "300 ft/min")
    settled()
    assert window.session.job.operation("op4").pins.vc_m_min == pytest.approx(91.44)  # type: ignore[union-attr]
    assert window.reasons.rows["vc"].entry.text() == "91"
    assert window.session.outcome.plan.of("op4").times.cutting_s > 1.5 * time  # type: ignore[union-attr]


@pytest.mark.parametrize(("text", "words"), [("fast", "not belong"), ("0", "greater than 0"), ("-5", "greater than 0")])
def test_nonsense_stays_typed_and_marked_and_harms_nothing(window: Window, qtbot: QtBot, text: str, words: str) -> None:
    window.set_stage("operations")
    window.session.select(operation="op2")
    job = window.session.job
    row = window.reasons.rows["f"]
    type_into(qtbot, row.entry, text)
    assert row.entry.text() == text
    assert row.entry.property("bad")
    assert row._fault.isVisible()
    assert words in row._fault.text()
    assert window.session.job is job
    qtbot.keyClick(row.entry, Qt.Key.Key_Escape)
    assert row.entry.text() == "0.275"


def test_evidence_opens_with_formula_source_and_the_limit_that_decided(window: Window, qtbot: QtBot) -> None:
    window.set_stage("operations")
    window.session.select(operation="op5")
    row = window.reasons.rows["clamp"]
    QApplication.processEvents()
    qtbot.mouseClick(row.fold, Qt.MouseButton.LeftButton)
    assert row._why.isVisible()
    assert "steady below" in row._why.text()
    assert "decides" in row._why.text()
    assert "chuck plate" in row._why.text()


def test_the_pin_button_fixes_and_frees(window: Window, qtbot: QtBot, settled: Wait) -> None:
    window.set_stage("operations")
    window.session.select(operation="op2")
    proposed = window.session.outcome.plan.of("op2").reasons["vc"].number  # type: ignore[union-attr]
    qtbot.mouseClick(window.reasons.rows["vc"].pin, Qt.MouseButton.LeftButton)
    settled()
    assert window.session.job.operation("op2").pins.vc_m_min == proposed  # type: ignore[union-attr]
    qtbot.mouseClick(window.reasons.rows["vc"].pin, Qt.MouseButton.LeftButton)
    settled()
    assert window.session.job.operation("op2").pins.vc_m_min is None  # type: ignore[union-attr]


def test_a_finding_shows_its_cure_and_the_cure_works(window: Window, qtbot: QtBot, settled: Wait) -> None:
    window.set_stage("operations")
    window.session.select(operation="op2")
    type_into(qtbot, window.reasons.rows["ap_max"].entry, "6")
    settled()
    cards = window.reasons.findChildren(FindingCard)
    assert {card.finding.code for card in cards} >= {"pin.ap_mm"}
    card = next(card for card in cards if card.finding.code == "pin.ap_mm")
    qtbot.mouseClick(card.findChild(QPushButton), Qt.MouseButton.LeftButton)
    settled()
    assert window.session.outcome.plan.all_findings == ()  # type: ignore[union-attr]


def test_a_bar_smaller_than_the_part_is_said_where_it_is_typed(window: Window, qtbot: QtBot, settled: Wait) -> None:
    window.set_stage("stock")
    type_into(qtbot, window.stock.rows["stock.d_mm"].entry, "20")
    settled()
    cards = window.reasons.findChildren(FindingCard)
    card = next(card for card in cards if card.finding.code == "stock.small")
    assert "smaller than the part" in card.finding.what
    qtbot.mouseClick(card.findChild(QPushButton), Qt.MouseButton.LeftButton)
    settled()
    assert window.session.job.stock.d_mm == 32  # type: ignore[union-attr]


def test_a_blank_far_too_small_does_not_end_the_window(bare: Window, qtbot: QtBot) -> None:
    bare.session.show(demo_job("runner-hub"))
    assert settle(bare.session)
    bare.set_stage("stock")
    type_into(qtbot, bare.stock.rows["stock.d_mm"].entry, "40")
    assert settle(bare.session)
    for key in ("operations", "tools", "transfer", "program", "proof"):
        bare.set_stage(key)
        assert settle(bare.session)
    assert bare.session.job.stock.d_mm == 40  # type: ignore[union-attr]
    assert clock(math.nan) == "–"


def test_a_panel_that_cannot_be_filled_says_so_and_the_window_goes_on(
    window: Window, monkeypatch: pytest.MonkeyPatch
) -> None:
    told: list[BaseException] = []
    monkeypatch.setattr(sys, "excepthook", lambda kind, error, trace: told.append(error))
    monkeypatch.setattr(type(window.table), "_fill", lambda self: 1 / 0)
    window.set_stage("operations")
    window.session.attempt(lambda job: job.changed(name="Other"))
    window.switch_table()
    assert any(isinstance(error, ZeroDivisionError) for error in told)
    assert window.isVisible()


# Profile


def test_a_profile_dimension_changes_part_and_plan(window: Window, settled: Wait) -> None:
    before = picture(window.canvas)
    window.part.outside.type_into(2, 3, "24")
    window.part.outside.type_into(1, 3, "24")
    settled()
    job = window.session.job
    assert job is not None
    assert [job.part.outside[i].d_mm for i in (1, 2)] == [24, 24]
    assert picture(window.canvas) != before
    assert window.session.proof is not None
    assert window.session.proof.ok


def test_a_profile_that_crosses_itself_keeps_what_was_typed(window: Window, settled: Wait) -> None:
    window.part.outside.type_into(4, 5, "")
    job = window.session.job
    window.part.outside.type_into(4, 2, "-10")
    assert window.session.job is job
    assert window.part.outside.model.index(4, 2).data() == "-10"
    assert window.part.outside.fault.isVisible()
    assert "crosses" in window.part.outside.fault.text()
    window.part.outside.type_into(6, 5, "X3")
    assert window.session.job is job
    assert "no corner" in window.part.outside.fault.text()
    assert window.part.outside.model.index(4, 2).data() == "-10"
    window.part.outside.type_into(6, 5, "R0.5")
    window.part.outside.type_into(4, 2, "-53")
    assert not window.part.outside.fault.isVisible()
    settled()
    assert window.session.job.part.outside[4].z_mm == -53  # type: ignore[union-attr]


def test_a_good_cell_goes_in_while_a_bad_one_waits(window: Window, settled: Wait) -> None:
    window.part.outside.type_into(2, 3, "-4")
    window.part.outside.type_into(6, 3, "26")
    settled()
    assert window.session.job.part.outside[6].d_mm == 26  # type: ignore[union-attr]
    assert list(window.part.outside.model.typed) == [(2, 3)]
    assert window.part.outside.model.index(2, 3).data() == "-4"
    assert window.part.outside.fault.text().startswith("Row 3")
    window.session.undo()
    settled()
    assert not window.part.outside.model.typed
    assert not window.part.outside.fault.isVisible()


@pytest.mark.parametrize(
    ("row", "column", "text", "words"),
    [(2, 3, "-4", "0 or more"), (0, 4, "0.5", "too small"), (8, 5, "C9", "larger than"), (1, 1, "curve", "not a kind"),
     (3, 2, "2", "in front"), (3, 2, "abc", "not belong")],
)  # fmt: skip
def test_impossible_cells_say_row_column_and_cure(window: Window, row: int, column: int, text: str, words: str) -> None:
    window.part.outside.type_into(row, column, text)
    fault = window.part.outside.fault.text()
    assert words in fault
    assert fault.startswith("Row ")
    assert window.part.outside.model.index(row, column).data() == text
    assert not window.session.modified


def test_elements_are_added_and_taken_out(window: Window, settled: Wait) -> None:
    window.part.outside.view.setCurrentIndex(window.part.outside.model.index(2, 2))
    window.part.outside.add()
    settled()
    assert len(window.session.job.part.outside) == 10  # type: ignore[union-attr]
    window.part.outside.view.setCurrentIndex(window.part.outside.model.index(3, 2))
    window.part.outside.delete()
    settled()
    assert len(window.session.job.part.outside) == 9  # type: ignore[union-attr]


# Units


def test_switching_units_changes_no_stored_number(window: Window, qtbot: QtBot, settled: Wait) -> None:
    assert window.session.job is not None
    stored = window.session.job.changed(units="mm")
    qtbot.keyClick(window, Qt.Key.Key_U, Qt.KeyboardModifier.ControlModifier)
    settled()
    assert window.session.system == "inch"
    assert window.session.job.changed(units="mm") == stored
    assert window.part.outside.model.index(2, 3).data() == "0.8661"
    assert "inch" in window.header.units.text()
    window.set_stage("operations")
    window.session.select(operation="op2")
    row = window.reasons.rows["vc"]
    vc = window.session.outcome.plan.of("op2").reasons["vc"].number  # type: ignore[union-attr]
    assert (row.entry.text(), row._unit.text()) == (f"{vc / 0.3048:.0f}", "ft/min")
    assert "(X IS DIAMETER, INCH)" in window.session.outcome.program.text  # type: ignore[union-attr]
    type_into(qtbot, row.entry, "500")
    settled()
    assert window.session.job.operation("op2").pins.vc_m_min == pytest.approx(152.4)  # type: ignore[union-attr]


# Route


def test_the_order_is_changed_with_keys_and_buttons(window: Window, qtbot: QtBot, settled: Wait) -> None:
    window.set_stage("operations")
    window.session.select(operation="op1")
    qtbot.keyClick(window.route.view, Qt.Key.Key_Down, Qt.KeyboardModifier.AltModifier)
    settled()
    assert [op.id for op in window.session.job.operations][:2] == ["op2", "op1"]  # type: ignore[union-attr]
    assert window.session.outcome.sections[:2] == ("op2", "op1")  # type: ignore[union-attr]
    qtbot.mouseClick(window.route.icons.buttons["up"], Qt.MouseButton.LeftButton)
    settled()
    assert [op.id for op in window.session.job.operations][:2] == ["op1", "op2"]  # type: ignore[union-attr]


def test_a_card_dropped_elsewhere_moves_its_operation(window: Window, settled: Wait) -> None:
    model = window.route._model
    data = model.mimeData([model.index(4)])
    model.dropMimeData(data, Qt.DropAction.MoveAction, 1, 0, model.index(-1))
    settled()
    assert [op.id for op in window.session.job.operations] == ["op1", "op5", "op2", "op3", "op4"]  # type: ignore[union-attr]


def test_operations_are_added_doubled_switched_and_taken_out(window: Window, qtbot: QtBot, settled: Wait) -> None:
    window.set_stage("operations")
    window.session.select(operation="op4")
    window.route.duplicate()
    settled()
    ids = [op.id for op in window.session.job.operations]  # type: ignore[union-attr]
    assert len(ids) == 6
    assert window.session.selection.operation == ids[4]
    qtbot.keyClick(window.route.view, Qt.Key.Key_Space)
    settled()
    assert not window.session.job.operations[4].enabled  # type: ignore[union-attr]
    qtbot.keyClick(window.route.view, Qt.Key.Key_Delete)
    settled()
    assert len(window.session.job.operations) == 5  # type: ignore[union-attr]
    window.route.add("finish_od")
    settled()
    assert window.session.job.operations[-1].kind == "finish_od"  # type: ignore[union-attr]
    for _ in range(6):
        window.session.select(operation=window.session.job.operations[0].id)  # type: ignore[union-attr]
        window.route.delete()
    settled()
    assert window.session.job.operations == ()  # type: ignore[union-attr]
    assert window.route._empty.isVisible()


# Time, proof, program


def test_the_cursor_moves_time_and_metal(window: Window, qtbot: QtBot) -> None:
    window.set_stage("operations")
    ribbon = window.ribbon
    end = picture(window.canvas)
    qtbot.mouseClick(ribbon, Qt.MouseButton.LeftButton, pos=QPoint(ribbon.width() // 2, 30))
    assert 0 < window.session.cursor_s < window.session.outcome.timeline.total_s  # type: ignore[union-attr]
    assert window.session.selection.operation == "op2"
    middle = picture(window.canvas)
    assert middle != end
    at = window.session.cursor_s
    qtbot.keyClick(ribbon, Qt.Key.Key_Right)
    assert window.session.cursor_s > at
    qtbot.keyClick(ribbon, Qt.Key.Key_Home)
    assert window.session.cursor_s == 0
    blank = window.session.replay.stock_at(0)  # type: ignore[union-attr]
    assert blank.equals(window.session.outcome.plan.scene.stock)  # type: ignore[union-attr]


def test_the_proof_is_said_in_words_and_findings_lead_to_their_line(
    window: Window, settled: Wait, qtbot: QtBot
) -> None:
    window.set_stage("proof")
    qtbot.waitUntil(lambda: window.session.complete, timeout=60_000)
    assert window.proof.verdict.text() == "Finished but for"
    window.session.attempt(
        lambda j: j.with_operation("op4", lambda op: op.changed(tool="T1")).with_operation(
            "op3", lambda op: op.changed(enabled=False)
        )
    )
    settled()
    qtbot.waitUntil(lambda: window.session.complete, timeout=60_000)
    assert window.proof.verdict.text().startswith("Not finished")
    card = next(c for c in window.proof.findChildren(FindingCard) if c.finding.code == "part.open")
    card.mousePressEvent(None)  # type: ignore[arg-type]
    assert window.canvas._finding is card.finding
    window.session.attempt(lambda j: j.with_setup(hold=j.setup.hold.changed(stick_out_mm=80)))
    settled()
    qtbot.waitUntil(lambda: window.session.complete, timeout=60_000)
    assert window.proof.verdict.text().startswith("Unsafe")


def test_the_program_is_what_was_posted_and_follows_the_cursor(window: Window, tmp_path: Path) -> None:
    window.set_stage("program")
    text = window.session.outcome.program.text  # type: ignore[union-attr]
    assert window.program.text.toPlainText() == text
    line = next(m.line for m in window.session.outcome.program.motions if m.section == 3 and not m.is_rapid)  # type: ignore[union-attr]
    window.session.go_to_line(line)
    assert window.program.text.textCursor().blockNumber() + 1 == line
    assert window.session.outcome.operation_at(window.session.cursor_s) == "op4"  # type: ignore[union-attr]
    window.program.save_as(tmp_path / "p.nc")
    assert (tmp_path / "p.nc").read_text() == text
    assert "not proved yet" in window._notice.text() or "finished but for" in window._notice.text()
    window.program.save_as(tmp_path / "no" / "p.nc")
    assert "cannot be written" in window._notice.text()


# Canvas


def test_clicking_a_pass_selects_its_operation(window: Window, qtbot: QtBot) -> None:
    window.set_stage("operations")
    view = window.canvas._current_view()
    assert view is not None
    qtbot.mouseClick(window.canvas, Qt.MouseButton.LeftButton, pos=view.point(-30.0, 11.0).toPoint())
    assert window.session.selection.operation == "op4"
    window.set_stage("part")
    qtbot.mouseClick(window.canvas, Qt.MouseButton.LeftButton, pos=view.point(-30.0, 11.0).toPoint())
    assert window.session.selection.element == 2
    assert window.part.outside.view.currentIndex().row() == 2


def test_wheel_zooms_at_the_pointer_and_f_fits(window: Window, qtbot: QtBot) -> None:
    canvas = window.canvas
    view = canvas._current_view()
    assert view is not None
    at = QPointF(200, 150)
    place = view.place(at)
    near = view.zoomed(3.0, at)
    assert near.place(at) == pytest.approx(place)
    canvas._view, canvas._fitted = near, False
    canvas.setFocus()
    qtbot.keyClick(canvas, Qt.Key.Key_F)
    assert canvas._current_view().scale == pytest.approx(view.scale)  # type: ignore[union-attr]
    qtbot.mouseDClick(canvas, Qt.MouseButton.LeftButton, pos=view.point(-30.0, 11.0).toPoint())
    assert canvas._current_view().scale > 1.5 * view.scale  # type: ignore[union-attr]


def test_the_caliper_catches_corners(window: Window, qtbot: QtBot) -> None:
    canvas = window.canvas
    canvas.setFocus()
    qtbot.keyClick(canvas, Qt.Key.Key_M)
    view = canvas._current_view()
    assert view is not None
    for place in ((-36.0, 11.0), (-40.0, 9.0)):
        near = view.point(*place) + QPointF(3, 3)
        qtbot.mouseClick(canvas, Qt.MouseButton.LeftButton, pos=near.toPoint())
    assert canvas.caliper.places == [(-36.0, 11.0), (-40.0, 9.0)]
    picture(canvas)
    qtbot.keyClick(canvas, Qt.Key.Key_Escape)
    assert not canvas.caliper.active


# Files


def test_save_open_and_what_is_unsaved(window: Window, tmp_path: Path, settled: Wait) -> None:
    path = tmp_path / "mine.toreuma"
    window.files.save_to(path)
    assert not window.session.modified
    window.session.attempt(lambda j: j.changed(name="Mine"))
    assert window.header.title.text() == "Mine •"
    window.files.save_to(path)
    assert load_job(path).name == "Mine"
    window.session.show(load_job(path), path)
    settled()
    assert window.files.recent() == [str(path)]
    assert not window.session.history.can_go_back


def test_a_broken_file_leaves_the_open_job_alone(window: Window, tmp_path: Path, spear: Job) -> None:
    path = tmp_path / "broken.toreuma"
    path.write_text(job_text(spear)[:500])
    window.files.open_job(str(path))
    assert "breaks off" in window._notice.text()
    assert window.session.job is spear
    assert not window.session.save(tmp_path / "no" / "x.toreuma")
    assert "cannot be saved" in window._notice.text()


def test_a_job_file_can_be_dropped_on_the_window(window: Window, tmp_path: Path, spear: Job) -> None:
    path = tmp_path / "dropped.toreuma"
    save_job(spear.changed(name="Dropped"), path)
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(path))])
    window.dropEvent(
        QDropEvent(
            QPointF(5, 5), Qt.DropAction.CopyAction, data, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
        )
    )
    assert window.session.job.name == "Dropped"  # type: ignore[union-attr]


# Finding things, work that is overtaken, access


def test_everything_is_found_by_a_few_letters(window: Window, qtbot: QtBot) -> None:
    qtbot.keyClick(window, Qt.Key.Key_K, Qt.KeyboardModifier.ControlModifier)
    assert window.finder.isVisible()
    qtbot.keyClicks(window.finder.edit, "finish out")
    assert "operation" in window.finder.list.item(0).text()
    qtbot.keyClick(window.finder.edit, Qt.Key.Key_Return)
    assert window.stage == "operations"
    assert window.session.selection.operation == "op4"
    texts = {one.text for one in window.finder._offers()}
    assert {"Save", "Thread seat", "T2 Slim 55°", "Light or dark"} <= texts
    assert "Undo" not in texts  # nothing has been done yet


def test_the_last_of_many_quick_edits_wins(window: Window, settled: Wait) -> None:
    for depth in (0.5, 0.6, 0.7, 0.8, 0.9):
        window.session.attempt(
            lambda j, d=depth: j.with_operation("op2", lambda op: op.changed(pins=op.pins.changed(ap_mm=d)))  # type: ignore[misc]
        )
    settled()
    assert window.session.outcome.plan.of("op2").reasons["ap_max"].number == 0.9  # type: ignore[union-attr]
    assert window.session.proof is not None
    for _ in range(5):
        window.session.undo()
    settled()
    assert window.session.outcome.plan.of("op2").reasons["ap_max"].pinned is False  # type: ignore[union-attr]


def test_every_control_has_a_name(window: Window) -> None:
    window.session.select(operation="op2")
    for stage in (one.key for one in STAGES):
        window.set_stage(stage)
        for kind in (QAbstractButton, QLineEdit, QComboBox):
            for control in window.findChildren(kind):
                if not control.isVisible() or control.parent() is window.part.outside.view:
                    continue
                text = control.text() if isinstance(control, QAbstractButton) else ""
                assert control.accessibleName() or text, (stage, control)


def test_light_and_dark(window: Window, qtbot: QtBot) -> None:
    light = picture(window)
    qtbot.keyClick(window, Qt.Key.Key_T, Qt.KeyboardModifier.ControlModifier)
    assert picture(window) != light
    assert window._settings.value("theme") == "dark"


def test_how_a_job_is_run_is_chosen_beside_the_whole_route(window: Window, settled: Callable[[], None]) -> None:
    window.set_stage("operations")
    window.session.select()
    before = window.session.outcome.plan.operations[1].reasons["vc"].number  # type: ignore[union-attr]
    box = window.reasons.choices["conditions.attended"]
    box.setCurrentIndex(1)
    box.activated.emit(1)
    settled()
    after = window.session.outcome.plan.operations[1].reasons["vc"].number  # type: ignore[union-attr]
    assert after == pytest.approx(0.85 * before, rel=0.01)
    line = window.reasons.lines["derate.unattended"]
    line.setText("a camera watches")
    line.setModified(True)
    line.editingFinished.emit()
    settled()
    assert window.session.outcome.plan.operations[1].reasons["vc"].number == before  # type: ignore[union-attr]
    window.session.undo()
    window.session.undo()
    assert window.session.job.conditions.attended  # type: ignore[union-attr]


def test_twelve_stages_stand_in_the_header_of_the_usual_window(window: Window, qtbot: QtBot) -> None:
    """The names of part and machine give way, no label is cut."""
    stages = tuple(window.stages.values())
    assert len(stages) == 12
    header = Header(window.session, load_theme("light"), stages, window.actions_known)
    qtbot.addWidget(header)
    header.setStyleSheet(load_theme("light").style_sheet())
    header.resize(1280, 48)
    header.show()
    assert header.minimumSizeHint().width() <= 1280
    for button in header.buttons.values():
        assert button.width() >= button.sizeHint().width()
        assert button.geometry().right() <= 1280


def test_the_name_of_the_stage_that_is_shown_is_written_whole(bare: Window) -> None:
    bare.resize(1280, 800)
    for key, button in bare.header.buttons.items():
        bare.set_stage(key)
        bold = QFont(button.font())
        bold.setBold(True)
        assert button.width() > QFontMetrics(bold).horizontalAdvance(button.text()), key
