"""What is measured of a groove, a thread, a hole and whatever else a turned profile carries."""

from collections.abc import Callable, Iterator, Mapping
from typing import Any

import shapely

from toreuma.core.geometry.part_shape import PartShape
from toreuma.core.measure.characteristic import Characteristic, Quantity
from toreuma.core.model.feature import (
    AxialHole,
    CentreHole,
    FaceGroove,
    Feature,
    Flats,
    Groove,
    HolePattern,
    Knurl,
    Relief,
    Slot,
    ThreadFeature,
)
from toreuma.core.spoken import q, said
from toreuma.core.standards.threads import Limits, Side, Thread

__all__ = ["of_feature"]

Threads = Mapping[str, Thread]
Found = Iterator[Characteristic]


def of_feature(index: int, feature: Feature, shape: PartShape, threads: Threads) -> Found:
    """What a drawing asks of one feature; ``index`` is its place among the part's."""
    return OF[feature.kind](_Maker(index, feature, shape), feature, threads)


class _Maker:
    """Makes characteristics of one feature."""

    def __init__(self, index: int, feature: Any, shape: PartShape) -> None:
        self.row, self.name = f"feature {index}", feature.name or feature.kind.replace("_", " ")
        self.side = "inside" if "inside" in (getattr(feature, "side", ""), getattr(feature, "on", "")) else "outside"
        void = next((one for place, one in shape.voids if place == index), None)
        edge = shape.edge_of(void) if void is not None else []
        self.back = shape.profile.back_z
        self._region = shape.region
        self.at = edge[len(edge) // 2] if edge else (getattr(feature, "z_mm", getattr(feature, "from_z_mm", 0.0)), 0.0)

    def on_surface(self, z: float) -> tuple[float, float]:
        """The place on the surface at z, outside or in the bore."""
        here = shapely.clip_by_rect(self._region, z - 0.01, 0, z + 0.01, 1e5)
        if here.is_empty:
            return z, 0.0
        return z, float(here.bounds[1 if self.side == "inside" else 3])

    def one(
        self,
        what: str,
        quantity: Quantity,
        nominal: float | None,
        limits: Limits | None = None,
        *,
        side: str = "",
        means: str = "",
        from_where: str = "",
        note: str = "",
        at: tuple[float, float] | None = None,
    ) -> Characteristic:
        return Characteristic(
            key=f"{self.row} {what.replace(' ', '-')}",
            row=self.row,
            number=0,
            what=said("{}: {}", self.name, what),
            quantity=quantity,
            side=side or self.side,
            nominal=nominal,
            lower=None if limits is None else limits.min,
            upper=None if limits is None else limits.max,
            at=at or self.at,
            means=means,
            from_where=from_where,
            note=note,
        )


def _groove(make: _Maker, f: Groove, _: Threads) -> Found:
    yield make.one("width", "width", f.width_mm)
    yield make.one("floor diameter", "diameter", f.d_mm)
    yield make.one("front edge from the front face", "length", abs(f.z_mm))


def _face_groove(make: _Maker, f: FaceGroove, _: Threads) -> Found:
    yield make.one("outer diameter", "diameter", f.d_mm, side="inside")
    yield make.one("width", "width", f.width_mm)
    yield make.one("depth", "depth", f.depth_mm)


def _relief(make: _Maker, f: Relief, _: Threads) -> Found:
    what = said("{} × {}", q(f.length_mm, "mm", "g", bare=True), q(f.depth_mm, "mm", "g", bare=True))
    form = "run-out" if f.form == "thread" else f"form {f.form}"
    yield make.one(said("{} {}", form, what), "edge", f.depth_mm, means="look")


def _thread(make: _Maker, f: ThreadFeature, threads: Threads) -> Found:
    r = 0.0
    thread = threads.get(f.designation)
    if thread is not None:
        side = thread.external if f.side == "outside" else thread.internal
        r = side.pitch.middle / 2
        make.at = (f.from_z_mm - f.length_mm / 2, r)
        yield from _of_thread(make, f.designation, thread, side, f.side)
    else:
        kind = "rings" if f.side == "outside" else "plugs"
        yield make.one(f.designation, "gauge", None, means=f"{kind} go and no-go {f.designation}")
    make.at = (f.from_z_mm - f.length_mm, r)
    yield make.one(said("{} full length", f.designation), "length", f.length_mm, note="full thread, at least")


def _of_thread(make: _Maker, name: str, thread: Thread, side: Side, where: str) -> Found:
    source = f"{thread.family} {side.tolerance}".strip()
    if thread.taper:
        what = f"{name}, at the gauge plane"
        kind = "ring" if where == "outside" else "plug"
        yield make.one(what, "gauge", None, means=f"taper {kind} gauge {name}, standing off within one turn")
        return
    if where == "outside":
        yield make.one("major diameter", "diameter", thread.d_mm, side.major, from_where=source)
        wires = thread.wires
        means = said("wires {}", q(wires.best, "mm", ".3f"))
        yield make.one("over three wires", "wires", wires.over.middle, wires.over, means=means, from_where=source)
        yield make.one(name, "gauge", None, means=f"rings go and no-go {name}")
        return
    yield make.one("minor diameter", "diameter", side.minor.middle, side.minor, side="inside", from_where=source)
    yield make.one(name, "gauge", None, means=f"plugs go and no-go {name}")


def _axial_hole(make: _Maker, f: AxialHole, threads: Threads) -> Found:
    yield from _hole(make, f.d_mm, f.depth_mm, f.thread, f.thread_length_mm, threads)


def _hole(make: _Maker, d: float, depth: float | None, thread: str, length: float | None, threads: Threads) -> Found:
    known = threads.get(thread) if thread else None
    if known is not None and not known.taper:
        yield make.one("core", "diameter", d, known.internal.minor, side="inside", from_where=known.family)
    else:
        yield make.one("diameter", "diameter", d, side="inside")
    if depth is not None:
        yield make.one("depth to the full diameter", "depth", depth, side="inside")
    if thread:
        yield make.one(thread, "gauge", None, means=f"plugs go and no-go {thread}")
        if length is not None:
            yield make.one(said("{} full length", thread), "depth", length, side="inside", note="full thread, at least")


def _centre_hole(make: _Maker, f: CentreHole, _: Threads) -> Found:
    yield make.one("mouth", "diameter", f.mouth_d_mm, side="inside", note="cone 60°")


def _holes(make: _Maker, f: HolePattern, threads: Threads) -> Found:
    make.name = f"{make.name}, {f.count} times" if f.count > 1 else make.name
    make.at = {"front": (0.0, f.circle_d_mm / 2), "back": (make.back, f.circle_d_mm / 2)}.get(f.on, make.at)
    yield from _hole(make, f.d_mm, f.depth_mm, f.thread, f.thread_length_mm, threads)
    if f.on == "outside":
        yield make.one("middle from the front face", "length", abs(f.z_mm))
    elif f.circle_d_mm > 0:
        yield make.one("pitch circle", "diameter", f.circle_d_mm, means="over pins in opposite holes")


def _flats(make: _Maker, f: Flats, _: Threads) -> Found:
    make.at = ((f.from_z_mm + f.to_z_mm) / 2, f.distance_mm)
    if f.count % 2 == 0:
        yield make.one("across flats", "width", 2 * f.distance_mm)
    else:
        yield make.one("axis to flat", "width", f.distance_mm, means="from the far side of the round")
    yield make.one("length", "length", abs(f.to_z_mm - f.from_z_mm))


def _slot(make: _Maker, f: Slot, _: Threads) -> Found:
    if f.on in ("outside", "inside"):
        make.at = make.on_surface((f.from_z_mm + f.to_z_mm) / 2)
    make.name = f"{make.name}, {f.count} times" if f.count > 1 else make.name
    yield make.one("width", "width", f.width_mm)
    yield make.one("depth", "depth", f.depth_mm)
    if f.on in ("outside", "inside"):
        yield make.one("length", "length", abs(f.to_z_mm - f.from_z_mm))


def _knurl(make: _Maker, f: Knurl, _: Threads) -> Found:
    what = said("DIN 82-{} {}, ridges whole and clean", f.form, q(f.pitch_mm, "mm", "g", bare=True))
    yield make.one(what, "edge", f.pitch_mm, means="look, count the ridges")


OF: dict[str, Callable[[_Maker, Any, Threads], Found]] = {
    "groove": _groove,
    "face_groove": _face_groove,
    "relief": _relief,
    "thread": _thread,
    "axial_hole": _axial_hole,
    "centre_hole": _centre_hole,
    "holes": _holes,
    "flats": _flats,
    "slot": _slot,
    "knurl": _knurl,
}
"""One reader for every kind of feature a part may have."""
