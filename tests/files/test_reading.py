"""One way to read: plain files only, bounded, every number finite, every text writable again."""

import os
import time
from pathlib import Path

import pytest

from toreuma.core.errors import JobError, ToreumaError
from toreuma.core.json_text import json_from
from toreuma.core.line import read_line
from toreuma.core.model import Job
from toreuma.core.units import parse
from toreuma.engine.library import Library
from toreuma.engine.line import line_tables
from toreuma.files.jobs import job_text, load_job, parse_job
from toreuma.files.own_materials import MATERIALS
from toreuma.files.own_values import own_values, set_own
from toreuma.files.rack import load_rack
from toreuma.files.reading import bytes_of
from toreuma.files.shop import load_shop
from toreuma.shipped import library as shipped


@pytest.mark.parametrize(
    "text",
    [
        "[" * 100_000,
        '{"a":' * 500 + "1" + "}" * 500,
        "[" * 200 + "]" * 200,
        "[1e999]",
        "[NaN]",
        "[-Infinity]",
        "[" + "9" * 5000 + "]",
        "[" + "9" * 400 + "]",
        '["\\ud800"]',
        '{"\\udc00": 1}',
        "[1",
        "",
    ],
)
def test_text_that_would_hurt_later_is_refused_in_one_line(text: str) -> None:
    with pytest.raises(JobError) as caught:
        json_from(text, "file")
    assert "\n" not in str(caught.value)
    assert len(str(caught.value)) < 400


def test_what_is_no_plain_file_is_said_at_once(tmp_path: Path) -> None:
    os.mkfifo(tmp_path / "pipe")
    (tmp_path / "folder").mkdir()
    (tmp_path / "large").write_bytes(b"x" * 1001)
    for path in (
        tmp_path / "pipe", tmp_path / "folder", tmp_path / "large", Path("/dev/zero"), Path("/dev/null"),
        Path("a\0b"), Path("x" * 5000), tmp_path / "large" / "in a file", Path("/proc/self/mem"),
    ):  # fmt: skip
        with pytest.raises(JobError):
            bytes_of(path, 1000)
    with pytest.raises(FileNotFoundError):
        bytes_of(tmp_path / "none", 1000)


def test_a_job_with_hostile_extra_keys_is_refused_and_a_plain_extra_is_kept(spear: Job) -> None:
    text = job_text(spear)
    kept = parse_job(text.replace("{", '{"x-note": {"deep": [1, 2]},', 1))
    assert '"x-note"' in job_text(kept)
    for extra in ('"\\ud834"', "[" * 300 + "]" * 300, "1e400"):
        with pytest.raises(JobError):
            parse_job(text.replace("{", f'{{"x-note": {extra},', 1))


@pytest.mark.parametrize(
    "text", ['{"C45": 0}', "[]", "[" * 100_000, "{", "\xff", '{"C45": {"mc": []}}', "null", '{"C45": {"mc": {}}}']
)
def test_side_files_of_any_kind_leave_a_library_that_can_be_used(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, text: str
) -> None:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path))
    for name in ("materials.json", "rack.json"):
        (tmp_path / name).write_text(text, encoding="latin-1")
    (tmp_path / "shop" / "machines").mkdir(parents=True)
    (tmp_path / "shop" / "machines" / "mine.json").write_text(text, encoding="latin-1")
    os.mkfifo(tmp_path / "shop" / "machines" / "pipe.json")
    library = Library()
    assert "C45" in library.materials
    assert library.rack() == ()
    assert len(load_shop().problems) == 2
    set_own(MATERIALS, shipped.materials(), "C45", "mc", 0.2, "own test")
    assert own_values(MATERIALS)["C45"]["mc"]["value"] == 0.2
    aside = [one for one in tmp_path.glob("materials-*.json") if one.read_text(encoding="latin-1") == text]
    assert aside or '"C45": {"mc"' in text, "what could not be read is set aside, never written over"


def test_pipes_as_side_files_do_not_stop_the_start(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path))
    for name in ("materials.json", "rack.json", "job.toreuma"):
        os.mkfifo(tmp_path / name)
    assert "C45" in Library().materials
    with pytest.raises(JobError):
        load_rack()
    with pytest.raises(JobError):
        load_job(tmp_path / "job.toreuma")


@pytest.mark.parametrize("text", ["(" * 5000, "1" * 32_000, "1 1/" * 8000, "-" * 30_000, "1" * 130])
def test_endless_numbers_are_refused_at_once(text: str) -> None:
    with pytest.raises(ToreumaError) as caught:
        parse(text, "mm", "mm")
    assert len(str(caught.value)) < 300
    line = read_line(text, "mm", line_tables())
    assert line.part is None
    assert line.faults or text.startswith("-")


@pytest.mark.parametrize("letter", ["a", "1", "("])
def test_a_material_of_endless_name_is_refused_at_once(letter: str) -> None:
    began = time.monotonic()
    with pytest.raises(ToreumaError) as caught:
        Library().material(letter * 2_000_000)
    assert time.monotonic() - began < 2
    assert len(str(caught.value)) < 700
