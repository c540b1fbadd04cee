"""What is being chosen on the tools stage: the wish, the advice for it, and the candidate that is looked at."""

from collections.abc import Callable, Iterable

from PySide6.QtCore import QObject, Signal

from toreuma.app.session import Session, solids_of
from toreuma.app.session.beside import Beside
from toreuma.core.advise import Advice, Candidate, ReachView, Wish, advise, reach_view, wishes
from toreuma.core.errors import ToreumaError
from toreuma.core.memo import Check
from toreuma.core.model import Job
from toreuma.core.model.catalogue import RackItem
from toreuma.core.scene import Scene
from toreuma.engine.library import library
from toreuma.engine.search import edges_of
from toreuma.engine.shop import put_on_rack
from toreuma.files.rack import load_rack, rack_faults
from toreuma.shipped.library import catalogue, known_threads

__all__ = ["ToolChoice"]


class ToolChoice(QObject):
    """Shared by the list of wishes, the advice and the canvas. Works only while its stage is shown."""

    changed = Signal()
    rack_changed = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._session = session
        self.wishes: tuple[Wish, ...] = ()
        self.key = ""
        self.advice: Advice | None = None
        self.index = 0
        self.busy = False
        self.share = 0.0
        self.rack: tuple[RackItem, ...] = ()
        self.problem = ""
        self._scene: Scene | None = None
        self._of: tuple[object, ...] = ()
        self._views: dict[tuple[object, ...], ReachView] = {}
        self._looking = Beside(self)
        self._active = False
        session.job_changed.connect(self.refresh)

    @property
    def wish(self) -> Wish | None:
        return next((wish for wish in self.wishes if wish.key == self.key), None)

    @property
    def candidate(self) -> Candidate | None:
        found = self.advice.candidates if self.advice else ()
        return found[self.index] if self.index < len(found) else None

    @property
    def view(self) -> ReachView | None:
        """What the candidate looked at leaves on the part; None for tools that are not judged by reach."""
        one, wish = self.candidate, self.wish
        if one is None or wish is None or wish.surface is None or self._scene is None:
            return None
        key = (self._of, wish.key, one.title)
        if key not in self._views:
            self._views[key] = reach_view(self._scene, one.tool, wish.surface)
        return self._views[key]

    def set_active(self, active: bool) -> None:
        """The stage was shown or left."""
        self._active = active
        if active:
            try:
                self.rack = load_rack()
                if faults := rack_faults():
                    self._session.message.emit("error", f"{len(faults)} of the rack cannot be used: {faults[0]}")
            except ToreumaError as error:
                self._session.message.emit("error", str(error))
            self.refresh()

    def refresh(self) -> None:
        """Look at the job again; only what the answer depends on makes it anew."""
        job = self._session.job
        if not self._active or job is None:
            return
        of = (*solids_of(job), job.machine)
        if of != self._of:
            self._of, self._views = of, {}
            try:
                self._scene = self._session.scene_of(job)
                self.wishes, self.problem = wishes(job, self._scene), ""
            except ToreumaError as error:
                self._scene, self.wishes, self.problem = None, (), str(error)
            self._ask(self.key if self.wish is not None else next((w.key for w in self.wishes), ""))
        else:
            self.changed.emit()

    def choose(self, key: str) -> None:
        """Another wish."""
        if key != self.key or self.advice is None:
            self._ask(key)

    def look_at(self, index: int) -> None:
        """Another candidate of the same wish."""
        self.index = index
        self.changed.emit()

    def renew(self) -> None:
        """Ask again: rack or turret changed."""
        self._ask(self.key, keep=self.index)

    def put_on_rack(self, code: str) -> None:
        """One more of this in the person's own drawer, with all its edges."""
        edges = edges_of(catalogue(), code)
        held = next((item for item in self.rack if item.code == code), None)
        item = (
            RackItem(code=code, edges_left=edges) if held is None else held.changed(edges_left=held.edges_left + edges)
        )
        self.keep_on_rack((item,))

    def keep_on_rack(self, items: Iterable[RackItem]) -> None:
        """Tools put on the rack, or others in place of those of their codes; kept on disk."""
        try:
            self.rack = put_on_rack(items)
        except ToreumaError as error:
            self._session.message.emit("error", str(error))
        self.rack_changed.emit()
        self.renew()

    def close(self) -> None:
        """End what is under way, and wait for it: the window goes."""
        self._looking.close()

    def _ask(self, key: str, keep: int = 0) -> None:
        self._looking.leave()
        self.key, self.advice, self.index, self.share = key, None, keep, 0.0
        job, wish = self._session.job, self.wish
        if job is None or wish is None or self._scene is None:
            self.busy = False
            self.changed.emit()
            return
        self.busy = True
        scene, rack = self._scene, self.rack
        self._looking.start(
            lambda check, progress: self._advice(job, scene, wish, rack, check, progress),
            "advice", self._on_done, lambda error: self._on_done(None), self._on_progress,
        )  # fmt: skip
        self.changed.emit()

    @staticmethod
    def _advice(
        job: Job, scene: Scene, wish: Wish, rack: tuple[RackItem, ...], check: Check, progress: Callable[[float], None]
    ) -> Advice:
        codes = {item.code for item in rack}
        store = library().store(codes)
        return advise(job, scene, wish, store, codes, known_threads(job.part), check, progress)

    def _on_progress(self, share: float) -> None:
        self.share = share

    def _on_done(self, advice: Advice | None) -> None:
        self.advice, self.busy = advice, False
        self.changed.emit()
