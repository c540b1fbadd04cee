"""Pull turning: away from the chuck with a long edge at a low entering angle, in wide thin chips.

The chip is only ``h = f sin κ`` thick, so the feed is raised. The edge rolls into the metal on an arc, so that it is
not met over its whole length at once, and leaves it at a smaller feed, where the last ring of metal is thin.
"""

import math
from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.cutting.figures import Figure, Reasons
from toreuma.core.plan.turn.levels import LevelCut
from toreuma.core.propose.proposal import Proposal
from toreuma.core.spoken import q, said

__all__ = ["EXIT_MM", "SLOW_EXIT", "pulled_numbers", "rolled_in"]

ROLL_DEPTHS, LEAST_ROLL_MM = 2.0, 0.8
"""The edge rolls in on an arc of so many depths of cut."""

ROLL_SHARE = 1 / 3
"""The arc takes up at most this share of the pass."""

EXIT_MM, SLOW_EXIT = 1.0, 0.5
"""Over so many mm before it comes out of the metal, and on the arc, the edge goes at this share of the feed."""

QUARTER = np.linspace(0.0, np.pi / 2, 33)


def rolled_in(cut: LevelCut) -> LevelCut:
    """The pass with its way down beside the wall replaced by an arc.

    It begins where the arc of the pass before left metal, goes down with the feed, and rolls into the level.
    """
    radius = _roll(cut)
    z, r = cut.start_z - radius, cut.level + radius
    arc = np.column_stack([z + radius * np.cos(QUARTER), r - radius * np.sin(QUARTER)])
    down = [[cut.start_z, cut.above + radius]]
    return replace(cut, entry=np.vstack([down, arc]), start_z=z)


def _roll(cut: LevelCut) -> float:
    return min(max(ROLL_DEPTHS * (cut.above - cut.level), LEAST_ROLL_MM), ROLL_SHARE * (cut.start_z - cut.end_z))


def pulled_numbers(cuts: Sequence[LevelCut], proposal: Proposal) -> Reasons:
    """How thin the chip is and what feed that allows, and what stays at the shoulder."""
    feed, angle = proposal.cut.feed_mm_rev, proposal.situation.entering_deg
    sine = math.sin(math.radians(angle))
    lowest = min(cuts, key=lambda cut: cut.level, default=None)
    radius = float(np.ptp(lowest.entry[1:, 0])) if lowest is not None else 0.0
    return {
        Figure.CHIP: Evidence(
            "chip thickness",
            "h",
            feed * sine,
            "mm",
            formula="h = f sin κ",
            inputs=(
                Input("feed", "f", feed, "mm/rev"),
                Input("entering angle", "κ", angle, "deg"),
                Input("feed with an edge square to it", "f sin κ", feed * sine, "mm/rev"),
            ),
            note=said(
                "The same chip as {} with an edge square to the feed: {} times the feed.",
                q(feed * sine, "mm/rev", ".2f"),
                f"{1 / sine:.1f}",
            ),
        ),
        Figure.SHOULDER: Evidence(
            "left at the shoulder",
            "R",
            radius,
            "mm",
            formula="the arc on which the edge rolls in; the finishing cut meets it in the corner",
            inputs=(Input("most metal in the corner", "(√2 - 1) R", (math.sqrt(2) - 1) * radius, "mm"),),
        ),
    }
