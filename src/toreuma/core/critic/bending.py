"""Cuts on a piece that was made thin too early."""

from collections.abc import Iterator

from toreuma.core.critic.moves import may_pass, move_before, name_of
from toreuma.core.cutting.beam import compliance_of
from toreuma.core.findings import Finding
from toreuma.core.plan.hold.standing import held_piece
from toreuma.core.plan.route import Plan
from toreuma.core.spoken import q, said

__all__ = ["bending"]

BEND_UM = 5.0
"""A difference in bending below this is not worth another order, on diameter."""


def bending(planned: Plan) -> Iterator[Finding]:
    """A cut on a piece that an earlier one, which could wait, has made thin."""
    job, scene = planned.job, planned.scene
    e = job.stock.material.e_n_mm2
    if e is None:
        return
    supports = scene.supports
    cuts = [one for one in planned.operations if one.motions]
    for index, one in enumerate(cuts):
        if one.operation.kind not in ("rough_od", "finish_od", "thread") or one.figures.force_n is None:
            continue
        for earlier_index in range(index - 1, -1, -1):
            earlier = cuts[earlier_index]
            if earlier.operation.kind not in ("groove", "rough_od"):
                continue
            between = [x.operation for x in cuts[earlier_index:index]]
            if not may_pass(one.operation, between) or earlier.removed.is_empty:
                continue
            z = one.removed.centroid.x if not one.removed.is_empty else 0.0
            if earlier.removed.centroid.x > z:  # what is thin lies in front of the cut: it bends nothing
                continue
            now, then = (held_piece(region, scene.jaw_face_z) for region in (one.before, earlier.before))
            if now.is_empty or then.is_empty or now.bounds[2] < scene.jaw_face_z + 1:
                continue
            force = one.figures.force_n
            more = compliance_of(now, supports, e).at(z)
            less = compliance_of(then, supports, e).at(z)
            saved_um = 2000 * 0.5 * force * (more - less)
            if saved_um > BEND_UM:
                yield Finding(
                    "note",
                    "order.bend",
                    said(
                        "'{}' bends the piece {} more on diameter after '{}' than before it",
                        name_of(one.operation),
                        q(saved_um, "um", ".0f"),
                        name_of(earlier.operation),
                    ),
                    "thin places last: the cut farther out finds a stiffer piece",
                    operation=one.operation.id,
                    cures=(move_before(one.operation, earlier.operation),),
                )
                break
