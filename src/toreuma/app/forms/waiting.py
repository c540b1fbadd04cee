"""Widgets that wait with filling themselves until they are seen."""

import sys

from PySide6.QtGui import QShowEvent

__all__ = ["WaitsUnseen"]


class WaitsUnseen:
    """Mixed into a widget, before its Qt class: ``refresh`` fills it at once where it is seen, else when it is shown.

    The widget fills itself in ``_fill``.
    """

    _stale = True

    def refresh(self) -> None:
        """Bring it up to date; while it is hidden that waits until it is seen."""
        self._stale = not self.isVisible()  # type: ignore[attr-defined]
        if not self._stale:
            self._fill()

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)  # type: ignore[misc]
        if self._stale:
            try:
                self.refresh()
            except Exception:  # ours: inside the toolkit it would end the window
                sys.excepthook(*sys.exc_info())

    def _fill(self) -> None:
        raise NotImplementedError
