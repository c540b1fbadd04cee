"""One guard for everything Qt calls of ours: an exception there ends nothing.

Qt calls paint, show, event and model methods from its own code, which knows no exceptions: one that leaves such a one
amid a painting takes the process with it. `guard_all` puts a guard round each of these methods of every class of the
window; it ends the painting, hands the exception to ``sys.excepthook``, and gives Qt an answer that does no harm.
"""

import sys
from collections.abc import Callable, Iterator
from functools import wraps
from types import TracebackType
from typing import Any

from PySide6.QtCore import QObject, QSize, Qt
from PySide6.QtGui import QCloseEvent, QPainter

__all__ = ["GUARDED", "HARMLESS", "guard", "guard_all", "ours"]

HARMLESS: dict[str, Callable[[], Any]] = {
    "event": lambda: False,
    "eventFilter": lambda: False,
    "sizeHint": lambda: QSize(80, 24),
    "minimumSizeHint": lambda: QSize(20, 10),
    "flags": lambda: Qt.ItemFlag.NoItemFlags,
    "data": lambda: None,
    "headerData": lambda: None,
    "setData": lambda: False,
    "rowCount": lambda: 0,
    "columnCount": lambda: 0,
    "paint": lambda: None,
    "paintGL": lambda: None,
    "initializeGL": lambda: None,
    "resizeGL": lambda: None,
    "createEditor": lambda: None,
}
"""What Qt is told where a method of this name failed; events of any kind have nothing to tell."""

GUARDED = "toreuma_guarded"


def ours(root: type = QObject, package: str = "toreuma.app") -> Iterator[type]:
    """Every class of the window that Qt may call."""
    kinds: list[type] = root.__subclasses__()
    for kind in kinds:
        if kind.__module__.startswith(package):
            yield kind
        yield from ours(kind, package)


def guard_all() -> None:
    """Guard every class known by now. None of them may have been made yet: Qt keeps what it has once called."""
    for kind in set(ours()):
        guard(kind)


def guard(kind: type) -> None:
    """Guard what Qt calls of one class."""
    for name, method in list(vars(kind).items()):
        called = name.endswith("Event") or name in HARMLESS
        if called and callable(method) and not hasattr(method, GUARDED):
            setattr(kind, name, _guarded(name, method))


def _guarded(name: str, method: Callable[..., Any]) -> Callable[..., Any]:
    harmless = HARMLESS.get(name, lambda: None)

    @wraps(method)
    def guarded(*args: Any, **kwargs: Any) -> Any:
        try:
            return method(*args, **kwargs)
        except Exception as error:
            _end_painting(error.__traceback__)
            for event in args[1:]:
                if isinstance(event, QCloseEvent):
                    event.ignore()  # a window that cannot say goodbye stays, with what is in it
            sys.excepthook(type(error), error, error.__traceback__)
            return harmless()

    setattr(guarded, GUARDED, True)
    return guarded


def _end_painting(traceback: TracebackType | None) -> None:
    """End what was being painted where the exception came from: a painter left open ends the process later."""
    while traceback is not None:
        for value in list(traceback.tb_frame.f_locals.values()):
            if isinstance(value, QPainter) and value.isActive():
                value.end()
        traceback = traceback.tb_next
