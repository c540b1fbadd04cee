"""The hand-over: where the second spindle grips, what each channel does and waits for, and what must hold before it."""

from collections.abc import Iterator
from dataclasses import replace

from shapely.affinity import affine_transform

from toreuma.core.channels.conditions import conditions, drawn_mm
from toreuma.core.channels.transfer import Transfer
from toreuma.core.channels.waits import Act, Wait, laid_out
from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.cutting.speed import lowest
from toreuma.core.geometry.region import Region
from toreuma.core.model import Job, SecondSpindle
from toreuma.core.model.transfer import HandOver
from toreuma.core.plan.route import Plan
from toreuma.core.plan.sides.second_side import second_setup, second_side
from toreuma.core.scene import Scene, build_scene
from toreuma.core.spoken import q, said

__all__ = ["drawn_mm", "hand_over"]

CLAMP_S, ASKED_S, AIR_S = 1.0, 0.3, 0.5
"""The first hold opens or closes; the part is asked for; chips are blown off."""

PARK_S = 1.5


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
    limits = _speed_limits(whole, spindle)
    reasons = _reasons(whole, first, spindle, settings, gap, other.stock_front_z, limits)
    channels = _channels(whole, first, spindle, settings, max(retreat, 0.0))
    laid = laid_out(channels)
    held = Transfer(
        settings=settings,
        jaws=jaws,
        body=body,
        piece=piece,
        jaw_face_z=face,
        gap_mm=gap,
        back_mm=retreat,
        channels=channels,
        laid=laid,
        excess_mm=other.stock_front_z,
        datum_mm=back,
        fastest=min(limits, key=lambda limit: limit.number),
        reasons=reasons,
        findings=(),
    )
    return replace(held, findings=tuple(conditions(whole, first, spindle, held, other)))


def _turned(region: Region, back: float) -> Region:
    """What the second side sees, in places of the first."""
    return affine_transform(region, [-1.0, 0.0, 0.0, 1.0, back, 0.0])


def _nose(chuck: Region, scene: Scene) -> float:
    return float(chuck.bounds[0]) if not chuck.is_empty else scene.jaw_face_z


def _speed_limits(job: Job, spindle: SecondSpindle) -> list[Limit]:
    return [
        Limit("first chuck's plate", job.setup.hold.max_rpm, "rpm"),
        Limit("second chuck's plate", job.setups[1].hold.max_rpm, "rpm"),
        Limit("main spindle", job.machine.max_rpm, "rpm"),
        Limit("second spindle", spindle.max_rpm, "rpm"),
    ]


def _reasons(
    job: Job, first: Plan, spindle: SecondSpindle, settings: HandOver, gap: float, excess: float, limits: list[Limit]
) -> dict[str, Evidence]:
    second = job.setups[1].hold
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
        Act(
            "feed",
            said("feeds to the grip, at most {}", q(settings.push_n, "N", ".0f")),
            60 * fed / settings.feed_mm_min,
        ),
    ]
    taken += [Act("settle", "settles", settings.dwell_s)] if settings.dwell_s > 0 else []
    taken += [Act("close_second", "second hold closes", spindle.clamp_s), Act("confirm", "confirmed", ASKED_S)]
    yield [], taken
    if settings.how in ("released", "pulled"):
        yield [Act("open_main", "first hold opens", CLAMP_S)], []
    if settings.how == "pulled":
        long = settings.pull_mm or drawn_mm(first)
        yield [], [Act("pull", said("draws {} of bar out", q(long, "mm", ".1f")), 60 * long / settings.feed_mm_min)]
        yield [Act("close_main", "first hold closes on the bar", CLAMP_S)], []
    if settings.how in ("parted", "pulled"):
        cut = next((op for op in reversed(first.operations) if op.operation.kind == "part_off"), None)
        yield [Act("part_off", "parts off between both", cut.times.total_s if cut is not None else 0.0)], []
    gone = [Act("retreat", "second spindle goes back", 60 * retreat / spindle.rapid_mm_min)]
    gone += [Act("unsync", "speeds are free again")] if turning else []
    gone += [Act("ask", "part there", ASKED_S)] if settings.check_part else []
    yield [], gone


def _parked(job: Job, channel: int) -> list[Act]:
    names = " and ".join(carrier.name for carrier in job.machine.carriers if carrier.channel == channel)
    return [Act("park", f"{names} to where {'they wait' if ' and ' in names else 'it waits'}", PARK_S)] if names else []
