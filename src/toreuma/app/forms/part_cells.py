"""What a cell of the profile says, and what a typed one changes."""

import re
from collections.abc import Sequence
from typing import Any

from toreuma.app.forms.size_text import size_of, size_text
from toreuma.core.errors import PartError
from toreuma.core.model import Element
from toreuma.core.units import System, parse, show

__all__ = ["cell_text", "place_text", "typed_change"]

KIND_WORDS = {"line": "line", "arc": "arc", "convex": "arc", "concave": "hollow"}


def cell_text(element: Element, field: str, system: System) -> str:
    """What a cell shows of an element."""
    if field == "name":
        return element.name
    if field == "kind":
        return "line" if element.kind == "line" else KIND_WORDS[element.bulge]
    if field == "corner":
        if element.corner is None:
            return ""
        sign = "C" if element.corner.kind == "chamfer" else "R"
        return f"{sign}{show(element.corner.size_mm, 'mm', system, trim=True).number}"
    if field == "radius_mm" and element.kind == "line":
        return ""
    value = getattr(element, field)
    text = "" if value is None else show(value, "mm", system, trim=True).number
    return f"{text} {size_text(element.size, system)}" if field == "d_mm" and element.size is not None else text


def place_text(text: str, elements: Sequence[Element], row: int, system: System) -> str:
    """A place along Z as typed from any datum, as a plain Z in mm: ``12 from back``, ``12 from front``, ``18 long``."""
    match = re.match(r"^(?P<n>.+?)\s*(?P<how>from\s+back|from\s+front|long)\s*$", text.strip(), re.I)
    if match is None:
        return text
    value = parse(match["n"], "mm", system)
    how = match["how"].split()[-1].lower()
    starts = {"back": elements[-1].z_mm, "front": 0.0, "long": elements[row - 1].z_mm if row else 0.0}
    z = starts[how] + (value if how == "back" else -value)
    return f"{z:.6f}mm"


def _diameter(text: str, system: System, before: Element) -> dict[str, Any]:
    """A diameter with or without its limits: ``30``, ``30 h6``, ``30 +0.02/-0.01``; a plain one keeps its letter."""
    match = re.match(r"^(?P<d>.*?[\d\w\"])\s+(?P<limits>[A-Za-z]{1,2}\d{1,2}|[-+±\u2212].*)$", text.strip())
    if match is None:
        d = parse(text, "mm", system)
        letter = before.size.fit if before.size is not None else ""
        return {"d_mm": d, "size": size_of(letter, d, system)}
    d = parse(match["d"], "mm", system)
    return {"d_mm": d, "size": size_of(match["limits"], d, system)}


def typed_change(field: str, text: str, system: System, before: Element) -> dict[str, Any]:
    """What one typed cell changes in an element. Raises `UnitError` or `PartError`."""
    if field == "name":
        return {"name": text}
    if field == "kind":
        word = text.lower()
        kinds = {"line": ("line", "convex"), "arc": ("arc", "convex"), "hollow": ("arc", "concave")}
        if word not in kinds:
            raise PartError(0, "kind", f"'{text}' is not a kind", "type line, arc or hollow")
        return dict(zip(("kind", "bulge"), kinds[word], strict=True))
    if field == "corner":
        if not text:
            return {"corner": None}
        corners = {"C": "chamfer", "R": "round"}
        if text[0].upper() not in corners:
            raise PartError(0, "corner", f"'{text}' is no corner", "type C1 for a chamfer, R1 for a round")
        return {"corner": {"kind": corners[text[0].upper()], "size_mm": parse(text[1:], "mm", system)}}
    if field == "radius_mm" and not text:
        return {"radius_mm": None}
    return _diameter(text, system, before) if field == "d_mm" else {field: parse(text, "mm", system)}
