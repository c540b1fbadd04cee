"""``help``: the pages of the window's help, as text."""

from typing import Annotated

import typer

from toreuma.commands.common import JsonOption, print_json
from toreuma.core.errors import JobError
from toreuma.engine.help import LICENCES, Page, help_pages, page_of, searched

__all__ = ["register"]


def register(app: typer.Typer) -> None:
    """Add the command."""
    app.command("help")(help_command)


def help_command(
    words: Annotated[
        list[str] | None, typer.Argument(metavar="[WORDS]", help="What it is about: line, thread …")
    ] = None,
    everything: Annotated[bool, typer.Option("--all", help="Every page, as Markdown")] = False,
    as_json: JsonOption = False,
) -> None:
    """Print the page about something, or the list of pages."""
    pages = help_pages()
    if everything:
        print("# Help\n\nThe pages that F1 shows, built with `toreuma help --all`.\n")
        print("\n\n".join(f"{_mark(page)} {page.title}\n\n{page.text}" for page in pages if page.key != LICENCES))
        return
    text = " ".join(words or [])
    exact = next((page for page in pages if text and text.casefold() in (page.key, page.key.partition(":")[2])), None)
    found = [exact] if exact is not None else searched(text)
    if not found:
        known = ", ".join(page.title for page in pages[:8])
        raise JobError(f"help {text}", "no page speaks of it", f"see toreuma help for the list, such as {known}")
    if as_json:
        print_json([{"key": page.key, "title": page.title, "text": page.text} for page in found])
        return
    if not text:
        print("\n".join(f"{page.key:20} {page.title}" for page in found if _mark(page) == "##"))
        print("\ntoreuma help CODE tells what a finding means, such as toreuma help grip.short")
        return
    page = page_of(found[0].key)
    print(f"{page.title}\n\n{page.text}")
    if len(found) > 1:
        print("\nalso: " + ", ".join(page.title for page in found[1:6]))


def _mark(page: Page) -> str:
    """A finding stands one step below the other pages."""
    return "###" if page.key.startswith("finding:") else "##"
