"""The verdict: the drawing's things one by one, and what makes the program unsafe."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import shapely

from toreuma.core.findings import Finding, place_text
from toreuma.core.geometry.part_shape import PartShape, build_part
from toreuma.core.geometry.region import Region, box, polygons, union
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import CutGroove, Job, Part, ThreadForm
from toreuma.core.model.feature import AxialHole, Feature
from toreuma.core.model.tool import BoringTool, GroovingTool, PartingTool, TurningTool
from toreuma.core.prove.sizes import SizeMade, sizes_made
from toreuma.core.prove.threads import thread_zone
from toreuma.core.spoken import q, said
from toreuma.core.verdict.asked import Asked, asked_to_stay
from toreuma.core.verdict.drawn import Drawn, drawn_of
from toreuma.core.verdict.features import feature_rows
from toreuma.core.verdict.makers import Makers
from toreuma.core.verdict.row import Made, Row, RowState, Verdict
from toreuma.core.verdict.section import Found, Piece, compared
from toreuma.core.verdict.side import SideMade
from toreuma.core.verdict.undrawn_rows import undrawn_rows

__all__ = ["UNFINISHED", "verdict_of"]

UNFINISHED = frozenset((
    "leftover", "milled.left", "thread.size", "thread.missing", "knurl.missing", "knurl.open", "knurl.depth",
    "knurl.short", "reach.left", "stock.small", "hold.inside",
))  # fmt: skip
"""Findings that say what is not made: rows say the same, with sizes."""

CORE_SHARE = 0.05
"""Of the pitch: drills of taper threads are not the core itself, the tap takes the rest."""

MOST_NOSE_MM = 2.0
ROUNDED_SHARE = 0.42
"""What a nose leaves in a square corner, seen square to a wall, is less than this share of it (√2 - 1)."""
SLACK_MM = 0.01
APART_SHARE = 0.2
"""Halves that stand apart by no more than this share of a size's limits are not told."""
MOST_PLACES = 4
"""So many places of one surface are named."""
LAYER_SHARE = 0.8
"""A layer is told beside the thickest place where it is thinner than this share of it."""
END_MM = 0.35
"""Ridges of a knurl may end so far from where they are drawn."""


def verdict_of(
    job: Job,
    sides: Sequence[SideMade],
    forms: Mapping[int, ThreadForm],
    findings: Sequence[Finding] = (),
    unplanned: Sequence[Finding] = (),
) -> Verdict:
    """What came of a job. ``sides`` in the order they are cut, each on what the one before really left.

    ``forms`` are the threads of the drawing by their place among its features; ``findings`` everything that was found
    about plan and program, ``unplanned`` the operations that never came into it.
    """
    shape = build_part(job.part)
    last = sides[-1]
    final = last.as_drawn(last.proof.final)
    makers = Makers(sides)
    rows = [
        *_section_rows(job, shape, final, sides, forms, makers),
        *feature_rows(job, shape, final, sides, forms, makers),
        *undrawn_rows(sides, makers),
    ]
    dangers = tuple(one for one in findings if one.severity == "error" and one.code not in UNFINISHED)
    return Verdict(rows=tuple(rows), back_z=shape.profile.back_z, dangers=dangers, unplanned=tuple(unplanned))


@dataclass(frozen=True, kw_only=True)
class _Ground:
    """What rows are judged by: cylinders as measured, what was asked to stay, stretches (side, low, high) whose size is
    another row's, and who made what."""

    sizes: tuple[SizeMade, ...]
    asked: tuple[Asked, ...]
    others: tuple[tuple[str, float, float], ...]
    makers: Makers
    grinds: Mapping[tuple[str, int], float]
    """What the drawing leaves on diameters for grinding, by side and place in the profile."""
    runout_um: float
    """How far the second hold may run out."""

    def in_both_holds(self, drawn: Drawn, size: SizeMade | None) -> bool:
        """A cylinder with limits, some of which was cut in either hold: what its halves stand apart counts in them."""
        if size is None or size.limits_mm is None:
            return False
        width_um = 1000 * (size.limits_mm[1] - size.limits_mm[0])
        counts = self.runout_um / 2 > APART_SHARE * width_um
        return counts and len(self.makers.holds(drawn.points, drawn.normals)) > 1

    def grind_of(self, drawn: Drawn) -> float | None:
        return None if drawn.element is None else self.grinds.get((drawn.side, drawn.element))

    def size_of(self, drawn: Drawn) -> SizeMade | None:
        """The cylinder a drawn thing is, unless its size is judged with a thread or a knurl."""
        low, high = float(drawn.points[:, 0].min()), float(drawn.points[:, 0].max())
        if drawn.element is None or any(side == drawn.side and a < high and low < b for side, a, b in self.others):
            return None
        r = float(drawn.points[0, 1])
        for one in self.sizes:
            along = min(one.z) - SLACK_MM <= low and high <= max(one.z) + SLACK_MM
            if one.side == drawn.side and along and abs(one.nominal_mm / 2 - r) < SLACK_MM:
                return one
        return None


def _section_rows(
    job: Job,
    shape: PartShape,
    final: Region,
    sides: Sequence[SideMade],
    forms: Mapping[int, ThreadForm],
    makers: Makers,
) -> list[Row]:
    features = job.part.features
    drawn = tuple(_with_core(one, features, forms) for one in drawn_of(job.part, shape))
    zones = [thread_zone(features[index], form, shape.region) for index, form in forms.items()]
    rings = [box(z0 - END_MM, r0, z1 + END_MM, r1) for z0, r0, z1, r1 in (one.bounds for one in polygons(shape.ridges))]
    found, loose = compared(drawn, shape.region, final, union(zones), union(rings), _noses(sides))
    seats = [(one.side, one.from_z_mm - one.length_mm, one.from_z_mm) for one in features if one.kind == "thread"]
    knurls = [("outside", one.from_z_mm - one.length_mm, one.from_z_mm) for one in features if one.kind == "knurl"]
    ground = _Ground(
        sizes=sizes_made(job, shape, final), asked=asked_to_stay(sides), others=(*seats, *knurls), makers=makers,
        grinds=_grinds(job.part), runout_um=job.second_runout_um,
    )  # fmt: skip
    blades = _blades(sides)
    rows = [_row(_of_blades(one, blades), ground) for one in found]
    rows += [_loose_row(number, piece) for number, piece in enumerate(loose)]
    return [*rows, _off_row(job, shape, final, sides, makers)]


def _grinds(part: Part) -> dict[tuple[str, int], float]:
    sides = (("outside", part.outside), ("inside", part.inside))
    return {
        (side, n): one.grind_mm
        for side, elements in sides
        for n, one in enumerate(elements)
        if one.grind_mm is not None
    }


def _with_core(one: Drawn, features: Sequence[Feature], forms: Mapping[int, ThreadForm]) -> Drawn:
    """The core of a tapped hole may be as wide as its thread's limits are: what is drawn is a usual drill."""
    feature = features[one.feature] if one.feature is not None else None
    form = forms.get(one.feature) if one.feature is not None else None
    if not isinstance(feature, AxialHole) or not feature.thread or form is None:
        return one
    free = CORE_SHARE * form.pitch_mm if form.taper else min(feature.d_mm - form.crest_d_mm[0], form.pitch_mm / 4)
    return replace(one, allowed_um=max(one.allowed_um, 500.0 * free))


def _noses(sides: Sequence[SideMade]) -> set[float]:
    """Rounds of the tools that follow a contour."""
    tools = {tool.id: tool for side in sides for tool in side.job.tools}.values()
    kinds = TurningTool | BoringTool | GroovingTool | PartingTool
    return {min(shape_of(tool).nose_radius, MOST_NOSE_MM) for tool in tools if isinstance(tool, kinds)}


def _blades(sides: Sequence[SideMade]) -> dict[int, float]:
    """By feature, the largest round of the blades that cut it."""
    found: dict[int, float] = {}
    for side in sides:
        for one in side.job.operations:
            if isinstance(one, CutGroove):
                rounds = [shape_of(tool).nose_radius for name in one.tools if (tool := side.job.tool(name)) is not None]
                found[one.feature] = max(found.get(one.feature, 0.0), *rounds, 0.0)
    return found


def _of_blades(found: Found, blades: Mapping[int, float]) -> Found:
    """A groove's corners are rounded by its own blades, whatever larger noses there are."""
    most = blades.get(found.drawn.feature) if found.drawn.feature is not None else None
    if most is None:
        return found
    own = (replace(one, nose_mm=None) if (one.nose_mm or 0.0) > most + SLACK_MM else one for one in found.pieces)
    return replace(found, pieces=tuple(own))


def _row(found: Found, ground: _Ground) -> Row:
    drawn, size = found.drawn, ground.size_of(found.drawn)
    made = ground.makers.of(drawn.points, drawn.normals)
    state, left, cure = _state(found, size, ground, made)
    grind = ground.grind_of(drawn)
    if grind is not None and state in ("made", "allowed"):
        state, left = "allowed", said("{} on the diameter stays for grinding, as drawn", q(grind, "mm", "g"))
    both = grind is None and state in ("made", "allowed") and ground.in_both_holds(drawn, size)
    if both:
        half = q(ground.runout_um / 2, "um", "g")
        words = said("it is cut in both holds: the second may run out, its halves stand up to {} apart", half)
        state, left = "allowed", said("{}; {}", left, words) if left else words
    told = grind is not None or both or (size is not None and size.limits_mm is not None and size.run_out_mm > 0)
    nose = None if told else max((piece.nose_mm or 0.0 for piece in found.rounded), default=None)
    wanted = drawn.wanted
    if size is not None and size.limits_mm is not None:
        wanted = said("Ø {} to {}", q(size.limits_mm[0], "mm", ".3f", bare=True), q(size.limits_mm[1], "mm", ".3f"))
    return Row(
        key=drawn.key,
        what=drawn.what,
        wanted=wanted,
        found=_found(found, size),
        state=state,
        left=left,
        cure=cure,
        made=made,
        at=drawn.at,
        nose_mm=nose if state == "allowed" else None,
        in_both_holds=both,
        left_mm2=sum(piece.region.area for piece in found.stands),
    )


def _state(found: Found, size: SizeMade | None, ground: _Ground, made: Made | None) -> tuple[RowState, str, str]:
    """State of a row, what is open or allowed, and what would make it."""
    drawn = found.drawn
    stands = [piece for piece in found.stands if 1000 * piece.thick_mm > drawn.allowed_um]
    stay = next((one for one in ground.asked if one.covers(drawn)), None)
    if stands and stay is not None and _as_asked(found, stay):
        return "allowed", said("{} for a later cut, as asked in '{}'", q(stay.leave_mm), stay.operation), ""
    missing = said("{} of metal is missing", q(found.under_um / 1000, "mm", ".3f"))
    lacks = found.under_um > drawn.allowed_um
    if stands:
        left = _standing(found, stands)
        return "open", said("{}, {}", left, missing) if lacks else left, "an operation that reaches it"
    if lacks:
        cure = "a blank with metal there" if made is None else "a cut that leaves it: what is gone stays gone"
        return "wrong", missing, cure
    if size is not None and not (size.ok or (found.rounded and size.ok_where_least)):
        d = said("Ø {} to {}", q(size.found_mm[0], "mm", ".3f", bare=True), q(size.found_mm[1], "mm", ".3f"))
        return "wrong", d, "other limits to aim at, or another finishing cut"
    if size is not None and size.limits_mm is not None and size.run_out_mm > 0:
        return "allowed", said("{} of its length are the run-out of the thread beside it", q(size.run_out_mm)), ""
    if found.rounded:
        nose = max(piece.nose_mm or 0.0 for piece in found.rounded)
        return "allowed", said("a corner is rounded by a nose of {}", q(nose, "mm", "g")), ""
    return "made", "", ""


def _standing(found: Found, stands: Sequence[Piece]) -> str:
    """Every place of a drawn thing where metal stands, the thickest first, and the layer on most of it."""
    worst, *others = sorted(stands, key=lambda piece: -piece.thick_mm)
    allowed_mm = found.drawn.allowed_um / 1000
    # Places are looked at some way apart: a rib between them is seen by its piece. A corner it joins may be thicker.
    seen = found.over_um / 1000 if found.over_um / 1000 > allowed_mm else math.inf
    most, layer = min(seen, worst.thick_mm), found.layer_um / 1000
    words = said("{} stands at {}", q(most, "mm", ".3f"), place_text(*_middle(worst.region)))
    if allowed_mm < layer < LAYER_SHARE * most:
        words = said("{}, {} on most of it", words, q(layer, "mm", ".3f"))
    for other in others[: MOST_PLACES - 1]:
        words = said("{}, {} at {}", words, q(other.thick_mm, "mm", ".3f"), place_text(*_middle(other.region)))
    more = len(others) - MOST_PLACES + 1
    return said("{}, and at {} more places", words, more) if more > 0 else words


def _as_asked(found: Found, stay: Asked) -> bool:
    """No more stands than was asked for, but in corners a nose rounds on top of it."""
    most = stay.leave_mm + SLACK_MM
    return found.usual_um / 1000 <= most and found.over_um / 1000 <= most + ROUNDED_SHARE * MOST_NOSE_MM


def _found(found: Found, size: SizeMade | None) -> str:
    if size is not None and size.cut:
        return said("Ø {}", q(size.found_mm[1] if size.side == "outside" else size.found_mm[0], "mm", ".3f", bare=True))
    most = found.over_um if found.over_um >= found.under_um else -found.under_um
    near = abs(most) <= found.drawn.allowed_um or (not found.stands and most > 0)
    return "as drawn" if near else said("{}", q(most / 1000, "mm", "+.3f", bare=True))


def _loose_row(number: int, piece: Piece) -> Row:
    at = _middle(piece.region)
    return Row(
        key=f"loose {number}",
        what=said("metal beside the part at {}", place_text(*at)),
        wanted="nothing",
        found=said("{}", q(piece.thick_mm, "mm", ".3f")),
        state="open",
        left=said("{} stands", q(piece.thick_mm, "mm", ".3f")),
        cure="an operation that takes it away",
        at=at,
    )


def _off_row(job: Job, shape: PartShape, final: Region, sides: Sequence[SideMade], makers: Makers) -> Row:
    """The part is in nobody's hold any more, or could be taken out of it as it is."""
    last = sides[-1]
    back = shape.profile.back_z
    stands = final.difference(shapely.union(shape.region, shape.ridges))
    held = not last.proof.parted and float(stands.bounds[0] if not stands.is_empty else 0.0) < back - SLACK_MM
    long = back - float(stands.bounds[0]) if held else 0.0
    section = len(last.proof.program.sections) - 1
    return Row(
        key="off",
        what="off the bar" if job.stock.length_mm is None else "off the blank",
        wanted="nothing behind the back face",
        found=said("{} behind it", q(long)) if held else "off",
        state="open" if held else "made",
        left=said("the part is still on {} of its blank", q(long)) if held else "",
        cure="part it off, or a second side that cuts the back face" if held else "",
        made=None if held or not last.proof.parted else makers.of_section(len(sides) - 1, section),
        at=(back, 0.0),
    )


def _middle(region: Region) -> tuple[float, float]:
    place = region.representative_point()
    return place.x, place.y
