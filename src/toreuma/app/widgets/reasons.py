"""The reasons panel: the numbers of what is selected, why they are so, and what is wrong with them."""

from collections.abc import Callable

from PySide6.QtWidgets import QComboBox, QLabel, QLineEdit, QPushButton, QWidget

from toreuma.app.fields import BLANK_FIELDS, OPERATION_FIELDS, Field, operation_change, typed_evidence
from toreuma.app.format import clock
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.app.widgets.column import ScrollColumn, heading
from toreuma.app.widgets.findings import FindingCard
from toreuma.app.widgets.number import NumberRow
from toreuma.core.cutting.evidence import Evidence
from toreuma.core.errors import ToreumaError
from toreuma.core.findings import Finding
from toreuma.core.model import Job, Operation
from toreuma.core.units import show

__all__ = ["ReasonsPanel"]

LEAD_NUMBERS = ("vc", "clamp", "f", "f_centre", "ap_max", "ap", "passes", "n", "force", "power", "ra", "rt")


class ReasonsPanel(ScrollColumn):
    """Right-hand panel. Rebuilt when another thing is selected; refreshed in place when only numbers change."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.setAccessibleName("Reasons")
        self._session, self._theme, self._stage = session, theme, "part"
        self.rows: dict[str, NumberRow] = {}
        self._key: tuple[object, ...] = ()
        self._texts: dict[str, QLabel] = {}
        self._finding: Finding | None = None
        for signal in (session.outcome_changed, session.proof_changed, session.selection_changed, session.job_changed):
            signal.connect(self.refresh)
        session.cursor_changed.connect(self._on_cursor)

    def set_theme(self, theme: Theme) -> None:
        self._theme, self._key = theme, ()
        self.refresh()

    def set_stage(self, stage: str) -> None:
        self._stage, self._finding = stage, None
        self.refresh()

    def show_finding(self, finding: Finding | None) -> None:
        self._finding = finding
        self.refresh()

    def refresh(self) -> None:
        """Bring the panel up to date."""
        self._fill()
        self.settle()

    def _fill(self) -> None:
        job = self._session.job
        if job is None:
            self._start(())
            return
        operation = job.operation(self._session.selection.operation or "")
        if self._stage == "part":
            self._part(job)
        elif self._stage == "proof":
            self._proof()
        elif self._stage == "program":
            self._program(job)
        elif operation is not None:
            self._operation(job, operation)
        else:
            self._overview()

    def _on_cursor(self) -> None:
        if self._stage == "program":
            self.refresh()

    # Building

    def _start(self, key: tuple[object, ...]) -> bool:
        """Clear the panel when ``key`` is new; tells whether it has to be filled."""
        key = (self._stage, self._theme.name, *key)
        if key == self._key:
            return False
        self._key = key
        self.rows, self._texts = {}, {}
        self.clear()
        return True

    def _add(self, widget: QWidget) -> None:
        self.column.addWidget(widget)

    def _text(self, key: str, name: str, text: str) -> None:
        """Put text into a label kept under ``key``, made on first use."""
        if key not in self._texts:
            label = QLabel()
            label.setObjectName(name)
            label.setWordWrap(True)
            self._texts[key] = label
            self._add(label)
        self._texts[key].setText(text)

    def _row(
        self, key: str, evidence: Evidence, change: "Callable[[float | None], ToreumaError | None] | None" = None
    ) -> None:
        if key not in self.rows:
            self.rows[key] = NumberRow(evidence, self._theme, change)
            self.rows[key].folded.connect(self.settle)
            self._add(self.rows[key])
        self.rows[key].show_evidence(evidence, self._session.system)

    def _end(self) -> None:
        self.column.addStretch(1)

    # What is shown

    def _overview(self) -> None:
        outcome = self._session.outcome
        findings = outcome.plan.all_findings if outcome else ()
        fresh = self._start(("overview", outcome is None, self._finding_key(findings)))
        self._text("title", "title", "Whole route")
        times = outcome.plan.times if outcome else None
        self._text("time", "large", clock(times.total_s) + " min" if times else "planning")
        if times:
            self._text(
                "split",
                "muted",
                f"cutting {clock(times.cutting_s)}   rapid {clock(times.rapid_s)}   idle {clock(times.idle_s)}",
            )
        self._text("hint", "muted", "Select an operation to see its numbers and the reason behind each.")
        if fresh:
            self._findings(findings)
            self._end()

    def _operation(self, job: Job, operation: Operation) -> None:
        outcome = self._session.outcome
        planned = outcome.plan.of(operation.id) if outcome else None
        numbers = planned.numbers if planned else {}
        findings = planned.findings if planned else ()
        shown = [key for key in LEAD_NUMBERS if key in numbers]
        if not numbers and operation.enabled and outcome is None:
            shown = [key for key in self.rows if key in LEAD_NUMBERS]
        key = (
            operation.id,
            operation.kind,
            tuple(shown),
            self._finding_key(findings),
            tuple(tool.id for tool in job.tools),
        )
        fresh = self._start(key)
        if fresh:
            self._operation_head(job, operation)
            self._findings(findings)
            self._add(heading("Numbers"))
        for number in shown:
            if number in numbers:
                evidence = numbers[number]
                pin = evidence.pin
                self._row(number, evidence, self._pinner(operation.id, pin) if pin else None)
        if fresh:
            self._add(heading("Settings"))
        for field in OPERATION_FIELDS[operation.kind]:
            self._field_row(operation, field)
        if fresh:
            self._end()

    def _operation_head(self, job: Job, operation: Operation) -> None:
        name = QLineEdit(operation.name)
        name.setObjectName("name")
        name.setAccessibleName("Name of the operation")
        name.editingFinished.connect(
            lambda: self._session.attempt(
                lambda j: j.with_operation(operation.id, lambda op: op.changed(name=name.text().strip()))
            )
        )
        self._add(name)
        tools = QComboBox()
        tools.setAccessibleName("Tool")
        for tool in job.tools:
            tools.addItem(f"{tool.id}  {tool.name}", tool.id)
        tools.setCurrentIndex(max(tools.findData(operation.tool), 0))
        tools.activated.connect(
            lambda _: self._session.attempt(
                lambda j: j.with_operation(operation.id, lambda op: op.changed(tool=tools.currentData()))
            )
        )
        self._add(tools)

    def _field_row(self, operation: Operation, field: Field) -> None:
        value = getattr(operation, field.name)
        evidence = typed_evidence(field, value if value is not None else float("nan"))
        key = f"field.{field.name}"
        self._row(
            key, evidence, lambda number: self._session.attempt(operation_change(operation.id, field.name, number))
        )
        self.rows[key].entry.setPlaceholderText(field.empty)
        if value is None:
            self.rows[key].entry.present("")

    def _pinner(self, operation_id: str, pin: str) -> "Callable[[float | None], ToreumaError | None]":
        def change(number: float | None) -> ToreumaError | None:
            return self._session.attempt(
                lambda job: job.with_operation(
                    operation_id, lambda op: op.changed(pins=op.pins.changed(**{pin: number}))
                )
            )

        return change

    def _part(self, job: Job) -> None:
        outcome = self._session.outcome
        findings = outcome.plan.findings if outcome else ()
        fresh = self._start(("blank", self._finding_key(findings)))
        self._text("title", "title", "Blank and hold")
        material = job.stock.material
        self._text("material", "muted", f"{material.name}, ISO 513 group {material.group}. {job.setup.hold.name}.")
        for owner, field in BLANK_FIELDS:
            value = getattr(job.stock if owner == "stock" else job.setup.hold, field.name)
            self._row(f"{owner}.{field.name}", typed_evidence(field, value), self._blank_changer(owner, field.name))
        if fresh:
            note = QLabel(
                "A bar end that sticks out behind the spindle whips: keep it guarded, in a liner, or cut short."
            )
            note.setObjectName("muted")
            note.setWordWrap(True)
            self._add(note)
            self._findings(findings)
            self._end()

    def _blank_changer(self, owner: str, name: str) -> "Callable[[float | None], ToreumaError | None]":
        def apply(job: Job, number: float | None) -> Job:
            if owner == "stock":
                return job.changed(stock=job.stock.changed(**{name: number}))
            return job.with_setup(hold=job.setup.hold.changed(**{name: number}))

        return lambda number: self._session.attempt(lambda job: apply(job, number))

    def _proof(self) -> None:
        proof, finding = self._session.proof, self._finding
        fresh = self._start(("proof", finding, proof is None))
        self._text("title", "title", "What the proof measured")
        if proof is None:
            self._text("wait", "muted", "Reading the program back and cutting it.")
            return
        self._row(
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
        self._row(
            "leftover",
            Evidence(
                "left beyond declared",
                "",
                proof.leftover_um,
                "um",
                formula="what is left, minus part, minus what the plan declares",
            ),
        )
        self._row(
            "declared",
            Evidence(
                "declared by the plan",
                "",
                proof.declared_um,
                "um",
                formula="thickest layer outside the reach of every finishing cut",
            ),
        )
        self._row(
            "contacts",
            Evidence(
                "contacts",
                "",
                float(len(proof.contacts)),
                "",
                formula="rapids in metal; insert, holder or shank against metal, jaws, chuck",
            ),
        )
        self._row("time", Evidence("time", "", proof.time_s, "s", formula="every block, with the spindle's own speed"))
        if fresh:
            if finding is not None:
                self._add(heading("Selected finding"))
                self._add(FindingCard(finding, self._session, self._theme))
            self._end()

    def _program(self, job: Job) -> None:
        outcome = self._session.outcome
        fresh = self._start(("program", outcome is None))
        if fresh:
            self._text("title", "title", "Program")
            arcs = QComboBox()
            arcs.setAccessibleName("How arcs are written")
            arcs.addItem("Arcs with radius R", "R")
            arcs.addItem("Arcs with centre I, K", "IK")
            arcs.setCurrentIndex(arcs.findData(job.program.arcs))
            arcs.activated.connect(
                lambda _: self._session.attempt(lambda j: j.changed(program=j.program.changed(arcs=arcs.currentData())))
            )
            self._add(arcs)
            self._add(heading("At the cursor"))
        self._text("line", "muted", "")
        if outcome is not None and outcome.timeline.spans:
            moment = outcome.timeline.at(self._session.cursor_s)
            motion = outcome.timeline.spans[moment.index].motion
            self._text("line", "muted", f"Line {motion.line}, station {motion.station}")
            system = self._session.system
            z, r = motion.segment.at(moment.share)
            self._row("x", Evidence("X", "", 2 * r, "mm", measured_on="on diameter"))
            self._row("z", Evidence("Z", "", z, "mm"))
            kind = "Rapid" if motion.is_rapid else f"Feed {show(motion.feed or 0, 'mm/rev', system)}"
            self._text("kind", "muted", kind)
            spindle = motion.spindle
            if spindle.mode == "surface":
                self._text(
                    "spindle",
                    "muted",
                    f"Surface speed {show(spindle.value, 'm/min', system)}, "
                    f"clamp {show(spindle.clamp_rpm or 0, 'rpm', system)}",
                )
            else:
                self._text("spindle", "muted", "Spindle standing")
        if fresh:
            button = QPushButton("Save program…")
            button.setObjectName("main")
            button.clicked.connect(lambda: self.window().findChild(QWidget, "programPanel").save())  # type: ignore[union-attr]
            caution = QLabel(
                "Computed starting values. The machine's manual, the chuck's plate, the site's rules and a "
                "trained person come first. Run the first part in single block with rapid turned down."
            )
            caution.setObjectName("muted")
            caution.setWordWrap(True)
            self.column.addSpacing(10)
            self._add(button)
            self._add(caution)
            self._end()

    def _findings(self, findings: tuple[Finding, ...]) -> None:
        if findings:
            self._add(heading("Findings"))
        for finding in findings:
            self._add(FindingCard(finding, self._session, self._theme))

    @staticmethod
    def _finding_key(findings: tuple[Finding, ...]) -> tuple[str, ...]:
        return tuple(finding.what for finding in findings)
