"""Whether the axes go as far as a program wants them: never beyond the reference point, nor farther from it than their
travel."""

from collections.abc import Iterable, Iterator

from toreuma.core.findings import Finding, place_text
from toreuma.core.model import Job
from toreuma.core.motion import Motion
from toreuma.core.reach.beside import sizes_of
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said

__all__ = ["travel_findings"]

SLACK_MM, OVER_MM = 0.5, 3.0
"""Nobody counts so much; slides go a little past where their travel is said to end, as past the centre."""

INDEX_MM = 20.0

PAST_MM = 25.0
"""Slides whose travel nobody has said go so far past the centre at most: judged."""


def travel_findings(job: Job, scene: Scene, motions: Iterable[Motion]) -> Iterator[Finding]:
    """The first move of each axis that goes too far, each way."""
    machine = job.machine
    face = scene.reference[0] - machine.carriers[0].reference_from_nose_mm
    homes = [(face + one.reference_from_nose_mm, one.reference_d_mm / 2) for one in machine.carriers]
    furthest = [max(home[axis] for home in homes) for axis in (0, 1)]
    # Where the reference point lies in the work, tools are changed in front of it, and nobody knows how far they go.
    beside = [index + INDEX_MM if index > home else home for index, home in zip(scene.index, furthest, strict=True)]
    high = [max(pair) for pair in zip(beside, furthest, strict=True)]
    travels = (machine.travel_z_mm, machine.travel_x_mm)
    least_home = [min(home[axis] for home in homes) for axis in (0, 1)]
    low = [home - travel - OVER_MM if travel else None for home, travel in zip(least_home, travels, strict=True)]
    # A tool that stands out along Z takes its tip so much farther than the face it stands on.
    stands_out = {tool.station: max(sizes_of(tool)[0], 0.0) for tool in job.tools}
    told: set[tuple[int, bool]] = set()
    past = False
    for motion in motions:
        if low[1] is None and motion.end[1] < -PAST_MM and not past and motion.driven is None:
            past = True
            what = said("line {}: X goes {} past the centre", motion.line, q(-motion.end[1]))
            why = "few slides go so far; the travel of this machine is not said"
            yield Finding("warning", "travel.past", what, why, at=motion.end, line=motion.line)
        for axis, word in ((0, "Z"), (1, "X")):
            place, least = motion.end[axis], low[axis]
            if axis == 0 and least is not None:
                least -= stands_out.get(motion.station, 0.0)
            beyond = place - high[axis]
            if beyond <= SLACK_MM:
                beyond = least - place if least is not None and least - place > SLACK_MM else 0.0
            if beyond > SLACK_MM and (axis, place > high[axis]) not in told:
                told.add((axis, place > high[axis]))
                what = said("line {}: {} goes {} farther than the axis does", motion.line, word, q(beyond))
                why = said("it would lead to {}; the control stops at the end of the travel", place_text(*motion.end))
                yield Finding("error", "travel.over", what, why, at=motion.end, line=motion.line)
