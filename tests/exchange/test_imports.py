"""Drawings and models in: round trips of random parts, and files that mean harm."""

import random
import time
from pathlib import Path

import ezdxf
import pytest

from tests.support.kept import plan
from tests.support.long import everyday
from tests.support.solids import draw_dxf, matches, random_part, with_extras
from toreuma.core.errors import PartError, ToreumaError
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.memo import Check
from toreuma.core.model import Part
from toreuma.engine.fresh import fresh_job
from toreuma.exchange.dxf_in import read_dxf
from toreuma.exchange.dxf_out import dxf_text
from toreuma.exchange.imports import adopted, deviation_um
from toreuma.exchange.reading import read_part
from toreuma.exchange.step_in import read_step
from toreuma.exchange.step_out import part_solid, region_solid, write_step
from toreuma.shipped.library import demo_job

WAYS = ("lines", "polyline", "spline", "mirrored", "block", "gaps", "low")
PER_SEED = 10


def buildable(rng: random.Random, bored: bool) -> Part:
    while True:
        part = random_part(rng, bored)
        try:
            build_part(part)
        except PartError:
            continue
        return part


@pytest.mark.parametrize("seed", everyday(range(4), 0))
def test_solids_come_back_with_all_that_is_on_them(
    seed: int, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    """Forty solids in all: profile within 1 µm, every hole, flat and slot with its size and place."""
    rng, worst, extras = random.Random(100 + seed), 0.0, 0
    for number in range(PER_SEED):
        part = buildable(rng, number % 2 == 0)
        shape = build_part(part)
        part = with_extras(rng, part, shape)
        path = tmp_path / f"{number}.step"
        write_step(part_solid(part), path)
        found = read_step(path)
        off = deviation_um(shape.region, build_part(found.part).region)
        assert off < 1.0
        assert matches(part.features, found.part.features), (part.features, found.part.features)
        assert not found.warnings
        worst, extras = max(worst, off), extras + len(part.features)
    with capsys.disabled():
        print(f"\nSTEP: {PER_SEED} solids, {extras} milled extras found, worst {worst:.3f} µm (seed {100 + seed})")


@pytest.mark.parametrize("way", WAYS)
def test_drawings_come_back(way: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    rng, worst = random.Random(way), 0.0
    for number in range(6):
        part = buildable(rng, number % 2 == 0)
        path = tmp_path / f"{number}.dxf"
        draw_dxf(path, part, way, inch=number == 3)
        found = read_dxf(path)
        off = deviation_um(build_part(part).region, build_part(found.part).region)
        assert off < (5.0 if way == "spline" else 1.0)
        assert any("text" in word for word in found.ignored)
        assert found.units == ("inch" if number == 3 else "mm")
        worst = max(worst, off)
    with capsys.disabled():
        print(f"\nDXF {way}: 6 drawings, worst {worst:.3f} µm")


def test_layers_and_units_can_be_chosen(tmp_path: Path) -> None:
    path = tmp_path / "all.dxf"
    path.write_text(dxf_text(plan(demo_job("spear"))))
    found = read_dxf(path, layers=["PART", "AXIS"])
    assert deviation_um(build_part(demo_job("spear").part).region, build_part(found.part).region) < 1.0
    assert "RAPIDS" in found.layers
    inches = read_dxf(path, layers=["PART", "AXIS"], units="inch")
    assert inches.part.outside[-1].z_mm == pytest.approx(25.4 * found.part.outside[-1].z_mm)


def test_an_upright_axis_is_laid_down(tmp_path: Path) -> None:
    document = ezdxf.new(units=4)
    space = document.modelspace()
    space.add_line((0, -5), (0, 45), dxfattribs={"layer": "CENTRE"})
    for start, end in (
        ((0, 40), (10, 40)),
        ((10, 40), (10, 10)),
        ((10, 10), (15, 10)),
        ((15, 10), (15, 0)),
        ((15, 0), (0, 0)),
    ):
        space.add_line(start, end)
    path = tmp_path / "upright.dxf"
    document.saveas(path)
    found = read_dxf(path)
    assert [(e.z_mm, e.d_mm) for e in found.part.outside] == [(0, 20), (-30, 20), (-30, 30), (-40, 30)]


def test_the_stock_after_a_cut_is_a_solid(tmp_path: Path) -> None:
    planned = plan(demo_job("spear"))
    path = tmp_path / "stock.step"
    write_step(region_solid(planned.operations[1].after), path)
    found = read_step(path)
    assert found.deviation_um < 1.0


def test_what_a_person_named_survives_a_new_drawing(tmp_path: Path) -> None:
    job = demo_job("spear")
    path = tmp_path / "spear.step"
    write_step(part_solid(job.part), path)
    again = adopted(job, read_part(path))
    names = {element.name for element in again.part.outside}
    assert {"Tip", "Flange face"} <= names


def test_a_fresh_job_holds_the_part(tmp_path: Path) -> None:
    part = buildable(random.Random(1), True)
    job = fresh_job(part, "new")
    assert not [finding for finding in plan(job).findings if finding.severity == "error"]


def many_lines() -> bytes:
    one = b"  0\nLINE\n  8\n0\n 10\n1.0\n 20\n2.0\n 11\n3.0\n 21\n4.0\n"
    return b"  0\nSECTION\n  2\nENTITIES\n" + one * 200_000 + b"  0\nENDSEC\n  0\nEOF\n"


def nested_blocks(path: Path) -> None:
    document = ezdxf.new()
    for level in range(40):
        block = document.blocks.new(f"B{level}")
        for _ in range(3):
            block.add_blockref(f"B{level + 1}", (0, 0))
    document.blocks.new("B40").add_line((0, 0), (1, 1))
    document.modelspace().add_blockref("B0", (0, 0))
    document.saveas(path)


def nan_places(path: Path) -> None:
    document = ezdxf.new()
    document.modelspace().add_line((0, 0), (1, 1))
    document.saveas(path)
    path.write_text(path.read_text().replace("AcDbLine\n 10\n0.0", "AcDbLine\n 10\nnan"))


def truncated_step(path: Path) -> None:
    write_step(part_solid(demo_job("spear").part), path)
    path.write_bytes(path.read_bytes()[: path.stat().st_size // 2])


def step_with_nan(path: Path) -> None:
    write_step(part_solid(demo_job("spear").part), path)
    path.write_text(path.read_text().replace("(0.,0.,0.)", "(nan,0.,0.)"))


def step_without_solid(path: Path) -> None:
    path.write_text("ISO-10303-21;\nHEADER;\nENDSEC;\nDATA;\nENDSEC;\nEND-ISO-10303-21;\n")


def step_with_many(path: Path) -> None:
    body = "".join(f"#{n}=CARTESIAN_POINT('',(0.,0.,{n}.));\n" for n in range(1, 200_001))
    path.write_text(f"ISO-10303-21;\nHEADER;\nENDSEC;\nDATA;\n{body}ENDSEC;\nEND-ISO-10303-21;\n")


def truncated_dxf(path: Path) -> None:
    text = dxf_text(plan(demo_job("spear")))
    path.write_text(text[: text.index("ENTITIES") + 200])


def open_profile(path: Path) -> None:
    document = ezdxf.new()
    document.modelspace().add_line((0, 10), (-40, 10))
    document.saveas(path)


HOSTILE = {
    "empty.dxf": lambda path: path.write_bytes(b""),
    "text.dxf": lambda path: path.write_text("Dear workshop, please turn ten of these."),
    "noise.dxf": lambda path: path.write_bytes(random.Random(3).randbytes(20_000)),
    "many.dxf": lambda path: path.write_bytes(many_lines()),
    "nested.dxf": nested_blocks,
    "nan.dxf": nan_places,
    "truncated.dxf": truncated_dxf,
    "open.dxf": open_profile,
    "text.step": lambda path: path.write_text("Dear workshop"),
    "truncated.step": truncated_step,
    "nan.step": step_with_nan,
    "nothing.step": step_without_solid,
    "many.step": step_with_many,
    "noise.step": lambda path: path.write_bytes(b"ISO-10303-21;" + random.Random(3).randbytes(20_000)),
}


@pytest.mark.parametrize("name", HOSTILE)
def test_bad_files_end_in_one_line_soon(name: str, tmp_path: Path) -> None:
    path = tmp_path / name
    HOSTILE[name](path)
    begun = time.perf_counter()
    with pytest.raises(ToreumaError) as caught:
        read_part(path)
    assert time.perf_counter() - begun < 5.0
    assert "\n" not in str(caught.value)
    assert caught.value.cure


def test_missing_files_and_odd_gaps_are_said(tmp_path: Path) -> None:
    with pytest.raises(ToreumaError, match="no such file"):
        read_part(tmp_path / "nowhere.dxf")
    with pytest.raises(ToreumaError, match="no sensible gap"):
        read_part(tmp_path / "nowhere.dxf", gap_mm=-1)


class Stop(Exception):
    pass


def test_reading_a_model_can_be_stopped(tmp_path: Path) -> None:
    path = tmp_path / "part.step"
    write_step(part_solid(demo_job("spear").part), path)
    calls = 0

    def check() -> None:
        nonlocal calls
        calls += 1
        if calls > 3:
            raise Stop

    stopping: Check = check
    with pytest.raises(Stop):
        read_step(path, stopping)
    shares: list[float] = []
    read_step(path, progress=shares.append)
    assert shares == sorted(shares)
    assert shares[-1] > 0.9
