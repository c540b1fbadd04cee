"""Jobs of driven tools only: a piece that is turned already on the twin-spindle mill-turn, and features in it."""

from collections.abc import Sequence

from toreuma.core.model import Job, Operation
from toreuma.core.model.feature import Feature
from toreuma.core.model.tool import Tool
from toreuma.shipped.library import catalogue, demo_job, machines

__all__ = ["driven", "milled_job"]

OUTLINE = ((0.0, 0.0), (0.0, 25.0), (-22.0, 25.0), (-22.0, 39.0), (-60.0, 39.0), (-60.0, 0.0))


def driven(code: str, name: str, station: int, mount: str = "axial") -> Tool:
    """A tool of the store in a station of the milling spindle (13 to 24) or the turret."""
    found = next(one for one in catalogue().tools if one.name == code)
    return found.changed(id=name, station=station, mount=mount)


def milled_job(
    features: Sequence[Feature], tools: Sequence[Tool], operations: Sequence[Operation], machine: str = ""
) -> Job:
    """A stepped piece, diameters 50 and 78, held behind Z -40; nothing is left to turn."""
    hub = demo_job("runner-hub")
    part = hub.part.changed(
        outside=(
            {"z_mm": 0, "d_mm": 50}, {"z_mm": -22, "d_mm": 50}, {"z_mm": -22, "d_mm": 78}, {"z_mm": -60, "d_mm": 78}
        ),
        inside=(),
        features=tuple(features),
        edge_break_mm=0.0,
    )  # fmt: skip
    stock = {"kind": "free", "material": hub.stock.material, "face_allowance_mm": 0, "outline": OUTLINE}
    hold = hub.setup.hold.changed(stick_out_mm=40.0, grip_length_mm=20.0)
    return hub.changed(
        part=part,
        stock=stock,
        tools=tuple(tools),
        machine=machines()[machine] if machine else hub.machine,
        setups=({"hold": hold, "operations": tuple(operations)},),
        second_hold=None,
    )
