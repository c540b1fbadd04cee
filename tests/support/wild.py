"""Ways for a process to go wrong, to be run apart."""

import ctypes
import sys
import time
from typing import Any

from toreuma.core.errors import ImportFault
from toreuma.exchange.apart import Progress, serve


def work(request: dict[str, Any], progress: Progress) -> Any:
    progress(0.5)
    what = request["what"]
    if what == "falls":
        ctypes.string_at(0)
    elif what == "stays":
        time.sleep(1000)
    elif what == "grows":
        return len([bytearray(1 << 20) for _ in range(100_000)])
    elif what == "raises":
        raise KeyError("deep inside")
    elif what == "says":
        raise ImportFault("file", "it is bent", "straighten it")
    elif what == "floods":
        return "x" * 200_000_000
    elif what == "prints":
        print("{}\nnoise")
        sys.stdout.flush()
    elif what == "leaves":
        sys.exit(3)
    elif what == "deep":
        deep: list[Any] = []
        for _ in range(100_000):
            deep = [deep]
        return deep
    return "fine"


if __name__ == "__main__":
    serve(work)
