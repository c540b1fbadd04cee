"""The stage of the program."""

from toreuma.app.picture.look import Look
from toreuma.app.stages.program.panel import ProgramPanel
from toreuma.app.stages.program.reasons import ProgramReasons
from toreuma.app.stages.stage import Shared, Stage

__all__ = ["ProgramStage"]


class ProgramStage(Stage):
    key, label = "program", "Program"
    panel: ProgramPanel
    numbers: ProgramReasons

    def __init__(self, shared: Shared) -> None:
        super().__init__(shared)
        self.panel = ProgramPanel(shared.session, shared.theme)
        self.numbers = ProgramReasons(shared.session, shared.theme)
        self.look = Look(tool=True, passes=True, shade="Share of power there is")
