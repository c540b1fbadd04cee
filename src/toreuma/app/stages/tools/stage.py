"""The stage of choosing tools."""

from PySide6.QtWidgets import QWidget

from toreuma.app.picture.look import Look
from toreuma.app.picture.paint import Painter
from toreuma.app.stages.stage import Shared, Stage, Themed
from toreuma.app.stages.tools.advice import AdvicePanel
from toreuma.app.stages.tools.choice import ToolChoice
from toreuma.app.stages.tools.paint import paint_reach
from toreuma.app.stages.tools.panel import ToolsPanel
from toreuma.app.stages.tools.tool import ToolPanel
from toreuma.core.scene import Scene

__all__ = ["ToolsStage"]

STATIONS_TAB = 1


class ToolsStage(Stage):
    """Advice stands beside the wishes and the store; the tool of a station beside the stations."""

    key, label, shortcut = "tools", "Tools", "Ctrl+4"
    panel: ToolsPanel

    def __init__(self, shared: Shared) -> None:
        super().__init__(shared)
        self.choice = ToolChoice(shared.session)
        self.panel = ToolsPanel(shared.session, shared.theme, self.choice)
        self.advice = AdvicePanel(shared.session, shared.theme, self.choice)
        self.tool = ToolPanel(shared.session, shared.theme)
        self.panel.tabs.currentChanged.connect(lambda _: self.turned.emit())
        stations = self.panel.stations
        stations.list.currentRowChanged.connect(lambda _: self.tool.show_tool(stations.selected()))
        self.choice.changed.connect(shared.canvas.update)
        self.look = Look(over=self._paint)

    @property
    def right(self) -> QWidget:
        return self.tool if self.panel.tabs.currentIndex() == STATIONS_TAB else self.advice

    @property
    def themed(self) -> tuple[Themed, ...]:
        return (self.panel, self.advice, self.tool)

    def enter(self) -> None:
        self.choice.set_active(True)

    def leave(self) -> None:
        self.choice.set_active(False)

    def close(self) -> None:
        self.choice.close()

    def _paint(self, draw: Painter, scene: Scene) -> None:
        view = self.choice.view
        if view is not None:
            paint_reach(draw, view)
