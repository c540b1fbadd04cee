"""A bar under the header that says one thing and offers what can be done about it."""

from collections.abc import Callable

from PySide6.QtWidgets import QFrame, QHBoxLayout, QProgressBar, QPushButton

from toreuma.app.forms.label import Label
from toreuma.app.words import tr

__all__ = ["AskBar"]


class AskBar(QFrame):
    """Stays until it is answered, or until what it speaks of is over."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("notice")
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(12, 4, 12, 4)
        self.words = Label()
        self.words.setWordWrap(True)
        self._row.addWidget(self.words, 1)
        self.done = QProgressBar(textVisible=False, maximum=100)
        self.done.setFixedWidth(120)
        self._row.addWidget(self.done)
        self.buttons: list[QPushButton] = []
        self.hide()

    def ask(self, words: str, *answers: tuple[str, Callable[[], None]]) -> None:
        """Say something and offer answers; each of them ends the bar first."""
        for button in self.buttons:
            self._row.removeWidget(button)
            button.deleteLater()
        self.buttons = []
        self.words.setText(words)
        self.done.hide()
        for label, answer in answers:
            button = QPushButton(tr(label))
            button.clicked.connect(lambda _=False, answer=answer: self._answered(answer))
            self._row.addWidget(button)
            self.buttons.append(button)
        self.show()

    def share(self, share: float) -> None:
        """How much of what it speaks of is done."""
        self.done.setValue(round(100 * share))
        self.done.show()

    def _answered(self, answer: Callable[[], None]) -> None:
        self.hide()
        answer()
