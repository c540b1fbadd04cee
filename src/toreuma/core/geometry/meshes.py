"""Bodies as triangles for a picture, with the edges a draughtsman would draw."""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from toreuma.core.geometry.solids import Solid

__all__ = ["Mesh", "mesh_of"]

SHARP_DEG = 32.0
"""Faces that meet at less than this are one round surface."""

Floats = npt.NDArray[np.float32]


@dataclass(frozen=True)
class Mesh:
    """``corners`` (n, 6): place and direction of the surface at every corner, three to a triangle; ``edges`` (m, 3):
    ends of sharp edges, two to an edge. Places in mm."""

    corners: Floats
    edges: Floats


def mesh_of(solid: Solid) -> Mesh:
    """The surface of a body; empty for an empty one."""
    if solid.is_empty():
        return Mesh(np.zeros((0, 6), np.float32), np.zeros((0, 3), np.float32))
    found = solid.to_mesh()
    places = np.asarray(found.vert_properties, dtype=np.float64)[:, :3]
    triangles = np.asarray(found.tri_verts, dtype=np.int64)
    flat = np.cross(
        places[triangles[:, 1]] - places[triangles[:, 0]], places[triangles[:, 2]] - places[triangles[:, 0]]
    )
    size = np.linalg.norm(flat, axis=1)
    kept = size > 1e-12
    triangles, flat, size = triangles[kept], flat[kept], size[kept]
    unit = flat / size[:, None]
    round_ = _round(triangles, flat, unit, len(places))
    corners = np.concatenate([places[triangles].reshape(-1, 3), round_.reshape(-1, 3)], axis=1)
    return Mesh(corners.astype(np.float32), places[_sharp(triangles, unit)].reshape(-1, 3).astype(np.float32))


def _round(
    triangles: npt.NDArray[np.int64], flat: npt.NDArray[np.float64], unit: npt.NDArray[np.float64], count: int
) -> npt.NDArray[np.float64]:
    """Directions at corners: the mean of the faces there where that is close to the face's own, else the face's."""
    total = np.zeros((count, 3))
    np.add.at(total, triangles.ravel(), np.repeat(flat, 3, axis=0))
    mean = total / np.maximum(np.linalg.norm(total, axis=1), 1e-12)[:, None]
    corner = mean[triangles]
    close = np.einsum("nij,nj->ni", corner, unit) > np.cos(np.radians(SHARP_DEG / 2))
    return np.where(close[:, :, None], corner, unit[:, None, :])


def _sharp(triangles: npt.NDArray[np.int64], unit: npt.NDArray[np.float64]) -> npt.NDArray[np.int64]:
    """Edges (m, 2) whose faces meet at more than `SHARP_DEG`."""
    edges = np.concatenate([triangles[:, [0, 1]], triangles[:, [1, 2]], triangles[:, [2, 0]]])
    face = np.tile(np.arange(len(triangles)), 3)
    edges.sort(axis=1)
    order = np.lexsort((edges[:, 1], edges[:, 0]))
    edges, face = edges[order], face[order]
    same = (edges[1:] == edges[:-1]).all(axis=1)
    first = np.flatnonzero(same)
    bend = np.einsum("ni,ni->n", unit[face[first]], unit[face[first + 1]])
    sharp: npt.NDArray[np.int64] = edges[first[bend < np.cos(np.radians(SHARP_DEG))]]
    return sharp
