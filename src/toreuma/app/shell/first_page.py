"""What is shown before a job is open: one click to a demo, one to a file."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QLabel, QPushButton, QVBoxLayout, QWidget

from toreuma.shipped.library import DEMO_PREFIX, demo_job, demo_names

__all__ = ["FirstPage"]


START_WITH = "spear"
"""The demo job that has a whole route already stands first."""


class FirstPage(QWidget):
    """Offers the demo jobs, files opened lately, and the file dialog."""

    wanted = Signal(str)
    browse = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("page")
        self._column = QVBoxLayout(self)
        self._column.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self._column.setSpacing(10)
        title = QLabel("Plan a turned part, and prove the program")
        title.setObjectName("title")
        self._column.addWidget(title, 0, Qt.AlignmentFlag.AlignHCenter)
        line = QLabel("Open a demo job of the Fennow Leat workshop to look round, or a job of your own.")
        line.setObjectName("muted")
        self._column.addWidget(line, 0, Qt.AlignmentFlag.AlignHCenter)
        for name in sorted(demo_names(), key=lambda name: name != START_WITH):
            button = QPushButton(f"Demo: {demo_job(name).name}")
            button.setObjectName("main")
            button.clicked.connect(lambda _=False, n=name: self.wanted.emit(f"{DEMO_PREFIX}{n}"))
            self._column.addWidget(button, 0, Qt.AlignmentFlag.AlignHCenter)
        browse = QPushButton("Open a job file…")
        browse.clicked.connect(self.browse.emit)
        self._column.addWidget(browse, 0, Qt.AlignmentFlag.AlignHCenter)
        self._recent: list[QPushButton] = []

    def show_recent(self, names: list[str]) -> None:
        for button in self._recent:
            button.deleteLater()
        self._recent = []
        for name in names:
            button = QPushButton(name)
            button.clicked.connect(lambda _=False, n=name: self.wanted.emit(n))
            self._recent.append(button)
            self._column.addWidget(button, 0, Qt.AlignmentFlag.AlignHCenter)
