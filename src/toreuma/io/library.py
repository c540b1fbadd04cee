"""Data that ships with Toreuma: demo jobs, dialects, fonts, theme."""

import json
from functools import cache
from importlib.resources import files
from pathlib import Path
from typing import Any

from toreuma.core.dialect import Dialect
from toreuma.core.errors import JobError, ProgramError
from toreuma.core.model import Job
from toreuma.core.standards.fits import FitTables
from toreuma.core.standards.threads import ThreadTables
from toreuma.io.jobs import load_job

__all__ = [
    "data_path",
    "demo_job",
    "demo_names",
    "dialect",
    "dialect_names",
    "fit_tables",
    "open_job",
    "theme_tokens",
    "thread_tables",
]

DEMO_PREFIX = "demo:"


def data_path(*parts: str) -> Path:
    """A file or folder of the shipped data."""
    return Path(str(files("toreuma"))).joinpath("data", *parts)


def demo_names() -> list[str]:
    return sorted(path.stem for path in data_path("demo").glob("*.toreuma"))


def demo_job(name: str) -> Job:
    """A demo job by name. Raises `JobError`."""
    if name not in demo_names():
        raise JobError(f"{DEMO_PREFIX}{name}", "there is no such demo job", f"choose from {', '.join(demo_names())}")
    return load_job(data_path("demo", f"{name}.toreuma"))


def open_job(name: str) -> Job:
    """A job by file name, or ``demo:NAME``. Raises `JobError`."""
    if name.startswith(DEMO_PREFIX):
        return demo_job(name.removeprefix(DEMO_PREFIX))
    return load_job(Path(name))


def dialect_names() -> list[str]:
    return sorted(path.stem for path in data_path("dialects").glob("*.json"))


@cache
def dialect(name: str) -> Dialect:
    """A control's way of writing. Raises `ProgramError`."""
    if name not in dialect_names():
        raise ProgramError(f"dialect {name}", "there is no such dialect", f"choose from {', '.join(dialect_names())}")
    return Dialect.model_validate(json.loads(data_path("dialects", f"{name}.json").read_text("utf-8")))


@cache
def thread_tables() -> ThreadTables:
    """The thread standards' tables."""
    return ThreadTables.model_validate(_standard("threads"))


@cache
def fit_tables() -> FitTables:
    """The tables of limits and fits."""
    return FitTables.model_validate(_standard("fits"))


def _standard(name: str) -> Any:
    return json.loads(data_path("standards", f"{name}.json").read_text("utf-8"))


@cache
def theme_tokens() -> dict[str, Any]:
    """Colours and sizes of both themes."""
    tokens: dict[str, Any] = json.loads(data_path("theme", "tokens.json").read_text("utf-8"))
    return tokens
