"""The window: the header, and below it what the stage that is shown wants to see."""

from pathlib import Path
from typing import TypeVar

from PySide6.QtCore import QByteArray, QSettings, QSize, Qt, QTimer
from PySide6.QtGui import QCloseEvent, QDragEnterEvent, QDropEvent, QShowEvent
from PySide6.QtWidgets import (
    QApplication,
    QFileDialog,
    QHBoxLayout,
    QMainWindow,
    QSplitter,
    QStackedWidget,
    QStyle,
    QVBoxLayout,
    QWidget,
)

from toreuma.app.forms.label import Label
from toreuma.app.picture.section import SectionCanvas
from toreuma.app.session import Session
from toreuma.app.shell.actions import Actions
from toreuma.app.shell.clipboard import Clipboard
from toreuma.app.shell.entries import MENUS, entries
from toreuma.app.shell.files import Files
from toreuma.app.shell.findables import Ways, findables, meant
from toreuma.app.shell.finder import Finder
from toreuma.app.shell.first_page import FirstPage
from toreuma.app.shell.header import Header
from toreuma.app.shell.help_panel import HelpPanel, Hint, own_page, topic_of
from toreuma.app.shell.last_run import LastRun
from toreuma.app.shell.left_work import LeftWork
from toreuma.app.shell.new_strip import USUAL_NAME
from toreuma.app.shell.paper import Paper
from toreuma.app.shell.trouble import Trail
from toreuma.app.stages.all import STAGES
from toreuma.app.stages.bench.stage import BenchStage
from toreuma.app.stages.operations.stage import OperationsStage
from toreuma.app.stages.part.stage import PartStage
from toreuma.app.stages.program.stage import ProgramStage
from toreuma.app.stages.proof.stage import ProofStage
from toreuma.app.stages.shop.stage import ShopStage
from toreuma.app.stages.stage import Shared, Stage, Themed
from toreuma.app.stages.tools.stage import ToolsStage
from toreuma.app.theme import load_theme
from toreuma.app.time.ribbon import Ribbon
from toreuma.app.words import languages, speak, tr
from toreuma.core.errors import ToreumaError
from toreuma.core.model import Job
from toreuma.engine.as_job import TakenAsJob
from toreuma.engine.fresh import new_job, starter_line
from toreuma.engine.help import page_of
from toreuma.engine.offers import Offer

__all__ = ["MainWindow", "room_for"]

LEFT_PX, RIGHT_PX = 350, 340
MESSAGE_MS = 12_000
PICTURES = (".png", ".jpg", ".jpeg", ".bmp", ".webp", ".svg")
PROGRAMS = (".nc", ".cnc", ".txt", ".tap", ".mpf", ".min", ".eia", ".prg", ".iso", ".ngc", ".din", ".p-1")
USUAL = QSize(1280, 800)

S = TypeVar("S", bound=Stage)


def room_for(available: QSize, style: QStyle) -> QSize:
    """The usual size, or as much of it as the screen has beside the window's own frame."""
    bar, edge = QStyle.PixelMetric.PM_TitleBarHeight, QStyle.PixelMetric.PM_MdiSubWindowFrameWidth
    frame = QSize(2 * style.pixelMetric(edge), style.pixelMetric(bar) + 2 * style.pixelMetric(edge))
    return USUAL.boundedTo(available - frame)


def _show(stack: QStackedWidget, widget: QWidget | None) -> None:
    """Show a widget in its room, put there on first use; nothing gives the room to others."""
    stack.setVisible(widget is not None)
    if widget is None:
        return
    if stack.indexOf(widget) < 0:
        widget.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        stack.addWidget(widget)
    stack.setCurrentWidget(widget)


_WINDOWS: list["MainWindow"] = []
"""Windows opened from another one, kept as long as they are open."""


class MainWindow(QMainWindow):
    """One window, one job."""

    def __init__(self, session: Session, settings: QSettings, theme: str | None = None) -> None:
        super().__init__()
        self.session, self._settings = session, settings
        name = theme or str(settings.value("theme", "light"))
        self._theme = load_theme(name if name in ("light", "dark") else "light")
        self.setWindowTitle("Toreuma")
        self.setAcceptDrops(True)
        self.canvas = SectionCanvas(session, self._theme)
        self.ribbon = Ribbon(session, self._theme)
        shared = Shared(session, self._theme, self.canvas, self.ribbon)
        self.stages = {kind.key: kind(shared) for kind in STAGES}
        self.shown: Stage = self.at(PartStage)
        self.first = FirstPage(self._theme, settings)
        session.usual = self.first.strip.usual()
        self.at_home = True
        self._helped: tuple[str, tuple[str, str] | None] = ("", None)
        self._seen_job: Job | None = None
        self.last_run = LastRun(self.session)
        self.files = Files(self, session, settings, self.at(ToolsStage).choice, self.start_import)
        self.left_work = LeftWork(self, self.first, self.files)
        self.at(ToolsStage).choice.rack_changed.connect(self.at(ShopStage).renew)
        self.clipboard = Clipboard(session)
        self.paper = Paper(self, session, self.canvas)
        self.actions_known = Actions(self, entries(self))
        self.trail = Trail(self, session, self.actions_known, self.say, self.files.keep.journal)
        self.header = Header(session, self._theme, tuple(self.stages.values()), self.actions_known)
        self._lay_out()
        over: QWidget = self._whole
        ways = Ways(self.set_stage, self.open_shop, self.open_bench, self.open_help)
        offers = lambda: findables(self.session, self.actions_known, ways)  # noqa: E731
        self.finder = Finder(over, offers, lambda text: meant(text, ways))
        self._message_timer = QTimer(self, singleShot=True, interval=MESSAGE_MS)
        self._message_timer.timeout.connect(self._notice.hide)
        self._connect()
        self._apply_theme()
        self._restore()
        self._on_job()
        self.set_stage("part")
        self.left_work.look()
        if session.job is None:
            self.at_home = True
            self.first.begin_typing()
        else:
            self.canvas.setFocus()

    def at(self, kind: type[S]) -> S:
        """The stage of a kind."""
        stage = self.stages[kind.key]
        assert isinstance(stage, kind)
        return stage

    @property
    def stage(self) -> str:
        """The key of the stage that is shown."""
        return self.shown.key

    # Layout

    def _lay_out(self) -> None:
        self.left, self.middle, self.right, self.bars = (QStackedWidget() for _ in range(4))
        self.below, self.pages = QStackedWidget(), QStackedWidget()
        centre, column = QWidget(), QVBoxLayout()
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.bars)
        column.addWidget(self.middle, 1)
        centre.setLayout(column)
        self.splitter = QSplitter(Qt.Orientation.Horizontal)
        for widget in (self.left, centre, self.right):
            self.splitter.addWidget(widget)
        self.splitter.setHandleWidth(1)
        self.splitter.setStretchFactor(1, 1)
        self.splitter.setSizes([LEFT_PX, 600, RIGHT_PX])
        self.left.setMinimumWidth(250)
        self.right.setMinimumWidth(300)
        self.below.setFixedHeight(self.ribbon.height())
        work = QWidget()
        column = QVBoxLayout(work)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.splitter, 1)
        column.addWidget(self.below)
        self.pages.addWidget(self.first)
        self.pages.addWidget(work)
        self._work = work
        self._notice = Label()
        self._notice.setWordWrap(True)
        self._notice.setContentsMargins(12, 6, 12, 6)
        self._notice.hide()
        whole = QWidget()
        column = QVBoxLayout(whole)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        self.hint, self.help = Hint(), HelpPanel(self._theme)
        bars = (self.left_work.bar, self.files.opening.bar, self.files.shared.bar, self.paper.bar)
        for part in (self.header, self._notice, *bars, self.hint):
            column.addWidget(part)
        beside = QHBoxLayout()
        beside.setSpacing(0)
        beside.addWidget(self.pages, 1)
        beside.addWidget(self.help)
        column.addLayout(beside, 1)
        self._whole: QWidget = whole
        self.setCentralWidget(whole)
        self.actions_known.fill(self.menuBar(), MENUS)

    def _connect(self) -> None:
        self.header.stage_chosen.connect(self.set_stage)
        self.header.asked.connect(self.actions_known.do)
        self.help.closed.connect(self.help.hide)
        self.hint.closed.connect(self._on_hint)
        for stage in self.stages.values():
            stage.turned.connect(self._turn)
        self.at(PartStage).imports.finished.connect(self._on_import_over)
        self.first.wanted.connect(self.files.open_job)
        self.first.browse.connect(self.files.browse)
        self.first.read.connect(self.files.browse_import)
        self.first.program.connect(self.browse_program)
        self.first.copied.connect(self.files.begin_from)
        self.first.forgotten.connect(self._on_forgotten)
        self.first.begun.connect(self.begin_part)
        self.left_work.looked_at.connect(self.go_home)
        self.left_work.taken.connect(self._on_taken)
        self.at(PartStage).imports.may_leave = self.files.may_leave
        self.at(ProgramStage).taken.connect(self._on_program_taken)
        self.files.opened.connect(self._notice.hide)
        self.session.message.connect(self.say)
        self.session.wanted.connect(self.actions_known.do)
        self.session.job_changed.connect(self._on_job)

    # State

    def go_home(self) -> None:
        """The first page, whatever is open."""
        self.at_home = True
        self.first.show_recent(self.files.recent(), self.files.states())
        self.left_work.look()
        self._turn()
        self.header.refresh()
        self.first.begin_typing()

    def begin_part(self, starter: str = "") -> None:
        """A job of a new part with what the strip says, ready to be typed."""
        name, system, material, machine = self.first.strip.wanted()
        line = starter_line(starter, system) if starter else ""
        if starter and name == USUAL_NAME:
            name = starter
        try:
            job, note = new_job(name, system, material, machine, line)
        except ToreumaError as error:
            self.first.strip.say("error", f"{error.what}; {error.cure}")
            return
        if not self.files.may_leave():
            return
        self.first.strip.keep(job.stock.material.name)
        self.session.usual = self.first.strip.usual()
        self.session.show(job)
        self.set_stage(PartStage.key)
        if note:
            self.say("warning", note[:1].upper() + note[1:])
        self.at(PartStage).panel.line.select_all()

    def topic(self) -> str:
        """What help is wanted about: the thing in focus, what is selected, else the stage."""
        said, job = topic_of(QApplication.focusWidget()), self.session.job
        if said:
            return said
        if self.at_home or not self.shown.is_ready:
            return "door"
        chosen = self.session.selection
        operation = job.operation(chosen.operation) if job is not None and chosen.operation else None
        if operation is not None:
            return f"operation:{operation.kind}"
        if job is not None and chosen.feature is not None and chosen.feature < len(job.part.features):
            return f"feature:{job.part.features[chosen.feature].kind}"
        return f"stage:{self.shown.key}"

    def switch_help(self) -> None:
        """Help on the thing in focus; the same key closes it."""
        topic, focus = self.topic(), QApplication.focusWidget()
        own = own_page(focus) if focus is not None and focus.isVisible() else None
        seen = (page_of(topic).key, own)
        if self.help.isVisible() and self._helped == seen:
            self.help.hide()
            return
        self._helped = seen
        self.help.search.clear()
        self.help.show_page(topic, own)

    def open_help(self, key: str) -> None:
        """A page of help beside whatever is shown."""
        self.help.search.clear()
        self.help.show_page(key)

    def open_shop(self, kind: str, name: str = "") -> None:
        """A kind of the shop, and an entry of it."""
        self.set_stage(ShopStage.key)
        self.at(ShopStage).shop.open(kind, name)

    def open_bench(self, page: str, typed: str = "") -> None:
        """A page of the bench, with what is asked there."""
        self.set_stage(BenchStage.key)
        self.at(BenchStage).bench.open(page, typed)

    def _on_forgotten(self, name: str) -> None:
        self.files.forget(name)
        self.first.show_recent(self.files.recent(), self.files.states())

    def _on_hint(self, key: str) -> None:
        self._settings.setValue(f"hint/{key}", True)
        self.hint.hide()

    def another(self) -> "MainWindow":
        """Another window, for another job."""
        window = MainWindow(Session(), self._settings)
        _WINDOWS.append(window)
        window.destroyed.connect(lambda: _WINDOWS.remove(window) if window in _WINDOWS else None)
        window.show()
        return window

    def _on_taken(self, offer: Offer, beside: bool) -> None:
        """Work that was not saved is taken up: here, or where this window has work of its own in another one, with
        the file as it was saved ``beside`` it."""
        window = self.another() if self.session.modified or beside else self
        if not window.left_work.take(offer):
            return
        window.set_stage(PartStage.key)
        if beside and not self.session.modified and offer.left.state.file is not None:
            self.files.open_job(str(offer.left.state.file))

    def speak(self, code: str) -> None:
        """Another language from the next window on; what is open keeps its words."""
        self._settings.setValue("language", code)
        speak(code)
        self.say("ok", f"{languages()[code]}: {tr('spoken in the next window that is opened (Ctrl+Shift+W)')}")

    def say_part(self) -> None:
        """The line of the part, ready to be typed."""
        self.set_stage(PartStage.key)
        self.at(PartStage).panel.line.select_all()

    def set_stage(self, key: str) -> None:
        """Show another stage, or the same one afresh."""
        self.at_home = False
        if key != self.shown.key:
            self.shown.leave()
        self.trail.log.did(f"stage {key}")
        self.shown = self.stages[key]
        self.canvas.show_look(self.shown.look)
        with self.session.quiet():
            self.shown.enter()
            self._turn()

    def _turn(self) -> None:
        """Put everything where the stage wants it."""
        stage = self.shown
        ready = stage.is_ready and not self.at_home
        self.header.show_stage(stage.key if ready else "")
        topic = f"stage:{stage.key}" if ready else "door"
        self.hint.show_for(topic, ready and not self._settings.value(f"hint/{topic}", False, bool))
        if self.help.isVisible() and not self.help.search.text():
            self.help.show_page(self.topic())
        _show(self.pages, (stage.page or self._work) if ready else self.first)
        if stage.page is not None or not ready:
            return
        _show(self.left, stage.left)
        _show(self.bars, stage.bar)
        _show(self.middle, stage.middle)
        _show(self.right, stage.right)
        _show(self.below, stage.below)

    def _on_job(self) -> None:
        job = self.session.job
        if job is not self._seen_job and self.session.history.saved is self.session.whole:
            self.at_home = False  # another job was opened
            if job is not None:
                self.last_run.look(job)
        self._seen_job = job
        self._turn()
        self.setWindowTitle(f"{job.name}[*] — Toreuma" if job else "Toreuma")
        self.setWindowModified(self.session.modified)

    def switch_side(self) -> None:
        """The other side of a part that is cut in two holds."""
        whole = self.session.whole
        if whole is not None and len(whole.setups) > 1:
            self.session.show_side(1 - self.session.side)

    def play_to_fault(self) -> None:
        """Run the program up to the next place where something goes wrong, in the proof stage."""
        self.set_stage(ProofStage.key)
        self.at(ProofStage).play_to_fault()

    def switch_units(self) -> None:
        job = self.session.job
        if job is not None:
            self.session.change(job.changed(units="mm" if job.units == "inch" else "inch"))

    def switch_table(self) -> None:
        """In the middle: the section, or all operations in a table."""
        if self.stage != OperationsStage.key:
            self.set_stage(OperationsStage.key)
        self.at(OperationsStage).turn()

    def open_lab(self) -> None:
        """The cut of the selected operation in the cut lab."""
        self.set_stage(BenchStage.key)
        bench = self.at(BenchStage).bench
        bench.open("cut lab")
        bench.lab.take(self.session.selection.operation or "")

    def switch_theme(self) -> None:
        self._theme = load_theme("dark" if self._theme.name == "light" else "light")
        self._settings.setValue("theme", self._theme.name)
        with self.session.quiet():
            self._apply_theme()

    def _apply_theme(self) -> None:
        self.setPalette(self._theme.palette())
        self.setStyleSheet(self._theme.style_sheet())
        own: tuple[Themed, ...] = (self.header, self.canvas, self.ribbon, self.first, self.help)
        for part in (*own, *(one for stage in self.stages.values() for one in stage.themed)):
            part.set_theme(self._theme)

    def say(self, level: str, text: str) -> None:
        """A line under the header; errors stay until something else happens."""
        self._notice.setObjectName(level)
        self._notice.style().unpolish(self._notice)
        self._notice.style().polish(self._notice)
        self._notice.setText(text)
        self._notice.show()
        self._message_timer.stop()
        if level != "error":
            self._message_timer.start()

    # Files that come, and the end

    def start_import(self, path: Path) -> None:
        """Read a drawing or model and show what it gives; the job stays until it is taken."""
        self.at(PartStage).read(path)
        self.set_stage(PartStage.key)

    def _on_import_over(self) -> None:
        self._on_job()
        self.set_stage(PartStage.key)
        self.canvas.update()

    def take(self, path: Path) -> None:
        """Any file that comes: a job, a drawing, entries of a shop, a list of tools, a picture of a drawing."""
        kind = path.suffix.lower()
        if kind == ".csv":
            self.files.read_rack(path)
        elif kind == ".json":
            self.open_shop("machine")
            self.at(ShopStage).shop.import_from(path)
        elif kind in PICTURES and self.session.job is not None:
            self.paper.show(path)
        elif kind in PICTURES:
            self.say("warning", "A picture of a drawing lies behind a part: begin one, then drop the picture again.")
        elif kind in PROGRAMS:
            self.open_program(path)
        else:
            self.files.open_job(str(path))

    def open_program(self, path: Path) -> None:
        """A program that nobody planned, on the desk of its stage."""
        if self.at(ProgramStage).open_program(path):
            self.set_stage(ProgramStage.key)

    def _on_program_taken(self, found: TakenAsJob) -> None:
        """A program became a job: it stands on the stage of operations, and what is assumed stands below."""
        if not self.files.may_leave():
            return
        self.at(ProgramStage).leave_desk()
        self.session.show(found.job)
        self.set_stage(OperationsStage.key)
        self.say("warning", "; ".join([tr("A job as the program was written, not saved yet"), *found.left_out]))

    def browse_program(self) -> None:
        kinds = " ".join(f"*{one}" for one in PROGRAMS)
        name, _ = QFileDialog.getOpenFileName(self, tr("Read a program"), "", f"Programs ({kinds});;All files (*)")
        if name:
            self.open_program(Path(name))

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if any(url.isLocalFile() for url in event.mimeData().urls()):
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        for url in event.mimeData().urls():
            if url.isLocalFile():
                self.take(Path(url.toLocalFile()))
                return

    def _restore(self) -> None:
        geometry = self._settings.value("geometry")
        if isinstance(geometry, QByteArray):
            self.restoreGeometry(geometry)
        else:
            self.resize(room_for(self.screen().availableSize(), self.style()))
        self.first.show_recent(self.files.recent(), self.files.states())

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.trail.watch()

    def closeEvent(self, event: QCloseEvent) -> None:
        if not self.files.may_leave() or not self.at(ProgramStage).may_leave():
            event.ignore()
            return
        self._settings.setValue("geometry", self.saveGeometry())
        self.left_work.close()
        self.files.opening.close()
        self.paper.close()
        self.files.shared.let_go()
        self.files.keep.close()
        self.trail.log.close()
        for stage in self.stages.values():
            stage.close()
        self.last_run.close()
        self.session.close()
        event.accept()
