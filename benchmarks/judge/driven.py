"""Driven tools by the judge's own reading: places of the part on both sides of every drawn wall, and which of them the
tools of a program take away."""

import math
from dataclasses import dataclass, field
from typing import Any

import numpy as np
import numpy.typing as npt
import shapely

from benchmarks.judge.machine import NotJudged, blocks_of

__all__ = ["Driven", "DrivenCase", "Mill"]

Json = dict[str, Any]
Places = npt.NDArray[np.float64]
Marks = npt.NDArray[np.bool_]

BESIDE = 0.08
"""Places stand so far beside a drawn wall, mm."""
SKIN = 0.04
EDGE = 0.8
"""So near the turned outside an edge may be broken."""
STEP = 0.05
HELIX_OFF = (0.1, 0.02, 0.2, 0.1)
"""Of a milled thread: diameter, climb of a turn, depth and narrowest diameter that count as the same, mm."""
LEAST_TURN = math.pi
CODES = {0.0, 1.0, 12.1, 13.1, 18, 10, 20, 21, 28, 40, 54, 55, 80, 83, 84, 97, 98, 99}


@dataclass(frozen=True)
class Mill:
    """What turns: radius, angle of its point (180: flat), round of its corner; ``radial``: it stands across;
    ``teeth``: of a thread."""

    radius: float
    point_deg: float = 180.0
    corner: float = 0.0
    radial: bool = False
    teeth: bool = False


@dataclass(frozen=True)
class _Move:
    """A move in the part, turned back by the angle it stands at: (x, y, z) of the tip."""

    rapid: bool
    start: tuple[float, float, float]
    end: tuple[float, float, float]
    turned_deg: float
    station: int
    line: int


@dataclass
class Driven:
    """Features, by their place, of which metal is left or lost; lines where a rapid goes through metal. ``helices`` of
    thread mills by hole: the widest diameter cut, the climb of a turn with its hand, the lowest place, and the
    narrowest diameter, mm."""

    left: dict[int, int] = field(default_factory=dict)
    lost: dict[int, int] = field(default_factory=dict)
    hits: set[int] = field(default_factory=set)
    helices: dict[tuple[int, int], tuple[float, ...]] = field(default_factory=dict)

    @property
    def clean(self) -> bool:
        return not (self.left or self.lost or self.hits)

    def worse_than(self, other: "Driven") -> bool:
        """Something is left, lost or met that the other program did not."""
        for mine, theirs in ((self.left, other.left), (self.lost, other.lost)):
            if any(count > theirs.get(n, 0) for n, count in mine.items()):
                return True
        if self.helices.keys() != other.helices.keys():
            return True
        off = [np.abs(np.subtract(mine, other.helices[hole])) for hole, mine in self.helices.items()]
        return bool(self.hits - other.hits) or any((each > HELIX_OFF).any() for each in off)


class DrivenCase:
    """Features beside the axis of a drawing, in places: ``go`` must be cut away, what does not ``go`` must stay."""

    def __init__(self, part: Json, rings: list[Places]) -> None:
        """``rings``: the closed outline of the turned part and what is taken out of it."""
        self._tapped = [
            (n, k, one, angle)
            for n, one in enumerate(part.get("features", ()))
            if one["kind"] == "holes" and one.get("thread")
            for k, angle in enumerate(_angles(one))
        ]
        self._solid = shapely.Polygon(rings[0])
        for ring in rings[1:]:
            self._solid = self._solid.difference(shapely.Polygon(ring).buffer(0))
        shapely.prepare(self._solid)
        core = self._solid.buffer(-EDGE)
        sets = []
        for n, one in enumerate(part.get("features", ())):
            if one["kind"] not in ("holes", "flats", "slot"):
                continue
            go, stay = self._sampled(one)
            go, stay = go[self._inside(go, self._solid)], stay[self._inside(stay, core)]
            sets += [(np.full(len(go), n), np.ones(len(go), bool), go)]
            sets += [(np.full(len(stay), n), np.zeros(len(stay), bool), stay)]
        body = self._body(core)
        sets += [(np.full(len(body), -1), np.zeros(len(body), bool), body)]
        self._feature, self._go, self._at = (np.concatenate(each) for each in zip(*sets, strict=True))
        self._clear_stay(part)

    def judge(self, text: str, home: tuple[float, float], mills: dict[int, Mill]) -> Driven:
        """What the driven tools of a program do. Raises `NotJudged`."""
        found, alive = Driven(), np.ones(len(self._at), bool)
        moves = _moves(text, home, mills)
        found.helices = self._helices([one for one in moves if mills[one.station].teeth and not one.rapid], mills)
        for one in moves:
            met = self._met(one, mills[one.station], alive)
            if one.rapid:
                if met.any():
                    found.hits.add(one.line)
            else:
                alive[met] = False
        for marks, into in ((self._go & alive, found.left), (~self._go & ~alive, found.lost)):
            for n, count in zip(*np.unique(self._feature[marks], return_counts=True), strict=True):
                into[int(n)] = int(count)
        return found

    def _helices(self, moves: list[_Move], mills: dict[int, Mill]) -> dict[tuple[int, int], tuple[float, ...]]:
        """Of every tapped hole what a thread mill does about its axis: widest circle, climb of a turn, lowest place,
        narrowest circle."""
        found = {}
        for n, k, hole, angle in self._tapped:
            turned, out = [], hole["on"] == "outside"
            for one in moves:
                for x, y, z in (one.start, one.end):
                    p = _back(*(np.array([v]) for v in (x, y, z)), one.turned_deg)
                    across, over = _turned(p, angle)
                    a, b = (
                        (float(over[0]), z - hole["z_mm"])
                        if out
                        else (float(across[0]) - hole["circle_d_mm"] / 2, float(over[0]))
                    )
                    if math.hypot(a, b) < hole["d_mm"]:
                        turned.append(
                            (
                                math.hypot(a, b),
                                math.atan2(b, a),
                                float(across[0]) if out else z,
                                mills[one.station].radius,
                            )
                        )
            if not turned:
                continue
            r, at, deep, mill = (np.array(each) for each in zip(*turned, strict=True))
            wide = r > 0.98 * r.max()
            at, deep = np.unwrap(at[wide]), deep[wide]
            if np.ptp(at) > LEAST_TURN:
                climb = 2 * math.pi * float(np.polyfit(at, deep, 1)[0])
                between = np.flatnonzero(wide)
                narrow = r[between[0] : between[-1] + 1].min()
                found[n, k] = 2 * float(r.max() + mill[0]), climb, float(deep.min()), 2 * float(narrow + mill[0])
        return found

    def _met(self, one: _Move, mill: Mill, alive: Marks) -> npt.NDArray[np.intp]:
        """Places of metal that lie in the tool during a move."""
        turn = math.radians(one.turned_deg)
        at = np.flatnonzero(alive)
        p = self._at[at]
        x = p[:, 0] * math.cos(turn) + p[:, 1] * math.sin(turn)
        y = -p[:, 0] * math.sin(turn) + p[:, 1] * math.cos(turn)
        u, w = (x, np.column_stack([y, p[:, 2]])) if mill.radial else (p[:, 2], np.column_stack([x, y]))
        (xa, ya, za), (xb, yb, zb) = one.start, one.end
        a, b = ((xa, (ya, za)), (xb, (yb, zb))) if mill.radial else ((za, (xa, ya)), (zb, (xb, yb)))
        shrink = SKIN if one.rapid else 0.0
        found = np.zeros(len(at), bool)
        near = u >= min(a[0], b[0])
        slant = abs(a[0] - b[0]) > 1e-9 and math.dist(a[1], b[1]) > 1e-9
        count = max(1, math.ceil(max(abs(a[0] - b[0]), math.dist(a[1], b[1])) / STEP)) if slant else 1
        wa, wb = np.array(a[1]), np.array(b[1])
        for n in range(count):
            s, e = n / count, (n + 1) / count
            depth = min(a[0] + s * (b[0] - a[0]), a[0] + e * (b[0] - a[0]))
            away = _from_segment(w[near], wa + s * (wb - wa), wa + e * (wb - wa))
            found[near] |= away <= _radius_at(mill, u[near] - depth) - shrink
        return at[found]

    def _inside(self, places: Places, region: shapely.Geometry) -> Marks:
        r = np.hypot(places[:, 0], places[:, 1])
        return np.asarray(shapely.contains_xy(region, places[:, 2], r))

    def _body(self, core: shapely.Geometry) -> Places:
        z0, _, z1, r1 = core.bounds
        chance = np.random.default_rng(1)
        places = chance.uniform((-r1, -r1, z0), (r1, r1, z1), (30000, 3))
        return places[self._inside(places, core)]

    def _clear_stay(self, part: Json) -> None:
        """What another feature takes away need not stay."""
        keep = np.ones(len(self._at), bool)
        for n, one in enumerate(part.get("features", ())):
            if one["kind"] in ("holes", "flats", "slot"):
                keep &= self._go | (self._feature == n) | ~self._taken(one, self._at)
        self._feature, self._go, self._at = self._feature[keep], self._go[keep], self._at[keep]

    def _surface_z(self, r: float, front: bool) -> float:
        """Where a face is at a radius, from the front or the back."""
        z0, _, z1, _ = self._solid.bounds
        line = shapely.LineString([(z0 - 1, r), (z1 + 1, r)]).intersection(self._solid)
        return float(line.bounds[2 if front else 0])

    def _surface_r(self, z: float) -> float:
        line = shapely.LineString([(z, 0), (z, 1e4)]).intersection(self._solid)
        return float(line.bounds[3])

    def _bore_r(self, z: float) -> float:
        line = shapely.LineString([(z, 0), (z, 1e4)]).intersection(self._solid)
        return float(line.bounds[1])

    def _sampled(self, one: Json) -> tuple[Places, Places]:
        return {"holes": self._holes, "flats": self._flats, "slot": self._slots}[one["kind"]](one)

    def _taken(self, one: Json, p: Places, more: float = EDGE) -> Marks:
        """Places within a feature, or near it."""
        found = np.zeros(len(p), bool)
        for angle in _angles(one):
            x, y = _turned(p, angle)
            if one["kind"] == "flats":
                found |= (x > one["distance_mm"] - more) & _within(p[:, 2], one["from_z_mm"], one["to_z_mm"], more)
            elif one["kind"] == "holes" and one["on"] == "outside":
                found |= (np.hypot(y, p[:, 2] - one["z_mm"]) < one["d_mm"] / 2 + more) & (x > 0)
            elif one["kind"] == "holes":
                found |= np.hypot(x - one["circle_d_mm"] / 2, y) < one["d_mm"] / 2 + more
            elif one["on"] in ("front", "back"):
                half = one["length_mm"] / 2 or 1e4
                found |= (np.abs(x - one["off_mm"]) < half + more) & (np.abs(y) < one["width_mm"] / 2 + more)
            else:
                along = _within(p[:, 2], one["from_z_mm"], one["to_z_mm"], more)
                found |= along & (np.abs(y) < one["width_mm"] / 2 + more) & (x > 0)
        return found

    def _holes(self, one: Json) -> tuple[Places, Places]:
        go, stay = [], []
        tapped = bool(one.get("thread"))
        r = one["d_mm"] / 2
        low, high = (0.75 * r if tapped else r) - BESIDE, (1.15 * r if tapped else r) + BESIDE
        outside = one["on"] == "outside"
        front = one["on"] == "front"
        top = self._surface_r(one["z_mm"]) if outside else self._surface_z(one["circle_d_mm"] / 2, front)
        deep = one.get("depth_mm")
        if not outside and not front:
            raise NotJudged("holes in the back face")
        for angle in _angles(one):
            for radius, into, least in ((low, go, 0.1), (high, stay, EDGE)):
                last = (deep if deep is not None else 1e3) - BESIDE
                depths = np.arange(least, min(last, 200.0), 0.4)
                into.append(self._tube(one, angle, radius, top - depths, outside))
            if deep is not None:
                into = np.array([top - deep - r / math.tan(math.radians(59)) - BESIDE])
                stay += [self._tube(one, angle, s * r, into, outside) for s in (0.01, 0.3, 0.6)]
        return np.vstack(go), np.vstack(stay)

    def _tube(self, one: Json, angle: float, radius: float, deep: Places, outside: bool) -> Places:
        turn = np.linspace(0, 2 * math.pi, 24, endpoint=False)
        d, t = (each.ravel() for each in np.meshgrid(deep, turn))
        a, b = radius * np.cos(t), radius * np.sin(t)
        x, y, z = (d, a, one["z_mm"] + b) if outside else (one["circle_d_mm"] / 2 + a, b, d)
        return _back(x, y, z, angle)

    def _flats(self, one: Json) -> tuple[Places, Places]:
        z1, z0, d = one["from_z_mm"], one["to_z_mm"], one["distance_mm"]
        _, _, _, top = self._solid.bounds
        t = np.linspace(-top, top, 80)
        along = np.linspace(z0 + BESIDE, z1 - BESIDE, 40)
        heights = np.linspace(d + BESIDE, max(top, d + BESIDE), 12)
        go, stay = [], []
        for angle in _angles(one):
            for x, into in ((d + BESIDE, go), (d - BESIDE, stay)):
                into.append(_grid(np.array([x]), t, along, angle))
            for z, into in ((z0 + BESIDE, go), (z0 - BESIDE, stay), (z1 - BESIDE, go), (z1 + BESIDE, stay)):
                into.append(_grid(heights, t, np.array([z]), angle))
        return np.vstack(go), np.vstack(stay)

    def _slots(self, one: Json) -> tuple[Places, Places]:
        if one["on"] not in ("outside", "inside", "front"):
            raise NotJudged(f"slots on the {one['on']}")
        face, bore = one["on"] == "front", one["on"] == "inside"
        half, corner = one["width_mm"] / 2, one["width_mm"] / 2 if one["round_ends"] else one["corner_radius_mm"] + 0.1
        if face:
            length = one["length_mm"] or 4 * self._solid.bounds[3]
            begin, end = one["off_mm"] + length / 2, one["off_mm"] - length / 2
            floor = -one["depth_mm"]
        else:
            begin, end = one["from_z_mm"], one["to_z_mm"]
            floor = self._surface_r((begin + end) / 2) - one["depth_mm"]
        inner = np.linspace(end + corner, begin - corner, 60)
        whole = np.linspace(end + BESIDE, begin - BESIDE, 60)
        deep = np.linspace(floor + BESIDE, floor + one["depth_mm"], 12)
        beyond = -BESIDE
        if bore:
            floor = self._bore_r((begin + end) / 2) + one["depth_mm"]
            deep, beyond = np.linspace(floor - one["depth_mm"], floor - BESIDE, 12), BESIDE
        wall, across = half - BESIDE, np.linspace(BESIDE - half, half - BESIDE, 15)
        outer = half + BESIDE

        def placed(u: Places, t: Places, s: Places, angle: float) -> Places:
            return _grid(s, t, u, angle) if face else _grid(u, t, s, angle)

        go, stay = [], []
        for angle in _angles(one):
            go.append(placed(deep, np.array([-wall, wall]), inner, angle))
            go.append(placed(np.array([floor - beyond]), across, inner, angle))
            go.append(placed(deep, np.array([0.0]), np.array([end + BESIDE, begin - BESIDE]), angle))
            stay.append(placed(deep, np.array([-outer, outer]), whole, angle))
            stay.append(placed(np.array([floor + beyond]), across, whole, angle))
            stay.append(placed(deep, np.array([0.0]), np.array([end - BESIDE, begin + BESIDE]), angle))
        return np.vstack(go), np.vstack(stay)


def _angles(one: Json) -> list[float]:
    step = one.get("step_deg") or 360.0 / one["count"]
    return [one["start_deg"] + n * step for n in range(one["count"])]


def _within(z: Places, one: float, other: float, more: float) -> Marks:
    return (z > min(one, other) - more) & (z < max(one, other) + more)


def _turned(p: Places, angle: float) -> tuple[Places, Places]:
    c, s = math.cos(math.radians(angle)), math.sin(math.radians(angle))
    return p[:, 0] * c + p[:, 1] * s, p[:, 1] * c - p[:, 0] * s


def _back(x: Places, y: Places, z: Places, angle: float) -> Places:
    c, s = math.cos(math.radians(angle)), math.sin(math.radians(angle))
    return np.column_stack([x * c - y * s, x * s + y * c, z])


def _grid(x: Places, y: Places, z: Places, angle: float) -> Places:
    xx, yy, zz = (each.ravel() for each in np.meshgrid(x, y, z))
    return _back(xx, yy, zz, angle)


def _from_segment(w: Places, a: Places, b: Places) -> Places:
    way = b - a
    long = float(way @ way)
    share = np.clip((w - a) @ way / long, 0, 1) if long > 1e-18 else np.zeros(len(w))
    return np.hypot(*(w - a - share[:, None] * way).T)


def _radius_at(mill: Mill, up: Places) -> Places:
    """Radius of a tool so far above its tip."""
    up = np.maximum(up, 0.0)
    if mill.point_deg < 180:
        return np.minimum(mill.radius, up * math.tan(math.radians(mill.point_deg / 2)))
    if mill.corner > 0:
        h = np.minimum(up, mill.corner)
        return mill.radius - mill.corner + np.sqrt(mill.corner**2 - (mill.corner - h) ** 2)
    return np.full(len(up), mill.radius)


def _moves(text: str, home: tuple[float, float], mills: dict[int, Mill]) -> list[_Move]:
    """Moves of driven tools only. Raises `NotJudged` for words that are not known."""
    x, y, z, c = home[1], 0.0, home[0], 0.0
    station, unit, group, polar, cycle = 0, 1.0, 0.0, False, 0.0
    home_x, home_z, second = x, z, False
    found: list[_Move] = []
    for line, words in blocks_of(text):
        values = {letter: float(number) for letter, number in words}
        codes = [float(number) for letter, number in words if letter == "G"]
        station = int(values["T"]) // 100 if "T" in values else station
        mine = station in mills
        if mine and any(code not in CODES for code in codes):
            raise NotJudged(f"line {line}: {words}")
        for code in codes:
            group = code if code in (0, 1) else group
            cycle = code if code in (83, 84) else 0.0 if code in (0, 1, 80) else cycle
            unit = {20: 25.4, 21: 1.0}.get(code, unit)
            polar = {12.1: True, 13.1: False}.get(code, polar)
        told = [float(number) for letter, number in words if letter == "M"]
        second = (92 in told or second) and 91 not in told
        c = math.nan if 61 in told else c  # where the axis stands is nobody's word until C is told
        if 28 in codes:
            x, z = home_x if "U" in values or "X" in values else x, home_z if "W" in values or "Z" in values else z
            continue
        if 4 in codes or 50 in codes or 10 in codes or not set("XYZCUW") & set(values):
            continue
        before = (x, y, z)
        x = values["X"] * unit / 2 if "X" in values else x + values.get("U", 0.0) * unit / 2
        z = values["Z"] * unit if "Z" in values else z + values.get("W", 0.0) * unit
        y = values["Y"] * unit if "Y" in values else y
        if polar:
            y = values["C"] * unit if "C" in values else y
        elif "C" in values:
            c = values["C"]
        if not mine or second:
            continue
        if "C" in values and not polar and group != 0 and not cycle:
            raise NotJudged(f"line {line}: cut while the work turns")
        if cycle:
            begin = before
            back = values["R"] * unit if "R" in values else (before[0] if mills[station].radial else before[2])
            if mills[station].radial:
                raise NotJudged(f"line {line}: a cycle across")
            near = (x, y, back)
            found.append(_Move(True, begin, near, c, station, line))
            found.append(_Move(False, near, (x, y, z), c, station, line))
            z = back
            continue
        found.append(_Move(group == 0, before, (x, y, z), c, station, line))
    return found
