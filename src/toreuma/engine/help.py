"""Pages of help: written once, shown in the window, printed on the command line and built into the documents."""

import difflib
from dataclasses import dataclass
from functools import cache

from toreuma.core.kinds.features import FEATURES
from toreuma.core.kinds.field import Field
from toreuma.core.kinds.operations import OPERATIONS
from toreuma.core.meanings import MEANINGS
from toreuma.core.read.sentence import words_of
from toreuma.core.units import UNITS
from toreuma.engine.finding_pages import finding_pages
from toreuma.engine.rests_on import licences_text
from toreuma.shipped.library import help_text

__all__ = ["LICENCES", "Page", "beside", "help_pages", "page_of", "searched"]

START = "door"
WORDS_PAGE = "program-words"
LICENCES = "licences"
"""This page says what is installed here, so it is not built into the documents."""


@dataclass(frozen=True)
class Page:
    """``key`` is what it is about, as ``stage:part`` or ``operation:thread``; ``lead`` its first lines, ``text`` all of
    it in Markdown."""

    key: str
    title: str
    lead: str
    text: str

    def holds(self, words: str) -> bool:
        """Whether every word stands in it."""
        text = f"{self.title}\n{self.text}".casefold()
        return all(word in text for word in words.casefold().split())


@cache
def help_pages() -> tuple[Page, ...]:
    """Every page in order, with the fields of operations and features, and a short one for every finding."""
    found = []
    for block in ("\n" + help_text()).split("\n# ")[1:]:
        head, _, body = block.partition("\n")
        key, _, title = head.partition(" ")
        lead = body.split("\n\n")[0].strip()
        body += f"\n{licences_text()}" if key == LICENCES else ""
        body += f"\n\n{_meanings()}" if key == WORDS_PAGE else ""
        found.append(Page(key, title.strip(), lead, body.strip() + _fields(key)))
    found += [Page(f"finding:{code}", title, title, text) for code, (title, text) in finding_pages().items()]
    return tuple(found)


def beside(page: Page) -> list[Page]:
    """Other pages of its kind; for a finding those whose code begins alike."""
    what, _, name = page.key.partition(":")
    alike = f"finding:{name.partition('.')[0]}." if what == "finding" and name else what
    return [one for one in help_pages() if one != page and _begins(one.key, alike)]


def _begins(key: str, alike: str) -> bool:
    return key.startswith(alike) if alike.endswith(".") else key.partition(":")[0] == alike != "finding"


def _meanings() -> str:
    """Every name a word of a program may have, and what that is."""
    rows = [f"| `{name}` | {words_of(name)} |" for name in sorted(MEANINGS)]
    return "| name | what it does |\n| --- | --- |\n" + "\n".join(rows)


def _fields(key: str) -> str:
    """The fields of a kind as a table."""
    what, _, name = key.partition(":")
    kinds = {"operation": OPERATIONS, "feature": FEATURES}.get(what, {})
    kind = kinds.get(name)  # type: ignore[attr-defined]
    if kind is None or not kind.fields:
        return ""
    rows = [f"| {one.label} | {_unit(one)} | {_empty(one)} |" for one in kind.fields]
    return "\n\n| you may set | in | empty |\n| --- | --- | --- |\n" + "\n".join(rows)


def _unit(field: Field) -> str:
    if field.options:
        return " / ".join(words for words, _ in field.options)
    unit = UNITS[field.unit]["mm"].label if field.unit in UNITS else ""
    return f"{unit}, {field.measured_on}".strip(", ")


def _empty(field: Field) -> str:
    return field.empty


def page_of(key: str) -> Page:
    """The page about something; the first one where there is none."""
    pages = {page.key: page for page in help_pages()}
    return pages.get(key) or pages.get(key.partition(":")[0]) or pages[START]


def searched(words: str) -> list[Page]:
    """Pages that hold every word, those with them in their title first; else those with a title most alike."""
    wanted = words.casefold().split()
    if not wanted:
        return list(help_pages())
    titled = [page for page in help_pages() if all(word in page.title.casefold() for word in wanted)]
    within = [page for page in help_pages() if page.holds(words)]
    found = list(dict.fromkeys((*titled, *within)))
    if found:
        return found
    titles = {page.title.casefold(): page for page in help_pages() if not page.key.startswith("finding:")}
    return [titles[one] for one in difflib.get_close_matches(words.casefold(), titles, n=4, cutoff=0.4)]
