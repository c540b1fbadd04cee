"""Paper drawings entered in the real window: what was typed is what the paper says, and a job stands on it."""

import pytest
import shapely
from PySide6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from tests.support.bench_drawings import DRAWINGS, Drawing
from tests.support.window import Window
from toreuma.app.shell.shot import settle
from toreuma.core.geometry.part_shape import build_part

CLOSE_MM = 0.2
"""Limits and knurls move a diameter by less than this."""


def entered(window: Window, qtbot: QtBot, drawing: Drawing) -> None:
    strip = window.first.strip
    strip.name.setText(drawing.name)
    strip.units.setCurrentIndex(strip.units.findData(drawing.units))
    strip.material.setText(drawing.material)
    strip.machine.setCurrentIndex(strip.machine.findData(drawing.machine))
    strip.begin.click()
    qtbot.keyClicks(QApplication.focusWidget(), drawing.line)


@pytest.mark.parametrize("drawing", DRAWINGS, ids=lambda one: one.name)
def test_a_drawing_is_entered_as_it_is_read_aloud(bare: Window, qtbot: QtBot, drawing: Drawing) -> None:
    bare.activateWindow()
    entered(bare, qtbot, drawing)
    assert settle(bare.session)
    assert [str(fault) for fault in bare.part.line.faults] == []
    job = bare.session.job
    assert job is not None
    scale = 25.4 if drawing.units == "inch" else 1.0
    shape = build_part(job.part)
    assert -shape.profile.back_z == pytest.approx(drawing.length * scale, abs=1e-3)
    assert sorted(one.kind for one in job.part.features) == sorted(drawing.kinds)
    for place, bore, outside in drawing.sections:
        cut = shape.region.intersection(shapely.LineString([(-place * scale, 0), (-place * scale, 500)]))
        assert 2 * cut.bounds[1] == pytest.approx(bore * scale, abs=CLOSE_MM), place
        assert 2 * cut.bounds[3] == pytest.approx(outside * scale, abs=CLOSE_MM), place
    assert job.machine.name == drawing.machine
    stock = job.stock
    assert stock.largest_d_mm >= 2 * shape.profile.largest_r - 0.01  # type: ignore[union-attr]
    errors = [one.what for one in bare.session.findings() if one.severity == "error"]
    assert errors == []
