"""The second hold sits on what the first side leaves: it has to be finished by then."""

from collections.abc import Iterator

from toreuma.core.critic.moves import move_before, name_of
from toreuma.core.findings import Finding
from toreuma.core.geometry.region import box, polygons, thickness
from toreuma.core.plan.route import Plan
from toreuma.core.spoken import q, said

__all__ = ["unfinished_grip"]

STANDS_MM = 0.02
FAR_MM = 1e5


def unfinished_grip(planned: Plan) -> Iterator[Finding]:
    """Metal left on the gripped surface by a finishing cut that comes after the part is off."""
    second, operations = planned.second, planned.operations
    off = next((i for i, one in enumerate(operations) if one.operation.kind == "part_off"), None)
    if second is None or second.d_mm <= 0 or off is None:
        return
    late = [one for one in operations[off + 1 :] if one.operation.kind == "finish_od"]
    stands = operations[off].before.intersection(box(second.back_z, second.d_mm / 2, second.front_z, FAR_MM))
    left = max((thickness(piece, planned.scene.part) for piece in polygons(stands)), default=0.0)
    if not late or left < STANDS_MM:
        return
    finish, parting = late[0].operation, operations[off].operation
    yield Finding(
        "error",
        "order.grip",
        said(
            "the second hold grips Ø {} with {} still on it: '{}' comes after '{}'",
            q(second.d_mm, "mm", "g"),
            q(1000 * left, "um", ".0f"),
            name_of(finish),
            name_of(parting),
        ),
        "jaws on unfinished metal hold out of true by as much as is left, and mark what is turned later",
        operation=finish.id,
        at=((second.front_z + second.back_z) / 2, second.d_mm / 2),
        cures=(move_before(finish, parting),),
    )
