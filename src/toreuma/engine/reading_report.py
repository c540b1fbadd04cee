"""What a program that was read does, as data for scripts and as lines for people."""

from typing import Any

from toreuma.core.findings import Finding
from toreuma.core.geometry.elements import Arc, Point
from toreuma.core.motion import Motion
from toreuma.core.read import Program, kind_of
from toreuma.core.read.places import label_of
from toreuma.core.read.state import HOME
from toreuma.engine.foreign import Foreign

__all__ = ["finding_row", "how_of", "motion_row", "reading_report"]


def how_of(motion: Motion) -> str:
    """Rapid, feed, thread, dwell, or what the machine does meanwhile."""
    if motion.event:
        return motion.event
    if motion.dwell_s:
        return "dwell"
    if motion.in_step:
        return "thread"
    return "rapid" if motion.is_rapid else "feed"


def motion_row(motion: Motion, home: Point = HOME) -> dict[str, Any]:
    """One move as data. Places nobody can know are null."""
    z, r = motion.end
    row: dict[str, Any] = {
        "line": motion.line,
        "z": None if z == home[0] else _rounded(z),
        "d": None if r == home[1] else _rounded(2 * r),
        "feed": None if motion.feed is None else _rounded(motion.feed),
        "feed_per": None if motion.feed is None else "minute" if motion.per_minute else "turn",
        "how": how_of(motion),
        "station": motion.station,
        "spindle": {
            "mode": motion.spindle.mode,
            "value": _rounded(motion.spindle.value),
            "clamp": motion.spindle.clamp_rpm,
        },
        "datum": label_of(motion.datum or "work_offset"),
    }
    if isinstance(motion.segment, Arc):
        arc = motion.segment
        row["arc"] = {"clockwise": arc.clockwise, "radius": _rounded(arc.radius), "z": _rounded(arc.centre[0]),
                      "d": _rounded(2 * arc.centre[1])}  # fmt: skip
    if motion.dwell_s:
        row["dwell_s"] = _rounded(motion.dwell_s)
    if motion.driven is not None:
        row["c_deg"], row["y"] = _rounded(motion.driven.c_deg), _rounded(motion.driven.y[1])
        row["tool_rpm"] = _rounded(motion.driven.rpm)
    return row


def finding_row(finding: Finding) -> dict[str, Any]:
    what = finding.what.split(": ", 1)[-1] if finding.what.startswith("line ") else finding.what
    return {"line": finding.line, "kind": kind_of(finding), "code": finding.code, "what": what, "why": finding.why}


def reading_report(found: Foreign) -> dict[str, Any]:
    """Everything reading gave."""
    program = found.program
    more = {
        str(channel): {
            "motions": [motion_row(one, found.given.home) for one in other.motions if not _stands(one)],
            "findings": [finding_row(one) for one in other.findings],
        }
        for channel, other in found.others.items()
    }
    return {
        "dialect": found.dialect.id,
        "because": [] if found.guess is None else [{"line": one.line, "what": one.what} for one in found.guess.reasons],
        "units": units_of(program),
        "whole_numbers": found.dialect.whole_numbers,
        "understood": all(kind_of(one) != "not understood" for one in program.findings),
        "parts": program.parts,
        "motions": [motion_row(one, found.given.home) for one in program.motions if not _stands(one)],
        "in_force": [{"line": one.line, "what": one.what, "value": one.value} for one in program.in_force],
        "findings": [finding_row(one) for one in program.findings],
        "missing_programs": list(program.missing),
        "channel": found.channel,
        "other_channels": more,
    }


def units_of(program: Program) -> str | None:
    """The units last in force; None where nothing said them."""
    return next((str(one.value) for one in reversed(program.in_force) if one.what == "units" and one.value), None)


def _stands(motion: Motion) -> bool:
    return motion.segment.length <= 1e-9 and not motion.event and not motion.dwell_s


def _rounded(number: float) -> float:
    found = round(number, 6)
    return 0.0 if found == 0 else found
