"""A chosen cut as the numbers people work with, each with every limit it was held against."""

import math
from dataclasses import dataclass, replace
from typing import NamedTuple

from toreuma.core.cutting import finish, force
from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.figures import Figure, Figures, Reasons
from toreuma.core.cutting.life import economic_life_min, fastest_life_min, life_evidence, life_min
from toreuma.core.cutting.limits import LIMITS, LimitKind, Use, Variable, used
from toreuma.core.cutting.situation import Bend, Cut, Seen, Situation
from toreuma.core.cutting.speed import clamp_inputs, surface_speed_rpm
from toreuma.core.model import Material
from toreuma.core.propose.roots import largest
from toreuma.core.propose.search import FREE, USUAL_COSTS, Aim, Costs, Fixed, Found, MetalStep, best, minutes_of
from toreuma.core.spoken import said

__all__ = ["Proposal", "propose"]

ORDER = "depth first, then feed, then speed: depth costs an edge least, speed most"
WIDEST = 30.0
"""A limit that lets a number grow or shrink beyond this many times is not shown beside it."""

SOUGHT_TO = 3e-4
"""How closely the search finds a limit; a number this close to a round one is that."""

BIT_SHARE = 0.985


ROUNDING = 0.002
"""What rounding speed and feed to numbers that are written may do to a limit."""


@dataclass(frozen=True, kw_only=True)
class Proposal:
    """``cut`` as rounded for the program, ``uses`` every limit at it, worst first.

    ``figures`` are its numbers, ``bounds`` how far each limit alone would let a number go, and ``reasons`` what a
    person reads about them.
    """

    situation: Situation
    cut: Cut
    uses: tuple[Use, ...]
    figures: Figures
    bounds: dict[Figure, tuple[Limit, ...]]
    reasons: Reasons

    @property
    def governing(self) -> Use:
        """The limit used most."""
        return self.uses[0]

    @property
    def broken(self) -> tuple[Use, ...]:
        """Limits that are not kept, worst first."""
        return tuple(use for use in self.uses if use.share > 1 + ROUNDING and use.kind.name != "spindle speed")


def propose(
    situation: Situation,
    steps: tuple[MetalStep, ...],
    fixed: Fixed = FREE,
    aim: Aim = "output",
    costs: Costs = USUAL_COSTS,
    depth_given: bool = False,
    free: Cut | None = None,
) -> Proposal:
    """Choose a cut and say why. ``fixed`` are the person's numbers; ``depth_given`` the depth is what is there.

    ``free`` is what would be proposed without them; None: nothing is fixed but a given depth.
    """
    cut = _rounded(situation, best(situation, steps, fixed, aim, costs), fixed)
    free = free or cut
    uses = used(situation, cut)
    figures = _figures(situation, cut, depth_given)
    pins = {Figure.SPEED: fixed.vc_m_min, Figure.FEED: fixed.feed_mm_rev}
    pins |= {} if depth_given else {Figure.LARGEST_DEPTH: fixed.ap_mm}
    bounds = {figure: _bounds(situation, cut, VARIABLE[figure].name) for figure in pins}
    bounds[Figure.CLAMP] = _clamp_bounds(situation, cut)
    reasons = {figure: _evidence(situation, cut, figure, bounds[figure], pin, free) for figure, pin in pins.items()}
    reasons[Figure.CLAMP] = _clamp(situation, cut, bounds[Figure.CLAMP])
    reasons |= _followed(situation, cut, figures)
    if aim == "cost" and figures.life_min is not None:
        reasons[Figure.COST] = _cost(situation, cut, steps, costs, figures.life_min)
    price = _price_of_rungs(situation, cut, steps, fixed, aim, costs)
    if price is not None:
        reasons[Figure.PRICE] = price
    return Proposal(situation=situation, cut=cut, uses=uses, figures=figures, bounds=bounds, reasons=reasons)


def _figures(situation: Situation, cut: Cut, depth_given: bool) -> Figures:
    """The cut, and what follows from it."""
    seen = situation.see(cut)
    return Figures(
        vc_m_min=cut.vc_m_min,
        clamp_rpm=_clamp_rpm(situation, cut),
        rpm=seen.rpm,
        feed_mm_rev=cut.feed_mm_rev,
        largest_ap_mm=None if depth_given else cut.ap_mm,
        force_n=seen.cutting_n,
        feed_force_n=seen.feed_n,
        passive_force_n=seen.passive_n,
        power_kw=force.cutting_power_kw(seen.cutting_n, seen.vc_there),
        power_there_kw=force.available_power_kw(situation.machine, seen.rpm),
        life_min=life_min(situation, cut) if situation.table_vc is not None else None,
    )


def _rounded(situation: Situation, found: Found, fixed: Fixed) -> Cut:
    """Down to what a program is written with; given numbers and rungs stay."""
    ap, feed, vc = found.cut
    if fixed.feed_mm_rev is None and not situation.machine.feeds_mm_rev:
        feed = max(math.floor(feed * (1 + SOUGHT_TO) * 1000) / 1000, 0.001)
    if fixed.vc_m_min is None and not situation.machine.speeds_rpm:
        unit = 1.0 if vc >= 100 else 0.5 if vc >= 30 else 0.1
        vc = max(math.floor(vc * (1 + SOUGHT_TO) / unit) * unit, unit)
        vc = situation.steps.surface(vc) if situation.machine.surface_speed else vc
    return Cut(ap, feed, round(vc, 6))


class _Variable(NamedTuple):
    """A number that is sought: what the search calls it, and its words."""

    name: Variable
    words: str
    symbol: str
    measured_on: str = ""


VARIABLE = {
    Figure.SPEED: _Variable("vc", "surface speed", "vc"),
    Figure.FEED: _Variable("f", "feed", "f"),
    Figure.LARGEST_DEPTH: _Variable("ap", "largest depth", "ap max", "on radius"),
}
UNIT: dict[Variable, str] = {one.name: figure.unit for figure, one in VARIABLE.items()}


def _bounds(situation: Situation, cut: Cut, variable: Variable) -> tuple[Limit, ...]:
    """Every limit that concerns a number, as far as it alone lets the number go."""
    each = (_permitted(situation, cut, variable, kind) for kind in LIMITS)
    return tuple(limit for limit in each if limit is not None)


def _evidence(
    situation: Situation, cut: Cut, figure: Figure, limits: tuple[Limit, ...], pinned: float | None, free: Cut
) -> Evidence:
    """The number with every limit that concerns it."""
    variable, name, symbol, on = VARIABLE[figure]
    number = _of(cut, variable)
    upper = [limit for limit in limits if not limit.least]
    biting = min(upper, key=lambda limit: limit.number, default=None)
    bites = biting is not None and number >= BIT_SHARE * biting.number
    shown = tuple(replace(limit, bit=bites and limit is biting) for limit in sorted(limits, key=lambda x: x.number))
    evidence = Evidence(name, symbol, number, figure.unit, formula=ORDER, limits=shown, measured_on=on, typable=True)
    if variable == "vc":
        evidence = _with_table(evidence, situation)
    elif variable == "ap":
        evidence = replace(evidence, note="steps are divided evenly, so no pass may be quite as deep")
    if pinned is None:
        return evidence
    return replace(evidence, pinned=True, proposed=_of(free, variable), formula="typed")


def _with_table(evidence: Evidence, situation: Situation) -> Evidence:
    """Where a surface speed begins: the table, and every factor on it."""
    table = situation.table_vc
    if table is None:
        return evidence
    inputs = [Input("table", "vc0", table, "m/min")]
    inputs += [Input(name, "×", factor, "ratio") for name, factor in situation.factors]
    use = situation.use.replace("_", " ")
    material = situation.material
    note = f"{material.name}, ISO 513 group {material.group}, {situation.tool_material}, {use}"
    return replace(evidence, inputs=tuple(inputs), source=material.source, note=note)


def _of(cut: Cut, variable: Variable) -> float:
    return {"ap": cut.ap_mm, "f": cut.feed_mm_rev, "vc": cut.vc_m_min}[variable]


def _with(cut: Cut, variable: Variable, number: float) -> Cut:
    field = {"ap": "ap_mm", "f": "feed_mm_rev", "vc": "vc_m_min"}[variable]
    return cut._replace(**{field: number})


def _permitted(situation: Situation, cut: Cut, variable: Variable, kind: LimitKind) -> Limit | None:
    """How far one limit alone would let a number go, the other numbers staying."""
    if variable not in kind.on or not kind.binds:
        return None
    here = _of(cut, variable)

    def share(number: float) -> float:
        moved = _with(cut, variable, number)
        return kind.share(situation, moved, situation.see(moved))

    if share(here) == 0:
        return None
    if kind.floor:  # broken by smaller numbers: sought downwards
        end = here**2 / largest(here / WIDEST, here * WIDEST, lambda x: share(here**2 / x))
    else:
        end = largest(here / WIDEST, here * WIDEST, share)
    if not here / WIDEST * 1.01 < end < here * WIDEST / 1.01:
        return None
    measured = kind.measure(situation, cut, situation.see(cut))
    label = said("{}: {}", kind.name, measured.label) if measured is not None else kind.name
    label = said("at least, {}", label) if kind.floor else label
    return Limit(label, _tidy(end), UNIT[variable], of=kind.name, least=kind.floor)


def _tidy(number: float) -> float:
    return float(f"{number:.4g}")


def _proposed_clamp_rpm(situation: Situation, cut: Cut) -> float:
    return situation.steps.turns(situation.rung(situation.see(cut).clamp_rpm))


def _clamp_rpm(situation: Situation, cut: Cut) -> float:
    """The person's own, or what is proposed."""
    pinned = situation.clamp_pin_rpm
    return _proposed_clamp_rpm(situation, cut) if pinned is None else pinned


def _clamp_bounds(situation: Situation, cut: Cut) -> tuple[Limit, ...]:
    """What limits the spindle's speed: machine, hold, grip left at speed."""
    seen = situation.see(cut)
    limits = list(situation.speed_limits) or [Limit("machine", situation.machine.max_rpm, "rpm")]
    if situation.gripped is not None and seen.needed_n is not None:
        safe = situation.gripped.safe_rpm(seen.needed_n)
        if safe < math.inf:
            limits.append(Limit("grip at speed", math.floor(safe), "rpm"))
    return tuple(limits)


def _clamp(situation: Situation, cut: Cut, limits: tuple[Limit, ...]) -> Evidence:
    """Highest spindle speed: the lowest of its limits."""
    least = min(limits, key=lambda limit: limit.number)
    number = _proposed_clamp_rpm(situation, cut)
    evidence = Evidence(
        "speed clamp",
        "n max",
        number,
        "rpm",
        formula="lowest of the limits; n = 1000 vc / (π d)",
        limits=tuple(replace(limit, bit=limit is least) for limit in limits),
        inputs=clamp_inputs(cut.vc_m_min, number),
        typable=True,
    )
    if situation.clamp_pin_rpm is None:
        return evidence
    return replace(
        evidence, pinned=True, proposed=float(math.floor(min(least.number, 1e6))), number=situation.clamp_pin_rpm
    )


def _followed(situation: Situation, cut: Cut, figures: Figures) -> Reasons:
    """What follows from the cut: force, power, torque, life, heat, removal."""
    seen = situation.see(cut)
    found = {
        Figure.FORCE: _force_told(situation, cut, seen),
        Figure.POWER: _power_told(situation, seen, figures),
        Figure.REMOVED: Evidence(
            "metal removed",
            "Q",
            seen.vc_there * cut.ap_mm * cut.feed_mm_rev,
            "cm3/min",
            formula="Q = vc ap f, on the largest diameter",
        ),
        Figure.TURNS: Evidence(
            "slowest spindle",
            "n",
            seen.rpm,
            "rpm",
            formula="n = 1000 vc / (π d)",
            inputs=(Input("largest diameter", "d", situation.d_mm, "mm"),),
        ),
    }
    if situation.table_vc is not None:
        found[Figure.LIFE] = life_evidence(situation, cut)
    if situation.nose_mm > 0:
        found[Figure.ROUGHNESS] = finish.finish_evidence(situation.material, cut.feed_mm_rev, situation.nose_mm)
    if situation.bend is not None:
        found[Figure.BEND] = _bend_told(situation, situation.bend, seen)
    return found


def _with_own(source: str, material: Material, field: str) -> str:
    """A source, and where a value of the person's own comes from."""
    own = material.source_of(field)
    return f"{source}; {own}" if own else source


def _force_told(situation: Situation, cut: Cut, seen: Seen) -> Evidence:
    material = situation.material
    return Evidence(
        "cutting force",
        "Fc",
        seen.cutting_n,
        "N",
        formula="Fc = kc1.1 he^-mc · ap · f, he = ap f / Le",
        source=_with_own(force.KIENZLE, material, "kc11_n_mm2"),
        inputs=(
            Input("specific force", "kc1.1", material.kc11_n_mm2, "N/mm2"),
            Input("exponent", "mc", material.mc, "ratio"),
            Input("depth", "ap", cut.ap_mm, "mm"),
            Input("feed", "f", cut.feed_mm_rev, "mm/rev"),
            Input("equivalent chip thickness", "he", seen.edge.thickness_mm, "mm"),
            Input("engaged edge", "Le", seen.edge.length_mm, "mm"),
            Input("effective entering angle", "κe", seen.edge.entering_deg, "deg"),
            Input("feed force", "Ff", seen.feed_n, "N"),
            Input("passive force", "Fp", seen.passive_n, "N"),
        ),
    )


def _power_told(situation: Situation, seen: Seen, figures: Figures) -> Evidence:
    power, there = figures.power_kw or 0.0, figures.power_there_kw or 0.0
    return Evidence(
        "power at the edge",
        "Pc",
        power,
        "kW",
        formula="Pc = Fc vc / 60000",
        source=force.KIENZLE,
        inputs=(
            Input("cutting force", "Fc", seen.cutting_n, "N"),
            Input("surface speed", "vc", seen.vc_there, "m/min"),
            Input("torque", "M", force.torque_nm(power, seen.rpm), "N m"),
            Input("motor", "P", power / situation.machine.efficiency, "kW"),
            Input("with a worn edge", "1.3 Pc", force.WEAR_FACTOR * power, "kW"),
            *_short_rating(situation, seen.rpm),
        ),
        limits=(Limit(f"spindle at {seen.rpm:.0f} rpm", there, "kW", bit=True),),
    )


def _bend_told(situation: Situation, piece: Bend, seen: Seen) -> Evidence:
    bend, allowed = seen.passive_n * piece.mm_per_n, piece.allowed_mm
    return Evidence(
        "size error from bending",
        "2y",
        2000 * bend,
        "size_um",
        formula="twice the passive force times the compliance of the stock",
        source=_with_own("stepped Euler-Bernoulli beam", situation.material, "e_n_mm2"),
        measured_on="on diameter",
        inputs=(
            Input("passive force", "Fp", seen.passive_n, "N"),
            Input("gives way", "", 1000 * piece.mm_per_n, "um/N"),
        ),
        limits=(Limit(piece.where, 2000 * allowed, "size_um", bit=bend > allowed),),
    )


def _short_rating(situation: Situation, rpm: float) -> tuple[Input, ...]:
    """The intermittent rating at the speed, where the machine has one."""
    machine = situation.machine
    if not machine.short_power:
        return ()
    there = force.available_power_kw(machine, rpm, machine.short_minutes)
    return (Input(f"there for {machine.short_minutes:g} min", "P η", there, "kW"),)


def _cost(situation: Situation, cut: Cut, steps: tuple[MetalStep, ...], costs: Costs, life: float) -> Evidence:
    minutes = minutes_of(situation, cut, steps)
    return Evidence(
        "cost of the cutting",
        "",
        costs.of(minutes, life),
        "money",
        formula="minutes · rate + minutes/T · (edge + change · rate)",
        inputs=(
            Input("minutes of cutting", "t", minutes, "min"),
            Input("machine, per hour", "", costs.machine_per_h, "money"),
            Input("an edge", "", costs.edge, "money"),
            Input("life of an edge", "T", life, "min"),
            *_economic(situation, costs),
        ),
        source="Taylor 1907: economic speed",
    )


def _economic(situation: Situation, costs: Costs) -> tuple[Input, ...]:
    """The lives of least cost and of highest output, were there no other limit."""
    if situation.row is None:
        return ()
    m, change = situation.row.exponent, costs.change_min
    cheapest = economic_life_min(m, change, costs.edge, costs.machine_per_h / 60)
    return (
        Input("life of least cost", "Te", cheapest, "min"),
        Input("life of highest output", "Tf", fastest_life_min(m, change), "min"),
    )


def _price_of_rungs(
    situation: Situation, cut: Cut, steps: tuple[MetalStep, ...], fixed: Fixed, aim: Aim, costs: Costs
) -> Evidence | None:
    """What a ladder of speeds and feeds, or no constant surface speed, costs in time."""
    machine = situation.machine
    if not machine.speeds_rpm and not machine.feeds_mm_rev and machine.surface_speed:
        return None
    free = situation.changed(machine=machine.changed(speeds_rpm=(), feeds_mm_rev=(), surface_speed=True))
    least = best(free, steps, fixed, aim, costs).minutes
    here = minutes_of(situation, cut, steps)
    seen = situation.see(cut)
    small = math.pi * max(2 * situation.mean_d_mm - situation.d_mm, 0.0) * seen.rpm / 1000
    return Evidence(
        "slower than without steps",
        "",
        100 * (here / least - 1) if least > 0 else 0.0,
        "%",
        formula="time with the machine's rungs over time with every speed and feed, and constant surface speed",
        inputs=(
            Input("surface speed on the largest diameter", "vc", seen.vc_there, "m/min"),
            Input("surface speed on the smallest diameter", "vc", small, "m/min"),
            Input("every speed could be had", "n", surface_speed_rpm(cut.vc_m_min, situation.d_mm), "rpm"),
        ),
    )
