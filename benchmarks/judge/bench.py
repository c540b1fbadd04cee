"""Random jobs and spoiled programs through proof and judge: agreement, what slips through, false alarms.

./run bench judge [JOBS] [SPOILED PER JOB] [FIRST SEED]
"""

import json
import random
import re
import sys
import time
from collections import Counter
from collections.abc import Iterator, Sequence
from multiprocessing import Pool

import numpy as np
import shapely
from tests.support.random_jobs import random_job

from benchmarks.judge.changes import every_change
from benchmarks.judge.court import CELL, Case, Hold, Judged, Tool
from benchmarks.judge.drawing import outlines
from benchmarks.judge.driven import DrivenCase, Mill
from benchmarks.judge.machine import NotJudged
from benchmarks.judge.spoil import Spoiled, spoiled
from toreuma.core.errors import ToreumaError
from toreuma.core.geometry.region import Region
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Job
from toreuma.core.plan import Plan
from toreuma.core.post import post
from toreuma.core.verdict import Verdict
from toreuma.engine.engine import Engine
from toreuma.engine.judging import prove_whole
from toreuma.engine.proposals import FOLLOWED, proposed

__all__ = ["case_of", "driven_case_of", "main", "mills_of", "tools_of"]


BESIDE = ("knurl", "holes", "flats", "slot")
"""Features beside the axis, which the raster does not see."""


def tools_of(job: Job) -> dict[int, Tool]:
    """The tools as the judge wants them, by station."""
    found = {}
    for tool in job.tools:
        shape, tip = shape_of(tool), np.array(shape_of(tool).tip)
        bodies, ahead = (tuple(one - tip for one in pieces) for pieces in ((*shape.bodies, *shape.held), shape.ahead))
        found[tool.station] = Tool(tool.kind, shape.core - tip, shape.nose_radius, bodies, ahead)
    return found


def case_of(sides: Sequence[Plan], cell: float = CELL) -> Case:
    """The judge's case for the sides of a job."""
    part = json.loads(sides[0].job.part.model_dump_json())
    part["features"] = [one for one in part["features"] if one["kind"] not in BESIDE]
    return Case(part, _rings(sides[0].scene.stock), [_hold(side) for side in sides], cell)


def driven_case_of(job: Job) -> DrivenCase | None:
    """The judge's places round the features beside the axis; None where nothing is driven."""
    part = json.loads(job.part.model_dump_json())
    if not any(one["kind"] in ("holes", "flats", "slot") for one in part["features"]):
        return None
    solid, taken = outlines(part)
    return DrivenCase(part, [solid, *taken])


def mills_of(job: Job) -> dict[int, Mill]:
    """The driven tools as the judge wants them, by station."""
    return {
        one.station: Mill(
            one.d_mm / 2,
            getattr(one, "point_deg", 180.0),
            getattr(one, "corner_radius_mm", 0.0),
            one.mount == "radial",
            one.kind == "thread_mill",
        )
        for one in job.tools
        if one.mount != "still" and hasattr(one, "d_mm")
    }


def _hold(side: Plan) -> Hold:
    scene = side.scene
    return Hold(
        fixed=[_rings(region) for region in (scene.jaws, scene.chuck, scene.steady)],
        centre=_rings(scene.centre),
        tools={number: one for number, one in tools_of(side.job).items() if one.kind != "knurling"},
        home=scene.reference,
        jaw_face=scene.jaw_face_z,
        driven=frozenset(one.station for one in side.job.tools if one.mount != "still"),
    )


def _rings(region: Region) -> list["np.ndarray[tuple[int, int], np.dtype[np.float64]]"]:
    parts = [one for one in shapely.get_parts(region) if one.geom_type == "Polygon" and not one.is_empty]
    return [np.asarray(ring.coords)[:-1] for one in parts for ring in (one.exterior, *one.interiors)]


def _open(verdict: Verdict) -> bool:
    """Something of the section is open, by more than the raster's own."""
    return any(row.key.split()[0] in ("outside", "inside", "feature", "off", "loose", "bore") for row in verdict.open)


def _fine(verdict: Verdict) -> bool:
    """All that is open is finer than the raster, or a thread, which it does not see."""
    rows = verdict.open
    return all(
        "0.0" in row.left[:4] or "thread" in row.key or "pitch" in row.found or "none" in row.found for row in rows
    )


def _loadable(job: Job) -> Job:
    """The job as it is proposed where its bar does not go through the spindle: sawn, and held twice."""
    bore = job.machine.spindle_bore_mm
    return job if bore is None or job.stock.round_d_mm <= bore else proposed(job.changed(follows=FOLLOWED))


def one_job(job: tuple[int, int]) -> list[tuple[str, str, str]]:
    """(kind, how proof and judge stand to each other, what) for a random job and its spoiled programs."""
    seed, count = job
    try:
        drawn = _loadable(random_job(seed))
        if seed % 3 == 0:
            drawn = proposed(drawn)
        engine = Engine()
        plans = engine.sides(engine.route(drawn).job)
        language = engine.language(plans[0].job)
        texts = [post(side, language).text for side in plans]
        clean = prove_whole(plans, language).verdict
        case = case_of(plans)
        court = case.judge(texts)
    except (ToreumaError, NotJudged) as error:
        return [("whole", "not judged", f"{seed}: {error}")]
    geometric = [one for one in clean.dangers if one.line is not None]
    same = (not _open(clean) or _fine(clean)) is court.finished and bool(geometric) is bool(court.hits)
    if _open(clean) and not court.finished:
        same = True
    what = f"{clean.state}, {len(plans)} sides"
    found = [("whole", f"agree: {what}" if same else "DIFFER", f"{seed}: {clean.words} / {court}")]
    base = {(one.code, one.what) for one in clean.dangers}, {(row.key, row.left) for row in clean.open}
    chance = random.Random(seed)
    for number, text in enumerate(texts):
        wanted = count // len(texts)
        every = list(every_change(text))
        more = (Spoiled(one.kind, one.line, one.was, one.now, one.text) for one in chance.sample(every, wanted // 2))
        for change in (*spoiled(text, chance, wanted - wanted // 2), *more):
            one = _against(plans, number, texts, change, base, court, case)
            found.append((one[0], one[1], f"{seed} [{number}] {one[2]}"))
    return found


def _against(
    plans: Sequence[Plan], number: int, texts: list[str], change: Spoiled,
    base: tuple[set[object], set[object]], clean: Judged, case: Case,
) -> tuple[str, str, str]:  # fmt: skip
    engine = Engine()
    language = engine.language(plans[0].job)
    verdict = prove_whole(plans, language, {number: change.text}).verdict
    worse = {(one.code, one.what) for one in verdict.dangers} - base[0]
    rows = {(row.key, row.left) for row in verdict.open} - base[1]
    caught = bool(worse or rows)
    what = f"line {change.line}: {change.was} -> {change.now}"
    harmful = change.is_harmful
    if harmful is None:
        try:
            court = case.judge([change.text if n == number else text for n, text in enumerate(texts)])
        except NotJudged:
            return change.kind, "not judged", what
        harmful = court.harms(clean)
        what += f" / {court}"
    if harmful:
        return change.kind, "caught" if caught else "MISSED", what
    how = _told_for(worse, rows, verdict, _threads(plans[0].job)) if caught else "harmless"
    return change.kind, how, f"{what} / told: {list(worse)[:1]} {list(rows)[:2]}"


def _threads(job: Job) -> set[str]:
    """Rows of threads, which the raster does not see."""
    each = enumerate(job.part.features)
    return {f"feature {n}" for n, one in each if one.kind == "thread" or getattr(one, "thread", "")}


ALARMS = (
    "program.",
    "arc.",
    "feed.",
    "speed.",
    "spindle.",
    "travel.",
    "told.",
    "cycle.",
    "tool.",
    "datum.",
    "limits.",
    "power.",
)
"""What the words say is wrong, whatever comes of the metal."""

DEPTH = re.compile(r"([0-9.]+) (mm|µm) (?:below|deep|of metal is missing|stands)")

FINE_UM = 125.0
"""The raster does not see less."""


def _told_for(worse: set[object], rows: set[tuple[str, str]], verdict: Verdict, threads: set[str]) -> str:
    """Why the proof tells what the judge does not see: an alarm, or finer than the raster; or in vain."""
    known = [one for one in verdict.dangers if (one.code, one.what) in worse]
    if any(one.code.startswith(ALARMS) for one in known):
        return "told: alarm"
    said = [one.what for one in (*known, *(verdict.finding(row) for row in verdict.open))]
    depths = [float(mm) * (1000 if unit == "mm" else 1) for what in said for mm, unit in DEPTH.findall(what)]
    if any(key in threads for key, _ in rows):
        return "told: thread"
    return "told: finer" if depths and min(depths) < FINE_UM else "TOLD IN VAIN"


def _each(jobs: list[tuple[int, int]]) -> Iterator[tuple[str, str, str]]:
    with Pool(2) as pool:
        for found in pool.imap_unordered(one_job, jobs):
            yield from found


def main(jobs: int = 20, per_job: int = 10, first: int = 0) -> None:
    """Print agreement and every difference."""
    begun = time.monotonic()
    counts: Counter[tuple[str, str]] = Counter()
    for kind, how, what in _each([(seed, per_job) for seed in range(first, first + jobs)]):
        counts[kind, how] += 1
        if how in ("DIFFER", "MISSED", "TOLD IN VAIN"):
            print(f"{kind}: {how}: {what[:300]}", flush=True)
    for (kind, how), count in sorted(counts.items()):
        print(f"{kind:24} {how:32} {count:6}")
    print(f"{time.monotonic() - begun:.0f} s")


if __name__ == "__main__":
    main(*(int(one) for one in sys.argv[1:]))
