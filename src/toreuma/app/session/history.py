"""Jobs that were there before and after the one that stands."""

from toreuma.core.model import Job

__all__ = ["History"]


class History:
    """What undo brings back and redo takes up again, without limit, and which job is the saved one."""

    def __init__(self) -> None:
        self._undo: list[Job] = []
        self._redo: list[Job] = []
        self.saved: Job | None = None
        self._together = ""

    def begin(self, job: Job) -> None:
        """A job just opened has no past."""
        self._undo, self._redo, self.saved, self._together = [], [], job, ""

    def put(self, before: Job, together: str = "") -> None:
        """Another job takes the place of this one; what was undone is gone. Edits ``together`` under one word, as
        letters typed one after the other, are undone as one."""
        if not together or together != self._together:
            self._undo.append(before)
        self._together = together
        self._redo.clear()

    def part(self) -> None:
        """What is edited from now on is undone by itself."""
        self._together = ""

    def back(self, standing: Job) -> Job | None:
        """The job before the one that stands; None where there is none."""
        self.part()
        return self._step(standing, self._undo, self._redo)

    def forth(self, standing: Job) -> Job | None:
        """The job that was undone last."""
        self.part()
        return self._step(standing, self._redo, self._undo)

    @property
    def can_go_back(self) -> bool:
        return bool(self._undo)

    @property
    def can_go_forth(self) -> bool:
        return bool(self._redo)

    @staticmethod
    def _step(standing: Job, taken: list[Job], kept: list[Job]) -> Job | None:
        if not taken:
            return None
        kept.append(standing)
        return taken.pop()
