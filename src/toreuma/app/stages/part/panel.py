"""Left panel of the part stage: outside, inside, and the features on them."""

from collections.abc import Callable

from PySide6.QtCore import QSize
from PySide6.QtWidgets import QInputDialog, QListWidget, QListWidgetItem, QStackedWidget, QTabBar, QVBoxLayout, QWidget

from toreuma.app.forms.label import Label
from toreuma.app.session import Session
from toreuma.app.stages.part.line_entry import LineEntry
from toreuma.app.stages.part.profile_table import ProfileTable
from toreuma.app.theme import Theme, icon
from toreuma.app.words import tr
from toreuma.core.edit.reshape import mirrored, scaled
from toreuma.core.kinds.features import FEATURES
from toreuma.core.model import Feature, Job
from toreuma.core.units import System, parse, show
from toreuma.engine.line import with_part

__all__ = ["PartPanel", "feature_line"]

TABS = ("Outside", "Inside", "Features")


class PartPanel(QWidget):
    """Tabs follow what is selected on the canvas."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.setObjectName("panel")
        self._session, self._theme = session, theme
        self.line = LineEntry(session, theme)
        self.outside = ProfileTable(session, theme, "outside")
        self.inside = ProfileTable(session, theme, "inside")
        self.features = QListWidget()
        self.features.setAccessibleName(tr("Features"))
        self.features.setIconSize(QSize(18, 18))
        self.features.currentRowChanged.connect(self._on_row)
        self._empty = Label(
            "No features yet. Select a surface and choose Groove, Thread, Flats, Slot or Holes; holes and centres on "
            "the axis are added with nothing selected."
        )
        self._empty.setObjectName("muted")
        self._empty.setWordWrap(True)
        self._empty.setContentsMargins(12, 8, 12, 8)
        page = QWidget()
        column = QVBoxLayout(page)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self._empty)
        column.addWidget(self.features, 1)
        self.tabs = QTabBar()
        self.tabs.setExpanding(True)
        self.tabs.setDrawBase(False)
        self.tabs.setAccessibleName(tr("Outside, inside or features"))
        self.pages = QStackedWidget()
        for name, widget in zip(TABS, (self.outside, self.inside, page), strict=True):
            self.tabs.addTab(tr(name))
            self.pages.addWidget(widget)
        self.tabs.currentChanged.connect(self.pages.setCurrentIndex)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 6, 0, 0)
        whole.setSpacing(0)
        whole.addWidget(self.line)
        whole.addWidget(self.tabs)
        whole.addWidget(self.pages, 1)
        session.job_changed.connect(self._on_job)
        session.selection_changed.connect(self._on_selection)
        self._shown: tuple[object, ...] = ()
        self._on_job()

    def mirror(self) -> None:
        """The part end for end."""
        self._edit(lambda job: with_part(job, mirrored(job.part)))

    def scale(self) -> None:
        """The part larger or smaller by a factor the person types."""
        words = "Every length times (25.4 turns inches read as millimetres right):"
        text, fine = QInputDialog.getText(self, "Scale the part", words, text="25.4")
        if fine:
            self._edit(lambda job: with_part(job, scaled(job.part, parse(text, "ratio", "mm"))))

    def _edit(self, change: Callable[[Job], Job]) -> None:
        error = self._session.attempt(change)
        if error is not None:
            self._session.message.emit("error", f"{error.what}; {error.cure}")

    def set_theme(self, theme: Theme) -> None:
        self._theme, self._shown = theme, ()
        self.line.set_theme(theme)
        self.outside.set_theme(theme)
        self.inside.set_theme(theme)
        self._on_job()

    def _on_job(self) -> None:
        job = self._session.job
        features = job.part.features if job else ()
        inside = job.part.inside if job else ()
        self.tabs.setTabText(1, f"{tr('Inside')} ({len(inside)})" if inside else tr("Inside"))
        self.tabs.setTabText(2, f"{tr('Features')} ({len(features)})" if features else tr("Features"))
        key = (features, self._session.system, self._theme.name)
        if key == self._shown:
            return
        self._shown = key
        self._empty.setVisible(not features)
        self.features.blockSignals(True)
        self.features.clear()
        for feature in features:
            item = QListWidgetItem(icon(feature.kind, self._theme), feature_line(feature, self._session.system))
            item.setSizeHint(QSize(100, 30))
            self.features.addItem(item)
        chosen = self._session.selection.feature
        if chosen is not None and chosen < len(features):
            self.features.setCurrentRow(chosen)
        self.features.blockSignals(False)

    def _on_row(self, row: int) -> None:
        if row >= 0 and row != self._session.selection.feature:
            self._session.select(feature=row)

    def _on_selection(self) -> None:
        chosen = self._session.selection
        if chosen.feature is not None:
            self.tabs.setCurrentIndex(2)
            self.features.setCurrentRow(chosen.feature)
        elif chosen.element is not None:
            self.tabs.setCurrentIndex(1 if chosen.side == "inside" else 0)


def feature_line(feature: Feature, system: System) -> str:
    """A feature in a few words."""

    def size(value: float) -> str:
        return show(value, "mm", system, trim=True).number

    kind = FEATURES[feature.kind]
    return f"{feature.name or tr(kind.label)}   {kind.facts(feature, size)}"
