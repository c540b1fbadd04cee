"""Theoretical roughness from feed and nose radius."""

import math

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.model import Material

__all__ = ["expected_ra_um", "feed_for_ra", "finish_evidence", "theoretical_ra_um", "theoretical_rt_um"]

FORMULA = "Rt = 1000 f² / (8 rε), Ra ≈ Rt / 4"
SOURCE = "parabola approximation of the nose arc, machining textbooks"


def theoretical_rt_um(feed_mm_rev: float, nose_radius_mm: float) -> float:
    """Peak-to-valley height Rt = 1000 f^2 / (8 r), um; the parabola approximation, valid for f < r."""
    return 1000 * feed_mm_rev**2 / (8 * nose_radius_mm)


def theoretical_ra_um(feed_mm_rev: float, nose_radius_mm: float) -> float:
    """Mean roughness Ra, um, taken as Rt / 4."""
    return theoretical_rt_um(feed_mm_rev, nose_radius_mm) / 4


def expected_ra_um(feed_mm_rev: float, nose_radius_mm: float, ratio: float) -> float:
    """Mean roughness Ra, um, to be measured: theory times what a shop has found over it (1: nothing known)."""
    return theoretical_ra_um(feed_mm_rev, nose_radius_mm) * ratio


def feed_for_ra(ra_um: float, nose_radius_mm: float) -> float:
    """Feed, mm/rev, that gives a theoretical Ra; the inverse of `theoretical_ra_um`."""
    return math.sqrt(4 * ra_um * 8 * nose_radius_mm / 1000)


def finish_evidence(material: Material, feed_mm_rev: float, nose_radius_mm: float) -> Evidence:
    """The roughness to expect and why, with what the shop has found over theory where its log says so."""
    own = material.source_of("finish_ratio")
    found = () if material.finish_ratio == 1.0 else (Input("found over theory", "k", material.finish_ratio, "ratio"),)
    return Evidence(
        "theoretical finish" if not found else "finish to expect",
        "Ra",
        expected_ra_um(feed_mm_rev, nose_radius_mm, material.finish_ratio),
        "um",
        formula=f"{FORMULA} · k" if found else FORMULA,
        source=f"{SOURCE}; {own}" if own else SOURCE,
        inputs=(
            Input("feed", "f", feed_mm_rev, "mm/rev"),
            Input("nose radius", "rε", nose_radius_mm, "mm"),
            Input("height", "Rt", theoretical_rt_um(feed_mm_rev, nose_radius_mm), "um"),
            *found,
        ),
    )
