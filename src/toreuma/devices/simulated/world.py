"""What goes on at a simulated machine: sizes that warm up, wear and scatter, and answer to offsets."""

import math
import random
from dataclasses import dataclass, field

__all__ = ["SizeWorld"]


@dataclass
class SizeWorld:
    """One size through a day, mm over its aim: it warms up by ``warm`` with ``tau_s``, wears by ``wear`` a part since
    the edge was new, scatters by ``noise``, and moves with the offsets that are set."""

    warm: float = 0.0
    tau_s: float = 1800.0
    wear: float = 0.0
    noise: float = 0.001
    start: float = 0.0
    offset: float = 0.0
    new_since: int = 0
    source: random.Random = field(default_factory=lambda: random.Random(1))

    def level(self, part: int, t_s: float) -> float:
        """Where the size stands, without scatter."""
        worn = self.wear * max(part - self.new_since, 0)
        return self.start + self.warm * (1 - math.exp(-t_s / self.tau_s)) + worn + self.offset

    def made(self, part: int, t_s: float) -> float:
        """A part as it comes off."""
        return self.level(part, t_s) + self.source.gauss(0.0, self.noise)
