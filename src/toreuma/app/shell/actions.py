"""What the window can do, in one table: words, key, and when it can be done."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from PySide6.QtCore import Qt
from PySide6.QtGui import QAction, QKeySequence
from PySide6.QtWidgets import QWidget

__all__ = ["Action", "Actions", "always"]


def always() -> bool:
    return True


@dataclass(frozen=True, kw_only=True)
class Action:
    """``name`` is what panels and buttons ask for; ``words`` and ``key`` are what the person finds and presses.

    ``button`` puts it into the header, with ``tip`` in place of its words where the room for them is small.
    """

    name: str
    words: str
    run: Callable[[], object]
    key: str = ""
    when: Callable[[], bool] = always
    button: bool = False
    tip: str = ""

    @property
    def hint(self) -> str:
        return f"{self.tip or self.words} ({self.key})" if self.key else self.tip or self.words


class Actions:
    """The table, with a shortcut of the window for every key. Raises `ValueError` for a name or key given twice."""

    def __init__(self, window: QWidget, entries: tuple[Action, ...]) -> None:
        self._of = {one.name: one for one in entries}
        keys = [one.key for one in entries if one.key]
        if len(self._of) < len(entries) or len(set(keys)) < len(keys):
            raise ValueError("two actions share a name or a key")
        for one in entries:
            if one.key:
                shortcut = QAction(one.words, window)
                shortcut.setShortcut(QKeySequence(one.key))
                shortcut.setShortcutContext(Qt.ShortcutContext.WindowShortcut)
                shortcut.triggered.connect(lambda _=False, name=one.name: self.do(name))
                window.addAction(shortcut)

    def __iter__(self) -> Iterator[Action]:
        return iter(self._of.values())

    def __getitem__(self, name: str) -> Action:
        return self._of[name]

    def do(self, name: str) -> None:
        """Do it, if it can be done now."""
        one = self._of[name]
        if one.when():
            one.run()
