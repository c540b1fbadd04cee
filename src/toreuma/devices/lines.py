"""Lines of bytes as they come in: pieces put together, what is far too long let go."""

import os
import select
import termios

__all__ = ["Lines", "open_serial"]

MOST = 4096


class Lines:
    """Feed bytes, get whole lines."""

    def __init__(self) -> None:
        self._rest = b""

    def feed(self, data: bytes) -> list[str]:
        """Lines that are whole now; a line too long for any is cut off and comes out as it stands."""
        *whole, self._rest = (self._rest + data).replace(b"\r", b"\n").split(b"\n")
        if len(self._rest) > MOST:
            whole.append(self._rest[:MOST])
            self._rest = b""
        return [one.decode("ascii", "replace") for one in whole if one.strip()]

    def left(self) -> str:
        """What came without an end and stays so: it is let go."""
        rest, self._rest = self._rest, b""
        return rest.decode("ascii", "replace").strip()


def open_serial(path: str) -> int:
    """A serial line, raw, that never blocks. Raises `OSError`."""
    handle = os.open(path, os.O_RDONLY | os.O_NOCTTY | os.O_NONBLOCK)
    try:
        mode = termios.tcgetattr(handle)
        mode[0], mode[1], mode[3] = 0, 0, 0
        termios.tcsetattr(handle, termios.TCSANOW, mode)
    except termios.error as error:
        os.close(handle)
        raise OSError(error.args[0], f"this is no serial line ({error.args[-1]})") from None
    return handle


def heard(handle: int, seconds: float) -> bytes:
    """What came in; nothing where nothing did in that time. Raises `OSError` where the other end is gone."""
    ready, _, _ = select.select([handle], [], [], seconds)
    if not ready:
        return b""
    data = os.read(handle, MOST)
    if not data:
        raise OSError(0, "the line is cut")
    return data
