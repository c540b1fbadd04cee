"""What can be wrong with a thread: insert, crest, room in front and behind, speed."""

import re

from toreuma.core.findings import Cure, Finding
from toreuma.core.model import CutThread, Job, Part
from toreuma.core.model.feature import ThreadFeature
from toreuma.core.model.part import Size
from toreuma.core.model.tool import ThreadingTool
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.thread.ends import sharp_ends
from toreuma.core.spoken import q, said

__all__ = ["thread_findings"]

LEAST_TURNS = 1.5
"""Below so many turns of run-in the first thread's pitch is not yet true."""

SAME_MM = 2e-3


CLASS = r"(\d?[A-H])*"
"""A tolerance class, as 6G, 5G6G, 2A or the A of a pipe thread."""


def _same(cut: str, wanted: str) -> bool:
    """A designation without its tolerance class names what another one with it names: ``M24x2 LH``, ``M24x2-6g-LH``."""
    left, plain = [], []
    for text in (cut, wanted):
        bare = re.sub(r"[\s-]", "", text.upper())
        left.append(bare.endswith("LH"))
        plain.append(bare.removesuffix("LH"))
    plain.sort(key=len)
    return left[0] == left[1] and re.fullmatch(re.escape(plain[0]) + CLASS, plain[1]) is not None


def thread_findings(
    work: Work, operation: CutThread, tool: ThreadingTool, feature: ThreadFeature, room: tuple[float, float]
) -> tuple[Finding, ...]:
    """Findings of one thread; ``room`` is that in front of it and behind it, mm."""
    form, insert, found = operation.form, tool.insert, []

    def add(severity: str, code: str, what: str, why: str, *cures: Cure) -> None:
        place = (feature.from_z_mm, form.crest_d_mm[1] / 2)
        found.append(Finding(severity, code, what, why, operation=operation.id, at=place, cures=cures))  # type: ignore[arg-type]

    if not _same(form.designation, feature.designation):
        add(
            "error",
            "thread.other",
            f"the operation cuts {form.designation}, the part has {feature.designation}",
            "choose the thread anew",
        )
    if abs(insert.profile_deg - form.flank_deg) > 0.5:
        add(
            "error",
            "thread.flank",
            f"the insert's flanks stand at {insert.profile_deg:g}°, the thread's at {form.flank_deg:g}°",
            "the gauge would not go on",
        )
    low, high = insert.pitch_mm
    if not low - 0.01 <= form.pitch_mm <= high + 0.01:
        add(
            "error",
            "thread.pitch",
            said(
                "the insert cuts pitches of {} to {}, not {}",
                q(low, "mm", "g", bare=True),
                q(high, "mm", "g"),
                q(form.pitch_mm, "mm", ".4g"),
            ),
            "root and crest would come out wrong",
        )
    run_in = room[1] if form.left_hand else room[0]
    if run_in < LEAST_TURNS * form.lead_mm - 1e-6:
        add(
            "warning",
            "thread.start",
            said("only {} of run-in, {} turns are {}", q(run_in), f"{LEAST_TURNS:g}", q(LEAST_TURNS * form.lead_mm)),
            "its first turns are not true: a wider neck",
        )
    if room[1] < -SAME_MM:
        add(
            "error",
            "thread.end",
            said("the insert meets the shoulder {} before the thread ends", q(-room[1])),
            "a wider relief, a slimmer insert, or a shorter thread",
        )
    crest = _crest_d(work, feature)
    middle = feature.length_mm / 2 - form.gauge_mm
    grows = form.taper * (middle if feature.side == "outside" else -middle)
    least, most = (size + grows for size in form.crest_d_mm)
    if crest is not None and not least - SAME_MM <= crest <= most + SAME_MM:
        word = "outside" if feature.side == "outside" else "bore"
        add(
            "warning",
            "thread.crest",
            said(
                "the {} is turned to Ø {}, the thread's limits are {} to {}",
                word,
                q(crest, "mm", ".3f"),
                q(least, "mm", ".3f", bare=True),
                q(most, "mm", ".3f"),
            ),
            "full-profile inserts clean the crest, others leave it as it is",
            *_own_limits(work.given.part, feature, least, most),
        )
    found += sharp_ends(work, operation, feature)
    return tuple(found)


def _crest_d(work: Work, feature: ThreadFeature) -> float | None:
    """Diameter the part has where the thread sits, mm."""
    middle = feature.from_z_mm - feature.length_mm / 2
    chain = work.scene.profile if feature.side == "outside" else work.scene.shape.bore
    for segment in chain.segments if chain is not None else ():
        (z0, r0), (z1, r1) = segment.start, segment.end
        if min(z0, z1) < middle < max(z0, z1):
            return 2 * (r0 + (r1 - r0) * (middle - z0) / (z1 - z0))
    return None


def _own_limits(part: Part, feature: ThreadFeature, least: float, most: float) -> tuple[Cure, ...]:
    """Give the cylinder the limits of the thread's crest."""
    side = "outside" if feature.side == "outside" else "inside"
    elements = part.outside if side == "outside" else part.inside
    middle = feature.from_z_mm - feature.length_mm / 2
    before, index = 0.0, None
    for i, element in enumerate(elements):
        if element.z_mm < middle < before:
            index = i
            break
        before = element.z_mm
    if index is None or elements[index].kind != "line":
        return ()
    at, d = index, elements[index].d_mm

    def apply(job: Job) -> Job:
        size = Size(lower_um=round(1000 * (least - d), 1), upper_um=round(1000 * (most - d), 1))
        kept = job.part.outside if side == "outside" else job.part.inside
        changed = tuple(one.changed(size=size) if i == at else one for i, one in enumerate(kept))
        return job.changed(part=job.part.changed(**{side: changed}))

    return (Cure("Give the cylinder the limits of the thread", apply),)
