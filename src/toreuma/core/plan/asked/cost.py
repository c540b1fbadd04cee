"""What the cutting of a part costs: the machine's minutes, and the edges it uses up."""

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.plan.asked.part_time import expected_s
from toreuma.core.plan.route import Plan

__all__ = ["part_cost"]


def part_cost(plan: Plan) -> Evidence:
    """Machine time and edges of one part, in the currency of the job's prices; material is in the supply's numbers."""
    conditions = plan.job.conditions
    per_min = conditions.machine_per_h / 60
    minutes = expected_s(plan.times.total_s, plan.job.machine) / 60
    edges = 0.0
    for planned in plan.operations:
        life = planned.figures.life_min
        if life is not None and life > 0:
            edges += planned.times.cutting_s / 60 / life
    change = edges * conditions.edge_change_min * per_min
    return Evidence(
        "machine and edges, a part",
        "",
        minutes * per_min + edges * conditions.edge_cost + change,
        "money",
        formula="minutes · rate + edges used · (edge + change · rate)",
        source="; ".join(filter(None, ("Taylor 1907", plan.job.machine.source_of("time_ratio")))),
        inputs=(
            Input("minutes", "t", minutes, "min"),
            Input("machine, per hour", "", conditions.machine_per_h, "money"),
            Input("edges used", "", edges, "ratio"),
            Input("an edge", "", conditions.edge_cost, "money"),
            Input("changing an edge", "", conditions.edge_change_min, "min"),
        ),
    )
