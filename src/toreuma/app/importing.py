"""Reading a drawing or a model beside the window: progress, and a way to stop it."""

import traceback
from collections.abc import Iterable
from pathlib import Path

from PySide6.QtCore import QObject, QThread, Signal

from toreuma.core.errors import Cancelled, ToreumaError
from toreuma.exchange.dxf_in import GAP_MM
from toreuma.exchange.imports import Imported
from toreuma.exchange.reading import read_part

__all__ = ["Reading"]


class Reading(QThread):
    """One file being read; ends with exactly one of ``done``, ``failed`` or, when stopped, neither."""

    done = Signal(object)
    failed = Signal(object)
    progress = Signal(float)

    def __init__(
        self,
        path: Path,
        layers: Iterable[str] | None = None,
        units: str | None = None,
        gap_mm: float = GAP_MM,
        parent: QObject | None = None,
    ) -> None:
        super().__init__(parent)
        self.path = path
        self._layers, self._units, self._gap_mm = layers, units, gap_mm
        self._stopped = False

    def stop(self) -> None:
        self._stopped = True

    def leave(self) -> None:
        """Stop without waiting; goes away by itself once the step under way has ended."""
        self.stop()
        self.finished.connect(self.deleteLater)
        if self.isFinished():
            self.deleteLater()

    def _check(self) -> None:
        if self._stopped:
            raise Cancelled

    def run(self) -> None:
        try:
            found: Imported = read_part(
                self.path, self._layers, self._units, self._gap_mm, check=self._check, progress=self.progress.emit
            )
            self._check()
            self.done.emit(found)
        except Cancelled:
            return
        except ToreumaError as error:
            self.failed.emit(error)
        except Exception as error:  # a fault of ours must not end the window
            traceback.print_exc()
            self.failed.emit(
                ToreumaError(self.path.name, f"reading failed ({type(error).__name__})", "export the file again")
            )
