"""A whole route for a job: a tool for everything there is to cut, operations in order, each choice with its reasons."""

from collections.abc import Callable, Collection, Mapping
from dataclasses import dataclass, field, replace
from types import MappingProxyType

from toreuma.core.advise.advice import Advice, advise
from toreuma.core.advise.bore_drills import past_through_mm
from toreuma.core.advise.carriers import served_bore_z
from toreuma.core.advise.wishes import Wish, asked_for, wishes
from toreuma.core.auto.countersunk import countersunk
from toreuma.core.auto.mended import FAILED, mended
from toreuma.core.auto.milling import with_milled
from toreuma.core.auto.next_best import MILLED, Advised, Failed, next_best
from toreuma.core.auto.order import is_cut_first, ordered
from toreuma.core.auto.planning import Planning
from toreuma.core.auto.reamed import edge_alone, reamed_bore
from toreuma.core.auto.relieved import by_finishing, is_undercut, taken_along
from toreuma.core.auto.step_drilled import (
    FRONT_KEY,
    FRONT_WORDS,
    before_it_widens,
    in_front_only,
    is_pierced,
    is_wider,
    opens_behind,
    with_front_drilled,
)
from toreuma.core.auto.steps import RouteStep, steps_of
from toreuma.core.auto.together import also_facing, by_need, spared, together
from toreuma.core.auto.turret import seated, set_up_anew
from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.geometry.region import EMPTY, Region, box
from toreuma.core.kinds.features import FEATURES
from toreuma.core.model import Job, Operation
from toreuma.core.model.catalogue import Catalogue
from toreuma.core.model.tool import BoringTool, Drill, Tool, TurningTool
from toreuma.core.plan.numbers.drilling import point_length_mm
from toreuma.core.plan.sides.second_side import second_setup, second_side
from toreuma.core.plan.turret.at_spindle import reaching, serves
from toreuma.core.scene import Scene
from toreuma.core.spoken import said
from toreuma.core.standards.threads import Thread

__all__ = ["Chosen", "Proposed", "propose_route"]


@dataclass(frozen=True, kw_only=True)
class Chosen:
    """One choice: what for, the tool, why this one, and why not others."""

    operation: str
    what: str
    tool: str
    reasons: tuple[str, ...]
    rivals: tuple[str, ...] = ()
    side: int = 0


MOST_TRIES = 8
"""So often the next best tools are tried for what fails."""
MOST_SPARE, SPARE_TRIES = 2, 2
"""So many stations a first side may leave to the second, and so many tries there are for that."""
MOST_SEATS = 4
TURNED_IN_THE_BORE = ("rough bore", "finish bore")
IN_THE_BORE = ("drill bore", *TURNED_IN_THE_BORE)
NO_TOOL, BORED = "auto.none", ("Rough the bore:", "Finish the bore:")
SAME_MM, FAR_MM = 1e-6, 1e4
FAR_BEHIND_MM = 6.0
"""A bore that is wider behind for less than this has a broken edge there."""


@dataclass(frozen=True, kw_only=True)
class Proposed:
    """A job with its route, every choice explained, and what found no tool.

    ``taken`` are the cures applied on the way with their reasons, ``uses`` tells what each tool is for, ``seats`` is a
    cure that would move tools which the other side uses as well; ``failed`` are operations left out because they
    cannot be, ``is_drilled``: a bore that wants a drill has got one; ``state`` and ``words`` are the proof's of the
    part, empty where it was not proved. ``way`` says how the part is held, ``seconds`` how long it takes, ``decided``
    what spoke for it against the next best of the ``others``, the best of them first.
    """

    job: Job
    chosen: tuple[Chosen, ...]
    without: tuple[Finding, ...]
    taken: tuple[str, ...] = ()
    uses: Mapping[str, frozenset[str]] = field(default_factory=dict)
    seats: Cure | None = None
    failed: tuple[Failed, ...] = ()
    is_drilled: bool = True
    state: str = ""
    words: str = ""
    way: str = ""
    seconds: float = 0.0
    decided: str = ""
    others: tuple["Proposed", ...] = ()


@dataclass(frozen=True)
class _Store:
    """What there is to choose from; ``two``: another side serves what this one does not; ``spare``: so many stations
    stay free for it; ``fine``: small rests are worth a second tool."""

    catalogue: Catalogue
    rack: Collection[str]
    threads: Mapping[str, Thread]
    two: bool = False
    spare: int = 0
    fine: bool = False


def propose_route(
    job: Job,
    store: Catalogue,
    rack: Collection[str] = (),
    threads: Mapping[str, Thread] = MappingProxyType({}),
    planning: Planning | None = None,
    progress: Callable[[float], None] = lambda share: None,
    begun: Proposed | None = None,
    ends_z: float | None = None,
    spare: int = 0,
    fine: bool = False,
    anew: bool = False,
) -> Proposed:
    """A route in place of the operations and tools the job has; for both sides where one hold does not reach all.

    ``begun`` is a route of the same first side, which is taken as it is; ``ends_z`` leaves the outside behind it to the
    second side; ``spare``: the first side leaves so many stations to the second;
    ``fine``: a second tool is taken for small rests as well; ``anew``: a part that is turned round by hand finds the
    machine set up for its second side alone. Raises `PartError` for a part that
    cannot be, and whatever the check of ``planning`` raises to stop; ``progress`` is told the share done.
    """
    planning = planning or Planning()
    have = _Store(store, rack, threads, fine=fine)
    first = job.changed(tools=(), setups=(job.setup.changed(operations=()),))
    two = job.second_hold is not None or len(job.setups) > 1
    seen_behind = two and opens_behind(build_part(job.part))
    here = replace(
        have, catalogue=_without_backs(have.catalogue) if seen_behind else have.catalogue, two=two, spare=spare
    )
    done = _begun(first, begun, seen_behind) or _side(
        first, here, {}, planning, lambda share: progress(share / 2), ends_z
    )
    if job.second_hold is None and len(job.setups) < 2:
        return done
    setup = job.setups[1].changed(operations=()) if len(job.setups) > 1 else second_setup(job)
    both = done.job.changed(setups=(done.job.setup, setup))
    other = second_side(both, planning.plan(done.job))
    there = (tool for tool in done.job.tools if serves(other, tool))
    names = {tool.name: (tool, done.uses.get(tool.id, frozenset())) for tool in there}
    second = _side(other, have, names, planning, lambda share: progress(0.5 + share / 2))
    crowded = {one.operation for one in second.failed if one.code == "tool.station"}
    full = any(one.code == "tool.station" for one in done.failed)
    if crowded and not spare and not full and len(crowded) <= MOST_SPARE:
        roomy = propose_route(job, store, rack, threads, planning, progress, None, ends_z, len(crowded), fine)
        if not any(one.code == "tool.station" for one in roomy.failed):
            return roomy
    apart = None
    if (anew or (crowded and not spare)) and job.hand_over is None:
        apart = _side(other.changed(tools=()), have, {}, planning, lambda share: progress(0.5 + share / 2))
    if apart is not None and (anew or len(apart.failed) < len(second.failed)):
        whole, second = set_up_anew(both, done.job, apart.job), apart
        moved: tuple[str, ...] = ("The stations are set up anew for the second side: one set of tools is too many",)
    elif not second.job.operations:
        return done
    else:
        tools = {tool.id: tool for tool in (*done.job.tools, *second.job.tools)}
        whole = both.changed(tools=tuple(tools.values()), setups=(done.job.setup, second.job.setup))
        whole, moved = _seated_for_both(whole, second.seats, planning)
    taken = (*done.taken, *second.taken, *moved)
    other_side = tuple(replace(one, side=1) for one in second.chosen)
    later = {one.what for one in second.chosen}
    of_features = {one.finding.what for one in done.failed if one.wish[-1:].isdigit()}
    open_ = tuple(
        one
        for one in done.without
        if one.what.split(":")[0] not in later or (one.code == FAILED and one.what not in of_features)
    )
    return Proposed(
        job=whole, chosen=(*done.chosen, *other_side), without=(*open_, *second.without), taken=taken,
        failed=second.failed,
    )  # fmt: skip


def _without_backs(store: Catalogue) -> Catalogue:
    """What widens behind is plain to see from the other end: no bar that cuts backward for it."""
    carriers = tuple(one for one in store.carriers if one.bar is None or not one.bar.back)
    return store.changed(carriers=carriers)


def _begun(bare: Job, begun: Proposed | None, seen_behind: bool) -> Proposed | None:
    """A known route of the first side, in this job."""
    if begun is None or len(begun.job.setups) != 1:
        return None
    far_behind = seen_behind and opens_behind(build_part(bare.part), FAR_BEHIND_MM)
    if any(
        isinstance(tool, BoringTool) and (far_behind or (seen_behind and tool.bar.back)) for tool in begun.job.tools
    ):
        return None  # its bars go deeper than they need to, now that the other end is served from there
    if any(one.wish == "drill bore" for one in begun.failed) or not begun.is_drilled or _bore_open(begun):
        return None
    job = bare.changed(tools=begun.job.tools, setups=(begun.job.setup, *bare.setups[1:]))
    return replace(begun, job=job)


def _seated_for_both(whole: Job, seats: Cure | None, planning: Planning) -> tuple[Job, tuple[str, ...]]:
    """Tools in other stations, where one of a side is in the way of the other and that leaves none in the way."""
    crowded = _crowded(whole, planning)
    tried = [seats] if seats is not None else []
    tried += [one.cures[0] for one in crowded if one.cures]
    for cure in tried[:MOST_SEATS]:
        moved = cure.apply(whole)
        if not _crowded(moved, planning):
            return moved, (f"{cure.label}: one would stand in metal or jaws",)
    return whole, ()


def _crowded(job: Job, planning: Planning) -> list[Finding]:
    """Tools in the way of a neighbour, on any side."""
    sides = planning.sides(job)
    return [one for side in sides for one in side.all_findings if one.code == "station.neighbour"]


def _side(
    bare: Job,
    have: _Store,
    known: Mapping[str, tuple[Tool, frozenset[str]]],
    planning: Planning,
    progress: Callable[[float], None],
    ends_z: float | None = None,
) -> Proposed:
    """The route of one side. ``known`` are tools of the job that sit there for the other side and serve here too, by
    name, and their use. Where an operation cannot be with the tool advised for it, the next one is tried."""
    advised = Advised(have.catalogue)
    best = found = _side_with(bare, have, known, advised, planning, progress, ends_z)
    for _ in range(MOST_TRIES if not have.spare else SPARE_TRIES):
        if not any(next_best(advised, one) for one in found.failed):
            break
        found = _side_with(bare, have, known, advised, planning, progress, ends_z)
        best = min(best, found, key=lambda one: len(one.failed))
    in_two = any(one.what == FRONT_WORDS for one in best.chosen)
    if in_two and any(one.code == "tool.station" for one in best.failed):
        plain = _side_with(bare, have, known, Advised(have.catalogue, plain=True), planning, progress, ends_z)
        best = min(best, plain, key=lambda one: len(one.failed))
    if _bore_open(best):
        tight = _side_with(bare, have, known, Advised(have.catalogue, tight=True), planning, progress, ends_z)
        best = min(best, tight, key=lambda one: len(one.without))
    return best


def _bore_open(route: Proposed) -> bool:
    """No tool was found for the bore, or for what is left of it."""
    return any(one.code == NO_TOOL and one.what.startswith(BORED) for one in route.without)


def _is_here(job: Job, wish: Wish, ends_z: float | None) -> bool:
    """It is in front of where the side is to end, or not on the outside."""
    if ends_z is None or wish.feature < 0:
        return True
    feature = job.part.features[wish.feature]
    lies = FEATURES[feature.kind].on_outside(feature)
    return lies is None or (lies[1] + lies[2]) / 2 > ends_z


def _side_with(
    bare: Job,
    have: _Store,
    known: Mapping[str, tuple[Tool, frozenset[str]]],
    advised: Advised,
    planning: Planning,
    progress: Callable[[float], None],
    ends_z: float | None,
) -> Proposed:
    """The route of one side with advice that is known, and the rest of it asked for."""
    sitting = {name: tool for name, (tool, _) in known.items()}
    others = tuple(tool for tool in bare.tools if tool.name not in sitting)
    bare = bare.with_setup(operations=())
    scene = planning.scene(bare, ends_z)
    every = wishes(bare, scene) if advised.plain else with_front_drilled(scene, wishes(bare, scene))
    here = (one for one in every if _is_here(bare, one, ends_z))
    asked = sorted(here, key=lambda wish: (wish.use == "face", is_undercut(bare, wish)))
    steps: list[tuple[RouteStep, Advice]] = []
    without: list[Finding] = []
    tools: dict[str, Tool] = {name: tool for name, (tool, _) in known.items()}
    drilled: Region = EMPTY
    uses: dict[str, frozenset[str]] = {name: use for name, (_, use) in known.items()}
    sized = reamed_bore(bare, scene, have.catalogue)
    if sized:
        asked = [wish for wish in asked if wish.key not in (*IN_THE_BORE, FRONT_KEY)]
    for step in sized:
        tools.setdefault(step.tool.name, step.tool)
        uses[step.tool.name] = uses.get(step.tool.name, frozenset()) | {"drill"}
        steps.append((step, Advice(Wish(key="ream bore", use="drill", words="Ream the bore"), (), ())))
    for index, wish in enumerate(asked):
        planning.check()
        if is_undercut(bare, wish) and taken_along(bare, wish, (step for step, _ in steps)):
            continue
        back = bare.setup.centre is not None and is_cut_first(bare, wish)
        at_hand = bare.changed(tools=_at_hand(tools, uses, wish))
        if back:
            at_hand = at_hand.with_setup(centre=None)
        seen = scene.without_centre if back else scene
        if wish.key == FRONT_KEY:
            seen = in_front_only(seen)
        elif not drilled.is_empty and wish.key in IN_THE_BORE:
            seen = replace(seen, stock=seen.stock.difference(drilled))
            if not asked_for(seen, wish) or (wish.key == "drill bore" and is_pierced(seen)):
                continue
        edge = edge_alone(seen, have.catalogue) if wish.key == "finish bore" and seen.cut_before else None
        if edge is not None:
            tools.setdefault(edge.tool.name, edge.tool)
            uses[edge.tool.name] = uses.get(edge.tool.name, frozenset()) | {"drill"}
            steps.append((edge, Advice(wish, (), ())))
            continue
        if wish.key in TURNED_IN_THE_BORE and (have.two or scene.cut_before):
            in_front = before_it_widens(seen, 0.0, is_wider)  # what is wider behind is the other end's
            if in_front is not None:
                seen = in_front[0]
                if not asked_for(seen, wish):
                    continue
        if wish.key not in advised.known:
            store = advised.store(wish.key)
            advised.known[wish.key] = advise(
                at_hand, seen, wish, store, have.rack, have.threads, planning.check, tight=advised.tight, fine=have.fine
            )
        advice = advised.known[wish.key]
        if wish.key == "rough outside" and any(one.use == "face" for one in asked):
            advice = also_facing(advice)
        shallow = None
        if wish.key == "drill bore" and advice.best is None and have.two:
            shallow = before_it_widens(seen)
        if shallow is not None:
            seen = shallow[0]
            advice = advise(
                at_hand,
                seen,
                wish,
                advised.store(wish.key),
                have.rack,
                have.threads,
                planning.check,
                tight=advised.tight,
                fine=have.fine,
            )
        if advice.best is None:
            other = countersunk(seen, have.catalogue) if wish.key == "finish bore" else None
            if is_undercut(bare, wish):
                side = bare.part.features[wish.feature].side  # type: ignore[union-attr]
                other = by_finishing(
                    bare, wish, advised.known.get("finish bore" if side == "inside" else "finish outside")
                )
            if other is None:
                without.append(_no_tool(wish, advice))
                continue
            tools.setdefault(other.tool.name, other.tool)
            use = "finish" if is_undercut(bare, wish) else "drill"
            uses[other.tool.name] = uses.get(other.tool.name, frozenset()) | {use}
            steps.append((other, advice))
            continue
        for made in steps_of(bare, seen, wish, advice, have.catalogue, have.threads):
            step = replace(made, operation=made.operation.changed(centre_back=True)) if back else made
            if shallow is not None and step.operation.name == wish.words:
                step = replace(step, operation=step.operation.changed(depth_mm=round(shallow[1], 2)))
            for tool in step.tools:
                tools.setdefault(tool.name, tool)
                uses[tool.name] = uses.get(tool.name, frozenset()) | {wish.use}
            steps.append((step, advice))
            if wish.key in (FRONT_KEY, "drill bore"):
                drilled = drilled.union(_drilled(bare, seen, step.tool))
        progress(0.8 * (index + 1) / len(asked))
    steps = spared(bare, together(steps), sum(one.stations for one in reaching(bare)) - have.spare, sitting)
    for step, advice in steps:
        tools.setdefault(step.tool.name, step.tool)
        uses[step.tool.name] = uses.get(step.tool.name, frozenset()) | {advice.wish.use}
    route = ordered(bare, [step for step, _ in steps])
    names = list(dict.fromkeys(tool.name for step in route for tool in step.tools))
    placed = seated(bare, names, tools, sitting, by_need(route))
    operations = [_operation(step, placed, count) for count, step in enumerate(route, 1)]
    both = {tool.id: tool for tool in (*others, *sitting.values(), *placed.values())}
    proposed = bare.changed(tools=tuple(both.values())).with_setup(operations=tuple(operations))
    proposed, milled, unmilled = with_milled(
        proposed, lambda index: advised.store(f"{MILLED}{index}"), have.rack, have.threads
    )
    cured = mended(proposed, planning, frozenset(tool.id for tool, _ in known.values()))
    proposed, taken = cured.job, cured.taken
    proposed = _used_only(proposed, {*sitting, *(tool.name for tool in others)})
    advice_of = {id(step): advice for step, advice in steps}
    kept = {operation.id for operation in proposed.operations}
    chosen = tuple(
        _chosen(operation, step, advice_of[id(step)], placed)
        for operation, step in zip(operations, route, strict=True)
        if operation.id in kept
    )
    chosen += tuple(
        Chosen(
            operation=one.operation.id,
            what=one.operation.name,
            tool=f"{one.tool.id} {one.tool.name}",
            reasons=one.reasons,
        )
        for one in milled
        if one.operation.id in kept
    )
    progress(1.0)
    found = {placed[name].id: uses[name] for name in placed}
    wish_of = {operation.id: advice_of[id(step)].wish.key for operation, step in zip(operations, route, strict=True)}
    wish_of |= {one.operation.id: f"{MILLED}{one.operation.feature}" for one in milled}
    failed = tuple(replace(one, wish=wish_of.get(one.operation, "")) for one in cured.failed)
    return Proposed(
        job=proposed,
        chosen=chosen,
        without=(*without, *unmilled, *(one.finding for one in failed)),
        taken=taken,
        uses=found,
        seats=cured.seats,
        failed=failed,
        is_drilled=bool(sized) or drilled.area > 0 or all(wish.key != "drill bore" for wish in asked),
    )


def _drilled(job: Job, scene: Scene, drill: Tool) -> Region:
    """The hole a drill leaves for boring, where it is full; nothing of what only begins one."""
    if not isinstance(drill, Drill) or drill.form in ("spot", "centre"):
        return EMPTY
    low = served_bore_z(scene)
    if low <= scene.profile.back_z + SAME_MM:
        low -= past_through_mm(job)
    else:
        low += point_length_mm(drill)
    return box(low, 0.0, FAR_MM, drill.d_mm / 2)


def _at_hand(tools: Mapping[str, Tool], uses: Mapping[str, frozenset[str]], wish: Wish) -> tuple[Tool, ...]:
    """Tools already chosen that may serve again; inserts only for the same kind of cut, and roughing ones to face."""
    again = {wish.use, "rough"} if wish.use == "face" else {wish.use}
    kept = [
        tool
        for name, tool in tools.items()
        if tool.mount == "still"
        and (not isinstance(tool, TurningTool | BoringTool) or uses.get(name, frozenset()) & again)
    ]
    return tuple(tool.changed(id=f"H{i}", station=i) for i, tool in enumerate(kept, 1))


def _operation(step: RouteStep, placed: Mapping[str, Tool], count: int) -> Operation:
    further = {field: placed[tool.name].id for field, tool in step.also}
    return step.operation.changed(id=f"op{count}", tool=placed[step.tool.name].id, **further)


def _chosen(operation: Operation, step: RouteStep, advice: Advice, placed: Mapping[str, Tool]) -> Chosen:
    rivals = [f"{one.title}: {one.against}" for one in advice.candidates[1:4] if one.against]
    rivals += [f"{one.title}: {one.why}" for one in advice.rejected[:2]]
    words = ", ".join(f"{placed[name].id} {name}" for name in dict.fromkeys(tool.name for tool in step.tools))
    return Chosen(operation=operation.id, what=operation.name, tool=words, reasons=step.reasons, rivals=tuple(rivals))


def _no_tool(wish: Wish, advice: Advice) -> Finding:
    why = advice.rejected[0] if advice.rejected else None
    words = said("{}: {}", why.title, why.why) if why else "there is no tool of its kind in the store"
    return Finding("warning", NO_TOOL, f"{wish.words}: no tool can do it", words)


def _used_only(job: Job, sitting: Collection[str]) -> Job:
    used = {tool for operation in job.operations for tool in operation.tools}
    return job.changed(tools=tuple(tool for tool in job.tools if tool.id in used or tool.name in sitting))
