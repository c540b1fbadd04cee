"""A row of small drawings that do something."""

from collections.abc import Callable, Iterable

from PySide6.QtWidgets import QHBoxLayout, QToolButton

from toreuma.app.theme import Theme, icon
from toreuma.app.words import tr

__all__ = ["IconRow"]


class IconRow(QHBoxLayout):
    """Buttons by icon name: (icon, what it does in words, what to call)."""

    def __init__(self, theme: Theme, entries: Iterable[tuple[str, str, Callable[[], object] | None]]) -> None:
        super().__init__()
        self.setContentsMargins(8, 4, 8, 0)
        self.buttons: dict[str, QToolButton] = {}
        for name, words, run in entries:
            button = QToolButton()
            button.setToolTip(tr(words))
            button.setAccessibleName(tr(words))
            if run is not None:
                button.clicked.connect(lambda _=False, r=run: r())
            self.addWidget(button)
            self.buttons[name] = button
        self.addStretch(1)
        self.set_theme(theme)

    def set_theme(self, theme: Theme) -> None:
        for name, button in self.buttons.items():
            button.setIcon(icon(name, theme))
