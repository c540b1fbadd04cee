"""Programs of several channels, written, read back together, and proved as a pair on both spindles."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, partial

from toreuma.core.channels.hand_over import drawn_mm
from toreuma.core.channels.keep_apart import kept_apart
from toreuma.core.channels.transfer import Transfer
from toreuma.core.dialect import Dialect
from toreuma.core.findings import Finding
from toreuma.core.geometry.elements import Point
from toreuma.core.memo import Check, Memo, never_cancel
from toreuma.core.model import Job
from toreuma.core.motion import Motion
from toreuma.core.plan import Plan
from toreuma.core.plan.bar.feed_bar import bar_before
from toreuma.core.plan.sides.second_side import second_side
from toreuma.core.post.channels import post_channels
from toreuma.core.prove import Contact, Proof
from toreuma.core.prove.beside import met_beside
from toreuma.core.prove.pieces import Piece, pieces_of
from toreuma.core.prove.run import Run
from toreuma.core.prove.scenery import Scenery
from toreuma.core.prove.taken_over import taken_over
from toreuma.core.prove.together import Happening, Together, together
from toreuma.core.prove.told import told_to
from toreuma.core.read import read
from toreuma.core.scene import build_scene
from toreuma.engine.proving import prove_read

__all__ = ["PairProof", "prove_channels", "read_channels", "texts_of"]


@dataclass(frozen=True, kw_only=True)
class PairProof:
    """What both spindles made of every part of the run, and the hand-overs between them.

    ``texts`` are the channels' programs, ``made`` the proofs of first and second side, part by part; ``cycle_s`` is
    the time from one hand-over to the next, 0 where one part is made. ``scenery`` is all of it in the machine's
    places, ``second_job`` the second side on what the first one left, ``beside`` where tools of several channels met.
    """

    texts: Mapping[int, str]
    made: tuple[tuple[Proof, Proof], ...]
    ran: Together
    handed: tuple[Finding, ...]
    findings: tuple[Finding, ...]
    scenery: Scenery
    second_job: Job
    beside: tuple[Contact, ...] = ()
    cycle_s: float = 0.0

    def line(self, number: int) -> str:
        """A line of all channels' programs, counted on from text to text."""
        return self._lines[number - 1] if 1 <= number <= len(self._lines) else ""

    @cached_property
    def _lines(self) -> list[str]:
        return [line for text in self.texts.values() for line in text.splitlines()]

    @property
    def first(self) -> Proof:
        """The first side of the first part."""
        return self.made[0][0]

    @property
    def second(self) -> Proof:
        """The second side of the first part."""
        return self.made[0][1]

    @property
    def gouge_um(self) -> float:
        return max(side.gouge_um for part in self.made for side in part)

    @property
    def leftover_um(self) -> float:
        return max(side.leftover_um for part in self.made for side in part)

    @property
    def contacts(self) -> tuple[Contact, ...]:
        return (*self.beside, *(contact for part in self.made for side in part for contact in side.contacts))

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
        here, there = (references(side)[channel] for side in (sides[0], sides[-1]))
        words = job.machine.own_words
        programs[channel] = read(text, dialect, here, second_reference=there, first_line=line, machine=words)
        line += len(text.splitlines())
    return together(programs, job.machine)


def references(side: Plan) -> dict[int, Point]:
    """The reference point of the first carrier of every channel, as a side sees it."""
    machine = side.job.machine
    face = side.scene.reference[0] - machine.carriers[0].reference_from_nose_mm
    found: dict[int, Point] = {}
    for carrier in machine.carriers:
        found.setdefault(carrier.channel, (face + carrier.reference_from_nose_mm, carrier.reference_d_mm / 2))
    return found


def prove_channels(
    job: Job,
    sides: Sequence[Plan],
    taken: Transfer,
    dialect: Dialect,
    texts: Mapping[int, str] | None = None,
    check: Check = never_cancel,
    memo: Memo | None = None,
) -> PairProof:
    """Cut both sides as the programs do, the second one on what the first one really left, and check the hand-over.

    Whatever ``check`` raises stops the work.
    """
    texts = texts or texts_of(job, sides, taken, dialect)
    ran = read_channels(job, sides, texts, dialect)
    pieces = pieces_of(ran.happened)
    made: list[tuple[Proof, Proof]] = []
    handed: list[Finding] = []
    here, there = references(sides[0]), references(sides[-1])
    rest, back = {channel: (here[channel], there[channel]) for channel in here}, sides[0].scene.profile.back_z
    for piece in pieces or (_whole(ran),):
        proofs = _cut(job, sides, ran, piece, check, memo)
        made.append(proofs)
        other = second_side(job, sides[0], proofs[0].final)
        scene = build_scene(other)
        grip_z = back - scene.jaw_face_z
        if pieces:
            handed += taken_over(job, piece, rest, grip_z, -back, drawn_mm(sides[0]))
    # Whether the first hold may open on a turning spindle is for both channels to say, not for one.
    told = tuple(one for one in ran.findings if one.code != "hold.turning" or not pieces)
    run = Run(job, (sides[0].scene, scene), ran, grip_z)
    beside, met = met_beside(run, partial(kept_apart, job)) if pieces else ((), ())
    cut_so = [finding for part in made for side in part for finding in side.findings]
    findings = (*told, *handed, *met, *{(one.severity, one.code, one.what): one for one in cut_so}.values())
    cycle_s = pieces[-1].come.start_s - pieces[-2].come.start_s if len(pieces) > 1 else 0.0
    blanks = bar_before(job, sides[0].scene), scene.stock
    scenery = Scenery(run, pieces, made if pieces else (), (job, other), blanks)
    return PairProof(
        texts=texts,
        made=tuple(made),
        ran=ran,
        handed=(*handed, *met),
        findings=findings,
        scenery=scenery,
        second_job=second_side(job, sides[0], made[0][0].final),
        beside=beside,
        cycle_s=cycle_s,
    )


def _cut(
    job: Job, sides: Sequence[Plan], ran: Together, piece: Piece, check: Check, memo: Memo | None
) -> tuple[Proof, Proof]:
    """Cut both sides of a part, the second one on what the first one really left."""
    main = replace(ran.main, motions=_until_taken(piece))
    meant = told_to([motion for side in sides[:1] for one in side.operations for motion in one.motions])
    first = prove_read(sides[0], main, check, told=meant, memo=memo)
    other = second_side(job, sides[0], first.final)
    meant = told_to([motion for one in sides[1].operations for motion in one.motions])
    at_second = replace(ran.second, motions=piece.second)
    second = prove_read(sides[1], at_second, check, made_of=other, told=meant, memo=memo)
    return first, second


def _whole(ran: Together) -> Piece:
    """All moves as one part, where nothing is handed over."""
    never = Happening(channel=0, start_s=float("inf"), end_s=float("inf"))
    return Piece(first=ran.main.motions, second=ran.second.motions, happened=ran.happened, come=never, back=never)


def _until_taken(piece: Piece) -> tuple[Motion, ...]:
    """The moves at the main spindle; once the second hold has the part, the first one may open and stay open."""
    closed = [one.end_s for one in piece.happened if one.mark is not None and one.mark.what == "second_close"
              and one.start_s >= piece.come.start_s]  # fmt: skip
    held = {
        id(one.motion)
        for one in piece.happened
        if one.motion is not None and one.motion.event in ("unclamp", "clamp") and closed and one.start_s >= closed[0]
    }
    pairs = zip(piece.first, piece.first_in_place, strict=True)
    return tuple(placed for motion, placed in pairs if id(motion) not in held)
