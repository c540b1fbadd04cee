"""A program taken as a job: its part is what comes of it, its operations are the stretches of its tools."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from pydantic import ValidationError

from toreuma.core.errors import ProgramError, ToreumaError
from toreuma.core.geometry.region import EMPTY, Region
from toreuma.core.memo import Check, never_cancel
from toreuma.core.model import AsWritten, Job, Machine, WrittenThread
from toreuma.core.model.tool import Tap
from toreuma.core.prove import prove
from toreuma.core.read import Program
from toreuma.core.scene import build_scene
from toreuma.engine.check_report import thread_rows
from toreuma.engine.driven_work import DrivenWork, made_beside, stretches
from toreuma.engine.foreign_blank import Blank
from toreuma.engine.foreign_job import assumed_of, from_tools, job_of
from toreuma.engine.library import library
from toreuma.engine.piece_as_part import part_of_piece
from toreuma.engine.study import Study
from toreuma.engine.usual_chips import with_usual_chips
from toreuma.engine.written_moves import KEPT, moves_of
from toreuma.engine.written_threads import found_threads
from toreuma.files.jobs import validation_line

__all__ = ["TakenAsJob", "as_job"]


@dataclass(frozen=True, kw_only=True)
class TakenAsJob:
    """The job, and what of the program is not in it."""

    job: Job
    left_out: tuple[str, ...]


def as_job(study: Study, name: str, check: Check = never_cancel) -> TakenAsJob:
    """Make a job of a program that was studied; whatever ``check`` raises stops it.

    Raises `ToreumaError` where nothing of it could be a part."""
    if study.endless_line is not None:
        raise ProgramError(f"line {study.endless_line}", "the program does not end", "mend the loop, then take it")
    program, left = _plain(study)
    piece, moved = _piece(study, program, check)
    part = part_of_piece(piece, moved)
    cut = [one for one in thread_rows(program.motions) if one["station"] not in _taps(study)]
    threads = found_threads(cut, study.overview, piece, moved)
    places = {}
    for one in threads:
        if one.form is not None:
            places[one.station, one.lead_mm] = WrittenThread(feature=len(part["features"]), form=one.form)
            part["features"].append(one.feature)
    where = study.machine or _machine_for(study)
    beside = made_beside(study.program, study.tools, piece, len(part["features"]))
    part["features"] += beside.features
    left += beside.left
    left.append("the part is what this program cuts: no drawing was asked")
    left += assumed_of(study.blank, (), where, usual=study.blank_is_usual)
    if study.machine is None:
        left.append(f"no machine is named: the {where.name} was taken, with its point where tools are changed")
    tools = {one.tool.station: with_usual_chips(one) for one in study.tools}
    assumed = {station: words for station, (_, words) in tools.items()}
    try:
        ground = job_of(_moved(study.blank, moved), study.tools, where)
        operations = list(_operations(program, study, moved, places, beside, assumed))
        if operations:  # what holds for all of it is kept with the first
            operations[0] = operations[0].changed(assumed=(*operations[0].assumed, *left))
        language = study.dialect.id if study.dialect.id in library().dialects else ground.program.dialect
        job = Job.model_validate(
            ground.model_dump()
            | {
                "name": name[:120],
                "part": part,
                "units": _units(study),
                "tools": [tool for tool, _ in tools.values()],
                "setups": [ground.setup.changed(operations=tuple(operations))],
                "program": {"dialect": language},
            }
        )
        build_scene(job)
    except ToreumaError as error:
        raise ProgramError("program", f"no part can be made of what it cuts ({error.what})", error.cure) from None
    except ValidationError as error:
        where_, what = validation_line(error)
        raise ProgramError("program", f"no job can be made of it ({where_}: {what})", "shorten or mend it") from None
    if not operations:
        raise ProgramError("program", "nothing in it cuts", "read another one")
    return TakenAsJob(job=job, left_out=tuple(left))


def _plain(study: Study) -> tuple[Program, list[str]]:
    """What cuts, and in words what else there is."""
    program, left = from_tools(study.program, study.tools), []
    faults = [one for one in program.findings if one.severity == "error"]
    if faults:
        first = faults[0]
        left.append(first.what + (f", and {len(faults) - 1} more" if len(faults) > 1 else ""))
    kept = tuple(one for one in program.motions
                 if not one.second and (one.driven is not None or not one.event or one.event in KEPT))  # fmt: skip
    if len(kept) < len(program.motions) or any(mark.what.startswith("second") for mark in program.marks):
        left.append("what a second spindle does is left out")
    if study.overview.idle_words:
        words = ", ".join(study.overview.idle_words)
        left.append(f"{words}: what is done there is not known, and the job does not do it")
    return replace(program, motions=kept), left


def _moved(blank: Blank, by: float) -> Blank:
    jaws = None if blank.jaws_z is None else blank.jaws_z - by
    corners = tuple((z - by, d) for z, d in blank.corners)
    return replace(blank, front_z=blank.front_z - by, jaws_z=jaws, corners=corners)


def _taps(study: Study) -> set[int]:
    """Stations of taps: their moves in step make a hole, and no ridges."""
    return {one.tool.station for one in study.tools if isinstance(one.tool, Tap)}


def _machine_for(study: Study) -> Machine:
    """The plainest machine of the shop that has every station, the strongest of those."""
    last = max((one.tool.station for one in study.tools), default=1)
    machines = list(library().machines.values())
    if any(one.driven is not None for one in study.program.motions):
        machines = [one for one in machines if one.c_axis is not None and any(c.live for c in one.carriers)] or machines
    fit = [one for one in machines if max(carrier.stations for carrier in one.carriers) >= last]
    return min(fit or machines, key=lambda one: (len(one.carriers), -max(point.power_kw for point in one.power)))


def _units(study: Study) -> str:
    said = next((one.value for one in reversed(study.program.in_force) if one.what == "units"), "mm")
    return "inch" if said == "inch" else "mm"


def _piece(study: Study, program: Program, check: Check) -> tuple[Region, float]:
    """What comes of it without the ridges of threads, its front at zero, and how far that was moved."""
    job = job_of(study.blank, study.tools, study.machine)
    taps = _taps(study)
    round_ = (one for one in program.motions if one.driven is None and (not one.in_step or one.station in taps))
    smooth = replace(program, motions=tuple(round_))
    final = prove(job, build_scene(job), smooth, EMPTY, check).final
    if final.is_empty:
        raise ProgramError("program", "nothing is left of the blank", "look at its blank and its tools")
    return final, float(final.bounds[2])


def _operations(
    program: Program,
    study: Study,
    moved: float,
    threads: dict[tuple[int, float], WrittenThread],
    beside: DrivenWork,
    assumed: dict[int, tuple[str, ...]],
) -> Iterator[AsWritten]:
    """One operation for every stretch of a tool."""
    uses = {use.station: use for use in study.overview.tools}
    milled = iter(beside.milled)
    count = 0
    for run in stretches(program.motions):
        station, driven = run[0].station, run[0].driven is not None
        cuts_beside = next(milled) if driven else ()
        if not station or station not in uses or not any(one.feed is not None or one.event in KEPT for one in run):
            continue
        count += 1
        use = uses[station]
        words = next(iter(use.comments), "") or f"{use.work}, station {station}"
        leads = sorted({round(one.feed, 4) for one in run if one.in_step and one.feed})
        unknown = [_unknown_thread(lead, station in _taps(study)) for lead in leads
                   if (station, lead) not in threads]  # fmt: skip
        yield AsWritten(
            id=f"op{count}",
            name=words[:120],
            tool=f"T{station}",
            moves=tuple(moves_of(run, moved)),
            threads=tuple(threads[station, lead] for lead in leads if (station, lead) in threads),
            milled=cuts_beside,
            assumed=(*assumed.get(station, ()), *unknown),
        )


def _unknown_thread(lead: float, tapped: bool) -> str:
    if tapped:
        return f"the hole is drawn as wide as the tap, without its thread of lead {lead:g} mm"
    return f"the thread of lead {lead:g} mm is none of a standard"
