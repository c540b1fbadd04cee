"""The verdict of the proof and everything it found."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QProgressBar, QPushButton, QVBoxLayout, QWidget

from toreuma.app.forms.column import ScrollColumn, heading
from toreuma.app.forms.findings import FindingCard
from toreuma.app.forms.format import clock
from toreuma.app.forms.label import Label
from toreuma.app.forms.waiting import WaitsUnseen
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.findings import Finding
from toreuma.core.spoken import spoken
from toreuma.core.verdict import TOLD_BY_ROWS, Verdict

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
        self.fault = QPushButton(tr("Play to the next fault"))
        self.fault.setToolTip(
            tr("Run the program up to the place where something goes wrong and stay there (Ctrl+Shift+Space)")
        )
        column.addWidget(self.fault, 0, Qt.AlignmentFlag.AlignLeft)
        column.addWidget(heading("What was found"))
        self._cards = ScrollColumn(0, 2, 10, 0)
        column.addWidget(self._cards, 1)
        for signal in (session.outcome_changed, session.order_changed, session.proof_changed, session.job_changed,
                       session.verdict_changed):  # fmt: skip
            signal.connect(self.refresh)
        session.progress.connect(self._on_progress)

    def _on_progress(self, share: float) -> None:
        self._bar.setValue(round(100 * share))

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.refresh()

    def _fill(self) -> None:
        session = self._session
        proof, verdict = session.proof, session.verdict
        self._bar.setVisible(verdict is None and session.job is not None and session.results.problem is None)
        findings = self._shown()
        if session.job is None:
            name, text, why = "title", "", ""
        elif verdict is None:
            name, text, why = "title", tr("Being proved"), "The program is read back and cut out of the blank."
            if proof is not None:
                why = "This side is cut; what all sides together make of the part is being judged."
        else:
            name, text, why = self._judged(verdict)
        pair = session.pair
        if pair is not None:
            waits = ", ".join(f"channel {one} waits {seconds:.0f} s" for one, seconds in pair.ran.waited_s.items())
            why += f"\nBoth channels together: {clock(pair.ran.seconds)}; {waits}."
        self.verdict.setObjectName(name)
        self.verdict.setFont(self._theme.text_font(20, bold=True))
        self.verdict.style().unpolish(self.verdict)
        self.verdict.style().polish(self.verdict)
        self.verdict.setStyleSheet("font-size: 20px; font-weight: bold;")
        self.verdict.setText(text)
        self._why.setText(why)
        self.fault.setVisible(verdict is not None and session.next_fault() is not None)
        self._cards.clear()
        for finding in findings[:MOST_CARDS]:
            self._cards.column.addWidget(FindingCard(finding, self._session, self._theme, self._choose))
        if not findings and verdict is not None:
            nothing = Label(tr("Nothing."))
            nothing.setObjectName("muted")
            self._cards.column.addWidget(nothing)
        self._cards.column.addStretch(1)
        self._cards.settle()

    def _shown(self) -> tuple[Finding, ...]:
        """What keeps the part from being finished, then what else was found and no row says better."""
        session = self._session
        verdict, found = session.verdict, session.findings()
        if verdict is None:
            return found
        turned = session.side > 0
        rows = tuple(verdict.finding(row, turned) for row in verdict.open)
        told = {finding.what for finding in found}
        more = tuple(one for one in (*verdict.dangers, *verdict.unplanned) if one.what not in told)
        return (*rows, *more, *(one for one in found if one.code not in TOLD_BY_ROWS))

    def _judged(self, verdict: Verdict) -> tuple[str, str, str]:
        """Style, heading and the line below it."""
        count = len(verdict.dangers) if verdict.dangers else len(verdict.open) + len(verdict.unplanned)
        if verdict.state == "unsafe":
            return (
                "error",
                f"{tr('Unsafe')}: {count} {'fault' if count == 1 else 'faults'}",
                "Each one names its line or place.",
            )
        if verdict.state == "not finished":
            why = "The program is safe as far as it goes. What is open stands below, each with what would make it."
            return "error", f"{tr('Not finished')}: {count}", why
        done = (
            "Every surface and feature of the drawing was found on the finished piece, all sides counted; the program "
            "was read back block by block and cut with the true tools."
        )
        if verdict.state == "finished but for":
            stays = spoken(verdict.stays, self._session.system)
            return "ok", tr("Finished but for"), f"{stays[:1].upper()}{stays[1:]}.\n{done}"
        return "ok", tr("Finished"), done

    def _choose(self, finding: Finding) -> None:
        self.chosen.emit(finding)
