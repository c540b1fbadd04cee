"""A tool shown on the part: what it leaves and why, the tool in place at the tightest spot, and its numbers."""

from dataclasses import dataclass

import shapely
import shapely.ops
from shapely.affinity import translate

from toreuma.core.advise.carriers import bar_reach_mm
from toreuma.core.cutting.bars import bar_limit
from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.geometry.region import EMPTY, Region
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Tool
from toreuma.core.model.tool import BoringTool
from toreuma.core.reach.tight import Spot, plunge_deg, tight_spots
from toreuma.core.reach.tool_reach import Surface, near_body, reach_on, surface_metal
from toreuma.core.scene import Scene

__all__ = ["ReachView", "reach_view"]


@dataclass(frozen=True, kw_only=True)
class ReachView:
    """``cutting`` and ``body`` are the tool where it comes closest to the largest leftover, mm in the section."""

    leftover: Region
    spots: tuple[Spot, ...]
    cutting: Region
    body: Region
    numbers: tuple[Evidence, ...]


def reach_view(scene: Scene, tool: Tool, surface: Surface) -> ReachView:
    """Reach of a tool on a surface with everything a picture of it shows."""
    shape, reach = shape_of(tool), reach_on(scene, tool, surface)
    spots = tight_spots(scene, tool, surface, reach)
    cutting, body = shape.cutting, shape.body
    numbers = [
        Evidence(
            "left on the part", "", reach.area_mm2, "mm2", formula="metal of the surface less what the tool covers"
        )
    ]
    if not reach.free.is_empty:
        metal = surface_metal(scene, surface)
        aim = shapely.Point(spots[0].at) if spots else metal.representative_point()
        nose = shapely.ops.nearest_points(reach.free, aim)[0]
        cutting, body = (translate(piece, nose.x, nose.y) for piece in (cutting, body))
        gap = float(shapely.distance(body, near_body(scene, surface))) if not body.is_empty else 0.0
        numbers.append(Evidence("holder clear by", "", gap, "mm", formula="least distance at the place shown"))
    else:
        cutting = body = EMPTY
    numbers += _own_numbers(scene, tool)
    return ReachView(leftover=reach.leftover, spots=spots, cutting=cutting, body=body, numbers=tuple(numbers))


def _own_numbers(scene: Scene, tool: Tool) -> list[Evidence]:
    found = []
    steep = plunge_deg(shape_of(tool))
    if steep is not None and steep > 0:
        found.append(Evidence("goes down at most at", "", steep, "deg", formula="180° − κ − ε", note="from the axis"))
    if isinstance(tool, BoringTool):
        depth, bar = bar_reach_mm(scene), tool.bar
        found += [
            Evidence("least bore", "DMIN", bar.least_bore_mm, "mm", formula="of the bar and its insert"),
            Evidence(
                "stands out over its diameter",
                "L/D",
                depth / bar.diameter_mm,
                "ratio",
                formula="depth of the bore and 3 mm, over the bar's diameter",
                inputs=(Input("needed", "L", depth, "mm"), Input("bar", "D", bar.diameter_mm, "mm")),
                limits=(Limit(f"{bar.material}{', damped' if bar.damped else ''}", bar_limit(bar), "ratio", bit=True),),
            ),
        ]
    return found
