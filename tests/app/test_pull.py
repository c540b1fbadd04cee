"""Dimensions pulled with the mouse, and a picture of a paper drawing under the section."""

import threading
from collections.abc import Callable
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QColor, QImage
from pytestqt.qtbot import QtBot

from tests.support.window import Window
from toreuma.app.picture.dimensions import Dimension
from toreuma.app.shell.shot import settle
from toreuma.core.model import Job
from toreuma.engine.fresh import new_job


def show(window: Window, line: str) -> None:
    window.session.show(new_job("a pin", "mm", "", "", line)[0])
    window.set_stage("part")
    assert settle(window.session)
    window.canvas.repaint()


def job_of(window: Window) -> Job:
    assert window.session.job is not None
    return window.session.job


def dimension(window: Window, field: str, element: int) -> Dimension:
    return next(one for one in window.canvas._dimensions if one.field == field and one.element == element)


def pull(window: Window, qtbot: QtBot, what: Dimension, by: QPoint) -> None:
    start = what.box.center().toPoint()
    qtbot.mousePress(window.canvas, Qt.MouseButton.LeftButton, pos=start)
    for share in (1, 2, 3, 4):
        qtbot.mouseMove(window.canvas, start + by * share / 4)
        at = QPointF(start + by * share / 4)
        window.canvas.drag.move(at, window.canvas._view.scale)  # type: ignore[union-attr]
    qtbot.mouseRelease(window.canvas, Qt.MouseButton.LeftButton, pos=start + by)


def test_a_diameter_is_pulled_and_one_undo_takes_it_back(bare: Window, qtbot: QtBot) -> None:
    show(bare, "30 x 40 / 50 x 20")
    scale = bare.canvas._current_view().scale  # type: ignore[union-attr]
    pull(bare, qtbot, dimension(bare, "d_mm", 1), QPoint(0, -round(2 * scale)))
    assert [e.d_mm for e in job_of(bare).part.outside] == [34, 34, 50, 50]
    bare.session.undo()
    assert [e.d_mm for e in job_of(bare).part.outside] == [30, 30, 50, 50]


def test_a_shoulder_is_pulled_with_its_face(bare: Window, qtbot: QtBot) -> None:
    show(bare, "30 x 40 / 50 x 20")
    scale = bare.canvas._current_view().scale  # type: ignore[union-attr]
    what = next(one for one in bare.canvas._dimensions if one.field == "z_mm" and one.element in (1, 2))
    pull(bare, qtbot, what, QPoint(round(5 * scale), 0))
    assert [e.z_mm for e in job_of(bare).part.outside] == [0, -35, -35, -60]
    assert bare.part.line.text.toPlainText() == "30 x 35 / 50 x 25"


def test_a_number_that_is_only_clicked_is_typed(bare: Window, qtbot: QtBot) -> None:
    show(bare, "30 x 40 / 50 x 20")
    what = dimension(bare, "d_mm", 1)
    qtbot.mouseClick(bare.canvas, Qt.MouseButton.LeftButton, pos=what.box.center().toPoint())
    assert bare.canvas.dimension.isVisible()


def test_a_picture_lies_under_the_section_to_scale(bare: Window, qtbot: QtBot, tmp_path: Path) -> None:
    show(bare, "30 x 40 / 50 x 20")
    image = QImage(600, 300, QImage.Format.Format_RGB32)
    image.fill(QColor("yellow"))
    image.save(str(tmp_path / "paper.png"))
    bare.paper.show(tmp_path / "paper.png")
    qtbot.waitUntil(lambda: bare.canvas.underlay is not None, timeout=60_000)
    under = bare.canvas.underlay
    assert under is not None
    assert "axis meets" in under.asks
    room = bare.canvas.rect()
    asked: list[str] = []
    bare.actions_known._of.pop("underlay_length")
    bare.session.wanted.connect(asked.append)
    for x in (0.8, 0.2):
        under.click(QPointF(x * room.width(), room.height() / 2), bare.canvas.rect().toRectF())
    bare.paper.scale("60")
    assert under.placed
    seen = bare.canvas.grab().toImage()
    assert seen.pixelColor(20, room.height() // 2 + 150) != bare._theme.colour("paper")
    bare.paper.switch()
    assert bare.canvas.underlay is None


def test_what_is_no_picture_is_one_line(bare: Window, qtbot: QtBot, tmp_path: Path) -> None:
    show(bare, "30 x 40")
    (tmp_path / "x.png").write_text("nothing")
    said: list[str] = []
    bare.session.message.connect(lambda level, text: said.append(text))
    bare.paper.show(tmp_path / "x.png")
    qtbot.waitUntil(lambda: bool(said), timeout=60_000)
    assert "no picture" in said[0]
    assert bare.canvas.underlay is None


def test_a_picture_that_takes_long_is_said_and_can_be_stopped(
    bare: Window, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    """The window goes on meanwhile; once stopped, nothing more is heard of it."""
    go_on = threading.Event()

    def slow(path: Path, check: Callable[[], None]) -> QImage:
        go_on.wait(20)
        return QImage(6, 6, QImage.Format.Format_RGB32)

    monkeypatch.setattr("toreuma.app.shell.paper.read_picture", slow)
    show(bare, "30 x 40")
    bare.paper.show(Path("slow.png"))
    assert not bare.paper.bar.isVisible()
    qtbot.waitUntil(bare.paper.bar.isVisible, timeout=20_000)
    assert "slow.png" in bare.paper.bar.words.text()
    bare.paper.bar.buttons[0].click()
    assert not bare.paper.bar.isVisible()
    go_on.set()
    bare.paper.close()
    qtbot.wait(20)
    assert bare.canvas.underlay is None
