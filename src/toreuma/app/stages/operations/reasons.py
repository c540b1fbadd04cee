"""The numbers of an operation, why they are so, and what is wrong with them."""

from collections.abc import Callable, Iterator

from PySide6.QtWidgets import QLineEdit

from toreuma.app.forms.column import heading
from toreuma.app.forms.fields import WITH_CENTRE, operation_change
from toreuma.app.forms.rows import narrow_box
from toreuma.app.session import Session
from toreuma.app.stages.operations.infeed_table import InfeedTable
from toreuma.app.stages.operations.limit_bars import LimitBars
from toreuma.app.stages.operations.overview import RouteReasons
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.auto.fresh import with_feature
from toreuma.core.auto.propose import Chosen
from toreuma.core.cutting.evidence import Evidence
from toreuma.core.cutting.figures import Figure, Reasons, in_order
from toreuma.core.errors import ToreumaError
from toreuma.core.kinds.field import FEATURE_OF_PART, TOOL_OF_JOB, Field
from toreuma.core.kinds.operations import OPERATIONS
from toreuma.core.model import Job, Operation
from toreuma.core.plan.groove.part_off import is_held
from toreuma.core.spoken import spoken
from toreuma.shipped.library import known_threads

__all__ = ["OperationReasons"]


def _features(job: Job, operation: Operation) -> tuple[tuple[str, object], ...]:
    """The features of the part that the operation can cut, by name."""
    kinds = OPERATIONS[operation.kind].cuts
    return tuple(
        (feature.name or getattr(feature, "designation", f"{feature.kind} {index + 1}".capitalize()), index)
        for index, feature in enumerate(job.part.features)
        if feature.kind in kinds
    )


def _rows(every: tuple[Reasons, ...]) -> Iterator[tuple[str, tuple[Figure, Evidence]]]:
    """Each number with the name of its row: those of the first tool, then those of each further one."""
    for index, reasons in enumerate(every):
        for figure in in_order(reasons):
            yield (f"{figure}_{index}" if index else figure.value), (figure, reasons[figure])


class OperationReasons(RouteReasons):
    """Numbers, limits used, settings, passes and why the tool was chosen; the whole route while none is selected."""

    def __init__(self, session: Session, theme: Theme) -> None:
        self._shown: list[str] = []
        super().__init__(session, theme)

    def show_job(self, job: Job) -> None:
        operation = job.operation(self.session.selection.operation or "")
        if operation is not None:
            self._operation(job, operation)
        else:
            super().show_job(job)

    def _operation(self, job: Job, operation: Operation) -> None:
        outcome = self.session.outcome
        planned = outcome.plan.of(operation.id) if outcome else None
        every = (planned.reasons, *planned.cuts.further) if planned else ()
        numbers = dict(_rows(every))
        findings = planned.findings if planned else ()
        shown = list(numbers)
        if not numbers and operation.enabled and outcome is None:
            shown = [key for key in self.rows if key in self._shown]
        key = (
            operation.id,
            operation.kind,
            tuple(shown),
            self.finding_key(findings),
            tuple(tool.id for tool in job.tools),
            planned is not None and planned.cuts.proposal is not None,
            len(planned.cuts.infeed) if planned is not None else 0,
            self.session.chosen,
            is_held(job),
        )
        self._shown = shown
        fresh = self.start(key)
        if fresh:
            self._operation_head(job, operation)
            self.findings(findings)
        heading_shown = ""
        for number in shown:
            if number in numbers:
                figure, evidence = numbers[number]
                title = figure.heading
                if fresh and title != heading_shown:
                    self.heading(title)
                    heading_shown = title
                self.row(number, evidence, self._pinner(operation.id, figure.pin) if evidence.typable else None)
        proposal = planned.cuts.proposal if planned else None
        if fresh and proposal is not None:
            self.add(heading("Limits, the one used most first"))
            self._uses = LimitBars(self.theme)
            self.add(self._uses)
        if proposal is not None:
            self._uses.show_uses(proposal.uses, self.session.system)
        with_centre = (WITH_CENTRE,) if job.setup.centre is not None else ()
        fields = (*OPERATIONS[operation.kind].fields, *with_centre)
        if fresh and fields:
            self.add(heading("Settings"))
        for field in fields:
            self._field_row(operation, field)
        if fresh and planned is not None and planned.cuts.infeed:
            self.add(heading("Passes"))
            self._passes = InfeedTable(self.session, operation.id)
            self.add(self._passes)
        if planned is not None and planned.cuts.infeed:
            self._passes.show_passes(planned.cuts.infeed)
        if fresh:
            self._why_chosen(operation)
            self.end()

    def _operation_head(self, job: Job, operation: Operation) -> None:
        name = QLineEdit(operation.name)
        name.setObjectName("name")
        name.setAccessibleName(tr("Name of the operation"))
        name.editingFinished.connect(
            lambda: self.session.attempt(
                lambda j: j.with_operation(operation.id, lambda op: op.changed(name=name.text().strip()))
            )
        )
        self.add(name)
        tools = narrow_box()
        tools.setAccessibleName(tr("Tool"))
        for tool in job.tools:
            tools.addItem(f"{tool.id}  {tool.name}", tool.id)
        tools.setCurrentIndex(max(tools.findData(operation.tool), 0))
        tools.activated.connect(
            lambda _: self.session.attempt(
                lambda j: j.with_operation(operation.id, lambda op: op.changed(tool=tools.currentData()))
            )
        )
        self.add(tools)

    def _field_row(self, operation: Operation, field: Field) -> None:
        job = self.session.job
        if field.name == "taken" and job is not None and is_held(job):
            self.text("taken", "muted", "The second spindle holds the part while it is cut off")
            return
        if field.options:
            self._option_row(operation, field)
            return
        self.typed(
            f"field.{field.name}",
            field,
            getattr(operation, field.name),
            lambda job, number: operation_change(operation.id, field.name, number)(job),
        )

    def _option_row(self, operation: Operation, field: Field) -> None:
        """A setting that is one of a few."""
        job, options = self.session.job, field.options
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

        self.choice(f"field.{field.name}", field.label, options, getattr(operation, field.name), change)

    def _why_chosen(self, operation: Operation) -> None:
        """What spoke for the tool when the route was proposed, and for no other."""
        chosen = next((one for one in self.session.chosen if self._is_of(one, operation)), None)
        if chosen is None:
            return
        self.add(heading("Why this tool"))
        for reason in chosen.reasons:
            self.note(self._said(reason))
        if chosen.rivals:
            self.add(heading("And not"))
            for rival in chosen.rivals:
                self.note(self._said(rival))

    def _said(self, line: str) -> str:
        """A line of the advisor as the person reads it: their units, a capital in front."""
        words = spoken(line, self.session.system)
        return words[0].upper() + words[1:]

    def _is_of(self, chosen: Chosen, operation: Operation) -> bool:
        side = self.session.side
        return (chosen.side, chosen.operation) == (side, operation.id) and chosen.tool.split(" ")[0] == operation.tool

    def _pinner(self, operation_id: str, pin: str) -> "Callable[[float | None], ToreumaError | None]":
        def change(number: float | None) -> ToreumaError | None:
            return self.session.attempt(
                lambda job: job.with_operation(
                    operation_id, lambda op: op.changed(pins=op.pins.changed(**{pin: number}))
                )
            )

        return change
