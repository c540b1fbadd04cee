"""The stage of the route: its operations beside the section, or all of them in a table."""

from PySide6.QtWidgets import QWidget

from toreuma.app.picture.look import Look
from toreuma.app.stages.operations.panel import RoutePanel
from toreuma.app.stages.operations.reasons import OperationReasons
from toreuma.app.stages.operations.table import OperationTable
from toreuma.app.stages.stage import Shared, Stage, Themed

__all__ = ["OperationsStage"]


class OperationsStage(Stage):
    """The table lists what the route does, and takes its room."""

    key, label, shortcut = "operations", "Operations", "Ctrl+5"
    panel: RoutePanel
    numbers: OperationReasons

    def __init__(self, shared: Shared) -> None:
        super().__init__(shared)
        self.panel = RoutePanel(shared.session, shared.theme)
        self.table = OperationTable(shared.session, shared.theme)
        self.numbers = OperationReasons(shared.session, shared.theme)
        self.is_tabled = False
        self.look = Look(
            tool=True,
            passes=True,
            leftover=True,
            flags=frozenset({"error", "warning"}),
            shade="Share of power there is",
        )

    @property
    def left(self) -> QWidget | None:
        return None if self.is_tabled else self.panel

    @property
    def middle(self) -> QWidget:
        return self.table if self.is_tabled else super().middle

    @property
    def themed(self) -> tuple[Themed, ...]:
        return (self.panel, self.table, self.numbers)

    def leave(self) -> None:
        self.is_tabled = False

    def turn(self) -> None:
        """From the section to the table, and back."""
        self.is_tabled = not self.is_tabled
        self.turned.emit()
