"""Whatever stands in the settings, the window opens."""

import random
from pathlib import Path

import pytest
from PySide6.QtCore import QByteArray, QEvent, QSettings
from PySide6.QtWidgets import QApplication

from toreuma.app.session import Session
from toreuma.app.shell.settings import opened_settings
from toreuma.app.shell.start import application
from toreuma.app.shell.window import MainWindow

KEYS = (
    "geometry", "theme", "recent", "language", "new/units", "new/material", "new/machine", "hint/door", "state/x",
)  # fmt: skip
ODD = (
    "x" * 5000, ["y" * 5000, "a\0b", "/dev/zero", "..", ""], 7, -1.5, True, None, {"a": [1]},
    QByteArray(b"\x01\xd9\xd0\xcb"),
    "\ud800".encode("utf-8", "surrogatepass"), ["<img src='/dev/zero'>"] * 30, [[1], {"b": 2}], "../../x", "\n\n",
)  # fmt: skip


@pytest.mark.parametrize("seed", range(6))
def test_odd_settings_open_a_window(tmp_path: Path, monkeypatch: pytest.MonkeyPatch, seed: int) -> None:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path / "home"))
    application()
    chance = random.Random(seed)
    settings = QSettings(str(tmp_path / "s.ini"), QSettings.Format.IniFormat)
    for key in KEYS:
        settings.setValue(key, chance.choice(ODD))
    window = MainWindow(Session(), settings)
    window.show()
    window.go_home()
    QApplication.processEvents()
    assert window.isVisible()
    assert window.width() > 200
    window.close()
    window.deleteLater()
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)


def test_settings_that_are_no_settings_open_a_window(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path / "home"))
    application()
    path = tmp_path / "s.ini"
    for data in (b"\xff" * 3000, b"[recent\n=[[[", b"recent=@Variant(\\0\\0\\0\\x7f)\ngeometry=@ByteArray(\\x1)\n"):
        path.write_bytes(data)
        window = MainWindow(Session(), QSettings(str(path), QSettings.Format.IniFormat))
        window.show()
        QApplication.processEvents()
        assert window.isVisible()
        window.close()
        window.deleteLater()
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)


def test_settings_that_cannot_be_read_are_set_aside(tmp_path: Path) -> None:
    application()
    path = tmp_path / "s.ini"
    spoiled = b"[recent\nno section, no value\n\xff\xfe"
    path.write_bytes(spoiled)
    settings = QSettings(str(path), QSettings.Format.IniFormat)
    said = opened_settings(settings)
    settings.setValue("theme", "dark")
    settings.sync()
    (kept,) = tmp_path.glob("s-*.ini")
    assert kept.read_bytes() == spoiled
    assert kept.name in said
    assert opened_settings(QSettings(str(path), QSettings.Format.IniFormat)) == ""
