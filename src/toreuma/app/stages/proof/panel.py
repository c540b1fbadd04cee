"""The verdict of the proof and everything it found."""

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QProgressBar, QVBoxLayout, QWidget

from toreuma.app.forms.column import ScrollColumn, heading
from toreuma.app.forms.findings import FindingCard
from toreuma.app.forms.format import clock
from toreuma.app.forms.label import Label
from toreuma.app.forms.waiting import WaitsUnseen
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.findings import Finding

__all__ = ["ProofPanel"]

MOST_CARDS = 60


class ProofPanel(WaitsUnseen, QWidget):
    """Left panel of the proof stage."""

    chosen = Signal(object)

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.setObjectName("panel")
        self._session, self._theme = session, theme
        column = QVBoxLayout(self)
        column.setContentsMargins(12, 10, 0, 8)
        self.verdict = Label()
        self.verdict.setWordWrap(True)
        self._why = Label()
        self._why.setObjectName("muted")
        self._why.setWordWrap(True)
        self._bar = QProgressBar()
        self._bar.setTextVisible(False)
        self._bar.setRange(0, 100)
        column.addWidget(self.verdict)
        column.addWidget(self._why)
        column.addWidget(self._bar)
        column.addWidget(heading("What was found"))
        self._cards = ScrollColumn(0, 2, 10, 0)
        column.addWidget(self._cards, 1)
        for signal in (session.outcome_changed, session.order_changed, session.proof_changed, session.job_changed):
            signal.connect(self.refresh)
        session.progress.connect(self._on_progress)

    def _on_progress(self, share: float) -> None:
        self._bar.setValue(round(100 * share))

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.refresh()

    def _fill(self) -> None:
        proof = self._session.proof
        self._bar.setVisible(proof is None and self._session.job is not None)
        findings = self._session.findings()
        errors = sum(finding.severity == "error" for finding in findings)
        if self._session.job is None:
            name, text, why = "title", "", ""
        elif proof is None:
            name, text, why = "title", "Being proved", "The program is read back and cut out of the blank."
        elif errors:
            name, text = "error", f"Not proved: {errors} {'error' if errors == 1 else 'errors'}"
            why = "Each one names its line or place."
        else:
            name, text = "ok", "Proved"
            why = (
                "The program was read back block by block and cut with the true tools: no gouge, no contact, nothing "
                "left beyond what the plan declares."
            )
        pair = self._session.pair
        if pair is not None:
            waits = ", ".join(f"channel {one} waits {seconds:.0f} s" for one, seconds in pair.ran.waited_s.items())
            made = "proved" if pair.ok else "not proved"
            why += (
                f"\nBoth channels together, both sides and the hand-over: {made}, {clock(pair.ran.seconds)}; {waits}."
            )
        self.verdict.setObjectName(name)
        self.verdict.setFont(self._theme.text_font(20, bold=True))
        self.verdict.style().unpolish(self.verdict)
        self.verdict.style().polish(self.verdict)
        self.verdict.setStyleSheet("font-size: 20px; font-weight: bold;")
        self.verdict.setText(text)
        self._why.setText(why)
        self._cards.clear()
        for finding in findings[:MOST_CARDS]:
            self._cards.column.addWidget(FindingCard(finding, self._session, self._theme, self._choose))
        if not findings and proof is not None:
            nothing = Label(tr("Nothing."))
            nothing.setObjectName("muted")
            self._cards.column.addWidget(nothing)
        self._cards.column.addStretch(1)
        self._cards.settle()

    def _choose(self, finding: Finding) -> None:
        if finding.line is not None:
            self._session.go_to_line(finding.line)
        self.chosen.emit(finding)
