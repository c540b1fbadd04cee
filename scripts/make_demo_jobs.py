"""Make the demo jobs of Fennow Leat from their dimensions: a proposed route, then what the person chose otherwise.

Run from the repository: ``.venv/bin/python scripts/make_demo_jobs.py [NAME ...]``. The regulating spear has operations
that were planned in the window; its file is kept as it is.
"""

import sys
from collections.abc import Callable

from demo_builders import DEMO
from demo_sluice import bleed_screw, caught, gate_spindle, lifted, strainer_union, united
from demo_turbine import fed, layered, reamed, runner_hub, sealed, seat_ring, sheave, vane_stud

from toreuma.core.model import Job
from toreuma.engine.engine import Engine
from toreuma.files.jobs import save_job

JOBS: dict[str, tuple[Callable[[], Job], Callable[[Job], Job]]] = {
    "seat-ring": (seat_ring, sealed),
    "runner-hub": (runner_hub, reamed),
    "sheave": (sheave, layered),
    "vane-stud": (vane_stud, fed),
    "gate-spindle": (gate_spindle, lifted),
    "bleed-screw": (bleed_screw, caught),
    "strainer-union": (strainer_union, united),
}
"""What makes a job, and what is changed of the route proposed for it."""


def main() -> None:
    for name in sys.argv[1:] or JOBS:
        make, change = JOBS[name]
        path = DEMO / f"{name}.toreuma"
        save_job(change(Engine().route(make()).job), path)
        path.with_name(path.name + "~").unlink(missing_ok=True)
        print(path.name)


if __name__ == "__main__":
    main()
