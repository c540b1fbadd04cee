"""The bench, with or without a job."""

from functools import cached_property

from PySide6.QtWidgets import QWidget

from toreuma.app.stages.bench.page import BenchPage
from toreuma.app.stages.stage import Shared, Stage, Themed
from toreuma.app.theme import Theme

__all__ = ["BenchStage"]


class BenchStage(Stage):
    """Its page is made when it is first looked at: a window opens sooner without it."""

    key, label, shortcut = "bench", "Bench", "Ctrl+B"

    def __init__(self, shared: Shared) -> None:
        super().__init__(shared)
        self._theme = shared.theme

    @cached_property
    def bench(self) -> BenchPage:
        return BenchPage(self._theme, self.session)

    @property
    def page(self) -> QWidget:
        return self.bench

    @property
    def themed(self) -> tuple[Themed, ...]:
        return (self,)

    @property
    def is_ready(self) -> bool:
        return True

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        if "bench" in self.__dict__:
            self.bench.set_theme(theme)
