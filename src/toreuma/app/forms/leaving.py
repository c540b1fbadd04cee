"""The question before something is lost that nobody saved."""

from collections.abc import Callable

from PySide6.QtWidgets import QMessageBox, QWidget

from toreuma.app.words import tr

__all__ = ["kept_or_dropped"]


def kept_or_dropped(parent: QWidget, words: str, save: Callable[[], bool]) -> bool:
    """Save it, drop it, or stay: whether what was asked for may go on."""
    answer = QMessageBox.question(
        parent,
        "Toreuma",
        tr(words),
        QMessageBox.StandardButton.Save | QMessageBox.StandardButton.Discard | QMessageBox.StandardButton.Cancel,
    )
    return save() if answer == QMessageBox.StandardButton.Save else answer == QMessageBox.StandardButton.Discard
