"""The log as a page: runs of the open job and what the last one taught at the left, what is looked at beside them."""

import time

from PySide6.QtWidgets import (
    QButtonGroup,
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from toreuma.app.forms.column import ScrollColumn, heading
from toreuma.app.forms.label import Label
from toreuma.app.session import Session
from toreuma.app.stages.log.article import ArticleView
from toreuma.app.stages.log.constants import ConstantsView
from toreuma.app.stages.log.devices import DevicesView
from toreuma.app.stages.log.edges import EdgesView
from toreuma.app.stages.log.model import LogModel
from toreuma.app.stages.log.notes import NotesView
from toreuma.app.stages.log.through import ThroughView
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.spoken import spoken

__all__ = ["VIEWS", "LogPage"]

LEFT_PX = 250
VIEWS = ("First article", "Through the run", "Edges", "Stops and notes", "Constants", "Devices")


class LogPage(QWidget):
    def __init__(self, theme: Theme, session: Session) -> None:
        super().__init__()
        self.setObjectName("page")
        self.model = LogModel(session)
        self.runs = QListWidget()
        self.runs.setAccessibleName(tr("Runs of this job"))
        self.runs.itemActivated.connect(self._on_run)
        self.runs.itemClicked.connect(self._on_run)
        self.begin, self.end = QPushButton(tr("Begin a run")), QPushButton(tr("It is over"))
        self.begin.setToolTip(tr("The job goes to the machine as it stands; sizes are entered from then on"))
        self.begin.clicked.connect(self.model.begin)
        self.end.clicked.connect(self.model.end)
        self.taught = ScrollColumn(2, 2, 4, 2)
        self.article, self.through = ArticleView(self.model, theme), ThroughView(self.model, theme)
        self.edges, self.notes = EdgesView(self.model, theme), NotesView(self.model, theme)
        self.constants, self.devices = ConstantsView(self.model, theme), DevicesView(self.model, theme)
        self.views = (self.article, self.through, self.edges, self.notes, self.constants, self.devices)
        self.devices.read.connect(self._on_reading)
        self.stack = QStackedWidget()
        for view in self.views:
            self.stack.addWidget(view)
        self._buttons = QButtonGroup(self)
        strip = QHBoxLayout()
        strip.setContentsMargins(10, 2, 10, 0)
        for n, name in enumerate(VIEWS):
            button = QPushButton(tr(name))
            button.setObjectName("stage")
            button.setCheckable(True)
            button.clicked.connect(lambda _=False, n=n: self.choose(n))
            self._buttons.addButton(button, n)
            strip.addWidget(button)
        strip.addStretch(1)
        self.where = Label()
        self.where.setObjectName("muted")
        strip.addWidget(self.where)
        self._lay_out(strip)
        self._theme = theme
        self.model.changed.connect(self._on_changed)
        self.model.opened.connect(self._on_opened)
        session.job_changed.connect(self._on_job)
        self._buttons.button(0).setChecked(True)

    def _lay_out(self, strip: QHBoxLayout) -> None:
        left = QVBoxLayout()
        left.setContentsMargins(10, 8, 6, 8)
        left.addWidget(heading("Runs of this job"))
        left.addWidget(self.runs, 2)
        row = QHBoxLayout()
        row.addWidget(self.begin)
        row.addWidget(self.end)
        left.addLayout(row)
        left.addWidget(heading("What the last run taught"))
        left.addWidget(self.taught, 3)
        holder = QWidget()
        holder.setLayout(left)
        holder.setFixedWidth(LEFT_PX)
        right = QVBoxLayout()
        right.setContentsMargins(0, 0, 0, 0)
        right.setSpacing(0)
        right.addLayout(strip)
        right.addWidget(self.stack, 1)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addWidget(holder)
        whole.addLayout(right, 1)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        for view in self.views:
            view.set_theme(theme)

    def choose(self, n: int) -> None:
        """Another view."""
        self._buttons.button(n).setChecked(True)
        self.stack.setCurrentIndex(n)
        self.views[n].refresh()

    def look(self) -> None:
        """The page is shown: runs are read, and the last one is opened."""
        self.model.refresh()
        if self.model.book is None and self.model.runs and not self.model.busy:
            self.model.open(self.model.runs[0].id)
        self.views[self.stack.currentIndex()].refresh()

    def close_all(self) -> None:
        self.devices.close_all()
        self.model.close()

    def _on_job(self) -> None:
        if self.isVisible():
            self.look()

    def _on_run(self, item: QListWidgetItem) -> None:
        self.model.open(int(item.data(256)))

    def _on_changed(self) -> None:
        self.runs.clear()
        shown = self.model.book.run.id if self.model.book is not None else None
        for one in self.model.runs:
            day = time.strftime("%Y-%m-%d %H:%M", time.localtime(one.begun))
            state = tr("simulated") if one.simulated else tr("running") if one.ended is None else tr("over")
            item = QListWidgetItem(f"{day}\n{one.machine}, {state}")
            item.setData(256, one.id)
            self.runs.addItem(item)
            if one.id == shown:
                self.runs.setCurrentItem(item)
        self.begin.setEnabled(self.model.session.whole is not None and not self.model.busy)
        self.end.setEnabled(self.model.book is not None)
        self._tell_taught()
        book = self.model.book
        if self.model.busy:
            self.where.setText(tr("The run is being opened."))
        elif book is None:
            self.where.setText(tr("No run yet: begin one when the job goes to the machine."))
        else:
            told = f"  ({tr('simulated')})" if book.run.simulated else ""
            self.where.setText(
                f"{tr('run')} {book.run.id}, {book.made()} {tr('of')} {book.run.batch} {tr('parts')}{told}"
            )

    def _tell_taught(self) -> None:
        self.taught.clear()
        found = self.model.taught()
        says = [*found.says, *(f"{tr('changed at the machine')}: {one}" for one in found.edited)] if found else []
        for words in says or [tr("Nobody has run this job yet.")]:
            label = Label(spoken(words, self.model.session.system))
            label.setWordWrap(True)
            label.setObjectName("body" if says else "muted")
            self.taught.column.addWidget(label)
        self.taught.column.addStretch(1)
        self.taught.settle()

    def _on_opened(self) -> None:
        for view in self.views:
            view.refresh()

    def _on_reading(self, mm: float, gauge: str) -> None:
        if self.article.reading(mm, gauge):
            self.model.session.message.emit("ok", f"{gauge}: {tr('written into the log')}.")
