"""What can be wrong with a thread: insert, crest, room in front and behind, speed."""

import re
from collections.abc import Callable, Iterator

from toreuma.core.findings import Cure, Finding, Severity
from toreuma.core.model import CutThread, Job, Part
from toreuma.core.model.feature import ThreadFeature
from toreuma.core.model.operation_base import ThreadForm
from toreuma.core.model.part import Size
from toreuma.core.model.tool import ThreadingTool, ThreadInsert
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
    place = (feature.from_z_mm, operation.form.crest_d_mm[1] / 2)

    def told(severity: Severity, code: str, what: str, why: str, *cures: Cure) -> Finding:
        return Finding(severity, code, what, why, operation=operation.id, at=place, cures=cures)

    return (
        *_insert(operation.form, tool.insert, feature, told),
        *_room(operation.form, room, told),
        *_crest(work, operation.form, feature, told),
        *sharp_ends(work, operation, feature),
    )


def _insert(
    form: ThreadForm, insert: ThreadInsert, feature: ThreadFeature, told: Callable[..., Finding]
) -> Iterator[Finding]:
    """The insert cuts this thread's profile and pitch, and the operation the part's thread."""
    if not _same(form.designation, feature.designation):
        what = f"the operation cuts {form.designation}, the part has {feature.designation}"
        yield told("error", "thread.other", what, "choose the thread anew")
    if abs(insert.profile_deg - form.flank_deg) > 0.5:
        what = f"the insert's flanks stand at {insert.profile_deg:g}°, the thread's at {form.flank_deg:g}°"
        yield told("error", "thread.flank", what, "the gauge would not go on")
    if form.depth_mm is not None and not insert.goes(form.depth_mm):
        what = said("the insert's tooth is {} high, the thread {} deep", q(insert.profile_depth_mm), q(form.depth_mm))
        yield told("error", "thread.tooth", what, "what carries the tooth would rub on the crests: a higher tooth")
    low, high = insert.pitch_mm
    if not low - 0.01 <= form.pitch_mm <= high + 0.01:
        span = q(low, "mm", "g", bare=True), q(high, "mm", "g")
        what = said("the insert cuts pitches of {} to {}, not {}", *span, q(form.pitch_mm, "mm", ".4g"))
        yield told("error", "thread.pitch", what, "root and crest would come out wrong")


def _room(form: ThreadForm, room: tuple[float, float], told: Callable[..., Finding]) -> Iterator[Finding]:
    """Room to come up to speed, and behind the thread."""
    run_in, least = room[1] if form.left_hand else room[0], LEAST_TURNS * form.lead_mm
    if run_in < -SAME_MM:
        what = said("the insert would come down {} inside the thread: metal stands where it begins", q(-run_in))
        yield told("error", "thread.room", what, "cut the neck or the seat before it first, or a slimmer insert")
    elif run_in < least - 1e-6:
        what = said("only {} of run-in, {} turns are {}", q(run_in), f"{LEAST_TURNS:g}", q(least))
        yield told("warning", "thread.start", what, "its first turns are not true: a wider neck")
    if room[1] < -SAME_MM:
        what = said("the insert meets the shoulder {} before the thread ends", q(-room[1]))
        yield told("error", "thread.end", what, "a wider relief, a slimmer insert, or a shorter thread")


def _crest(work: Work, form: ThreadForm, feature: ThreadFeature, told: Callable[..., Finding]) -> Iterator[Finding]:
    """The crest is turned to the thread's limits before it is cut."""
    crest = _crest_d(work, feature)
    middle = feature.length_mm / 2 - form.gauge_mm  # from the gauge plane, away from where the mate goes on
    grows = form.taper * (middle if feature.side == "outside" else -middle)
    least, most = (size + grows for size in form.crest_d_mm)
    if crest is not None and not least - SAME_MM <= crest <= most + SAME_MM:
        word = "outside" if feature.side == "outside" else "bore"
        limits = q(least, "mm", ".3f", bare=True), q(most, "mm", ".3f")
        what = said("the {} is turned to Ø {}, the thread's limits are {} to {}", word, q(crest, "mm", ".3f"), *limits)
        why = "full-profile inserts clean the crest, others leave it as it is"
        yield told("warning", "thread.crest", what, why, *_own_limits(work.given.part, feature, least, most))


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
