"""Colours, fonts and the style sheet, all from one token file."""

from collections.abc import Sequence
from functools import cache, lru_cache
from string import Template

from PySide6.QtCore import QByteArray, QRectF, Qt
from PySide6.QtGui import QColor, QFont, QFontDatabase, QIcon, QPainter, QPalette, QPixmap
from PySide6.QtSvg import QSvgRenderer

from toreuma.shipped.library import theme_tokens
from toreuma.shipped.paths import data_path

__all__ = ["Theme", "icon", "load_fonts", "load_theme"]

_STYLE = Template(
    """
* { font-family: "$text_font"; font-size: ${base_px}px; color: $ink; }
QMainWindow, QWidget#page { background: $paper; }
QWidget#panel, QFrame#panel, QScrollArea#panel, QScrollArea#panel > QWidget > QWidget { background: $panel; }
QFrame#header { background: $panel; border-bottom: 1px solid $line; }
QLabel#muted { color: $muted; }
QLabel#title { font-size: ${title_px}px; font-weight: bold; }
QLabel#heading { color: $muted; font-size: ${small_px}px; font-weight: bold; }
QLabel#large { font-family: "$number_font"; font-size: ${large_px}px; }
QLabel#error { color: $error; }
QLabel#warning { color: $warning; }
QLabel#ok { color: $ok; }
QLabel#note { color: $muted; }
QPushButton, QToolButton, QComboBox { background: $raised; border: 1px solid $line; border-radius: 3px;
    padding: 4px 9px; }
QToolButton { padding: 4px 6px; }
QToolButton:checked { background: $accent_soft; border-color: $accent; }
QPushButton:hover, QToolButton:hover { border-color: $accent; }
QPushButton:focus, QToolButton:focus, QComboBox:focus, QLineEdit:focus { border: 1px solid $focus; }
QPushButton:disabled, QToolButton:disabled { color: $line; }
QPushButton#stage { border: none; border-bottom: 3px solid transparent; border-radius: 0; padding: 10px 6px 8px 6px;
    background: transparent; color: $muted; }
QPushButton#stage:checked { border-bottom: 3px solid $accent; color: $ink; font-weight: bold; }
QPushButton#stage:focus { color: $accent; }
QPushButton#main { background: $accent; color: $on_accent; border-color: $accent; padding: 8px 16px; }
QToolButton#pin { border: none; background: transparent; padding: 2px; }
QToolButton#pin:checked { background: $accent_soft; border-radius: 3px; }
QToolButton#pin:focus { background: $line; }
QLineEdit { background: $raised; border: 1px solid $line; border-radius: 3px; padding: 3px 6px;
    selection-background-color: $accent; selection-color: $on_accent; font-family: "$number_font"; }
QLineEdit#codeEntry { font-size: 20px; padding: 8px 10px; }
QLineEdit:disabled, QComboBox:disabled { background: transparent; border: 1px solid transparent; color: $muted; }
QLabel#code { font-family: "$number_font"; }
QLineEdit[bad="true"] { border: 2px solid $error; color: $error; }
QLabel#fault { background: $raised; color: $error; border: 1px solid $error; border-radius: 3px; padding: 3px 6px; }
QTabBar { background: $panel; }
QTabBar::tab { background: transparent; border: none; border-bottom: 2px solid $line; color: $muted;
    padding: 6px 4px; }
QTabBar::tab:selected { border-bottom: 2px solid $accent; color: $ink; }
QTabBar::tab:hover { color: $ink; }
QComboBox::drop-down { border: none; width: 20px; }
QComboBox::down-arrow { image: url($arrow); width: 10px; height: 10px; }
QComboBox QAbstractItemView { background: $raised; border: 1px solid $line; selection-background-color: $accent_soft;
    selection-color: $ink; outline: none; }
QListWidget { background: $panel; border: none; }
QListWidget::item { padding: 4px 12px; }
QListWidget::item:selected { background: $accent_soft; color: $ink; }
QLineEdit#search, QLineEdit#name { font-family: "$text_font"; }
QTextBrowser { background: $panel; border: none; }
QTableView, QListView, QPlainTextEdit { background: $panel; border: none; gridline-color: $line;
    selection-background-color: $accent_soft; selection-color: $ink; }
QPlainTextEdit { font-family: "$code_font"; font-size: 12px; }
QPlainTextEdit#line { background: $raised; border: 1px solid $line; border-radius: 3px; padding: 2px; font-size: 13px; }
QPlainTextEdit#line:focus { border: 1px solid $focus; }
QTableView { font-size: 13px; }
QHeaderView { background: $panel; }
QHeaderView::section { background: $panel; color: $muted; border: none; border-bottom: 1px solid $line;
    padding: 4px; font-size: ${small_px}px; font-family: "$text_font"; }
QTableCornerButton::section { background: $panel; border: none; }
QSplitter::handle { background: $line; }
QScrollBar:vertical { background: $panel; width: 10px; margin: 0; }
QScrollBar::handle:vertical { background: $line; border-radius: 4px; min-height: 24px; }
QScrollBar:horizontal { background: $panel; height: 10px; margin: 0; }
QScrollBar::handle:horizontal { background: $line; border-radius: 4px; min-width: 24px; }
QScrollBar::add-line, QScrollBar::sub-line { width: 0; height: 0; }
QMenuBar { background: $panel; border: none; }
QMenuBar::item { padding: 3px 9px; background: transparent; color: $muted; }
QMenuBar::item:selected { background: $accent_soft; color: $ink; }
QMenu::item:disabled { color: $line; }
QMenu::separator { height: 1px; background: $line; margin: 3px 8px; }
QMenu { background: $raised; border: 1px solid $line; }
QMenu::item { padding: 5px 22px; }
QMenu::item:selected { background: $accent_soft; }
QToolTip { background: $raised; color: $ink; border: 1px solid $line; padding: 4px; }
QFrame#palette { background: $raised; border: 1px solid $accent; border-radius: 4px; }
QFrame#card { background: $raised; border: 1px solid $line; border-radius: 4px; }
QFrame#notice { background: $accent_soft; border: 1px solid $accent; border-radius: 3px; }
QProgressBar { background: $line; border: none; border-radius: 2px; max-height: 4px; }
QProgressBar::chunk { background: $accent; border-radius: 2px; }
"""
)


class Theme:
    """One of the two themes: colours by name, fonts, style sheet."""

    def __init__(self, name: str) -> None:
        tokens = theme_tokens()
        self.name = name
        self._colours = tokens[name]
        self._fonts = tokens["fonts"]
        self._steps = tokens["temper_steps"]

    def colour(self, name: str, alpha: float = 1.0) -> QColor:
        colour = QColor(self._colours[name])
        colour.setAlphaF(alpha)
        return colour

    def load_colour(self, share: float) -> QColor:
        """Temper colour for a share of the governing limit; vermilion beyond it."""
        if share > 1.0001:
            return QColor(self._colours["beyond"])
        colours: Sequence[str] = self._colours["temper"]
        share = min(max(share, 0.0), 1.0)
        for index in range(len(self._steps) - 1):
            low, high = self._steps[index], self._steps[index + 1]
            if share <= high:
                return _between(QColor(colours[index]), QColor(colours[index + 1]), (share - low) / (high - low))
        return QColor(colours[-1])

    def number_font(self, px: int | None = None, bold: bool = False) -> QFont:
        return self._font(self._fonts["number"], px, bold)

    def text_font(self, px: int | None = None, bold: bool = False) -> QFont:
        return self._font(self._fonts["text"], px, bold)

    def _font(self, family: str, px: int | None, bold: bool) -> QFont:
        font = QFont(family)
        font.setPixelSize(px or self._fonts["base_px"])
        font.setBold(bold)
        return font

    def style_sheet(self) -> str:
        plain = {key: value for key, value in self._colours.items() if isinstance(value, str)}
        sizes = {key: value for key, value in self._fonts.items() if key.endswith("_px")}
        return _STYLE.substitute(
            plain,
            text_font=self._fonts["text"],
            number_font=self._fonts["number"],
            code_font=self._fonts["code"],
            arrow=data_path("theme", f"arrow-{self.name}.svg").as_posix(),
            **sizes,
        )

    def palette(self) -> QPalette:
        palette = QPalette()
        roles = {
            QPalette.ColorRole.Window: "panel",
            QPalette.ColorRole.Base: "panel",
            QPalette.ColorRole.AlternateBase: "paper",
            QPalette.ColorRole.Text: "ink",
            QPalette.ColorRole.WindowText: "ink",
            QPalette.ColorRole.Button: "raised",
            QPalette.ColorRole.ButtonText: "ink",
            QPalette.ColorRole.Highlight: "accent_soft",
            QPalette.ColorRole.HighlightedText: "ink",
            QPalette.ColorRole.PlaceholderText: "muted",
            QPalette.ColorRole.Link: "accent",
            QPalette.ColorRole.LinkVisited: "accent",
        }
        for role, name in roles.items():
            palette.setColor(role, self.colour(name))
        return palette


def _between(a: QColor, b: QColor, share: float) -> QColor:
    pairs = ((a.redF(), b.redF()), (a.greenF(), b.greenF()), (a.blueF(), b.blueF()))
    return QColor.fromRgbF(*(x + share * (y - x) for x, y in pairs))


@cache
def load_fonts() -> None:
    """Make the shipped fonts known to Qt."""
    for path in sorted(data_path("fonts").glob("*.otf")):
        QFontDatabase.addApplicationFontFromData(path.read_bytes())


@cache
def load_theme(name: str) -> Theme:
    return Theme(name)


@lru_cache(maxsize=256)
def icon(name: str, theme: Theme, colour: str = "ink", size: int = 18) -> QIcon:
    """A shipped drawing in a theme colour."""
    text = data_path("icons", f"{name}.svg").read_text("utf-8").replace("currentColor", theme.colour(colour).name())
    pixmap = QPixmap(size * 2, size * 2)
    pixmap.fill(Qt.GlobalColor.transparent)
    painter = QPainter(pixmap)
    QSvgRenderer(QByteArray(text.encode())).render(painter, QRectF(0, 0, size * 2, size * 2))
    painter.end()
    pixmap.setDevicePixelRatio(2.0)
    return QIcon(pixmap)
