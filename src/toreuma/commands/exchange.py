"""``import`` and ``export``: drawings and models in and out."""

from pathlib import Path
from typing import Annotated

import typer

from toreuma.commands.common import JobArgument, JsonOption, print_json
from toreuma.core.errors import JobError
from toreuma.core.geometry.region import Region
from toreuma.core.plan import Plan
from toreuma.core.plan.sides.pair import second_end
from toreuma.engine import report
from toreuma.engine.engine import Engine
from toreuma.engine.fresh import fresh_job
from toreuma.engine.library import open_job
from toreuma.exchange.exports import export_file
from toreuma.exchange.read_apart import read_part_apart
from toreuma.files.jobs import save_job

__all__ = ["register"]


def register(app: typer.Typer) -> None:
    app.command("import")(import_command)
    app.command("export")(export_command)
    app.command("second-end")(second_end_command)


def import_command(
    file: Annotated[Path, typer.Argument(metavar="FILE", help="A DXF drawing or a STEP model")],
    output: Annotated[Path | None, typer.Option("-o", "--output", metavar="JOB", help="Job file to write")] = None,
    layers: Annotated[str | None, typer.Option("--layers", help="Layers to read, with commas between")] = None,
    units: Annotated[str | None, typer.Option("--units", help="mm or inch, when the file does not say")] = None,
    gap: Annotated[float, typer.Option("--gap", help="Largest gap to close, mm")] = 0.05,
    as_json: JsonOption = False,
) -> None:
    """Read a drawing or a model as a part, and write it as a job."""
    if units not in (None, "mm", "inch"):
        raise JobError("--units", f"'{units}' is no unit for a drawing", "use mm or inch")
    chosen = [layer.strip() for layer in layers.split(",")] if layers else None
    found = read_part_apart(file, layers=chosen, units=units, gap_mm=gap)
    if output is not None:
        save_job(fresh_job(found.part, file.stem, "inch" if found.units == "inch" else "mm"), output)
    if as_json:
        print_json(report.import_report(found))
        return
    inside = f", {len(found.part.inside)} inside" if found.part.inside else ""
    print(f"{file.name}: {len(found.part.outside)} elements outside{inside}, read in {found.units}")
    for feature in found.part.features:
        print(f"  {report.feature_words(feature)}")
    print(f"  largest deviation {found.deviation_um:.2f} µm")
    for word in found.warnings:
        print(f"  warning: {word}")
    if found.ignored:
        print(f"  left out: {', '.join(found.ignored)}")
    if output is not None:
        print(output)


def export_command(
    job: JobArgument,
    output: Annotated[Path, typer.Option("-o", "--output", metavar="FILE", help="A .dxf or .step file to write")],
    stock: Annotated[bool, typer.Option("--stock", help="STEP: the stock instead of the part")] = False,
    after: Annotated[str | None, typer.Option("--after", help="Stock after this operation; default: the last")] = None,
) -> None:
    """Write the section with its toolpaths as DXF, or the part or the stock as STEP."""
    planned = Engine().plan(open_job(job))
    export_file(planned, output, _stock_after(planned, after) if stock or after is not None else None)
    print(output)


def second_end_command(
    job: JobArgument,
    output: Annotated[Path, typer.Option("-o", "--output", metavar="JOB", help="Job file to write")],
    as_json: JsonOption = False,
) -> None:
    """Write the job of the second end of two parts back to back: turned round, and parted off."""
    other = second_end(open_job(job))
    save_job(other, output)
    if as_json:
        print_json({"file": str(output), "stick_out_mm": other.setup.hold.stick_out_mm})
    else:
        print(output)


def _stock_after(planned: Plan, operation: str | None) -> Region:
    if operation is None:
        return planned.operations[-1].after if planned.operations else planned.scene.stock
    found = planned.of(operation)
    if found is None:
        known = ", ".join(op.operation.id for op in planned.operations) or "none"
        raise JobError("--after", f"there is no planned operation '{operation}'", f"choose from {known}")
    return found.after
