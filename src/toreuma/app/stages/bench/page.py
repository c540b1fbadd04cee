"""The bench: codes, threads, fits and speed, with or without a job."""

from PySide6.QtWidgets import QHBoxLayout, QListWidget, QStackedWidget, QVBoxLayout, QWidget

from toreuma.app.forms.label import Label
from toreuma.app.session import Session
from toreuma.app.stages.bench.answers import FitsBench, SpeedBench, ThreadsBench
from toreuma.app.stages.bench.codes import CodesBench
from toreuma.app.stages.bench.lab import LabBench
from toreuma.app.stages.bench.materials import MaterialsBench
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.errors import JobError

__all__ = ["BenchPage"]

NAMES = (
    ("Codes", "inserts, holders, bars"),
    ("Threads", "limits, wires, drill"),
    ("Fits", "limits of a size"),
    ("Speed", "spindle for a diameter"),
    ("Cut lab", "a cut and its limits"),
    ("Materials", "values and their sources"),
)
LIST_PX = 190


class BenchPage(QWidget):
    def __init__(self, theme: Theme, session: Session) -> None:
        super().__init__()
        self.setObjectName("page")
        self.codes = CodesBench(theme)
        self.threads, self.fits, self.speed = ThreadsBench(), FitsBench(), SpeedBench()
        self.lab = LabBench(theme, session)
        self.materials = MaterialsBench(session)
        self.list = QListWidget()
        self.list.setAccessibleName(tr("Benches"))
        self.list.setFixedWidth(LIST_PX)
        self.pages = QStackedWidget()
        pages = (self.codes, self.threads, self.fits, self.speed, self.lab, self.materials)
        for (name, words), page in zip(NAMES, pages, strict=True):
            self.list.addItem(f"{name}\n{words}")
            self.pages.addWidget(page)
        self.list.currentRowChanged.connect(self.pages.setCurrentIndex)
        self.list.setCurrentRow(0)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self.list)
        right = QVBoxLayout()
        right.setContentsMargins(0, 0, 0, 0)
        right.setSpacing(0)
        right.addWidget(self.pages, 1)
        caution = Label(
            "Computed from the standards and typical values: starting points. The machine's manual, the maker's sheet "
            "and a trained person come first."
        )
        caution.setObjectName("muted")
        caution.setWordWrap(True)
        caution.setContentsMargins(20, 0, 20, 10)
        right.addWidget(caution)
        row.addLayout(right, 1)

    def open(self, name: str, typed: str = "") -> None:
        """Show a page by its name, with what is asked there typed in. Raises `JobError`."""
        names = [one.lower() for one, _ in NAMES]
        if name.lower() not in names:
            raise JobError(f"bench {name}", "there is no such page", f"choose from {', '.join(names)}")
        self.list.setCurrentRow(names.index(name.lower()))
        entry = getattr(self.pages.currentWidget(), "entry", None)
        if typed and entry is not None:
            entry.setText(typed)
            entry.setFocus()

    def set_theme(self, theme: Theme) -> None:
        self.codes.set_theme(theme)
        self.lab.set_theme(theme)
