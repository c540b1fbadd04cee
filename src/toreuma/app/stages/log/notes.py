"""Stops, chips and notes: what happened, at which operation, and what was tried."""

import time
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtGui import QPixmap
from PySide6.QtWidgets import QComboBox, QFileDialog, QHBoxLayout, QLineEdit, QPushButton, QVBoxLayout, QWidget

from toreuma.app.forms.column import ScrollColumn, heading
from toreuma.app.forms.findings import FindingCard
from toreuma.app.forms.label import Label
from toreuma.app.stages.log.model import LogModel
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.advise.seen import remedies
from toreuma.files.reading import text_of
from toreuma.log import Note, Stop
from toreuma.log.entries import STOPS

__all__ = ["NotesView"]

MOST_BYTES = 20_000_000
PICTURE_PX = 220


class NotesView(QWidget):
    """What is entered here stands below, the last one first; chips and chatter bring what the numbers offer."""

    def __init__(self, model: LogModel, theme: Theme) -> None:
        super().__init__()
        self._model, self._theme = model, theme
        self.kind, self.operation, self.words = QComboBox(), QComboBox(), QLineEdit()
        self.kind.addItems(list(STOPS))
        self.kind.setAccessibleName(tr("What happened"))
        self.operation.setAccessibleName(tr("Operation"))
        self.words.setPlaceholderText(tr("what was seen, what was done"))
        self.words.setAccessibleName(tr("Note"))
        self.stop, self.note, self.picture, self.program = (
            QPushButton(tr("It happened")),
            QPushButton(tr("Only a note")),
            QPushButton(tr("Picture…")),
            QPushButton(tr("Program…")),
        )
        self.program.setToolTip(tr("The program as it stands at the machine: next time it is held against ours"))
        self.program.clicked.connect(self._ask_program)
        self.stop.clicked.connect(lambda: self.add_stop())
        self.note.clicked.connect(lambda: self.add_note())
        self.picture.clicked.connect(self._ask_picture)
        form = QHBoxLayout()
        for widget, share in ((self.kind, 0), (self.operation, 0), (self.words, 1), (self.stop, 0), (self.note, 0),
                              (self.picture, 0), (self.program, 0)):  # fmt: skip
            form.addWidget(widget, share)
        self.cures, self.list = ScrollColumn(12, 4, 10, 4), ScrollColumn(12, 4, 10, 4)
        row = QHBoxLayout()
        for title, column in (("What happened", self.list), ("What the numbers offer", self.cures)):
            side = QVBoxLayout()
            side.addWidget(heading(title))
            side.addWidget(column, 1)
            row.addLayout(side, 1)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(10, 8, 10, 8)
        whole.addLayout(form)
        whole.addLayout(row, 1)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.refresh()

    def refresh(self) -> None:
        book = self._model.book
        now = self.operation.currentData()
        self.operation.clear()
        self.operation.addItem(tr("no operation"), "")
        for side in book.sides if book is not None else ():
            for planned in side.operations:
                self.operation.addItem(planned.operation.name or planned.operation.kind, planned.operation.id)
        selected = self._at_cursor()
        self.operation.setCurrentIndex(max(self.operation.findData(now or selected), 0))
        self.list.clear()
        store = self._model.store
        entries: list[tuple[float, str, bytes | None]] = []
        if book is not None:
            for stop in self._model.asked(lambda: store.stops(book.run.id)) or []:
                more = f": {stop.note}" if stop.note else ""
                words = f"part {stop.part}, {stop.operation or 'machine'}: {stop.kind}{more}"
                entries.append((stop.at, words, None))
            for note in self._model.asked(lambda: store.notes(book.run.ident)) or []:
                kind = "program from the machine" if note.kind == "program" else note.words
                entries.append((note.at, kind, note.picture))
        for at, words, picture in sorted(entries, key=lambda one: -one[0]):
            label = Label(f"{time.strftime('%Y-%m-%d %H:%M', time.localtime(at))}  {words}")
            label.setWordWrap(True)
            self.list.column.addWidget(label)
            if picture:
                self._picture(picture)
        if not entries:
            self._empty(self.list, "Nothing yet.")
        self.list.column.addStretch(1)
        self.list.settle()
        self._fill_cures()

    def _picture(self, data: bytes) -> None:
        """A small one below its note."""
        image = QPixmap()
        if image.loadFromData(data):
            label = Label()
            label.setPixmap(image.scaled(PICTURE_PX, PICTURE_PX, Qt.AspectRatioMode.KeepAspectRatio))
            label.setAccessibleName(tr("Picture of the note"))
            self.list.column.addWidget(label)

    def _at_cursor(self) -> str:
        """The operation that is selected, else the one at the cursor of the ribbon."""
        session = self._model.session
        if session.selection.operation:
            return session.selection.operation
        outcome = session.outcome
        return (outcome.operation_at(session.cursor_s) or "") if outcome is not None else ""

    def _fill_cures(self) -> None:
        self.cures.clear()
        book = self._model.book
        stops = (self._model.asked(lambda: self._model.store.stops(book.run.id)) or []) if book is not None else []
        shown = 0
        for stop in reversed(stops[-6:]):
            finding = remedies(book.sides, stop.kind, stop.operation) if book is not None else None
            if finding is not None:
                self.cures.column.addWidget(FindingCard(finding, self._model.session, self._theme))
                shown += 1
        if not shown:
            self._empty(self.cures, "Chips, chatter, burrs and torn surfaces bring what feed, speed and depth offer.")
        self.cures.column.addStretch(1)
        self.cures.settle()

    @staticmethod
    def _empty(column: ScrollColumn, words: str) -> None:
        label = Label(tr(words))
        label.setObjectName("muted")
        label.setWordWrap(True)
        column.column.addWidget(label)

    def add_stop(self) -> None:
        book = self._model.book
        if book is None:
            return
        operation = self.operation.currentText() if self.operation.currentData() else ""
        entry = Stop(
            part=book.made(), operation=operation, kind=self.kind.currentText(), at=time.time(),
            note=self.words.text().strip(),
        )  # fmt: skip
        self._keep(lambda: bool(self._model.store.add(book.run.id, entry)))

    def add_note(self, picture: bytes | None = None) -> None:
        book, words = self._model.book, self.words.text().strip()
        if book is None or (not words and picture is None):
            return
        note = Note(words=words or tr("a picture"), at=time.time(), run=book.run.id, picture=picture)
        self._keep(lambda: bool(self._model.store.note(book.run.ident, note)))

    def _keep(self, write: object) -> None:
        if self._model.asked(write):  # type: ignore[arg-type]
            self.words.clear()
            self._model.wrote()
            self.refresh()

    def _ask_program(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, tr("The program from the machine"), "", "All files (*)")
        if name:
            self.add_program(Path(name))

    def add_program(self, path: Path) -> None:
        """A program that came back from the machine belongs to the run that is shown."""
        book = self._model.book
        if book is None:
            return

        def write() -> bool:
            text = text_of(path, MOST_BYTES)
            return bool(self._model.store.note(book.run.ident, Note(words=text, at=time.time(), kind="program",
                                                                    run=book.run.id)))  # fmt: skip

        self._keep(write)

    def _ask_picture(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, tr("A picture"), "", "Pictures (*.png *.jpg *.jpeg *.webp)")
        if not name:
            return
        try:
            data = Path(name).read_bytes()
        except OSError as error:
            self._model.session.message.emit("error", f"{name}: it cannot be read ({error.strerror})")
            return
        if len(data) > MOST_BYTES:
            self._model.session.message.emit("error", f"{Path(name).name}: larger than 20 MB; save it smaller")
            return
        self.add_note(data)
