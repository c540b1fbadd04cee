"""What is known of the program: how it is read and why, its blank, its tools, what was found, and the chosen line."""

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from toreuma.app.forms.column import ScrollColumn, heading
from toreuma.app.forms.label import Label
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.findings import Finding
from toreuma.core.meanings import OF_THE_MACHINE
from toreuma.core.read.sentence import words_of
from toreuma.core.read.text_cures import TextCure, text_cures
from toreuma.core.spoken import spoken
from toreuma.core.units import System, show
from toreuma.engine.against import Against
from toreuma.engine.check_report import kind_in
from toreuma.engine.library import library
from toreuma.engine.piece_words import piece_lines
from toreuma.engine.study import Cut, Study

__all__ = ["KnownPanel"]

MOST_FINDINGS, MOST_VARIABLES = 60, 20
FIELDS = (
    ("code", "insert", 120),
    ("width_mm", "width", 62),
    ("d_mm", "Ø", 52),
    ("nose_mm", "nose", 62),
    ("tip", "tip", 48),
)
"""What can be said of a tool, its words, and the room it takes."""


class KnownPanel(ScrollColumn):
    """Everything here is asked of the study; what the person says goes out as signals and comes back as another one."""

    said = Signal(str, object)
    """A field and its value: "dialect", "machine", "blank", ("tool", station, key), ("word", M word)."""

    line_chosen = Signal(int)
    cured = Signal(object)

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self.system: System = "mm"
        self.fields: dict[str, QLineEdit] = {}

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme

    against: Against | None = None
    """What came of holding the text against the open job, until it is changed."""

    def show_study(self, study: Study, cut: Cut | None) -> None:
        """Build the panel anew. A field that is being typed into keeps its text and the cursor."""
        typing = next((name for name, field in self.fields.items() if field.hasFocus()), "")
        kept = (self.fields[typing].text(), self.fields[typing].cursorPosition()) if typing else ("", 0)
        self.clear()
        self.fields = {}
        if self.against is not None:
            self._against(self.against)
        self._reading(study)
        self._findings(study, cut)
        self._blank(study)
        self._tools(study)
        if cut is not None:
            self._piece(cut)
        self.column.addStretch(1)
        if typing in self.fields:
            field = self.fields[typing]
            field.setText(kept[0])
            field.setFocus()
            field.setCursorPosition(kept[1])
        self.settle()

    def _against(self, held: Against) -> None:
        """The verdict over the part, and what speaks against it."""
        self.column.addWidget(heading("Against the open job"))
        words = Label(f"{held.name}: {spoken(held.verdict.words, self.system)}")
        words.setWordWrap(True)
        words.setObjectName("ok" if held.verdict.finished else "error")
        self.column.addWidget(words)
        for what in held.open:
            self._muted(spoken(what, self.system))
        for finding in held.findings:
            button = QPushButton(spoken(finding.what, self.system)[:120])
            button.setFlat(True)
            button.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
            button.setStyleSheet("text-align: left; border: none; padding: 1px;")
            button.clicked.connect(lambda _=False, line=finding.line or 1: self.line_chosen.emit(line))
            self.column.addWidget(button)

    # parts -------------------------------------------------------------------------------------------------------

    def _reading(self, study: Study) -> None:
        self.column.addWidget(heading("How it is read"))
        row = QGridLayout()
        row.setHorizontalSpacing(8)
        words, machine = QComboBox(), QComboBox()
        words.setAccessibleName(tr("Words of the program"))
        machine.setAccessibleName(tr("Machine it runs on"))
        words.addItem(tr("as it looks"), None)
        for name in library().dialects:
            words.addItem(library().dialect(name).name, name)
        machine.addItem(tr("no machine named"), None)
        for name in library().machines:
            machine.addItem(library().machines[name].name, name)
        words.setCurrentIndex(max(words.findData(study.asked.dialect), 0))
        machine.setCurrentIndex(max(machine.findData(study.asked.machine), 0))
        words.activated.connect(lambda _: self.said.emit("dialect", words.currentData()))
        machine.activated.connect(lambda _: self.said.emit("machine", machine.currentData()))
        for box in (words, machine):
            box.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
            box.setMinimumContentsLength(12)
        for n, (text, box) in enumerate(((tr("Words"), words), (tr("Machine"), machine))):
            label = Label(text)
            label.setObjectName("muted")
            row.addWidget(label, n, 0)
            row.addWidget(box, n, 1)
        row.setColumnStretch(1, 1)
        self._row(row)
        because: list[str] = []
        if (guess := study.guess) is not None:
            where = tr("line")
            because = [f"{one.what} ({where} {one.line})" for one in (*guess.because[:3], *guess.whole_because)]
            because += [f"{guess.units}: {one.what}" for one in guess.units_because]
        text = f"{study.dialect.name}" + (": " + "; ".join(because) if because else "")
        self._muted(text)
        self._reach(study)
        self._switches(study)
        self._open_numbers(study)

    def _reach(self, study: Study) -> None:
        """How far it goes, how many moves, and what is called."""
        seen = study.overview
        parts = [f"{len(study.program.motions)} {tr('moves')}"]
        for words, place in (("deepest Z", seen.deepest), ("outermost Ø", seen.outermost)):
            if place is not None:
                parts.append(f"{tr(words)} {self._each((place.mm,), 'mm')} ({tr('line')} {place.line})")
        if seen.parts > 1:
            parts.append(f"{seen.parts} {tr('parts in one run')}")
        if seen.missing:
            parts.append(
                f"{tr('programs that are missing')}: {', '.join(f'O{one}' for one in dict.fromkeys(seen.missing))}"
            )
        self._muted(", ".join(parts))

    def _switches(self, study: Study) -> None:
        """Blocks that a switch leaves out."""
        for number in study.overview.skips:
            box = QCheckBox(f"{tr('leave blocks out that begin with')} /{number if number > 1 else ''}")
            box.setChecked(number in study.given.skipped)
            box.toggled.connect(lambda on, number=number: self.said.emit(f"skip {number}", on))
            self.column.addWidget(box)

    def _open_numbers(self, study: Study) -> None:
        """Variables that nothing sets, to be given."""
        names = list(dict.fromkeys((*(f"#{one}" for one in study.given.variables), *study.overview.variables)))
        for name in names[:MOST_VARIABLES]:
            held = study.given.variables.get(int(name[1:]))
            entry = QLineEdit("" if held is None else f"{held:g}")
            entry.setPlaceholderText(tr("not set"))
            entry.setAccessibleName(f"{tr('Value of')} {name}")
            entry.setMaximumWidth(90)
            entry.editingFinished.connect(self._teller(f"variable {name}", entry, "" if held is None else f"{held:g}"))
            self.fields[f"variable {name}"] = entry
            row = QGridLayout()
            label = Label(name)
            label.setObjectName("muted")
            row.addWidget(label, 0, 0)
            row.addWidget(entry, 0, 1)
            row.setColumnStretch(2, 1)
            self._row(row)

    def _blank(self, study: Study) -> None:
        self.column.addWidget(heading("Blank"))
        entry = QLineEdit(study.asked.blank)
        hole = f" d{study.blank.bore_mm:g}" if study.blank.bore_mm else ""
        usual = f"D{study.blank.d_mm:g}{hole} L{study.blank.length_mm:g}"
        entry.setPlaceholderText(usual if study.blank_is_usual else "D50 L80 Z1 J-60")
        entry.setAccessibleName(tr("Blank in one line"))
        entry.editingFinished.connect(lambda: self._say_if_new("blank", entry.text(), study.asked.blank))
        entry.setProperty("topic", "program-files")
        self.fields["blank"] = entry
        self.column.addWidget(entry)
        fault = next((one for one in study.faults if one.where == "blank"), None)
        if fault is not None:
            self._fault(f"{fault.what}; {fault.cure}")
        elif study.blank_is_usual:
            self._muted(tr("by what is cut; Z is its front, J the front of the jaws"))

    def _tools(self, study: Study) -> None:
        self.column.addWidget(heading("Tools in order of use"))
        for use, one in zip(study.overview.tools, study.tools, strict=True):
            self._tool(study, use, one)
        fault = next((one for one in study.faults if one.where != "blank"), None)
        if fault is not None:
            self._fault(str(fault))

    def _tool(self, study: Study, use: Any, one: Any) -> None:
        card = QFrame()
        card.setObjectName("card")
        column = QVBoxLayout(card)
        column.setContentsMargins(8, 5, 8, 6)
        column.setSpacing(3)
        comment = next(iter(use.comments), "")
        head = QPushButton(
            f"{use.station}  {tr(one.tool.kind.replace('_', ' '))}" + (f", {comment}" if comment else "")
        )
        head.setFlat(True)
        head.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        head.setStyleSheet("text-align: left; font-weight: bold; border: none; padding: 0px;")
        head.clicked.connect(lambda _=False, line=use.line: self.line_chosen.emit(line))
        column.addWidget(head)
        column.addWidget(_small(self._does(use)))
        said = study.asked.tools.get(use.station, {})
        row = QHBoxLayout()
        row.setSpacing(4)
        for key, words, width in FIELDS:
            if not _is_of(key, one.tool.kind):
                continue
            entry = QLineEdit(str(said.get(key, "")))
            entry.setPlaceholderText(tr(words))
            entry.setAccessibleName(f"{tr('Station')} {use.station}: {tr(words)}")
            entry.setMaximumWidth(width)
            name = f"tool {use.station} {key}"
            entry.editingFinished.connect(self._teller(name, entry, str(said.get(key, ""))))
            self.fields[name] = entry
            row.addWidget(entry)
        row.addStretch(1)
        column.addLayout(row)
        if one.assumed:
            column.addWidget(_small(f"{tr('assumed')}: {', '.join(one.assumed)}", "warning"))
        self.column.addWidget(card)

    def _does(self, use: Any) -> str:
        """What a tool does, in figures."""
        parts = [tr(use.work)]
        if use.nearest is not None and use.widest is not None and use.work not in ("drilling", "tapping"):
            small, large = (show(one.mm, "mm", self.system, trim=True) for one in (use.nearest, use.widest))
            parts.append(f"Ø {small}" if small == large else f"Ø {small} … {large}")
        if use.deepest is not None:
            parts.append(f"Z {show(use.deepest.mm, 'mm', self.system, trim=True)} ({tr('line')} {use.deepest.line})")
        if use.leads_mm:
            parts.append(f"{tr('lead')} {self._each(use.leads_mm, 'mm')}")
        elif use.feeds:
            parts.append(f"F {self._each(use.feeds, 'mm/min' if use.per_minute else 'mm/rev')}")
        for mode, value in use.speeds[:2]:
            parts.append(self._each((value,), "m/min" if mode == "surface" else "rpm"))
        parts += [f"{tr('clamp')} {one:g}" for one in use.clamps_rpm[:1]]
        return "  ".join(parts)

    def _each(self, numbers: tuple[float, ...], unit: str) -> str:
        return ", ".join(str(show(one, unit, self.system, trim=True)) for one in numbers[:3])

    def _findings(self, study: Study, cut: Cut | None) -> None:
        found = list(cut.findings if cut is not None else study.program.findings)
        order = ("contact", "not understood", "question", "suspicious")
        found.sort(key=lambda one: (order.index(kind_in(one)), one.line or 0))
        self.column.addWidget(heading("What was found"))
        if not found:
            label = Label(tr("Every word was understood, and nothing met what it must not."))
            label.setObjectName("ok")
            label.setWordWrap(True)
            self.column.addWidget(label)
        for finding in found[:MOST_FINDINGS]:
            self._finding(finding, study)
        if len(found) > MOST_FINDINGS:
            self._muted(f"{len(found) - MOST_FINDINGS} {tr('more, in the margin of the text')}")

    def _finding(self, finding: Finding, study: Study) -> None:
        card = QFrame()
        card.setObjectName("card")
        column = QVBoxLayout(card)
        column.setContentsMargins(8, 5, 8, 6)
        column.setSpacing(2)
        kind = kind_in(finding)
        head = Label(f"{tr(kind.capitalize())}" + (f", {tr('line')} {finding.line}" if finding.line else ""))
        head.setObjectName({"question": "muted", "suspicious": "warning"}.get(kind, "error"))
        column.addWidget(head)
        said = spoken(finding.what, self.system).split(": ", 1)[-1]
        what = Label(said[:1].upper() + said[1:])
        what.setWordWrap(True)
        column.addWidget(what)
        if finding.why:
            column.addWidget(_small(spoken(finding.why, self.system)))
        if finding.line:
            card.setCursor(Qt.CursorShape.PointingHandCursor)
            card.mousePressEvent = lambda _, line=finding.line: self.line_chosen.emit(line)  # type: ignore[method-assign, misc]
        for cure in text_cures(finding, study.text, study.dialect):
            column.addWidget(self._cure(cure))
        if finding.code == "program.m_word":
            column.addLayout(self._answers(finding))
        self.column.addWidget(card)

    def _cure(self, cure: TextCure) -> QWidget:
        button = QPushButton(cure.label)
        button.setToolTip(f"{cure.before}  →  {cure.after}")
        button.clicked.connect(lambda _=False: self.cured.emit(cure))
        holder = QWidget()
        column = QVBoxLayout(holder)
        column.setContentsMargins(0, 2, 0, 0)
        column.setSpacing(1)
        column.addWidget(button, 0, Qt.AlignmentFlag.AlignLeft)
        shown = _small(cure.after)
        shown.setFont(self._theme.number_font(11))
        column.addWidget(shown)
        return holder

    def _answers(self, finding: Finding) -> QHBoxLayout:
        """What an M word does, chosen once."""
        word = next((one for one in finding.what.split() if one[:1] == "M" and one[1:2].isdigit()), "")
        box = QComboBox()
        box.setAccessibleName(f"{tr('What it does')}: {word}")
        box.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        box.setMinimumContentsLength(12)
        box.addItem(tr("choose what it does"), None)
        box.addItem(tr("moves neither tool nor work"), "nothing")
        for name in sorted(OF_THE_MACHINE):
            box.addItem(tr(words_of(name)), name)
        box.activated.connect(lambda _: self._answer(word, box.currentData()))
        row = QHBoxLayout()
        row.addWidget(box)
        return row

    def _answer(self, word: str, means: str | None) -> None:
        if means is not None:
            self.said.emit(f"word {word}", means)

    def _piece(self, cut: Cut) -> None:
        self.column.addWidget(heading("What comes of it, inches" if self.system == "inch" else "What comes of it, mm"))
        for line in piece_lines(cut, self.system):
            label = Label(line)
            label.setFont(self._theme.number_font(11))
            label.setWordWrap(True)
            self.column.addWidget(label)
        for line in cut.assumed:
            self._muted(f"{tr('assumed')}: {line}")

    # small things ------------------------------------------------------------------------------------------------

    def _teller(self, name: str, entry: QLineEdit, before: str) -> Callable[[], None]:
        return lambda: self._say_if_new(name, entry.text(), before)

    def _say_if_new(self, name: str, text: str, before: str) -> None:
        if text.strip() != before.strip():
            self.said.emit(name, text.strip())

    def _row(self, layout: QGridLayout) -> None:
        holder = QWidget()
        layout.setContentsMargins(0, 0, 0, 0)
        holder.setLayout(layout)
        self.column.addWidget(holder)

    def _muted(self, text: str) -> None:
        self.column.addWidget(_small(text))

    def _fault(self, text: str) -> None:
        label = Label(text)
        label.setObjectName("error")
        label.setWordWrap(True)
        self.column.addWidget(label)


def _small(text: str, name: str = "muted") -> Label:
    label = Label(text)
    label.setObjectName(name)
    label.setWordWrap(True)
    return label


def _is_of(key: str, kind: str) -> bool:
    """Whether a field means something for a kind of tool."""
    if key == "code":
        return kind in ("turning", "boring", "threading")
    if key == "width_mm":
        return kind in ("grooving", "parting")
    if key == "d_mm":
        return kind in ("drill", "reamer", "tap", "end_mill", "boring")
    return kind in ("turning", "boring") or (key == "tip" and kind in ("grooving", "parting"))
