"""The window about the numbers: the table, the limits, the lab, materials, machine, aim and the softer piece."""

from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

import pytest
from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from tests.app.test_window import type_into
from tests.support.long import everyday
from tests.support.window import Window
from toreuma.app.shell.shot import settle
from toreuma.app.shell.window import room_for
from toreuma.app.stages.operations.limit_bars import LimitBars
from toreuma.core.cutting.figures import in_order
from toreuma.core.units import show
from toreuma.shipped.library import demo_job, demo_names, machines

Settled = Callable[[], None]


def choose(window: Window, key: str, value: object) -> None:
    """Pick from a choice as a person would."""
    panel = window.hold if key == "machine" else window.reasons
    box = panel.choices[key]
    box.setCurrentIndex(box.findData(value))
    box.activated.emit(box.currentIndex())


def test_the_table_lists_every_operation_with_its_governing_limit(window: Window, qtbot: QtBot) -> None:
    window.set_stage("operations")
    qtbot.keyClick(window, Qt.Key.Key_L)
    assert window.middle.currentWidget() is window.table
    assert not window.left.isVisible()
    model = window.table.model()
    plan = window.session.outcome.plan  # type: ignore[union-attr]
    assert model.rowCount() == len(plan.operations)
    titles = [model.headerData(c, Qt.Orientation.Horizontal) for c in range(model.columnCount())]
    assert "vc\nm/min" in titles
    for row, planned in enumerate(plan.operations):
        told = model.index(row, 2).data()
        assert planned.cuts.proposal is not None
        assert planned.cuts.proposal.governing.kind.name in told
    window.table.selectRow(3)
    assert window.session.selection.operation == plan.operations[3].operation.id
    window.session.select(operation="op2")
    assert window.table.currentIndex().row() == 1
    window.set_stage("operations")  # as finding an operation does: the table stays
    assert window.middle.currentWidget() is window.table
    qtbot.keyClick(window, Qt.Key.Key_L)
    assert window.middle.currentWidget() is window.canvas
    assert window.left.isVisible()


def test_a_pinned_number_is_marked_in_the_table_and_units_follow(window: Window, settled: Settled) -> None:
    window.switch_table()
    window.session.attempt(lambda job: job.with_operation("op2", lambda op: op.changed(pins={"vc_m_min": 130.0})))
    settled()
    assert window.table.model().index(1, 3).data() == "130 ●"
    window.switch_units()
    settled()
    assert "ft/min" in window.table.model().headerData(3, Qt.Orientation.Horizontal)
    assert window.table.model().index(1, 3).data().startswith("427")  # 130 m/min


def test_every_limit_stands_beside_the_numbers(window: Window) -> None:
    window.set_stage("operations")
    window.session.select(operation="op2")
    bars = window.reasons.findChild(LimitBars)
    assert bars is not None
    told = bars.accessibleDescription()
    for name in ("power", "edge life", "chip window, feed", "bend of the piece"):
        assert name in told
    window.session.select(operation="op4")
    assert window.reasons.findChild(LimitBars).accessibleDescription() != told  # type: ignore[union-attr]


def test_the_ribbon_draws_force_and_bend(window: Window) -> None:
    proof = window.session.proof
    assert proof is not None
    rough = [s for s, m in zip(proof.steps, proof.program.motions, strict=True) if m.section == 1 and s.removed_mm2 > 1]
    assert max(step.force_n for step in rough) > 500
    assert 0 < max(step.bend_mm for step in rough) < 0.1
    before = window.ribbon.grab().toImage()
    window.ribbon._bars = lambda *_: None  # type: ignore[method-assign]
    assert window.ribbon.grab().toImage() != before


def test_the_cut_lab_takes_an_operation(window: Window, qtbot: QtBot) -> None:
    window.session.select(operation="op2")
    qtbot.keyClick(window, Qt.Key.Key_L, Qt.KeyboardModifier.ControlModifier)
    lab = window.bench.lab
    assert window.stage == "bench"
    assert lab.source.currentText() == "Rough outside"
    proposal = window.session.outcome.plan.of("op2").cuts.proposal  # type: ignore[union-attr]
    assert lab.result is not None
    assert {u.kind.name for u in lab.result.limits} == {u.kind.name for u in proposal.uses}
    assert lab.result.worst.share <= 1.01
    assert not lab.entries["d_mm"].isEnabled()
    lab.entries["vc_m_min"].setText("400")
    assert lab.result.worst.share > 1
    lab.machine.setCurrentIndex(lab.machine.findData("gang lathe"))
    lab.refresh()
    assert next(u for u in lab.result.limits if u.kind.name == "power").share > 1
    lab.source.setCurrentIndex(0)
    lab.source.activated.emit(0)
    assert lab.entries["d_mm"].isEnabled()


def test_another_machine_plans_again_with_its_rungs(window: Window, settled: Settled) -> None:
    window.set_stage("hold")
    choose(window, "machine", "geared lathe")
    settled()
    job = window.session.job
    assert job is not None
    assert job.machine == machines()["geared lathe"]
    text = window.session.outcome.program.text  # type: ignore[union-attr]
    assert "G97" in text
    assert "G96" not in text
    numbers = window.session.outcome.plan.of("op2").reasons  # type: ignore[union-attr]
    assert numbers["n"].number in job.machine.speeds_rpm
    assert numbers["price"].number > 0
    window.set_stage("operations")
    window.session.select(operation="op2")
    assert "price" in window.reasons.rows


def test_least_cost_asks_for_prices_and_changes_the_speed(window: Window, qtbot: QtBot, settled: Settled) -> None:
    window.set_stage("operations")
    window.session.select()
    choose(window, "conditions.aim", "cost")
    settled()
    row = window.reasons.rows["conditions.edge_cost"]
    before = window.session.outcome.plan.of("op2").reasons["vc"].number  # type: ignore[union-attr]
    type_into(qtbot, row.entry, "60")
    settled()
    after = window.session.outcome.plan.of("op2").reasons  # type: ignore[union-attr]
    assert after["vc"].number < before
    assert after["cost"].number > 0


def test_a_softer_piece_shows_its_overrides(window: Window, settled: Settled) -> None:
    window.set_stage("operations")
    window.session.select()
    choose(window, "prove_out", "AlMgSi1")
    settled()
    told = window.reasons.texts["prove_out"].text()
    assert "Rough outside: spindle 120 %, feed 100 %" in told
    assert "will not show" in window.reasons.texts["not_shown"].text()
    choose(window, "prove_out", "")
    assert window.session.job.prove_out is None  # type: ignore[union-attr]


def test_own_values_of_a_material_are_typed_on_the_bench(
    window: Window, settled: Settled, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path))
    bench = window.bench.materials
    window.set_stage("bench")
    window.bench.open("materials")
    bench.choice.setCurrentIndex(bench.choice.findData("1.4404"))
    bench.refresh()
    bench.table.item(0, 2).setText("2600")
    assert (tmp_path / "materials.json").exists()
    assert "1 own value" in bench.says.text()
    assert not bench.use.isHidden()
    bench.table.item(0, 3).setText("measured in May")
    assert bench.table.item(0, 3).text() == "measured in May"
    before = window.session.outcome.plan.of("op2").reasons["force"].number  # type: ignore[union-attr]
    bench.use.click()
    settled()
    assert window.session.job.stock.material.kc11_n_mm2 == 2600  # type: ignore[union-attr]
    assert window.session.outcome.plan.of("op2").reasons["force"].number != before  # type: ignore[union-attr]
    bench.table.item(1, 2).setText("many")
    assert bench.says.objectName() == "error"
    assert bench.table.item(1, 2).text() == "many"  # what was typed stays
    bench.table.item(0, 2).setText("")
    QApplication.processEvents()
    assert "No own values" in bench.says.text()


@pytest.mark.parametrize("name", everyday(demo_names(), "bleed-screw", "sheave", "vane-stud"))
def test_every_number_of_every_operation_is_shown_in_its_order(bare: Window, name: str) -> None:
    bare.session.show(demo_job(name))
    bare.set_stage("operations")
    assert settle(bare.session)
    outcome = bare.session.outcome
    assert outcome is not None
    for planned in outcome.plan.operations:
        bare.session.select(operation=planned.operation.id)
        shown = [key for key in bare.reasons.rows if "." not in key]
        further = [f"{key}_{n}" for n, one in enumerate(planned.cuts.further, 1) for key in in_order(one)]
        assert shown == [*in_order(planned.reasons), *further], planned.operation.kind


@pytest.mark.parametrize("highest_mm", [0.0, 1e-6, 0.05])
def test_a_trace_of_nothing_is_not_drawn(window: Window, highest_mm: float) -> None:
    """A bend that reads 0.0 has no bars; one that can be read has."""
    proof = window.session.proof
    assert proof is not None
    steps = tuple(replace(step, bend_mm=highest_mm, force_n=0.0) for step in proof.steps)
    window.session.results = window.session.results.with_more(proof=replace(proof, steps=steps))
    drawn: list[str] = []
    kept = QPainter.drawText
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(QPainter, "drawText", lambda self, *a: drawn.append(str(a[-1])) or kept(self, *a))
        window.ribbon.grab()
    assert any(text == show(2000 * highest_mm, "size_um", "mm").number for text in drawn) == (highest_mm > 0.01)


@pytest.mark.parametrize(("wide", "high"), [(1280, 800), (1024, 700), (3840, 2160)])
def test_the_window_opens_inside_the_screen(window: Window, wide: int, high: int) -> None:
    size = room_for(QSize(wide, high), window.style())
    assert size.width() <= min(wide, 1280)
    assert size.height() < high
    assert size.height() == 800 or high < 900
