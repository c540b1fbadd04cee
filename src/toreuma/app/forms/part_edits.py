"""Edits of the part that buttons and clicks ask for: each takes a job and gives the changed one."""

from collections.abc import Sequence
from typing import Any

from toreuma.core.errors import PartError
from toreuma.core.geometry.taper import end_diameter
from toreuma.core.kinds.features import FEATURES
from toreuma.core.model import Element, Job
from toreuma.core.model.feature import Feature
from toreuma.core.standards.threads import thread_of
from toreuma.core.units import System, parse, show
from toreuma.engine.features import feature_on, new_feature
from toreuma.shipped.standards import thread_tables

__all__ = [
    "ADDABLE",
    "added_feature",
    "at_corner",
    "chained",
    "changed_element",
    "changed_feature",
    "feature_text",
    "known_thread",
    "on_surface",
    "split",
    "tapered",
    "typed_feature",
]

ADDABLE = (
    ("Bore through", "bore"),
    ("Axial hole", "axial_hole"),
    ("Centre hole", "centre_hole"),
    ("Face groove", "face_groove"),
    ("Holes in the face", "holes"),
    ("Wrench flats", "flats"),
)

CORNER_MM = 0.5


def chained(job: Job, side: str) -> tuple[Element, ...]:
    """Elements of the outside or the inside profile."""
    return job.part.outside if side == "outside" else job.part.inside


def _is_there(things: Sequence[object], index: int, section: str) -> None:
    """An undo may have taken away what is still being typed into. Raises `PartError`."""
    if not 0 <= index < len(things):
        raise PartError(-1, "", "what was typed into is no longer there", "choose another", section)


def changed_element(job: Job, side: str, index: int, **changes: Any) -> Job:
    elements = list(chained(job, side))
    _is_there(elements, index, side)
    elements[index] = elements[index].changed(**changes)
    return job.changed(part=job.part.changed(**{side: tuple(elements)}))


def split(job: Job, side: str, index: int) -> Job:
    """Two elements in place of one, joined in the middle of it."""
    elements = list(chained(job, side))
    _is_there(elements, index, side)
    here = elements[index]
    if index == 0 or here.kind == "arc":
        raise PartError(index, "kind", "only a straight element behind the first can be split", "choose another", side)
    before = elements[index - 1]
    middle = Element(z_mm=round((before.z_mm + here.z_mm) / 2, 4), d_mm=round((before.d_mm + here.d_mm) / 2, 4))
    elements.insert(index, middle)
    return job.changed(part=job.part.changed(**{side: tuple(elements)}))


def tapered(job: Job, side: str, index: int, text: str) -> Job:
    """The end of an element moved so that it tapers as typed. Raises `UnitError`."""
    _is_there(chained(job, side), index, side)
    before, here = chained(job, side)[index - 1 : index + 1]
    end = end_diameter(text, before.d_mm, before.z_mm - here.z_mm)
    return changed_element(job, side, index, d_mm=round(end, 5))


def at_corner(job: Job, side: str, index: int, kind: str) -> Job:
    """A chamfer or round at the end of an element, or a sharp corner."""
    return changed_element(job, side, index, corner={"kind": kind, "size_mm": CORNER_MM} if kind else None)


def on_surface(job: Job, side: str, index: int, kind: str) -> Job:
    """A groove, thread, relief or milled extra where the surface has room for it."""
    return _with(job, feature_on(job, side, index, kind))


def added_feature(job: Job, kind: str) -> Job:
    """Something new on the part: a bore, a hole, a groove in the face."""
    if kind == "bore":
        if job.part.inside:
            raise PartError(-1, "", "the part has a bore already", "edit it in the table", "inside")
        deep = min(element.z_mm for element in job.part.outside)
        d = round(0.4 * job.part.outside[0].d_mm, 1)
        bore = (Element(z_mm=0.0, d_mm=d), Element(z_mm=deep, d_mm=d, name="Bore"))
        return job.changed(part=job.part.changed(inside=bore))
    return _with(job, new_feature(job, kind))


def _with(job: Job, feature: dict[str, Any]) -> Job:
    return job.changed(part=job.part.changed(features=(*job.part.features, feature)))


def changed_feature(job: Job, index: int, **changes: Any) -> Job:
    features = list(job.part.features)
    _is_there(features, index, "features")
    feature = features[index]
    features[index] = feature.changed(**FEATURES[feature.kind].along(feature, changes))
    return job.changed(part=job.part.changed(features=tuple(features)))


def feature_text(feature: Feature, field: str, system: System) -> str:
    """What is edited of a feature, as text."""
    value = getattr(feature, field)
    if isinstance(value, str):
        return value
    return "" if value is None else show(value, "mm", system, trim=True).number


def typed_feature(job: Job, index: int, field: str, text: str) -> Job:
    """A feature with one field as typed. Raises `UnitError` or `StandardError`."""
    if field == "designation":
        return changed_feature(job, index, designation=known_thread(text))
    through = not text.strip() and field == "depth_mm"
    return changed_feature(job, index, **{field: None if through else parse(text, "mm", job.units)})


def known_thread(text: str) -> str:
    """The text, when it names a thread. Raises `StandardError`."""
    thread_of(text, thread_tables())
    return text
