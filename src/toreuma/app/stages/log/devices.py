"""Devices: simulated stand-ins started and stopped here, what they say, and where a gauge's reading goes."""

import time
from typing import Any

from PySide6.QtCore import QTimer, Signal
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLineEdit, QPlainTextEdit, QPushButton, QVBoxLayout, QWidget

from toreuma.app.forms.column import heading
from toreuma.app.forms.label import Label
from toreuma.app.stages.log.model import LogModel
from toreuma.app.theme import Theme
from toreuma.app.words import tr
from toreuma.core.errors import ToreumaError
from toreuma.core.units import show
from toreuma.devices import (
    BarFeeder,
    BarState,
    Device,
    Gauge,
    MachineAgent,
    MachineState,
    Presetter,
    PresetTool,
    Reading,
)
from toreuma.devices.simulated.started import Simulated
from toreuma.engine.day import machine_settings

__all__ = ["DevicesView"]

LOOK_MS = 150
KINDS: dict[str, tuple[str, type[Device], str]] = {
    "gauge": ("Gauge", Gauge, "serial line, such as /dev/ttyUSB0"),
    "presetter": ("Tool presetter", Presetter, "folder it drops its files into"),
    "machine": ("Machine agent", MachineAgent, "address, such as http://lathe:5000"),
    "feeder": ("Bar feeder", BarFeeder, "HOST:PORT"),
}
SIGN = {"off": "○", "looking": "◌", "well": "●", "quiet": "◐", "garbled": "▲", "gone": "✕"}


class DevicesView(QWidget):
    """Nothing is ever sent to a machine: what devices say is shown, and a gauge's readings go to the first article."""

    read = Signal(float, str)
    """A gauge's button was pressed: mm, and the gauge's name."""

    def __init__(self, model: LogModel, theme: Theme) -> None:
        super().__init__()
        self._model = model
        self.devices: dict[str, Device] = {}
        self.simulated: dict[str, Simulated] = {}
        self.states: dict[str, Label] = {}
        self.says: dict[str, Label] = {}
        self.where: dict[str, QLineEdit] = {}
        self.starts: dict[str, QPushButton] = {}
        self.listens: dict[str, QPushButton] = {}
        grid = QGridLayout()
        grid.setColumnStretch(2, 2)
        grid.setColumnStretch(4, 3)
        for row, (key, (name, _, hint)) in enumerate(KINDS.items()):
            title, state, says = Label(tr(name)), Label(), Label()
            title.setObjectName("heading")
            says.setObjectName("muted")
            says.setWordWrap(True)
            entry = QLineEdit()
            entry.setPlaceholderText(tr(hint))
            entry.setAccessibleName(f"{tr(name)}: {tr('where it is')}")
            start, listen = QPushButton(tr("Start a simulated one")), QPushButton(tr("Listen"))
            start.clicked.connect(lambda _=False, k=key: self.switch_simulated(k))
            listen.clicked.connect(lambda _=False, k=key: self.switch(k))
            for column, widget in enumerate((title, start, entry, listen, state)):
                grid.addWidget(widget, 2 * row, column)
            grid.addWidget(says, 2 * row + 1, 1, 1, 4)
            self.states[key], self.says[key], self.where[key] = state, says, entry
            self.starts[key], self.listens[key] = start, listen
        self.press = QLineEdit()
        self.press.setPlaceholderText(tr("what the simulated gauge is to read, mm"))
        self.press.setAccessibleName(tr("What the simulated gauge is to read"))
        self.press.setMinimumWidth(300)
        self.press.returnPressed.connect(self._press)
        button = QPushButton(tr("Press its button"))
        button.clicked.connect(self._press)
        row_ = QHBoxLayout()
        row_.addWidget(self.press)
        row_.addWidget(button)
        row_.addStretch(1)
        self.heard = QPlainTextEdit()
        self.heard.setReadOnly(True)
        self.heard.setMaximumBlockCount(2000)
        self.heard.setAccessibleName(tr("What was heard"))
        words = Label(
            "Nothing is ever sent to a machine. What is simulated says so; a gauge's reading goes into the row of the "
            "first article that is chosen."
        )
        words.setObjectName("muted")
        words.setWordWrap(True)
        column_ = QVBoxLayout(self)
        column_.setContentsMargins(14, 10, 14, 10)
        column_.addWidget(words)
        column_.addLayout(grid)
        column_.addLayout(row_)
        column_.addWidget(heading("Heard"))
        column_.addWidget(self.heard, 1)
        self._timer = QTimer(self, interval=LOOK_MS)
        self._timer.timeout.connect(self.look)
        self.look()

    def set_theme(self, theme: Theme) -> None:
        return

    def refresh(self) -> None:
        self.look()

    def switch_simulated(self, key: str) -> None:
        """Start a stand-in and listen to it, or end both."""
        if key in self.simulated:
            self._stop(key)
            self.look()
            return
        try:
            self.simulated[key] = Simulated(key, **self._settings(key))
        except ToreumaError as error:
            self._model.session.message.emit("error", str(error))
            return
        self.where[key].setText(self.simulated[key].where)
        if key == "machine":
            self.simulated[key].tell("start")
        self._listen(key, simulated=True)

    def _settings(self, key: str) -> dict[str, Any]:
        outcome, whole = self._model.session.outcome, self._model.session.whole
        if key != "machine" or outcome is None or whole is None:
            return {}
        program = outcome.written.name if outcome.written is not None else whole.name
        return machine_settings(outcome.timeline, program, max(whole.stock.supply.batch, 1), whole, speed=20.0)

    def switch(self, key: str) -> None:
        """Listen to what is at the address that stands there, or listen no more."""
        if key in self.devices:
            self._stop(key)
        elif self.where[key].text().strip():
            self._listen(key, simulated=False)
        self.look()

    def _listen(self, key: str, simulated: bool) -> None:
        name, kind, _ = KINDS[key]
        device = kind(name, self.where[key].text().strip(), simulated=simulated)
        device.start()
        self.devices[key] = device
        self._timer.start()
        self.look()

    def _stop(self, key: str) -> None:
        device = self.devices.pop(key, None)
        if device is not None:
            device.stop()
        simulated = self.simulated.pop(key, None)
        if simulated is not None:
            simulated.end()
            self.where[key].clear()

    def close_all(self) -> None:
        """Before the window goes."""
        self._timer.stop()
        for key in (*self.devices, *self.simulated):
            self._stop(key)

    def _press(self) -> None:
        if "gauge" in self.simulated and self.press.text().strip():
            self.simulated["gauge"].tell(self.press.text().strip())

    def look(self) -> None:
        """Take what was heard since the last look; it never waits."""
        for key, device in self.devices.items():
            for event in device.take():
                words = self._words(event.what)
                self.says[key].setText(words)
                self.heard.appendPlainText(
                    f"{time.strftime('%H:%M:%S', time.localtime(event.at))}  {device.name}: {words}"
                )
                if isinstance(event.what, Reading):
                    self.read.emit(event.what.mm, device.name if not device.simulated else f"{device.name} (simulated)")
        for key in KINDS:
            listening = self.devices.get(key)
            health = listening.health if listening is not None else "off"
            told = listening.words if listening is not None else "not listened to"
            simulated = f"{tr('SIMULATED')}  " if key in self.simulated else ""
            self.states[key].setText(f"{SIGN[health]} {simulated}{told}")
            self.states[key].setObjectName({"well": "ok", "garbled": "error", "gone": "error"}.get(health, "muted"))
            self.states[key].style().unpolish(self.states[key])
            self.states[key].style().polish(self.states[key])
            self.starts[key].setText(
                tr("End the simulated one") if key in self.simulated else tr("Start a simulated one")
            )
            self.listens[key].setText(tr("Listen no more") if listening is not None else tr("Listen"))
            self.listens[key].setEnabled(key not in self.simulated)
        if not self.devices:
            self._timer.stop()

    def _words(self, what: object) -> str:
        system = self._model.session.system
        if isinstance(what, Reading):
            return f"{show(what.mm, 'mm', system)}"
        if isinstance(what, PresetTool):
            return f"T{what.station}: X {show(what.x_mm, 'mm', system)}, Z {show(what.z_mm, 'mm', system)}"
        if isinstance(what, MachineState):
            load = f", load {what.load_pct:.0f} %" if what.load_pct is not None else ""
            alarms = f", {'; '.join(what.alarms)}" if what.alarms else ""
            at = f"{what.program or ''} line {what.line or 0}, {what.parts or 0} parts"
            return f"{what.execution.lower()}, {at}{load}{alarms}"
        if isinstance(what, BarState):
            return f"{show(what.left_mm, 'mm', system)} of bar left, {what.state.lower()}"
        return str(what)
