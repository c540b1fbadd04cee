"""New parts, the line, the shop and the help on the command line."""

import json
from pathlib import Path

import pytest

from tests.support.command import toreuma
from toreuma.engine.library import renew
from toreuma.files.jobs import load_job

ROOT = Path(__file__).parent.parent


@pytest.fixture(autouse=True)
def home(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path / "home"))
    renew()
    yield tmp_path  # type: ignore[misc]
    renew()


def test_a_part_is_typed_planned_and_said_again(home: Path) -> None:
    path = home / "pin.toreuma"
    line = "30 x 18 c1 / 44 x 27 r2 / 62 h7 x 15"
    done = toreuma("new", path, "--line", line, "--material", "4140", "--json")
    said = json.loads(done.stdout)
    assert (done.returncode, said["line"], said["material"]) == (0, line, "42CrMo4")
    assert "near" in said["note"]
    assert toreuma("line", str(path)).stdout.strip() == line
    assert toreuma("line", str(path), "--set", "30 x 18 / 70 x 40").returncode == 0
    job = load_job(path)
    assert job.stock.largest_d_mm == 75  # type: ignore[union-attr]
    assert json.loads(toreuma("plan", str(path), "--json").stdout)["operations"] == []


@pytest.mark.parametrize(
    ("words", "told"),
    [
        (["--line", "30 x 18 / 44 q 27"], "character 14 'q'"),
        (["--line", "30 x 18", "--material", "wood"], "material wood"),
        (["--line", "30 x 18", "--machine", "none"], "machine none"),
        (["--line", "30 x 18", "--units", "cubit"], "--units"),
        (["--starter", "boat"], "--starter boat"),
        ([], "--line"),
    ],
)
def test_what_cannot_be_is_one_line(home: Path, words: list[str], told: str) -> None:
    done = toreuma("new", home / "x.toreuma", *words)
    assert (done.returncode, done.stdout) == (2, "")
    assert told in done.stderr
    assert done.stderr.count("\n") == 1
    assert not (home / "x.toreuma").exists()


def test_a_new_job_never_takes_the_place_of_another(home: Path) -> None:
    path = home / "pin.toreuma"
    assert toreuma("new", path, "-l", "30 x 18").returncode == 0
    kept = path.read_bytes()
    done = toreuma("new", path, "-l", "44 x 27")
    assert (done.returncode, done.stdout) == (2, "")
    assert "there is a file of this name already" in done.stderr
    assert path.read_bytes() == kept


def test_what_a_part_is_cut_from_may_be_said(home: Path) -> None:
    cast, bad = home / "cast.toreuma", home / "bad.toreuma"
    assert toreuma("new", str(cast), "-l", "60 x 30 / 90 x 15", "--blank", "casting 4").returncode == 0
    assert load_job(cast).stock.allowance_mm == 4.0  # type: ignore[union-attr]
    done = toreuma("new", str(bad), "-l", "60 x 30", "--blank", "D60 d80")
    assert done.returncode == 2
    assert done.stderr.startswith("toreuma: blank: ")
    assert not bad.exists()


def test_a_shop_is_filled_listed_handed_on_and_emptied(home: Path) -> None:
    assert toreuma("shop", "new", "machine", "Ours", "--like", "gang lathe", "--set", "max_rpm=5200").returncode == 0
    assert toreuma("shop", "list", "machine").stdout.splitlines()[1] == "  Ours   own"
    assert json.loads(toreuma("shop", "show", "machine", "Ours").stdout)["value"]["max_rpm"] == 5200
    assert toreuma("new", str(home / "a.toreuma"), "-l", "20 x 30", "--machine", "ours").returncode == 0
    assert load_job(home / "a.toreuma").machine.max_rpm == 5200
    assert toreuma("shop", "export", "-o", str(home / "shop.json")).returncode == 0
    assert toreuma("shop", "remove", "machine", "Ours").returncode == 0
    assert "Ours" not in toreuma("shop", "list", "machine").stdout
    assert toreuma("shop", "import", str(home / "shop.json")).stdout.strip() == "machine Ours"
    for words in (["new", "machine", "x", "--set", "max_rpm=-1"], ["new", "boat", "x"], ["remove", "hold", "none"]):
        done = toreuma("shop", *words)
        assert done.returncode == 2
        assert done.stderr.startswith("toreuma: ")


def test_help_is_found_and_the_document_is_built_from_it() -> None:
    assert "equal chip area" in toreuma("help", "operation:thread").stdout
    assert toreuma("help", "zebra", "crossing", "quagga").returncode == 2
    built = toreuma("help", "--all").stdout
    assert (ROOT / "docs" / "help.md").read_text("utf-8") == built
