"""A second look at the order: what another one would save, in seconds, micrometres or hits, each with its cure.

Rules look at a finished plan. None of them changes anything; each cure moves one operation. A new rule is a module with
one function, named in ``RULES`` or ``TRYING``.
"""

from collections.abc import Callable, Iterator

from toreuma.core.critic.axis import unfaced
from toreuma.core.critic.bending import bending
from toreuma.core.critic.burrs import burrs
from toreuma.core.critic.changes import tool_changes
from toreuma.core.critic.grip import unfinished_grip
from toreuma.core.critic.interrupted import interrupted
from toreuma.core.critic.joints import joints
from toreuma.core.critic.opened_early import opened_early
from toreuma.core.critic.other_side import other_side
from toreuma.core.findings import Finding
from toreuma.core.memo import Memo
from toreuma.core.plan.route import Plan

__all__ = ["critique"]

RULES: tuple[Callable[[Plan], Iterator[Finding]], ...] = (unfinished_grip, unfaced, burrs, joints, bending)
TRYING: tuple[Callable[[Plan, Memo], Iterator[Finding]], ...] = (tool_changes, interrupted, opened_early, other_side)
"""Rules that plan the other order to see what it gains."""


def critique(planned: Plan, memo: Memo | None = None) -> tuple[Finding, ...]:
    """What another order of the operations would be better at; ``memo`` spares planning again what is known."""
    kept = memo or Memo()
    found = [finding for rule in RULES for finding in rule(planned)]
    return (*found, *(finding for rule in TRYING for finding in rule(planned, kept)))
