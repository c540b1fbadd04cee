"""The desk of a program: text, picture, and what is known of it, read and cut again at every edit."""

from collections.abc import Mapping
from dataclasses import replace
from pathlib import Path
from typing import Any

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtGui import QKeySequence, QShortcut
from PySide6.QtWidgets import (
    QFileDialog,
    QHBoxLayout,
    QInputDialog,
    QMenu,
    QPushButton,
    QSplitter,
    QVBoxLayout,
    QWidget,
)

from toreuma.app.forms.label import Label
from toreuma.app.session.task import Task
from toreuma.app.stages.program.study.compare import ComparePage
from toreuma.app.stages.program.study.editor import Mark, ProgramEditor
from toreuma.app.stages.program.study.find_bar import FindBar
from toreuma.app.stages.program.study.known import KnownPanel
from toreuma.app.stages.program.study.line_strip import LineStrip
from toreuma.app.stages.program.study.picture import StudyPicture
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.memo import Check, Memo
from toreuma.core.model import Job
from toreuma.core.read import Given
from toreuma.core.read.rewrite import Rewritten, renumbered, shifted, with_speed
from toreuma.core.read.text_cures import TextCure
from toreuma.core.spoken import spoken
from toreuma.engine.against import Against, held_against
from toreuma.engine.as_job import as_job
from toreuma.engine.check_report import kind_in
from toreuma.engine.foreign import neighbours_of, program_bytes_text
from toreuma.engine.library import library
from toreuma.engine.study import Asked, Cut, Study, cut_of, study_of
from toreuma.files.writing import write_atomically

__all__ = ["Desk"]


class Desk(QWidget):
    """``closed`` when the person is done with it. Nothing typed is lost: what is not saved is asked about."""

    closed = Signal()
    message = Signal(str, str)
    taken = Signal(object)
    """A `TakenAsJob`: the program as a job of its own."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self.path: Path | None = None
        self.saved = ""
        self.asked = Asked()
        self.study: Study | None = None
        self.cut: Cut | None = None
        self._memo = Memo()
        self._task: Task | None = None
        self._again = False
        self._job: Job | None = None
        self._side = 0
        self._holding: Task | None = None
        self.editor = ProgramEditor(theme, library().dialect("system-a"))
        self.find_bar = FindBar(self.editor)
        self.picture = StudyPicture(theme)
        self.known = KnownPanel(theme)
        self.compared = ComparePage(theme)
        self.strip = LineStrip()
        self.title, self.state = Label(), Label()
        self.title.setObjectName("title")
        self._lay_out()
        self.editor.edited.connect(self._on_edited)
        self.editor.line_chosen.connect(self._on_line)
        self.picture.line_chosen.connect(self.editor.go_to)
        self.known.line_chosen.connect(self.editor.go_to)
        self.known.cured.connect(self._on_cured)
        self.known.said.connect(self._on_said)
        self.compared.closed.connect(self._on_compared)
        self.compared.line_chosen.connect(self.editor.go_to)
        for key, run in (
            ("Ctrl+F", self.find_bar.open), ("Ctrl+G", self.find_bar.open), ("F3", self.find_bar.find_next),
            ("F8", self.next_finding),
        ):  # fmt: skip
            QShortcut(QKeySequence(key), self, run, context=Qt.ShortcutContext.WidgetWithChildrenShortcut)

    # layout ------------------------------------------------------------------------------------------------------

    def _lay_out(self) -> None:
        head = QHBoxLayout()
        head.setContentsMargins(12, 6, 12, 6)
        head.setSpacing(10)
        head.addWidget(self.title)
        head.addWidget(self.state, 1)
        self.work = QPushButton(tr("Work on the text"))
        self.work.setMenu(self._menu())
        head.addWidget(self.work)
        self.hold = QPushButton(tr("Hold against the job"))
        self.hold.clicked.connect(self.hold_against)
        self.hold.hide()
        head.addWidget(self.hold)
        for words, run in (("Compare…", self.browse_compare), ("Save", self.save), ("Close", self.close_desk)):
            button = QPushButton(tr(words))
            button.clicked.connect(run)
            head.addWidget(button)
        left = QWidget()
        column = QVBoxLayout(left)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.editor, 1)
        column.addWidget(self.find_bar)
        self.splitter = QSplitter(Qt.Orientation.Horizontal)
        middle = QWidget()
        column = QVBoxLayout(middle)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.picture, 1)
        column.addWidget(self.compared, 1)
        column.addWidget(self.strip)
        for widget in (left, middle, self.known):
            self.splitter.addWidget(widget)
        self.compared.hide()
        self.splitter.setHandleWidth(1)
        self.splitter.setStretchFactor(1, 1)
        self.splitter.setSizes([390, 530, 360])
        self.known.setMinimumWidth(300)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addLayout(head)
        whole.addWidget(self.splitter, 1)

    def _menu(self) -> QMenu:
        menu = QMenu(self)
        for words, key, run in (
            ("Search and replace…", "Ctrl+F", self.find_bar.open),
            ("Next finding", "F8", self.next_finding),
            ("Number blocks anew in tens", "", lambda: self.renumber(10)),
            ("Take block numbers out that nothing leads to", "", lambda: self.renumber(0)),
            ("Move one tool along Z or X…", "", self.ask_shift),
            ("Change a speed of one tool…", "", self.ask_speed),
            ("Take it as a job", "", self.take_as_job),
            ("Fold every tool", "", lambda: self.editor.fold_all(True)),
            ("Unfold every tool", "", lambda: self.editor.fold_all(False)),
            ("Save under another name…", "", self.save_as),
        ):
            menu.addAction(f"{tr(words)}\t{key}" if key else tr(words)).triggered.connect(lambda _=False, r=run: r())
        return menu

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        for one in (self.editor, self.picture, self.known, self.compared):
            one.set_theme(theme)
        if self.study is not None:
            self.known.show_study(self.study, self.cut)

    # opening and saving ------------------------------------------------------------------------------------------

    @property
    def is_open(self) -> bool:
        return self.study is not None or bool(self.editor.toPlainText())

    @property
    def modified(self) -> bool:
        return self.is_open and self.editor.toPlainText() != self.saved

    def open(self, path: Path) -> bool:
        """Take up a program; on failure say why and keep what is open."""
        try:
            text = program_bytes_text(path)
        except ToreumaError as error:
            self.message.emit("error", str(error))
            return False
        self.take(text.replace("\r\n", "\n").replace("\r", "\n"), path, neighbours_of(path))
        return True

    def take(self, text: str, path: Path | None, neighbours: Mapping[int, str] | None = None) -> None:
        self.path, self.saved = path, text
        self.asked = Asked(given=Given(neighbours=dict(neighbours or {})))
        self.study = self.cut = self.known.against = None
        self.editor.put(text)
        self.compared.hide()
        self.picture.show()
        self.read_again()

    def save(self) -> bool:
        return self.save_as() if self.path is None else self._write(self.path)

    def save_as(self) -> bool:
        name, _ = QFileDialog.getSaveFileName(self, tr("Save program"), str(self.path or "O1.nc"))
        return bool(name) and self._write(Path(name))

    def _write(self, path: Path) -> bool:
        text = self.editor.toPlainText()
        try:
            write_atomically(path, text)
        except OSError as error:
            self.message.emit("error", f"{path.name}: it cannot be written ({error.strerror}); choose another folder")
            return False
        self.path, self.saved = path, text
        self.message.emit("ok", f"Program saved as {path.name}; {self.state.text()}")
        self._tell()
        return True

    def close_desk(self) -> None:
        """Back to where the window was; text that is not saved stays and is here again."""
        self.closed.emit()

    # reading and cutting -----------------------------------------------------------------------------------------

    def _on_edited(self, text: str) -> None:
        self.known.against = None
        self.read_again()

    def read_again(self) -> None:
        """Read and cut what stands here, beside the window; asked again meanwhile, once more when that is over."""
        if self._task is not None:
            self._again = True
            self._task.stop()
            return
        text, asked, memo = self.editor.toPlainText(), self.asked, self._memo

        def work(check: Check, progress: Any) -> object:
            study = study_of(text, asked)
            check()
            try:
                return study, cut_of(study, memo, check, progress), None
            except ToreumaError as error:
                return study, None, error

        self._task = Task(work, "reading", self)
        self._task.done.connect(self._on_studied)
        self._task.failed.connect(lambda error: self.message.emit("error", str(error)))
        self._task.finished.connect(self._on_over)
        self._task.start()

    @property
    def busy(self) -> bool:
        return self._task is not None

    def stop(self) -> None:
        """The window closes."""
        self._again = False
        for task in (self._task, self._holding):
            if task is not None:
                task.end()

    def _on_over(self) -> None:
        task, self._task = self._task, None
        if task is not None:
            task.deleteLater()
        if self._again:
            self._again = False
            QTimer.singleShot(0, self.read_again)

    def _on_studied(self, found: tuple[Study, Cut | None, ToreumaError | None]) -> None:
        self.study, self.cut, fault = found
        if self.study.blank_is_usual:
            self.asked = replace(self.asked, seen=self.study.blank)
        if fault is not None:
            self.message.emit("error", str(fault))
        units = next((one.value for one in reversed(self.study.program.in_force) if one.what == "units"), "mm")
        self.known.system = self.picture.system = "inch" if units == "inch" else "mm"
        words = self.study.machine.own_words if self.study.machine is not None else None
        self.editor.show_language(self.study.dialect, words)
        self.editor.show_marks(self._marks(), [use.line for use in self.study.overview.tools])
        self.picture.show_study(self.study, self.cut)
        self.known.show_study(self.study, self.cut)
        self._on_line(self.editor.line)
        self._tell()

    # against a part ----------------------------------------------------------------------------------------------

    def show_job(self, job: Job | None, side: int) -> None:
        """The job that is open beside, which the text can be held against."""
        self._job, self._side = job, side
        self.hold.setVisible(job is not None)

    def hold_against(self) -> None:
        """Cut the text with the tools and the hold of the open job, and compare with its part."""
        job, side, text = self._job, self._side, self.editor.toPlainText()
        if job is None or self._holding is not None:
            return
        self.hold.setEnabled(False)
        self._holding = Task(lambda check, progress: held_against(job, side, text, check, progress), "holding", self)
        self._holding.done.connect(self._on_held)
        self._holding.failed.connect(lambda error: self.message.emit("error", str(error)))
        self._holding.finished.connect(self._on_holding_over)
        self._holding.start()

    def _on_held(self, found: Against) -> None:
        self.known.against = found
        if self.study is not None:
            self.known.show_study(self.study, self.cut)

    def _on_holding_over(self) -> None:
        task, self._holding = self._holding, None
        self.hold.setEnabled(True)
        if task is not None:
            task.deleteLater()

    # as a job ----------------------------------------------------------------------------------------------------

    def take_as_job(self) -> None:
        """Make a job of what stands here: what is cut is its part, the stretches of its tools are its operations."""
        if self.study is None or self._holding is not None:
            return
        study, name = self.study, self.path.stem if self.path is not None else tr("a program")
        self._holding = Task(lambda check, progress: as_job(study, name, check), "taking", self)
        self._holding.done.connect(self.taken.emit)
        self._holding.failed.connect(lambda error: self.message.emit("error", str(error)))
        self._holding.finished.connect(self._on_holding_over)
        self._holding.start()

    def _marks(self) -> dict[int, list[Mark]]:
        found: dict[int, list[Mark]] = {}
        findings = self.cut.findings if self.cut is not None else self.study.program.findings if self.study else ()
        for one in findings:
            if one.line is not None:
                found.setdefault(one.line, []).append((kind_in(one), spoken(one.what, self.known.system)))
        return found

    def _tell(self) -> None:
        """Name and state, never more than is true."""
        name = self.path.name if self.path is not None else tr("a program")
        self.title.setText(name + ("  *" if self.modified else ""))
        if self.study is None:
            self.state.setText("")
            return
        kinds = [kind for marks in self._marks().values() for kind, _ in marks]
        words = {"contact": "contacts", "not understood": "not understood", "question": "open questions",
                 "suspicious": "suspicious"}  # fmt: skip
        parts = [f"{kinds.count(kind)} {tr(each)}" for kind, each in words.items() if kind in kinds]
        colour = "error" if {"contact", "not understood"} & set(kinds) else "warning" if kinds else "ok"
        text = ", ".join(parts) or tr("read and cut; not proved against a drawing")
        self.state.setObjectName(colour)
        self.state.style().unpolish(self.state)
        self.state.style().polish(self.state)
        self.state.setText(text)

    def _on_line(self, line: int) -> None:
        self.picture.show_line(line)
        self.strip.show_line(self.study, line, self.known.system)

    def next_finding(self) -> None:
        """To the next line with a mark, the first one behind the last."""
        lines = sorted(self._marks())
        if lines:
            self.editor.go_to(next((one for one in lines if one > self.editor.line), lines[0]))
            self.editor.setFocus()

    # what the person says ----------------------------------------------------------------------------------------

    def _on_said(self, what: str, value: Any) -> None:
        if what in ("dialect", "machine"):
            self.asked = replace(self.asked, **{what: value})
        elif what == "blank":
            self.asked = replace(self.asked, blank=value)
        elif what.startswith("tool "):
            _, station, key = what.split(" ")
            tools = {number: dict(row) for number, row in self.asked.tools.items()}
            row = tools.setdefault(int(station), {})
            if value:
                row[key] = value
            else:
                row.pop(key, None)
            self.asked = replace(self.asked, tools=tools)
        elif what.startswith("skip "):
            skipped = self.asked.given.skipped ^ {int(what.split(" ")[1])}
            self.asked = replace(self.asked, given=replace(self.asked.given, skipped=frozenset(skipped)))
        elif what.startswith("variable "):
            self._set_variable(int(what.split("#")[1]), value)
        elif what.startswith("word "):
            words = {**self.asked.given.words, what.split(" ")[1]: value}
            self.asked = replace(self.asked, given=replace(self.asked.given, words=words))
        self.read_again()

    def _set_variable(self, number: int, text: str) -> None:
        """A variable the program does not set itself, or nothing again."""
        variables = dict(self.asked.given.variables)
        variables.pop(number, None)
        try:
            if text:
                variables[number] = float(text.replace(",", "."))
        except ValueError:
            self.message.emit("error", f"#{number}: {tr('this is no number; write it plain')}")
            return
        self.asked = replace(self.asked, given=replace(self.asked.given, variables=variables))

    def _on_cured(self, cure: TextCure) -> None:
        text = self.editor.toPlainText()
        changed = cure.applied(text)
        if changed == text:
            self.message.emit("warning", tr("That line is another one by now."))
            return
        self.editor.replace_all(changed)
        self.editor.flush()

    def renumber(self, step: int) -> None:
        if self.study is not None:
            self._take(renumbered(self.editor.toPlainText(), self.study.dialect, step))

    def ask_shift(self) -> None:
        """One tool's places along one axis, by so much."""
        words, sure = QInputDialog.getText(self, tr("Move one tool"), tr("Station, axis and way: 2 Z-0.25"))
        if sure:
            self.shift(words)

    def shift(self, words: str) -> None:
        parts = words.upper().replace("T", "").split()
        try:
            station, axis, by = int(parts[0]), parts[1][0], float(parts[1][1:])
            if axis not in "XZ" or self.study is None:
                raise ValueError
        except (ValueError, IndexError):
            self.message.emit("error", tr("Not understood; write it as: 2 Z-0.25"))
            return
        self._take(shifted(self.editor.toPlainText(), self.study.dialect, station, axis, by))

    def ask_speed(self) -> None:
        """One tool's speed, wherever it is told."""
        words, sure = QInputDialog.getText(self, tr("Change a speed"), tr("Station, speed now, speed then: 2 180 160"))
        if sure:
            self.change_speed(words)

    def change_speed(self, words: str) -> None:
        try:
            station, old, new = (float(one) for one in words.upper().replace("T", "").replace("S", "").split())
            if self.study is None:
                raise ValueError
        except ValueError:
            self.message.emit("error", tr("Not understood; write it as: 2 180 160"))
            return
        self._take(with_speed(self.editor.toPlainText(), self.study.dialect, int(station), old, new))

    def _take(self, found: Rewritten) -> None:
        self.editor.replace_all(found.text)
        self.editor.flush()
        left = f"; {tr('left as they are: lines')} {', '.join(map(str, found.left))}" if found.left else ""
        self.message.emit("warning" if found.left else "ok", f"{found.changed} {tr('lines changed')}{left}")

    # comparing ---------------------------------------------------------------------------------------------------

    def browse_compare(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, tr("Compare with"), "", "Programs (*)")
        if name:
            self.compare_with(Path(name))

    def compare_with(self, path: Path) -> None:
        """Hold the text against another program, by what the moves do."""
        try:
            other = study_of(program_bytes_text(path), replace(self.asked, dialect=self._language()))
        except ToreumaError as error:
            self.message.emit("error", str(error))
            return
        if self.study is None:
            return
        here = self.path.name if self.path is not None else tr("this program")
        self.compared.show_both(here, self.study.program, path.name, other.program, other.text)
        self.picture.hide()
        self.compared.show()

    def _language(self) -> str | None:
        return self.study.dialect.id if self.study is not None else None

    def _on_compared(self) -> None:
        self.compared.hide()
        self.picture.show()
