"""A dated name for what is set aside and never overwritten."""

from datetime import datetime
from itertools import count
from pathlib import Path

__all__ = ["free_name"]


def free_name(path: Path, now: datetime | None = None) -> Path:
    """A name beside a file that says when it was set aside and is not taken: ``rack-2026-11-28-1.json``."""
    day = (now or datetime.now()).strftime("%Y-%m-%d")
    names = (path.with_name(f"{path.stem}-{day}-{number}{path.suffix}") for number in count(1))
    return next(one for one in names if not one.exists())
