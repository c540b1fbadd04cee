"""The stage of what grips the blank."""

from toreuma.app.picture.look import Look
from toreuma.app.stages.hold.panel import HoldPanel
from toreuma.app.stages.hold.reasons import HoldReasons
from toreuma.app.stages.stage import Shared, Stage

__all__ = ["HoldStage"]


class HoldStage(Stage):
    key, label, shortcut = "hold", "Hold", "Ctrl+3"
    panel: HoldPanel
    numbers: HoldReasons

    def __init__(self, shared: Shared) -> None:
        super().__init__(shared)
        self.panel = HoldPanel(shared.session, shared.theme)
        self.numbers = HoldReasons(shared.session, shared.theme)
        self.look = Look(metal="held", chooses="surface", bending=True)
