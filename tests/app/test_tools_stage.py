"""Tools and bench in the real window."""

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QPushButton
from pytestqt.qtbot import QtBot

from tests.support.window import Window
from toreuma.core.model import Job
from toreuma.core.model.catalogue import RackItem
from toreuma.engine.shop import put_on_rack
from toreuma.files.rack import load_rack
from toreuma.shipped.library import catalogue, demo_job

Settled = Callable[[], None]

CARRIERS = ("PCLNR2020K12", "SCLCR2020K12", "PWLNR2020K08", "PTGNR2020K16", "SDJCR2020K11", "A16R-SCLCR09")
"""Enough of the catalogue for the window; the whole of it is tried in the core's own tests."""


def job_of(window: Window) -> Job:
    assert window.session.job is not None
    return window.session.job


@pytest.fixture
def advised(
    window: Window, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> Iterator[Callable[[str], None]]:
    """Open the tools stage and let a wish be answered."""
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path))
    few = catalogue().changed(carriers=tuple(one for one in catalogue().carriers if one.code in CARRIERS))
    monkeypatch.setattr("toreuma.app.stages.tools.choice.catalogue", lambda: few)
    window.set_stage("tools")

    def ask(key: str) -> None:
        window.choice.choose(key)
        qtbot.waitUntil(lambda: not window.choice.busy, timeout=30_000)

    yield ask
    window.choice.close()


def test_a_wish_is_answered_and_the_choice_goes_into_the_operation(
    window: Window, advised: Callable[[str], None], settled: Settled
) -> None:
    advised("finish outside")
    listed = [window.tools.wishes.item(i).text() for i in range(window.tools.wishes.count())]
    assert listed[2].startswith("Finish the outside\nT2")
    assert window.choice.candidate is not None
    assert window.choice.candidate.in_turret
    assert window.choice.advice is not None
    index, best = next((i, c) for i, c in enumerate(window.choice.advice.candidates) if not c.in_turret)
    window.choice.look_at(index)
    assert window.advice.cards[index].accessibleName() == best.title
    window.advice.cards[index].take.click()
    tool = job_of(window).tool(job_of(window).operations[3].tool)
    assert tool is not None
    assert tool.name == best.tool.name
    assert tool.station == 4
    settled()
    assert window.session.proof is not None
    assert not window.session.proof.contacts
    window.session.undo()
    assert job_of(window).operations[3].tool == "T2"


def test_another_candidate_is_shown_on_the_part_and_compared(window: Window, advised: Callable[[str], None]) -> None:
    advised("rough outside")
    first = window.canvas.grab().toImage()
    view = window.choice.view
    assert view is not None
    assert view.spots[0].reason == "trailing edge"
    window.choice.look_at(1)
    window.canvas.repaint()
    assert window.canvas.grab().toImage() != first
    window.advice.comparing = True
    window.advice._fill()
    texts = [label.text() for label in window.advice.findChildren(type(window.header.title))]
    assert "Cutting force" in texts
    assert any("slim" in b.text() for b in window.advice.findChildren(QPushButton))


def test_what_was_seen_of_a_tool_is_kept_in_the_job(
    window: Window, qtbot: QtBot, advised: Callable[[str], None]
) -> None:
    advised("rough outside")
    form = window.advice.trial
    form.chip.setCurrentIndex(3)
    qtbot.keyClicks(form.lines["noise"], "sings")
    form.keep.click()
    trial = job_of(window).trials[0]
    assert (trial.cut, trial.chip, trial.noise) == ("Rough the outside", "long strings", "sings")
    assert trial.feed_mm_rev == 0.275  # what the operation is planned with
    window.session.undo()
    assert not job_of(window).trials


def test_tools_change_stations_and_offsets_follow_the_master(window: Window, advised: Callable[[str], None]) -> None:
    stations = window.tools.stations
    window.tools.tabs.setCurrentIndex(1)
    stations.move_tool("T1", 5)
    assert {t.id: t.station for t in job_of(window).tools}["T1"] == 5
    stations.move_tool("T1", 2)
    assert {t.id: t.station for t in job_of(window).tools} == {"T1": 2, "T2": 5, "T3": 3}
    stations.master.setCurrentIndex(stations.master.findData("T1"))
    stations.master.activated.emit(stations.master.currentIndex())
    assert "X 0 mm on Ø" in stations.list.item(1).text()
    stations.list.setCurrentRow(1)
    stations.remove.click()
    assert any(t.id == "T1" for t in job_of(window).tools)  # used: it stays, and the line says by whom
    assert "is used by" in window._notice.text()


def test_the_store_is_searched_and_the_rack_is_kept(
    window: Window, advised: Callable[[str], None], tmp_path: Path, qtbot: QtBot
) -> None:
    advised("rough outside")
    store = window.tools.store
    window.tools.tabs.setCurrentIndex(2)
    store.search.setText("wnmg R0.8")
    assert {entry.code for entry in store.entries()} == {"WNMG060408-even", "WNMG080408-even", "WNMG080408-satin"}
    store.list.setCurrentRow(0)
    store.keep.click()
    qtbot.waitUntil(lambda: not window.choice.busy, timeout=30_000)
    assert [(item.code, item.edges_left) for item in load_rack()] == [("WNMG060408-even", 6)]
    table = tmp_path / "list.csv"
    table.write_text("code,edges_left,place\nPWLNR2020K08,1,drawer 3\nnonsense ??,2,\nCNMG120408-even,many,\n")
    window.files.read_rack(table)
    qtbot.waitUntil(lambda: not window.choice.busy, timeout=30_000)
    assert "row 3: 'nonsense ??'" in window._notice.text()
    assert "row 4" in window._notice.text()
    assert {item.code for item in load_rack()} == {"WNMG060408-even", "PWLNR2020K08", "nonsense ??"}
    for name in ("out.csv", "out.json"):
        window.files.write_rack(tmp_path / name)
        window.files.read_rack(tmp_path / name)
        qtbot.waitUntil(lambda: not window.choice.busy, timeout=30_000)
    assert len(load_rack()) == 3
    window.files.write_rack(tmp_path / "none" / "x.csv")
    assert "cannot be written" in window._notice.text()
    store.search.setText("")
    store.fits.setChecked(True)
    assert store.entries()
    assert not [e for e in store.entries() if e.words.startswith("twist drill")]


def test_a_list_with_headings_of_its_own_is_matched_by_the_person(window: Window, tmp_path: Path, qtbot: QtBot) -> None:
    put_on_rack([RackItem(code="KEPT", place="A1")])
    table = tmp_path / "cupboard.csv"
    table.write_text("Colour;What it is;Left over;Spot\nred;CNMG120408-even;3;B2\nblue;TD 5 HSS 118;1;B3\n")
    window.files.read_rack(table)
    asked = window.files.asked
    assert asked is not None
    assert asked.isVisible()
    assert not asked.take.isEnabled()
    for column, heading in (("code", "What it is"), ("edges_left", "Left over"), ("place", "Spot")):
        asked.boxes[column].setCurrentIndex(asked.boxes[column].findData(heading))
    assert asked.samples["code"].text() == "CNMG120408-even,  TD 5 HSS 118"
    assert [item.code for item in load_rack()] == ["KEPT"]
    asked.take.click()
    found = {item.code: (item.edges_left, item.place) for item in load_rack()}
    assert found == {"KEPT": (0, "A1"), "CNMG120408-even": (3, "B2"), "TD 5 HSS 118": (1, "B3")}
    window.files.read_rack(table)
    window.files.asked.reject()
    assert len(load_rack()) == 3


def test_a_part_that_changes_is_asked_again(window: Window, qtbot: QtBot, advised: Callable[[str], None]) -> None:
    advised("rough outside")
    before = window.choice.advice
    window.session.show(demo_job("runner-hub"))
    qtbot.waitUntil(lambda: not window.choice.busy, timeout=30_000)
    assert window.choice.advice is not before
    assert {"rough bore", "drill bore"} <= {wish.key for wish in window.choice.wishes}


def test_the_bench_reads_codes_both_ways(window: Window, qtbot: QtBot) -> None:
    window.set_stage("bench")
    bench = window.bench.codes
    bench.entry.setText("ccmt 21.51")
    assert "inch designation" in bench.says.text()
    assert "CCMT060204" in bench.same.text()
    assert bench.table.rowCount() == 7
    bench.entry.setText("CNMG120408")
    before = bench.drawing.grab().toImage()
    shape = bench.boxes[1]
    shape.setCurrentIndex(shape.findData("W"))
    shape.activated.emit(shape.currentIndex())
    assert bench.entry.text() == "WNMG080408"  # the same inscribed circle, and the edge that goes with it
    assert bench.drawing.grab().toImage() != before
    radius = bench.boxes[7]
    radius.setCurrentIndex(radius.findData("12"))
    radius.activated.emit(radius.currentIndex())
    assert bench.entry.text() == "WNMG080412"


def test_the_bench_says_what_is_wrong_and_offers_what_is_near(window: Window, qtbot: QtBot) -> None:
    window.set_stage("bench")
    bench = window.bench.codes
    bench.entry.setText("PCLNR2526M12")
    assert bench.entry.text() == "PCLNR2526M12"
    assert "position 7" in bench.says.text()
    near = next(b for b in bench.findChildren(QPushButton) if b.text() == "PCLNR2525M12")
    qtbot.mouseClick(near, Qt.MouseButton.LeftButton)
    assert bench.code is not None
    assert "Holder, metric" in bench.says.text()


def test_threads_fits_and_speed_answer_while_one_types(window: Window) -> None:
    window.set_stage("bench")
    page = window.bench
    page.threads.entry.setText("1/2-13 UNC-2A")
    labels = [page.threads.grid.itemAt(i).widget().text() for i in range(page.threads.grid.count())]
    assert "0.4435 in" in labels  # ASME B1.1: pitch diameter of 1/2-13 2A from 0.4435
    page.fits.entry.setText("25 H7")
    assert any("+21 µm" in page.fits.grid.itemAt(i).widget().text() for i in range(page.fits.grid.count()))
    page.speed.entry.setText("31.831")
    material = page.speed.material
    material.setCurrentIndex(material.findData("C45"))
    page.speed.refresh()
    assert page.speed.grid.count() > 4
    page.speed.entry.setText("0")
    assert page.speed.grid.count() == 0
    assert page.speed.entry.property("bad")


def test_the_bench_opens_without_a_job(bare: Window) -> None:
    bare.set_stage("bench")
    assert bare.pages.currentWidget() is bare.bench
    bare.set_stage("part")
    assert bare.pages.currentWidget() is bare.first


def test_sizes_of_a_tool_are_typed_and_change_its_shape(
    window: Window, qtbot: QtBot, advised: Callable[[str], None], settled: Settled
) -> None:
    advised("rough outside")
    window.tools.tabs.setCurrentIndex(1)
    assert window.right.currentWidget() is window.tool
    window.tools.stations.list.setCurrentRow(0)
    row = window.tool.rows["insert.nose_radius_mm"]
    row.entry.setFocus()
    row.entry.selectAll()
    qtbot.keyClicks(row.entry, "1.2")
    qtbot.keyClick(row.entry, Qt.Key.Key_Return)
    tool = job_of(window).tool("T1")
    assert tool is not None
    assert tool.insert.nose_radius_mm == 1.2  # type: ignore[union-attr]
    row = window.tool.rows["holder.entering_angle_deg"]
    row.entry.selectAll()
    qtbot.keyClicks(row.entry, "500")
    qtbot.keyClick(row.entry, Qt.Key.Key_Return)
    assert job_of(window).tool("T1").holder.entering_angle_deg == 95  # type: ignore[union-attr]
    assert row.entry.text() == "500"
    window.tools.tabs.setCurrentIndex(0)
    assert window.right.currentWidget() is window.advice


def test_the_cut_lab_answers_in_both_units_and_marks_what_cannot_be(window: Window, qtbot: QtBot) -> None:
    window.set_stage("bench")
    window.bench.list.setCurrentRow(4)
    lab = window.bench.lab
    assert lab.result is not None
    before = {one.kind.name: one.share for one in lab.result.limits}
    picture = lab.loads.grab().toImage()
    lab.units.setCurrentIndex(1)
    lab.units.activated.emit(1)
    assert lab.entries["vc_m_min"].text() == "591 ft/min"
    after = {one.kind.name: one.share for one in lab.result.limits}
    assert after["power"] == pytest.approx(before["power"], rel=0.01)  # shown rounded, the cut is the same
    lab.entries["ap_mm"].setText("0.5 in")
    assert lab.result.worst.kind.name == "power"
    assert "Ended by power" in lab.says.text()
    assert lab.loads.grab().toImage() != picture
    lab.entries["feed_mm_rev"].setText("-1")
    assert lab.entries["feed_mm_rev"].property("bad")
    assert lab.entries["feed_mm_rev"].text() == "-1"
    lab.entries["feed_mm_rev"].setText("0.01")
    assert not lab.entries["feed_mm_rev"].property("bad")
    lab.tool.setCurrentIndex(lab.tool.findData("high-speed steel"))
    lab.refresh()
    ends = {tool: next((r.vc_m_min for r in rungs if r.share > 1), 1e9) for tool, rungs in lab.rungs.items()}
    assert ends["high-speed steel"] <= ends["coated carbide"]
