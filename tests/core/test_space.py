"""Bodies in space for the pictures: surfaces point outward, edges are where a draughtsman draws them, metal is true."""

import math
from functools import cache

import numpy as np
import pytest

from tests.support.handed import planned_demo
from tests.support.kept import prove_channels
from toreuma.core.geometry.meshes import mesh_of
from toreuma.core.geometry.region import region_from_points, rotated_volume
from toreuma.core.geometry.solids import Solid, prism, revolved
from toreuma.core.prove.space import Body, Space
from toreuma.engine.pair import PairProof
from toreuma.shipped.library import dialect

STEP = region_from_points([(0, 5), (0, 25), (-22, 25), (-22, 39), (-60, 39), (-60, 5)])


@cache
def proof() -> PairProof:
    return prove_channels(*planned_demo("runner-hub"), dialect("system-a"))


def volume(body: Body) -> float:
    """Of a closed surface, by the divergence theorem."""
    a, b, c = (body.mesh.corners.reshape(-1, 3, 6)[:, n, :3].astype(float) for n in range(3))
    return abs(float(np.einsum("ni,ni->n", a, np.cross(b, c)).sum() / 6))


@pytest.mark.parametrize("turned", [lambda s: s, lambda s: s.rotate((90, 0, 0)), lambda s: s.rotate((180, 0, 40))])
def test_surfaces_point_outward(turned) -> None:  # type: ignore[no-untyped-def]
    solid = turned(revolved(STEP, 96, 270.0) + prism([np.array([[30, 30], [60, 30], [60, 50], [30, 50]])], -20, 0))
    corners = mesh_of(solid).corners.reshape(-1, 3, 6)
    flat = np.cross(corners[:, 1, :3] - corners[:, 0, :3], corners[:, 2, :3] - corners[:, 0, :3])
    flat /= np.linalg.norm(flat, axis=1)[:, None]
    assert np.einsum("nij,nj->ni", corners[:, :, 3:], flat).min() > math.cos(math.radians(33))


def test_edges_are_the_rims_and_the_cut_not_the_facets() -> None:
    edges = mesh_of(revolved(STEP, 96)).edges.reshape(-1, 2, 3)
    along = np.abs(edges[:, 0, 2] - edges[:, 1, 2])
    assert along.max() < 1e-3  # every edge is part of a rim; none runs along the axis
    assert len(edges) == 6 * 96
    cut = mesh_of(revolved(STEP, 96, 270.0)).edges.reshape(-1, 2, 3)
    assert (np.abs(cut[:, 0, 2] - cut[:, 1, 2]) > 1).any()
    assert len(mesh_of(Solid()).corners) == 0


def test_three_quarters_of_the_metal_are_shown_at_every_time() -> None:
    made = proof()
    space = Space(made.scenery)
    for seconds in (5.0, 100.0, 150.0):  # before anything is milled
        held = made.scenery.at(seconds).holds[0]
        body = next(one for one in space.at(seconds) if one.kind == "metal")
        assert volume(body) == pytest.approx(0.75 * rotated_volume(held.metal), rel=0.01)


def test_what_is_milled_goes_from_one_spindle_to_the_other() -> None:
    """Holes, flats and slot are open on the second spindle as they were cut on the first."""
    made = proof()
    space, piece = Space(made.scenery), made.scenery.pieces[0]
    at = {}
    for name, seconds in (("main", piece.come.start_s - 0.5), ("second", piece.back.end_s + 0.01)):
        at[name] = next(one for one in space.at(seconds) if one.kind == "metal")
    whole = 0.75 * rotated_volume(made.scenery.at(piece.come.start_s - 0.5).holds[0].metal)
    assert volume(at["main"]) < 0.99 * whole
    assert volume(at["second"]) == pytest.approx(volume(at["main"]), rel=1e-3)


def test_tools_stand_where_the_program_has_them() -> None:
    made = proof()
    space = Space(made.scenery)
    for seconds in (60.0, 200.0, 322.0):
        tips = {stand.tip for stand in made.scenery.at(seconds).stands}
        places = {(float(b.place[2, 3]), float(b.place[0, 3])) for b in space.at(seconds) if b.kind == "edge"}
        assert places == tips
