"""Every stage in the order of the header. A new one is added here and nowhere else in the window."""

from toreuma.app.stages.bench.stage import BenchStage
from toreuma.app.stages.hold.stage import HoldStage
from toreuma.app.stages.log.stage import LogStage
from toreuma.app.stages.operations.stage import OperationsStage
from toreuma.app.stages.papers.stage import PapersStage
from toreuma.app.stages.part.stage import PartStage
from toreuma.app.stages.program.stage import ProgramStage
from toreuma.app.stages.proof.stage import ProofStage
from toreuma.app.stages.shop.stage import ShopStage
from toreuma.app.stages.stage import Stage
from toreuma.app.stages.stock.stage import StockStage
from toreuma.app.stages.tools.stage import ToolsStage
from toreuma.app.stages.transfer.stage import TransferStage

__all__ = ["STAGES"]

STAGES: tuple[type[Stage], ...] = (
    PartStage,
    StockStage,
    HoldStage,
    ToolsStage,
    OperationsStage,
    TransferStage,
    ProofStage,
    ProgramStage,
    PapersStage,
    LogStage,
    BenchStage,
    ShopStage,
)
