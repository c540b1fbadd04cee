"""A picture of a paper drawing behind the section: chosen, placed, scaled, taken away."""

from pathlib import Path

from PySide6.QtWidgets import QFileDialog, QInputDialog, QWidget

from toreuma.app.picture.read_apart import read_picture
from toreuma.app.picture.section import SectionCanvas
from toreuma.app.picture.underlay import Underlay
from toreuma.app.session import Session
from toreuma.core.errors import ToreumaError
from toreuma.core.units import parse

__all__ = ["Paper"]

PATTERN = "Pictures (*.png *.jpg *.jpeg *.bmp *.webp *.svg);;All files (*)"


class Paper:
    """Asks for the file and the length; the section takes the clicks."""

    def __init__(self, window: QWidget, session: Session, canvas: SectionCanvas) -> None:
        self._window, self._session, self._canvas = window, session, canvas

    def switch(self) -> None:
        """A picture behind the section; asked for again, it is taken away."""
        if self._canvas.underlay is not None:
            self._canvas.underlay = None
            self._canvas.update()
            return
        name, _ = QFileDialog.getOpenFileName(self._window, "Picture of a drawing", "", PATTERN)
        if name:
            self.show(Path(name))

    def show(self, path: Path) -> None:
        """That picture behind the section of the part, to be placed by two clicks."""
        try:
            self._canvas.underlay = Underlay(read_picture(path))
        except ToreumaError as error:
            self._session.message.emit("error", str(error))
            return
        self._session.wanted.emit("stage part")
        self._canvas.update()

    @property
    def waits(self) -> bool:
        """Two places are clicked, and their distance is wanted."""
        return self._canvas.underlay is not None and len(self._canvas.underlay.clicks) == 2

    def ask(self) -> None:
        """Ask how far the two places on the picture are apart; without an answer they are clicked again."""
        text, fine = QInputDialog.getText(self._window, "Scale the picture", "The two places are apart by:")
        self.scale(text if fine else "")

    def scale(self, text: str) -> None:
        """The two places are so far apart."""
        under = self._canvas.underlay
        if under is None:
            return
        try:
            length = parse(text, "mm", self._session.system) if text.strip() else 0.0
        except ToreumaError as error:
            self._session.message.emit("error", f"{error.what}; {error.cure}")
            length = 0.0
        under.scale(length)
        self._canvas.update()
