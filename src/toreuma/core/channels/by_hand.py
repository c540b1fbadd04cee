"""Turning a part round by hand between two sides: bored jaws, what is measured, and how long it takes."""

from collections.abc import Iterator
from dataclasses import dataclass

from toreuma.core.channels.waits import Act, Laid, laid_out
from toreuma.core.cutting.evidence import Evidence, Input, Limit
from toreuma.core.findings import Cure, Finding
from toreuma.core.model import Chuck, Job
from toreuma.core.model.transfer import TurnRound
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.plan.route import Plan
from toreuma.core.plan.sides.second_side import second_side
from toreuma.core.scene import build_scene
from toreuma.core.spoken import q, said

__all__ = ["ByHand", "turned_by_hand"]

SAME_MM, LENGTH_MM = 0.05, 0.02
TAKE_S = {"falls": 15.0, "caught": 5.0, "picked": 5.0}
"""To get hold of a part that was cut off."""


@dataclass(frozen=True, kw_only=True)
class ByHand:
    """The planned turn: its numbers, what is done one after the other as the items of one channel, what is wrong."""

    settings: TurnRound
    channels: dict[int, tuple[Act, ...]]
    laid: Laid
    reasons: dict[str, Evidence]
    findings: tuple[Finding, ...]

    @property
    def seconds(self) -> float:
        return self.laid.total_s


def turned_by_hand(job: Job, first: Plan) -> ByHand | None:
    """Plan the turn of a job with two sides and no second spindle that takes the part; None for others.

    Raises `JobError` where the second side has no hold.
    """
    if len(job.setups) < 2 or (job.machine.second is not None and job.hand_over is not None):
        return None
    settings = job.turn_round or TurnRound()
    other = build_scene(second_side(job, first))
    hold, length = job.setups[1].hold, -first.scene.profile.back_z
    parted = next((one for one in reversed(first.operations) if one.operation.kind == "part_off" and one.motions), None)
    d = first.second.d_mm if first.second is not None else 2 * other.grip_r
    reasons = {
        "grip_d": Evidence("gripped on", "dg", d, "mm", measured_on="on diameter", formula="the surface chosen for it"),
        "grip": Evidence("gripped over", "lg", hold.grip_length_mm, "mm", formula="grip length of the second hold"),
        "out": Evidence(
            "stands out after turning", "", hold.stick_out_mm, "mm", measured_on="along Z",
            formula="from the front of the jaws to the face: measure it before cutting",
        ),
        "excess": Evidence("to be faced off", "a", other.stock_front_z, "mm", formula="what the first side left"),
        "datum": Evidence(
            "overall length wanted", "l", length, "mm", formula="Z 0 of the second side lies on its finished face",
            inputs=(Input("stands out", "", hold.stick_out_mm, "mm"),
                    Input("faced off", "a", other.stock_front_z, "mm")),
        ),
        "runout": Evidence(
            "may run out by", "", settings.runout_um, "um", formula="typed: checked with an indicator near the jaws"
        ),
    }  # fmt: skip
    if isinstance(hold, Chuck) and hold.jaws == "soft":
        reasons["bored"] = Evidence(
            "jaws bored to", "", hold.bored_d_mm or d, "mm", measured_on="on diameter",
            formula="the diameter gripped, bored under the grip force with a ring or plug in the jaws",
            limits=(Limit("surface gripped", d, "mm"),),
        )  # fmt: skip
    acts = tuple(_acts(job, settings, parted, d))
    channels = {1: acts}
    laid = laid_out(channels)
    reasons["time"] = Evidence("turned round in", "", laid.total_s, "s", formula="all steps below, by one person")
    findings = tuple(_findings(job, first, other.stock_front_z, parted, d))
    return ByHand(settings=settings, channels=channels, laid=laid, reasons=reasons, findings=findings)


def _acts(job: Job, settings: TurnRound, parted: OperationPlan | None, d: float) -> Iterator[Act]:
    taken = getattr(parted.operation, "taken", "falls") if parted is not None else ""
    words = {"falls": "found among the chips", "caught": "out of the catcher", "picked": "out of the pick-off"}
    if parted is not None:
        yield Act("taken", words[taken], TAKE_S[taken])
    else:
        yield Act("stopped", "spindle stands, doors open", 5.0)
        yield Act("taken", "let go and taken out", 10.0)
    yield Act("clean", "burrs off, jaws and seat wiped", settings.clean_s)
    hold = job.setups[1].hold
    seat = "against the step" if isinstance(hold, Chuck) and hold.bored_depth_mm else "against a stop"
    yield Act("turned", f"turned round, seated {seat}", settings.turn_s)
    yield Act("checked", said("runs within {}, stick-out measured", q(settings.runout_um, "um", "g")), settings.check_s)


def _findings(job: Job, first: Plan, excess_mm: float, parted: OperationPlan | None, d: float) -> Iterator[Finding]:
    yield from (first.second.findings if first.second is not None else ())
    hold = job.setups[1].hold
    if isinstance(hold, Chuck) and hold.jaws == "hard" and hold.side == "outside":
        what = "hard jaws would grip a finished surface"
        cure = Cure(
            said("Soft jaws bored to Ø{}", q(d, "mm", "g", bare=True)),
            lambda j: _held(j, jaws="soft", bored_d_mm=round(d, 4)),
        )
        yield Finding("warning", "turn.hard", what, "they mark it, and it runs out", cures=(cure,))
    if isinstance(hold, Chuck) and hold.jaws == "soft":
        bored = hold.bored_d_mm
        if bored is None or abs(bored - d) > SAME_MM:
            now = "not bored" if bored is None else said("bored to Ø{}", q(bored, "mm", "g", bare=True))
            what = said("the soft jaws are {}, the surface is Ø{}", now, q(d, "mm", "g", bare=True))
            cure = Cure(
                said("Bore them to Ø{}", q(d, "mm", "g", bare=True)), lambda j: _held(j, bored_d_mm=round(d, 4))
            )
            yield Finding("error", "turn.bore", what, "they grip on edges, the part runs out", cures=(cure,))
        if hold.bored_depth_mm is None:
            deep = hold.grip_length_mm
            cure = Cure(said("A step {} deep", q(deep, "mm", "g")), lambda j: _held(j, bored_depth_mm=deep))
            what = "the jaws have no step for the part to rest against"
            yield Finding("warning", "turn.seat", what, "every part stands out differently", cures=(cure,))
    if parted is not None and getattr(parted.operation, "taken", "") == "falls":
        identifier = parted.operation.id
        cure = Cure(
            "Send the catcher out", lambda j: j.with_operation(identifier, lambda op: op.changed(taken="caught"))
        )
        what = "the part falls into the chips, and its surfaces are to be gripped again"
        yield Finding("warning", "turn.falls", what, "what is bruised runs out in the bored jaws", cures=(cure,))
    faces = any(op.kind == "face" and op.enabled for op in job.setups[1].operations)
    if excess_mm > LENGTH_MM and not faces:
        what = said("{} stand in front of the second side, and nothing faces it", q(excess_mm))
        yield Finding("warning", "transfer.length", what, "the part stays too long: face it there")


def _held(job: Job, **changes: object) -> Job:
    """The second hold changed."""
    held = job.setups[1].changed(hold=job.setups[1].hold.changed(**changes))
    wanted = job.second_hold
    if wanted is not None and "jaws" in changes:
        wanted = wanted.changed(jaws=changes["jaws"])
    return job.changed(setups=(job.setup, held), second_hold=wanted)
