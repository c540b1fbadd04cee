"""``sheet``: the papers of a job as one PDF or one HTML file."""

from datetime import datetime
from pathlib import Path
from typing import Annotated

import typer

from toreuma.commands.common import JobArgument, JsonOption, print_json
from toreuma.core.errors import JobError
from toreuma.core.units import System
from toreuma.engine.engine import Engine
from toreuma.engine.library import open_job
from toreuma.engine.papers import chosen_sheets, document, dossier_of, paper_size
from toreuma.engine.pdf_apart import pdf_apart
from toreuma.files.writing import write_atomically
from toreuma.papers.sheets import SHEETS

__all__ = ["register"]

KINDS = (".pdf", ".html", ".htm")


def register(app: typer.Typer) -> None:
    app.command("sheet")(sheet)


def sheet(
    job: JobArgument,
    file: Annotated[Path, typer.Option("-o", "--output", help="A .pdf or .html file")],
    sheets: Annotated[str, typer.Option("--sheets", help=f"Some of {', '.join(SHEETS)}; all by default")] = "",
    paper: Annotated[str, typer.Option("--paper", help="A4 or Letter")] = "A4",
    units: Annotated[str, typer.Option("--units", help="mm or inch; as the job reads by default")] = "",
    prove: Annotated[bool, typer.Option("--prove/--no-prove", help="Prove the job first, or print UNPROVED")] = True,
    as_json: JsonOption = False,
) -> None:
    """Write setup sheet, tool list, operation sheet, inspection sheet and run card."""
    wanted, size, system = chosen_sheets(sheets), paper_size(paper), _system(units)
    if file.suffix.lower() not in KINDS:
        raise JobError(file.name, "this is neither .pdf nor .html", "end the file's name in one of them")
    dossier = dossier_of(Engine(), open_job(job), made_at=datetime.now(), system=system, prove=prove)
    page = document(dossier, wanted, size)
    try:
        write_atomically(file, page if file.suffix.lower() != ".pdf" else pdf_apart(page))
    except OSError as error:
        raise JobError(str(file), f"it cannot be written ({error.strerror})", "choose another place") from None
    state = dossier.verdict.state if dossier.verdict is not None else "not proved"
    if as_json:
        print_json({"file": str(file), "sheets": list(wanted or SHEETS), "proved": dossier.proved, "state": state})
    else:
        print(f"{file}: {state}")
    if not dossier.proved:
        raise typer.Exit(1)


def _system(words: str) -> System | None:
    if not words.strip():
        return None
    found: dict[str, System] = {"mm": "mm", "inch": "inch", "in": "inch"}
    if words.strip().lower() not in found:
        raise JobError("units", f"there are no units '{words}'", "choose mm or inch")
    return found[words.strip().lower()]
