"""The real window, with its panels by name."""

from typing import Any

from toreuma.app.shell.window import MainWindow
from toreuma.app.stages.bench.stage import BenchStage
from toreuma.app.stages.hold.stage import HoldStage
from toreuma.app.stages.operations.stage import OperationsStage
from toreuma.app.stages.part.stage import PartStage
from toreuma.app.stages.program.stage import ProgramStage
from toreuma.app.stages.proof.stage import ProofStage
from toreuma.app.stages.stock.stage import StockStage
from toreuma.app.stages.tools.stage import ToolsStage
from toreuma.app.stages.transfer.stage import TransferStage
from toreuma.app.theme import load_fonts

__all__ = ["Window"]

PANELS: dict[str, tuple[type[Any], str]] = {
    "part": (PartStage, "panel"),
    "imports": (PartStage, "imports"),
    "stock": (StockStage, "panel"),
    "hold": (HoldStage, "panel"),
    "tools": (ToolsStage, "panel"),
    "choice": (ToolsStage, "choice"),
    "advice": (ToolsStage, "advice"),
    "tool": (ToolsStage, "tool"),
    "route": (OperationsStage, "panel"),
    "table": (OperationsStage, "table"),
    "transfer": (TransferStage, "panel"),
    "views": (TransferStage, "views"),
    "lanes": (TransferStage, "lanes"),
    "run": (TransferStage, "run"),
    "proof": (ProofStage, "panel"),
    "program": (ProgramStage, "panel"),
    "bench": (BenchStage, "bench"),
}


class Window(MainWindow):
    """`window.hold` is the panel of the hold stage, and so on; `window.reasons` are the reasons that are shown. Its
    letters are the shipped ones, as in the application."""

    def __init__(self, *given: Any) -> None:
        load_fonts()
        super().__init__(*given)

    def __getattr__(self, name: str) -> Any:
        if name in PANELS:
            kind, attribute = PANELS[name]
            return getattr(self.at(kind), attribute)
        raise AttributeError(name)

    @property
    def reasons(self) -> Any:
        return self.shown.reasons
