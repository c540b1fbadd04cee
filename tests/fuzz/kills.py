"""Windows killed at random moments of random editing, and what is offered afterwards.

    ./run kills [COUNT]

Prints how many were killed, how much was lost at most, and every time something was not as promised.
"""

import json
import os
import random
import signal
import subprocess
import sys
import tempfile
import time
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field
from pathlib import Path

ROOT = Path(__file__).parents[2]
PROMISED_S = 5.0
TOGETHER = 5
ASK = "from toreuma.engine.offers import offers; import json; f, g = offers(); " \
      "print(json.dumps([[o.job.name, o.changes] for o in f])); print(json.dumps([str(x) for x in g]))"  # fmt: skip


@dataclass
class Outcome:
    kills: int = 0
    edits: int = 0
    lost_s: float = 0.0
    faults: list[str] = field(default_factory=list)


def killed(seed: int, home: Path, file: Path | None, windows: int, after_s: float) -> tuple[list[dict], float]:  # type: ignore[type-arg]
    """Run a typist, kill it so long after it began, and give what it told and when it was killed."""
    environment = {**os.environ, "TOREUMA_HOME": str(home), "QT_QPA_PLATFORM": "offscreen"}
    command = [sys.executable, "-m", "tests.fuzz.typist", str(seed), str(windows), str(file) if file else "-"]
    child = subprocess.Popen(
        command, cwd=ROOT, env=environment, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True
    )
    assert child.stdout is not None
    said = []
    for line in child.stdout:
        said.append(json.loads(line))
        if "begun" in said[-1]:
            break
    time.sleep(after_s)
    at = time.time()
    child.send_signal(signal.SIGKILL)
    said += [json.loads(line) for line in child.stdout if line.endswith("\n")]
    child.wait()
    return said, at


def offered(home: Path) -> tuple[list[tuple[str, list[str]]], list[str]]:
    """What the next start would offer, and what it could not read."""
    environment = {**os.environ, "TOREUMA_HOME": str(home)}
    run = subprocess.run([sys.executable, "-c", ASK], env=environment, capture_output=True, text=True, check=True)
    found, faults = (json.loads(line) for line in run.stdout.splitlines())
    return [(name, changes) for name, changes in found], faults


def judged(
    seed: int, said: list[dict], at: float, offers: list[tuple[str, list[str]]], outcome: Outcome, where: str
) -> None:  # type: ignore[type-arg]
    """Compare what was typed with what is offered."""
    names = [name for name, _ in offers]
    for window in {one["window"] for one in said if "window" in one}:
        edits = {one["edit"]: one["at"] for one in said if one.get("window") == window and "edit" in one}
        outcome.edits += len(edits)
        saved = max((one["saved"] for one in said if one.get("window") == window and "saved" in one), default=0)
        kept = max((int(n.split(" e")[1]) for n in names if n.startswith(f"w{window} s{seed} e")), default=saved)
        lost = [when for count, when in edits.items() if count > max(kept, saved) and when <= at]
        if lost:
            outcome.lost_s = max(outcome.lost_s, at - min(lost))
        if lost and at - min(lost) > PROMISED_S:
            outcome.faults.append(f"{where}, window {window}: {at - min(lost):.1f} s lost, offered {names}")


def case(seed: int) -> Outcome:
    """One shop's computer: killed twice in a row, the second time while going on with what was offered."""
    chance, outcome = random.Random(seed), Outcome()
    with tempfile.TemporaryDirectory(prefix="toreuma-kills-") as folder:
        home, windows = Path(folder) / "home", 1 + seed % 2
        file = Path(folder) / "job.toreuma" if seed % 3 else None
        for turn in (1, 2):
            said, at = killed(seed * 10 + turn, home, file, windows, chance.uniform(1.0, 22.0))
            outcome.kills += 1
            offers, faults = offered(home)
            judged(seed * 10 + turn, said, at, offers, outcome, f"seed {seed}, kill {turn}")
            outcome.faults += [f"seed {seed}, kill {turn}: {fault}" for fault in faults]
            again, _ = offered(home)
            if again != offers:
                outcome.faults.append(f"seed {seed}, kill {turn}: looked at, it changed from {offers} to {again}")
    return outcome


def main(count: int) -> int:
    with ThreadPoolExecutor(TOGETHER) as pool:
        every = list(pool.map(case, range((count + 1) // 2)))
    faults = [fault for one in every for fault in one.faults]
    kills, edits = sum(one.kills for one in every), sum(one.edits for one in every)
    print(f"{kills} windows killed amid {edits} edits: at most {max(one.lost_s for one in every):.2f} s lost, "
          f"{len(faults)} faults")  # fmt: skip
    print("\n".join(faults))
    return 1 if faults else 0


if __name__ == "__main__":
    sys.exit(main(int(sys.argv[1]) if len(sys.argv) > 1 else 200))
