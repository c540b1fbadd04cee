"""Words of a program coloured by what they do."""

from collections.abc import Mapping

from PySide6.QtGui import QColor, QFont, QSyntaxHighlighter, QTextCharFormat, QTextDocument

from toreuma.app.theme import Theme
from toreuma.core.dialect import Dialect
from toreuma.core.read.spans import Kind, spans_of

__all__ = ["Colours", "colour_of"]

TOKENS: dict[Kind, str] = {
    "move": "rapid", "cut": "accent", "place": "ink", "speed": "insert", "tool": "ink", "wait": "warning",
    "steer": "accent", "number": "rapid", "comment": "muted", "setting": "muted", "unknown": "error",
}  # fmt: skip
BOLD: tuple[Kind, ...] = ("cut", "tool", "steer")


def colour_of(kind: Kind, theme: Theme) -> QColor:
    return theme.colour(TOKENS[kind])


class Colours(QSyntaxHighlighter):
    """Asks the core what a word does; nothing is known here but colours."""

    def __init__(self, document: QTextDocument, theme: Theme, dialect: Dialect) -> None:
        super().__init__(document)
        self.theme, self.dialect = theme, dialect
        self.machine: Mapping[str, str] | None = None
        self._formats: dict[Kind, QTextCharFormat] = {}
        self._make()

    def show(self, dialect: Dialect, machine: Mapping[str, str] | None) -> None:
        """Colour in another language, where it is another."""
        if (dialect, machine) != (self.dialect, self.machine):
            self.dialect, self.machine = dialect, machine
            self.rehighlight()

    def set_theme(self, theme: Theme) -> None:
        self.theme = theme
        self._make()
        self.rehighlight()

    def _make(self) -> None:
        for kind in TOKENS:
            form = QTextCharFormat()
            form.setForeground(colour_of(kind, self.theme))
            if kind in BOLD:
                form.setFontWeight(QFont.Weight.Bold)
            if kind == "unknown":
                form.setUnderlineStyle(QTextCharFormat.UnderlineStyle.WaveUnderline)
                form.setUnderlineColor(colour_of(kind, self.theme))
            self._formats[kind] = form

    def highlightBlock(self, text: str) -> None:
        for span in spans_of(text, self.dialect, self.machine):
            self.setFormat(span.start, span.end - span.start, self._formats[span.kind])
