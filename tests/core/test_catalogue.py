"""The store against sizes as the standards print them, and that it is wide enough for a shop."""

import pytest

from toreuma.core.model.catalogue import Catalogue
from toreuma.core.model.tool import Drill, EndMill, GroovingTool, PartingTool, Reamer, Tap, ThreadingTool
from toreuma.core.standards.threads import thread_of
from toreuma.shipped.library import catalogue
from toreuma.shipped.standards import thread_tables

STORE = catalogue()
TOOLS = {tool.name: tool for tool in STORE.tools}
CARRIERS = {one.code: one for one in STORE.carriers}


@pytest.mark.parametrize(
    ("d", "flute", "overall"),
    [
        # ISO 235, DIN 338: jobber drills
        (1, 12, 34), (2, 24, 49), (2.5, 30, 57), (3, 33, 61), (3.3, 36, 65), (4, 43, 75), (4.2, 43, 75), (5, 52, 86),
        (6, 57, 93), (6.8, 69, 109), (8, 75, 117), (8.5, 75, 117), (9, 81, 125), (10, 87, 133), (10.2, 87, 133),
        (11, 94, 142), (12, 101, 151), (13, 101, 151), (14, 108, 160), (15, 114, 169), (16, 120, 178), (18, 130, 191),
        (20, 140, 205),
    ],
)  # fmt: skip
def test_jobber_drills(d: float, flute: float, overall: float) -> None:
    drill = TOOLS[f"TD {d:g} HSS 118"]
    assert isinstance(drill, Drill)
    assert (drill.flute_length_mm, drill.overall_length_mm, drill.shank_d_mm) == (flute, overall, d)


@pytest.mark.parametrize(
    ("name", "flute", "overall", "shank"),
    [
        # DIN 6537, short and long
        ("TD 3 HM3D 140", 20, 62, 6), ("TD 5 HM3D 140", 28, 66, 6), ("TD 6.8 HM3D 140", 34, 79, 8),
        ("TD 8 HM3D 140", 41, 79, 8), ("TD 10 HM3D 140", 47, 89, 10), ("TD 12 HM3D 140", 55, 102, 12),
        ("TD 16 HM3D 140", 65, 115, 16), ("TD 20 HM3D 140", 79, 131, 20), ("TD 3 HM5D 140", 28, 66, 6),
        ("TD 5 HM5D 140", 44, 82, 6), ("TD 6.8 HM5D 140", 53, 91, 8), ("TD 10 HM5D 140", 61, 103, 10),
        ("TD 12 HM5D 140", 71, 118, 12), ("TD 16 HM5D 140", 83, 133, 16), ("TD 20 HM5D 140", 101, 153, 20),
    ],
)  # fmt: skip
def test_carbide_drills(name: str, flute: float, overall: float, shank: float) -> None:
    drill = TOOLS[name]
    assert isinstance(drill, Drill)
    assert (drill.flute_length_mm, drill.overall_length_mm, drill.shank_d_mm) == (flute, overall, shank)


@pytest.mark.parametrize(
    ("name", "inches"),
    [("#7", 0.201), ("#36", 0.1065), ("#25", 0.1495), ("#29", 0.136), ("#43", 0.089), ("#50", 0.07), ("F", 0.257),
     ("I", 0.272), ("Q", 0.332), ("U", 0.368), ("A", 0.234), ("Z", 0.413), ("1/4", 0.25), ("27/64", 0.421875),
     ("5/16", 0.3125), ("1/2", 0.5), ("3/4", 0.75)],
)  # fmt: skip
def test_number_letter_and_fraction_drills(name: str, inches: float) -> None:
    drill = TOOLS[f"TD {name} HSS 118"]
    assert isinstance(drill, Drill)
    assert drill.d_mm / 25.4 == pytest.approx(inches, abs=1e-5)


@pytest.mark.parametrize(
    ("thread", "flute", "overall", "shank"),
    [
        # ISO 529
        ("M3", 11, 48, 3.15), ("M4", 13, 53, 4), ("M5", 16, 58, 5), ("M6", 19, 66, 6.3), ("M8", 22, 72, 8),
        ("M10", 24, 80, 10), ("M12", 29, 89, 9), ("M14", 30, 95, 11.2), ("M16", 32, 102, 12.5), ("M20", 37, 112, 14),
        ("M24", 45, 130, 18), ("M30", 48, 138, 20),
    ],
)  # fmt: skip
def test_taps(thread: str, flute: float, overall: float, shank: float) -> None:
    for form in "BC":
        tap = TOOLS[f"TP {thread} {form}"]
        assert isinstance(tap, Tap)
        assert (tap.flute_length_mm, tap.overall_length_mm, tap.shank_d_mm) == (flute, overall, shank)


@pytest.mark.parametrize(
    ("code", "f", "length"),
    [
        # ISO 5610: from the tip to the far side, and length
        ("PCLNR1616H09", 20, 100), ("PCLNR2020K12", 25, 125), ("PCLNR2525M12", 32, 150), ("PCLNR3232P16", 40, 170),
        ("PCBNR2020K12", 17, 125), ("PSBNR2020K12", 17, 125), ("PDJNR2525M15", 32, 150), ("SCLCR1212F09", 16, 80),
        ("SCLCR1010E06", 12, 70), ("SRDCN1616H06", 11, 100), ("SRDCN1616H08", 12, 100), ("SRDCN2020K10", 15, 125),
        ("SRDCN2525M12", 18.5, 150), ("PDNNN2525M15", 12.5, 150), ("SVVBN1616H16", 8, 100), ("SSDCN2020K12", 10, 125),
        ("PTGNR2525M22", 32, 150), ("PWLNR2525M08", 32, 150), ("SVJBL2020K16", 25, 125), ("SVHBR2020K16", 25, 125),
    ],
)  # fmt: skip
def test_holders(code: str, f: float, length: float) -> None:
    holder = CARRIERS[code].holder
    assert holder is not None
    assert (holder.functional_width_mm, holder.functional_length_mm) == (f, length)


@pytest.mark.parametrize(
    ("code", "f", "length", "least"),
    [
        # ISO 6261: tip beyond the axis, length by letter; least bores as usually listed
        ("A08H-SCLCR06", 5.5, 100, 10), ("A10K-SCLCR06", 7, 125, 13), ("A12M-SCLCR06", 9, 150, 16),
        ("A16R-SCLCR09", 11, 200, 20), ("A20S-SCLCR09", 13, 250, 25), ("A25T-PCLNR12", 17, 300, 32),
        ("A32U-PCLNR12", 22, 350, 40), ("A40V-PCLNR12", 27, 400, 50), ("A50W-PCLNR12", 35, 450, 63),
        ("E05F-SCLCR06", 3.5, 80, 6.5), ("E12Q-SCLCR06", 9, 180, 16), ("J16R-SCLCR09", 11, 200, 20),
    ],
)  # fmt: skip
def test_bars(code: str, f: float, length: float, least: float) -> None:
    bar = CARRIERS[code].bar
    assert bar is not None
    assert (bar.functional_width_mm, bar.functional_length_mm, bar.least_bore_mm) == (f, length, least)


@pytest.mark.parametrize("thread", ["M10", "M12", "M16", "M20x1.5", "G1/8", "G1/4", "G3/8", "Tr12x3", "Tr16x4",
                                    "Tr20x4", "Tr24x5", "1/2-13 UNC", "3/4-10 UNC"])  # fmt: skip
def test_an_inside_threader_fits_the_bore_it_is_for(thread: str) -> None:
    known = thread_of(thread, thread_tables())
    fitting = [
        tool
        for tool in STORE.tools
        if isinstance(tool, ThreadingTool)
        and tool.bar is not None
        and abs(tool.insert.profile_deg - known.flank_deg) < 0.1
        and tool.insert.pitch_mm[0] - 0.01 <= known.pitch_mm <= tool.insert.pitch_mm[1] + 0.01
        and tool.bar.least_bore_mm <= known.internal.minor.min
    ]
    assert fitting
    for tool in fitting:
        assert tool.bar is not None
        assert tool.bar.diameter_mm / 2 + tool.bar.functional_width_mm <= known.internal.minor.min


def test_the_store_is_wide_enough() -> None:
    blades = [tool.blade for tool in STORE.tools if isinstance(tool, PartingTool)]
    assert any(one.width_mm == 2 and one.depth_mm >= 25 for one in blades)
    assert any(one.width_mm == 3 and one.depth_mm >= 45 for one in blades)
    assert any(2 * one.depth_mm >= 120 for one in blades)
    outside = {
        tool.blade.width_mm for tool in STORE.tools if isinstance(tool, GroovingTool) and tool.where == "outside"
    }
    assert {1.1, 1.3, 1.6, 1.85, 2.15, 2.65, 3.15, 4.15} <= outside
    faces = [tool for tool in STORE.tools if isinstance(tool, GroovingTool) and tool.first_cut_mm is not None]
    assert min(one.first_cut_mm[0] for one in faces if one.first_cut_mm) <= 10
    assert max(one.first_cut_mm[1] for one in faces if one.first_cut_mm) >= 200
    assert max(one.blade.depth_mm for one in faces) >= 25
    inside = [tool.bar.least_bore_mm for tool in STORE.tools if isinstance(tool, GroovingTool) and tool.bar is not None]
    assert min(inside) <= 6
    materials = {one.material for one in STORE.inserts}
    assert {"CBN", "ceramic", "cermet", "PCD"} <= materials
    assert {"H"} <= {word[0] for one in STORE.inserts for word in one.grade.split()}
    angles = {one.holder.entering_angle_deg for one in STORE.carriers if one.holder is not None}
    assert {107.5, 117.5} <= angles
    bars = [one.bar for one in STORE.carriers if one.bar is not None]
    assert {"steel", "tungsten alloy", "carbide"} <= {one.material for one in bars}
    assert {5, 50} <= {one.diameter_mm for one in bars}
    assert any(one.damped for one in bars)
    shanks = {round(one.holder.shank_width_mm / 25.4, 4) for one in STORE.carriers if one.holder is not None}
    assert {0.625, 0.75, 1.0, 1.25} <= shanks
    drilled = {tool.d_mm for tool in STORE.tools if isinstance(tool, Drill) and tool.form == "twist"}
    assert all(any(abs(d - n / 10) < 1e-6 for d in drilled) for n in range(5, 201))
    indexable = {tool.d_mm for tool in STORE.tools if isinstance(tool, Drill) and tool.form == "indexable"}
    assert (min(indexable), max(indexable)) == (14, 60)
    assert {3, 32} <= {round(tool.d_mm) for tool in STORE.tools if isinstance(tool, Reamer)}
    assert any(isinstance(tool, EndMill) and tool.material == "uncoated carbide" for tool in STORE.tools)


def test_every_right_hand_has_its_left() -> None:
    for code in CARRIERS:
        head = code.split("-")[1] if code[0].isalpha() and code[1:3].isdigit() else code
        if len(head) > 4 and head[4] == "R":
            other = code.replace(head, f"{head[:4]}L{head[5:]}")
            assert other in CARRIERS, code


def test_it_is_read_as_it_is_written() -> None:
    again = Catalogue.model_validate_json(STORE.model_dump_json())
    assert again == STORE
    assert len(again.tools) > 1500
