"""The log in the real window: a run begun, sizes typed and read, offsets and edges kept, devices listened to."""

import time
from collections.abc import Iterator
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QWheelEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLabel, QWidget
from pytestqt.qtbot import QtBot

from tests.support.engine import recorded
from tests.support.window import Window
from toreuma.app.picture.chart import ChartData, RunChart
from toreuma.app.shell.shot import settle
from toreuma.app.stages.log.page import VIEWS, LogPage
from toreuma.app.stages.log.stage import LogStage
from toreuma.app.theme import load_theme
from toreuma.engine.library import renew
from toreuma.log import EdgeUsed, Observation, open_store
from toreuma.shipped.library import demo_job

FOUND = 4


@pytest.fixture
def log(bare: Window, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[LogPage]:
    """The stage with a run of the demo job in it."""
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path))
    renew()
    bare.session.show(demo_job("spear"))
    assert settle(bare.session)
    QTest.keyClick(bare, Qt.Key.Key_0, Qt.KeyboardModifier.ControlModifier)
    assert bare.stage == "log"
    page = bare.at(LogStage).log
    page.model.engine = recorded()
    page.begin.click()
    qtbot.waitUntil(lambda: page.model.book is not None and not page.model.busy, timeout=30_000)
    yield page
    page.close_all()
    renew()


def view(log: LogPage, name: str) -> None:
    log.choose(VIEWS.index(name))
    QApplication.processEvents()


def row_of(log: LogPage, key: str) -> int:
    return next(n for n, line in enumerate(log.article.lines) if line.key == key)


def type_size(log: LogPage, key: str, text: str) -> None:
    """As a person does it: the cell is chosen, typed into, and left with Enter."""
    table = log.article.table
    item = table.item(row_of(log, key), FOUND)
    table.setCurrentItem(item)
    table.editItem(item)
    editor = table.focusWidget() if table.focusWidget() is not table else table.viewport().focusWidget()
    editor = editor or table.indexWidget(table.currentIndex())
    assert editor is not None
    QTest.keyClicks(editor, text)
    QTest.keyClick(editor, Qt.Key.Key_Return)
    QApplication.processEvents()


def said(widget: QWidget) -> str:
    return "\n".join(one.text() for one in widget.findChildren(QLabel))


def test_a_job_nobody_ran_says_how_to_begin(bare: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path))
    bare.session.show(demo_job("spear"))
    assert settle(bare.session)
    bare.set_stage("log")
    page = bare.at(LogStage).log
    assert "No run yet: begin one" in page.where.text()
    assert "Nobody has run this job yet." in said(page.taught)
    assert page.article.table.rowCount() == 0
    for name in VIEWS:
        view(page, name)
    page.close_all()


def test_sizes_are_typed_split_and_drawn(log: LogPage) -> None:
    assert log.runs.count() == 1
    type_size(log, "outside 2 d", "21.985")
    book = log.model.book
    assert book is not None
    (kept,) = log.model.store.measurements(book.run.id)
    assert (kept.part, kept.size, kept.value) == (1, "outside 2 d", 21.985)
    table, row = log.article.table, row_of(log, "outside 2 d")
    assert table.item(row, FOUND).text() == "21.985 ✕"  # out of f7, and said without colour
    assert table.item(row, 5).text().startswith("+0.015")
    assert table.currentRow() == row + 1
    assert "T2 Slim 55°: X -0.01" in said(log.article.says)
    assert "cannot be told apart from taper along Z" in said(log.article.says)
    assert ">+15<" in log.article.picture.svg  # µm
    assert "#c03a2b" in log.article.picture.svg
    assert "1 of 13 measured, 1 out of limits" in log.article.state.text()


def test_inches_and_sums_are_read_and_nonsense_is_told(log: LogPage) -> None:
    told: list[str] = []
    log.model.session.message.connect(lambda level, text: told.append(f"{level}: {text}"))
    type_size(log, "outside 4 d", "0.7089in")
    type_size(log, "outside 8 d", "30-0.02")
    type_size(log, "outside 2 d", "about right")
    book = log.model.book
    assert book is not None
    found = {one.size: one.value for one in log.model.store.measurements(book.run.id)}
    assert found == {"outside 4 d": pytest.approx(0.7089 * 25.4), "outside 8 d": pytest.approx(29.98)}
    assert [one for one in told if one.startswith("error")]


def test_a_size_typed_over_takes_the_place_of_the_first_and_an_emptied_one_does_not_count(log: LogPage) -> None:
    type_size(log, "outside 2 d", "29.785")  # a slip of the finger
    type_size(log, "outside 2 d", "21.975")
    book = log.model.book
    assert book is not None
    assert [one.value for one in log.model.store.measurements(book.run.id)] == [21.975]
    every = log.model.store.measurements(book.run.id, with_struck=True)
    assert [(one.value, one.struck) for one in every] == [(29.785, True), (21.975, False)]
    item = log.article.table.item(row_of(log, "outside 2 d"), FOUND)
    assert item.text() == "21.975"
    item.setText("")
    assert log.model.store.measurements(book.run.id) == []
    assert "0 of 13 measured" in log.article.state.text()


def test_an_offset_that_was_set_is_written_down_and_the_next_part_waits(log: LogPage) -> None:
    type_size(log, "outside 2 d", "21.985")
    button = next(one for one in log.article.says.findChildren(type(log.begin)) if one.text() == "It was set")
    button.click()
    book = log.model.book
    assert book is not None
    (offset,) = log.model.store.offsets(book.run.id)
    assert (offset.tool, offset.axis, offset.after_part) == ("T2", "X", 1)
    assert offset.mm == pytest.approx(-0.0155, abs=0.001)
    assert log.article.part.value() == 2
    assert "T2: offset X was brought to" in said(log.taught)


def test_the_chart_shows_what_was_measured_and_set(log: LogPage) -> None:
    book = log.model.book
    assert book is not None
    for part in range(1, 13):
        book.enter(part, "outside 2 d", 21.9655 + 0.0009 * part, book.run.begun + 143 * part, uncertainty=0.001)
    view(log, "Through the run")
    through = log.through
    assert through.sizes.count() == 1
    assert len(through.chart.data.parts) == 12
    assert (through.chart.data.lower, through.chart.data.upper) == (21.959, 21.98)
    assert "is expected near its limit" in said(through.says)
    assert "correct by -0.0" in said(through.says)
    assert through.tool.currentData() == "T2"
    through.amount.setText("-0.008")
    through.set.click()
    assert [one.mm for one in log.model.store.offsets(book.run.id)] == [-0.008]
    assert through.chart.data.sets == [(12, "-8 µm")]
    picture = through.chart.grab().toImage()
    seen = {
        picture.pixelColor(x, y).name() for x in range(0, picture.width(), 2) for y in range(0, picture.height(), 2)
    }
    assert load_theme("light").colour("error").name() in seen  # the limits


def test_an_edge_comes_out_with_what_was_seen(log: LogPage) -> None:
    book = log.model.book
    assert book is not None
    for part in range(1, 5):
        book.enter(part, "outside 2 d", 21.97, book.run.begun + part)
    view(log, "Edges")
    edges = log.edges
    assert edges.now.rowCount() == 5
    edges.now.setCurrentCell(0, 0)
    next(one for one in edges.seen.buttons() if one.text() == "notch").click()
    edges.wear.setText("0.25")
    edges.note.setText("at the depth of the skin")
    edges.change.click()
    done = next(one for one in log.model.store.edges(book.run.id) if one.to_part is not None)
    assert (done.tool, done.to_part, done.seen, done.wear_mm, done.worn) == ("T1", 4, "notch", 0.25, True)
    assert done.note == "at the depth of the skin"
    assert edges.out.rowCount() == 1
    edges.now.setCurrentCell(1, 0)
    edges.early.click()
    assert [one.worn for one in log.model.store.edges(book.run.id) if one.to_part is not None] == [True, False]


def test_chips_bring_cures_that_change_the_plan(log: LogPage, bare: Window, tmp_path: Path) -> None:
    view(log, "Stops and notes")
    notes = log.notes
    notes.operation.setCurrentIndex(notes.operation.findData("op2"))
    notes.words.setText("round the chuck")
    notes.stop.click()
    assert "Rough outside: bird's nest: round the chuck" in said(notes.list)
    button = next(one for one in notes.cures.findChildren(type(log.begin)) if "Pin feed" in one.text())
    button.click()
    job = bare.session.job
    assert job is not None
    operation = job.operation("op2")
    assert operation is not None
    assert operation.pins.feed_mm_rev == pytest.approx(0.33)
    picture = tmp_path / "chips.png"
    bare.grab().scaled(40, 30).save(str(picture))
    notes.words.setText("warm it up first")
    notes.note.click()
    assert "warm it up first" in said(notes.list)
    notes.add_note(picture.read_bytes())
    assert any(not one.pixmap().isNull() for one in notes.list.findChildren(QLabel))
    program = tmp_path / "back.nc"
    program.write_text("O1001\nG0 X10\nM30\n")
    notes.add_program(program)
    assert "program from the machine" in said(notes.list)
    assert log.model.taught().edited  # type: ignore[union-attr]


def test_constants_are_used_and_left_out(log: LogPage) -> None:
    book = log.model.book
    assert book is not None
    for n in range(12):
        log.model.store.add(
            book.run.id,
            EdgeUsed(tool="T1", code="C", corner=n, from_part=1, to_part=5, at=1.0, minutes=8.0, vc_m_min=146.0 + n,
                     cutting="coated carbide", worn=True, seen="flank", planned_min=15.1),
        )  # fmt: skip
    view(log, "Constants")
    n = next(n for n, one in enumerate(log.constants.found) if one.kind == "constant" and one.learned.count)
    assert "from 12 edges of this shop" in log.constants.boxes[n].toolTip()
    log.constants.boxes[n].click()
    assert log.constants.found[n].used or any(one.used for one in log.constants.found)
    from toreuma.engine.library import library

    changed = library().materials["1.4404"].speeds
    assert any("of this shop" in row.source for row in changed)
    n = next(n for n, one in enumerate(log.constants.found) if one.kind == "constant" and one.learned.count)
    log.constants.boxes[n].setChecked(False)
    assert not any("of this shop" in row.source for row in library().materials["1.4404"].speeds)


def test_what_is_learned_of_a_machine_goes_into_the_open_job_when_asked(bare: Window, log: LogPage) -> None:
    job, book = bare.session.whole, log.model.book
    assert job is not None
    assert book is not None
    for n in range(8):
        log.model.store.add(
            book.run.id, Observation(kind="time", of=job.machine.name, computed=100.0, found=120.0, at=float(n))
        )
    view(log, "Constants")
    assert not log.constants.renew.isVisible()
    n = next(n for n, one in enumerate(log.constants.found) if one.kind == "time")
    log.constants.boxes[n].click()
    assert job.machine.time_ratio == 1.0
    assert log.constants.renew.isVisible()
    assert "real time over computed" in log.constants.renew.toolTip()
    log.constants.renew.click()
    assert settle(bare.session)
    now = bare.session.whole
    assert now is not None
    assert 1.15 < now.machine.time_ratio < 1.25
    assert not log.constants.renew.isVisible()
    bare.session.undo()
    assert bare.session.whole == job


def test_a_simulated_gauge_reads_into_the_chosen_row(log: LogPage, qtbot: QtBot) -> None:
    log.article.table.setCurrentCell(row_of(log, "outside 2 d"), FOUND)
    view(log, "Devices")
    devices = log.devices
    devices.switch_simulated("gauge")
    qtbot.waitUntil(lambda: "well" in devices.states["gauge"].text(), timeout=10_000)
    assert "SIMULATED" in devices.states["gauge"].text()
    devices.press.setText("21.9700")
    QTest.keyClick(devices.press, Qt.Key.Key_Return)
    book = log.model.book
    assert book is not None
    qtbot.waitUntil(lambda: bool(log.model.store.measurements(book.run.id)), timeout=10_000)
    (kept,) = log.model.store.measurements(book.run.id)
    assert kept.value == pytest.approx(21.97, abs=0.003)
    assert kept.gauge == "Gauge (simulated)"
    devices.simulated["gauge"].tell("garbage")
    devices.simulated["gauge"].kill()
    qtbot.waitUntil(lambda: "gone" in devices.states["gauge"].text(), timeout=10_000)
    begun = time.monotonic()
    devices.look()
    assert time.monotonic() - begun < 0.2
    devices.switch_simulated("gauge")
    assert "not listened to" in devices.states["gauge"].text()


def test_the_simulated_machine_runs_the_program_of_the_job(log: LogPage, qtbot: QtBot) -> None:
    view(log, "Devices")
    devices = log.devices
    devices.switch_simulated("machine")
    devices.switch_simulated("feeder")
    qtbot.waitUntil(lambda: "active" in devices.says["machine"].text(), timeout=10_000)
    assert "O1001" in devices.says["machine"].text()
    qtbot.waitUntil(lambda: "bar left" in devices.says["feeder"].text(), timeout=10_000)
    assert "Machine agent: active" in devices.heard.toPlainText()


def test_an_address_of_ones_own_is_looked_for_and_holds_nobody_up(log: LogPage, qtbot: QtBot) -> None:
    view(log, "Devices")
    log.devices.where["machine"].setText("http://127.0.0.1:1")
    log.devices.listens["machine"].click()
    qtbot.waitUntil(lambda: "not found yet:" in log.devices.states["machine"].text(), timeout=10_000)
    assert "SIMULATED" not in log.devices.states["machine"].text()
    log.devices.listens["machine"].click()
    assert "not listened to" in log.devices.states["machine"].text()


def test_a_log_that_cannot_be_opened_is_told_in_a_line(bare: Window, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("TOREUMA_STORE", "sqlite:////proc/nowhere/log.sqlite")
    bare.session.show(demo_job("spear"))
    assert settle(bare.session)
    told: list[str] = []
    bare.session.message.connect(lambda level, text: told.append(f"{level}: {text}"))
    bare.set_stage("log")
    assert told
    assert all(one.startswith("error: log: ") for one in told)
    bare.at(LogStage).log.close_all()


def test_opening_a_job_says_what_its_last_run_taught(
    bare: Window, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path))
    store = open_store()
    from toreuma.engine.logbook.book import begin_run

    begin_run(store, recorded(), demo_job("spear"), time.time())
    store.close()
    told: list[str] = []
    bare.session.message.connect(lambda level, text: told.append(text))
    bare.session.show(demo_job("spear"))
    qtbot.waitUntil(lambda: any(one.startswith("Last run ") for one in told), timeout=20_000)
    assert "Ctrl+0" in next(one for one in told if one.startswith("Last run "))


class TestChart:
    """The chart by itself."""

    def test_a_hundred_thousand_parts_are_drawn_and_looked_into(self, qtbot: QtBot) -> None:
        chart = RunChart(load_theme("light"))
        qtbot.addWidget(chart)
        chart.resize(900, 400)
        chart.show()
        data = ChartData(
            parts=list(range(1, 100_001)), values=[20 + (n % 97) * 1e-4 for n in range(100_000)], lower=19.99,
            upper=20.02, title="Ø 20",
        )  # fmt: skip
        chart.show_data(data, "mm")
        chart.grab()
        first, last = chart.span
        at = QPointF(450, 200)
        event = QWheelEvent(
            at, at, QPoint(0, 0), QPoint(0, 120), Qt.MouseButton.NoButton, Qt.KeyboardModifier.NoModifier,
            Qt.ScrollPhase.NoScrollPhase, False,
        )  # fmt: skip
        chart.wheelEvent(event)
        assert chart.span[1] - chart.span[0] < last - first
        chart.mouseDoubleClickEvent(None)  # type: ignore[arg-type]
        assert chart.span == (first, last)

    def test_nothing_and_one_point_and_no_limits(self, qtbot: QtBot) -> None:
        chart = RunChart(load_theme("dark"))
        qtbot.addWidget(chart)
        chart.resize(600, 300)
        for data in (ChartData(), ChartData(parts=[1], values=[5.0]), ChartData(parts=[1, 2], values=[5.0, 5.0])):
            chart.show_data(data, "inch")
            assert not chart.grab().isNull()
