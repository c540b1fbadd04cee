"""A size through a run: its points, what was set, the line they follow, and what is ahead."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from toreuma.core.measure import Characteristic
from toreuma.core.measure.capability import Capability, capability
from toreuma.core.measure.drift import RunFit, RunPoint, fit_run
from toreuma.core.spoken import q, said
from toreuma.engine.logbook.first_article import size_of
from toreuma.log import EdgeUsed, Measurement, OffsetSet

__all__ = ["SizeRun", "run_of_size", "run_words"]

OFFSET_ON = {"diameter": "X", "wires": "X"}
LATEST = 25
"""Capability is that of the last so many parts, from what the size does between offsets."""


@dataclass(frozen=True, kw_only=True)
class SizeRun:
    """``fit`` and ``capability`` are None for too few parts. ``says`` is what is to be said, the most urgent first;
    ``changes`` are parts behind which the edge was new, ``sets`` (part, mm) offsets that move this size."""

    line: Characteristic
    points: tuple[RunPoint, ...]
    fit: RunFit | None
    capability: Capability | None
    sets: tuple[tuple[int, float], ...]
    changes: tuple[int, ...]
    says: tuple[tuple[str, str], ...]


def run_of_size(
    line: Characteristic,
    measured: Sequence[Measurement],
    offsets: Sequence[OffsetSet],
    edges: Sequence[EdgeUsed],
    tool: str,
    begun: float,
    s_per_part: float,
    usual_tau_s: float | None = None,
) -> SizeRun:
    """What a run says of one line of the inspection list; ``tool`` is who cuts it, ``usual_tau_s`` the time constant
    with which the machine is known to warm up."""
    own = sorted((one for one in measured if size_of(one.size)[0] == line.key and not one.struck), key=lambda m: m.part)
    axis = OFFSET_ON.get(line.quantity, "Z")
    moves = [one for one in offsets if one.tool == tool and one.axis == axis]
    sign = 1.0 if axis == "X" else -1.0  # a face that comes out farther in +Z makes its length shorter
    changes = sorted({one.from_part - 1 for one in edges if one.tool == tool and one.from_part > 1})
    points = tuple(
        RunPoint(
            part=one.part,
            t_s=one.at - begun,
            value=one.value,
            sigma=max(one.uncertainty / 2, 0.0003),
            since_edge=one.part - max((change for change in changes if change < one.part), default=0),
            offset=sum(sign * move.mm for move in moves if move.after_part < one.part),
        )
        for one in own
    )
    fit = None
    if line.aim is not None and points:
        last = points[-1]
        now = replace(
            last,
            since_edge=last.part - max((change for change in changes if change <= last.part), default=0),
            offset=sum(sign * move.mm for move in moves),
        )
        fit = fit_run(points, line.aim, line.lower, line.upper, s_per_part, now=now, usual_tau_s=usual_tau_s)
    found = capability([one.value for one in points[-LATEST:]], line.lower, line.upper)
    sets = tuple((move.after_part, sign * move.mm) for move in moves)
    return SizeRun(
        line=line, points=points, fit=fit, capability=found, sets=sets, changes=tuple(changes),
        says=tuple(run_words(line, points, fit, found)),
    )  # fmt: skip


def run_words(
    line: Characteristic, points: Sequence[RunPoint], fit: RunFit | None, found: Capability | None
) -> list[tuple[str, str]]:
    """Sentences with how urgent they are (error, warning, note, ok)."""
    says: list[tuple[str, str]] = []
    out = [one for one in points if not line.within(one.value)]
    if out and out[-1] is points[-1]:
        says.append(("error", said("part {} is out of its limits", out[-1].part)))
    if fit is None:
        says.append(("note", "too few parts are measured to say where it goes"))
        return says
    if fit.crosses is not None:
        words = said("part {} is expected near its limit: in {} min", fit.crosses, f"{fit.seconds_to / 60:.0f}")
        says.append(("warning", words))
    if fit.over_corrected:
        words = "offsets chase the spread: sizes would lie closer together if fewer were set"
        says.append(("warning", words))
    if fit.correction:
        words = said("correct by {} (damped by what is not known)", q(fit.correction, "mm", "+.4f"))
        says.append(("note", words))
    level = said("it stands at {} ± {}", q(fit.level, "mm", ".4f"), q(fit.level_uncertainty, "mm", ".4f"))
    says.append(("ok" if fit.crosses is None and not out else "note", level))
    for name, share in (("warming up", fit.warm), ("edge wear", fit.wear), ("other drift", fit.rest)):
        if abs(share.mm) > share.uncertainty:
            words = said("{}: {} ± {}", name, q(share.mm, "mm", "+.4f"), q(share.uncertainty, "mm", ".4f"))
            if name == "edge wear":
                words = said("{}, {} a part", words, q(share.rate, "mm", "+.5f"))
            if name == "warming up":
                words = said("{}, with a time constant of {} min", words, f"{fit.tau_s / 60:.0f}")
            says.append(("note", words))
    if found is not None:
        says.append(("note", capability_words(found)))
    return says


def capability_words(found: Capability) -> str:
    """Cp and Cpk with their 95 % ranges."""
    low, high = found.cpk_range
    words = f"Cpk {found.cpk:.2f} ({low:.2f} to {high:.2f}, {found.count} parts)"
    if found.cp is not None and found.cp_range is not None:
        words = f"Cp {found.cp:.2f} ({found.cp_range[0]:.2f} to {found.cp_range[1]:.2f}), {words}"
    return words
