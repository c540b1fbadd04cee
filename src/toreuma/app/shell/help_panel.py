"""Help in a side panel that stays open: the page about the thing in focus, and a search over all of them."""

from PySide6.QtCore import QUrl, Signal
from PySide6.QtGui import QTextDocument
from PySide6.QtWidgets import QFrame, QHBoxLayout, QLineEdit, QTextBrowser, QToolButton, QVBoxLayout, QWidget

from toreuma.app.forms.label import Label
from toreuma.app.theme import Theme, icon
from toreuma.app.words import tr
from toreuma.engine.help import Page, beside, help_pages, page_of, searched
from toreuma.shipped.paths import data_path

__all__ = ["HelpPanel", "Hint", "own_page", "topic_of"]

WIDTH_PX = 340
DRAWING_PX = 44


class _Text(QTextBrowser):
    """Shows our own small drawings, ``icon:groove``, in the colour of the theme; opens nothing else."""

    theme: Theme | None = None

    def loadResource(self, kind: int, name: QUrl | str) -> object:
        name = QUrl(name)
        if name.scheme() == "icon" and self.theme is not None and data_path("icons", f"{name.path()}.svg").exists():
            return icon(name.path(), self.theme, "ink", DRAWING_PX).pixmap(DRAWING_PX, DRAWING_PX).toImage()
        return None


class HelpPanel(QFrame):
    """``show_page`` turns to a page; words typed above narrow the list under it."""

    closed = Signal()

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.setFixedWidth(WIDTH_PX)
        self.search = QLineEdit()
        self.search.setObjectName("search")
        self.search.setPlaceholderText(tr("Look for words in the help"))
        self.search.setAccessibleName(tr("Look for words in the help"))
        self.search.textChanged.connect(self._look)
        shut = QToolButton()
        shut.setText(tr("Close"))
        shut.setToolTip(tr("Close the help (F1)"))
        shut.clicked.connect(self.closed.emit)
        self.text = _Text()
        self.text.setOpenLinks(False)
        self.text.setAccessibleName(tr("Help"))
        self.text.anchorClicked.connect(lambda url: self.show_page(url.toString()))
        top = QHBoxLayout()
        top.setContentsMargins(10, 8, 10, 4)
        top.addWidget(self.search, 1)
        top.addWidget(shut)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addLayout(top)
        column.addWidget(self.text, 1)
        self.key = ""
        self.set_theme(theme)
        self.hide()

    def set_theme(self, theme: Theme) -> None:
        self._accent = theme.colour("accent").name()
        self.text.theme = theme
        if self.key:
            self.show_page(self.key)

    def show_page(self, key: str, own: tuple[str, str] | None = None) -> None:
        """Turn to the page about something; ``own`` is what the very thing says of itself, above it."""
        page = page_of(key)
        self.key = page.key
        first = f"## {own[0]}\n\n{own[1]}\n\n" if own is not None else ""
        self._show(f"{first}{_drawing(page)}## {page.title}\n\n{page.text}\n\n{_links(beside(page))}")
        self.show()

    def _look(self, words: str) -> None:
        if not words.strip():
            self.show_page(self.key)
            return
        found = searched(words)
        exact = bool(found) and found[0].holds(words)
        nothing = f"No page speaks of *{words.strip()}*; looked at {len(help_pages())} pages."
        said = _links(found) if exact else f"{nothing} Nearest: {_links(found)}" if found else nothing
        first = f"## {found[0].title}\n\n{found[0].text}\n\n" if found else ""
        self._show(f"{said}\n\n{first}")

    def _show(self, markdown: str) -> None:
        """Text with its links in the colour of the theme, from its top."""
        document = QTextDocument()
        if self.text.theme is not None:
            document.setDefaultFont(self.text.theme.text_font())
        features = QTextDocument.MarkdownFeature
        document.setMarkdown(markdown, features.MarkdownDialectGitHub | features.MarkdownNoHTML)
        self.text.setHtml(document.toHtml().replace("color:#0000ff", f"color:{self._accent}"))
        self.text.moveCursor(self.text.textCursor().MoveOperation.Start)


def _drawing(page: Page) -> str:
    """The small drawing of what a page is about, where there is one."""
    name = page.key.partition(":")[2]
    return f"![{page.title}](icon:{name})\n\n" if name and data_path("icons", f"{name}.svg").exists() else ""


def _links(pages: list[Page]) -> str:
    return " · ".join(f"[{page.title}]({page.key})" for page in pages)


class Hint(QFrame):
    """A few lines on a stage that is seen for the first time; they go for good when closed."""

    closed = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("notice")
        self.key = ""
        self._text = Label()
        self._text.setWordWrap(True)
        shut = QToolButton()
        shut.setText(tr("Understood"))
        shut.setToolTip(tr("Close these lines for good; F1 shows them again"))
        shut.clicked.connect(lambda: self.closed.emit(self.key))
        row = QHBoxLayout(self)
        row.setContentsMargins(12, 5, 12, 5)
        row.addWidget(self._text, 1)
        row.addWidget(shut)
        self.hide()

    def show_for(self, key: str, wanted: bool) -> None:
        """The first lines of a page, if they are still wanted."""
        self.key = key
        self._text.setText(page_of(key).lead.replace("\n", " ").replace("*", ""))
        self.setVisible(wanted)


def topic_of(widget: QWidget | None) -> str:
    """What the thing in focus is about, as it says itself; empty where it does not."""
    if widget is not None and not widget.isVisible():
        return ""
    while widget is not None:
        topic = widget.property("topic")
        if topic:
            return str(topic)
        widget = widget.parentWidget()
    return ""


def own_page(widget: QWidget | None) -> tuple[str, str] | None:
    """Title and text that a number, a field or a finding in focus has of its own."""
    while widget is not None:
        tells = getattr(widget, "help_page", None)
        if callable(tells):
            found: tuple[str, str] = tells()
            return found
        widget = widget.parentWidget()
    return None
