"""The command line. Errors are one line on stderr: ``toreuma: WHERE: WHAT; HOW TO FIX``.

Exit status: 0 all well, 1 findings at level error, 2 bad input.
"""

import os
import sys
from pathlib import Path
from typing import Annotated

import typer

from toreuma import __version__
from toreuma.commands import exchange, materials, routing, standards
from toreuma.commands.common import JobArgument, JsonOption, print_json
from toreuma.core.channels.balance import balance
from toreuma.core.channels.by_hand import ByHand, turned_by_hand
from toreuma.core.channels.hand_over import hand_over
from toreuma.core.channels.schedule import schedule
from toreuma.core.channels.transfer import Transfer
from toreuma.core.channels.waits import Act
from toreuma.core.critic import critique
from toreuma.core.dialect import Dialect
from toreuma.core.errors import JobError, ProgramError, ToreumaError
from toreuma.core.findings import Finding
from toreuma.core.plan import Plan
from toreuma.core.post import post
from toreuma.core.post.channels import post_channels
from toreuma.core.prove import Proof
from toreuma.engine import report
from toreuma.engine.engine import Engine
from toreuma.engine.library import open_job
from toreuma.engine.pair import prove_channels, texts_of
from toreuma.files.jobs import job_schema, write_atomically

__all__ = ["app", "main"]

SEARCH_S = 5.0
"""The proof looks this long for the shortest cycle."""

app = typer.Typer(
    add_completion=False, pretty_exceptions_enable=False, help="Plan turned parts, and prove every program."
)

standards.register(app)
exchange.register(app)
materials.register(app)
routing.register(app)

DialectOption = Annotated[str | None, typer.Option("-d", "--dialect", help="How to write; default: as the job says")]


@app.callback(invoke_without_command=True)
def _start(
    context: typer.Context, version: Annotated[bool, typer.Option("--version", help="Print the version")] = False
) -> None:
    if version:
        print(__version__)
        raise typer.Exit
    if context.invoked_subcommand is None:
        _window(None)


@app.command("open")
def open_command(job: Annotated[str | None, typer.Argument(metavar="[JOB]")] = None) -> None:
    """Open the window, with a job when one is named."""
    _window(job)


@app.command()
def demo(name: Annotated[str, typer.Argument(metavar="[NAME]")] = "spear") -> None:
    """Open the window with a demo job."""
    _window(f"demo:{name}")


def _window(job: str | None) -> None:
    loaded = open_job(job) if job else None
    path = Path(job) if job and not job.startswith("demo:") else None
    if not os.environ.get("DISPLAY") and not os.environ.get("WAYLAND_DISPLAY") and "QT_QPA_PLATFORM" not in os.environ:
        raise JobError(
            "screen", "no display was found", "for a picture use: toreuma shot demo:spear operations out.png"
        )
    from toreuma.app.shell.start import run

    raise typer.Exit(run(loaded, path))


@app.command()
def describe(job: JobArgument, as_json: JsonOption = False) -> None:
    """Print the geometry as planned: stock, part, tools, setups."""
    data = report.description(open_job(job))
    if as_json:
        print_json(data)
        return
    print(f"{data['name']}  ({data['units']})")
    for name in ("stock", "part"):
        z, r = zip(*data[name], strict=True)
        print(f"  {name}: Z {min(z):.3f} to {max(z):.3f} mm, largest diameter {2 * max(r):.3f} mm, {len(z)} corners")
    for tool, shape in data["tools"].items():
        print(f"  {tool}: {shape['kind']}, station {shape['station']}, nose radius {shape['nose_radius_mm']:g} mm")
    for setup in data["setups"]:
        print(f"  setup '{setup['name']}': jaws up to Z {setup['jaw_face_z_mm']:.3f} mm")


@app.command("plan")
def plan_command(job: JobArgument, as_json: JsonOption = False) -> None:
    """Plan every operation and print its numbers."""
    sides = Engine().sides(open_job(job))
    taken, by_hand = hand_over(sides[0].job, sides[0]), turned_by_hand(sides[0].job, sides[0])
    if as_json:
        print_json(report.sides_report(sides, taken, by_hand))
    else:
        for planned in sides:
            _print_plan(planned)
            _print_findings(critique(planned))
        if taken is not None:
            _print_transfer(taken)
        if by_hand is not None:
            _print_by_hand(by_hand)
    found = tuple(finding for planned in sides for finding in planned.all_findings)
    between = (*(taken.findings if taken is not None else ()), *(by_hand.findings if by_hand is not None else ()))
    _exit_with((*found, *between))


def _print_transfer(taken: Transfer) -> None:
    print(f"Hand-over: {taken.seconds:.1f} s, {taken.gap_mm:.1f} mm between the spindle noses")
    for channel, items in taken.channels.items():
        words = (item.words if isinstance(item, Act) else f"waits at {item.mark}" for item in items)
        print(f"  channel {channel}: {', '.join(words)}")
    _print_findings(taken.findings)


def _print_by_hand(made: ByHand) -> None:
    print(f"Turned round by hand: {made.seconds:.0f} s")
    print(f"  {', '.join(act.words for act in made.channels[1])}")
    for evidence in made.reasons.values():
        print(f"  {evidence.name}: {evidence.number:.3f} {evidence.unit}")
    _print_findings(made.findings)


def _print_plan(planned: Plan) -> None:
    print(f"{planned.job.name}: {planned.times.total_s:.1f} s")
    print("  op     tool   vc m/min  feed mm/rev  ap mm (radius)  passes  time s  power kW  name, governed by")
    for row in report.plan_report(planned)["operations"]:
        cells = (
            f"{row[key]:>{width}.{places}f}" if row[key] is not None else " " * (width - 1) + "-"
            for key, width, places in (
                ("vc_m_min", 9, 0),
                ("feed_mm_rev", 12, 3),
                ("ap_mm", 15, 3),
                ("passes", 7, 0),
                ("time_s", 7, 1),
                ("power_kW", 9, 2),
            )
        )
        governed = f", {row['governed_by']}" if row["governed_by"] else ""
        print(f"  {row['id']:<6} {row['tool']:<4} {' '.join(cells)}  {row['name']}{governed}")
    _print_findings(planned.all_findings)


@app.command("post")
def post_command(
    job: JobArgument,
    dialect_name: DialectOption = None,
    folder: Annotated[Path, typer.Option("-o", "--output", help="Folder for the program")] = Path("."),
    as_json: JsonOption = False,
) -> None:
    """Write the program."""
    engine = Engine()
    sides = engine.sides(open_job(job), dialect=dialect_name)
    _stop_on_errors(tuple(finding for planned in sides for finding in planned.all_findings))
    taken = engine.transfer(sides)
    _stop_on_errors(taken.findings if taken is not None else ())
    language = engine.language(sides[0].job, dialect_name)
    if taken is not None:
        programs = post_channels(sides[0].job, sides, taken, language)
    else:
        programs = tuple(post(planned, language) for planned in sides)
    written = []
    for posted in programs:
        target = folder / posted.name
        try:
            folder.mkdir(parents=True, exist_ok=True)
            write_atomically(target, posted.text)
        except OSError as error:
            what = f"it cannot be written ({error.strerror})"
            raise ProgramError(str(target), what, "choose another folder") from None
        written.append(str(target))
    if as_json:
        print_json({"files": written})
    else:
        print("\n".join(written))


@app.command()
def prove(
    job: JobArgument,
    program: Annotated[Path | None, typer.Option("--program", help="Program text to prove instead")] = None,
    side: Annotated[int, typer.Option("--side", help="Side that other program text belongs to")] = 1,
    channel: Annotated[int, typer.Option("--channel", help="Channel that other program text belongs to")] = 0,
    dialect_name: DialectOption = None,
    as_json: JsonOption = False,
) -> None:
    """Read the program back, cut it out of the blank and compare with the part."""
    engine = Engine()
    sides = engine.sides(open_job(job), dialect=dialect_name)
    text = _program_text(program)
    if not 1 <= side <= len(sides):
        raise ProgramError("side", f"the job has {len(sides)} side(s)", "choose one of them")
    taken = engine.transfer(sides)
    if taken is not None and (text is None or channel):
        _prove_channels(sides, taken, engine.language(sides[0].job, dialect_name), text, channel, as_json)
        return
    chosen = sides if text is None else sides[side - 1 : side]
    every: list[Finding] = []
    reports = []
    for planned in chosen:
        proof = engine.prove_afresh(planned, text, dialect_name)
        findings = (*planned.all_findings, *proof.findings)
        every += findings
        data = report.proof_report(proof)
        data["findings"] = [finding.as_dict() for finding in findings]
        reports.append(data)
        if not as_json:
            _print_proof(planned, proof, findings)
    if as_json:
        print_json(reports[0] | ({"sides": reports} if len(reports) > 1 else {}))
    _exit_with(tuple(every))


def _prove_channels(
    sides: tuple[Plan, ...], taken: Transfer, language: Dialect, text: str | None, channel: int, as_json: bool
) -> None:
    """Both channels run together, both sides cut, the hand-over looked at."""
    texts = texts_of(sides[0].job, sides, taken, language)
    if text is not None and channel not in texts:
        known = ", ".join(str(one) for one in texts)
        raise ProgramError("channel", f"the job has no channel {channel}", f"choose one of {known}")
    if text is not None:
        texts[channel] = text
    proof = prove_channels(sides[0].job, sides, taken, language, texts)
    planned = tuple(finding for side in sides for finding in side.all_findings)
    findings = (*planned, *taken.findings, *proof.findings)
    job = sides[0].job
    found = balance(job, sides, taken, SEARCH_S) if text is None else None
    cycle = report.cycle_report(proof, found, schedule(job, sides, taken).cycle_s) if found and found.slots else None
    if as_json:
        print_json(report.pair_report(proof, findings, cycle))
    else:
        name = sides[0].job.name
        print(f"{name}, complete: {'proved' if not report.has_errors(findings) else 'NOT proved'}")
        print(f"  gouge {proof.gouge_um:.2f} µm, leftover {proof.leftover_um:.2f} µm beyond what the plan declares")
        contacts = len(proof.contacts)
        waits = ", ".join(f"channel {one} waits {seconds:.1f} s" for one, seconds in proof.ran.waited_s.items())
        print(f"  contacts {contacts}, time {proof.ran.seconds:.1f} s; {waits}")
        if cycle is not None:
            made = "steady cycle" if cycle["written"] else "steady cycle there could be"
            ran = f", {proof.cycle_s:.1f} s as read back" if proof.cycle_s else ""
            print(f"  {made} {cycle['planned_s']:.1f} s{ran}, {cycle['ratio']:.3f} of one after another "
                  f"({cycle['one_after_another_s']:.1f} s); no order is below {cycle['bound_s']:.1f} s")  # fmt: skip
        _print_findings(findings)
    _exit_with(findings)


def _print_proof(planned: Plan, proof: Proof, findings: tuple[Finding, ...]) -> None:
    print(f"{planned.job.name}: {'proved' if not report.has_errors(findings) else 'NOT proved'}")
    print(f"  gouge {proof.gouge_um:.2f} µm, leftover {proof.leftover_um:.2f} µm beyond what the plan declares")
    print(f"  contacts {len(proof.contacts)}, time {proof.time_s:.1f} s")
    for made in proof.threads:
        low, high = made.limits_mm
        found = f"{made.pitch_d_mm:.3f} mm" if made.pitch_d_mm is not None else "none"
        print(f"  thread {made.designation}: pitch diameter {found}, limits {low:.3f} to {high:.3f} mm")
    _print_findings(findings)


def _program_text(path: Path | None) -> str | None:
    if path is None:
        return None
    try:
        if path.stat().st_size > 50_000_000:
            raise ProgramError(path.name, "the program is larger than 50 MB", "split it")
        return path.read_text("utf-8")
    except UnicodeDecodeError:
        raise ProgramError(path.name, "the file is not text", "choose a program file") from None
    except OSError as error:
        raise ProgramError(path.name, f"it cannot be read ({error.strerror})", "check the file's name") from None


@app.command()
def shot(
    job: JobArgument,
    stage: Annotated[str, typer.Argument(metavar="STAGE")],
    file: Annotated[Path, typer.Argument(metavar="FILE")],
    size: Annotated[str, typer.Option("--size", help="Width x height")] = "1280x800",
    theme: Annotated[str, typer.Option("--theme", help="light or dark")] = "light",
    select: Annotated[str | None, typer.Option("--select", help="Operation to select")] = None,
    at: Annotated[float | None, typer.Option("--at", help="Time of the cursor, s")] = None,
    read: Annotated[Path | None, typer.Option("--read", help="A drawing or model being looked at")] = None,
    wish: Annotated[str | None, typer.Option("--wish", help="What asks for a tool, a bench page, table")] = None,
    side: Annotated[int, typer.Option("--side", help="Side of the part, 1 or 2")] = 1,
) -> None:
    """Make a picture of a stage, without a screen."""
    loaded = open_job(job)
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from toreuma.app.shell.shot import take_shot

    take_shot(loaded, stage, file, size=size, theme=theme, select=select, at_s=at, read=read, wish=wish, side=side)
    print(file)


@app.command()
def schema() -> None:
    """Print the JSON Schema of job files."""
    print_json(job_schema())


def _print_findings(findings: tuple[Finding, ...]) -> None:
    for finding in findings:
        print(f"  {finding.severity}: {finding.what}" + (f" ({finding.why})" if finding.why else ""))


def _stop_on_errors(findings: tuple[Finding, ...]) -> None:
    first = next((finding for finding in findings if finding.severity == "error"), None)
    if first is not None:
        print(f"toreuma: {first.operation or 'plan'}: {first.what}; {first.why}", file=sys.stderr)
        raise typer.Exit(1)


def _exit_with(findings: tuple[Finding, ...]) -> None:
    if report.has_errors(findings):
        raise typer.Exit(1)


def main() -> None:
    """Run the command line and exit with its status."""
    try:
        status = app(standalone_mode=False)
    except ToreumaError as error:
        print(f"toreuma: {error}", file=sys.stderr)
        sys.exit(2)
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        sys.exit(0)
    except KeyboardInterrupt:
        sys.exit(130)
    except Exception as error:
        message = getattr(error, "format_message", None)
        if message is None:
            raise
        print(f"toreuma: command line: {message()}; see toreuma --help", file=sys.stderr)
        sys.exit(2)
    sys.exit(status if isinstance(status, int) else 0)
