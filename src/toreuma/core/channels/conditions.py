"""What must hold before a part is handed over: each condition that does not is a finding with its cure."""

from collections.abc import Iterator

from toreuma.core.channels.parking import parking_findings
from toreuma.core.channels.transfer import Transfer
from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.region import union
from toreuma.core.model import Chuck, Face, Job, PartingTool, PartOff, SecondSpindle, TurningTool
from toreuma.core.plan.bar.feed_bar import BAR_KINDS
from toreuma.core.plan.bar.supply import cut_width_mm
from toreuma.core.plan.hold.cures import stick_out_more
from toreuma.core.plan.route import Plan
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said

__all__ = ["conditions", "drawn_mm"]

JAWS_APART_MM = 2.0
"""Jaws of both holds come no closer."""

TOUCH_MM2, LENGTH_MM = 0.05, 0.02
CLEAR_MM, LEAST_GRIP_MM = 0.2, 1.0
STEADY_RPM = 1000.0


def drawn_mm(first: Plan) -> float:
    """Length of bar that has to come out for the next part, mm."""
    scene = first.scene
    return scene.stock_front_z - scene.profile.back_z + cut_width_mm(first.job)


def conditions(job: Job, first: Plan, spindle: SecondSpindle, made: Transfer, other: Scene) -> Iterator[Finding]:
    """Everything that stands against a planned hand-over."""
    yield from (first.second.findings if first.second is not None else ())
    yield from _speeds(job, made)
    yield from _reach(job, first, spindle, made)
    yield from _grip(job, made)
    yield from _between(job, first, made)
    yield from _drawn(job, first, made)
    if made.settings.push_n > spindle.push_n:
        most = spindle.push_n
        what = said(
            "the push is to end at {}, the drive gives up at {}",
            q(made.settings.push_n, "N", ".0f"),
            q(most, "N", ".0f"),
        )
        cure = Cure(said("Push {}", q(most / 2, "N", ".0f")), lambda j: _with(j, push_n=most / 2))
        yield Finding("error", "transfer.push", what, "the part or the drive gives way", cures=(cure,))
    if first.opened and not made.settings.phase:
        names = ", ".join(job.part.features[n].name or job.part.features[n].kind for n in first.opened)
        cure = Cure("Match the angles", lambda j: _with(j, phase=True))
        what = f"{names}: cut on the first side, and the angles are not matched"
        yield Finding(
            "error", "transfer.phase", what, "what the second side cuts lies at any angle to it", cures=(cure,)
        )
    yield from parking_findings(job, first.scene, made.jaws, made.body, made.back_mm, made.settings.park_d_mm)
    faces = any(op.kind == "face" and op.enabled for op in job.setups[1].operations)
    if made.excess_mm > LENGTH_MM and not faces:
        what = said("{} stand behind the part, and no operation of the second side faces", q(made.excess_mm))
        yield Finding("warning", "transfer.length", what, "the part stays too long: face it there", cures=_facing(job))
    for one in made.laid.stuck:
        yield Finding("error", "transfer.stuck", f"channel {one.channel} waits at mark {one.mark} for ever", one.why)


def _speeds(job: Job, made: Transfer) -> Iterator[Finding]:
    most = made.fastest
    if made.settings.rpm > most.number:
        what = f"both are to turn at {made.settings.rpm:.0f} rpm, the {most.label} allows {most.number:.0f} rpm"
        cure = Cure(f"Hand over at {most.number:.0f} rpm", lambda j: _with(j, rpm=most.number))
        yield Finding("error", "transfer.speed", what, "the jaws lose their grip", cures=(cure,))


def _reach(job: Job, first: Plan, spindle: SecondSpindle, made: Transfer) -> Iterator[Finding]:
    if made.gap_mm < spindle.least_gap_mm - 1e-6:
        more = spindle.least_gap_mm - made.gap_mm
        what = said("the spindles would have to come {} closer than they can", q(more, "mm", ".1f"))
        cure = stick_out_more(float(int(more) + 1))
        yield Finding("error", "transfer.reach", what, "the second hold does not come to the part", cures=(cure,))
    if made.back_mm < made.settings.approach_mm:
        what = said("the second spindle has {} to go back", q(made.back_mm, "mm", ".1f"))
        half = round(made.back_mm / 2, 1)
        nearer = Cure(
            said("End the rapid {} before the grip", q(half, "mm", "g")), lambda j: _with(j, approach_mm=half)
        )
        cures = (nearer,) if half > 0 else ()
        yield Finding("error", "transfer.room", what, "the part does not come out between the chucks", cures=cures)


def _grip(job: Job, made: Transfer) -> Iterator[Finding]:
    hold = job.setups[1].hold
    if isinstance(hold, Chuck) and hold.grip_length_mm > hold.jaw_length_mm:
        most = hold.jaw_length_mm
        what = said("{} are to be gripped, the jaws are {} long", q(hold.grip_length_mm, "mm", "g"), q(most, "mm", "g"))
        cure = Cure(said("Grip {}", q(most, "mm", "g")), lambda j: _gripping(j, most))
        yield Finding(
            "error", "transfer.depth", what, "the part runs against the chuck before it is gripped", cures=(cure,)
        )
    met = made.piece.intersection(union([made.jaws, made.body]))
    if met.area > TOUCH_MM2:
        at = met.representative_point()
        what = said(
            "the part would stand {} in the second hold at Z {}",
            q(met.bounds[3] - met.bounds[1], "mm", ".1f"),
            q(at.x, "mm", ".1f", bare=True),
        )
        less = round(hold.grip_length_mm - (met.bounds[2] - met.bounds[0]) - CLEAR_MM, 2)
        shorter = (
            (Cure(said("Grip {}", q(less, "mm", "g")), lambda j: _gripping(j, less)),) if less > LEAST_GRIP_MM else ()
        )
        yield Finding("error", "transfer.body", what, "jaws or chuck run into it", at=(at.x, at.y), cures=shorter)


def _between(job: Job, first: Plan, made: Transfer) -> Iterator[Finding]:
    """Room between the jaws of both holds, and for the blade where the part is cut off there."""
    room = made.jaw_face_z - first.scene.jaw_face_z
    cuts = [op for op in first.operations if op.operation.kind == "part_off" and op.motions]
    parted = made.settings.how in ("parted", "pulled")
    need = JAWS_APART_MM + (cut_width_mm(job) + JAWS_APART_MM if parted else 0.0)
    if room < need:
        what = said("{} are between the jaws of both holds, {} are needed", q(room, "mm", ".1f"), q(need, "mm", ".1f"))
        cure = stick_out_more(float(int(need - room) + 1))
        yield Finding("error", "transfer.jaws", what, "they or the blade run into each other", cures=(cure,))
    if parted and made.settings.rpm <= 0:
        rpm = min(STEADY_RPM, made.fastest.number)
        what = "the part is cut off between both holds, and the second spindle does not follow the first"
        cure = Cure(f"Both at {rpm:.0f} rpm", lambda j: _with(j, rpm=rpm))
        yield Finding("error", "transfer.still", what, "it is twisted off: let both turn together", cures=(cure,))
    if parted and not cuts:
        what = "the part is to be cut off between both holds, and no operation parts it off"
        why = "the second spindle pulls at the bar: add parting off"
        yield Finding("error", "transfer.uncut", what, why, cures=(*_parting(job), _letting_go()))
    if not parted and cuts:
        what = "the part is parted off before the second hold has it"
        cure = Cure("Cut it off between both", lambda j: _with(j, how="parted"))
        yield Finding("error", "transfer.early", what, "it falls before it is taken", cures=(cure,))


def _drawn(job: Job, first: Plan, made: Transfer) -> Iterator[Finding]:
    """The bar that is drawn out is as long as the next part wants it, and there is one."""
    if made.settings.how != "pulled":
        return
    if job.stock.kind not in BAR_KINDS or job.stock.length_mm is not None:
        cure = Cure("Let the first hold go", lambda j: _with(j, how="released"))
        yield Finding("error", "transfer.bar", "there is no bar to draw out", "the blank is a piece", cures=(cure,))
        return
    wanted, typed = drawn_mm(first), made.settings.pull_mm
    if typed is not None and abs(typed - wanted) > LENGTH_MM:
        word = "short" if typed < wanted else "long"
        what = said("{} of bar are drawn out, the next part wants {}", q(typed), q(wanted))
        cure = Cure(said("Draw {}", q(wanted)), lambda j: _with(j, pull_mm=None))
        yield Finding(
            "error", "transfer.pull", what, said("it stands {} too {}", q(abs(typed - wanted)), word), cures=(cure,)
        )
    if made.gap_mm + wanted > job.machine.second.retracted_gap_mm if job.machine.second is not None else False:
        what = said("the second spindle cannot go back {} with the bar", q(wanted, "mm", ".1f"))
        cure = Cure("Cut it off where it stands", lambda j: _with(j, how="parted"))
        yield Finding("error", "transfer.room", what, "its travel ends before: feed the bar another way", cures=(cure,))
    fed = next((one for one in job.operations if one.enabled and one.kind == "feed_bar"), None)
    if fed is not None:
        out = Cure("Leave the bar stop out", lambda j: j.with_operation(fed.id, lambda op: op.changed(enabled=False)))
        what = "the bar is drawn out by the second spindle and fed to a stop as well"
        yield Finding("warning", "transfer.fed", what, "one of both is enough", cures=(out,))


def _letting_go() -> Cure:
    return Cure("Let the first hold go", lambda j: _with(j, how="released"))


def _parting(job: Job) -> tuple[Cure, ...]:
    """Parting off at the end of the first side, where a tool for it is there."""
    tool = next((one for one in job.tools if isinstance(one, PartingTool)), None)
    if tool is None or any(one.kind == "part_off" for one in job.operations):
        return ()
    cut = PartOff(id=job.free_operation_id(), name="Part off", tool=tool.id)
    label = f"Part off with {tool.id}"
    return (Cure(label, lambda j: j.with_setup(operations=(*j.operations, cut))),)


def _facing(job: Job) -> tuple[Cure, ...]:
    """Facing in front of the second side, with the turning tool that is used there first."""
    held = job.setups[1]
    turning = (job.tool(op.tool) for op in held.operations if op.kind in ("rough_od", "finish_od"))
    tool = next((one for one in turning if isinstance(one, TurningTool)), None)
    if tool is None:
        return ()
    taken = {op.id for op in held.operations}
    cut = Face(id=next(f"f{n}" for n in range(1, 1000) if f"f{n}" not in taken), name="Face the front", tool=tool.id)
    faced = held.changed(operations=(cut, *held.operations))
    return (Cure(f"Face it with {tool.id}", lambda j: j.changed(setups=(j.setup, faced))),)


def _with(job: Job, **changes: object) -> Job:
    return job.changed(hand_over=job.hand_over.changed(**changes)) if job.hand_over is not None else job


def _gripping(job: Job, length: float) -> Job:
    held = job.setups[1].changed(hold=job.setups[1].hold.changed(grip_length_mm=length))
    wanted = job.second_hold.changed(grip_length_mm=length) if job.second_hold is not None else None
    return job.changed(setups=(job.setup, held), second_hold=wanted)
