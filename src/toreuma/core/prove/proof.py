"""The proof of a program: read, cut, compared with the part, in numbers."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass

import numpy as np
import shapely

from toreuma.core.findings import Finding, place_text
from toreuma.core.geometry.region import EMPTY, Region, box, depth_inside, polygons, thickness, union, without_film
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.memo import Check, Memo, never_cancel
from toreuma.core.model import Job
from toreuma.core.prove.cutter import Contact, Cutter, Gouge, MoveDone
from toreuma.core.prove.knurls import knurl_findings
from toreuma.core.prove.limits import limit_findings
from toreuma.core.prove.orbits import Chord
from toreuma.core.prove.sections import cut_through
from toreuma.core.prove.sizes import SizeMade, sizes_made
from toreuma.core.prove.surfaces import SurfaceMade, surfaces_made
from toreuma.core.prove.taps import Stroke
from toreuma.core.prove.threads import ThreadMade, thread_findings, threads_made
from toreuma.core.prove.told import Told, told_otherwise
from toreuma.core.prove.travel import travel_findings
from toreuma.core.prove.undrawn import Undrawn
from toreuma.core.read import Program
from toreuma.core.scene import Scene
from toreuma.core.simulate.timeline import Timeline, timeline_of
from toreuma.core.spoken import q, said

__all__ = ["Contact", "MoveDone", "Proof", "prove"]

NEAR_MM = 0.75
"""A cut this close to leftover metal could have taken it."""

FED_MM, MISSED_MM = 0.02, 0.5
"""A bar may be fed this much differently."""

MOST_CONTACTS = 5000
"""So many contacts are told one by one."""

LIMIT_UM = 2.0
"""Gouge and undeclared leftover up to this are within what a program of this resolution can hold."""

RAG_MM2, RAG_OFF_MM = 1e-3, 0.1
"""Crumbs smaller than this and so far off the part are the edge of what is declared."""


@dataclass(frozen=True, kw_only=True)
class Proof:
    """What came of cutting a program.

    ``leftover`` is metal on the part beyond what the plan declared, ``declared`` what it said would stay;
    ``threads``, ``sizes``, ``surfaces`` are measured on the finished piece, ``gouged`` is missing from it;
    ``milled`` is the metal left in each milled feature, um, by its place among the part's, ``undrawn`` what driven
    tools cut as written beside them, ``tapped`` how taps went, ``chords`` how thread mills did;
    ``left`` are places (z, r) of undeclared leftover and how thick it is, um, the largest first; ``before`` is the
    stock, ``states`` what is left of it after each section, ``final`` the finished piece or what is still in the chuck.
    """

    program: Program
    timeline: Timeline
    steps: tuple[MoveDone, ...]
    states: tuple[tuple[int, Region], ...]
    before: Region
    final: Region
    gouge_um: float
    leftover_um: float
    leftover: Region
    declared_um: float
    declared: Region
    contacts: tuple[Contact, ...]
    findings: tuple[Finding, ...]
    parted: bool
    threads: tuple[ThreadMade, ...] = ()
    sizes: tuple[SizeMade, ...] = ()
    surfaces: tuple[SurfaceMade, ...] = ()
    gouged: Region = EMPTY
    gouges: tuple[Gouge, ...] = ()
    left: tuple[tuple[tuple[float, float], float], ...] = ()
    milled: tuple[tuple[int, float], ...] = ()
    undrawn: tuple[Undrawn, ...] = ()
    tapped: tuple[Stroke, ...] = ()
    chords: tuple[Chord, ...] = ()

    @property
    def ok(self) -> bool:
        """No finding at level error."""
        return all(finding.severity != "error" for finding in self.findings)

    @property
    def time_s(self) -> float:
        return self.timeline.total_s


def prove(
    job: Job,
    scene: Scene,
    program: Program,
    declared: Region,
    check: Check = never_cancel,
    progress: Callable[[float], None] = lambda share: None,
    before: Region | None = None,
    told: Iterable[Told] = (),
    memo: Memo | None = None,
) -> Proof:
    """Cut a read program out of the blank with the true tool shapes.

    ``before`` is the bar as the part before left it, where the program feeds it first.
    ``declared`` is the region the plan says its tools cannot reach or do not finish, ``told`` the speeds and feeds
    meant for its operations. With ``memo``, sections that were cut before in the same state are not cut again.
    Whatever ``check`` raises
    stops the work; ``progress`` is told the share done.
    """
    cutter = Cutter(job, scene, before)
    # A program that moves the centre begins with it drawn back; one that never does has it in.
    cutter.centre_in = not any(motion.event in ("centre_in", "centre_out") for motion in program.motions)
    blank = cutter.stock
    cut = cut_through(cutter, job, program.motions, memo, check, progress)
    steps, states = cut.steps, cut.states
    final = cutter.finished
    gouged = cutter.guarded.difference(final)
    bored = cutter.milled.compared(job, final, memo)
    made = threads_made(job, final)
    # Each cut is measured on its own as well: after several deep ones the final surface alone tells too little.
    gouge_um = 1000 * max(
        [depth_inside(gouged, cutter.guarded), bored.gouge_um / 1000, *(gouge.depth_mm for gouge in cutter.gouges)]
    )
    around = final if not cutter.piece.is_empty else final.intersection(box(scene.profile.back_z, 0, 1e5, 1e5))
    extra = without_film(
        around.difference(union([scene.part, *(one.raised for one in cutter.rolled)])), LIMIT_UM / 1000
    )
    undeclared = without_film(extra.difference(declared.buffer(LIMIT_UM / 1000)), LIMIT_UM / 1000)
    undeclared = union([one for one in polygons(undeclared) if not _is_rag(one, scene.part)])
    leftover_um = max(1000 * thickness(undeclared, scene.part), bored.leftover_um)
    kept = extra.intersection(declared)
    left = _left(undeclared, scene)
    deep = tuple(gouge for gouge in cutter.gouges if 1000 * gouge.depth_mm > LIMIT_UM)
    findings = (
        *program.findings,
        *_tool_findings(cutter, program),
        *_datum_findings(program),
        *travel_findings(job, scene, program.motions),
        *_gouge_findings(deep),
        *bored.findings,
        *_contact_findings(cutter.contacts),
        *thread_findings(job, made, final),
        *_loose_findings(cutter),
        *_hold_findings(cutter),
        *_past_centre(program, cutter, steps),
        *limit_findings(job, scene, program, steps),
        *told_otherwise(program, told),
        *knurl_findings(job, scene, final, cutter.rolled),
        *_leftover_findings(undeclared, scene, program, cutter),
        *_declared_findings(kept, scene, job),
    )
    progress(1.0)
    return Proof(
        program=program,
        timeline=timeline_of(program.motions, job.machine),
        steps=steps,
        states=states,
        before=blank,
        final=final,
        gouge_um=gouge_um,
        leftover_um=leftover_um,
        leftover=undeclared,
        declared_um=1000 * thickness(kept, scene.part),
        declared=kept,
        contacts=tuple(cutter.contacts),
        findings=tuple(sorted(findings, key=lambda finding: finding.severity != "error")),
        parted=not cutter.piece.is_empty,
        threads=made,
        sizes=sizes_made(job, scene.shape, final),
        surfaces=surfaces_made(job, scene, final.difference(scene.shape.ridges) if cutter.rolled else final),
        gouged=without_film(gouged, LIMIT_UM / 1000),
        gouges=deep,
        left=left,
        milled=bored.each,
        undrawn=bored.undrawn,
        tapped=tuple(cutter.tapped),
        chords=tuple(cutter.chords),
    )


def _tool_findings(cutter: Cutter, program: Program) -> list[Finding]:
    unknown: dict[int, int] = {}
    for motion in program.motions:
        if not motion.is_rapid and not cutter.knows(motion.station):
            unknown.setdefault(motion.station, motion.line)
    return [
        Finding(
            "error",
            "tool.unknown",
            f"line {line}: station {station} holds no tool of this job",
            "what it would cut is not known",
            line=line,
        )
        for station, line in unknown.items()
        if station != 0
    ]


def _datum_findings(program: Program) -> list[Finding]:
    """Datums that a program of one spindle sets by itself."""
    what = "the program sets the datum itself"
    why = "where its zero lies after this is not known; set it at the machine, or take the word out"
    return [
        Finding("error", "datum.set", f"line {mark.line}: {what}", why, line=mark.line)
        for mark in program.marks
        if mark.what == "set_datum"
    ]


def _gouge_findings(gouges: tuple[Gouge, ...]) -> list[Finding]:
    return [
        Finding(
            "error",
            "gouge",
            said(
                "line {}: cuts {} below the finished surface at {}",
                gouge.line,
                q(1000 * gouge.depth_mm, "um", ".1f"),
                place_text(*gouge.at),
            ),
            "the part would be scrap",
            at=gouge.at,
            line=gouge.line,
        )
        for gouge in gouges
    ]


def _contact_findings(contacts: list[Contact]) -> list[Finding]:
    """Every contact of a line, the deepest place of each kind; after so many lines the rest are counted."""
    worst: dict[tuple[int, str], Contact] = {}
    for contact in contacts:
        key = contact.line, contact.what
        if key not in worst or worst[key].depth_mm < contact.depth_mm:
            worst[key] = contact
    each = sorted(worst.values(), key=lambda one: one.line)
    found = []
    for n, one in enumerate(each[:MOST_CONTACTS], 1):
        more = len(each) - n if n == MOST_CONTACTS else 0
        rest = f"; {more} more lines like it" if more else ""
        what = said("line {}: {}, {} deep at {}{}", one.line, one.what, q(one.depth_mm), place_text(*one.at), rest)
        found.append(Finding("error", "contact", what, "tool, part or machine break", at=one.at, line=one.line))
    return found


def _hold_findings(cutter: Cutter) -> list[Finding]:
    """A hold that stays open, and a bar that stands out too far or not far enough."""
    found = []
    if cutter.cut_open:
        what = f"line {cutter.cut_open}: a cut while the hold is open"
        found.append(Finding("error", "hold.open", what, "nothing holds the bar", line=cutter.cut_open))
    elif cutter.open_line is not None:
        what = f"line {cutter.open_line}: the hold opens and never closes again"
        found.append(Finding("error", "hold.open", what, "nothing holds the bar", line=cutter.open_line))
    for line, gap in cutter.missed:
        if abs(gap) > MISSED_MM:
            what = said(
                "line {}: the hold opens and the gripper's stop is {} from the end of the bar", line, q(abs(gap))
            )
            found.append(Finding("error", "bar.missed", what, "it does not hold the bar", line=line))
    for line in cutter.dead[:1]:
        what = f"line {line}: a tool is fed into metal that does not turn"
        found.append(Finding("error", "spindle.stopped", what, "the edge breaks", line=line))
    for line, more in cutter.fed:
        if abs(more) > FED_MM:
            word = "farther" if more > 0 else "less far"
            what = said("line {}: the bar stands out {} {} than the plan has it", line, q(abs(more)), word)
            found.append(Finding("error", "bar.length", what, "everything after it is cut in another place", line=line))
    return found


def _past_centre(program: Program, cutter: Cutter, steps: Sequence[MoveDone]) -> list[Finding]:
    """Cuts that go so far beyond the axis that the edge runs against its back."""
    found: dict[int, Finding] = {}
    for motion, step in zip(program.motions, steps, strict=True):
        if step.removed_mm2 <= 0 or not cutter.knows(motion.station):
            continue
        allowed = cutter.past_centre_mm(motion.station)
        beyond = -min(motion.start[1], motion.end[1])
        if beyond > allowed and motion.section not in found:
            found[motion.section] = Finding(
                "warning",
                "axis.past_centre",
                said("line {}: X goes {} past the centre", motion.line, q(beyond)),
                said("{} are enough for this tool; farther on the metal comes up against its back", q(allowed)),
                at=motion.end,
                line=motion.line,
            )
    return list(found.values())


def _loose_findings(cutter: Cutter) -> list[Finding]:
    return [
        Finding(
            "warning",
            "loose",
            said(
                "line {}: a loose ring of {} falls off at {}",
                line,
                q(ring.area, "mm2", ".2f"),
                place_text(ring.centroid.x),
            ),
            "it can jam between tool and part",
            at=(ring.centroid.x, ring.centroid.y),
            line=line,
        )
        for line, ring in cutter.loose
        if ring.area > 0.05
    ]


def _is_rag(piece: Region, part: Region) -> bool:
    """A crumb on the edge of declared metal, off the part: chords of what is declared and of what is cut differ."""
    return bool(piece.area < RAG_MM2 and piece.distance(part) > RAG_OFF_MM)


def _left(region: Region, scene: Scene) -> tuple[tuple[tuple[float, float], float], ...]:
    """Where metal is left and how thick it is, um."""
    found = []
    for piece in sorted(polygons(region), key=lambda one: -one.area):
        place = piece.representative_point()
        found.append(((place.x, place.y), 1000 * thickness(piece, scene.part)))
    return tuple(found)


def _leftover_findings(region: Region, scene: Scene, program: Program, cutter: Cutter) -> list[Finding]:
    found = []
    for piece in sorted(polygons(region), key=lambda p: -p.area)[:12]:
        depth = thickness(piece, scene.part)
        place = piece.representative_point()
        line = _nearest_line(piece, program, cutter)
        where = f"; nearest cut is line {line}" if line else ""
        found.append(
            Finding(
                "error",
                "leftover",
                said("{} left at {}{}", q(1000 * depth, "um", ".1f"), place_text(place.x, place.y), where),
                "the plan says this surface is clean",
                at=(place.x, place.y),
                line=line,
            )
        )
    return found


def _nearest_line(piece: Region, program: Program, cutter: Cutter) -> int | None:
    """The move that should have cut a piece of metal: the last of those that run along it."""
    cuts = [motion for motion in program.motions if not motion.is_rapid and cutter.knows(motion.station)]
    if not cuts:
        return None
    lines = [shapely.LineString(motion.segment.points(0.01)) for motion in cuts]
    beside = shapely.length(shapely.intersection(lines, piece.buffer(NEAR_MM)))
    if beside.max() <= 0:
        return cuts[int(shapely.distance(lines, piece).argmin())].line
    return cuts[int(np.flatnonzero(beside >= 0.8 * beside.max())[-1])].line


def _declared_findings(kept: Region, scene: Scene, job: Job) -> list[Finding]:
    """What the plan said would stay: a note for the rounding of inner corners, a warning for anything more."""
    noses = [shape_of(tool).nose_radius for tool in job.tools]
    turning = [nose for nose, tool in zip(noses, job.tools, strict=True) if tool.kind == "turning"]
    smallest = min(turning or noses, default=0.0)
    found = []
    two_sides = len(job.setups) > 1
    for piece in polygons(kept):
        depth = thickness(piece, scene.part)
        if 1000 * depth <= 5.0:
            continue
        z0, _, z1, _ = piece.bounds
        stretch = said("between {} and {}", place_text(z0), place_text(z1))
        at = (piece.centroid.x, piece.centroid.y)
        if piece.area <= smallest**2 and depth <= smallest:
            found.append(
                Finding(
                    "note",
                    "reach.corner",
                    said("{} stays in the inner corner {}", q(depth, "mm", ".3f"), stretch),
                    "the nose of the tool rounds it",
                    at=at,
                )
            )
        else:
            found.append(
                Finding(
                    "note" if two_sides else "warning",
                    "reach.left",
                    said("{} ({}) stays {}", q(depth, "mm", ".3f"), q(piece.area, "mm2", ".2f"), stretch),
                    "no finishing cut of the plan reaches it",
                    at=at,
                )
            )
    return found
