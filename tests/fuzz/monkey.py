"""Somebody at the real window who does anything at all, thousands of times.

    ./run monkey [ACTIONS] [SEED]

Types odd values, presses keys and buttons, chooses, drags, resizes, undoes, drops strange files, opens and closes amid
work. Prints what was done, what failed and the longest time the window did not answer. A job that cannot be written and
read back equal is a fault.
"""

import faulthandler
import random
import sys
import tempfile
import time
import traceback
from collections import Counter
from collections.abc import Callable
from pathlib import Path
from types import TracebackType
from typing import Any

from PySide6.QtCore import QEvent, QPoint, QSettings, Qt, QTimer
from PySide6.QtTest import QTest
from PySide6.QtWidgets import (
    QApplication,
    QComboBox,
    QDialog,
    QFileDialog,
    QInputDialog,
    QLineEdit,
    QListWidget,
    QMenu,
    QMessageBox,
    QPlainTextEdit,
    QPushButton,
    QTableView,
    QToolButton,
    QWidget,
)

from toreuma.app.session import Session
from toreuma.app.shell.start import application
from toreuma.app.shell.window import MainWindow
from toreuma.files.home import home
from toreuma.files.jobs import job_text, parse_job, save_job
from toreuma.shipped.library import demo_job, demo_names

from .mutate import ODD_TEXTS
from .targets import TARGETS

STUCK_S = 25
FREEZE_S = 5.0
TYPED = (
    *ODD_TEXTS, "0", "-1", "1e9", "0.0001", "12", "25.4", "40", "h7", "1/2in", "M12", "30 x 18 c1 / 44 x 27", "99999",
    "x", "C45", "1.5*2", "0.008", "0.08", "45", "3", "8", "100",
)  # fmt: skip
ENDINGS = {"job": "toreuma", "dxf": "dxf", "rack": "csv", "machine": "json", "program": "nc", "clip": "png"}
KEYS = (
    Qt.Key.Key_Tab, Qt.Key.Key_Backtab, Qt.Key.Key_Return, Qt.Key.Key_Escape, Qt.Key.Key_Delete, Qt.Key.Key_F1,
    Qt.Key.Key_Left, Qt.Key.Key_Right, Qt.Key.Key_Up, Qt.Key.Key_Down, Qt.Key.Key_Home, Qt.Key.Key_End,
    Qt.Key.Key_Space, Qt.Key.Key_Plus, Qt.Key.Key_Minus, Qt.Key.Key_PageDown, Qt.Key.Key_F5, Qt.Key.Key_Insert,
)  # fmt: skip


class Monkey:
    def __init__(self, seed: int, folder: Path) -> None:
        self.chance = random.Random(seed)
        self.folder = folder
        self.done, self.faults = Counter[str](), Counter[str]()
        self.longest, self.slow = 0.0, Counter[str]()
        self.settings = QSettings(str(folder / "settings.ini"), QSettings.Format.IniFormat)
        self.window = self.opened()
        self._answer_dialogs()
        sys.excepthook = self.failed

    def failed(self, kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
        places = [one for one in traceback.extract_tb(trace) if "toreuma" in one.filename]
        where = f"{Path(places[-1].filename).name}:{places[-1].lineno}" if places else "?"
        fault = f"{kind.__name__} at {where}: {str(error)[:90]}"
        if not self.faults[fault]:
            print(fault, "|", " / ".join(list(self.window.trail.log.actions)[-4:]), flush=True)
        self.faults[fault] += 1

    def told(self, level: str, text: str) -> None:
        """What the worker caught is a fault too."""
        if "failed (" in text:
            if not self.faults[text[:120]]:
                print(text, "|", " / ".join(list(self.window.trail.log.actions)[-4:]), flush=True)
            self.faults[text[:120]] += 1

    def opened(self) -> MainWindow:
        window = MainWindow(Session(), self.settings)
        window.session.message.connect(self.told)
        window.resize(1280, 800)
        window.show()
        return window

    def _answer_dialogs(self) -> None:
        """What would wait for a person is answered at random."""
        chance = self.chance
        strange = [self.folder / "job.toreuma", self.folder / "no" / "such.toreuma", Path("/dev/full"), self.folder]

        def a_file(*_: Any, **__: Any) -> tuple[str, str]:
            return (str(chance.choice(strange)) if chance.random() < 0.7 else ""), ""

        def an_answer(*words: Any, **_: Any) -> Any:
            return chance.choice((QMessageBox.StandardButton.Save, QMessageBox.StandardButton.Discard,
                                  QMessageBox.StandardButton.Cancel))  # fmt: skip

        QFileDialog.getOpenFileName = QFileDialog.getSaveFileName = staticmethod(a_file)  # type: ignore[method-assign,assignment]
        QFileDialog.getExistingDirectory = staticmethod(lambda *a, **k: str(self.folder))  # type: ignore[method-assign]
        QMessageBox.question = QMessageBox.warning = staticmethod(an_answer)  # type: ignore[method-assign,assignment]
        QInputDialog.getText = staticmethod(lambda *a, **k: (chance.choice(TYPED), chance.random() < 0.7))  # type: ignore[method-assign]
        self.watch = QTimer()
        self.watch.timeout.connect(self._answer_open_ones)
        self.watch.start(40)

    def _answer_open_ones(self) -> None:
        """Menus and dialogs that wait in a loop of their own."""
        popup, modal = QApplication.activePopupWidget(), QApplication.activeModalWidget()
        if isinstance(popup, QMenu):
            actions = [one for one in popup.actions() if one.isEnabled() and not one.menu() and not one.isSeparator()]
            popup.close()
            if actions and self.chance.random() < 0.8:
                self.chance.choice(actions).trigger()
        elif popup is not None:
            popup.close()
        elif isinstance(modal, QDialog):
            modal.reject()

    # What it does

    def visible(self, kind: type[Any]) -> list[Any]:
        return [one for one in self.window.findChildren(kind) if one.isVisible() and one.isEnabled()]

    def types(self) -> None:
        entries = self.visible(QLineEdit) + self.visible(QPlainTextEdit)
        if entries:
            entry = self.chance.choice(entries)
            entry.setFocus()
            entry.selectAll()
            text = self.chance.choice(TYPED)
            if len(text) > 60:
                QApplication.clipboard().setText(text)
                entry.paste()
            else:
                for letter in text:
                    if letter.isascii() and letter.isprintable():
                        QTest.keyClick(entry, letter)
            QTest.keyClick(entry, self.chance.choice((Qt.Key.Key_Return, Qt.Key.Key_Tab, Qt.Key.Key_Escape)))

    def presses(self) -> None:
        buttons = self.visible(QPushButton) + self.visible(QToolButton)
        if buttons:
            button = self.chance.choice(buttons)
            self.window.trail.log.did(f"button {button.text() or button.accessibleName() or button.toolTip()}")
            button.click()

    def chooses(self) -> None:
        boxes = [one for one in self.visible(QComboBox) if one.count()]
        if boxes:
            box = self.chance.choice(boxes)
            box.setCurrentIndex(self.chance.randrange(box.count()))
            box.activated.emit(box.currentIndex())

    def picks(self) -> None:
        lists = [one for one in self.visible(QListWidget) if one.count()]
        if lists:
            shown = self.chance.choice(lists)
            shown.setCurrentRow(self.chance.randrange(shown.count()))

    def edits_a_cell(self) -> None:
        tables = [one for one in self.visible(QTableView) if one.model() is not None and one.model().rowCount()]
        if tables:
            table = self.chance.choice(tables)
            model = table.model()
            index = model.index(self.chance.randrange(model.rowCount()), self.chance.randrange(model.columnCount()))
            table.setCurrentIndex(index)
            model.setData(index, self.chance.choice(TYPED))

    def keys(self) -> None:
        widget = QApplication.focusWidget() or self.window
        held = self.chance.choice((Qt.KeyboardModifier.NoModifier,) * 3 + (Qt.KeyboardModifier.ShiftModifier,
                                  Qt.KeyboardModifier.ControlModifier))  # fmt: skip
        QTest.keyClick(widget, self.chance.choice(KEYS), held)

    def clicks(self) -> None:
        shown = [one for one in self.visible(QWidget) if one.width() > 3 and one.height() > 3]
        widget = self.chance.choice(shown)
        at = QPoint(self.chance.randrange(widget.width()), self.chance.randrange(widget.height()))
        button = self.chance.choice((Qt.MouseButton.LeftButton,) * 4 + (Qt.MouseButton.RightButton,))
        if self.chance.random() < 0.3:
            QTest.mousePress(widget, button, pos=at)
            for _ in range(4):
                QTest.mouseMove(widget, at + QPoint(self.chance.randrange(-90, 90), self.chance.randrange(-60, 60)))
            QTest.mouseRelease(widget, button, pos=at + QPoint(30, -20))
        else:
            QTest.mouseClick(widget, button, pos=at)

    def does(self) -> None:
        actions = [one for one in self.window.actions_known if one.name not in ("quit", "close")]
        self.window.actions_known.do(self.chance.choice(actions).name)

    def turns(self) -> None:
        self.window.set_stage(self.chance.choice(list(self.window.stages)))

    def undoes(self) -> None:
        for _ in range(self.chance.choice((1, 1, 3, 20))):
            self.step("undoes", self.window.session.undo if self.chance.random() < 0.6 else self.window.session.redo)

    def resizes(self) -> None:
        self.window.resize(*self.chance.choice(((1024, 700), (1280, 800), (1920, 1080), (640, 400), (3840, 2160))))

    def opens(self) -> None:
        self.window.session.show(demo_job(self.chance.choice(demo_names())))

    def drops(self) -> None:
        name = self.chance.choice(list(ENDINGS))
        suffix = {"job": "toreuma", "dxf": "dxf", "rack": "csv", "machine": "json", "program": "nc", "clip": "png"}[
            name
        ]
        path = self.folder / f"dropped.{suffix}"
        path.write_bytes(TARGETS[name].make(self.chance))
        self.window.take(path)

    def closes(self) -> None:
        """The window amid its work, and another one."""
        self.window.files.may_leave = lambda: True  # type: ignore[method-assign]
        self.window.close()
        self.window.deleteLater()
        self.window = self.opened()
        self.opens()

    def trail(self, name: str) -> None:
        self.window.trail.log.did(f"monkey {name}")

    def step(self, name: str, work: Callable[[], object]) -> None:
        """Do something and let the window answer; how long that took is kept."""
        begun = time.monotonic()
        try:
            work()
        except Exception as error:
            self.failed(type(error), error, error.__traceback__)
        QApplication.processEvents()
        took = time.monotonic() - begun
        self.longest = max(self.longest, took)
        if took > FREEZE_S:
            self.slow[f"{name} on {self.window.stage}"] += 1
            print(f"slow: {name} {took:.1f} s |", " / ".join(list(self.window.trail.log.actions)[-4:]), flush=True)

    # The round

    def act(self) -> None:
        ways = {
            self.types: 24, self.presses: 14, self.chooses: 10, self.picks: 6, self.edits_a_cell: 8, self.keys: 12,
            self.clicks: 14, self.does: 10, self.turns: 8, self.undoes: 5, self.resizes: 1, self.opens: 1,
            self.drops: 1,
        }  # fmt: skip
        way = self.chance.choices(list(ways), list(ways.values()))[0] if self.chance.random() > 0.002 else self.closes
        name = way.__name__
        self.trail(name)
        if way == self.undoes:
            self.undoes()  # each of them is a step of its own, as keys are
        else:
            self.step(name, way)
        self.done[name] += 1
        for other in QApplication.topLevelWidgets():
            if isinstance(other, QDialog | QMenu) and other.isVisible():
                other.close()
            elif isinstance(other, MainWindow) and other is not self.window and other.isVisible():
                other.files.may_leave = lambda: True  # type: ignore[method-assign]
                other.close()
                other.deleteLater()

    def look(self) -> None:
        """The job can be written, and read back equal."""
        job = self.window.session.whole
        if job is not None and parse_job(job_text(job)) != job:
            self.faults["a job is not read back equal"] += 1

    def goes_on(self, actions: int) -> None:
        for number in range(actions):
            faulthandler.dump_traceback_later(STUCK_S, exit=True)
            self.act()
            if number % 25 == 0:
                self.look()
                QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
        faulthandler.cancel_dump_traceback_later()


def main(actions: int, seed: int) -> int:
    app = application()
    with tempfile.TemporaryDirectory(prefix="toreuma-monkey-") as folder:
        save_job(demo_job("spear"), Path(folder) / "job.toreuma")
        for name in ENDINGS:
            TARGETS[name].make(random.Random(0))  # sound examples take a while to make
        monkey = Monkey(seed, Path(folder))
        monkey.opens()
        monkey.goes_on(actions)
        print(f"{sum(monkey.done.values())} actions: " + ", ".join(f"{n} {c}" for n, c in monkey.done.most_common()))
        print(f"longest {monkey.longest:.2f} s, over {FREEZE_S:g} s: {sum(monkey.slow.values())}, "
              f"kinds of fault: {len(monkey.faults)}")  # fmt: skip
        for fault, count in monkey.faults.most_common():
            print(f"{count:6} {fault}")
        monkey.window.files.may_leave = lambda: True  # type: ignore[method-assign]
        monkey.window.close()
        sys.excepthook = sys.__excepthook__
        del app
        return 1 if monkey.faults or monkey.slow else 0


if __name__ == "__main__":
    import os

    os.environ.setdefault("TOREUMA_HOME", tempfile.mkdtemp(prefix="toreuma-monkey-home-"))
    assert home()
    sys.exit(main(int(sys.argv[1]) if len(sys.argv) > 1 else 2000, int(sys.argv[2]) if len(sys.argv) > 2 else 1))
