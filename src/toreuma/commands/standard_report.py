"""Threads and fits as plain data, for scripts."""

from typing import Any

from toreuma.core.standards.fits import Fit, Tolerance
from toreuma.core.standards.threads import Limits, Side, Thread

__all__ = ["fit_report", "thread_report"]

Json = dict[str, Any]


def thread_report(thread: Thread) -> Json:
    wires = thread.wires
    return {
        "designation": thread.designation,
        "family": thread.family,
        "d_mm": thread.d_mm,
        "pitch_mm": thread.pitch_mm,
        "lead_mm": thread.lead_mm,
        "starts": thread.starts,
        "left_hand": thread.left_hand,
        "flank_deg": thread.flank_deg,
        "taper": thread.taper,
        "gauge_length_mm": thread.gauge_length_mm,
        "external": _thread_side(thread.external),
        "internal": _thread_side(thread.internal),
        "depth_external_mm": thread.depth_external,
        "depth_internal_mm": thread.depth_internal,
        "wires": {"best_mm": wires.best, "over": _limits(wires.over)},
        "tap_drill_mm": thread.tap_drill_mm,
        "form_tap_drill_mm": thread.form_tap_drill_mm,
        "notes": list(thread.notes),
        "source": thread.source,
    }


def _thread_side(side: Side) -> Json:
    return {
        "tolerance": side.tolerance,
        "major_mm": _limits(side.major),
        "pitch_mm": _limits(side.pitch),
        "minor_mm": _limits(side.minor),
    }


def _limits(limits: Limits) -> Json:
    return {"min": round(limits.min, 6), "max": round(limits.max, 6)}


def fit_report(fit: Fit) -> Json:
    data = _tolerance(fit.first)
    if fit.second is not None and fit.clearance_um is not None:
        least, most = fit.clearance_um
        data |= {"second": _tolerance(fit.second), "fit": fit.kind, "clearance_um": {"min": least, "max": most}}
    return data


def _tolerance(one: Tolerance) -> Json:
    return {
        "nominal_mm": one.nominal_mm,
        "zone": one.zone,
        "kind": "hole" if one.is_hole else "shaft",
        "lower_um": one.lower_um,
        "upper_um": one.upper_um,
        "min_mm": round(one.min_mm, 6),
        "max_mm": round(one.max_mm, 6),
        "source": one.source,
    }
