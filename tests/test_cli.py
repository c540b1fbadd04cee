"""The command line: keys scripts depend on, one-line errors, exit status."""

import json
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest

from tests.support.command import toreuma
from toreuma.cli import ROOM_OF
from toreuma.core.model import Job
from toreuma.files.jobs import job_text, save_job
from toreuma.shipped.paths import data_path


def test_the_module_runs_as_a_program() -> None:
    done = subprocess.run([sys.executable, "-m", "toreuma", "plan", "demo:none"], capture_output=True, text=True)
    assert done.returncode == 2
    names = "bleed-screw, gate-spindle, runner-hub, seat-ring, sheave, spear, strainer-union, vane-stud"
    assert done.stderr == f"toreuma: demo:none: there is no such demo job; choose from {names}\n"


def as_json(*arguments: object) -> tuple[Any, int]:
    done = toreuma(*arguments, "--json")
    return json.loads(done.stdout), done.returncode


def test_describe_gives_the_geometry_as_planned() -> None:
    data, status = as_json("describe", "demo:spear")
    assert status == 0
    assert {tuple(p) for p in data["stock"]} == {(1.5, 0), (1.5, 16), (-215.5, 16), (-215.5, 0)}
    assert max(r for _, r in data["part"]) == 15
    assert min(z for z, _ in data["part"]) == -76
    cutting = data["tools"]["T1"]["cutting"]
    assert min(z for z, _ in cutting) == pytest.approx(0, abs=5e-4)
    assert min(r for _, r in cutting) == pytest.approx(0, abs=5e-4)
    assert len(data["tools"]["T3"]["body"]) >= 4
    assert data["setups"][0]["operations"] == ["op1", "op2", "op3", "op4", "op6", "op7", "op5"]


def test_plan_gives_numbers_and_their_evidence() -> None:
    data, status = as_json("plan", "demo:spear")
    assert status == 0
    wanted = {
        "id",
        "kind",
        "tool",
        "vc_m_min",
        "feed_mm_rev",
        "ap_mm",
        "passes",
        "time_s",
        "power_kW",
        "findings",
        "evidence",
    }
    assert all(wanted <= set(operation) for operation in data["operations"])
    assert data["cycle_s"] == pytest.approx(sum(operation["time_s"] for operation in data["operations"]), abs=0.01)
    rough = data["operations"][1]
    assert any(limit["bit"] for limit in rough["evidence"]["clamp"]["limits"])
    text = toreuma("plan", "demo:spear").stdout
    assert "Rough outside" in text


def test_post_and_prove_a_file(tmp_path: Path) -> None:
    data, status = as_json("post", "demo:spear", "-o", tmp_path)
    assert status == 0
    program = Path(data["files"][0])
    assert program == tmp_path / "O1001.nc"
    proof, status = as_json("prove", "demo:spear", "--program", program)
    assert status == 0
    assert proof["gouge_um"] <= 2
    assert proof["leftover_um"] == 0
    assert proof["contacts"] == []
    assert proof["time_s"] > 60
    assert (proof["state"], proof["finished"], proof["open"]) == ("finished but for", True, [])
    assert {row["state"] for row in proof["rows"]} == {"made", "allowed"}
    program.write_text(program.read_text().replace("G1 X18. Z", "G1 X16. Z"))
    proof, status = as_json("prove", "demo:spear", "--program", program)
    assert status == 1
    assert any(f["code"] == "gouge" and f["line"] for f in proof["findings"])
    assert (proof["state"], proof["finished"]) == ("unsafe", False)
    assert "Regulating spear: unsafe: line" in toreuma("prove", "demo:spear", "--program", program).stdout


def test_everything_that_is_open_is_a_finding(tmp_path: Path) -> None:
    path = tmp_path / "bare.toreuma"
    assert toreuma("new", path, "--line", "30 x 18 c1 / 44 x 27", "--machine", "slant-bed").returncode == 0
    proof, status = as_json("prove", path)
    assert (status, proof["state"], proof["finished"]) == (1, "not finished", False)
    assert len(proof["not_finished"]) == len(proof["open"]) + len(proof["not_planned"]) > 0
    told = {(one["severity"], one["what"]) for one in proof["findings"]}
    assert {("error", one["what"]) for one in proof["not_finished"]} <= told


def test_findings_of_both_sides_stand_in_one_list(tmp_path: Path) -> None:
    assert toreuma("post", "demo:seat-ring", "-o", tmp_path).returncode == 0
    second = sorted(tmp_path.glob("*.nc"))[-1]
    second.write_text(second.read_text().replace("G96", "G97", 1))
    proof, status = as_json("prove", "demo:seat-ring", "--program", second, "--side", "2")
    assert status == 1
    sides = [one["what"] for side in proof["sides"] for one in side["findings"] if one["severity"] == "error"]
    assert sides
    assert set(sides) <= {one["what"] for one in proof["findings"]}


def test_a_plan_with_an_error_is_not_posted(spear: Job, tmp_path: Path) -> None:
    path = tmp_path / "thin.toreuma"
    save_job(spear.changed(stock=spear.stock.changed(d_mm=20)), path)
    done = toreuma("post", path, "-o", tmp_path)
    assert done.returncode == 1
    assert done.stderr.count("\n") == 1
    assert "smaller than the part" in done.stderr
    assert not list(tmp_path.glob("*.nc"))
    assert toreuma("plan", path).returncode == 1


def test_shot_makes_a_picture(tmp_path: Path) -> None:
    done = toreuma("shot", "demo:spear", "operations", tmp_path / "a.png", "--select", "op2", "--at", "30")
    assert done.returncode == 0, done.stderr
    head = (tmp_path / "a.png").read_bytes()[:24]
    assert head[:4] == b"\x89PNG"
    assert (int.from_bytes(head[16:20], "big"), int.from_bytes(head[20:24], "big")) == (1280, 800)


def test_schema_is_json() -> None:
    done = toreuma("schema")
    assert done.returncode == 0
    assert json.loads(done.stdout)["title"] == "Job"


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (("plan", "none.toreuma"), "no such file"),
        (("plan", "demo:none"), "no such demo job"),
        (("plan",), "Missing argument"),
        (("polish", "x"), "No such command"),
        (("post", "demo:spear", "-d", "none"), "no such dialect"),
        (("post", "demo:spear", "-o", "/proc/no/folder"), "cannot be written"),
        (("prove", "demo:spear", "--program", "none.nc"), "there is no such file"),
        (("shot", "demo:spear", "kitchen", "a.png"), "no such stage"),
        (("shot", "demo:spear", "part", "a.png", "--size", "big"), "no size"),
        (("shot", "demo:spear", "part", "/proc/no/a.png"), "cannot be written"),
        (("shot", "demo:spear", "part", "a.png", "--select", "op99"), "no such operation"),
    ],
)
def test_bad_input_is_one_line_and_status_two(arguments: tuple[str, ...], words: str) -> None:
    done = toreuma(*arguments)
    lines = [line for line in done.stderr.splitlines() if "plugin" not in line]
    assert done.returncode == 2
    assert len(lines) == 1
    assert lines[0].startswith("toreuma: ")
    assert words in lines[0]
    assert "; " in lines[0]


def test_a_profile_that_crosses_itself_names_the_element(spear: Job, tmp_path: Path) -> None:
    path = tmp_path / "crossed.toreuma"
    data = json.loads(job_text(spear))
    data["part"]["outside"][4]["z_mm"] = -10
    path.write_text(json.dumps(data))
    done = toreuma("plan", path)
    assert done.returncode == 2
    assert "part.outside[" in done.stderr
    assert done.stderr.count("\n") == 1


def test_a_truncated_job_says_where(spear: Job, tmp_path: Path) -> None:
    path = tmp_path / "cut.toreuma"
    path.write_text(job_text(spear)[:900])
    done = toreuma("prove", path)
    assert done.returncode == 2
    assert "breaks off" in done.stderr
    assert "line" in done.stderr


def test_thread_and_fit_speak_json() -> None:
    thread = json.loads(toreuma("thread", "M10x1.5", "--json").stdout)
    assert thread["external"]["pitch_mm"] == {"min": 8.862, "max": 8.994}
    assert thread["wires"]["best_mm"] == pytest.approx(0.866, abs=1e-3)
    assert thread["tap_drill_mm"] == 8.5
    fit = json.loads(toreuma("fit", "25 H7", "--json").stdout)
    assert (fit["lower_um"], fit["upper_um"], fit["min_mm"], fit["max_mm"]) == (0, 21, 25.0, 25.021)
    pair = json.loads(toreuma("fit", "20 H7/g6", "--json").stdout)
    assert pair["clearance_um"] == {"min": 7, "max": 41}


def test_unknown_designations_end_in_one_line() -> None:
    for command in (("thread", "M99x99"), ("fit", "25 Q7")):
        done = toreuma(*command)
        assert done.returncode == 2
        assert done.stderr.startswith("toreuma: ")
        assert done.stderr.count("\n") == 1


def test_import_writes_a_job_and_says_what_it_understood(tmp_path: Path) -> None:
    model, job = data_path("demo", "runner-hub.step"), tmp_path / "hub.toreuma"
    done = toreuma("import", model, "-o", job, "--json")
    assert done.returncode == 0
    data = json.loads(done.stdout)
    assert {"profile", "warnings", "features", "deviation_um", "ignored", "layers", "units"} <= data.keys()
    assert len(data["profile"]["inside"]) == 2
    assert [feature["kind"] for feature in data["features"]] == ["holes", "flats", "slot"]
    assert data["deviation_um"] < 1
    assert json.loads(toreuma("describe", job, "--json").stdout)["name"] == "runner-hub"
    words = toreuma("import", model).stdout
    assert "hole pattern front: count 6, d 6.6" in words


def test_import_takes_layers_and_units(tmp_path: Path) -> None:
    drawing = data_path("demo", "vane-stud.dxf")
    job = tmp_path / "stud.toreuma"
    assert toreuma("import", drawing, "-o", job, "--layers", "PROFILE,CENTER").returncode == 0
    assert json.loads(job.read_text())["units"] == "inch"
    as_mm = json.loads(toreuma("import", drawing, "--units", "mm", "--json").stdout)
    assert as_mm["profile"]["outside"][-1]["z_mm"] == -1.5
    nothing = toreuma("import", drawing, "--layers", "NOWHERE")
    assert nothing.returncode == 2
    assert "layers: " in nothing.stderr
    assert toreuma("import", drawing, "--units", "furlong").returncode == 2


def test_export_writes_drawings_parts_and_stock(tmp_path: Path) -> None:
    for name, more in (("a.dxf", ()), ("b.step", ()), ("c.step", ("--stock",)), ("d.stp", ("--after", "op2"))):
        assert toreuma("export", "demo:spear", "-o", tmp_path / name, *more).returncode == 0
        assert (tmp_path / name).stat().st_size > 1000
    assert toreuma("export", "demo:spear", "-o", tmp_path / "e.txt").returncode == 2
    assert toreuma("export", "demo:spear", "-o", tmp_path / "f.step", "--after", "op99").returncode == 2
    assert toreuma("export", "demo:spear", "-o", tmp_path / "no" / "f.dxf").returncode == 2
    assert toreuma("export", "demo:spear", "-o", tmp_path / "no" / "f.step").returncode == 2
    assert not (tmp_path / "f.step").exists()


def test_decode_prints_every_position() -> None:
    data, status = as_json("decode", "CNMG 120408-mid")
    assert status == 0
    assert (data["kind"], data["system"], data["shape"]["letter"]) == ("insert", "metric", "C")
    assert (data["shape"]["included_angle_deg"], data["ic_mm"], data["nose_radius_mm"]) == (80, 12.7, 0.8)
    assert data["equivalents"] == {"metric": "CNMG120408-mid", "inch": "CNMG432-mid"}
    holder, _ = as_json("decode", "PCLNR 2525 M12")
    assert (holder["style"]["letter"], holder["style"]["entering_angle_deg"]) == ("L", 95)
    assert (holder["clamping"], holder["shank_height_mm"], holder["length_mm"]) == ("P", 25, 150)
    bar = toreuma("decode", "S20Q-SCLCR09").stdout
    assert "20   shank diameter: 20 mm (0.7874 in)" in bar
    wrong = toreuma("decode", "CNMG1204ZZ")
    assert wrong.returncode == 2
    assert wrong.stderr.startswith("toreuma: code 'CNMG1204ZZ': position 7")


@pytest.mark.parametrize("arguments", [("decode", "CNMG 120408"), ("thread", "M10"), ("fit", "25 H7")])
def test_what_the_standards_say_needs_neither_jobs_nor_geometry(arguments: tuple[str, str]) -> None:
    code = "import sys\nfrom toreuma.cli import main\ntry: main()\nexcept SystemExit: print(*sys.modules)"
    done = subprocess.run([sys.executable, "-c", code, *arguments], capture_output=True, text=True, check=True)
    loaded = set(done.stdout.splitlines()[-1].split())
    assert "toreuma.core.standards" in loaded
    assert loaded & {"toreuma.core.model", "toreuma.engine.engine", "shapely", "scipy", "PySide6"} == set()


def test_every_command_is_listed_and_found() -> None:
    listed = toreuma("--help").stdout
    for command in ROOM_OF:
        assert command in listed
        assert toreuma(command, "--help").returncode == 0, command
