"""What reads the files of others is a process of its own: however it ends, this one goes on with one clear line."""

import os
import time
from pathlib import Path

import ezdxf
import pytest
from PySide6.QtGui import QImage

import toreuma.app.picture.read_apart as pictures
from toreuma.app.picture.read_apart import read_picture
from toreuma.core.errors import Cancelled, ImportFault
from toreuma.core.geometry.part_shape import build_part
from toreuma.exchange.apart import Limits, run_apart
from toreuma.exchange.read_apart import read_part_apart
from toreuma.exchange.reading import read_part
from toreuma.shipped.library import demo_job

ROOT = Path(__file__).parents[2]


@pytest.fixture(autouse=True)
def found(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("PYTHONPATH", os.pathsep.join([str(ROOT), str(ROOT / "src")]))


def run(what: str, wall_s: float = 20.0) -> object:
    return run_apart("tests.support.wild", {"what": what, "where": "file"}, "file", Limits(wall_s, 3_000))


@pytest.mark.parametrize(
    ("what", "said"),
    [
        ("falls", "it is damaged"),
        ("grows", "takes too much memory"),
        ("raises", "KeyError"),
        ("says", "file: it is bent; straighten it"),
        ("floods", "far too much"),
        ("leaves", "it is damaged"),
        ("deep", "too much memory"),
    ],
)
def test_every_way_to_go_wrong_is_one_line(what: str, said: str) -> None:
    with pytest.raises(ImportFault, match=said):
        run(what)


def test_what_it_prints_is_no_answer() -> None:
    assert run("prints") == "fine"


def test_it_is_ended_at_its_time_and_at_once_when_it_is_stopped() -> None:
    begun = time.monotonic()
    with pytest.raises(ImportFault, match="too long"):
        run("stays", wall_s=1.0)
    assert time.monotonic() - begun < 5

    shares: list[float] = []

    def stop() -> None:
        if shares:
            raise Cancelled

    begun = time.monotonic()
    with pytest.raises(Cancelled):
        run_apart("tests.support.wild", {"what": "stays"}, "file", Limits(60.0), stop, shares.append)
    assert time.monotonic() - begun < 10
    assert shares == [0.5]


def test_a_drawing_comes_back_whole(tmp_path: Path) -> None:
    from toreuma.engine.engine import Engine
    from toreuma.exchange.exports import export_file

    path = tmp_path / "spear.dxf"
    export_file(Engine().plan(demo_job("spear")), path)
    apart, here = read_part_apart(path), read_part(path)
    assert build_part(apart.part).region.equals_exact(build_part(here.part).region, 1e-9)
    assert apart.drawn.equals_exact(here.drawn, 0)
    assert (apart.units, apart.warnings, apart.ignored, apart.layers) == (
        here.units, here.warnings, here.ignored, here.layers,
    )  # fmt: skip
    assert apart.deviation_um == pytest.approx(here.deviation_um)


def test_pipes_devices_and_strange_names_are_no_drawings(tmp_path: Path) -> None:
    os.mkfifo(tmp_path / "pipe.dxf")
    for path in (tmp_path / "pipe.dxf", Path("/dev/zero"), tmp_path, Path("a\0b.dxf"), Path("x" * 5000 + ".dxf")):
        with pytest.raises(ImportFault):
            read_part_apart(path)


def test_pictures_that_would_freeze_or_flood_are_one_line(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(pictures, "LIMITS", Limits(3.0, 3_000))
    image = QImage(300, 200, QImage.Format.Format_RGB32)
    image.save(str(tmp_path / "fine.png"))
    assert read_picture(tmp_path / "fine.png").width() == 300
    nested = "".join(f"<g id='a{n}'>" + f"<use xlink:href='#a{n - 1}'/>" * 10 + "</g>" for n in range(1, 12))
    head = "<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink'"
    (tmp_path / "nested.svg").write_text(
        f"{head} width='9' height='9'><g id='a0'><rect width='9' height='9'/></g>{nested}<use xlink:href='#a11'/></svg>"
    )
    (tmp_path / "wide.svg").write_text(f"{head} width='1e9' height='1e9'/>")
    (tmp_path / "none.png").write_bytes(b"\x89PNG\r\n\x1a\n" + b"x" * 999)
    os.mkfifo(tmp_path / "pipe.png")
    for name in ("nested.svg", "wide.svg", "none.png", "pipe.png"):
        with pytest.raises(ImportFault):
            read_picture(tmp_path / name)


def test_drawings_made_to_freeze_or_flood_are_told_in_a_few_seconds(tmp_path: Path) -> None:
    for kind in ("nested", "huge", "round"):
        drawing = ezdxf.new()
        space = drawing.modelspace()
        if kind == "nested":
            drawing.blocks.new("B0")
            for level in range(1, 6):
                block = drawing.blocks.new(f"B{level}")
                for place in range(60):
                    block.add_blockref(f"B{level - 1}", (place, 0))
            space.add_blockref("B5", (0, 0))
        elif kind == "huge":
            space.add_lwpolyline([(0, 0), (1e8, 0), (1e8, 1e7), (0, 1e7)], close=True)
        else:
            space.add_ellipse((0, 0), (1e9, 0), 0.5)
        drawing.saveas(tmp_path / f"{kind}.dxf")
        with pytest.raises(ImportFault) as caught:
            read_part_apart(tmp_path / f"{kind}.dxf", limits=Limits(40.0))
        assert "too long" not in str(caught.value)
