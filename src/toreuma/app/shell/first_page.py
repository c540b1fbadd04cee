"""What is shown before a job is open, and again when it is asked for: a new part, a file, the last jobs, the demo."""

from collections.abc import Callable
from functools import partial
from typing import Any

from PySide6.QtCore import QPoint, QSettings, QSize, Qt, QTimer, Signal
from PySide6.QtWidgets import QHBoxLayout, QLabel, QMenu, QPushButton, QScrollArea, QVBoxLayout, QWidget

from toreuma.app.forms.flow import Flow
from toreuma.app.forms.label import Label
from toreuma.app.picture.part_card import CardText, PartCard
from toreuma.app.shell.new_strip import NewStrip
from toreuma.app.shell.offers import OfferList
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.engine.glimpse import Glimpse, glimpse_of, starter_region
from toreuma.shipped.library import DEMO_PREFIX, demo_names, starters

__all__ = ["FirstPage"]

START_WITH = "spear"
"""The demo job that has a whole route already stands first."""

LAST, SMALL, STARTER = QSize(196, 148), QSize(138, 92), QSize(108, 78)
WIDTH_PX = 1190


class FirstPage(QScrollArea):
    """Small drawings are made one after the other once the page stands; files may be dropped on it."""

    wanted = Signal(str)
    browse = Signal()
    read = Signal()
    program = Signal()
    copied = Signal(str)
    forgotten = Signal(str)
    begun = Signal(str)
    """A new part is begun, with the starter of this name or with none."""

    def __init__(self, theme: Theme, settings: QSettings) -> None:
        super().__init__()
        self.setObjectName("page")
        self.setWidgetResizable(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFrameShape(QScrollArea.Shape.NoFrame)
        self._theme = theme
        self.cards: dict[str, PartCard] = {}
        self.starters: dict[str, PartCard] = {}
        self._waiting: list[Callable[[], None]] = []
        self._timer = QTimer(self, singleShot=True, interval=0)
        self._timer.timeout.connect(self._draw_next)
        page = QWidget()
        page.setObjectName("page")
        self.setWidget(page)
        across = QHBoxLayout(page)
        across.setContentsMargins(24, 16, 24, 16)
        self._column = QVBoxLayout()
        self._column.setSpacing(8)
        holder = QWidget()
        holder.setLayout(self._column)
        holder.setMaximumWidth(WIDTH_PX)
        across.addStretch(1)
        across.addWidget(holder, 100)
        across.addStretch(1)
        self.strip = NewStrip(settings)
        self.strip.begun.connect(lambda: self.begun.emit(""))
        self.offers = OfferList(theme)
        self._column.addWidget(self.offers)
        self._column.addWidget(_title("A new part"))
        self._column.addWidget(self.strip)
        self._column.addWidget(_muted("Or begin with a usual part and type over its dimensions:"))
        self._column.addLayout(self._starters())
        self._column.addLayout(self._files())
        self._last = QWidget()
        self._last_column = QVBoxLayout(self._last)
        self._last_column.setContentsMargins(0, 0, 0, 0)
        self._column.addWidget(self._last)
        self._column.addWidget(_muted("To look round: jobs of the Fennow Leat workshop"))
        demo = Flow()
        for name in sorted(demo_names(), key=lambda one: one != START_WITH):
            demo.addWidget(self._card(f"{DEMO_PREFIX}{name}", CardText(name.replace("-", " ").capitalize()), SMALL))
        self._column.addLayout(demo)
        self._column.addStretch(1)

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        self.offers.set_theme(theme)
        for card in (*self.cards.values(), *self.starters.values()):
            card.set_theme(theme)

    def _starters(self) -> Flow:
        row = Flow()
        for name in starters():
            card = PartCard(self._theme, CardText(tr(name.capitalize())), STARTER)
            card.chosen.connect(partial(self.begun.emit, name))
            self._waiting.append(partial(self._draw_starter, card, name))
            self.starters[name] = card
            row.addWidget(card)
        return row

    def _files(self) -> QHBoxLayout:
        row = QHBoxLayout()
        row.setContentsMargins(0, 6, 0, 0)
        for words, signal in (
            ("Read a drawing or model…", self.read),
            ("Read a program…", self.program),
            ("Open a job…", self.browse),
        ):
            button = QPushButton(tr(words))
            button.clicked.connect(signal.emit)
            row.addWidget(button)
        row.addWidget(_muted("or drop a file anywhere on this window."))
        row.addStretch(1)
        return row

    def _card(self, name: str, text: CardText, size: QSize) -> PartCard:
        card = PartCard(self._theme, text, size)
        card.chosen.connect(partial(self.wanted.emit, name))
        card.asked.connect(partial(self._menu, name))
        self._waiting.append(partial(self._draw_job, card, name))
        self.cards[name] = card
        return card

    def menu_of(self, name: str) -> QMenu:
        """What can be done with a job that is shown."""
        menu = QMenu(self)
        menu.addAction(tr("Open it")).triggered.connect(partial(self._told, self.wanted, name))
        menu.addAction(tr("Begin the next one from it")).triggered.connect(partial(self._told, self.copied, name))
        if not name.startswith(DEMO_PREFIX):
            menu.addAction(tr("Take it off this list")).triggered.connect(partial(self._told, self.forgotten, name))
        return menu

    def _menu(self, name: str, at: QPoint) -> None:
        self.menu_of(name).exec(at)

    @staticmethod
    def _told(signal: Any, name: str, _checked: bool = False) -> None:
        signal.emit(name)

    def show_recent(self, names: list[str], states: dict[str, str]) -> None:
        """The last jobs as small drawings; ``states`` says of each how far it was when it was saved."""
        while self._last_column.count():
            item = self._last_column.takeAt(0)
            widget = item.widget() if item is not None else None
            if widget is not None:
                widget.deleteLater()
        self.cards = {name: card for name, card in self.cards.items() if name.startswith(DEMO_PREFIX)}
        self._last.setVisible(bool(names))
        if not names:
            return
        self._last_column.addWidget(_title("Your last jobs"))
        grid = QWidget()
        rows = Flow(grid)
        for name in names:
            seen = glimpse_of(name)
            card = self._card(name, _text_of(seen, states.get(name, "")), LAST)
            card.show_part(seen.region)
            self._waiting.pop()
            rows.addWidget(card)
        self._last_column.addWidget(grid)

    def showEvent(self, event: object) -> None:
        super().showEvent(event)  # type: ignore[arg-type]
        self._timer.start()

    @property
    def is_drawing(self) -> bool:
        """Some of the small drawings are still to be made."""
        return bool(self._waiting)

    def _draw_next(self) -> None:
        if self._waiting and self.isVisible():
            self._waiting.pop(0)()
            self._timer.start()

    def _draw_starter(self, card: PartCard, name: str) -> None:
        card.show_part(starter_region(name, "mm"))

    def _draw_job(self, card: PartCard, name: str) -> None:
        if card in self.cards.values():
            card.show_part(glimpse_of(name).region)

    def begin_typing(self) -> None:
        """Ready for the name of a new part."""
        self.strip.refresh()
        self.strip.name.setFocus(Qt.FocusReason.ShortcutFocusReason)
        self.ensureVisible(0, 0)


def _text_of(seen: Glimpse, state: str) -> CardText:
    if seen.fault:
        return CardText(seen.name, (seen.fault, ""), "cannot be read")
    state = state or ("planned" if seen.operations else "no route yet")
    return CardText(seen.name, (f"{seen.material}, {seen.machine}", f"{tr('saved')} {tr(seen.day)}"), tr(state))


def _title(words: str) -> QLabel:
    label = Label(tr(words))
    label.setObjectName("title")
    return label


def _muted(words: str) -> QLabel:
    label = Label(tr(words))
    label.setObjectName("muted")
    return label
