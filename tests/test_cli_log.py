"""``sheet``, ``log`` and ``simulate`` as scripts call them."""

import json
import os
import subprocess
import sys
from pathlib import Path

import pytest

from tests.support.command import toreuma
from toreuma.papers.pdf import Pages


@pytest.fixture
def home(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path / "home"))
    monkeypatch.delenv("TOREUMA_STORE", raising=False)
    return tmp_path


def test_a_job_is_run_measured_and_taken_up_again(home: Path) -> None:
    begun = toreuma("log", "begin", "demo:spear", "--json")
    assert begun.returncode == 0, begun.stderr
    run = str(json.loads(begun.stdout)["run"])
    lines = json.loads(toreuma("log", "lines", run, "--json").stdout)
    guide = next(one for one in lines if one["key"] == "outside 2 d")
    assert (guide["number"], guide["lower"], guide["upper"]) == (5, 21.959, 21.98)
    assert toreuma("log", "size", run, "1", "5", "21.988", "--gauge", "micrometer").returncode == 0
    article = toreuma("log", "article", run, "--json")
    assert article.returncode == 1  # out of its limits
    found = json.loads(article.stdout)
    (offset,) = found["offsets"]
    assert (offset["tool"], offset["axis"], round(offset["mm"], 4)) == ("T2", "X", -0.0185)
    assert toreuma("log", "offset", run, "T2", "X", "-0.018", "--after", "1").returncode == 0
    assert toreuma("log", "stop", run, "bird's nest", "--part", "2", "--operation", "Rough outside").returncode == 0
    assert toreuma("log", "note", "demo:spear", "warm it up first").returncode == 0
    taught = json.loads(toreuma("log", "taught", "demo:spear", "--json").stdout)
    assert "T2: offset X was brought to -0.018 mm" in taught["says"]
    assert "noted: warm it up first" in taught["says"]
    target = home / "all.json"
    assert toreuma("log", "export", str(target)).returncode == 0
    assert json.loads(target.read_text())["tables"]["offset_set"][0]["mm"] == -0.018
    assert "Regulating spear" in toreuma("log").stdout


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (("log", "lines", "7"), "log: there is no run 7; look at the list of runs"),
        (("log", "stop", "7", "dancing"), "log: there is no run 7"),
        (("log", "note", "demo:spear"), "log: there is nothing to keep; give words, --picture or --program"),
        (("log", "export", "x.doc"), "x.doc: no such export; end it in .json or .zip"),
        (("simulate", "robot"), "simulate: there is no device 'robot'; choose from gauge, presetter, machine, feeder"),
        (("sheet", "demo:spear", "-o", "x.txt"), "x.txt: this is neither .pdf nor .html"),
        (("sheet", "demo:spear", "-o", "x.pdf", "--sheets", "poem"), "sheets: there is no sheet 'poem'"),
        (("sheet", "demo:spear", "-o", "x.pdf", "--paper", "A0"), "paper: there is no paper 'A0'"),
        (("sheet", "demo:spear", "-o", "x.pdf", "--units", "ells"), "units: there are no units 'ells'"),
        (("sheet", "nowhere.toreuma", "-o", "x.pdf"), "nowhere.toreuma"),
    ],
)
def test_what_cannot_be_is_one_line(arguments: tuple[str, ...], words: str, home: Path) -> None:
    done = toreuma(*arguments)
    assert done.returncode == 2
    assert done.stderr.startswith(f"toreuma: {words}")
    assert done.stderr.count("\n") == 1


def test_a_store_that_cannot_be_opened_is_one_line(home: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("TOREUMA_STORE", "sqlite:////proc/none/log.sqlite")
    done = toreuma("log", "list")
    assert done.returncode == 2
    assert done.stderr.startswith("toreuma: log: ")
    assert done.stderr.count("\n") == 1


def test_sheets_as_pdf_and_html(home: Path) -> None:
    pdf = home / "spear.pdf"
    done = toreuma("sheet", "demo:spear", "-o", str(pdf), "--sheets", "tools,run", "--paper", "letter", "--json")
    assert done.returncode == 0, done.stderr
    told = json.loads(done.stdout)
    assert told["proved"]
    assert told["sheets"] == ["tools", "run"]
    pages = Pages(pdf.read_bytes())
    assert pages.text(0).startswith("Tool list")
    assert pages.sizes[0] == pytest.approx((612, 792), abs=0.5)
    pages.close()
    html = home / "spear.html"
    unproved = toreuma("sheet", "demo:spear", "-o", str(html), "--sheets", "setup", "--no-prove", "--units", "inch")
    assert unproved.returncode == 1
    assert "UNPROVED" in html.read_text("utf-8")
    assert "3.622 in" in html.read_text("utf-8")


def test_a_simulated_gauge_is_started_from_a_terminal(home: Path) -> None:
    command = [sys.executable, "-m", "toreuma", "simulate", "gauge"]
    done = subprocess.run(command, capture_output=True, text=True, env=dict(os.environ), input="quit\n", timeout=60)
    assert done.returncode == 0
    assert done.stdout.startswith("/dev/")
