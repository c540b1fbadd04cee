"""What a drawing usually says and this part does not yet: a check list, each with what would say it."""

import itertools
import re
from collections.abc import Callable, Iterator

from toreuma.core.findings import Cure, Finding
from toreuma.core.model import Element, Job, Part
from toreuma.core.spoken import q, said

__all__ = ["unsaid"]

FINE_RA_UM = 1.6
"""A surface as smooth as this is asked for where something sits or seals: then it has limits as well."""
EDGE_MM, ROUGH_RA_UM = 0.3, 3.2
"""Usual where nothing is said: edges broken by so much, and the roughness of what nothing touches."""
SAME_MM = 1e-6
CLASS = re.compile(r"\d\s*[A-Za-z]{1,2}\s*(?:LH)?$|-\s*\d?[A-Z]\b", re.I)


def unsaid(part: Part) -> tuple[Finding, ...]:
    """What is not said of a part, as notes; the cures say it the usual way."""
    looked = (_general, _edges, _ends, _threads, _seats, _corners)
    return tuple(itertools.chain.from_iterable(look(part) for look in looked))


def _note(code: str, what: str, why: str, *cures: Cure, at: tuple[float, float] | None = None) -> Finding:
    return Finding("note", f"unsaid.{code}", what, why, cures=cures, at=at)


def _with(**changes: object) -> Callable[[Job], Job]:
    return lambda job: job.changed(part=job.part.changed(**changes))


def _general(part: Part) -> Iterator[Finding]:
    if not part.general_tolerance:
        cure = Cure("General tolerance medium", _with(general_tolerance="m"))
        yield _note("general", "no general tolerance", "sizes without limits are judged by it (ISO 2768-1)", cure)
    if part.ra_um is None:
        cure = Cure(f"Ra {ROUGH_RA_UM:g} unless marked", _with(ra_um=ROUGH_RA_UM))
        yield _note("finish", "no roughness for surfaces without a mark", "the finishing feed comes from it", cure)


def _edges(part: Part) -> Iterator[Finding]:
    if part.edge_break_mm == 0:
        cure = Cure("Break edges 0.3 mm", _with(edge_break_mm=EDGE_MM))
        yield _note("edges", "nothing is said of sharp edges", "the back edge at the cut stays sharp as well", cure)


def _ends(part: Part) -> Iterator[Finding]:
    """Chamfers of both ends."""
    first, last = part.outside[0], part.outside[-1]
    flat = abs(first.z_mm) < SAME_MM and first.d_mm > 0 and first.kind == "line"
    ends = ((0, first, "front", flat), (len(part.outside) - 1, last, "back", last.d_mm > 0))
    for index, element, words, there in ends:
        if there and element.corner is None and part.edge_break_mm == 0:
            cure = Cure(f"Chamfer 1 mm on the {words} end", _cornered(index, 1.0))
            yield _note("end", f"no chamfer on the {words} end", "an end is pushed into something, or handled", cure,
                        at=(element.z_mm, element.d_mm / 2))  # fmt: skip


def _cornered(index: int, size_mm: float) -> Callable[[Job], Job]:
    def change(job: Job) -> Job:
        elements = list(job.part.outside)
        elements[index] = elements[index].changed(corner={"kind": "chamfer", "size_mm": size_mm})
        return job.changed(part=job.part.changed(outside=tuple(elements)))

    return change


def _threads(part: Part) -> Iterator[Finding]:
    """Threads without a class."""
    for index, feature in enumerate(part.features):
        name = feature.designation if feature.kind == "thread" else getattr(feature, "thread", "")
        if not name or CLASS.search(name) or name[:1] in "GRN":
            continue
        inside = feature.kind != "thread" or feature.side == "inside"
        pair = ("2A", "2B") if "UN" in name.upper() else ("7e", "7H") if name[:2] == "Tr" else ("6g", "6H")
        usual = pair[inside]
        field = "designation" if feature.kind == "thread" else "thread"
        yield _note(
            "class",
            f"thread {name} has no class",
            "its limits and gauges come from it",
            Cure(f"Class {usual}", _featured(index, field, f"{name}-{usual}")),
        )


def _featured(index: int, field: str, text: str) -> Callable[[Job], Job]:
    def change(job: Job) -> Job:
        features = list(job.part.features)
        features[index] = features[index].changed(**{field: text})
        return job.changed(part=job.part.changed(features=tuple(features)))

    return change


def _seats(part: Part) -> Iterator[Finding]:
    """Smooth cylinders without limits, outside and in the bore."""
    for side, elements in (("outside", part.outside), ("bore", part.inside)):
        for before, here in itertools.pairwise(elements):
            level = here.kind == "line" and abs(before.d_mm - here.d_mm) < SAME_MM and before.z_mm - here.z_mm > SAME_MM
            smooth = here.ra_um is not None and here.ra_um <= FINE_RA_UM
            if level and smooth and here.size is None and not _threaded(part, before, here):
                what = said("Ø {} ({}) is smooth and has no limits", q(here.d_mm, "mm", "g"), side)
                middle = (before.z_mm + here.z_mm) / 2
                yield _note("seat", what, "something sits or runs there: give it a fit, such as h7 or H7",
                            at=(middle, here.d_mm / 2))  # fmt: skip


def _threaded(part: Part, before: Element, here: Element) -> bool:
    threads = (one for one in part.features if one.kind == "thread")
    return any(before.z_mm + SAME_MM >= one.from_z_mm >= here.z_mm for one in threads)


def _corners(part: Part) -> Iterator[Finding]:
    """Sharp inner corners beside a surface with limits: neither a round nor an undercut."""
    relieved = {round(one.z_mm, 3) for one in part.features if one.kind in ("relief", "groove")}
    triples = zip(part.outside, part.outside[1:], part.outside[2:], strict=False)
    for before, here, after in triples:
        up = abs(after.z_mm - here.z_mm) < SAME_MM and after.d_mm > here.d_mm + SAME_MM
        level = abs(before.d_mm - here.d_mm) < SAME_MM
        seat = level and here.size is not None and not _threaded(part, before, here)
        if up and seat and here.corner is None and round(here.z_mm, 3) not in relieved:
            z, d = q(here.z_mm, "mm", "g", bare=True), q(here.d_mm, "mm", "g")
            what = said("sharp inner corner at Z {} beside Ø {}", z, d)
            yield _note("corner", what, "a tool leaves its nose radius there: draw a round or an undercut",
                        at=(here.z_mm, here.d_mm / 2))  # fmt: skip
