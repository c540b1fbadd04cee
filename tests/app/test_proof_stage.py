"""The proof stage: surfaces in the share of their limits, numbers that follow another proof, panels that wait."""

from collections.abc import Callable

from PySide6.QtGui import QColor
from PySide6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from tests.support.kept import prove_plan
from tests.support.window import Window
from toreuma.app.shell.shot import settle
from toreuma.app.stages.proof.row_table import RowTable
from toreuma.app.theme import load_theme
from toreuma.core.post import post
from toreuma.core.verdict import SideMade
from toreuma.engine.judging import verdict_of_sides
from toreuma.shipped.library import demo_job, dialect

Settled = Callable[[], None]


def count(window: Window, colour: QColor) -> int:
    """Pixels of the section in just this colour."""
    image = window.canvas.grab().toImage()
    wanted = colour.rgb()
    return sum(image.pixel(x, y) == wanted for x in range(image.width()) for y in range(image.height()))


def spoiled(window: Window) -> None:
    """The proof of the same program with its guide cut half a millimetre too small."""
    outcome = window.session.outcome
    assert outcome is not None
    text = post(outcome.plan, dialect("system-a")).text
    assert "X21.97" in text
    spoiled = prove_plan(outcome.plan, dialect("system-a"), text.replace("X21.97", "X21.5"))
    side = SideMade(job=outcome.job, scene=outcome.plan.scene, proof=spoiled)
    verdict = verdict_of_sides([outcome.plan], [side])
    window.session.results = window.session.results.with_more(proof=spoiled, verdict=verdict)
    window.session.proof_changed.emit()
    window.session.verdict_changed.emit()
    QApplication.processEvents()


def states(window: Window) -> dict[str, str]:
    """The word of every row, by what it is."""
    table = window.reasons.findChild(RowTable)
    assert table is not None
    return {table.item(row, 0).text(): table.item(row, 2).text() for row in range(table.rowCount())}


def test_a_surface_out_of_its_limits_is_drawn_and_told(bare: Window, qtbot: QtBot) -> None:
    bare.session.show(demo_job("spear"))
    assert settle(bare.session)
    bare.set_stage("proof")
    qtbot.waitUntil(lambda: bare.session.complete, timeout=60_000)
    theme = load_theme("light")
    good = count(bare, theme.load_colour(0.0))
    assert good > 60
    beyond = count(bare, theme.load_colour(2.0))  # what the key shows of it
    assert set(states(bare).values()) == {"made", "but for"}
    spoiled(bare)
    assert count(bare, theme.load_colour(2.0)) > beyond + 120
    rows = states(bare)
    assert rows["Guide"] == "out"
    assert rows["Neck"] == "but for"
    assert "Unsafe" in bare.proof.verdict.text()


def test_a_row_leads_to_its_place_and_line(bare: Window, qtbot: QtBot) -> None:
    bare.session.show(demo_job("spear"))
    assert settle(bare.session)
    bare.set_stage("proof")
    qtbot.waitUntil(lambda: bare.session.complete, timeout=60_000)
    table = bare.reasons.findChild(RowTable)
    guide = next(n for n, row in enumerate(table.rows_shown) if row.what == "Guide")
    table.setCurrentCell(guide, 0)
    row = table.rows_shown[guide]
    assert bare.canvas._finding.at == row.at
    assert bare.session.outcome.program_line(row.made.line).startswith("N")  # type: ignore[union-attr]
    assert bare.session.outcome.operation_at(bare.session.cursor_s) == "op4"  # type: ignore[union-attr]


def test_surfaces_show_when_the_cursor_stands_at_the_end(bare: Window) -> None:
    bare.session.show(demo_job("spear"))
    assert settle(bare.session)
    bare.set_stage("proof")
    straw = load_theme("light").load_colour(0.0)
    at_end = count(bare, straw)
    bare.session.set_cursor(20.0)
    assert count(bare, straw) < at_end / 2


def test_what_is_not_seen_waits_and_is_right_when_it_is_shown(window: Window, settled: Settled, qtbot: QtBot) -> None:
    window.set_stage("operations")
    before = window.program.text.toPlainText()
    window.session.attempt(lambda job: job.with_operation("op2", lambda op: op.changed(name="Another name")))
    settled()
    assert window.program.text.toPlainText() == before
    window.set_stage("program")
    assert "ANOTHER NAME" in window.program.text.toPlainText()
    window.set_stage("proof")
    qtbot.waitUntil(lambda: window.session.complete, timeout=60_000)
    assert window.proof.verdict.text() == "Finished but for"


def test_the_picture_above_the_axis_is_kept_while_the_cursor_moves(window: Window, settled: Settled) -> None:
    window.set_stage("operations")
    window.canvas.grab()
    kept = window.canvas._still
    window.session.set_cursor(30.0)
    window.canvas.grab()
    assert window.canvas._still is kept
    window.session.select(operation="op2")
    window.canvas.grab()
    assert window.canvas._still is not kept
    kept = window.canvas._still
    window.session.attempt(lambda job: job.with_operation("op2", lambda op: op.changed(leave_radial_mm=0.6)))
    settled()
    window.canvas.grab()
    assert window.canvas._still is not kept


def test_how_chips_break_is_chosen_beside_the_numbers(window: Window, settled: Settled) -> None:
    window.set_stage("operations")
    window.session.select(operation="op2")
    box = next(box for name, box in window.reasons.choices.items() if "chip_break" in name)
    box.setCurrentIndex(box.findData("stop"))
    box.activated.emit(box.currentIndex())
    settled()
    job = window.session.job
    assert job is not None
    assert job.operation("op2").chip_break == "stop"  # type: ignore[union-attr]


def test_it_plays_to_the_next_fault_and_stays_there(bare: Window, qtbot: QtBot) -> None:
    bare.session.show(demo_job("spear"))
    assert settle(bare.session)
    bare.set_stage("proof")
    qtbot.waitUntil(lambda: bare.session.complete, timeout=60_000)
    assert not bare.proof.fault.isVisible()
    spoiled(bare)
    assert bare.proof.fault.isVisible()
    bare.ribbon.player.set_speed(100)
    moment, finding = bare.session.next_fault()
    bare.session.set_cursor(0.0)
    bare.proof.fault.click()
    qtbot.waitUntil(lambda: not bare.ribbon.player.playing, timeout=30_000)
    assert bare.session.cursor_s == moment
    assert bare.canvas._finding == finding
    assert finding.code == "gouge"
    assert finding.line == min(one.line for one in bare.session.proof.findings if one.severity == "error" and one.line)
    assert "X21.97" in bare.session.outcome.program_line(finding.line)  # type: ignore[union-attr]
