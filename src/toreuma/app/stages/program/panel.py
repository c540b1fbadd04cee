"""The program as it was written, with the line of the cursor marked."""

from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeySequence, QShortcut
from PySide6.QtWidgets import QComboBox, QFileDialog, QVBoxLayout, QWidget

from toreuma.app.forms.label import Label
from toreuma.app.forms.waiting import WaitsUnseen
from toreuma.app.session import Session
from toreuma.app.stages.program.study.editor import Mark, ProgramEditor, alike
from toreuma.app.stages.program.study.find_bar import FindBar
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.model import Job
from toreuma.core.spoken import spoken
from toreuma.engine.hand_changes import changes_from
from toreuma.engine.library import library
from toreuma.files.writing import write_atomically

__all__ = ["ProgramPanel"]


class ProgramPanel(WaitsUnseen, QWidget):
    """Left panel of the program stage."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.setObjectName("panel")
        self._session = session
        self.text = ProgramEditor(theme, library().dialect("system-a"))
        self._moving = False
        self.text.edited.connect(self._on_edited)
        self.text.line_chosen.connect(self._on_line)
        self.find_bar = FindBar(self.text)
        self._title = Label()
        self._title.setObjectName("heading")
        self._title.setContentsMargins(12, 10, 0, 4)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        self.which = QComboBox()
        self.which.setAccessibleName(tr("Which program is shown"))
        self.which.activated.connect(lambda _: self.refresh())
        column.addWidget(self._title)
        column.addWidget(self.which)
        column.addWidget(self.text, 1)
        column.addWidget(self.find_bar)
        QShortcut(
            QKeySequence("Ctrl+F"), self, self.find_bar.open, context=Qt.ShortcutContext.WidgetWithChildrenShortcut
        )
        session.proof_changed.connect(self.refresh)
        session.outcome_changed.connect(self.refresh)
        session.cursor_changed.connect(self._on_cursor)

    def set_theme(self, theme: Theme) -> None:
        self.text.set_theme(theme)

    def _fill(self) -> None:
        self._offer()
        self.text.setReadOnly(bool(self._channel))
        self._show_text(self._shown())
        job = self._session.job
        self._title.setText(f"{self.file_name()}   {library().dialect(job.program.dialect).name}" if job else "")
        self._on_cursor()

    def _show_text(self, text: str) -> None:
        """The text as it was read back; what stays is not touched, so that the cursor and the past stay too."""
        job, outcome = self._session.job, self._session.outcome
        if self.text.busy:  # more was typed since: what comes of that is on its way
            return
        self._moving = True
        if text != self.text.toPlainText():
            if alike(self.text.toPlainText(), text):
                self.text.replace_all(text)
                self.text.settle()
            else:
                self.text.put(text)
        if job is not None:
            self.text.show_language(library().dialect(job.program.dialect), job.machine.own_words)
        self.text.show_marks(self._marks(), [one.line for one in outcome.program.sections] if outcome else [])
        self._moving = False

    def _marks(self) -> dict[int, list[Mark]]:
        found: dict[int, list[Mark]] = {}
        outcome, proof = self._session.outcome, self._session.proof
        for one in proof.findings if proof is not None else outcome.program.findings if outcome is not None else ():
            if one.line is not None and one.severity != "note":
                kind = "contact" if one.severity == "error" else "suspicious"
                found.setdefault(one.line, []).append((kind, spoken(one.what, self._session.system)))
        for operation, line in self._hand_lines():
            found.setdefault(line, []).append(("question", f"{tr('changed by hand')}: {operation}"))
        return found

    def _hand_lines(self) -> list[tuple[str, int]]:
        """Where stretches begin that a person changed."""
        outcome = self._session.outcome
        if outcome is None or outcome.written is None:
            return []
        changed = {one.operation for one in outcome.written.taken}
        lines = {name: one.line for name, one in zip(outcome.sections, outcome.program.sections, strict=False)}
        return [(one, lines.get(one, 1)) for one in changed]

    def _on_line(self, line: int) -> None:
        if not self._moving and not self._channel:
            self._session.go_to_line(line)

    def _on_edited(self, text: str) -> None:
        """What was typed becomes part of the job, stretch by stretch."""
        outcome = self._session.outcome
        if self._moving or self._channel or outcome is None or text == self._shown():
            return
        changes = changes_from(text, outcome.plan, library().dialect(outcome.job.program.dialect))
        if changes is None:
            self._session.message.emit(
                "warning",
                "An operation's comment is changed or gone: put it back, so that the stretch keeps its place.",
            )
            return

        def change(job: Job) -> Job:
            others = tuple(one for one in job.program.by_hand if one.setup != outcome.job.setup.name)
            waiting = tuple(one for one in outcome.written.open) if outcome.written is not None else ()
            return job.changed(program=job.program.changed(by_hand=(*others, *waiting, *changes)))

        error = self._session.attempt(change, "program by hand")
        if error is not None:
            self._session.message.emit("error", str(error))

    def _offer(self) -> None:
        """The programs there are: this side alone, and those of the channels of a part that is handed over."""
        pair, now = self._session.pair, self.which.currentData() or 0
        channels = list(pair.texts) if pair is not None else []
        if [self.which.itemData(n) for n in range(self.which.count())] != [0, *channels]:
            self.which.clear()
            self.which.addItem("This side alone", 0)
            for channel in channels:
                self.which.addItem(f"Channel {channel}, both sides and the hand-over", channel)
            self.which.setCurrentIndex(max(self.which.findData(now), 0))
        self.which.setVisible(bool(channels))

    @property
    def _channel(self) -> int:
        return int(self.which.currentData() or 0) if self._session.pair is not None else 0

    def _shown(self) -> str:
        pair, outcome = self._session.pair, self._session.outcome
        if pair is not None and self._channel:
            return pair.texts[self._channel]
        return outcome.program.text if outcome else ""

    def shown_text(self) -> str:
        """The text that stands here."""
        return self._shown()

    def file_name(self) -> str:
        job = self._session.job
        if job is None:
            return ""
        return library().dialect(job.program.dialect).file_of(job.program.number, self._channel)

    def _on_cursor(self) -> None:
        outcome = self._session.outcome
        if self._stale or self._channel:  # the cursor of time follows the side that is shown
            return
        if outcome is None or not outcome.timeline.spans:
            return
        moment = outcome.timeline.at(self._session.cursor_s)
        line = outcome.timeline.spans[moment.index].motion.line
        if line and line != self.text.line and not self.text.hasFocus():
            self._moving = True
            self.text.go_to(line)
            self._moving = False

    def save(self) -> None:
        """Ask where the program goes and write it there."""
        outcome = self._session.outcome
        if outcome is None:
            return
        name, _ = QFileDialog.getSaveFileName(self, "Save program", self.file_name())
        if name:
            self.save_as(Path(name))

    def save_as(self, path: Path) -> None:
        outcome = self._session.outcome
        if outcome is None:
            return
        try:
            write_atomically(path, self._shown())
        except OSError as error:
            self._session.message.emit(
                "error", f"{path.name}: it cannot be written ({error.strerror}); choose another folder"
            )
            return
        verdict = self._session.verdict
        proved = verdict is not None and verdict.finished
        word = spoken(verdict.words, self._session.system) if verdict is not None else "not proved yet"
        self._session.message.emit("ok" if proved else "warning", f"Program saved as {path.name}; {word}")
