"""Tool kinds, each declared once: what it is called, and whether it may turn by itself."""

from toreuma.core.kinds.registry import ToolKind, declared
from toreuma.core.model import Tool

__all__ = ["TOOLS"]

TOOLS: dict[str, ToolKind] = declared(
    Tool,
    turning=ToolKind(label="turning tool"),
    boring=ToolKind(label="boring tool"),
    parting=ToolKind(label="blade for parting off"),
    grooving=ToolKind(label="grooving tool"),
    pull=ToolKind(label="tool for pull turning"),
    form=ToolKind(label="form tool"),
    threading=ToolKind(label="threading tool"),
    drill=ToolKind(label="drill", driven=True),
    reamer=ToolKind(label="reamer", driven=True),
    tap=ToolKind(label="tap", driven=True),
    end_mill=ToolKind(label="end mill", driven=True),
    chamfer_mill=ToolKind(label="chamfer mill", driven=True),
    thread_mill=ToolKind(label="thread mill", driven=True),
    knurling=ToolKind(label="knurling tool"),
    bar_stop=ToolKind(label="bar stop"),
    bar_puller=ToolKind(label="bar gripper"),
)
