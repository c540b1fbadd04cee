"""Benches that answer a typed question with a table: threads, fits, and speed."""

from collections.abc import Iterable

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QComboBox, QGridLayout, QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from toreuma.app.forms.label import Label
from toreuma.app.words import tr
from toreuma.core.cutting.speed import surface_speed_rpm
from toreuma.core.errors import ToreumaError
from toreuma.core.standards.fits import Tolerance, fit_of
from toreuma.core.standards.threads import NO_LIMITS, BasicThread, Side, basic_thread, thread_of
from toreuma.core.units import System, parse, show
from toreuma.engine.library import library
from toreuma.shipped.standards import fit_tables, thread_tables

__all__ = ["FitsBench", "SpeedBench", "ThreadsBench"]

Row = tuple[str, ...]


class AnswerBench(QWidget):
    """An entry, a line that says what is wrong with it, and a table of answers."""

    hint = ""
    start = ""

    def __init__(self) -> None:
        super().__init__()
        self.entry = QLineEdit(self.start)
        self.entry.setObjectName("codeEntry")
        self.entry.setPlaceholderText(self.hint)
        self.entry.setAccessibleName(self.hint)
        self.entry.textChanged.connect(self.refresh)
        self.says = Label()
        self.says.setWordWrap(True)
        self.says.setObjectName("muted")
        self.grid = QGridLayout()
        self.grid.setHorizontalSpacing(28)
        self.grid.setVerticalSpacing(7)
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 14, 20, 14)
        column.setSpacing(10)
        top = QHBoxLayout()
        top.addWidget(self.entry, 1)
        self.add_choices(top)
        column.addLayout(top)
        column.addWidget(self.says)
        holder = QWidget()
        holder.setLayout(self.grid)
        column.addWidget(holder, 0, Qt.AlignmentFlag.AlignLeft)
        column.addStretch(1)
        self.refresh()

    def add_choices(self, row: QHBoxLayout) -> None:
        """Further widgets beside the entry."""

    def answer(self, text: str) -> tuple[str, list[Row]]:
        """A line about what was asked, and the rows of the answer, headings first. Raises `ToreumaError`."""
        raise NotImplementedError

    def refresh(self) -> None:
        while self.grid.count():
            item = self.grid.takeAt(0)
            widget = item.widget() if item else None
            if widget is not None:
                widget.hide()
                widget.deleteLater()
        try:
            words, rows = self.answer(self.entry.text().strip())
            bad = False
        except ToreumaError as error:
            words, rows, bad = f"{error.what}; {error.cure}", [], bool(self.entry.text().strip())
        self.entry.setProperty("bad", bad)
        self.entry.style().unpolish(self.entry)
        self.entry.style().polish(self.entry)
        self.says.setText(words[0].upper() + words[1:] if words else "")
        for line, row in enumerate(rows):
            for column, text in enumerate(row):
                label = Label(text)
                label.setObjectName("heading" if line == 0 else "muted" if column == 0 else "code")
                side = Qt.AlignmentFlag.AlignLeft if column == 0 else Qt.AlignmentFlag.AlignRight
                self.grid.addWidget(label, line, column, side)


class ThreadsBench(AnswerBench):
    hint = "M10x1.5-6g, 1/2-13 UNC, G1/2, Tr20x4, 1/4 NPT"
    start = "M24x2-6g"

    def answer(self, text: str) -> tuple[str, list[Row]]:
        basic = basic_thread(text)
        if basic is not None:
            return _basic_answer(basic)
        thread = thread_of(text, thread_tables())
        rows: list[Row] = [("", "from", "to", "from", "to")]
        for name, side in (("External", thread.external), ("Internal", thread.internal)):
            rows += _thread_rows(name, side)
        rows += [
            ("Depth on radius, external", *_both(thread.depth_external)),
            ("Depth on radius, internal", *_both(thread.depth_internal)),
            ("Best wire", *_both(thread.wires.best)),
            ("Over three wires, from", *_both(thread.wires.over.min)),
            ("Over three wires, to", *_both(thread.wires.over.max)),
            ("Tap drill", *_both(thread.tap_drill_mm)),
        ]
        notes = "; ".join(thread.notes)
        words = f"{thread.designation}, {thread.family}, pitch {show(thread.pitch_mm, 'mm', 'mm', trim=True)}"
        return f"{words}. {notes}{'. ' if notes else ''}{thread.source}", rows


def _basic_answer(basic: BasicThread) -> tuple[str, list[Row]]:
    """What is known of a thread whose limits are not listed."""
    rows: list[Row] = [("", "in mm", "in inch")]
    for at, name in enumerate(("External", "Internal")):
        rows += [
            (f"{name}, major Ø", *_both(basic.major_d_mm[at])),
            (f"{name}, pitch Ø", *_both(basic.pitch_d_mm)),
            (f"{name}, minor Ø", *_both(basic.minor_d_mm[at])),
            (f"{name}, depth on radius", *_both(basic.depth_mm[at])),
        ]
    loaded, other = basic.flanks_deg
    pitch = show(basic.pitch_mm, "mm", "mm", trim=True)
    words = f"{basic.designation}, {basic.family}, pitch {pitch}, flanks {loaded:g}° and {other:g}°. "
    return f"{words}{NO_LIMITS[:1].upper()}{NO_LIMITS[1:]}. {basic.source}", rows


def _thread_rows(name: str, side: Side) -> Iterable[Row]:
    for label, limits in (("major", side.major), ("pitch", side.pitch), ("minor", side.minor)):
        metric = [show(value, "mm", "mm", decimals=3).number for value in (limits.min, limits.max)]
        inch = [f"{show(value, 'mm', 'inch', decimals=4)}" for value in (limits.min, limits.max)]
        yield (f"{name} {side.tolerance}, {label} Ø", metric[0], f"{metric[1]} mm", *inch)


def _both(mm: float) -> Row:
    return f"{show(mm, 'mm', 'mm', decimals=3)}", f"{show(mm, 'mm', 'inch', decimals=4)}"


class FitsBench(AnswerBench):
    hint = "25 H7, 30 f7, 20 H7/g6"
    start = "25 H7/g6"

    def answer(self, text: str) -> tuple[str, list[Row]]:
        fit = fit_of(text, fit_tables())
        rows: list[Row] = [("", "upper", "lower", "largest", "smallest", "middle", "in inch")]
        for one in (fit.first, fit.second):
            if one is not None:
                rows.append(_fit_row(one))
        words = fit.first.source
        if fit.clearance_um is not None:
            least, most = fit.clearance_um
            words = f"{fit.kind} fit, clearance {least:+g} to {most:+g} µm (minus is interference). {words}"
        return words, rows


def _fit_row(one: Tolerance) -> Row:
    name = f"{one.nominal_mm:g} {one.zone}, {'hole' if one.is_hole else 'shaft'}"
    middle = (one.min_mm + one.max_mm) / 2
    sizes = [f"{show(value, 'mm', 'mm', decimals=4)}" for value in (one.max_mm, one.min_mm, middle)]
    return name, f"{one.upper_um:+g} µm", f"{one.lower_um:+g} µm", *sizes, f"{show(middle, 'mm', 'inch', decimals=5)}"


class SpeedBench(AnswerBench):
    """Spindle speed for a diameter, by material and tool material."""

    hint = "Diameter: 32, 1 1/4in, 30-0.2"
    start = "32"

    def add_choices(self, row: QHBoxLayout) -> None:
        self.material = QComboBox()
        self.material.setAccessibleName(tr("Material"))
        for name, one in library().materials.items():
            self.material.addItem(f"{name}  ({one.group})", name)
        self.material.activated.connect(lambda _: self.refresh())
        self.units = QComboBox()
        self.units.setAccessibleName(tr("Unit of the diameter"))
        self.units.addItem("mm", "mm")
        self.units.addItem("inch", "inch")
        self.units.activated.connect(lambda _: self.refresh())
        row.addWidget(self.units)
        row.addWidget(self.material)

    def answer(self, text: str) -> tuple[str, list[Row]]:
        system: System = self.units.currentData()
        d = parse(text, "mm", system)
        if d <= 0:
            raise ToreumaError("diameter", "a diameter is larger than nothing", "type one such as 32")
        material = library().materials[self.material.currentData()]
        rows: list[Row] = [("Tool material and cut", "surface speed", "", "spindle")]
        for row in material.speeds:
            for use, vc in (("rough", row.rough_m_min), ("finish", row.finish_m_min), ("part off", row.part_off_m_min)):
                speed = f"{show(vc, 'm/min', 'mm')}", f"{show(vc, 'm/min', 'inch')}"
                rows.append((f"{row.tool_material}, {use}", *speed, f"{show(surface_speed_rpm(vc, d), 'rpm', 'mm')}"))
        return f"Starting values at {show(d, 'mm', system)} on diameter; {material.source}", rows
