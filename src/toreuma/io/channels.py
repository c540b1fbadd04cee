"""Programs of several channels, written, read back together, and proved as a pair on both spindles."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from toreuma.core.channels.hand_over import Transfer
from toreuma.core.dialect import Dialect
from toreuma.core.findings import Finding
from toreuma.core.geometry.elements import Point
from toreuma.core.memo import Check, never_cancel
from toreuma.core.model import Job
from toreuma.core.plan import Plan
from toreuma.core.plan.feed_bar import bar_before
from toreuma.core.plan.second_side import second_side
from toreuma.core.post.channels import post_channels
from toreuma.core.prove import Proof, prove
from toreuma.core.prove.taken_over import taken_over
from toreuma.core.prove.together import Together, together
from toreuma.core.read import Program, read
from toreuma.core.scene import Scene, build_scene

__all__ = ["PairProof", "prove_channels", "read_channels", "texts_of"]


@dataclass(frozen=True)
class PairProof:
    """What both spindles made of the part, and the hand-over between them; ``texts`` are the channels' programs."""

    texts: Mapping[int, str]
    first: Proof
    second: Proof
    ran: Together
    handed: tuple[Finding, ...]
    findings: tuple[Finding, ...]

    @property
    def gouge_um(self) -> float:
        return max(self.first.gouge_um, self.second.gouge_um)

    @property
    def leftover_um(self) -> float:
        return max(self.first.leftover_um, self.second.leftover_um)

    @property
    def ok(self) -> bool:
        return all(finding.severity != "error" for finding in self.findings)


def texts_of(job: Job, sides: Sequence[Plan], taken: Transfer, dialect: Dialect) -> dict[int, str]:
    """The program of every channel."""
    posted = post_channels(job, sides, taken, dialect)
    return {channel: one.text for channel, one in zip(taken.channels, posted, strict=True)}


def read_channels(job: Job, sides: Sequence[Plan], texts: Mapping[int, str], dialect: Dialect) -> Together:
    """Read the programs of all channels and run them together; lines are counted on from text to text."""
    programs, line = {}, 1
    for channel, text in texts.items():
        here, there = (references(job, side.scene)[channel] for side in (sides[0], sides[-1]))
        programs[channel] = read(text, dialect, here, second_reference=there, first_line=line)
        line += len(text.splitlines())
    return together(programs, job.machine)


def references(job: Job, scene: Scene) -> dict[int, Point]:
    """The reference point of the first carrier of every channel, as a spindle's side sees it."""
    first = job.machine.carriers[0]
    face = scene.reference[0] - first.reference_from_nose_mm
    found: dict[int, Point] = {}
    for carrier in job.machine.carriers:
        found.setdefault(carrier.channel, (face + carrier.reference_from_nose_mm, carrier.reference_d_mm / 2))
    return found


def prove_channels(
    job: Job,
    sides: Sequence[Plan],
    taken: Transfer,
    dialect: Dialect,
    texts: Mapping[int, str] | None = None,
    check: Check = never_cancel,
) -> PairProof:
    """Cut both sides as the programs do, the second one on what the first one really left, and check the hand-over.

    Whatever ``check`` raises stops the work.
    """
    texts = texts or texts_of(job, sides, taken, dialect)
    ran = read_channels(job, sides, texts, dialect)
    main = _until_taken(ran)
    first = prove(job, sides[0].scene, main, sides[0].declared, check, before=bar_before(job, sides[0].scene))
    other = second_side(job, sides[0], first.final)
    scene = build_scene(other)
    second = prove(other, scene, ran.second, sides[1].declared, check)
    back = sides[0].scene.profile.back_z
    rest = references(job, sides[0].scene)
    handed = tuple(taken_over(job, ran.happened, rest, back - scene.jaw_face_z, -back))
    # Whether the first hold may open on a turning spindle is for both channels to say, not for one.
    told = tuple(one for one in ran.findings if one.code != "hold.turning" or not _hands_over(ran))
    findings = (*told, *handed, *first.findings, *second.findings)
    return PairProof(texts, first, second, ran, handed, findings)


def _hands_over(ran: Together) -> bool:
    return any(one.mark is not None and one.mark.what == "second_to" for one in ran.happened)


def _until_taken(ran: Together) -> Program:
    """The moves at the main spindle; once the second hold has the part, the first one may open and stay open."""
    closed = [one.end_s for one in ran.happened if one.mark is not None and one.mark.what == "second_close"]
    held = {
        id(one.motion)
        for one in ran.happened
        if one.motion is not None and one.motion.event in ("unclamp", "clamp") and closed and one.start_s >= closed[0]
    }
    return replace(ran.main, motions=tuple(motion for motion in ran.main.motions if id(motion) not in held))
