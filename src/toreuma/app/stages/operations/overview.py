"""The whole route: its time and cost, how it is run, what makes it gentler."""

from toreuma.app.forms.fields import CONDITION_FIELDS
from toreuma.app.forms.format import clock
from toreuma.app.forms.reasons import ReasonsPanel
from toreuma.core.model import Job
from toreuma.core.plan.asked.cost import part_cost
from toreuma.core.plan.asked.part_time import part_time
from toreuma.core.plan.asked.prove_out import prove_out
from toreuma.core.plan.ground.given import Given
from toreuma.core.plan.numbers.derates import Derate, derates_of, without_derate
from toreuma.engine.library import library

__all__ = ["RouteReasons"]

CONDITIONS: tuple[tuple[str, str, tuple[tuple[str, object], ...]], ...] = (
    ("stance", "Stance", (("Normal", "normal"), ("Gentle", "gentle"), ("Hard", "hard"))),
    ("attended", "Watched", (("Somebody watches", True), ("Nobody watches", False))),
    ("coolant", "Coolant", (("As usual", "usual"), ("Dry", "dry"))),
    ("aim", "Aim", (("Most metal a minute", "output"), ("Least cost", "cost"))),
)


def _with_prove_out(job: Job, name: str) -> Job:
    return job.changed(prove_out=library().materials.get(name))


class RouteReasons(ReasonsPanel):
    """Shown while no operation is selected."""

    def show_job(self, job: Job) -> None:
        outcome = self.session.outcome
        findings = (*self.session.order, *outcome.plan.all_findings) if outcome else ()
        derates = derates_of(Given.of(job))
        known, aim = tuple(one.key for one in derates), job.conditions.aim
        fresh = self.start(("overview", outcome is None, self.finding_key(findings), known, aim))
        self.text("title", "title", "Whole route")
        times = outcome.plan.times if outcome else None
        self.text("time", "large", clock(times.total_s) + " min" if times else "planning")
        if times:
            self.text(
                "split",
                "muted",
                f"cutting {clock(times.cutting_s)}   rapid {clock(times.rapid_s)}   idle {clock(times.idle_s)}",
            )
        if outcome is not None:
            takes = part_time((outcome.plan,))
            if takes.source:
                self.row("part_time", takes)
            self.row("part_cost", part_cost(outcome.plan))
        self.text("hint", "muted", "Select an operation to see its numbers and the reason behind each.")
        if job is not None:
            self._conditions(job, derates, fresh)
        if fresh:
            self.findings(findings)
            self.end()

    def _conditions(self, job: Job, derates: tuple[Derate, ...], fresh: bool) -> None:
        """How the job is run, and what makes its numbers gentler."""
        if fresh:
            self.heading("How it is run")
        for key, label, options in CONDITIONS:
            self.choice(
                f"conditions.{key}",
                label,
                options,
                getattr(job.conditions, key),
                lambda j, value, k=key: j.changed(conditions=j.conditions.changed(**{k: value})),  # type: ignore[misc]
            )
        for field in CONDITION_FIELDS if job.conditions.aim == "cost" else ():
            self.typed(
                f"conditions.{field.name}",
                field,
                getattr(job.conditions, field.name),
                lambda j, number, n=field.name: j.changed(conditions=j.conditions.changed(**{n: number})),  # type: ignore[misc]
            )
        soft = [("The real material", "")] + [(f"{m.name}  ({m.group})", m.name) for m in library().materials.values()]
        chosen = job.prove_out.name if job.prove_out is not None else ""
        self.choice("prove_out", "Prove out on", soft, chosen, _with_prove_out)
        self._prove_out(job)
        if fresh and derates:
            self.heading("Factors on speed and feed")
        for one in derates:
            feed = f", feed × {one.feed:g}" if one.feed != 1 else ""
            words = f"{one.name}: speed × {one.speed:g}{feed}; {one.why}"
            self.text(f"derate.{one.key}", "muted" if one.left_out else "plain", words[0].upper() + words[1:])
            self.line(
                f"derate.{one.key}",
                "Left out: a reason, to leave it out",
                one.left_out,
                lambda j, text, k=one.key: without_derate(j, k, text),  # type: ignore[misc]
            )

    def _prove_out(self, job: Job) -> None:
        """Overrides for the softer piece, operation by operation."""
        outcome = self.session.outcome
        if job.prove_out is None or outcome is None:
            self.text("prove_out", "plain", "")
            self.text("not_shown", "muted", "")
            return
        found = prove_out(outcome.plan, job.prove_out)
        lines = [f"{one.name}: spindle {one.speed_pct} %, feed {one.feed_pct} %" for one in found.overrides]
        self.text("prove_out", "plain", "\n".join(lines))
        self.text("not_shown", "muted", "It will not show:\n" + "\n".join(found.not_shown))
