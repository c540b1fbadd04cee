"""Proving out on a softer piece: the overrides that are right for it, and what it will not show.

The program stays as it is. For every operation speed and feed are chosen again for the substitute at the depth the
program cuts, and the overrides are the quotients, in the steps of the switch.
"""

import math
from dataclasses import dataclass

from toreuma.core.cutting.heat import edge_temperature_c
from toreuma.core.cutting.situation import Cut, Situation
from toreuma.core.model import Material
from toreuma.core.plan.route import Plan
from toreuma.core.propose.search import Fixed, best

__all__ = ["Override", "ProveOut", "prove_out"]

STEP_PCT = 10


@dataclass(frozen=True, kw_only=True)
class Override:
    """Spindle and feed override in percent for one operation, and the cutting force against the real piece's."""

    operation: str
    name: str
    speed_pct: int
    feed_pct: int
    force_share: float
    ended_by: str


@dataclass(frozen=True)
class ProveOut:
    """Overrides of every operation, and what the substitute will not show."""

    material: Material
    overrides: tuple[Override, ...]
    not_shown: tuple[str, ...]


def prove_out(plan: Plan, substitute: Material) -> ProveOut:
    """Overrides for a softer piece. An operation whose tool has no speed for it stays at 100 %."""
    found, heats = [], []
    for planned in plan.operations:
        proposal = planned.cuts.proposal
        if proposal is None or not planned.motions:
            continue
        cut = proposal.cut
        found.append(_override(planned.operation.id, planned.operation.name, proposal.situation, cut, substitute))
        heats.append((_heat(proposal.situation, cut), _heat(_softer(proposal.situation, substitute), cut)))
    return ProveOut(substitute, tuple(found), _not_shown(plan.job.stock.material, substitute, found, heats))


def _softer(situation: Situation, substitute: Material) -> Situation:
    return situation.changed(material=substitute)


def _override(operation: str, name: str, situation: Situation, cut: Cut, substitute: Material) -> Override:
    soft = _softer(situation, substitute)
    share = soft.see(cut).cutting_n / situation.see(cut).cutting_n
    title = name or operation
    if soft.row is None:
        return Override(
            operation=operation,
            name=title,
            speed_pct=100,
            feed_pct=100,
            force_share=share,
            ended_by=f"no speed for {situation.tool_material}",
        )
    fastest = best(soft, ((cut.ap_mm, 1.0),), Fixed(ap_mm=cut.ap_mm)).cut
    machine = situation.machine
    speed, by_speed = _percent(fastest.vc_m_min / cut.vc_m_min, machine.speed_override_pct)
    if not machine.surface_speed:  # no clamp of the program stands above the switch
        room = situation.fixed_limit_rpm / max(situation.see(cut).rpm, 1.0)
        speed = max(min(speed, _down(100 * room)), int(machine.speed_override_pct[0]))
    feed, by_feed = _percent(fastest.feed_mm_rev / cut.feed_mm_rev, machine.feed_override_pct)
    ends = "end of the feed switch" if by_feed else "end of the spindle switch" if by_speed else "limits of the cut"
    return Override(operation=operation, name=title, speed_pct=speed, feed_pct=feed, force_share=share, ended_by=ends)


def _percent(share: float, switch: tuple[float, float]) -> tuple[int, bool]:
    """A quotient in steps of the switch, rounded down, and whether the switch's end decides."""
    low, high = switch
    wanted = _down(100 * share)
    return int(min(max(wanted, low), high)), wanted > high


def _down(percent: float) -> int:
    return math.floor(percent / STEP_PCT + 1e-9) * STEP_PCT


def _heat(situation: Situation, cut: Cut) -> float | None:
    seen = situation.see(cut)
    return edge_temperature_c(situation.material, seen.specific_n_mm2, cut.vc_m_min, seen.edge.thickness_mm)


def _not_shown(
    real: Material, soft: Material, overrides: list[Override], heats: list[tuple[float | None, float | None]]
) -> tuple[str, ...]:
    """What differs too much on the soft piece to be believed."""
    found = []
    shares = [one.force_share for one in overrides]
    if shares:
        found.append(
            f"Force, power and grip: the substitute asks for {min(shares):.0%} to {max(shares):.0%} of the real force."
        )
        if real.e_n_mm2 and soft.e_n_mm2:
            bend = max(shares) * real.e_n_mm2 / soft.e_n_mm2
            found.append(f"Size: it bends and springs back {bend:.1f} times as much; set sizes on the real piece.")
    known = [(there, here) for there, here in heats if there is not None and here is not None]
    if known:
        there, here = max(known)
        found.append(f"Heat and wear: the edge comes to about {here:.0f} °C instead of {there:.0f} °C (estimate).")
    if real.group != soft.group:
        found.append(f"Chips and burrs: group {soft.group} breaks otherwise than group {real.group}.")
    if real.work_hardens and not soft.work_hardens:
        found.append("The hardened skin that the real material builds up from pass to pass.")
    return tuple(found)
