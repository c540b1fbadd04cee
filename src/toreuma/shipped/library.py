"""Data that ships with Toreuma: demo jobs, dialects, fonts, theme."""

from functools import cache
from typing import Any

from pydantic import TypeAdapter

from toreuma.core.dialect import Dialect
from toreuma.core.errors import JobError, ProgramError, StandardError
from toreuma.core.model import Centre, Hold, Job, Machine, Material, Part, Rest
from toreuma.core.model.catalogue import Catalogue
from toreuma.core.standards.material_names import MaterialNames
from toreuma.core.standards.threads import Thread, thread_of
from toreuma.shipped.paths import data_path, shipped_json
from toreuma.shipped.standards import thread_tables

__all__ = [
    "DEMO_PREFIX",
    "catalogue",
    "centres",
    "demo_job",
    "demo_names",
    "dialect",
    "dialect_names",
    "finding_texts",
    "help_text",
    "holds",
    "known_threads",
    "machines",
    "material_names",
    "material_sources",
    "materials",
    "rests",
    "starters",
    "theme_tokens",
]

DEMO_PREFIX = "demo:"
TYPICAL = "typical literature values (machining textbooks, table books), ±20 %"


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
    return Dialect.model_validate(_with_base(shipped_json("dialects", f"{name}.json")))


def _with_base(data: dict[str, Any]) -> dict[str, Any]:
    """What a dialect says, over what the one it is based on says."""
    if "based_on" not in data:
        return data
    base = _with_base(shipped_json("dialects", f"{data['based_on']}.json"))
    return base | {key: value for key, value in data.items() if key != "based_on"}


@cache
def catalogue() -> Catalogue:
    """The starter catalogue of tools."""
    return Catalogue.model_validate(shipped_json("tools", "catalogue.json"))


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
def materials() -> dict[str, Material]:
    """Workpiece materials by name, as they ship."""
    return {
        row["name"]: Material.model_validate({"source": TYPICAL, **row})
        for row in shipped_json("materials.json")["materials"]
    }


def material_sources() -> dict[str, str]:
    """Where the shipped values come from, by field."""
    sources: dict[str, str] = shipped_json("materials.json")["sources"]
    return sources


@cache
def material_names() -> MaterialNames:
    """Other names of the materials that ship."""
    return MaterialNames.model_validate(shipped_json("material_names.json"))


@cache
def machines() -> dict[str, Machine]:
    """Machines by name."""
    return {row["name"]: Machine.model_validate(row) for row in shipped_json("machines.json")}


@cache
def holds() -> tuple[Hold, ...]:
    """Chucks, collets and mandrels to choose from."""
    return tuple(TypeAdapter(Hold).validate_python(row) for row in shipped_json("holds.json"))


@cache
def starters() -> dict[str, dict[str, str]]:
    """Parts to begin with: the line of each by name, in mm and in inches."""
    found: dict[str, dict[str, str]] = shipped_json("starters.json")["starters"]
    return found


@cache
def help_text() -> str:
    """The pages of help, in Markdown."""
    return data_path("help", "pages.md").read_text("utf-8")


@cache
def finding_texts() -> tuple[tuple[str, ...], ...]:
    """Code, title, what it means, and what mends it, of every finding that is written down."""
    lines = data_path("help", "findings.txt").read_text("utf-8").splitlines()
    return tuple(tuple(cell.strip() for cell in line.split(" | ")) for line in lines if line and line[0] != "#")


@cache
def rests() -> tuple[Rest, ...]:
    """Steady and follow rests to choose from."""
    reader: TypeAdapter[Rest] = TypeAdapter(Rest)
    return tuple(reader.validate_python(row) for row in shipped_json("rests.json"))


@cache
def centres() -> tuple[Centre, ...]:
    """Centres to choose from."""
    return tuple(Centre.model_validate(row) for row in shipped_json("centres.json"))


@cache
def theme_tokens() -> dict[str, Any]:
    """Colours and sizes of both themes."""
    tokens: dict[str, Any] = shipped_json("theme", "tokens.json")
    return tokens
