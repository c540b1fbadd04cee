"""The transfer stage in the real window: settings, findings with their cures, both channels."""

from collections.abc import Callable
from dataclasses import replace

import pytest
from PySide6.QtWidgets import QPushButton

from tests.app.test_window import picture, type_into
from tests.support.window import Window
from toreuma.app.forms.findings import FindingCard
from toreuma.shipped.library import demo_job

Wait = Callable[[], None]


@pytest.fixture
def hub(window: Window, settled: Wait) -> Window:
    window.session.show(demo_job("runner-hub"))
    window.set_stage("transfer")
    settled()
    return window


def found(window: Window) -> list[str]:
    return [card.finding.code for card in window.reasons.findChildren(FindingCard)]


def test_a_speed_beyond_a_plate_is_marked_and_cured(hub: Window, qtbot, settled: Wait) -> None:  # type: ignore[no-untyped-def]
    assert found(hub) == []
    before = picture(hub.lanes)
    type_into(qtbot, hub.transfer.rows["rpm"].entry, "4800")
    settled()
    assert "transfer.speed" in found(hub)
    assert picture(hub.lanes) != before
    cure = next(b for b in hub.reasons.findChildren(QPushButton) if "4200" in b.text())
    cure.click()
    settled()
    assert hub.session.job.hand_over.rpm == 4200
    assert "transfer.speed" not in found(hub)


def test_it_is_left_out_and_planned_again(hub: Window, settled: Wait) -> None:
    with_it = picture(hub.canvas)
    press(hub, "Leave it out")
    settled()
    assert hub.session.job.hand_over is None
    assert picture(hub.canvas) != with_it
    press(hub, "Plan the hand-over")
    settled()
    assert hub.session.outcome.transfer is not None
    hub.session.undo()
    settled()
    assert hub.session.outcome.transfer is None


def test_a_machine_with_one_spindle_says_what_it_can_do(window: Window, settled: Wait) -> None:
    window.set_stage("transfer")
    settled()
    assert not window.transfer.rows
    assert window.below.currentWidget() is window.lanes
    window.set_stage("operations")
    assert window.below.currentWidget() is window.ribbon


def press(window: Window, text: str) -> None:
    next(button for button in window.transfer.findChildren(QPushButton) if button.text() == text).click()


def test_both_channels_are_proved_and_their_programs_shown(hub: Window, qtbot, tmp_path) -> None:  # type: ignore[no-untyped-def]
    qtbot.waitUntil(lambda: hub.session.complete, timeout=120_000)
    hub.set_stage("proof")
    assert "Both channels" in hub.proof._why.text()
    assert hub.proof.verdict.text() == "Finished but for"
    hub.set_stage("program")
    which = hub.program.which
    assert [which.itemData(n) for n in range(which.count())] == [0, 1, 2]
    which.setCurrentIndex(2)
    which.activated.emit(2)
    assert "CHANNEL 2" in hub.program.text.toPlainText()
    assert hub.program.file_name() == "O1001-2.nc"
    hub.program.save_as(tmp_path / "two.nc")
    assert "M101 P12" in (tmp_path / "two.nc").read_text()
    before = hub.session.cursor_s
    hub.program.text.moveCursor(hub.program.text.textCursor().MoveOperation.Start)
    assert hub.session.cursor_s == before
    which.setCurrentIndex(0)
    which.activated.emit(0)
    assert "CHANNEL" not in hub.program.text.toPlainText()


def test_each_carrier_has_its_lane(hub: Window, settled: Wait) -> None:
    hub.set_stage("operations")
    one = picture(hub.ribbon)
    job = hub.session.job
    by_name = {tool.id: tool for tool in job.tools}
    milling = by_name[job.operation("m3").tool]
    free = next(n for n in range(1, 13) if n not in {tool.station for tool in job.tools})
    moved = job.changed(tools=tuple(t.changed(station=free) if t is milling else t for t in job.tools))
    hub.session.change(moved)
    settled()
    assert picture(hub.ribbon) != one


def find_cycle(hub: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    """Press the button; the panel is filled a beat after the job is complete."""

    def finders() -> list[QPushButton]:
        return [b for b in hub.reasons.findChildren(QPushButton) if b.text() == "Find the shortest cycle"]

    qtbot.waitUntil(lambda: bool(finders()), timeout=60_000)
    finders()[0].click()


def test_the_shortest_cycle_is_found_and_shown(hub: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    qtbot.waitUntil(lambda: hub.session.complete, timeout=120_000)
    before = picture(hub.lanes)
    find_cycle(hub, qtbot)
    assert hub.session.search.looks_for("cycle")
    qtbot.waitUntil(lambda: not hub.session.search.looks_for("cycle"), timeout=60_000)
    assert hub.session.balanced.ratio < 0.9
    assert "cycle.steady cycle" in hub.reasons.rows
    assert picture(hub.lanes) != before
    hub.session.find_cycle()
    hub.session.stop_search()
    assert not hub.session.search.looks_for("cycle")
    hub.session.change(hub.session.job.changed(name="Another"))
    assert hub.session.balanced is None


def test_a_part_turned_by_hand_has_its_steps_numbers_and_cures(window: Window, qtbot, settled: Wait) -> None:  # type: ignore[no-untyped-def]
    window.session.show(demo_job("seat-ring"))
    window.set_stage("transfer")
    settled()
    assert "turn.seat" in found(window)
    before = picture(window.lanes)
    type_into(qtbot, window.transfer.rows["turn_s"].entry, "60")
    settled()
    assert window.session.job.turn_round.turn_s == 60
    assert picture(window.lanes) != before
    next(b for b in window.reasons.findChildren(QPushButton) if b.text().startswith("A step")).click()
    settled()
    assert "turn.seat" not in found(window)
    assert not next(b for b in window.views.buttons.buttons() if b.objectName() == "space").isEnabled()


def test_parts_in_a_run_are_typed_and_the_cycle_is_read_back(window: Window, qtbot, settled: Wait) -> None:  # type: ignore[no-untyped-def]
    window.session.show(demo_job("vane-stud"))
    window.set_stage("transfer")
    settled()
    qtbot.waitUntil(lambda: window.session.complete, timeout=60_000)
    assert window.session.pair.cycle_s > 100
    assert "cycle.cycle as read back" in window.reasons.rows
    type_into(qtbot, window.transfer.rows["parts"].entry, "1")
    settled()
    qtbot.waitUntil(lambda: window.session.complete, timeout=60_000)
    assert window.session.job.program.parts == 1
    assert window.session.pair.cycle_s == 0
    assert "cycle.cycle as read back" not in window.reasons.rows


def test_tools_go_where_the_shortest_cycle_wants_them(hub: Window, qtbot, settled: Wait) -> None:  # type: ignore[no-untyped-def]
    qtbot.waitUntil(lambda: hub.session.complete, timeout=60_000)
    find_cycle(hub, qtbot)
    qtbot.waitUntil(lambda: not hub.session.search.looks_for("cycle"), timeout=60_000)
    reamer = next(op.tool for op in hub.session.job.operations if op.kind == "ream")
    hub.session.balanced = replace(hub.session.balanced, moved=((reamer, 1),))  # as if it were wanted there
    hub.session.balance_changed.emit()
    next(b for b in hub.reasons.findChildren(QPushButton) if b.text() == "Put them there").click()
    settled()
    machine = hub.session.whole.machine
    assert machine.carrier_of(hub.session.whole.tool(reamer).station) is machine.carriers[1]
    assert hub.session.history.can_go_back


def test_a_part_that_is_handed_over_is_not_said_to_be_caught(window: Window, settled: Wait) -> None:
    window.session.show(demo_job("vane-stud"))
    window.set_stage("operations")
    settled()
    cut = next(op.id for op in window.session.job.operations if op.kind == "part_off")

    window.session.select(operation=cut)
    settled()
    assert "second spindle holds" in window.reasons.texts["taken"].text()
    window.session.change(window.session.job.changed(hand_over=None))
    settled()
    assert "taken" not in window.reasons.texts  # the choice stands there instead


def test_tools_kept_apart_are_listed_and_let_go_again(hub: Window, settled: Wait) -> None:
    job = hub.session.job
    hub.session.change(job.changed(hand_over=job.hand_over.changed(apart=(("T1", "T2"),))))
    settled()
    button = next(b for b in hub.transfer.findChildren(QPushButton) if b.text() == "Let T1 and T2 work together")
    button.click()
    settled()
    assert hub.session.job.hand_over.apart == ()
    assert not [b for b in hub.transfer.findChildren(QPushButton) if "work together" in b.text()]
