"""Inserts in holders and bars: the strongest shape that reaches, with nose, chip former and grade for the cut.

Every carrier the machine takes is tried with the insert that suits the cut best; what each leaves is computed, and
those that leave no more than the best are ranked by where they are at hand, by strength, and by nose radius.
"""

import math
from collections.abc import Callable, Collection, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from toreuma.core.advise.candidate import Candidate, Rejected
from toreuma.core.advise.carriers import looseness_um, most_nose_mm, rough_nose_mm, tools_for
from toreuma.core.advise.tried import CORNER_SHARE, REACH_TOLERANCE_MM2, Tried, corners_aside, looked_at
from toreuma.core.advise.wishes import Wish
from toreuma.core.cutting.corner import STRENGTH
from toreuma.core.geometry.elements import Line
from toreuma.core.geometry.region import polygons
from toreuma.core.memo import Check
from toreuma.core.model import Job
from toreuma.core.model.catalogue import Catalogue
from toreuma.core.model.feature import Relief
from toreuma.core.plan.numbers.derates import SKIN_WORDS
from toreuma.core.reach.relieved import relieved
from toreuma.core.reach.tight import tight_spots
from toreuma.core.reach.tool_reach import Surface, surface_metal
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said

__all__ = ["NOTHING_SHARE", "Split", "behind", "turning_candidates"]

MOST_ROUND_MM = 2.0
"""A finishing cut leaves no rounder corner than this where a sharp one is drawn; a button's would be metal left."""

PUSHES = 0.4
"""Taken off a round insert's strength: at small depths it pushes the piece away more than it cuts."""

SHOULDERS = 0.15
"""Taken off for an entering angle below 90 degrees where there are square shoulders: it leaves them standing."""

NOTHING_SHARE = 0.95
"""Where the best leaves more than this share of the metal, no tool gets at it in this hold."""

ABOUT_SHARE = 0.02
"""Leftovers that differ by less than this share of the metal count as equal between tools of one shape."""

ROUGH_SHARE = 0.6
"""A roughing tool takes at least this share of the metal."""

SPLIT_MM2, FINE_MM2 = {"rough": 2.0, "finish": 0.5}, 0.05
"""A second tool is worth its change where it takes so much more; where all of the part is to be finished, for less."""

OUTWARD_GAIN_MM2 = {"rough": 2.0, "finish": 0.05}
"""A second tool that cuts away from the chuck is taken where it takes so much more than one that does not."""

LIKE_MM2 = {"rough": REACH_TOLERANCE_MM2, "finish": 0.05}
"""Second tools that leave as little as the best of them within so much are equals."""

LAST_MM2 = 0.005
"""What a finishing bar leaves more than another, no tool takes after it: a pip amid a floor is no more."""

PAIR_SHARE, PAIR_GAIN_MM2 = {"rough": 0.05, "finish": 0.35}, {"rough": 5.0, "finish": 0.3}
"""Of two pairs of tools the one that leaves so much less is taken, if its first tool alone does about as well."""

SLENDER = 5.0

USUAL_IC_MM = 12.7
"""Larger inserts are for deeper cuts than are usual."""

BORE_NOSE_MM, FINISH_NOSE_MM = 0.4, 0.8
"""What is usual for finishing with a bar, and outside."""


@dataclass(frozen=True)
class Split:
    """A slim tool for what the strong one leaves between two places."""

    candidate: Candidate
    from_z: float
    to_z: float
    left_mm2: float


@dataclass(frozen=True, kw_only=True)
class _Asked:
    """What all candidates of one wish are judged on; ``nose_mm`` is the usual nose; ``fine``: small rests are
    worth a second tool."""

    job: Job
    wish: Wish
    rack: Collection[str]
    metal: float
    square: bool
    nose_mm: float
    notes: tuple[str, ...]
    fine: bool = False

    def rank(self, one: Tried, over_mm2: float = 0.0, left_mm2: float = 0.0) -> tuple[float, ...]:
        """How well a tool suits, low for the best, if it leaves so much, and so much more than the best of all."""
        insert, finishing = one.insert, self.wish.use == "finish"
        like = LAST_MM2 if one.bar and finishing else REACH_TOLERANCE_MM2
        whole = 0.0 if over_mm2 <= like else 1.0
        suits = STRENGTH[insert.shape] - (PUSHES if insert.shape == "R" else 0.0)
        if one.entering_deg < 90 - 1e-6 and self.square:
            suits -= SHOULDERS
            whole = 1.0  # however little it is that stays: a face is not cut square
        suits -= over_mm2 / max(self.metal, 1e-6)
        return (
            whole if finishing else 0.0,
            -float(len(relieved(self.job.part, one.shape, True))) if finishing and self.relieves else 0.0,
            0.0 if one.in_turret or self.on_rack(one) else 1.0,
            0.0 if one.tool.hand == "right" else 1.0,
            -round(suits, 1 if one.bar else 2),
            0.0 if one.in_turret else 1.0,
            -one.bar.diameter_mm if one.bar else 0.0,
            left_mm2 // max(REACH_TOLERANCE_MM2, ABOUT_SHARE * self.metal),
            abs(one.shank_mm - self.job.machine.carriers[0].shank_mm),
            abs(insert.nose_radius_mm - self.nose_mm),
            max(insert.ic_mm - USUAL_IC_MM, 0.0),
            -insert.edges,
        )

    @cached_property
    def relieves(self) -> bool:
        """The part has reliefs, which a finishing tool may take along."""
        return any(isinstance(feature, Relief) for feature in self.job.part.features)

    def on_rack(self, one: Tried) -> bool:
        return not one.in_turret and all(code in self.rack for code in one.codes)


@dataclass(frozen=True, kw_only=True)
class _Seen:
    """The tools looked at; ``least`` is the smallest leftover of any, mm2; ``usual`` ones cut toward the chuck,
    ``outward`` looks at those that do not."""

    asked: _Asked
    least: float
    usual: Sequence[Tried]
    outward: Callable[[], Sequence[Tried]]


def turning_candidates(
    job: Job,
    scene: Scene,
    wish: Wish,
    store: Catalogue,
    rack: Collection[str],
    check: Check,
    progress: Callable[[float], None],
    fine: bool = False,
) -> tuple[list[Candidate], list[Rejected], Split | None]:
    """Candidates with their rank, what cannot do it, and the split where two tools are better than one."""
    assert wish.surface is not None
    nose, inside = most_nose_mm(job, scene), wish.surface.kind == "bore"
    if inside:  # shoulders and necks of bores are small, and a bar gives way
        nose = min(nose, BORE_NOSE_MM)
    tools, rejected = tools_for(job, scene, wish, store, nose, rack)
    metal = surface_metal(scene, wish.surface).area
    asked = _Asked(
        job=job,
        wish=wish,
        rack=rack,
        metal=metal,
        square=_has_shoulders(scene, wish.surface),
        nose_mm=rough_nose_mm(scene) if wish.use != "finish" else BORE_NOSE_MM if inside else FINISH_NOSE_MM,
        notes=_notes(job, scene, wish, nose),
        fine=fine,
    )
    most = MOST_ROUND_MM if wish.use == "finish" else math.inf
    tried = [Tried(scene, wish.surface, *one, most_round_mm=most) for one in tools]
    ahead, outward = ([one for one in tried if one.leads_out is out] for out in (False, True))
    usual = looked_at(ahead, asked.rank, check, progress)  # what cuts on its way out comes second
    reaches = min((one.left_mm2 for one in usual), default=metal) <= NOTHING_SHARE * metal
    main = usual if reaches else [*usual, *looked_at((one for one in outward if not one.bar), asked.rank, check)]
    if not main:
        return [], rejected, None
    least = min(one.left_mm2 for one in main)
    if least > NOTHING_SHARE * metal:
        return [], [_shut_out(scene, wish.surface, main), *rejected], None
    able = [one for one in main if one.left_mm2 <= least + REACH_TOLERANCE_MM2]
    strong = able
    if wish.use != "finish":
        strong = [one for one in main if one.left_mm2 <= max((1 - ROUGH_SHARE) * metal, least + REACH_TOLERANCE_MM2)]
    seen = _Seen(asked=asked, least=least, usual=usual, outward=lambda: looked_at(outward, asked.rank, check))
    found = sorted((_candidate(seen, one) for one in strong), key=lambda c: c.rank)
    first = next(one for one in main if one.tool is found[0].tool)
    first, split = _pair(seen, first, strong if wish.use != "finish" else main)
    best = next((c for c in found if c.tool is first.tool), None) or _candidate(seen, first)
    found = [best, *(c for c in found if c is not best)]
    rejected = _rivals(scene, wish, main, first) + rejected
    return ([found[0], *(behind(c, found[0]) for c in found[1:])], rejected, split)


def _pair(seen: _Seen, first: Tried, others: list[Tried]) -> tuple[Tried, Split | None]:
    """The first tool and its helper; another first one where the two together leave much less."""
    split = _split(seen, first)
    if split is None:
        return first, None
    left, use = first.left_mm2 - split.left_mm2, seen.asked.wish.use
    kinds = sorted({_kind(one) for one in others} - {_kind(first)})
    for kind in kinds:
        other = min((one for one in others if _kind(one) == kind), key=lambda one: one.left_mm2)
        much = other.left_mm2 > first.left_mm2 + PAIR_SHARE[use] * seen.asked.metal
        if much and (use != "finish" or left <= REACH_TOLERANCE_MM2):
            continue
        helped = _split(seen, other)
        rest = other.left_mm2 - (helped.left_mm2 if helped is not None else 0.0)
        if rest < left - PAIR_GAIN_MM2[use] and (not much or rest <= REACH_TOLERANCE_MM2):
            first, split, left = other, helped, rest
    return first, split


def _kind(one: Tried) -> tuple[str, str, int]:
    """Tools that reach alike: by shape of the insert, hand, and how its edge stands."""
    return one.insert.shape, one.tool.hand, round(one.entering_deg)


def _notes(job: Job, scene: Scene, wish: Wish, nose_mm: float) -> tuple[str, ...]:
    """What the job itself says about the tool."""
    if wish.use != "finish":
        return ()
    give = looseness_um(job, scene)
    lines = [said("nose about {} or less: the finishing allowance keeps it cutting", q(nose_mm, "mm", "g"))]
    if give is not None and give >= 1.0:
        lines.append(said("the piece gives way {} under 100 N: a large nose would push it away", q(give, "um", ".0f")))
    return tuple(lines)


def _has_shoulders(scene: Scene, surface: Surface) -> bool:
    """A face of the profile stands square to the axis and looks toward the front."""
    chain = scene.shape.bore if surface.kind == "bore" else scene.profile
    lines = [s for s in (chain.segments[1:] if chain is not None else ()) if isinstance(s, Line)]
    level = [s for s in lines if abs(s.start[0] - s.end[0]) < 1e-9 and abs(s.start[1] - s.end[1]) > 0.2]
    return any((s.end[1] > s.start[1]) is not (surface.kind == "bore") for s in level)


def _candidate(seen: _Seen, one: Tried) -> Candidate:
    asked = seen.asked
    return Candidate(
        tool=one.tool,
        codes=one.codes,
        on_rack=asked.on_rack(one),
        in_turret=one.in_turret,
        left_mm2=one.left_mm2,
        strength=STRENGTH[one.insert.shape],
        reasons=(*_reasons(asked.job, asked.wish, one), *asked.notes),
        against="",
        rank=asked.rank(one, one.left_mm2 - seen.least, one.left_mm2),
    )


def _reasons(job: Job, wish: Wish, one: Tried) -> tuple[str, ...]:
    insert, material = one.insert, job.stock.material
    angle = "round" if insert.shape == "R" else f"{insert.included_angle_deg:g}°"
    reached = "reaches all" if one.left_mm2 < REACH_TOLERANCE_MM2 else said("leaves {}", q(one.left_mm2, "mm2", ".1f"))
    feeds, depths = zip(*insert.chip_window, strict=True)
    lines = [
        said("{} {}", angle, reached),
        said(
            "chip former {}: f {} to {}, ap {} to {} on radius",
            insert.chip_former or "plain",
            q(min(feeds), "mm/rev", "g", bare=True),
            q(max(feeds), "mm/rev", "g"),
            q(min(depths), "mm", "g", bare=True),
            q(max(depths), "mm", "g"),
        ),
        f"grade {insert.grade} for {material.name} (ISO 513 group {material.group})",
    ]
    if insert.shape != "R":
        lines.insert(1, said("nose radius {}, {} edges", q(insert.nose_radius_mm, "mm", "g"), insert.edges))
    hold = job.setup.hold
    slender = hold.stick_out_mm / job.stock.largest_d_mm if job.stock.kind != "free" else 0.0
    if slender > SLENDER and one.entering_deg < 90:
        lines.append(f"entering angle {one.entering_deg:g}° pushes the slender piece away")
    bar = one.bar
    if bar is not None:
        lines.append(
            said(
                "{} bar Ø {}, least bore {}",
                bar.material,
                q(bar.diameter_mm, "mm", "g"),
                q(bar.least_bore_mm, "mm", "g"),
            )
        )
    skin = job.stock.skin
    if skin != "clean" and wish.use == "rough":
        deep = q(job.stock.skin_mm, "mm", "g")
        lines.append(said("{}: the first pass goes below it, {} on radius", SKIN_WORDS[skin], deep))
    return tuple(lines)


def _rivals(scene: Scene, wish: Wish, tried: list[Tried], first: Tried) -> list[Rejected]:
    """The best of every other shape that is stronger but leaves more, with the place and the number."""
    found = []
    for shape in sorted({one.insert.shape for one in tried} - {first.insert.shape}, key=lambda s: -STRENGTH[s]):
        best = min((one for one in tried if one.insert.shape == shape), key=lambda one: one.left_mm2)
        if best.left_mm2 > first.left_mm2 + REACH_TOLERANCE_MM2:
            assert wish.surface is not None
            spots = tight_spots(scene, best.tool, wish.surface, best.reach)
            where = (
                said(
                    " at Z {} to {}: {}",
                    q(spots[0].from_z, "mm", ".1f", bare=True),
                    q(spots[0].to_z, "mm", ".1f"),
                    spots[0].words,
                )
                if spots
                else ""
            )
            why = said("leaves {}{}", q(best.left_mm2, "mm2", ".1f"), where)
        else:
            weaker = STRENGTH[shape] < STRENGTH[first.insert.shape]
            why = f"reaches as much, but its corner has {STRENGTH[shape]:.0%} of a round one's strength"
            if not weaker:
                continue
        angle = "round" if shape == "R" else f"{best.insert.included_angle_deg:g}°"
        found.append(Rejected(f"{angle}, {best.title}", why))
    return found


def _shut_out(scene: Scene, surface: Surface, tried: list[Tried]) -> Rejected:
    """Why nothing gets at a surface: what stands before the tool that gets farthest."""
    best = min(tried, key=lambda one: one.left_mm2)
    spots = tight_spots(scene, best.tool, surface, best.reach)
    words = spots[0].words if spots else "nothing of it can be reached"
    return Rejected("Every tool", said("{}: cut it in another hold ({} gets farthest)", words, best.title))


def behind(one: Candidate, first: Candidate) -> Candidate:
    """Why a candidate that can do it stands behind the first."""
    if one.tool.hand != first.tool.hand:
        why = "leads away from the chuck"
    elif "R" in (one.tool.insert.shape,) and first.tool.insert.shape != "R":  # type: ignore[union-attr]
        why = "a round edge pushes the piece away at small depths"
    elif one.strength < first.strength:
        why = f"corner strength {one.strength:.0%} against {first.strength:.0%}"
    elif one.left_mm2 > first.left_mm2 + REACH_TOLERANCE_MM2:
        why = said("leaves {}, the first {}", q(one.left_mm2, "mm2", ".1f"), q(first.left_mm2, "mm2", ".1f"))
    elif (first.in_turret and not one.in_turret) or (first.on_rack and not one.on_rack):
        why = "the first is at hand"
    else:
        why = "equal in reach and strength; the first suits shank and nose better"
    return replace(one, against=why)


def _split(seen: _Seen, first: Tried) -> Split | None:
    """The tool that takes most of what the first one leaves, and between which places."""
    least_gain = SPLIT_MM2.get(seen.asked.wish.use)
    if seen.asked.fine and seen.asked.wish.use == "finish":
        least_gain = FINE_MM2
    if least_gain is None or first.left_mm2 < least_gain:
        return None
    others = [(one, _both_leave(first, one)) for one in seen.usual if one is not first]
    least = min((left for _, left in others), default=first.left_mm2)
    gain = OUTWARD_GAIN_MM2[seen.asked.wish.use]
    if not others or least >= gain:  # a way back may be worth it
        back = [(one, _both_leave(first, one)) for one in seen.outward() if one is not first]
        if back and (not others or min(left for _, left in back) <= least - gain):
            others = [*others, *back]
            least = min(left for _, left in others)
    if first.left_mm2 - least < least_gain:
        return None
    alike = LIKE_MM2[seen.asked.wish.use]
    good = [one for one, left in others if left <= least + alike]
    slim = min((_candidate(seen, one) for one in good), key=lambda c: c.rank)
    chosen = next(one for one in good if one.tool is slim.tool)
    nose = first.insert.nose_radius_mm
    taken = polygons(first.reach.leftover.difference(chosen.reach.leftover))
    pieces = [piece for piece in taken if piece.area > CORNER_SHARE * nose**2]
    z = [bound for piece in pieces for bound in (piece.bounds[0], piece.bounds[2])]
    return Split(slim, max(z), min(z), first.left_mm2 - least) if z else None


def _both_leave(first: Tried, second: Tried) -> float:
    """What neither gets at, corners aside, mm2."""
    round_mm = max(first.corner_mm, second.corner_mm)
    return corners_aside(first.reach.leftover.intersection(second.reach.leftover), round_mm)
