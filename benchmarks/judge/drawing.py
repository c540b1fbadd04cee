"""The drawing by the judge's own reading: outlines of the half section from the plain data of a job file.

Nothing of the product's geometry is used: elements are joined, corners cut and features drawn once more.
"""

import math
from typing import Any

import numpy as np
import numpy.typing as npt

__all__ = ["Outline", "outlines"]

Outline = npt.NDArray[np.float64]
Json = dict[str, Any]
CHORD = 0.002
FAR = 1000.0


def outlines(part: Json) -> tuple[Outline, list[Outline]]:
    """The closed outline of the solid part, and those of everything taken out of it: bore and features."""
    outside = _chain(part["outside"], part.get("edge_break_mm", 0.0), closes=True)
    back = part["outside"][-1]["z_mm"]
    out: list[Outline] = []
    if part.get("inside"):
        out.append(_bore(part, back))
    solid = outside
    for feature in part.get("features", ()):
        found = _feature(feature, solid, out[0] if part.get("inside") else None, back)
        if found is not None:
            out.append(found)
    return solid, out


def _diameters(elements: list[Json], outside: bool) -> list[float]:
    """The middle of the limits, where there are some, or what is left for grinding; the face before a cylinder goes
    with it."""
    found = [one["d_mm"] for one in elements]
    for n, one in enumerate(elements):
        size, grind = one.get("size"), one.get("grind_mm")
        if size or grind:
            middle = (size["lower_um"] + size["upper_um"]) / 2000 if size else 0.0
            found[n] = one["d_mm"] + ((grind if outside else -grind) if grind else middle)
            bare = n and not elements[n - 1].get("size") and not elements[n - 1].get("grind_mm")
            alike = bare and elements[n - 1]["d_mm"] == one["d_mm"]
            cylinder = n > 1 and elements[n - 2]["d_mm"] == elements[n - 1]["d_mm"]
            if alike and not (cylinder and elements[n - 1].get("kind") != "arc"):
                found[n - 1] = found[n]
    return found


def _chain(elements: list[Json], edge: float, closes: bool, start: tuple[float, float] = (0.0, 0.0)) -> Outline:
    """Places along a profile with its corners. ``closes``: it ends with the back face on the axis."""
    at = start
    runs: list[Outline] = []
    straight: list[bool] = []
    corner: list[Json | None] = []
    for n, (one, d) in enumerate(zip(elements, _diameters(elements, closes), strict=True)):
        end = (one["z_mm"], d / 2)
        if n and one.get("kind") != "arc" and one["d_mm"] == elements[n - 1]["d_mm"] and at[0] - end[0] > 1e-6:
            at = (at[0], d / 2)  # a cylinder with limits of its own beside one of the same diameter
        if one.get("kind") == "arc":
            runs.append(_arc(at, end, one["radius_mm"], one.get("bulge", "convex"), closes))
            straight.append(False)
        else:
            runs.append(np.array([at, end]))
            straight.append(True)
        corner.append(one.get("corner"))
        at = end
    if closes:
        runs.append(np.array([at, (at[0], 0.0)]))
        straight.append(True)
    sign = 1.0 if closes else -1.0
    places: list[Outline] = [runs[0]]
    for n in range(1, len(runs)):
        before, after = places[-1], runs[n]
        wanted = corner[n - 1]
        if wanted is None and edge > 0 and straight[n - 1] and straight[n]:
            wanted = _broken(runs[n - 1], before, after, edge, sign)
        if wanted is not None:
            before, between, after = _cut(before, after, wanted)
            places[-1] = before
            places.append(between)
        places.append(after)
    return np.vstack(places)


def _broken(whole: Outline, before: Outline, after: Outline, edge: float, sign: float) -> Json | None:
    """The chamfer of a sharp outer edge that has room for it."""
    a, b = before[-1] - before[-2], after[1] - after[0]
    la, lb = math.hypot(*a), math.hypot(*b)
    if min(la, lb) < 1e-6:
        return None
    turn = math.atan2(a[0] * b[1] - a[1] * b[0], float(a @ b)) * sign
    if turn < math.radians(25) or edge > 0.34 * min(la, lb):
        return None
    return {"kind": "chamfer", "size_mm": edge}


def _cut(before: Outline, after: Outline, wanted: Json) -> tuple[Outline, Outline, Outline]:
    """Both lines shortened, and what stands between them."""
    size, at = wanted["size_mm"], before[-1]
    a, b = before[-2] - at, after[1] - at
    ua, ub = a / math.hypot(*a), b / math.hypot(*b)
    if wanted["kind"] == "chamfer":
        first, last = at + size * ua, at + size * ub
        between = np.array([first, last])
    else:
        half = math.acos(max(-1.0, min(1.0, float(ua @ ub)))) / 2
        away = size / math.tan(half)
        first, last = at + away * ua, at + away * ub
        middle = at + (ua + ub) / math.hypot(*(ua + ub)) * size / math.sin(half)
        between = _round(first, last, middle)
    return np.vstack([before[:-1], first]), between, np.vstack([last, after[1:]])


def _round(first: Outline, last: Outline, middle: Outline) -> Outline:
    a, b = (math.atan2(*(p - middle)[::-1]) for p in (first, last))
    turn = (b - a + math.pi) % (2 * math.pi) - math.pi
    r = math.hypot(*(first - middle))
    count = max(4, int(abs(turn) / (2 * math.acos(max(1 - CHORD / r, 0.0)) or 0.1)) + 1)
    angles = a + turn * np.linspace(0, 1, count)
    return np.column_stack([middle[0] + r * np.cos(angles), middle[1] + r * np.sin(angles)])


def _arc(start: tuple[float, float], end: tuple[float, float], r: float, bulge: str, outside: bool) -> Outline:
    """The short arc between two places that bows away from the metal, or into it."""
    a, b = np.array(start), np.array(end)
    chord = b - a
    half = math.hypot(*chord) / 2
    r = max(r, half)
    up = np.array([-chord[1], chord[0]]) / (2 * half)
    if up[1] < 0 or (up[1] == 0 and up[0] < 0):
        up = -up
    rise = math.sqrt(max(r * r - half * half, 0.0))
    into_metal = -up if outside else up
    bows_out = bulge == "convex"
    middle = (a + b) / 2 + (into_metal if bows_out else -into_metal) * rise
    return _round(a, b, middle)


def _bore(part: Json, back: float) -> Outline:
    elements = part["inside"]
    first = elements[0]
    d = _diameters(elements, False)
    reach = _front_r(part, first["d_mm"])
    bare = [{"z_mm": 0.0, "d_mm": d[0], "corner": first.get("corner"), "size": None}, *elements[1:]]
    bare[0] = {**first, "d_mm": d[0], "size": None}
    line = _chain(bare, part.get("edge_break_mm", 0.0), closes=False, start=(0.0, reach))
    end = line[-1]
    if abs(end[0] - back) < 1e-6:  # through: the edge at the back face is broken as others are
        run_out = _chain([*bare, {"z_mm": back, "d_mm": 2 * max(_back_r(part), end[1] + 1e-6)}],
                         part.get("edge_break_mm", 0.0), closes=False, start=(0.0, reach))  # fmt: skip
        line = run_out[:-1]
        tail = [(back - FAR, line[-1][1]), (back - FAR, 0.0)]
    else:
        tail = [(end[0], 0.0)]
    void = np.vstack([line[1:], tail, [(FAR, 0.0), (FAR, line[1][1])]])
    if part.get("inside_from_back"):
        void = np.column_stack([back - void[:, 0], void[:, 1]])
    return void


def _front_r(part: Json, mouth: float) -> float:
    first = part["outside"][0]
    flat = abs(first["z_mm"]) < 1e-6
    return float(_diameters(part["outside"], True)[0] / 2 if flat else mouth / 2 + 1e-6)


def _back_r(part: Json) -> float:
    return float(_diameters(part["outside"], True)[-1] / 2)


def _height(outline: Outline, z: float, inside: bool = False) -> float:
    """Radius of the outside at a place, or of a bore."""
    (z0, r0), (z1, r1) = outline[:-1].T, outline[1:].T
    hit = ((z0 >= z) & (z1 <= z)) | ((z1 >= z) & (z0 <= z))
    hit &= z0 != z1
    r = r0[hit] + (z - z0[hit]) / (z1[hit] - z0[hit]) * (r1[hit] - r0[hit])
    r = r[r > 1e-9]
    return float(r.max()) if len(r) else 0.0


def _feature(one: Json, solid: Outline, void: Outline | None, back: float) -> Outline | None:
    kind = one["kind"]
    side = one.get("side", "outside")
    surface = solid if side == "outside" or void is None else void
    into = 1.0 if side == "outside" else -1.0
    if kind == "groove":
        return _groove(one, surface, into)
    if kind == "relief":
        return _relief(one, surface, into)
    if kind == "face_groove":
        return _face_groove(one, back)
    if kind == "axial_hole":
        return _hole(one, back)
    if kind == "centre_hole":
        return _centre(one, back)
    return None


def _groove(one: Json, surface: Outline, into: float) -> Outline:
    front, end, floor = one["z_mm"], one["z_mm"] - one["width_mm"], one["d_mm"] / 2
    lean, edge = math.tan(math.radians(one.get("wall_deg", 0.0))), one.get("edge_break_mm", 0.0)
    tops = [_height(surface, front - 1e-5), _height(surface, end + 1e-5)]
    depths = [into * (top - floor) for top in tops]
    floors = [front - depths[0] * lean, end + depths[1] * lean]
    edges = []
    for z, top, way in ((front, tops[0], 1.0), (end, tops[1], -1.0)):
        beyond = _height(surface, z + way * edge)
        edges.append(0.0 if edge and into * (beyond - top) > edge / 2 else edge)
    free = max(tops) + 1 if into > 0 else 0.0
    ring = [(front + edges[0], free), (front + edges[0], tops[0]), (front - edges[0] * lean, tops[0] - into * edges[0]),
            (floors[0], floor), (floors[1], floor), (end + edges[1] * lean, tops[1] - into * edges[1]),
            (end - edges[1], tops[1]), (end - edges[1], free)]  # fmt: skip
    return _rounded(ring, {3: one.get("floor_round_mm", 0.0), 4: one.get("floor_round_mm", 0.0)})


def _rounded(ring: list[tuple[float, float]], sizes: dict[int, float]) -> Outline:
    """Some corners of a ring rounded."""
    points = [np.array(p) for p in ring]
    found: list[Outline] = []
    for n, at in enumerate(points):
        size = sizes.get(n, 0.0)
        before, after = points[n - 1], points[(n + 1) % len(points)]
        if size <= 0 or np.allclose(before, at) or np.allclose(after, at):
            found.append(at[None])
            continue
        _, between, _ = _cut(np.array([before, at]), np.array([at, after]), {"kind": "round", "size_mm": size})
        found.append(between)
    return np.vstack(found)


def _relief(one: Json, surface: Outline, into: float) -> Outline:
    along = 1.0 if one.get("toward", "front") == "front" else -1.0
    z0, r, form = one["z_mm"], one["radius_mm"], one.get("form", "E")
    face = one.get("face_depth_mm", 0.0) if form in "FGH" else 0.0
    end = z0 + along * one["length_mm"]
    top = _height(surface, end - along * 1e-5)
    floor = top - into * one["depth_mm"]
    ramp = one["depth_mm"] / math.tan(math.radians({"G": 22.0, "thread": 30.0}.get(form, 15.0)))
    shoulder = floor + into * (2.01 * r + face / math.tan(math.radians(16.0 if form == "G" else 8.0)))
    free = max(shoulder, top) + 1 if into > 0 else max(min(shoulder, top) - 1, 0.0)
    ring = [
        (z0, shoulder),
        (z0 - along * face, floor),
        (end - along * ramp, floor),
        (end, top),
        (end, free),
        (z0, free),
    ]
    return _rounded(ring, {1: r})


def _face_groove(one: Json, back: float) -> Outline:
    outer, inner = one["d_mm"] / 2, one["d_mm"] / 2 - one["width_mm"]
    face, into = (0.0, -1.0) if one.get("end", "front") == "front" else (back, 1.0)
    floor, lean = face + into * one["depth_mm"], one["depth_mm"] * math.tan(math.radians(one.get("wall_deg", 0.0)))
    free = face - into
    ring = [(free, outer), (face, outer), (floor, outer - lean), (floor, inner + lean), (face, inner), (free, inner)]
    return _rounded(ring, {2: one.get("floor_round_mm", 0.0), 3: one.get("floor_round_mm", 0.0)})


def _hole(one: Json, back: float) -> Outline:
    face, into = (0.0, -1.0) if one.get("end", "front") == "front" else (back, 1.0)
    r, free = one["d_mm"] / 2, face - into
    if one.get("depth_mm") is None:
        end = face + into * (abs(back) + 1)
        return np.array([(free, 0), (free, r), (end, r), (end, 0)])
    angle = one.get("point_deg", 118.0)
    point = r / math.tan(math.radians(angle / 2)) if angle < 180 else 0.0
    full = face + into * one["depth_mm"]
    return np.array([(free, 0), (free, r), (full, r), (full + into * point, 0)])


CONES = {1.0: 2.12, 1.25: 2.65, 1.6: 3.35, 2.0: 4.25, 2.5: 5.3, 3.15: 6.7, 4.0: 8.5, 5.0: 10.6, 6.3: 13.2, 8.0: 17.0,
         10.0: 21.2}  # fmt: skip
"""Pilot and mouth of the 60 degree cone (ISO 6411), mm."""


def _centre(one: Json, back: float) -> Outline:
    face, into = (0.0, -1.0) if one.get("end", "front") == "front" else (back, 1.0)
    mouth, pilot = one["mouth_d_mm"] / 2, one["d_mm"] / 2
    form, free = one.get("form", "A"), face - into
    if form == "R":  # an arc that touches the pilot, of 2.83 pilots
        arc = 2.83 * one["d_mm"]
        heights = np.linspace(0.0, mouth - pilot, 400)
        along = np.sqrt(arc**2 - (arc - heights) ** 2)
        cone = float(along[-1])
        wall = [(face + into * (cone - x), pilot + h) for x, h in zip(along[::-1], heights[::-1], strict=True)]
    else:
        inner = min(CONES.get(one["d_mm"], 2.12 * one["d_mm"]) / 2, mouth) if form == "B" else mouth
        guard = (mouth - inner) / math.tan(math.radians(60))
        cone = guard + (inner - pilot) / math.tan(math.radians(30))
        wall = [(face, mouth), (face + into * guard, inner), (face + into * cone, pilot)]
    bottom = cone + 1.1 * one["d_mm"]
    tip = bottom + pilot / math.tan(math.radians(59))
    return np.array([(free, 0), (free, mouth), *wall, (face + into * bottom, pilot), (face + into * tip, 0)])
