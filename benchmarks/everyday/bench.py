"""A hundred everyday parts through route, program and proof, held against the drawing by the judge.

./run bench everyday [COUNT: 100] [FIRST SEED: 0]
"""

import statistics
import sys
import time
from collections.abc import Sequence
from dataclasses import dataclass
from multiprocessing import Pool

from benchmarks.everyday.estimate import estimate_s
from benchmarks.everyday.kinds import Wanted, everyday
from benchmarks.judge.air import fed
from benchmarks.judge.bench import case_of
from benchmarks.judge.court import HARM_MM, Case, Judged
from benchmarks.judge.machine import NotJudged
from toreuma.core.errors import ToreumaError
from toreuma.core.plan import Plan
from toreuma.core.post import post
from toreuma.engine.engine import Engine
from toreuma.engine.fresh import new_job
from toreuma.engine.judging import prove_whole

__all__ = ["Came", "came_of", "main"]

FINE_CELL, COARSE_CELL, LARGE_MM = 0.03, 0.06, 60.0
MOST_RATIO, MOST_AIR = 1.5, 0.03


@dataclass(frozen=True, kw_only=True)
class Came:
    """What came of a part: the proof's word, the judge's, and numbers. ``court`` is empty where it cannot judge."""

    wanted: Wanted
    state: str = ""
    words: str = ""
    open: tuple[str, ...] = ()
    dangers: tuple[str, ...] = ()
    court: Judged | None = None
    cycle_s: float = 0.0
    plain_s: float = 0.0
    air: float = 0.0
    tools: tuple[str, ...] = ()
    route: tuple[str, ...] = ()
    took_s: float = 0.0
    fault: str = ""

    @property
    def finished(self) -> bool:
        return self.state in ("finished", "finished but for")

    @property
    def dishonest(self) -> bool:
        """Called finished, and the judge says otherwise; a knurl is turned smaller than it is drawn."""
        if not self.finished or self.court is None:
            return False
        lost = self.court.lost_mm > HARM_MM and "knurl" not in self.wanted.line
        return bool(lost or self.court.left_mm > HARM_MM or not self.court.off or self.court.hits)

    @property
    def ratio(self) -> float:
        return self.cycle_s / self.plain_s if self.plain_s > 0 else 0.0


def came_of(wanted: Wanted) -> Came:
    """A part from its line to the judge."""
    begin = time.perf_counter()
    try:
        drawn, _ = new_job(wanted.name, wanted.units, wanted.material, wanted.machine, wanted.line)
        engine = Engine()
        found = engine.route(drawn)
        took = time.perf_counter() - begin
        plans, language = engine.sides(found.job), engine.language(found.job)
        whole = prove_whole(plans, language)
    except ToreumaError as error:
        return Came(wanted=wanted, fault=str(error), took_s=time.perf_counter() - begin)
    verdict = whole.verdict
    court, air = _judged(plans, [post(side, language).text for side in plans], wanted)
    return Came(
        wanted=wanted,
        state=verdict.state,
        words=verdict.words,
        open=tuple(f"{row.what}: {row.left}" for row in verdict.open),
        dangers=tuple(one.what for one in verdict.dangers),
        court=court,
        cycle_s=sum(proof.time_s for proof in whole.proofs),
        plain_s=estimate_s(drawn),
        air=air,
        tools=tuple(tool.name for tool in found.job.tools),
        route=tuple(
            f"{n + 1} {one.name or one.kind} [{one.tool}]"
            for n, setup in enumerate(found.job.setups)
            for one in setup.operations
        ),
        took_s=took,
    )


def _judged(plans: Sequence[Plan], texts: list[str], wanted: Wanted) -> tuple[Judged | None, float]:
    """The judge's word, None where it cannot tell, and the share of feed time in the air."""
    case = case_of(plans, COARSE_CELL if plans[0].scene.stock.bounds[3] > LARGE_MM else FINE_CELL)
    try:
        court = case.judge(texts)
        return court, _air(case, texts, 0.3048 if wanted.units == "inch" else 1.0)
    except NotJudged:
        return None, 0.0


def _air(case: Case, texts: list[str], speeds: float) -> float:
    feed = air = 0.0
    piece = case.blank
    for number, (court, text) in enumerate(zip(case.courts, texts, strict=True)):
        ways = court.ways(text)
        begun = piece[:, ::-1] if number else piece
        one = fed(court, ways, begun, speeds)
        feed, air = feed + one.feed_s, air + one.air_s
        piece, _ = court.cut(ways, begun.copy())
    return air / feed if feed > 0 else 0.0


def _court(one: Judged | None) -> str:
    if one is None:
        return "not judged"
    off = "" if one.off else " not off"
    return f"judge: left {one.left_mm:.2f} at {one.left_at} lost {one.lost_mm:.2f} hits {len(one.hits)}{off}"


def _line(one: Came) -> str:
    if one.fault:
        return f"{one.wanted.name}: FAULT {one.fault[:200]}"
    court = _court(one.court)
    return (
        f"{one.wanted.name:22} {one.wanted.machine:24} {one.wanted.material:14} {one.state:17} {one.cycle_s:6.0f} s "
        f"/ {one.plain_s:4.0f} = {one.ratio:4.2f} air {100 * one.air:4.1f} % {len(one.tools):2} tools "
        f"{one.took_s:5.1f} s {court}"
    )


def main(count: int = 100, first: int = 0, told: bool = True) -> None:
    """Print each part and the sums."""
    begun = time.monotonic()
    found: list[Came] = []
    with Pool(2) as pool:
        for one in pool.imap(came_of, [everyday(seed) for seed in range(first, first + count)]):
            found.append(one)
            print(_line(one), flush=True)
            if told and not one.finished:
                for what in (*one.dangers[:3], *one.open[:5]):
                    print(f"      {what[:200]}", flush=True)
    fine = [one for one in found if not one.fault]
    print(f"{len(found)} parts: finished {sum(one.finished for one in found)}, faults {len(found) - len(fine)}, "
          f"unsafe {sum(one.state == 'unsafe' for one in found)}, dishonest {sum(one.dishonest for one in found)}, "
          f"with contacts by the judge {sum(bool(one.court and one.court.hits) for one in found)}, "
          f"air over 3 % {sum(one.air > MOST_AIR for one in found)}")  # fmt: skip
    done = [one.ratio for one in found if one.finished]
    if done:
        print(f"cycle against the plain estimate, finished parts: median {statistics.median(done):.2f}, "
              f"most {max(done):.2f}; over {MOST_RATIO}: {sum(one > MOST_RATIO for one in done)}")  # fmt: skip
    print(f"{time.monotonic() - begun:.0f} s")


if __name__ == "__main__":
    main(*(int(one) for one in sys.argv[1:]))
