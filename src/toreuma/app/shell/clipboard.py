"""Copy and paste between jobs, by the clipboard of the desktop."""

from PySide6.QtWidgets import QApplication

from toreuma.app.session import Session
from toreuma.core.edit.clip import clip_of_feature, clip_of_hold, clip_of_operation, pasted
from toreuma.core.errors import ToreumaError
from toreuma.core.model import Job

__all__ = ["Clipboard"]


class Clipboard:
    """Takes what is selected, and puts what was copied, in this window or another, into the open job."""

    def __init__(self, session: Session) -> None:
        self._session = session

    def copy(self, of_hold: bool = False) -> None:
        """The hold, the selected feature, or the selected operation with its tools, as text."""
        job = self._session.job
        if job is None:
            return
        try:
            text, what = self._text(job, of_hold)
        except ToreumaError as error:
            self._session.message.emit("warning", f"{error.what}; {error.cure}")
            return
        QApplication.clipboard().setText(text)
        self._session.message.emit("ok", f"{what} is on the clipboard.")

    def _text(self, job: Job, of_hold: bool) -> tuple[str, str]:
        chosen = self._session.selection
        if of_hold:
            return clip_of_hold(job), "The hold"
        if chosen.feature is not None and chosen.feature < len(job.part.features):
            return clip_of_feature(job, chosen.feature), "The feature"
        return clip_of_operation(job, chosen.operation or ""), "The operation with its tools"

    def paste(self) -> None:
        """What was copied, into the open job; an operation behind the selected one."""
        text, after = QApplication.clipboard().text(), self._session.selection.operation or ""
        error = self._session.attempt(lambda job: pasted(job, text, after))
        if error is not None:
            self._session.message.emit("warning", f"{error.what}; {error.cure}")
