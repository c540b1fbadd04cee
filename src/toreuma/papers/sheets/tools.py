"""The tool list: what is taken off the rack, and how many edges the batch uses up."""

from toreuma.core.model import Tool
from toreuma.papers.blocks import Cell, Sheet, Table
from toreuma.papers.dossier import Dossier
from toreuma.papers.say import Say

__all__ = ["tool_lists"]


def tool_lists(dossier: Dossier) -> tuple[Sheet, ...]:
    """One list for the whole job."""
    say = Say(dossier.system)
    uses = {one.tool.id: one for one in dossier.edges}
    every = {tool.id: tool for plan in dossier.sides for tool in plan.job.tools}
    planned = {name for plan in dossier.sides for one in plan.operations if one.motions for name in one.operation.tools}
    rows, unknown = [], False
    for tool in sorted(every.values(), key=lambda one: (one.station, one.id)):
        if tool.id not in planned:
            continue
        use = uses.get(tool.id)
        known = use is not None and use.share is not None
        unknown = unknown or (use is not None and bool(use.unknown))
        rows.append(
            (
                Cell(f"{tool.station}"),
                Cell(say.tool(tool), small=f"{hand}-hand" if (hand := say.hand(tool)) else ""),
                Cell(say.cutting(tool), small=say.carrier(tool)),
                Cell(_place(dossier, say, tool)),
                Cell(f"{use.cutting_min:.2f}" if use is not None else "–"),
                Cell(str(use.parts_per_edge) if known and use is not None else "–"),
                Cell(str(use.edges) if known and use is not None else "–"),
                Cell(f"{use.inserts}{' +' if use.unknown else ''}" if known and use is not None else "–"),
                Cell(box=True),
            )
        )
    columns = (
        ("station", "right", 7.0),
        ("tool", "left", 19.0),
        ("insert or cutter; holder", "left", 27.0),
        ("lies at", "left", 10.0),
        ("cuts, min a part", "right", 9.0),
        ("parts an edge", "right", 8.0),
        ("edges for the batch", "right", 8.0),
        ("have ready", "right", 7.0),
        ("there", "left", 5.0),
    )
    batch = dossier.job.stock.supply.batch
    note = (
        f"For a batch of {batch}. Edge life is an estimate (Taylor, typical exponents): cutting time over life; edges "
        "of an insert counted on both faces where it has two. – : no life is known of these cuts."
    )
    if unknown:
        note += " + : some cuts of this tool have no known life and are not counted."
    return (Sheet("tools", "Tool list", f"{len(rows)} tools", (Table("", columns, tuple(rows), note),)),)


def _place(dossier: Dossier, say: Say, tool: Tool) -> str:
    """Where its pieces lie on the rack, and how many edges are left there."""
    found = [dossier.rack[code] for code in say.codes(tool) if code in dossier.rack]
    words = [f"{one.place or 'on the rack'}{f', {one.edges_left} edges' if one.edges_left else ''}" for one in found]
    return "; ".join(dict.fromkeys(words)) or "–"
