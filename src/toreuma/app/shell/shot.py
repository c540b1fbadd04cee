"""Pictures of the window without a screen."""

import re
import tempfile
from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QElapsedTimer, QEventLoop, QSettings, QTimer
from PySide6.QtWidgets import QApplication

from toreuma.app.session import Session
from toreuma.app.shell.start import application
from toreuma.app.shell.window import MainWindow
from toreuma.app.stages.all import STAGES
from toreuma.app.stages.bench.stage import BenchStage
from toreuma.app.stages.log.page import VIEWS as VIEWS_OF_LOG
from toreuma.app.stages.log.stage import LogStage
from toreuma.app.stages.papers.stage import PapersStage
from toreuma.app.stages.part.stage import PartStage
from toreuma.app.stages.program.stage import ProgramStage
from toreuma.app.stages.tools.stage import ToolsStage
from toreuma.app.stages.transfer.stage import TransferStage
from toreuma.app.stages.transfer.views import VIEWS
from toreuma.core.errors import JobError, ToreumaError
from toreuma.core.model import Job

__all__ = ["settle", "take_shot"]

FIRST = "first"
"""The first page, in place of a stage."""

LOOK_MS = 5
PATIENCE_MS = 60_000


def take_shot(
    job: Job,
    stage: str,
    file: Path,
    *,
    size: str = "1280x800",
    theme: str = "light",
    select: str | None = None,
    at_s: float | None = None,
    read: Path | None = None,
    wish: str | None = None,
    side: int = 1,
    page: str | None = None,
) -> None:
    """Draw a stage of the window into a PNG file; with ``read``, that drawing or model before it is taken, or
    on the program stage that program on its desk; with
    ``wish``, that one of the tools stage, that page of the bench, the ``table`` of the operations, the ``passes`` of
    a thread, a kind and a name of the shop, a kind of sheet, a view of the log, or ``run``, ``space`` or ``space cut``
    of the transfer stage; ``side`` 2 is the second side; ``page`` opens that page of help.

    Raises `ToreumaError`.
    """
    known = [one.key for one in STAGES]
    if stage not in (FIRST, *known):
        raise JobError(f"stage {stage}", "there is no such stage", f"choose from {FIRST}, {', '.join(known)}")
    if theme not in ("light", "dark"):
        raise JobError(f"theme {theme}", "there is no such theme", "choose light or dark")
    match = re.fullmatch(r"(\d{3,5})x(\d{3,5})", size)
    if match is None:
        raise JobError(f"size {size}", "this is no size", "give width x height, such as 1280x800")
    application()
    session = Session()
    with tempfile.TemporaryDirectory() as folder:
        settings = QSettings(f"{folder}/settings.ini", QSettings.Format.IniFormat)
        for one in known:  # no first lines: the stage is what is shown
            settings.setValue(f"hint/stage:{one}", True)
        window = MainWindow(session, settings, theme)
        window.resize(int(match.group(1)), int(match.group(2)))
        session.show(job)
        window.set_stage(stage if stage != FIRST else known[0])
        window.show()
        settle(session)
        if stage == FIRST:
            window.go_home()
            _wait(lambda: not window.first.is_drawing)
        if stage in ("proof", "program", "transfer", "papers"):
            _wait(lambda: session.complete)
        if side != 1:
            if side != 2 or len(job.setups) < 2:
                session.close()
                raise JobError(f"side {side}", "the job has no such side", f"it has {len(job.setups)}")
            session.show_side(1)
            settle(session)
        shown = session.job or job
        if select is not None:
            if shown.operation(select) is None:
                session.close()
                raise JobError(
                    f"operation {select}",
                    "the job has no such operation",
                    f"choose from {', '.join(op.id for op in shown.operations)}",
                )
            session.select(operation=select)
        if at_s is not None:
            (session.set_run if stage == "transfer" else session.set_cursor)(at_s)
        if read is not None and stage == "program":
            _study(window, read, wish)
            wish = None
        elif read is not None:
            _read(window, read)
        if wish is not None:
            _ask(window, wish)
        if page is not None:
            window.open_help(page)
        _wait(lambda: not window.at(ToolsStage).choice.busy)
        if stage == PapersStage.key:
            _wait(lambda: window.at(PapersStage).maker.settled)
        if stage == LogStage.key:
            _wait(lambda: not window.at(LogStage).log.model.busy)
        QApplication.processEvents()
        saved = window.grab().save(str(file), "PNG")
        window.at(ToolsStage).choice.close()
        window.at(ProgramStage).close()
        window.at(PapersStage).close()
        window.at(LogStage).close()
        window.at(TransferStage).views.space.release()
        session.close()
        window.deleteLater()
    if not saved:
        raise ToreumaError(str(file), "the picture cannot be written", "choose another folder")


def _ask(window: MainWindow, key: str) -> None:
    """Choose what asks for a tool. Raises `ToreumaError`."""
    if window.stage == "bench":
        window.at(BenchStage).bench.open(key)
        if window.session.selection.operation is not None:
            window.at(BenchStage).bench.lab.take(window.session.selection.operation)
        return
    view, _, near = key.partition(" ")
    if window.stage == LogStage.key:
        log = window.at(LogStage).log
        _wait(lambda: not log.model.busy)
        known_views = [one.lower() for one in VIEWS_OF_LOG]
        if key.lower() in known_views:
            log.choose(known_views.index(key.lower()))
        return
    if window.stage == PapersStage.key:
        window.at(PapersStage).turn_to(key)
        return
    if window.stage == "shop":
        window.open_shop(view, near)
        return
    if window.stage == "transfer" and view in dict(VIEWS) and near in ("", "cut"):
        window.at(TransferStage).views.choose(view)
        window.at(TransferStage).views.near.setChecked(bool(near))
        return
    if window.stage == "operations" and key == "table":
        window.switch_table()
        return
    if window.stage == "operations" and key == "passes":
        QApplication.processEvents()
        if window.shown.reasons is not None:
            bar = window.shown.reasons.verticalScrollBar()
            bar.setValue(bar.maximum())
        return
    known = [one.key for one in window.at(ToolsStage).choice.wishes]
    if key not in known:
        window.at(ToolsStage).choice.close()
        window.session.close()
        raise JobError(f"wish {key}", "the tools stage has no such wish", f"choose from {', '.join(known) or 'none'}")
    window.at(ToolsStage).choice.choose(key)


def _study(window: MainWindow, path: Path, wish: str | None) -> None:
    """A program on the desk, at a line (``line 12``) or held against another one (``compare FILE``)."""
    window.take(path)
    desk = window.at(ProgramStage).desk
    _wait(lambda: desk.study is not None and not desk.busy)
    what, _, more = (wish or "").partition(" ")
    if what == "line" and more.isdigit():
        desk.editor.go_to(int(more))
    elif what == "compare":
        desk.compare_with(Path(more))
    desk.saved = desk.editor.toPlainText()


def _read(window: MainWindow, path: Path) -> None:
    """Let the window read a file, up to where the person decides."""
    faults: list[str] = []
    window.session.message.connect(lambda level, text: faults.append(text) if level == "error" else None)
    window.start_import(path)
    _wait(lambda: window.at(PartStage).imports.found is not None or bool(faults))
    if window.at(PartStage).imports.found is None:
        window.session.close()
        raise JobError(path.name, faults[0] if faults else "it was not read in time", "read another file")


def settle(session: Session, patience_ms: int = PATIENCE_MS) -> bool:
    """Let the window work until plan and proof are there; tells whether they are."""
    _wait(lambda: session.settled, patience_ms)
    return session.settled


def _wait(done: Callable[[], bool], patience_ms: int = PATIENCE_MS) -> None:
    """Sleep in the event loop until something is done, so that whoever does it has the processor."""
    loop, look = QEventLoop(), QTimer(interval=LOOK_MS)
    clock = QElapsedTimer()
    clock.start()
    look.timeout.connect(lambda: loop.quit() if done() or clock.elapsed() > patience_ms else None)
    if not done():
        look.start()
        loop.exec()
    QApplication.processEvents()
