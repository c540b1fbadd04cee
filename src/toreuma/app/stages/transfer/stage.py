"""The stage of the hand-over, and of both spindles at work."""

from PySide6.QtWidgets import QWidget

from toreuma.app.picture.look import Look
from toreuma.app.picture.paint import Painter
from toreuma.app.stages.stage import Shared, Stage, Themed
from toreuma.app.stages.transfer.lanes import HandOverLanes
from toreuma.app.stages.transfer.paint import MACHINE_PX, paint_hand_over, paint_machine
from toreuma.app.stages.transfer.panel import TransferPanel
from toreuma.app.stages.transfer.reasons import TransferReasons
from toreuma.app.stages.transfer.run_ribbon import RunRibbon
from toreuma.app.stages.transfer.views import HAND_OVER, TransferViews
from toreuma.app.time.player import Player
from toreuma.core.channels.machine_view import machine_blocks
from toreuma.core.channels.transfer import Transfer
from toreuma.core.scene import Scene

__all__ = ["TransferStage"]

BESIDE_MM, ABOVE_MM = 6.0, 12.0


class TransferStage(Stage):
    """Below stands the time of what is shown: the hand-over, or the whole run."""

    key, label, shortcut = "transfer", "Transfer", "Ctrl+6"
    panel: TransferPanel
    numbers: TransferReasons

    def __init__(self, shared: Shared) -> None:
        super().__init__(shared)
        session, theme, height = shared.session, shared.theme, shared.ribbon.height()
        self.panel = TransferPanel(session, theme)
        self.numbers = TransferReasons(session, theme)
        self.lanes = HandOverLanes(session, theme, height)
        self.run = RunRibbon(session, theme, height)
        self.views = TransferViews(session, theme, shared.canvas)
        self.views.chosen.connect(lambda _: self.turned.emit())
        self.look = Look(pieces=self._pieces, over=self._machine, extent=self._extent, headroom_px=MACHINE_PX)

    @property
    def middle(self) -> QWidget:
        return self.views.shown or self.shared.canvas

    @property
    def bar(self) -> QWidget:
        return self.views

    @property
    def below(self) -> QWidget:
        return self.lanes if self.views.now == HAND_OVER else self.run

    @property
    def themed(self) -> tuple[Themed, ...]:
        return (self.panel, self.numbers, self.lanes, self.run, self.views.run, self.views.space)

    @property
    def player(self) -> Player:
        return self.run.player if self.below is self.run else super().player

    def fit(self) -> None:
        (self.views.shown or self.shared.canvas).fit()

    def close(self) -> None:
        self.views.space.release()

    # What the section shows

    @property
    def _made(self) -> Transfer | None:
        outcome = self.session.outcome
        return outcome.transfer if outcome is not None else None

    def _extent(self, scene: Scene) -> tuple[float, float, float] | None:
        """Both spindles are to be seen."""
        made = self._made
        if made is None:
            return None
        back, front = float(scene.chuck.bounds[0]), float(made.body.bounds[2])
        return back - BESIDE_MM, front + BESIDE_MM, float(made.body.bounds[3]) + ABOVE_MM

    def _pieces(self, draw: Painter, scene: Scene) -> None:
        if self._made is not None:
            paint_hand_over(draw, self._made)

    def _machine(self, draw: Painter, scene: Scene) -> None:
        outcome = self.session.outcome
        if outcome is not None and outcome.transfer is not None:
            paint_machine(draw, machine_blocks(outcome.job, outcome.plan.scene, outcome.transfer))
