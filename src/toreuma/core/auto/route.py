"""A whole route for a job: a tool for everything there is to cut, operations in order, each choice with its reasons."""

from collections.abc import Callable, Collection, Mapping
from dataclasses import dataclass
from types import MappingProxyType

from toreuma.core.advise.advice import Advice, advise
from toreuma.core.advise.wishes import Wish, wishes
from toreuma.core.auto.order import ordered
from toreuma.core.auto.steps import Step, steps_of
from toreuma.core.auto.turret import seated
from toreuma.core.findings import Cure, Finding
from toreuma.core.memo import Check, Memo, never_cancel
from toreuma.core.model import Job, Operation
from toreuma.core.model.catalogue import Catalogue
from toreuma.core.model.tool import BoringTool, Tool, TurningTool
from toreuma.core.plan import Plan, plan
from toreuma.core.plan.second_side import second_setup, second_side
from toreuma.core.scene import build_scene
from toreuma.core.standards.threads import Thread

__all__ = ["Chosen", "Proposed", "propose_route"]

MOST_ROUNDS = 4
"""Cures lead to new findings at times; after so many rounds the rest is left to the person."""

TAKEN_CURES = ("finish.deep", "finish.thin", "drill.spot", "ream.full")
"""Findings whose first cure is taken without asking."""


@dataclass(frozen=True)
class Chosen:
    """One choice: what for, the tool, why this one, and why not others."""

    operation: str
    what: str
    tool: str
    reasons: tuple[str, ...]
    rivals: tuple[str, ...] = ()


@dataclass(frozen=True)
class Proposed:
    """A job with its route, every choice explained, and what found no tool."""

    job: Job
    chosen: tuple[Chosen, ...]
    without: tuple[Finding, ...]


@dataclass(frozen=True)
class _Store:
    """What there is to choose from."""

    catalogue: Catalogue
    rack: Collection[str]
    threads: Mapping[str, Thread]


def propose_route(
    job: Job,
    store: Catalogue,
    rack: Collection[str] = (),
    threads: Mapping[str, Thread] = MappingProxyType({}),
    check: Check = never_cancel,
    progress: Callable[[float], None] = lambda share: None,
) -> Proposed:
    """A route in place of the operations and tools the job has; for both sides where one hold does not reach all.

    Raises `PartError` for a part that cannot be, and whatever ``check`` raises to stop; ``progress`` is told the
    share done.
    """
    have = _Store(store, rack, threads)
    first = job.changed(tools=(), setups=(job.setup.changed(operations=()),))
    done = _side(first, have, {}, check, lambda share: progress(share / 2))
    if job.second_hold is None and len(job.setups) < 2:
        return done
    setup = job.setups[1].changed(operations=()) if len(job.setups) > 1 else second_setup(job)
    both = done.job.changed(setups=(done.job.setup, setup))
    other = second_side(both, plan(done.job, None, check))
    names = {tool.name: tool for tool in done.job.tools}
    second = _side(other, have, names, check, lambda share: progress(0.5 + share / 2))
    if not second.job.operations:
        return done
    tools = {tool.id: tool for tool in (*done.job.tools, *second.job.tools)}
    whole = both.changed(tools=tuple(tools.values()), setups=(done.job.setup, second.job.setup))
    return Proposed(whole, (*done.chosen, *second.chosen), second.without)


def _side(
    bare: Job, have: _Store, known: Mapping[str, Tool], check: Check, progress: Callable[[float], None]
) -> Proposed:
    """The route of one side. ``known`` are tools that sit in the turret for the other side, by name."""
    bare = bare.changed(tools=()).with_setup(operations=())
    scene = build_scene(bare)
    asked = wishes(bare, scene)
    steps: list[tuple[Step, Advice]] = []
    without: list[Finding] = []
    tools: dict[str, Tool] = dict(known)
    for index, wish in enumerate(asked):
        check()
        at_hand = bare.changed(tools=_at_hand(tools))
        advice = advise(at_hand, scene, wish, have.catalogue, have.rack, have.threads, check)
        if advice.best is None:
            without.append(_no_tool(wish, advice))
            continue
        for step in steps_of(bare, scene, wish, advice, have.catalogue, have.threads):
            tools.setdefault(step.tool.name, step.tool)
            steps.append((step, advice))
        progress(0.8 * (index + 1) / len(asked))
    route = ordered(bare, [step for step, _ in steps])
    placed = seated(bare, list(dict.fromkeys(step.tool.name for step in route)), tools, known)
    operations = [_operation(step, placed[step.tool.name].id, count) for count, step in enumerate(route, 1)]
    proposed = bare.changed(tools=tuple(placed.values())).with_setup(operations=tuple(operations))
    proposed = _used_only(_mended(proposed, check))
    advice_of = {id(step): advice for step, advice in steps}
    kept = {operation.id for operation in proposed.operations}
    chosen = tuple(
        _chosen(operation, step, advice_of[id(step)], placed[step.tool.name].id)
        for operation, step in zip(operations, route, strict=True)
        if operation.id in kept
    )
    progress(1.0)
    return Proposed(proposed, chosen, tuple(without))


def _at_hand(tools: Mapping[str, Tool]) -> tuple[Tool, ...]:
    """Tools already chosen that may serve again; inserts are chosen for each kind of cut anew."""
    kept = [tool for tool in tools.values() if not isinstance(tool, TurningTool | BoringTool)]
    return tuple(tool.changed(id=f"H{i}", station=i) for i, tool in enumerate(kept, 1))


def _operation(step: Step, tool_id: str, count: int) -> Operation:
    return step.operation.changed(id=f"op{count}", tool=tool_id)


def _chosen(operation: Operation, step: Step, advice: Advice, tool_id: str) -> Chosen:
    rivals = [f"{one.title}: {one.against}" for one in advice.candidates[1:4] if one.against]
    rivals += [f"{one.title}: {one.why}" for one in advice.rejected[:2]]
    return Chosen(operation.id, operation.name, f"{tool_id} {step.tool.name}", step.reasons, tuple(rivals))


def _no_tool(wish: Wish, advice: Advice) -> Finding:
    why = advice.rejected[0] if advice.rejected else None
    words = f"{why.title}: {why.why}" if why else "there is no tool of its kind in the store"
    return Finding("warning", "auto.none", f"{wish.words}: no tool can do it", words)


def _mended(job: Job, check: Check) -> Job:
    """The job with the cures taken that need no judgement, and without operations that cut nothing."""
    memo = Memo()
    for _ in range(MOST_ROUNDS):
        planned = plan(job, memo, check)
        cures = _cures(planned)
        if not cures:
            break
        job = cures[0].apply(job)
    planned = plan(job, memo, check)
    idle = {one.operation.id for one in planned.operations if not one.motions}
    return job.with_setup(operations=tuple(one for one in job.operations if one.id not in idle))


def _cures(planned: Plan) -> list[Cure]:
    found = [finding for finding in planned.all_findings if finding.code in TAKEN_CURES]
    return [cure for finding in found for cure in finding.cures[:1]]


def _used_only(job: Job) -> Job:
    used = {operation.tool for operation in job.operations}
    return job.changed(tools=tuple(tool for tool in job.tools if tool.id in used))
