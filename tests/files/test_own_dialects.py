"""A shop's own dialects and its machines' own words: kept in its folder, used by writing, reading and proving."""

import json
from pathlib import Path

import pytest

from tests.support.command import toreuma
from toreuma.core.model import Machine
from toreuma.engine.library import library, renew
from toreuma.engine.shop import of_shop
from toreuma.files.shop import FOLDERS, shop_folder
from toreuma.shipped.library import machines

CORNER = {
    "name": "corner control",
    "based_on": "system-a",
    "changes": {
        "whole_numbers": "steps",
        "pause": "{dwell} X{seconds}",
        "line_step": 0,
        "file_name": "P{number}",
        "file_suffix": ".txt",
    },
}


@pytest.fixture(autouse=True)
def home(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path / "home"))
    renew()
    yield tmp_path  # type: ignore[misc]
    renew()


def entry(value: dict[str, object], path: Path) -> Path:
    data = {"toreuma": "dialect", "format": 1, "source": "its manual", "date": "2026-11-29", "value": value}
    path.write_text(json.dumps(data), "utf-8")
    return path


def test_a_dialect_of_the_shop_writes_and_reads(tmp_path: Path) -> None:
    assert toreuma("shop", "import", entry(CORNER, tmp_path / "corner.json")).returncode == 0
    renew()
    assert library().dialect("corner-control").whole_numbers == "steps"
    done = toreuma("post", "demo:spear", "-d", "corner-control", "-o", tmp_path)
    assert done.stdout.strip().endswith("P1001.txt")
    text = (tmp_path / "P1001.txt").read_text("utf-8")
    assert not any(line.startswith("N") for line in text.split("\n"))
    assert toreuma("prove", "demo:spear", "-d", "corner-control").returncode == 0
    read = json.loads(toreuma("read", tmp_path / "P1001.txt", "-d", "corner-control", "--json").stdout)
    assert read["dialect"] == "corner-control"
    assert read["understood"]


def test_a_machines_own_words_are_asked_about_no_more(tmp_path: Path) -> None:
    program = tmp_path / "O1.nc"
    program.write_text("O1\nG21 G99\nT0101\nG97 S500 M3\nM68\nG0 X50. Z2.\nM30\n", "utf-8")
    asked = json.loads(toreuma("read", program, "--json").stdout)["findings"]
    assert [(one["line"], one["kind"]) for one in asked] == [(5, "question")]
    made = toreuma(
        "shop", "new", "machine", "corner", "--like", "slant-bed", "--set", "words=M68 clamp_work, M45 nothing"
    )
    assert made.returncode == 0, made.stderr
    told = json.loads(toreuma("read", program, "--machine", "corner", "--json").stdout)["findings"]
    assert not [one for one in told if one["code"] == "program.m_word"]
    wrong = toreuma("shop", "new", "machine", "other", "--like", "slant-bed", "--set", "words=M68 clmp")
    assert wrong.returncode == 2
    assert "near are clamp" in wrong.stderr


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"changes": {"codes": {"rapid": "Q1"}}}, "no G or M word"),
        ({"changes": {"nonsense": 1}}, "a dialect has no 'nonsense'"),
        ({"based_on": "nothing-like-it"}, "there is no such dialect"),
    ],
)
def test_a_dialect_that_cannot_be_is_told_and_the_others_stand(
    tmp_path: Path, change: dict[str, object], words: str
) -> None:
    folder = shop_folder() / FOLDERS["dialect"]
    folder.mkdir(parents=True)
    entry(CORNER | change, folder / "corner.json")
    renew()
    assert "system-a" in library().dialects
    assert "corner-control" not in library().dialects
    assert any(words in str(one) for one in library().problems)


def test_every_kind_of_the_shop_is_listed() -> None:
    for kind in FOLDERS:
        assert isinstance(of_shop(kind), dict)
    assert "dialect" in toreuma("shop", "list").stdout


def test_machines_keep_their_words_in_files() -> None:
    machine = next(iter(machines().values()))
    own = Machine.model_validate(machine.model_dump() | {"words": "M68 clamp_work, M69 unclamp"})
    again = Machine.model_validate_json(own.model_dump_json())
    assert again.own_words == {"M68": "clamp_work", "M69": "unclamp"}
    assert hash(again) == hash(own)
