"""Tapers as drawings give them: by the angle to the axis, by the included angle, or by ratio."""

import math
import re

from toreuma.core.errors import UnitError

__all__ = ["end_diameter", "half_angle_deg"]

_ANGLE = re.compile(r"^(?P<sign>[-+])?\s*(?P<deg>\d+(?:\.\d+)?)\s*(?:°|deg)\s*(?P<whole>included|incl)?$", re.I)
_RATIO = re.compile(r"^(?P<sign>[-+])?\s*(?P<a>\d+(?:\.\d+)?)\s*:\s*(?P<b>\d+(?:\.\d+)?)$")


def half_angle_deg(start_d: float, end_d: float, length: float) -> float:
    """Angle between a cone and the axis; positive where the diameter grows away from the start."""
    return math.degrees(math.atan2((end_d - start_d) / 2, length))


def end_diameter(text: str, start_d: float, length: float) -> float:
    """Diameter, mm, after ``length`` of a taper typed as ``20°`` (to the axis), ``40° included``, or ``1:10``.

    A ratio is the change of diameter over length (ISO 1119). A minus makes it smaller toward the end. Raises
    `UnitError`.
    """
    plain = text.replace("\u2212", "-").strip()
    angle, ratio = _ANGLE.match(plain), _RATIO.match(plain)
    if angle:
        half = math.radians(float(angle["deg"]) / (2 if angle["whole"] else 1))
        if half >= math.radians(89.5):
            raise UnitError("taper", f"{angle['deg']}° is no taper", "use less than 90° to the axis, or a face")
        change = 2 * length * math.tan(half)
    elif ratio and float(ratio["b"]) > 0:
        change = length * float(ratio["a"]) / float(ratio["b"])
    else:
        raise UnitError("taper", f"'{text}' is no taper", "type 20°, 40° included, or 1:10; a minus makes it smaller")
    end = start_d + (-change if plain.startswith("-") else change)
    if end < 0:
        raise UnitError("taper", "the cone runs below the axis before its end", "use a smaller angle or a shorter cone")
    return end
