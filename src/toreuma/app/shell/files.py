"""Files of the window: jobs opened and saved, drawings read, pictures and lists written."""

import os
from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QObject, QSettings, Signal
from PySide6.QtWidgets import QFileDialog, QWidget

from toreuma.app.forms.leaving import kept_or_dropped
from toreuma.app.session import Session
from toreuma.app.shell.columns import WhichColumns, is_clear
from toreuma.app.shell.keep import Keep
from toreuma.app.shell.opening import Opening
from toreuma.app.shell.shared import Shared
from toreuma.app.stages.tools.choice import ToolChoice
from toreuma.core.errors import ToreumaError
from toreuma.core.plan.sides.pair import second_end
from toreuma.engine.fresh import copied, short_name
from toreuma.engine.library import library, open_job
from toreuma.engine.search import is_known
from toreuma.exchange.exports import export_file
from toreuma.exchange.reading import SUFFIXES
from toreuma.files.rack import rack_csv, rack_rows, read_rack, save_rack
from toreuma.files.writing import write_atomically

__all__ = ["Files"]

RECENT = 12


class Files(QObject):
    """Asks where, writes and reads, and says in the window how it went; ``read`` is given drawings and models."""

    opened = Signal()

    def __init__(
        self, window: QWidget, session: Session, settings: QSettings, tools: ToolChoice, read: Callable[[Path], None]
    ) -> None:
        super().__init__(window)
        self._window, self.session, self._settings = window, session, settings
        self._tools, self._read = tools, read
        self.keep = Keep(session, self)
        self.shared = Shared(window, session)
        self.opening = Opening(session, self, lambda: self.may_leave())
        self.asked: WhichColumns | None = None

    def browse_import(self) -> None:
        pattern = "Drawings and models (*.dxf *.step *.stp);;All files (*)"
        name, _ = QFileDialog.getOpenFileName(self._window, "Read a drawing or model", "", pattern)
        if name:
            self._read(Path(name))

    def export(self) -> None:
        """Write the section as DXF, or the part as STEP."""
        if self.session.job is None:
            return
        pattern = (
            "DXF of section and toolpaths (*.dxf);;STEP of the part (*.step);;STEP of the stock at the cursor (*.stp)"
        )
        name, _ = QFileDialog.getSaveFileName(
            self._window, "Write DXF or STEP", f"{self.session.job.name}.dxf", pattern
        )
        if name:
            self.export_to(Path(name))

    def export_to(self, path: Path) -> None:
        session = self.session
        if session.job is None or session.outcome is None:
            return
        stock = session.replay.stock_at(session.cursor_s) if session.replay else session.outcome.plan.scene.stock
        try:
            export_file(session.outcome.plan, path, stock if path.suffix.lower() == ".stp" else None)
        except ToreumaError as error:
            self.session.message.emit("error", str(error))
            return
        self.session.message.emit("ok", f"Written: {path.name}")

    def open_job(self, name: str) -> None:
        if Path(name).suffix.lower() in SUFFIXES:
            self._read(Path(name))
            return
        if not self.may_leave():
            return
        if self.opening.is_large(Path(name)):
            self.opening.start(Path(name), lambda: self._on_open(name))
        elif self.session.open(name):
            self._on_open(name)

    def _on_open(self, name: str) -> None:
        self.opened.emit()
        self._remember(name)

    def browse_rack(self) -> None:
        """Read a list of tools onto the rack; rows that are not understood are named."""
        name, _ = QFileDialog.getOpenFileName(
            self._window, "Read a list of tools", "", "Tables (*.csv *.json);;All files (*)"
        )
        if name:
            self.read_rack(Path(name))

    def read_rack(self, path: Path) -> None:
        """Read a list of tools; where its headings do not say which column is which, that is asked first."""
        try:
            rows, _ = rack_rows(path)
        except ToreumaError as error:
            self.session.message.emit("error", str(error))
            return
        if is_clear(list(rows[0])):
            self._take_rack(path, None)
            return
        self.asked = WhichColumns(path.name, rows, self._window)
        self.asked.accepted.connect(lambda asked=self.asked: self._take_rack(path, asked.columns))
        self.asked.open()

    def _take_rack(self, path: Path, columns: dict[str, str] | None) -> None:
        try:
            items, problems = read_rack(path, lambda code: is_known(library().catalogue, code), columns)
        except ToreumaError as error:
            self.session.message.emit("error", str(error))
            return
        self._tools.keep_on_rack(items)
        words = f"{len(items)} tools read onto the rack"
        if problems:
            self.session.message.emit(
                "error", f"{words}; not understood: {'; '.join(problems[:4])}{' …' if len(problems) > 4 else ''}"
            )
        else:
            self.session.message.emit("ok", words)

    def export_rack(self) -> None:
        name, _ = QFileDialog.getSaveFileName(self._window, "Write the rack", "rack.csv", "Tables (*.csv *.json)")
        if name:
            self.write_rack(Path(name))

    def write_rack(self, path: Path) -> None:
        """The rack as CSV, or as JSON by the file's ending."""
        try:
            if path.suffix.lower() == ".json":
                save_rack(library().rack(), path)
            else:
                write_atomically(path, rack_csv(library().rack()))
        except (OSError, ToreumaError) as error:
            self.session.message.emit("error", f"{path}: it cannot be written ({error}); choose another place")
            return
        self.session.message.emit("ok", f"Written: {path.name}")

    def open_second_end(self) -> None:
        """Two parts back to back: the job of the other end, as a new one."""
        job = self.session.job
        if job is None:
            return
        try:
            other = second_end(job)
        except ToreumaError as error:
            self.session.message.emit("error", str(error))
            return
        if self.may_leave():
            self.session.show(other)
            self.session.message.emit(
                "ok", "The second end, held on the finished one; save it under a name of its own."
            )

    def copy_job(self) -> None:
        """The open job as the starting point of the next: a new one under a name of its own, not yet saved."""
        job = self.session.whole
        if job is None or not self.may_leave():
            return
        self.session.show(copied(job, short_name(job.name, " copy")))
        self.session.message.emit("ok", "A copy to go on from; give it a name on the part stage, and save it.")

    def begin_from(self, name: str) -> None:
        """A new job that begins as the one of a file, which stays as it is."""
        try:
            job = open_job(name)
        except ToreumaError as error:
            self.session.message.emit("error", str(error))
            return
        if self.may_leave():
            self.session.show(copied(job, short_name(job.name, " copy")))
            self.opened.emit()
            self.session.message.emit("ok", "A copy to go on from; give it a name on the part stage, and save it.")

    def forget(self, name: str) -> None:
        """Take a job off the list of the last ones; its file stays."""
        self._settings.setValue("recent", [one for one in self.recent() if one != name])

    def browse(self) -> None:
        pattern = "Jobs, drawings, models (*.toreuma *.dxf *.step *.stp);;All files (*)"
        name, _ = QFileDialog.getOpenFileName(self._window, "Open a job", "", pattern)
        if name:
            self.open_job(name)

    def save(self) -> bool:
        if self.session.path is None:
            return self.save_as()
        return self.save_to(self.session.path)

    def save_as(self) -> bool:
        if self.session.job is None:
            return False
        start = str(self.session.path or f"{self.session.job.name}.toreuma")
        name, _ = QFileDialog.getSaveFileName(self._window, "Save the job", start, "Toreuma jobs (*.toreuma)")
        if not name:
            return False
        path = Path(name)
        return self.save_to(path if path.suffix else path.with_suffix(".toreuma"))

    def save_to(self, path: Path) -> bool:
        """Save under this name, once it is clear what becomes of what others wrote there meanwhile."""
        place = self.shared.place_for(path)
        saved = place is not None and self.session.save(place)
        if saved and place is not None:
            self._remember(str(place))
            self._settings.setValue(f"state/{_key(str(place))}", self._state())
        return saved

    def _remember(self, name: str) -> None:
        if name.startswith("demo:"):
            return
        names = [name, *(n for n in self.recent() if n != name)][:RECENT]
        self._settings.setValue("recent", names)

    def states(self) -> dict[str, str]:
        """How far each of the last jobs was when it was saved."""
        return {name: str(self._settings.value(f"state/{_key(name)}", "")) for name in self.recent()}

    def recent(self) -> list[str]:
        """The last jobs whose files are there; whatever else stands in the settings is passed over."""
        stored = self._settings.value("recent", [])
        names = [stored] if isinstance(stored, str) else stored if isinstance(stored, list | tuple) else []
        return [name for name in names if isinstance(name, str) and os.path.isfile(name)][:RECENT]

    def _state(self) -> str:
        """How far the open job is, in a word."""
        session = self.session
        if session.whole is None or not any(setup.operations for setup in session.whole.setups):
            return "no route yet"
        if not session.complete or session.proof is None:
            return "planned"
        return session.verdict.state if session.verdict is not None else "has errors"

    def may_leave(self) -> bool:
        """Ask before changes are lost."""
        if not self.session.modified:
            return True
        return kept_or_dropped(self._window, "The job has changes that are not saved.", self.save)


def _key(name: str) -> str:
    """A file's name as a key of the settings, where a slash would part groups."""
    return name.replace("/", "|")
