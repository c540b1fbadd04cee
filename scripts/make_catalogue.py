"""Writes the starter catalogue: made-up tools named by their codes, sized as the standards and tables have them.

Chip windows and grades are typical values for the three kinds of chip former, scaled by nose radius and edge.
"""

import json
import math
from pathlib import Path
from typing import Any

from toreuma.core.standards.codes import decode
from toreuma.core.standards.threads import thread_of
from toreuma.shipped.paths import data_path
from toreuma.shipped.standards import code_tables, thread_tables

SOURCE = (
    "sizes: ISO 1832, ISO 5608, ISO 6261, ISO 235, ISO 2157 and ISO 529 style tables; chip windows and grades: "
    "typical, made up for this catalogue"
)
TABLES = code_tables()

# chip former: feed from and to at rε 0.8, least depth, depth as a share of the edge, grade
FORMERS = {
    "fine": (0.06, 0.22, 0.15, 0.14, "P05-P20 M05-M20 K05-K20"),
    "even": (0.14, 0.42, 0.6, 0.34, "P15-P30 M15-M25 K15-K30"),
    "bold": (0.25, 0.62, 1.2, 0.50, "P25-P40 M20-M35 K20-K35"),
    "keen": (0.05, 0.25, 0.1, 0.25, "N05-N25 S10-S20"),
}

INSERTS = """
CNMG120404-fine CNMG120408-fine CNMG120408-even CNMG120412-even CNMG120412-bold CNMG160612-bold
CNMG160616-bold CNMG090304-fine CNMG090308-even CCMT060202-fine CCMT060204-fine CCMT060204-even
CCMT09T304-fine CCMT09T308-even CCMT120408-even CCGT060202-keen CCGT09T304-keen DNMG110404-fine
DNMG110408-even DNMG150604-fine DNMG150608-even DNMG150612-bold DCMT070202-fine DCMT070204-fine
DCMT070204-even DCMT11T302-fine DCMT11T304-fine DCMT11T308-even DCGT070202-keen DCGT11T304-keen
VNMG160404-fine VNMG160408-even VBMT110302-fine VBMT110304-fine VBMT160404-fine VBMT160408-even
VCGT110302-keen VCGT160404-keen WNMG060404-fine WNMG060408-even WNMG080404-fine WNMG080408-even
WNMG080412-bold TNMG160404-fine TNMG160408-even TNMG220408-even TNMG220412-bold TCMT090204-fine
TCMT110204-fine TCMT110208-even TCMT16T304-fine TCMT16T308-even TPMT110304-fine TCGT110202-keen
SNMG120408-even SNMG120412-bold SNMG150612-bold SCMT09T308-even SCMT120408-even RCMT0602M0-even
RCMT0803M0-even RCMT10T3M0-even RCMT1204M0-bold RCGT0602M0-keen
CNGG120404-keen CNGG120408-keen DNGG150604-keen DNGG150608-keen VNGG160404-keen WNGG080408-keen
CCGT09T308-keen CCGT120408-keen DCGT11T308-keen
"""

HOLDERS = """
PCLNR1616H12 PCLNR2020K12 PCLNR2525M12 PCLNL2020K12 PCLNR2525M16 PCLNR1616H09 PCBNR2020K12 SCLCR1010E06
SCLCR1212F09 SCLCR1616H09 SCLCL1616H09 SCLCR2020K12 PDJNR2020K11 PDJNR2525M15 PDJNL2525M15 PDNNN2525M15
SDJCR1010E07 SDJCR1212F11 SDJCR1616H11 SDJCR2020K11 SDJCL2020K11 SDNCN1616H11 MVJNR2020K16 MVVNN2020K16
SVJBR1212F11 SVJBR1616H16 SVJBR2020K16 SVJBL2020K16 SVVBN1616H16 SVJCR1212F11 SVJCR1616H16 PWLNR1616H06
PWLNR2020K08 PWLNR2525M08 PTGNR2020K16 PTGNR2525M22 STGCR1616H16 STGCR1010E11 PSBNR2020K12 SSDCN2020K12
PSSNR2525M15 PSDNN2020K12 SSDCN1212F09 SRDCN1616H06 SRDCN1616H08 SRDCN2020K10 SRDCN2525M12 SRGCR2020K10
"""

BARS = """
A06F-SCLCR06 A08H-SCLCR06 A10K-SCLCR06 A12M-SCLCR06 A16R-SCLCR09 A20S-SCLCR09 A25T-PCLNR12 A32U-PCLNR12
E06H-SCLCR06 E08K-SCLCR06 E10M-SCLCR06 E12Q-SCLCR06 E16R-SCLCR09 A10K-SDUCR07 A12M-SDUCR07 A16R-SDUCR07
A20S-SDUCR11 A25T-SDUCR11 E12Q-SDUCR07 A16R-SDQCR07 A20S-SDQCR11 A25T-SVUBR16 A32U-PWLNR08 A20S-PWLNR06
A12M-STFCR11 A16R-STFCR11 A25T-STFCR16 A08H-STFCR09 A12M-STFPR11 D25T-PCLNR12 D32U-PCLNR12 J16R-SCLCR09
A16R-SCLCL09
"""


def insert_row(text: str) -> dict[str, Any]:
    code: Any = decode(text, TABLES)
    former = code.tail
    low, high, least, share, grade = FORMERS[former]
    nose = code.nose_radius_mm if code.nose_radius_mm is not None else code.ic_mm / 2
    scale = math.sqrt(nose / 0.8) if code.shape != "R" else 1.2
    strength = {"V": 0.55, "D": 0.75, "T": 0.8}.get(code.shape, 1.0)
    f0, f1 = round(low * max(scale, 0.6), 2), round(min(high * scale, 0.75 * nose), 2)
    deep = round(share * strength * code.edge_length_mm, 1)
    shallow = round(max(least * min(scale, 1.2), 0.1), 2)
    mid = round((f0 + f1) / 2, 3)
    window = [
        (f0, shallow),
        (f1, round(shallow * 1.6, 2)),
        (f1, round(deep * 0.8, 1)),
        (mid, deep),
        (f0, round(deep * 0.8, 1)),
    ]
    fixing = TABLES.insert.fixings[code.fixing]
    return {
        "code": text,
        "shape": code.shape,
        "included_angle_deg": code.included_angle_deg or 90.0,
        "ic_mm": code.ic_mm,
        "thickness_mm": code.thickness_mm,
        "nose_radius_mm": code.nose_radius_mm if code.nose_radius_mm is not None else code.ic_mm / 2,
        "clearance_deg": code.clearance_deg,
        "double_sided": fixing.chip_former == "both faces",
        "material": "uncoated carbide" if former == "keen" else "coated carbide",
        "grade": grade,
        "chip_former": former,
        "chip_window": window,
    }


def seat(code: Any) -> dict[str, Any]:
    symbol = code.positions[-1].symbol
    ic = TABLES.insert.round_metric_mm[symbol] if code.shape == "R" else code.ic_mm
    return {"shape": code.shape, "ic_mm": ic, "clearance_deg": TABLES.insert.clearance_deg[code.clearance]}


def holder_row(text: str) -> dict[str, Any]:
    """Width over the tip as ISO 5610 has it: about 1.25 times the shank for offset styles, half of it for straight."""
    code: Any = decode(text, TABLES)
    width = code.shank_width_mm
    straight = code.style in "ABDEMNV"
    offset = {10: 12, 12: 16, 16: 20, 20: 25, 25: 32, 32: 40}[int(width)]
    return {
        "code": text,
        "hand": "left" if code.hand == "L" else "right",
        "seat": seat(code),
        "clamping": code.clamping,
        "holder": {
            "code": text,
            "entering_angle_deg": 90.0 if code.shape == "R" else code.entering_angle_deg,
            "shank_width_mm": width,
            "shank_height_mm": code.shank_height_mm,
            "functional_width_mm": width / 2 + (code.ic_mm * 0.1 if straight else 0) if straight else offset,
            "functional_length_mm": code.length_mm,
            "head_length_mm": round(1.6 * code.ic_mm + 6, 1),
        },
    }


def bar_row(text: str) -> dict[str, Any]:
    """Tip beyond the bar and least bore as ISO 6261 has them: about half the bar and a few tenths of it."""
    code: Any = decode(text, TABLES)
    d = code.shank_diameter_mm
    out = {6: 4.5, 8: 5.5, 10: 7, 12: 9, 16: 11, 20: 13, 25: 17, 32: 22}[int(d)]
    least = {6: 8, 8: 10, 10: 13, 12: 16, 16: 20, 20: 25, 25: 32, 32: 40}[int(d)]
    return {
        "code": text,
        "hand": "left" if code.hand == "L" else "right",
        "seat": seat(code),
        "clamping": code.clamping,
        "bar": {
            "code": text,
            "entering_angle_deg": code.entering_angle_deg,
            "diameter_mm": d,
            "functional_width_mm": out,
            "functional_length_mm": code.length_mm,
            "least_bore_mm": least,
            "material": code.material,
            "damped": code.damped,
            "coolant": code.coolant,
        },
    }


def back_rows() -> list[dict[str, Any]]:
    """Bars whose edge looks back, for undercuts behind a collar; no standard lists them. Typical sizes: the tip stands
    out 0.9 of the bar, so that the bar clears a collar 0.4 of it high."""
    found = []
    for d, length, ic, symbol in (
        (12, 150, 6.35, "07"),
        (16, 200, 6.35, "07"),
        (20, 250, 9.525, "11"),
        (25, 300, 9.525, "11"),
    ):
        code = f"BK{d} DC{symbol}"
        bar = {
            "code": code,
            "entering_angle_deg": 93.0,
            "diameter_mm": d,
            "functional_width_mm": round(0.9 * d, 1),
            "functional_length_mm": length,
            "least_bore_mm": round(1.45 * d + 1.0, 1),
            "material": "steel",
            "back": True,
        }
        seat = {"shape": "D", "ic_mm": ic, "clearance_deg": 7}
        found.append({"code": code, "hand": "right", "seat": seat, "clamping": "S", "bar": bar})
    return found


def rows() -> list[dict[str, Any]]:
    """Drills, centre and spot drills, reamers, taps, groovers and threaders."""
    found: list[dict[str, Any]] = []

    def add(code: str, **fields: Any) -> None:
        found.append(
            {"id": code.replace(" ", "-").replace("/", "-"), "name": code, "station": 1, "code": code, **fields}
        )

    for d in (
        2.05,
        2.5,
        2.7,
        3.3,
        4.2,
        5.0,
        5.5,
        6.0,
        6.6,
        6.8,
        8.0,
        8.5,
        9.0,
        10.0,
        10.2,
        12.0,
        14.0,
        16.0,
        17.5,
        20.0,
    ):
        flute, overall = round(8 * d**0.8 + 12, 0), round(12 * d**0.75 + 32, 0)
        add(
            f"TD {d:g} HSS 118",
            kind="drill",
            form="twist",
            d_mm=d,
            point_deg=118,
            flute_length_mm=flute,
            overall_length_mm=overall,
            shank_d_mm=d,
            material="high-speed steel",
            feed_mm_rev=[round(0.012 * d, 3), round(0.025 * d, 3)],
        )
    for d in (5.0, 6.0, 6.6, 6.8, 8.0, 8.5, 10.0, 10.2, 12.0, 14.0, 16.0):
        add(
            f"TD {d:g} HM5D 140",
            kind="drill",
            form="twist",
            d_mm=d,
            point_deg=140,
            flute_length_mm=round(5.6 * d, 0),
            overall_length_mm=round(5.6 * d + 50, 0),
            shank_d_mm=d,
            material="coated carbide",
            feed_mm_rev=[round(0.012 * d, 3), round(0.03 * d, 3)],
        )
    for d in (18.0, 22.0, 26.0, 32.0, 40.0, 56.0):
        add(
            f"ID {d:g} 3D",
            kind="drill",
            form="indexable",
            d_mm=d,
            point_deg=176,
            flute_length_mm=3 * d,
            overall_length_mm=3 * d + 80,
            shank_d_mm=25.0 if d < 30 else 32.0,
            material="coated carbide",
            feed_mm_rev=[0.05, 0.14],
        )
    for d in (24.0, 30.0):
        add(
            f"SD {d:g} 5D 140",
            kind="drill",
            form="spade",
            d_mm=d,
            point_deg=140,
            flute_length_mm=5 * d,
            overall_length_mm=5 * d + 85,
            shank_d_mm=25.0,
            material="coated carbide",
            feed_mm_rev=[0.15, 0.35],
        )
    for front, d, length, angle in ((5.0, 8.0, 16.0, 90.0), (6.8, 9.0, 20.0, 90.0), (8.5, 12.0, 24.0, 180.0)):
        add(
            f"ST {front:g}-{d:g} {angle:g}",
            kind="drill",
            form="step",
            d_mm=d,
            pilot_d_mm=front,
            step_length_mm=length,
            step_deg=angle,
            point_deg=118,
            flute_length_mm=round(length + 3 * d, 0),
            overall_length_mm=round(length + 3 * d + 45, 0),
            shank_d_mm=d,
            material="high-speed steel",
            feed_mm_rev=[round(0.012 * front, 3), round(0.02 * front, 3)],
        )
    for d in (6.0, 8.0, 10.0, 12.0, 16.0, 20.0):
        add(
            f"FD {d:g} 180",
            kind="drill",
            form="flat",
            d_mm=d,
            point_deg=180,
            flute_length_mm=3 * d,
            overall_length_mm=3 * d + 50,
            shank_d_mm=d,
            material="coated carbide",
            feed_mm_rev=[round(0.008 * d, 3), round(0.018 * d, 3)],
        )
    for pilot, d in ((1.6, 4.0), (2.5, 6.3), (4.0, 10.0)):
        add(
            f"CD A{pilot:g}",
            kind="drill",
            form="centre",
            d_mm=d,
            pilot_d_mm=pilot,
            point_deg=118,
            flute_length_mm=round(2.2 * pilot + 1.1 * d, 1),
            overall_length_mm=35 + 2.5 * d,
            shank_d_mm=d,
            material="high-speed steel",
            feed_mm_rev=[0.03, 0.1],
        )
    for d in (6.0, 10.0, 16.0):
        add(
            f"SP {d:g} 90",
            kind="drill",
            form="spot",
            d_mm=d,
            point_deg=90,
            flute_length_mm=d * 1.5,
            overall_length_mm=50 + 3 * d,
            shank_d_mm=d,
            material="coated carbide",
            feed_mm_rev=[0.05, 0.15],
        )
    for d in (3.0, 4.0, 5.0, 6.0, 8.0, 10.0, 12.0, 16.0, 20.0):
        add(
            f"EM {d:g} HM",
            kind="end_mill",
            d_mm=d,
            teeth=3 if d < 6 else 4,
            flute_length_mm=round(2.2 * d, 0),
            overall_length_mm=round(38 + 4 * d, 0),
            shank_d_mm=max(d, 6.0),
            material="coated carbide",
            fz_mm=[round(0.004 * d, 3), round(0.008 * d, 3)],
        )
    # A reamer is as large as the middle of the hole it makes (ISO 286-1, IT7).
    for d, it7 in ((6.0, 12), (8.0, 15), (10.0, 15), (12.0, 18), (16.0, 18), (25.0, 21)):
        add(
            f"RM {d:g} H7",
            kind="reamer",
            d_mm=round(d + it7 / 2000, 4),
            fit="H7",
            lead_mm=1.0,
            flute_length_mm=round(20 + 1.6 * d, 0),
            overall_length_mm=round(70 + 5 * d, 0),
            shank_d_mm=d,
            material="high-speed steel",
        )
    taps = ("M3", "M4", "M5", "M6", "M8", "M10", "M12", "M16", "6-32 UNC", "1/4-20 UNC", "5/16-24 UNF")
    for name in taps:
        for form, lead, letter in (("through", 4.0, "B"), ("blind", 2.5, "C")):
            thread = thread_of(name, thread_tables())
            flute = round(3.2 * thread.d_mm**0.9 + 6, 0)
            add(
                f"TP {name} {letter}",
                kind="tap",
                thread=name,
                d_mm=round(thread.d_mm, 3),
                pitch_mm=round(thread.pitch_mm, 4),
                form=form,
                lead_pitches=lead,
                flute_length_mm=flute,
                overall_length_mm=round(40 + 6 * thread.d_mm**0.85, 0),
                shank_d_mm=round(max(thread.d_mm * 0.8, 3), 1),
                material="high-speed steel",
            )
    block = {"block_width_mm": 12.0, "functional_length_mm": 125.0, "grade": "P20-P35 M20-M35"}
    for width, depth in ((1.5, 8.0), (2.0, 16.0), (2.5, 18.0), (3.0, 22.0), (4.0, 35.0), (5.0, 45.0), (6.0, 54.0)):
        add(
            f"PB {width:g} {depth:g}",
            kind="parting",
            blade={
                "code": f"PB {width:g} {depth:g}",
                "width_mm": width,
                "corner_radius_mm": 0.2,
                "depth_mm": depth,
                "feed_range_mm_rev": [round(0.03 + 0.01 * width, 3), round(0.06 + 0.03 * width, 3)],
                **block,
            },
        )
    for width, depth, angle in ((2.0, 16.0, 6.0), (3.0, 22.0, 6.0)):
        add(
            f"PB {width:g} {depth:g} {angle:g}R",
            kind="parting",
            blade={
                "code": f"PB {width:g} {depth:g} {angle:g}R",
                "width_mm": width,
                "corner_radius_mm": 0.2,
                "depth_mm": depth,
                "front_deg": angle,
                "feed_range_mm_rev": [round(0.02 + 0.01 * width, 3), round(0.05 + 0.02 * width, 3)],
                **block,
            },
        )
    add("BS 20", kind="bar_stop", d_mm=20.0, length_mm=60.0)
    for low, high in ((6.0, 16.0), (14.0, 32.0), (30.0, 52.0)):
        add(f"BG {high:g}", kind="bar_puller", grips_mm=[low, high], grip_mm=8.0, finger_mm=6.0, length_mm=70.0)
    for pitch in (0.5, 0.6, 0.8, 1.0, 1.2, 1.6):
        for form, wide, head in (("RAA", 8.0, 20.0), ("RGE", 8.0, 25.0)):
            add(
                f"KN {form} {pitch:g}",
                kind="knurling",
                form=form,
                pitch_mm=pitch,
                wheel_d_mm=20.0,
                wheel_width_mm=wide,
                head_mm=head,
                length_mm=60.0,
                feed_mm_rev=[0.1, 0.3],
            )
    for width, depth in ((1.0, 3.0), (1.5, 4.0), (2.0, 8.0), (2.5, 10.0), (3.0, 14.0), (4.0, 18.0), (6.0, 22.0)):
        add(
            f"GO {width:g} {depth:g}",
            kind="grooving",
            where="outside",
            blade={
                "code": f"GO {width:g} {depth:g}",
                "width_mm": width,
                "corner_radius_mm": 0.1 if width < 2 else 0.2,
                "depth_mm": depth,
                "feed_range_mm_rev": [0.04, round(0.05 + 0.03 * width, 3)],
                **block,
            },
        )
    for width, depth, angle in ((3.0, 12.0, 8.0), (4.0, 18.0, 6.0), (6.0, 18.0, 25.0)):
        add(
            f"PL {width:g} {angle:g}",
            kind="pull",
            pull_deg=angle,
            blade={
                "code": f"PL {width:g} {angle:g}",
                "width_mm": width,
                "corner_radius_mm": 0.4,
                "depth_mm": depth,
                "feed_range_mm_rev": [0.2, 0.8] if angle < 20 else [0.15, 0.6],
                **block,
            },
        )
    add("FM 45x1.5", kind="form", outline_mm=[[0, 0], [1.5, 1.5], [1.5, 6], [-1.5, 6], [-1.5, 1.5]])
    for angle, width in ((30.0, 8.0), (38.0, 6.0), (36.0, 8.0), (60.0, 5.0)):
        add(
            f"GV {angle:g} {width:g}",
            kind="grooving",
            where="outside",
            tip_deg=angle,
            blade={
                "code": f"GV {angle:g} {width:g}",
                "width_mm": width,
                "corner_radius_mm": 0.4,
                "depth_mm": 18.0,
                "feed_range_mm_rev": [0.05, 0.15],
                **block,
            },
        )
    for width, d, least in ((1.2, 10.0, 14.0), (2.0, 16.0, 22.0), (3.0, 20.0, 28.0)):
        add(
            f"GI {width:g} {d:g}",
            kind="grooving",
            where="inside",
            blade={
                "code": f"GI {width:g} {d:g}",
                "width_mm": width,
                "corner_radius_mm": 0.1,
                "depth_mm": round(d / 5, 1),
                "feed_range_mm_rev": [0.03, 0.1],
                **block,
            },
            bar={
                "entering_angle_deg": 90.0,
                "diameter_mm": d,
                "functional_width_mm": round(d / 2 + d / 5 + 0.5, 2),
                "functional_length_mm": 10 * d,
                "least_bore_mm": least,
            },
        )
    for width, low, high in ((3.0, 24.0, 40.0), (4.0, 40.0, 90.0)):
        add(
            f"GF {width:g} {low:g}-{high:g}",
            kind="grooving",
            where="face",
            first_cut_mm=[low, high],
            blade={
                "code": f"GF {width:g}",
                "width_mm": width,
                "corner_radius_mm": 0.2,
                "depth_mm": 12.0,
                "feed_range_mm_rev": [0.05, 0.12],
                **block,
            },
        )
    shank = {
        "entering_angle_deg": 90.0,
        "shank_width_mm": 20.0,
        "shank_height_mm": 20.0,
        "functional_width_mm": 25.0,
        "functional_length_mm": 125.0,
        "head_length_mm": 26.0,
    }
    small = {
        **shank,
        "shank_width_mm": 12.0,
        "shank_height_mm": 12.0,
        "functional_width_mm": 16.0,
        "functional_length_mm": 80.0,
        "head_length_mm": 18.0,
    }
    for pitch in (1.0, 1.25, 1.5, 1.75, 2.0):
        tooth = {
            "profile_deg": 60.0,
            "full_profile": True,
            "pitch_mm": [pitch, pitch],
            "tip_radius_mm": round(0.1443 * pitch, 3),
            "width_mm": round(1.6 * pitch + 0.6, 2),
            "profile_depth_mm": round(0.66 * pitch, 3),
            "grade": "P15-P30 M15-M30",
        }
        add(
            f"TE {pitch:g} 60F",
            kind="threading",
            where="outside",
            insert={**tooth, "code": f"TE {pitch:g} 60F"},
            holder=shank,
        )
        if pitch >= 1.5:
            add(
                f"TI {pitch:g} 60F",
                kind="threading",
                where="inside",
                insert={
                    **tooth,
                    "code": f"TI {pitch:g} 60F",
                    "tip_radius_mm": round(0.072 * pitch, 3),
                    "profile_depth_mm": round(0.58 * pitch, 3),
                },
                bar={
                    "entering_angle_deg": 90.0,
                    "diameter_mm": 16.0,
                    "functional_width_mm": 11.0,
                    "functional_length_mm": 150.0,
                    "least_bore_mm": 20.0,
                },
            )
    for low, high, profile, carrier in (
        (0.5, 1.5, 60.0, small),
        (1.75, 3.0, 60.0, shank),
        (0.5, 1.5, 55.0, small),
        (1.25, 2.5, 55.0, shank),
    ):
        add(
            f"TE {low:g}-{high:g} {profile:g}P",
            kind="threading",
            where="outside",
            insert={
                "code": f"TE {low:g}-{high:g} {profile:g}P",
                "profile_deg": profile,
                "full_profile": False,
                "pitch_mm": [low, high],
                "tip_radius_mm": round(0.07 * low + 0.02, 3),
                "width_mm": round(high * 1.4, 2),
                "profile_depth_mm": round(0.75 * high, 2),
                "grade": "P15-P30 M15-M30",
            },
            holder=carrier,
        )
    for pitch, flank, name in (
        *((pitch, 30.0, f"{pitch:g}") for pitch in (2.0, 3.0, 4.0, 5.0, 6.0)),
        *((25.4 / per_inch, 29.0, f"{per_inch}TPI") for per_inch in (10, 8, 6, 5)),
    ):
        # Flat of the root: 0.366 P - 0.536 ac (ISO 2904), 0.3707 P - 0.259 of the clearance on diameter (ASME B1.5).
        clearance = (0.25 if pitch < 6 else 0.5) if flank == 30.0 else 0.254
        flat = 0.366 * pitch - 0.536 * clearance if flank == 30.0 else 0.3707 * pitch - 0.259 * 2 * clearance
        insert = {
            "profile_deg": flank,
            "full_profile": True,
            "pitch_mm": [round(pitch, 4), round(pitch, 4)],
            "tip_radius_mm": round(min(0.05 * pitch, 0.5 * clearance), 3),
            "tip_flat_mm": round(flat, 3),
            "width_mm": round(0.9 * pitch + 0.8, 2),
            "profile_depth_mm": round(0.55 * pitch + clearance + 0.05, 3),
            "grade": "P15-P30 M15-M30",
        }
        outside, inside = f"TE {name} {flank:g}F", f"TI {name} {flank:g}F"
        add(outside, kind="threading", where="outside", insert={**insert, "code": outside}, holder=shank)
        if pitch >= 3:
            bar = {
                "entering_angle_deg": 90.0,
                "diameter_mm": 16.0,
                "functional_width_mm": 12.5,
                "functional_length_mm": 150.0,
                "least_bore_mm": 22.0,
            }
            add(inside, kind="threading", where="inside", insert={**insert, "code": inside}, bar=bar)
    for low, high, profile in ((1.25, 2.5, 55.0), (1.75, 3.0, 60.0)):
        code = f"TI {low:g}-{high:g} {profile:g}P"
        add(
            code,
            kind="threading",
            where="inside",
            insert={
                "code": code,
                "profile_deg": profile,
                "full_profile": False,
                "pitch_mm": [low, high],
                "tip_radius_mm": round(0.05 * low + 0.02, 3),
                "width_mm": round(high * 1.4, 2),
                "profile_depth_mm": round(0.75 * high, 2),
                "grade": "P15-P30 M15-M30",
            },
            bar={
                "entering_angle_deg": 90.0,
                "diameter_mm": 12.0,
                "functional_width_mm": 9.0,
                "functional_length_mm": 120.0,
                "least_bore_mm": 16.0,
            },
        )
    for row in found:
        if row["kind"] in ("parting", "grooving", "threading", "pull"):
            del row["code"]
    return found


def main() -> None:
    folder = Path(data_path("tools"))
    folder.mkdir(exist_ok=True)
    data = {
        "source": SOURCE,
        "inserts": [insert_row(text) for text in INSERTS.split()],
        "carriers": [
            *(holder_row(text) for text in HOLDERS.split()),
            *(bar_row(text) for text in BARS.split()),
            *back_rows(),
        ],
        "tools": rows(),
    }
    lines = ["{", f'  "source": {json.dumps(SOURCE)},']
    for key in ("inserts", "carriers", "tools"):
        body = ",\n".join(f"    {json.dumps(row, ensure_ascii=False)}" for row in data[key])
        lines += [f'  "{key}": [', body, "  ]" + ("," if key != "tools" else "")]
    (folder / "catalogue.json").write_text("\n".join([*lines, "}"]) + "\n", encoding="utf-8")
    print({key: len(value) for key, value in data.items() if key != "source"})


if __name__ == "__main__":
    main()
