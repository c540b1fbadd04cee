"""A picture of a paper drawing behind the section: chosen, placed, scaled, taken away."""

from pathlib import Path

from PySide6.QtCore import QObject, QTimer
from PySide6.QtGui import QImage
from PySide6.QtWidgets import QFileDialog, QInputDialog, QWidget

from toreuma.app.forms.bar import AskBar
from toreuma.app.picture.read_apart import read_picture
from toreuma.app.picture.section import SectionCanvas
from toreuma.app.picture.underlay import Underlay
from toreuma.app.session import Session
from toreuma.app.session.beside import Beside
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.units import parse

__all__ = ["Paper"]

WAITED_MS = 500
"""What takes longer is said, and can be stopped."""
PATTERN = "Pictures (*.png *.jpg *.jpeg *.bmp *.webp *.svg);;All files (*)"


class Paper(QObject):
    """Asks for the file and the length; the section takes the clicks. ``bar`` says what is still being read."""

    def __init__(self, window: QWidget, session: Session, canvas: SectionCanvas) -> None:
        super().__init__(window)
        self._window, self._session, self._canvas = window, session, canvas
        self.bar = AskBar()
        self.reading = Beside(self)
        self._patience = QTimer(self, singleShot=True, interval=WAITED_MS)
        self._patience.timeout.connect(self._say)
        self._name = ""

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
        self.reading.start(lambda check, progress: read_picture(path, check), path.name, self._on_read, self._on_failed)
        self._name = path.name
        self._patience.start()

    def stop(self) -> None:
        """Give up what is being read."""
        self.reading.leave()
        self._over()

    def close(self) -> None:
        """Wait for what still runs out, before the window goes."""
        self.reading.close()

    def _say(self) -> None:
        self.bar.ask(f"{self._name} {tr('is being read; what is open stays as it is.')}", ("Stop", self.stop))

    def _over(self) -> None:
        self._patience.stop()
        self.bar.hide()

    def _on_read(self, image: QImage) -> None:
        self._over()
        if self._session.job is None:
            return  # the part it belongs behind was left meanwhile
        self._canvas.underlay = Underlay(image)
        self._session.wanted.emit("stage part")
        self._canvas.update()

    def _on_failed(self, error: ToreumaError) -> None:
        self._over()
        self._session.message.emit("error", str(error))

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
