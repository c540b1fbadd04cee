"""Tools a person can choose from: parts that go together, and tools that are whole."""

from pydantic import Field

from toreuma.core.model.tool import (
    Bar,
    BarPuller,
    BarStop,
    BoringTool,
    ChamferMill,
    Drill,
    EndMill,
    FormTool,
    GroovingTool,
    Hand,
    Holder,
    Insert,
    KnurlingTool,
    PartingTool,
    PullTool,
    Reamer,
    Tap,
    ThreadMill,
    TurningTool,
)
from toreuma.core.model.tool import ThreadingTool as Threading
from toreuma.core.value import Name, Positive, Value

__all__ = ["Catalogue", "InsertCarrier", "RackItem", "Seat", "WholeTool"]

WholeTool = (
    PartingTool
    | GroovingTool
    | PullTool
    | FormTool
    | Threading
    | Drill
    | Reamer
    | Tap
    | EndMill
    | ChamferMill
    | ThreadMill
    | KnurlingTool
    | BarStop
    | BarPuller
)


class Seat(Value):
    """Which inserts fit: shape, inscribed circle and clearance angle."""

    shape: Name
    ic_mm: Positive
    clearance_deg: float = Field(ge=0, le=35)

    def takes(self, insert: Insert) -> bool:
        same = insert.shape == self.shape and abs(insert.ic_mm - self.ic_mm) < 0.02
        return same and abs(insert.clearance_deg - self.clearance_deg) < 0.1


class InsertCarrier(Value):
    """A holder or a boring bar by its code, and the inserts it takes."""

    code: Name
    hand: Hand = "right"
    seat: Seat
    holder: Holder | None = None
    bar: Bar | None = None
    clamping: Name = ""

    def with_insert(self, insert: Insert, tool_id: str, station: int = 1) -> TurningTool | BoringTool:
        """The carrier with an insert in it, as a tool of a job."""
        fields = {"id": tool_id, "name": f"{insert.code} in {self.code}", "station": station, "hand": self.hand}
        if self.bar is not None:
            return BoringTool(insert=insert, bar=self.bar, **fields)
        assert self.holder is not None
        return TurningTool(insert=insert, holder=self.holder, **fields)


class Catalogue(Value):
    """Inserts, what carries them, and whole tools. ``source`` says where the sizes come from."""

    source: str = ""
    inserts: tuple[Insert, ...] = Field(default=(), max_length=20000)
    carriers: tuple[InsertCarrier, ...] = Field(default=(), max_length=20000)
    tools: tuple[WholeTool, ...] = Field(default=(), max_length=20000)


class RackItem(Value):
    """Something in the person's own drawer: its code, how many edges are left, where it sits."""

    code: Name
    edges_left: int = Field(default=0, ge=0, le=100_000)
    place: Name = ""
    price: float = Field(default=0.0, ge=0, le=1e6, description="Of one piece, in the shop's currency")
    measured: Name = Field(default="", description="Sizes as measured, in the person's words")
    note: Name = ""
