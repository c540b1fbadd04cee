"""The sheets of a job: everything gathered, drawn and set as pages."""

import hashlib
from collections.abc import Sequence
from datetime import datetime

from toreuma.core.channels.by_hand import turned_by_hand
from toreuma.core.errors import JobError, ToreumaError
from toreuma.core.memo import Check, never_cancel
from toreuma.core.model import Job
from toreuma.core.model.identity import SHORT
from toreuma.core.plan import Plan
from toreuma.core.plan.asked.edges import edge_uses
from toreuma.core.post import Posted
from toreuma.core.post.channels import post_channels
from toreuma.core.units import System
from toreuma.core.verdict import Verdict
from toreuma.engine.channel_texts import in_one
from toreuma.engine.engine import Engine
from toreuma.engine.hand_changes import written
from toreuma.engine.inspection import inspection_list
from toreuma.papers.dossier import Dossier, ProgramFile
from toreuma.papers.html import PAPERS, PaperSize, page_of, sheets_of
from toreuma.papers.sheets import SHEETS
from toreuma.shipped.library import known_threads
from toreuma.shipped.paths import data_path

__all__ = ["chosen_sheets", "document", "dossier_of", "paper_size"]


def dossier_of(
    engine: Engine,
    job: Job,
    *,
    made_at: datetime,
    system: System | None = None,
    verdict: Verdict | None = None,
    prove: bool = True,
    check: Check = never_cancel,
) -> Dossier:
    """Everything the sheets of a job are made of. ``verdict`` is taken where it was found already; without ``prove``
    none is sought. Raises `ToreumaError` for a job that cannot be planned."""
    sides = engine.sides(job, check)
    check()
    taken = engine.transfer(sides)
    by_hand = turned_by_hand(sides[0].job, sides[0])
    unproved = "" if prove else "nobody asked for a proof"
    if verdict is None and prove:
        try:
            verdict = engine.verdict(job, check=check)
        except ToreumaError as error:
            unproved = f"{error.where}: {error.what}"
    check()
    return Dossier(
        job=job,
        sides=sides,
        system=system or job.units,
        made_at=made_at,
        threads={name: one for side in sides for name, one in known_threads(side.job.part).items()},
        characteristics=inspection_list(job.part),
        verdict=verdict,
        unproved=unproved,
        programs=_programs(engine, job, sides),
        edges=edge_uses(sides, job.stock.supply.batch),
        transfer=taken,
        by_hand=by_hand,
        rack={one.code: one for one in engine.library.rack()},
        takes=engine.part_time(sides),
    )


def _programs(engine: Engine, job: Job, sides: Sequence[Plan]) -> tuple[ProgramFile, ...]:
    """What would be posted now, with whose it is; nothing of what cannot be written."""
    language = engine.language(job)
    taken = engine.transfer(tuple(sides))
    try:
        if taken is not None:
            posted = in_one(post_channels(sides[0].job, sides, taken, language), language)
            names = ["both channels"] if len(posted) == 1 else [f"channel {n}" for n in range(1, len(posted) + 1)]
        else:
            made = [written(side, language) for side in sides]
            posted = tuple(Posted(one.name, one.text) for one in made)
            names = [f"side {n}" for n in range(1, len(posted) + 1)] if len(posted) > 1 else ["the whole part"]
    except ToreumaError:
        return ()
    return tuple(
        ProgramFile(
            name=one.name,
            of=name,
            lines=len(one.text.splitlines()),
            fingerprint=hashlib.sha256(one.text.encode()).hexdigest()[:SHORT],
        )
        for one, name in zip(posted, names, strict=True)
    )


def chosen_sheets(words: str) -> tuple[str, ...]:
    """Kinds of sheets named one after the other; all where none are. Raises `JobError`."""
    names = [one.strip().lower() for one in words.split(",") if one.strip()]
    for one in names:
        if one not in SHEETS:
            raise JobError("sheets", f"there is no sheet '{one}'", f"choose from {', '.join(SHEETS)}")
    return tuple(names)


def paper_size(words: str) -> PaperSize:
    """A size of paper by its name. Raises `JobError`."""
    found = next((one for one in PAPERS if one.lower() == words.strip().lower()), None)
    if found is None:
        raise JobError("paper", f"there is no paper '{words}'", f"choose from {', '.join(PAPERS)}")
    return found


def document(dossier: Dossier, wanted: Sequence[str] = (), paper: PaperSize = "A4") -> str:
    """The chosen sheets, all of them where none are named, as one HTML document."""
    return page_of(dossier, sheets_of(dossier, wanted), paper, data_path())
