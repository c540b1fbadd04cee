"""What the shipped materials say, against table books and usual cautions."""

import pytest

from toreuma.core.cutting.holes import drill_feed_mm_rev, mean_chip_mm
from toreuma.shipped.library import catalogue, materials


@pytest.mark.parametrize(
    ("name", "kc11", "within"),
    [("11SMn30", 1310, 60), ("11SMnPb30", 1200, 60), ("35S20", 1420, 60), ("C45", 2220, 60), ("42CrMo4", 2500, 60)],
)
def test_specific_forces_of_free_cutting_and_plain_steels(name: str, kc11: float, within: float) -> None:
    assert materials()[name].kc11_n_mm2 == pytest.approx(kc11, abs=within)


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


def test_plastics_have_a_speed_for_every_tool_material_of_the_store() -> None:
    there = {one.material for one in catalogue().inserts}
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
