"""Part, stock and hold in the real window."""

import threading
from collections.abc import Callable
from pathlib import Path

import pytest
from PySide6.QtCore import QMimeData, QPoint, QPointF, Qt, QUrl
from PySide6.QtGui import QDropEvent
from PySide6.QtWidgets import QPushButton
from pytestqt.qtbot import QtBot

from tests.support.long import everyday
from tests.support.solids import draw_dxf
from tests.support.window import Window
from toreuma.app.shell.shot import settle
from toreuma.app.stages.part.panel import feature_line
from toreuma.core.model import Job, Part, SteadyRest
from toreuma.exchange.step_in import read_step
from toreuma.shipped.library import demo_job, demo_names
from toreuma.shipped.paths import data_path

Settled = Callable[[], None]


def job_of(window: Window) -> Job:
    assert window.session.job is not None
    return window.session.job


def type_into(qtbot: QtBot, window: Window, key: str, text: str) -> None:
    entry = window.reasons.rows[key].entry
    entry.setFocus()
    entry.selectAll()
    qtbot.keyClicks(entry, text)
    qtbot.keyClick(entry, Qt.Key.Key_Return)


def press(window: Window, words: str) -> None:
    button = next(b for b in window.reasons.widget().findChildren(QPushButton) if b.text() == words)
    button.click()


def click(qtbot: QtBot, window: Window, z: float, r: float) -> None:
    view = window.canvas._current_view()
    assert view is not None
    at = view.point(z, r)
    qtbot.mouseClick(window.canvas, Qt.MouseButton.LeftButton, pos=QPoint(round(at.x()), round(at.y())))


def show(window: Window, name: str) -> None:
    window.session.show(demo_job(name))
    assert settle(window.session)


@pytest.mark.parametrize("name", everyday(demo_names(), "gate-spindle", "vane-stud"))
def test_a_demo_job_shows_every_stage(bare: Window, name: str) -> None:
    show(bare, name)
    for stage in ("part", "stock", "hold", "operations"):
        bare.set_stage(stage)
        assert not bare.grab().toImage().isNull()
        assert bare.session.problem is None


def test_a_dimension_is_edited_where_it_stands(window: Window, qtbot: QtBot, settled: Settled) -> None:
    window.canvas.repaint()
    hit = next(d for d in window.canvas._dimensions if (d.side, d.element, d.field) == ("outside", 2, "d_mm"))
    qtbot.mouseClick(window.canvas, Qt.MouseButton.LeftButton, pos=hit.box.center().toPoint())
    entry = window.canvas.dimension
    assert entry.isVisible()
    entry.setText("21 h7")
    qtbot.keyClick(entry, Qt.Key.Key_Return)
    assert not entry.isVisible()
    element = job_of(window).part.outside[2]
    assert (element.d_mm, element.size.fit, element.size.lower_um) == (21, "h7", -21)  # type: ignore[union-attr]


def test_a_changed_part_is_drawn_before_it_is_planned(window: Window, settled: Settled) -> None:
    before = window.session.outcome
    window.part.outside.type_into(2, 3, "20")
    assert window.session.outcome is before  # nothing was planned in between
    scene = window.canvas._scene
    assert scene is not None
    assert any(abs(segment.start[1] - 10.0) < 1e-9 for segment in scene.profile.segments)
    settled()
    assert window.session.outcome is not before


def test_radii_and_corners_are_edited_where_they_stand(window: Window, qtbot: QtBot) -> None:
    for element, field, typed in ((0, "radius_mm", "5"), (7, "corner", "R0.8")):
        window.session.select(element=element)
        window.canvas.repaint()
        hit = next(d for d in window.canvas._dimensions if (d.element, d.field) == (element, field))
        window.canvas.dimension.open(hit)
        window.canvas.dimension.setText(typed)
        window.canvas.dimension.submit()
    outside = job_of(window).part.outside
    assert outside[0].radius_mm == 5
    assert (outside[7].corner.kind, outside[7].corner.size_mm) == ("round", 0.8)  # type: ignore[union-attr]


def test_features_are_dimensioned_and_edited_where_they_stand(window: Window, qtbot: QtBot) -> None:
    window.session.show(demo_job("seat-ring"))
    window.canvas.repaint()
    edits = {(0, "width_mm"): "3.2", (0, "d_mm"): "111", (2, "designation"): "M64x1.5-6H"}
    by_kind = [(f.kind, f.side) for f in job_of(window).part.features]  # type: ignore[union-attr]
    assert by_kind == [("groove", "outside"), ("groove", "inside"), ("thread", "inside")]
    for (feature, field), typed in edits.items():
        window.canvas.repaint()
        hit = next(d for d in window.canvas._dimensions if (d.side, d.element, d.field) == ("feature", feature, field))
        qtbot.mouseClick(window.canvas, Qt.MouseButton.LeftButton, pos=hit.box.center().toPoint())
        assert window.session.selection.feature == feature
        window.canvas.dimension.setText(typed)
        qtbot.keyClick(window.canvas.dimension, Qt.Key.Key_Return)
    groove, _, thread = job_of(window).part.features
    assert (groove.width_mm, groove.d_mm) == (3.2, 111)  # type: ignore[union-attr]
    assert thread.designation == "M64x1.5-6H"  # type: ignore[union-attr]
    window.canvas.repaint()
    hit = next(d for d in window.canvas._dimensions if d.field == "designation")
    window.canvas.dimension.open(hit)
    window.canvas.dimension.setText("M64x9x9")
    window.canvas.dimension.submit()
    assert window.canvas.dimension._why.isVisible()
    assert job_of(window).part.features[2].designation == "M64x1.5-6H"  # type: ignore[union-attr]


def test_a_dimension_that_cannot_be_stays_with_its_reason(window: Window, qtbot: QtBot) -> None:
    window.canvas.repaint()
    before = job_of(window)
    hit = next(d for d in window.canvas._dimensions if (d.element, d.field) == (4, "z_mm"))
    window.canvas.dimension.open(hit)
    window.canvas.dimension.setText("-20")
    qtbot.keyClick(window.canvas.dimension, Qt.Key.Key_Return)
    assert window.canvas.dimension.isVisible()
    assert window.canvas.dimension.text() == "-20"
    assert window.canvas.dimension._why.isVisible()
    assert job_of(window) is before
    qtbot.keyClick(window.canvas.dimension, Qt.Key.Key_Escape)
    assert not window.canvas.dimension.isVisible()


def test_surfaces_and_features_are_picked_on_the_canvas(bare: Window, qtbot: QtBot) -> None:
    show(bare, "seat-ring")
    bare.canvas.repaint()
    click(qtbot, bare, -18.5, 30.0)
    assert (bare.session.selection.side, bare.session.selection.element) == ("inside", 2)
    assert bare.part.tabs.currentIndex() == 1
    click(qtbot, bare, -22.0, 31.5)
    assert bare.session.selection.feature == 1
    assert "Snap ring groove" in bare.part.features.item(0).text()


def test_a_groove_a_thread_and_a_relief_are_added_to_a_surface(window: Window, qtbot: QtBot, settled: Settled) -> None:
    window.session.select(element=6)
    press(window, "Thread")
    thread = job_of(window).part.features[0]
    assert (thread.kind, thread.designation) == ("thread", "M24")  # type: ignore[union-attr]
    line = window.reasons.lines["designation"]
    line.selectAll()
    qtbot.keyClicks(line, "M24x2-6g")
    qtbot.keyClick(line, Qt.Key.Key_Return)
    assert job_of(window).part.features[0].designation == "M24x2-6g"  # type: ignore[union-attr]
    assert "Pitch 2" in window.reasons.texts["thread"].text()
    said: list[str] = []
    window.session.message.connect(lambda _, text: said.append(text))
    line.selectAll()
    qtbot.keyClicks(line, "M24xx")
    qtbot.keyClick(line, Qt.Key.Key_Return)
    assert "no thread" in said[-1]
    window.session.select(element=6)
    press(window, "Sharp")
    press(window, "Relief")
    relief = job_of(window).part.features[1]
    assert (relief.form, relief.length_mm) == ("thread", 7.0)  # type: ignore[union-attr]
    window.session.select(element=2)
    press(window, "Groove")
    type_into(qtbot, window, "feature.d_mm", "19")
    assert job_of(window).part.features[2].d_mm == 19  # type: ignore[union-attr]
    settled()
    assert window.session.problem is None
    press(window, "Take it out")
    assert len(job_of(window).part.features) == 2


def test_corners_and_splits_by_button(window: Window) -> None:
    window.session.select(element=2)
    press(window, "Split")
    assert len(job_of(window).part.outside) == 10
    window.session.undo()
    window.session.select(element=7)
    press(window, "Round")
    assert job_of(window).part.outside[7].corner.kind == "round"  # type: ignore[union-attr]
    press(window, "Sharp")
    assert job_of(window).part.outside[7].corner is None


def test_a_taper_is_typed_by_its_angle_or_ratio(window: Window, qtbot: QtBot) -> None:
    window.session.select(element=3)
    line = window.reasons.lines["taper"]
    assert line.text().endswith("°")
    for text, d in (("\u221220°", 22 - 2 * 4 * 0.36397023), ("-1:2", 20.0)):
        line.setText(text)  # signs that no key of a test keyboard types
        line.setModified(True)
        qtbot.keyClick(line, Qt.Key.Key_Return)
        assert job_of(window).part.outside[3].d_mm == pytest.approx(d, abs=1e-4)


def test_reliefs_take_standard_sizes(window: Window) -> None:
    window.session.select(element=6)
    press(window, "Sharp")
    press(window, "Relief")
    assert job_of(window).part.features[0].form == "E"  # type: ignore[union-attr]
    box = window.reasons.choices["standard"]
    box.activated.emit(box.findData("1.6 x 0.3"))
    assert job_of(window).part.features[0].radius_mm == 1.6  # type: ignore[union-attr]


def test_wrong_feature_sizes_say_why_and_keep_what_was_typed(window: Window, qtbot: QtBot) -> None:
    window.session.select(element=2)
    press(window, "Groove")
    before = job_of(window)
    type_into(qtbot, window, "feature.d_mm", "40")
    assert job_of(window) is before
    row = window.reasons.rows["feature.d_mm"]
    assert row.entry.text() == "40"
    assert "inside the metal" in row._fault.text()


def test_a_bore_is_added_and_edited_in_its_table(window: Window, qtbot: QtBot, settled: Settled) -> None:
    window.session.attempt(lambda j: j.changed(part=demo_job("runner-hub").part))
    window.part.tabs.setCurrentIndex(1)
    row = next(i for i, e in enumerate(job_of(window).part.inside) if e.name == "Shaft bore")
    window.part.inside.type_into(row, 3, "26 H7")
    element = job_of(window).part.inside[row]
    assert (element.d_mm, element.size.upper_um) == (26, 21)  # type: ignore[union-attr]
    window.session.select()
    window.session.undo()
    window.session.undo()
    window.set_stage("part")
    press(window, "Bore through")
    assert len(job_of(window).part.inside) == 2
    window.part.inside.type_into(1, 2, "-200")
    assert window.part.inside.model.fault is not None
    assert "past the back face" in window.part.inside.model.fault[2]


@pytest.mark.parametrize("text", ["+0.02/-0.01", "+0.02 -0.01", "±0.015", "js6", "h6"])
def test_limits_are_typed_as_people_write_them(window: Window, qtbot: QtBot, text: str) -> None:
    window.part.outside.type_into(2, 3, f"22 {text}")
    size = job_of(window).part.outside[2].size
    assert size is not None
    assert size.lower_um < size.upper_um or size.fit
    shown = window.part.outside.model.data(window.part.outside.model.index(2, 3))
    window.part.outside.type_into(2, 3, shown)
    assert job_of(window).part.outside[2].size == size


def test_a_dropped_model_is_shown_before_it_is_taken(window: Window, qtbot: QtBot, settled: Settled) -> None:
    before = job_of(window)
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(data_path("demo", "runner-hub.step")))])
    drop = QDropEvent(
        QPointF(10, 10), Qt.DropAction.CopyAction, data, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
    )
    window.dropEvent(drop)
    qtbot.waitUntil(lambda: window.imports.found is not None, timeout=20_000)
    assert window.session.preview is not None
    assert job_of(window) is before
    window.imports.part_button.click()
    settled()
    assert len(job_of(window).part.features) == 3
    assert window.session.preview is None
    window.session.undo()
    assert job_of(window) is before


def test_an_import_can_be_left_or_stopped_and_a_bad_one_is_one_line(bare: Window, qtbot: QtBot, tmp_path: Path) -> None:
    bare.start_import(data_path("demo", "vane-stud.dxf"))
    qtbot.waitUntil(lambda: bare.imports.found is not None, timeout=20_000)
    bare.imports.drop_button.click()
    assert bare.session.job is None
    assert bare.pages.currentWidget() is bare.first
    said: list[str] = []
    bare.session.message.connect(lambda _, text: said.append(text))
    path = tmp_path / "bad.dxf"
    path.write_text("nothing")
    bare.start_import(path)
    qtbot.waitUntil(lambda: bool(said), timeout=20_000)
    assert "bad.dxf" in said[0]
    bare.start_import(data_path("demo", "runner-hub.step"))
    bare.imports.drop_button.click()
    assert not bare.imports.reading
    bare.start_import(data_path("demo", "vane-stud.dxf"))
    qtbot.waitUntil(lambda: bare.imports.found is not None, timeout=20_000)
    bare.imports.take_as_job()
    assert job_of(bare).units == "inch"


def test_a_drawing_can_become_the_blank(window: Window, qtbot: QtBot, tmp_path: Path, settled: Settled) -> None:
    casting = Part.model_validate({"outside": [{"z_mm": z, "d_mm": d} for z, d in ((0, 30), (-40, 36), (-140, 36))]})
    path = tmp_path / "casting.dxf"
    draw_dxf(path, casting, "lines")
    window.start_import(path)
    qtbot.waitUntil(lambda: window.imports.found is not None, timeout=20_000)
    part = job_of(window).part
    window.imports.blank_button.click()
    settled()
    stock = job_of(window).stock
    assert stock.kind == "free"
    assert job_of(window).part == part
    scene = window.session.outcome.plan.scene  # type: ignore[union-attr]
    assert scene.stock.bounds[2] == pytest.approx(stock.face_allowance_mm)
    assert scene.stock.bounds[0] == pytest.approx(stock.face_allowance_mm - 140)
    assert scene.stock.area == pytest.approx(40 * 16.5 + 100 * 18, rel=1e-3)
    window.set_stage("stock")
    assert "profile of its own" in window.stock.texts["own"].text()


def test_the_blank_is_chosen_by_kind_and_material(window: Window, settled: Settled) -> None:
    window.set_stage("stock")
    box = window.stock.choices["kind"]
    for kind in ("hexagon", "square", "tube", "free", "round"):
        box.setCurrentIndex(box.findData(kind))
        box.activated.emit(box.currentIndex())
        box = window.stock.choices["kind"]
        settled()
        assert window.session.problem is None
    assert job_of(window).stock.kind == "round"
    material = window.stock.choices["material"]
    material.activated.emit(material.findData("AlMgSi1"))
    settled()
    assert job_of(window).stock.material.density_kg_m3 == 2700
    assert window.reasons.rows["parts per bar"].isVisible()


def test_the_hold_limits_the_speed_of_the_operations(window: Window, qtbot: QtBot, settled: Settled) -> None:
    window.set_stage("hold")
    box = window.hold.choices["hold"]
    box.activated.emit(box.findData("three-jaw chuck 160"))
    settled()
    plan = window.session.outcome.plan  # type: ignore[union-attr]
    assert plan.hold.safe_speed is not None
    assert plan.hold.safe_speed.number < 4000
    entry = window.hold.rows["hold.force_n"].entry
    entry.setFocus()
    entry.selectAll()
    qtbot.keyClicks(entry, "45 kN")
    qtbot.keyClick(entry, Qt.Key.Key_Return)
    settled()
    assert job_of(window).setup.hold.force_n == 45_000
    assert window.reasons.rows["grip.op2"].isVisible()


def test_centre_relief_and_second_hold_are_switched(window: Window, settled: Settled) -> None:
    window.set_stage("hold")
    for key, value in (("centre", "live centre 32"), ("relieved", True), ("second", 2)):
        box = window.hold.choices[key]
        box.activated.emit(box.findData(value))
        settled()
    job = job_of(window)
    assert job.setup.centre is not None
    assert job.setup.hold.relief is not None  # type: ignore[union-attr]
    assert job.second_hold is not None
    codes = {finding.code for finding in window.session.outcome.plan.findings}  # type: ignore[union-attr]
    assert "centre.hole" in codes
    window.canvas.repaint()


def test_a_rest_is_stood_where_it_is_typed_and_a_driver_asks_for_its_centre(
    window: Window, qtbot: QtBot, settled: Settled
) -> None:
    window.set_stage("hold")
    box = window.hold.choices["rest"]
    box.activated.emit(box.findData("steady 8 to 80"))
    settled()
    scene = window.session.outcome.plan.scene  # type: ignore[union-attr]
    rest = job_of(window).setup.rest
    assert isinstance(rest, SteadyRest)
    assert rest.z_mm == pytest.approx((scene.jaw_face_z + scene.stock_front_z) / 2, abs=0.1)
    assert not scene.steady.is_empty
    entry = window.hold.rows["rest.z_mm"].entry
    entry.setFocus()
    entry.selectAll()
    qtbot.keyClicks(entry, "-500")
    qtbot.keyClick(entry, Qt.Key.Key_Return)
    settled()
    codes = {finding.code for finding in window.session.outcome.plan.findings}  # type: ignore[union-attr]
    assert "rest.place" in codes
    window.canvas.repaint()
    box = window.hold.choices["rest"]
    box.activated.emit(box.findData(None))
    settled()
    assert job_of(window).setup.rest is None
    hold = window.hold.choices["hold"]
    hold.activated.emit(hold.findData("face driver 32"))
    settled()
    codes = {finding.code for finding in window.session.outcome.plan.findings}  # type: ignore[union-attr]
    assert {"driver.centre", "driver.piece"} <= codes
    assert "hold.stick_out_mm" not in {key for key, row in window.hold.rows.items() if row.isVisible()}


def test_the_range_of_the_jaws_is_typed_and_checked(window: Window, qtbot: QtBot, settled: Settled) -> None:
    window.set_stage("hold")
    window.session.attempt(lambda j: j.changed(second_hold={"element": 2, "grip_length_mm": 8}))
    for key, text in (("hold.range_from", "40"), ("second.range_to", "20")):
        entry = window.hold.rows[key].entry
        entry.setFocus()
        entry.selectAll()
        qtbot.keyClicks(entry, text)
        qtbot.keyClick(entry, Qt.Key.Key_Return)
    settled()
    job = job_of(window)
    assert job.setup.hold.grip_range_mm == (40, 160)  # type: ignore[union-attr]
    assert job.second_hold.range_mm == (0, 20)  # type: ignore[union-attr]
    codes = {finding.code for finding in window.session.outcome.plan.findings}  # type: ignore[union-attr]
    assert {"hold.range", "second.range"} <= codes


def test_section_and_model_are_written(window: Window, tmp_path: Path) -> None:
    for name in ("out.dxf", "out.step", "out.stp"):
        window.files.export_to(tmp_path / name)
        assert (tmp_path / name).stat().st_size > 1000
    assert read_step(tmp_path / "out.step").deviation_um < 1
    said: list[str] = []
    window.session.message.connect(lambda _, text: said.append(text))
    window.files.export_to(tmp_path / "out.txt")
    assert not (tmp_path / "out.txt").exists()


def test_every_kind_of_feature_has_a_line(bare: Window) -> None:
    lines = [feature_line(f, "mm") for name in demo_names() for f in demo_job(name).part.features]
    assert any("M64x2" in line for line in lines)
    assert all(line.strip() for line in lines)


def test_dxf_of_a_random_part_opens_as_a_new_job(bare: Window, qtbot: QtBot, tmp_path: Path, spear: Job) -> None:
    path = tmp_path / "part.dxf"
    draw_dxf(path, spear.part, "lines")
    bare.files.open_job(str(path))
    qtbot.waitUntil(lambda: bare.imports.found is not None, timeout=20_000)
    bare.imports.take_as_job()
    assert settle(bare.session)
    assert bare.session.outcome is not None


def test_the_second_end_of_a_pair_opens_as_a_job_of_its_own(window: Window, settled: Settled) -> None:
    supply = job_of(window).stock.supply.changed(back_to_back=True)
    job = job_of(window).changed(stock=job_of(window).stock.changed(supply=supply), second_hold=None)
    window.session.show(job)
    window.set_stage("stock")
    button = next(b for b in window.stock.findChildren(QPushButton) if "second end" in b.text())
    button.click()
    assert window.session.job is job  # nothing to grip yet: said, and left as it was
    assert "second hold" in window._notice.text()
    window.session.show(job.changed(second_hold={"element": 2, "grip_length_mm": 10}))
    window.files.open_second_end()
    settled()
    assert job_of(window).stock.kind == "free"
    assert window.session.outcome is not None
    assert any(op.kind == "part_off" for op in window.session.outcome.job.operations)


def test_stopping_a_reading_does_not_wait_for_the_library(
    window: Window, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, qtbot: QtBot
) -> None:
    """The reading is left alone with its step; the window goes on at once and the part stays."""
    let_go = threading.Event()

    def slow(*_: object, **__: object) -> None:
        let_go.wait(20)

    monkeypatch.setattr("toreuma.app.stages.part.imports.read_part_apart", slow)
    before = job_of(window)
    window.start_import(tmp_path / "model.step")
    assert window.imports.reading
    window.imports.drop_button.click()
    assert not window.imports.reading  # said at once, while the step still runs
    assert not let_go.is_set()
    assert job_of(window) is before
    let_go.set()
    window.imports.close_down()
