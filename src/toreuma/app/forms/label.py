"""Labels that show text as it is: names and messages come from outside, and nothing in them is ever rendered."""

from html import escape

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel, QWidget

__all__ = ["Label", "plain_tip"]


def plain_tip(text: str) -> str:
    """A text for a tooltip, where Qt would take some texts for markup."""
    return escape(text).replace("\n", "<br>") if "<" in text else text


class Label(QLabel):
    """Plain text. What is rich is our own, and asks for it with ``rich``."""

    def __init__(self, text: str = "", parent: QWidget | None = None, rich: bool = False) -> None:
        super().__init__(text, parent)
        self.setTextFormat(Qt.TextFormat.RichText if rich else Qt.TextFormat.PlainText)
