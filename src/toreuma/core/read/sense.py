"""Slips of the keys: what can be read and is most likely not meant."""

from collections.abc import Iterator, Sequence

from toreuma.core.findings import Finding
from toreuma.core.motion import Motion
from toreuma.core.read.words import Block

__all__ = ["suspicious"]

LARGEST_FEED_MM = 3.0
"""Per turn, of a cut that is no thread."""

SURELY_MM, BEYOND_MM = 2.0, 5.0


def suspicious(motions: Sequence[Motion], blocks: Sequence[Block]) -> Iterator[Finding]:
    """What looks wrong in the moves as they were read."""
    told: set[str] = set()
    yield from _feeds(motions, told)
    yield from _leads(motions)
    yield from _signs(motions)
    yield from _beyond(motions, told)


def _feeds(motions: Sequence[Motion], told: set[str]) -> Iterator[Finding]:
    for motion in motions:
        if motion.feed is None or motion.in_step or motion.per_minute or motion.driven is not None:
            continue
        if motion.feed > LARGEST_FEED_MM and f"{motion.feed}" not in told:
            told.add(f"{motion.feed}")
            what = f"line {motion.line}: a feed of {motion.feed:g} mm in one turn"
            yield Finding(
                "warning", "feed.large", what, "a point may be missing, or it is meant per minute", line=motion.line
            )


def _leads(motions: Sequence[Motion]) -> Iterator[Finding]:
    """A thread cut in several passes, and one of them with another lead."""
    before: Motion | None = None
    for motion in motions:
        if not motion.in_step:
            if motion.station != (before.station if before else motion.station):
                before = None
            continue
        if before is not None and before.section == motion.section and before.line != motion.line:
            same = abs(before.start[0] - motion.start[0]) < SURELY_MM and abs(before.end[0] - motion.end[0]) < 0.01
            if same and before.feed != motion.feed:
                what = f"line {motion.line}: the lead changes from {before.feed or 0:g} to {motion.feed or 0:g} mm"
                yield Finding(
                    "warning", "thread.lead", what, "the passes of one thread would cross each other", line=motion.line
                )
        before = motion


def _signs(motions: Sequence[Motion]) -> Iterator[Finding]:
    """A place whose sign is not that of the places around it."""
    cuts = [one for one in motions if one.feed is not None and one.driven is None and one.end[0] != one.start[0]]
    for before, motion, after in zip(cuts, cuts[1:], cuts[2:], strict=False):
        if not before.station == motion.station == after.station or len({before.line, motion.line, after.line}) < 3:
            continue
        z = motion.end[0]
        if z > SURELY_MM and before.end[0] < -SURELY_MM and after.end[0] < -SURELY_MM:
            what = f"line {motion.line}: Z{z:g} stands between places below zero"
            yield Finding("warning", "program.sign", what, "a minus may be missing", line=motion.line)


def _beyond(motions: Sequence[Motion], told: set[str]) -> Iterator[Finding]:
    for motion in motions:
        if motion.driven is None and motion.end[1] < -BEYOND_MM and motion.start[1] > 0 and "beyond" not in told:
            told.add("beyond")
            what = f"line {motion.line}: X{2 * motion.end[1]:g} lies beyond the axis"
            yield Finding("warning", "program.sign", what, "a minus may be too much", line=motion.line)
