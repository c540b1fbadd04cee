"""A working day of editing in the real window, and how much memory it takes.

    ./run hours [EDITS]

Every edit is planned and proved before the next; some are undone. 2880 edits are eight hours at one every ten seconds.
"""

import random
import sys
import tempfile
import time
from pathlib import Path

from PySide6.QtCore import QSettings
from PySide6.QtWidgets import QApplication

from toreuma.app.session import Session
from toreuma.app.shell.shot import settle
from toreuma.app.shell.start import application
from toreuma.app.shell.window import MainWindow
from toreuma.core.model import Job
from toreuma.shipped.library import demo_job

WARM, LEAST_WARM = 0.15, 150
"""The first part of the day, at least so many edits, fills what is remembered on purpose."""


def resident_mb() -> float:
    line = next(one for one in Path("/proc/self/status").read_text().splitlines() if one.startswith("VmRSS"))
    return int(line.split()[1]) / 1024


def main(edits: int) -> int:
    application()
    chance, session = random.Random(8), Session()
    with tempfile.TemporaryDirectory() as folder:
        window = MainWindow(session, QSettings(f"{folder}/s.ini", QSettings.Format.IniFormat))
        window.show()
        session.show(demo_job("bleed-screw"))
        settle(session)
        stages, warm_mb, begun = list(window.stages), 0.0, time.monotonic()
        warm = max(int(WARM * edits), LEAST_WARM)
        for number in range(edits):
            if number % 9 == 8:
                session.undo()
            else:
                size = round(0.2 + 0.3 * chance.random(), 2)

                def change(job: Job, size: float = size, name: str = f"edit {number}") -> Job:
                    return job.changed(part=job.part.changed(edge_break_mm=size), name=name)

                session.attempt(change)
            settle(session, 60_000)
            if number % 20 == 0:
                window.set_stage(chance.choice(stages))
            QApplication.processEvents()
            if number == warm:
                warm_mb = resident_mb()
            if number % 200 == 0:
                print(f"{number:6} edits, {resident_mb():7.1f} MB, {time.monotonic() - begun:6.0f} s", flush=True)
        end_mb = resident_mb()
        window.files.may_leave = lambda: True  # type: ignore[method-assign]
        window.close()
    growth = end_mb / warm_mb - 1
    print(f"{edits} edits: {warm_mb:.1f} MB after {warm} of them, {end_mb:.1f} MB at the end, {growth:+.1%}")
    return 1 if growth > 0.2 else 0


if __name__ == "__main__":
    sys.exit(main(int(sys.argv[1]) if len(sys.argv) > 1 else 2880))
