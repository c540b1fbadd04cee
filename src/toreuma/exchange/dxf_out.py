"""Drawings out: profile, blank, hold and toolpaths of a job as a DXF file."""

import io
import math
from typing import Any

from toreuma.core.geometry.elements import Line, Segment
from toreuma.core.geometry.recover import recover
from toreuma.core.geometry.region import Region, rings
from toreuma.core.plan import Plan

__all__ = ["dxf_text"]

LAYERS = (("PART", 7), ("BLANK", 8), ("HOLD", 9), ("AXIS", 1), ("CUTS", 3), ("RAPIDS", 6))


def dxf_text(plan: Plan) -> str:
    """A drawing in millimetres, z to the right and radius upward: half section, blank, hold, and every move."""
    import ezdxf

    document = ezdxf.new("R2010", setup=True)
    document.header["$INSUNITS"] = 4
    for name, colour in LAYERS:
        document.layers.add(name, color=colour, linetype="CENTER" if name == "AXIS" else "CONTINUOUS")
    space = document.modelspace()
    scene = plan.scene
    for outline in scene.shape.outlines:
        _draw(space, [segment for segment in outline if not _on_axis(segment)], "PART")
    _region(space, scene.stock, "BLANK")
    for region in (scene.jaws, scene.chuck, scene.centre, scene.steady):
        _region(space, region, "HOLD")
    low, _, high, _ = scene.stock.bounds
    space.add_line((low - 5, 0), (high + 5, 0), dxfattribs={"layer": "AXIS"})
    for operation in plan.operations:
        for motion in operation.motions:
            _draw(space, [motion.segment], "RAPIDS" if motion.is_rapid else "CUTS")
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue()


def _on_axis(segment: Segment) -> bool:
    return max(abs(segment.start[1]), abs(segment.end[1])) < 1e-6


def _region(space: Any, region: Region, layer: str) -> None:
    for ring in rings(region):
        _draw(space, recover(ring), layer)


def _draw(space: Any, segments: list[Segment], layer: str) -> None:
    for segment in segments:
        if isinstance(segment, Line):
            space.add_line(segment.start, segment.end, dxfattribs={"layer": layer})
            continue
        start, end = (segment.end, segment.start) if segment.clockwise else (segment.start, segment.end)
        angles = [math.degrees(math.atan2(p[1] - segment.centre[1], p[0] - segment.centre[0])) for p in (start, end)]
        space.add_arc(segment.centre, segment.radius, angles[0], angles[1], dxfattribs={"layer": layer})
