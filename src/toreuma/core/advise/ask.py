"""What is asked of a whole tool, and what its judge says of it."""

from collections.abc import Mapping
from dataclasses import dataclass

from toreuma.core.advise.wishes import Wish
from toreuma.core.model import Job
from toreuma.core.model.catalogue import Catalogue
from toreuma.core.scene import Scene
from toreuma.core.standards.threads import Thread

__all__ = ["Ask", "Verdict"]


@dataclass(frozen=True)
class Ask:
    """What is asked of a tool; ``threads`` maps the designations of the part's threads, ``store`` is what else there
    is; ``tight``: a drill may leave less to bore than usual, so that a bar has room."""

    job: Job
    scene: Scene
    wish: Wish
    threads: Mapping[str, Thread]
    store: Catalogue
    tight: bool = False

    @property
    def feature(self) -> object:
        return self.job.part.features[self.wish.feature] if self.wish.feature >= 0 else None


Verdict = tuple[tuple[float, ...], tuple[str, ...], float] | str
"""Rank, reasons and leftover of a tool that can do it; a line that says why it cannot."""
