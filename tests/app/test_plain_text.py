"""Names and messages come from outside: nothing in them is rendered, nothing in them is opened."""

import re
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel
from pytestqt.qtbot import QtBot

from tests.support.window import Window
from toreuma.app.shell.shot import settle
from toreuma.app.stages.all import STAGES
from toreuma.core.model import Job
from toreuma.engine.library import renew
from toreuma.engine.shop import by_likeness

APP = Path(__file__).parent.parent.parent / "src" / "toreuma" / "app"
HOSTILE = "<img src='/dev/zero'><b>x</b>"


def test_labels_are_made_plain_in_one_place() -> None:
    made = [path for path in APP.rglob("*.py") if re.search(r"(?<![\w.])QLabel\(", path.read_text("utf-8"))]
    assert made == [], "use Label of app/forms/label.py, which shows text as it is"


def hostile(job: Job) -> Job:
    part = job.part
    outside = tuple(one.changed(name=HOSTILE) for one in part.outside)
    features = tuple(one.changed(name=HOSTILE) for one in part.features)
    tools = tuple(tool.changed(name=HOSTILE) for tool in job.tools)
    operations = tuple(one.changed(name=HOSTILE) for one in job.operations)
    material = job.stock.material.changed(name=HOSTILE, source=HOSTILE, caution=HOSTILE)
    job = job.changed(
        name=HOSTILE,
        part=part.changed(name=HOSTILE, outside=outside, features=features),
        stock=job.stock.changed(material=material),
        machine=job.machine.changed(name=HOSTILE),
        tools=tools,
    )
    return job.with_setup(name=HOSTILE, hold=job.setup.hold.changed(name=HOSTILE), operations=operations)


def test_markup_in_every_name_of_a_job_is_shown_and_not_rendered(
    bare: Window, spear: Job, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path))
    renew()
    by_likeness("machine", HOSTILE, "slant-bed", [], HOSTILE)
    bare.session.show(hostile(spear))
    assert settle(bare.session)
    for stage in STAGES:
        bare.set_stage(stage.key)
        bare.session.select(operation=bare.session.job.operations[0].id)  # type: ignore[union-attr]
        qtbot.wait(1)
    bare.open_shop("machine", HOSTILE)
    bare.files.save_to(tmp_path / "hostile.toreuma")
    bare.go_home()
    bare.open_help("finding")
    shown = [one for one in bare.findChildren(QLabel) if "<img" in one.text()]
    assert shown
    assert {one.textFormat() for one in shown} == {Qt.TextFormat.PlainText}
    renew()


def test_questions_show_names_as_they_are() -> None:
    """A question box takes what looks like markup for markup: what it says of names goes through ``plain_tip``."""
    asked = [
        (path.name, line.strip())
        for path in APP.rglob("*.py")
        for line in path.read_text("utf-8").splitlines()
        if re.search(r"QMessageBox\.(question|warning|information|critical|about)\(.+", line)
    ]
    assert asked == [one for one in asked if "plain_tip(" in one[1]], asked
