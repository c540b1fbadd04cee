"""What Toreuma rests on: the packages that come with it, their versions and licences, as they are installed here."""

import platform
import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from importlib.metadata import Distribution, PackageNotFoundError, distribution

from toreuma import __version__

__all__ = ["Package", "licences_text", "rests_on", "version_text"]

FONTS = ("B612, B612 Mono", "SIL Open Font License 1.1")
OWN = "toreuma"


@dataclass(frozen=True)
class Package:
    name: str
    version: str
    licence: str


@cache
def rests_on() -> tuple[Package, ...]:
    """Every package that is needed to run, by name; empty where nothing is known of how this was installed."""
    return tuple(sorted(_needed(), key=lambda one: one.name.lower()))


def _needed() -> Iterator[Package]:
    waiting, seen = [OWN], {OWN}
    while waiting:
        try:
            found = distribution(waiting.pop())
        except PackageNotFoundError:
            continue
        name = str(found.metadata["Name"])
        if name.lower() != OWN:
            yield Package(name, found.version, _licence(found))
        for wanted in found.requires or ():
            other = re.split(r"[ ;<>=!~\[(]", wanted, maxsplit=1)[0].lower().replace("_", "-")
            if "extra ==" not in wanted and other not in seen:
                seen.add(other)
                waiting.append(other)


def _licence(found: Distribution) -> str:
    """In a few words, as its makers say it."""
    facts = found.metadata
    said, long = (str(facts[name]).strip() if name in facts else "" for name in ("License-Expression", "License"))
    named = [one.rsplit(" :: ", 1)[-1] for one in facts.get_all("Classifier") or () if one.startswith("License ::")]
    return said or ", ".join(named) or (long if len(long) <= 60 else long.splitlines()[0][:60]) or "see its own files"


def version_text() -> str:
    """Versions of this and of all it rests on, to be told with a fault."""
    lines = [f"toreuma {__version__}", f"Python {platform.python_version()}, {platform.system()} {platform.machine()}"]
    return "\n".join([*lines, *(f"{one.name} {one.version}" for one in rests_on())])


def licences_text() -> str:
    """Licences of all that ships, as a table in Markdown."""
    rows = [("Toreuma", __version__, "MIT"), *((one.name, one.version, one.licence) for one in rests_on())]
    rows.append((f"Fonts {FONTS[0]}", "", FONTS[1]))
    lines = "\n".join(f"| {name} | {version} | {licence} |" for name, version, licence in rows)
    return f"| what | version | licence |\n| --- | --- | --- |\n{lines}"
