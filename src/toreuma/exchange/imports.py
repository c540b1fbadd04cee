"""What every import gives back: a part, what was understood, what was left out, and how close it is."""

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

import numpy as np
import shapely

from toreuma.core.errors import ImportFault, JobError
from toreuma.core.geometry.dimension import Dimensioned
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.geometry.profile import build_profile
from toreuma.core.geometry.region import Region
from toreuma.core.model import Element, Job, Part
from toreuma.core.model.feature import Feature
from toreuma.files.reading import bytes_of

__all__ = ["Imported", "adopted", "adopted_as_blank", "checked_bytes", "understood"]

MAX_BYTES = 60_000_000
SAMPLE_MM = 0.2
MOST_SAMPLES = 50_000
MOST_LETTERS = 120
SAME_MM = 0.002
STOCK_FACTS = ("face_allowance_mm", "skin", "skin_mm", "runout_mm", "supply", "material")

Progress = Callable[[float], None]


@dataclass(frozen=True, kw_only=True)
class Imported:
    """A part read from a file. ``drawn`` is the metal as the file has it, moved so that its front is at Z 0."""

    part: Part
    drawn: Region
    units: str
    deviation_um: float
    warnings: tuple[str, ...] = ()
    ignored: tuple[str, ...] = ()
    layers: tuple[str, ...] = ()


def understood(
    dimensioned: Dimensioned,
    metal: Region,
    units: str,
    name: str,
    features: tuple[Feature, ...] = (),
    warnings: tuple[str, ...] = (),
    ignored: tuple[str, ...] = (),
    layers: tuple[str, ...] = (),
) -> Imported:
    """Build the part from its elements and measure how far it lies from what was drawn. Raises `PartError`."""
    plain = name.encode("utf-8", "replace").decode()[:MOST_LETTERS]
    part = Part(
        name=plain, outside=dimensioned.outside, inside=dimensioned.inside, features=(*dimensioned.holes, *features)
    )
    drawn = shapely.transform(
        metal, lambda points: np.column_stack([points[:, 0] + dimensioned.shift_mm, points[:, 1]])
    )
    missed = tuple(f"left out: {what}" for what in dimensioned.left_out)
    return Imported(
        part=part,
        drawn=drawn,
        units=units,
        deviation_um=deviation_um(drawn, build_part(part).region),
        warnings=(*warnings, *missed),
        ignored=ignored,
        layers=layers,
    )


def deviation_um(drawn: Region, built: Region) -> float:
    """Largest distance between both outlines, either way, µm."""
    step = max(SAMPLE_MM, drawn.exterior.length / MOST_SAMPLES, built.exterior.length / MOST_SAMPLES)
    a, b = drawn.exterior.segmentize(step), built.exterior.segmentize(step)
    there = shapely.distance(shapely.points(shapely.get_coordinates(a)), built.exterior)
    back = shapely.distance(shapely.points(shapely.get_coordinates(b)), drawn.exterior)
    return 1000 * float(max(there.max(), back.max()))


def adopted(job: Job, imported: Imported) -> Job:
    """The job with an imported part; names, limits and finish marks stay on surfaces that are still there."""
    part = imported.part.changed(
        outside=_kept(job.part, imported.part),
        edge_break_mm=0.0,
        general_tolerance=job.part.general_tolerance,
        ra_um=job.part.ra_um,
    )
    return job.changed(part=part)


def adopted_as_blank(job: Job, imported: Imported) -> Job:
    """The job with an imported profile as its casting or forging; its front stands the facing allowance ahead."""
    part = imported.part
    kept = job.stock.model_dump(include=set(STOCK_FACTS))
    blank = {"kind": "free", "outside": part.outside, "inside": part.inside}
    return job.changed(stock={**kept, **blank})


def _kept(old: Part, new: Part) -> tuple[Element, ...]:
    """Outside elements of the new part with what was said of the old surfaces they lie on."""
    before, after = build_profile(old), build_profile(new)
    lines = [
        (shapely.LineString(segment.points(0.001)), old.outside[index])
        for segment, index, corner in zip(before.segments, before.elements, before.corners, strict=True)
        if not corner and index < len(old.outside) and segment.length > SAME_MM
    ]
    found = list(new.outside)
    for segment, index in zip(after.segments, after.elements, strict=True):
        if index >= len(found):
            continue
        middle = shapely.Point(segment.at(0.5))
        same = next((element for line, element in lines if line.distance(middle) < SAME_MM), None)
        if same is not None:
            nominal = {"d_mm": same.d_mm, "size": same.size} if same.size is not None else {}
            found[index] = found[index].changed(name=same.name, ra_um=same.ra_um, **nominal)
    return tuple(found)


def checked_bytes(path: Path) -> bytes:
    """The file's content. Raises `ImportFault` when it is missing, empty or too large."""
    try:
        data = bytes_of(path, MAX_BYTES)
    except FileNotFoundError:
        raise ImportFault(path.name, "there is no such file", "check the file's name") from None
    except JobError as error:
        raise ImportFault(error.where, error.what, error.cure) from None
    if not data:
        raise ImportFault(path.name, "the file is empty", "save the drawing again")
    return data
