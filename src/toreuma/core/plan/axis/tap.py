"""Tapping on the axis: deep enough for the full thread, with the lead counted in and the bottom kept clear of."""

from toreuma.core.cutting.evidence import Evidence, Input
from toreuma.core.cutting.figures import Figure, Figures
from toreuma.core.cutting.holes import tapping_torque_nm
from toreuma.core.findings import Finding
from toreuma.core.model import TapHole
from toreuma.core.model.feature import AxialHole
from toreuma.core.model.tool import Tap
from toreuma.core.motion import Spindle
from toreuma.core.plan.axis.axial import metal_front
from toreuma.core.plan.ground.path import Path
from toreuma.core.plan.ground.result import Cuts, Cycle, OperationFault, Pass, Word
from toreuma.core.plan.ground.work import Work
from toreuma.core.plan.numbers.axial_speed import axial_speed
from toreuma.core.spoken import q, said
from toreuma.core.standards.threads.same import cuts_thread, is_left_hand

__all__ = ["CLEAR_PITCHES", "PAST_PITCHES", "plan_tap"]

SPEED_SHARE = {"high-speed steel": 0.35}
SPEED_SHARE_ELSE = 0.2
"""Tapping speed against roughing with the same tool material: typical."""

CLEAR_PITCHES = 0.5
"""Kept between the tap's end and the end of the drilled cylinder, besides the run-down of the spindle."""

IN_FRONT_PITCHES = 3.0
PAST_PITCHES = 1.0


def plan_tap(work: Work, operation: TapHole) -> Cuts:
    """Tap the hole on the axis, in and out in step with the spindle."""
    tool = work.tool
    if not isinstance(tool, Tap):
        raise OperationFault("tool.kind", f"{tool.id} is not a tap", "choose a tap")
    if is_left_hand(tool.thread):
        what = f"{tool.id} cuts a left-hand thread: the spindle would have to turn the other way"
        raise OperationFault("tap.left", what, "left-hand taps are not planned: cut this thread with a bar")
    hole = _hole(work)
    lead = tool.lead_pitches * tool.pitch_mm
    share = SPEED_SHARE.get(tool.material, SPEED_SHARE_ELSE)
    speed = axial_speed(work, tool.material, tool.d_mm, share, "tapping")
    run_down = 0.0 if operation.rigid else _run_down(work, tool, speed.rpm)
    end, wanted = _end(work, operation, tool, hole, lead, run_down)
    reasons = {
        **speed.reasons,
        Figure.FEED: Evidence("pitch", "P", tool.pitch_mm, "mm/rev", formula="one pitch in a turn"),
        Figure.HOLE_DEPTH: Evidence(
            "depth of the tap's end",
            "t",
            -end,
            "mm",
            measured_on="along Z",
            formula="to its gauge plane" if tool.taper > 0 else "full thread and lead",
            inputs=(Input("full thread", "l", wanted, "mm"), Input("lead", "", lead, "mm")),
        ),
        Figure.TORQUE: Evidence(
            "torque",
            "M",
            tapping_torque_nm(work.given.stock.material, tool.d_mm, tool.pitch_mm),
            "N m",
            formula="M = kc P² d / 8000",
            source="Kienzle 1952, ±20 %",
        ),
    }
    clear = float(work.stock.bounds[2]) + IN_FRONT_PITCHES * tool.pitch_mm
    path = Path(work, Spindle("fixed", speed.rpm))
    path.come(clear, 0.0)
    first = len(path.motions)
    path.thread(tool.pitch_mm, end)
    drawn = (path.motions[-1].segment,)
    path.thread(tool.pitch_mm, clear)
    words = (Word("bottom", "z", end), Word("above", "above", clear), Word("lead", "feed", tool.pitch_mm))
    cycle = Cycle(name="tap_cycle", first=first, count=2, words=words, ends=True)
    path.leave()
    findings = _findings(work, operation, tool, hole, end, lead)
    figures = Figures(vc_m_min=speed.vc_m_min, rpm=speed.rpm, feed_mm_rev=tool.pitch_mm)
    drawn_once = (Pass(drawn, tool.d_mm / 2),)
    return Cuts(
        motions=tuple(path.motions),
        passes=drawn_once,
        reasons=reasons,
        findings=findings,
        cycles=(cycle,),
        figures=figures,
    )


def _hole(work: Work) -> AxialHole | None:
    holes = [one for one in work.given.part.features if isinstance(one, AxialHole) and one.end == "front"]
    return next((one for one in holes if one.thread), holes[0] if holes else None)


def _run_down(work: Work, tool: Tap, rpm: float) -> float:
    """How far a floating tap runs on while the spindle stops, mm: half of the speed over the time it takes."""
    return rpm / work.given.machine.spindle_ramp_rpm_s * rpm / 60 / 2 * tool.pitch_mm


def _end(
    work: Work, operation: TapHole, tool: Tap, hole: AxialHole | None, lead: float, run_down: float
) -> tuple[float, float]:
    """Z of the tap's end, and the length of full thread it makes, mm."""
    if tool.taper > 0:
        return -tool.gauge_mm, max(tool.gauge_mm - lead, 0.0)
    back = work.scene.profile.back_z
    through = hole is None or hole.depth_mm is None
    if operation.depth_mm is not None:
        length = operation.depth_mm
    elif hole is not None and hole.thread_length_mm is not None:
        length = hole.thread_length_mm
    elif through:
        length = -back + PAST_PITCHES * tool.pitch_mm
    else:
        assert hole is not None
        assert hole.depth_mm is not None
        length = hole.depth_mm - lead - CLEAR_PITCHES * tool.pitch_mm - run_down
    if length <= 0:
        raise OperationFault("tap.short", f"the hole has no room for the lead of {tool.id}", "drill deeper")
    return -(length + lead), length


def _findings(
    work: Work, operation: TapHole, tool: Tap, hole: AxialHole | None, end: float, lead: float
) -> tuple[Finding, ...]:
    found = []

    def add(severity: str, code: str, what: str, why: str) -> None:
        found.append(Finding(severity, code, what, why, operation=operation.id, at=(end, 0.0)))  # type: ignore[arg-type]

    floor = metal_front(work, max(tool.d_mm / 2 - tool.pitch_mm, 0.05))
    if floor is not None and floor > end + CLEAR_PITCHES * tool.pitch_mm - 1e-3:
        add(
            "error",
            "tap.bottom",
            said("the tap ends at Z {}, the hole's cylinder at Z {}", q(end, bare=True), q(floor, bare=True)),
            said("the tap breaks: drill {} deeper", q(floor - end + CLEAR_PITCHES * tool.pitch_mm, "mm", ".1f")),
        )
    if -end > tool.flute_length_mm and not (hole is not None and tool.follows_into(hole.d_mm)):
        add(
            "warning",
            "tap.flute",
            said("{} deep, the tap is fluted for {}", q(-end, "mm", ".1f"), q(tool.flute_length_mm, "mm", "g")),
            "chips jam: a longer tap",
        )
    thread = hole.thread if hole is not None else ""
    if thread and not cuts_thread(tool.thread, tool.pitch_mm, thread, hole.d_mm if hole is not None else None):
        add(
            "error", "tap.other", f"the hole wants {thread}, {tool.id} cuts {tool.thread}", "choose the tap of the hole"
        )
    if hole is not None and hole.depth_mm is not None and tool.form == "through":
        add(
            "warning",
            "tap.chips",
            "a tap for through holes pushes its chips ahead into the blind hole",
            "a blind-hole tap throws them back",
        )
    if not operation.rigid:
        add(
            "note",
            "tap.float",
            "the floating holder takes up what spindle and feed differ by",
            "set its pull so that it does not press the tap in",
        )
    return tuple(found)
