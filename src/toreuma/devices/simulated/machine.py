"""A machine that is none: an HTTP agent after the open MTConnect standard that follows the time of a proved program.

``steps`` are (seconds of a part, line, load %) in order; a part takes ``cycle_s``. A line of standard input: ``start``,
``stop``, ``alarm WORDS``, ``clear``, ``override N``, ``slow`` (answers late), ``garbage`` (answers no XML), ``sense``,
``speed N`` (seconds of the machine in one of ours), ``quit``. The first line of standard output is its address.
"""

import sys
import threading
import time
from bisect import bisect_right
from collections.abc import Sequence
from html import escape
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer

__all__ = ["run"]

HEAD = '<?xml version="1.0" encoding="UTF-8"?>\n<MTConnectStreams xmlns="urn:mtconnect.org:MTConnectStreams:1.4">'


class _Machine:
    """The clock of the machine, and what it would say."""

    def __init__(
        self, program: str, cycle_s: float, steps: Sequence[tuple[float, int, float]], speed: float, batch: int
    ):
        self.program, self.cycle_s, self.steps, self.speed, self.batch = program, cycle_s, list(steps), speed, batch
        self.starts = [one[0] for one in steps]
        self.lock = threading.Lock()
        self.active, self.done_s, self.since = False, 0.0, time.monotonic()
        self.override, self.alarm, self.mood = 100.0, "", "sense"

    def now_s(self) -> float:
        """Seconds of cutting so far."""
        if not self.active:
            return self.done_s
        run = self.done_s + (time.monotonic() - self.since) * self.speed * self.override / 100
        return min(run, self.batch * self.cycle_s)

    def switch(self, active: bool) -> None:
        self.done_s, self.since, self.active = self.now_s(), time.monotonic(), active

    def document(self) -> str:
        with self.lock:
            run = self.now_s()
            over = run >= self.batch * self.cycle_s
            into = run % self.cycle_s
            at = max(bisect_right(self.starts, into) - 1, 0)
            _, line, load = self.steps[at] if self.steps else (0.0, 0, 0.0)
            turning = self.active and not over
            execution = "ACTIVE" if turning else "INTERRUPTED" if self.alarm else "READY"
            condition = (
                f'<Fault dataItemId="logic" type="LOGIC_PROGRAM" nativeCode="1">{escape(self.alarm)}</Fault>'
                if self.alarm else '<Normal dataItemId="logic" type="LOGIC_PROGRAM"/>'
            )  # fmt: skip
            count = min(int(run / self.cycle_s + 1e-6), self.batch)
        return (
            f'{HEAD}<Header creationTime="{time.strftime("%Y-%m-%dT%H:%M:%SZ", time.gmtime())}" sender="simulated" '
            f'instanceId="1" version="1.4" bufferSize="1"/><Streams><DeviceStream name="simulated" uuid="simulated">'
            f'<ComponentStream component="Controller" name="path" componentId="p"><Events>'
            f'<Availability dataItemId="avail">AVAILABLE</Availability>'
            f'<Execution dataItemId="exec">{execution}</Execution>'
            f'<Program dataItemId="pgm">{escape(self.program)}</Program><LineNumber dataItemId="ln">{line}</LineNumber>'
            f'<PathFeedrateOverride dataItemId="fovr">{self.override:g}</PathFeedrateOverride>'
            f'<PartCount dataItemId="pc">{count}</PartCount></Events><Samples>'
            f'<Load dataItemId="load">{load if turning else 0.0:.1f}</Load></Samples><Condition>{condition}</Condition>'
            "</ComponentStream></DeviceStream></Streams></MTConnectStreams>"
        )


def run(
    program: str = "O1001", cycle_s: float = 60.0, steps: Sequence[tuple[float, int, float]] = (), speed: float = 1.0,
    batch: int = 85, port: int = 0,
) -> None:  # fmt: skip
    """Until standard input ends."""
    machine = _Machine(program, cycle_s, steps, speed, batch)

    class Handler(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            if machine.mood == "slow":
                time.sleep(4)
            text = "this is not what you asked for" if machine.mood == "garbage" else machine.document()
            known = self.path.split("?")[0].rstrip("/") in ("/current", "", "/probe")
            data = text.encode()
            try:
                self.send_response(200 if known else 404)
                self.send_header("Content-Type", "text/xml")
                self.send_header("Content-Length", str(len(data)))
                self.end_headers()
                self.wfile.write(data)
            except OSError:
                return

        def log_message(self, *_: object) -> None:
            return

    server = ThreadingHTTPServer(("127.0.0.1", port), Handler)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    print(f"http://127.0.0.1:{server.server_address[1]}", flush=True)
    for line in sys.stdin:
        word, _, more = line.strip().partition(" ")
        with machine.lock:
            if word == "quit":
                break
            if word in ("start", "stop"):
                machine.switch(word == "start")
            elif word == "alarm":
                machine.switch(False)
                machine.alarm = more or "alarm"
            elif word == "clear":
                machine.alarm = ""
            elif word in ("slow", "garbage", "sense"):
                machine.mood = word
            elif word in ("override", "speed"):
                machine.switch(machine.active)
                setattr(machine, word, float(more))
    server.shutdown()
