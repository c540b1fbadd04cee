"""Models in: a STEP solid, spun about its turning axis to a turned part with its milled extras."""

import re
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np

from toreuma.core.errors import ImportFault, PartError, ToreumaError
from toreuma.core.geometry.assemble import metal_of
from toreuma.core.geometry.dimension import Dimensioned, dimensioned
from toreuma.core.geometry.elements import Line, Segment
from toreuma.core.geometry.region import Region
from toreuma.core.memo import Check, never_cancel
from toreuma.exchange.imports import Imported, checked_bytes, understood
from toreuma.exchange.solids import wake
from toreuma.exchange.step_faces import Face, face_of, faces_of, turning_axis
from toreuma.exchange.step_milled import milled_features

__all__ = ["read_step"]

MAX_ENTITIES = 150_000
GAP_MM = 0.002

Progress = Callable[[float], None]


def read_step(path: Path, check: Check = never_cancel, progress: Progress = lambda share: None) -> Imported:
    """Spin the largest solid of a STEP file. Raises `ImportFault` in one line, and what ``check`` raises to stop.

    Faces round about the axis give lines and arcs of the half section; the others are sorted into holes, flats
    and slots; what fits none of these is named.
    """
    data = checked_bytes(path)
    if b"ISO-10303-21" not in data[:2000]:
        raise ImportFault(path.name, "this is not a STEP file", "export the model as STEP (ISO 10303-21)")
    if sum(1 for _ in re.finditer(rb"#\d+\s*=", data)) > MAX_ENTITIES:
        raise ImportFault(path.name, f"there are more than {MAX_ENTITIES} entities in it", "export one part alone")
    if b"END-ISO-10303-21" not in data[-4000:]:
        raise ImportFault(path.name, "the file breaks off before its end", "export it again")
    if re.search(rb"\b(nan|inf)\b", data, re.I):
        raise ImportFault(path.name, "there are places in it that are no numbers", "export it again")
    wake()
    solid, warnings = _solid(path)
    check()
    progress(0.4)
    faces = faces_of(solid)
    frame = turning_axis(faces)
    if frame is None:
        raise ImportFault(path.name, "no turning axis was found: nothing in it is round", "choose a turned part")
    local = []
    for count, face in enumerate(faces):
        check()
        progress(0.4 + 0.4 * count / len(faces))
        local.append(face_of(face, frame))
    try:
        metal, found, flipped = _section(local)
        milled, unknown = milled_features(local, metal)
    except ToreumaError as error:
        raise ImportFault(path.name, error.what, error.cure) from None
    check()
    features = tuple(feature.placed(found.shift_mm, flipped, metal) for feature in milled)
    warnings += [f"could not be told: {what}" for what in unknown]
    progress(0.95)
    drawn = _flip(metal) if flipped else metal
    return understood(found, drawn, "mm", path.stem, features, tuple(warnings))


def _solid(path: Path) -> tuple[Any, list[str]]:
    """The largest solid in the file, in mm."""
    from OCP.BRepGProp import BRepGProp
    from OCP.GProp import GProp_GProps
    from OCP.IFSelect import IFSelect_RetDone
    from OCP.ShapeUpgrade import ShapeUpgrade_UnifySameDomain
    from OCP.STEPControl import STEPControl_Reader
    from OCP.TopAbs import TopAbs_SOLID
    from OCP.TopExp import TopExp_Explorer

    reader = STEPControl_Reader()
    if reader.ReadFile(str(path)) != IFSelect_RetDone:
        raise ImportFault(path.name, "the STEP text cannot be read", "export it again")
    reader.TransferRoots()
    explorer = TopExp_Explorer(reader.OneShape(), TopAbs_SOLID) if reader.NbShapes() else None
    sized = []
    while explorer is not None and explorer.More():
        properties = GProp_GProps()
        BRepGProp.VolumeProperties_s(explorer.Current(), properties)
        sized.append((abs(properties.Mass()), len(sized), explorer.Current()))
        explorer.Next()
    if not sized:
        raise ImportFault(path.name, "there is no solid in it", "export the part as a solid, not as surfaces")
    warnings = [f"there are {len(sized)} solids in it: the largest was taken"] if len(sized) > 1 else []
    unified = ShapeUpgrade_UnifySameDomain(max(sized)[2], True, True, False)
    unified.Build()  # faces that were split for no reason become one
    return unified.Shape(), warnings


def _section(faces: list[Face]) -> tuple[Region, Dimensioned, bool]:
    """Metal of the half section, its elements, and whether the part was turned round to open its bore in front."""
    segments = [segment for face in faces for segment in face.generatrix]
    try:
        metal, _ = metal_of(segments, GAP_MM)
    except PartError:  # a pocket in the middle of a face leaves the outline open there
        metal, _ = metal_of([*segments, *_end_faces(segments)], GAP_MM)
    first = dimensioned(metal)
    if not first.holes and not first.left_out:
        return metal, first, False
    second = dimensioned(_flip(metal))
    if len(second.left_out) < len(first.left_out) or (first.holes and not first.inside and not second.holes):
        return metal, second, True
    return metal, first, False


def _end_faces(segments: list[Segment]) -> list[Segment]:
    """Both end faces drawn down to the axis."""
    ends = [end for segment in segments for end in (segment.start, segment.end)]
    found: list[Segment] = []
    for pick in (min, max):
        z = pick(end[0] for end in ends)
        low = min(end[1] for end in ends if abs(end[0] - z) < GAP_MM)
        if low > GAP_MM:
            found.append(Line((z, 0.0), (z, low)))
    return found


def _flip(metal: Region) -> Region:
    import shapely

    return shapely.transform(metal, lambda points: np.column_stack([-points[:, 0], points[:, 1]]))
