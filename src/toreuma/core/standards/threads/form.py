"""What an operation needs of a thread: the form it cuts, taken from the standard."""

from typing import Literal

from toreuma.core.model import ThreadForm
from toreuma.core.standards.threads.thread import Thread

__all__ = ["form_of"]


def form_of(thread: Thread, side: Literal["outside", "inside"], called: str = "") -> ThreadForm:
    """The form of one thread of the pair, as the drawing calls it, or by its own name.

    Diameters of taper threads are those in the gauge plane, which lies
    inside its length on an outside thread and at its start in a bore."""
    one = thread.external if side == "outside" else thread.internal
    crest = one.major if side == "outside" else one.minor
    return ThreadForm(
        designation=called or thread.designation,
        pitch_mm=thread.pitch_mm,
        flank_deg=thread.flank_deg,
        pitch_d_mm=(one.pitch.min, one.pitch.max),
        crest_d_mm=(crest.min, crest.max),
        depth_mm=thread.depth_external if side == "outside" else thread.depth_internal,
        starts=thread.starts,
        left_hand=thread.left_hand,
        taper=thread.taper,
        gauge_mm=thread.gauge_length_mm or 0.0 if side == "outside" and thread.taper else 0.0,
    )
