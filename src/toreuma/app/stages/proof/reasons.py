"""What the proof measured."""

from PySide6.QtCore import Signal

from toreuma.app.forms.column import heading
from toreuma.app.forms.findings import FindingCard
from toreuma.app.forms.format import clock
from toreuma.app.forms.reasons import ReasonsPanel
from toreuma.app.stages.proof.row_table import RowTable
from toreuma.core.cutting.evidence import Evidence
from toreuma.core.model import Job

__all__ = ["ProofReasons"]


class ProofReasons(ReasonsPanel):
    """Gouge, metal left, contacts and time; the finding that is selected; a row for everything the drawing asks for."""

    picked = Signal(object)

    def show_job(self, job: Job) -> None:
        proof, finding, verdict = self.session.proof, self.finding, self.session.verdict
        fresh = self.start(("proof", finding, proof is None, verdict))
        self.text("title", "title", "What the proof measured")
        if proof is None:
            self.text("wait", "muted", "Reading the program back and cutting it.")
            return
        self.row(
            "gouge",
            Evidence(
                "deepest gouge",
                "",
                proof.gouge_um,
                "um",
                formula="part minus what is left of it",
                note="Up to 2 µm is the resolution of a program.",
            ),
        )
        self.row(
            "leftover",
            Evidence(
                "left beyond declared",
                "",
                proof.leftover_um,
                "um",
                formula="what is left, minus part, minus what the plan declares",
            ),
        )
        self.row(
            "declared",
            Evidence(
                "declared by the plan",
                "",
                proof.declared_um,
                "um",
                formula="thickest layer outside the reach of every finishing cut",
            ),
        )
        self.row(
            "contacts",
            Evidence(
                "contacts",
                "",
                float(len(proof.contacts)),
                "",
                formula="rapids in metal; insert, holder or shank against metal, jaws, chuck",
            ),
        )
        self.row("time", Evidence("time", "", proof.time_s, "s", formula="every block, with the spindle's own speed"))
        outcome = self.session.outcome
        if outcome is not None:
            planned = sum(op.times.total_s for op in outcome.plan.operations)
            self.text("planned", "muted", f"planned operation by operation: {clock(planned)} min")
        if fresh:
            if finding is not None:
                self.add(heading("Selected"))
                self.add(FindingCard(finding, self.session, self.theme))
            if verdict is not None:
                table = RowTable(verdict, self.session.system, self.theme)
                table.picked.connect(self.picked.emit)
                self.add(heading("Everything the drawing asks for"))
                self.add(table)
            self.end()
