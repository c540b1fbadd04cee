"""The moves of one operation, no more of them than anybody would let run."""

from toreuma.core.motion import Motion
from toreuma.core.plan.ground.result import OperationFault

__all__ = ["MOST_MOVES", "Moves"]

MOST_MOVES = 50_000
"""A day of cutting, or a size that is mistyped."""


class Moves(list[Motion]):
    """A list that ends the planning of its operation when it grows beyond `MOST_MOVES`."""

    def append(self, motion: Motion, /) -> None:
        if len(self) >= MOST_MOVES:
            what = f"it would take more than {MOST_MOVES} moves"
            raise OperationFault("moves.many", what, "a step, a width or a depth is far too small: look at the tool")
        super().append(motion)
