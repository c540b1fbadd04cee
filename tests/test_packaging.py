"""What packages are made of says the same everywhere, and nothing in it uses a network."""

import json
import os
import re
import shutil
import subprocess
import sys
import tomllib
import xml.etree.ElementTree as ET
from pathlib import Path

import pytest

from toreuma import __version__
from toreuma.cli import ROOM_OF
from toreuma.engine.rests_on import licences_text, rests_on, version_text

ROOT = Path(__file__).parents[1]
DATA = ROOT / "packaging/data"


def desktop() -> dict[str, str]:
    lines = (DATA / "org.toreuma.Toreuma.desktop").read_text().splitlines()
    return dict(line.split("=", 1) for line in lines if "=" in line)


def test_the_version_is_the_same_everywhere() -> None:
    project = tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]
    releases = [one.get("version") for one in ET.parse(DATA / "org.toreuma.Toreuma.metainfo.xml").iter("release")]
    assert project["version"] == __version__ == releases[0]
    assert version_text().startswith(f"toreuma {__version__}\n")


def test_desktop_mime_and_thumbnailer_speak_of_the_same_commands_and_files() -> None:
    entry = desktop()
    command = entry["Exec"].split()
    assert command[0] == "toreuma"
    assert command[1] in ROOM_OF
    thumbnailer = (DATA / "toreuma.thumbnailer").read_text()
    assert "toreuma thumbnail %i %o" in thumbnailer
    assert "thumbnail" in ROOM_OF
    kind = ET.parse(DATA / "toreuma-mime.xml").getroot()[0]
    assert kind.get("type") in entry["MimeType"]
    assert str(kind.get("type")) in thumbnailer
    assert [one.get("pattern") for one in kind if one.tag.endswith("glob")] == ["*.toreuma"]
    assert entry["Icon"] == "toreuma"
    assert ET.parse(DATA / "toreuma.svg").getroot().get("viewBox") == "0 0 128 128"


def test_validators_have_nothing_to_say() -> None:
    ran = 0
    for name, arguments in (
        ("appstreamcli", ["validate", "--no-net", str(DATA / "org.toreuma.Toreuma.metainfo.xml")]),
        ("desktop-file-validate", [str(DATA / "org.toreuma.Toreuma.desktop")]),
    ):
        if shutil.which(name):
            ran += 1
            said = subprocess.run([name, *arguments], capture_output=True, text=True)
            assert said.returncode == 0, said.stdout
    if not ran:
        pytest.skip("no validator is installed")


def test_every_dependency_is_locked_with_a_hash_and_listed_with_a_licence() -> None:
    plain = lambda name: re.split(r"[ <>=!~\[;]", name)[0].lower().replace("_", "-")  # noqa: E731
    project = tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]
    wanted = {plain(one) for one in (*project["dependencies"], *project["optional-dependencies"]["dev"])}
    lock = (ROOT / "requirements.lock").read_text()
    locked = dict(re.findall(r"^([a-z0-9._-]+)==([^ \\]+)", lock, re.M))
    assert wanted <= set(locked)
    for block in re.split(r"\n(?=[a-z])", lock.strip()):
        assert "--hash=sha256:" in block
    ships = {plain(one.name) for one in rests_on()}
    assert {plain(one) for one in project["dependencies"]} <= ships <= set(locked)
    assert all(one.licence != "" for one in rests_on())
    bill = json.loads((ROOT / "sbom.json").read_text())
    assert {plain(one["name"]) for one in bill["components"]} == ships
    for one in rests_on():
        assert f"| {one.name} | {one.version} |" in licences_text()


NO_NETWORK = """
import os, sys
def hook(event, arguments):
    if event.startswith("socket.") and event not in ("socket.gethostname",):
        os.write(2, f"{event} {arguments[:3]}".encode()); os._exit(99)
sys.addaudithook(hook)
from pathlib import Path
from PySide6.QtCore import QSettings
from toreuma.app.session import Session
from toreuma.app.shell.shot import settle
from toreuma.app.shell.start import application
from toreuma.app.shell.window import MainWindow
from toreuma.exchange.exports import export_file
from toreuma.exchange.read_apart import read_part_apart
folder = Path(sys.argv[1])
app = application()
session = Session()
window = MainWindow(session, QSettings(str(folder / "s.ini"), QSettings.Format.IniFormat))
window.show()
assert session.open("demo:bleed-screw")
assert settle(session)
for stage in window.stages:
    window.set_stage(stage)
    app.processEvents()
export_file(session.outcome.plan, folder / "part.dxf")
read_part_apart(folder / "part.dxf")
window.files.save_to(folder / "job.toreuma")
window.open_help("licences")
window.close()
loaded = Path("/proc/self/maps").read_text()
assert "Qt6Network" not in loaded, "the part of Qt that speaks to networks is loaded"
print("quiet")
"""


def test_nothing_uses_a_network(tmp_path: Path) -> None:
    environment = {**os.environ, "TOREUMA_HOME": str(tmp_path / "home"), "QT_QPA_PLATFORM": "offscreen"}
    said = subprocess.run(
        [sys.executable, "-c", NO_NETWORK, str(tmp_path)], capture_output=True, text=True, env=environment
    )
    assert said.stdout.strip().endswith("quiet"), said.stderr[-800:]
