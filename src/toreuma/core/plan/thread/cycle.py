"""Threads written as cycles of the control: each pass as one block, or all of them as one."""

import math
from dataclasses import dataclass

from toreuma.core.control_cycles import thread_depths, thread_passes, threaded_pass
from toreuma.core.model import CutThread
from toreuma.core.plan.ground.path import Path
from toreuma.core.plan.ground.result import Cycle, Pass, Word

__all__ = ["ThreadBlock", "all_as_one", "one_as_cycle", "thread_block"]

LEAST_MM = 0.02
"""No pass of the cycle goes less deep than this beyond the one before."""

ANGLES = (60.0, 55.0, 30.0, 29.0)
"""Flank angles a control knows; along others it feeds straight in."""

PULL_OUT_STEP, MOST_STEPS = 0.1, 99
"""The way out is given in tenths of the lead."""


@dataclass(frozen=True, kw_only=True)
class ThreadBlock:
    """The numbers of a cycle for a whole thread, mm on radius, and the depths it comes to."""

    height_mm: float
    first_mm: float
    springs: int
    flank_deg: float
    pull_out_mm: float
    depths: tuple[float, ...]


def thread_block(operation: CutThread, height_mm: float, count: int, runs_out: bool, clear_mm: float) -> ThreadBlock:
    """The cycle that comes nearest to what the operation asks for: ``count`` passes of equal area, then the springs."""
    form, height = operation.form, round(height_mm, 3)
    first = math.ceil(1000 * height / math.sqrt(count)) / 1000
    springs = max(operation.spring_passes, 1)
    flank = form.flank_deg if operation.infeed != "radial" and form.flank_deg in ANGLES else 0.0
    steps = math.ceil((height + clear_mm) / (PULL_OUT_STEP * form.lead_mm)) if runs_out else 0
    pull_out = min(steps, MOST_STEPS) * PULL_OUT_STEP * form.lead_mm
    depths = tuple(thread_depths(height, first, LEAST_MM, 0.0, springs))
    return ThreadBlock(
        height_mm=height, first_mm=first, springs=springs, flank_deg=flank, pull_out_mm=pull_out, depths=depths
    )


def all_as_one(path: Path, block: ThreadBlock, end: tuple[float, float], lead_mm: float) -> tuple[list[Pass], Cycle]:
    """All passes from where the tool is; ``end`` is the programmed point at the end of the thread, at its root."""
    start, begin = path.at, len(path.motions)
    toward = 1.0 if start[0] > end[0] else -1.0
    last = (end[0] - toward * block.pull_out_mm, end[1])
    path.made(thread_passes(start, last, block.height_mm, block.depths, block.flank_deg, block.pull_out_mm), lead_mm)
    code = 10000 * block.springs + 100 * round(block.pull_out_mm / lead_mm / PULL_OUT_STEP) + round(block.flank_deg)
    words = (
        Word("code", "padded", code),
        Word("least", "fine", LEAST_MM),
        Word("allowance", "length", 0.0),
        Word("x", "x", last[1]),
        Word("z", "z", last[0]),
        Word("height", "fine", block.height_mm),
        Word("first_depth", "fine", block.first_mm),
        Word("lead", "feed", lead_mm),
    )
    cycle = Cycle(name="whole_thread_cycle", first=begin, count=len(path.motions) - begin, words=words)
    segments = [motion.segment for motion in path.motions[begin:] if motion.in_step]
    return [Pass((one,), block.height_mm / len(block.depths)) for one in segments], cycle


def one_as_cycle(path: Path, end: tuple[float, float], lead_mm: float, depth_mm: float) -> tuple[Pass, Cycle]:
    """One pass: down, along, straight out, and back to where the tool is now."""
    begin = len(path.motions)
    path.made(threaded_pass(path.at, *end), lead_mm)
    words = (Word("x", "x", end[1]), Word("z", "z", end[0]), Word("lead", "feed", lead_mm))
    cycle = Cycle(name="thread_cycle", first=begin, count=len(path.motions) - begin, words=words)
    along = tuple(motion.segment for motion in path.motions[begin:] if motion.in_step)
    return Pass(along[:1], depth_mm), cycle
