"""An exception in what Qt calls ends nothing: it is said and written down, and the window goes on."""

import subprocess
import sys
from pathlib import Path
from typing import ClassVar

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QCloseEvent, QPainter, QPaintEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QWidget
from pytestqt.qtbot import QtBot

from tests.support.window import Window
from toreuma.app.guard import guard
from toreuma.app.picture.section import SectionCanvas
from toreuma.app.shell.trouble import Trouble
from toreuma.files.log import MOST_ACTIONS, Log


@pytest.fixture(autouse=True)
def home(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path / "home"))
    return tmp_path / "home"


EVERY = """
import importlib, pkgutil
import toreuma.app
from toreuma.app.guard import GUARDED, HARMLESS, ours
from toreuma.app.shell.start import application
app = application()
for module in pkgutil.walk_packages(toreuma.app.__path__, "toreuma.app."):
    importlib.import_module(module.name)
kinds = set(ours())
print(len(kinds), *(
    f"{kind.__name__}.{name}" for kind in kinds for name, method in vars(kind).items()
    if (name.endswith("Event") or name in HARMLESS) and callable(method) and not hasattr(method, GUARDED)
))
"""


def test_every_class_of_the_window_is_guarded_before_it_is_made() -> None:
    said = subprocess.run([sys.executable, "-c", EVERY], capture_output=True, text=True, check=True).stdout.split()
    assert int(said[0]) > 60
    assert said[1:] == []


class Broken(QWidget):
    painters: ClassVar[list[QPainter]] = []

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        self.painters.append(painter)
        painter.drawLine(0, 0, 5, 5)
        raise ZeroDivisionError("in a paint")

    def closeEvent(self, event: QCloseEvent) -> None:
        raise ValueError("in a goodbye")


def test_a_painting_that_fails_is_ended_and_told(qtbot: QtBot, monkeypatch: pytest.MonkeyPatch) -> None:
    guard(Broken)
    told: list[str] = []
    monkeypatch.setattr(sys, "excepthook", lambda kind, error, trace: told.append(str(error)))
    widget = Broken()
    qtbot.addWidget(widget, before_close_func=lambda w: Broken.painters.clear())
    widget.show()
    for _ in range(30):
        widget.repaint()
        QApplication.processEvents()
    assert set(told) == {"in a paint"}
    assert not any(painter.isActive() for painter in Broken.painters)
    assert not widget.close(), "a window that cannot say goodbye stays"
    assert widget.isVisible()
    widget.hide()


def test_a_window_whose_picture_fails_says_so_keeps_the_job_and_goes_on(
    window: Window, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch, home: Path
) -> None:
    window.session.attempt(lambda job: job.changed(name="kept"))
    trouble = Trouble()
    try:
        with monkeypatch.context() as patch:
            patch.setattr(SectionCanvas, "_current_view", _fails)
            for _ in range(20):
                window.canvas.repaint()
            qtbot.keyClick(window.canvas, Qt.Key.Key_X)
        assert "in a picture" in window._notice.text()
        assert window.files.keep.journal.path is not None
        assert window.files.keep.journal.path.stat().st_size > 0
        written = (home / "log" / "faults.txt").read_text()
        assert written.count("RuntimeError: in a picture") == 5, "often enough, and not without end"
        assert "the job changed" in written
        window.canvas.repaint()
        assert window.session.attempt(lambda job: job.changed(name="and on")) is None
    finally:
        trouble.end()


def _fails(canvas: SectionCanvas) -> None:
    raise RuntimeError("in a picture")


def test_the_last_actions_are_on_the_disk_as_they_happen(home: Path) -> None:
    log = Log("one")
    for n in range(3 * MOST_ACTIONS):
        log.did(f"thing {n}\nwith a line")
    (path,) = (home / "log").glob("actions-*.txt")
    lines = path.read_text().splitlines()
    assert MOST_ACTIONS <= len(lines) <= 2 * MOST_ACTIONS
    assert lines[-1].endswith(f"thing {3 * MOST_ACTIONS - 1} with a line")
    log.close()
    assert not path.exists()


def test_what_is_typed_is_not_written_down(window: Window, qtbot: QtBot) -> None:
    entry = window.first.strip.name
    window.go_home()
    entry.setFocus()
    window.trail.watch()
    for letter in "secret":
        QTest.keyClick(window.windowHandle(), letter)
    assert "secret" not in " ".join(window.trail.log.actions)
    assert any("a letter" in one for one in window.trail.log.actions)


def test_a_log_that_cannot_be_written_disturbs_nothing(home: Path) -> None:
    home.write_text("a file where a folder should be")
    log = Log("one")
    log.did("something")
    assert log.fault(ValueError("x"))
    log.close()
