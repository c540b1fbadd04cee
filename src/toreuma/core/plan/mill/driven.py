"""What every driven operation needs first: a driven tool on a carrier that drives it, and a spindle that stands."""

from typing import TypeVar

from toreuma.core.errors import PartError
from toreuma.core.findings import Cure, Finding
from toreuma.core.geometry.milled import Along, Sunk, sunk_of
from toreuma.core.model import Carrier, Job, LiveDrive, Tool
from toreuma.core.model.feature import Flats, HolePattern, Slot
from toreuma.core.plan.ground.result import OperationFault
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.hold.cures import stick_out_more
from toreuma.core.spoken import q, said

__all__ = ["carrier_and_drive", "feature_of", "near_hold", "places_of"]

F = TypeVar("F", HolePattern, Flats, Slot)
MOUNT: dict[Along, str] = {"z": "axial", "x": "radial"}


def carrier_and_drive(work: Work) -> tuple[Carrier, LiveDrive]:
    """What carries and drives the tool. Raises `OperationFault` where it is not driven, or the work cannot stand."""
    machine, tool = work.given.machine, work.tool
    carrier = machine.carrier_of(tool.station)
    if tool.mount == "still":
        cure = Cure(f"Drive {tool.id} along Z", lambda j: _mounted(j, tool, "axial"))
        raise OperationFault("tool.still", f"{tool.id} is held still", "this needs a driven tool", cure)
    if carrier.live is None:
        what = f"the {carrier.name} of the {machine.name} drives no tools"
        raise OperationFault("carrier.live", what, "choose a machine with driven tools, or another carrier")
    if machine.c_axis is None:
        what = f"the spindle of the {machine.name} does not stand at an angle"
        raise OperationFault("spindle.c_axis", what, "choose a machine with a C axis")
    return carrier, carrier.live


def feature_of(work: Work, index: int, kind: type[F]) -> F:
    """The feature an operation names. Raises `OperationFault` where it is another kind or none."""
    features = work.given.part.features
    if index >= len(features):
        raise OperationFault("feature.none", f"the part has no feature {index + 1}", "choose one it has")
    found = features[index]
    if not isinstance(found, kind):
        raise OperationFault("feature.kind", f"feature {index + 1} is a {found.kind}", "choose one this operation cuts")
    return found


def places_of(
    work: Work, index: int, feature: HolePattern | Flats | Slot, along: Along | None = None
) -> tuple[Sunk, ...]:
    """Where a feature lies, and that the tool stands the way it needs. Raises `OperationFault`."""
    tool = work.tool
    try:
        places = sunk_of(index, feature, work.scene.part, along)
    except PartError as error:
        raise OperationFault("feature.place", error.what, error.cure) from None
    if any(one.behind for one in places):
        what = f"feature {index + 1} lies on the back face, which is cut from the second side"
        raise OperationFault("feature.back", what, "plan it in the second setup, where it lies in front")
    wanted = MOUNT[places[0].along]
    if tool.mount != wanted:
        cure = Cure(f"Mount {tool.id} {wanted}ly", lambda j: _mounted(j, tool, wanted))
        what = (
            f"{tool.id} is mounted {tool.mount}ly, the feature is cut {'along Z' if wanted == 'axial' else 'along X'}"
        )
        raise OperationFault("tool.mount", what, "mount it the other way", cure)
    return places


def near_hold(work: Work, lowest_z: float) -> tuple[Finding, ...]:
    """Cuts that come too close to the hold, or into it."""
    missing = work.scene.clear_z + work.given.hold.tool_clearance_mm - lowest_z
    if missing <= 0:
        return ()
    what = said(
        "the cut ends {} too close to the hold, at Z {}", q(missing, "mm", ".1f"), q(lowest_z, "mm", ".1f", bare=True)
    )
    cure = stick_out_more(float(int(missing) + 1))
    why = "mill or holder runs into jaws or chuck: stick the piece out farther, or cut it from the other side"
    return (Finding("error", "hold.short", what, why, operation=work.operation.id, cures=(cure,)),)


def _mounted(job: Job, tool: Tool, mount: str) -> Job:
    tools = (one.changed(mount=mount) if one.id == tool.id else one for one in job.tools)
    return job.changed(tools=tuple(tools))
