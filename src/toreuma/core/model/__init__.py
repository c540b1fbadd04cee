"""What the person decided, as frozen values that serialise to open JSON."""

from toreuma.core.model.feature import (
    AxialHole,
    CentreHole,
    FaceGroove,
    Feature,
    Flats,
    Groove,
    HolePattern,
    Relief,
    Slot,
    ThreadFeature,
    is_milled,
)
from toreuma.core.model.hold import Centre, Chuck, Collet, Hold, JawRelief, Mandrel, SecondHold
from toreuma.core.model.job import FORMAT_VERSION, Job, ProgramOptions, Setup
from toreuma.core.model.machine import Machine, PowerPoint
from toreuma.core.model.material import Material, StartSpeed
from toreuma.core.model.operation import DrillHole, Face, FinishOd, Operation, PartOff, Pins, ReamHole, RoughOd
from toreuma.core.model.part import Corner, Element, Part, Size
from toreuma.core.model.stock import FreeBlank, PolygonBar, RoundBar, Stock, Supply, TubeBar
from toreuma.core.model.tool import Blade, Holder, Insert, PartingTool, Tool, TurningTool

__all__ = [
    "FORMAT_VERSION",
    "AxialHole",
    "Blade",
    "Centre",
    "CentreHole",
    "Chuck",
    "Collet",
    "Corner",
    "DrillHole",
    "Element",
    "Face",
    "FaceGroove",
    "Feature",
    "FinishOd",
    "Flats",
    "FreeBlank",
    "Groove",
    "Hold",
    "Holder",
    "HolePattern",
    "Insert",
    "JawRelief",
    "Job",
    "Machine",
    "Mandrel",
    "Material",
    "Operation",
    "Part",
    "PartOff",
    "PartingTool",
    "Pins",
    "PolygonBar",
    "PowerPoint",
    "ProgramOptions",
    "ReamHole",
    "Relief",
    "RoughOd",
    "RoundBar",
    "SecondHold",
    "Setup",
    "Size",
    "Slot",
    "StartSpeed",
    "Stock",
    "Supply",
    "ThreadFeature",
    "Tool",
    "TubeBar",
    "TurningTool",
    "is_milled",
]
