"""The stage of the blank."""

from toreuma.app.picture.look import Look
from toreuma.app.stages.stage import Shared, Stage
from toreuma.app.stages.stock.panel import StockPanel
from toreuma.app.stages.stock.reasons import StockReasons

__all__ = ["StockStage"]


class StockStage(Stage):
    key, label, shortcut = "stock", "Stock", "Ctrl+2"
    panel: StockPanel
    numbers: StockReasons

    def __init__(self, shared: Shared) -> None:
        super().__init__(shared)
        self.panel = StockPanel(shared.session, shared.theme)
        self.numbers = StockReasons(shared.session, shared.theme)
        self.look = Look(metal="blank", chooses="surface", opened=False)
