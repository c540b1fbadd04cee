"""Metric threads with a rounded root for aircraft: MJ, ISO 5855; tolerances of ISO 965-1."""

import re
from dataclasses import replace

from toreuma.core.errors import StandardError
from toreuma.core.standards.threads.metric import METRIC, metric_thread
from toreuma.core.standards.threads.tables import ThreadTables
from toreuma.core.standards.threads.thread import Limits, Thread

__all__ = ["MJ", "mj_thread"]

MJ = re.compile(r"^MJ\s*(?P<rest>\d.*)$", re.I)
"""``MJ6x1-4h6h``, ``MJ10x1.25-4H5H``, ``MJ5x0.8``."""

ROOT_LARGEST, ROOT_SMALLEST = 0.180424, 0.150111
"""Radius of the root, in pitches."""

INSIDE_MINOR = 0.974279
"""The nut is opened to 9/8 of H below the bolt's major diameter, in pitches: its crest clears the round root."""

UP_TO_MM = 5.0
"""Up to this diameter the nut is 4H6H, above it 4H5H."""

SHARP = 0.433013
"""From the pitch line to the sharp root, in pitches (half of H)."""


def mj_thread(match: "re.Match[str]", tables: ThreadTables) -> Thread:
    """Root outside ``d2 - 2 (0.433013 - R/P) P``, minor inside ``D - 0.974279 P``. Raises `StandardError`."""
    name = match.string.strip()
    plain = METRIC.match(f"M{match['rest']}")
    if plain is None:
        raise StandardError(name, "this is no MJ thread", "write it like MJ10x1.25-4h6h")
    wanted = [one for one in (plain["tol"], plain["tol2"]) if one]
    d = float(plain["d"].replace(",", "."))
    bolt = next((one for one in wanted if one[-1].islower()), "4h6h")
    nut = next((one for one in wanted if one[-1].isupper()), "4H6H" if d <= UP_TO_MM else "4H5H")
    bare = re.split(r"[\s-]+(?=\d[A-Za-z])|[\s-]+LH", match["rest"], maxsplit=1)[0]
    left = " LH" if plain["left"] or plain["left1"] else ""
    full = METRIC.match(f"M{bare}-{nut}/{bolt}{left}")
    if full is None:
        raise StandardError(name, "this is no MJ thread", "write it like MJ10x1.25-4h6h")
    thread = metric_thread(full, tables)
    p, pitch = thread.pitch_mm, thread.external.pitch
    root = Limits(
        round(pitch.min - 2 * (SHARP - ROOT_SMALLEST) * p, 3), round(pitch.max - 2 * (SHARP - ROOT_LARGEST) * p, 3)
    )
    minor = thread.internal.minor
    begin = round(d - INSIDE_MINOR * p, 3)
    opened = Limits(begin, round(begin + minor.max - minor.min, 3))
    return replace(
        thread,
        designation=f"MJ{thread.designation[1:]}",
        external=replace(thread.external, minor=root),
        internal=replace(thread.internal, minor=opened),
        depth_external=(0.649519 / 2 + SHARP - ROOT_LARGEST) * p,
        depth_internal=INSIDE_MINOR / 2 * p,
        tap_drill_mm=opened.middle,
        source="ISO 5855-1, ISO 5855-2; tolerances ISO 965-1",
        notes=(*thread.notes, f"root of the bolt rounded by {ROOT_SMALLEST * p:.3f} to {ROOT_LARGEST * p:.3f} mm"),
    )
