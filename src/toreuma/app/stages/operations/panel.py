"""The route: operations as cards in the order they are cut."""

from collections.abc import Sequence

from PySide6.QtCore import (
    QAbstractListModel,
    QMimeData,
    QModelIndex,
    QPersistentModelIndex,
    QPoint,
    QPointF,
    QRectF,
    QSize,
    Qt,
)
from PySide6.QtGui import QAction, QKeyEvent, QPainter, QPixmap
from PySide6.QtWidgets import (
    QAbstractItemView,
    QHBoxLayout,
    QListView,
    QMenu,
    QPushButton,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QTabBar,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from toreuma.app.forms.buttons import IconRow
from toreuma.app.forms.format import clock
from toreuma.app.forms.label import Label
from toreuma.app.picture.view import View
from toreuma.app.session import Session
from toreuma.app.stages.operations.ways import Ways
from toreuma.app.theme import Theme, icon
from toreuma.app.words import tr
from toreuma.core.auto.fresh import fresh_operation
from toreuma.core.findings import worst
from toreuma.core.kinds.operations import OPERATIONS
from toreuma.core.model import Operation
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.shipped.library import known_threads

__all__ = ["RoutePanel"]

Index = QModelIndex | QPersistentModelIndex
CARD_PX = 74
MOST_PICTURES = 300
MIME = "application/x-toreuma-operation"


class RouteModel(QAbstractListModel):
    """Operations of the job, in order; dragging one gives a new order."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session

    def operations(self) -> tuple[Operation, ...]:
        return self._session.job.operations if self._session.job else ()

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(self.operations())

    def data(self, index: Index, role: int = Qt.ItemDataRole.DisplayRole) -> object:
        if not index.isValid() or index.row() >= len(self.operations()):
            return None
        operation = self.operations()[index.row()]
        if role == Qt.ItemDataRole.UserRole:
            return operation
        if role in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.AccessibleTextRole):
            return f"{index.row() + 1} {operation.name}, {operation.tool}"
        return None

    def flags(self, index: Index) -> Qt.ItemFlag:
        common = Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable
        return common | (Qt.ItemFlag.ItemIsDragEnabled if index.isValid() else Qt.ItemFlag.ItemIsDropEnabled)

    def supportedDropActions(self) -> Qt.DropAction:
        return Qt.DropAction.MoveAction

    def mimeTypes(self) -> list[str]:
        return [MIME]

    def mimeData(self, indexes: Sequence[QModelIndex]) -> QMimeData:
        data = QMimeData()
        data.setData(MIME, str(indexes[0].row()).encode())
        return data

    def dropMimeData(self, data: QMimeData, action: Qt.DropAction, row: int, column: int, parent: Index) -> bool:
        source = int(bytes(data.data(MIME).data()).decode())
        target = row if row >= 0 else self.rowCount()
        self.move(source, target if target <= source else target - 1)
        return False  # the job's change brings the new order; the view must not remove rows itself

    def move(self, source: int, target: int) -> None:
        """Put the operation at ``source`` where ``target`` is afterwards."""
        operations = list(self.operations())
        if source == target or not (0 <= source < len(operations) and 0 <= target < len(operations)):
            return
        operations.insert(target, operations.pop(source))
        self._session.attempt(lambda job: job.with_setup(operations=tuple(operations)))

    def refresh(self) -> None:
        self.layoutChanged.emit()


class CardDelegate(QStyledItemDelegate):
    """Paints one card: number and name, tool, time, the metal it removes, and its worst finding."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self.theme = session, theme
        self._pictures: dict[tuple[int, str], tuple[OperationPlan, QPixmap]] = {}

    def sizeHint(self, option: QStyleOptionViewItem, index: Index) -> QSize:
        return QSize(200, CARD_PX)

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        operation: Operation = index.data(Qt.ItemDataRole.UserRole)
        outcome, theme = self._session.outcome, self.theme
        planned = outcome.plan.of(operation.id) if outcome else None
        card = QRectF(option.rect).adjusted(6, 4, -6, -3)
        selected = bool(option.state & QStyle.StateFlag.State_Selected)
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(theme.colour("accent" if selected else "line"))
        painter.setBrush(theme.colour("accent_soft" if selected else "raised"))
        painter.drawRoundedRect(card, 4, 4)
        if option.state & QStyle.StateFlag.State_HasFocus:
            painter.drawRoundedRect(card.adjusted(2, 2, -2, -2), 3, 3)
        picture = QRectF(card.right() - 78, card.top() + 7, 70, card.height() - 14)
        if planned is not None and planned.motions:
            self._thumbnail(painter, picture, planned)
        ink = "ink" if operation.enabled else "muted"
        painter.setPen(theme.colour(ink))
        painter.setFont(theme.text_font(13, bold=True))
        title = f"{index.row() + 1}  {operation.name or tr(OPERATIONS[operation.kind].label)}"
        text = QRectF(card.left() + 34, card.top() + 7, picture.left() - card.left() - 38, 18)
        painter.drawText(
            text,
            Qt.AlignmentFlag.AlignVCenter,
            painter.fontMetrics().elidedText(title, Qt.TextElideMode.ElideRight, int(text.width())),
        )
        icon(operation.kind, theme, ink, 20).paint(painter, int(card.left()) + 8, int(card.top()) + 6, 20, 20)
        painter.setFont(theme.text_font(11))
        painter.setPen(theme.colour("muted"))
        tools = [self._session.job.tool(one) for one in operation.tools] if self._session.job else []
        line = ", ".join(
            f"{one}  {tool.name if tool else 'missing'}" for one, tool in zip(operation.tools, tools, strict=False)
        )
        painter.drawText(
            text.translated(0, 19),
            Qt.AlignmentFlag.AlignVCenter,
            painter.fontMetrics().elidedText(line, Qt.TextElideMode.ElideRight, int(text.width())),
        )
        self._last_line(painter, text.translated(0, 38), operation, planned)
        painter.restore()

    def _last_line(self, painter: QPainter, at: QRectF, operation: Operation, planned: OperationPlan | None) -> None:
        theme = self.theme
        painter.setFont(theme.number_font(11))
        if not operation.enabled:
            painter.drawText(at, Qt.AlignmentFlag.AlignVCenter, "switched off")
            return
        if planned is None:
            return
        painter.setPen(theme.colour("ink"))
        time = f"{clock(planned.times.total_s)} min"
        painter.drawText(at, Qt.AlignmentFlag.AlignVCenter, time)
        finding = worst(planned.findings)
        if finding is not None:
            colour = {"error": "error", "warning": "warning"}.get(finding.severity, "muted")
            left = int(at.left()) + painter.fontMetrics().horizontalAdvance(time) + 10
            icon(finding.severity, theme, colour, 14).paint(painter, left, int(at.top()) + 2, 14, 14)
            painter.setPen(theme.colour(colour))
            painter.setFont(theme.text_font(11))
            word = finding.severity
            painter.drawText(at.adjusted(left - at.left() + 18, 0, 0, 0), Qt.AlignmentFlag.AlignVCenter, word)

    def _thumbnail(self, painter: QPainter, room: QRectF, planned: OperationPlan) -> None:
        """The metal an operation removes; drawn once for each plan of it."""
        key = (id(planned), self.theme.name)
        if key not in self._pictures:
            if len(self._pictures) > MOST_PICTURES:
                self._pictures.clear()
            self._pictures[key] = (planned, self._draw_thumbnail(room, planned))
        painter.drawPixmap(room.topLeft(), self._pictures[key][1])

    def _draw_thumbnail(self, room: QRectF, planned: OperationPlan) -> QPixmap:
        picture = QPixmap(room.size().toSize() * 2)
        picture.fill(Qt.GlobalColor.transparent)
        picture.setDevicePixelRatio(2.0)
        outcome = self._session.outcome
        if outcome is None:
            return picture
        scene, corner = outcome.plan.scene, QPointF(room.width(), room.height())
        z0, z1 = scene.profile.back_z - 4, scene.stock_front_z + 1
        scale = min(room.width() / (z1 - z0), room.height() / (scene.stock_r + 1))
        view = View(scale, z1, corner)
        painter = QPainter(picture)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(self.theme.colour("stock_fill"))
        painter.drawPath(view.path(planned.after))
        painter.setBrush(self.theme.colour("accent", 0.75))
        painter.drawPath(view.path(planned.removed))
        painter.setPen(self.theme.colour("axis"))
        painter.drawLine(QPointF(0, room.height() - 0.5), corner - QPointF(0, 0.5))
        painter.end()
        return picture


class RouteView(QListView):
    """Keys: Alt with up and down moves the card, Delete takes it out, Ctrl+D doubles it, Space switches it."""

    def __init__(self, panel: "RoutePanel") -> None:
        super().__init__()
        self._panel = panel

    def keyPressEvent(self, event: QKeyEvent) -> None:
        alt = bool(event.modifiers() & Qt.KeyboardModifier.AltModifier)
        key = Qt.Key(event.key())
        if alt and key in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            self._panel.move_by(-1 if key == Qt.Key.Key_Up else 1)
        elif key == Qt.Key.Key_Delete:
            self._panel.delete()
        elif key == Qt.Key.Key_Space:
            self._panel.switch()
        else:
            super().keyPressEvent(event)


class RoutePanel(QWidget):
    """Cards and the buttons that change the route."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.setObjectName("panel")
        self._session, self._theme = session, theme
        self._model = RouteModel(session)
        self._delegate = CardDelegate(session, theme)
        self.view = RouteView(self)
        self.view.setAccessibleName(tr("Route"))
        self.view.setModel(self._model)
        self.view.setItemDelegate(self._delegate)
        self.view.setDragDropMode(QAbstractItemView.DragDropMode.InternalMove)
        self.view.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.view.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.view.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.view.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        self.view.customContextMenuRequested.connect(self._menu)
        self.view.selectionModel().currentChanged.connect(self._on_current)
        self._empty = Label(tr("No operation yet. Add one below: facing first, then roughing."))
        self._empty.setObjectName("muted")
        self._empty.setWordWrap(True)
        self._empty.setContentsMargins(12, 12, 12, 0)
        self.ways = Ways(session, theme)
        self._setup = Label()
        self._setup.setObjectName("heading")
        self._setup.setContentsMargins(12, 10, 0, 4)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 6)
        column.setSpacing(0)
        self.sides = QTabBar()
        self.sides.setAccessibleName(tr("Side of the part"))
        self.sides.addTab(tr("First side"))
        self.sides.addTab(tr("Second side"))
        self.sides.setDrawBase(False)
        self.sides.tabBarClicked.connect(self._session.show_side)
        self.propose = QPushButton(tr("Propose the whole route"))
        self.propose.setToolTip(
            tr("Tools, operations, numbers and order for all that is to be cut; undo takes it back")
        )
        self.propose.clicked.connect(self._propose)
        column.addWidget(self.sides)
        column.addWidget(self._setup)
        column.addWidget(self._empty)
        column.addWidget(self.ways)
        column.addWidget(self.view, 1)
        below = QHBoxLayout()
        below.setContentsMargins(12, 6, 12, 2)
        below.addWidget(self.propose)
        self.take = QPushButton(tr("Take the best so far"))
        self.take.setToolTip(tr("Look no further: the route at the top of the list, with undo"))
        self.take.clicked.connect(session.end_with_the_best)
        below.addWidget(self.take)
        column.addLayout(below)
        column.addLayout(self._buttons())
        for signal in (session.job_changed, session.outcome_changed):
            signal.connect(self.refresh)
        session.selection_changed.connect(self._on_selection)
        self.refresh()

    def _buttons(self) -> IconRow:
        self.icons = IconRow(
            self._theme,
            (
                ("add", "Add an operation", None),
                ("up", "Earlier (Alt+Up)", lambda: self.move_by(-1)),
                ("down", "Later (Alt+Down)", lambda: self.move_by(1)),
                ("copy", "Double the operation (Ctrl+D)", self.duplicate),
                ("delete", "Take the operation out (Delete)", self.delete),
            ),
        )
        menu = QMenu(self)
        for kind, entry in ((name, one) for name, one in OPERATIONS.items() if not one.only_read):
            action = QAction(tr(entry.label), self)
            action.triggered.connect(lambda _=False, k=kind: self.add(k))
            menu.addAction(action)
        self.icons.buttons["add"].setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.icons.buttons["add"].setMenu(menu)
        return self.icons

    def set_theme(self, theme: Theme) -> None:
        self._theme = self._delegate.theme = theme
        self.icons.set_theme(theme)
        self.ways.set_theme(theme)
        self.view.viewport().update()

    def refresh(self) -> None:
        job = self._session.job
        self._model.refresh()
        self._empty.setVisible(job is not None and not job.operations and not self._session.offers)
        self._setup.setText(f"Setup {self._session.side + 1}: {job.setup.name}" if job else "")
        whole, routing = self._session.whole, self._session.search.looks_for("route")
        self.sides.setVisible(whole is not None and len(whole.setups) > 1)
        self.sides.setCurrentIndex(self._session.side)
        offered = bool(self._session.offers)
        self.propose.setText(
            tr("Stop looking" if offered else "Stop looking for a route") if routing else tr("Propose the whole route")
        )
        self.take.setVisible(offered)
        self.propose.setVisible(job is not None)
        self._on_selection()
        self.view.viewport().update()

    # What the buttons do

    def _propose(self) -> None:
        if self._session.search.looks_for("route"):
            self._session.stop_search()
        else:
            self._session.propose_route()

    @property
    def current(self) -> int:
        chosen = self._session.selection.operation
        ids = [operation.id for operation in self._model.operations()]
        return ids.index(chosen) if chosen in ids else -1

    def _menu(self, at: QPoint) -> None:
        """What can be done with the card under the pointer."""
        if self.current < 0:
            return
        menu = QMenu(self)
        for words, key, run in (
            ("Double", "Ctrl+D", self.duplicate),
            ("Copy with its tools", "Ctrl+C", lambda: self._session.wanted.emit("copy")),
            ("Paste behind it", "Ctrl+V", lambda: self._session.wanted.emit("paste")),
            ("Switch off or on", "Space", self.switch),
            ("Earlier", "", lambda: self.move_by(-1)),
            ("Later", "", lambda: self.move_by(1)),
            ("Take out", "Del", self.delete),
        ):
            menu.addAction(f"{words}\t{key}" if key else words).triggered.connect(run)
        menu.exec(self.view.viewport().mapToGlobal(at))

    def move_by(self, step: int) -> None:
        if self.current >= 0:
            self._model.move(self.current, self.current + step)

    def add(self, kind: str) -> None:
        """Put a new operation of a kind behind the selected one, with a tool that suits it."""
        job = self._session.job
        if job is None:
            return
        at = self.current + 1 if self.current >= 0 else len(job.operations)
        entry = fresh_operation(job, kind, known_threads(job.part))
        if isinstance(entry, str):
            self._session.message.emit("error", entry)
            return
        self._replace((*job.operations[:at], entry, *job.operations[at:]))
        self._session.select(operation=entry["id"])

    def duplicate(self) -> None:
        job, at = self._session.job, self.current
        if job is None or at < 0:
            return
        fresh = job.free_operation_id()
        twin = job.operations[at].changed(id=fresh)
        self._replace((*job.operations[: at + 1], twin, *job.operations[at + 1 :]))
        self._session.select(operation=fresh)

    def delete(self) -> None:
        job, at = self._session.job, self.current
        if job is not None and at >= 0:
            self._replace((*job.operations[:at], *job.operations[at + 1 :]))
            self._session.select()

    def switch(self) -> None:
        """Switch the selected operation off or on."""
        if self.current >= 0:
            chosen = self._model.operations()[self.current]
            self._session.attempt(
                lambda job: job.with_operation(chosen.id, lambda op: op.changed(enabled=not op.enabled))
            )

    def _replace(self, operations: tuple[object, ...]) -> None:
        self._session.attempt(lambda job: job.with_setup(operations=operations))

    # Selection

    def _on_current(self, current: QModelIndex, _: QModelIndex) -> None:
        operation = current.data(Qt.ItemDataRole.UserRole)
        if operation is not None and operation.id != self._session.selection.operation:
            self._session.select(operation=operation.id)

    def _on_selection(self) -> None:
        at = self.current
        model = self.view.selectionModel()
        if at < 0:
            model.clear()
        elif self.view.currentIndex().row() != at:
            self.view.setCurrentIndex(self._model.index(at))
