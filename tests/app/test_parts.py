"""Parts of the window on their own: session, worker, canvas view, entries."""

import threading
import time
from pathlib import Path

import pytest
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QHideEvent
from PySide6.QtWidgets import QLabel
from pytestqt.qtbot import QtBot

from tests.support.window import Window
from toreuma.app.forms.column import ScrollColumn
from toreuma.app.forms.format import both_ways, clock, diameter
from toreuma.app.forms.number import Entry, evidence_html
from toreuma.app.forms.part_edits import changed_element, changed_feature, split, tapered
from toreuma.app.picture.view import View
from toreuma.app.session import Session
from toreuma.app.session.task import left_running
from toreuma.app.session.worker import Worker
from toreuma.app.shell.shot import settle
from toreuma.app.stages.program.stage import ProgramStage
from toreuma.app.theme import load_theme
from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.errors import Cancelled, PartError
from toreuma.core.model import Job
from toreuma.engine.engine import Engine
from toreuma.engine.library import library


@pytest.mark.parametrize(
    ("seconds", "text"), [(0, "0:00.0"), (59.96, "1:00.0"), (65.23, "1:05.2"), (3600, "60:00.0"), (-1, "0:00.0")]
)
def test_clock(seconds: float, text: str) -> None:
    assert clock(seconds) == text


def test_places_name_diameter_and_radius_in_both_systems() -> None:
    text = both_ways(-12.7, 6.35, "inch")
    assert text.index("in") < text.index("mm")
    for part in ("Z \u22120.5000", "Ø 0.5000", "r 0.2500", "Ø 12.700", "r 6.350"):
        assert part in text
    assert diameter(15, "mm") == "Ø 30"


def test_the_view_maps_there_and_back() -> None:
    view = View.fitting(-80, 5, 20, QRectF(0, 0, 600, 400))
    for z, r in ((-80, 20), (5, -20), (-10, 3)):
        assert view.place(view.point(z, r)) == pytest.approx((z, r))
    assert view.point(0, 10).y() < view.point(0, 0).y() < view.point(0, -10).y()
    assert view.moved(QPointF(10, 5)).point(0, 0) == view.point(0, 0) + QPointF(10, 5)
    assert view.zoomed(1e9, QPointF(3, 3)).scale <= 50_000


def test_an_entry_gives_its_text_up_only_on_escape(qtbot: QtBot) -> None:
    entry = Entry("depth")
    qtbot.addWidget(entry)
    entry.present("1.5")
    typed: list[str] = []
    entry.typed.connect(typed.append)
    entry.show()
    entry.selectAll()
    qtbot.keyClicks(entry, "2x")
    qtbot.keyClick(entry, Qt.Key.Key_Return)
    assert typed == ["2x"]
    entry.refuse()
    entry.present("1.6")
    assert entry.text() == "2x"
    qtbot.keyClick(entry, Qt.Key.Key_Escape)
    assert entry.text() == "1.6"
    assert not entry.property("bad")


def test_evidence_is_printed_in_the_system_of_the_person_and_is_safe() -> None:
    evidence = Evidence(
        "feed",
        "f",
        0.254,
        "mm/rev",
        formula="f < 0.5 <b>",
        source="somewhere",
        pinned=True,
        proposed=0.508,
        inputs=(Input("nose", "r", 25.4, "mm"),),
        limits=(Limit("a", 0.254, "mm/rev", bit=True), Limit("b", 1, "mm/rev")),
    )
    html = evidence_html(evidence, "inch", load_theme("light"))
    assert "0.01000 in/rev — decides" in html
    assert "Proposed: 0.02000 in/rev" in html
    assert "1.0000 in" in html
    assert "&lt;b&gt;" in html


def test_the_session_keeps_its_job_when_a_change_cannot_be(qtbot: QtBot, spear: Job) -> None:
    session = Session()
    session.show(spear)
    error = session.attempt(lambda job: job.changed(stock=job.stock.changed(d_mm=-1)))
    assert error is not None
    assert "greater than 0" in error.what
    error = session.attempt(lambda job: job.changed(part={"outside": [{"z_mm": 0, "d_mm": 4}]}))
    assert error is not None
    assert session.job is spear
    assert not session.history.can_go_back
    assert session.attempt(lambda job: job) is None
    assert not session.modified
    session.undo()
    session.redo()
    assert settle(session)
    session.set_cursor(1e9)
    assert session.cursor_s == session.outcome.timeline.total_s  # type: ignore[union-attr]
    session.set_cursor(-5)
    assert session.cursor_s == 0
    session.close()


def test_a_job_without_operations_and_a_job_that_cannot_be_planned_settle(qtbot: QtBot, spear: Job) -> None:
    session = Session()
    said: list[str] = []
    session.message.connect(lambda level, text: said.append(text))
    session.show(spear.with_setup(operations=()))
    assert settle(session)
    assert session.proof is None
    assert session.findings() == ()
    session.show(spear.changed(part={"outside": [{"z_mm": 0, "d_mm": 4}, {"z_mm": 0, "d_mm": 4}]}))
    assert settle(session)
    assert session.outcome is None
    assert said
    assert "part.outside[1]" in said[-1]
    session.close()


def test_a_cancelled_worker_gives_no_result_and_goes_on_with_the_next(qtbot: QtBot, spear: Job) -> None:
    worker = Worker(Engine())
    seen: list[int] = []
    worker.followed.connect(lambda number, outcome: seen.append(number))
    worker.request(spear)
    worker.cancel()
    with qtbot.waitSignal(worker.proved, timeout=20_000) as done:
        last = worker.request(spear.changed(name="again"))
    assert done.args[0] == last
    assert seen == [last]
    worker.stop()


def test_a_fault_of_ours_reaches_the_person_as_one_line(
    qtbot: QtBot, spear: Job, monkeypatch: pytest.MonkeyPatch
) -> None:
    def broken(*_: object) -> None:
        raise ZeroDivisionError("deep inside")

    engine = Engine()
    monkeypatch.setattr(engine, "follow", broken)
    worker = Worker(engine)
    with qtbot.waitSignal(worker.failed, timeout=10_000) as done:
        worker.request(spear)
    assert "deep inside" in str(done.args[1])
    assert "\n" not in str(done.args[1])
    worker.stop()


def test_a_hundred_operations_stay_usable(window: Window, spear: Job) -> None:
    middle = tuple(spear.operations[1 + i % 3].changed(id=f"x{i}", name=f"Step {i}") for i in range(98))
    window.session.show(spear.with_setup(operations=(spear.operations[0], *middle, spear.operations[-1])))
    assert settle(window.session, 120_000)
    window.set_stage("operations")
    assert window.route._model.rowCount() == 100
    window.session.select(operation="x50")
    assert window.route.view.currentIndex().row() == 51
    assert len(window.finder._offers()) > 100


def test_a_window_that_goes_does_not_wait_for_a_step_without_end(
    qtbot: QtBot, spear: Job, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("toreuma.app.session.task.STOP_MS", 200)
    go_on, begun = threading.Event(), threading.Event()

    def stuck(*arguments: object) -> object:
        begun.set()
        go_on.wait(20)
        raise Cancelled

    engine = Engine()
    monkeypatch.setattr(engine, "follow", stuck)
    worker = Worker(engine)
    worker.request(spear)
    assert begun.wait(10)
    before = time.monotonic()
    worker.stop()
    assert time.monotonic() - before < 3
    assert left_running()
    go_on.set()
    qtbot.waitUntil(lambda: not left_running(), timeout=10_000)


def test_a_window_that_goes_leaves_a_program_that_is_being_read(
    qtbot: QtBot, bare: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("toreuma.app.session.task.STOP_MS", 100)
    go_on, begun = threading.Event(), threading.Event()

    def stuck(*arguments: object) -> object:
        begun.set()
        go_on.wait(20)
        raise Cancelled

    monkeypatch.setattr("toreuma.app.stages.program.study.desk.study_of", stuck)
    path = tmp_path / "o.nc"
    path.write_text("O1\nG21\nM30\n")
    assert bare.at(ProgramStage).desk.open(path)
    assert begun.wait(10)
    bare.at(ProgramStage).desk.stop()
    assert left_running()
    go_on.set()
    qtbot.waitUntil(lambda: not left_running(), timeout=10_000)


def test_what_an_undo_took_away_is_no_longer_typed_into(spear: Job) -> None:
    for change in (
        lambda: changed_feature(spear, 99, name="x"),
        lambda: changed_element(spear, "outside", 99, name="x"),
        lambda: tapered(spear, "outside", 99, "1:10"),
        lambda: split(spear, "inside", 3),
    ):
        with pytest.raises(PartError, match="no longer there"):
            change()


def test_the_cut_lab_goes_on_when_the_shop_loses_what_was_chosen(
    window: Window, monkeypatch: pytest.MonkeyPatch
) -> None:
    lab = window.bench.lab
    window.open_bench("cut lab")
    lab.material.addItem("mine", "a material that was taken out")
    lab.material.setCurrentIndex(lab.material.count() - 1)
    lab.machine.addItem("mine", "a machine that was taken out")
    lab.machine.setCurrentIndex(lab.machine.count() - 1)
    lab.refresh()
    assert lab.material.currentData() in library().materials
    assert lab.machine.currentData() in library().machines
    assert lab.material.findData("a material that was taken out") < 0


def test_what_fills_a_column_while_it_is_cleared_stays(qtbot: QtBot) -> None:
    """One that goes may be heard by somebody who fills the column anew."""
    column, kept = ScrollColumn(), QLabel("new")
    qtbot.addWidget(column)

    class Heard(QLabel):
        def hideEvent(self, event: QHideEvent) -> None:
            column.column.addWidget(kept)

    column.column.addWidget(Heard("old"))
    column.column.addWidget(QLabel("older"))
    column.show()
    qtbot.waitExposed(column)
    column.clear()
    assert column.column.count() == 1
    assert column.column.itemAt(0).widget() is kept
