"""Materials: every value with where it comes from, and the person's own values in place of those that ship."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QAbstractItemView,
    QComboBox,
    QHBoxLayout,
    QHeaderView,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from toreuma.app.forms.label import Label
from toreuma.app.session import Session
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.units import parse, show
from toreuma.engine.library import keep_value, library
from toreuma.files.own_materials import FIELDS, speed_fields, value_of
from toreuma.shipped.library import material_sources, materials

__all__ = ["MaterialsBench"]

NAMES: dict[str, tuple[str, str]] = {
    "kc11_n_mm2": ("specific cutting force kc1.1", "N/mm2"),
    "mc": ("exponent mc", "ratio"),
    "density_kg_m3": ("density, kg/m³", "ratio"),
    "hardness_hb": ("hardness, HB", "ratio"),
    "e_n_mm2": ("Young's modulus", "N/mm2"),
    "conductivity_w_m_k": ("thermal conductivity, W/(m K)", "ratio"),
    "heat_j_kg_k": ("specific heat, J/(kg K)", "ratio"),
    "finish_ratio": ("finish found over theory", "ratio"),
    "alpha_um_m_k": ("thermal expansion, µm/(m K)", "ratio"),
    "rough_m_min": ("roughing", "m/min"),
    "finish_m_min": ("finishing", "m/min"),
    "part_off_m_min": ("parting off", "m/min"),
    "exponent": ("Taylor exponent m", "ratio"),
}
SHIPPED, OWN, SOURCE = 1, 2, 3
OWN_PX = 130
HEADINGS = ("Value", "Shipped", "Own", "Where it comes from")


class MaterialsBench(QWidget):
    """Typing an own value or where it comes from keeps it; clearing the own value goes back to what ships."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self._filling = False
        self.choice = QComboBox()
        self.choice.setAccessibleName(tr("Material"))
        for name, one in materials().items():
            self.choice.addItem(f"{name}  ({one.group})", name)
        self.choice.setCurrentIndex(max(self.choice.findData("C45"), 0))
        self.choice.activated.connect(lambda _: self.refresh())
        self.says = Label()
        self.says.setWordWrap(True)
        self.use = QPushButton(tr("Use in this job"))
        self.use.clicked.connect(self._into_job)
        self.table = QTableWidget(0, len(HEADINGS))
        self.table.setObjectName("materialTable")
        self.table.setAccessibleName(tr("Values of the material"))
        self.table.setHorizontalHeaderLabels(HEADINGS)
        self.table.verticalHeader().hide()
        self.table.setShowGrid(False)
        self.table.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        header = self.table.horizontalHeader()
        header.setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
        header.setStretchLastSection(True)
        header.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        header.setSectionResizeMode(OWN, QHeaderView.ResizeMode.Fixed)
        header.resizeSection(OWN, OWN_PX)
        self.table.itemChanged.connect(self._typed)
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 14, 20, 14)
        column.setSpacing(10)
        top = QHBoxLayout()
        top.addWidget(self.choice, 1)
        top.addWidget(self.use)
        column.addLayout(top)
        column.addWidget(self.says)
        column.addWidget(self.table, 1)
        session.job_changed.connect(self._follow_job)
        self.refresh()

    @property
    def name(self) -> str:
        """The material shown."""
        return str(self.choice.currentData())

    def _fields(self) -> list[str]:
        return [*FIELDS, *speed_fields(materials()[self.name])]

    def refresh(self) -> None:
        """Show the material as it ships and as the person has it."""
        shipped, sources = materials()[self.name], material_sources()
        own = library().own.get(self.name, {})
        problem = next(iter(library().problems), None)
        if problem is not None:
            self._say("error", f"{problem.where}: {problem.what}; {problem.cure}")
        else:
            kept = (
                f"{len(own)} own value{'s' if len(own) != 1 else ''}."
                if own
                else "No own values: type one beside the value that ships."
            )
            caution = f" {shipped.caution}" if shipped.caution else ""
            self._say("muted", f"ISO 513 group {shipped.group}. Coolant: {shipped.coolant}. {kept}{caution}")
        self._filling = True
        fields = self._fields()
        self.table.setRowCount(len(fields))
        for row, field in enumerate(fields):
            tool, _, bare = field.rpartition(".")
            words, unit = NAMES[bare]
            mine = own.get(field, {})
            origin = sources.get(bare if bare == "exponent" else "speeds" if tool else field, shipped.source)
            cells = (
                f"{tool}, {words}" if tool else words,
                _text(value_of(shipped, field), unit),
                _text(mine.get("value"), unit) if mine else "",
                str(mine.get("source", "")) if mine else origin,
            )
            for column, text in enumerate(cells):
                item = QTableWidgetItem(text)
                typed = column == OWN or (column == SOURCE and bool(mine))
                editable = Qt.ItemFlag.ItemIsEditable if typed else Qt.ItemFlag.NoItemFlags
                item.setFlags(Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable | editable)
                if column in (SHIPPED, OWN):
                    item.setTextAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
                self.table.setItem(row, column, item)
        self._filling = False
        self._follow_job()

    def _typed(self, item: QTableWidgetItem) -> None:
        """Keep what was typed; what cannot be is said, and stays in its cell."""
        if self._filling:
            return
        field = self._fields()[item.row()]
        unit = NAMES[field.rpartition(".")[2]][1]
        cells = (self.table.item(item.row(), column) for column in (OWN, SOURCE))
        own, source = (cell.text().strip() if cell is not None else "" for cell in cells)
        if item.column() == OWN and source in material_sources().values():
            source = "own"
        try:
            value = parse(own, unit, "mm") if own else None
            keep_value(self.name, field, value, source)
        except ToreumaError as error:
            self._say("error", f"{error.where}: {error.what}; {error.cure}")
            return
        self.refresh()

    def _say(self, name: str, text: str) -> None:
        self.says.setObjectName(name)
        self.says.style().unpolish(self.says)
        self.says.style().polish(self.says)
        self.says.setText(text)

    def _follow_job(self) -> None:
        """The button is there when the open job is of this material, with other values."""
        job = self._session.job
        same = job is not None and job.stock.material.name == self.name
        self.use.setVisible(same and job is not None and job.stock.material != library().materials[self.name])

    def _into_job(self) -> None:
        material = library().materials[self.name]
        self._session.attempt(lambda job: job.changed(stock=job.stock.changed(material=material)))


def _text(value: float | None, unit: str) -> str:
    if value is None:
        return "–"
    return f"{value:g}" if unit == "ratio" else str(show(value, unit, "mm", trim=True))
