"""Left panel of the tools stage: what asks for a tool, the stations, and the store."""

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtWidgets import (
    QAbstractItemView,
    QCheckBox,
    QComboBox,
    QHBoxLayout,
    QLineEdit,
    QListView,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QStackedWidget,
    QTabBar,
    QVBoxLayout,
    QWidget,
)

from toreuma.app.forms.label import Label
from toreuma.app.forms.waiting import WaitsUnseen
from toreuma.app.picture.tool_drawing import CodeDrawing
from toreuma.app.session import Session
from toreuma.app.stages.tools.choice import ToolChoice
from toreuma.app.stages.tools.tool import sizes_of
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.advise import Wish
from toreuma.core.geometry.insert_picture import insert_picture
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Insert, Job
from toreuma.core.model.properties import properties_of
from toreuma.core.plan.turret.stations import bushing, offsets, placed, shank_fault, station_words, turned_to
from toreuma.core.units import show
from toreuma.engine.search import Entry, found_in, thing_of
from toreuma.shipped.library import catalogue

__all__ = ["ToolsPanel"]

TABS = ("To cut", "Stations", "Store")
MOST_ROWS = 300
DRAWING_PX = 170


class ToolsPanel(QWidget):
    """Three lists; the advice for the wish that is chosen stands on the right."""

    def __init__(self, session: Session, theme: Theme, choice: ToolChoice) -> None:
        super().__init__()
        self.setObjectName("panel")
        self._session, self._theme, self._choice = session, theme, choice
        self.wishes = QListWidget()
        self.wishes.setAccessibleName(tr("What asks for a tool"))
        self.wishes.setWordWrap(True)
        self.wishes.currentItemChanged.connect(self._on_wish)
        self.stations = StationList(session)
        self.store = StoreList(session, theme, choice)
        self.tabs = QTabBar()
        self.tabs.setExpanding(True)
        self.tabs.setDrawBase(False)
        self.tabs.setAccessibleName(tr("Wishes, stations or store"))
        self.pages = QStackedWidget()
        for name, widget in zip(TABS, (self.wishes, self.stations, self.store), strict=True):
            self.tabs.addTab(name)
            self.pages.addWidget(widget)
        self.tabs.currentChanged.connect(self.pages.setCurrentIndex)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 6, 0, 0)
        whole.setSpacing(0)
        whole.addWidget(self.tabs)
        whole.addWidget(self.pages, 1)
        choice.changed.connect(self._fill)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.store.drawing.set_theme(theme)

    def _fill(self) -> None:
        self.wishes.blockSignals(True)
        self.wishes.clear()
        job = self._session.job
        for wish in self._choice.wishes:
            used = _used(job, wish) if job else ""
            item = QListWidgetItem(f"{wish.words}\n{used or 'no tool yet'}")
            item.setData(Qt.ItemDataRole.UserRole, wish.key)
            item.setSizeHint(QSize(0, 44))
            self.wishes.addItem(item)
            if wish.key == self._choice.key:
                self.wishes.setCurrentItem(item)
        self.wishes.blockSignals(False)

    def _on_wish(self, item: QListWidgetItem | None) -> None:
        if item is not None:
            self._choice.choose(item.data(Qt.ItemDataRole.UserRole))


def _used(job: Job, wish: Wish) -> str:
    """The tools of the operations that cut this."""
    ids = dict.fromkeys(op.tool for op in job.operations if op.enabled and wish.is_cut_by(op, job.tool(op.tool)))
    names = [f"{tool.id}  {tool.name}" for tool in (job.tool(one) for one in ids) if tool is not None]
    return ", ".join(names)


class StationList(WaitsUnseen, QWidget):
    """Every station with its tool; tools are dragged from one to another. The offsets to set stand beside them."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.list = _DropList()
        self.list.setAccessibleName(tr("Stations"))
        self.list.setWordWrap(True)
        self.list.setResizeMode(QListView.ResizeMode.Adjust)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.setDragDropMode(QAbstractItemView.DragDropMode.InternalMove)
        self.list.setDefaultDropAction(Qt.DropAction.IgnoreAction)
        self.list.moved.connect(self._on_moved)
        self.master = QComboBox()
        self.master.setAccessibleName(tr("Offsets"))
        self.master.activated.connect(lambda _: self._fill_list())
        self.turn = QPushButton(tr("Turn to the other spindle"))
        self.turn.clicked.connect(self._turn)
        self.remove = QPushButton(tr("Take the tool out"))
        self.remove.clicked.connect(self._remove)
        column = QVBoxLayout(self)
        column.setContentsMargins(10, 8, 10, 10)
        head = QHBoxLayout()
        name = Label(tr("Offsets"))
        name.setObjectName("muted")
        head.addWidget(name)
        head.addWidget(self.master, 1)
        column.addLayout(head)
        column.addWidget(self.list, 1)
        row = QHBoxLayout()
        row.addWidget(self.remove)
        row.addWidget(self.turn)
        row.addStretch(1)
        column.addLayout(row)
        session.job_changed.connect(self.refresh)

    def _fill(self) -> None:
        job = self._session.job
        if job is None:
            return
        now = self.master.currentData()
        self.master.clear()
        self.master.addItem("each tool by itself", None)
        for tool in sorted(job.tools, key=lambda t: t.station):
            self.master.addItem(f"against {tool.id}, the master", tool.id)
        self.master.setCurrentIndex(max(self.master.findData(now), 0))
        self.turn.setVisible(job.machine.second is not None)
        self._fill_list()

    def _fill_list(self) -> None:
        job = self._session.job
        if job is None:
            return
        row = self.list.currentRow()
        self.list.clear()
        by_station = {one.station: one for one in offsets(job, self.master.currentData())}
        for number in range(1, job.machine.stations + 1):
            one = by_station.get(number)
            text = f"{number:>2}   free"
            if one is not None:
                x, z, nose = (
                    show(value, "mm", job.units, trim=True) for value in (one.x_mm, one.z_mm, one.nose_radius_mm)
                )
                fault = shank_fault(one.tool, job.machine)
                name = one.tool.name.replace(" in ", "\n      in ", 1)
                text = f"{number:>2}   {one.tool.id}  {name}"
                text += f"\n      X {x} on Ø, Z {z}\n      R {nose}, nose {one.nose}"
                side = f", {one.tool.spindle} spindle" if job.machine.second is not None else ""
                fitting = bushing(one.tool, job.machine)
                text += f"\n      {one.tool.hand} hand{side}" + (f", {fitting}" if fitting else "")
                text += f"\n      {fault}" if fault else ""
            words = station_words(number, job.machine)
            text += f"   ({words})" if words and one is None else ""
            item = QListWidgetItem(text)
            item.setData(Qt.ItemDataRole.UserRole, (number, one.tool.id if one is not None else ""))
            self.list.addItem(item)
        self.list.setCurrentRow(row)

    def _on_moved(self, source: int, target: int) -> None:
        """A tool was dropped on another station."""
        held = self.list.item(source).data(Qt.ItemDataRole.UserRole)
        station = self.list.item(target).data(Qt.ItemDataRole.UserRole)[0]
        if held[1]:
            self.move_tool(held[1], station)

    def move_tool(self, tool_id: str, station: int) -> None:
        """Put a tool into a station; who sat there takes its place."""
        self._session.attempt(lambda job: placed(job, tool_id, station))

    def selected(self) -> str:
        """The id of the tool in the selected station."""
        item = self.list.currentItem()
        return str(item.data(Qt.ItemDataRole.UserRole)[1]) if item is not None else ""

    def _turn(self) -> None:
        tool = self.selected()
        if tool:
            self._session.attempt(lambda job: turned_to(job, tool))

    def _remove(self) -> None:
        held = self.selected()
        job = self._session.job
        if not held or job is None:
            return
        users = [op.name or op.id for op in job.operations if held in op.tools]
        if users:
            self._session.message.emit(
                "error", f"{held}: it is used by {', '.join(users)}; give those another tool first"
            )
            return
        self._session.attempt(lambda j: j.changed(tools=tuple(t for t in j.tools if t.id != held)))


class _DropList(QListWidget):
    """Tells which row was dropped on which, and leaves the order to whoever listens."""

    moved = Signal(int, int)

    def dropEvent(self, event) -> None:  # type: ignore[no-untyped-def]
        source, target = self.currentRow(), self.indexAt(event.position().toPoint()).row()
        event.ignore()
        if source >= 0 and target >= 0 and source != target:
            self.moved.emit(source, target)


class StoreList(QWidget):
    """Search of catalogue and rack by code, property, or what fits the wish."""

    def __init__(self, session: Session, theme: Theme, choice: ToolChoice) -> None:
        super().__init__()
        self._session, self._choice = session, choice
        self.search = QLineEdit()
        self.search.setObjectName("search")
        self.search.setPlaceholderText(tr("CNMG, Ø 8.5, 55°, R 0.4, rack, thread …"))
        self.search.setAccessibleName(tr("Search the store"))
        self.search.textChanged.connect(self._fill)
        self.list = QListWidget()
        self.list.setAccessibleName(tr("Tools in the store"))
        self.list.setWordWrap(True)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.fits = QCheckBox(tr("Only what does the chosen cut"))
        self.fits.toggled.connect(self._fill)
        self.drawing = CodeDrawing(theme)
        self.drawing.setFixedHeight(DRAWING_PX)
        self.list.currentItemChanged.connect(self._draw)
        self.count = Label()
        self.count.setObjectName("muted")
        self.keep = QPushButton(tr("Put on my rack"))
        self.keep.clicked.connect(self._keep)
        self.load = QPushButton(tr("Read a list…"))
        self.load.clicked.connect(lambda: session.wanted.emit("read_rack"))
        self.save = QPushButton(tr("Write a list…"))
        self.save.clicked.connect(lambda: session.wanted.emit("write_rack"))
        column = QVBoxLayout(self)
        column.setContentsMargins(10, 8, 10, 10)
        column.addWidget(self.search)
        column.addWidget(self.fits)
        column.addWidget(self.count)
        column.addWidget(self.list, 1)
        column.addWidget(self.drawing)
        row = QHBoxLayout()
        for button in (self.keep, self.load, self.save):
            row.addWidget(button)
        column.addLayout(row)
        self.drawing.hide()
        choice.changed.connect(self._fill)
        choice.rack_changed.connect(self._fill)
        self._fill()

    def entries(self) -> list[Entry]:
        """What the search finds."""
        found = found_in(catalogue(), self._choice.rack, self.search.text())
        advice = self._choice.advice
        if not self.fits.isChecked() or advice is None:
            return found
        fit = {code for one in advice.candidates for code in one.codes}
        return [entry for entry in found if entry.code in fit]

    def _fill(self) -> None:
        if not self.isVisible() and self.list.count():
            return
        row = self.list.currentRow()
        self.list.clear()
        found = self.entries()
        for entry in found[:MOST_ROWS]:
            item = QListWidgetItem(f"{entry.code}\n{entry.words}")
            item.setData(Qt.ItemDataRole.UserRole, entry.code)
            self.list.addItem(item)
        self.list.setCurrentRow(min(row, self.list.count() - 1))
        more = f", the first {MOST_ROWS} stand here" if len(found) > MOST_ROWS else ""
        self.count.setText(f"{len(found)} found{more}")

    def showEvent(self, event) -> None:  # type: ignore[no-untyped-def]
        super().showEvent(event)
        self._fill()

    def _draw(self, item: QListWidgetItem | None) -> None:
        """The one that is selected, to scale."""
        code = item.data(Qt.ItemDataRole.UserRole) if item is not None else ""
        thing = thing_of(catalogue(), code)
        self.drawing.setVisible(thing is not None)
        if thing is None:
            self.drawing.show_nothing()
        elif isinstance(thing, Insert):
            self.drawing.show_insert(thing, insert_picture(thing))
        else:
            self.drawing.show_tool(shape_of(thing), sizes_of(properties_of(thing), self._session.system))

    def _keep(self) -> None:
        item = self.list.currentItem()
        if item is not None:
            self._choice.put_on_rack(item.data(Qt.ItemDataRole.UserRole))
