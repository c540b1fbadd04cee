"""Out-of-roundness a thin ring takes from the jaws (curved beam under equal, evenly spaced radial loads)."""

import math

__all__ = ["ovality_um", "ring_deflections"]


def ring_deflections(load_n: float, count: int, mean_r_mm: float, e_n_mm2: float, i_mm4: float) -> tuple[float, float]:
    """Radial movement of a ring at the loads (inward) and midway between them (outward), mm.

    With half the angle between loads ``t``: ``W R^3 / (2 E I)`` times ``(t/2 + sin t cos t / 2)/sin^2 t - 1/t`` at
    the loads, and ``1/t - 1/(2 sin t) - t cos t / (2 sin^2 t)`` midway (Roark, circular rings, equal radial loads;
    thin ring: bending only).
    """
    t = math.pi / count
    s, c = math.sin(t), math.cos(t)
    scale = load_n * mean_r_mm**3 / (2 * e_n_mm2 * i_mm4)
    at_load = (t / 2 + s * c / 2) / s**2 - 1 / t
    midway = 1 / t - 1 / (2 * s) - t * c / (2 * s**2)
    return scale * at_load, scale * midway


def ovality_um(
    grip_n: float, jaws: int, outer_r_mm: float, inner_r_mm: float, length_mm: float, e_n_mm2: float
) -> float:
    """Difference of the largest and smallest radius of a ring under the grip of all jaws, µm.

    What is turned round in the jaws springs out of round by this much when they open.
    """
    wall = outer_r_mm - inner_r_mm
    if wall <= 0 or length_mm <= 0:
        return math.inf
    i = length_mm * wall**3 / 12
    at_load, midway = ring_deflections(grip_n / jaws, jaws, (outer_r_mm + inner_r_mm) / 2, e_n_mm2, i)
    return 1000 * (at_load + midway)
