"""Finds work that windows before this one had not saved, offers it, and takes up or drops what the person says."""

from PySide6.QtCore import QObject, Signal
from PySide6.QtWidgets import QMessageBox, QWidget

from toreuma.app.forms.bar import AskBar
from toreuma.app.forms.label import plain_tip
from toreuma.app.session.beside import Beside
from toreuma.app.shell.files import Files
from toreuma.app.shell.first_page import FirstPage
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.engine.offers import Offer, offers

__all__ = ["LeftWork"]


class LeftWork(QObject):
    """Looks beside the window's thread. ``bar`` says that there is something, ``looked_at`` that it is wanted."""

    looked_at = Signal()
    taken = Signal(object, bool)
    known = Signal()
    """It is known by now what was left, ``offers``."""

    def __init__(self, window: QWidget, first: FirstPage, files: Files) -> None:
        super().__init__(window)
        self._window, self._first, self._files = window, first, files
        self.offers: list[Offer] = []
        self.bar = AskBar()
        self._looking = Beside(self)
        first.offers.taken.connect(lambda offer: self.taken.emit(offer, False))
        first.offers.beside.connect(lambda offer: self.taken.emit(offer, True))
        first.offers.dropped.connect(self._on_dropped)

    def look(self) -> None:
        """Find out what was left; an earlier look is given up."""
        self._looking.start(
            lambda check, progress: offers(),
            "unsaved work",
            self._on_found,
            lambda error: self._on_found(([], [error])),
        )

    def close(self) -> None:
        """Wait for a look under way before the window goes."""
        self._looking.close()

    def _on_found(self, found: tuple[list[Offer], list[ToreumaError]]) -> None:
        self.offers, faults = found
        self._first.offers.show_offers(self.offers, [str(fault) for fault in faults])
        if self.offers and not self._first.isVisible():
            words = tr("Work that was not saved when a window ended is kept") + f": {len(self.offers)}"
            self.bar.ask(words, ("Look at it", self.looked_at.emit), ("Later", lambda: None))
        else:
            self.bar.hide()
        self.known.emit()

    def take(self, offer: Offer) -> bool:
        """Go on with it in this window. The journal it comes from goes once this window's own has it."""
        session, keep = self._files.session, self._files.keep
        held = offer.left.claim()
        if held is None:
            session.message.emit("warning", tr("Another window has taken it up."))
            self.look()
            return False
        session.take_up(offer.left.state, offer.saved)
        kept = keep.journal.keep_now()
        held.let_go(remove=kept)
        self.look()
        if kept:
            session.message.emit("ok", tr("Taken up where it was left; it is not saved yet."))
        return True

    def _on_dropped(self, offer: Offer) -> None:
        yes, no = QMessageBox.StandardButton.Discard, QMessageBox.StandardButton.Cancel
        words = f"{offer.job.name}: {tr('this work is in no file. Drop it for good?')}"
        if QMessageBox.question(self._window, "Toreuma", plain_tip(words), yes | no, no) == yes:
            offer.left.drop()
            self.look()
