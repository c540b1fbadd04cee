"""Job files: what goes in comes out, and what is broken is said in one line."""

import json
import os
import stat
from pathlib import Path
from typing import Any

import pytest

from toreuma.core.errors import JobError
from toreuma.core.model import Job
from toreuma.files.jobs import job_schema, job_text, load_job, parse_job, save_job


@pytest.fixture
def data(spear: Job) -> dict[str, Any]:
    return json.loads(job_text(spear))  # type: ignore[no-any-return]


def put(data: dict[str, Any], path: str, value: object) -> str:
    """Job text with one value changed; ``path`` like setups.0.hold.max_rpm."""
    *way, last = path.split(".")
    at: Any = data
    for step in way:
        at = at[int(step)] if step.isdigit() else at[step]
    at[int(last) if last.isdigit() else last] = value
    return json.dumps(data)


def test_saved_and_read_back_is_the_same(spear: Job, tmp_path: Path) -> None:
    path = tmp_path / "a.toreuma"
    save_job(spear, path)
    assert load_job(path) == spear
    assert path.read_text("utf-8").startswith("{\n")


def test_the_version_before_is_kept(spear: Job, tmp_path: Path) -> None:
    path = tmp_path / "a.toreuma"
    save_job(spear, path)
    save_job(spear.changed(name="second"), path)
    assert load_job(path).name == "second"
    assert load_job(tmp_path / "a.toreuma~") == spear
    assert sorted(p.name for p in tmp_path.iterdir()) == ["a.toreuma", "a.toreuma~"]


def test_unknown_keys_survive_editing_and_saving(data: dict[str, Any]) -> None:
    data["shop"] = {"order": 4711}
    data["setups"][0]["operations"][1]["note"] = "watch the chips"
    data["setups"][0]["hold"]["serial"] = "A-3"
    job = parse_job(json.dumps(data))
    job = job.with_operation("op2", lambda o: o.changed(leave_radial_mm=0.5)).changed(name="x")
    job = job.with_setup(hold=job.setup.hold.changed(stick_out_mm=93))
    again = json.loads(job_text(job))
    assert again["shop"] == {"order": 4711}
    assert again["setups"][0]["operations"][1]["note"] == "watch the chips"
    assert again["setups"][0]["hold"]["serial"] == "A-3"
    assert again["setups"][0]["operations"][1]["leave_radial_mm"] == 0.5


@pytest.mark.parametrize(
    ("path", "value", "field", "words"),
    [
        (
            "setups.0.operations.1.pins",
            {"feed_mm_rev": 0},
            "setups[0].operations[1].pins.feed_mm_rev",
            "greater than 0",
        ),
        ("setups.0.operations.1.pins", {"vc_m_min": "fast"}, "setups[0].operations[1].pins.vc_m_min", "number"),
        ("setups.0.operations.0.kind", "polish", "setups[0].operations[0]", "polish"),
        ("stock.d_mm", -3, "stock.d_mm", "greater than 0"),
        ("part.outside.2.d_mm", -22, "part.outside[2].d_mm", "0 or more"),
        ("part.outside.2.bulge", "sideways", "part.outside[2].bulge", "convex"),
        ("tools.0.insert.shape", "Q", "tools[0].insert.shape", "'C'"),
        ("tools.1.id", "T1", "", "share the id 'T1'"),
        ("machine.power", [{"rpm": 10, "power_kw": 1}, {"rpm": 5, "power_kw": 1}], "machine", "must rise"),
        ("machine.max_rpm", None, "machine.max_rpm", "number"),
        ("units", "cubit", "units", "'mm'"),
    ],
)
def test_a_wrong_value_names_its_field(data: dict[str, Any], path: str, value: object, field: str, words: str) -> None:
    with pytest.raises(JobError) as caught:
        parse_job(put(data, path, value), "spear.toreuma")
    line = str(caught.value)
    assert "\n" not in line
    assert field in line
    assert words in line
    assert line.startswith("spear.toreuma")


@pytest.mark.parametrize("text", ["", "{", "[]", "null", "{}", '{"version": 1}', '{"version": "a"}', "[" * 100_000,
                                  '{"version": 1, "name": NaN}', "\x00\x01", "G0 X1"])  # fmt: skip
def test_hostile_text_ends_in_one_line(text: str) -> None:
    with pytest.raises(JobError) as caught:
        parse_job(text, "x")
    assert "\n" not in str(caught.value)


def test_nan_and_infinity_are_refused(data: dict[str, Any]) -> None:
    for bad in (float("nan"), float("inf")):
        with pytest.raises(JobError, match=r"stock\.d_mm"):
            parse_job(put(data, "stock.d_mm", bad))


def test_every_truncation_is_refused_or_whole(spear: Job) -> None:
    text = job_text(spear)
    for cut in range(1, len(text) - 2, len(text) // 40):
        with pytest.raises(JobError):
            parse_job(text[:cut])


def test_a_newer_version_is_refused_with_the_reason(data: dict[str, Any]) -> None:
    with pytest.raises(JobError, match="newer"):
        parse_job(put(data, "version", 99))


def test_files_that_cannot_be_read(tmp_path: Path) -> None:
    with pytest.raises(JobError, match="no such file"):
        load_job(tmp_path / "none.toreuma")
    (tmp_path / "b.toreuma").write_bytes(b"\xff\xfe\x00bad")
    with pytest.raises(JobError, match="UTF-8"):
        load_job(tmp_path / "b.toreuma")
    with pytest.raises(JobError, match="cannot be read"):
        load_job(tmp_path)
    big = tmp_path / "big.toreuma"
    with big.open("wb") as stream:
        stream.truncate(30_000_000)
    with pytest.raises(JobError, match="larger than"):
        load_job(big)


def test_a_place_that_cannot_be_written_leaves_the_file_as_it_was(
    spear: Job, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "a.toreuma"
    save_job(spear, path)
    before = path.read_bytes()

    def refuse(*_: object) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "replace", refuse)
    with pytest.raises(JobError, match="No space left"):
        save_job(spear.changed(name="other"), path)
    assert path.read_bytes() == before
    assert [p.name for p in tmp_path.iterdir()] == ["a.toreuma"]
    with pytest.raises(JobError, match="cannot be saved"):
        save_job(spear, tmp_path / "no" / "such" / "folder.toreuma")


@pytest.mark.skipif(os.geteuid() == 0, reason="root may write anywhere")
def test_a_read_only_folder_is_said(spear: Job, tmp_path: Path) -> None:
    tmp_path.chmod(stat.S_IRUSR | stat.S_IXUSR)
    with pytest.raises(JobError, match="cannot be saved"):
        save_job(spear, tmp_path / "a.toreuma")


def test_the_schema_describes_the_demo(data: dict[str, Any]) -> None:
    schema = job_schema()
    assert set(schema["required"]) <= set(data)
    assert set(data) <= set(schema["properties"])
    assert schema["$defs"]["Pins"]["properties"]["feed_mm_rev"]["anyOf"][0]["exclusiveMinimum"] == 0
