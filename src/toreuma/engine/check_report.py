"""What came of a program without a drawing, as data."""

from collections.abc import Callable, Iterable, Sequence
from itertools import groupby
from typing import Any

from toreuma.core.errors import ProgramError
from toreuma.core.findings import Finding
from toreuma.core.geometry.region import Region
from toreuma.core.motion import Motion
from toreuma.core.prove.piece import Step, bore_steps, merged, outline_of, outside_steps
from toreuma.core.read import kind_of
from toreuma.core.read.overview import Extreme, ToolUse
from toreuma.engine.check import Checked
from toreuma.engine.driven_work import made_beside
from toreuma.engine.foreign_job import OF_THE_CUT
from toreuma.engine.piece_as_part import part_of_piece
from toreuma.engine.reading_report import finding_row, units_of
from toreuma.engine.study import Cut

__all__ = ["check_report", "kind_in", "overview_row", "piece_rows"]

RIDGES, SAME_SHARE = 1.5, 0.1
"""The first and last ridges of a thread stand within so many leads of its ends; crests that differ by less than this
share of the lead are one cylinder."""


def check_report(made: Checked) -> dict[str, Any]:
    """Tools, findings, and the piece as it stands at the end."""
    proof, program = made.cut.proof, made.study.program
    piece = proof.final
    return {
        "dialect": made.study.dialect.id,
        "units": units_of(program),
        "safe": made.safe,
        "time_s": round(proof.time_s, 2),
        "parted": proof.parted,
        "tools": [
            {**overview_row(use), "kind": tool.tool.kind, "nose_mm": tool.nose_mm, "assumed": list(tool.assumed)}
            for use, tool in zip(made.study.overview.tools, made.study.tools, strict=True)
        ],
        "contacts": [
            {"line": one.line, "what": one.what, "depth_mm": round(one.depth_mm, 4), "z": round(one.at[0], 4),
             "d": round(2 * one.at[1], 4)}
            for one in proof.contacts
        ],
        "piece": {
            "outline": [[round(z, 4), round(2 * r, 4)] for z, r in outline_of(piece).tolist()],
            **piece_rows(made.cut),
            "removed_mm3": round(_volume(proof.before) - _volume(piece), 1),
        },
        "assumed": list(made.cut.assumed),
        "findings": [_row(one) for one in made.findings],
    }  # fmt: skip


def thread_rows(motions: Sequence[Motion]) -> list[dict[str, Any]]:
    """Threads that were cut in step with the spindle, by tool and lead: between which places, and how deep."""
    found: dict[tuple[int, float], list[Motion]] = {}
    for one in motions:
        if one.in_step and one.feed and abs(one.end[0] - one.start[0]) > one.feed:
            found.setdefault((one.station, round(one.feed, 4)), []).append(one)
    rows = []
    for (station, lead), cuts in found.items():
        ends = [z for one in cuts for z in (one.start[0], one.end[0])]
        radii = [r for one in cuts for r in (one.start[1], one.end[1])]
        rows.append({"station": station, "line": cuts[0].line, "lead_mm": lead, "front_z": round(max(ends), 4),
                     "back_z": round(min(ends), 4), "smallest_d": round(2 * min(radii), 4),
                     "largest_d": round(2 * max(radii), 4), "passes": len(cuts)})  # fmt: skip
    return rows


def _without_ridges(steps: Sequence[Step], threads: Sequence[dict[str, Any]], inside: bool) -> list[Step]:
    """Steps that are the ridges of a thread become one, as wide as its crests, or as narrow in a bore."""

    def thread_of(one: Step) -> int | None:
        middle, short = (one.front_z + one.back_z) / 2, one.front_z - one.back_z
        low, high = sorted((one.front_d, one.back_d))
        return next((n for n, row in enumerate(threads) if row["back_z"] <= middle <= row["front_z"]
                     and short < row["lead_mm"]
                     and (high < row["largest_d"] + 0.01 if inside else low > row["smallest_d"] - 0.01)),
                    None)  # fmt: skip

    found: list[Step] = []
    for number, run in groupby(steps, thread_of):
        ridges = list(run)
        lead = None if number is None else threads[number]["lead_mm"]
        found += ridges if lead is None else [_over_ridges(ridges, lead, min if inside else max)]
    return found


def _over_ridges(ridges: list[Step], lead: float, crest: Callable[[Iterable[float]], float]) -> Step:
    """One step over the crests, from those at the front to those at the back."""
    front, back = ridges[0].front_z, ridges[-1].back_z
    ends = [[one for one in ridges if one.front_z > front - RIDGES * lead],
            [one for one in ridges if one.back_z < back + RIDGES * lead]]  # fmt: skip
    first, last = (crest(d for one in each for d in (one.front_d, one.back_d)) for each in ends)
    if abs(first - last) < SAME_SHARE * lead:
        first = last = crest((first, last))
    return Step(front, back, first, last)


def piece_rows(cut: Cut) -> dict[str, Any]:
    """Steps outside and in the bore, grooves in the face, threads, and what lies beside the axis, of what is left."""
    piece, threads = cut.proof.final, thread_rows(cut.study.program.motions)
    return {
        "outside": [_step(one) for one in _without_ridges(merged(outside_steps(piece)), threads, inside=False)],
        "bore": [_step(one) for one in _without_ridges(merged(bore_steps(piece)), threads, inside=True)],
        "face_grooves": _face_grooves(piece),
        "beside": list(made_beside(cut.study.program, cut.study.tools, piece).features),
        "threads": threads,
    }


def _face_grooves(piece: Region) -> list[dict[str, float]]:
    """Recesses in the front face: their outer and inner diameters, where the face is and how deep they are, mm."""
    if piece.is_empty:
        return []
    front = float(piece.bounds[2])
    try:
        features = part_of_piece(piece, front)["features"]
    except ProgramError:
        return []
    return [
        {"front_z": round(front, 4), "outer_d": one["d_mm"], "inner_d": round(one["d_mm"] - 2 * one["width_mm"], 4),
         "depth": one["depth_mm"]}
        for one in features if one["kind"] == "face_groove"
    ]  # fmt: skip


def kind_in(finding: Finding) -> str:
    """What a finding is to the person; what comes of cutting is a contact."""
    return "contact" if finding.code in OF_THE_CUT and finding.severity == "error" else kind_of(finding)


def _row(finding: Finding) -> dict[str, Any]:
    row = finding_row(finding)
    return row | {"kind": kind_in(finding)}


def overview_row(use: ToolUse) -> dict[str, Any]:
    return {
        "station": use.station,
        "offset": use.offset,
        "line": use.line,
        "comments": list(use.comments),
        "work": use.work,
        "inside": use.inside,
        "feeds": [round(one, 5) for one in use.feeds],
        "per_minute": use.per_minute,
        "leads_mm": [round(one, 5) for one in use.leads_mm],
        "speeds": [{"mode": mode, "value": round(value, 3)} for mode, value in use.speeds],
        "clamps_rpm": list(use.clamps_rpm),
        "cuts": use.cuts,
        "nearest_d": _extreme(use.nearest),
        "widest_d": _extreme(use.widest),
        "deepest_z": _extreme(use.deepest),
    }


def _extreme(one: Extreme | None) -> dict[str, float] | None:
    return None if one is None else {"mm": round(one.mm, 4), "line": one.line}


def _step(one: Step) -> dict[str, Any]:
    names = ("front_z", "back_z", "front_d", "back_d")
    return {name: round(getattr(one, name), 4) for name in names} | {"curved": one.curved}


def _volume(region: Any) -> float:
    """Of a half section turned about the axis, mm3."""
    return 0.0 if region.is_empty else 2 * 3.141592653589793 * float(region.centroid.y) * float(region.area)
