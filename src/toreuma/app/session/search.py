"""A search that takes its time beside plan and proof: for a route, or for the shortest cycle."""

from dataclasses import dataclass, replace
from typing import Literal

__all__ = ["IDLE", "Search"]


@dataclass(frozen=True)
class Search:
    """What is looked for, under which number of a request, and how it stands.

    A search changes nothing until it has found something: stopped or failed, the job keeps its plan and proof.
    """

    what: Literal["", "route", "cycle"] = ""
    request: int = -1
    state: Literal["idle", "looking", "found", "stopped", "failed"] = "idle"
    offers: bool = False
    """Something was found that may be taken, while better is looked for."""

    def looks_for(self, what: str) -> bool:
        """Under way."""
        return self.state == "looking" and self.what == what

    def with_offer(self) -> "Search":
        return replace(self, offers=True)

    def ended(self, state: Literal["found", "stopped", "failed"]) -> "Search":
        return Search(self.what, self.request, state)


IDLE = Search()
