"""The held piece as a stepped beam (Euler-Bernoulli), from the stock as it is."""

from collections.abc import Collection
from dataclasses import dataclass

import numpy as np
from scipy.linalg import cho_factor, cho_solve

from toreuma.core.geometry.crossings import crossings
from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.region import Region

__all__ = ["Compliance", "Supports", "compliance_of", "deflections", "inertia_along"]

LEAST_EI, LEAST_SHARE = 1e-3, 1e-7
"""A stub of no stiffness is given this, N mm2, or this share of the stiffest, so that the sum stays solvable."""


@dataclass(frozen=True)
class Compliance:
    """How far the piece gives way under 1 N square to the axis, at the place of the force.

    ``z`` and ``mm_per_n`` have shape (n,); ``z`` falls from the front to the hold.
    """

    z: Points
    mm_per_n: Points

    def at(self, z: float) -> float:
        """Compliance at a place, mm/N; behind the hold 0."""
        return float(np.interp(z, self.z[::-1], self.mm_per_n[::-1], left=0.0))

    @property
    def worst(self) -> tuple[float, float]:
        """Place and value of the largest compliance."""
        index = int(self.mm_per_n.argmax())
        return float(self.z[index]), float(self.mm_per_n[index])


def inertia_along(stock: Region, places: Points) -> Points:
    """Second moment of area of the turned section at each z, mm4: sum of ``pi/4 (ro^4 - ri^4)``."""
    index, radii, outward = crossings(stock, places)
    found = np.zeros(len(places))
    np.add.at(found, index, np.where(outward, 1.0, -1.0) * np.pi / 4 * radii**4)
    return found


@dataclass(frozen=True)
class Supports:
    """What carries a piece: a hold that ends at ``hold_z``, mm, and clamps it or, ``hinged``, only keeps it in place;
    a ``centre`` at its front; rests that stand at ``rests``, mm along Z, and one that follows the force ``follow_mm``
    in front of it. Rests are taken as rigid."""

    hold_z: float
    hinged: bool = False
    centre: bool = False
    rests: tuple[float, ...] = ()
    follow_mm: float | None = None


def deflections(lengths: Points, ei: Points, supported: Collection[int] = (), hinged: bool = False) -> Points:
    """Compliance at every node of a stepped beam held at node 0, mm/N; shape (n + 1,).

    ``lengths`` mm and ``ei`` N mm2 per piece, shape (n,). Nodes that are ``supported`` stay where they are (a centre
    at the last one, a rest between). Node 0 is clamped, or ``hinged``: then another node must be supported.
    Cubic beam elements: exact for loads at the nodes.
    """
    count = len(lengths)
    stiffness = np.zeros((2 * count + 2, 2 * count + 2))
    solid = np.maximum(ei, max(LEAST_SHARE * float(ei.max()), LEAST_EI))
    a, b, c, d = 12 / lengths**3, 6 / lengths**2, 4 / lengths, 2 / lengths
    rows = [[a, b, -a, b], [b, c, -b, d], [-a, -b, a, -b], [b, d, -b, c]]
    blocks = solid[:, None, None] * np.moveaxis(np.array(rows), -1, 0)
    at = 2 * np.arange(count)[:, None] + np.arange(4)
    np.add.at(stiffness, (at[:, :, None], at[:, None, :]), blocks)
    free = np.arange(1 if hinged else 2, 2 * count + 2)
    free = free[~np.isin(free, [2 * node for node in supported])]
    reduced = stiffness[np.ix_(free, free)]
    scale = 1 / np.sqrt(np.diag(reduced))
    factor = cho_factor(reduced * scale[:, None] * scale[None, :])
    inverse = cho_solve(factor, np.eye(len(free)) * scale[:, None])
    diagonal = np.diag(inverse) * scale
    found = np.zeros(count + 1)
    across = free % 2 == 0
    found[free[across] // 2] = diagonal[across]
    return found


def compliance_of(stock: Region, supports: Supports, e_n_mm2: float, pieces: int = 48) -> Compliance:
    """Compliance of a piece along its free length, in front of its hold. A rest carries the node nearest to it; a
    hinged piece that nothing else supports is taken as clamped."""
    front = float(stock.bounds[2])
    nodes = np.linspace(supports.hold_z, front, pieces + 1)
    middle = (nodes[:-1] + nodes[1:]) / 2
    ei = e_n_mm2 * inertia_along(stock, middle)
    held = {int(np.abs(nodes - z).argmin()) for z in supports.rests if supports.hold_z < z <= front}
    held |= {pieces} if supports.centre else set()
    held -= {0}
    if supports.follow_mm is None:
        found = deflections(np.diff(nodes), ei, held, hinged=supports.hinged and bool(held))
    else:
        found = _followed(nodes, ei, held, supports)
    return Compliance(nodes[::-1].copy(), found[::-1].copy())


def _followed(nodes: Points, ei: Points, held: set[int], supports: Supports) -> Points:
    """Compliance at every node where a rest stands behind the force, as far as there is a piece for it to stand on."""
    found = np.zeros(len(nodes))
    for index, z in enumerate(nodes):
        at = z + (supports.follow_mm or 0.0)
        also = {int(np.abs(nodes - at).argmin())} - {0} if at <= nodes[-1] else set()
        carried = held | also
        found[index] = deflections(np.diff(nodes), ei, carried, hinged=supports.hinged and bool(carried))[index]
    return found
