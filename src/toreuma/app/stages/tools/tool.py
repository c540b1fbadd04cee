"""Right panel while the stations are shown: the tool of the selected station, drawn and with its sizes to type."""

from toreuma.app.forms.rows import RowColumn
from toreuma.app.picture.tool_drawing import CodeDrawing
from toreuma.app.session import Session
from toreuma.app.theme import Theme
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.kinds.field import Field
from toreuma.core.model import Job
from toreuma.core.model.properties import Property, properties_of, with_property
from toreuma.core.units import System, show

__all__ = ["ToolPanel"]

DRAWING_PX = 210
MOUNTS = (("still", "still"), ("driven, along Z", "axial"), ("driven, along X", "radial"))
HANDS = (("Right hand", "right"), ("Left hand", "left"))


class ToolPanel(RowColumn):
    """Every size stands with its ISO 13399 symbol; a typed one changes the shape at once."""

    def __init__(self, session: Session, theme: Theme) -> None:
        self.tool_id = ""
        self.drawing: CodeDrawing | None = None
        super().__init__(session, theme)

    def show_tool(self, tool_id: str) -> None:
        self.tool_id = tool_id
        self.refresh()

    def _fill(self) -> None:
        job = self.session.job
        tool = job.tool(self.tool_id) if job is not None else None
        if job is None or tool is None:
            if self.start(("none",)):
                self.note("Select a station with a tool to see its sizes; put tools in from the list of what to cut.")
                self.column.addStretch(1)
            return
        properties = properties_of(tool)
        live = job.machine.carrier_of(tool.station).live is not None
        if self.start((tool.id, tool.kind, live, tuple(one.path for one in properties))):
            self.text("title", "title", "")
            self.drawing = CodeDrawing(self.theme)
            self.drawing.setFixedHeight(DRAWING_PX)
            self.add(self.drawing)
            self.heading("Sizes, by ISO 13399")
        self.text("title", "title", f"{tool.id}  {tool.name}")
        if self.drawing is not None:
            self.drawing.show_tool(shape_of(tool), sizes_of(properties, self.session.system))
        self.line("name", "Name", tool.name, lambda j, text: _changed(j, tool.id, name=text))
        self.choice("hand", "Hand", HANDS, tool.hand, lambda j, hand: _changed(j, tool.id, hand=hand))
        if live:
            self.choice("mount", "Held", MOUNTS, tool.mount, lambda j, mount: _changed(j, tool.id, mount=mount))
        for one in properties:
            self._property(tool.id, one)

    def _property(self, tool_id: str, one: Property) -> None:
        label = f"{one.label} {one.symbol}".strip()
        field = Field(one.path[-1], label, one.unit, empty="usual" if one.value is None else "")
        self.typed(
            ".".join(one.path),
            field,
            one.value,
            lambda job, number: job.changed(
                tools=tuple(with_property(t, one.path, number) if t.id == tool_id else t for t in job.tools)
            ),
        )


def sizes_of(properties: tuple[Property, ...], system: System) -> tuple[str, ...]:
    """Sizes that have a symbol, as they are written on a drawing."""
    found = [one for one in properties if one.symbol and one.value is not None]
    return tuple(f"{one.symbol} {show(one.value or 0.0, one.unit, system, trim=True).number}" for one in found)


def _changed(job: Job, tool_id: str, **fields: object) -> Job:
    return job.changed(tools=tuple(t.changed(**fields) if t.id == tool_id else t for t in job.tools))
