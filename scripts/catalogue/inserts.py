"""Inserts by family: shapes and sizes of ISO 1832 with the noses and chip formers that are usual for each."""

import math
from typing import Any

from toreuma.core.standards.codes import decode
from toreuma.shipped.standards import code_tables

__all__ = ["inserts"]

TABLES = code_tables()

# chip former: feed from and to at rε 0.8, least depth, depth as a share of the edge, grade, tool material
FORMERS = {
    "fine": (0.06, 0.22, 0.15, 0.14, "P05-P20 M05-M20 K05-K20", "coated carbide"),
    "even": (0.14, 0.42, 0.6, 0.34, "P15-P30 M15-M25 K15-K30", "coated carbide"),
    "bold": (0.25, 0.62, 1.2, 0.50, "P25-P40 M20-M35 K20-K35", "coated carbide"),
    "keen": (0.05, 0.25, 0.1, 0.25, "N05-N25 S10-S20", "uncoated carbide"),
    "satin": (0.06, 0.25, 0.15, 0.14, "P01-P15 M05-M10", "cermet"),
    "oxide": (0.08, 0.30, 0.15, 0.16, "H05-H15 K01-K15 S10-S20", "ceramic"),
    "cubic": (0.05, 0.22, 0.08, 0.05, "H01-H20 K01-K15", "CBN"),
    "carat": (0.03, 0.25, 0.05, 0.20, "N01-N20", "PCD"),
}

# what stands before the tail; noses in tenths of a millimetre by chip former
FAMILIES: tuple[tuple[str, dict[str, str]], ...] = (
    ("CNMG1204", {"fine": "04 08", "even": "08 12", "bold": "12"}),
    ("CNMG1606", {"even": "12", "bold": "12 16"}),
    ("CNMG1906", {"even": "12", "bold": "12 16"}),
    ("CNMG0903", {"fine": "04", "even": "08"}),
    ("CCMT0602", {"fine": "02 04", "even": "04"}),
    ("CCMT09T3", {"fine": "04", "even": "04 08"}),
    ("CCMT1204", {"fine": "04", "even": "08"}),
    ("CCGT0602", {"keen": "02 04"}),
    ("CCGT09T3", {"keen": "04 08"}),
    ("CCGT1204", {"keen": "08"}),
    ("DNMG1104", {"fine": "04", "even": "08"}),
    ("DNMG1506", {"fine": "04", "even": "08", "bold": "12"}),
    ("DCMT0702", {"fine": "02 04", "even": "04"}),
    ("DCMT11T3", {"fine": "02 04", "even": "08"}),
    ("DCGT0702", {"keen": "02 04"}),
    ("DCGT11T3", {"keen": "04 08"}),
    ("VNMG1604", {"fine": "04", "even": "08"}),
    ("VBMT1103", {"fine": "02 04"}),
    ("VBMT1604", {"fine": "04", "even": "08"}),
    ("VCMT1103", {"fine": "02 04"}),
    ("VCMT1604", {"fine": "04", "even": "08"}),
    ("VCGT1103", {"keen": "02 04"}),
    ("VCGT1604", {"keen": "04 08"}),
    ("WNMG0604", {"fine": "04", "even": "08"}),
    ("WNMG0804", {"fine": "04", "even": "08", "bold": "12"}),
    ("TNMG1604", {"fine": "04", "even": "08"}),
    ("TNMG2204", {"even": "08", "bold": "12"}),
    ("TCMT0902", {"fine": "04"}),
    ("TCMT1102", {"fine": "04", "even": "08"}),
    ("TCMT16T3", {"fine": "04", "even": "08"}),
    ("TPMT1103", {"fine": "04"}),
    ("TCGT1102", {"keen": "02 04"}),
    ("TCGT16T3", {"keen": "04 08"}),
    ("SNMG1204", {"even": "08", "bold": "12"}),
    ("SNMG1506", {"bold": "12"}),
    ("SNMG1906", {"bold": "16"}),
    ("SCMT09T3", {"even": "08"}),
    ("SCMT1204", {"even": "08"}),
    ("RCMT0602", {"even": "M0"}),
    ("RCMT0803", {"even": "M0"}),
    ("RCMT10T3", {"even": "M0"}),
    ("RCMT1204", {"bold": "M0"}),
    ("RCGT0602", {"keen": "M0"}),
    ("RCGT1204", {"keen": "M0"}),
    ("CNGG1204", {"keen": "04 08"}),
    ("DNGG1506", {"keen": "04 08"}),
    ("VNGG1604", {"keen": "04"}),
    ("WNGG0804", {"keen": "08"}),
    ("CNMG1204", {"satin": "04 08"}),
    ("CCMT0602", {"satin": "02 04"}),
    ("CCMT09T3", {"satin": "04 08"}),
    ("DNMG1506", {"satin": "04 08"}),
    ("DCMT0702", {"satin": "04"}),
    ("DCMT11T3", {"satin": "04 08"}),
    ("VBMT1604", {"satin": "04"}),
    ("VNMG1604", {"satin": "04"}),
    ("WNMG0804", {"satin": "04 08"}),
    ("TNMG1604", {"satin": "04 08"}),
    ("TCMT1102", {"satin": "04"}),
    ("CNGA1204", {"oxide": "08 12", "cubic": "04 08 12"}),
    ("DNGA1506", {"oxide": "08", "cubic": "04 08"}),
    ("VNGA1604", {"cubic": "04 08"}),
    ("WNGA0804", {"oxide": "08", "cubic": "04 08"}),
    ("TNGA1604", {"oxide": "08", "cubic": "04 08"}),
    ("SNGA1204", {"oxide": "12", "cubic": "08"}),
    ("CCGW0602", {"cubic": "04"}),
    ("CCGW09T3", {"cubic": "04 08"}),
    ("DCGW0702", {"cubic": "04"}),
    ("DCGW11T3", {"cubic": "04 08"}),
    ("VBGW1604", {"cubic": "04"}),
    ("TCGW1102", {"cubic": "04"}),
    ("CCGW0602", {"carat": "02 04"}),
    ("CCGW09T3", {"carat": "04 08"}),
    ("DCGW0702", {"carat": "02 04"}),
    ("DCGW11T3", {"carat": "02 04 08"}),
    ("VCGW1103", {"carat": "02 04"}),
    ("VCGW1604", {"carat": "04 08"}),
    ("TCGW1102", {"carat": "04"}),
)  # fmt: skip

USUAL_IC_MM = 9.525


def inserts() -> list[dict[str, Any]]:
    """Rows of every insert."""
    return [
        _row(f"{family}{nose}-{former}", former)
        for family, formers in FAMILIES
        for former, noses in formers.items()
        for nose in noses.split()
    ]


def _row(text: str, former: str) -> dict[str, Any]:
    code: Any = decode(text, TABLES)
    low, high, least, share, grade, material = FORMERS[former]
    nose = code.nose_radius_mm if code.nose_radius_mm is not None else code.ic_mm / 2
    fixing = TABLES.insert.fixings[code.fixing]
    return {
        "code": text,
        "shape": code.shape,
        "included_angle_deg": code.included_angle_deg or 90.0,
        "ic_mm": code.ic_mm,
        "thickness_mm": code.thickness_mm,
        "nose_radius_mm": nose,
        "clearance_deg": code.clearance_deg,
        "double_sided": fixing.chip_former == "both faces" or code.clearance_deg == 0,
        "material": material,
        "grade": grade,
        "chip_former": former,
        "chip_window": _window(code, nose, low, high, least, share),
    }


def _window(code: Any, nose: float, low: float, high: float, least: float, share: float) -> list[tuple[float, float]]:
    """The area in (feed, depth) where chips break: by nose, by the strength of the shape and by the size."""
    scale = math.sqrt(nose / 0.8) if code.shape != "R" else 1.2
    strength = {"V": 0.55, "D": 0.75, "T": 0.8}.get(code.shape, 1.0)
    stout = {"V": 0.8, "D": 0.9, "T": 0.95}.get(code.shape, 1.0) * min((code.ic_mm / USUAL_IC_MM) ** 0.25, 1.15)
    f0, f1 = round(low * max(scale, 0.6), 2), round(min(high * scale * stout, 0.75 * nose), 2)
    deep = round(share * strength * code.edge_length_mm, 1)
    shallow = round(max(least * min(scale, 1.2), min(least, 0.1)), 2)
    deep = max(deep, round(2.5 * shallow, 1))
    mid = round((f0 + f1) / 2, 3)
    return [
        (f0, shallow),
        (f1, round(shallow * 1.6, 2)),
        (f1, round(deep * 0.8, 2)),
        (mid, deep),
        (f0, round(deep * 0.8, 2)),
    ]
