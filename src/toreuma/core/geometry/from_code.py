"""Inserts and tools of the size a designation gives, for drawing and for reach.

What a code does not say (how far the tip stands beside the shank, the head's length) is taken as it usually is.
"""

from toreuma.core.errors import StandardError
from toreuma.core.model.tool import Bar, BoringTool, Holder, Insert, TurningTool
from toreuma.core.standards.codes.positions import BarCode, HolderCode, InsertCode
from toreuma.core.standards.codes.tables import CodeTables

__all__ = ["insert_from", "tool_from"]

USUAL_NOSE_MM = 0.8
LEAST_ENTERING_DEG, MOST_ENTERING_DEG = 30.0, 120.0


def insert_from(code: InsertCode, tables: CodeTables) -> Insert:
    """The insert a code names. Sizes the code leaves open are usual ones."""
    width = code.ic_mm or 0.6 * code.edge_length_mm
    nose = code.nose_radius_mm if code.nose_radius_mm is not None else width / 2 if code.shape == "R" else 0.0
    fixing = tables.insert.fixings.get(code.fixing)
    return Insert(
        shape=code.shape,
        included_angle_deg=code.included_angle_deg or 90.0,
        ic_mm=width,
        edge_length_mm=code.edge_length_mm if code.ic_mm is None else None,
        thickness_mm=code.thickness_mm,
        nose_radius_mm=min(nose, width / 2),
        clearance_deg=code.clearance_deg or 0.0,
        double_sided=fixing is not None and fixing.chip_former == "both faces",
        chip_former=code.tail,
    )


def tool_from(code: HolderCode | BarCode, tables: CodeTables) -> TurningTool | BoringTool:
    """The tool a holder or bar makes with an insert of a usual nose. Raises `StandardError` for special styles."""
    if not LEAST_ENTERING_DEG <= code.entering_angle_deg <= MOST_ENTERING_DEG:
        raise StandardError("code", "a special style has no known entering angle", "see the maker's sheet")
    shape = tables.insert.shapes[code.shape]
    width = code.ic_mm or 0.6 * code.edge_length_mm
    insert = Insert(
        shape=code.shape,
        included_angle_deg=shape.angle_deg or 90.0,
        ic_mm=width,
        edge_length_mm=code.edge_length_mm if code.ic_mm is None else None,
        thickness_mm=4.76,
        nose_radius_mm=min(USUAL_NOSE_MM, width / 6),
    )
    hand = "left" if code.hand == "L" else "right"
    if isinstance(code, BarCode):
        d = code.shank_diameter_mm
        bar = Bar(
            entering_angle_deg=code.entering_angle_deg,
            diameter_mm=d,
            functional_width_mm=0.7 * d,
            functional_length_mm=code.length_mm or 6 * d,
            least_bore_mm=1.3 * d,
            material=code.material,
            damped=code.damped,
            coolant=code.coolant,
        )
        return BoringTool(id="T1", station=1, hand=hand, insert=insert, bar=bar)
    straight = "straight" in tables.holder.styles[code.style][1]
    holder = Holder(
        entering_angle_deg=90.0 if code.shape == "R" else code.entering_angle_deg,
        shank_width_mm=code.shank_width_mm,
        shank_height_mm=code.shank_height_mm,
        functional_width_mm=code.shank_width_mm * (0.5 if straight else 1.25),
        functional_length_mm=code.length_mm or 125.0,
        head_length_mm=1.6 * width + 6,
    )
    return TurningTool(id="T1", station=1, hand=hand, insert=insert, holder=holder)
