"""Materials by any name a person may use: EN number or name, AISI and SAE, UNS, common names."""

import difflib
import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from pydantic import Field

from toreuma.core.errors import StandardError
from toreuma.core.value import Value

__all__ = ["MaterialNames", "Named", "OtherNames", "material_named", "suggested"]


class OtherNames(Value):
    """``same`` are other names of a material; ``near`` those of others that cut much alike, and what differs."""

    same: tuple[str, ...] = ()
    near: Mapping[str, str] = Field(default_factory=dict)


class MaterialNames(Value):
    """Other names by the name of the material they stand for. ``source`` says where they come from; ``kind_words`` only
    say of what kind a material is, ``state_words`` in which state it is delivered."""

    source: str = ""
    kind_words: tuple[str, ...] = ()
    state_words: tuple[str, ...] = ()
    names: Mapping[str, OtherNames] = Field(default_factory=dict)


@dataclass(frozen=True)
class Named:
    """The material found for what was typed; ``differs`` says how a near one differs, empty for the same."""

    name: str
    typed: str
    differs: str = ""

    @property
    def note(self) -> str:
        """What the person should know; empty where it is the very material."""
        return f"{self.typed} is taken as {self.name}, which is near: {self.differs}" if self.differs else ""


MOST_LETTERS = 200


def plain(text: str) -> str:
    """Letters and figures alone: case, blanks, dashes, points and the words that only name a list do not matter."""
    low = text.casefold().replace("ø", "").strip()
    low = re.sub(r"^(aisi|sae|uns|astm|en|din|bs|jis|w\.?\s?-?nr\.?|mat\.?)[\s.:-]+(?=\S)", "", low)
    return re.sub(r"[^a-z0-9]+", "", low)


def material_named(text: str, known: Iterable[str], names: MaterialNames) -> Named:
    """The material a name stands for. Raises `StandardError` that names the closest ones."""
    known = tuple(known)
    if len(text) > MOST_LETTERS:
        raise StandardError(f"material {text}", "no material has so long a name", "see the list of materials")
    found = _found(text, known, names)
    if found is None:
        bare, state = _bare(text, names)
        found = _found(bare, known, names) if plain(bare) != plain(text) else None
        if found is not None:
            said = f"'{state}' is not looked at, check its hardness" if state else ""
            return Named(found.name, text, "; ".join(one for one in (found.differs, said) if one))
    if found is not None:
        return found
    close = suggested(text, known, names)
    cure = (
        f"choose {', '.join(close)}, or add it to the shop from one like it" if close else "see the list of materials"
    )
    raise StandardError(f"material {text}", "no material here has this name", cure)


def _found(text: str, known: tuple[str, ...], names: MaterialNames) -> Named | None:
    wanted = plain(text)
    if not wanted:
        return None
    for name in known:
        if plain(name) == wanted:
            return Named(name, text)
    for name, others in names.names.items():
        if name in known and any(plain(one) == wanted for one in others.same):
            return Named(name, text)
    for name, others in names.names.items():
        words = next((words for one, words in others.near.items() if plain(one) == wanted), None)
        if name in known and words is not None:
            return Named(name, text, words)
    return None


def _bare(text: str, names: MaterialNames) -> tuple[str, str]:
    """A name without the words that say of what kind it is or in which state, and those of its state."""
    words = re.split(r"[\s,;/]+|-(?=type\b|[TtHh]\d{1,4}\b)|(?=\+)", text.strip())
    idle = (*names.kind_words, *names.state_words)
    state = [one for one in words if one.casefold() in names.state_words]
    return " ".join(one for one in words if one.casefold() not in idle), " ".join(state)


def suggested(text: str, known: Iterable[str], names: MaterialNames, count: int = 3) -> list[str]:
    """Names of materials most like what was typed, those that hold it first."""
    wanted = plain(text)
    every: dict[str, str] = {}
    for name in known:
        others = names.names.get(name)
        for one in (name, *(others.same if others else ()), *(others.near if others else ())):
            every.setdefault(plain(one), name)
    if not wanted:
        return []
    holding = [every[key] for key in every if wanted in key or (len(key) > 3 and key in wanted)]
    alike = [every[key] for key in difflib.get_close_matches(wanted, every, n=8, cutoff=0.6)]
    return list(dict.fromkeys((*holding, *alike)))[:count]
