"""The shop as a page: kinds at the left, entries beside them, the chosen one with its drawing and every number."""

from collections.abc import Callable
from pathlib import Path
from typing import Any

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import (
    QFileDialog,
    QHBoxLayout,
    QLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from toreuma.app.forms.flow import Flow
from toreuma.app.forms.label import Label
from toreuma.app.picture.tool_drawing import CodeDrawing
from toreuma.app.session import Session
from toreuma.app.stages.shop.drawing import ShopDrawing
from toreuma.app.stages.shop.form import ShopForm
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.errors import JobError, ToreumaError
from toreuma.core.geometry.insert_picture import insert_picture
from toreuma.core.geometry.shop_picture import Piece, hold_picture, machine_picture, rest_picture
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.engine.library import keep_entry, library
from toreuma.engine.own_dialects import otherwise
from toreuma.engine.shop import by_likeness, called, drop, exported, keep, of_shop, taken_in, tool_shown
from toreuma.files.shop import shop_folder
from toreuma.files.writing import write_atomically

__all__ = ["ShopPage"]

KINDS = (
    ("machine", "Machines", "lathes and mill-turns"),
    ("hold", "Holds", "chucks, collets, drivers"),
    ("centre", "Centres", "what supports the front"),
    ("rest", "Rests", "steady and follow rests"),
    ("material", "Materials", "what parts are made of"),
    ("tool", "Tools", "drills, blades, taps, mills"),
    ("insert", "Inserts", "by code or by sizes"),
    ("holder", "Holders and bars", "by code or by sizes"),
    ("rack", "Rack", "edges left, place, price"),
    ("dialect", "Program words", "as controls want them"),
    ("bar", "Bars and prices", "what lies in the rack"),
    ("rules", "House rules", "how a job begins"),
)
KINDS_PX, LIST_PX = 190, 250
CUTTING = ("tool", "insert", "holder")
PICTURES: dict[str, Callable[[Any], list[Piece]]] = {
    "machine": machine_picture,
    "hold": hold_picture,
    "rest": rest_picture,
}


class ShopPage(QWidget):
    """Entries that ship can be read; one of the person's own begins like another and is kept as it is typed."""

    used = Signal(str, object)
    """A kind and a value that the open job should use."""

    def __init__(self, theme: Theme, session: Session) -> None:
        super().__init__()
        self.setObjectName("page")
        self._session = session
        self.kinds = QListWidget()
        self.kinds.setAccessibleName(tr("Kinds of things in the shop"))
        self.kinds.setFixedWidth(KINDS_PX)
        self.kinds.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        for _, words, more in KINDS:
            self.kinds.addItem(f"{tr(words)}\n{tr(more)}")
        self.filter = QLineEdit()
        self.filter.setObjectName("search")
        self.filter.setPlaceholderText(tr("Look for a name"))
        self.filter.setAccessibleName(tr("Look for a name in the shop"))
        self.list = QListWidget()
        self.list.setAccessibleName(tr("Entries of the shop"))
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.new_name = QLineEdit()
        self.new_name.setObjectName("search")
        self.new_name.setPlaceholderText(tr("Name of a new one like this"))
        self.new_name.setAccessibleName(tr("Name of a new entry like the one that is shown"))
        self.new = QPushButton(tr("New"))
        self.new.setToolTip(tr("An entry of your own that begins like the one that is shown, under this name (Enter)"))
        self.remove = QPushButton(tr("Take out"))
        self.take_in = QPushButton(tr("Import…"))
        self.hand_on = QPushButton(tr("Export…"))
        self.use = QPushButton(tr("Use in this job"))
        self.title, self.source = Label(), QLineEdit()
        self.title.setObjectName("title")
        self.source.setObjectName("name")
        self.source.setPlaceholderText(tr("Where its values come from"))
        self.source.setAccessibleName(tr("Where its values come from"))
        self.says = Label()
        self.says.setWordWrap(True)
        self.drawing = ShopDrawing(theme)
        self.tool_drawing = CodeDrawing(theme)
        self.tool_drawing.hide()
        self.form = ShopForm()
        self._lay_out()
        self._name = ""
        self.kinds.currentRowChanged.connect(lambda _: self.refresh())
        self.filter.textChanged.connect(lambda _: self.refresh())
        self.list.currentItemChanged.connect(lambda now, _: self._choose(now))
        self.new.clicked.connect(self._on_new)
        self.new_name.returnPressed.connect(self._on_new)
        self.remove.clicked.connect(self._remove)
        self.take_in.clicked.connect(self._ask_import)
        self.hand_on.clicked.connect(self._ask_export)
        self.use.clicked.connect(lambda: self.used.emit(self.kind, self.form.value))
        self.form.changed.connect(self._keep)
        self.source.editingFinished.connect(self._on_source)
        session.job_changed.connect(self._on_job)
        self.kinds.setCurrentRow(0)

    def _lay_out(self) -> None:
        left = QVBoxLayout()
        left.setContentsMargins(8, 10, 8, 10)
        left.setSpacing(6)
        left.addWidget(self.filter)
        left.addWidget(self.list, 1)
        for widgets in ((self.new_name, self.new), (self.remove, self.take_in, self.hand_on)):
            row: QLayout = QHBoxLayout() if self.new in widgets else Flow(gap_px=4)
            row.setSpacing(4)
            for widget in widgets:
                row.addWidget(widget)
            left.addLayout(row)
        holder = QWidget()
        holder.setLayout(left)
        holder.setFixedWidth(LIST_PX)
        top = QHBoxLayout()
        top.setContentsMargins(18, 10, 14, 0)
        top.addWidget(self.title)
        top.addSpacing(12)
        top.addWidget(self.source, 1)
        top.addWidget(self.use)
        self.says.setContentsMargins(18, 0, 14, 0)
        right = QVBoxLayout()
        right.setContentsMargins(0, 0, 0, 0)
        right.setSpacing(6)
        right.addLayout(top)
        right.addWidget(self.says)
        right.addWidget(self.drawing, 2)
        right.addWidget(self.tool_drawing, 2)
        right.addWidget(self.form, 3)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self.kinds)
        row.addWidget(holder)
        row.addLayout(right, 1)

    def set_theme(self, theme: Theme) -> None:
        self.drawing.set_theme(theme)
        self.tool_drawing.set_theme(theme)

    @property
    def kind(self) -> str:
        return KINDS[max(self.kinds.currentRow(), 0)][0]

    # What is shown

    def open(self, kind: str, name: str = "") -> None:
        """Show a kind, and an entry of it. Raises `JobError`."""
        row = next((i for i, one in enumerate(KINDS) if kind.lower() in (one[0], one[1].lower())), None)
        if row is None:
            raise JobError(f"shop {kind}", "there is no such page", f"choose from {', '.join(k for k, _, _ in KINDS)}")
        self.filter.clear()
        self._name = name or self._name
        self.kinds.setCurrentRow(row)
        self.refresh()

    def refresh(self) -> None:
        """The entries as they lie in the shop now, the one that was shown still shown."""
        words = self.filter.text().split()
        rows = called(self.kind, self.filter.text())
        self.list.blockSignals(True)
        self.list.clear()
        for name, own in rows:
            item = QListWidgetItem(f"{name}    own" if own else name)
            item.setData(Qt.ItemDataRole.UserRole, name)
            item.setData(Qt.ItemDataRole.UserRole + 1, own)
            self.list.addItem(item)
        names = [name for name, _ in rows]
        self.list.setCurrentRow(names.index(self._name) if self._name in names else 0)
        self.list.blockSignals(False)
        if not rows and words:
            self._say("muted", f"Nothing here is called {self.filter.text().strip()!r}; type a name below to make it.")
        self._choose(self.list.currentItem())
        problems = library().shop.problems
        if problems:
            self._say("error", f"{len(problems)} of the shop cannot be used: " + "; ".join(map(str, problems[:3])))

    def _choose(self, item: QListWidgetItem | None) -> None:
        self._say("", "")
        if item is None:
            empty = {"bar": "No bars of your own yet", "rack": "Nothing on the rack yet"}
            self.title.setText(empty.get(self.kind, "Nothing chosen"))
            self._show(None, False)
            if self.kind == "rack":
                self._say("muted", "Type the code from the box below; a table comes in with Import, or by dropping it.")
            if self.kind == "bar":
                self._say("muted", "The usual sizes are offered until you say what lies in your rack.")
            return
        self._name = str(item.data(Qt.ItemDataRole.UserRole))
        own = bool(item.data(Qt.ItemDataRole.UserRole + 1)) or self.kind == "rules"
        self.title.setText(self._name)
        self._show(of_shop(self.kind).get(self._name), own)

    def _show(self, value: Any, own: bool) -> None:
        entry = library().shop.of(self.kind).get(self._name) if own else None
        self.source.setText(
            entry.source
            if entry is not None
            else ""
            if self.kind in ("rack", "rules") or not value
            else "ships with Toreuma: typical"
        )
        self.source.setEnabled(entry is not None)
        self.remove.setEnabled(entry is not None or (self.kind == "rack" and value is not None))
        self.hand_on.setEnabled(value is not None)
        try:
            self.form.show_value(self.kind, value, self._session.system, own, self._name)
        except ToreumaError as error:  # an entry whose file somebody spoiled
            self._say("error", f"{error.where}: {error.what}; mend its file in {shop_folder()}, or take it out")
            self.form.show_value(self.kind, value := None, self._session.system, False, self._name)
        self._draw(value)
        self._on_job()
        if self.kind == "dialect" and own and value is not None:
            self._say("muted", otherwise(value))

    def _draw(self, value: Any) -> None:
        picture = PICTURES.get(self.kind)
        self.drawing.setVisible(picture is not None and value is not None)
        if picture is not None and value is not None:
            self.drawing.show_pieces(picture(value), self._session.system)
        self.tool_drawing.setVisible(self.kind in CUTTING and value is not None)
        if self.kind == "insert" and value is not None:
            self.tool_drawing.show_insert(value, insert_picture(value))
        elif self.kind in CUTTING and value is not None:
            self.tool_drawing.show_tool(shape_of(tool_shown(value)))

    def _on_job(self) -> None:
        usable = self.kind in ("machine", "hold", "rest", "material") and self.form.value is not None
        self.use.setVisible(usable and self._session.job is not None)

    def _say(self, name: str, text: str) -> None:
        self.says.setObjectName(name or "muted")
        self.says.style().unpolish(self.says)
        self.says.style().polish(self.says)
        self.says.setText(text)
        self.says.setVisible(bool(text))

    # What is done

    def _keep(self, value: Any) -> None:
        """An own entry is kept as it is typed."""
        entry = library().shop.of(self.kind).get(self._name)
        name = self._name or "house rules"
        try:
            keep(self.kind, name, value, entry.source if entry is not None else "own")
        except ToreumaError as error:
            self._say("error", str(error))
            return
        self.form.show_value(self.kind, value, self._session.system, True, self._name)
        self._draw(value)
        self._say("muted", otherwise(value) if self.kind == "dialect" else "")

    def _on_source(self) -> None:
        entry = library().shop.of(self.kind).get(self._name)
        if entry is not None and self.source.text().strip() != entry.source:
            self._attempt(lambda: keep_entry(self.kind, self._name, entry.value, self.source.text()))

    def _attempt(self, change: Any) -> bool:
        try:
            change()
        except ToreumaError as error:
            self._say("error", f"{error.where}: {error.what}; {error.cure}")
            return False
        return True

    def _on_new(self) -> None:
        name = self.new_name.text().strip()
        if not name:
            self._say("warning", "Type a name for it first, below the list.")
            self.new_name.setFocus()
            return
        self.make_new(name, self._name if self.list.count() and self.kind != "rules" else "")

    def make_new(self, name: str, like: str = "") -> None:
        """An entry of the person's own, like another one."""
        if name in library().shop.of(self.kind):
            self._say("error", f"There is a {self.kind} of your own called {name}; choose another name.")
            return
        size = next((float(word) for word in name.split() if word.replace(".", "", 1).isdigit()), 30.0)
        first = [("size_mm", size)] if self.kind == "bar" and not like else []
        if self._attempt(lambda: by_likeness(self.kind, name, like, first, "own")):
            self.filter.clear()
            self.new_name.clear()
            self._name = name
            self.refresh()
            first_row = next(iter(self.form.rows.values()), None)
            if first_row is not None:
                first_row.entry.setFocus()

    def _remove(self) -> None:
        """Take the own entry out; its file stays beside it, renamed."""
        if self._attempt(lambda: drop(self.kind, self._name)):
            gone, self._name = self._name, ""
            self.refresh()
            self._say("muted", f"{gone} is taken out; its file stays in {shop_folder()} with ~ after its name.")

    def _ask_import(self) -> None:
        if self.kind == "rack":
            self._session.wanted.emit("read_rack")
            return
        name, _ = QFileDialog.getOpenFileName(self, "Take entries into the shop", "", "Entries (*.json);;All files (*)")
        if name:
            self.import_from(Path(name))

    def import_from(self, path: Path) -> None:
        """Take the entries of a file in."""
        try:
            names, problems = taken_in(path)
        except ToreumaError as error:
            self._say("error", str(error))
            return
        self.refresh()
        words = f"Taken in: {', '.join(names[:6])}{' …' if len(names) > 6 else ''}." if names else "Nothing taken in."
        fault = "; ".join(str(one) for one in problems[:3])
        self._say("error" if problems else "ok", f"{words} {fault}".strip())

    def _ask_export(self) -> None:
        if self.kind == "rack":
            self._session.wanted.emit("write_rack")
            return
        start = f"{self._name}.json"
        name, _ = QFileDialog.getSaveFileName(self, "Write the entry", start, "Entries (*.json)")
        if name:
            self.export_to(Path(name))

    def export_to(self, path: Path) -> None:
        """Write the entry that is shown."""
        try:
            write_atomically(path, exported(self.kind, self._name))
        except (OSError, ToreumaError) as error:
            self._say("error", f"{path.name}: it cannot be written ({error}); choose another place")
            return
        self._say("ok", f"Written: {path.name}")
