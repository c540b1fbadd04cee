"""Pipe threads: parallel (ISO 228-1), taper (ISO 7-1), and the inch taper thread (ASME B1.20.1)."""

import math
import re

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads.inches import INCH_SIZE, MM, listed_size
from toreuma.core.standards.threads.tables import Dryseal, NptSize, ThreadTables
from toreuma.core.standards.threads.thread import Limits, Side, Thread

__all__ = ["NPT", "PIPE", "npt_thread", "pipe_thread", "turns_agree"]

_BSP = r"(?i:BSP[PT]?)"
PIPE = re.compile(
    rf"^(?:(?P<kind>G|Rc|Rp|Rs|R|{_BSP})\s*(?P<size>{INCH_SIZE})"
    rf"|(?P<size2>{INCH_SIZE})(?:\"|in)?(?:\s*-\s*(?P<tpi>\d+(?:\.\d+)?))?\s*-?\s*(?P<kind2>{_BSP}))"
    r"\s*-?\s*(?P<cls>[AB])?(?P<left>\s*-?\s*LH)?$"
)
"""``G 1/2``, ``G1/2 A``, ``R 3/4``, ``Rc 1/4``, ``Rp 1``, ``1/2-14 BSPP``, ``BSPT 3/4``."""

CALLED = {"BSP": "G", "BSPP": "G", "BSPT": "R"}
"""What British words mean in the standards of today; BSP alone is the parallel one."""

INSIDE_TURNS = 1.25
"""The gauge plane of inside threads may be off by so many turns (ISO 7-1); a parallel Rp by a sixteenth of that."""

G_DRILLS_MM = {
    "1/16": 6.8, "1/8": 8.8, "1/4": 11.8, "3/8": 15.25, "1/2": 19.0, "5/8": 21.0, "3/4": 24.5, "7/8": 28.25, "1": 30.75,
    "1-1/4": 39.25, "1-1/2": 45.25, "2": 57.0,
}  # fmt: skip
"""Drills of parallel holes: as usually listed."""

RC_DRILLS_MM = {"1/8": 8.4, "1/4": 11.2, "3/8": 14.75, "1/2": 18.25, "3/4": 23.75, "1": 30.0}
"""Drills of taper holes that are tapped without reaming: as usually listed."""

NPT = re.compile(
    rf"^(?:NPT(?P<dry>F)?\s*(?P<a>{INCH_SIZE})(?:\"|in)?(?:\s*-\s*(?P<tpi2>\d+(?:\.\d+)?))?"
    rf"|(?P<b>{INCH_SIZE})(?:\"|in)?(?:\s*-\s*(?P<tpi>\d+(?:\.\d+)?))?\s*-?\s*NPT(?P<dry2>F)?)$",
    re.I,
)
"""``NPT 1/2``, ``1/2-14 NPT``, ``NPTF 1/4-18``."""

TAPER = 1 / 16


def pipe_thread(match: "re.Match[str]", tables: ThreadTables) -> Thread:
    """55 degree pipe threads: ``d2 = d - 0.640327 P``, ``d1 = d - 1.280654 P``. Raises `StandardError`.

    Parallel G: outside -T (class A) or -2T (class B), inside +T. Taper R and Rc: what the gauge plane may be off
    along the axis, over 16, is what the diameters may be off.
    """
    table, name, said = tables.pipe, match.string.strip(), match["kind"] or match["kind2"]
    kind, listed = CALLED.get(said.upper(), said), listed_size(match["size"] or match["size2"])
    size = table.sizes.get(listed)
    if size is None:
        raise StandardError(name, "the standard has no such size", f"use one of {', '.join(table.sizes)}")
    turns_agree(name, match["tpi"], size.per_inch)
    p, d = MM / size.per_inch, size.major_mm
    height = round(0.640327 * p, 3)  # as the standard prints it
    d2, d1 = d - height, d - 2 * height
    t, minor_t = size.pitch_tolerance_um / 1000, size.minor_tolerance_um / 1000
    if kind == "G":
        cls = match["cls"] or "A"
        low = t if cls == "A" else 2 * t
        external = Side(Limits(d - 2 * t, d), Limits(d2 - low, d2), Limits(d1 - low, d1), f"class {cls}")
        internal = Side(Limits(d, d + t), Limits(d2, d2 + t), Limits(d1, d1 + minor_t), "one class")
        notes: tuple[str, ...] = ()
    else:
        if size.gauge_tolerance_mm is None:
            raise StandardError(name, "the standard has no taper thread of this size", "use the parallel thread G")
        external, internal = (
            _about((d, d2, d1), off) for off in (size.gauge_tolerance_mm * TAPER, INSIDE_TURNS * p * TAPER)
        )
        notes = ("diameters in the gauge plane",)
    taper = TAPER if kind in ("R", "Rc") else 0.0
    return Thread(
        designation=f"{kind}{listed}{' LH' if match['left'] else ''}",
        family="pipe",
        d_mm=d,
        pitch_mm=p,
        flank_deg=55.0,
        external=external,
        internal=internal,
        depth_external=0.640327 * p,
        depth_internal=0.640327 * p,
        tap_drill_mm=_drill_mm(kind, listed, internal),
        source=table.source,
        left_hand=bool(match["left"]),
        taper=taper,
        gauge_length_mm=size.gauge_length_mm if kind != "G" else None,
        notes=notes,
    )


def _drill_mm(kind: str, listed: str, internal: Side) -> float:
    """The usual drill; the middle of the minor diameter's limits where none is listed or it lies outside them."""
    if kind in ("R", "Rc"):
        return RC_DRILLS_MM.get(listed, internal.minor.middle)
    drill = G_DRILLS_MM.get(listed, internal.minor.middle)
    return drill if internal.minor.min <= drill <= internal.minor.max else internal.minor.middle


def _about(diameters: tuple[float, float, float], off: float) -> Side:
    """Diameters in the gauge plane, as much either way."""
    major, pitch, minor = (Limits(x - off, x + off) for x in diameters)
    return Side(major, pitch, minor, "ISO 7-1")


def turns_agree(name: str, said: str | None, per_inch: float) -> None:
    """Raises `StandardError` where a designation says another number of threads per inch than its size has."""
    if said and abs(float(said) - per_inch) > 1e-9:
        raise StandardError(name, f"this size has {per_inch:g} threads per inch, not {said}", "leave the number out")


def npt_thread(match: "re.Match[str]", tables: ThreadTables) -> Thread:
    """Inch taper pipe thread, 60 degrees, 1 in 16. Raises `StandardError`.

    Pitch diameter at the small end ``E0 = D - (0.05 D + 1.1) p``, at the hand-tight plane ``E1 = E0 + L1/16``;
    height 0.8 p; one turn either way is allowed, p/16 on diameter.
    """
    table, name = tables.npt, match.string.strip()
    listed = listed_size(match["a"] or match["b"])
    size = table.sizes.get(listed)
    if size is None:
        raise StandardError(name, "the standard has no such size", f"use one of {', '.join(table.sizes)}")
    turns_agree(name, match["tpi"] or match["tpi2"], size.per_inch)
    p, outside = 1 / size.per_inch, size.outside_in
    small = outside - (0.05 * outside + 1.1) * p
    pitch, turn, height = small + TAPER * size.hand_tight_in, p * TAPER, 0.8 * p
    dry = table.dryseal.get(f"{size.per_inch:g}") if match["dry"] or match["dry2"] else None
    if dry is not None:
        return _dryseal(listed, size, pitch, dry, tables)
    major, middle, minor = (Limits((x - turn) * MM, (x + turn) * MM) for x in (pitch + height, pitch, pitch - height))
    side = Side(major, middle, minor, "NPT")
    return Thread(
        designation=f"{listed}-{size.per_inch:g} NPT",
        family="npt",
        d_mm=(pitch + height) * MM,
        pitch_mm=p * MM,
        flank_deg=60.0,
        external=side,
        internal=side,
        depth_external=height * MM,
        depth_internal=height * MM,
        tap_drill_mm=size.tap_drill_mm,
        source=table.source,
        taper=TAPER,
        gauge_length_mm=size.hand_tight_in * MM,
        notes=("diameters in the hand-tight plane",),
    )


def _dryseal(listed: str, size: NptSize, pitch: float, dry: Dryseal, tables: ThreadTables) -> Thread:
    """NPTF: the pitch diameters and lengths of NPT; crests and roots are cut off so that they meet and seal.

    The sharp form stands ``H/2 = 0.433013 p`` above and below the pitch line; ``dry`` has what is cut off, in pitches.
    """
    p = 1 / size.per_inch
    turn, half = p * TAPER, math.sqrt(3) / 4 * p
    crests = [pitch + 2 * (half - share * p) for share in reversed(dry.crest)]
    roots = [pitch - 2 * (half - share * p) for share in dry.root]
    outside = Side(
        Limits(crests[0] * MM, crests[1] * MM),
        Limits((pitch - turn) * MM, (pitch + turn) * MM),
        Limits(roots[0] * MM, roots[1] * MM),
        "NPTF",
    )
    tops = [pitch + 2 * (half - share * p) for share in reversed(dry.root)]
    bottoms = [pitch - 2 * (half - share * p) for share in dry.crest]
    inside = Side(Limits(tops[0] * MM, tops[1] * MM), outside.pitch, Limits(bottoms[0] * MM, bottoms[1] * MM), "NPTF")
    deep = (2 * half - (dry.crest[0] + dry.root[0]) * p) * MM
    return Thread(
        designation=f"{listed}-{size.per_inch:g} NPTF",
        family="npt",
        d_mm=outside.major.max,
        pitch_mm=p * MM,
        flank_deg=60.0,
        external=outside,
        internal=inside,
        depth_external=deep,
        depth_internal=deep,
        tap_drill_mm=size.tap_drill_mm,
        source=tables.npt.dryseal_source,
        taper=TAPER,
        gauge_length_mm=size.hand_tight_in * MM,
        notes=("diameters in the hand-tight plane", "crest and root as they are cut off there"),
    )
