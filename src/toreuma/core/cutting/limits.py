"""The limits of a turning cut: what each compares, how much of it is used, and why it is one, in a sentence."""

import math
from collections.abc import Callable
from dataclasses import KW_ONLY, dataclass
from typing import Literal, NamedTuple

from toreuma.core.cutting import finish, force
from toreuma.core.cutting.corner import NOSE_SHARE
from toreuma.core.cutting.grip import SOURCE as GRIP
from toreuma.core.cutting.heat import SOFTENING_C, edge_temperature_c
from toreuma.core.cutting.heat import SOURCE as HEAT
from toreuma.core.cutting.life import SOURCE as TAYLOR
from toreuma.core.cutting.life import life_min
from toreuma.core.cutting.situation import Cut, Seen, Situation
from toreuma.core.cutting.speed import surface_speed_rpm

__all__ = ["LIMITS", "LOWEST_SHARE", "VARIABLES", "LimitKind", "Use", "Variable", "used"]

Variable = Literal["ap", "f", "vc"]
SOFTENS = {name: f"{name} softens" for name in SOFTENING_C}
VARIABLES: tuple[Variable, ...] = ("ap", "f", "vc")

LEAST_CHIP_MM = 0.01
"""Thinner chips are not cut but rubbed: about a third of a usual edge rounding of 0.03 mm."""

HARD_SKIN_CHIP_MM, HARD_SKIN_DEPTH_MM = 0.05, 0.2
"""Below this chip thickness and this depth the edge runs in the skin the pass before has hardened: typical."""

HIGHEST_SHARE, LOWEST_SHARE = 1.25, 0.5
"""The usual range of surface speeds about the middle of the table: above it tables end, below it edges build up."""


class Measure(NamedTuple):
    """A number of the cut, its bound, and the bound's name, put into words when it is shown."""

    number: float
    bound: float
    words: str
    turns: float | None = None

    @property
    def label(self) -> str:
        """The words, with the spindle speed they are true at."""
        return self.words if self.turns is None else f"{self.words} at {self.turns:.0f} rpm"


@dataclass(frozen=True)
class LimitKind:
    """One kind of limit. ``least``: the number must not fall below its bound. ``on``: what it moves with.

    ``floor``: it is met by larger numbers and broken by smaller ones. Where ``binds`` is False the limit is shown,
    but the machine keeps it itself or no choice of numbers can mend it. ``table``: it is a table's range, not physics.
    """

    name: str
    quantity: str
    symbol: str
    unit: str
    _: KW_ONLY
    measure: Callable[[Situation, Cut, Seen], Measure | None]
    on: tuple[Variable, ...]
    why: str
    beyond: str
    formula: str = ""
    source: str = ""
    least: bool = False
    floor: bool = False
    binds: bool = True
    table: bool = False

    @property
    def code(self) -> str:
        """The code of the finding that says it is broken."""
        return "limit." + self.name.replace(", ", ".").replace(" ", "_")

    def share(self, situation: Situation, cut: Cut, seen: Seen) -> float:
        """How much of the limit is used; above 1 it is broken; 0 where there is no such limit."""
        measured = self.measure(situation, cut, seen)
        return 0.0 if measured is None else _share(measured, self.least)


@dataclass(frozen=True, kw_only=True)
class Use:
    """A limit at a cut: the number, the bound, and the share of it that is used."""

    kind: LimitKind
    number: float
    bound: float
    label: str
    share: float

    @property
    def margin(self) -> float:
        """What is left of the limit, as a share of it; below 0 where it is broken."""
        return 1 - self.share


def _share(measured: Measure, least: bool) -> float:
    over, under = (measured.bound, measured.number) if least else (measured.number, measured.bound)
    if under <= 0:
        return 0.0 if over <= 0 else math.inf
    return over / under


def used(situation: Situation, cut: Cut) -> tuple[Use, ...]:
    """Every limit the situation has, the one used most first."""
    seen, found = situation.see(cut), []
    for kind in LIMITS:
        measured = kind.measure(situation, cut, seen)
        if measured is not None:
            found.append(
                Use(
                    kind=kind,
                    number=measured.number,
                    bound=measured.bound,
                    label=measured.label,
                    share=_share(measured, kind.least),
                )
            )
    return tuple(sorted(found, key=lambda use: -use.share))


# Each limit


def _window_depth(s: Situation, cut: Cut, _: Seen) -> Measure | None:
    if s.window is None or not s.window.depth_matters:
        return None
    low, high = s.window.depths
    return Measure(cut.ap_mm, max(high * s.feed_share, low), s.window.words)


def _window_least_depth(s: Situation, cut: Cut, _: Seen) -> Measure | None:
    if s.window is None or not s.window.depth_matters:
        return None
    return Measure(cut.ap_mm, s.window.depths[0], "chip window begins")


def _window_feed(s: Situation, cut: Cut, _: Seen) -> Measure | None:
    if s.window is None:
        return None
    low, high = s.window.feeds_at(cut.ap_mm)
    return Measure(cut.feed_mm_rev, max(high * s.feed_share, low), s.window.words)


def _window_least_feed(s: Situation, cut: Cut, _: Seen) -> Measure | None:
    if s.window is None:
        return None
    return Measure(cut.feed_mm_rev, s.window.feeds_at(cut.ap_mm)[0], "chip window begins")


def _corner(s: Situation, cut: Cut, _: Seen) -> Measure | None:
    if s.nose_mm <= 0:
        return None
    if s.thinning < 1:
        return Measure(cut.feed_mm_rev, NOSE_SHARE * s.nose_mm / s.thinning, "half the nose radius, as thick a chip")
    return Measure(cut.feed_mm_rev, NOSE_SHARE * s.nose_mm, "half the nose radius")


def _edge(s: Situation, cut: Cut, _: Seen) -> Measure | None:
    if s.usable_depth_mm is None:
        return None
    return Measure(cut.ap_mm, s.usable_depth_mm, "edge and shape of the corner")


def _power(s: Situation, _: Cut, seen: Seen) -> Measure:
    there = force.available_power_kw(s.machine, seen.rpm)
    return Measure(force.cutting_power_kw(seen.cutting_n, seen.vc_there), there, "spindle", seen.rpm)


def _grip(s: Situation, _: Cut, seen: Seen) -> Measure | None:
    if s.gripped is None or seen.needed_n is None or s.gripped.hold.force_n is None:
        return None
    return Measure(seen.needed_n, s.gripped.hold.force_n, "grip at rest")


def _spindle(s: Situation, cut: Cut, seen: Seen) -> Measure:
    return Measure(surface_speed_rpm(cut.vc_m_min, s.d_mm), seen.clamp_rpm, "speed clamp")


def _bend(s: Situation, _: Cut, seen: Seen) -> Measure | None:
    if s.bend is None:
        return None
    return Measure(seen.passive_n * s.bend.mm_per_n, s.bend.allowed_mm, s.bend.where)


def _bar_bend(s: Situation, _: Cut, seen: Seen) -> Measure | None:
    if s.bar is None:
        return None
    return Measure(math.hypot(seen.passive_n, seen.cutting_n) * s.bar.mm_per_n, s.bar.allowed_mm, "bar may give way")


def _bar_overhang(s: Situation, _: Cut, __: Seen) -> Measure | None:
    return None if s.bar is None else Measure(s.bar.overhang_ratio, s.bar.usable_ratio, "usable for this bar")


def _thin_chip(_: Situation, __: Cut, seen: Seen) -> Measure:
    return Measure(seen.edge.thickness_mm, LEAST_CHIP_MM, "a third of the edge's rounding")


def _hard_skin_chip(s: Situation, _: Cut, seen: Seen) -> Measure | None:
    if not s.material.work_hardens:
        return None
    return Measure(seen.edge.thickness_mm, HARD_SKIN_CHIP_MM, "hardened skin")


def _hard_skin_depth(s: Situation, cut: Cut, _: Seen) -> Measure | None:
    return Measure(cut.ap_mm, HARD_SKIN_DEPTH_MM, "hardened skin") if s.material.work_hardens else None


def _heat(s: Situation, cut: Cut, seen: Seen) -> Measure | None:
    softens = SOFTENING_C.get(s.tool_material)
    there = edge_temperature_c(s.material, seen.specific_n_mm2, cut.vc_m_min, seen.edge.thickness_mm)
    if softens is None or there is None:
        return None
    return Measure(there, softens, SOFTENS[s.tool_material])


def _life(s: Situation, cut: Cut, _: Seen) -> Measure | None:
    if s.row is None or s.table_vc is None:
        return None
    return Measure(life_min(s, cut), s.least_life_min, "wanted of an edge")


def _highest(s: Situation, cut: Cut, _: Seen) -> Measure | None:
    if s.table_vc is None:
        return None
    return Measure(cut.vc_m_min, HIGHEST_SHARE * s.table_vc * s.harm * s.wish, "end of the usual range")


def _lowest(s: Situation, cut: Cut, seen: Seen) -> Measure | None:
    if s.table_vc is None or seen.rpm >= s.rung(seen.clamp_rpm):
        return None  # not known, or the spindle turns no faster
    vc = seen.vc_there if s.machine.speeds_rpm else cut.vc_m_min
    return Measure(vc, LOWEST_SHARE * s.table_vc * s.harm * s.wish, "start of the usual range")


def _roughness(s: Situation, cut: Cut, _: Seen) -> Measure | None:
    if s.wanted_ra_um is None or s.nose_mm <= 0:
        return None
    ra = finish.expected_ra_um(cut.feed_mm_rev, s.nose_mm, s.material.finish_ratio)
    return Measure(ra, s.wanted_ra_um, "wanted finish")


LIMITS: tuple[LimitKind, ...] = (
    LimitKind(
        "chip window, depth", "depth", "ap", "mm", measure=_window_depth, on=("ap",),
        why="Chips break only inside the window of the chip former; outside they string or are crushed.",
        beyond="chips are crushed against the chip former",
    ),
    LimitKind(
        "chip window, feed", "feed", "f", "mm/rev", measure=_window_feed, on=("f", "ap"),
        why="Chips break only inside the window of the chip former; outside they string or are crushed.",
        beyond="chips are crushed against the chip former",
    ),
    LimitKind(
        "least depth for chips", "depth", "ap", "mm", measure=_window_least_depth, on=("ap",),
        why="Shallower than the window begins, the chip never touches the former: it comes as a string.",
        beyond="chips come as strings", least=True, floor=True,
    ),
    LimitKind(
        "least feed for chips", "feed", "f", "mm/rev", measure=_window_least_feed, on=("f", "ap"),
        why="Thinner than the window begins, the chip never touches the former: it comes as a string.",
        beyond="chips come as strings", least=True, floor=True,
    ),
    LimitKind(
        "corner strength", "feed", "f", "mm/rev", measure=_corner, on=("f",),
        why="Beyond half its radius the corner breaks.", beyond="the corner breaks", formula="f ≤ 0.5 rε",
    ),
    LimitKind(
        "edge", "depth", "ap", "mm", measure=_edge, on=("ap",),
        why="A slim corner stands only a short part of its edge in the cut.", beyond="the edge breaks along its length",
        formula="ap ≤ share by shape · L sin κ",
    ),
    LimitKind(
        "power", "power at the edge", "Pc", "kW", measure=_power, on=("ap", "f", "vc"),
        why="Beyond what the spindle has at this speed it slows down or stalls.",
        beyond="the spindle slows down or stalls in the cut",
        formula="Pc = kc1.1 he^-mc · ap f vc / 60000", source=force.KIENZLE,
    ),
    LimitKind(
        "grip", "grip needed", "F req", "N", measure=_grip, on=("ap", "f"),
        why="The grip carries torque, push and tilting; beyond it the piece turns or tilts in the jaws.",
        beyond="the piece may slip or tilt out of the hold", source=GRIP,
    ),
    LimitKind(
        "spindle speed", "spindle speed", "n", "rpm", measure=_spindle, on=("vc",),
        why="The spindle turns no faster than machine, chuck, bar and grip allow.",
        beyond="the clamp holds the speed down",
        formula="n = 1000 vc / (π d)", binds=False,
    ),
    LimitKind(
        "bend of the piece", "bend", "y", "mm", measure=_bend, on=("ap", "f"),
        why="A piece that gives way under the push comes out larger there, by twice the bend.",
        beyond="the piece comes out larger there", formula="y = Fp · compliance of the stock as it is",
        source="stepped Euler-Bernoulli beam",
    ),
    LimitKind(
        "bend of the bar", "bend", "y", "mm", measure=_bar_bend, on=("ap", "f"),
        why="A long bar gives way: the bore comes out small and tapered, and the bar begins to sing.",
        beyond="the bore comes out small and the bar sings", formula="y = F L³ / (3 E I)",
        source="Euler-Bernoulli cantilever",
    ),
    LimitKind(
        "overhang of the bar", "overhang over diameter", "L/D", "ratio", measure=_bar_overhang, on=(),
        why="Each bar material stands only so many diameters of overhang before it chatters.",
        beyond="the bar chatters: a stiffer material or a thicker bar", binds=False,
    ),
    LimitKind(
        "thin chip", "chip thickness", "he", "mm", measure=_thin_chip, on=("f", "ap"),
        why="Thinner than the edge is round, a chip is rubbed off: it heats and hardens the surface.",
        beyond="the edge rubs instead of cutting", formula="he = ap f / Le", source="Woxen 1932", least=True,
        floor=True,
    ),
    LimitKind(
        "hardened skin, chip", "chip thickness", "he", "mm", measure=_hard_skin_chip, on=("f", "ap"),
        why="A material that hardens has to be cut below the skin the pass before left, or the edge wears a notch.",
        beyond="the edge runs in the hardened skin", formula="he = ap f / Le", source="Woxen 1932",
        least=True, floor=True,
    ),
    LimitKind(
        "hardened skin, depth", "depth", "ap", "mm", measure=_hard_skin_depth, on=("ap",),
        why="A material that hardens has to be cut below the skin the pass before left, or the edge wears a notch.",
        beyond="the edge runs in the hardened skin", least=True, floor=True,
    ),
    LimitKind(
        "heat", "temperature of the edge", "T", "°C", measure=_heat, on=("vc", "f", "ap"),
        why="Beyond this heat the tool material loses its hardness and wears away at once.",
        beyond="the edge softens and wears away at once", formula="20 + 0.4 U/(ρc) (v h/a)^⅓", source=HEAT,
    ),
    LimitKind(
        "edge life", "life of an edge", "T", "min", measure=_life, on=("vc", "f", "ap"),
        why="A little more speed costs a lot of life: with carbide, a fifth more speed halves it.",
        beyond="edges are changed more often than wanted",
        formula="T = 15 min · (k vc0/vc · (f0/f)^0.35 (ap0/ap)^0.15)^(1/m)", source=TAYLOR, least=True,
    ),
    LimitKind(
        "usual range of speed", "surface speed", "vc", "m/min", measure=_highest, on=("vc",),
        why="Beyond the usual range of material and tool material no table says how an edge fares.",
        beyond="nothing is known there: edges fail early", table=True,
    ),
    LimitKind(
        "least surface speed", "surface speed", "vc", "m/min", measure=_lowest, on=("vc",),
        why="Too slow, metal builds up on the edge and tears the surface.", beyond="metal builds up on the edge",
        least=True, floor=True, table=True,
    ),
    LimitKind(
        "finish", "finish to expect", "Ra", "um", measure=_roughness, on=("f",),
        why="Feed marks grow with the square of the feed.", beyond="the feed marks are rougher than wanted",
        formula=finish.FORMULA, source=finish.SOURCE,
    ),
)  # fmt: skip
