"""A job for a program that has no drawing: its blank, its tools, and what of a proof means something then."""

from collections.abc import Iterable, Iterator
from dataclasses import replace
from typing import Any

from toreuma.core.findings import Finding
from toreuma.core.geometry.elements import Point
from toreuma.core.model import Job, Machine
from toreuma.core.prove import Contact
from toreuma.core.read import Program
from toreuma.core.scene import WIRE_MM
from toreuma.engine.foreign_blank import Blank
from toreuma.engine.foreign_tools import Filled
from toreuma.engine.library import library

__all__ = ["OF_THE_CUT", "assumed_of", "from_tools", "home_beside", "job_of", "softened"]

HOME_AWAY = (250.0, 150.0)
"""The reference point is taken to be so far beside the blank, where no machine is known."""

SCRAPES_MM = 0.1
"""An edge that leaves a square shoulder straight along it takes so much of the wall with it at a rapid."""

OF_THE_CUT = frozenset(
    ("contact", "tool.unknown", "spindle.stopped", "axis.past_centre", "loose", "hold.open", "bar.missed", "bar.length")
)
"""Findings of the proof that need no drawing."""


def home_beside(blank: Blank, at_least: Point) -> Point:
    """Where the reference point is taken to be, mm (z, r)."""
    away = blank.front_z + HOME_AWAY[0], blank.widest_mm / 2 + HOME_AWAY[1]
    return max(away[0], at_least[0]), max(away[1], at_least[1])


def from_tools(program: Program, made: tuple[Filled, ...]) -> Program:
    """The same moves of the points that the tools are described from."""
    shifts = {one.tool.station: one.shift for one in made if one.shift != (0.0, 0.0)}
    if not shifts:
        return program
    moved = (
        replace(one, segment=one.segment.moved(*shifts[one.station])) if one.station in shifts else one
        for one in program.motions
    )
    return replace(program, motions=tuple(moved))


def softened(
    findings: Iterable[Finding], program: Program, made: tuple[Filled, ...], contacts: tuple[Contact, ...]
) -> Iterator[Finding]:
    """What a holder meets that nobody described is a question, and a wall that is scraped on the way out no crash."""
    depths: dict[int, float] = {}
    for one in contacts:
        if one.what == "rapid in metal":
            depths[one.line] = max(depths.get(one.line, 0.0), one.depth_mm)
    stations = {one.line: one.station for one in reversed(program.motions)}
    said = {one.tool.station for one in made if one.body_said}
    for finding in findings:
        line = finding.line or 0
        if finding.code == "contact" and "rapid in metal" in finding.what and 0 < depths.get(line, 0.0) < SCRAPES_MM:
            why = "the edge scrapes a wall on its way out: feed it out, or lean the way"
            yield replace(finding, severity="warning", code="contact.scrape", why=why)
        elif finding.code == "contact" and _is_of_body(finding) and stations.get(line) not in said:
            why = "its body is a usual one: say which it is"
            yield replace(finding, severity="warning", code="contact.assumed", why=why)
        else:
            yield finding


def _is_of_body(finding: Finding) -> bool:
    return any(words in finding.what for words in ("holder in", "gripper in", "stop in"))


def assumed_of(
    blank: Blank, made: tuple[Filled, ...], machine: Machine | None, *, usual: bool = False
) -> tuple[str, ...]:
    """What nobody said, in words."""
    found = [f"station {one.tool.station}: {', '.join(one.assumed)}" for one in made if one.assumed]
    if usual:
        hole = f" with a hole of {blank.bore_mm:g} mm" if blank.bore_mm else ""
        found.append(f"a blank of Ø {blank.d_mm:g} mm{hole}, {blank.length_mm:g} mm long, by what is cut")
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
    return [{"z_mm": 0.0, "d_mm": WIRE_MM}, {"z_mm": -length, "d_mm": WIRE_MM}]


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
