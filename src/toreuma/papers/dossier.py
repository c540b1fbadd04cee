"""Everything the sheets of a job are made of, gathered once: sheets compute nothing of the trade."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime

from toreuma.core.channels.by_hand import ByHand
from toreuma.core.channels.transfer import Transfer
from toreuma.core.cutting.evidence import Evidence
from toreuma.core.measure import Characteristic
from toreuma.core.model import Job
from toreuma.core.model.catalogue import RackItem
from toreuma.core.plan import Plan
from toreuma.core.plan.asked.edges import EdgeUse
from toreuma.core.standards.threads import Thread
from toreuma.core.units import System
from toreuma.core.verdict import Verdict

__all__ = ["Dossier", "ProgramFile"]


@dataclass(frozen=True, kw_only=True)
class ProgramFile:
    """A program as it leaves: its file, whose it is (a side or a channel), and what tells its text from every other."""

    name: str
    of: str
    lines: int
    fingerprint: str


@dataclass(frozen=True, kw_only=True)
class Dossier:
    """``sides`` are the planned sides, ``threads`` what their drawings call for, by designation. ``verdict`` is None
    where nothing was proved. ``rack`` says where things lie, by code; ``takes`` is what one part takes."""

    job: Job
    sides: tuple[Plan, ...]
    system: System
    made_at: datetime
    threads: Mapping[str, Thread]
    takes: Evidence
    characteristics: tuple[Characteristic, ...] = ()
    verdict: Verdict | None = None
    unproved: str = ""
    programs: tuple[ProgramFile, ...] = ()
    edges: tuple[EdgeUse, ...] = ()
    transfer: Transfer | None = None
    by_hand: ByHand | None = None
    rack: Mapping[str, RackItem] = field(default_factory=dict)

    @property
    def proved(self) -> bool:
        """The part comes off the machine as it is drawn, but perhaps for what may stay."""
        return self.verdict is not None and self.verdict.finished
