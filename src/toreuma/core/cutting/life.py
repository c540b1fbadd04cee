"""Tool life by the extended Taylor equation, against the life the starting speeds are meant for."""

import math

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.cutting.situation import Cut, Situation, Use
from toreuma.core.model.material import LIFE_MIN

__all__ = [
    "LEAST_LIFE_MIN",
    "MEANT",
    "economic_life_min",
    "fastest_life_min",
    "life_evidence",
    "life_min",
    "speed_for_life",
]

MEANT: dict[Use, tuple[float, float | None]] = {"rough": (0.25, 2.0), "finish": (0.15, 0.5), "part_off": (0.1, None)}
"""Feed (mm/rev) and depth (mm on radius) the starting speeds of each use are meant for: typical."""

FEED_EXPONENT, DEPTH_EXPONENT = 0.35, 0.15
"""a and b of vc T^m f^a ap^b = C: typical for turning with carbide."""

LEAST_LIFE_MIN = 2.0
"""An edge that lasts less is changed more than it cuts, whatever is wished."""

SOURCE = "extended Taylor equation, exponents typical (machining textbooks); an estimate"


def fastest_life_min(m: float, change_min: float) -> float:
    """Life for the highest output, min: T = (1/m - 1) t_change (Taylor)."""
    return (1 / m - 1) * change_min


def economic_life_min(m: float, change_min: float, edge_cost: float, cost_per_min: float) -> float:
    """Life for the lowest cost, min: T = (1/m - 1) (t_change + edge cost / cost per minute) (Taylor)."""
    return (1 / m - 1) * (change_min + edge_cost / cost_per_min)


def speed_for_life(c: float, m: float, life_min: float) -> float:
    """Surface speed for a life: vc = C / T^m."""
    return float(c / life_min**m)


def life_min(situation: Situation, cut: Cut) -> float:
    """Minutes an edge lasts in a situation with starting speeds: T = 15 (k vc0/vc (f0/f)^a (ap0/ap)^b)^(1/m).

    ``vc0`` is the table's speed, ``k`` its factor for what wears the edge faster; f0 and ap0 are what the table's
    speeds of that use are meant for. A blade has one depth, which does not count.
    """
    row, vc0 = situation.row, situation.table_vc
    if row is None or vc0 is None:
        return math.inf
    f0, ap0 = _meant(situation)
    share = situation.harm * vc0 / cut.vc_m_min * (f0 / cut.feed_mm_rev) ** FEED_EXPONENT
    if ap0 is not None:
        share *= (ap0 / cut.ap_mm) ** DEPTH_EXPONENT
    return float(LIFE_MIN * share ** (1 / row.exponent))


def _meant(situation: Situation) -> tuple[float, float | None]:
    """Feed and depth the table's speed is meant for; a thinner chip stands for a smaller feed."""
    f0, ap0 = MEANT[situation.use]
    return f0 / situation.thinning, ap0


def life_evidence(situation: Situation, cut: Cut) -> Evidence:
    """Life of an edge with what went into it."""
    f0, ap0 = _meant(situation)
    inputs = [
        Input("surface speed", "vc", cut.vc_m_min, "m/min"),
        Input("table, with what wears faster", "k vc0", situation.harm * (situation.table_vc or 0.0), "m/min"),
        Input("feed", "f", cut.feed_mm_rev, "mm/rev"),
        Input("table meant for", "f0", f0, "mm/rev"),
    ]
    if ap0 is not None:
        inputs += [Input("depth", "ap", cut.ap_mm, "mm"), Input("table meant for", "ap0", ap0, "mm")]
    if situation.row is not None:
        inputs.append(Input("exponent", "m", situation.row.exponent, "ratio"))
    return Evidence(
        "life of an edge",
        "T",
        life_min(situation, cut),
        "min",
        formula="T = 15 min · (k vc0/vc · (f0/f)^0.35 (ap0/ap)^0.15)^(1/m)",
        source=_source(situation),
        inputs=tuple(inputs),
    )


def _source(situation: Situation) -> str:
    """Where the equation comes from, and the constants where a shop has its own."""
    own = situation.row.source if situation.row is not None else ""
    return f"{SOURCE}; {own}" if own else SOURCE
