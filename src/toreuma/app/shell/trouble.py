"""What happens when something of ours fails: it is written down and said, the job is kept, and the window goes on."""

import faulthandler
import os
import sys
import threading
import time
from collections.abc import Callable
from types import TracebackType

from PySide6.QtCore import QEvent, QObject
from PySide6.QtGui import QKeyEvent, QKeySequence, QMouseEvent
from PySide6.QtWidgets import QApplication, QMainWindow, QWidget

from toreuma.app.session import Session
from toreuma.app.shell.actions import Actions
from toreuma.app.words import tr
from toreuma.files.journal import Journal
from toreuma.files.log import Log, fatal_file

__all__ = ["Trail", "Trouble"]

QUIET_S = 10.0


class Trail(QObject):
    """Notes what is done in a window: keys, clicks, stages, edits. What is typed into fields is not noted, only that
    something was."""

    def __init__(
        self, window: QMainWindow, session: Session, actions: Actions, say: Callable[[str, str], None], journal: Journal
    ) -> None:
        super().__init__(window)
        self.log = Log(f"{os.getpid()}-{id(window) % 100_000}")
        self._window = window
        self.say, self.journal = say, journal
        session.job_changed.connect(lambda: self.log.did("the job changed"))
        session.message.connect(lambda level, text: self.log.did(f"said, {level}: {text}"))
        actions.noted = lambda name: self.log.did(f"action {name}")

    def watch(self) -> None:
        """Begin, once the window has a place on the screen."""
        handle = self._window.windowHandle()
        if handle is not None:
            handle.installEventFilter(self)

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        kind = event.type()
        if kind == QEvent.Type.MouseButtonPress and isinstance(event, QMouseEvent):
            at = event.globalPosition().toPoint()
            self.log.did(f"click on {_called(QApplication.widgetAt(at))} at {at.x()}, {at.y()}")
        elif kind == QEvent.Type.KeyPress and isinstance(event, QKeyEvent):
            held = event.modifiers().value & ~0x02000000
            key = QKeySequence(event.key()).toString() if held or len(event.text()) != 1 else "a letter"
            self.log.did(f"key {key} in {_called(QApplication.focusWidget())}")
        elif kind == QEvent.Type.Resize:
            self.log.did(f"size {self._window.width()} x {self._window.height()}")
        return False


def _called(widget: QWidget | None) -> str:
    if widget is None:
        return "nothing"
    return f"{type(widget).__name__} {widget.accessibleName() or widget.objectName()}".strip()


class Trouble:
    """Takes the place of Python's own way with exceptions nobody caught. Made once, before the first window."""

    def __init__(self) -> None:
        self._told: dict[str, float] = {}
        self._fatal = fatal_file()
        if self._fatal is not None:
            faulthandler.enable(self._fatal)
        sys.excepthook = self._on_exception
        threading.excepthook = lambda args: self._on_exception(
            args.exc_type, args.exc_value or args.exc_type(), args.exc_traceback
        )

    def end(self) -> None:
        """Python's own way again."""
        sys.excepthook, threading.excepthook = sys.__excepthook__, threading.__excepthook__
        if self._fatal is not None:
            faulthandler.disable()
            self._fatal.close()

    def _on_exception(self, kind: type[BaseException], error: BaseException, _: TracebackType | None) -> None:
        if issubclass(kind, KeyboardInterrupt):
            QApplication.quit()
            return
        trails = [trail for one in QApplication.topLevelWidgets() for trail in one.findChildren(Trail)]
        for trail in trails:
            trail.log.fault(error)
        words = f"{kind.__name__}: {error}"
        now = time.monotonic()
        if now - self._told.get(words, -QUIET_S) < QUIET_S:
            return
        self._told[words] = now
        print(f"toreuma: {words}", file=sys.stderr)
        if threading.current_thread() is not threading.main_thread():
            return
        for trail in trails:
            trail.journal.keep_now(1.0)
            trail.say(
                "error",
                f"{tr('Something of Toreuma failed')} ({words}). {tr('The job is kept')}; "
                f"{tr('undo the last change, or save it. What happened is written down in log/faults.txt.')}",
            )
