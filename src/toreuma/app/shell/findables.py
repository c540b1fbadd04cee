"""What can be found by a few letters: commands, operations, surfaces, features, tools, the shop, the bench, help; and
what a text means by itself: a thread, a fit, a code, a material by another name."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

from toreuma.app.session import Session
from toreuma.app.shell.actions import Actions
from toreuma.app.shell.finder import Findable
from toreuma.app.stages.bench.page import NAMES
from toreuma.app.stages.part.panel import feature_line
from toreuma.core.errors import ToreumaError
from toreuma.core.line.piece import known_thread
from toreuma.core.standards.codes import decode
from toreuma.core.standards.fits import fit_of
from toreuma.engine.help import help_pages
from toreuma.engine.library import library
from toreuma.engine.line import line_tables
from toreuma.engine.shop import of_shop
from toreuma.shipped.standards import code_tables, fit_tables

__all__ = ["Ways", "findables", "meant"]


KINDS_FOUND = (
    ("machine", "machine"),
    ("hold", "hold"),
    ("rest", "rest"),
    ("material", "material"),
    ("tool", "tool in the store"),
    ("insert", "insert in the store"),
    ("holder", "holder in the store"),
)


@dataclass(frozen=True)
class Ways:
    """How the window shows what was found: a stage by its key, a kind and name of the shop, a page of the bench with
    what is typed there, a page of help by its key."""

    stage: Callable[[str], None]
    shop: Callable[[str, str], None]
    bench: Callable[[str, str], None]
    help: Callable[[str], None]


def meant(text: str, ways: Ways) -> list[Findable]:
    """What a text says by itself, for the bench or the shop."""
    if len(text) < 2:
        return []
    tries: tuple[tuple[str, str, Callable[[str], object]], ...] = (
        ("threads", "thread on the bench", lambda t: known_thread(t, line_tables())),
        ("fits", "fit on the bench", lambda t: fit_of(t, fit_tables())),
        ("codes", "code on the bench", lambda t: decode(t, code_tables())),
    )
    found = []
    for page, kind, reads in tries:
        try:
            reads(text)
        except ToreumaError:
            continue
        found.append(Findable(text, kind, partial(ways.bench, page, text)))
    try:
        material, named = library().material(text)
    except ToreumaError:
        return found
    if material.name.casefold() != text.casefold():
        words = f"{text} is {'near ' if named.differs else ''}{material.name}"
        found.append(Findable(words, "material", partial(ways.shop, "material", material.name)))
    return found


def findables(session: Session, actions: Actions, ways: Ways) -> list[Findable]:
    """Everything that has a name now."""
    turn = ways.stage

    def go(stage: str, **chosen: object) -> Callable[[], None]:
        def run() -> None:
            turn(stage)
            session.select(**chosen)  # type: ignore[arg-type]

        return run

    found = [
        Findable(one.words, "command", lambda name=one.name: actions.do(name), one.key)  # type: ignore[misc]
        for one in actions
        if one.name != "find" and one.when()
    ]
    return [*found, *_of_job(session, go), *_around(ways)]


def _around(ways: Ways) -> list[Findable]:
    """The bench, the shop and the help: there with a job or without."""
    found = [Findable(name, "bench", partial(ways.bench, name.lower(), "")) for name, _ in NAMES]
    for kind, words in KINDS_FOUND:
        found += [Findable(name, words, partial(ways.shop, kind, name)) for name in of_shop(kind)]
    found.append(Findable("House rules", "shop", partial(ways.shop, "rules", "")))
    found += [Findable(page.title, "help", partial(ways.help, page.key)) for page in help_pages()]
    return found


def _of_job(session: Session, go: Callable[..., Callable[[], None]]) -> list[Findable]:
    """What the open job has."""
    found: list[Findable] = []
    job = session.job
    if job is None:
        return found
    found += [Findable(one.name, "operation", go("operations", operation=one.id)) for one in job.operations]
    for index, element in enumerate(job.part.outside):
        name = element.name or f"Element {index + 1}"
        found.append(Findable(name, "surface", go("part", element=index, side="outside")))
    for index, element in enumerate(job.part.inside):
        name = f"{element.name or f'Element {index + 1}'}, bore"
        found.append(Findable(name, "surface", go("part", element=index, side="inside")))
    for index, feature in enumerate(job.part.features):
        found.append(Findable(feature_line(feature, session.system), "feature", go("part", feature=index)))
    for tool in job.tools:
        users = [one.id for one in job.operations if tool.id in one.tools]
        if users:
            found.append(Findable(f"{tool.id} {tool.name}", "tool", go("operations", operation=users[0])))
    return found
