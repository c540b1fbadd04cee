"""Planning and proving with what the process remembers: what an edit leaves as it was is not computed again.

The same functions as in the product, with the one memory of all tests where none is given; ``memo=None`` proves afresh.
"""

from typing import Any

import toreuma.core.plan
import toreuma.core.plan.sides.second_side
import toreuma.core.prove
import toreuma.engine.pair
from tests.support.engine import remembered
from toreuma.core.dialect import Dialect
from toreuma.core.memo import Memo
from toreuma.core.model import Job
from toreuma.core.plan import Plan
from toreuma.core.post import post
from toreuma.core.prove import Proof
from toreuma.core.read import read
from toreuma.engine.pair import PairProof
from toreuma.engine.proving import prove_read

__all__ = ["plan", "plan_sides", "prove", "prove_channels", "prove_plan"]


def plan(job: Job, memo: Memo | None = None, *more: Any, **named: Any) -> Plan:
    return toreuma.core.plan.plan(job, memo or remembered(), *more, **named)


def plan_sides(job: Job, *more: Any, **named: Any) -> tuple[Plan, ...]:
    return toreuma.core.plan.sides.second_side.plan_sides(job, remembered(), *more, **named)


def prove(*given: Any, **named: Any) -> Proof:
    return toreuma.core.prove.prove(*given, **{"memo": remembered(), **named})


def prove_channels(*given: Any, **named: Any) -> PairProof:
    return toreuma.engine.pair.prove_channels(*given, **{"memo": remembered(), **named})


def prove_plan(planned: Plan, language: Dialect, text: str | None = None) -> Proof:
    memo = remembered()
    program = read(post(planned, language).text if text is None else text, language, planned.scene.reference, memo)
    return prove_read(planned, program, memo=memo)
