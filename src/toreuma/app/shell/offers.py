"""Work that was not saved when a window ended: shown on the first page until the person has answered each."""

from functools import partial

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from toreuma.app.forms.label import Label
from toreuma.app.picture.part_card import CardText, PartCard
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.engine.offers import Offer

__all__ = ["OfferList"]

PICTURE = QSize(150, 104)
BUTTON_PX = 168


class OfferList(QWidget):
    """A row each: the part, its name and file, when, what is in it that the file has not, and the three answers."""

    taken = Signal(object)
    beside = Signal(object)
    dropped = Signal(object)

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self.rows: list[OfferRow] = []
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 0, 0, 6)
        self._column.setSpacing(6)
        title = Label(tr("Work that was not saved"))
        title.setObjectName("title")
        self._column.addWidget(title)
        self.faults = Label()
        self.faults.setObjectName("warning")
        self.faults.setWordWrap(True)
        self._column.addWidget(self.faults)
        self.hide()

    def set_theme(self, theme: Theme) -> None:
        self._theme = theme
        for row in self.rows:
            row.card.set_theme(theme)

    def show_offers(self, offers: list[Offer], faults: list[str]) -> None:
        """Show these, in place of what was shown."""
        for row in self.rows:
            self._column.removeWidget(row)
            row.deleteLater()
        self.rows = []
        for offer in offers:
            row = OfferRow(offer, self._theme)
            row.take.clicked.connect(partial(self.taken.emit, offer))
            row.card.chosen.connect(partial(self.taken.emit, offer))
            row.beside.clicked.connect(partial(self.beside.emit, offer))
            row.drop.clicked.connect(partial(self.dropped.emit, offer))
            self._column.insertWidget(self._column.count() - 1, row)
            self.rows.append(row)
        self.faults.setText("\n".join(faults))
        self.faults.setVisible(bool(faults))
        self.setVisible(bool(offers or faults))


class OfferRow(QFrame):
    def __init__(self, offer: Offer, theme: Theme) -> None:
        super().__init__()
        self.offer = offer
        self.setObjectName("card")
        state = offer.left.state
        across = QHBoxLayout(self)
        across.setContentsMargins(8, 6, 12, 6)
        self.card = PartCard(theme, CardText(offer.job.name), PICTURE)
        self.card.show_part(offer.region)
        across.addWidget(self.card)
        words = QVBoxLayout()
        words.setSpacing(2)
        name = Label(offer.job.name)
        name.setObjectName("title")
        words.addWidget(name)
        file = str(state.file) if state.file is not None else tr("it has no file yet")
        where = Label(f"{tr('kept')} {offer.when} · {file}")
        where.setObjectName("muted")
        where.setWordWrap(True)
        words.addWidget(where)
        for line in offer.changes:
            label = Label(line)
            label.setWordWrap(True)
            words.addWidget(label)
        words.addStretch(1)
        across.addLayout(words, 1)
        answers = QVBoxLayout()
        self.take, self.beside, self.drop = (
            QPushButton(tr(text)) for text in ("Take it up", "Open beside the file", "Drop it")
        )
        self.beside.setVisible(offer.saved is not None)
        for button in (self.take, self.beside, self.drop):
            button.setAccessibleName(f"{button.text()}: {offer.job.name}")
            button.setMinimumWidth(BUTTON_PX)
            answers.addWidget(button, 0, Qt.AlignmentFlag.AlignTop)
        answers.addStretch(1)
        across.addLayout(answers)
