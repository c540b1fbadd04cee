"""What the shop asks of tools, inserts and holders: their sizes by ISO 13399, and what they are made of."""

from typing import Any

from toreuma.core.geometry.centre_forms import CENTRE_FORMS
from toreuma.core.kinds.shop.field import YES_NO, ShopField
from toreuma.core.model.properties import properties_of

__all__ = ["rack_fields", "tool_fields"]

HANDS = (("right", "right"), ("left", "left"))
MOUNTS = (("still", "still"), ("driven, along Z", "axial"), ("driven, along X", "radial"))
DRIVEN = ("drill", "reamer", "tap", "end_mill", "chamfer_mill", "thread_mill")
ROWS = (("over all its flutes", "all"), ("one at its end", "one"))
FORMS: dict[str, tuple[str, ...]] = {
    "drill": ("twist", "spade", "indexable", "centre", "spot", "step", "flat"),
    "tap": ("through", "blind", "forming"),
    "knurling": ("RAA", "RGE"),
}
WHERE: dict[str, tuple[str, ...]] = {"grooving": ("outside", "inside", "face"), "threading": ("outside", "inside")}
SPANS = {
    "feed_mm_rev": ("feed", "mm/rev", "least and most, typical for it"),
    "feed_range_mm_rev": ("feed", "mm/rev", "least and most, typical for it"),
    "fz_mm": ("feed of a tooth", "mm", "least and most"),
    "grips_mm": ("grips", "mm", "diameters, from and to"),
    "pitch_mm": ("pitches", "mm", "smallest and largest"),
    "first_cut_mm": ("first cut in a face", "mm", "diameters, from and to"),
}


def tool_fields(tool: Any) -> tuple[ShopField, ...]:
    """Everything of a tool, an insert or a holder a person may type."""
    found = [ShopField(path="name", label="name", form="text", heading="What it is")] if hasattr(tool, "name") else []
    kind = getattr(tool, "kind", "")
    if hasattr(tool, "hand"):
        found.append(ShopField(path="hand", label="hand", form="choice", options=HANDS))
    if kind in DRIVEN:
        found.append(
            ShopField(path="mount", label="held", form="choice", options=MOUNTS, why="driven ones turn themselves")
        )
    for field, choices in (("form", FORMS.get(kind)), ("where", WHERE.get(kind))):
        if choices:
            found.append(ShopField(path=field, label=field, form="choice", options=tuple((c, c) for c in choices)))
    if kind == "thread_mill":
        found.append(ShopField(path="rows", label="rows of teeth", form="choice", options=ROWS))
    if getattr(tool, "form", "") == "centre":
        forms = tuple((one, one) for one in CENTRE_FORMS)
        found.append(ShopField(path="centre_form", label="form of the centre", form="choice", options=forms))
    for field, words in (("thread", "thread"), ("fit", "tolerance of the hole"), ("code", "code")):
        if hasattr(tool, field):
            found.append(ShopField(path=field, label=words, form="text"))
    found += _texts(tool, "")
    heading = "Sizes, by ISO 13399"
    for one in properties_of(tool):
        label = f"{one.label} {one.symbol}".strip()
        empty = "usual" if one.value is None else ""
        found.append(ShopField(path=".".join(one.path), label=label, unit=one.unit, empty=empty, heading=heading))
        heading = ""
    return (*found, *_spans(tool, ""))


def _inner(tool: Any) -> list[str]:
    return [one for one in ("blade", "insert", "bar", "holder") if getattr(tool, one, None) is not None]


def _texts(tool: Any, before: str) -> list[ShopField]:
    """Tool material and grade, of the tool or of what cuts in it."""
    found = []
    if hasattr(tool, "material"):
        found.append(ShopField(path=f"{before}material", label="tool material", form="text"))
    if hasattr(tool, "grade"):
        why = "application range by ISO 513, as P10-P30"
        found.append(ShopField(path=f"{before}grade", label="grade", form="text", empty="not looked at", why=why))
    if hasattr(tool, "double_sided"):
        found.append(ShopField(path=f"{before}double_sided", label="both faces cut", form="choice", options=YES_NO))
    for name in _inner(tool) if not before else ():
        if name in ("blade", "insert"):
            found += _texts(getattr(tool, name), f"{name}.")
    return found


def _spans(tool: Any, before: str) -> list[ShopField]:
    """Ranges of two numbers."""
    found = []
    for field, (label, unit, why) in SPANS.items():
        held = getattr(tool, field, None)
        if isinstance(held, tuple) and len(held) == 2:
            found.append(ShopField(path=f"{before}{field}", label=label, unit=unit, form="span", why=why))
    for name in _inner(tool) if not before else ():
        found += _spans(getattr(tool, name), f"{name}.")
    return found


_RACK = (
    ShopField(path="edges_left", label="edges left", why="what is left for the batch", heading="On the rack"),
    ShopField(path="place", label="place", form="text", empty="not said", why="drawer, shelf, box"),
    ShopField(path="price", label="price", unit="money", why="of one piece"),
    ShopField(path="measured", label="measured", form="text", empty="not measured", why="sizes as you found them"),
    ShopField(path="note", label="note", form="text", empty="none"),
)


def rack_fields(item: object) -> tuple[ShopField, ...]:
    """What is kept of a tool on the rack."""
    return _RACK
