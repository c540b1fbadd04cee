"""The stage of the papers: the pages themselves, and what goes to file or printer."""

from pathlib import Path

from PySide6.QtCore import QRectF, QSizeF
from PySide6.QtGui import QPageLayout, QPageSize, QPainter
from PySide6.QtPrintSupport import QPrintDialog, QPrinter
from PySide6.QtWidgets import QDialog, QFileDialog, QWidget

from toreuma.app.stages.papers.made import Maker
from toreuma.app.stages.papers.pages import PagesView, image_of
from toreuma.app.stages.papers.panel import PapersPanel
from toreuma.app.stages.stage import Shared, Stage, Themed
from toreuma.app.words import tr
from toreuma.core.model.identity import job_id
from toreuma.files.writing import write_atomically
from toreuma.papers.pdf import Pages
from toreuma.papers.sheets import TITLES

__all__ = ["PapersStage", "print_pages"]

PRINT_DPI = 300
FILES = {"pdf": "PDF (*.pdf)", "html": "HTML (*.html)"}


class PapersStage(Stage):
    """Pages are made while the stage is shown, and stay when it is left."""

    key, label, shortcut = "papers", "Papers", "Ctrl+9"
    panel: PapersPanel

    def __init__(self, shared: Shared) -> None:
        super().__init__(shared)
        self.maker = Maker(shared.session)
        self.panel = PapersPanel(shared.session, shared.theme, self.maker)
        self.view = PagesView(shared.theme)
        self.maker.changed.connect(self._on_changed)
        self.panel.asked.connect(self._hand_on)
        self.panel.turned_to.connect(self.turn_to)
        self._shown: object = None
        self._wanted = ""

    @property
    def middle(self) -> QWidget:
        return self.view

    @property
    def below(self) -> None:
        return None

    @property
    def right(self) -> None:
        return None

    @property
    def themed(self) -> tuple[Themed, ...]:
        return (self.panel, self.view)

    def fit(self) -> None:
        self.view.fit()

    def enter(self) -> None:
        self.maker.looked_at = True
        self.maker.renew()

    def leave(self) -> None:
        self.maker.looked_at = False
        self.maker.stop()

    def close(self) -> None:
        self.maker.close()
        self.view.show_pages(None)

    def _on_changed(self) -> None:
        made = self.maker.made
        if made is not None and made is not self._shown:
            self._shown = made
            self.view.show_pages(Pages(made.pdf))
            self.turn_to(self._wanted)
        self.view.say(self._words())

    def _words(self) -> str:
        if self.maker.problem is not None and not self.maker.busy and not self.maker.current:
            error = self.maker.problem
            return f"{error.where}: {error.what}; {error.cure}"
        if self.maker.current:
            return ""
        if self.maker.waits:
            return tr("The job is being proved; sheets name the state of the proof, so they follow it.")
        return tr("Pages are being made.")

    def turn_to(self, kind: str) -> None:
        """Bring the first page of a kind of sheet to the top, now or when it is there."""
        self._wanted = kind
        made = self.maker.made
        if not kind or made is None or kind not in made.wanted.sheets or not self.maker.current:
            return
        pages = Pages(made.pdf)
        title = TITLES[kind]
        try:
            found = next((n for n in range(len(pages.sizes)) if pages.text(n).strip().startswith(title)), None)
        finally:
            pages.close()
        if found is not None:
            self.view.go_to(found + 1)
            self._wanted = ""

    # What goes out

    def _hand_on(self, how: str) -> None:
        made = self.maker.made
        if made is None or not self.maker.current:
            return
        if how == "print":
            printer = QPrinter(QPrinter.PrinterMode.HighResolution)
            if QPrintDialog(printer, self.view).exec() == QDialog.DialogCode.Accepted:
                print_pages(made.pdf, printer)
            return
        proposed = f"{job_id(made.job)}.{how}"
        name, _ = QFileDialog.getSaveFileName(self.view, tr("Save the sheets"), proposed, FILES[how])
        if name:
            self.save(Path(name))

    def save(self, path: Path) -> bool:
        """The pages into a file, PDF or HTML by its name."""
        made = self.maker.made
        if made is None:
            return False
        kind = path.suffix.lower()
        if kind not in (".pdf", ".html", ".htm"):
            self.session.message.emit("error", f"{path.name}: this is neither .pdf nor .html; end its name in one")
            return False
        try:
            write_atomically(path, made.pdf if kind == ".pdf" else made.page)
        except OSError as error:
            self.session.message.emit("error", f"{path}: it cannot be written ({error.strerror}); choose another place")
            return False
        self.session.message.emit("ok", f"{path.name}: {tr('written')}.")
        return True


def print_pages(pdf: bytes, printer: QPrinter) -> None:
    """Every page on a sheet of its own, as large as it was made."""
    pages = Pages(pdf)
    try:
        painter = QPainter()
        for number, (width, height) in enumerate(pages.sizes):
            printer.setPageSize(QPageSize(QSizeF(width, height), QPageSize.Unit.Point))
            printer.setFullPage(True)
            printer.setPageOrientation(QPageLayout.Orientation.Portrait)
            if number == 0:
                painter.begin(printer)
            else:
                printer.newPage()
            box = QRectF(0, 0, printer.width(), printer.height())
            painter.drawImage(box, image_of(pages, number, round(width / 72 * PRINT_DPI)))
        painter.end()
    finally:
        pages.close()
