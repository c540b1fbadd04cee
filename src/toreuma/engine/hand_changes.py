"""A planned program that a person changed: the changes stay where the plan still writes what it wrote there then.

A stretch goes from one operation's comment to the next; what stands before the first is one too. Block numbers do not
count: they are written anew.
"""

import re
from dataclasses import dataclass

from toreuma.core.dialect import Dialect
from toreuma.core.findings import Cure, Finding
from toreuma.core.model import HandChange, Job
from toreuma.core.plan import Plan
from toreuma.core.post import post
from toreuma.core.read.rewrite import renumbered

__all__ = ["Written", "changes_from", "stretches", "without_change", "written"]

_N = re.compile(r"^(\s*/?\s*)N\d+ ?", re.M | re.I)


@dataclass(frozen=True, kw_only=True)
class Written:
    """The program with the hand's changes, as the plan alone would write it, and changes that found no place."""

    name: str
    text: str
    planned: str
    taken: tuple[HandChange, ...]
    open: tuple[HandChange, ...]
    findings: tuple[Finding, ...]


def stretches(text: str, plan: Plan, language: Dialect) -> list[tuple[str, str]]:
    """The text cut at the operations' comments: (id of the operation, its lines without block numbers)."""
    opening = re.escape(language.comment[0]) + re.escape(language.section).replace(r"\{number\}", r"(\d+)")
    begins = re.compile(opening.replace(r"\{name\}", ".*"), re.I)
    ids = {count: operation.id for count, operation in enumerate(plan.job.operations, 1)}
    found: list[tuple[str, list[str]]] = [("", [])]
    for line in text.split("\n"):
        match = begins.match(line)
        if match is not None:
            found.append((ids.get(int(match[1]), ""), []))
        found[-1][1].append(line)
    return [(operation, _N.sub(r"\1", "\n".join(lines))) for operation, lines in found]


def written(plan: Plan, language: Dialect) -> Written:
    """The program of a plan with what a person changed in it. Raises `ProgramError` as `post` does."""
    posted = post(plan, language)
    own = [one for one in plan.job.program.by_hand if one.setup == plan.job.setup.name]
    if not own:
        return Written(name=posted.name, text=posted.text, planned=posted.text, taken=(), open=(), findings=())
    pieces = stretches(posted.text, plan, language)
    taken, left = [], []
    for change in own:
        place = next((n for n, (operation, text) in enumerate(pieces)
                      if operation == change.operation and text == change.was), None)  # fmt: skip
        if place is None:
            left.append(change)
        else:
            pieces[place] = (change.operation, change.now)
            taken.append(change)
    text = posted.text
    if taken:
        text = "\n".join(piece for _, piece in pieces)
        numbered = language.line_step and plan.job.program.numbering == "as usual"
        text = renumbered(text, language, language.line_step).text if numbered else text
    return Written(
        name=posted.name,
        text=text,
        planned=posted.text,
        taken=tuple(taken),
        open=tuple(left),
        findings=tuple(_finding(one, plan, pieces) for one in left),
    )


def changes_from(text: str, plan: Plan, language: Dialect) -> tuple[HandChange, ...] | None:
    """What a person changed in the planned program, stretch by stretch; None where operations' comments are no longer
    those of the plan, so that nobody can say which stretch is which."""
    planned = stretches(post(plan, language).text, plan, language)
    typed = stretches(text, plan, language)
    if [one for one, _ in typed] != [one for one, _ in planned]:
        return None
    name = plan.job.setup.name
    return tuple(
        HandChange(setup=name, operation=operation, was=was, now=now)
        for (operation, was), (_, now) in zip(planned, typed, strict=True)
        if was.rstrip() != now.rstrip()
    )


def without_change(job: Job, change: HandChange) -> Job:
    """The job without one change: the plan's words stand there again."""
    kept = tuple(one for one in job.program.by_hand if one != change)
    return job.changed(program=job.program.changed(by_hand=kept))


def _finding(change: HandChange, plan: Plan, pieces: list[tuple[str, str]]) -> Finding:
    """A change whose stretch the plan writes otherwise by now: mine or the plan's."""
    operation = plan.job.operation(change.operation) if change.operation else None
    where = operation.name or operation.id if operation is not None else "the beginning of the program"
    now = next((text for one, text in pieces if one == change.operation), None)
    cures = [Cure("Take the plan's", lambda job: without_change(job, change))]
    if now is not None:
        moved = change.changed(was=now)

        def keep(job: Job) -> Job:
            every = tuple(moved if one == change else one for one in job.program.by_hand)
            return job.changed(program=job.program.changed(by_hand=every))

        cures.insert(0, Cure("Take mine", keep))
    return Finding(
        "warning",
        "program.by_hand",
        f"{where} was changed by hand, and the plan writes something else there by now",
        "the plan's words stand in the program until you choose",
        operation=change.operation,
        cures=tuple(cures),
    )
