"""Whether every carrier, with the tools in it, waits clear of the second spindle on its way."""

from collections.abc import Iterator
from functools import partial

from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.region import Region, union
from toreuma.core.model import Carrier, Job
from toreuma.core.reach.beside import beside_r, sizes_of
from toreuma.core.scene import Scene
from toreuma.core.spoken import q, said

__all__ = ["parked_tip_r", "parking_findings"]

CLEAR_MM = 5.0


def parked_tip_r(job: Job, carrier: Carrier, park_d_mm: float | None) -> tuple[float, str]:
    """How close to the axis the tools of a waiting carrier come, mm, and which comes closest.

    The tip of the tool that was used last waits at the place given, or at the reference point; the others stand round
    the disc of a turret or beside it on a gang plate. A milling spindle holds one tool.
    """
    stations = job.machine.stations_of(carrier)
    sitting = {tool.station: tool for tool in job.tools if tool.station in stations}
    place = (park_d_mm if park_d_mm is not None else carrier.reference_d_mm) / 2
    if not sitting:
        return place, carrier.name
    used = [tool.station for op in job.operations if (tool := job.tool(op.tool)) and tool.station in sitting]
    turned_in = sitting[used[-1] if used else min(sitting)]
    if carrier.kind == "milling spindle":
        return place, turned_in.id
    out = sizes_of(turned_in)[1]
    tips = {
        one.id: beside_r(carrier, place, out, sizes_of(one)[1], n - turned_in.station) for n, one in sitting.items()
    }
    closest = min(tips, key=lambda name: tips[name])
    return tips[closest], closest


def parking_findings(
    job: Job, scene: Scene, jaws: Region, body: Region, back_mm: float, park_d_mm: float | None
) -> Iterator[Finding]:
    """Carriers whose tools stand in the way of the second chuck."""
    widest = float(union([jaws, body]).bounds[3]) if not body.is_empty else 0.0
    for carrier in job.machine.carriers:
        tip, name = parked_tip_r(job, carrier, park_d_mm)
        if tip >= widest + CLEAR_MM:
            continue
        need = 2 * (widest + CLEAR_MM)
        wanted = float(int(need + 2 * (carrier.reference_d_mm / 2 - tip if park_d_mm is None else 0.0)) + 1)
        deep = widest - tip
        what = said(
            "{}: {} waits at Ø{}, the second chuck is Ø{}",
            carrier.name,
            name,
            q(2 * tip, "mm", ".0f", bare=True),
            q(2 * widest, "mm", ".0f", bare=True),
        ) + (
            said(" and would run {} into it", q(deep, "mm", ".0f"))
            if deep > 0
            else said(", less than {} from it", q(CLEAR_MM, "mm", ".0f"))
        )
        cure = Cure(said("Wait at Ø{}", q(wanted, "mm", ".0f", bare=True)), partial(_parked, d_mm=wanted))
        yield Finding("error", "transfer.park", what, "park every carrier before the spindle comes", cures=(cure,))


def _parked(job: Job, d_mm: float) -> Job:
    return job.changed(hand_over=job.hand_over.changed(park_d_mm=d_mm)) if job.hand_over is not None else job
