"""``log``: runs, sizes, offsets, edges, stops and notes; first articles and what is ahead; everything for others."""

import time
from dataclasses import asdict
from pathlib import Path
from typing import Annotated, Any

import typer

from toreuma.commands.common import JobArgument, JsonOption, print_json
from toreuma.core.errors import JobError
from toreuma.core.model.identity import job_id
from toreuma.core.spoken import spoken
from toreuma.core.units import System, parse, show
from toreuma.engine.engine import Engine
from toreuma.engine.library import library, open_job
from toreuma.engine.logbook.book import Book, begin_run, taught
from toreuma.engine.logbook.constants import Constant, constants_of, forget_constant, in_words, keep_constant
from toreuma.engine.logbook.first_article import FirstArticle, size_of
from toreuma.engine.logbook.renewed import job_with_shop_values
from toreuma.engine.logbook.through_run import SizeRun
from toreuma.files.jobs import save_job
from toreuma.files.reading import text_of
from toreuma.files.writing import write_atomically
from toreuma.log import Note, OffsetSet, Stop, Store, open_store
from toreuma.log.entries import SEEN, STOPS
from toreuma.log.exported import as_csv, as_csv_archive, as_json

__all__ = ["register"]

MOST_BYTES = 20_000_000

RunArgument = Annotated[int, typer.Argument(metavar="RUN", help="Number of a run")]
PartOption = Annotated[int, typer.Option("--part", help="Part it belongs to, from 1")]
NoteOption = Annotated[str, typer.Option("--note", help="Words about it")]

log = typer.Typer(help="The log: what was run, measured, set, used up and seen.")


@log.callback(invoke_without_command=True)
def _alone(context: typer.Context) -> None:
    if context.invoked_subcommand is None:
        list_runs()


def register(app: typer.Typer) -> None:
    app.add_typer(log, name="log")
    app.command("_", hidden=True)(lambda: None)  # one command alone would lose its name


@log.command("list")
def list_runs(as_json_: JsonOption = False) -> None:
    """Every run, the last one first."""
    runs = open_store().runs()
    if as_json_:
        print_json([asdict(one) for one in runs])
        return
    for one in runs:
        day = time.strftime("%Y-%m-%d %H:%M", time.localtime(one.begun))
        state = "running" if one.ended is None else "ended"
        told = " (simulated)" if one.simulated else ""
        print(f"  {one.id:>4}  {day}  {one.name} {one.revision or one.fingerprint}  {one.machine}{told}  {state}")


@log.command("begin")
def begin(job: JobArgument, as_json_: JsonOption = False) -> None:
    """A job goes to the machine: a run begins."""
    run = begin_run(open_store(), Engine(), open_job(job), time.time())
    print_json({"run": run}) if as_json_ else print(f"run {run}")


@log.command("end")
def end(run: RunArgument) -> None:
    """A run is over; what it says of times, warming up and bend is kept."""
    Book(open_store(), run).end(time.time())


@log.command("power")
def power(
    run: RunArgument,
    operation: Annotated[str, typer.Argument(help="Id or name of an operation")],
    kw: Annotated[float, typer.Argument(help="What the spindle took there, kW at the motor")],
) -> None:
    """A power that was read at the machine, against what was computed."""
    Book(open_store(), run).observe_power(operation, kw, time.time())


@log.command("lines")
def lines(run: RunArgument, as_json_: JsonOption = False) -> None:
    """The inspection list of a run: the keys by which sizes are entered."""
    found = Book(open_store(), run).lines
    if as_json_:
        print_json([asdict(one) for one in found])
        return
    for one in found:
        low, high = (f"{value:.4f}" if value is not None else "-" for value in (one.lower, one.upper))
        print(f"  {one.number:>3}  {one.key:<34} {low:>10} {high:>10}  {one.what}; {one.means}")


@log.command("size", context_settings={"ignore_unknown_options": True})
def size(
    run: RunArgument,
    part: Annotated[int, typer.Argument(help="Part, from 1")],
    line: Annotated[str, typer.Argument(help="Key or number of a line; KEY@Z for a place on its cylinder")],
    value: Annotated[str, typer.Argument(help="What was found, in the units of the job, or with its unit: 0.8655in")],
    gauge: Annotated[str, typer.Option("--gauge", help="What it was measured with")] = "",
    uncertainty: Annotated[float | None, typer.Option("--uncertainty", help="k = 2, mm")] = None,
    instead: Annotated[bool, typer.Option("--instead", help="In place of what was found there before")] = False,
) -> None:
    """Enter a size of a part."""
    book = Book(open_store(), run)
    key = next((one.key for one in book.lines if str(one.number) == line), line)
    unit = next((one.unit for one in book.lines if one.key == size_of(key)[0]), "mm")
    found = parse(value, unit, book.job.units)
    book.enter(part, key, found, time.time(), gauge, uncertainty, instead)


@log.command("article")
def article(run: RunArgument, part: PartOption = 1, as_json_: JsonOption = False) -> None:
    """A first article: its sizes split into causes, with the offsets they ask for."""
    book = Book(open_store(), run)
    found = book.article(part)
    print_json(article_report(found)) if as_json_ else _print_article(found, book.job.units)
    if any(row.within is False for row in found.rows):
        raise typer.Exit(1)


def article_report(found: FirstArticle) -> dict[str, Any]:
    """A first article as JSON: sizes, errors and offsets in mm, diameters on diameter, finishes in um."""
    return {
        "part": found.part,
        "rows": [
            {"number": row.line.number, "key": row.line.key, "what": str(row.line.what), "found": row.found,
             "error": row.error, "rest": row.rest, "within": row.within, "tool": row.tool}
            for row in found.rows
        ],
        "causes": [asdict(one) for one in found.split.effects],
        "says": [str(one) for one in found.says],
        "offsets": [{**asdict(one), "words": str(words)} for one, words in found.offsets],
        "unexplained": [str(one) for one in found.left],
    }  # fmt: skip


def _print_article(found: FirstArticle, system: System) -> None:
    for row in found.rows:
        if row.found is None:
            continue
        size = str(show(row.found, row.line.unit, system))
        error = str(show(row.error, row.line.unit, system)) if row.error is not None else ""
        state = {True: "within", False: "OUT", None: "no limits" if row.found is not None else ""}[row.within]
        print(
            f"  {row.line.number:>3}  {spoken(row.line.what, system):<40} {size:>14} {error:>12}  {state}  {row.tool}"
        )
    for words in (*found.says, *found.left):
        print(f"  {spoken(words, system)}")
    for _, words in found.offsets:
        print(f"  set {spoken(words, system)}")
    if not found.offsets:
        print("  nothing to set")


@log.command("run")
def through(
    run: RunArgument,
    line: Annotated[str, typer.Argument(help="Key or number of a line; empty: all that were measured")] = "",
    as_json_: JsonOption = False,
) -> None:
    """Sizes through a run: where they stand, what they follow, what is ahead."""
    book = Book(open_store(), run)
    key = next((one.key for one in book.lines if str(one.number) == line), line)
    found = [book.size(one) for one in ([key] if key else book.measured_keys())]
    if as_json_:
        print_json([run_report(one) for one in found])
    for one in found if not as_json_ else ():
        print(f"{one.line.number} {spoken(one.line.what, book.job.units)}: {len(one.points)} parts")
        for kind, words in one.says:
            print(f"  {kind}: {spoken(words, book.job.units)}")
    if any(kind == "error" for one in found for kind, _ in one.says):
        raise typer.Exit(1)


def run_report(one: SizeRun) -> dict[str, Any]:
    """A size through a run as JSON, in mm: what each part measured, offsets set, level, and the part that crosses a
    limit."""
    fit = one.fit
    return {
        "key": one.line.key,
        "parts": [point.part for point in one.points],
        "values": [point.value for point in one.points],
        "sets": one.sets,
        "new_edges_after": one.changes,
        "level": None if fit is None else fit.level,
        "crosses": None if fit is None else fit.crosses,
        "correction": None if fit is None else fit.correction,
        "over_corrected": None if fit is None else fit.over_corrected,
        "cpk": None if one.capability is None else one.capability.cpk,
        "says": [{"kind": kind, "words": str(words)} for kind, words in one.says],
    }


@log.command("offset", context_settings={"ignore_unknown_options": True})
def offset(
    run: RunArgument,
    tool: Annotated[str, typer.Argument(help="Tool of the job, such as T2")],
    axis: Annotated[str, typer.Argument(help="X (on diameter) or Z")],
    mm: Annotated[float, typer.Argument(help="What was added, mm")],
    after: Annotated[int, typer.Option("--after", help="Behind which part")] = 0,
    note: NoteOption = "",
) -> None:
    """An offset was set."""
    if axis.upper() not in ("X", "Z"):
        raise JobError("log", f"there is no axis '{axis}'", "choose X or Z")
    store = open_store()
    store.run(run)
    store.add(run, OffsetSet(after_part=after, tool=tool, axis=axis.upper(), mm=mm, at=time.time(), why=note))


@log.command("edge")
def edge(
    run: RunArgument,
    tool: Annotated[str, typer.Argument(help="Tool whose edge was turned or changed")] = "",
    after: Annotated[int, typer.Option("--after", help="Behind which part")] = 0,
    seen: Annotated[str, typer.Option("--seen", help=f"One of {', '.join(SEEN)}")] = "flank",
    wear: Annotated[float | None, typer.Option("--wear", help="Width of the wear, mm")] = None,
    early: Annotated[bool, typer.Option("--early", help="It was not worn yet")] = False,
    note: NoteOption = "",
) -> None:
    """An edge was turned or changed; without a tool: what is in, and when to change it."""
    book = Book(open_store(), run)
    if not tool:
        for one in book.edges():
            used = f"{one.share:.0%} of its life" if one.share is not None else ""
            print(f"  T{one.tool.station} {one.tool.name}: {one.parts} parts, {one.minutes:.1f} min {used}; {one.says}")
        return
    _one_of(seen, SEEN, "wear")
    book.change_edge(tool, after or book.made(), time.time(), seen, wear, worn=not early, note=note)


@log.command("stop")
def stop(
    run: RunArgument,
    kind: Annotated[str, typer.Argument(help=f"One of {', '.join(STOPS)}")],
    part: PartOption = 0,
    operation: Annotated[str, typer.Option("--operation", help="Where")] = "",
    seconds: Annotated[float, typer.Option("--seconds", help="How long it stood")] = 0.0,
    note: NoteOption = "",
) -> None:
    """The machine stood, or chips made trouble."""
    store = open_store()
    store.run(run)
    entry = Stop(
        part=part, operation=operation, kind=_one_of(kind, STOPS, "stop"), at=time.time(), seconds=seconds, note=note
    )
    store.add(run, entry)


@log.command("note")
def note_command(
    job: JobArgument,
    words: Annotated[str, typer.Argument(help="What is to be kept")] = "",
    program: Annotated[Path | None, typer.Option("--program", help="The program as it stands at the machine")] = None,
    picture: Annotated[Path | None, typer.Option("--picture", help="A picture of it")] = None,
    trial: Annotated[bool, typer.Option("--trial", help="Something that was tried")] = False,
    run: Annotated[int | None, typer.Option("--run", help="Run it belongs to")] = None,
) -> None:
    """Words about a job, a picture, or the program that came back from the machine."""
    store = open_store()
    ident = job_id(open_job(job))
    if program is not None:
        last = run if run is not None else next((one.id for one in store.runs(ident)), None)
        text = text_of(program, MOST_BYTES)
        store.note(ident, Note(words=text, at=time.time(), kind="program", run=last))
        return
    if not words.strip() and picture is None:
        raise JobError("log", "there is nothing to keep", "give words, --picture or --program")
    data = None
    if picture is not None:
        try:
            data = picture.read_bytes()
        except OSError as error:
            raise JobError(picture.name, f"it cannot be read ({error.strerror})", "check the file") from None
    store.note(ident, Note(words=words, at=time.time(), kind="trial" if trial else "note", picture=data, run=run))


@log.command("taught")
def taught_command(
    job: JobArgument,
    output: Annotated[
        Path | None, typer.Option("-o", "--output", metavar="JOB", help="The job with what the shop has learned since")
    ] = None,
    as_json_: JsonOption = False,
) -> None:
    """What the last run of a job taught, and what the shop has learned since it was planned."""
    found = taught(open_store(), open_job(job))
    if output is not None:
        save_job(job_with_shop_values(open_job(job)), output)
    if as_json_:
        print_json({"run": found.run and found.run.id, "says": list(found.says), "edited": list(found.edited)})
        return
    if found.run is None:
        print("no run of this job is in the log")
    for words in found.says:
        print(f"  {spoken(words, 'mm')}")
    for words in found.edited:
        print(f"  changed at the machine: {words}")


@log.command("constants")
def constants(
    material: Annotated[str, typer.Argument(help="A material")],
    machine: Annotated[str, typer.Option("--machine", help="For its times and its warming up")] = "",
    use: Annotated[bool, typer.Option("--use", help="New plans begin from what was seen")] = False,
    leave: Annotated[bool, typer.Option("--leave", help="New plans begin from the tables again")] = False,
    as_json_: JsonOption = False,
) -> None:
    """The shop's own constants: each from the tables, moved by what was seen."""
    known, _ = library().material(material)
    found = constants_of(open_store(), known, machine)
    for one in found:
        if leave and one.used:
            forget_constant(one)
        elif use and one.field and one.learned.count:
            keep_constant(one)
    if as_json_:
        print_json([_constant(one) for one in found])
        return
    for one in found:
        print(f"  {in_words(one)}")


def _constant(one: Constant) -> dict[str, Any]:
    return {"kind": one.kind, "of": one.of, "cutting": one.cutting, **asdict(one.learned), "source": one.source}


@log.command("export")
def export(file: Annotated[Path, typer.Argument(help="A .json, a .zip of CSV files, or TABLE.csv")]) -> None:
    """Everything in the log, for other tools."""
    store, kind = open_store(), file.suffix.lower()
    if kind == ".json":
        data: str | bytes = as_json(store)
    elif kind == ".zip":
        data = as_csv_archive(store)
    elif kind == ".csv" and file.stem in store.tables:
        data = as_csv(store, file.stem)
    else:
        known = ", ".join(f"{name}.csv" for name in store.tables)
        raise JobError(file.name, "no such export", f"end it in .json or .zip, or name it {known}")
    try:
        write_atomically(file, data)
    except OSError as error:
        raise JobError(str(file), f"it cannot be written ({error.strerror})", "choose another place") from None
    print(f"{file}: {_counted(store)}")


def _counted(store: Store) -> str:
    return ", ".join(f"{count} {name}" for name, count in store.counts().items() if count)


def _one_of(word: str, known: tuple[str, ...], what: str) -> str:
    if word not in known:
        raise JobError("log", f"there is no {what} '{word}'", f"choose from {', '.join(known)}")
    return word
