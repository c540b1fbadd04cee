"""The next best tool for what cannot be done with the first."""

from dataclasses import dataclass, field, replace

from toreuma.core.advise.advice import Advice
from toreuma.core.findings import Finding
from toreuma.core.model.catalogue import Catalogue
from toreuma.core.model.tool import BoringTool, Drill, Tool

__all__ = ["MILLED", "Advised", "Failed", "next_best"]

OTHERS_FAULT = ("bore.full", "ream.full", "tool.station")
"""What fails because an operation before it did, or the turret is full: another tool is no help."""
MILLED = "milled "
"""Begins the wish for what driven tools cut; the number of the feature follows."""
SMALLER = 0.8
"""A drill the spindle cannot drive is followed by one of this share of its diameter."""


@dataclass(frozen=True)
class Failed:
    """An operation that cannot be, its tool, why, and the wish it was for."""

    operation: str
    tool: Tool | None
    code: str
    finding: Finding
    wish: str = ""


@dataclass
class Advised:
    """Advice that was given, by wish, and stores without what cannot do it.

    ``tight``: the drill leaves a bar no more than a finishing cut, so that it has room; ``plain``: no drill of its own
    for a wide front, which a bar takes as well."""

    catalogue: Catalogue
    known: dict[str, Advice] = field(default_factory=dict)
    stores: dict[str, Catalogue] = field(default_factory=dict)
    tight: bool = False
    plain: bool = False

    def store(self, wish: str) -> Catalogue:
        return self.stores.get(wish, self.catalogue)


def next_best(advised: Advised, failed: Failed) -> bool:
    """Leave a tool out of the advice that cannot do it, if there is another one."""
    advice, tool = advised.known.get(failed.wish), failed.tool
    if failed.wish.startswith(MILLED) and tool is not None and failed.code not in OTHERS_FAULT:
        store = advised.store(failed.wish)
        left = tuple(one for one in store.tools if one.name != tool.name)
        advised.stores[failed.wish] = store.changed(tools=left)
        return any(isinstance(one, type(tool)) for one in left)
    if advice is None or tool is None or failed.code in OTHERS_FAULT:
        return False
    if isinstance(tool, Drill) and failed.code == "power.short":
        most = SMALLER * tool.d_mm
        store = advised.store(failed.wish)
        left = tuple(one for one in store.tools if not isinstance(one, Drill) or one.d_mm <= most)
        advised.stores[failed.wish] = store.changed(tools=left)
        del advised.known[failed.wish]
        return True
    rest = tuple(one for one in advice.candidates if one.tool.name != tool.name and _may_do(one.tool, failed))
    advised.known[failed.wish] = replace(advice, candidates=rest, split=None)
    return bool(rest) or (failed.wish == "finish bore" and bool(advice.candidates))  # a pointed drill may do it


def _may_do(tool: Tool, failed: Failed) -> bool:
    """It is not as unfit as the one that failed."""
    if failed.code == "bore.narrow" and isinstance(tool, BoringTool) and isinstance(failed.tool, BoringTool):
        return tool.bar.diameter_mm < failed.tool.bar.diameter_mm
    return True
