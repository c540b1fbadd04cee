"""The window in another language: what it has is spoken, what it lacks stays English, and nothing is lost by it."""

import xml.etree.ElementTree as ET
from collections.abc import Iterator
from pathlib import Path

import pytest
from PySide6.QtCore import QSettings
from PySide6.QtWidgets import QApplication, QLabel, QPushButton
from pytestqt.qtbot import QtBot

from tests.support.window import Window
from toreuma.app.session import Session
from toreuma.app.shell.shot import settle
from toreuma.app.words import languages, speak, tr
from toreuma.core.model import Job
from toreuma.shipped.paths import data_path


@pytest.fixture
def german(qtbot: QtBot, tmp_path: object) -> Iterator[Window]:
    assert speak("de") == "de"
    session = Session()
    window = Window(session, QSettings(f"{tmp_path}/settings.ini", QSettings.Format.IniFormat))
    qtbot.addWidget(window)
    window.resize(1280, 800)
    window.show()
    yield window
    session.close()
    speak("en")


def texts(window: Window) -> set[str]:
    labels = {one.text() for one in window.findChildren(QLabel)}
    return labels | {one.text() for one in window.findChildren(QPushButton)}


def test_stages_menus_fields_and_the_first_page_speak_german(german: Window, spear: Job) -> None:
    assert [one.text() for one in german.menuBar().actions()][:2] == ["&Datei", "&Bearbeiten"]
    assert german.header.buttons["proof"].text() == "Nachweis"
    assert {"Ein neues Teil", "Werkstoff", "Maschine", "Beginnen"} <= texts(german)
    german.session.show(spear)
    german.set_stage("hold")
    assert settle(german.session)
    assert {"Erste Spannung", "Abstützung"} <= texts(german)
    assert any("Auskragung" in text for text in texts(german))
    german.set_stage("shop")
    assert {"höchste Drehzahl", "Spindelbohrung", "Reitstock"} <= texts(german)


def test_every_stage_fits_the_usual_window_in_german(german: Window, spear: Job) -> None:
    german.session.show(spear)
    assert settle(german.session)
    for key in german.stages:
        german.set_stage(key)
        assert german.minimumSizeHint().width() <= 1280, key


def test_what_a_language_lacks_stays_as_it_is() -> None:
    assert speak("de") == "de"
    assert tr("No such words in any language") == "No such words in any language"
    assert tr("") == ""
    assert speak("zz") == "en"
    assert tr("Part") == "Part"
    assert set(languages()) >= {"en", "de"}


def test_no_translation_is_empty_or_loses_a_key() -> None:
    for message in ET.parse(data_path("language", "de.ts")).getroot().iter("message"):
        source, said = message.findtext("source") or "", message.findtext("translation") or ""
        if said:
            assert said.strip()
            assert ("Ctrl+" in source) is ("Ctrl+" in said)


def test_an_update_under_a_running_window_does_no_harm(
    qapp: QApplication, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """The file of a language is written anew while it is spoken, as an update does."""
    place = tmp_path / "language"
    place.mkdir()
    shipped = data_path("language", "de.qm").read_bytes()
    (place / "de.qm").write_bytes(shipped)
    monkeypatch.setattr("toreuma.app.words.data_path", lambda *parts: tmp_path.joinpath(*parts))
    try:
        assert speak("de") == "de"
        said = tr("Keep both")
        (place / "de.qm").write_bytes(b"\0" * len(shipped))
        assert tr("Keep both") == said != "Keep both"
    finally:
        speak("en")
