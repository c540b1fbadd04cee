"""Starting the application."""

import gc
import os
import sys
from pathlib import Path

from PySide6.QtCore import QSettings
from PySide6.QtWidgets import QApplication

from toreuma.app.guard import guard_all
from toreuma.app.session import Session
from toreuma.app.session.task import left_running
from toreuma.app.shell.settings import opened_settings
from toreuma.app.shell.trouble import Trouble
from toreuma.app.shell.window import MainWindow
from toreuma.app.theme import load_fonts
from toreuma.app.words import speak
from toreuma.core.model import Job

__all__ = ["application", "run"]

NAME = "toreuma"
SWITCH_S = 0.001
"""How long the worker may keep the interpreter while the window wants to draw."""


def application() -> QApplication:
    """The one Qt application, with our fonts and style; made once."""
    existing = QApplication.instance()
    if isinstance(existing, QApplication) and existing.applicationName() == NAME:
        return existing
    app = existing if isinstance(existing, QApplication) else QApplication(sys.argv[:1])
    guard_all()
    app.setApplicationName(NAME)
    app.setOrganizationName("toreuma")
    app.setStyle("Fusion")
    load_fonts()
    sys.setswitchinterval(SWITCH_S)
    _settle_memory()
    return app


def _settle_memory() -> None:
    """Rarer searches for dropped cycles: what is kept of a large job is much to look through amid an edit."""
    gc.freeze()
    gc.set_threshold(20_000, 20, 50)


def run(job: Job | None, path: Path | None, stage: str = "") -> int:
    """Show the window and stay until it is closed."""
    app = application()
    trouble = Trouble()
    settings = QSettings()
    problem = opened_settings(settings)
    speak(str(settings.value("language", "")))
    session = Session()
    window = MainWindow(session, settings)
    if job is not None:
        session.show(job, path)
    if stage:
        window.set_stage(stage)
    if problem:
        window.say("warning", problem)
    window.show()
    status = app.exec()
    trouble.end()
    if left_running():
        os._exit(status)  # all is saved or kept; what still runs is of no use to anybody
    return status
