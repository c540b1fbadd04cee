"""The table of everything the window can do: its words, its key, its place in the menus, and when it can be done."""

from typing import Any, Protocol, TypeVar

from toreuma.app.picture.section import SectionCanvas
from toreuma.app.session import Session
from toreuma.app.shell.actions import Action
from toreuma.app.shell.clipboard import Clipboard
from toreuma.app.shell.files import Files
from toreuma.app.shell.finder import Finder
from toreuma.app.shell.paper import Paper
from toreuma.app.stages.hold.stage import HoldStage
from toreuma.app.stages.operations.stage import OperationsStage
from toreuma.app.stages.part.stage import PartStage
from toreuma.app.stages.program.stage import ProgramStage
from toreuma.app.stages.stage import Stage
from toreuma.app.words import languages

__all__ = ["MENUS", "entries"]

MENUS = ("File", "Edit", "Part", "Route", "View", "Shop", "Help")


S = TypeVar("S", bound=Stage)


class Doings(Protocol):
    """What the table needs of a window."""

    session: Session
    files: Files
    clipboard: Clipboard
    paper: Paper
    finder: Finder
    canvas: SectionCanvas
    stages: dict[str, Any]
    shown: Stage

    @property
    def stage(self) -> str: ...
    def at(self, kind: type[S]) -> S: ...
    def browse_program(self) -> None: ...
    def close(self) -> bool: ...
    def set_stage(self, key: str) -> None: ...
    def open_help(self, key: str) -> None: ...
    def go_home(self) -> None: ...
    def another(self) -> object: ...
    def say_part(self) -> None: ...
    def open_lab(self) -> None: ...
    def switch_help(self) -> None: ...
    def switch_side(self) -> None: ...
    def play_to_fault(self) -> None: ...
    def switch_table(self) -> None: ...
    def switch_theme(self) -> None: ...
    def switch_units(self) -> None: ...
    def speak(self, code: str) -> None: ...


def entries(window: Doings) -> tuple[Action, ...]:
    """Every action of a window."""
    session, files, history = window.session, window.files, window.session.history
    part, route, program = window.at(PartStage), window.at(OperationsStage), window.at(ProgramStage)

    def has_job() -> bool:
        return session.job is not None

    def has_program() -> bool:
        return has_job() or program.at_desk

    def redoable() -> bool:
        return history.can_go_forth

    def do(name: str, words: str, key: str, run: object, **more: object) -> Action:
        return Action(name=name, words=words, key=key, run=run, **more)  # type: ignore[arg-type]

    return (
        do("new", "New part, last jobs", "Ctrl+N", window.go_home, button=True, tip="New part", menu="File"),
        do("open", "Open a job", "Ctrl+O", files.browse, button=True, tip="Open", menu="File"),
        do("import", "Read a drawing or model", "Ctrl+I", files.browse_import, menu="File"),
        do("read_program", "Read a program", "Ctrl+Shift+I", window.browse_program, menu="File"),
        do("save", "Save", "Ctrl+S", files.save, button=True, when=has_job, menu="File|"),
        do("save_as", "Save as", "Ctrl+Shift+S", files.save_as, when=has_job, menu="File"),
        do("copy_job", "Copy as a new job", "Ctrl+Shift+N", files.copy_job, when=has_job, menu="File"),
        do("text_of_program", "Program as a text", "Ctrl+Alt+E", program.edit_planned, when=has_job, menu="File|"),
        do(
            "save_program",
            "Save the program",
            "Ctrl+E",
            program.save,
            when=lambda: has_job() or program.at_desk,
            menu="File|",
        ),
        do("export", "Write DXF or STEP", "Ctrl+Shift+E", files.export, when=has_job, menu="File"),
        do("window", "Another window", "Ctrl+Shift+W", window.another, menu="File|"),
        do("close", "Close the window", "Ctrl+Q", window.close, menu="File"),
        do("undo", "Undo", "Ctrl+Z", session.undo, button=True, when=lambda: history.can_go_back, menu="Edit"),
        do("redo", "Redo", "Ctrl+Shift+Z", session.redo, button=True, when=lambda: history.can_go_forth, menu="Edit"),
        do(
            "copy",
            "Copy operation, feature or hold",
            "Ctrl+C",
            lambda: window.clipboard.copy(window.stage == HoldStage.key),
            when=has_job,
            menu="Edit|",
        ),
        do("paste", "Paste it into this job", "Ctrl+V", window.clipboard.paste, when=has_job, menu="Edit"),
        do("find", "Find", "Ctrl+K", lambda: window.finder.open(), button=True, menu="Edit|"),
        do("units", "Millimetre or inch", "Ctrl+U", window.switch_units, when=has_job, menu="Edit|"),
        do("line", "Say the part in words", "Ctrl+P", window.say_part, when=has_job, menu="Part"),
        do("mirror", "Turn the part end for end", "Ctrl+Shift+M", part.panel.mirror, when=has_job, menu="Part|"),
        do("scale", "Scale the part", "", part.panel.scale, when=has_job, menu="Part"),
        do("underlay", "Picture of a drawing behind the section", "", window.paper.switch, when=has_job, menu="Part|"),
        do("underlay_length", "Scale that picture", "", window.paper.ask, when=lambda: window.paper.waits, menu="Part"),
        do(
            "second_end",
            "Open the program of the second end",
            "Ctrl+Shift+B",
            files.open_second_end,
            when=has_job,
            menu="Part|",
        ),
        do("propose", "Propose the whole route", "Ctrl+R", session.propose_route, when=has_job, menu="Route"),
        do("double", "Double the operation", "Ctrl+D", route.panel.duplicate, when=has_job, menu="Route|"),
        do("lab", "Try the operation in the cut lab", "Ctrl+L", window.open_lab, when=has_job, menu="Route"),
        do("side", "First or second side", "Ctrl+Tab", window.switch_side, when=has_job, menu="Route|"),
        *(
            do(
                f"stage {stage.key}",
                stage.label,
                stage.shortcut,
                lambda s=stage.key: window.set_stage(s),
                menu="Shop" if stage.key == "shop" else "View",
            )
            for stage in window.stages.values()
        ),
        do("fit", "Fit the picture", "F", lambda: window.shown.fit(), menu="View|"),
        do("caliper", "Caliper", "M", window.canvas.toggle_caliper, menu="View"),
        do("table", "Section or table of operations", "L", window.switch_table, when=has_job, menu="View"),
        do("play", "Play the program", "Ctrl+Space", lambda: window.shown.player.toggle(), when=has_job, menu="View"),
        do("fault", "Play to the next fault", "Ctrl+Shift+Space", window.play_to_fault, when=has_job, menu="View"),
        do("theme", "Light or dark", "Ctrl+T", window.switch_theme, menu="View|"),
        *(
            do(f"language {code}", name, "", lambda c=code: window.speak(c), menu="View|" if code == "en" else "View")
            for code, name in languages().items()
        ),
        do("help", "Help on the thing in focus", "F1", window.switch_help, menu="Help"),
        do("help_line", "How a part is typed", "", lambda: window.open_help("line"), menu="Help"),
        do("help_kept", "What is kept, and when", "", lambda: window.open_help("kept"), menu="Help"),
        do("help_licences", "What it rests on", "", lambda: window.open_help("licences"), menu="Help"),
        do("help_door", "Where to begin", "", lambda: window.open_help("door"), menu="Help"),
        do("read_rack", "Read a list of tools", "", files.browse_rack, menu="Shop|"),
        do("write_rack", "Write the rack", "", files.export_rack, menu="Shop"),
    )
