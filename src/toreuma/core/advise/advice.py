"""Advice for one wish: candidates from the turret and rack first, then the catalogue, and those that cannot do it."""

from collections.abc import Callable, Collection, Mapping
from dataclasses import dataclass
from types import MappingProxyType

from toreuma.core.advise.ask import Ask
from toreuma.core.advise.candidate import Candidate, Rejected
from toreuma.core.advise.seated import Split, turning_candidates
from toreuma.core.advise.whole import whole_candidates
from toreuma.core.advise.wishes import Wish
from toreuma.core.memo import Check, never_cancel
from toreuma.core.model import Job
from toreuma.core.model.catalogue import Catalogue
from toreuma.core.scene import Scene
from toreuma.core.standards.threads import Thread

__all__ = ["Advice", "advise"]

MOST = 40


@dataclass(frozen=True)
class Advice:
    """Ranked candidates for a wish, the best first; ``split`` names a second tool for what the first leaves."""

    wish: Wish
    candidates: tuple[Candidate, ...]
    rejected: tuple[Rejected, ...]
    split: Split | None = None

    @property
    def best(self) -> Candidate | None:
        return self.candidates[0] if self.candidates else None


def advise(
    job: Job,
    scene: Scene,
    wish: Wish,
    store: Catalogue,
    rack: Collection[str] = (),
    threads: Mapping[str, Thread] = MappingProxyType({}),
    check: Check = never_cancel,
    progress: Callable[[float], None] = lambda share: None,
    tight: bool = False,
    fine: bool = False,
) -> Advice:
    """Tools for a wish. ``rack`` holds the codes of what is in the drawer, ``threads`` the part's threads; ``tight``: a
    drill may leave less to bore than usual.

    Whatever ``check`` raises stops the work; ``progress`` is told the share done.
    """
    if wish.surface is not None and wish.use in ("rough", "finish", "face"):
        found, rejected, split = turning_candidates(job, scene, wish, store, rack, check, progress, fine)
    else:
        found, rejected = whole_candidates(Ask(job, scene, wish, threads, store, tight), store, rack, check)
        split = None
    ranked = sorted(found, key=lambda one: one.rank)
    return Advice(wish, tuple(ranked[:MOST]), tuple(rejected), split)
