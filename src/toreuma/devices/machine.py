"""A machine by its agent: HTTP and XML after the open MTConnect standard (ANSI/MTC1.4), ``/current`` only. Nothing is
sent to it but the question how it is."""

import urllib.error
import urllib.request
import xml.etree.ElementTree as ElementTree
from dataclasses import dataclass

from toreuma.devices.device import Device

__all__ = ["MachineAgent", "MachineState", "state_of"]

MOST_BYTES = 1_000_000
TIMEOUT_S = 1.5
POLL_S = 0.25


@dataclass(frozen=True)
class MachineState:
    """What an agent says; None for what it does not. ``execution`` as the standard names it (ACTIVE, READY, STOPPED,
    INTERRUPTED …), ``load_pct`` of the spindle, ``override_pct`` of the feed, ``alarms`` in its words."""

    available: bool
    execution: str
    program: str | None = None
    line: int | None = None
    load_pct: float | None = None
    override_pct: float | None = None
    parts: int | None = None
    alarms: tuple[str, ...] = ()

    @property
    def runs(self) -> bool:
        return self.available and self.execution == "ACTIVE"


def state_of(document: bytes) -> MachineState:
    """The state out of an MTConnectStreams document. Raises `ValueError` for one that is none."""
    try:
        root = ElementTree.fromstring(document)
    except ElementTree.ParseError as error:
        raise ValueError(f"it is no XML ({error})") from None
    if not root.tag.endswith("MTConnectStreams"):
        raise ValueError(f"it says '{_bare(root.tag)[:40]}' and not MTConnectStreams")
    found: dict[str, str] = {}
    alarms: list[str] = []
    for one in root.iter():
        name = _bare(one.tag)
        if name in ("Fault", "Warning"):
            alarms.append(f"{one.get('nativeCode', '')} {(one.text or '').strip()}".strip())
        elif one.text and one.text.strip() and one.text.strip() != "UNAVAILABLE":
            found[name] = one.text.strip()
    if "Availability" not in found and "Execution" not in found:
        raise ValueError("it says nothing of the machine")
    return MachineState(
        available=found.get("Availability", "AVAILABLE") == "AVAILABLE",
        execution=found.get("Execution", "UNAVAILABLE"),
        program=found.get("Program"),
        line=_whole(found.get("LineNumber", found.get("Line"))),
        load_pct=_number(found.get("Load")),
        override_pct=_number(found.get("PathFeedrateOverride")),
        parts=_whole(found.get("PartCount")),
        alarms=tuple(alarms),
    )


def _bare(tag: str) -> str:
    return tag.rpartition("}")[2]


def _number(text: str | None) -> float | None:
    try:
        return None if text is None else float(text)
    except ValueError:
        return None


def _whole(text: str | None) -> int | None:
    number = _number(text)
    return None if number is None else int(number)


class MachineAgent(Device):
    """Events are `MachineState`, one whenever something has changed."""

    kind = "machine"

    def _open(self) -> None:
        self._state: MachineState | None = None
        self._fetched()

    def _step(self) -> None:
        self._stop.wait(POLL_S)
        self._fetched()

    def _fetched(self) -> None:
        try:
            with urllib.request.urlopen(f"{self.where.rstrip('/')}/current", timeout=TIMEOUT_S) as answer:
                data = answer.read(MOST_BYTES + 1)
        except urllib.error.HTTPError as error:
            self.garbled(f"it answers {error.code}")
            return
        except urllib.error.URLError as error:
            raise OSError(0, str(error.reason)) from None
        except ValueError as error:
            raise OSError(0, f"'{self.where}' is no address ({error})") from None
        if len(data) > MOST_BYTES:
            self.garbled("it says far too much")
            return
        try:
            state = state_of(data)
        except ValueError as error:
            self.garbled(str(error))
            return
        if state != self._state:
            self._state = state
            self.told(state)
        else:
            self._last, self._bad, self.problem = self._clock(), 0, ""

    def _close(self) -> None:
        return
