"""The whole run in the real window: its ribbon, the machine in section and in space, and carried operations."""

from pathlib import Path

import numpy as np
import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QImage
from pytestqt.qtbot import QtBot

from tests.app.test_window import picture
from tests.support.window import Window
from toreuma.app.picture.space.renderer import NoSpace
from toreuma.app.shell.shot import _wait
from toreuma.shipped.library import demo_job


@pytest.fixture
def stud(window: Window) -> Window:
    return shown(window, "vane-stud")


def shown(window: Window, name: str) -> Window:
    window.session.show(demo_job(name))
    window.set_stage("transfer")
    window.views.choose("run")
    _wait(lambda: window.session.complete)
    assert window.session.pair is not None
    return window


def click(qtbot: QtBot, window: Window, key: str) -> None:
    button = next(one for one in window.views.buttons.buttons() if one.objectName() == key)
    qtbot.mouseClick(button, Qt.MouseButton.LeftButton)


def pixels(image: QImage) -> np.ndarray:
    image = image.convertToFormat(QImage.Format.Format_RGBA8888)
    return np.frombuffer(image.constBits(), np.uint8).reshape(image.height(), image.width(), 4)[:, :, :3].astype(int)


def test_the_bar_chooses_what_is_shown_and_what_time_stands_below(stud: Window, qtbot: QtBot) -> None:
    pages = {"hand-over": stud.canvas, "run": stud.views.run, "space": stud.views.space}
    for key, page in pages.items():
        below = stud.lanes if key == "hand-over" else stud.run
        click(qtbot, stud, key)
        assert stud.middle.currentWidget() is page
        assert stud.below.currentWidget() is below
    stud.set_stage("operations")
    assert stud.middle.currentWidget() is stud.canvas
    assert not stud.views.isVisible()
    assert stud.below.currentWidget() is stud.ribbon


def test_dragging_the_ribbon_moves_the_machine(stud: Window, qtbot: QtBot) -> None:
    lanes = stud.run.lanes
    assert lanes is not None
    assert [len(rows) for rows in lanes.stays.values()] == [2, 2]
    before = picture(stud.views.run)
    start, end = lanes.taken[0]
    qtbot.mouseClick(stud.run, Qt.MouseButton.LeftButton, pos=QPoint(int(stud.run._x((start + end) / 2)), 190))
    assert start < stud.session.run_s < end
    assert picture(stud.views.run) != before
    qtbot.keyClick(stud.run, Qt.Key.Key_Home)
    assert stud.session.run_s == 0
    qtbot.keyClick(stud.run, Qt.Key.Key_Right)
    assert stud.session.run_s == lanes.ends[0]
    qtbot.keyClick(stud.run, Qt.Key.Key_End)
    assert stud.session.run_s == pytest.approx(lanes.seconds)
    qtbot.keyClick(stud.run, Qt.Key.Key_Up)
    assert stud.session.run_s in {one.start_s for one in lanes.blocks} | {start for start, _ in lanes.taken}


def test_it_plays_and_stops(stud: Window, qtbot: QtBot) -> None:
    stud.session.set_run(10.0)
    qtbot.keyClick(stud.run, Qt.Key.Key_Space)
    assert stud.run.player.playing
    qtbot.waitUntil(lambda: stud.session.run_s > 10.5)
    qtbot.keyClick(stud.run, Qt.Key.Key_Space)
    assert not stud.run.player.playing


def test_the_second_spindle_comes_takes_the_part_and_goes(stud: Window) -> None:
    pair = stud.session.pair
    assert pair is not None
    scenery, piece = pair.scenery, pair.scenery.pieces[0]
    far, near = scenery.run.second_at(piece.come.start_s - 1), scenery.run.second_at(piece.back.start_s)
    assert far - near > 100
    main, second = scenery.at(piece.come.start_s - 1).holds
    assert (main.part, second.part) == (0, -1)
    assert second.metal.is_empty
    main, second = scenery.at(piece.back.end_s + 0.5).holds
    assert second.part == 0
    # What leaves the first spindle arrives at the second: the same metal, moved.
    assert second.metal.area == pytest.approx(pair.made[0][0].final.area, rel=1e-4)
    assert second.body.bounds[0] - main.body.bounds[2] == pytest.approx(far - near + (
        scenery.at(piece.back.start_s).holds[1].body.bounds[0] - main.body.bounds[2]), abs=0.01)  # fmt: skip
    assert scenery.at(scenery.seconds).holds[1].metal.is_empty  # the finished part is out


def test_the_machine_in_space_is_drawn_and_turned(stud: Window, qtbot: QtBot) -> None:
    click(qtbot, stud, "space")
    view = stud.views.space
    stud.session.set_run(150.0)
    qtbot.waitUntil(lambda: not view.moving)
    first = pixels(view.grab().toImage())
    ground = first[5, 5]
    assert (np.abs(first - ground).sum(axis=2) > 30).mean() > 0.04  # bodies, not an empty picture
    qtbot.mousePress(view, Qt.MouseButton.LeftButton, pos=QPoint(300, 200))
    qtbot.mouseMove(view, QPoint(360, 230))
    qtbot.mouseRelease(view, Qt.MouseButton.LeftButton, pos=QPoint(360, 230))
    assert (pixels(view.grab().toImage()) != first).any()
    qtbot.keyClick(view, Qt.Key.Key_F)
    qtbot.waitUntil(lambda: not view.moving)
    assert (pixels(view.grab().toImage()) == first).mean() > 0.999
    before = view.camera
    qtbot.keyClick(view, Qt.Key.Key_V)
    assert view.camera != before


def test_a_picture_is_saved(stud: Window, tmp_path: Path) -> None:
    stud.views.choose("space")
    assert stud.views.save_picture(tmp_path / "space.png")
    assert QImage(str(tmp_path / "space.png")).width() > 400
    assert not stud.views.save_picture(tmp_path / "nowhere" / "space.png")


def carry(qtbot: QtBot, window: Window, name: str, lane: int) -> None:
    """Drag an operation's block to another lane."""
    lanes, rooms = window.run.lanes, window.run._rooms()
    assert lanes is not None
    block = next(one for one in lanes.blocks if one.name.startswith(name))
    x = int(window.run._x((block.start_s + block.end_s) / 2))
    start, end = (QPoint(x, int(rooms[n].center().y())) for n in (block.carrier, lane))
    qtbot.mousePress(window.run, Qt.MouseButton.LeftButton, pos=start)
    qtbot.mouseMove(window.run, end)
    if window.run.carried is not None:
        window.run.grab()
    qtbot.mouseRelease(window.run, Qt.MouseButton.LeftButton, pos=end)


def test_an_operation_is_carried_to_another_carrier(window: Window, qtbot: QtBot) -> None:
    hub = shown(window, "runner-hub")
    whole = hub.session.whole
    assert whole is not None
    reamer = next(op.tool for op in whole.operations if op.kind == "ream")
    carry(qtbot, hub, "Ream", 1)
    moved = hub.session.whole.tool(reamer)
    assert hub.session.whole.machine.carrier_of(moved.station).name == "milling spindle"
    _wait(lambda: hub.session.complete)
    assert hub.session.pair is not None
    assert hub.session.pair.ok
    hub.session.undo()
    assert hub.session.whole == whole


def test_what_does_not_reach_stays_and_says_why(stud: Window, qtbot: QtBot) -> None:
    told: list[str] = []
    stud.session.message.connect(lambda level, text: told.append(f"{level}: {text}"))
    whole = stud.session.whole
    carry(qtbot, stud, "Finish", 1)
    assert stud.session.whole is whole
    assert any(one.startswith("error") and "does not reach that spindle" in one for one in told)


def test_in_the_ribbon_of_a_side_too(window: Window, qtbot: QtBot) -> None:
    hub = shown(window, "runner-hub")
    hub.set_stage("operations")
    start, end = hub.session.outcome.times_of("op6")
    x = int(hub.ribbon._x((start + end) / 2))
    lane = hub.ribbon._heights()[0] / 2
    places = [QPoint(x, int(18 + lane * (n + 0.5))) for n in range(2)]
    qtbot.mousePress(hub.ribbon, Qt.MouseButton.LeftButton, pos=places[0])
    qtbot.mouseMove(hub.ribbon, places[1])
    qtbot.mouseRelease(hub.ribbon, Qt.MouseButton.LeftButton, pos=places[1])
    moved = hub.session.job.tool(hub.session.job.operation("op6").tool)
    assert hub.session.job.machine.carrier_of(moved.station).name == "milling spindle"


def test_where_nothing_draws_in_space_the_view_says_what_is_missing(
    stud: Window, monkeypatch: pytest.MonkeyPatch
) -> None:
    def none() -> None:
        raise NoSpace("no EGL")

    monkeypatch.setattr("toreuma.app.stages.transfer.space_view.Renderer", none)
    stud.views.choose("space")
    stud.views.space.grab()
    assert "libegl1" in stud.views.space.fault
    assert "no EGL" in stud.views.space.fault
    stud.views.choose("run")  # the section needs none of it
    assert (np.abs(np.diff(pixels(stud.views.run.grab().toImage()), axis=0)) > 20).any()
