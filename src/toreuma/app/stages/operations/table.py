"""Every operation of the job in one table: its numbers, and the limit that governs them."""

from dataclasses import dataclass
from typing import Any

from PySide6.QtCore import QAbstractTableModel, QModelIndex, QPersistentModelIndex, Qt
from PySide6.QtGui import QBrush, QColor
from PySide6.QtWidgets import QAbstractItemView, QHeaderView, QTableView

from toreuma.app.forms.format import clock
from toreuma.app.forms.waiting import WaitsUnseen
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.cutting.figures import Figure
from toreuma.core.findings import worst
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.units import System, show

__all__ = ["OperationTable"]


@dataclass(frozen=True)
class Column:
    """A column: heading, and the number it shows, or one of the words handled by name."""

    title: str
    shows: Figure | str

    @property
    def unit(self) -> str:
        return self.shows.unit if isinstance(self.shows, Figure) else ""


COLUMNS = (
    Column("Operation", "name"),
    Column("Tool", "tool"),
    Column("Governed by", "limit"),
    Column("vc", Figure.SPEED),
    Column("f", Figure.FEED),
    Column("ap", Figure.DEPTH),
    Column("Passes", Figure.PASSES),
    Column("Fc", Figure.FORCE),
    Column("Pc", Figure.POWER),
    Column("Bend, on Ø", Figure.BEND),
    Column("Ra", Figure.ROUGHNESS),
    Column("Life", Figure.LIFE),
    Column("Time", "time"),
)
LIMIT_COLUMN, LIMIT_PX = 2, 262

USED_UP = 0.98
"""From this share on a limit is named as one that governs."""

WORDS = ("name", "tool", "limit")


class _Model(QAbstractTableModel):
    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self.system: System = "mm"
        self.rows: tuple[OperationPlan, ...] = ()

    def fill(self, rows: tuple[OperationPlan, ...], system: System) -> None:
        self.beginResetModel()
        self.rows, self.system = rows, system
        self.endResetModel()

    def rowCount(self, parent: QModelIndex | QPersistentModelIndex = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(self.rows)

    def columnCount(self, parent: QModelIndex | QPersistentModelIndex = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(COLUMNS)

    def headerData(self, section: int, way: Qt.Orientation, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if role == Qt.ItemDataRole.TextAlignmentRole and way == Qt.Orientation.Horizontal:
            return self._side(section)
        if role != Qt.ItemDataRole.DisplayRole:
            return None
        if way == Qt.Orientation.Vertical:
            return str(section + 1)
        column = COLUMNS[section]
        unit = show(0, column.unit, self.system).unit if column.unit else ""
        return f"{column.title}\n{unit}"

    def data(self, index: QModelIndex | QPersistentModelIndex, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        planned, column = self.rows[index.row()], COLUMNS[index.column()]
        if role == Qt.ItemDataRole.DisplayRole:
            return self._text(planned, column)
        if role == Qt.ItemDataRole.TextAlignmentRole:
            return self._side(index.column())
        if role == Qt.ItemDataRole.FontRole and column.shows not in WORDS:
            return self.theme.number_font(12)
        if role == Qt.ItemDataRole.DecorationRole and column.shows == "limit" and planned.cuts.proposal is not None:
            return self.theme.load_colour(planned.cuts.proposal.governing.share)
        if role == Qt.ItemDataRole.ToolTipRole and column.shows == "limit" and planned.cuts.proposal is not None:
            return planned.cuts.proposal.governing.kind.why
        if role == Qt.ItemDataRole.ForegroundRole:
            finding = worst(planned.findings)
            if column.shows == "name" and finding is not None and finding.severity != "note":
                return QBrush(QColor(self.theme.colour(finding.severity)))
        return None

    @staticmethod
    def _side(column: int) -> Qt.AlignmentFlag:
        side = Qt.AlignmentFlag.AlignLeft if COLUMNS[column].shows in WORDS else Qt.AlignmentFlag.AlignRight
        return side | Qt.AlignmentFlag.AlignVCenter

    def _text(self, planned: OperationPlan, column: Column) -> str:
        operation, proposal = planned.operation, planned.cuts.proposal
        if column.shows == "name":
            return operation.name or operation.id
        if column.shows == "tool":
            return ", ".join(operation.tools)
        if column.shows == "time":
            return clock(planned.times.total_s) if planned.motions else "–"
        if column.shows == "limit":
            if proposal is None:
                return (planned.governed_by or "–") if planned.motions else "–"
            ends = [use.kind.name for use in proposal.uses if use.share >= USED_UP] or [proposal.governing.kind.name]
            share = proposal.governing.share
            return " · ".join(ends[:2]) + ("" if USED_UP <= share <= 1.0005 else f"  {share:.0%}")
        evidence = planned.reasons.get(column.shows) if isinstance(column.shows, Figure) else None
        if evidence is None or not planned.motions:
            return "–"
        pinned = " ●" if evidence.pinned else ""
        return show(evidence.number, evidence.unit, self.system).number + pinned


class OperationTable(WaitsUnseen, QTableView):
    """Selecting a row selects the operation everywhere; a dot marks a number that is pinned."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session = session
        self._model = _Model(theme)
        self.setModel(self._model)
        self.setObjectName("operationTable")
        self.setAccessibleName(tr("Table of operations"))
        self.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.setShowGrid(False)
        self.setAlternatingRowColors(True)
        self.setWordWrap(False)
        self.verticalHeader().setDefaultSectionSize(30)
        header = self.horizontalHeader()
        header.setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
        header.setSectionResizeMode(LIMIT_COLUMN, QHeaderView.ResizeMode.Fixed)
        header.resizeSection(LIMIT_COLUMN, LIMIT_PX)
        header.setHighlightSections(False)
        self.selectionModel().currentRowChanged.connect(lambda now, _: self._chosen(now.row()))
        session.outcome_changed.connect(self.refresh)
        session.selection_changed.connect(self._follow)
        self.refresh()

    def set_theme(self, theme: Theme) -> None:
        self._model.theme = theme
        self.refresh()

    def _fill(self) -> None:
        outcome = self._session.outcome
        self._model.fill(outcome.plan.operations if outcome else (), self._session.system)
        self._follow()

    def _chosen(self, row: int) -> None:
        if 0 <= row < len(self._model.rows):
            self._session.select(operation=self._model.rows[row].operation.id)

    def _follow(self) -> None:
        if self._stale:
            return
        wanted = self._session.selection.operation
        rows = [index for index, planned in enumerate(self._model.rows) if planned.operation.id == wanted]
        if rows and self.currentIndex().row() != rows[0]:
            self.selectRow(rows[0])
        elif not rows:
            self.clearSelection()
