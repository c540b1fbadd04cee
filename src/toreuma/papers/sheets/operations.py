"""The operation sheet: what is cut in which order, with the metal after each operation."""

from toreuma.core.cutting.figures import Figure
from toreuma.core.kinds.operations import OPERATIONS
from toreuma.core.plan import Plan
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.papers.blocks import Cell, Sheet, Table
from toreuma.papers.dossier import Dossier
from toreuma.papers.picture.views import metal_after
from toreuma.papers.say import Say, clock
from toreuma.papers.sheets.setup import side_words

__all__ = ["operation_sheets"]

ROOM_MM = (70.0, 32.0)
SHOWN = (
    Figure.SPEED, Figure.CLAMP, Figure.TURNS, Figure.FEED, Figure.FEED_NEAR_CENTRE, Figure.FEED_OF_TOOTH,
    Figure.FEED_A_MINUTE, Figure.DEPTH, Figure.PASSES, Figure.HOLE_DEPTH, Figure.PECKS, Figure.PLUNGES,
)  # fmt: skip
"""Numbers of an operation that somebody at the machine looks for."""


def operation_sheets(dossier: Dossier) -> tuple[Sheet, ...]:
    """One sheet a hold."""
    return tuple(_sheet(dossier, number, plan) for number, plan in enumerate(dossier.sides))


def _sheet(dossier: Dossier, number: int, plan: Plan) -> Sheet:
    say = Say(dossier.system)
    rows = tuple(_row(place, one, plan, say) for place, one in enumerate(plan.operations, start=1))
    columns = (
        ("", "right", 4.0),
        ("operation", "left", 22.0),
        ("numbers", "left", 27.0),
        ("time, min", "right", 8.0),
        ("metal after it", "left", 39.0),
    )
    times = plan.times
    parts = f"cutting {clock(times.cutting_s)}, rapids {clock(times.rapid_s)}, changes and waits {clock(times.idle_s)}"
    total = f"Side in {clock(times.total_s)} min: {parts}."
    note = f"{total} Dark: what the operation takes. The pictures are not to a scale."
    table = Table("", columns, rows, note)
    return Sheet("operations", "Operation sheet", side_words(dossier, number), (table,))


def _row(place: int, planned: OperationPlan, plan: Plan, say: Say) -> tuple[Cell, ...]:
    operation = planned.operation
    name = operation.name or OPERATIONS[operation.kind].label
    tools = [tool for identifier in operation.tools if (tool := plan.job.tool(identifier)) is not None]
    told = "; ".join(f"station {tool.station}, {say.tool(tool)}" for tool in tools)
    if not planned.motions:
        why = planned.findings[0].what if planned.findings else "nothing is cut"
        return Cell(str(place)), Cell(name, small=told), Cell(f"NOT PLANNED: {say.text(why)}"), Cell("–"), Cell("")
    svg, _ = metal_after(plan.scene, planned.before, planned.after, ROOM_MM)
    numbers = [
        f"{(evidence.symbol if evidence.unit else '') or evidence.name} {say.of(evidence.number, evidence.unit)}"
        for figure in SHOWN
        if (evidence := planned.reasons.get(figure)) is not None
    ]
    governed = f"governed by {planned.governed_by}" if planned.governed_by else ""
    return (
        Cell(str(place)),
        Cell(name, small=told),
        Cell(" · ".join(numbers), small=governed),
        Cell(clock(planned.times.total_s)),
        Cell(svg=svg),
    )
