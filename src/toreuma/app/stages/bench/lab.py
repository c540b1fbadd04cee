"""The cut lab: move a cut and see what it uses of every limit; walk a ladder of speeds and see which limit ends it."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QComboBox, QGridLayout, QHBoxLayout, QLineEdit, QSizePolicy, QVBoxLayout, QWidget

from toreuma.app.forms.label import Label
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.cutting.heat import SOFTENING_C
from toreuma.core.cutting.lab import LabResult, Rung, free_situation, ladder, try_cut
from toreuma.core.cutting.situation import Cut, Situation
from toreuma.core.errors import ToreumaError
from toreuma.core.units import System, parse, show
from toreuma.engine.library import library

__all__ = ["LabBench"]

FIELDS: tuple[tuple[str, str, str, float], ...] = (
    ("d_mm", "Diameter", "mm", 32.0),
    ("stick_out_mm", "Sticks out", "mm", 80.0),
    ("vc_m_min", "Surface speed", "m/min", 180.0),
    ("feed_mm_rev", "Feed", "mm/rev", 0.25),
    ("ap_mm", "Depth on radius", "mm", 2.0),
    ("nose_mm", "Nose radius", "mm", 0.8),
    ("entering_deg", "Entering angle", "deg", 95.0),
)
OF_THE_CUT = ("vc_m_min", "feed_mm_rev", "ap_mm")
"""What is moved of a cut of an operation; the rest is the operation's."""

LADDER_TOOLS = ("high-speed steel", "uncoated carbide", "coated carbide", "ceramic")
BAR_PX, ROW_PX = 16, 40


class LabBench(QWidget):
    """Everything answers while one types; what cannot be is marked where it stands."""

    def __init__(self, theme: Theme, session: Session) -> None:
        super().__init__()
        self._session = session
        self._base: Situation | None = None
        self.result: LabResult | None = None
        self.source = QComboBox()
        self.source.setAccessibleName(tr("Which cut"))
        self.source.activated.connect(lambda _: self._take())
        session.outcome_changed.connect(self._list_operations)
        self.rungs: dict[str, tuple[Rung, ...]] = {}
        self.material, self.tool, self.machine, self.units = QComboBox(), QComboBox(), QComboBox(), QComboBox()
        self._list_shop()
        for name in SOFTENING_C:
            self.tool.addItem(name, name)
        for words, value in (("mm, m/min", "mm"), ("inch, ft/min", "inch")):
            self.units.addItem(words, value)
        self.material.setCurrentIndex(max(self.material.findData("C45"), 0))
        self.tool.setCurrentIndex(self.tool.findData("coated carbide"))
        self.entries: dict[str, QLineEdit] = {}
        self.loads, self.steps = LoadBars(theme), LadderView(theme)
        self.says = Label()
        self.says.setWordWrap(True)
        self.numbers = Label()
        self.numbers.setObjectName("muted")
        self.numbers.setWordWrap(True)
        self._lay_out()
        self._list_operations()
        for box, name in (
            (self.material, "Material"),
            (self.tool, "Tool material"),
            (self.machine, "Machine"),
            (self.units, "Units"),
        ):
            box.setAccessibleName(name)
            box.activated.connect(lambda _: self.refresh())
        self.units.activated.connect(lambda _: self._present())
        self._present()

    def set_theme(self, theme: Theme) -> None:
        for view in (self.loads, self.steps):
            view.theme = theme
            view.update()

    def _lay_out(self) -> None:
        form = QGridLayout()
        form.setVerticalSpacing(6)
        rows = [
            ("Cut", self.source),
            ("Material", self.material),
            ("Tool material", self.tool),
            ("Machine", self.machine),
        ]
        for row, (name, widget) in enumerate([*rows, ("Units", self.units)]):
            self._named(form, row, name, widget)
        for row, (field, name, _, _) in enumerate(FIELDS, len(rows) + 1):
            entry = QLineEdit()
            entry.setAccessibleName(name)
            entry.textChanged.connect(lambda _: self.refresh())
            self.entries[field] = entry
            self._named(form, row, name, entry)
        left = QVBoxLayout()
        left.addLayout(form)
        left.addWidget(self.numbers)
        left.addStretch(1)
        right = QVBoxLayout()
        right.addWidget(self.says)
        right.addWidget(self.loads, 1)
        right.addWidget(self.steps)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(20, 14, 20, 10)
        whole.setSpacing(24)
        whole.addLayout(left, 3)
        whole.addLayout(right, 7)

    @staticmethod
    def _named(form: QGridLayout, row: int, name: str, widget: QWidget) -> None:
        label = Label(name)
        label.setObjectName("muted")
        form.addWidget(label, row, 0)
        form.addWidget(widget, row, 1)

    @property
    def system(self) -> System:
        system: System = self.units.currentData()
        return system

    def _present(self) -> None:
        """Show the cut in the chosen units."""
        typed = self._typed(self._before) if hasattr(self, "_before") else None
        self._show_values(typed or {field: start for field, _, _, start in FIELDS})

    def _show_values(self, values: dict[str, float]) -> None:
        """Put numbers into the entries, in the chosen units."""
        for field, _, unit, _ in FIELDS:
            value = values[field]
            self.entries[field].setEnabled(self._base is None or field in OF_THE_CUT)
            self.entries[field].blockSignals(True)
            self.entries[field].setText(f"{show(value, unit, self.system, trim=True)}")
            self.entries[field].blockSignals(False)
        self._before = self.system
        self.refresh()

    def _list_operations(self) -> None:
        """The operations of the open job, behind the free cut."""
        chosen, outcome = self.source.currentData(), self._session.outcome
        self.source.clear()
        self.source.addItem("A free cut", None)
        for planned in outcome.plan.operations if outcome else ():
            if planned.cuts.proposal is not None:
                self.source.addItem(planned.operation.name or planned.operation.id, planned.operation.id)
        self.source.setCurrentIndex(max(self.source.findData(chosen), 0))
        if chosen is not None:
            self._take()

    def take(self, operation: str) -> None:
        """Try the cut of an operation."""
        self.source.setCurrentIndex(max(self.source.findData(operation), 0))
        self._take()

    def _take(self) -> None:
        """Take the cut that is chosen: the operation's own, or the free one as it stands."""
        outcome, chosen = self._session.outcome, self.source.currentData()
        planned = outcome.plan.of(chosen) if outcome and chosen else None
        proposal = planned.cuts.proposal if planned else None
        if proposal is None:
            self._base = None
            self._show_values({field: start for field, _, _, start in FIELDS})
            return
        base = self._base = proposal.situation
        self.units.setCurrentIndex(self.units.findData(self._session.system))
        self._before = self.system
        for box, name in ((self.material, base.material.name), (self.machine, base.machine.name)):
            box.setCurrentIndex(max(box.findData(name), 0))
        self.tool.setCurrentIndex(max(self.tool.findData(base.tool_material), 0))
        held = base.gripped
        self._show_values(
            {
                "d_mm": base.d_mm,
                "stick_out_mm": held.hold.stick_out_mm if held else 1.0,
                "nose_mm": base.nose_mm,
                "entering_deg": base.entering_deg,
                "vc_m_min": proposal.cut.vc_m_min,
                "feed_mm_rev": proposal.cut.feed_mm_rev,
                "ap_mm": proposal.cut.ap_mm,
            }
        )

    def _typed(self, system: System) -> dict[str, float] | None:
        """The numbers as typed; what cannot be is marked."""
        values, good = {}, True
        for field, name, unit, _ in FIELDS:
            entry = self.entries[field]
            try:
                values[field] = parse(entry.text(), unit, system)
                if values[field] <= 0 and entry.isEnabled():
                    raise ToreumaError(name, "must be larger than nothing", "type a size")
                bad = False
            except ToreumaError as error:
                entry.setToolTip(f"{error.what}; {error.cure}")
                bad, good = True, False
            if bool(entry.property("bad")) != bad:
                entry.setProperty("bad", bad)
                entry.style().unpolish(entry)
                entry.style().polish(entry)
        return values if good else None

    def _list_shop(self) -> None:
        """Materials and machines as the shop has them now; what was chosen stays chosen where it is still there."""
        shop = library()
        for box, rows in (
            (self.material, [(f"{name}  ({one.group})", name) for name, one in shop.materials.items()]),
            (self.machine, [(name, name) for name in shop.machines]),
        ):
            chosen = box.currentData()
            box.blockSignals(True)
            box.clear()
            for words, name in rows:
                box.addItem(words, name)
            box.setCurrentIndex(max(box.findData(chosen), 0))
            box.blockSignals(False)

    def refresh(self) -> None:
        """Compute the cut and the ladder again."""
        shop = library()
        if self.material.currentData() not in shop.materials or self.machine.currentData() not in shop.machines:
            self._list_shop()
        typed = self._typed(self.system)
        if typed is None:
            self.says.setText(tr("Type sizes that can be: a number larger than nothing, with its unit if you like."))
            self.loads.show_limits(None, self.system)
            self.steps.show_rungs({})
            return
        material, machine = (
            library().materials[self.material.currentData()],
            library().machines[self.machine.currentData()],
        )
        cut = Cut(typed["ap_mm"], typed["feed_mm_rev"], typed["vc_m_min"])
        around = [typed[field] for field in ("d_mm", "stick_out_mm", "nose_mm", "entering_deg")]
        tool = self.tool.currentData()
        base = self._base or free_situation(material, machine, tool, *around)
        same = machine.name == base.machine.name
        base = base.changed(
            material=material if material.name != base.material.name else base.material,
            machine=base.machine if same else machine,
            tool_material=tool,
            speed_limits=base.speed_limits if same else (),
        )
        self.result = try_cut(base, cut)
        self.rungs = {one: ladder(base.changed(tool_material=one), cut) for one in LADDER_TOOLS}
        worst = self.result.worst
        if worst.share > 1:
            self.says.setText(f"Ended by {worst.kind.name}. {worst.kind.why}")
            self.says.setObjectName("error")
        else:
            self.says.setText(f"Goes; {worst.kind.name} comes first, {worst.share:.0%} of it is used.")
            self.says.setObjectName("ok")
        self.says.style().unpolish(self.says)
        self.says.style().polish(self.says)
        words = [f"{e.name} {show(e.number, e.unit, self.system)}" for e in self.result.numbers]
        caution = f"\n{material.caution}" if material.caution else ""
        self.numbers.setText("\n".join(words) + f"\nCoolant: {material.coolant}{caution}")
        self.loads.show_limits(self.result, self.system)
        self.steps.show_rungs(self.rungs, self.system)


class LoadBars(QWidget):
    """One bar for every limit, in the temper colours of its load; the line marks the limit."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self._result: LabResult | None = None
        self._system: System = "mm"
        self.setMinimumHeight(8 * ROW_PX)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(tr("Share of every limit"))

    def show_limits(self, result: LabResult | None, system: System) -> None:
        self._result, self._system = result, system
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), self.theme.colour("paper"))
        names, right = 160.0, 232.0
        room = self.width() - names - right
        full = room / 1.25
        every = self._result.limits if self._result else ()
        fit = max((self.height() - 24) // ROW_PX, 1)
        if len(every) > fit:
            painter.setFont(self.theme.text_font(12))
            painter.setPen(self.theme.colour("muted"))
            rest = f"and {len(every) - fit} more limits, none used above {every[fit].share:.0%}"
            painter.drawText(QPointF(names, 6 + fit * ROW_PX + 12), rest)
        for index, one in enumerate(every[:fit]):
            y = 6 + index * ROW_PX
            painter.setFont(self.theme.text_font())
            painter.setPen(self.theme.colour("ink"))
            left = Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft
            painter.drawText(QRectF(0, y, names, BAR_PX), left, one.kind.name[0].upper() + one.kind.name[1:])
            painter.fillRect(QRectF(names, y, room, BAR_PX), self.theme.colour("line"))
            long = min(one.share, 1.25) * full
            painter.fillRect(QRectF(names, y, long, BAR_PX), self.theme.load_colour(one.share))
            painter.setFont(self.theme.number_font(12))
            word = ", least" if one.kind.least else " of"
            bound = show(one.bound, one.kind.unit, self._system)
            text = f"{show(one.number, one.kind.unit, self._system)}{word} {bound}"
            painter.drawText(QRectF(names + room + 8, y, right - 8, BAR_PX), left, text)
            painter.setFont(self.theme.text_font(12))
            painter.setPen(self.theme.colour("muted"))
            painter.drawText(QRectF(names, y + BAR_PX, self.width() - names, 18), left, one.kind.why)
            painter.setPen(self.theme.colour("ink"))
            painter.drawLine(QPointF(names + full, y - 3), QPointF(names + full, y + BAR_PX + 3))
        painter.end()


class LadderView(QWidget):
    """Speeds across, tool materials down; each cell in the colour of its load, with the limit that ends it."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self._rungs: dict[str, tuple[Rung, ...]] = {}
        self._system: System = "mm"
        self.setFixedHeight(200)
        self.setAccessibleName(tr("Ladder of speeds"))

    def show_rungs(self, rungs: dict[str, tuple[Rung, ...]], system: System = "mm") -> None:
        self._rungs, self._system = rungs, system
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), self.theme.colour("paper"))
        names, high = 160.0, 34.0
        first = next(iter(self._rungs.values()), ())
        if not first:
            painter.end()
            return
        wide = (self.width() - names) / len(first)
        centre = Qt.AlignmentFlag.AlignCenter
        left = Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft
        painter.setPen(self.theme.colour("muted"))
        painter.setFont(self.theme.text_font(12))
        painter.drawText(QRectF(0, 0, names, 20), left, f"Ladder, {'ft/min' if self._system == 'inch' else 'm/min'}")
        painter.setFont(self.theme.number_font(12))
        for column, rung in enumerate(first):
            speed = show(rung.vc_m_min, "m/min", self._system).number
            painter.drawText(QRectF(names + column * wide, 0, wide, 20), centre, speed)
        for row, (tool, rungs) in enumerate(self._rungs.items()):
            y = 22 + row * (high + 3)
            painter.setPen(self.theme.colour("ink"))
            painter.setFont(self.theme.text_font(13))
            painter.drawText(QRectF(0, y, names, high), left, tool[0].upper() + tool[1:])
            ended = False
            for column, rung in enumerate(rungs):
                box = QRectF(names + column * wide + 1, y, wide - 2, high)
                painter.fillRect(box, self.theme.load_colour(rung.share))
                if rung.share > 1 and not ended:
                    painter.setPen(self.theme.colour("raised"))
                    painter.setFont(self.theme.text_font(11))
                    painter.drawText(box, centre | Qt.TextFlag.TextWordWrap, rung.limit)
                ended = rung.share > 1 and rung.limit not in ("thin chip", "corner strength")
        painter.end()
