"""Random parts through route, program and proof: how many come out right, the worst, and the time each takes.

./run bench parts [COUNT] [FIRST SEED]
"""

import sys
import time
import traceback
from collections import Counter
from multiprocessing import Pool
from typing import Any

from tests.support.random_jobs import random_job

from toreuma.core.errors import ToreumaError
from toreuma.engine.engine import Engine

LIMIT_UM = 2.0


def one(seed: int) -> dict[str, Any]:
    """A part from nothing to its proof."""
    begin = time.perf_counter()
    try:
        job = random_job(seed)
        engine = Engine()
        found = engine.route(job)
        planned = engine.plan(found.job)
        proof = engine.prove_afresh(planned)
    except ToreumaError as error:
        return {"seed": seed, "fault": str(error), "s": time.perf_counter() - begin}
    except Exception:
        return {"seed": seed, "fault": traceback.format_exc(limit=-2), "s": time.perf_counter() - begin}
    told = [f for f in (*planned.all_findings, *proof.findings) if f.code.startswith(("reach.", "thread.", "auto."))]
    return {
        "seed": seed,
        "fault": "",
        "state": found.state,
        "words": str(found.words),
        "gouge_um": proof.gouge_um,
        "left_um": proof.leftover_um,
        "declared_mm2": proof.declared.area,
        "contacts": len(proof.contacts),
        "first": (proof.contacts[0].what, proof.contacts[0].line) if proof.contacts else None,
        "open": [f.what for f in found.without],
        "kinds": [op.kind for op in found.job.operations],
        "told": len(told),
        "errors": [f.code for f in (*planned.all_findings, *proof.findings) if f.severity == "error"],
        "s": time.perf_counter() - begin,
    }


def main(count: int, first: int) -> None:
    with Pool(2) as pool:
        results = pool.map(one, range(first, first + count), chunksize=4)
    faults = [r for r in results if r["fault"]]
    fine = [r for r in results if not r["fault"]]
    gouged = [r for r in fine if r["gouge_um"] > LIMIT_UM]
    touched = [r for r in fine if r["contacts"]]
    left = [r for r in fine if r["left_um"] > LIMIT_UM]
    open_ = [r for r in fine if r["open"]]
    kinds = Counter(kind for r in fine for kind in r["kinds"])
    print(f"{count} parts: {len(faults)} faults, {len(gouged)} gouged, {len(touched)} with contacts, "
          f"{len(left)} with undeclared leftover, {len(open_)} with something no tool does")  # fmt: skip
    states = Counter(r["state"] for r in fine)
    print("states:", ", ".join(f"{state} {number}" for state, number in states.most_common()))
    for r in (one for one in fine if one["state"] in ("unsafe", "not finished")):
        print(f"  {r['seed']} {r['words'][:150]}")
    print("operations:", ", ".join(f"{kind} {number}" for kind, number in kinds.most_common()))
    if fine:
        worst = max(fine, key=lambda r: r["gouge_um"])
        times = sorted(r["s"] for r in results)
        print(f"worst gouge {worst['gouge_um']:.2f} um (seed {worst['seed']})")
        print(f"time per part: median {times[len(times) // 2]:.2f} s, longest {times[-1]:.2f} s")
    for r in faults[:8]:
        print("  fault", r["seed"], r["fault"][-300:])
    for name, group in (("gouge", gouged), ("contact", touched), ("left", left)):
        for r in group[:12]:
            words = f"{r['gouge_um']:.1f} um, left {r['left_um']:.1f} um, {r['first']} {set(r['errors'])}"
            print(f"  {name} seed {r['seed']}: {words}")
    why = Counter(text.split(":")[0][:40] for r in fine for text in r["open"])
    print("  open:", dict(why.most_common(8)))


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 300, int(sys.argv[2]) if len(sys.argv) > 2 else 1)
