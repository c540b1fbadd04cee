"""Rows of what driven tools cut as it was written, where the drawing shows nothing."""

from collections.abc import Iterator, Sequence
from dataclasses import replace

from toreuma.core.prove.undrawn import undrawn_of
from toreuma.core.spoken import q, said
from toreuma.core.verdict.makers import Makers
from toreuma.core.verdict.row import Row
from toreuma.core.verdict.side import SideMade

__all__ = ["undrawn_rows"]

LEFT_UM = 2.0


def undrawn_rows(sides: Sequence[SideMade], makers: Makers) -> Iterator[Row]:
    """Cut as it was written, it is allowed; what is left of it is open."""
    for number, side in enumerate(sides):
        found = {one.operation: one for one in side.proof.undrawn}
        for operation in undrawn_of(side.job):
            one = found.get(operation.id)
            what = operation.name or operation.tool
            row = Row(
                key=f"undrawn {number} {operation.id}",
                what=what,
                wanted="as written",
                found="as written",
                state="allowed",
                left="cut as written, the drawing does not show it",
                made=makers.of_operation(number, operation.id),
                at=(0.0, 0.0) if one is None else (side.drawn_z(one.at[0]), one.at[1]),
            )
            if one is None or one.left_um > LEFT_UM:
                left = said("{} of it are left", q(one.left_um / 1000)) if one is not None else "it is not cut"
                row = replace(row, state="open", found="not made", left=left, cure="its moves as they were written")
            yield row
