"""Sheets taken apart: their words, and the numbers in them held against those of the plan."""

import math
import re
from collections.abc import Iterable, Iterator
from datetime import datetime
from typing import Any

from tests.support.engine import recorded
from toreuma.core.model import Job
from toreuma.core.plan.asked.warm_up import parts_until_warm
from toreuma.engine.papers import dossier_of
from toreuma.engine.report import plan_report
from toreuma.papers.blocks import Block, Facts, Notes, Picture, Sheet, Table
from toreuma.papers.dossier import Dossier

__all__ = ["dossier", "known_numbers", "strange_numbers", "words_of"]

NUMBER = re.compile(r"(?<![\w.:-])\d[\d\u2009]*(?:\.\d+)?(?![\w:°-])")
CLOCK = re.compile(r"(?<![\d:])(?:(\d+):)?(\d+):(\d\d)(?![\d:])")
LEAST_TOLD = 13
"""Whole numbers up to here are counts of anything."""


def dossier(job: Job, **more: Any) -> Dossier:
    return dossier_of(recorded(), job, made_at=datetime(2026, 11, 29, 22, 0), **more)


def words_of(sheet: Sheet) -> Iterator[str]:
    """Every piece of text of a sheet but what only lays it out."""
    for block in _blocks(sheet):
        if isinstance(block, Facts):
            yield from (words for row in block.rows for words in row)
        elif isinstance(block, Table):
            yield from (words for row in block.rows for cell in row for words in (cell.words, cell.small) if words)
            yield block.note
        elif isinstance(block, Notes):
            yield from block.lines
        elif isinstance(block, Picture):
            yield from re.findall(r"<text[^>]*>([^<]*)</text>", block.svg)


def _blocks(sheet: Sheet) -> Iterator[Block]:
    for one in sheet.blocks:
        yield from one if isinstance(one, tuple) else (one,)


def known_numbers(found: Dossier) -> list[float]:
    """Every number of job, plan, verdict and drawing, as it is and as people read it: twice a radius, in inches."""
    every: list[float] = []
    _walk(found.job.model_dump(), every)
    for side in found.sides:
        _walk(side.job.model_dump(), every)
        _walk(plan_report(side), every)
        every += [one.number for one in (*side.hold.reasons, *side.supply.reasons)]
        every += [one.number for one in side.hold.limits]
        every += [side.scene.grip_r, side.scene.jaw_face_z, side.scene.stock_front_z, side.scene.stock_r]
        times = side.times
        every += [times.total_s, times.cutting_s, times.rapid_s, times.idle_s, side.scene.profile.back_z]
    for one in found.characteristics:
        every += [x for x in (one.nominal, one.lower, one.upper, float(one.number)) if x is not None]
    for use in found.edges:
        every += [float(x) for x in (use.cutting_min, use.parts_per_edge, use.edges, use.inserts) if x is not None]
    for thread in found.threads.values():
        every += [thread.wires.best, thread.pitch_mm]
    for taken in (found.transfer, found.by_hand):
        if taken is not None:
            every += [taken.seconds, *(one.number for one in taken.reasons.values())]
    takes = found.takes.number
    every += [takes, takes * found.job.stock.supply.batch, *(one.number for one in found.takes.inputs)]
    warm = parts_until_warm(found.job.machine, takes)
    every += [warm.number] if warm is not None else []
    batch = found.job.stock.supply.batch
    every += [float(one.lines) for one in found.programs] + [float(use.changes(batch)) for use in found.edges]
    return every


def _walk(value: Any, out: list[float]) -> None:
    if isinstance(value, bool) or value is None:
        return
    if isinstance(value, int | float):
        out.append(float(value))
    elif isinstance(value, str):
        out.extend(float(word) for word in re.findall(r"\d+(?:\.\d+)?", value)[:40])
    elif isinstance(value, dict):
        for one in value.values():
            _walk(one, out)
    elif isinstance(value, Iterable):
        for one in value:
            _walk(one, out)


INCH = {1.0, 1 / 25.4, 1000 / 25.4, 1 / 0.3048, 1 / 0.45359237, 1 / 4.4482216152605, 1 / 0.745699872, 2 / 25.4}


def strange_numbers(words: str, known: list[float], system: str) -> list[str]:
    """Numbers of a text that nobody gave: no known one comes to them at the places they are written with."""
    factors = {1.0, 2.0} if system == "mm" else {*INCH, 2.0}
    found = []
    for hours, minutes, seconds in CLOCK.findall(words):
        spoken = 3600 * int(hours or 0) + 60 * int(minutes) + int(seconds)
        if not any(abs(one - spoken) <= 0.51 for one in known):
            found.append(f"{hours}:{minutes}:{seconds}")
    for text in NUMBER.findall(CLOCK.sub("", words)):
        plain = text.replace("\u2009", "")
        places = len(plain.partition(".")[2])
        number = float(plain)
        if not places and number <= LEAST_TOLD:
            continue
        near = 0.5001 * 10**-places
        if not any(abs(abs(one) * f - number) <= near for one in known if math.isfinite(one) for f in factors):
            found.append(text)
    return found
