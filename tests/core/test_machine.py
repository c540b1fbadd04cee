"""The machine: its spindles, its carriers, and files written when a machine had one carrier."""

import pytest
from pydantic import ValidationError

from toreuma.core.model import Machine
from toreuma.shipped.library import machines

ONE_CARRIER = {
    "name": "old", "max_rpm": 4000, "power": [{"rpm": 0, "power_kw": 0}, {"rpm": 1000, "power_kw": 5}],
    "rapid_x_mm_min": 6000, "rapid_z_mm_min": 8000, "stations": 24, "reference_d_mm": 260,
    "reference_from_nose_mm": 420, "tool_change_s": 1.5,
}  # fmt: skip


def test_stations_are_numbered_on_from_carrier_to_carrier() -> None:
    twin = machines()["twin-spindle mill-turn"]
    below, above = twin.carriers
    assert (twin.stations, twin.channels) == (24, 2)
    assert (next(iter(twin.stations_of(below))), list(twin.stations_of(above))[-1]) == (1, 24)
    assert [twin.carrier_of(station).name for station in (1, 12, 13, 24)] == [below.name] * 2 + [above.name] * 2
    assert twin.carrier_of(99) is above


def test_a_file_with_one_carrier_is_read_and_written_anew() -> None:
    old = Machine.model_validate({**ONE_CARRIER, "carrier": "gang plate"})
    assert [(one.kind, one.stations, one.tool_change_s) for one in old.carriers] == [("gang plate", 24, 1.5)]
    with_mill = Machine.model_validate({**ONE_CARRIER, "milling_stations": 12, "second_spindle": True})
    assert [(one.kind, one.stations) for one in with_mill.carriers] == [("turret", 12), ("milling spindle", 12)]
    again = with_mill.model_dump()
    assert "stations" not in again
    assert "milling_stations" not in again
    assert Machine.model_validate(again) == with_mill


def test_what_cannot_be_is_refused() -> None:
    twin = machines()["twin-spindle mill-turn"]
    with pytest.raises(ValidationError, match="second spindle"):
        twin.changed(second=None)
    with pytest.raises(ValidationError, match="once"):
        twin.carriers[0].changed(reaches=("main", "main"))
    with pytest.raises(ValidationError):
        twin.changed(carriers=())


def test_the_axis_of_rotation_belongs_to_a_spindle() -> None:
    twin = machines()["twin-spindle mill-turn"]
    assert twin.c_axis is not None
    assert machines()["slant-bed"].c_axis is None
    assert twin.second is not None
    assert twin.second.c_axis is not None
    assert twin.second.retracted_gap_mm == twin.second.least_gap_mm + twin.second.travel_mm
