"""The verdict over a run of parts that both channels make complete: the first one, and what is worse on those after."""

from collections.abc import Iterator, Sequence
from dataclasses import replace

import shapely

from toreuma.core.channels.transfer import Transfer
from toreuma.core.plan import Plan
from toreuma.core.plan.sides.second_side import second_side
from toreuma.core.prove import Proof
from toreuma.core.scene import build_scene
from toreuma.core.verdict import Row, SideMade, Verdict
from toreuma.engine.judging import verdict_of_sides
from toreuma.engine.pair import PairProof

__all__ = ["verdict_of_pair"]

SAME_MM = 1e-6
WORSE = ("made", "allowed", "open", "wrong")
"""States of a row, the best first."""


def verdict_of_pair(plans: Sequence[Plan], taken: Transfer, pair: PairProof) -> Verdict:
    """The verdict over the first part, with the rows that are worse on a later one, and what was found on any."""
    verdict = verdict_of_sides(plans, _sides(plans, pair.made[0]), (*taken.findings, *pair.findings))
    return replace(verdict, rows=(*verdict.rows, *_of_later(plans, pair, verdict)))


def _sides(plans: Sequence[Plan], made: tuple[Proof, Proof]) -> tuple[SideMade, SideMade]:
    first, second = made
    other = second_side(plans[0].job, plans[0], first.final)
    return (
        SideMade(job=plans[0].job, scene=plans[0].scene, proof=first),
        SideMade(job=other, scene=build_scene(other), proof=second, turned=True),
    )


def _of_later(plans: Sequence[Plan], pair: PairProof, verdict: Verdict) -> Iterator[Row]:
    """Each row that is worse on a later part, of the first part on which it is."""
    first = {row.key: row for row in verdict.rows}
    told: set[str] = set()
    for number, made in enumerate(pair.made[1:], 2):
        if all(_alike(one, other) for one, other in zip(made, pair.made[0], strict=True)):
            continue
        for row in verdict_of_sides(plans, _sides(plans, made)).rows:
            before = first.get(row.key)
            state = before.state if before is not None else "made"
            if WORSE.index(row.state) > WORSE.index(state) and row.key not in told:
                told.add(row.key)
                yield replace(row, key=f"part {number} {row.key}", what=f"{row.what}, on part {number}")


def _alike(one: Proof, other: Proof) -> bool:
    """The same metal, threads and places of driven tools, whatever the lines."""
    return (
        bool(shapely.equals_exact(one.final, other.final, SAME_MM))
        and (one.threads, one.milled, one.undrawn, one.parted)
        == (other.threads, other.milled, other.undrawn, other.parted)
        and [replace(each, line=0) for each in one.tapped] == [replace(each, line=0) for each in other.tapped]
        and [replace(each, line=0) for each in one.chords] == [replace(each, line=0) for each in other.chords]
    )
