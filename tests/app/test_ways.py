"""Ways found for a route, side by side in the window: one is taken, another is looked at, undo goes back."""

import time
from collections.abc import Callable

import pytest
from PySide6.QtCore import QEventLoop, QTimer

from tests.support.window import Window
from toreuma.app.shell.shot import settle
from toreuma.app.stages.operations.stage import OperationsStage
from toreuma.engine.fresh import new_job

LINE = "30 h6 x 20 / 40 x 10 c1 / 25 k6 x 40 c1; length 70"


SEVERAL = "20 x 10 / 26 x 5 / 16 x 15 / M10 x 12 relief"
"""One hold leaves something open: other ways are looked at."""

MOST_S = 120


def shown(window: Window, name: str, line: str) -> None:
    job, _ = new_job(name, "mm", "C45", "slant-bed", line)
    window.session.show(job)
    assert settle(window.session)


def waited(until: Callable[[], bool]) -> None:
    loop, looks, end = QEventLoop(), QTimer(), time.monotonic() + MOST_S
    looks.timeout.connect(lambda: loop.quit() if until() or time.monotonic() > end else None)
    looks.start(50)
    loop.exec()
    assert until()


def routed(window: Window, line: str = LINE) -> OperationsStage:
    shown(window, "stepped", line)
    window.session.propose_route()
    waited(lambda: window.session.search.state != "looking")
    assert window.session.search.state == "found"
    return window.at(OperationsStage)


def test_the_best_so_far_can_be_taken_while_a_better_way_is_looked_for(window: Window) -> None:
    session = window.session
    shown(window, "stepped", SEVERAL)
    panel = window.at(OperationsStage).panel
    assert panel.take.isHidden()
    session.propose_route()
    assert panel.take.isHidden()  # nothing to take yet
    waited(lambda: bool(session.offers))
    assert not panel.take.isHidden()
    assert not panel.ways.isHidden()
    best, before = session.offers[0], session.whole
    assert best.job.operations
    assert session.whole == before  # an offer changes nothing
    panel.take.click()
    waited(lambda: session.search.state != "looking")
    assert session.search.state == "found"
    assert session.whole == session.ways[0].job
    assert any(one.job == best.job for one in session.ways)
    assert panel.take.isHidden()
    session.undo()
    assert session.whole == before


def test_a_search_that_is_stopped_takes_nothing_but_keeps_what_it_found(window: Window) -> None:
    session, levels = window.session, list[str]()
    session.message.connect(lambda level, _: levels.append(level))
    shown(window, "stepped", SEVERAL)
    session.propose_route()
    waited(lambda: bool(session.offers))
    before, offered = session.whole, session.offers[0]
    assert not offered.state.startswith("finished")
    assert levels[-1] == "warning"  # an offer that is not finished is not told as if all were well
    window.at(OperationsStage).panel.propose.click()
    assert session.search.state == "stopped"
    assert (session.whole, session.offers) == (before, ())
    session.take_way(offered)
    assert session.whole == offered.job


@pytest.mark.long
def test_the_ways_found_stand_side_by_side_and_one_can_be_taken(window: Window) -> None:
    session = window.session
    said: list[str] = []
    session.message.connect(lambda _, words: said.append(words))
    ways = routed(window).panel.ways
    assert len(ways.rows) >= 2
    best, other = ways.rows[0], ways.rows[1]
    assert best.isChecked()
    assert not other.isChecked()
    assert "tools" in best.accessibleName()
    assert all(f"{one.way.way}: ".lower() in said[-1].lower() for one in (best, other))  # with what decided
    taken = session.whole
    other.click()
    assert other.isChecked()
    assert session.whole == other.way.job != taken
    session.undo()
    assert session.whole == taken
    assert best.isChecked()


@pytest.mark.long
def test_another_part_has_no_ways_yet(window: Window) -> None:
    ways = routed(window).panel.ways
    assert not ways.isHidden()
    shown(window, "other", "20 x 30")
    assert ways.isHidden()


@pytest.mark.long
def test_what_was_decided_on_the_way_is_told(window: Window) -> None:
    said: list[str] = []
    window.session.message.connect(lambda _, words: said.append(words))
    stage = routed(window, "20 h7 x 120 c1 both; centre 2.5 both")
    assert "A live centre carries the front" in said[-1]
    assert "A live centre carries the front" in stage.panel.ways.rows[0].toolTip()
