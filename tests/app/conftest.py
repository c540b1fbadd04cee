"""The real window with the demo job in it."""

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from PySide6.QtCore import QEvent, QSettings
from PySide6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from tests.support.engine import recorded
from tests.support.window import Window
from toreuma.app.session import Session
from toreuma.app.shell.shot import settle
from toreuma.app.shell.start import application
from toreuma.core.model import Job


@pytest.fixture
def bare(qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[Window]:
    """A window without a job; closing it never asks."""
    monkeypatch.setattr("PySide6.QtWidgets.QMessageBox.question", lambda *a, **k: pytest.fail("a question was asked"))
    application()
    session = Session(recorded())
    window = Window(session, QSettings(str(tmp_path / "settings.ini"), QSettings.Format.IniFormat))
    window.resize(1280, 800)
    window.show()
    window.files.may_leave = lambda: True  # type: ignore[method-assign]
    yield window
    session.close()
    window.close()
    window.deleteLater()
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)


@pytest.fixture
def window(bare: Window, spear: Job) -> Window:
    bare.session.show(spear)
    assert settle(bare.session)
    return bare


@pytest.fixture
def settled(window: Window) -> Callable[[], None]:
    def wait() -> None:
        assert settle(window.session)

    return wait
