"""What roughing and finishing, outside and in a bore, give the choice of their numbers to go by."""

from dataclasses import replace
from typing import Literal

from toreuma.core.cutting.bars import bar_held
from toreuma.core.cutting.situation import BarHeld, Situation
from toreuma.core.model import TurningTool
from toreuma.core.model.part import Element, turned_size
from toreuma.core.model.tool import Bar, BoringTool, PullTool
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.numbers.situations import (
    ALLOWANCE_SHARE,
    BAND_SHARE,
    FREE_BAND_MM,
    bend_of,
    insert_situation,
    pull_situation,
    size_bend,
)
from toreuma.core.plan.turn.stretch import Stretch

__all__ = ["finish_situation", "held_out", "rough_situation"]

OUT_OF_BORE_MM = 3.0
"""Kept between the front of the work and the holder of a boring bar."""


def rough_situation(work: Work, stretch: Stretch, leave_mm: float, heights: tuple[float, float]) -> Situation:
    """The situation of roughing between two heights of the tip, mm in the frame."""
    radii = [abs(height) for height in heights]
    if stretch.is_bore:
        d_mm, mean = 2 * max(radii), sum(radii)
    elif stretch.frame.swap:
        d_mm, mean = 2 * work.stock.bounds[3], work.stock.bounds[3]
    else:
        d_mm = 2 * work.stock.bounds[3]
        mean = max(d_mm / 2 + heights[1], d_mm / 2)
    situation = _situation(work, "rough", d_mm, mean)
    allowed = max(ALLOWANCE_SHARE * leave_mm, 0.02)
    if stretch.is_bore:
        return replace(situation, bar=held_out(work, tool_bar(work), stretch.nose_to, allowed))
    after = work.stock.intersection(stretch.frame.region(stretch.target))
    return replace(situation, bend=bend_of(work, after, *stretch.span, leave_mm))


def finish_situation(work: Work, stretch: Stretch, wanted_ra_um: float) -> Situation:
    """The situation of one cut along the contour."""
    if stretch.is_bore:
        elements = work.given.part.inside
        d_mm = max(element.d_mm for element in elements)
        situation = _situation(work, "finish", d_mm, d_mm)
        allowed = min((BAND_SHARE * _band(element) / 2 for element in elements if element.d_mm > 0), default=0.05)
        return replace(
            situation,
            wanted_ra_um=wanted_ra_um,
            bar=held_out(work, tool_bar(work), stretch.nose_to, max(allowed, 5e-4)),
        )
    d_mm = 2 * work.scene.profile.largest_r
    situation = _situation(work, "finish", d_mm, d_mm / 2)
    after = work.stock.intersection(stretch.frame.region(stretch.target))
    bend = size_bend(work, after, stretch.span[1])
    return replace(situation, wanted_ra_um=wanted_ra_um, bend=bend)


def held_out(work: Work, bar: Bar, deepest_z: float, allowed_mm: float) -> BarHeld:
    """A bar that stands out of its holder as typed, or as far as this bore asks for."""
    needed = work.stock.bounds[2] - deepest_z + OUT_OF_BORE_MM
    return bar_held(bar, bar.stick_out_mm or needed, allowed_mm)


def tool_bar(work: Work) -> Bar:
    tool = work.tool
    assert isinstance(tool, BoringTool)
    return tool.bar


def _situation(work: Work, use: Literal["rough", "finish"], d_mm: float, mean_d_mm: float) -> Situation:
    tool = work.tool
    if isinstance(tool, PullTool):
        return pull_situation(work, tool, d_mm, mean_d_mm)
    assert isinstance(tool, TurningTool | BoringTool)
    carrier = tool.bar if isinstance(tool, BoringTool) else tool.holder
    return insert_situation(work, tool.insert, use, carrier.entering_angle_deg, d_mm, mean_d_mm)


def _band(element: Element) -> float:
    """Width of the limits of a diameter, mm."""
    size = turned_size(element, "outside")
    return FREE_BAND_MM if size is None else (size.upper_um - size.lower_um) / 1000
