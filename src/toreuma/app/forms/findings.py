"""Findings in words, each with its cures as buttons."""

import textwrap
from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtGui import QMouseEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QSizePolicy, QVBoxLayout

from toreuma.app.forms.label import Label, plain_tip
from toreuma.app.session import Session
from toreuma.app.theme import Theme, icon
from toreuma.core.findings import Cure, Finding
from toreuma.core.spoken import spoken

__all__ = ["FindingCard"]

WORDS = {"error": "Error", "warning": "Warning", "note": "Note"}


LONG_WORDS = 38
"""A cure in more letters than this takes the whole width of its card."""


class FindingCard(QFrame):
    """What, why, and the cures; clicking shows the place."""

    def __init__(
        self, finding: Finding, session: Session, theme: Theme, chosen: Callable[[Finding], None] | None = None
    ) -> None:
        super().__init__()
        self.setObjectName("card")
        self.setProperty("topic", f"finding:{finding.code}")
        self.finding = finding
        self._session, self._chosen = session, chosen
        column = QVBoxLayout(self)
        column.setContentsMargins(8, 6, 8, 7)
        column.setSpacing(3)
        head = QHBoxLayout()
        mark = Label()
        colour = {"error": "error", "warning": "warning"}.get(finding.severity, "muted")
        mark.setPixmap(icon(finding.severity, theme, colour, 15).pixmap(15, 15))
        word = Label(WORDS[finding.severity])
        word.setObjectName(finding.severity)
        head.addWidget(mark)
        head.addWidget(word)
        head.addStretch(1)
        column.addLayout(head)
        said = spoken(finding.what, session.system)
        what = Label(said[0].upper() + said[1:])
        what.setWordWrap(True)
        column.addWidget(what)
        if finding.why:
            reason = spoken(finding.why, session.system)
            why = Label(reason[0].upper() + reason[1:])
            why.setObjectName("muted")
            why.setWordWrap(True)
            column.addWidget(why)
        for cure in finding.cures:
            words = spoken(cure.label, session.system)
            button = QPushButton(words)
            button.clicked.connect(lambda _=False, c=cure: self._cure(c))
            if len(words) > LONG_WORDS:  # as wide as the card, on as many lines as that takes
                button.setText(textwrap.fill(words, LONG_WORDS))
                button.setToolTip(plain_tip(words))
                button.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
                button.setStyleSheet("text-align: left; padding-left: 8px;")
                column.addWidget(button)
            else:
                column.addWidget(button, 0, Qt.AlignmentFlag.AlignLeft)

    def help_page(self) -> tuple[str, str]:
        """The finding in words, for the help."""
        finding, system = self.finding, self._session.system
        lines = [spoken(finding.what, system), spoken(finding.why, system) if finding.why else ""]
        lines += [f"- Cure: {spoken(cure.label, system)}" for cure in finding.cures]
        return f"{WORDS[finding.severity]} `{finding.code}`", "\n\n".join(line for line in lines if line)

    def _cure(self, cure: Cure) -> None:
        error = self._session.attempt(cure.apply)
        if error is not None:
            self._session.message.emit("error", str(error))

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if self._chosen is not None:
            self._chosen(self.finding)
