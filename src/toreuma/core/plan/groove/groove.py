"""Grooves and reliefs: plunges that leave a little, then both walls down to the floor.

One card may take several tools: a square blade opens a V by steps, a pointed one opens its root, and a third finishes
the flanks. Each begins on what the one before it left.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.cutting.figures import Figure, Reasons
from toreuma.core.findings import Finding
from toreuma.core.geometry.region import EMPTY, Region, union
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import CutGroove, Pins
from toreuma.core.model.tool import Blade, FormTool, GroovingTool, PartingTool, Tool
from toreuma.core.plan.groove.checks import groove_findings
from toreuma.core.plan.groove.moves import OVERLAP, cut_as_cycle, cut_open, finish_walls, lone_plunge, plunge_places
from toreuma.core.plan.groove.place import LEAST_MM, coverage, ground_of, void_of
from toreuma.core.plan.ground.path import Path
from toreuma.core.plan.ground.result import Cuts, Cycle, OperationFault
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.numbers.situations import blade_situation, proposed, spindle_of
from toreuma.core.propose.proposal import Proposal
from toreuma.core.spoken import q, said

__all__ = ["plan_groove"]


@dataclass(frozen=True)
class _Stage:
    """What one tool of the card does: it opens the groove, finishes its walls, or both."""

    tool: Tool
    opens: bool
    finishes: bool
    words: str


def plan_groove(work: Work, operation: CutGroove) -> Cuts:
    """Cut one groove or relief of the part with the tools of its card."""
    done: list[Cuts] = []
    for stage in _stages(work, operation):
        own = operation if not done else operation.changed(pins=Pins())
        now = replace(work, operation=own, tool=stage.tool, shape=shape_of(stage.tool))
        cuts = _cut(now, own, stage)
        done.append(cuts)
        if cuts.motions:
            work = replace(work, stock=now.after(cuts.motions, cuts.chord_mm))
    return done[0] if len(done) == 1 else _together(done, _stages(work, operation))


def _stages(work: Work, operation: CutGroove) -> list[_Stage]:
    found: list[tuple[Tool, str]] = [(work.tool, "opens the groove")]
    for identifier, words in ((operation.root_tool, "in the root"), (operation.wall_tool, "on the walls")):
        if identifier is None:
            continue
        tool = work.given.tool(identifier)
        if tool is None:
            raise OperationFault(
                "tool.missing", f"there is no tool '{identifier}' in the job", "choose one of its tools"
            )
        found.append((tool, words))
    last = len(found) - 1
    return [
        _Stage(tool, opens=True, finishes=index == last and operation.leave_mm == 0, words=words)
        for index, (tool, words) in enumerate(found)
    ]


def _cut(work: Work, operation: CutGroove, stage: _Stage) -> Cuts:
    blade = _blade(work)
    void = void_of(work, operation)
    ground = ground_of(work, operation, void, 0.0, blade)
    if ground.dip.is_empty:
        raise OperationFault(
            "groove.leave",
            said("with {} left all round there is no room for the blade", q(operation.leave_mm, "mm", "g")),
            "leave less, or a narrower blade",
        )
    lone = lone_plunge(work, ground) if stage.finishes and ground.is_wide else None
    leaves = operation.walls_mm > 0 and lone is None and (ground.is_wide or not stage.finishes)
    rough = ground_of(work, operation, void, operation.walls_mm, blade) if leaves else ground
    if rough.dip.is_empty or rough.depth < ground.depth - 2 * max(operation.walls_mm, LEAST_MM):
        rough = ground
    proposal = _proposal(work, void, blade)
    feed, reasons = proposal.cut.feed_mm_rev, dict(proposal.reasons)
    path = Path(work, spindle_of(work, proposal), ground.frame, ground.safe)
    tight = rough is ground and leaves and stage.finishes
    plunges = [lone] if lone is not None else plunge_places(rough, blade, operation.walls_mm if tight else 0.0)
    cycles: tuple[Cycle, ...] = ()
    if operation.written == "whole":
        drawn, cycles = cut_as_cycle(path, rough, plunges, feed, blade)
    else:
        drawn = cut_open(work, operation, path, rough, plunges, feed, blade)
    if stage.finishes and ground.is_wide and lone is None:
        drawn += finish_walls(work, path, ground, feed)
    note: tuple[Finding, ...] = ()
    if path.motions:
        path.leave()
    else:
        note = (Finding("note", "groove.nothing", "there is nothing left to cut in it", operation=operation.id),)
    reasons[Figure.PLUNGES] = Evidence(
        "plunges",
        "i",
        float(len(plunges)),
        "",
        formula=f"no farther apart than {OVERLAP:.0%} of the flat of the blade",
        inputs=(Input("width of the blade", "CW", blade.width_mm, "mm"),),
    )
    return Cuts(
        motions=tuple(path.motions),
        passes=tuple(drawn),
        reasons=reasons,
        findings=(*note, *groove_findings(work, operation, void, blade)),
        proposal=proposal,
        coverage=lambda: coverage(ground) if stage.finishes else EMPTY,
        cycles=cycles,
        figures=proposal.figures,
    )


def _together(cuts: list[Cuts], stages: list[_Stage]) -> Cuts:
    """The cuts of all tools as one; what is shown of the later ones is their speed and feed."""
    further = tuple(_of_stage(one.reasons, stage) for one, stage in zip(cuts[1:], stages[1:], strict=True))
    findings = [finding for one in cuts for finding in one.findings if finding.code != "groove.nothing"]
    return Cuts(
        motions=tuple(motion for one in cuts for motion in one.motions),
        passes=tuple(drawn for one in cuts for drawn in one.passes),
        reasons=cuts[0].reasons,
        findings=tuple(dict.fromkeys(findings)),
        proposal=cuts[0].proposal,
        coverage=lambda: union([one.coverage() for one in cuts]),
        cycles=tuple(_shifted(cuts)),
        figures=cuts[0].figures,
        further=further,
    )


def _of_stage(reasons: Reasons, stage: _Stage) -> Reasons:
    """Speed and feed of a later tool, by its name; they follow the pins of the first."""
    each = {key: reasons[key] for key in (Figure.SPEED, Figure.FEED)}
    words = f"{stage.tool.id} {stage.words}"
    return {key: replace(one, name=f"{one.name}, {words}", typable=False) for key, one in each.items()}


def _shifted(cuts: list[Cuts]) -> Iterator[Cycle]:
    """The cycles of all tools, counted from the first move of the first one."""
    before = 0
    for one in cuts:
        yield from (replace(cycle, first=cycle.first + before) for cycle in one.cycles)
        before += len(one.motions)


def _blade(work: Work) -> Blade:
    tool = work.tool
    if isinstance(tool, GroovingTool | PartingTool):
        return tool.blade
    if isinstance(tool, FormTool):
        width = float(np.ptp([z for z, _ in tool.outline_mm]))
        return Blade(
            width_mm=width, corner_radius_mm=0.0, depth_mm=tool.functional_length_mm,
            block_width_mm=tool.block_width_mm, functional_length_mm=tool.functional_length_mm, material=tool.material,
            feed_range_mm_rev=tool.feed_range_mm_rev,
        )  # fmt: skip
    raise OperationFault("tool.kind", f"{tool.id} is not a grooving tool", "choose a grooving tool")


def _proposal(work: Work, void: Region, blade: Blade) -> Proposal:
    radii = void.intersection(work.scene.shape.solid).bounds
    situation = blade_situation(work, blade, 2 * radii[3])
    return proposed(work, situation, ((blade.width_mm, max(radii[3] - radii[1], 0.1)),), blade.width_mm)
