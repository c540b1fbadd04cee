"""A decoded designation as JSON and as lines."""

from typing import Any

from toreuma.core.standards.codes import BarCode, CodeTables, HolderCode, InsertCode
from toreuma.core.standards.codes.decode import Code, equivalents

__all__ = ["code_lines", "code_report"]

INCH = 25.4


def code_report(code: Code, tables: CodeTables) -> dict[str, Any]:
    """Everything a code says, sizes in mm; keys stay when a value is not given, as null."""
    shape = tables.insert.shapes[code.shape]
    found: dict[str, Any] = {
        "kind": code.kind,
        "system": code.system,
        "hand": tables.insert.hands.get(code.hand),
        "shape": {"letter": code.shape, "name": shape.name, "included_angle_deg": shape.angle_deg or None},
        "clearance_deg": tables.insert.clearance_deg.get(code.clearance),
        "ic_mm": code.ic_mm,
        "edge_length_mm": code.edge_length_mm,
    }
    if isinstance(code, InsertCode):
        found |= _insert(code, tables)
    else:
        found |= _head(code, tables)
    found["tail"] = code.tail
    found["positions"] = [
        {
            "position": one.number,
            "name": one.name,
            "symbol": one.symbol,
            "meaning": one.meaning,
            "mm": one.mm,
            "inch": None if one.mm is None else round(one.mm / INCH, 4),
        }
        for one in code.positions
    ]
    found["equivalents"] = equivalents(code, tables)
    return found


def _insert(code: InsertCode, tables: CodeTables) -> dict[str, Any]:
    size = code.ic_mm or code.edge_length_mm
    fixing = tables.insert.fixings.get(code.fixing)
    return {
        "thickness_mm": code.thickness_mm,
        "nose_radius_mm": code.nose_radius_mm,
        "tolerance": {
            "letter": code.tolerance,
            **{
                f"{name}_um": tables.insert.tolerance_um(code.tolerance, name, size, code.shape)
                for name in ("ic", "corner", "thickness")
            },
        },
        "hole": fixing.hole if fixing else None,
        "chip_former": fixing.chip_former if fixing else None,
        "edge": tables.insert.edges.get(code.edge),
        "wiper": code.wiper or None,
    }


def _head(code: HolderCode | BarCode, tables: CodeTables) -> dict[str, Any]:
    angle, words = tables.holder.styles[code.style]
    found: dict[str, Any] = {
        "clamping": code.clamping,
        "clamping_name": tables.holder.clamping[code.clamping],
        "style": {"letter": code.style, "entering_angle_deg": angle or None, "name": words},
        "length_mm": code.length_mm,
        "shank_height_mm": getattr(code, "shank_height_mm", None),
        "shank_width_mm": getattr(code, "shank_width_mm", None),
        "shank_diameter_mm": getattr(code, "shank_diameter_mm", None),
    }
    if isinstance(code, BarCode):
        found |= {"bar_material": code.material, "coolant": code.coolant, "damped": code.damped}
    return found


def code_lines(code: Code, tables: CodeTables) -> list[str]:
    """The code position by position, each with its size in both units."""
    names = {"insert": "insert", "holder": "holder", "bar": "boring bar"}
    lines = [f"{names[code.kind]}, {code.system} designation"]
    for one in code.positions:
        size = "" if one.mm is None else f"{one.mm:g} mm ({one.mm / INCH:.4f} in)"
        lines.append(f"  {one.number:>2}  {one.symbol:<4} {one.name}: {', '.join(w for w in (one.meaning, size) if w)}")
    same = equivalents(code, tables)
    lines += [f"  {system}: {text}" for system, text in same.items()]
    source = tables.insert.source if code.kind == "insert" else getattr(tables, code.kind).source
    return [*lines, f"  source: {source}"]
