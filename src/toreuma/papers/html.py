"""Sheets as one HTML file: styles, fonts and drawings inside it. Templates and words are data; nothing is executed."""

import base64
from collections.abc import Sequence
from functools import cache
from pathlib import Path
from typing import Any, Literal

from jinja2 import FileSystemLoader
from jinja2.sandbox import ImmutableSandboxedEnvironment
from markupsafe import Markup

from toreuma.core.model.identity import code_words, job_id, revision_of
from toreuma.core.spoken import spoken
from toreuma.papers.blocks import Sheet
from toreuma.papers.dossier import Dossier
from toreuma.papers.sheets import SHEETS
from toreuma.papers.square_code import square_code

__all__ = ["PAPERS", "PaperSize", "page_of", "sheets_of"]

PaperSize = Literal["A4", "Letter"]
PAPERS: tuple[PaperSize, ...] = ("A4", "Letter")

FONTS = (
    ("B612", "normal", "B612-Regular.otf"),
    ("B612", "bold", "B612-Bold.otf"),
    ("B612 Mono", "normal", "B612Mono-Regular.otf"),
    ("B612 Mono", "bold", "B612Mono-Bold.otf"),
)

ACROSS = (
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 210 34"><text x="105" y="27" font-size="30" '
    'font-weight="bold" font-family="B612, sans-serif" text-anchor="middle" textLength="196" fill="none" '
    'stroke="#8c8c8c" stroke-width="0.55">UNPROVED</text></svg>'
)
"""Stands across every page of a job that is not proved."""


def sheets_of(dossier: Dossier, wanted: Sequence[str] = ()) -> tuple[Sheet, ...]:
    """The chosen kinds of sheets in their usual order; all where none are named."""
    return tuple(sheet for key, make in SHEETS.items() if not wanted or key in wanted for sheet in make(dossier))


def page_of(dossier: Dossier, sheets: Sequence[Sheet], paper: PaperSize, data: Path) -> str:
    """The document. ``data`` is the folder with what ships: templates and fonts."""
    environment = _environment(str(data / "papers"))
    verdict, job = dossier.verdict, dossier.job
    foot = f"{job.name} · revision {revision_of(job)} · {dossier.made_at:%Y-%m-%d %H:%M}".replace('"', "'")
    css = environment.get_template("sheets.css").render(paper=paper, foot=_css_words(foot))
    state, words = ("not proved", dossier.unproved) if verdict is None else _state(dossier)
    given: dict[str, Any] = {
        "title": f"{job.name}: sheets",
        "fonts": Markup(_fonts(str(data / "fonts"))),
        "css": Markup(css),
        "sheets": sheets,
        "across": Markup("" if dossier.proved else ACROSS),
        "name": job.name,
        "id": job_id(job),
        "revision": revision_of(job),
        "made_at": f"{dossier.made_at:%Y-%m-%d %H:%M}",
        "machine": job.machine.name,
        "code": Markup(square_code(code_words(job))),
        "state": state,
        "state_words": words,
    }
    return environment.get_template("sheets.html").render(**given)


def _state(dossier: Dossier) -> tuple[str, str]:
    """The state of the proof and what it counts."""
    assert dossier.verdict is not None
    words = spoken(dossier.verdict.words, dossier.system)
    state = dossier.verdict.state
    return state, words.removeprefix(state).lstrip(": ")


def _css_words(words: str) -> str:
    """Words that may stand in a string of a style."""
    return "".join(c if c.isprintable() and c not in '"\\<>' else " " for c in words)


@cache
def _environment(folder: str) -> ImmutableSandboxedEnvironment:
    return ImmutableSandboxedEnvironment(
        loader=FileSystemLoader(folder), autoescape=True, trim_blocks=False, lstrip_blocks=False
    )


@cache
def _fonts(folder: str) -> str:
    """The fonts that ship, written into the style."""
    rules = []
    for family, weight, name in FONTS:
        data = base64.b64encode((Path(folder) / name).read_bytes()).decode()
        rules.append(
            f'@font-face{{font-family:"{family}";font-weight:{weight};src:url(data:font/otf;base64,{data})format("opentype")}}'
        )
    return "".join(rules)
