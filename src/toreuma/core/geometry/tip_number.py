"""Where the programmed point of a tool lies about the centre of its nose, as controls count it."""

from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Tool

__all__ = ["tip_number"]

SAME_MM = 1e-6
NUMBERS = {
    (1, 1): 1, (-1, 1): 2, (-1, -1): 3, (1, -1): 4, (1, 0): 5, (0, 1): 6, (-1, 0): 7, (0, -1): 8, (0, 0): 9,
}  # fmt: skip
"""By the signs of Z and X from the centre to the point, axes as ISO 841 has them; the usual count of controls."""


def tip_number(tool: Tool) -> int | None:
    """1 to 9; None for a tool without a nose."""
    shape = shape_of(tool)
    if shape.nose_radius < SAME_MM:
        return None
    z, r = (0 if abs(one) < SAME_MM else 1 if one > 0 else -1 for one in shape.tip)
    return NUMBERS[(z, r)]
