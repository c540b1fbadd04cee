"""What the person decided, as frozen values that serialise to open JSON."""

from toreuma.core.model.hold import Chuck
from toreuma.core.model.job import FORMAT_VERSION, Job, ProgramOptions, Setup
from toreuma.core.model.machine import Machine, PowerPoint
from toreuma.core.model.material import Material, StartSpeed
from toreuma.core.model.operation import Face, FinishOd, Operation, PartOff, Pins, RoughOd
from toreuma.core.model.part import Corner, Element, Part
from toreuma.core.model.stock import RoundBar
from toreuma.core.model.tool import Blade, Holder, Insert, PartingTool, Tool, TurningTool

__all__ = [
    "FORMAT_VERSION",
    "Blade",
    "Chuck",
    "Corner",
    "Element",
    "Face",
    "FinishOd",
    "Holder",
    "Insert",
    "Job",
    "Machine",
    "Material",
    "Operation",
    "Part",
    "PartOff",
    "PartingTool",
    "Pins",
    "PowerPoint",
    "ProgramOptions",
    "RoughOd",
    "RoundBar",
    "Setup",
    "StartSpeed",
    "Tool",
    "TurningTool",
]
