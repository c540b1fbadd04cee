"""The stage of the proof."""

from toreuma.app.picture.look import Look
from toreuma.app.picture.paint import Painter
from toreuma.app.stages.proof.paint import paint_deviations
from toreuma.app.stages.proof.panel import ProofPanel
from toreuma.app.stages.proof.reasons import ProofReasons
from toreuma.app.stages.stage import Shared, Stage
from toreuma.core.findings import Finding
from toreuma.core.scene import Scene
from toreuma.core.verdict import Row

__all__ = ["ProofStage"]


class ProofStage(Stage):
    """A finding that is chosen in the list is marked in the section and explained on the right."""

    key, label, shortcut = "proof", "Proof", "Ctrl+7"
    panel: ProofPanel
    numbers: ProofReasons

    def __init__(self, shared: Shared) -> None:
        super().__init__(shared)
        self.panel = ProofPanel(shared.session, shared.theme)
        self.numbers = ProofReasons(shared.session, shared.theme)
        self.panel.chosen.connect(self._choose)
        self.panel.fault.clicked.connect(self.play_to_fault)
        self._fault: Finding | None = None
        shared.ribbon.player.arrived.connect(self._arrive)
        self.numbers.picked.connect(self._pick)
        shared.session.verdict_changed.connect(self.numbers.refresh)
        self.look = Look(
            tool=True,
            leftover=True,
            flags=frozenset({"error", "warning", "note"}),
            shade="Share of its limits used",
            over=self._paint,
        )

    def _choose(self, finding: Finding, moves: bool = True) -> None:
        if moves and finding.line is not None:
            self.session.go_to_line(finding.line)
        self.shared.canvas.show_finding(finding)
        self.numbers.show_finding(finding)

    def play_to_fault(self) -> None:
        """Play the program up to the next place where something goes wrong, the first one first."""
        found = self.session.next_fault()
        if found is not None:
            moment, self._fault = found
            self.shared.ribbon.player.play_until(moment)

    def _arrive(self) -> None:
        if self._fault is not None:
            fault, self._fault = self._fault, None
            self._choose(fault, moves=False)

    def _pick(self, row: Row) -> None:
        """A row is shown on the part, and where it is cut in the program; the table keeps its place."""
        verdict = self.session.verdict
        if verdict is None:
            return
        side = row.made.side if row.made is not None else self.session.side
        self.shared.canvas.show_finding(verdict.finding(row, self.session.side > 0))
        if row.made is not None and row.made.line and side == self.session.side:
            self.session.go_to_line(row.made.line)

    def enter(self) -> None:
        self.numbers.show_finding(None)

    def _paint(self, draw: Painter, scene: Scene) -> None:
        if self.session.proof is not None and self.session.at_end:
            paint_deviations(draw, self.session.proof)
