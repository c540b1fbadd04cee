"""A bar feeder that is none: it says on a line of text how much bar is left.

A line of standard input: ``fed N`` (parts made from this bar so far), ``bar N`` (a new bar of that length),
``garbage``, ``drop`` (cuts the line), ``quit``. The first line of standard output is HOST:PORT.
"""

import contextlib
import socket
import sys
import threading

__all__ = ["run"]


def run(bar_mm: float = 3000.0, pitch_mm: float = 80.0, rest_mm: float = 80.0) -> None:
    """Until standard input ends."""
    server = socket.create_server(("127.0.0.1", 0))
    listeners: list[socket.socket] = []
    state = {"bar": bar_mm, "left": bar_mm}

    def words() -> bytes:
        left = state["left"]
        more = int((left - rest_mm) / pitch_mm)
        told = "END" if more < 1 else "LAST" if more == 1 else "FEEDING"
        return f"BAR {max(left, 0):.1f} REST {rest_mm:.1f} STATE {told}\r\n".encode()

    def say(data: bytes) -> None:
        for one in list(listeners):
            with contextlib.suppress(OSError):
                one.sendall(data)

    def accept() -> None:
        while True:
            try:
                one, _ = server.accept()
            except OSError:
                return
            listeners.append(one)
            with contextlib.suppress(OSError):
                one.sendall(words())

    threading.Thread(target=accept, daemon=True).start()
    host, port = server.getsockname()[:2]
    print(f"{host}:{port}", flush=True)
    for line in sys.stdin:
        word, _, more = line.strip().partition(" ")
        if word == "quit":
            break
        if word == "fed":
            state["left"] = state["bar"] - int(more) * pitch_mm
        elif word == "bar":
            state["bar"] = state["left"] = float(more)
        elif word == "drop":
            for one in listeners:
                one.close()
            listeners.clear()
            continue
        elif word == "garbage":
            say(b"\xff\xfe what is this\r\n")
            continue
        say(words())
    server.close()
