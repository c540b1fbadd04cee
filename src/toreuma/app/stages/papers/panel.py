"""Left panel of the papers stage: which sheets, on what paper, by which number, and where they go."""

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QCheckBox, QPushButton

from toreuma.app.forms.rows import RowColumn, narrow_box
from toreuma.app.session import Session
from toreuma.app.stages.papers.made import Maker, Wanted
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.model.identity import revision_of
from toreuma.core.spoken import spoken
from toreuma.papers.html import PAPERS
from toreuma.papers.sheets import SHEETS, TITLES

__all__ = ["PapersPanel"]

MORE = {
    "setup": "One a hold: drawing, jaws, datum, clamps, stations",
    "tools": "What to take off the rack, edges for the batch",
    "operations": "The metal after each operation, numbers, time",
    "inspection": "Every size with limits, means and boxes",
    "run": "Bars, when to look, what happened",
}
UNITS = (("As the job is read", ""), ("Millimetres", "mm"), ("Inches", "inch"))


class PapersPanel(RowColumn):
    """Emits what is to be done with the pages."""

    asked = Signal(str)
    turned_to = Signal(str)
    """A kind of sheet somebody wants to see."""

    def __init__(self, session: Session, theme: Theme, maker: Maker) -> None:
        super().__init__(session, theme)
        self._maker = maker
        self.boxes: dict[str, QCheckBox] = {}
        self.doings: dict[str, QPushButton] = {}
        maker.changed.connect(self.refresh)

    def _fill(self) -> None:
        job = self.session.whole
        if job is None:
            self.start(())
            return
        if self.start(("papers",)):
            self._begin()
        self.line("number", "Job number: of the shop", job.number, lambda j, v: j.changed(number=v))
        self.line("revision", "Revision: of the drawing", job.revision, lambda j, v: j.changed(revision=v))
        for key, box in self.boxes.items():
            box.blockSignals(True)
            box.setChecked(key in self._maker.wanted.sheets)
            box.blockSignals(False)
        ready = self._maker.current
        for button in self.doings.values():
            button.setEnabled(ready)
        verdict = self.session.verdict
        state = spoken(verdict.words, self.session.system) if verdict is not None else tr("being proved")
        self.texts["state"].setText(f"{state[:1].upper()}{state[1:]}.")
        made = self._maker.made
        across = made is not None and ready and not made.proved
        self.texts["across"].setText(tr("UNPROVED stands across every page.") if across else "")
        self.texts["revision"].setText(f"{tr('On every page:')} {revision_of(job)}")

    def _begin(self) -> None:
        """Rows that stay."""
        self.heading("Sheets")
        self.boxes = {}
        for key in SHEETS:
            box = QCheckBox(tr(TITLES[key]))
            box.setToolTip(tr(MORE[key]))
            box.toggled.connect(lambda on, k=key: self._on_sheet(k, on))
            self.boxes[key] = box
            self.add(box)
        self.heading("Paper")
        self._choice("paper", "Size", [(one, one) for one in PAPERS])
        self._choice("units", "Units", UNITS)
        self.heading("Known by")
        job = self.session.whole
        assert job is not None
        self.line("number", "Job number: of the shop", job.number, lambda j, v: j.changed(number=v))
        self.line("revision", "Revision: of the drawing", job.revision, lambda j, v: j.changed(revision=v))
        self.text("revision", "muted", "")
        self.heading("Proof")
        self.text("state", "body", "")
        self.text("across", "error", "")
        self.heading("Hand on")
        self.doings = {}
        for key, words in (("print", "Print…"), ("pdf", "Save as PDF…"), ("html", "Save as HTML…")):
            button = QPushButton(tr(words))
            button.clicked.connect(lambda _=False, k=key: self.asked.emit(k))
            self.doings[key] = button
            self.add(button)
        self.note("Computed starting points: the machine's manual, the chuck's plate and trained staff come first.")
        self.end()

    def _choice(self, key: str, label: str, options: object) -> None:
        box = narrow_box()
        box.setAccessibleName(label)
        for words, value in options:  # type: ignore[attr-defined]
            box.addItem(tr(words), value)
        box.setCurrentIndex(max(box.findData(getattr(self._maker.wanted, key)), 0))
        box.activated.connect(lambda index: self._on_choice(key, box.itemData(index)))
        self.choices[key] = box
        self.labelled(label, box)

    def _on_choice(self, key: str, value: str) -> None:
        wanted = {"paper": self._maker.wanted.paper, "units": self._maker.wanted.units, key: value}
        self._maker.want(Wanted(self._maker.wanted.sheets, wanted["paper"], wanted["units"]))  # type: ignore[arg-type]

    def _on_sheet(self, key: str, on: bool) -> None:
        """One sheet more or less; the last one stays."""
        now = self._maker.wanted
        kept = tuple(one for one in SHEETS if (one in now.sheets or one == key) and (one != key or on))
        if kept:
            self._maker.want(Wanted(kept, now.paper, now.units))
        self.refresh()
        if on:
            self.turned_to.emit(key)
