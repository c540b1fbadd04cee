"""The blank as a region: what turns before the first cut."""

import shapely
from shapely.affinity import scale, translate

from toreuma.core.errors import PartError
from toreuma.core.geometry.chain import bare_segments
from toreuma.core.geometry.elements import CHORD_MM, chords
from toreuma.core.geometry.part_shape import PartShape
from toreuma.core.geometry.region import Region, box, region_from_points, union
from toreuma.core.model.part import Element
from toreuma.core.model.stock import FreeBlank, Stock, TubeBar

__all__ = ["blank_region", "outline_points"]

FAR_MM, SAME_MM = 200.0, 1e-6


def blank_region(stock: Stock, shape: PartShape, back_z: float) -> Region:
    """Upper half section of the blank, mm; a bar ends at ``back_z``, a sawn piece after its length.

    Polygon bars count out to their corners: a tool meets metal there on every turn. Raises `PartError`.
    """
    front = stock.face_allowance_mm
    back = back_z if stock.length_mm is None else front - stock.length_mm
    if isinstance(stock, FreeBlank):
        return _free(stock, shape)
    solid = box(back, 0, front, stock.largest_d_mm / 2)
    if not isinstance(stock, TubeBar):
        return solid
    if stock.bore_d_mm >= stock.d_mm:
        raise PartError(-1, "", "the bore of the blank is not smaller than its outside", "type a smaller bore", "stock")
    end = back - 1 if stock.bore_depth_mm is None else front - stock.bore_depth_mm
    return solid.difference(box(end, 0, front + 1, stock.bore_d_mm / 2))


def outline_points(elements: tuple[Element, ...], chord_mm: float = CHORD_MM) -> list[tuple[float, float]]:
    """Places (z, r) along a profile without its corners, from the axis on, mm. Raises `PartError`."""
    return [(0.0, 0.0), *((float(z), float(r)) for z, r in chords(bare_segments(elements, "outside"), chord_mm))]


def _free(stock: FreeBlank, shape: PartShape) -> Region:
    if stock.outline:
        return region_from_points(stock.outline)
    if not stock.outside:
        solid = region_from_points(shape.profile.points)
        grown = solid.buffer(stock.allowance_mm, join_style="mitre")
        hollow = _opened(shape).buffer(-stock.allowance_mm, join_style="mitre") if shape.void is not None else None
        grown = grown.difference(hollow) if hollow is not None and not hollow.is_empty else grown
        return shapely.clip_by_rect(grown, -1e6, 0, 1e6, 1e6)
    outline = outline_points(stock.outside)
    solid = region_from_points([*outline, (outline[-1][0], 0.0)])
    if stock.inside:
        inner = chords(bare_segments(stock.inside, "inside")).tolist()
        through = abs(inner[-1][0] - outline[-1][0]) < 1e-6
        closing = [[inner[-1][0] - (1.0 if through else 0.0), inner[-1][1]], [inner[-1][0] - 1.0 * through, 0.0]]
        mouth = [[1.0, 0.0], [1.0, inner[1][1]], *inner[1:], *closing]
        solid = solid.difference(region_from_points(mouth))
    return translate(solid, stock.face_allowance_mm)


def _opened(shape: PartShape) -> Region:
    """The bore of the part, run on far past the faces it opens in."""
    void = shape.void
    assert void is not None
    low, high = float(void.bounds[0]), float(void.bounds[2])
    pieces = [void]
    if high > shape.profile.front_z - SAME_MM:
        pieces.append(box(high - 0.5, 0, high + FAR_MM, _radius_at(void, high - 0.25)))
    if low < shape.profile.back_z:
        pieces.append(box(low - FAR_MM, 0, low + 0.5, _radius_at(void, low + 0.25)))
    whole = union(pieces)
    return union([whole, scale(whole, 1, -1, origin=(0, 0))])  # the axis is no wall to keep away from


def _radius_at(region: Region, z: float) -> float:
    return float(shapely.intersection(region, shapely.LineString([(z, 0.0), (z, 1e5)])).bounds[3])
