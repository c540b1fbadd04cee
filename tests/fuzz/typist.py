"""Somebody at the window who edits until the process is killed; every edit is told on standard output at once.

python -m tests.fuzz.typist SEED WINDOWS FILE|-
"""

import json
import random
import sys
import time
from pathlib import Path

from PySide6.QtCore import QSettings, QTimer

from toreuma.app.session import Session
from toreuma.app.shell.start import application
from toreuma.app.shell.trouble import Trouble
from toreuma.app.shell.window import MainWindow
from toreuma.core.model import Job
from toreuma.files.home import home
from toreuma.files.jobs import save_job
from toreuma.shipped.library import demo_job

DEMOS = ("spear", "bleed-screw", "sheave")
SHORTEST_S, LONGEST_S = 0.2, 10.0


def tell(**said: object) -> None:
    print(json.dumps({**said, "at": time.time()}), flush=True)


class Typist:
    """Edits one window: a name that says which edit it is, and now and then a size; saves now and then."""

    def __init__(self, window: MainWindow, number: int, seed: int, file: Path | None) -> None:
        self.window, self.number, self.file = window, number, file
        self.called = f"w{number} s{seed}"
        self.chance = random.Random(seed + number)
        self.count = 0

    def begin(self) -> None:
        session = self.window.session
        if session.whole is None:
            job = demo_job(self.chance.choice(DEMOS))
            if self.file is not None:
                save_job(job, self.file)
                self.window.files.open_job(str(self.file))
            else:
                session.show(job)
        self.later()

    def later(self) -> None:
        gap = min(SHORTEST_S * (LONGEST_S / SHORTEST_S) ** self.chance.random(), LONGEST_S)
        QTimer.singleShot(int(1000 * gap), self.edit)

    def edit(self) -> None:
        self.count += 1
        named = f"{self.called} e{self.count}"
        wider = self.chance.random() < 0.2

        def change(job: Job) -> Job:
            if wider:
                part = job.part.changed(edge_break_mm=round(0.1 + 0.3 * self.chance.random(), 2))
                job = job.changed(part=part)
            return job.changed(name=named)

        self.window.session.attempt(change)
        tell(window=self.number, edit=self.count)
        if self.window.session.path is not None and self.chance.random() < 0.15:
            self.window.files.save_to(self.window.session.path)
            tell(window=self.number, saved=self.count)
        self.later()


def main(seed: int, windows: int, file: Path | None) -> None:
    app = application()
    trouble = Trouble()
    settings = QSettings(str(home() / "settings.ini"), QSettings.Format.IniFormat)
    open_ = [MainWindow(Session(), settings) for _ in range(windows)]
    typists = [Typist(window, number, seed, file if number == 0 else None) for number, window in enumerate(open_)]

    def begin() -> None:
        offers = list(open_[0].left_work.offers)
        for typist, offer in zip(typists, offers, strict=False):
            typist.window.left_work.take(offer)
            tell(window=typist.number, took=offer.job.name)
        for typist in typists:
            typist.begin()
        tell(begun=len(offers))

    for window in open_:
        window.show()
    QTimer.singleShot(2500, begin)
    app.exec()
    trouble.end()


if __name__ == "__main__":
    main(int(sys.argv[1]), int(sys.argv[2]), None if sys.argv[3] == "-" else Path(sys.argv[3]))
