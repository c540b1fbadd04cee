"""Materials on the command line: what ships, and the person's own values."""

import json
from typing import Annotated

import typer

from toreuma.commands.common import JobArgument, JsonOption
from toreuma.core.errors import JobError
from toreuma.core.model import Job
from toreuma.core.plan.asked.prove_out import prove_out
from toreuma.core.standards.material_names import OtherNames
from toreuma.engine.engine import Engine
from toreuma.engine.library import keep_value, library, open_job
from toreuma.shipped.library import material_names, material_sources

__all__ = ["register"]


def register(app: typer.Typer) -> None:
    """Add the commands."""
    app.command("material")(material_command)
    app.command("prove-out")(prove_out_command)


def material_command(
    name: Annotated[str | None, typer.Argument(metavar="[NAME]")] = None,
    assign: Annotated[str | None, typer.Option("--set", help="Own value: field=value; field= goes back")] = None,
    source: Annotated[str, typer.Option("--source", help="Where the own value comes from")] = "own",
    as_json: JsonOption = False,
) -> None:
    """Values of a material with their sources; without a name the list."""
    if assign is not None:
        set_value(name or "", assign, source)
    print(material_text(name, as_json))


def prove_out_command(
    job: JobArgument,
    on: Annotated[str | None, typer.Option("--on", help="Softer material; default: the job's choice")] = None,
    as_json: JsonOption = False,
) -> None:
    """Overrides for proving out on a softer piece, and what it will not show."""
    print(prove_out_text(open_job(job), on, as_json))


def names_of(name: str) -> OtherNames:
    """What else a material is called, and what is near it."""
    return material_names().names.get(name, OtherNames())


def set_value(name: str, assignment: str, source: str) -> None:
    """Keep ``field=value``, or go back to what ships with ``field=``. Raises `JobError`."""
    field, equals, text = assignment.partition("=")
    if not equals:
        raise JobError("--set", f"'{assignment}' is no field=value", "write for example kc11_n_mm2=2300")
    try:
        value = float(text) if text.strip() else None
    except ValueError:
        raise JobError("--set", f"'{text}' is no number", "write for example kc11_n_mm2=2300") from None
    keep_value(name, field.strip(), value, source)


def material_text(name: str | None, as_json: bool) -> str:
    """One material with its sources and own values, or the list of all. Raises `JobError`."""
    every = library().materials
    if library().problems:
        raise library().problems[0]
    if name is None:
        rows = [(one.name, one.group, one.kc11_n_mm2, one.mc) for one in every.values()]
        if as_json:
            return json.dumps([one.model_dump(mode="json") for one in every.values()], ensure_ascii=False)
        return "\n".join(f"  {n:22} {group}  kc1.1 {kc:6.0f} N/mm2  mc {mc:.2f}" for n, group, kc, mc in rows)
    material, found = library().material(name)
    own, others = library().own.get(found.name, {}), names_of(found.name)
    if as_json:
        body = {
            "material": material.model_dump(mode="json"),
            "names": list(others.same),
            "near": dict(others.near),
            "differs": found.differs,
            "sources": material_sources(),
            "own": own,
        }
        return json.dumps(body, ensure_ascii=False)
    lines = [f"{found.name}, ISO 513 group {material.group}"]
    lines += [f"  {found.note}"] if found.note else []
    lines += [f"  also {', '.join(others.same)}"] if others.same else []
    lines += [f"  near: {', '.join(f'{one} ({how})' for one, how in others.near.items())}"] if others.near else []
    for field, value in material.model_dump(mode="json").items():
        if isinstance(value, int | float) and not isinstance(value, bool):
            lines.append(f"  {field:20} {value:g}   {material_sources().get(field, material.source)}")
    for row in material.speeds:
        speeds = f"rough {row.rough_m_min:g}, finish {row.finish_m_min:g}, part off {row.part_off_m_min:g} m/min"
        lines.append(f"  {row.tool_material}: {speeds}, Taylor m {row.exponent:g}, C {row.constant('rough'):.0f}")
    lines += [f"  own: {field} = {one['value']:g} ({one['source']})" for field, one in own.items()]
    return "\n".join(lines)


def prove_out_text(job: Job, on: str | None, as_json: bool) -> str:
    """Overrides of every operation for a softer piece. Raises `JobError`."""
    material = library().materials.get(on) if on else job.prove_out
    if material is None:
        what = f"there is no material '{on}'" if on else "no softer material is chosen"
        raise JobError("--on", what, "name one, such as --on AlMgSi1; toreuma material lists them")
    found = prove_out(Engine().plan(job), material)
    if as_json:
        overrides = [{**one.__dict__} for one in found.overrides]
        body = {"material": material.name, "overrides": overrides, "not_shown": found.not_shown}
        return json.dumps(body, ensure_ascii=False)
    lines = [f"{job.name} on {material.name} instead of {job.stock.material.name}", "  spindle %  feed %  force"]
    lines += [
        f"  {o.speed_pct:9d}  {o.feed_pct:6d}  {o.force_share:5.0%}  {o.name}  ({o.ended_by})" for o in found.overrides
    ]
    return "\n".join([*lines, "It will not show:", *(f"  {words}" for words in found.not_shown)])
