"""The window: header, left panel of the stage, canvas, reasons, ribbon."""

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QByteArray, QSettings, QSize, Qt, QTimer
from PySide6.QtGui import QAction, QCloseEvent, QDragEnterEvent, QDropEvent, QKeySequence
from PySide6.QtWidgets import (
    QFileDialog,
    QHBoxLayout,
    QLabel,
    QMainWindow,
    QMessageBox,
    QSplitter,
    QStackedWidget,
    QStyle,
    QVBoxLayout,
    QWidget,
)

from toreuma.app.autosave import Autosave
from toreuma.app.bench.page import BenchPage
from toreuma.app.canvas.section import SectionCanvas
from toreuma.app.session import Session
from toreuma.app.theme import load_theme
from toreuma.app.tool_choice import ToolChoice
from toreuma.app.widgets.advice_panel import AdvicePanel
from toreuma.app.widgets.finder import Findable, Finder
from toreuma.app.widgets.first_page import FirstPage
from toreuma.app.widgets.hand_over_lanes import HandOverLanes
from toreuma.app.widgets.header import STAGES, Header
from toreuma.app.widgets.hold_panel import HoldPanel
from toreuma.app.widgets.import_panel import ImportPanel
from toreuma.app.widgets.operation_table import OperationTable
from toreuma.app.widgets.part_panel import PartPanel, feature_line
from toreuma.app.widgets.program_panel import ProgramPanel
from toreuma.app.widgets.proof_panel import ProofPanel
from toreuma.app.widgets.reasons import ReasonsPanel
from toreuma.app.widgets.ribbon import Ribbon
from toreuma.app.widgets.route import RoutePanel
from toreuma.app.widgets.run_ribbon import RunRibbon
from toreuma.app.widgets.stock_panel import StockPanel
from toreuma.app.widgets.tool_panel import ToolPanel, panel_for
from toreuma.app.widgets.tools_panel import ToolsPanel
from toreuma.app.widgets.transfer_panel import TransferPanel
from toreuma.app.widgets.transfer_views import TransferViews
from toreuma.core.errors import ToreumaError
from toreuma.core.findings import Finding
from toreuma.core.plan.sides.pair import second_end
from toreuma.engine.search import is_known
from toreuma.exchange.exports import export_file
from toreuma.exchange.reading import SUFFIXES
from toreuma.files.jobs import write_atomically
from toreuma.files.rack import rack_csv, read_rack, save_rack
from toreuma.shipped.library import catalogue

__all__ = ["MainWindow", "room_for"]

LEFT_PX, RIGHT_PX = 350, 340
MESSAGE_MS = 12_000
RECENT = 6
USUAL = QSize(1280, 800)


def room_for(available: QSize, style: QStyle) -> QSize:
    """The usual size, or as much of it as the screen has beside the window's own frame."""
    bar, edge = QStyle.PixelMetric.PM_TitleBarHeight, QStyle.PixelMetric.PM_MdiSubWindowFrameWidth
    frame = QSize(2 * style.pixelMetric(edge), style.pixelMetric(bar) + 2 * style.pixelMetric(edge))
    return USUAL.boundedTo(available - frame)


class MainWindow(QMainWindow):
    """One window, one job."""

    def __init__(self, session: Session, settings: QSettings, theme: str | None = None) -> None:
        super().__init__()
        self.session, self._settings = session, settings
        name = theme or str(settings.value("theme", "light"))
        self._theme = load_theme(name if name in ("light", "dark") else "light")
        self.stage = "part"
        self.setWindowTitle("Toreuma")
        self.setAcceptDrops(True)
        self.header = Header(session, self._theme)
        self.canvas = SectionCanvas(session, self._theme)
        self.part = PartPanel(session, self._theme)
        self.stock = StockPanel(session, self._theme)
        self.hold = HoldPanel(session, self._theme)
        self.route = RoutePanel(session, self._theme)
        self.transfer = TransferPanel(session, self._theme)
        self.proof = ProofPanel(session, self._theme)
        self.program = ProgramPanel(session, self._theme)
        self.program.setObjectName("programPanel")
        self.reasons = ReasonsPanel(session, self._theme)
        self.choice = ToolChoice(session)
        self.tools = ToolsPanel(session, self._theme, self.choice)
        self.advice = AdvicePanel(session, self._theme, self.choice)
        self.tool = ToolPanel(session, self._theme)
        self.tools.tabs.currentChanged.connect(lambda _: self._turn_right())
        self.tools.stations.list.currentRowChanged.connect(
            lambda _: self.tool.show_tool(self.tools.stations.selected())
        )
        self.canvas.choice = self.choice
        self.choice.changed.connect(self.canvas.update)
        self.bench = BenchPage(self._theme, session)
        self.imports = ImportPanel(session, self._theme)
        self.imports.finished.connect(self._on_import_over)
        self.ribbon = Ribbon(session, self._theme)
        self.lanes = HandOverLanes(session, self._theme, self.ribbon.height())
        self.run = RunRibbon(session, self._theme, self.ribbon.height())
        self.views = TransferViews(session, self._theme, self.canvas)
        self.views.chosen.connect(lambda _: self._turn_below())
        self.table = OperationTable(session, self._theme)
        self.first = FirstPage()
        self._autosave = Autosave(session, self)
        self._lay_out()
        self.finder = Finder(self.centralWidget(), self._findables)
        self._message_timer = QTimer(self, singleShot=True, interval=MESSAGE_MS)
        self._message_timer.timeout.connect(self._notice.hide)
        self._actions: list[QAction] = []
        self._make_actions()
        self.header.stage_chosen.connect(self.set_stage)
        self.header.asked.connect(self._asked)
        self.proof.chosen.connect(self._on_finding)
        self.first.wanted.connect(self.open_job)
        self.first.browse.connect(self.browse)
        session.message.connect(self.say)
        session.job_changed.connect(self._on_job)
        self._apply_theme()
        self._restore()
        self._on_job()
        self.set_stage("part")
        self.canvas.setFocus()

    # Layout

    def _lay_out(self) -> None:
        self.left = QStackedWidget()
        self._panels: dict[str, QWidget] = {
            "part": self.part,
            "stock": self.stock,
            "hold": self.hold,
            "tools": self.tools,
            "operations": self.route,
            "transfer": self.transfer,
            "proof": self.proof,
            "program": self.program,
        }
        for panel in self._panels.values():
            panel.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
            self.left.addWidget(panel)
        self.imports.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.left.addWidget(self.imports)
        self.splitter = QSplitter(Qt.Orientation.Horizontal)
        self.right = QStackedWidget()
        self.right.addWidget(self.reasons)
        self.right.addWidget(self.advice)
        self.right.addWidget(self.tool)
        self.middle = QStackedWidget()
        self.middle.addWidget(self.views)
        self.middle.addWidget(self.table)
        for widget in (self.left, self.middle, self.right):
            self.splitter.addWidget(widget)
        self.splitter.setHandleWidth(1)
        self.splitter.setStretchFactor(1, 1)
        self.splitter.setSizes([LEFT_PX, 600, RIGHT_PX])
        self.left.setMinimumWidth(250)
        self.right.setMinimumWidth(300)
        work = QWidget()
        column = QVBoxLayout(work)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.splitter, 1)
        self.below = QStackedWidget()
        self.below.setFixedHeight(self.ribbon.height())
        self.below.addWidget(self.ribbon)
        self.below.addWidget(self.lanes)
        self.below.addWidget(self.run)
        column.addWidget(self.below)
        self.pages = QStackedWidget()
        self.pages.addWidget(self.first)
        self.pages.addWidget(work)
        self.pages.addWidget(self.bench)
        self._notice = QLabel()
        self._notice.setWordWrap(True)
        self._notice.setContentsMargins(12, 6, 12, 6)
        self._notice.hide()
        centre = QWidget()
        whole = QVBoxLayout(centre)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addWidget(self.header)
        whole.addWidget(self._notice)
        bar = QHBoxLayout()
        bar.addWidget(self._autosave.bar)
        whole.addLayout(bar)
        whole.addWidget(self.pages, 1)
        self.setCentralWidget(centre)

    def _make_actions(self) -> None:
        session = self.session
        entries: list[tuple[str, str, Callable[[], object]]] = [
            ("Undo", "Ctrl+Z", session.undo),
            ("Redo", "Ctrl+Shift+Z", session.redo),
            ("Open a job", "Ctrl+O", self.browse),
            ("Save", "Ctrl+S", self.save),
            ("Save as", "Ctrl+Shift+S", self.save_as),
            ("Save the program", "Ctrl+E", self.program.save),
            ("Read a drawing or model", "Ctrl+I", self.browse_import),
            ("Open the program of the second end", "Ctrl+Shift+B", self.open_second_end),
            ("Write DXF or STEP", "Ctrl+Shift+E", self.export),
            ("Find", "Ctrl+K", self.finder.open),
            ("Millimetre or inch", "Ctrl+U", self.switch_units),
            ("Light or dark", "Ctrl+T", self.switch_theme),
            ("Fit the picture", "F", self._fit),
            ("Play the program", "Ctrl+Space", self._play),
            ("Propose the whole route", "Ctrl+R", self.session.propose_route),
            ("First or second side", "Ctrl+Tab", self.switch_side),
            ("Caliper", "M", self.canvas.toggle_caliper),
            ("Section or table of operations", "L", self.switch_table),
            ("Try the operation in the cut lab", "Ctrl+L", self.open_lab),
            ("Double the operation", "Ctrl+D", self.route.duplicate),
            *(
                (label, f"Ctrl+{number}", lambda s=stage: self.set_stage(s))
                for number, (stage, label) in enumerate(STAGES, 1)
            ),
        ]
        for text, key, run in entries:
            action = QAction(text, self)
            action.setShortcut(QKeySequence(key))
            action.setShortcutContext(Qt.ShortcutContext.WindowShortcut)
            action.triggered.connect(lambda _=False, r=run: r())
            self.addAction(action)
            self._actions.append(action)

    def _asked(self, name: str) -> None:
        {
            "undo": self.session.undo,
            "redo": self.session.redo,
            "open": self.browse,
            "save": self.save,
            "theme": self.switch_theme,
            "find": self.finder.open,
            "units": self.switch_units,
        }[name]()

    def _findables(self) -> list[Findable]:
        found = [
            Findable(action.text(), "command", action.trigger, action.shortcut().toString())
            for action in self._actions
            if action.text() != "Find"
        ]
        job = self.session.job
        if job is not None:
            for operation in job.operations:
                found.append(Findable(operation.name, "operation", lambda o=operation.id: self._go_operation(o)))
            for index, element in enumerate(job.part.outside):
                found.append(
                    Findable(element.name or f"Element {index + 1}", "surface", lambda i=index: self._go_element(i))
                )
            for index, element in enumerate(job.part.inside):
                name = f"{element.name or f'Element {index + 1}'}, bore"
                found.append(Findable(name, "surface", lambda i=index: self._go_element(i, "inside")))
            for index, feature in enumerate(job.part.features):
                line = feature_line(feature, self.session.system)
                found.append(Findable(line, "feature", lambda i=index: self._go_feature(i)))
            for tool in job.tools:
                users = [op.id for op in job.operations if tool.id in op.tools]
                if users:
                    found.append(Findable(f"{tool.id} {tool.name}", "tool", lambda o=users[0]: self._go_operation(o)))
        return found

    def _go_operation(self, operation: str) -> None:
        self.set_stage("operations")
        self.session.select(operation=operation)

    def _go_element(self, element: int, side: str = "outside") -> None:
        self.set_stage("part")
        self.session.select(element=element, side=side)

    def _go_feature(self, feature: int) -> None:
        self.set_stage("part")
        self.session.select(feature=feature)

    # State

    def set_stage(self, stage: str) -> None:
        """Change what the canvas emphasises and what the side panels edit."""
        self.stage = stage
        self.header.show_stage(stage)
        self.choice.set_active(stage == "tools")
        self._turn_page()
        if stage == "bench":
            return
        reading = stage == "part" and self.imports.is_busy
        self.left.setCurrentWidget(self.imports if reading else self._panels[stage])
        self.views.set_stage(stage)
        self._turn_below()
        if stage != "operations":
            self._show_table(False)
        self._turn_right()
        self.canvas.show_finding(None)
        self.canvas.set_stage(stage)
        self.reasons.set_stage(stage)

    def _on_job(self) -> None:
        job = self.session.job
        self._turn_page()
        self.setWindowTitle(f"{job.name} — Toreuma" if job else "Toreuma")

    def _fit(self) -> None:
        if self.stage == "transfer":
            self.views.fit()
        else:
            self.canvas.fit()

    def _play(self) -> None:
        (self.run if self.below.currentWidget() is self.run else self.ribbon).player.toggle()

    def _turn_below(self) -> None:
        """Below stands the time of what is shown: the side, the hand-over, or the whole run."""
        of_transfer = self.lanes if self.views.now == "hand-over" else self.run
        self.below.setCurrentWidget(of_transfer if self.stage == "transfer" else self.ribbon)

    def _turn_right(self) -> None:
        """What stands on the right: reasons, or on the tools stage the advice or the tool of a station."""
        beside = panel_for(self.tools.tabs.currentIndex(), self.advice, self.tool)
        self.right.setCurrentWidget(beside if self.stage == "tools" else self.reasons)

    def _turn_page(self) -> None:
        """The bench needs no job, nor does a drawing that is being read; everything else begins with one."""
        reading = self.stage == "part" and self.imports.is_busy
        self.pages.setCurrentIndex(2 if self.stage == "bench" else 1 if self.session.job or reading else 0)

    def _on_finding(self, finding: Finding) -> None:
        self.canvas.show_finding(finding)
        self.reasons.show_finding(finding)

    def switch_side(self) -> None:
        """The other side of a part that is cut in two holds."""
        whole = self.session.whole
        if whole is not None and len(whole.setups) > 1:
            self.session.show_side(1 - self.session.side)

    def switch_units(self) -> None:
        job = self.session.job
        if job is not None:
            self.session.change(job.changed(units="mm" if job.units == "inch" else "inch"))

    def switch_table(self) -> None:
        """In the middle: the section, or all operations in a table."""
        tabled = self.middle.currentWidget() is not self.table
        if tabled and self.stage != "operations":
            self.set_stage("operations")
        self._show_table(tabled)

    def _show_table(self, tabled: bool) -> None:
        """The table lists what the route does, and takes its room."""
        self.middle.setCurrentWidget(self.table if tabled else self.views)
        self.left.setVisible(not tabled)

    def open_lab(self) -> None:
        """The cut of the selected operation in the cut lab."""
        self.set_stage("bench")
        self.bench.open("cut lab")
        self.bench.lab.take(self.session.selection.operation or "")

    def switch_theme(self) -> None:
        self._theme = load_theme("dark" if self._theme.name == "light" else "light")
        self._settings.setValue("theme", self._theme.name)
        self._apply_theme()

    def _apply_theme(self) -> None:
        self.setPalette(self._theme.palette())
        self.setStyleSheet(self._theme.style_sheet())
        parts = (
            self.header,
            self.canvas,
            self.part,
            self.stock,
            self.hold,
            self.route,
            self.proof,
            self.program,
            self.reasons,
            self.ribbon,
            self.lanes,
            self.run,
            self.views,
            self.transfer,
            self.imports,
            self.tools,
            self.advice,
            self.tool,
            self.bench,
            self.table,
        )
        for part in parts:
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

    # Files

    def start_import(self, path: Path) -> None:
        """Read a drawing or model and show what it gives; the job stays until it is taken."""
        self.imports.start(path)
        self.set_stage("part")

    def _on_import_over(self) -> None:
        self._on_job()
        self.set_stage("part")
        self.canvas.update()

    def browse_import(self) -> None:
        pattern = "Drawings and models (*.dxf *.step *.stp);;All files (*)"
        name, _ = QFileDialog.getOpenFileName(self, "Read a drawing or model", "", pattern)
        if name:
            self.start_import(Path(name))

    def export(self) -> None:
        """Write the section as DXF, or the part as STEP."""
        if self.session.job is None:
            return
        pattern = (
            "DXF of section and toolpaths (*.dxf);;STEP of the part (*.step);;STEP of the stock at the cursor (*.stp)"
        )
        name, _ = QFileDialog.getSaveFileName(self, "Write DXF or STEP", f"{self.session.job.name}.dxf", pattern)
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
            self.say("error", str(error))
            return
        self.say("ok", f"Written: {path.name}")

    def open_job(self, name: str) -> None:
        if Path(name).suffix.lower() in SUFFIXES:
            self.start_import(Path(name))
            return
        if not self._may_leave():
            return
        if self.session.open(name):
            self._notice.hide()
            self._remember(name)
            self._autosave.look_for(self.session.path)

    def browse_rack(self) -> None:
        """Read a list of tools onto the rack; rows that are not understood are named."""
        name, _ = QFileDialog.getOpenFileName(self, "Read a list of tools", "", "Tables (*.csv *.json);;All files (*)")
        if name:
            self.read_rack(Path(name))

    def read_rack(self, path: Path) -> None:
        try:
            items, problems = read_rack(path, lambda code: is_known(catalogue(), code))
        except ToreumaError as error:
            self.say("error", str(error))
            return
        held = {item.code: item for item in (*self.choice.rack, *items)}
        self.choice.keep_rack(tuple(held.values()))
        words = f"{len(items)} tools read onto the rack"
        if problems:
            self.say("error", f"{words}; not understood: {'; '.join(problems[:4])}{' …' if len(problems) > 4 else ''}")
        else:
            self.say("ok", words)

    def export_rack(self) -> None:
        name, _ = QFileDialog.getSaveFileName(self, "Write the rack", "rack.csv", "Tables (*.csv *.json)")
        if name:
            self.write_rack(Path(name))

    def write_rack(self, path: Path) -> None:
        """The rack as CSV, or as JSON by the file's ending."""
        try:
            if path.suffix.lower() == ".json":
                save_rack(self.choice.rack, path)
            else:
                write_atomically(path, rack_csv(self.choice.rack))
        except (OSError, ToreumaError) as error:
            self.say("error", f"{path}: it cannot be written ({error}); choose another place")
            return
        self.say("ok", f"Written: {path.name}")

    def open_second_end(self) -> None:
        """Two parts back to back: the job of the other end, as a new one."""
        job = self.session.job
        if job is None:
            return
        try:
            other = second_end(job)
        except ToreumaError as error:
            self.say("error", str(error))
            return
        if self._may_leave():
            self.session.show(other)
            self.say("ok", "The second end, held on the finished one; save it under a name of its own.")

    def browse(self) -> None:
        pattern = "Jobs, drawings, models (*.toreuma *.dxf *.step *.stp);;All files (*)"
        name, _ = QFileDialog.getOpenFileName(self, "Open a job", "", pattern)
        if name:
            self.open_job(name)

    def save(self) -> bool:
        if self.session.path is None:
            return self.save_as()
        return self._save_to(self.session.path)

    def save_as(self) -> bool:
        if self.session.job is None:
            return False
        start = str(self.session.path or f"{self.session.job.name}.toreuma")
        name, _ = QFileDialog.getSaveFileName(self, "Save the job", start, "Toreuma jobs (*.toreuma)")
        if not name:
            return False
        path = Path(name)
        return self._save_to(path if path.suffix else path.with_suffix(".toreuma"))

    def _save_to(self, path: Path) -> bool:
        saved = self.session.save(path)
        if saved:
            self._remember(str(path))
            self._autosave.clean(path)
        return saved

    def _remember(self, name: str) -> None:
        if name.startswith("demo:"):
            return
        names = [name, *(n for n in self._recent() if n != name)][:RECENT]
        self._settings.setValue("recent", names)

    def _recent(self) -> list[str]:
        stored = self._settings.value("recent", [])
        names = [stored] if isinstance(stored, str) else list(stored or [])  # type: ignore[call-overload]
        return [str(name) for name in names if Path(str(name)).exists()]

    def _may_leave(self) -> bool:
        """Ask before changes are lost."""
        if not self.session.modified:
            return True
        answer = QMessageBox.question(
            self,
            "Toreuma",
            "The job has changes that are not saved.",
            QMessageBox.StandardButton.Save | QMessageBox.StandardButton.Discard | QMessageBox.StandardButton.Cancel,
        )
        if answer == QMessageBox.StandardButton.Save:
            return self.save()
        return answer == QMessageBox.StandardButton.Discard

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if any(url.isLocalFile() for url in event.mimeData().urls()):
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        for url in event.mimeData().urls():
            if url.isLocalFile():
                self.open_job(url.toLocalFile())
                return

    def _restore(self) -> None:
        geometry = self._settings.value("geometry")
        if isinstance(geometry, QByteArray):
            self.restoreGeometry(geometry)
        else:
            self.resize(room_for(self.screen().availableSize(), self.style()))
        self.first.show_recent(self._recent())

    def closeEvent(self, event: QCloseEvent) -> None:
        if not self._may_leave():
            event.ignore()
            return
        self._settings.setValue("geometry", self.saveGeometry())
        self._autosave.clean(self.session.path)
        self.imports.close_down()
        self.choice.close()
        self.views.space.release()
        self.session.close()
        event.accept()
