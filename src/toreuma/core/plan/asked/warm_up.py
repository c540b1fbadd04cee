"""How long sizes drift after a cold start."""

import math

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.model import Machine

__all__ = ["parts_until_warm"]

CONSTANTS = 3.0
"""After so many time constants a first-order answer has gone 95 % of its way."""


def parts_until_warm(machine: Machine, part_s: float) -> Evidence | None:
    """Parts from a cold start until the machine has nearly reached its level; None where nobody knows how it warms
    up. First-order answer, after the environmental test of ISO 230-3."""
    if machine.warm_up_min is None or not part_s > 0:
        return None
    return Evidence(
        "parts until it is warm",
        "",
        math.ceil(CONSTANTS * machine.warm_up_min * 60 / part_s),
        "",
        formula="3 time constants / time of a part: 95 % of the way",
        source=machine.source_of("warm_up_min") or "typed for this machine",
        inputs=(Input("time constant", "", machine.warm_up_min, "min"), Input("a part", "", part_s, "s")),
    )
