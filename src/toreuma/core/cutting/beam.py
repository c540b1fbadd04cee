"""The held piece as a stepped beam (Euler-Bernoulli), from the stock as it is."""

from dataclasses import dataclass

import numpy as np
from scipy.linalg import cho_factor, cho_solve

from toreuma.core.geometry.crossings import crossings
from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.region import Region

__all__ = ["Compliance", "compliance_of", "deflections", "inertia_along"]

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


def deflections(lengths: Points, ei: Points, supported: bool = False) -> Points:
    """Compliance at every node of a stepped beam clamped at node 0, mm/N; shape (n + 1,).

    ``lengths`` mm and ``ei`` N mm2 per piece, shape (n,). ``supported`` rests the far end (a centre).
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
    free = np.arange(2, 2 * count + 2)
    if supported:
        free = free[free != 2 * count]
    reduced = stiffness[np.ix_(free, free)]
    scale = 1 / np.sqrt(np.diag(reduced))
    factor = cho_factor(reduced * scale[:, None] * scale[None, :])
    inverse = cho_solve(factor, np.eye(len(free)) * scale[:, None])
    diagonal = np.diag(inverse) * scale
    found = np.zeros(count + 1)
    across = free % 2 == 0
    found[free[across] // 2] = diagonal[across]
    return found


def compliance_of(
    stock: Region, hold_z: float, e_n_mm2: float, supported: bool = False, pieces: int = 48
) -> Compliance:
    """Compliance of a piece held behind ``hold_z``, along its free length."""
    front = float(stock.bounds[2])
    nodes = np.linspace(hold_z, front, pieces + 1)
    middle = (nodes[:-1] + nodes[1:]) / 2
    ei = e_n_mm2 * inertia_along(stock, middle)
    found = deflections(np.diff(nodes), ei, supported)
    return Compliance(nodes[::-1].copy(), found[::-1].copy())
