"""Plans, geometry and proofs as plain data, for scripts."""

from collections.abc import Sequence
from dataclasses import asdict
from typing import Any

import numpy as np
import shapely

from toreuma.core.channels.balance import Balanced
from toreuma.core.channels.by_hand import ByHand
from toreuma.core.channels.transfer import Transfer
from toreuma.core.channels.waits import Act, Wait
from toreuma.core.critic import critique
from toreuma.core.cutting.evidence import Evidence
from toreuma.core.findings import Finding
from toreuma.core.geometry.region import Region, polygons
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Feature, Job
from toreuma.core.plan import Plan
from toreuma.core.plan.asked.part_time import part_time
from toreuma.core.plan.ground.result import OperationPlan
from toreuma.core.prove import Proof
from toreuma.core.scene import build_scene
from toreuma.core.verdict import Verdict
from toreuma.engine.pair import PairProof
from toreuma.exchange.imports import Imported

__all__ = [
    "all_sides",
    "description",
    "pair_report",
    "plan_report",
    "proof_report",
    "sides_report",
    "transfer_report",
    "verdict_report",
    "with_verdict",
]

Json = dict[str, Any]


def description(job: Job) -> Json:
    """Geometry as planned: stock and part as closed [z, r] outlines in mm, tools from the programmed point."""
    scene = build_scene(job)
    tools = {}
    anew = dict(job.setups[1].stations) if len(job.setups) > 1 else {}
    for tool in job.tools:
        shape = shape_of(tool)
        tip = np.array(shape.tip)
        tools[tool.id] = {
            "station": tool.station if tool.station <= job.machine.stations else None,
            "second_side_station": anew.get(tool.id) if anew else tool.station,
            "kind": tool.kind,
            "nose_radius_mm": shape.nose_radius,
            "cutting": _outline(shape.cutting, tip),
            "body": _outline(shape.body, tip),
        }
    setup = {
        "name": job.setup.name,
        "jaws": _outline(scene.jaws),
        "chuck": _outline(scene.chuck),
        "centre": _outline(scene.centre),
        "rest": _outline(scene.steady),
        "jaw_face_z_mm": scene.jaw_face_z,
        "reference": list(scene.reference),
        "operations": [operation.id for operation in job.operations],
    }
    return {
        "name": job.name,
        "units": job.units,
        "stock": _outline(scene.stock),
        "part": _outline(scene.part),
        "tools": tools,
        "setups": [setup],
    }


def _outline(region: Region, origin: "np.ndarray[Any, Any] | None" = None) -> list[list[float]]:
    """The outer ring of a region's largest polygon."""
    if region.is_empty:
        return []
    largest = max(polygons(region), key=lambda piece: piece.area)
    points = shapely.get_coordinates(largest.exterior)[:-1]
    if origin is not None:
        points = points - origin
    return [[round(float(z), 6), round(float(r), 6)] for z, r in points]


def plan_report(plan: Plan) -> Json:
    """Operations with their numbers and reasons."""
    return {
        "name": plan.job.name,
        "operations": [_operation(operation) for operation in plan.operations],
        "findings": [finding.as_dict() for finding in plan.findings],
        "order": [finding.as_dict() for finding in critique(plan)],
        "cycle_s": round(plan.times.total_s, 3),
        "part_time": part_time((plan,)).as_dict(),
        "cutting_s": round(plan.times.cutting_s, 3),
        "rapid_s": round(plan.times.rapid_s, 3),
        "idle_s": round(plan.times.idle_s, 3),
    }


def sides_report(sides: "tuple[Plan, ...]", taken: Transfer | None = None, by_hand: ByHand | None = None) -> Json:
    """The first side's plan, and a list of all sides where there are more; the hand-over or the turn between them."""
    data = plan_report(sides[0])
    if len(sides) > 1:
        data["sides"] = [plan_report(side) for side in sides]
    if taken is not None:
        data["hand_over"] = transfer_report(taken)
    if by_hand is not None:
        data["turned_by_hand"] = {
            "seconds": round(by_hand.seconds, 3),
            "steps": [{"words": act.words, "seconds": act.seconds} for act in by_hand.channels[1]],
            "numbers": {key: evidence.as_dict() for key, evidence in by_hand.reasons.items()},
            "findings": [finding.as_dict() for finding in by_hand.findings],
        }
    return data


def transfer_report(taken: Transfer) -> Json:
    """The hand-over: what each channel does and when, the marks at which they wait, numbers and findings."""
    return {
        "seconds": round(taken.seconds, 3),
        "gap_mm": round(taken.gap_mm, 3),
        "goes_back_mm": round(taken.back_mm, 3),
        "channels": {
            str(channel): [
                {"start_s": round(start, 3), "end_s": round(end, 3), **_item(item)}
                for (start, end), item in zip(taken.laid.times[channel], items, strict=False)
            ]
            for channel, items in taken.channels.items()
        },
        "numbers": {key: evidence.as_dict() for key, evidence in taken.reasons.items()},
        "findings": [finding.as_dict() for finding in taken.findings],
    }


def _item(item: Act | Wait) -> Json:
    return {"does": item.code, "words": item.words} if isinstance(item, Act) else {"waits_at": item.mark}


def _uses(planned: OperationPlan) -> list[Json]:
    """Every limit of the cut, the one used most first: number, bound, unit, and the margin that is left."""
    proposal = planned.cuts.proposal
    return [
        {
            "limit": use.kind.name,
            "number": round(use.number, 6),
            "at_least" if use.kind.least else "at_most": round(use.bound, 6),
            "unit": use.kind.unit,
            "margin": round(use.margin, 4),
            "from": use.label,
        }
        for use in (proposal.uses if proposal is not None else ())
    ]


def _operation(planned: OperationPlan) -> Json:
    figures = planned.figures
    told: dict[str, Evidence] = {key.value: one for key, one in planned.reasons.items()}
    told |= {f"{key}_{index}": one for index, each in enumerate(planned.cuts.further, 1) for key, one in each.items()}

    def number(value: float | None) -> float | None:
        return None if value is None else round(value, 6)

    return {
        "id": planned.operation.id,
        "kind": planned.operation.kind,
        "name": planned.operation.name,
        "tool": planned.operation.tool,
        "vc_m_min": number(figures.vc_m_min),
        "clamp_rpm": number(figures.clamp_rpm),
        "governed_by": planned.governed_by,
        "limits": _uses(planned),
        "feed_mm_rev": number(figures.feed_mm_rev),
        "ap_mm": number(figures.ap_mm),
        "passes": len(planned.cuts.passes),
        "time_s": round(planned.times.total_s, 3),
        "power_kW": number(figures.power_kw),
        "infeed": [asdict(one) for one in planned.cuts.infeed],
        "findings": [finding.as_dict() for finding in planned.findings],
        "evidence": {key: evidence.as_dict() for key, evidence in told.items()},
    }


def pair_report(proof: PairProof, findings: tuple[Finding, ...], cycle: Json | None) -> Json:
    """Both sides of a part made complete: the worst of both, each on its own, how the channels ran, and the cycle."""
    first, second = proof_report(proof.first), proof_report(proof.second)
    return {
        **first,
        "gouge_um": round(proof.gouge_um, 3),
        "leftover_um": round(proof.leftover_um, 3),
        "contacts": [contact for part in proof.made for side in part for contact in proof_report(side)["contacts"]],
        "time_s": round(proof.ran.seconds, 3),
        "cycle": cycle,
        "waited_s": {str(channel): round(seconds, 3) for channel, seconds in proof.ran.waited_s.items()},
        "findings": [finding.as_dict() for finding in findings],
        "sides": [first, second],
    }


def cycle_report(proof: PairProof, found: Balanced, planned_s: float) -> Json:
    """The cycle as it is planned against the same work one after another and the bound of the search over all orders;
    and as the programs ran it, where they make several parts."""
    cycle_s = planned_s or found.cycle_s
    return {
        "written": planned_s > 0,
        "planned_s": round(cycle_s, 3),
        "read_back_s": round(proof.cycle_s, 3) if proof.cycle_s > 0 else None,
        "one_after_another_s": round(found.in_turn_s, 3),
        "ratio": round(cycle_s / found.in_turn_s, 4) if found.in_turn_s > 0 else None,
        "bound_s": round(found.bound_s, 3),
    }


def with_verdict(verdict: Verdict, report: Json) -> Json:
    """The report of a proof under the verdict over it; what keeps the part from being finished is a finding too."""
    known = [(one["code"], one["what"]) for one in report["findings"]]
    more = [one for one in _not_finished(verdict) if (one["code"], one["what"]) not in known]
    return {**verdict_report(verdict), **report, "findings": [*report["findings"], *more]}


def _not_finished(verdict: Verdict) -> list[Json]:
    return [finding.as_dict() for finding in verdict.findings]


def verdict_report(verdict: Verdict) -> Json:
    """Whether the part is finished, what is open, what may stay, and a row for everything the drawing asks for."""
    return {
        "state": verdict.state,
        "finished": verdict.finished,
        "words": str(verdict.words),
        "not_finished": _not_finished(verdict),
        "open": [row.as_dict() for row in verdict.open],
        "but_for": [row.as_dict() for row in verdict.but_for],
        "unsafe": [finding.as_dict() for finding in verdict.dangers],
        "not_planned": [finding.as_dict() for finding in verdict.unplanned],
        "rows": [row.as_dict() for row in verdict.rows],
    }


def all_sides(reports: Sequence[Json]) -> Json:
    """Reports of the proofs of all sides as one: the worst of each number, everything found, the time of all."""
    if len(reports) == 1:
        return reports[0]
    worst = {key: max(one[key] for one in reports) for key in ("gouge_um", "leftover_um", "declared_um")}
    every = {key: [row for one in reports for row in one[key]] for key in ("contacts", "findings")}
    spent = round(sum(one["time_s"] for one in reports), 3)
    return {**reports[0], **worst, **every, "time_s": spent, "parted": reports[-1]["parted"]}


def proof_report(proof: Proof) -> Json:
    return {
        "gouge_um": round(proof.gouge_um, 3),
        "leftover_um": round(proof.leftover_um, 3),
        "declared_um": round(proof.declared_um, 3),
        "contacts": [
            {"what": c.what, "line": c.line, "at": list(c.at), "depth_mm": round(c.depth_mm, 4)} for c in proof.contacts
        ],
        "time_s": round(proof.time_s, 3),
        "parted": proof.parted,
        "sizes": [
            {"name": s.name, "side": s.side, "found_mm": list(s.found_mm), "limits_mm": s.limits_mm, "ok": s.ok}
            for s in proof.sizes
        ],
        "surfaces": [
            {
                "name": s.name,
                "side": s.side,
                "over_um": round(s.over_um, 3),
                "under_um": round(s.under_um, 3),
                "allowed_um": s.allowed_um,
                "cut": s.cut,
            }
            for s in proof.surfaces
        ],
        "threads": [
            {"thread": t.designation, "pitch_d_mm": t.pitch_d_mm, "limits_mm": list(t.limits_mm), "ok": t.ok}
            for t in proof.threads
        ],
        "findings": [finding.as_dict() for finding in proof.findings],
    }


def import_report(found: Imported) -> Json:
    part = found.part
    return {
        "profile": {
            "outside": [element.model_dump(mode="json", exclude_none=True) for element in part.outside],
            "inside": [element.model_dump(mode="json", exclude_none=True) for element in part.inside],
        },
        "features": [feature.model_dump(mode="json", exclude_none=True) for feature in part.features],
        "units": found.units,
        "deviation_um": round(found.deviation_um, 4),
        "warnings": list(found.warnings),
        "ignored": list(found.ignored),
        "layers": list(found.layers),
    }


def feature_words(feature: Feature) -> str:
    """A feature in one line, mm."""
    name = {"holes": "hole pattern", "flats": "flats", "slot": "slot", "axial_hole": "axial hole"}.get(feature.kind)
    sizes = ", ".join(
        f"{key.removesuffix('_mm').removesuffix('_deg').replace('_', ' ')} {value:g}"
        for key, value in feature.model_dump(exclude_none=True).items()
        if isinstance(value, int | float) and not isinstance(value, bool) and (value or key == "z_mm")
    )
    where = getattr(feature, "on", getattr(feature, "side", getattr(feature, "end", "")))
    return f"{name or feature.kind.replace('_', ' ')} {where}: {sizes}".replace(" :", ":")
