"""The bench, with or without a job."""

from PySide6.QtWidgets import QWidget

from toreuma.app.stages.bench.page import BenchPage
from toreuma.app.stages.stage import Shared, Stage, Themed

__all__ = ["BenchStage"]


class BenchStage(Stage):
    key, label = "bench", "Bench"

    def __init__(self, shared: Shared) -> None:
        super().__init__(shared)
        self.bench = BenchPage(shared.theme, shared.session)

    @property
    def page(self) -> QWidget:
        return self.bench

    @property
    def themed(self) -> tuple[Themed, ...]:
        return (self.bench,)

    @property
    def is_ready(self) -> bool:
        return True
