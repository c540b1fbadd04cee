"""A program without a drawing: cut out of a blank with tools, and what comes of it."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from toreuma.core.findings import Finding
from toreuma.core.geometry.region import EMPTY
from toreuma.core.model import Job, Machine
from toreuma.core.prove import Contact, Proof, prove
from toreuma.core.read import Given, Nose, Program
from toreuma.core.read.overview import Overview, overview
from toreuma.core.read.words import blocks_of
from toreuma.core.scene import build_scene
from toreuma.engine.foreign import Foreign, given_of, read_foreign, tool_rows
from toreuma.engine.foreign_blank import Blank
from toreuma.engine.foreign_tools import Filled, filled
from toreuma.engine.library import library

__all__ = ["Checked", "check_program", "job_of"]

SLIVER_MM = 0.2
"""What stands for the part where there is no drawing: so thin a wire on the axis that no cut is held against it."""

HOME_AWAY = (250.0, 150.0)
"""The reference point is taken to be so far beside the blank, where no machine is known."""

SCRAPES_MM = 0.1
"""An edge that leaves a square shoulder straight along it takes so much of the wall with it at a rapid."""

OF_THE_CUT = frozenset(
    ("contact", "tool.unknown", "spindle.stopped", "axis.past_centre", "loose", "hold.open", "bar.missed", "bar.length")
)
"""Findings of the proof that need no drawing."""


@dataclass(frozen=True, kw_only=True)
class Checked:
    """A program, what it is made of, the tools it was cut with, and what came of it."""

    found: Foreign
    overview: Overview
    tools: tuple[Filled, ...]
    job: Job
    proof: Proof
    findings: tuple[Finding, ...]
    assumed: tuple[str, ...]

    @property
    def safe(self) -> bool:
        """Nothing met what it must not, and nothing was left that is not understood."""
        return all(one.severity != "error" for one in self.findings)


def check_program(
    text: str,
    blank: Blank,
    tools: Any = None,
    *,
    name: str | None = None,
    machine: Machine | None = None,
    given: Given | None = None,
) -> Checked:
    """Read a text, fill in its tools, and cut it out of a blank. Raises `ToreumaError`.

    ``tools`` are rows as in a file of tools; with ``machine`` its own words are known.
    """
    data = tools if tools is not None else {}
    known = given or given_of(data, "tools")
    home = (blank.front_z + HOME_AWAY[0], blank.widest_mm / 2 + HOME_AWAY[1])
    known = replace(known, home=home)
    words = machine.words if machine is not None else None
    found = read_foreign(text, name=name, given=known, machine=words)
    seen = overview(found.program, list(blocks_of(text, found.dialect)), home)
    rows = _rows(data)
    made = tuple(filled(use, rows.get(use.station), "tools") for use in seen.tools)
    noses = {**{one.tool.station: Nose(one.nose_mm) for one in made if one.nose_mm > 0}, **known.noses}
    if any(one.code == "side.nose" for one in found.program.findings) and noses != dict(known.noses):
        found = read_foreign(text, name=name, given=replace(known, noses=noses), machine=words)
    job = job_of(blank, made, machine)
    scene = build_scene(job)
    program = _from_tools(found.program, made)
    proof = prove(job, scene, program, EMPTY)
    read = {id(one) for one in found.program.findings}
    findings = tuple(
        _softened(one, program, made, proof.contacts)
        for one in proof.findings
        if id(one) in read or one.code in OF_THE_CUT
    )
    return Checked(
        found=found,
        overview=seen,
        tools=made,
        job=job,
        proof=proof,
        findings=findings,
        assumed=_assumed(blank, made, machine),
    )


def _from_tools(program: Program, made: tuple[Filled, ...]) -> Program:
    """The same moves of the points that the tools are described from."""
    shifts = {one.tool.station: one.shift for one in made if one.shift != (0.0, 0.0)}
    if not shifts:
        return program
    moved = (
        replace(one, segment=one.segment.moved(*shifts[one.station])) if one.station in shifts else one
        for one in program.motions
    )
    return replace(program, motions=tuple(moved))


def _softened(finding: Finding, program: Program, made: tuple[Filled, ...], contacts: tuple[Contact, ...]) -> Finding:
    """What a holder meets that nobody described is a question, and a wall that is scraped on the way out no crash."""
    if finding.code != "contact":
        return finding
    if "rapid in metal" in finding.what:
        depths = [one.depth_mm for one in contacts if one.line == finding.line and one.what == "rapid in metal"]
        if depths and max(depths) < SCRAPES_MM:
            why = "the edge scrapes a wall on its way out: feed it out, or lean the way"
            return replace(finding, severity="warning", code="contact.scrape", why=why)
        return finding
    if "holder in" not in finding.what:
        return finding
    station = next((one.station for one in program.motions if one.line == finding.line), 0)
    if any(one.tool.station == station and one.body_said for one in made):
        return finding
    return replace(
        finding, severity="warning", code="contact.assumed", why="its holder is a usual one: say which it is"
    )


def _rows(data: Any) -> dict[int, Mapping[str, Any]]:
    rows = data.get("tools", data) if isinstance(data, dict) else data
    return dict(tool_rows(rows, "tools")) if rows else {}


def _assumed(blank: Blank, made: tuple[Filled, ...], machine: Machine | None) -> tuple[str, ...]:
    """What nobody said, in words."""
    found = [f"station {one.tool.station}: {', '.join(one.assumed)}" for one in made if one.assumed]
    if blank.jaws_z is None:
        found.append("nothing is known of the jaws: nothing was held against them")
    if machine is None:
        found.append("no machine is named: travel, power and its own words were not looked at")
    return tuple(found)


def job_of(blank: Blank, tools: tuple[Filled, ...], machine: Machine | None) -> Job:
    """A job that has everything but a drawing. Raises `ToreumaError`."""
    shop = library()
    where = machine or next(iter(shop.machines.values()))
    material = (shop.material(blank.material)[0] if blank.material else None) or next(iter(shop.materials.values()))
    reach = blank.front_z - blank.back_z
    jaws = blank.back_z if blank.jaws_z is None else blank.jaws_z
    stick = max(blank.front_z - jaws, 0.1)
    hold = {
        "kind": "chuck", "name": "as held", "stick_out_mm": stick, "grip_length_mm": max(reach - stick, 0.1),
        "body_d_mm": max(2.2 * blank.widest_mm, 40.0), "body_length_mm": 80.0, "max_rpm": 10_000, "jaw_length_mm": 30.0,
        "jaw_height_mm": 25.0, "tool_clearance_mm": 0.0,
    }  # fmt: skip
    return Job.model_validate(
        {
            "name": "a program without a drawing",
            "part": {"outside": _wire(max(-blank.back_z, 1.0))},
            "stock": {**_stock(blank), "material": material, "face_allowance_mm": max(blank.front_z, 0.0)},
            "machine": where,
            "tools": [one.tool for one in tools],
            "setups": [{"name": "as held", "hold": hold}],
        }
    )


def _wire(length: float) -> list[dict[str, Any]]:
    return [{"z_mm": 0.0, "d_mm": SLIVER_MM}, {"z_mm": -length, "d_mm": SLIVER_MM}]


def _stock(blank: Blank) -> dict[str, Any]:
    length = max(blank.front_z, 0.0) - blank.back_z
    if blank.kind == "free":
        outline = [(blank.corners[0][0], 0.0), *((z, d / 2) for z, d in blank.corners), (blank.corners[-1][0], 0.0)]
        return {"kind": "free", "outline": [*outline, outline[0]], "length_mm": length}
    if blank.kind in ("hex", "square"):
        return {
            "kind": "polygon",
            "sides": 6 if blank.kind == "hex" else 4,
            "across_mm": blank.d_mm,
            "length_mm": length,
        }
    if blank.kind == "tube":
        return {"kind": "tube", "d_mm": blank.d_mm, "bore_d_mm": blank.bore_mm, "length_mm": length}
    return {"kind": "round", "d_mm": blank.d_mm, "length_mm": length}
