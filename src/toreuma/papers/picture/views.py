"""What the drawings of a sheet show: a part in its hold, a part in section with numbers, metal after an operation."""

from collections.abc import Sequence

import numpy as np
from shapely.affinity import scale as scaled

from toreuma.core.geometry.envelope import upper_envelope
from toreuma.core.geometry.region import Region, box, union
from toreuma.core.geometry.symbols import symbols_of
from toreuma.core.model import Chuck, Job
from toreuma.core.model.hold import Collet, FaceDriver
from toreuma.core.scene import Scene
from toreuma.core.standards.threads import Thread
from toreuma.core.units import System, show
from toreuma.papers.picture.board import Board, scale_for
from toreuma.papers.picture.dimension import Balloon, along, balloons, datum_mark, leader, rows_of

__all__ = ["Picture", "held", "metal_after", "numbered"]

Picture = tuple[str, float]
"""An SVG and its scale."""

EDGE_DEG = 8.0
"""An edge is drawn where the outline bends by more."""

BODY_MM, PAST_MM = 14.0, 4.0
"""So much of the chuck's body is shown behind the jaws, and so much air in front."""

JAW_SHARE, JAW_MM = 0.35, 12.0
"""So much of the jaws is shown above the blank, as a share of its radius or mm; higher ones are cut off."""

JAW, BODY, TAKEN = "#e4e4e4", "#d2d2d2", "#8a8a8a"


def mirrored(region: Region) -> Region:
    """The lower half of what turns."""
    found: Region = scaled(region, 1, -1, origin=(0, 0))
    return found


def held(job: Job, scene: Scene, threads: dict[str, Thread], room: tuple[float, float], system: System) -> Picture:
    """A side in its hold, to scale: the part in half section, the blank round it, jaws, centre, lengths to set."""
    solid = union([scene.stock, scene.part, scene.jaws])
    stock_r = max(float(scene.stock.bounds[3]), float(scene.part.bounds[3]))
    high = min(float(solid.bounds[3]), stock_r + max(JAW_SHARE * stock_r, JAW_MM))
    left = float(min(scene.jaws.bounds[0] if not scene.jaws.is_empty else scene.jaw_face_z, scene.stock.bounds[0]))
    if job.stock.length_mm is None and job.stock.kind != "free":  # a bar runs on through the spindle
        left = float(scene.jaws.bounds[0]) if not scene.jaws.is_empty else scene.jaw_face_z
    left -= BODY_MM
    right = max(float(solid.bounds[2]), float(scene.centre.bounds[2]) if not scene.centre.is_empty else -1e9) + PAST_MM
    margin = (38.0, 12.0, 30.0, 26.0)
    inner = (room[0] - margin[0] - margin[2], room[1] - margin[1] - margin[3])
    scale = scale_for(right - left, 2 * high, inner)
    board = Board((left, -high, right, high), scale, margin)
    frame = box(left, -high, right, high)
    for region, fill in ((scene.chuck, BODY), (scene.jaws, JAW), (scene.steady, JAW), (scene.centre, JAW)):
        both = union([region, mirrored(region)]).intersection(frame)
        board.region(both, "middle", fill)
    _part(board, job, scene, threads)
    board.region(scene.stock.intersection(frame), "adjacent")
    seen = upper_envelope(scene.stock, float(scene.stock.bounds[2]), float(scene.stock.bounds[0])).below(0.0)
    board.region(mirrored(seen).intersection(frame), "adjacent")
    board.line([(left, 0.0), (right, 0.0)], "centre")
    _lengths_to_set(board, job, scene, system)
    return board.svg, scale


def _lengths_to_set(board: Board, job: Job, scene: Scene, system: System) -> None:
    """Stick-out, grip, what stands before Z 0, blank and jaws."""
    hold, front, face = job.setup.hold, scene.stock_front_z, scene.jaw_face_z
    bottom = board.height - board.margin[3]

    def words(mm: float) -> str:
        return show(mm, "mm", system, trim=True).number

    if not isinstance(hold, FaceDriver):
        along(board, face, front, -scene.grip_r, -scene.stock_r, bottom + 6, words(hold.stick_out_mm))
        grip_to = max(face - hold.grip_length_mm, board.window[0])
        along(board, grip_to, face, -scene.grip_r, -scene.grip_r, bottom + 13, words(hold.grip_length_mm))
    if front > 0.01:
        along(board, 0.0, front, -scene.stock_r, -scene.stock_r, bottom + 20, words(front))
    datum_mark(board, 0.0, 0.0, 8.0, "Z 0")
    beside = board.width - board.margin[2] + 7.0
    top = board.y(scene.stock_r)
    leader(board, front, scene.stock_r, beside, max(top - 6.0, 6.0), "Ø " + words(2 * scene.stock_r))
    if not isinstance(hold, Chuck | Collet):
        return
    bored = getattr(hold, "bored_d_mm", None)
    d = "Ø " + words(2 * scene.grip_r)
    lines = (
        [f"jaws bored {d}", f"{words(hold.bored_depth_mm)} deep"]
        if bored and isinstance(hold, Chuck) and hold.bored_depth_mm
        else [f"jaws bored {d}" if bored else f"grips on {d}"]
    )
    at = (board.x(max(face - min(hold.grip_length_mm, 6.0) / 2, board.window[0])), board.y(scene.grip_r))
    end, y = board.margin[0] - 6.0, max(board.y(high_of(board)) - 4.0, 6.0)
    board.paper_line([at, (end, y), (0.5, y)])
    board.arrow(*at, end - at[0], y - at[1])
    for number, line in enumerate(lines):
        board.text(0.5, y - 0.8 + 3.8 * number, line, anchor="start")


def high_of(board: Board) -> float:
    """The highest place that is shown."""
    return board.window[3]


def _part(board: Board, job: Job, scene: Scene, threads: dict[str, Thread]) -> None:
    """The upper half in section, the lower one as it is seen."""
    board.hatch(scene.part)
    board.region(scene.part)
    for symbol in symbols_of(job.part, scene.shape, threads):
        kind = {"thin": "narrow", "edge": "middle", "centre": "centre"}[symbol.style]
        board.line(list(symbol.points), kind)
        if symbol.style == "thin":
            board.line([(z, -r) for z, r in symbol.points], kind)
    _silhouette(board, scene)


def _silhouette(board: Board, scene: Scene) -> None:
    """The outline from outside with its edges, below the axis."""
    points = upper_envelope(scene.part, scene.profile.front_z, scene.profile.back_z).points
    points = points[points[:, 1] > -1e-6]
    if len(points) < 2:
        return
    ends = [(float(points[0, 0]), 0.0), *((float(z), -float(r)) for z, r in points), (float(points[-1, 0]), 0.0)]
    board.line(ends, "wide")
    way = np.diff(points, axis=0)
    way = way[np.linalg.norm(way, axis=1) > 1e-9]
    angles = np.degrees(np.arctan2(way[:, 1], way[:, 0]))
    bends = np.abs((np.diff(angles) + 180) % 360 - 180) > EDGE_DEG
    kept = points[np.r_[True, np.linalg.norm(np.diff(points, axis=0), axis=1) > 1e-9]]
    seen: set[tuple[float, float]] = set()
    for z, r in kept[1:-1][bends[: len(kept) - 2]]:
        key = (round(float(z), 4), round(float(r), 4))
        if r > 0.05 and key not in seen:
            seen.add(key)
            board.line([(float(z), 0.0), (float(z), -float(r))], "middle")


def numbered(
    job: Job, scene: Scene, threads: dict[str, Thread], wanted: Sequence[Balloon], room: tuple[float, float]
) -> Picture:
    """The finished part in full section with numbers in circles: outside above, inside below the axis."""
    z0, _, z1, high = scene.part.bounds
    above, below = (sum((one.r >= 0) == upper for one in wanted) for upper in (True, False))
    margin = (8.0, _rows_mm(above, room[0]), 8.0, _rows_mm(below, room[0]))
    inner = (room[0] - margin[0] - margin[2], room[1] - margin[1] - margin[3])
    scale = scale_for(z1 - z0, 2 * high, inner)
    spare = max((room[0] - (z1 - z0) * scale) / 2, margin[0])
    board = Board((z0, -high, z1, high), scale, (spare, margin[1], spare, margin[3]))
    both = union([scene.part, mirrored(scene.part)])
    board.hatch(both)
    board.region(both)
    for symbol in symbols_of(job.part, scene.shape, threads):
        kind = {"thin": "narrow", "edge": "middle", "centre": "centre"}[symbol.style]
        board.line(list(symbol.points), kind)
        board.line([(z, -r) for z, r in symbol.points], kind)
    over = 5.0 / scale
    board.line([(z0 - over, 0.0), (z1 + over, 0.0)], "centre")
    balloons(board, wanted)
    return board.svg, scale


def _rows_mm(count: int, width_mm: float) -> float:
    """Room for rows of so many numbers on a drawing so wide, mm."""
    return 14.0 + 7.2 * rows_of(count, width_mm) if count else 3.0


def metal_after(scene: Scene, before: Region, after: Region, room: tuple[float, float]) -> Picture:
    """The upper half as an operation leaves it: what it took is dark, the part a thin line."""
    z1 = max(float(scene.stock.bounds[2]), float(before.bounds[2])) + 1.0
    z0 = min(scene.profile.back_z, scene.jaw_face_z) - 6.0
    high, low = float(scene.stock.bounds[3]) * 1.04, min(float(before.bounds[1]), float(scene.part.bounds[1]))
    low = max(low - 0.2 * (high - low), 0.0)
    low = low if low > 0.25 * high else 0.0  # a wide ring is shown without the air in it
    margin = (0.5, 0.5, 0.5, 1.5)
    fits = min((room[0] - margin[0] - margin[2]) / (z1 - z0), (room[1] - margin[1] - margin[3]) / (high - low))
    board = Board((z0, low, z1, high), fits, margin)  # not to a standard scale: it shows, it is not measured
    frame = box(z0, low, z1, high)
    board.region(union([scene.chuck, scene.jaws, scene.centre, scene.steady]).intersection(frame), "narrow", BODY)
    metal = after.intersection(frame)
    board.hatch(metal, 1.3)
    board.region(metal, "middle")
    taken = before.difference(after).intersection(frame)
    board.region(taken, None, TAKEN)
    board.region(scene.part.intersection(frame), "narrow")
    if low < 1e-9:
        board.line([(z0, 0.0), (z1, 0.0)], "centre")
    return board.svg, fits
