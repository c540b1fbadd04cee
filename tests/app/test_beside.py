"""One piece of work beside the window: told once, in the window's thread, and never after it was left."""

import threading

import pytest
from PySide6.QtCore import QObject, QThread
from pytestqt.qtbot import QtBot

from toreuma.app.session.beside import Beside
from toreuma.core.errors import ToreumaError


@pytest.fixture
def beside(qtbot: QtBot) -> Beside:
    parent = QObject()
    beside = Beside(parent)
    yield beside  # type: ignore[misc]
    beside.close()
    parent.deleteLater()


def test_the_end_is_told_in_the_thread_of_the_window(beside: Beside, qtbot: QtBot) -> None:
    told: list[tuple[object, bool]] = []
    here = QThread.currentThread()
    beside.start(
        lambda check, progress: 7, "seven", lambda x: told.append((x, QThread.currentThread() is here)), pytest.fail
    )
    qtbot.waitUntil(lambda: bool(told), timeout=20_000)
    assert told == [(7, True)]
    assert beside.task is None


def test_a_fault_is_told_by_its_name(beside: Beside, qtbot: QtBot) -> None:
    faults: list[ToreumaError] = []
    beside.start(lambda check, progress: 1 / 0, "the division", pytest.fail, faults.append)
    qtbot.waitUntil(lambda: bool(faults), timeout=20_000)
    assert "the division failed" in str(faults[0])


def test_of_what_is_left_nothing_is_heard_though_it_had_already_ended(beside: Beside, qtbot: QtBot) -> None:
    told: list[object] = []
    ended = threading.Event()

    def work(check: object, progress: object) -> int:
        ended.set()
        return 1

    beside.start(work, "first", told.append, pytest.fail)
    first = beside.task
    assert first is not None
    assert ended.wait(20)
    first.wait()
    beside.start(lambda check, progress: 2, "second", told.append, pytest.fail)
    qtbot.waitUntil(lambda: bool(told), timeout=20_000)
    qtbot.wait(20)
    assert told == [2]
