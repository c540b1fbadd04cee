"""A newcomer with an empty home and no mouse: own machine, chuck and material, a part of twelve features, a route, a
program on disk."""

import time
from pathlib import Path

import pytest
from PySide6.QtCore import QSettings, Qt
from PySide6.QtWidgets import QApplication, QFileDialog
from pytestqt.qtbot import QtBot

from tests.support.window import Window
from toreuma.app.session import Session
from toreuma.app.shell.shot import settle
from toreuma.app.stages.shop.page import KINDS
from toreuma.engine.engine import Engine
from toreuma.engine.library import renew

MOST_MS = 240_000
"""All ways to hold the part are looked at; the first is there in a few seconds."""

CONTROL, NONE = Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.NoModifier
PART = (
    "20 h6 x 22 c1 relief / M24x1.5-6g x 20 relief / 34 x 8 c0.5 both / 30 x 12; g 2 x 17 at 10; "
    "bore 8 through; hole 8.5 x 15; break 0.3; general m"
)
"""Four steps, a chamfer on three of them, two reliefs, a thread, a groove, a bore: twelve features of a drawing."""


class Keys:
    """Presses keys in whatever has the focus, counts them, and the seconds waited in between."""

    def __init__(self, qtbot: QtBot, window: Window) -> None:
        self.qtbot, self.window = qtbot, window
        self.count, self.waited_s = 0, 0.0

    def type(self, text: str) -> None:
        for letter in text:
            self.qtbot.keyClicks(self._focus(), letter)
        self.count += len(text)

    def press(self, key: Qt.Key, held: Qt.KeyboardModifier = NONE, times: int = 1) -> None:
        for _ in range(times):
            self.qtbot.keyClick(self._focus(), key, held)
            self.count += 1 if held == NONE else 2
            QApplication.processEvents()  # a window answers between two keys

    def wait(self) -> None:
        begun = time.monotonic()
        assert settle(self.window.session)
        self.waited_s += time.monotonic() - begun

    def wait_for_route(self) -> None:
        begun = time.monotonic()
        self.qtbot.waitUntil(lambda: self.window.session.search.state != "looking", timeout=MOST_MS)
        self.waited_s += time.monotonic() - begun
        self.wait()

    def _focus(self) -> object:
        return QApplication.focusWidget() or self.window

    def own_entry(self, kind: str, name: str, changes: dict[str, str]) -> None:
        """In the shop: a kind, an entry like the one that is shown, and what is known typed over."""
        self.press(Qt.Key.Key_H, CONTROL)
        self.press(Qt.Key.Key_Home)
        self.press(Qt.Key.Key_Down, times=[key for key, *_ in KINDS].index(kind))
        self.press(Qt.Key.Key_Tab, times=3)
        assert self._focus().accessibleName().startswith("Name of a new entry")  # type: ignore[attr-defined]
        self.type(name)
        self.press(Qt.Key.Key_Return)
        for label, value in changes.items():
            for _ in range(40):
                if self._focus().accessibleName() == label:  # type: ignore[attr-defined]
                    break
                self.press(Qt.Key.Key_Tab)
            assert self._focus().accessibleName() == label  # type: ignore[attr-defined]
            self.press(Qt.Key.Key_A, CONTROL)
            self.type(value)
            self.press(Qt.Key.Key_Return)


@pytest.fixture
def window(qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Window:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path / "home"))
    renew()
    window = Window(Session(), QSettings(str(tmp_path / "settings.ini"), QSettings.Format.IniFormat), "light")
    qtbot.addWidget(window)
    window.show()
    qtbot.waitExposed(window)
    window.activateWindow()
    monkeypatch.setattr(window.files, "may_leave", lambda: True)
    return window


def test_from_nothing_to_a_program_by_keyboard_alone(
    window: Window, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    keys = Keys(qtbot, window)
    keys.own_entry("machine", "our lathe", {"highest speed": "3500", "bore of the spindle": "46"})
    keys.own_entry("hold", "our chuck", {"grip at rest, all jaws": "60000"})
    keys.own_entry("material", "our steel", {"hardness, HB": "210"})
    shop = keys.count
    keys.press(Qt.Key.Key_N, CONTROL)
    keys.type("Gate pin")
    keys.press(Qt.Key.Key_Tab, times=2)
    keys.type("our steel")
    keys.press(Qt.Key.Key_Tab)
    keys.type("our")
    keys.press(Qt.Key.Key_Return)
    keys.type(PART)
    keys.wait()
    job = window.session.job
    assert job is not None
    assert not window.part.line.faults
    assert (job.machine.name, job.setup.hold.name, job.stock.material.name) == ("our lathe", "our chuck", "our steel")
    assert job.stock.largest_d_mm <= 46  # type: ignore[union-attr]
    part = keys.count - shop
    keys.press(Qt.Key.Key_R, CONTROL)
    keys.wait_for_route()
    done = window.session.whole
    assert done is not None
    assert done.machine.stations == 6  # fewer than the part asks for: it is set up anew for the second side
    for side in Engine().sides(done):
        assert max(one.station for one in side.job.tools if any(one.id in op.tools for op in side.job.operations)) <= 6
    kinds = {one.kind for setup in done.setups for one in setup.operations}
    assert kinds >= {"face", "rough_od", "finish_od", "thread", "groove", "drill", "part_off"}
    qtbot.waitUntil(lambda: window.session.results.verdict is not None, timeout=MOST_MS)
    verdict = window.session.results.verdict
    assert verdict is not None
    assert all(row.what.startswith("edge break") for row in verdict.open)
    place = tmp_path / "programs"
    place.mkdir()
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, **__: (str(place / "1001.nc"), ""))
    monkeypatch.setattr(QFileDialog, "getExistingDirectory", lambda *_, **__: str(place))
    keys.press(Qt.Key.Key_E, CONTROL)
    written = list(place.iterdir())
    assert written
    assert "M30" in written[0].read_text() or "M99" in written[0].read_text()
    print(f"keys for the shop {shop}, for the part {part}, in all {keys.count}; waited {keys.waited_s:.1f} s")
    assert part < 400
    window.session.close()
    renew()
