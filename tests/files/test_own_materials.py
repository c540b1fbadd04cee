"""Own values of materials are kept apart from what ships, each with where it comes from."""

import json
from pathlib import Path

import pytest
from typer.testing import CliRunner

from toreuma.cli import app
from toreuma.core.errors import JobError
from toreuma.engine.library import keep_value, library, renew
from toreuma.files.own_materials import FIELDS, MATERIALS, speed_fields, value_of
from toreuma.files.own_values import own_values
from toreuma.shipped.library import material_sources, materials


@pytest.fixture(autouse=True)
def own_home(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path))
    renew()
    return tmp_path


def test_an_own_value_stands_in_for_the_shipped_one_and_goes_back(own_home: Path) -> None:
    shipped = materials()
    keep_value("C45", "kc11_n_mm2", 2300.0, "own test of May")
    keep_value("C45", "coated carbide.exponent", 0.22, "edge log")
    mine = library().materials["C45"]
    assert mine.kc11_n_mm2 == 2300
    assert value_of(mine, "coated carbide.exponent") == 0.22
    assert "own test of May" in mine.source
    assert materials()["C45"].kc11_n_mm2 == 2220  # what ships is not touched
    assert own_values(MATERIALS)["C45"]["kc11_n_mm2"] == {"value": 2300.0, "source": "own test of May"}
    keep_value("C45", "kc11_n_mm2", None, "")
    keep_value("C45", "coated carbide.exponent", None, "")
    assert library().materials["C45"] == shipped["C45"]
    assert json.loads((own_home / "materials.json").read_text()) == {}


@pytest.mark.parametrize(
    ("name", "field", "value"),
    [
        ("C46", "mc", 0.2),
        ("C45", "kc11", 2000.0),
        ("C45", "mc", 7.0),
        ("C45", "kc11_n_mm2", -1.0),
        ("C45", "cermet.x", 1.0),
    ],
)
def test_what_cannot_be_is_said_and_nothing_is_kept(own_home: Path, name: str, field: str, value: float) -> None:
    with pytest.raises(JobError):
        keep_value(name, field, value, "guess")
    assert not (own_home / "materials.json").exists()


def test_a_spoiled_file_is_one_clear_line_and_strange_entries_are_passed_over(own_home: Path) -> None:
    (own_home / "materials.json").write_text('{"C45": {"mc": {"value": "x"}, "no": 3}, "C99": {}, "C15": []}')
    assert library().materials == materials()
    (own_home / "materials.json").write_text("{")
    with pytest.raises(JobError, match="cannot be read"):
        own_values(MATERIALS)


def test_every_shipped_value_has_a_source() -> None:
    sources = material_sources()
    assert {*FIELDS, "speeds", "exponent", "coolant", "caution"} <= set(sources)
    for material in materials().values():
        assert all(value_of(material, field) is not None for field in speed_fields(material))
        for row in material.speeds:
            assert row.constant("rough") == pytest.approx(row.rough_m_min * 15**row.exponent)


def test_on_the_command_line() -> None:
    run = CliRunner().invoke
    assert run(app, ["material", "C45", "--set", "mc=0.15", "--source", "own"]).exit_code == 0
    told = run(app, ["material", "C45"]).output
    assert "own: mc = 0.15" in told
    assert "Taylor m 0.25" in told
    body = json.loads(run(app, ["material", "C45", "--json"]).output)
    assert body["own"]["mc"]["value"] == 0.15
    assert len(run(app, ["material"]).output.splitlines()) >= 40
    found = json.loads(run(app, ["prove-out", "demo:spear", "--on", "AlMgSi1", "--json"]).output)
    assert len(found["overrides"]) == 6  # all but the thread, whose feed follows the spindle


def test_the_plan_is_printed_with_its_governing_limits() -> None:
    run = CliRunner().invoke
    assert "Rough outside, chip window, feed" in run(app, ["plan", "demo:spear"]).output
    rough = json.loads(run(app, ["plan", "demo:spear", "--json"]).output)["operations"][1]
    assert rough["governed_by"] == rough["limits"][0]["limit"]
    assert [one["margin"] for one in rough["limits"]] == sorted(one["margin"] for one in rough["limits"])
    assert {"power", "grip", "heat", "edge life"} <= {one["limit"] for one in rough["limits"]}
