"""Features in words of their own, complete: what the usual words leave out follows as ``field=value``."""

import itertools
from collections.abc import Callable, Sequence
from typing import Any

from toreuma.core.geometry.centre_forms import cone_mouth
from toreuma.core.line.number import length_text, plain_text
from toreuma.core.model import Feature
from toreuma.core.units import System

__all__ = ["feature_texts"]


class _Writer:
    """Words of one feature, and which of its fields they have said."""

    def __init__(self, feature: Any, whole_mm: float, units: System) -> None:
        self.feature, self.whole_mm, self.units = feature, whole_mm, units
        self.said: set[str] = {"kind"}

    def mm(self, field: str, factor: float = 1.0) -> str:
        self.said.add(field)
        return length_text(factor * getattr(self.feature, field), self.units)

    def at(self, field: str) -> str:
        self.said.add(field)
        return f"at {length_text(-getattr(self.feature, field), self.units)}"

    def choice(self, field: str, words: dict[Any, str]) -> str:
        """A word for the value of a field; unsaid where there is none for it."""
        value = getattr(self.feature, field)
        if value not in words:
            return ""
        self.said.add(field)
        return words[value]

    def rest(self) -> list[str]:
        """Everything that is not said and not as usual."""
        found = []
        for name, field in type(self.feature).model_fields.items():
            value = getattr(self.feature, name)
            if name in self.said or value is None or value == field.default:
                continue
            stem, _, unit = name.rpartition("_")
            if name == "name":
                found.append("'" + value.replace("'", "’") + "'")
            elif unit == "mm":
                found.append(f"{stem.replace('_', ' ')}={length_text(value, self.units)}")
            elif unit == "deg":
                found.append(f"{stem.replace('_', ' ')}={plain_text(value)}")
            elif isinstance(value, bool):
                found.append(f"{name.replace('_', ' ')}={'yes' if value else 'no'}")
            else:
                found.append(f"{name.replace('_', ' ')}={value}")
        return found


def _side(w: _Writer) -> str:
    return w.choice("side", {"outside": "", "inside": "bore "})


def _groove(w: _Writer) -> list[str]:
    return [f"{_side(w)}g {w.mm('width_mm')} x {w.mm('d_mm')}", w.at("z_mm")]


def _face_groove(w: _Writer) -> list[str]:
    f = w.feature
    w.said |= {"d_mm", "width_mm"}
    walls = [length_text(v, w.units) for v in (f.d_mm, round(f.d_mm - 2 * f.width_mm, 6))]
    return [f"face g {walls[0]} > {walls[1]} x {w.mm('depth_mm')}", w.choice("end", {"front": "", "back": "back"})]


def _relief(w: _Writer) -> list[str]:
    f = w.feature
    w.said |= {"form", "toward", "side"}
    form = "thread=yes" if f.form == "thread" else f.form
    side = "bore " if f.side == "inside" else ""
    sizes = (f"radius={w.mm('radius_mm')} depth={w.mm('depth_mm')} length={w.mm('length_mm')} "
             f"face depth={w.mm('face_depth_mm')}")  # fmt: skip
    return [f"{side}relief sizes {form}", sizes, w.at("z_mm"), "back" if f.toward == "back" else ""]


def _thread(w: _Writer) -> list[str]:
    w.said.add("designation")
    return [f"{_side(w)}thread {w.feature.designation} x {w.mm('length_mm')}", w.at("from_z_mm")]


def _knurl(w: _Writer) -> list[str]:
    w.said.add("form")
    return [f"knurl {w.feature.form} {w.mm('pitch_mm')} x {w.mm('length_mm')}", w.at("from_z_mm")]


def _depths(w: _Writer) -> list[str]:
    """Of its thread, and of the hole; a depth alone is the hole's where it has no thread."""
    f = w.feature
    if f.thread and f.thread_length_mm is None and f.depth_mm is not None:
        return []  # written by its name: a depth alone would be the thread's
    w.said |= {"thread_length_mm", "depth_mm"}
    depths = []
    if f.thread and f.thread_length_mm is not None:
        depths.append(f"x {length_text(f.thread_length_mm, w.units)}")
    if f.depth_mm is not None:
        depths.append(f"x {length_text(f.depth_mm, w.units)}")
    elif f.thread_length_mm is not None:
        depths.append("through")
    return depths


def _axial_hole(w: _Writer) -> list[str]:
    f = w.feature
    w.said |= {"thread", "d_mm"}
    head = f"hole {f.thread}" if f.thread else f"hole {length_text(f.d_mm, w.units)}"
    depths = _depths(w)
    drill = f"drill {length_text(f.d_mm, w.units)}" if f.thread else ""
    return [head, *depths, drill, w.choice("end", {"front": "", "back": "back"})]


def _centre_hole(w: _Writer) -> list[str]:
    f = w.feature
    mouth = f"> {w.mm('mouth_d_mm')}" if cone_mouth(f.d_mm, f.form) != f.mouth_d_mm else ""
    w.said |= {"mouth_d_mm", "form"}
    form = "" if f.form == "A" else f"{f.form} "
    return [f"centre {form}{w.mm('d_mm')}", mouth, w.choice("end", {"front": "", "back": "back"})]


def _holes(w: _Writer) -> list[str]:
    f = w.feature
    w.said |= {"thread", "on", "count", "z_mm", "d_mm"}
    what = f"{f.thread} drill {length_text(f.d_mm, w.units)}" if f.thread else length_text(f.d_mm, w.units)
    depth = " ".join(_depths(w))
    place = f"at {length_text(-f.z_mm, w.units)}"
    first = f"first {plain_text(f.start_deg)}" if f.start_deg else ""
    w.said.add("start_deg")
    if f.on == "outside":
        return [f"cross {f.count} x {what}", depth, place, first]
    circle = f"on {w.mm('circle_d_mm')}"
    return [f"{f.count} holes {what}", depth, circle, "back" if f.on == "back" else "", place if f.z_mm else "", first]


def _flats(w: _Writer) -> list[str]:
    f = w.feature
    w.said |= {"count", "distance_mm", "from_z_mm", "to_z_mm"}
    even = f.count % 2 == 0
    across = length_text((2 if even else 1) * f.distance_mm, w.units)
    head = f"{f.count} flats {across}" if f.count > 1 else f"flat {across}"
    first = f"first {plain_text(f.start_deg)}" if f.start_deg else ""
    w.said.add("start_deg")
    return [head, f"x {length_text(f.from_z_mm - f.to_z_mm, w.units)}", w.at("from_z_mm"), first]


def _slot(w: _Writer) -> list[str]:
    f = w.feature
    w.said |= {"count", "on"}
    head = f"{f.count} slots" if f.count > 1 else "slot"
    size = f"{head} {w.mm('width_mm')} x {w.mm('depth_mm')}"
    first = f"first {plain_text(f.start_deg)}" if f.start_deg else ""
    w.said.add("start_deg")
    if f.on in ("front", "back"):
        w.said |= {"from_z_mm", "to_z_mm"}
        return [size, f"x {w.mm('length_mm')}" if f.length_mm else "", f.on, first]
    w.said |= {"from_z_mm", "to_z_mm"}
    place = f"at {length_text(-f.from_z_mm, w.units)} to {length_text(-f.to_z_mm, w.units)}"
    return [size, f.on if f.on == "inside" else "", place, first]


WRITERS: dict[str, Callable[[_Writer], list[str]]] = {
    "groove": _groove,
    "face_groove": _face_groove,
    "relief": _relief,
    "thread": _thread,
    "knurl": _knurl,
    "axial_hole": _axial_hole,
    "centre_hole": _centre_hole,
    "holes": _holes,
    "flats": _flats,
    "slot": _slot,
}


def feature_texts(features: Sequence[Feature], whole_mm: float, units: System) -> list[str]:
    """Pieces that read back as the features; two equal centres at both ends are one."""
    found: list[str] = []
    skip = False
    for feature, after in itertools.pairwise((*features, None)):
        assert feature is not None
        if skip:
            skip = False
            continue
        pair = feature.kind == "centre_hole" and feature.end == "front" and after == feature.changed(end="back")
        writer = _Writer(feature, whole_mm, units)
        words = [*WRITERS[feature.kind](writer), "both" if pair else "", *writer.rest()]
        found.append(" ".join(word for word in words if word))
        skip = pair
    return found
