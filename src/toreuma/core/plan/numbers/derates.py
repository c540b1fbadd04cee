"""Derates: what about blank, hold and circumstances asks for gentler numbers, each a factor with its own name.

The factors are typical; each can be left out with a reason that stays in the job. Skin and interruption count where
the skin and the corners are still on: in roughing. What driven tools have opened interrupts every cut that meets it.
"""

import math
from dataclasses import dataclass
from typing import Literal

from toreuma.core.model import Job, TubeBar
from toreuma.core.model.conditions import LeftOut
from toreuma.core.plan.ground.given import Given
from toreuma.core.plan.ground.opened import Interruption

__all__ = ["REACH", "SKIN_WORDS", "Derate", "counted", "derates_of", "without_derate"]

SKIN_WORDS = {"scale": "scale on the blank", "hard": "hard skin on the blank"}
SKIN = {"scale": (0.85, "scale rubs the edge away"), "hard": (0.7, "a hard skin notches the edge at one depth")}
DRY = {"M": 0.6, "S": 0.6}
DRY_ELSE, UNATTENDED = 0.75, 0.85
OVERHANG_FREE, OVERHANG_STEP, OVERHANG_LEAST = 3.0, 0.1, 0.6
THIN_WALL_SHARE, THIN_WALL = 0.1, 0.8
STANCE = {"gentle": 0.8, "hard": 1.15}
REACH = {"gentle": 0.35, "normal": 0.5, "hard": 0.85}
"""How far into the chip window each stance goes."""

INTERRUPTED = 0.8
ROUND_MM = 0.05
"""Corners that stand out less than this on diameter are no interruption."""

ROUGHING_ONLY = ("skin", "interruption")
Effect = Literal["harm", "wish"]


@dataclass(frozen=True, kw_only=True)
class Derate:
    """``speed`` and ``feed`` are factors; ``left_out`` is the reason for which it does not count, or empty.

    ``effect`` tells whether it wears the edge faster, or whether a longer life is wished for. It counts for roughing
    only where ``roughing_only``.
    """

    key: str
    name: str
    speed: float
    feed: float
    why: str
    left_out: str = ""
    effect: Effect = "harm"
    roughing_only: bool = False


def derates_of(given: Given) -> tuple[Derate, ...]:
    """Every derate there is cause for, also those left out."""
    conditions, found = given.conditions, []

    def add(key: str, name: str, speed: float, why: str, feed: float = 1.0, effect: Effect = "harm") -> None:
        found.append(
            Derate(
                key=key,
                name=name,
                speed=speed,
                feed=feed,
                why=why,
                left_out=conditions.reason_for(key),
                effect=effect,
                roughing_only=key in ROUGHING_ONLY,
            )
        )

    if given.stock.skin in SKIN:
        factor, why = SKIN[given.stock.skin]
        add("skin", SKIN_WORDS[given.stock.skin], factor, why)
    if given.stock.kind == "polygon":
        hits = f"{given.stock.sides} hits a turn until the corners are off"
        add("interruption", "interrupted cut", INTERRUPTED, hits)
    overhang = _overhang(given)
    if overhang > OVERHANG_FREE and given.centre is None and given.rest is None:
        factor = max(1 - OVERHANG_STEP * (overhang - OVERHANG_FREE), OVERHANG_LEAST)
        add(
            "overhang", f"sticks out {overhang:.1f} diameters", round(factor, 3), "a long piece sings", round(factor, 3)
        )
    if _is_thin(given):
        add("thin wall", "thin wall", THIN_WALL, "a thin wall gives way and chatters", THIN_WALL)
    group = given.stock.material.group
    if conditions.coolant == "dry" and not given.stock.material.coolant.startswith(("dry", "air")):
        add("dry", "dry where coolant is usual", DRY.get(group, DRY_ELSE), "the edge runs hotter")
    if not conditions.attended:
        add("unattended", "nobody watches", UNATTENDED, "an edge that fails unseen spoils parts", effect="wish")
    if conditions.stance in STANCE:
        reach = f"{REACH[conditions.stance]:.0%} into the chip window"
        add("stance", f"{conditions.stance} stance", STANCE[conditions.stance], f"chosen; {reach}", effect="wish")
    return tuple(found)


def counted(
    given: Given, roughing: bool = True, d_mm: float = math.inf, opened: Interruption | None = None
) -> tuple[Derate, ...]:
    """The derates that count, for roughing or for what comes after it, where the largest diameter cut is ``d_mm``: a
    bar that is round there already interrupts nothing. Holes, flats and slots that are ``opened`` do so in any cut."""
    stock = given.stock
    is_round = stock.kind == "polygon" and d_mm <= stock.across_mm + ROUND_MM
    found = [one for one in derates_of(given) if not (is_round and one.key == "interruption")]
    if opened is not None:
        hits = f"{opened.hits_a_turn} hits a turn on what is open already"
        reason = given.conditions.reason_for("interruption")
        found = [one for one in found if one.key != "interruption"]
        found.append(
            Derate(key="interruption", name="interrupted cut", speed=INTERRUPTED, feed=1.0, why=hits, left_out=reason)
        )
    return tuple(one for one in found if not one.left_out and (roughing or not one.roughing_only))


def without_derate(job: Job, key: str, reason: str) -> Job:
    """The job with a derate left out for a reason; an empty reason lets it count again."""
    kept = tuple(one for one in job.conditions.left_out if one.derate != key)
    more = (LeftOut(derate=key, reason=reason),) if reason else ()
    return job.changed(conditions=job.conditions.changed(left_out=(*kept, *more)))


def _overhang(given: Given) -> float:
    return given.hold.stick_out_mm / given.stock.largest_d_mm if given.stock.kind != "free" else 0.0


def _is_thin(given: Given) -> bool:
    stock = given.stock
    return isinstance(stock, TubeBar) and (stock.d_mm - stock.bore_d_mm) / 2 < THIN_WALL_SHARE * stock.d_mm
