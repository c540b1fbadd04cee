"""The profile as a table of elements. What is typed wrong stays, marked, with the reason under the table."""

from collections.abc import Callable
from functools import partial
from typing import Any

from PySide6.QtCore import QAbstractTableModel, QModelIndex, QPersistentModelIndex, QPoint, Qt, Signal
from PySide6.QtGui import QFont, QKeyEvent
from PySide6.QtWidgets import QAbstractItemView, QHeaderView, QMenu, QTableView, QVBoxLayout, QWidget

from toreuma.app.forms.buttons import IconRow
from toreuma.app.forms.label import Label
from toreuma.app.forms.part_cells import cell_text, place_text, typed_change
from toreuma.app.forms.part_edits import added_feature, chained, split
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.edit.reshape import copied_steps, moved_step, step_of, without_steps
from toreuma.core.errors import PartError, ToreumaError
from toreuma.core.model import Element, Job, Part
from toreuma.engine.line import with_part

__all__ = ["ProfileModel", "ProfileTable"]

Index = QModelIndex | QPersistentModelIndex
COLUMNS = ("Name", "Kind", "Z end", "Ø end", "Arc R", "Corner")
FIELDS = ("name", "kind", "z_mm", "d_mm", "radius_mm", "corner")


class ProfileModel(QAbstractTableModel):
    """Cells edit the job; a cell that cannot be applied keeps its text and its fault until it is mended."""

    fault_changed = Signal()

    def __init__(self, session: Session, theme: Theme, side: str = "outside") -> None:
        super().__init__()
        self._session, self.theme, self.side = session, theme, side
        self.typed: dict[tuple[int, int], str] = {}
        self.fault: tuple[int, int, str] | None = None
        self.applying = False

    def elements(self) -> tuple[Element, ...]:
        return chained(self._session.job, self.side) if self._session.job else ()

    def refresh(self) -> None:
        self.beginResetModel()
        self.endResetModel()

    def forget_typed(self) -> None:
        self.typed, self.fault = {}, None

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(self.elements())

    def columnCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return len(COLUMNS)

    def headerData(self, section: int, orientation: Qt.Orientation, role: int = Qt.ItemDataRole.DisplayRole) -> object:
        if role == Qt.ItemDataRole.TextAlignmentRole and orientation == Qt.Orientation.Horizontal:
            return Qt.AlignmentFlag.AlignRight if section >= 2 else Qt.AlignmentFlag.AlignLeft
        if role != Qt.ItemDataRole.DisplayRole:
            return None
        return tr(COLUMNS[section]) if orientation == Qt.Orientation.Horizontal else str(section + 1)

    def flags(self, index: Index) -> Qt.ItemFlag:
        return Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable | Qt.ItemFlag.ItemIsEditable

    def data(self, index: Index, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if not index.isValid() or index.row() >= len(self.elements()):
            return None
        cell = (index.row(), index.column())
        if role in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.EditRole):
            return self.typed.get(cell, self._text(*cell))
        if role == Qt.ItemDataRole.TextAlignmentRole and index.column() >= 2:
            return Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
        if cell in self.typed:
            if role == Qt.ItemDataRole.ForegroundRole:
                return self.theme.colour("error")
            if role == Qt.ItemDataRole.FontRole:
                font = QFont(self.theme.number_font(12, bold=True))
                font.setUnderline(True)
                return font
        if role == Qt.ItemDataRole.ToolTipRole:
            return self.fault[2] if self.fault and self.fault[:2] == cell else None
        return None

    def _text(self, row: int, column: int) -> str:
        return cell_text(self.elements()[row], FIELDS[column], self._session.system)

    def setData(self, index: Index, value: Any, role: int = Qt.ItemDataRole.EditRole) -> bool:
        if role != Qt.ItemDataRole.EditRole or self._session.job is None:
            return False
        cell, text = (index.row(), index.column()), str(value).strip()
        if text == self._text(*cell):
            self.typed.pop(cell, None)
        else:
            self.typed[cell] = text
        self.apply()
        return True

    def apply(self) -> None:
        """Try everything typed together, else the newest alone; what cannot be keeps its text and gives the fault."""
        self.applying = True
        error = self._attempt(list(self.typed))
        if error is not None and len(self.typed) > 1 and self._attempt([next(reversed(self.typed))]) is None:
            error = self._attempt(list(self.typed))
        self.applying = False
        self.fault = self._place(error, self.typed) if error is not None else None
        self.refresh()
        self.fault_changed.emit()

    def _attempt(self, cells: list[tuple[int, int]]) -> ToreumaError | None:
        """Apply some of the typed cells; those that went in are typed no longer."""
        pending = {cell: self.typed[cell] for cell in cells}
        error = self._session.attempt(lambda job: self._edited(job, pending)) if pending else None
        if error is None:
            for cell in cells:
                del self.typed[cell]
        return error

    def _edited(self, job: Job, pending: dict[tuple[int, int], str]) -> Job:
        elements: list[Any] = list(chained(job, self.side))
        for (row, column), text in pending.items():
            if row < len(elements):
                try:
                    if FIELDS[column] == "z_mm":
                        text = place_text(text, elements, row, self._session.system)
                    changes = typed_change(FIELDS[column], text, self._session.system, elements[row])
                    elements[row] = elements[row].changed(**changes)
                except ToreumaError as error:
                    raise PartError(row, FIELDS[column], error.what, error.cure, self.side) from None
        return job.changed(part=job.part.changed(**{self.side: tuple(elements)}))

    def _place(self, error: ToreumaError, pending: dict[tuple[int, int], str]) -> tuple[int, int, str]:
        last = next(reversed(pending))
        row, column = last
        if isinstance(error, PartError) and error.element >= 0 and error.section == self.side:
            row = error.element
            column = FIELDS.index(error.field) if error.field in FIELDS else column
        return row, column, f"Row {row + 1}, {COLUMNS[column]}: {error.what}; {error.cure}"


class ProfileView(QTableView):
    """Enter opens a cell for typing, as does typing; ``wanted`` names what else a key asks for."""

    wanted = Signal(str)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if self.state() == self.State.EditingState:
            super().keyPressEvent(event)
            return
        held = event.modifiers() == Qt.KeyboardModifier.AltModifier
        names = {Qt.Key.Key_Delete: "delete", Qt.Key.Key_Insert: "add"}
        moves = {Qt.Key.Key_Up: "ahead", Qt.Key.Key_Down: "behind", Qt.Key.Key_D: "copy", Qt.Key.Key_S: "split"}
        name = (moves if held else names).get(Qt.Key(event.key()))
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.edit(self.currentIndex())
        elif name is not None:
            self.wanted.emit(name)
        else:
            super().keyPressEvent(event)


EDITS = (
    ("add", "Add an element behind", "Ins"),
    ("split", "Split in the middle", "Alt+S"),
    ("ahead", "Move the step toward the front", "Alt+Up"),
    ("behind", "Move the step toward the chuck", "Alt+Down"),
    ("copy", "Copy the steps", "Alt+D"),
    ("delete", "Take out", "Del"),
)
"""What the context menu of the table offers: name, words, key."""


class ProfileTable(QWidget):
    """Table of the elements of one side, its fault in one line, and buttons to add and take out."""

    def __init__(self, session: Session, theme: Theme, side: str = "outside") -> None:
        super().__init__()
        self._session, self._theme, self.side = session, theme, side
        self.model = ProfileModel(session, theme, side)
        self.view = ProfileView()
        self.view.setAccessibleName(tr("Profile"))
        self.view.setModel(self.model)
        self.view.verticalHeader().setDefaultSectionSize(26)
        self.view.verticalHeader().setFixedWidth(22)
        self.view.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.view.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        self.view.customContextMenuRequested.connect(self._menu)
        self.view.wanted.connect(self.edit)
        self.view.setShowGrid(False)
        self.view.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.view.setCornerButtonEnabled(False)
        header = self.view.horizontalHeader()
        header.setSectionResizeMode(QHeaderView.ResizeMode.Fixed)
        for column, width in enumerate((72, 42, 62, 58, 42, 40)):
            self.view.setColumnWidth(column, width)
        header.setStretchLastSection(True)
        self.view.selectionModel().currentChanged.connect(self._on_current)
        self.fault = Label()
        self.fault.setObjectName("error")
        self.fault.setWordWrap(True)
        self.fault.setContentsMargins(10, 4, 10, 4)
        self._note = Label()
        self._note.setObjectName("muted")
        self._note.setWordWrap(True)
        self._note.setContentsMargins(10, 4, 10, 0)
        column_layout = QVBoxLayout(self)
        column_layout.setContentsMargins(0, 0, 0, 6)
        column_layout.setSpacing(0)
        column_layout.addWidget(self.view, 1)
        column_layout.addWidget(self.fault)
        column_layout.addWidget(self._note)
        self._icons = IconRow(
            theme,
            (
                ("add", "Add an element behind the selected one", self.add),
                ("delete", "Take the selected element out", self.delete),
            ),
        )
        column_layout.addLayout(self._icons)
        self.model.fault_changed.connect(self._show_fault)
        session.job_changed.connect(self._on_job)
        session.selection_changed.connect(self._on_selection)
        self._shown: Job | None = None
        self._on_job()

    def set_theme(self, theme: Theme) -> None:
        self._theme = self.model.theme = theme
        self._icons.set_theme(theme)
        self.model.refresh()

    def _on_job(self) -> None:
        job = self._session.job
        if job is not self._shown:
            if job is None or self._shown is None or job.part != self._shown.part or job.units != self._shown.units:
                if not self.model.applying:
                    self.model.forget_typed()
                self.model.refresh()
            self._shown = job
        unit = "inch" if self._session.system == "inch" else "mm"
        self._note.setText(
            f"All in {unit}; Ø is the diameter, with limits if you like: 30 h6. Corner: C1 chamfer, R1 round. "
            "Z also as 12 from back, or 18 long. Expressions and units work: 30-0.2, 1/2in."
        )
        self._show_fault()
        self._on_selection()

    def _show_fault(self) -> None:
        self.fault.setText(self.model.fault[2] if self.model.fault else "")
        self.fault.setVisible(self.model.fault is not None)

    def type_into(self, row: int, column: int, text: str) -> None:
        """As if the person typed ``text`` into a cell."""
        self.model.setData(self.model.index(row, column), text)

    def _menu(self, at: QPoint) -> None:
        menu = QMenu(self)
        for name, words, key in EDITS:
            menu.addAction(f"{tr(words)}\t{key}", partial(self.edit, name))
        menu.exec(self.view.viewport().mapToGlobal(at))

    def edit(self, name: str) -> None:
        """Do one of the edits of the table to what is selected."""
        rows = sorted({index.row() for index in self.view.selectionModel().selectedIndexes()})
        row = self.view.currentIndex().row()
        side: Any = self.side
        if name == "add":
            self.add()
        elif name == "delete" and len(rows) < 2:
            self.delete()
        elif name == "split":
            self._report(self._session.attempt(lambda j: split(j, self.side, max(row, 0))))
        elif row >= 0 and self._session.job is not None:
            part = self._session.job.part
            steps = tuple(sorted({step_of(part, side, index) for index in rows or [row]}))
            changes: dict[str, Callable[[Part], Part]] = {
                "ahead": lambda p: moved_step(p, side, steps[0], -1),
                "behind": lambda p: moved_step(p, side, steps[0], 1),
                "copy": lambda p: copied_steps(p, side, steps),
                "delete": lambda p: without_steps(p, side, steps),
            }
            self._report(self._session.attempt(lambda j: with_part(j, changes[name](j.part))))

    def add(self) -> None:
        """Split the stretch behind the selected element: a new line a little farther toward the chuck."""
        job = self._session.job
        if job is None:
            return
        row = max(self.view.currentIndex().row(), 0)
        elements = list(self.model.elements())
        if not elements:
            self._report(self._session.attempt(lambda j: added_feature(j, "bore")))
            return
        here = elements[row]
        if row + 1 < len(elements):
            after = elements[row + 1]
            z, d = (here.z_mm + after.z_mm) / 2, (here.d_mm + after.d_mm) / 2
        else:
            z, d = here.z_mm - 5.0, here.d_mm
        elements.insert(row + 1, Element(z_mm=round(z, 3), d_mm=round(d, 3)))
        self._put(tuple(elements))

    def delete(self) -> None:
        row = self.view.currentIndex().row()
        elements = list(self.model.elements())
        if not 0 <= row < len(elements):
            return
        del elements[row]
        if self.side == "inside" and len(elements) < 2:
            elements = []  # a mouth alone is no bore
        if elements or self.side == "inside":
            self._put(tuple(elements))

    def _put(self, elements: tuple[Element, ...]) -> None:
        self._report(self._session.attempt(lambda j: j.changed(part=j.part.changed(**{self.side: elements}))))

    def _report(self, error: ToreumaError | None) -> None:
        if error is not None:
            self.fault.setText(f"{error.what}; {error.cure}")
            self.fault.show()

    def _on_current(self, current: QModelIndex, _: QModelIndex) -> None:
        if current.isValid() and self.view.hasFocus():
            self._session.select(element=current.row(), side=self.side)

    def _on_selection(self) -> None:
        chosen = self._session.selection
        element = chosen.element if chosen.side == self.side else None
        if element is not None and element != self.view.currentIndex().row():
            self.view.setCurrentIndex(self.model.index(element, 2))
