"""The hand-over as two programs make it: whether anything meets, and whether somebody holds the part all the time."""

import itertools
from collections.abc import Iterator, Mapping, Sequence

from toreuma.core.findings import Finding
from toreuma.core.geometry.elements import Point
from toreuma.core.model import Job
from toreuma.core.motion import Motion
from toreuma.core.prove.pieces import Piece
from toreuma.core.prove.together import Happening
from toreuma.core.spoken import q, said

__all__ = ["taken_over"]

AT_REST_MM = 0.5
DEPTH_MM, DATUM_MM, PULL_MM = 0.05, 0.005, 0.05

Rest = tuple[Point, Point]
"""Where a carrier waits, seen from the main and from the second spindle."""


def taken_over(
    job: Job, piece: Piece, rest: Mapping[int, Rest], grip_z: float, length_mm: float, wanted_mm: float
) -> Iterator[Finding]:
    """What is wrong with the hand-over of one part.

    ``rest`` is the reference point of each channel's carrier, seen from both spindles; ``grip_z`` is where the front
    of the second jaws stands when it grips as the second side has it, ``length_mm`` the overall length its datum
    comes from, ``wanted_mm`` the length of bar the next part wants drawn out.
    """
    happened, come, back = piece.happened, piece.come, piece.back
    moves = [one for one in _marks(happened, "second_to") if one.start_s >= come.start_s - 1e-6]
    closes = [one for one in _marks(happened, "second_close") if one.start_s >= come.start_s - 1e-6]
    yield from _open(happened, come)
    yield from _empty(happened, come)
    cut_between = job.hand_over is not None and job.hand_over.how != "released" and closes
    yield from _parked(happened, come, closes[0] if cut_between else back, rest)
    yield from _held(job, piece, closes)
    yield from _turning(happened)
    yield from _place(moves, closes, grip_z)
    yield from _matched(job, happened, closes)
    yield from _datum(piece, length_mm)
    yield from _let_go(piece, closes)
    yield from _drawn(piece, wanted_mm)


def _marks(happened: Sequence[Happening], what: str) -> list[Happening]:
    return [one for one in happened if one.mark is not None and one.mark.what == what]


def _second_cuts(piece: Piece) -> list[Happening]:
    """Cuts at the second spindle once it has gone back with the part."""
    later = (one for one in piece.happened if one.start_s >= piece.back.start_s)
    return [one for one in later if one.motion is not None and one.motion.second and not one.motion.is_rapid]


def _open(happened: Sequence[Happening], come: Happening) -> Iterator[Finding]:
    ready = [one for one in _marks(happened, "second_open") if one.end_s <= come.start_s + 1e-6]
    if not ready:
        what = f"line {come.line}: the second spindle comes up and its hold has not opened"
        yield Finding("error", "transfer.closed", what, "its jaws run into the part", line=come.line)


def _parked(
    happened: Sequence[Happening], come: Happening, until: Happening, rest: Mapping[int, Rest]
) -> Iterator[Finding]:
    """Every carrier at its reference point when the second spindle comes, and until nothing moves it any more."""
    for channel, place in rest.items():
        before = [
            one for one in happened
            if one.channel == channel and one.motion is not None and not one.motion.event
            and one.start_s < come.start_s - 1e-6
        ]  # fmt: skip
        if before and before[-1].motion is not None and before[-1].end_s > come.start_s + 1e-6:
            what = f"line {before[-1].line}: channel {channel} still moves when the second spindle comes up"
            yield Finding("error", "transfer.moving", what, "they run into each other", line=before[-1].line)
        elif before and before[-1].motion is not None and _away(before[-1].motion, place):
            what = f"line {come.line}: the carrier of channel {channel} is not parked when the second spindle comes up"
            yield Finding("error", "transfer.park", what, "they run into each other", line=come.line)
        during = [
            one for one in happened
            if one.channel == channel and one.motion is not None and not one.motion.event and one.motion.length > 1e-6
            and come.start_s - 1e-6 <= one.start_s < until.end_s - 1e-6 and _away(one.motion, place)
        ]  # fmt: skip
        if during:
            what = f"line {during[0].line}: a tool of channel {channel} moves while the part is handed over"
            yield Finding("error", "transfer.moving", what, "it runs into the second spindle", line=during[0].line)


def _away(motion: Motion, rest: Rest) -> bool:
    """It ends elsewhere than at the reference point."""
    return max(abs(a - b) for a, b in zip(motion.end, rest[motion.second], strict=True)) > AT_REST_MM


def _held(job: Job, piece: Piece, closes: list[Happening]) -> Iterator[Finding]:
    """Somebody holds the part all the time, and nobody pulls at what the other holds."""
    handed, come, back = job.hand_over, piece.come, piece.back
    if not closes or closes[0].end_s > back.start_s + 1e-6:
        what = f"line {back.line}: the second spindle goes back without having closed"
        yield Finding("error", "transfer.lost", what, "the part stays behind or falls", line=back.line)
    for opened, shut_s in _open_times(piece.happened):
        if closes and opened.start_s < closes[0].end_s - 1e-6 and shut_s > come.start_s + 1e-6:
            what = f"line {opened.line}: the first hold opens before the second one has the part"
            yield Finding("error", "transfer.unheld", what, "nobody holds it", line=opened.line)
    free = any(one.end_s <= back.start_s + 1e-6 < shut_s for one, shut_s in _open_times(piece.happened))
    if handed is not None and handed.how == "released" and not free:
        what = f"line {back.line}: the second spindle goes back while the first hold still grips"
        yield Finding("error", "transfer.gripped", what, "it pulls at the part until something gives", line=back.line)


def _open_times(happened: Sequence[Happening]) -> list[tuple[Happening, float]]:
    """Every opening of the first hold, and when it closes again, s."""
    told = [one for one in happened if one.motion is not None and one.motion.event in ("unclamp", "clamp")]
    found: list[tuple[Happening, float]] = []
    for one, after in itertools.zip_longest(told, told[1:]):
        if one.motion is not None and one.motion.event == "unclamp":
            found.append((one, after.start_s if after is not None else float("inf")))
    return found


def _drawn(piece: Piece, wanted_mm: float) -> Iterator[Finding]:
    """Bar is drawn out of an open hold that closes again before the cut, and as much as the next part wants."""
    pull = piece.pull
    if pull is None:
        return
    free = [(one, shut_s) for one, shut_s in _open_times(piece.happened) if one.end_s <= pull.start_s + 1e-6 < shut_s]
    if not free:
        what = f"line {pull.line}: the second spindle draws at the bar while the first hold grips it"
        yield Finding("error", "transfer.gripped", what, "it slips in the jaws or tears", line=pull.line)
    elif free[-1][1] > piece.back.start_s:
        what = f"line {pull.line}: the first hold stays open behind the bar that was drawn out"
        yield Finding("error", "transfer.unheld", what, "it is cut off and falls back", line=pull.line)
    off = piece.drawn_mm - wanted_mm
    if abs(off) > PULL_MM:
        word = "long" if off > 0 else "short"
        what = said("line {}: the bar is drawn out {} too {} for the next part", pull.line, q(abs(off)), word)
        yield Finding("error", "transfer.pull", what, "it is cut in air, or has nothing to face", line=pull.line)


def _empty(happened: Sequence[Happening], come: Happening) -> Iterator[Finding]:
    """The part before is out of the second hold."""
    cuts = [one for one in happened if one.motion is not None and one.motion.second and one.start_s < come.start_s]
    out = [one for one in _marks(happened, "part_out") if one.end_s <= come.start_s + 1e-6]
    if cuts and not out:
        what = f"line {come.line}: the second spindle comes for a part and still holds the one before"
        yield Finding("error", "transfer.full", what, "one part runs into the other", line=come.line)


def _let_go(piece: Piece, closes: list[Happening]) -> Iterator[Finding]:
    """The second hold stays shut until its side is done, and its spindle stands when it opens."""
    later = [one for one in _marks(piece.happened, "second_open") if closes and one.start_s >= closes[0].end_s - 1e-6]
    cuts = _second_cuts(piece)
    for one in later:
        if any(cut.end_s > one.start_s + 1e-6 for cut in cuts):
            what = f"line {one.line}: the second hold opens before its side is done"
            yield Finding("error", "transfer.dropped", what, "the part comes out under the tool", line=one.line)
        told = [other for name in ("second_turns", "second_stands") for other in _marks(piece.happened, name)]
        runs = sorted((other for other in told if other.start_s <= one.start_s), key=lambda other: other.start_s)
        if runs and runs[-1].mark is not None and runs[-1].mark.what == "second_turns":
            what = f"line {one.line}: the second hold opens while its spindle turns"
            yield Finding("error", "transfer.turning", what, "the part is thrown out", line=one.line)


def _turning(happened: Sequence[Happening]) -> Iterator[Finding]:
    """The first hold opens on a spindle that turns, and the other one does not follow it."""
    for one, _ in _open_times(happened):
        told = [other for what in ("main_turns", "main_stands") for other in _marks(happened, what)]
        runs = sorted((other for other in told if other.start_s <= one.start_s), key=lambda other: other.start_s)
        joined = [
            other for what in ("sync", "sync_off") for other in _marks(happened, what) if other.end_s <= one.start_s
        ]
        last = max(joined, key=lambda other: other.end_s, default=None)
        synced = last is not None and last.mark is not None and last.mark.what == "sync"
        if runs and runs[-1].mark is not None and runs[-1].mark.what == "main_turns" and not synced:
            what = f"line {one.line}: the first hold opens while its spindle turns and the second one stands"
            yield Finding("error", "transfer.turning", what, "part and bar are torn out", line=one.line)


def _place(moves: list[Happening], closes: list[Happening], grip_z: float) -> Iterator[Finding]:
    until = closes[0].start_s if closes else moves[-1].end_s
    there = [one for one in moves if one.end_s <= until + 1e-6 and one.mark is not None]
    if not there or there[-1].mark is None:
        return
    off = there[-1].mark.number - grip_z
    if abs(off) > DEPTH_MM:
        word = "less deep" if off > 0 else "deeper"
        what = said(
            "line {}: the second hold grips {} {} than the second side has it", there[-1].line, q(abs(off)), word
        )
        why = "the part stands out wrongly" if off > 0 else "it may run against jaws and chuck"
        yield Finding("error", "transfer.depth", what, why, line=there[-1].line)
    if there[-1].mark.feed is None:
        what = f"line {there[-1].line}: the second spindle comes to the grip in rapid"
        yield Finding("error", "transfer.rapid", what, "feed to the grip", line=there[-1].line)


def _matched(job: Job, happened: Sequence[Happening], closes: list[Happening]) -> Iterator[Finding]:
    until = closes[0].start_s if closes else 0.0
    milled = any(one.enabled and one.kind in ("holes", "flats", "slot") for one in job.operations)
    if milled and closes and not any(one.end_s <= until + 1e-6 for one in _marks(happened, "phase")):
        what = f"line {closes[0].line}: the second hold closes, something is milled already and no angle is matched"
        yield Finding("error", "transfer.phase", what, "the second side lies at any angle to it", line=closes[0].line)
    plates = [job.setup.hold.max_rpm, job.machine.max_rpm]
    plates += [job.setups[1].hold.max_rpm] if len(job.setups) > 1 else []
    plates += [job.machine.second.max_rpm] if job.machine.second is not None else []
    for one in _marks(happened, "sync"):
        if one.mark is not None and one.mark.number > min(plates):
            what = f"line {one.line}: both spindles at {one.mark.number:.0f} rpm, {min(plates):.0f} rpm are allowed"
            yield Finding("error", "transfer.speed", what, "the jaws lose their grip", line=one.line)


def _datum(piece: Piece, length_mm: float) -> Iterator[Finding]:
    happened, cuts = piece.happened, _second_cuts(piece)
    if not cuts:
        return
    known = [one for one in _marks(happened, "set_datum") if one.end_s <= cuts[0].start_s + 1e-6]
    if not known or known[-1].mark is None:
        what = f"line {cuts[0].line}: the second side is cut and its datum was never set"
        yield Finding("error", "transfer.datum", what, "every length of it is wrong", line=cuts[0].line)
        return
    off = known[-1].mark.number + length_mm
    if abs(off) > DATUM_MM:
        what = said(
            "line {}: the datum of the second side lies {} from the overall length",
            known[-1].line,
            q(abs(off), "mm", ".3f"),
        )
        yield Finding("error", "transfer.datum", what, "every length of it is wrong by that", line=known[-1].line)
