"""The hardest cut of a setup: what the grip has to hold, as expected and as planned."""

from collections.abc import Iterable
from dataclasses import dataclass, replace

from toreuma.core.cutting import force
from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.cutting.figures import Figure
from toreuma.core.model import Job, Operation, TurningTool
from toreuma.core.plan.ground.result import OperationPlan

__all__ = ["Hardest", "expected_cut", "planned_cut"]

DEFAULT_AP_MM, DEFAULT_FEED = 2.0, 0.25
"""Depth and feed taken where there is no tool yet to judge by."""


FEED_SHARE, PASSIVE_SHARE = 0.5, 0.4
"""Feed and passive force as shares of the cutting force, where only that is known: typical near 90 degrees."""


@dataclass(frozen=True)
class Hardest:
    """Cutting, feed and passive force of a cut, N, and what is said of the first."""

    cutting_n: float
    feed_n: float
    passive_n: float
    why: Evidence

    @staticmethod
    def of(planned: OperationPlan) -> "Hardest | None":
        """The forces of a planned operation of a tool that stands still; None where it has none."""
        figures, why = planned.figures, planned.reasons.get(Figure.FORCE)
        if figures.force_n is None or why is None or not planned.motions or planned.motions[0].driven is not None:
            return None
        return Hardest.typical(figures.force_n, why, figures.feed_force_n, figures.passive_force_n)

    @staticmethod
    def typical(
        cutting_n: float, why: Evidence, feed_n: float | None = None, passive_n: float | None = None
    ) -> "Hardest":
        """With the usual shares for what is not known."""
        feed_n = FEED_SHARE * cutting_n if feed_n is None else feed_n
        return Hardest(cutting_n, feed_n, PASSIVE_SHARE * cutting_n if passive_n is None else passive_n, why)


def planned_cut(operations: Iterable[OperationPlan]) -> Hardest | None:
    """The hardest cut of the operations as planned; None when none of them cuts."""
    each = [(force, one.operation) for one in operations if (force := Hardest.of(one)) is not None]
    if not each:
        return None
    hardest, operation = max(each, key=lambda pair: pair[0].cutting_n)
    note = f"{operation.name or operation.id}, as planned"
    return replace(hardest, why=replace(hardest.why, name="cutting force of the hardest cut", note=note))


def expected_cut(job: Job) -> Hardest:
    """The largest cutting force any turning operation may reach, from its tool or its pinned numbers."""
    found = [(_force_of(job, operation), operation) for operation in job.operations if operation.enabled]
    known = [(value, operation) for value, operation in found if value is not None]
    if not known:
        cut = force.cutting_force_n(job.stock.material, DEFAULT_AP_MM, DEFAULT_FEED, 90.0)
        taken = Evidence(
            "cutting force",
            "Fc",
            cut,
            "N",
            formula="Fc = kc ap f",
            source=force.KIENZLE,
            inputs=(Input("depth", "ap", DEFAULT_AP_MM, "mm"), Input("feed", "f", DEFAULT_FEED, "mm/rev")),
            note="Taken until there are operations to judge by.",
        )
        return Hardest.typical(cut, taken)
    (value, inputs, formula), hardest = max(known, key=lambda pair: pair[0][0])
    why = Evidence(
        "cutting force of the hardest cut",
        "Fc",
        value,
        "N",
        formula=formula,
        source=force.KIENZLE,
        inputs=inputs,
        note=f"{hardest.name or hardest.id}, before it is planned",
    )
    return Hardest.typical(value, why)


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
