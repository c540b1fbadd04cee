"""Where lines square to the axis enter and leave a region: radii of the metal at places along Z."""

import numpy as np
import numpy.typing as npt
from shapely.geometry.polygon import orient

from toreuma.core.geometry.elements import Points
from toreuma.core.geometry.region import Region, polygons, rings

__all__ = ["Crossings", "crossings"]

Crossings = tuple[npt.NDArray[np.intp], Points, npt.NDArray[np.bool_]]
"""Of every crossing: the index of the place, its radius in mm, and whether metal ends there going outward."""


def crossings(region: Region, places: Points) -> Crossings:
    """Every crossing of the region's boundary with the lines at ``places`` along Z, mm, shape (n,).

    With its rings the right way round, an edge that runs toward the chuck has the metal below it. A line through a
    corner counts for one of its two edges.
    """
    edges = [np.column_stack([ring[:-1], ring[1:]]) for polygon in polygons(region) for ring in rings(orient(polygon))]
    if not edges:
        return np.zeros(0, dtype=np.intp), np.zeros(0), np.zeros(0, dtype=bool)
    z0, r0, z1, r1 = np.vstack(edges).T
    across = (z0 <= places[:, None]) != (z1 <= places[:, None])
    index, edge = np.nonzero(across)
    share = (places[index] - z0[edge]) / (z1[edge] - z0[edge])
    return index, r0[edge] + share * (r1[edge] - r0[edge]), z1[edge] < z0[edge]
