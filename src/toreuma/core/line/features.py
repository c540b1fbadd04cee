"""Pieces that are features of their own, told apart by their words."""

from collections.abc import Callable

from toreuma.core.line.feature_words import Waiting
from toreuma.core.line.hole_features import axial_hole, centre, flats, holes, slot
from toreuma.core.line.piece import Piece
from toreuma.core.line.turned_features import face_groove, groove, knurl, relief, thread

__all__ = ["read_feature"]


def read_feature(piece: Piece, side: str) -> Waiting | None:
    """A feature from a piece that begins with its word, or with how many there are; None for a step."""
    first, second, third = piece.peek(), piece.peek(1), piece.peek(2)
    words = [t.low for t in (first, second, third) if t is not None and t.kind == "word"]
    if first is None:
        return None
    counted = first.kind == "number"
    lead = words[0] if not counted and words else next((w for w in words if w not in ("x", "off")), "")
    if not counted and first.kind != "word":
        lead = ""
    if lead == "face":
        after = words[1] if len(words) > 1 else ""
        return slot(piece, side) if after in ("slot", "slots", "pocket") else face_groove(piece)
    makers: dict[tuple[str, ...], Callable[[], Waiting]] = {
        ("g", "groove", "grooves", "v"): lambda: groove(piece, side),
        ("thread",): lambda: thread(piece, side),
        ("relief", "undercut"): lambda: relief(piece, side),
        ("cross",): lambda: holes(piece),
        ("drill", "hole", "tap"): lambda: axial_hole(piece),
        ("centre", "center"): lambda: centre(piece),
        ("flats", "flat"): lambda: flats(piece),
        ("slot", "slots", "keyway", "pocket"): lambda: slot(piece, side),
        ("knurl",): lambda: knurl(piece),
    }
    on_circle = any(t.kind == "word" and t.low in ("on", "pcd", "bc") for t in piece.tokens)
    if counted and on_circle and piece.is_next("x", "off", ahead=1):
        return holes(piece)
    if counted and lead in ("holes", "hole") and piece.is_next("x", "holes", "hole", ahead=1):
        return holes(piece)
    if counted and second is not None and second.low not in ("x", "off", lead):
        return None
    if (
        counted
        and third is not None
        and third.kind == "number"
        and third.tight
        and second is not None
        and second.low == lead
    ):
        return None  # a fit, as in 20 g6
    for names, make in makers.items():
        if lead in names:
            return make()
    return None
