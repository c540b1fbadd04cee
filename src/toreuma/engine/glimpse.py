"""What is seen of a job without opening it: its part, and how far it came."""

from dataclasses import dataclass
from datetime import date, datetime
from functools import cache
from pathlib import Path

from toreuma.core.errors import ToreumaError
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.geometry.region import Region
from toreuma.core.model import Part
from toreuma.core.units import System
from toreuma.engine.fresh import starter_line
from toreuma.engine.library import open_job
from toreuma.engine.line import said
from toreuma.shipped.library import DEMO_PREFIX

__all__ = ["Glimpse", "glimpse_of", "region_of", "starter_region"]


@dataclass(frozen=True)
class Glimpse:
    """``region`` is the upper half section of the finished part, mm; ``fault`` says why there is none. ``day`` is when
    the file was written, empty for a job that ships."""

    name: str
    material: str = ""
    machine: str = ""
    region: Region | None = None
    day: str = ""
    operations: int = 0
    fault: str = ""


def glimpse_of(name: str) -> Glimpse:
    """A job by file name, or ``demo:NAME``; never raises."""
    return _shipped(name) if name.startswith(DEMO_PREFIX) else _seen(name)


@cache
def _shipped(name: str) -> Glimpse:
    """What ships does not change: it is looked at once."""
    return _seen(name)


def _seen(name: str) -> Glimpse:
    try:
        job = open_job(name)
    except ToreumaError as error:
        return Glimpse(Path(name).name, fault=error.what)
    day = ""
    if not name.startswith(DEMO_PREFIX):
        written = datetime.fromtimestamp(Path(name).stat().st_mtime).date()
        day = "today" if written == date.today() else written.isoformat()
    return Glimpse(
        job.name,
        job.stock.material.name,
        job.machine.name,
        region_of(job.part),
        day,
        sum(len(setup.operations) for setup in job.setups),
    )


@cache
def starter_region(name: str, system: System) -> Region | None:
    """The half section of a starter."""
    part = said(starter_line(name, system), system).part
    return region_of(part) if part is not None else None


def region_of(part: Part) -> Region | None:
    """The upper half section of a part; None where it cannot be built."""
    try:
        return build_part(part).region
    except ToreumaError:
        return None
