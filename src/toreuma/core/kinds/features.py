"""Feature kinds, each declared once: what it is called, what is typed and where it lies, what a drawing writes of it,
and what it is from the part's other end."""

from collections.abc import Mapping
from typing import Any

from toreuma.core.geometry.centre_forms import cone_mouth
from toreuma.core.kinds.field import Field
from toreuma.core.kinds.registry import FeatureKind, Word, declared
from toreuma.core.model.feature import Feature
from toreuma.core.units import System, show

__all__ = ["FEATURES"]

_Z, _R, _D = "along Z", "on radius", "on diameter"
_AT_Z = Field("z_mm", "front edge at Z", "mm")
_WIDTH = Field("width_mm", "width", "mm")
_START = Field("start_deg", "first at", "deg")
_COUNT = Field("count", "count", "")
_SIDE = ("side", (("Outside", "outside"), ("In the bore", "inside")))

OTHER = {"front": "back", "back": "front", "outside": "outside", "inside": "inside"}


def number(feature: Any, field: str, system: System, before: str = "", empty: str = "") -> Word:
    value = getattr(feature, field)
    return Word(before + (empty if value is None else show(value, "mm", system, trim=True).number), field)


def _groove_callout(f: Any, system: System) -> tuple[Word, ...]:
    return number(f, "width_mm", system), Word(" × "), number(f, "d_mm", system, "Ø")


def _face_groove_callout(f: Any, system: System) -> tuple[Word, ...]:
    size = (number(f, "d_mm", system, "Ø"), Word(" × "), number(f, "width_mm", system), Word(" × "))
    return *size, number(f, "depth_mm", system)


def _relief_callout(f: Any, system: System) -> tuple[Word, ...]:
    """Radius by depth for forms E to H as DIN 509 writes them, length by depth for a thread's run-out."""
    head = Word("" if f.form == "thread" else f"{f.form} ")
    first = "length_mm" if f.form == "thread" else "radius_mm"
    return head, number(f, first, system), Word(" × "), number(f, "depth_mm", system)


def _thread_callout(f: Any, system: System) -> tuple[Word, ...]:
    return Word(f.designation, "designation"), Word(" × "), number(f, "length_mm", system)


def _axial_hole_callout(f: Any, system: System) -> tuple[Word, ...]:
    tapped = (Word(f.thread + "  "),) if f.thread else ()
    return *tapped, number(f, "d_mm", system, "Ø"), Word(" × "), number(f, "depth_mm", system, empty="through")


def _centre_hole_callout(f: Any, system: System) -> tuple[Word, ...]:
    head = Word("" if f.form == "A" else f"{f.form} ")
    return head, number(f, "d_mm", system, "Ø"), Word(" / "), number(f, "mouth_d_mm", system, "Ø"), Word(" 60°")


def _usual_mouth(f: Any, changes: Mapping[str, Any]) -> dict[str, Any]:
    """A mouth of the usual size stays one in another form and at another pilot."""
    if "mouth_d_mm" in changes or f.mouth_d_mm != cone_mouth(f.d_mm, f.form):
        return dict(changes)
    pilot, form = changes.get("d_mm", f.d_mm), changes.get("form", f.form)
    return {**changes, "mouth_d_mm": cone_mouth(pilot, form)}


def _holes_callout(f: Any, system: System) -> tuple[Word, ...]:
    head = f"{f.count} × {f.thread}  " if f.thread else f"{f.count} × "
    holes = (Word(head), number(f, "d_mm", system, "Ø"))
    if f.on == "outside":
        return *holes, Word(" × "), number(f, "depth_mm", system, empty="through")
    return *holes, Word(" on "), number(f, "circle_d_mm", system, "Ø")


def _flats_callout(f: Any, system: System) -> tuple[Word, ...]:
    return Word(f"{f.count} flats, axis to flat "), number(f, "distance_mm", system)


def _slot_callout(f: Any, system: System) -> tuple[Word, ...]:
    return Word("slot "), number(f, "width_mm", system), Word(" × "), number(f, "depth_mm", system)


def _knurl_callout(f: Any, system: System) -> tuple[Word, ...]:
    """As DIN 82 writes it: form and pitch."""
    return Word(f"DIN 82-{f.form} "), number(f, "pitch_mm", system), Word(" × "), number(f, "length_mm", system)


def _turn(z: float, back: float) -> float:
    return round(back - z, 9)


def _turned_groove(feature: Any, back: float) -> Any:
    return feature.changed(z_mm=_turn(feature.z_mm - feature.width_mm, back))


def _turned_relief(feature: Any, back: float) -> Any:
    return feature.changed(z_mm=_turn(feature.z_mm, back), toward=OTHER[feature.toward])


def _turned_stretch(feature: Any, back: float) -> Any:
    return feature.changed(from_z_mm=_turn(feature.from_z_mm - feature.length_mm, back))


def _turned_thread(feature: Any, back: float) -> Any:
    return _turned_stretch(feature, back).changed(entry=OTHER[feature.entry])


def _turned_end(feature: Any, back: float) -> Any:
    return feature.changed(end=OTHER[feature.end])


def _turned_holes(feature: Any, back: float) -> Any:
    step = None if feature.step_deg is None else -feature.step_deg
    through = feature.depth_mm is None and feature.on != "outside"  # has its mouth on either side
    place = {"z_mm": _turn(feature.z_mm, back), "start_deg": -feature.start_deg, "step_deg": step}
    return feature.changed(on="front" if through else OTHER[feature.on], **place)


def _turned_between(feature: Any, back: float) -> Any:
    ends = {"from_z_mm": _turn(feature.to_z_mm, back), "to_z_mm": _turn(feature.from_z_mm, back)}
    return feature.changed(**ends, start_deg=-feature.start_deg)


def _turned_slot(feature: Any, back: float) -> Any:
    return _turned_between(feature, back).changed(on=OTHER[feature.on])


def _relief_outside(f: Any) -> tuple[str, float, float] | None:
    end = f.z_mm + (f.length_mm if f.toward == "front" else -f.length_mm)
    return ("a relief", max(f.z_mm, end), min(f.z_mm, end)) if f.side == "outside" else None


FEATURES: dict[str, FeatureKind] = declared(
    Feature,
    groove=FeatureKind(
        label="Groove",
        fields=(
            _AT_Z,
            Field("width_mm", "width at the surface", "mm", _Z),
            Field("d_mm", "floor", "mm", _D),
            Field("wall_deg", "walls lean", "deg"),
            Field("floor_round_mm", "floor corners R", "mm"),
            Field("edge_break_mm", "edges broken", "mm"),
        ),
        place=_SIDE,
        facts=lambda f, size: f"{size(f.width_mm)} wide, Ø {size(f.d_mm)}, Z {size(f.z_mm)}",
        callout=_groove_callout,
        turned=_turned_groove,
        on_outside=lambda f: ("a groove", f.z_mm, f.z_mm - f.width_mm) if f.side == "outside" else None,
    ),
    face_groove=FeatureKind(
        label="Face groove",
        fields=(
            Field("d_mm", "outer wall", "mm", _D),
            Field("width_mm", "width", "mm", _R),
            Field("depth_mm", "depth", "mm", _Z),
            Field("wall_deg", "walls lean", "deg"),
            Field("floor_round_mm", "floor corners R", "mm"),
        ),
        place=("end", (("Front face", "front"), ("Back face", "back"))),
        facts=lambda f, size: f"Ø {size(f.d_mm)}, {size(f.width_mm)} wide, {size(f.depth_mm)} deep",
        callout=_face_groove_callout,
        turned=_turned_end,
    ),
    relief=FeatureKind(
        label="Relief",
        fields=(
            Field("z_mm", "shoulder at Z", "mm"),
            Field("length_mm", "length", "mm", _Z),
            Field("depth_mm", "depth", "mm", _R),
            Field("face_depth_mm", "into the shoulder", "mm", _Z),
            Field("radius_mm", "radius", "mm"),
        ),
        place=_SIDE,
        facts=lambda f, size: f"{f.form}, Z {size(f.z_mm)}",
        callout=_relief_callout,
        turned=_turned_relief,
        on_outside=_relief_outside,
    ),
    thread=FeatureKind(
        label="Thread",
        fields=(
            Field("from_z_mm", "starts at Z", "mm"),
            Field("length_mm", "full thread", "mm", _Z),
            Field("entry", "Mate goes on from", "", options=(("the front", "front"), ("the back", "back"))),
        ),
        place=_SIDE,
        facts=lambda f, size: f"{f.designation}, {size(f.length_mm)} long",
        callout=_thread_callout,
        turned=_turned_thread,
        on_outside=lambda f: ("a thread", f.from_z_mm, f.from_z_mm - f.length_mm) if f.side == "outside" else None,
    ),
    knurl=FeatureKind(
        label="Knurl",
        fields=(
            Field(
                "form",
                "Ridges",
                "",
                options=(("along the axis (RAA)", "RAA"), ("crossing, points raised (RGE)", "RGE")),
            ),
            Field("pitch_mm", "pitch", "mm"),
            Field("from_z_mm", "starts at Z", "mm"),
            Field("length_mm", "length", "mm", _Z),
        ),
        place=None,
        facts=lambda f, size: f"{f.form} {size(f.pitch_mm)}, {size(f.length_mm)} long",
        callout=_knurl_callout,
        turned=_turned_stretch,
        on_outside=lambda f: ("a knurl", f.from_z_mm, f.from_z_mm - f.length_mm),
    ),
    axial_hole=FeatureKind(
        label="Axial hole",
        fields=(
            Field("d_mm", "drill", "mm", _D),
            Field("depth_mm", "full depth", "mm", _Z, empty="through"),
            Field("point_deg", "point angle", "deg"),
        ),
        place=("end", (("From the front", "front"), ("From the back", "back"))),
        facts=lambda f, size: f"Ø {size(f.d_mm)}, {'through' if f.depth_mm is None else size(f.depth_mm) + ' deep'}",
        callout=_axial_hole_callout,
        turned=_turned_end,
    ),
    centre_hole=FeatureKind(
        label="Centre hole",
        fields=(
            Field("form", "form", "", options=(("A, plain", "A"), ("B, guarded", "B"), ("R, round", "R"))),
            Field("d_mm", "pilot", "mm", _D),
            Field("mouth_d_mm", "mouth", "mm", _D),
        ),
        place=("end", (("Front face", "front"), ("Back face", "back"))),
        facts=lambda f, size: f"{'' if f.form == 'A' else f.form + ', '}Ø {size(f.d_mm)} / {size(f.mouth_d_mm)}",
        callout=_centre_hole_callout,
        turned=_turned_end,
        along=_usual_mouth,
    ),
    holes=FeatureKind(
        label="Holes",
        fields=(
            _COUNT,
            Field("d_mm", "holes", "mm", _D),
            Field("depth_mm", "depth", "mm", empty="through"),
            Field("circle_d_mm", "pitch circle", "mm", _D),
            Field("z_mm", "at Z", "mm"),
            _START,
            Field("step_deg", "step", "deg", empty="even"),
            Field("thread_length_mm", "full thread", "mm", empty="as deep as a tap goes"),
        ),
        place=("on", (("Front face", "front"), ("Back face", "back"), ("Round the outside", "outside"))),
        facts=lambda f, size: f"{f.count} × {f.thread or 'Ø ' + size(f.d_mm)}",
        callout=_holes_callout,
        turned=_turned_holes,
        milled=True,
        on_outside=lambda f: ("a hole", f.z_mm + f.d_mm / 2, f.z_mm - f.d_mm / 2) if f.on == "outside" else None,
    ),
    flats=FeatureKind(
        label="Flats",
        fields=(
            _COUNT,
            Field("distance_mm", "axis to flat", "mm", _R),
            Field("from_z_mm", "from Z", "mm"),
            Field("to_z_mm", "to Z", "mm"),
            _START,
        ),
        place=None,
        facts=lambda f, size: f"{f.count}, {size(2 * f.distance_mm)} across" if f.count % 2 == 0 else f"{f.count}",
        callout=_flats_callout,
        turned=_turned_between,
        milled=True,
        on_outside=lambda f: ("a flat", f.from_z_mm, f.to_z_mm),
    ),
    slot=FeatureKind(
        label="Slot or pocket",
        fields=(
            _COUNT,
            _WIDTH,
            Field("depth_mm", "depth", "mm"),
            Field("from_z_mm", "from Z", "mm"),
            Field("to_z_mm", "to Z", "mm"),
            Field("length_mm", "length in a face", "mm", "0: right across"),
            Field("off_mm", "middle off the axis", "mm", "in a face"),
            Field("round_ends", "Ends", "", options=(("round", True), ("with corners", False))),
            Field("corner_radius_mm", "radius of its corners", "mm"),
            _START,
        ),
        place=(
            "on",
            (("Outside", "outside"), ("In the bore", "inside"), ("Front face", "front"), ("Back face", "back")),
        ),
        facts=lambda f, size: f"{size(f.width_mm)} × {size(f.depth_mm)}",
        callout=_slot_callout,
        turned=_turned_slot,
        milled=True,
        on_outside=lambda f: ("a slot", f.from_z_mm, f.to_z_mm) if f.on == "outside" else None,
    ),
)
