"""The hand-over as two programs make it: whether anything meets, and whether somebody holds the part all the time."""

from collections.abc import Iterator, Sequence

from toreuma.core.findings import Finding
from toreuma.core.geometry.elements import Point
from toreuma.core.model import Job
from toreuma.core.prove.together import Happening

__all__ = ["taken_over"]

AT_REST_MM = 0.5
DEPTH_MM, DATUM_MM = 0.05, 0.005


def taken_over(
    job: Job, happened: Sequence[Happening], rest: dict[int, Point], grip_z: float, length_mm: float
) -> Iterator[Finding]:
    """What is wrong with the hand-over.

    ``rest`` is the reference point of each channel's carrier; ``grip_z`` is where the front of the second jaws stands
    when it grips as the second side has it, ``length_mm`` the overall length its datum comes from.
    """
    moves = [one for one in happened if one.mark is not None and one.mark.what == "second_to"]
    if not moves:
        return
    closes = [one for one in happened if one.mark is not None and one.mark.what == "second_close"]
    opened = [one for one in happened if one.motion is not None and one.motion.event == "unclamp"]
    come = moves[0]
    back = next((one for one in moves if one.mark and one.mark.number > moves[0].mark.number + 1), moves[-1])  # type: ignore[union-attr]
    yield from _open(happened, come)
    cut_between = job.hand_over is not None and job.hand_over.how != "released" and closes
    yield from _parked(happened, come, closes[0] if cut_between else back, rest)
    yield from _held(job, come, back, closes, opened)
    yield from _turning(happened, opened)
    yield from _place(moves, closes, grip_z)
    yield from _matched(job, happened, closes)
    yield from _datum(happened, length_mm)


def _marks(happened: Sequence[Happening], what: str) -> list[Happening]:
    return [one for one in happened if one.mark is not None and one.mark.what == what]


def _open(happened: Sequence[Happening], come: Happening) -> Iterator[Finding]:
    ready = [one for one in _marks(happened, "second_open") if one.end_s <= come.start_s + 1e-6]
    if not ready:
        what = f"line {come.line}: the second spindle comes up and its hold has not opened"
        yield Finding("error", "transfer.closed", what, "its jaws run into the part", line=come.line)


def _parked(
    happened: Sequence[Happening], come: Happening, until: Happening, rest: dict[int, Point]
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
        elif before and before[-1].motion is not None and _away(before[-1].motion.end, place):
            what = f"line {come.line}: the carrier of channel {channel} is not parked when the second spindle comes up"
            yield Finding("error", "transfer.park", what, "they run into each other", line=come.line)
        during = [
            one for one in happened
            if one.channel == channel and one.motion is not None and not one.motion.event and one.motion.length > 1e-6
            and come.start_s - 1e-6 <= one.start_s < until.end_s - 1e-6 and _away(one.motion.end, place)
        ]  # fmt: skip
        if during:
            what = f"line {during[0].line}: a tool of channel {channel} moves while the part is handed over"
            yield Finding("error", "transfer.moving", what, "it runs into the second spindle", line=during[0].line)


def _away(end: Point, place: Point) -> bool:
    return max(abs(a - b) for a, b in zip(end, place, strict=True)) > AT_REST_MM


def _held(
    job: Job, come: Happening, back: Happening, closes: list[Happening], opened: list[Happening]
) -> Iterator[Finding]:
    """Somebody holds the part all the time, and nobody pulls at what the other holds."""
    handed = job.hand_over
    if not closes or closes[0].end_s > back.start_s + 1e-6:
        what = f"line {back.line}: the second spindle goes back without having closed"
        yield Finding("error", "transfer.lost", what, "the part stays behind or falls", line=back.line)
    freed = [one for one in opened if one.start_s >= come.start_s - 1e-6 or not closes]
    early = [one for one in opened if closes and one.start_s < closes[0].end_s - 1e-6 and one.end_s > 0]
    if early:
        what = f"line {early[0].line}: the first hold opens before the second one has the part"
        yield Finding("error", "transfer.unheld", what, "nobody holds it", line=early[0].line)
    if handed is not None and handed.how == "released" and not any(one.end_s <= back.start_s + 1e-6 for one in freed):
        what = f"line {back.line}: the second spindle goes back while the first hold still grips"
        yield Finding("error", "transfer.gripped", what, "it pulls at the part until something gives", line=back.line)


def _turning(happened: Sequence[Happening], opened: list[Happening]) -> Iterator[Finding]:
    """The first hold opens on a spindle that turns, and the other one does not follow it."""
    for one in opened:
        told = [other for what in ("main_turns", "main_stands") for other in _marks(happened, what)]
        runs = sorted((other for other in told if other.start_s <= one.start_s), key=lambda other: other.start_s)
        synced = any(other.end_s <= one.start_s for other in _marks(happened, "sync"))
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
        what = f"line {there[-1].line}: the second hold grips {abs(off):.2f} mm {word} than the second side has it"
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


def _datum(happened: Sequence[Happening], length_mm: float) -> Iterator[Finding]:
    cuts = [one for one in happened if one.motion is not None and one.motion.second and not one.motion.is_rapid]
    if not cuts:
        return
    known = [one for one in _marks(happened, "set_datum") if one.end_s <= cuts[0].start_s + 1e-6]
    if not known or known[-1].mark is None:
        what = f"line {cuts[0].line}: the second side is cut and its datum was never set"
        yield Finding("error", "transfer.datum", what, "every length of it is wrong", line=cuts[0].line)
        return
    off = known[-1].mark.number + length_mm
    if abs(off) > DATUM_MM:
        what = f"line {known[-1].line}: the datum of the second side lies {abs(off):.3f} mm from the overall length"
        yield Finding("error", "transfer.datum", what, "every length of it is wrong by that", line=known[-1].line)
