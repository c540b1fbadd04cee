"""How long a part takes: what was computed, and what the machine it runs on makes of that."""

from collections.abc import Iterable

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.model import Machine
from toreuma.core.plan.route import Plan

__all__ = ["expected_s", "part_time"]


def part_time(sides: Iterable[Plan], between_s: float = 0.0) -> Evidence:
    """Seconds from one part to the next, with what turning it round or handing it over takes between its sides."""
    plans = tuple(sides)
    machine = plans[0].job.machine
    computed = between_s + sum(side.times.total_s for side in plans)
    learned = machine.source_of("time_ratio") or ("typed for this machine" if machine.time_ratio != 1 else "")
    return Evidence(
        "one part takes",
        "",
        expected_s(computed, machine),
        "s",
        formula="computed · real time over computed" if learned else "every block, with the spindle's own speed",
        source=learned,
        inputs=(
            Input("computed", "", computed, "s"),
            *((Input("real time over computed", "", machine.time_ratio, "ratio"),) if learned else ()),
        ),
    )


def expected_s(computed_s: float, machine: Machine) -> float:
    """Seconds to expect on a machine of what was computed for it."""
    return computed_s * machine.time_ratio
