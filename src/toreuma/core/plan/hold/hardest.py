"""The hardest cut of a setup: what the grip has to hold, as expected and as planned."""

from collections.abc import Iterable
from dataclasses import replace

from toreuma.core.cutting import force
from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.model import Job, Operation, TurningTool
from toreuma.core.plan.ground.result import OperationPlan

__all__ = ["expected_cut", "planned_cut"]

DEFAULT_AP_MM, DEFAULT_FEED = 2.0, 0.25
"""Depth and feed taken where there is no tool yet to judge by."""


def planned_cut(operations: Iterable[OperationPlan]) -> Evidence | None:
    """The largest cutting force of the operations as planned; None when none of them cuts."""
    cutting = [op for op in operations if op.motions and op.motions[0].driven is None and "force" in op.numbers]
    hardest = max(cutting, key=lambda op: op.numbers["force"].number, default=None)
    if hardest is None:
        return None
    name = hardest.operation.name or hardest.operation.id
    return replace(hardest.numbers["force"], name="cutting force of the hardest cut", note=f"{name}, as planned")


def expected_cut(job: Job) -> Evidence:
    """The largest cutting force any turning operation may reach, from its tool or its pinned numbers."""
    found = [(_force_of(job, operation), operation) for operation in job.operations if operation.enabled]
    known = [(value, operation) for value, operation in found if value is not None]
    if not known:
        cut = force.cutting_force_n(job.stock.material, DEFAULT_AP_MM, DEFAULT_FEED, 90.0)
        return Evidence(
            "cutting force",
            "Fc",
            cut,
            "N",
            formula="Fc = kc ap f",
            source=force.KIENZLE,
            inputs=(Input("depth", "ap", DEFAULT_AP_MM, "mm"), Input("feed", "f", DEFAULT_FEED, "mm/rev")),
            note="Taken until there are operations to judge by.",
        )
    (value, inputs, formula), hardest = max(known, key=lambda pair: pair[0][0])
    return Evidence(
        "cutting force of the hardest cut",
        "Fc",
        value,
        "N",
        formula=formula,
        source=force.KIENZLE,
        inputs=inputs,
        note=f"{hardest.name or hardest.id}, before it is planned",
    )


def _force_of(job: Job, operation: Operation) -> tuple[float, tuple[Input, ...], str] | None:
    """Cutting force with the deepest cut of the chip window, as far as the spindle has power for it."""
    tool = job.tool(operation.tool)
    if not isinstance(tool, TurningTool) or not tool.insert.chip_window or operation.kind not in ("face", "rough_od"):
        return None
    row = next((s for s in job.stock.material.speeds if s.tool_material == tool.insert.material), None)
    pins = operation.pins
    vc = pins.vc_m_min or (row.rough_m_min if row else None)
    if vc is None:
        return None
    feeds, depths = zip(*tool.insert.chip_window, strict=True)
    feed = pins.feed_mm_rev or (min(feeds) + max(feeds)) / 2
    depth = pins.ap_mm or (min(depths) + max(depths)) / 2
    angle = tool.holder.entering_angle_deg if tool.insert.shape != "R" else 45.0
    cut = force.cutting_force_n(job.stock.material, depth, feed, angle)
    most = max(point.power_kw for point in job.machine.power) * job.machine.efficiency * 60_000 / vc
    inputs = (
        Input("depth", "ap", depth, "mm"),
        Input("feed", "f", feed, "mm/rev"),
        Input("specific force", "kc1.1", job.stock.material.kc11_n_mm2, "N/mm2"),
        Input("most the spindle can drive", "P η 60000/vc", most, "N"),
    )
    return min(cut, most), inputs, "min(kc ap f, P η 60000/vc), middle of the chip window or pinned"
