"""Where the tools beside the one that cuts are: they come down with it."""

import math

from toreuma.core.geometry.region import EMPTY, Region, box
from toreuma.core.geometry.tool_shapes import COLLET_MM
from toreuma.core.model import Carrier, Job, Machine, Tool
from toreuma.core.model.tool import (
    BarPuller,
    BarStop,
    BoringTool,
    Drill,
    FormTool,
    KnurlingTool,
    Mill,
    Reamer,
    Tap,
    ThreadingTool,
    TurningTool,
)

__all__ = ["beside_of", "beside_r", "carrier_body", "low_beside", "sizes_of", "stands_beside"]

DISC_WIDE_MM = 60.0
"""Of a turret's disc, along Z: what comes near comes to its face."""

NOSE_LONG_MM = 250.0
"""Of a milling spindle, behind its nose."""

HIGH_MM, LEAST_WIDE_MM = 60.0, 5.0
"""So much of a tool beside is looked at, from its tip outward, and at least so wide."""


def sizes_of(tool: Tool) -> tuple[float, float]:
    """Tip from the station along Z and on radius: what stands out, and what lies beside the shank."""
    if isinstance(tool, TurningTool):
        return tool.holder.functional_width_mm, tool.holder.functional_length_mm
    if isinstance(tool, BoringTool):
        return tool.bar.stick_out_mm or tool.bar.functional_length_mm, -tool.bar.functional_width_mm
    if isinstance(tool, Mill):
        return (0.0, tool.out_mm) if tool.mount == "radial" else (tool.out_mm, 0.0)
    if isinstance(tool, Drill | Reamer | Tap):
        return (0.0, tool.overall_length_mm) if tool.mount == "radial" else (tool.overall_length_mm, 0.0)
    if isinstance(tool, ThreadingTool) and tool.bar is not None:
        return tool.bar.stick_out_mm or tool.bar.functional_length_mm, -tool.bar.functional_width_mm
    if isinstance(tool, ThreadingTool) and tool.holder is not None:
        return tool.holder.functional_width_mm, tool.holder.functional_length_mm
    if isinstance(tool, FormTool):
        return tool.block_width_mm / 2, tool.functional_length_mm
    if isinstance(tool, KnurlingTool):
        return tool.head_mm / 2, tool.length_mm
    if isinstance(tool, BarStop | BarPuller):
        return tool.length_mm, 0.0
    blade = getattr(tool, "blade", None)
    bar = getattr(tool, "bar", None)
    if bar is not None:
        return bar.stick_out_mm or bar.functional_length_mm, -bar.functional_width_mm
    return (blade.block_width_mm, blade.functional_length_mm) if blade is not None else (0.0, 0.0)


def beside_of(job: Job, tool: Tool) -> tuple[Tool, ...]:
    """The tools in the stations beside, which stand out of the same carrier."""
    carrier = job.machine.carrier_of(tool.station)
    if carrier.kind == "milling spindle":
        return ()
    stations = {_wrapped(tool.station + step, carrier, job.machine) for step in (-1, 1)}
    return tuple(one for one in job.tools if one.station in stations and one.id != tool.id)


def _wrapped(station: int, carrier: Carrier, machine: Machine) -> int:
    if carrier.kind == "gang plate":
        return station
    numbers = machine.stations_of(carrier)
    return numbers[(station - numbers[0]) % len(numbers)]


def low_beside(carrier: Carrier, tool: Tool, beside: Tool | None, z: float, r: float) -> tuple[float, float]:
    """How far a tool beside comes, (z, r) in mm, or without one what carries the tools, while a tip is at (z, r)."""
    along, out = sizes_of(tool)
    if beside is None and carrier.kind == "milling spindle":
        body = carrier_body(carrier, tool, z, r)
        return (math.inf, math.inf) if body.is_empty else (float(body.bounds[0]), float(body.bounds[1]))
    if beside is None:
        return z + along, max(r + out, 0.0)
    along_b, out_b = sizes_of(beside)
    return z + along - along_b, max(beside_r(carrier, r, out, out_b, 1), 0.0)


def stands_beside(carrier: Carrier, tool: Tool, beside: Tool, z: float, r: float, apart: int = 1) -> Region:
    """A tool so many stations ``apart`` while another one's tip is at (z, r), as the half section sees it, mm."""
    along, out = sizes_of(tool)
    along_b, out_b = sizes_of(beside)
    low_r, low_z = max(beside_r(carrier, r, out, out_b, apart), 0.0), z + along - along_b
    return box(low_z, low_r, low_z + max(along_b, LEAST_WIDE_MM), low_r + HIGH_MM)


def carrier_body(carrier: Carrier, tool: Tool, z: float, r: float, long_mm: float = NOSE_LONG_MM) -> Region:
    """What carries the tools while a tip is at (z, r): the disc of a turret or the plate of a gang, its rim where
    shanks end, its face where tools stand out of it; the nose of a milling spindle behind the tool, along the axis or
    across.

    A nose is ``long_mm`` long. The disc turns about an axis along Z outside the work. A gang plate passes by the work
    with all its stations: it begins where they hold their tools, and is surely as wide and high as a station.
    """
    if carrier.kind == "milling spindle":
        return _nose(carrier, tool, z, r, long_mm)
    along, out = sizes_of(tool)
    rim = max(r + out, 0.0)
    if carrier.kind == "gang plate":
        return box(z + along, rim, z + along + carrier.station_pitch_mm, rim + carrier.station_pitch_mm)
    disc = carrier.station_pitch_mm * carrier.stations / (2 * math.pi)
    return box(z + along, rim, z + along + DISC_WIDE_MM, rim + 2 * disc)


def _nose(carrier: Carrier, tool: Tool, z: float, r: float, long_mm: float) -> Region:
    """A milling spindle's nose, behind what holds the tool; tools that run back along Z stand on its axis, others
    across."""
    half, bar = carrier.nose_d_mm / 2, getattr(tool, "bar", None)
    if half <= 0 or (bar is not None and bar.stick_out_mm is None):  # nobody said where the bar is clamped
        return EMPTY
    along, out = sizes_of(tool)
    if out <= 0:
        along += COLLET_MM
        return box(z + along, max(r + out - half, 0.0), z + along + long_mm, max(r + out, 0.0) + half)
    out += COLLET_MM
    return box(z + along - half, max(r + out, 0.0), z + along + half, max(r + out, 0.0) + long_mm)


def beside_r(carrier: Carrier, r: float, out: float, out_b: float, apart: int = 1) -> float:
    """How close to the spindle axis a tip comes that stands so many stations ``apart`` from one at radius ``r``, mm.

    ``out`` and ``out_b`` are how far both stand out of the carrier.
    """
    if carrier.kind == "gang plate":
        return math.hypot(r + out - out_b, apart * carrier.station_pitch_mm)
    turn = 2 * math.pi / carrier.stations
    disc = carrier.station_pitch_mm / turn
    centre, reach = r + out + disc, disc + out_b
    return math.hypot(centre - reach * math.cos(apart * turn), reach * math.sin(apart * turn))
