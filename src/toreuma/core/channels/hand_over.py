"""The hand-over: where the second spindle grips, what each channel does and waits for, and what must hold before it."""

from collections.abc import Iterator
from dataclasses import dataclass

from shapely.affinity import affine_transform

from toreuma.core.channels.parking import parking_findings
from toreuma.core.channels.waits import Act, Laid, Wait, laid_out
from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.speed import lowest
from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.region import Region, union
from toreuma.core.model import Chuck, Job, SecondSpindle
from toreuma.core.model.transfer import HandOver
from toreuma.core.plan.feed_bar import BAR_KINDS
from toreuma.core.plan.route import Plan
from toreuma.core.plan.second_side import second_setup, second_side
from toreuma.core.plan.stretch import stick_out_more
from toreuma.core.plan.supply import cut_width_mm
from toreuma.core.scene import Scene, build_scene

__all__ = ["Transfer", "drawn_mm", "hand_over"]

JAWS_APART_MM = 2.0
"""Jaws of both holds come no closer."""

TOUCH_MM2 = 0.05
CLAMP_S, ASKED_S, AIR_S = 1.0, 0.3, 0.5
"""The first hold opens or closes; the part is asked for; chips are blown off."""

PARK_S, STEADY_RPM = 1.5, 1000.0
LENGTH_MM = 0.02


@dataclass(frozen=True)
class Transfer:
    """The planned hand-over, in places of the first side: the second hold round the part, and where it waits.

    ``gap_mm`` is what lies between the noses of both spindles while both hold the part; ``back_mm`` how far the second
    one stands back before and after. ``channels`` are the items of each channel, ``laid`` when they happen.
    """

    settings: HandOver
    jaws: Region
    body: Region
    piece: Region
    jaw_face_z: float
    gap_mm: float
    back_mm: float
    channels: dict[int, tuple[Act | Wait, ...]]
    laid: Laid
    numbers: dict[str, Evidence]
    findings: tuple[Finding, ...]

    @property
    def seconds(self) -> float:
        return self.laid.total_s


def hand_over(job: Job, first: Plan) -> Transfer | None:
    """Plan the hand-over of a job whose first side is planned; None where it has none or no second spindle.

    Raises `JobError` where the second side has no hold.
    """
    settings, spindle = job.hand_over, job.machine.second
    if settings is None or spindle is None:
        return None
    whole = job if len(job.setups) > 1 else job.changed(setups=(job.setup, second_setup(job)))
    other = build_scene(second_side(whole, first))
    back = first.scene.profile.back_z
    jaws, body, piece = (_turned(one, back) for one in (other.jaws, other.chuck, other.stock))
    face = back - other.jaw_face_z
    nose, second_nose = _nose(first.scene.chuck, first.scene), float(body.bounds[2])
    gap = second_nose - nose
    retreat = spindle.retracted_gap_mm - gap
    numbers = _numbers(whole, first, spindle, settings, gap, other.stock_front_z)
    channels = _channels(whole, first, spindle, settings, max(retreat, 0.0))
    laid = laid_out(channels)
    held = Transfer(settings, jaws, body, piece, face, gap, retreat, channels, laid, numbers, ())
    findings = tuple(_findings(whole, first, spindle, held, other))
    return Transfer(settings, jaws, body, piece, face, gap, retreat, channels, laid, numbers, findings)


def _turned(region: Region, back: float) -> Region:
    """What the second side sees, in places of the first."""
    return affine_transform(region, [-1.0, 0.0, 0.0, 1.0, back, 0.0])


def _nose(chuck: Region, scene: Scene) -> float:
    return float(chuck.bounds[0]) if not chuck.is_empty else scene.jaw_face_z


def _numbers(
    job: Job, first: Plan, spindle: SecondSpindle, settings: HandOver, gap: float, excess: float
) -> dict[str, Evidence]:
    second = job.setups[1].hold
    limits = [
        Limit("first chuck's plate", job.setup.hold.max_rpm, "rpm"),
        Limit("second chuck's plate", second.max_rpm, "rpm"),
        Limit("main spindle", job.machine.max_rpm, "rpm"),
        Limit("second spindle", spindle.max_rpm, "rpm"),
    ]
    length = -first.scene.profile.back_z
    return {
        "speed": lowest("both may turn at", "n", "rpm", limits),
        "gap": Evidence(
            "between the spindle noses", "", gap, "mm", measured_on="along Z",
            limits=(Limit("closest", spindle.least_gap_mm, "mm"), Limit("farthest", spindle.retracted_gap_mm, "mm")),
        ),
        "depth": Evidence("gripped over", "lg", second.grip_length_mm, "mm", formula="grip length of the second hold"),
        "datum": Evidence(
            "Z 0 of the second side", "", -length, "mm", formula="overall length wanted, from the front of the first",
            inputs=(Input("overall length", "l", length, "mm"), Input("found in front of it", "a", excess, "mm")),
        ),
        "excess": Evidence("to be faced off", "a", excess, "mm", formula="what the first side left behind the part"),
        "push": Evidence("push at the grip", "F", settings.push_n, "N", formula="typed",
            limits=(Limit("drive gives up", spindle.push_n, "N"),),
        ),
    }  # fmt: skip


def _channels(
    job: Job, first: Plan, spindle: SecondSpindle, settings: HandOver, retreat: float
) -> dict[int, tuple[Act | Wait, ...]]:
    """What each channel does. Marks come from here and are never typed: both channels have them in the same order."""
    main, sub = 1, max(job.machine.channels, 1)
    stages = list(_stages(job, first, spindle, settings, retreat))
    if main == sub:
        return {main: tuple(act for one, two in stages for act in (*one, *two))}
    both = frozenset((main, sub))
    rows: dict[int, list[Act | Wait]] = {main: [], sub: []}
    for mark, (one, two) in enumerate(stages, 1):
        rows[main] += [*one, Wait(mark, both)]
        rows[sub] += [*two, Wait(mark, both)]
    return {channel: tuple(items) for channel, items in rows.items()}


Stage = tuple[list[Act], list[Act]]
"""What the channel of the main spindle does and what that of the second one does, before both meet."""


def _stages(job: Job, first: Plan, spindle: SecondSpindle, settings: HandOver, retreat: float) -> Iterator[Stage]:
    """The hand-over in stages: each channel does its part, then both wait for each other."""
    yield _parked(job, 1), _parked(job, 2) if job.machine.channels > 1 else []
    turning = settings.rpm > 0
    ramp = settings.rpm / job.machine.spindle_ramp_rpm_s
    ready = [Act("open_second", "second hold opens", spindle.clamp_s)]
    ready += [Act("blow", "air blast", AIR_S)] if settings.air_blast else []
    words = f"second spindle follows at {settings.rpm:.0f} rpm"
    ready += [Act("sync", words, spindle.sync_s)] if turning else []
    ready += [Act("phase", "angles matched", spindle.phase_s)] if settings.phase else []
    yield [Act("turn", f"main spindle {settings.rpm:.0f} rpm", ramp)] if turning else [], ready
    fed = settings.approach_mm + job.setups[1].hold.grip_length_mm
    taken = [
        Act("come", "second spindle comes up", 60 * max(retreat - fed, 0.0) / spindle.rapid_mm_min),
        Act("feed", f"feeds to the grip, at most {settings.push_n:.0f} N", 60 * fed / settings.feed_mm_min),
    ]
    taken += [Act("settle", "settles", settings.dwell_s)] if settings.dwell_s > 0 else []
    taken += [Act("close_second", "second hold closes", spindle.clamp_s), Act("confirm", "confirmed", ASKED_S)]
    yield [], taken
    if settings.how in ("released", "pulled"):
        yield [Act("open_main", "first hold opens", CLAMP_S)], []
    if settings.how == "pulled":
        long = settings.pull_mm or drawn_mm(first)
        yield [], [Act("pull", f"draws {long:.1f} mm of bar out", 60 * long / settings.feed_mm_min)]
        yield [Act("close_main", "first hold closes on the bar", CLAMP_S)], []
    if settings.how in ("parted", "pulled"):
        cut = next((op for op in reversed(first.operations) if op.operation.kind == "part_off"), None)
        yield [Act("part_off", "parts off between both", cut.times.total_s if cut is not None else 0.0)], []
    gone = [Act("retreat", "second spindle goes back", 60 * retreat / spindle.rapid_mm_min)]
    gone += [Act("unsync", "speeds are free again")] if turning else []
    gone += [Act("ask", "part there", ASKED_S)] if settings.check_part else []
    yield [], gone


def drawn_mm(first: Plan) -> float:
    """Length of bar that has to come out for the next part, mm."""
    scene = first.scene
    return scene.stock_front_z - scene.profile.back_z + cut_width_mm(first.job)


def _parked(job: Job, channel: int) -> list[Act]:
    names = " and ".join(carrier.name for carrier in job.machine.carriers if carrier.channel == channel)
    return [Act("park", f"{names} to where {'they wait' if ' and ' in names else 'it waits'}", PARK_S)] if names else []


def _findings(job: Job, first: Plan, spindle: SecondSpindle, made: Transfer, other: Scene) -> Iterator[Finding]:
    yield from (first.second.findings if first.second is not None else ())
    yield from _speeds(job, made)
    yield from _reach(job, first, spindle, made)
    yield from _grip(job, made)
    yield from _between(job, first, made)
    yield from _drawn(job, first, made)
    if made.settings.push_n > spindle.push_n:
        most = spindle.push_n
        what = f"the push is to end at {made.settings.push_n:.0f} N, the drive gives up at {most:.0f} N"
        cure = Cure(f"Push {most / 2:.0f} N", lambda j: _with(j, push_n=most / 2))
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
    if made.numbers["excess"].number > LENGTH_MM and not faces:
        what = (
            f"{made.numbers['excess'].number:.2f} mm stand behind the part, and no operation of the second side faces"
        )
        yield Finding("warning", "transfer.length", what, "the part stays too long: face it there")
    for one in made.laid.stuck:
        yield Finding("error", "transfer.stuck", f"channel {one.channel} waits at mark {one.mark} for ever", one.why)


def _speeds(job: Job, made: Transfer) -> Iterator[Finding]:
    most = made.numbers["speed"]
    if made.settings.rpm > most.number:
        label = most.bit.label if most.bit is not None else "machine"
        what = f"both are to turn at {made.settings.rpm:.0f} rpm, the {label} allows {most.number:.0f} rpm"
        cure = Cure(f"Hand over at {most.number:.0f} rpm", lambda j: _with(j, rpm=most.number))
        yield Finding("error", "transfer.speed", what, "the jaws lose their grip", cures=(cure,))


def _reach(job: Job, first: Plan, spindle: SecondSpindle, made: Transfer) -> Iterator[Finding]:
    if made.gap_mm < spindle.least_gap_mm - 1e-6:
        more = spindle.least_gap_mm - made.gap_mm
        what = f"the spindles would have to come {more:.1f} mm closer than they can"
        cure = stick_out_more(float(int(more) + 1))
        yield Finding("error", "transfer.reach", what, "the second hold does not come to the part", cures=(cure,))
    if made.back_mm < made.settings.approach_mm:
        what = f"the second spindle has {made.back_mm:.1f} mm to go back"
        yield Finding("error", "transfer.room", what, "the part does not come out between the chucks")


def _grip(job: Job, made: Transfer) -> Iterator[Finding]:
    hold = job.setups[1].hold
    if isinstance(hold, Chuck) and hold.grip_length_mm > hold.jaw_length_mm:
        most = hold.jaw_length_mm
        what = f"{hold.grip_length_mm:g} mm are to be gripped, the jaws are {most:g} mm long"
        cure = Cure(f"Grip {most:g} mm", lambda j: _gripping(j, most))
        yield Finding(
            "error", "transfer.depth", what, "the part runs against the chuck before it is gripped", cures=(cure,)
        )
    met = made.piece.intersection(union([made.jaws, made.body]))
    if met.area > TOUCH_MM2:
        at = met.representative_point()
        what = f"the part would stand {met.bounds[3] - met.bounds[1]:.1f} mm in the second hold at Z {at.x:.1f}"
        yield Finding("error", "transfer.body", what, "jaws or chuck run into it", at=(at.x, at.y))


def _between(job: Job, first: Plan, made: Transfer) -> Iterator[Finding]:
    """Room between the jaws of both holds, and for the blade where the part is cut off there."""
    room = made.jaw_face_z - first.scene.jaw_face_z
    cuts = [op for op in first.operations if op.operation.kind == "part_off" and op.motions]
    parted = made.settings.how in ("parted", "pulled")
    need = JAWS_APART_MM + (cut_width_mm(job) + JAWS_APART_MM if parted else 0.0)
    if room < need:
        what = f"{room:.1f} mm are between the jaws of both holds, {need:.1f} mm are needed"
        cure = stick_out_more(float(int(need - room) + 1))
        yield Finding("error", "transfer.jaws", what, "they or the blade run into each other", cures=(cure,))
    if parted and made.settings.rpm <= 0:
        rpm = min(STEADY_RPM, made.numbers["speed"].number)
        what = "the part is cut off between both holds, and the second spindle does not follow the first"
        cure = Cure(f"Both at {rpm:.0f} rpm", lambda j: _with(j, rpm=rpm))
        yield Finding("error", "transfer.still", what, "it is twisted off: let both turn together", cures=(cure,))
    if parted and not cuts:
        what = "the part is to be cut off between both holds, and no operation parts it off"
        yield Finding("error", "transfer.uncut", what, "the second spindle pulls at the bar: add parting off")
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
        what = f"{typed:.2f} mm of bar are drawn out, the next part wants {wanted:.2f} mm"
        cure = Cure(f"Draw {wanted:.2f} mm", lambda j: _with(j, pull_mm=None))
        yield Finding(
            "error", "transfer.pull", what, f"it stands {abs(typed - wanted):.2f} mm too {word}", cures=(cure,)
        )
    if made.gap_mm + wanted > job.machine.second.retracted_gap_mm if job.machine.second is not None else False:
        what = f"the second spindle cannot go back {wanted:.1f} mm with the bar"
        yield Finding("error", "transfer.room", what, "its travel ends before")
    fed = next((one for one in job.operations if one.enabled and one.kind == "feed_bar"), None)
    if fed is not None:
        out = Cure("Leave the bar stop out", lambda j: j.with_operation(fed.id, lambda op: op.changed(enabled=False)))
        what = "the bar is drawn out by the second spindle and fed to a stop as well"
        yield Finding("warning", "transfer.fed", what, "one of both is enough", cures=(out,))


def _with(job: Job, **changes: object) -> Job:
    return job.changed(hand_over=job.hand_over.changed(**changes)) if job.hand_over is not None else job


def _gripping(job: Job, length: float) -> Job:
    held = job.setups[1].changed(hold=job.setups[1].hold.changed(grip_length_mm=length))
    wanted = job.second_hold.changed(grip_length_mm=length) if job.second_hold is not None else None
    return job.changed(setups=(job.setup, held), second_hold=wanted)
