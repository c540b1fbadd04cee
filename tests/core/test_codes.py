"""Designations of inserts, holders and bars against the standards' tables, both ways."""

import math
from dataclasses import replace
from itertools import product

import pytest

from toreuma.core.errors import StandardError
from toreuma.core.standards.codes import (
    BarCode,
    CodeError,
    HolderCode,
    InsertCode,
    bar_text,
    decode,
    holder_text,
    insert_text,
    read_insert,
)
from toreuma.core.standards.codes.decode import equivalents
from toreuma.shipped.standards import code_tables

TABLES = code_tables()


def insert(text: str) -> InsertCode:
    code = decode(text, TABLES)
    assert isinstance(code, InsertCode)
    return code


@pytest.mark.parametrize(
    ("text", "shape", "angle", "clearance", "ic", "thickness", "radius"),
    [
        # ISO 1832:2017 and ANSI B212.4: sizes as their tables give them
        ("CNMG 12 04 08", "C", 80, 0, 12.7, 4.76, 0.8),
        ("cnmg-120408-pm", "C", 80, 0, 12.7, 4.76, 0.8),
        ("DCMT11T304", "D", 55, 7, 9.525, 3.97, 0.4),
        ("VBMT160404", "V", 35, 5, 9.525, 4.76, 0.4),
        ("WNMG080412", "W", 80, 0, 12.7, 4.76, 1.2),
        ("TCMT110204", "T", 60, 7, 6.35, 2.38, 0.4),
        ("TPGN 160308", "T", 60, 11, 9.525, 3.18, 0.8),
        ("SNMM250924", "S", 90, 0, 25.4, 9.52, 2.4),
        ("CCGT03T102", "C", 80, 7, 3.97, 1.98, 0.2),
        ("ECMT090308", "E", 75, 7, 9.525, 3.18, 0.8),
        ("CNMG 432", "C", 80, 0, 12.7, 4.76, 0.8),
        ("CCMT 21.51", "C", 80, 7, 6.35, 2.38, 0.4),
        ("CCMT 2(1.5)1", "C", 80, 7, 6.35, 2.38, 0.4),
        ("CCMT 21.50.5", "C", 80, 7, 6.35, 2.38, 0.2),
        ("DCMT 32.51", "D", 55, 7, 9.525, 3.97, 0.4),
        ("TCMT1.81.51", "T", 60, 7, 5.56, 2.38, 0.4),
        ("TPG 322", "T", 60, 11, 9.525, 3.18, 0.8),
        ("SNMG 866", "S", 90, 0, 25.4, 9.52, 2.4),
        ("VNMG 331", "V", 35, 0, 9.525, 4.76, 0.4),
    ],
)
def test_inserts_read_as_the_tables_say(
    text: str, shape: str, angle: float, clearance: float, ic: float, thickness: float, radius: float
) -> None:
    code = insert(text)
    found = (code.shape, code.included_angle_deg, code.clearance_deg, code.ic_mm, code.thickness_mm)
    assert found == (shape, angle, clearance, ic, thickness)
    assert code.nose_radius_mm == radius


def test_rounds_wipers_edges_hands_and_tails() -> None:
    assert (insert("RCMT 10T3M0").ic_mm, insert("RCMT 10T3M0").nose_radius_mm) == (10, None)
    assert insert("RNMG 120400").ic_mm == 12.7
    assert insert_text(insert("RPMT1204MO"), TABLES.insert, "metric") == "RPMT1204M0"
    assert insert("CNGA120408S01025").tail == "S01025"
    assert (insert("TNGG160404R-F").hand, insert("TNGG160404R-F").tail) == ("R", "F")
    assert insert("RNMG 43").ic_mm == 12.7
    milling = insert("SPKN 1203 ED TR")
    assert (milling.wiper, milling.edge, milling.hand) == ("ED", "T", "R")
    assert (insert("WNMG080408EN-mid").edge, insert("WNMG080408EN-mid").tail) == ("E", "mid")
    assert (insert("TNMG 332L").hand, insert("TNMG 332L").system) == ("L", "inch")
    assert (insert("KNUX160405R11").hand, insert("KNUX160405R11").edge_length_mm) == ("R", 16)
    assert insert("CNMG120408-E").tail == "E"  # behind a dash it is the maker's own
    assert insert("CNMG120408PM").tail == "PM"


@pytest.mark.parametrize("letter", sorted(TABLES.insert.edge_per_ic))
def test_edge_length_symbols_are_the_true_lengths_without_their_fractions(letter: str) -> None:
    """ISO 1832, 5th position. The smallest rhombs and the small trigons have symbols of their own."""
    angle = math.radians(TABLES.insert.shapes[letter].angle_deg)
    for symbol, sizes in TABLES.insert.edge_codes[letter].items():
        for ic in sizes:
            if letter == "W":
                length = 0.6842 * ic
            elif letter in "SRCDEMV":
                length = ic / math.sin(angle) if angle else ic
            else:
                sides = {"T": 3, "P": 5, "H": 6, "O": 8}[letter]
                length = ic * math.tan(math.pi / sides)
            if (letter in "CEM" and ic == 3.97) or symbol == "L3":
                continue
            assert int(symbol) == int(length + 0.01), (symbol, ic, length)


@pytest.mark.long
def test_every_metric_insert_comes_back_from_its_own_text() -> None:
    tables, count = TABLES.insert, 0
    letters = list(product(tables.shapes, [*tables.clearance_deg, "O"], tables.tolerances, tables.fixings))
    for index, (shape, clearance, tolerance, fixing) in enumerate(letters):
        thickness = list(tables.thickness_mm)[index % len(tables.thickness_mm)]
        corner = "M0" if shape == "R" else list(tables.corner_mm)[index % len(tables.corner_mm)]
        sizes = list(tables.round_metric_mm) if shape == "R" else list(tables.edge_codes.get(shape, {"16": ()}))
        size = sizes[index % len(sizes)]
        text = f"{shape}{clearance}{tolerance}{fixing}{size}{thickness}{corner}"
        assert insert_text(read_insert(text, tables), tables, "metric") == text
        count += 1
    for shape, codes in tables.edge_codes.items():
        for size, thickness, corner in product(codes, list(tables.thickness_mm)[::2], tables.corner_mm):
            text = f"{shape}NMG{size}{thickness}{'00' if shape == 'R' else corner}"
            assert insert_text(read_insert(text, tables), tables, "metric") == text
            count += 1
    assert count > 30_000


def test_every_inch_insert_comes_back_from_its_own_text_and_from_its_metric_twin() -> None:
    tables = TABLES.insert
    sizes = product(tables.inch_size_mm, tables.inch_thickness_mm, tables.inch_corner_mm)
    for index, (size, thick, corner) in enumerate(sizes):
        shape = "STCDEMV"[index % 7] if size == "10" else "STCDEMVW"[index % 8]
        text = f"{shape}NMG{size}{thick}{corner}"
        code = insert(text)
        assert insert_text(code, tables, "inch") == text
        metric = insert_text(code, tables, "metric")
        twin = insert(metric)
        assert (twin.ic_mm, twin.thickness_mm, twin.nose_radius_mm) == (
            code.ic_mm,
            code.thickness_mm,
            code.nose_radius_mm,
        )


def test_holders_and_bars_read_as_the_tables_say() -> None:
    holder = decode("PCLNR 2525 M12", TABLES)
    assert isinstance(holder, HolderCode)
    assert (holder.entering_angle_deg, holder.shank_height_mm, holder.length_mm, holder.ic_mm) == (95, 25, 150, 12.7)
    inch = decode("MCLNR-164D", TABLES)
    assert isinstance(inch, HolderCode)
    assert (inch.shank_height_mm, inch.shank_width_mm, inch.ic_mm) == (25.4, 25.4, 12.7)
    assert inch.length_mm == pytest.approx(152.4)
    tall = decode("DCLNL 86 5", TABLES)
    assert isinstance(tall, HolderCode)
    assert (tall.shank_width_mm, tall.shank_height_mm) == (25.4, pytest.approx(38.1))
    bar = decode("e12q sducr07", TABLES)
    assert isinstance(bar, BarCode)
    assert (bar.material, bar.coolant, bar.shank_diameter_mm, bar.length_mm) == ("carbide", True, 12, 180)
    sixteenths = decode("A16T-PCLNR4", TABLES)
    assert isinstance(sixteenths, BarCode)
    assert (sixteenths.system, sixteenths.shank_diameter_mm) == ("inch", 25.4)
    angles = {"J": 93, "L": 95, "G": 90, "H": 107.5, "Q": 107.5, "V": 72.5, "N": 63, "P": 117.5, "K": 75}
    for style, angle in angles.items():
        assert decode(f"SD{style}CR2020K11", TABLES).entering_angle_deg == angle  # type: ignore[union-attr]


@pytest.mark.long
def test_every_holder_and_bar_comes_back_from_its_own_text() -> None:
    holder, count = TABLES.holder, 0
    heads = product(holder.clamping, "CDSTVWR", holder.styles, "NCPB", "RLN")
    for index, head in enumerate(heads):
        letters = "".join(head)
        shank = [f"{size:02.0f}" for size in holder.shank_mm][index % len(holder.shank_mm)]
        edge = list(TABLES.insert.edge_codes[head[1]])[index % 10]
        length = [*holder.length_mm, "X"][index % 22]
        text = f"{letters} {shank}{shank} {length}{edge}"
        code = decode(text, TABLES)
        assert isinstance(code, HolderCode)
        assert holder_text(code, TABLES, "metric") == text
        kind = list(TABLES.bar.kinds)[index % len(TABLES.bar.kinds)]
        figures = [f"{size:02.0f}" for size in TABLES.bar.diameter_mm][index % len(TABLES.bar.diameter_mm)]
        bar = decode(f"{kind}{figures}{length}-{letters}{edge}", TABLES)
        assert isinstance(bar, BarCode)
        assert bar_text(bar, TABLES, "metric") == f"{kind}{figures}{length}-{letters}{edge}"
        count += 1
    assert count > 5_000


@pytest.mark.parametrize(
    ("text", "position", "found", "nearest"),
    [
        ("QNMG120408", 1, "Q", "SNMG120408"),
        ("CZMG120408", 2, "Z", ""),
        ("CNZG120408", 3, "Z", ""),
        ("CNM7120408", 4, "7", ""),
        ("CNMG120499", 7, "99", "CNMG120440"),
        ("CNMG1204", 7, "", "CNMG120400"),
        ("PCLNR2526M12", 7, "26", "PCLNR2525M12"),
        ("PCLNR2525Z12", 8, "Z", ""),
        ("A25Z-PCLNR12", 3, "Z", ""),
        ("", 1, "", ""),
        ("12345", 1, "1", ""),
    ],
)
def test_a_wrong_symbol_says_where_what_and_what_is_near(text: str, position: int, found: str, nearest: str) -> None:
    with pytest.raises(CodeError) as caught:
        decode(text, TABLES)
    fault = caught.value
    assert (fault.position, fault.found) == (position, found)
    assert fault.allowed
    assert not nearest or nearest in fault.nearest
    for code in fault.nearest:
        decode(code, TABLES)


def test_sizes_without_a_symbol_name_the_next_ones() -> None:
    code = replace(insert("CNMG120408"), nose_radius_mm=0.9)
    with pytest.raises(StandardError, match=r"0\.8 or 1 mm"):
        insert_text(code, TABLES.insert, "metric")
    assert "inch" not in equivalents(insert("RCMT10T3M0"), TABLES)
    with pytest.raises(StandardError):
        decode("C" * 500, TABLES)
    assert read_insert("CNMG120408", TABLES.insert).positions[2].meaning.startswith("IC ± 0.08,")


@pytest.mark.parametrize(
    ("text", "ic_um", "corner_um"),
    [
        # ISO 1832, classes that are not ground: corners of slim rhombs may be off by more
        ("CNMG090308", 50, 80),
        ("CNMG120408", 80, 130),
        ("CNMG160612", 100, 150),
        ("CNMG190612", 100, 150),
        ("SNMG250924", 130, 180),
        ("TNMG160408", 50, 80),
        ("WNMG080408", 80, 130),
        ("DCMT070204", 50, 110),
        ("DCMT11T304", 50, 110),
        ("DNMG150608", 80, 150),
        ("VBMT110304", 50, 160),
        ("VNMG160408", 50, 160),
        ("DNUG150608", 130, 200),
        ("DNGG150608", 25, 25),
    ],
)
def test_tolerances_of_inserts(text: str, ic_um: float, corner_um: float) -> None:
    code = insert(text)
    found = [TABLES.insert.tolerance_um(code.tolerance, of, code.ic_mm, code.shape) for of in ("ic", "corner")]
    assert found == [ic_um, corner_um]
