"""A hole in which a mill goes down that does not cut on its middle: drilled first, at the end of the middle line."""

from collections.abc import Sequence
from dataclasses import replace

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.cutting.figures import Figure
from toreuma.core.findings import Finding
from toreuma.core.geometry.milled import Sunk
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import MillSlot, Slot
from toreuma.core.model.tool import Drill, EndMill
from toreuma.core.plan.ground.path import APPROACH_MM
from toreuma.core.plan.ground.result import Cuts, OperationFault
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.mill.driven_path import DrivenPath
from toreuma.core.plan.mill.holes_beside import drill_feed
from toreuma.core.plan.numbers.axial_speed import axial_speed
from toreuma.core.plan.numbers.drilling import SPEED_SHARE, SPEED_SHARE_ELSE, point_length_mm
from toreuma.core.spoken import q, said

__all__ = ["start_holes"]

ABOVE_FLOOR_MM = 0.1
"""The point stays so far above the floor."""


def start_holes(work: Work, operation: MillSlot, places: Sequence[Sunk], ends: Sequence[float]) -> Cuts:
    """A hole at one end of the middle line of every slot. Raises `OperationFault`."""
    tool = work.given.tool(operation.start_tool or "")
    mill = work.tool
    assert isinstance(mill, EndMill)
    if not isinstance(tool, Drill):
        what = f"{operation.start_tool} is no drill"
        raise OperationFault("start.kind", what, "choose a drill for the start hole, or none")
    if tool.mount != mill.mount:
        raise OperationFault("start.mount", f"{tool.id} is not mounted as {mill.id} is", "mount both the same way")
    carrier = work.given.machine.carrier_of(tool.station)
    if carrier.live is None:
        raise OperationFault("start.live", f"the {carrier.name} drives no tools", "put the drill on another carrier")
    feature = work.given.part.features[operation.feature]
    assert isinstance(feature, Slot)
    if tool.d_mm > feature.width_mm - 2 * operation.leave_mm + 1e-6:
        what = said(
            "the start hole is Ø{}, the slot {} wide",
            q(tool.d_mm, "mm", "g", bare=True),
            q(feature.width_mm, "mm", "g"),
        )
        raise OperationFault("start.wide", what, "choose a smaller drill")
    drilling = replace(work, tool=tool, shape=shape_of(tool))
    share = SPEED_SHARE.get(tool.material, SPEED_SHARE_ELSE)
    speed = axial_speed(drilling, tool.material, tool.d_mm, share, "drilling")
    rpm = speed.rpm
    feed, told = drill_feed(drilling, tool, rpm, min(carrier.live.power_kw, carrier.live.torque_nm * rpm / 9549.3))
    path = DrivenPath(drilling, rpm)
    across = places[0].along == "x"
    for place, end in zip(places, ends, strict=True):
        path.index(place.c_deg)
        clear, bottom = place.top + APPROACH_MM, place.level + ABOVE_FLOOR_MM
        path.rapid(**{"z" if across else "x": end})
        path.rapid(**{"x" if across else "z": clear})
        path.feed(feed * rpm, **{"x" if across else "z": bottom})
        path.rapid(**{"x" if across else "z": clear})
    path.leave(along_x=across)
    depth = places[0].top - places[0].level - ABOVE_FLOOR_MM
    reasons = {
        Figure.START_SPEED: replace(speed.vc, name="surface speed of the drill", typable=False),
        Figure.START_FEED: replace(told, name="feed of the drill", typable=False),
        Figure.START_DEPTH: Evidence(
            "start hole, to its point", "", depth, "mm", formula="to just above the floor: the mill cuts the rest",
            inputs=(Input("point", "", point_length_mm(tool), "mm"),
                    Input("above the floor", "", ABOVE_FLOOR_MM, "mm")),
        ),
    }  # fmt: skip
    found = []
    if tool.d_mm < 0.5 * mill.d_mm:
        what = said(
            "the start hole is Ø{}, {} is Ø{}",
            q(tool.d_mm, "mm", "g", bare=True),
            mill.id,
            q(mill.d_mm, "mm", "g", bare=True),
        )
        why = "what its end does not cut stays under it: drill at least half its diameter"
        found.append(Finding("warning", "start.small", what, why, operation=operation.id))
    if depth > tool.flute_length_mm:
        what = said(
            "the start hole is {} deep, the flutes of {} are {} long",
            q(depth, "mm", ".1f"),
            tool.id,
            q(tool.flute_length_mm, "mm", "g"),
        )
        found.append(Finding("error", "drill.flute", what, "take a longer drill", operation=operation.id))
    return Cuts(motions=tuple(path.motions), passes=(), reasons=reasons, findings=tuple(found))
