"""The stage of what grips the blank."""

from PySide6.QtWidgets import QWidget

from toreuma.app.picture.look import Look
from toreuma.app.stages.hold.panel import HoldPanel
from toreuma.app.stages.hold.reasons import HoldReasons
from toreuma.app.stages.stage import Shared, Stage, Themed

__all__ = ["HoldStage"]


class HoldStage(Stage):
    key, label = "hold", "Hold"

    def __init__(self, shared: Shared) -> None:
        super().__init__(shared)
        self.panel = HoldPanel(shared.session, shared.theme)
        self.numbers = HoldReasons(shared.session, shared.theme)
        self.look = Look(metal="held", chooses="surface", bending=True)

    @property
    def left(self) -> QWidget:
        return self.panel

    @property
    def right(self) -> QWidget:
        return self.numbers

    @property
    def themed(self) -> tuple[Themed, ...]:
        return (self.panel, self.numbers)
