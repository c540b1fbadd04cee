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
    smooth = solid.calculate_normals(0, SHARP_DEG).to_mesh()
    with_normals = np.asarray(smooth.vert_properties, dtype=np.float32)[:, :6]
    corners = with_normals[np.asarray(smooth.tri_verts, dtype=np.int64)].reshape(-1, 6)
    found = solid.to_mesh()
    places = np.asarray(found.vert_properties, dtype=np.float64)[:, :3]
    triangles = np.asarray(found.tri_verts, dtype=np.int64)
    a, b, c = (places[triangles[:, n]] for n in range(3))
    flat = np.cross(b - a, c - a)
    size = np.linalg.norm(flat, axis=1)
    kept = size > 1e-12
    triangles, unit = triangles[kept], flat[kept] / size[kept][:, None]
    return Mesh(corners, places[_sharp(triangles, unit)].reshape(-1, 3).astype(np.float32))


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
