"""What the shipped materials say, against table books and usual cautions."""

import pytest

from toreuma.core.cutting.holes import drill_feed_mm_rev, mean_chip_mm, mill_feed_mm
from toreuma.core.errors import StandardError
from toreuma.core.standards.material_names import material_named, plain
from toreuma.shipped.library import catalogue, material_names, materials

FORCES = [
    ("11SMn30", 1310, None), ("11SMnPb30", 1200, None), ("35S20", 1420, None), ("C15", 1820, 0.22),
    ("C45", 2220, 0.14), ("C60", 2130, 0.18), ("S355J2", 1990, 0.26), ("16MnCr5", 2100, 0.26), ("42CrMo4", 2500, 0.26),
    ("1.4301", 2350, 0.21), ("1.4462", 2450, 0.22), ("GJL-200", 1020, 0.25), ("GJL-250", 1160, 0.26),
    ("GJS-500", 1480, 0.24), ("AlMgSi1", 700, 0.25), ("CuZn39Pb3", 780, 0.18), ("CuSn8", 1050, 0.22),
    ("Ti-6Al-4V", 1370, 0.21), ("2.4668", 2600, 0.24), ("steel 55 HRC", 4500, 0.20),
]  # fmt: skip
"""kc1.1 in N/mm2 and mc as table books list them (Kienzle; turning, sharp edge)."""


@pytest.mark.parametrize(("name", "kc11", "mc"), FORCES)
def test_specific_forces_are_those_of_the_table_books(name: str, kc11: float, mc: float | None) -> None:
    material = materials()[material_named(name, materials(), material_names()).name]
    assert material.kc11_n_mm2 == pytest.approx(kc11, rel=0.05)
    if mc is not None:
        assert material.mc == pytest.approx(mc, abs=0.02)


CAREFUL = {
    "C45": (0.05, 0.10, 0.15, 0.25, 0.35),
    "42CrMo4": (0.04, 0.08, 0.10, 0.15, 0.20),
    "1.4301": (0.03, 0.06, 0.08, 0.12, 0.18),
    "GJL-250": (0.10, 0.20, 0.30, 0.40, 0.60),
    "AlMgSi1": (0.10, 0.20, 0.30, 0.40, 0.60),
    "CuZn39Pb3": (0.10, 0.15, 0.30, 0.40, 0.60),
}
"""Feeds of twist drills of high-speed steel, mm/rev, for 2.5, 5, 10, 18 and 32 mm in a careful table book; others go
up to half as high again."""


@pytest.mark.parametrize("name", CAREFUL)
def test_feeds_of_drills_lie_in_the_scatter_of_table_books(name: str) -> None:
    material = materials()[material_named(name, materials(), material_names()).name]
    for d, feed in zip((2.5, 5.0, 10.0, 18.0, 32.0), CAREFUL[name], strict=True):
        assert 0.8 * feed <= drill_feed_mm_rev(material, "high-speed steel", d) <= 1.75 * feed, d


@pytest.mark.parametrize("name", ["X20Cr13", "X14CrMoS17", "X5CrNiCuNb16-4"])
def test_ferritic_and_martensitic_stainless_steels_are_cut_like_steel(name: str) -> None:
    assert materials()[name].group == "P"


def test_harder_steel_is_not_cut_faster_and_not_with_high_speed_steel() -> None:
    speeds = {
        name: {row.tool_material: row for row in materials()[name].speeds} for name in ("steel 55 HRC", "58 HRC case")
    }
    assert speeds["58 HRC case"]["coated carbide"].finish_m_min <= speeds["steel 55 HRC"]["coated carbide"].finish_m_min
    assert 25 <= speeds["58 HRC case"]["coated carbide"].rough_m_min <= 35
    assert all("high-speed steel" not in rows for rows in speeds.values())


def test_plastics_have_a_speed_for_every_insert_that_is_for_them() -> None:
    there = {one.material for one in catalogue().inserts if "N" in one.grade}
    for name in ("PA6", "POM-C"):
        assert there <= {row.tool_material for row in materials()[name].speeds}


@pytest.mark.parametrize("name", ["Ti-6Al-4V", "Ti grade 2"])
def test_burning_titanium_is_smothered_dry(name: str) -> None:
    caution = materials()[name].caution
    assert all(word in caution for word in ("class D", "dry sand", "no water", "no CO2", "no ABC"))


@pytest.mark.parametrize(
    ("name", "word"),
    [
        ("11SMnPb30", "lead"),
        ("CuZn39Pb3", "lead"),
        ("nickel 718", "nickel"),
        ("625", "nickel"),
        ("Co-Cr-Mo", "cobalt"),
        ("GJL-250", "cast iron"),
        ("GJS-500", "cast iron"),
        ("POM-C", "formaldehyde"),
        ("AZ31", "no water"),
        ("AZ91", "class d"),
        ("CuBe2", "beryllium"),
        ("CuZn36Pb3", "lead"),
        ("CuSn7Zn4Pb7", "lead"),
        ("nickel C-276", "nickel"),
        ("PTFE", "poisonous"),
        ("PA66-GF30", "glass"),
        ("Ti-6Al-4V ELI", "dry sand"),
    ],
)
def test_dust_and_fumes_that_harm_are_said(name: str, word: str) -> None:
    assert word in materials()[name].caution.lower()


def test_like_materials_wear_edges_alike() -> None:
    """One exponent of tool life for a group and a tool material."""
    found: dict[tuple[str, str], set[float]] = {}
    for material in materials().values():
        for row in material.speeds:
            found.setdefault((material.group, row.tool_material), set()).add(row.exponent)
    assert {key: values for key, values in found.items() if len(values) > 1} == {}


@pytest.mark.parametrize(
    ("name", "d", "low", "high"),
    [
        ("nickel 718", 10, 0.08, 0.10),
        ("1.4404", 10, 0.10, 0.12),
        ("C45", 10, 0.18, 0.22),
        ("42CrMo4", 10, 0.14, 0.18),
        ("GJL-250", 10, 0.22, 0.30),
        ("AlMgSi1", 10, 0.22, 0.30),
        ("CuZn39Pb3", 10, 0.25, 0.35),
        ("Ti-6Al-4V", 10, 0.08, 0.12),
        ("C45", 5, 0.10, 0.14),
        ("C45", 20, 0.28, 0.36),
        ("1.4404", 5, 0.06, 0.08),
    ],
)
def test_feeds_of_drills_follow_material_and_diameter(name: str, d: float, low: float, high: float) -> None:
    feed = drill_feed_mm_rev(materials()[name], "high-speed steel", d)
    assert feed is not None
    assert low <= feed <= high


def test_the_mean_chip_of_a_full_slot() -> None:
    assert mean_chip_mm(0.1, 10, 10) == pytest.approx(0.0637, abs=1e-4)
    assert mean_chip_mm(0.1, 0.1, 10) == pytest.approx(0.1 * (0.1 / 10) ** 0.5, rel=0.01)


NAMES = """4140 42CrMo4; 4340 34CrNiMo6; 12L14 11SMnPb30; 1215 11SMn30; 1018 1018; 1020 C22; 1045 C45; 8620 20NiCrMo2-2;
1144 1144; 52100 100Cr6; 5140 41Cr4; 6150 51CrV4; 1.6587 18CrNiMo7-6; 17CrNiMo6 18CrNiMo7-6; 1.0503 C45; 1.7225 42CrMo4;
D2 X153CrMoV12; O1 100MnCrW4; O2 90MnCrV8; H13 X40CrMoV5-1; P20 40CrMnMo7; A2 tool steel X100CrMoV5; M2 HS6-5-2;
1.2379 X153CrMoV12; 1.2312 40CrMnMoS8-6; 304 1.4301; 304L 1.4307; 303 X8CrNiS18-9; 316 1.4401; 316L 1.4404; 321 1.4541;
316Ti X6CrNiMoTi17-12-2; 904L 1.4539; 2205 1.4462; 2507 1.4410; UNS S32750 1.4410; S32760 1.4501; 410 X12Cr13;
416 X12CrS13; 420 X20Cr13; 430 X6Cr17; 431 X17CrNi16-2; 440C X105CrMo17; 17-4PH X5CrNiCuNb16-4; 630 X5CrNiCuNb16-4;
GG25 GJL-250; GGG40 GJS-400; GGG60 GJS-600; CGI GJV-450; ADI GJS-800 ADI; 6061 EN AW-6061; 6061-T6 EN AW-6061;
6082 AlMgSi1; 7075 EN AW-7075; 2011 EN AW-2011; 2024 EN AW-2024; 6026 EN AW-6026; 5083 EN AW-5083; A390 AlSi17Cu4Mg;
C360 CuZn36Pb3; CW614N CuZn39Pb3; CW617N CuZn40Pb2; CW510L CuZn42; CW724N CuZn21Si3P; C932 CuSn7Zn4Pb7; C18150 CuCr1Zr;
C17200 CuBe2; C145 CuTeP; C630 CuAl10Ni5Fe4; K500 nickel K500; alloy 600 nickel 600; C276 nickel C-276; A286 A286;
2.4668 nickel 718; UNS N06625 625; grade 5 Ti-6Al-4V; grade 23 Ti-6Al-4V ELI; grade 2 Ti grade 2; AZ91 AZ91; PEEK PEEK;
PTFE PTFE; POM POM-C; acetal POM-C; UHMW PE-UHMW; PVDF PVDF; PET PET; PC PC; nylon 66 PA66; PA66 GF30 PA66-GF30"""


def _named() -> list[tuple[str, str]]:
    known = sorted(materials(), key=len, reverse=True)
    found = []
    for one in " ".join(NAMES.split()).split("; "):
        name = next(each for each in known if one.endswith(f" {each}"))
        found.append((one.removesuffix(f" {name}"), name))
    return found


@pytest.mark.parametrize(("typed", "name"), _named())
def test_a_material_is_found_by_any_of_its_names(typed: str, name: str) -> None:
    assert material_named(typed, materials(), material_names()).name == name


@pytest.mark.parametrize(
    ("typed", "word"), [("6061-T651", "T651"), ("42CrMo4+QT", "QT"), ("C45 normalised", "normalised")]
)
def test_a_state_that_is_not_looked_at_is_said(typed: str, word: str) -> None:
    assert word in material_named(typed, materials(), material_names()).note


def test_an_unknown_material_is_told_the_nearest() -> None:
    with pytest.raises(StandardError, match=r"choose 42CrMo4, \S+, \S"):
        material_named("4141", materials(), material_names())


def test_no_name_stands_for_two_materials() -> None:
    owners: dict[str, set[str]] = {}
    for name, others in material_names().names.items():
        assert name in materials()
        for one in (name, *others.same):
            owners.setdefault(plain(one), set()).add(name)
    assert {one: names for one, names in owners.items() if len(names) > 1} == {}
    assert all(plain(near) not in owners for others in material_names().names.values() for near in others.near)


def test_there_are_materials_enough_and_every_one_can_be_cut() -> None:
    assert len(materials()) >= 150
    for name, material in materials().items():
        rows = {row.tool_material: row for row in material.speeds}
        assert rows, name
        assert all(row.finish_m_min >= row.rough_m_min >= row.part_off_m_min for row in rows.values()), name
        carbide = rows["coated carbide"].rough_m_min
        for faster in ("ceramic", "CBN", "PCD"):
            assert faster not in rows or rows[faster].rough_m_min > carbide, (name, faster)
        if "high-speed steel" in rows:
            assert rows["high-speed steel"].rough_m_min < carbide, name
        assert name in material_names().names


def test_hardened_steel_has_ceramic_and_cbn_and_grey_iron_too() -> None:
    for name in ("steel 50 HRC", "steel 55 HRC", "58 HRC case", "steel 60 HRC", "GJL-250"):
        assert {"ceramic", "CBN"} <= {row.tool_material for row in materials()[name].speeds}
    assert all(
        "PCD" not in {row.tool_material for row in one.speeds} for one in materials().values() if one.group != "N"
    )


@pytest.mark.parametrize(
    ("name", "d", "low", "high"),
    [
        ("nickel 718", 10, 0.02, 0.03),
        ("1.4404", 10, 0.035, 0.045),
        ("Ti-6Al-4V", 10, 0.035, 0.045),
        ("C45", 10, 0.045, 0.06),
        ("EN AW-6061", 10, 0.07, 0.09),
        ("GJL-250", 10, 0.055, 0.075),
        ("58 HRC case", 10, 0.01, 0.025),
        ("C45", 4, 0.018, 0.03),
        ("C45", 20, 0.08, 0.1),
    ],
)
def test_tooth_feeds_of_mills_follow_material_and_diameter(name: str, d: float, low: float, high: float) -> None:
    feed = mill_feed_mm(materials()[name], "coated carbide", d)
    assert feed is not None
    assert low <= feed <= high
