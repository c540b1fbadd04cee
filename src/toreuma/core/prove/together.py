"""Programs of several channels as they run together: each waits where it must, and everything has its time."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from toreuma.core.channels.waits import Act, Laid, Wait, laid_out
from toreuma.core.cutting.speed import spindle_rpm
from toreuma.core.findings import Finding
from toreuma.core.model import Machine
from toreuma.core.motion import STOPPED, Motion, Spindle
from toreuma.core.read import Mark, Program
from toreuma.core.simulate.clock import dwell_and_change_s, motion_time_s

__all__ = ["Happening", "Together", "together"]

ASKED_S, EJECT_S = 0.3, 0.6


@dataclass(frozen=True, kw_only=True)
class Happening:
    """Something that happened in a channel from ``start_s`` to ``end_s``: a move, or a word between moves."""

    channel: int
    start_s: float
    end_s: float
    motion: Motion | None = None
    mark: Mark | None = None

    @property
    def line(self) -> int:
        return self.motion.line if self.motion is not None else self.mark.line if self.mark is not None else 0


@dataclass(frozen=True, kw_only=True)
class Together:
    """Everything in the order it happens. ``main`` and ``second`` are the moves at each spindle as one program."""

    happened: tuple[Happening, ...]
    main: Program
    second: Program
    laid: Laid
    waited_s: dict[int, float]
    findings: tuple[Finding, ...]

    @property
    def seconds(self) -> float:
        return self.laid.total_s

    def at(self, channel: int, seconds: float) -> Happening | None:
        """What a channel does at a time; None when it has ended."""
        there = (one for one in self.happened if one.channel == channel and one.start_s <= seconds < one.end_s)
        return next(there, None)


def together(programs: Mapping[int, Program], machine: Machine) -> Together:
    """Run all programs beside each other. What would wait for ever is an error finding with its line."""
    rows = {channel: _items(channel, programs, machine) for channel in programs}
    laid = laid_out({channel: [item for item, _ in row] for channel, row in rows.items()})
    happened = []
    offsets = _offsets(programs)
    for channel, row in rows.items():
        for (start, end), (_, what) in zip(laid.times[channel], row, strict=False):
            if isinstance(what, Motion):
                moved = replace(what, section=what.section + offsets[channel]) if what.section >= 0 else what
                happened.append(Happening(channel=channel, start_s=start, end_s=end, motion=moved))
            else:
                happened.append(Happening(channel=channel, start_s=start, end_s=end, mark=what))
    happened.sort(key=lambda one: (one.start_s, one.end_s))
    told = [finding for program in programs.values() for finding in program.findings]
    told += _counted(programs)
    told += [_stuck(stuck.channel, stuck.mark, stuck.why, programs) for stuck in laid.stuck]
    text = "".join(program.text for program in programs.values())
    sections = tuple(section for program in programs.values() for section in program.sections)
    main = tuple(one.motion for one in happened if one.motion is not None and not one.motion.second)
    second = tuple(one.motion for one in happened if one.motion is not None and one.motion.second)
    waited = laid.waited_s({channel: [item for item, _ in row] for channel, row in rows.items()})
    return Together(
        happened=tuple(happened),
        main=Program(text=text, motions=main, sections=sections, findings=()),
        second=Program(text=text, motions=second, sections=sections, findings=()),
        laid=laid,
        waited_s=waited,
        findings=tuple(told),
    )


def _counted(programs: Mapping[int, Program]) -> list[Finding]:
    """Every channel makes as many parts as the others."""
    counts = {channel: program.parts for channel, program in programs.items()}
    if len(set(counts.values())) < 2:
        return []
    words = ", ".join(f"channel {channel} {count} times" for channel, count in counts.items())
    what = f"the program of a further part is not run as often in every channel: {words}"
    return [Finding("error", "wait.count", what, "one channel waits for ever when the other has ended")]


def _offsets(programs: Mapping[int, Program]) -> dict[int, int]:
    """Where the sections of each channel begin among all."""
    found, count = {}, 0
    for channel, program in programs.items():
        found[channel] = count
        count += len(program.sections)
    return found


def _items(channel: int, programs: Mapping[int, Program], machine: Machine) -> list[tuple[Act | Wait, Motion | Mark]]:
    """Moves and marks of one channel in their order, each with the time it takes."""
    program, met = programs[channel], 0
    found: list[tuple[Act | Wait, Motion | Mark]] = []
    marks, at = list(program.marks), 0.0
    before: Motion | None = None
    for index in range(len(program.motions) + 1):
        while marks and marks[0].at == index:
            mark = marks.pop(0)
            if mark.what == "wait":
                met = int(mark.number)
                found.append((Wait(met, frozenset(mark.channels)), mark))
                continue
            found.append((Act(mark.what, mark.what, _mark_s(mark, at, machine)), mark))
            at = mark.number if mark.what == "second_to" else at
        if index < len(program.motions):
            motion = program.motions[index]
            if motion.shared:
                motion = replace(motion, spindle=_commanded(channel, met, programs, machine))
            seconds = dwell_and_change_s(before, motion, machine) + min(motion_time_s(motion, machine), 3600.0)
            found.append((Act("move", "move", seconds), motion))
            before = motion
    return found


def _commanded(channel: int, met: int, programs: Mapping[int, Program], machine: Machine) -> Spindle:
    """The speed that another channel commands for what comes behind a mark both have met at."""
    for other, program in programs.items():
        if other == channel:
            continue
        begins = next((one.at for one in program.marks if one.what == "wait" and one.number == met), None)
        if begins is None:
            continue
        cut = next((one for one in program.motions[begins:] if not one.is_rapid and not one.shared), None)
        if cut is not None:
            return Spindle("fixed", spindle_rpm(cut.spindle, cut.end[1], machine.max_rpm))
    return STOPPED


def _mark_s(mark: Mark, at: float, machine: Machine) -> float:
    second = machine.second
    if second is None:
        return 0.0
    if mark.what == "second_to":
        speed = second.rapid_mm_min if mark.feed is None else mark.feed
        return 60 * abs(mark.number - at) / speed if speed > 0 else 0.0
    return {
        "second_open": second.clamp_s, "second_close": second.clamp_s, "sync": second.sync_s, "phase": second.phase_s,
        "air_blast": 0.5, "closed_asked": ASKED_S, "part_asked": ASKED_S,
        "part_out": EJECT_S,
    }.get(mark.what, 0.0)  # fmt: skip


def _stuck(channel: int, number: int, why: str, programs: Mapping[int, Program]) -> Finding:
    marks = programs[channel].marks
    line = next((one.line for one in marks if one.what == "wait" and one.number == number), None)
    what = f"channel {channel} waits at mark {number} for ever: {why}"
    return Finding("error", "wait.stuck", what, "the machine stands, or goes on without the other", line=line)
