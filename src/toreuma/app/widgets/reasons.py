"""The reasons panel: the numbers of what is selected, why they are so, and what is wrong with them."""

from collections.abc import Callable

from PySide6.QtWidgets import QComboBox, QLabel, QLineEdit, QPushButton, QWidget

from toreuma.app.fields import CONDITION_FIELDS, WITH_CENTRE, operation_change
from toreuma.app.format import clock
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.app.widgets.column import heading
from toreuma.app.widgets.findings import FindingCard
from toreuma.app.widgets.infeed_table import InfeedTable
from toreuma.app.widgets.limit_bars import LimitBars
from toreuma.app.widgets.part_reasons import part_reasons
from toreuma.app.widgets.rows import RowColumn, narrow_box
from toreuma.app.widgets.size_table import SizeTable
from toreuma.core.auto.fresh import with_feature
from toreuma.core.auto.propose import Chosen
from toreuma.core.channels.balance import as_found, cycle_numbers, moved_words, ran_numbers
from toreuma.core.channels.by_hand import ByHand
from toreuma.core.cutting.evidence import Evidence
from toreuma.core.cutting.shown import in_order, shown_of
from toreuma.core.errors import ToreumaError
from toreuma.core.findings import Finding
from toreuma.core.kinds.field import FEATURE_OF_PART, TOOL_OF_JOB, Field
from toreuma.core.kinds.operations import OPERATIONS
from toreuma.core.model import Job, Operation
from toreuma.core.plan.asked.cost import part_cost
from toreuma.core.plan.asked.grips import operation_grips
from toreuma.core.plan.asked.prove_out import prove_out
from toreuma.core.plan.groove.part_off import is_held
from toreuma.core.plan.ground.given import Given
from toreuma.core.plan.numbers.derates import Derate, derates_of, without_derate
from toreuma.core.spoken import spoken
from toreuma.core.units import show
from toreuma.engine.library import library
from toreuma.shipped.library import known_threads

__all__ = ["ReasonsPanel"]

HOLD_CAUTIONS = (
    "Jaws fly outward as the speed rises, and the grip falls. Never go above the limit on the chuck's own plate.",
    "A bar that sticks out behind the spindle whips: keep it guarded, in a liner, or cut short.",
    "A centre supports the piece, it does not hold it.",
    "Computed values: the machine's manual, the chuck's sheet, local rules and trained staff come first.",
)

CONDITIONS: tuple[tuple[str, str, tuple[tuple[str, object], ...]], ...] = (
    ("stance", "Stance", (("Normal", "normal"), ("Gentle", "gentle"), ("Hard", "hard"))),
    ("attended", "Watched", (("Somebody watches", True), ("Nobody watches", False))),
    ("coolant", "Coolant", (("As usual", "usual"), ("Dry", "dry"))),
    ("aim", "Aim", (("Most metal a minute", "output"), ("Least cost", "cost"))),
)


def _features(job: Job, operation: Operation) -> tuple[tuple[str, object], ...]:
    """The features of the part that the operation can cut, by name."""
    kinds = OPERATIONS[operation.kind].cuts
    return tuple(
        (feature.name or getattr(feature, "designation", f"{feature.kind} {index + 1}".capitalize()), index)
        for index, feature in enumerate(job.part.features)
        if feature.kind in kinds
    )


def _with_prove_out(job: Job, name: str) -> Job:
    return job.changed(prove_out=library().materials.get(name))


class ReasonsPanel(RowColumn):
    """Right-hand panel. Rebuilt when another thing is selected; refreshed in place when only numbers change."""

    def __init__(self, session: Session, theme: Theme) -> None:
        self._stage = "part"
        self._finding: Finding | None = None
        self._shown: list[str] = []
        super().__init__(session, theme)
        self.setAccessibleName("Reasons")
        session.cursor_changed.connect(self._on_cursor)
        session.balance_changed.connect(self.refresh)

    def set_stage(self, stage: str) -> None:
        self._stage, self._finding = stage, None
        self.refresh()

    def show_finding(self, finding: Finding | None) -> None:
        self._finding = finding
        self.refresh()

    def _fill(self) -> None:
        job = self._session.job
        if job is None:
            self._start(())
            return
        operation = job.operation(self._session.selection.operation or "")
        if self._stage == "part":
            part_reasons(self, job)
        elif self._stage == "stock":
            self._stock(job)
        elif self._stage == "hold":
            self._hold(job)
        elif self._stage == "transfer":
            self._transfer()
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

    def _start(self, key: tuple[object, ...]) -> bool:
        return super()._start((self._stage, *key))

    # What is shown

    def _overview(self) -> None:
        outcome = self._session.outcome
        findings = (*self._session.order, *outcome.plan.all_findings) if outcome else ()
        job = self._session.job
        derates = derates_of(Given.of(job)) if job is not None else ()
        known = tuple(one.key for one in derates)
        aim = job.conditions.aim if job is not None else ""
        fresh = self._start(("overview", outcome is None, self._finding_key(findings), known, aim))
        self._text("title", "title", "Whole route")
        times = outcome.plan.times if outcome else None
        self._text("time", "large", clock(times.total_s) + " min" if times else "planning")
        if times:
            self._text(
                "split",
                "muted",
                f"cutting {clock(times.cutting_s)}   rapid {clock(times.rapid_s)}   idle {clock(times.idle_s)}",
            )
        if outcome is not None:
            self._row("part_cost", part_cost(outcome.plan))
        self._text("hint", "muted", "Select an operation to see its numbers and the reason behind each.")
        if job is not None:
            self._conditions(job, derates, fresh)
        if fresh:
            self._findings(findings)
            self._end()

    def _conditions(self, job: Job, derates: tuple[Derate, ...], fresh: bool) -> None:
        """How the job is run, and what makes its numbers gentler."""
        if fresh:
            self._heading("How it is run")
        for key, label, options in CONDITIONS:
            self._choice(
                f"conditions.{key}",
                label,
                options,
                getattr(job.conditions, key),
                lambda j, value, k=key: j.changed(conditions=j.conditions.changed(**{k: value})),  # type: ignore[misc]
            )
        for field in CONDITION_FIELDS if job.conditions.aim == "cost" else ():
            self._typed(
                f"conditions.{field.name}",
                field,
                getattr(job.conditions, field.name),
                lambda j, number, n=field.name: j.changed(conditions=j.conditions.changed(**{n: number})),  # type: ignore[misc]
            )
        soft = [("The real material", "")] + [(f"{m.name}  ({m.group})", m.name) for m in library().materials.values()]
        chosen = job.prove_out.name if job.prove_out is not None else ""
        self._choice("prove_out", "Prove out on", soft, chosen, _with_prove_out)
        self._prove_out(job)
        if fresh and derates:
            self._heading("Factors on speed and feed")
        for one in derates:
            feed = f", feed × {one.feed:g}" if one.feed != 1 else ""
            words = f"{one.name}: speed × {one.speed:g}{feed}; {one.why}"
            self._text(f"derate.{one.key}", "muted" if one.left_out else "plain", words[0].upper() + words[1:])
            self._line(
                f"derate.{one.key}",
                "Left out: a reason, to leave it out",
                one.left_out,
                lambda j, text, k=one.key: without_derate(j, k, text),  # type: ignore[misc]
            )

    def _prove_out(self, job: Job) -> None:
        """Overrides for the softer piece, operation by operation."""
        outcome = self._session.outcome
        if job.prove_out is None or outcome is None:
            self._text("prove_out", "plain", "")
            self._text("not_shown", "muted", "")
            return
        found = prove_out(outcome.plan, job.prove_out)
        lines = [f"{one.name}: spindle {one.speed_pct} %, feed {one.feed_pct} %" for one in found.overrides]
        self._text("prove_out", "plain", "\n".join(lines))
        self._text("not_shown", "muted", "It will not show:\n" + "\n".join(found.not_shown))

    def _operation(self, job: Job, operation: Operation) -> None:
        outcome = self._session.outcome
        planned = outcome.plan.of(operation.id) if outcome else None
        numbers = planned.numbers if planned else {}
        findings = planned.findings if planned else ()
        shown = in_order(numbers)
        if not numbers and operation.enabled and outcome is None:
            shown = [key for key in self.rows if key in self._shown]
        key = (
            operation.id,
            operation.kind,
            tuple(shown),
            self._finding_key(findings),
            tuple(tool.id for tool in job.tools),
            planned is not None and planned.cuts.proposal is not None,
            len(planned.cuts.infeed) if planned is not None else 0,
            self._session.chosen,
            is_held(job),
        )
        self._shown = shown
        fresh = self._start(key)
        if fresh:
            self._operation_head(job, operation)
            self._findings(findings)
        heading_shown = ""
        for number in shown:
            if number in numbers:
                evidence = numbers[number]
                title = shown_of(number).heading
                if fresh and title != heading_shown:
                    self._heading(title)
                    heading_shown = title
                pin = evidence.pin
                self._row(number, evidence, self._pinner(operation.id, pin) if pin else None)
        proposal = planned.cuts.proposal if planned else None
        if fresh and proposal is not None:
            self._add(heading("Limits, the one used most first"))
            self._uses = LimitBars(self._theme)
            self._add(self._uses)
        if proposal is not None:
            self._uses.show_uses(proposal.uses, self._session.system)
        if fresh:
            self._add(heading("Settings"))
        with_centre = (WITH_CENTRE,) if job.setup.centre is not None else ()
        for field in (*OPERATIONS[operation.kind].fields, *with_centre):
            self._field_row(operation, field)
        if fresh and planned is not None and planned.cuts.infeed:
            self._add(heading("Passes"))
            self._passes = InfeedTable(self._session, operation.id)
            self._add(self._passes)
        if planned is not None and planned.cuts.infeed:
            self._passes.show_passes(planned.cuts.infeed)
        if fresh:
            self._why_chosen(operation)
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
        tools = narrow_box()
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
        job = self._session.job
        if field.name == "taken" and job is not None and is_held(job):
            self._text("taken", "muted", "The second spindle holds the part while it is cut off")
            return
        if field.options:
            self._option_row(operation, field)
            return
        self._typed(
            f"field.{field.name}",
            field,
            getattr(operation, field.name),
            lambda job, number: operation_change(operation.id, field.name, number)(job),
        )

    def _option_row(self, operation: Operation, field: Field) -> None:
        """A setting that is one of a few."""
        job, options = self._session.job, field.options
        if job is None:
            return
        if options is FEATURE_OF_PART:
            options = _features(job, operation)
        if options is TOOL_OF_JOB:
            options = (("no other tool", None), *((f"{tool.id} {tool.name}", tool.id) for tool in job.tools))

        def change(job: Job, value: object) -> Job:
            if field.name == "feature" and isinstance(value, int):
                threads = known_threads(job.part)
                return job.with_operation(operation.id, lambda op: with_feature(op, job, value, threads))
            return operation_change(operation.id, field.name, value)(job)

        self._choice(f"field.{field.name}", field.label, options, getattr(operation, field.name), change)

    def _why_chosen(self, operation: Operation) -> None:
        """What spoke for the tool when the route was proposed, and for no other."""
        chosen = next((one for one in self._session.chosen if self._is_of(one, operation)), None)
        if chosen is None:
            return
        self._add(heading("Why this tool"))
        for reason in chosen.reasons:
            self._note(self._said(reason))
        if chosen.rivals:
            self._add(heading("And not"))
            for rival in chosen.rivals:
                self._note(self._said(rival))

    def _said(self, line: str) -> str:
        """A line of the advisor as the person reads it: their units, a capital in front."""
        words = spoken(line, self._session.system)
        return words[0].upper() + words[1:]

    def _is_of(self, chosen: Chosen, operation: Operation) -> bool:
        side = self._session.side
        return (chosen.side, chosen.operation) == (side, operation.id) and chosen.tool.split(" ")[0] == operation.tool

    def _pinner(self, operation_id: str, pin: str) -> "Callable[[float | None], ToreumaError | None]":
        def change(number: float | None) -> ToreumaError | None:
            return self._session.attempt(
                lambda job: job.with_operation(
                    operation_id, lambda op: op.changed(pins=op.pins.changed(**{pin: number}))
                )
            )

        return change

    def _stock(self, job: Job) -> None:
        outcome = self._session.outcome
        supply = outcome.plan.supply if outcome else None
        numbers = supply.numbers if supply else ()
        every = outcome.plan.findings if outcome else ()
        findings = tuple(finding for finding in every if finding.code.startswith(("stock.", "bar.")))
        fresh = self._start(("stock", tuple(e.name for e in numbers), self._finding_key(findings)))
        if fresh:
            self._text("title", "title", "What the blank gives")
            self._findings(findings)
        for evidence in numbers:
            self._row(evidence.name, evidence)
        if fresh:
            self._end()

    def _hold(self, job: Job) -> None:
        outcome = self._session.outcome
        plan = outcome.plan if outcome else None
        numbers = (*plan.hold.numbers, *(plan.second.numbers if plan.second else ())) if plan else ()
        findings = (*plan.hold.findings, *(plan.second.findings if plan.second else ())) if plan else ()
        grips = operation_grips(plan) if plan else []
        key = (tuple(e.name for e in numbers), self._finding_key(findings), tuple(name for name, _ in grips))
        fresh = self._start(("hold", *key))
        if fresh:
            self._text("title", "title", "What the hold allows")
            self._findings(findings)
        for evidence in numbers:
            self._row(evidence.name, evidence)
        if fresh and grips:
            self._heading("Safety of each cut, at its highest speed")
        for name, evidence in grips:
            self._row(f"grip.{name}", evidence)
        if fresh:
            for caution in HOLD_CAUTIONS:
                self._note(caution)
            self._end()

    def _transfer(self) -> None:
        """What the hand-over comes to, and what stands against it."""
        outcome = self._session.outcome
        if outcome is not None and outcome.by_hand is not None:
            self._by_hand(outcome.by_hand)
            return
        made = outcome.transfer if outcome is not None else None
        findings = made.findings if made is not None else ()
        session, found = self._session, self._session.balanced
        ran_s = session.pair.cycle_s if session.pair is not None else 0.0
        key = (made is not None, self._finding_key(findings), session.complete, session.search.state, found, ran_s)
        fresh = self._start(("transfer", *key))
        if fresh:
            self._text("title", "title", "What the hand-over comes to")
            if made is not None and not any(one.severity == "error" for one in findings):
                self._note("Nothing stands against it: grip, reach, room, speeds, angles and parking hold.")
            self._findings(findings)
        for key, evidence in (made.numbers if made is not None else {}).items():
            self._row(f"transfer.{key}", evidence)
        if fresh and made is not None:
            self._heading("Both spindles at work")
            if session.search.looks_for("cycle"):
                self._buttons((("Stop looking", session.stop_search),), columns=1)
            elif found is None and session.complete:
                self._note("Side two of one part while side one of the next is cut, for parts in a row.")
                self._buttons((("Find the shortest cycle", session.find_cycle),), columns=1)
        ran = ran_numbers(ran_s, found) if ran_s > 0 else ()
        for evidence in (*ran, *(cycle_numbers(found) if found is not None else ())):
            self._row(f"cycle.{evidence.name}", evidence)
        if fresh and found is not None:
            self._note(moved_words(found, self._session.job))
            if found.moved and self._session.whole is not None:
                there = lambda: session.change_whole(as_found(session.whole, found))  # type: ignore[arg-type]  # noqa: E731
                self._buttons((("Put them there", there),), columns=1)
        if fresh:
            self._end()

    def _by_hand(self, made: ByHand) -> None:
        """What turning the part round by hand comes to."""
        fresh = self._start(("by hand", self._finding_key(made.findings)))
        if fresh:
            self._text("title", "title", "What turning it round comes to")
            self._findings(made.findings)
        for key, evidence in made.numbers.items():
            self._row(f"turn.{key}", evidence)
        if fresh:
            self._end()

    def _proof(self) -> None:
        proof, finding = self._session.proof, self._finding
        fresh = self._start(("proof", finding, None if proof is None else (proof.sizes, proof.threads)))
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
        outcome = self._session.outcome
        if outcome is not None:
            planned = sum(op.times.total_s for op in outcome.plan.operations)
            self._text("planned", "muted", f"planned operation by operation: {clock(planned)} min")
        if fresh:
            sizes = SizeTable(proof, self._session.system)
            if sizes.rowCount():
                self._add(heading("Sizes of the finished piece"))
                self._add(sizes)
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
