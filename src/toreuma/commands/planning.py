"""``describe``, ``plan``, ``post`` and ``schema``: from a job to its program."""

from pathlib import Path
from typing import Annotated

import typer

from toreuma.commands.common import DialectOption, JobArgument, JsonOption, print_json
from toreuma.commands.findings import exit_with, print_findings, stop_on_errors
from toreuma.core.channels.by_hand import ByHand, turned_by_hand
from toreuma.core.channels.hand_over import hand_over
from toreuma.core.channels.transfer import Transfer
from toreuma.core.channels.waits import Act
from toreuma.core.critic import critique
from toreuma.core.dialect import Dialect
from toreuma.core.errors import ProgramError
from toreuma.core.plan import Plan
from toreuma.core.post import Posted
from toreuma.core.post.channels import post_channels
from toreuma.engine import report
from toreuma.engine.channel_texts import in_one
from toreuma.engine.engine import Engine
from toreuma.engine.hand_changes import written
from toreuma.engine.library import open_job
from toreuma.files.jobs import job_schema
from toreuma.files.writing import write_atomically

__all__ = ["register"]


def register(app: typer.Typer) -> None:
    app.command("describe")(describe)
    app.command("plan")(plan_command)
    app.command("post")(post_command)
    app.command("schema")(schema)


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
        first, second = shape["station"], shape["second_side_station"]
        sits = f"station {first}" if first is not None else "in no station"
        sits += f", {second or 'none'} on the second side" if second != first else ""
        print(f"  {tool}: {shape['kind']}, {sits}, nose radius {shape['nose_radius_mm']:g} mm")
    for setup in data["setups"]:
        print(f"  setup '{setup['name']}': jaws up to Z {setup['jaw_face_z_mm']:.3f} mm")


def plan_command(job: JobArgument, as_json: JsonOption = False) -> None:
    """Plan every operation and print its numbers."""
    sides = Engine().sides(open_job(job))
    taken, by_hand = hand_over(sides[0].job, sides[0]), turned_by_hand(sides[0].job, sides[0])
    if as_json:
        print_json(report.sides_report(sides, taken, by_hand))
    else:
        for planned in sides:
            _print_plan(planned)
            print_findings(critique(planned))
        if taken is not None:
            _print_transfer(taken)
        if by_hand is not None:
            _print_by_hand(by_hand)
    found = tuple(finding for planned in sides for finding in planned.all_findings)
    between = (*(taken.findings if taken is not None else ()), *(by_hand.findings if by_hand is not None else ()))
    exit_with((*found, *between))


def _print_transfer(taken: Transfer) -> None:
    print(f"Hand-over: {taken.seconds:.1f} s, {taken.gap_mm:.1f} mm between the spindle noses")
    for channel, items in taken.channels.items():
        words = (item.words if isinstance(item, Act) else f"waits at {item.mark}" for item in items)
        print(f"  channel {channel}: {', '.join(words)}")
    print_findings(taken.findings)


def _print_by_hand(made: ByHand) -> None:
    print(f"Turned round by hand: {made.seconds:.0f} s")
    print(f"  {', '.join(act.words for act in made.channels[1])}")
    for evidence in made.reasons.values():
        print(f"  {evidence.name}: {evidence.number:.3f} {evidence.unit}")
    print_findings(made.findings)


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
    print_findings(planned.all_findings)


def post_command(
    job: JobArgument,
    dialect_name: DialectOption = None,
    folder: Annotated[Path, typer.Option("-o", "--output", help="Folder for the program")] = Path("."),
    as_json: JsonOption = False,
) -> None:
    """Write the program."""
    engine = Engine()
    sides = engine.sides(open_job(job), dialect=dialect_name)
    stop_on_errors(tuple(finding for planned in sides for finding in planned.all_findings))
    taken = engine.transfer(sides)
    stop_on_errors(taken.findings if taken is not None else ())
    language = engine.language(sides[0].job, dialect_name)
    if taken is not None:
        programs = in_one(post_channels(sides[0].job, sides, taken, language), language)
    else:
        programs = tuple(_with_hand(planned, language) for planned in sides)
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


def _with_hand(planned: Plan, language: Dialect) -> Posted:
    """A side's program with what was changed in it by hand; what found no place any more is told."""
    made = written(planned, language)
    print_findings(made.findings)
    return Posted(made.name, made.text)


def schema() -> None:
    """Print the JSON Schema of job files."""
    print_json(job_schema())
