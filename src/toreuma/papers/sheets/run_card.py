"""The run card: bars, times, and when to look, for a batch that is watched and for one that is not."""

from collections.abc import Iterator

from toreuma.core.measure import Characteristic
from toreuma.core.plan.asked.warm_up import parts_until_warm
from toreuma.papers.blocks import Block, Cell, Facts, Notes, Sheet, Table
from toreuma.papers.dossier import Dossier
from toreuma.papers.say import Say, clock
from toreuma.papers.sheets.setup import blank_words

__all__ = ["run_cards"]

ROWS = 12
BARS = "bars for the batch"
TAKEN = {
    "falls": "falls into the chips: put a basket or a soft tray there",
    "caught": "goes into the catcher",
    "picked": "is held by the pick-off",
}


def run_cards(dossier: Dossier) -> tuple[Sheet, ...]:
    """One card for the whole job."""
    say, batch = Say(dossier.system), dossier.job.stock.supply.batch
    blocks: tuple[Block | tuple[Block, ...], ...] = (
        (_batch(dossier, say, batch), _bar(dossier, say, batch)),
        _looks(dossier, say, batch),
        Notes("Stop and look", tuple(_stops(dossier)), boxed=True),
        _log(),
    )
    watched = "watched" if dossier.job.conditions.attended else "unattended"
    return (Sheet("run", "Run card", watched, blocks),)


def _batch(dossier: Dossier, say: Say, batch: int) -> Facts:
    computed = dossier.takes.inputs[0].number
    rows = [
        ("parts", str(batch)),
        ("one part takes", f"{clock(dossier.takes.number)} min"),
        *((("from", f"{clock(computed)} min computed; {dossier.takes.source}"),) if dossier.takes.source else ()),
        ("the batch runs", f"{clock(dossier.takes.number * batch)} without stops"),
        ("parts of one program run", str(dossier.job.program.parts)),
        ("material", dossier.job.stock.material.name),
        ("stance", dossier.job.conditions.stance),
    ]
    return Facts("Batch", tuple(rows), frozenset(("parts", "one part takes")))


def _bar(dossier: Dossier, say: Say, batch: int) -> Facts:
    first = dossier.sides[0]
    rows = [("blank", blank_words(first.job, say))]
    supply = dossier.job.stock.supply
    if first.supply.parts is not None and first.supply.pitch_mm is not None:
        bars = next((one for one in first.supply.reasons if one.name == BARS), None)
        rows += [
            ("bar per part", say.mm(first.supply.pitch_mm)),
            ("parts of a bar", f"{first.supply.parts} of {say.mm(supply.bar_length_mm)}"),
            ("rest that is held", f"at least {say.mm(supply.remnant_mm)}"),
            (BARS, say.evidence(bars) if bars is not None else "–"),
        ]
    else:
        rows.append(
            ("pieces to saw", str(batch)) if dossier.job.stock.length_mm is not None else ("pieces", str(batch))
        )
    off = next(
        (
            o.operation
            for side in dossier.sides
            for o in side.operations
            if o.operation.kind == "part_off" and o.motions
        ),
        None,
    )
    if off is not None:
        rows.append(("the part", TAKEN[str(getattr(off, "taken", "falls"))]))
    return Facts("Bar and blank", tuple(rows), frozenset((BARS, "parts of a bar")))


def _looks(dossier: Dossier, say: Say, batch: int) -> Table:
    """When to change an edge, and when to measure what."""
    rows = []
    for use in dossier.edges:
        if use.parts_per_edge is None:
            continue
        changes = use.changes(batch)
        when = f"turn or change the edge after {use.parts_per_edge} parts"
        when = when if changes else f"its edge lasts the batch: {use.parts_per_edge} parts"
        what = f"station {use.tool.station}, {say.tool(use.tool)}"
        rows.append((Cell(what), Cell(when), Cell(str(changes) if changes else "–")))
    grouped: dict[str, list[Characteristic]] = {}
    for one in dossier.characteristics:
        if one.quantity != "edge" and (one.tolerance is not None or one.quantity == "gauge"):
            grouped.setdefault(one.often, []).append(one)
    for often, ones in sorted(grouped.items(), key=lambda pair: _order(pair[0])):
        numbers = ", ".join(str(one.number) for one in ones)
        lines = "line" if len(ones) == 1 else "lines"
        rows.append((Cell(f"{lines} {numbers} of the inspection sheet"), Cell(f"measure {often}"), Cell("–")))
    warm = parts_until_warm(dossier.job.machine, dossier.takes.number)
    if warm is not None:
        tau = say.of(dossier.job.machine.warm_up_min, "min")
        what = f"the closest sizes after a cold start: {dossier.job.machine.name} warms up with {tau}"
        rows.append((Cell(what), Cell(f"measure every part up to part {warm.number:.0f}"), Cell("–")))
    columns = (("what", "left", 45.0), ("when", "left", 42.0), ("changes", "right", 13.0))
    note = "Edge life is an estimate; the first edge of a batch is looked at after half of it."
    return Table("When to look", columns, tuple(rows), note)


def _order(often: str) -> int:
    digits = "".join(c for c in often if c.isdigit())
    return int(digits) if digits else 1000


def _log() -> Table:
    columns = (
        ("part", "left", 8.0),
        ("time", "left", 9.0),
        ("line", "left", 8.0),
        ("size found", "left", 14.0),
        ("offset: station, X, Z", "left", 25.0),
        ("edge changed", "left", 14.0),
        ("stop, chips, note", "left", 22.0),
    )
    return Table("What happened", columns, tuple(tuple(Cell(box=True) for _ in columns) for _ in range(ROWS)))


def _stops(dossier: Dossier) -> Iterator[str]:
    yield "First part: measured against the whole inspection sheet before the next one runs."
    yield "After a stop or a changed edge: the next part is measured like a first one in the sizes that tool cuts."
    yield "Chips that wind round part or chuck: stop, spindle at rest, take them off with a hook, tell who planned it."
    if not dossier.job.conditions.attended:
        yield "Unattended: three good parts while somebody watches; bar, chip pan, coolant and catcher before leaving."
        soonest = min((one.parts_per_edge for one in dossier.edges if one.parts_per_edge is not None), default=None)
        if soonest is not None:
            yield f"Nobody leaves it alone for more than {soonest} parts: the first edge is used up then (estimate)."
