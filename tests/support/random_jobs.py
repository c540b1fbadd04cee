"""Random whole parts, as a turner meets them: steps, tapers, grooves, reliefs, bores, threads, holes."""

import math
import random

from toreuma.core.model import Chuck, Feature, Job, Part, PolygonBar, ProgramOptions, RoundBar, Setup
from toreuma.core.model.feature import AxialHole, FaceGroove, Groove, Relief, ThreadFeature
from toreuma.core.model.part import Corner, Element, Size
from toreuma.core.standards.threads import thread_of
from toreuma.shipped.library import holds, machines, materials
from toreuma.shipped.standards import thread_tables

__all__ = ["random_job"]

THREADS = (
    ("M12x1.5", 12),
    ("M16x1.5", 16),
    ("M20x1.5", 20),
    ("M24x2", 24),
    ("M30x2", 30),
    ("M36x2", 36),
    ("M48x2", 48),
)
INSIDE = (("M24x1.5", 24), ("M30x1.5", 30), ("M36x2", 36), ("M42x2", 42), ("M48x2", 48), ("M56x2", 56))
TAPPED = {3.3: ("M4", 0.7), 4.2: ("M5", 0.8), 5.0: ("M6", 1.0), 6.8: ("M8", 1.25), 8.5: ("M10", 1.5)}
MATERIALS = ("C45", "42CrMo4", "11SMn30", "1.4404", "GJL-250", "AlMgSi1", "CuZn39Pb3", "CuSn8")


def random_job(seed: int) -> Job:
    """A part that can be, its bar, a chuck or collet that holds it and a machine with enough stations."""
    rng = random.Random(seed)
    outside, features, length, largest = _outside(rng)
    inside = _inside(rng, outside, features, length)
    part = Part(name=f"part {seed}", outside=outside, inside=inside, features=tuple(features), edge_break_mm=0.2)
    machine = rng.choice([m for m in machines().values() if m.stations >= 8])
    bar_d = float(int(largest + rng.choice((1.5, 2.0, 3.0, 5.0))) + 1)
    stock = RoundBar(
        material=materials()[rng.choice(MATERIALS)], d_mm=bar_d, face_allowance_mm=rng.choice((0.5, 1.0, 2.0))
    )
    chucks = [hold for hold in holds() if isinstance(hold, Chuck)]
    fitting = [
        h for h in chucks if h.grip_range_mm is None or h.grip_range_mm[0] <= bar_d <= h.grip_range_mm[1]
    ] or chucks
    hold = rng.choice(fitting).changed(stick_out_mm=length + stock.face_allowance_mm + 25.0, grip_length_mm=35.0)
    job = Job(
        name=f"Random part {seed}", part=part, stock=stock, machine=machine, setups=(Setup(hold=hold),),
        program=ProgramOptions(number=1000 + seed % 8000),
    )  # fmt: skip
    return _seasoned(job, random.Random(seed + 10**6))


def _seasoned(job: Job, rng: random.Random) -> Job:
    """At times what is rarer: few stations, a hexagon bar, threads with two starts or to the left, tapped and flat
    holes, nobody watching, another stance."""
    if rng.random() < 0.2:
        job = job.changed(machine=machines()["toolroom lathe"])
    if rng.random() < 0.12 and isinstance(job.stock, RoundBar):
        stock = job.stock
        across = float(math.ceil(stock.d_mm))
        hexagon = PolygonBar(material=stock.material, across_mm=across, face_allowance_mm=stock.face_allowance_mm)
        job = job.changed(stock=hexagon)
    if rng.random() < 0.2:
        conditions = job.conditions.changed(attended=rng.random() < 0.5, stance=rng.choice(("gentle", "hard")))
        job = job.changed(conditions=conditions)
    features = tuple(_rarer(feature, rng) for feature in job.part.features)
    return job.changed(part=job.part.changed(features=features))


def _rarer(feature: Feature, rng: random.Random) -> Feature:
    if isinstance(feature, ThreadFeature) and rng.random() < 0.4:
        size = feature.designation.split("x")
        pitch = size[1].split("-")[0]
        starts = f"{size[0]}xPh{2 * float(pitch):g}P{pitch}-6g"
        return feature.changed(designation=rng.choice((starts, f"{feature.designation}-LH")))
    if isinstance(feature, AxialHole) and feature.depth_mm is not None:
        kind = rng.random()
        if kind < 0.3 and feature.d_mm in TAPPED:
            pitch = TAPPED[feature.d_mm][1]
            deep = round(feature.depth_mm - 3 * pitch, 1)
            return feature.changed(thread=TAPPED[feature.d_mm][0], thread_length_mm=deep) if deep > 2 else feature
        if kind < 0.5:
            return feature.changed(d_mm=min((6.0, 8.0, 10.0), key=lambda d: abs(d - feature.d_mm)), point_deg=180.0)
    return feature


def _outside(rng: random.Random) -> tuple[tuple[Element, ...], list[object], float, float]:
    """Rising steps from the front with tapers, necks, grooves, and at times a thread with its relief."""
    features: list[object] = []
    elements: list[Element] = []
    d, z = 0.0, 0.0
    thread = rng.choice(THREADS) if rng.random() < 0.45 else None
    start = float(thread[1]) if thread else round(rng.uniform(14, 40), 1)
    corner = Corner(kind="chamfer", size_mm=round(rng.uniform(0.8, 1.6), 1))
    elements.append(Element(z_mm=0.0, d_mm=start, corner=Corner(kind="chamfer", size_mm=1.8) if thread else corner))
    d = start
    if thread:
        one = thread_of(f"{thread[0]}-6g", thread_tables())
        pitch, run = one.pitch_mm, round(rng.uniform(12, 22), 1)
        relief = round(3.5 * pitch, 1)
        z = -(run + relief)
        crest = one.external.major
        size = Size(lower_um=round(1000 * (crest.min - d), 1), upper_um=round(1000 * (crest.max - d), 1))
        elements.append(Element(z_mm=z, d_mm=d, size=size, name="Thread seat"))
        features.append(ThreadFeature(designation=f"{thread[0]}-6g", from_z_mm=0.0, length_mm=run))
        features.append(
            Relief(
                form="thread",
                z_mm=z,
                length_mm=relief,
                depth_mm=round(0.75 * pitch, 2),
                radius_mm=round(0.5 * pitch, 2),
            )
        )
    steps = rng.randint(1, 4)
    for index in range(steps):
        if elements[-1].z_mm < 0:
            rise = round(rng.uniform(3, 14), 1)
            elements.append(Element(z_mm=z, d_mm=d + rise, corner=_corner(rng)))
            d += rise
        run = round(rng.uniform(8, 26), 1)
        kind = rng.random()
        if kind < 0.2 and index < steps - 1:
            elements.append(Element(z_mm=z - run, d_mm=round(d + rng.uniform(1, 6), 2)))
            d = elements[-1].d_mm
        else:
            size = Size(fit="h7", lower_um=-25.0, upper_um=0.0) if rng.random() < 0.3 else None
            elements.append(Element(z_mm=z - run, d_mm=d, size=size))
            if run > 12 and rng.random() < 0.5:
                features.append(_groove(rng, z, run, d))
        z = round(z - run, 3)
    if rng.random() < 0.3:
        rise = round(rng.uniform(4, 10), 1)
        elements.append(Element(z_mm=z, d_mm=d + rise, corner=_corner(rng)))
        d += rise
        z = round(z - rng.uniform(6, 12), 1)
        elements.append(Element(z_mm=z, d_mm=d))
    elements[-1] = elements[-1].changed(corner=Corner(kind="chamfer", size_mm=0.5))
    return tuple(elements), features, -z, max(element.d_mm for element in elements)


def _corner(rng: random.Random) -> Corner | None:
    if rng.random() < 0.5:
        return Corner(kind=rng.choice(("chamfer", "round")), size_mm=round(rng.uniform(0.4, 1.0), 1))
    return None


def _groove(rng: random.Random, z: float, run: float, d: float) -> Groove:
    width = round(rng.uniform(2.2, 6.5), 2)
    depth = round(rng.uniform(0.8, min(4.0, d / 8)), 2)
    lean = rng.choice((0.0, 0.0, 0.0, 10.0, 17.0))
    wide = width + 2 * depth * 0.31 if lean else width
    return Groove(
        z_mm=round(z - (run - wide) / 2, 3), width_mm=round(wide, 2), d_mm=round(d - 2 * depth, 2), wall_deg=lean,
        floor_round_mm=rng.choice((0.0, 0.2)) if not lean else 0.0, edge_break_mm=rng.choice((0.0, 0.2)),
    )  # fmt: skip


def _inside(
    rng: random.Random, outside: tuple[Element, ...], features: list[object], length: float
) -> tuple[Element, ...]:
    """A bore with steps, a taper or a thread, or a plain hole, or nothing."""
    front, kind = outside[0].d_mm, rng.random()
    room = front - 8.0
    if kind < 0.35 or room < 10:
        if rng.random() < 0.5 and room > 4:
            d = rng.choice([x for x in (3.3, 4.2, 5.0, 6.8, 8.5, 10.2) if x < room] or [3.3])
            features.append(AxialHole(d_mm=d, depth_mm=round(min(rng.uniform(2, 3.8) * d, 0.7 * length), 1)))
        return ()
    if kind < 0.45 and room > 30:
        features.append(FaceGroove(d_mm=round(front - 6.0, 1), width_mm=4.5, depth_mm=round(rng.uniform(2, 5), 1)))
        return ()
    small = round(rng.uniform(10, room * 0.8), 1)
    big = round(rng.uniform(small + 1, room), 1) if room > small + 1.2 else small
    depth = round(rng.uniform(0.3, 0.6) * length, 1)
    depth = min(depth, round(3.0 * small, 1))
    through = length < 3.2 * small and rng.random() < 0.6
    found = [Element(z_mm=0.0, d_mm=big, corner=Corner(kind="chamfer", size_mm=0.5))]
    if big > small + 0.6:
        found.append(Element(z_mm=-depth, d_mm=big))
        if rng.random() < 0.3:
            found[-1] = Element(z_mm=-depth, d_mm=small)
        else:
            found.append(Element(z_mm=-depth, d_mm=small))
    end = -length if through else -min(length - 5.0, depth + round(rng.uniform(4, 12), 1))
    size = Size(fit="H7", lower_um=0.0, upper_um=25.0) if rng.random() < 0.4 else None
    if end < found[-1].z_mm - 1.0:
        found.append(Element(z_mm=round(end, 2), d_mm=found[-1].d_mm, size=size))
    return tuple(found)
