"""Files and texts made wrong, by the thousand, given to everything that takes one.

    ./run fuzz [MINUTES] [SEED] [TARGET ...]

Prints what became of them. What raised anything but a clear line, or took too long, is kept in ``tests/fuzz/corpus``,
where the everyday tests try it again. What would never come back is ended, and told with where it was.
"""

import faulthandler
import hashlib
import random
import signal
import sys
import tempfile
import time
import traceback
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from toreuma.core.errors import ToreumaError

from .targets import TARGETS, Target

__all__ = ["CORPUS", "outcome_of"]

CORPUS = Path(__file__).parent / "corpus"
STUCK_S = 200


class TooLong(Exception):
    """A case took longer than its target may."""


@contextmanager
def within(seconds: float) -> Iterator[None]:
    def ring(number: int, frame: object) -> None:
        raise TooLong

    before = signal.signal(signal.SIGALRM, ring)
    signal.setitimer(signal.ITIMER_REAL, seconds)
    try:
        yield
    finally:
        signal.setitimer(signal.ITIMER_REAL, 0)
        signal.signal(signal.SIGALRM, before)


def outcome_of(target: Target, data: bytes, folder: Path) -> tuple[str, str]:
    """``taken``, ``told`` or ``fault``, and for the last what happened."""
    try:
        with within(target.limit_s):
            target.take(data, folder)
    except ToreumaError as error:
        text = str(error)
        return ("told", "") if "\n" not in text and len(text) < 1000 else ("fault", f"no line: {text[:80]!r}")
    except TooLong:
        return "fault", f"over {target.limit_s:g} s"
    except Exception as error:
        place = traceback.extract_tb(error.__traceback__)[-1]
        own = next(
            (one for one in reversed(traceback.extract_tb(error.__traceback__)) if "toreuma" in one.filename), place
        )
        return "fault", f"{type(error).__name__} at {Path(own.filename).name}:{own.lineno}: {str(error)[:80]}"
    return "taken", ""


def keep(name: str, data: bytes) -> Path:
    CORPUS.mkdir(exist_ok=True)
    path = CORPUS / f"{name.replace(' ', '-')}--{hashlib.sha256(data).hexdigest()[:12]}"
    path.write_bytes(data)
    return path


def main(minutes: float, seed: int, names: list[str]) -> int:
    chosen = {name: target for name, target in TARGETS.items() if not names or name in names}
    counts = {name: Counter[str]() for name in chosen}
    longest = dict.fromkeys(chosen, 0.0)
    faults: dict[str, str] = {}
    bag = [name for name, target in chosen.items() for _ in range(target.weight)]
    chance, end, number = random.Random(seed), time.monotonic() + 60 * minutes, 0
    while time.monotonic() < end:
        number += 1
        name = chance.choice(bag)
        data = chosen[name].make(random.Random(seed * 1_000_003 + number))
        faulthandler.dump_traceback_later(STUCK_S, exit=True)
        begun = time.monotonic()
        with tempfile.TemporaryDirectory(prefix="toreuma-fuzz-") as folder:
            became, what = outcome_of(chosen[name], data, Path(folder))
        longest[name] = max(longest[name], time.monotonic() - begun)
        counts[name][became] += 1
        if became == "fault" and f"{name}: {what}" not in faults:
            faults[f"{name}: {what}"] = keep(name, data).name
            print(f"{name}: {what}", flush=True)
    faulthandler.cancel_dump_traceback_later()
    for name, count in counts.items():
        print(f"{name:12} {sum(count.values()):6} tried, {count['taken']:6} taken, {count['told']:6} told, "
              f"{count['fault']:4} faults, longest {longest[name]:.2f} s")  # fmt: skip
    print(f"{number} in all, {len(faults)} kinds of fault")
    return 1 if faults else 0


if __name__ == "__main__":
    words = sys.argv[1:]
    sys.exit(main(float(words[0]) if words else 5.0, int(words[1]) if len(words) > 1 else 1, words[2:]))
