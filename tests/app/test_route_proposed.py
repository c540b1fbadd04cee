"""A whole route in the window: proposed, taken back, both sides shown and edited; passes typed; the program played."""

from collections.abc import Callable
from pathlib import Path

import pytest
from PySide6.QtCore import QElapsedTimer, QEventLoop, Qt, QTimer
from PySide6.QtTest import QTest

from tests.support.long import everyday
from tests.support.window import Window
from toreuma.app.shell.shot import settle
from toreuma.app.stages.operations.infeed_table import InfeedTable
from toreuma.core.model import CutThread, Job, Part
from toreuma.engine.fresh import fresh_job
from toreuma.shipped.library import demo_job


def waited(done: Callable[[], bool], most_ms: int) -> bool:
    """The window sleeps between events until it is done, or too much time has passed."""
    loop, look, clock = QEventLoop(), QTimer(interval=10), QElapsedTimer()
    clock.start()
    look.timeout.connect(lambda: loop.quit() if done() or clock.elapsed() > most_ms else None)
    look.start()
    loop.exec()
    return done()


def bolt() -> Job:
    """A plain screw in a new job."""
    ends = [(0, 10.0), (-25, 10.0), (-25, 20.0), (-40, 20.0)]
    thread = {"kind": "thread", "designation": "M10", "from_z_mm": 0, "length_mm": 15}
    outside = [{"z_mm": z, "d_mm": d} for z, d in ends]
    return fresh_job(Part.model_validate({"outside": outside, "features": [thread]}), "bolt")


@pytest.mark.parametrize("name", everyday(["bolt", "spear"], "bolt"))
def test_the_whole_route_is_proposed_and_undo_takes_it_back(bare: Window, name: str) -> None:
    window, session = bare, bare.session
    empty = bolt() if name == "bolt" else demo_job("spear").with_setup(operations=())
    session.show(empty)
    window.set_stage("operations")
    settle(session)
    QTest.mouseClick(window.route.propose, Qt.MouseButton.LeftButton)
    assert "Stop" in window.route.propose.text()
    assert waited(lambda: not session.search.looks_for("route"), 60_000)
    settle(session)
    assert session.job is not None
    kinds = {op.kind for op in session.job.operations}
    wanted = {"face", "rough_od", "finish_od", "thread", "part_off"} | ({"groove"} if name == "spear" else set())
    assert wanted <= kinds
    assert session.proof is not None
    assert session.proof.ok
    first = session.chosen[0]
    session.select(operation=first.operation)
    texts = [label.text() for label in window.reasons.findChildren(type(window.route._setup))]
    assert any(first.reasons[0] in text for text in texts)
    session.undo()
    assert session.whole == empty


def test_a_search_for_a_route_can_be_stopped(bare: Window) -> None:
    window, session = bare, bare.session
    job = demo_job("runner-hub")
    session.show(job)
    settle(session)
    window.route.propose.click()
    window.route.propose.click()
    assert not session.search.looks_for("route")
    settle(session)
    assert session.whole == job


def test_both_sides_are_shown_and_an_edit_stays_on_its_side(bare: Window) -> None:
    window, session = bare, bare.session
    whole = demo_job("runner-hub")
    session.show(whole)
    settle(session)
    assert not window.route.sides.isHidden()
    session.show_side(1)
    settle(session)
    assert session.job is not None
    assert session.job.name.endswith("second side")
    assert [op.id for op in session.job.operations] == [op.id for op in whole.setups[1].operations]
    assert session.proof is not None
    assert session.proof.ok
    session.attempt(lambda job: job.with_operation("op1", lambda op: op.changed(name="Face to length")))
    assert session.whole is not None
    assert session.whole.setups[1].operations[0].name == "Face to length"
    assert session.whole.setup == whole.setup
    assert session.whole.part == whole.part
    refused = session.attempt(lambda job: job.changed(part=job.part.changed(name="other")))
    assert refused is not None
    assert "first side" in str(refused)
    session.undo()
    assert session.whole == whole
    window.switch_side()
    settle(session)
    assert session.job == whole


def test_saving_from_the_second_side_keeps_both(bare: Window, tmp_path: Path) -> None:
    session = bare.session
    session.show(demo_job("seat-ring"))
    settle(session)
    session.show_side(1)
    assert session.save(tmp_path / "ring.toreuma")
    assert not session.modified
    assert session.open(str(tmp_path / "ring.toreuma"))
    assert session.whole == demo_job("seat-ring")


def test_a_depth_typed_into_the_passes_makes_them_ones_own(bare: Window) -> None:
    window, session = bare, bare.session
    session.show(demo_job("spear"))
    window.set_stage("operations")
    settle(session)
    session.select(operation="op7")
    table = window.reasons.findChild(InfeedTable)
    assert table is not None
    assert table.rowCount() > 5
    table.item(0, 1).setText("0.25")
    settle(session)
    assert session.job is not None
    operation = session.job.operation("op7")
    assert isinstance(operation, CutThread)
    assert operation.division == "typed"
    assert operation.typed_mm[0] == pytest.approx(0.25)
    table = window.reasons.findChild(InfeedTable)
    assert table is not None
    table.item(1, 1).setText("deep")
    assert session.job.operation("op7") == operation


def test_adding_a_groove_or_thread_takes_the_first_that_is_not_cut(bare: Window) -> None:
    window, session = bare, bare.session
    job = demo_job("spear")
    cut = tuple(op for op in job.operations if op.kind not in ("groove", "thread"))
    session.show(job.with_setup(operations=cut))
    settle(session)
    for kind in ("groove", "thread"):
        window.route.add(kind)
    assert session.job is not None
    added = [op for op in session.job.operations if op.kind in ("groove", "thread")]
    assert {op.kind for op in added} == {"groove", "thread"}
    plain = session.job.changed(part=session.job.part.changed(features=())).with_setup(operations=cut)
    session.change(plain)
    told: list[str] = []
    session.message.connect(lambda level, text: told.append(text))
    window.route.add("thread")
    assert "no thread" in told[-1]
    assert session.job == plain


def test_the_program_plays_and_shows_its_line(bare: Window) -> None:
    window, session = bare, bare.session
    session.show(demo_job("spear"))
    settle(session)
    ribbon = window.ribbon
    ribbon.player.set_speed(100)
    ribbon.setFocus()
    QTest.keyClick(ribbon, Qt.Key.Key_Space)
    assert ribbon.player.playing
    assert waited(lambda: session.cursor_s > 0, 5000)
    QTest.keyClick(ribbon, Qt.Key.Key_Space)
    assert not ribbon.player.playing
    at = session.cursor_s
    QTest.qWait(80)
    assert session.cursor_s == at
    assert session.outcome is not None
    moment = session.outcome.timeline.at(at)
    line = session.outcome.timeline.spans[moment.index].motion.line
    assert session.outcome.program_line(line)
    QTest.keyClick(ribbon, Qt.Key.Key_Minus)
    assert ribbon.player.speed == 50
    session.set_cursor(session.outcome.timeline.total_s - 0.5)
    ribbon.player.toggle()
    assert waited(lambda: not ribbon.player.playing, 5000)
