"""The reasons panel on the part stage: the selected surface or feature, or the part as a whole."""

from collections.abc import Callable
from typing import Any

from toreuma.app.forms.fields import PART_FIELDS
from toreuma.app.forms.findings import FindingCard
from toreuma.app.forms.part_cells import cell_text, typed_change
from toreuma.app.forms.part_edits import (
    ADDABLE,
    added_feature,
    at_corner,
    chained,
    changed_element,
    changed_feature,
    known_thread,
    on_surface,
    split,
    tapered,
)
from toreuma.app.forms.reasons import ReasonsPanel
from toreuma.app.forms.size_text import size_text, with_size
from toreuma.app.words import tr
from toreuma.core.advise.unsaid import unsaid
from toreuma.core.edit.features import without_feature
from toreuma.core.errors import ToreumaError
from toreuma.core.geometry.taper import half_angle_deg
from toreuma.core.kinds.features import FEATURES
from toreuma.core.kinds.field import Field
from toreuma.core.model import Element, Job
from toreuma.core.model.part import limits_turned
from toreuma.core.standards.general import general_tolerance_mm
from toreuma.core.standards.threads import thread_of
from toreuma.core.units import show
from toreuma.engine.features import standard_reliefs
from toreuma.shipped.standards import general_tables, thread_tables

__all__ = ["PartReasons"]

RELIEF_SIZES = ("length_mm", "depth_mm", "face_depth_mm", "radius_mm")
MIDDLE = "Ø {} to {}; cut to the middle"
GROUND = "Ø {} to {}; turned so, ground to size after"
GENERAL = (("None", ""), ("Fine (f)", "f"), ("Medium (m)", "m"), ("Coarse (c)", "c"), ("Very coarse (v)", "v"))


class PartReasons(ReasonsPanel):
    """What is selected on the part, with its sizes to type."""

    def show_job(self, job: Job) -> None:
        chosen = self.session.selection
        elements = chained(job, chosen.side)
        if chosen.feature is not None and chosen.feature < len(job.part.features):
            _feature(self, job, chosen.feature)
        elif chosen.element is not None and chosen.element < len(elements):
            _surface(self, job, chosen.side, chosen.element, elements[chosen.element])
        else:
            _whole(self, job)


def _whole(panel: PartReasons, job: Job) -> None:
    outcome = panel.session.outcome
    findings = outcome.plan.findings if outcome else ()
    left = unsaid(job.part)
    fresh = panel.start(("whole", panel.finding_key(findings), panel.finding_key(left)))
    panel.text("title", "title", job.part.name or job.name)
    panel.text("size", "muted", _extent(panel, job))
    panel.line("job", "Job: its name", job.name, lambda j, v: j.changed(name=v or j.name))
    for field in PART_FIELDS:
        panel.typed(
            f"part.{field.name}",
            field,
            getattr(job.part, field.name),
            lambda j, number, n=field.name: j.changed(part=j.part.changed(**{n: number})),  # type: ignore[misc]
        )
    panel.choice(
        "general",
        "General tolerance",
        GENERAL,
        job.part.general_tolerance,
        lambda j, v: j.changed(part=j.part.changed(general_tolerance=v)),
    )
    for index, words in ((0, "Front end"), (len(job.part.outside) - 1, "Back end")):
        text = cell_text(job.part.outside[index], "corner", job.units)
        panel.line(f"end.{words}", f"{words}: sharp; C1 or R1", text, _with_end(words == "Back end"))
    if fresh:
        panel.heading("Add")
        panel.buttons([(words, lambda k=kind: _add(panel, k)) for words, kind in ADDABLE])  # type: ignore[misc]
        panel.heading("Read or write")
        panel.buttons(
            [
                ("Read a drawing or model…", lambda: panel.session.wanted.emit("import")),
                ("Write DXF or STEP…", lambda: panel.session.wanted.emit("export")),
            ],
            columns=1,
        )
        panel.findings(findings)
        if left:
            panel.heading("Not said yet")
            panel.note("What a drawing usually says and this part does not; leave what it really leaves open.")
        for finding in left:
            panel.add(FindingCard(finding, panel.session, panel.theme))
        panel.end()


def _with_end(back: bool) -> Callable[[Job, str], Job]:
    """The edge of an end as typed: C1 for a chamfer, R1 for a round."""

    def change(job: Job, text: str) -> Job:
        index = len(job.part.outside) - 1 if back else 0
        element = job.part.outside[index]
        return changed_element(job, "outside", index, **typed_change("corner", text, job.units, element))

    return change


def _extent(panel: PartReasons, job: Job) -> str:
    outcome, system = panel.session.outcome, panel.session.system
    if outcome is None:
        return ""
    profile = outcome.plan.scene.profile
    largest = show(2 * profile.largest_r, "mm", system, trim=True)
    return (
        f"Ø {largest}, {show(-profile.back_z, 'mm', system, trim=True)} long. Click a surface, a corner or a feature."
    )


def _add(panel: PartReasons, kind: str) -> None:
    session = panel.session
    _report(panel, session.attempt(lambda job: added_feature(job, kind)))
    if session.job is not None and session.job.part.features:
        session.select(feature=len(session.job.part.features) - 1)


def _report(panel: PartReasons, error: ToreumaError | None) -> None:
    if error is not None:
        panel.session.message.emit("error", f"{error.what}; {error.cure}")


def _surface(panel: PartReasons, job: Job, side: str, index: int, element: Element) -> None:
    before = chained(job, side)[index - 1] if index else None
    level = before is not None and element.kind == "line" and before.d_mm == element.d_mm
    fresh = panel.start(("surface", side, index, element.kind, level))
    place = "outside" if side == "outside" else "bore"
    panel.text("title", "title", element.name or f"{'Cylinder' if level else 'Element'} {index + 1}, {place}")
    panel.line("name", "Name: of this surface", element.name, lambda j, v: changed_element(j, side, index, name=v))
    fields = [Field("z_mm", "ends at Z", "mm"), Field("d_mm", "diameter at its end", "mm", "on diameter")]
    fields += [Field("radius_mm", "arc radius", "mm")] if element.kind == "arc" else []
    fields += [Field("ra_um", "wanted Ra", "um", empty="open")]
    fields += [Field("grind_mm", "left for grinding", "mm", "on diameter", empty="none")] if level else []
    for field in fields:
        panel.typed(
            f"element.{field.name}",
            field,
            getattr(element, field.name),
            lambda j, number, n=field.name: changed_element(j, side, index, **{n: number}),  # type: ignore[misc]
        )
    if element.kind == "line" and before is not None and not level and before.z_mm > element.z_mm:
        panel.line(
            "taper",
            "Taper: 20°, 40° included, 1:10",
            _taper_text(before, element),
            lambda j, v: tapered(j, side, index, v),
        )
    if level:
        panel.line(
            "size",
            "Limits: h6, H7, or +0.02/-0.01",
            size_text(element.size, panel.session.system),
            lambda j, v: with_size(j, side, index, v),
        )
        limits = limits_turned(element, side)
        if limits is not None:
            low, high = (show(one, "mm", panel.session.system) for one in limits)
            panel.text("limits", "muted", tr(GROUND if element.grind_mm is not None else MIDDLE).format(low, high))
        else:
            panel.text("limits", "muted", _general(panel, job, element.d_mm))
    if fresh:
        panel.heading("At the far end")
        session = panel.session
        panel.buttons(
            [
                ("Chamfer", lambda: _report(panel, session.attempt(lambda j: at_corner(j, side, index, "chamfer")))),
                ("Round", lambda: _report(panel, session.attempt(lambda j: at_corner(j, side, index, "round")))),
                ("Relief", lambda: _onto(panel, side, index, "relief")),
                ("Sharp", lambda: _report(panel, session.attempt(lambda j: at_corner(j, side, index, "")))),
            ],
            columns=4,
        )
        panel.heading("On this surface")
        panel.buttons(
            [
                ("Split", lambda: _report(panel, session.attempt(lambda j: split(j, side, index)))),
                ("Groove", lambda: _onto(panel, side, index, "groove")),
                ("Thread", lambda: _onto(panel, side, index, "thread")),
                *((("Knurl", lambda: _onto(panel, side, index, "knurl")),) if side == "outside" else ()),
                ("Flats", lambda: _onto(panel, side, index, "flats")),
                ("Slot", lambda: _onto(panel, side, index, "slot")),
                ("Holes", lambda: _onto(panel, side, index, "holes")),
            ],
            columns=3,
        )
        panel.end()


def _taper_text(before: Element, element: Element) -> str:
    angle = half_angle_deg(before.d_mm, element.d_mm, before.z_mm - element.z_mm)
    return f"{angle:.4g}°".replace("-", "\u2212")


def _general(panel: PartReasons, job: Job, d_mm: float) -> str:
    """What the general tolerance allows this diameter."""
    allowed = general_tolerance_mm(d_mm, job.part.general_tolerance, general_tables())
    if allowed is None:
        return ""
    return f"± {show(allowed, 'mm', panel.session.system, trim=True)}, general tolerance {job.part.general_tolerance}"


def _onto(panel: PartReasons, side: str, index: int, kind: str) -> None:
    session = panel.session
    count = len(session.job.part.features) if session.job else 0
    _report(panel, session.attempt(lambda job: on_surface(job, side, index, kind)))
    if session.job is not None and len(session.job.part.features) > count:
        session.select(feature=count)


def _feature(panel: PartReasons, job: Job, index: int) -> None:
    feature: Any = job.part.features[index]
    fresh = panel.start(("feature", index, feature.kind))
    panel.text("title", "title", feature.name or tr(FEATURES[feature.kind].label))
    panel.line("name", "Name", feature.name, lambda j, v: changed_feature(j, index, name=v))
    if feature.kind == "thread":
        panel.line(
            "designation",
            "Thread: M20x1.5-6g",
            feature.designation,
            lambda j, v: changed_feature(j, index, designation=known_thread(v)),
        )
        panel.text("thread", "muted", _thread_facts(panel, feature))
    place = FEATURES[feature.kind].place
    if place is not None:
        name, options = place
        panel.choice(
            "place", "Where", options, getattr(feature, name), lambda j, v: changed_feature(j, index, **{name: v})
        )
    if feature.kind == "relief":
        forms = (
            ("Form E: cylinder", "E"),
            ("Form F: cylinder and face", "F"),
            ("Form G: both, short", "G"),
            ("Form H: both, well rounded", "H"),
            ("Thread run-out", "thread"),
        )
        panel.choice("form", "Form", forms, feature.form, lambda j, v: changed_feature(j, index, form=v))
        sizes = tuple(
            (f"{row['form']} {row['name']}", row["name"]) for row in standard_reliefs(feature.form, feature.side)
        )
        if sizes:
            now = next(
                (row["name"] for row in standard_reliefs(feature.form, feature.side) if _is_size(feature, row)), ""
            )
            options = (("typed", ""), *sizes)
            panel.choice("standard", "Standard size", options, now, lambda j, v: _sized_relief(j, index, v))
        ways = (("In front of the shoulder", "front"), ("Behind the shoulder", "back"))
        panel.choice("toward", "Lies", ways, feature.toward, lambda j, v: changed_feature(j, index, toward=v))
    for field in FEATURES[feature.kind].fields:
        if field.options:
            change = lambda j, v, n=field.name: changed_feature(j, index, **{n: v})  # noqa: E731
            now = getattr(feature, field.name)
            panel.choice(f"feature.{field.name}", field.label, field.options, now, change)
            continue
        panel.typed(
            f"feature.{field.name}",
            field,
            getattr(feature, field.name),
            lambda j, number, n=field.name: changed_feature(j, index, **{n: number}),  # type: ignore[misc]
        )
    if fresh:
        panel.buttons([("Take it out", lambda: _take_out(panel, index))])
        panel.end()


def _is_size(feature: Any, row: dict[str, Any]) -> bool:
    return all(abs(getattr(feature, name) - row[name]) < 1e-9 for name in RELIEF_SIZES)


def _sized_relief(job: Job, index: int, name: str) -> Job:
    """The relief with the sizes of a standard one."""
    feature: Any = job.part.features[index]
    row = next((row for row in standard_reliefs(feature.form, feature.side) if row["name"] == name), None)
    return changed_feature(job, index, **{key: row[key] for key in RELIEF_SIZES}) if row else job


def _take_out(panel: PartReasons, index: int) -> None:
    _report(panel, panel.session.attempt(lambda job: without_feature(job, index)))
    panel.session.select()


def _thread_facts(panel: PartReasons, feature: Any) -> str:
    try:
        thread = thread_of(feature.designation, thread_tables())
    except ToreumaError as error:
        return f"{error.what}; {error.cure}"
    side = thread.external if feature.side == "outside" else thread.internal
    system = panel.session.system
    lines = [
        f"{name} Ø {show(limits.min, 'mm', system).number} to {show(limits.max, 'mm', system)}"
        for name, limits in (("major", side.major), ("pitch", side.pitch), ("minor", side.minor))
    ]
    depth = thread.depth_external if feature.side == "outside" else thread.depth_internal
    return (
        f"{side.tolerance}: " + "; ".join(lines) + f". Pitch {show(thread.pitch_mm, 'mm', system)}, depth "
        f"{show(depth, 'mm', system)} on radius."
    )
