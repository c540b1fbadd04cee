"""Theoretical roughness from feed and nose radius."""

import math

__all__ = ["feed_for_ra", "theoretical_ra_um", "theoretical_rt_um"]

FORMULA = "Rt = 1000 f² / (8 rε), Ra ≈ Rt / 4"
SOURCE = "parabola approximation of the nose arc, machining textbooks"


def theoretical_rt_um(feed_mm_rev: float, nose_radius_mm: float) -> float:
    """Peak-to-valley height Rt = 1000 f^2 / (8 r), um; the parabola approximation, valid for f < r."""
    return 1000 * feed_mm_rev**2 / (8 * nose_radius_mm)


def theoretical_ra_um(feed_mm_rev: float, nose_radius_mm: float) -> float:
    """Mean roughness Ra, um, taken as Rt / 4."""
    return theoretical_rt_um(feed_mm_rev, nose_radius_mm) / 4


def feed_for_ra(ra_um: float, nose_radius_mm: float) -> float:
    """Feed, mm/rev, that gives a theoretical Ra; the inverse of `theoretical_ra_um`."""
    return math.sqrt(4 * ra_um * 8 * nose_radius_mm / 1000)
