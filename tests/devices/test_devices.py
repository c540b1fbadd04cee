"""Devices as processes of their own: what they say comes through, what makes no sense is not taken for anything, and
nothing that is cut, slow or dead holds anybody up."""

import time
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest

from toreuma.core.errors import ToreumaError
from toreuma.devices import BarFeeder, BarState, Device, Gauge, MachineAgent, Presetter, PresetTool, Reading, reading_of
from toreuma.devices.feeder import bar_of
from toreuma.devices.machine import state_of
from toreuma.devices.presetter import preset_of
from toreuma.devices.reading import looks_like_inches
from toreuma.devices.simulated.started import Simulated

PATIENCE_S = 8.0


def until(done: Callable[[], Any], what: str) -> Any:
    """Ask again and again, without waiting on the device."""
    end = time.monotonic() + PATIENCE_S
    while time.monotonic() < end:
        found = done()
        if found:
            return found
        time.sleep(0.02)
    raise AssertionError(f"{what} did not come to be")


class Heard:
    """A device with everything it has said."""

    def __init__(self, device: Device) -> None:
        self.device, self.every = device, list[Any]()
        device.start()

    def said(self) -> list[Any]:
        self.every += [one.what for one in self.device.take()]
        return self.every


@pytest.fixture
def listening() -> Iterator[Callable[[Device], Heard]]:
    started: list[Device] = []

    def listen(device: Device) -> Heard:
        started.append(device)
        return Heard(device)

    yield listen
    for one in started:
        one.stop()


@pytest.mark.parametrize(
    ("line", "mm"),
    [
        ("D1 +21.9735 mm", 21.9735),
        ("21.9735", 21.9735),
        ("  +0.86510 in\r", 0.8651 * 25.4),
        ('G2 0,5"', 12.7),
        ("-4.5 um", -0.0045),
    ],
)
def test_a_reading_in_any_unit(line: str, mm: float) -> None:
    found = reading_of(line)
    assert found is not None
    assert found.mm == pytest.approx(mm)


@pytest.mark.parametrize(
    "line",
    ["", "D1 +", "D1 +21. 97", "D1 21.97 m", "21.97 mm mm", "ERR", "1e5", "nan", "\x00\x01", "D1 +21.", "9" * 40],
)
def test_a_line_that_is_cut_or_something_else_is_no_reading(line: str) -> None:
    assert reading_of(line) is None


def test_a_number_that_fits_only_in_inches_is_seen() -> None:
    assert looks_like_inches(0.8653, 21.97, 0.02)
    assert not looks_like_inches(21.99, 21.97, 0.02)
    assert not looks_like_inches(18.0, 21.97, 0.02)


class TestGauge:
    def test_readings_come_and_garbage_does_not(self, listening: Callable[[Device], Heard]) -> None:
        with Simulated("gauge", noise_mm=0.0) as simulated:
            heard = listening(Gauge("micrometer", simulated.where, simulated=True))
            until(lambda: heard.device.health == "well", "the gauge")
            for words in ("21.9735", "garbage", "cut"):
                simulated.tell(words)
            until(lambda: heard.device.problem.endswith("is cut"), "lines without sense")
            for words in ("21.9700", "inches", "25.4"):
                simulated.tell(words)
            until(lambda: len(heard.said()) >= 3, "three readings")
            assert [round(one.mm, 4) for one in heard.every] == [21.9735, 21.97, 25.4]
            assert [one.unit for one in heard.every] == ["mm", "mm", "in"]
            assert all(isinstance(one, Reading) for one in heard.every)

    def test_a_cable_that_is_pulled_is_one_clear_state_and_comes_back(
        self, listening: Callable[[Device], Heard]
    ) -> None:
        simulated = Simulated("gauge", noise_mm=0.0)
        heard = listening(Gauge("micrometer", simulated.where))
        until(lambda: heard.device.health == "well", "the gauge")
        simulated.tell("21.5")
        until(heard.said, "a reading")
        simulated.kill()
        until(lambda: heard.device.health == "gone", "its end")
        assert [one.mm for one in heard.said()] == [21.5]  # what was heard is not lost
        again = Simulated("gauge", noise_mm=0.0)
        heard.device.where = again.where
        until(lambda: heard.device.health == "well", "it again")
        again.tell("21.6")
        until(lambda: len(heard.said()) == 2, "another reading")
        again.end()
        simulated.end()

    def test_one_that_is_not_there_is_looked_for_without_waiting(self, listening: Callable[[Device], Heard]) -> None:
        begun = time.monotonic()
        heard = listening(Gauge("micrometer", "/dev/pts/no-such"))
        assert time.monotonic() - begun < 0.5
        until(lambda: heard.device.problem, "a reason")
        assert heard.device.health == "looking"
        assert "not found yet" in heard.device.words

    def test_garbage_again_and_again_is_said_and_sense_ends_it(self, listening: Callable[[Device], Heard]) -> None:
        with Simulated("gauge", noise_mm=0.0) as simulated:
            heard = listening(Gauge("micrometer", simulated.where))
            for _ in range(4):
                simulated.tell("garbage")
            until(lambda: heard.device.health == "garbled", "garbage")
            simulated.tell("12.5")
            until(lambda: heard.device.health == "well", "sense")


class TestPresetter:
    def test_files_are_read_once_and_whole(self, listening: Callable[[Device], Heard], tmp_path: Path) -> None:
        with Simulated("presetter", folder=str(tmp_path), noise_mm=0.0) as simulated:
            heard = listening(Presetter("presetter", simulated.where))
            for words in ("T3 62.418 118.207 0.4", "T12 40.0 90.5", "drop", "garbage", "T4 1 2", "drop"):
                simulated.tell(words)
            until(lambda: len(heard.said()) >= 3, "three tools")
            assert heard.every == [
                PresetTool(3, 62.418, 118.207, 0.4),
                PresetTool(12, 40.0, 90.5),
                PresetTool(4, 1.0, 2.0),
            ]
            assert heard.device.lost == 1
            time.sleep(0.6)
            assert len(heard.said()) == 3

    def test_tools_come_on_a_serial_line_as_well(self, listening: Callable[[Device], Heard]) -> None:
        with Simulated("presetter", serial=True, noise_mm=0.0) as simulated:
            assert simulated.where.startswith("/dev/")
            heard = listening(Presetter("presetter", simulated.where))
            until(lambda: heard.device.health == "well", "the presetter")
            for words in ("T3 62.418 118.207 0.4", "garbage", "T4 1 2", "drop"):
                simulated.tell(words)
            until(lambda: len(heard.said()) >= 2, "two tools")
            assert heard.every == [PresetTool(3, 62.418, 118.207, 0.4), PresetTool(4, 1.0, 2.0)]
            assert heard.device.lost == 1

    def test_lines_that_are_no_tools(self) -> None:
        assert preset_of("T3 X 62.4") is None
        assert preset_of("3 X 1 Z 2") is None
        assert preset_of("T3 X a Z 2") is None


class TestMachine:
    def test_it_follows_the_program_and_counts_parts(self, listening: Callable[[Device], Heard]) -> None:
        steps = [(0.0, 10, 20.0), (30.0, 55, 64.0), (50.0, 90, 5.0)]
        with Simulated("machine", program="O1001", cycle_s=60.0, steps=steps, speed=300.0, batch=4) as simulated:
            heard = listening(MachineAgent("lathe", simulated.where))
            until(heard.said, "a state")
            assert heard.every[0].execution == "READY"
            simulated.tell("start")
            until(lambda: any(one.parts == 4 for one in heard.said()), "four parts")
            running = [one for one in heard.every if one.runs]
            assert {one.program for one in running} == {"O1001"}
            assert {one.line for one in running} <= {10, 55, 90}
            assert {one.load_pct for one in running} <= {20.0, 64.0, 5.0}
            counts = [one.parts for one in heard.every]
            assert counts == sorted(counts)
            simulated.tell("alarm chip conveyor jammed")
            until(lambda: heard.said()[-1].alarms, "an alarm")
            assert heard.every[-1].alarms == ("1 chip conveyor jammed",)
            assert heard.every[-1].execution == "INTERRUPTED"

    def test_slow_garbage_and_dead_are_states_and_nothing_hangs(self, listening: Callable[[Device], Heard]) -> None:
        simulated = Simulated("machine", cycle_s=10.0, batch=2)
        heard = listening(MachineAgent("lathe", simulated.where))
        until(lambda: heard.device.health == "well", "the agent")
        simulated.tell("garbage")
        until(lambda: heard.device.health == "garbled", "garbage")
        simulated.tell("sense")
        until(lambda: heard.device.health == "well", "sense")
        simulated.tell("slow")
        until(lambda: heard.device.health == "gone", "an answer too late")
        begun = time.monotonic()
        heard.said()
        assert heard.device.words.startswith("was there and is gone")
        assert time.monotonic() - begun < 0.1
        simulated.tell("sense")
        until(lambda: heard.device.health == "well", "it again")
        simulated.kill()
        until(lambda: heard.device.health == "gone", "its end")
        begun = time.monotonic()
        heard.device.stop()
        assert time.monotonic() - begun < 2.5
        assert heard.device.health == "off"
        simulated.end()

    @pytest.mark.parametrize(
        "document",
        [
            b"", b"not xml", b"<html/>", b"<MTConnectStreams/>", b"<a" * 1000,
            b'<?xml version="1.0"?><!DOCTYPE a [<!ENTITY b "c">]><a>&b;</a>',
        ],
    )  # fmt: skip
    def test_documents_that_are_none(self, document: bytes) -> None:
        with pytest.raises(ValueError, match="it "):
            state_of(document)


class TestFeeder:
    def test_the_end_of_a_bar_is_told_and_a_cut_line_mends(self, listening: Callable[[Device], Heard]) -> None:
        with Simulated("feeder", bar_mm=300.0, pitch_mm=80.0, rest_mm=80.0) as simulated:
            heard = listening(BarFeeder("feeder", simulated.where))
            until(heard.said, "the bar")
            assert heard.every[0] == BarState(300.0, 80.0, "FEEDING")
            for made in (1, 2):
                simulated.tell(f"fed {made}")
            until(lambda: len(heard.said()) >= 3, "two parts")
            assert [one.state for one in heard.every] == ["FEEDING", "LAST", "END"]
            simulated.tell("drop")
            until(lambda: heard.device.health in ("gone", "looking"), "the cut")
            until(lambda: heard.device.health == "well", "the line again")
            simulated.tell("bar 3000")
            until(lambda: heard.said()[-1].left_mm == 3000.0, "a new bar")

    def test_lines_that_say_nothing_of_a_bar(self) -> None:
        assert bar_of("BAR 12 REST x STATE END") is None
        assert bar_of("BAR 12 REST 3 STATE DANCING") is None

    def test_an_address_that_is_none(self, listening: Callable[[Device], Heard]) -> None:
        heard = listening(BarFeeder("feeder", "nowhere"))
        until(lambda: "HOST:PORT" in heard.device.problem, "a reason")
        assert heard.device.health == "looking"


def test_only_what_ships_is_simulated() -> None:
    with pytest.raises(ToreumaError, match="choose from"):
        Simulated("robot")
