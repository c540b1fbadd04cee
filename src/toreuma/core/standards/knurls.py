"""Knurls to DIN 82: the diameter to turn before rolling, from the nominal diameter over the ridges and the pitch.

Ridges are pressed in below the turned surface and rise above it. With the standard's profile angle of 90 degrees a
ridge is half a pitch high: what stands out of it is half the difference of the two diameters.
"""

from typing import Literal

__all__ = ["PITCHES_MM", "KnurlForm", "blank_d_mm", "pressed_mm", "raised_mm"]

KnurlForm = Literal["RAA", "RGE"]

PITCHES_MM = (0.5, 0.6, 0.8, 1.0, 1.2, 1.6)
"""The standard's pitches, mm."""

BELOW = {"RAA": 0.5, "RGE": 0.67}
"""Nominal diameter less turned diameter, in pitches (DIN 82): axial ridges; crossing ridges, points raised."""


def blank_d_mm(form: KnurlForm, nominal_d_mm: float, pitch_mm: float) -> float:
    """Diameter to turn before knurling, mm."""
    return nominal_d_mm - BELOW[form] * pitch_mm


def raised_mm(form: KnurlForm, pitch_mm: float) -> float:
    """How far the ridges rise above the turned surface, mm on radius."""
    return BELOW[form] * pitch_mm / 2


def pressed_mm(form: KnurlForm, pitch_mm: float) -> float:
    """How deep the wheels go below the turned surface, mm on radius: the rest of the ridge's height."""
    return pitch_mm / 2 - raised_mm(form, pitch_mm)
