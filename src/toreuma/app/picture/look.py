"""What the section shows on a stage, and what a click there chooses."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from toreuma.app.picture.paint import Painter
from toreuma.core.scene import Scene

__all__ = ["Look"]


@dataclass(frozen=True, kw_only=True)
class Look:
    """Given to the section by the stage that is shown.

    ``metal`` is what stands below the axis: the blank, the piece as it is held whole, or the metal at the cursor.
    ``shade`` says what the shades of passes mean, ``flags`` which findings are marked. ``pieces``
    are painted beside the hold, ``over`` over everything; ``extent`` gives (back, front, radius) in mm to fit instead
    of the part, or None where that is right, with ``headroom_px`` left free above.
    """

    metal: Literal["blank", "held", "cursor"] = "cursor"
    chooses: Literal["surface", "pass"] = "pass"
    tool: bool = False
    passes: bool = False
    opened: bool = True
    bending: bool = False
    leftover: bool = False
    sizes: bool = False
    flags: frozenset[str] = frozenset()
    shade: str = ""
    pieces: Callable[[Painter, Scene], None] | None = None
    over: Callable[[Painter, Scene], None] | None = None
    extent: Callable[[Scene], tuple[float, float, float] | None] | None = None
    headroom_px: int = 0
