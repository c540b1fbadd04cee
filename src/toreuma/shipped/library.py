"""Data that ships with Toreuma: demo jobs, dialects, fonts, theme."""

import json
from functools import cache
from importlib.resources import files
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter

from toreuma.core.dialect import Dialect
from toreuma.core.errors import JobError, ProgramError, StandardError
from toreuma.core.model import Hold, Job, Machine, Material, Part
from toreuma.core.model.catalogue import Catalogue
from toreuma.core.standards.codes import CodeTables
from toreuma.core.standards.fits import FitTables
from toreuma.core.standards.general import GeneralTables
from toreuma.core.standards.threads import Thread, ThreadTables, thread_of
from toreuma.core.units import System

__all__ = [
    "DEMO_PREFIX",
    "bar_sizes_mm",
    "catalogue",
    "code_tables",
    "data_path",
    "demo_job",
    "demo_names",
    "dialect",
    "dialect_names",
    "fit_tables",
    "general_tables",
    "holds",
    "known_threads",
    "machines",
    "material_sources",
    "materials",
    "relief_tables",
    "theme_tokens",
    "thread_tables",
]

DEMO_PREFIX = "demo:"
TYPICAL = "typical literature values (machining textbooks, table books), ±20 %"


def data_path(*parts: str) -> Path:
    """A file or folder of the shipped data."""
    return Path(str(files("toreuma"))).joinpath("data", *parts)


def demo_names() -> list[str]:
    return sorted(path.stem for path in data_path("demo").glob("*.toreuma"))


def demo_job(name: str) -> Job:
    """A demo job by name. Raises `JobError`."""
    if name not in demo_names():
        raise JobError(f"{DEMO_PREFIX}{name}", "there is no such demo job", f"choose from {', '.join(demo_names())}")
    return Job.model_validate_json(data_path("demo", f"{name}.toreuma").read_text("utf-8"))


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
def code_tables() -> CodeTables:
    """Letters and sizes of insert, holder and bar designations."""
    return CodeTables.model_validate(_standard("codes"))


@cache
def catalogue() -> Catalogue:
    """The starter catalogue of tools."""
    return Catalogue.model_validate(json.loads(data_path("tools", "catalogue.json").read_text(encoding="utf-8")))


@cache
def general_tables() -> GeneralTables:
    """General tolerances."""
    return GeneralTables.model_validate(_standard("general"))


def known_threads(part: Part) -> dict[str, Thread]:
    """Threads of a part by designation; those no standard knows are left out."""
    found = {}
    for feature in part.features:
        name = feature.designation if feature.kind == "thread" else getattr(feature, "thread", "")
        try:
            found[name] = thread_of(name, thread_tables())
        except StandardError:
            continue
    return found


@cache
def fit_tables() -> FitTables:
    """The tables of limits and fits."""
    return FitTables.model_validate(_standard("fits"))


@cache
def materials() -> dict[str, Material]:
    """Workpiece materials by name, as they ship."""
    return {row["name"]: Material.model_validate({"source": TYPICAL, **row}) for row in _rows("materials")["materials"]}


def material_sources() -> dict[str, str]:
    """Where the shipped values come from, by field."""
    sources: dict[str, str] = _rows("materials")["sources"]
    return sources


@cache
def machines() -> dict[str, Machine]:
    """Machines by name."""
    return {row["name"]: Machine.model_validate(row) for row in _rows("machines")}


@cache
def holds() -> tuple[Hold, ...]:
    """Chucks, collets and mandrels to choose from."""
    return tuple(TypeAdapter(Hold).validate_python(row) for row in _rows("holds"))


@cache
def relief_tables() -> dict[str, Any]:
    """Sizes of undercuts and thread run-outs."""
    tables: dict[str, Any] = _standard("reliefs")
    return tables


@cache
def bar_sizes_mm(system: System) -> tuple[float, ...]:
    """Usual bar diameters, mm, of the metric or the inch series."""
    scale = 25.4 if system == "inch" else 1.0
    return tuple(size * scale for size in _standard("bars")[system])


def _rows(name: str) -> Any:
    return json.loads(data_path(f"{name}.json").read_text("utf-8"))


def _standard(name: str) -> Any:
    return json.loads(data_path("standards", f"{name}.json").read_text("utf-8"))


@cache
def theme_tokens() -> dict[str, Any]:
    """Colours and sizes of both themes."""
    tokens: dict[str, Any] = json.loads(data_path("theme", "tokens.json").read_text("utf-8"))
    return tokens
