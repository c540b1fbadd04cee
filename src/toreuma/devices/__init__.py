"""Gauges, presetters, machines and bar feeders: what they say, read by protocols that are open. Nothing is ever sent to
a machine. What ships stands in for them, each a process of its own; real ones can be put behind the same interface."""

from toreuma.devices.device import Device, DeviceEvent, Health
from toreuma.devices.feeder import BarFeeder, BarState
from toreuma.devices.gauge import Gauge
from toreuma.devices.machine import MachineAgent, MachineState
from toreuma.devices.presetter import Presetter, PresetTool
from toreuma.devices.reading import Reading, reading_of

__all__ = [
    "BarFeeder",
    "BarState",
    "Device",
    "DeviceEvent",
    "Gauge",
    "Health",
    "MachineAgent",
    "MachineState",
    "PresetTool",
    "Presetter",
    "Reading",
    "reading_of",
]
