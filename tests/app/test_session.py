"""The session: a drawing with no job open, searches and edits that cross, results that stay."""

import itertools
import threading
from pathlib import Path

import pytest
from PySide6.QtCore import QMimeData, QPointF, QSettings, Qt, QUrl
from PySide6.QtGui import QDropEvent
from PySide6.QtWidgets import QLabel
from pytestqt.qtbot import QtBot

from tests.support.engine import recorded
from tests.support.window import Window
from toreuma.app.session import Session
from toreuma.app.session.history import History
from toreuma.app.session.selection import Cursors
from toreuma.app.shell.shot import settle
from toreuma.core.errors import ToreumaError
from toreuma.core.model import Job
from toreuma.engine.library import renew
from toreuma.shipped.library import demo_job
from toreuma.shipped.paths import data_path


def drop_on(window: Window, name: str) -> None:
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(data_path("demo", name)))])
    drop, keys = Qt.DropAction.CopyAction, Qt.KeyboardModifier.NoModifier
    window.dropEvent(QDropEvent(QPointF(10, 10), drop, data, Qt.MouseButton.LeftButton, keys))


@pytest.mark.parametrize("name", ["vane-stud.dxf", "runner-hub.step"])
def test_a_drawing_on_the_first_page_is_shown_and_taken(bare: Window, qtbot: QtBot, name: str) -> None:
    drop_on(bare, name)
    assert bare.pages.currentWidget() is not bare.first
    assert bare.imports.isVisible()
    qtbot.waitUntil(lambda: bare.imports.found is not None, timeout=30_000)
    assert bare.pages.currentWidget() is not bare.first
    assert bare.left.currentWidget() is bare.imports
    picture = bare.canvas.grab().toImage()
    paper = bare._theme.colour("paper").rgb()
    places = itertools.product(range(0, picture.width(), 4), range(0, picture.height(), 4))
    drawn = sum(picture.pixel(x, y) != paper for x, y in places)
    assert drawn > 500
    bare.imports.accept_button.click()
    assert bare.session.job is not None
    assert bare.left.currentWidget() is bare.part
    assert settle(bare.session)


def test_an_edit_during_the_search_for_a_route_ends_it_and_the_button_says_so(bare: Window) -> None:
    session = bare.session
    session.show(demo_job("spear"))
    bare.set_stage("operations")
    assert settle(session)
    bare.route.propose.click()
    assert "Stop" in bare.route.propose.text()
    session.attempt(lambda job: job.changed(name="edited"))
    assert session.search.state == "stopped"
    assert "Propose" in bare.route.propose.text()
    assert settle(session)
    assert session.job is not None
    assert session.job.name == "edited"
    assert session.proof is not None


@pytest.mark.parametrize("ask", ["propose_route", "find_cycle"])
def test_a_failed_search_leaves_plan_and_proof_as_they_were(
    bare: Window, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch, ask: str
) -> None:
    def broken(*_: object) -> None:
        raise ToreumaError("search", "nothing was found", "look again")

    session = bare.session
    session.show(demo_job("runner-hub"))
    qtbot.waitUntil(lambda: session.complete, timeout=120_000)
    before = session.results
    for name in ("route", "balance"):
        monkeypatch.setattr(session._worker._engine, name, broken)
    getattr(session, ask)()
    qtbot.waitUntil(lambda: session.search.state == "failed", timeout=10_000)
    assert session.results is before
    assert session.problem is None
    assert "nothing was found" in bare._notice.text()


def test_a_search_stopped_while_a_proof_is_under_way_takes_the_proof_up_again(bare: Window) -> None:
    session = bare.session
    session.show(demo_job("spear").changed(name="never seen before"))
    session.propose_route()
    session.stop_search()
    assert settle(session)
    assert session.proof is not None


def test_history_goes_back_and_forth_without_limit() -> None:
    history, jobs = History(), [demo_job("spear").changed(name=f"{n}") for n in range(5)]
    history.begin(jobs[0])
    for before in jobs[:-1]:
        history.put(before)
    here: Job | None = jobs[-1]
    names = []
    while here is not None and (here := history.back(here)) is not None:
        names.append(here.name)
    assert names == ["3", "2", "1", "0"]
    assert history.forth(jobs[0]) == jobs[1]
    assert history.can_go_back
    history.put(jobs[1])
    assert not history.can_go_forth


@pytest.mark.parametrize(("seconds", "at", "at_end"), [(5.0, 5.0, False), (99.0, 20.0, True), (-3.0, 0.0, False)])
def test_a_cursor_stays_inside_and_at_the_end(seconds: float, at: float, at_end: bool) -> None:
    moved = Cursors().moved(seconds, 20.0)
    assert (moved.at_s, moved.at_end) == (at, at_end)
    assert moved.fitted(30.0).at_s == (30.0 if at_end else at)
    assert Cursors(10.0, 0.0, False).fitted(5.0) == Cursors(5.0, 0.0, True)  # cut short, it stands at the end


def test_own_values_that_cannot_be_read_are_said_and_the_window_opens(
    qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, spear: Job
) -> None:
    (tmp_path / "materials.json").write_text('{"C45": {"kc11_mpa": ')
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path))
    renew()
    session = Session(recorded())
    window = Window(session, QSettings(str(tmp_path / "settings.ini"), QSettings.Format.IniFormat))
    qtbot.addWidget(window)
    window.files.may_leave = lambda: True
    window.show()
    session.show(spear)
    assert settle(session)
    window.set_stage("bench")
    window.bench.open("materials")
    said = [label.text() for label in window.bench.materials.findChildren(QLabel) if "materials.json" in label.text()]
    assert len(said) == 1
    assert (tmp_path / "materials.json").read_text() == '{"C45": {"kc11_mpa": '
    window.close()


def test_the_worker_stands_still_while_the_window_is_busy() -> None:
    """At its next step, and goes on afterwards."""
    session = Session()
    worker = session._worker
    check = worker._check_for(worker._latest)
    step = threading.Thread(target=check)
    with session.quiet():
        step.start()
        step.join(0.1)
        assert step.is_alive()
    step.join(20)
    assert not step.is_alive()
    session.close()
