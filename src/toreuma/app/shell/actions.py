"""What the window can do, in one table: words, key, and when it can be done."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from PySide6.QtCore import Qt
from PySide6.QtGui import QAction, QKeySequence
from PySide6.QtWidgets import QMenuBar, QWidget

from toreuma.app.words import tr

__all__ = ["Action", "Actions", "always"]


def always() -> bool:
    return True


@dataclass(frozen=True, kw_only=True)
class Action:
    """``name`` is what panels and buttons ask for; ``words`` and ``key`` are what the person finds and presses.

    ``button`` puts it into the header, with ``tip`` in place of its words where the room for them is small. ``menu`` is
    where it stands in the menu bar; a ``|`` behind its name puts a line above it.
    """

    name: str
    words: str
    run: Callable[[], object]
    key: str = ""
    when: Callable[[], bool] = always
    button: bool = False
    tip: str = ""
    menu: str = ""

    @property
    def hint(self) -> str:
        said = tr(self.tip or self.words)
        return f"{said} ({self.key})" if self.key else said


class Actions:
    """The table, with a shortcut of the window for every key. Raises `ValueError` for a name or key given twice."""

    def __init__(self, window: QWidget, entries: tuple[Action, ...]) -> None:
        self._of = {one.name: one for one in entries}
        self.noted: Callable[[str], None] = lambda name: None
        """Told of every action that is done."""
        keys = [one.key for one in entries if one.key]
        if len(self._of) < len(entries) or len(set(keys)) < len(keys):
            raise ValueError("two actions share a name or a key")
        self._shown: dict[str, QAction] = {}
        for one in entries:
            action = QAction(tr(one.words), window)
            action.setMenuRole(QAction.MenuRole.NoRole)
            action.triggered.connect(lambda _=False, name=one.name: self.do(name))
            if one.key:
                action.setShortcut(QKeySequence(one.key))
                action.setShortcutContext(Qt.ShortcutContext.WindowShortcut)
            window.addAction(action)
            self._shown[one.name] = action

    def fill(self, bar: QMenuBar, menus: tuple[str, ...]) -> None:
        """Every action that names a menu, in the order of the table; what cannot be done now is grey."""
        for title in menus:
            menu = bar.addMenu(f"&{tr(title)}")
            for one in self:
                place, line, _ = one.menu.partition("|")
                if place == title:
                    if line:
                        menu.addSeparator()
                    menu.addAction(self._shown[one.name])
            menu.aboutToShow.connect(self._settle)
            menu.aboutToHide.connect(self._release)

    def _settle(self) -> None:
        for one in self:
            self._shown[one.name].setEnabled(one.when())

    def _release(self) -> None:
        """A shortcut looks for itself whether it can be used."""
        for action in self._shown.values():
            action.setEnabled(True)

    def __iter__(self) -> Iterator[Action]:
        return iter(self._of.values())

    def __getitem__(self, name: str) -> Action:
        return self._of[name]

    def do(self, name: str) -> None:
        """Do it, if it can be done now."""
        one = self._of[name]
        if one.when():
            self.noted(name)
            one.run()
