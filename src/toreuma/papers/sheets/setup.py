"""The setup sheet: one for every hold, with what the person at the machine does before the first cut."""

from collections.abc import Iterator

from toreuma.core.cautions import cautions_for
from toreuma.core.cutting.figures import Figure
from toreuma.core.geometry.tip_number import tip_number
from toreuma.core.kinds.operations import OPERATIONS
from toreuma.core.model import Chuck, Collet, Job
from toreuma.core.model.hold import FaceDriver, Mandrel
from toreuma.core.model.stock import PolygonBar, RoundBar, TubeBar
from toreuma.core.plan import Plan
from toreuma.papers.blocks import Block, Cell, Facts, Notes, Picture, Sheet, Table
from toreuma.papers.dossier import Dossier
from toreuma.papers.picture.board import scale_words
from toreuma.papers.picture.views import held
from toreuma.papers.say import Say

__all__ = ["blank_words", "setup_sheets", "side_words"]

ROOM_MM = (186.0, 120.0)


def setup_sheets(dossier: Dossier) -> tuple[Sheet, ...]:
    """One sheet a hold."""
    return tuple(_sheet(dossier, number, plan) for number, plan in enumerate(dossier.sides))


def side_words(dossier: Dossier, number: int) -> str:
    """Which side, where there are several."""
    plan = dossier.sides[number]
    spindle = {"main": "main spindle", "sub": "second spindle"}[_spindle(dossier, number)]
    words = f"side {number + 1} of {len(dossier.sides)}, {spindle}" if len(dossier.sides) > 1 else spindle
    return f"{words} · {plan.job.setup.name}" if plan.job.setup.name else words


def _spindle(dossier: Dossier, number: int) -> str:
    setups = dossier.job.setups
    return setups[number].spindle if number < len(setups) else "main"


def _sheet(dossier: Dossier, number: int, plan: Plan) -> Sheet:
    say, job = Say(dossier.system), plan.job
    svg, scale = held(job, plan.scene, dict(dossier.threads), ROOM_MM, dossier.system)
    drawn = "Upper half in section; blank, long-dashed double-dotted"
    words = f"Scale {scale_words(scale)}. {drawn}. Lengths in {say.lengths}."
    blocks: tuple[Block | tuple[Block, ...], ...] = (
        Picture(svg, words),
        (_piece(dossier, plan, say, number), _hold(plan, say)),
        (_datum(dossier, plan, say, number), _clamps(plan, say)),
        _stations(dossier, plan, say),
        *_between(dossier, number, say),
        _programs(dossier),
        Notes("Before the first part", cautions_for(job), boxed=True),
    )
    return Sheet("setup", "Setup sheet", side_words(dossier, number), blocks)


def blank_words(job: Job, say: Say) -> str:
    """What the blank is."""
    stock = job.stock
    if isinstance(stock, RoundBar):
        sizes = f"round bar {say.d(stock.d_mm)}"
    elif isinstance(stock, PolygonBar):
        sizes = f"{'hexagon' if stock.sides == 6 else 'square'} bar, {say.mm(stock.across_mm)} across flats"
    elif isinstance(stock, TubeBar):
        sizes = f"tube {say.d(stock.d_mm)}, bore {say.d(stock.bore_d_mm)}"
    else:
        return "as the side before left it" if stock.outline else "casting or forging"
    return f"{sizes}, sawn to {say.mm(stock.length_mm)}" if stock.length_mm is not None else f"{sizes}, from the bar"


def _piece(dossier: Dossier, plan: Plan, say: Say, number: int) -> Facts:
    job, stock = plan.job, plan.job.stock
    rows = [
        ("part", dossier.job.part.name or dossier.job.name),
        ("material", stock.material.name),
        ("blank", blank_words(job, say)),
    ]
    if stock.skin != "clean":
        rows.append(("skin", f"{stock.skin}, {say.mm(stock.skin_mm)} on radius"))
    if number == 0:
        rows += [(f"weight of {one.name}", say.evidence(one)) for one in plan.supply.reasons if one.unit == "kg"]
    rows += [("batch", f"{dossier.job.stock.supply.batch}"), ("machine", job.machine.name), ("coolant", _coolant(job))]
    return Facts("Piece", tuple(rows), frozenset(("material", "blank")))


def _coolant(job: Job) -> str:
    if job.conditions.coolant == "dry" or job.machine.coolant == "none":
        return "dry"
    return job.stock.material.coolant or job.machine.coolant


def _hold(plan: Plan, say: Say) -> Facts:
    hold = plan.job.setup.hold
    rows = [("held in", hold.name or hold.kind)]
    if isinstance(hold, Chuck):
        rows.append(("jaws", f"{hold.jaw_count} {hold.jaws}, gripping {hold.side}"))
        if hold.jaws == "soft":
            bored = hold.bored_d_mm or 2 * plan.scene.grip_r
            rows.append(
                (
                    "bored to",
                    f"{say.d(bored)}, {say.mm(hold.bored_depth_mm)} deep" if hold.bored_depth_mm else say.d(bored),
                )
            )
        if hold.bored_depth_mm is not None and hold.bored_depth_mm < hold.jaw_length_mm:
            rows.append(("step", f"{say.mm(hold.step_mm)} on radius, the piece rests on it"))
        if hold.relief is not None:
            rows.append(("relief", f"{say.mm(hold.relief.length_mm)} long, {say.mm(hold.relief.height_mm)} on radius"))
    elif isinstance(hold, Collet):
        rows.append(("stop", "against the stop inside" if hold.stop else "no stop"))
    elif isinstance(hold, Mandrel):
        rows.append(("mandrel", f"{say.d(hold.d_mm)}, {say.mm(hold.length_mm)} into the bore"))
    elif isinstance(hold, FaceDriver):
        rows.append(("pins", f"on {say.d(hold.pins_d_mm)}"))
    rows += [
        ("grips on", say.d(2 * plan.scene.grip_r)),
        ("grip length", say.mm(hold.grip_length_mm)),
        ("stick-out", say.mm(hold.stick_out_mm)),
    ]
    if plan.job.setup.centre is not None:
        rows.append(
            ("centre", f"{plan.job.setup.centre.name or 'live centre'}, {say.of(plan.job.setup.centre.force_n, 'N')}")
        )
    if plan.job.setup.rest is not None:
        rows.append(("rest", getattr(plan.job.setup.rest, "name", "") or "rest"))
    rows += [(one.name, say.evidence(one)) for one in plan.hold.reasons if one.symbol in ("F req", "F0", "n safe")]
    return Facts("Hold", tuple(rows), frozenset(("stick-out", "bored to")))


def _datum(dossier: Dossier, plan: Plan, say: Say, number: int) -> Facts:
    scene = plan.scene
    rows = [
        ("Z 0", "finished front face"),
        ("Z 0 before the jaws", say.mm(-scene.jaw_face_z)),
        ("stands before Z 0", say.mm(scene.stock_front_z)),
        ("how to find it", f"touch the front of the blank, set Z {say.mm(scene.stock_front_z)}"),
        ("check", f"jaws to front of blank {say.mm(plan.job.setup.hold.stick_out_mm)}"),
    ]
    if number > 0:
        rows.append(("length wanted", say.mm(-scene.profile.back_z)))
    rows.append(("X", "spindle axis; program words are diameters"))
    return Facts("Datum", tuple(rows), frozenset(("how to find it",)))


def _clamps(plan: Plan, say: Say) -> Facts:
    """The top speed of every operation, with what keeps it from turning faster."""
    found: dict[tuple[str, str], list[str]] = {}
    for planned in plan.operations:
        clamp = planned.reasons.get(Figure.CLAMP)
        if clamp is None or not planned.motions:
            continue
        why = "typed" if clamp.pinned else clamp.bit.label if clamp.bit is not None else "machine"
        key = (say.of(clamp.number, "rpm"), why)
        found.setdefault(key, []).append(planned.operation.name or OPERATIONS[planned.operation.kind].label)
    rows = [(f"{rpm}", f"{why}: {', '.join(names)}") for (rpm, why), names in found.items()]
    return Facts("Clamps and why", tuple(rows) or (("none", "no operation turns at constant surface speed"),))


def _stations(dossier: Dossier, plan: Plan, say: Say) -> Table:
    used = {planned.operation.tool for planned in plan.operations if planned.motions}
    used |= {tool for planned in plan.operations if planned.motions for tool in planned.operation.tools}
    rows = []
    for tool in sorted(plan.job.tools, key=lambda one: (one.station, one.id)):
        if tool.id not in used:
            continue
        tip, nose = tip_number(tool), say.nose_mm(tool)
        rows.append(
            (
                Cell(f"{tool.station}"),
                Cell(say.tool(tool), small=f"{say.cutting(tool)}; {say.carrier(tool)}".rstrip("; ")),
                Cell(say.hand(tool)),
                Cell(say.mm(nose, unit=False) if nose else "–"),
                Cell("–" if tip is None else str(tip)),
                Cell(f"{tool.station:02}"),
                Cell(box=True),
                Cell(box=True),
            )
        )
    columns = (
        ("station", "right", 8.0),
        ("tool", "left", 42.0),
        ("hand", "left", 6.0),
        (f"nose {say.unit('mm')}", "right", 8.0),
        ("tip", "right", 5.0),
        ("offset", "right", 7.0),
        ("X set", "left", 12.0),
        ("Z set", "left", 12.0),
    )
    note = "Tip: where the programmed point lies about the nose, 1 to 9. Offsets are measured at the machine."
    return Table("Stations", columns, tuple(rows), note)


def _between(dossier: Dossier, number: int, say: Say) -> Iterator[Block]:
    """How the part comes into this hold."""
    if number == 0:
        return
    if dossier.transfer is not None:
        reasons = dossier.transfer.reasons
        yield Facts("Hand-over from the first spindle", tuple((e.name, say.evidence(e)) for e in reasons.values()))
    elif dossier.by_hand is not None:
        yield Notes(
            "Turned round by hand", tuple(f"{n}. {act.words}" for n, act in enumerate(dossier.by_hand.channels[1], 1))
        )
        yield Facts(
            "Turned round: what is measured", tuple((e.name, say.evidence(e)) for e in dossier.by_hand.reasons.values())
        )


def _programs(dossier: Dossier) -> Table:
    rows = tuple(
        (Cell(one.name), Cell(one.of), Cell(str(one.lines)), Cell(one.fingerprint)) for one in dossier.programs
    )
    stamp = f"Written {dossier.made_at:%Y-%m-%d %H:%M} from this state of the job."
    columns = (("program", "left", 34.0), ("for", "left", 30.0), ("lines", "right", 12.0), ("text", "left", 24.0))
    return Table(
        "Programs", columns, rows, stamp if rows else "No program could be written: see the state of the proof."
    )
