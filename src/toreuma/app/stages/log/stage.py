"""The log of the open job."""

from functools import cached_property

from PySide6.QtWidgets import QWidget

from toreuma.app.stages.log.page import LogPage
from toreuma.app.stages.stage import Shared, Stage, Themed
from toreuma.app.theme import Theme

__all__ = ["LogStage"]


class LogStage(Stage):
    """Its page is made when it is first looked at: a window opens sooner without it."""

    key, label, shortcut = "log", "Log", "Ctrl+0"

    def __init__(self, shared: Shared) -> None:
        super().__init__(shared)
        self._theme = shared.theme

    @cached_property
    def log(self) -> LogPage:
        return LogPage(self._theme, self.session)

    @property
    def page(self) -> QWidget:
        return self.log

    @property
    def themed(self) -> tuple[Themed, ...]:
        return (self,)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        if "log" in self.__dict__:
            self.log.set_theme(theme)

    def enter(self) -> None:
        self.log.look()

    def close(self) -> None:
        if "log" in self.__dict__:
            self.log.close_all()
