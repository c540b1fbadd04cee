"""Random outside profiles by insert shapes: plan, post, read, prove. Prints how many close and the worst."""

import random
import sys
import time
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parent.parent))

from tests.support.parts import INSERTS, job_for, random_part

from toreuma.core.errors import PartError
from toreuma.core.plan import plan
from toreuma.engine.proving import prove_plan
from toreuma.shipped.library import dialect


def main(count: int = 200, seed: int = 7, verbose: bool = False) -> int:
    source = random.Random(seed)
    begun, tried, closed = time.perf_counter(), 0, 0
    gouge = leftover = 0.0
    contacts = short = 0
    while tried < count * len(INSERTS):
        part, _ = random_part(source)
        seed_of_part = tried // len(INSERTS)
        try:
            jobs = [
                (name, job_for(part, name, ("mm", "inch")[tried % 2], ("R", "IK")[seed_of_part % 2]))
                for name in INSERTS
            ]
        except PartError:
            continue  # the random profile crosses itself: not a part
        for name, job in jobs:
            tried += 1
            planned = plan(job)
            proof = prove_plan(planned, dialect("system-a"))
            errors = [f for f in proof.findings if f.severity == "error"]
            short += any(f.severity == "error" for f in planned.all_findings)
            gouge, leftover = max(gouge, proof.gouge_um), max(leftover, proof.leftover_um)
            contacts += len(proof.contacts)
            if errors or proof.gouge_um > 2 or proof.leftover_um > 0:
                if verbose:
                    print(seed_of_part, name, job.units, [e.what for e in errors][:4], flush=True)
                    Path(f"/tmp/case_{seed_of_part}_{name.split()[0]}.toreuma").write_text(job.model_dump_json())
            else:
                closed += 1
    seconds = time.perf_counter() - begun
    print(
        f"closing: {closed} of {tried} close ({count} profiles x {len(INSERTS)} insert shapes, seed {seed}); "
        f"worst gouge {gouge:.2f} um, worst undeclared leftover {leftover:.2f} um, contacts {contacts}; "
        f"{short} with an error the plan itself names (power); "
        f"{seconds / tried:.2f} s each"
    )
    return 0 if closed == tried else 1


if __name__ == "__main__":
    arguments = [int(a) for a in sys.argv[1:] if a.isdigit()]
    raise SystemExit(main(*arguments, verbose="-v" in sys.argv))
