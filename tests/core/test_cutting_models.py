"""Cutting models against worked examples and closed forms; every source is named."""

import math
from typing import Any

import pytest

from toreuma.core.cutting.bars import bar_compliance_mm_n, bar_held, bar_limit
from toreuma.core.cutting.engagement import engaged
from toreuma.core.cutting.force import corrected, cutting_force_n, force_with_nose_n, in_plane_n
from toreuma.core.cutting.heat import edge_temperature_c, temperature_rise_k
from toreuma.core.cutting.holes import chip_in_milling_mm, drilling, milling_power_kw, tapping_torque_nm
from toreuma.core.cutting.interruption import hits_per_s, polygon_share
from toreuma.core.cutting.lab import free_situation, ladder, try_cut
from toreuma.core.cutting.life import economic_life_min, fastest_life_min, speed_for_life
from toreuma.core.cutting.situation import Cut, Situation
from toreuma.core.model import Machine
from toreuma.core.model.tool import Bar
from toreuma.shipped.library import machines, materials

C45, GREY = materials()["C45"], materials()["GJL-250"]


def test_a_sharp_edge_has_the_chip_of_its_entering_angle() -> None:
    """Without a nose Woxen's thickness is f sin(kappa) and Colwell's angle is kappa itself."""
    for kappa in (45, 75, 95):
        edge = engaged(3.0, 0.3, 0.0, kappa)
        assert edge.thickness_mm == pytest.approx(0.3 * math.sin(math.radians(kappa)))
        assert edge.entering_deg == pytest.approx(kappa)
        assert force_with_nose_n(C45, 3.0, 0.3, 0.0, kappa) == pytest.approx(cutting_force_n(C45, 3.0, 0.3, kappa))


def test_a_round_edge_is_an_arc() -> None:
    """A cut as deep as the radius: a quarter circle and the feed mark; the chord by Pythagoras."""
    edge = engaged(4.0, 0.2, 4.0, 90.0)
    assert edge.length_mm == pytest.approx(4.0 * (math.pi / 2 + math.asin(0.1 / 4.0)))
    assert edge.entering_deg == pytest.approx(math.degrees(math.atan2(4.0, 4.1)))
    shallow = engaged(0.1, 0.2, 0.8, 95.0)
    assert shallow.entering_deg < 20  # a shallow cut pushes
    _, push = in_plane_n(100.0, 0.1, 0.2, 0.8, 95.0)
    assert push > 0.9 * 55


def test_force_over_the_edge_by_integration() -> None:
    """The mean thickness over the engaged edge times its length is the area of the chip, whatever the nose."""
    for ap, f, nose, kappa in ((2.0, 0.3, 0.8, 95), (0.3, 0.12, 0.8, 93), (5.0, 0.5, 1.2, 75)):
        edge = engaged(ap, f, nose, kappa)
        assert edge.length_mm * edge.thickness_mm == pytest.approx(ap * f)


def test_rake_and_wear_correct_the_force() -> None:
    """Kienzle: 1.5 % per degree from 6 (2 for cast iron); worn edges 30 % more."""
    assert corrected(1000, "P", 6) == 1000
    assert corrected(1000, "P", 16) == pytest.approx(850)
    assert corrected(1000, "K", 2) == 1000
    assert corrected(1000, "P", -6, worn=True) == pytest.approx(1000 * 1.18 * 1.3)


def test_drilling_by_its_closed_form() -> None:
    """M = kc f D^2 / 8 (table books): two lips, each f/2 thick, at a quarter of the diameter."""
    d, f = 10.0, 0.2
    torque, thrust = drilling(C45, d, f, 118)
    kc = C45.kc11_n_mm2 * (f / 2 * math.sin(math.radians(59))) ** -C45.mc
    assert torque == pytest.approx(kc * f * d**2 / 8 / 1000)
    lips = 0.6 * kc * f * d / 2 * math.sin(math.radians(59))
    assert 1 / (1 - 0.25) <= thrust / lips <= 1 / (1 - 0.40)  # the chisel edge has a quarter to two fifths of it
    assert drilling(GREY, d, f, 118)[0] < torque


def test_tapping_grows_with_the_square_of_the_pitch() -> None:
    """M = P^2 d kc / 8000: M10 x 1.5 with kc 3000 asks for 8.4 Nm."""
    kc = C45.kc11_n_mm2 * 0.15**-C45.mc
    assert tapping_torque_nm(C45, 10, 1.5) == pytest.approx(1.5**2 * 10 * kc / 8000)
    assert pytest.approx(8.44, abs=0.01) == 1.5**2 * 10 * 3000 / 8000


def test_chips_thin_out_beside_the_middle_of_a_cutter() -> None:
    """h = fz sqrt(1 - (1 - 2 ae/D)^2): a tenth of the diameter gives 0.6 fz, half of it all."""
    assert chip_in_milling_mm(0.1, 1.0, 10.0) == pytest.approx(0.06)
    assert chip_in_milling_mm(0.1, 5.0, 10.0) == pytest.approx(0.1)
    assert chip_in_milling_mm(0.1, 9.0, 10.0) == 0.1
    full = milling_power_kw(C45, 2.0, 8.0, 0.08, 4, 10.0, 120.0)
    assert milling_power_kw(C45, 4.0, 8.0, 0.08, 4, 10.0, 120.0) == pytest.approx(2 * full)


def test_the_temperature_rises_as_in_the_worked_example() -> None:
    """Manufacturing textbook: U 1.038 J/mm3, rho c 0.003 J/mm3 K, a 50 mm2/s, 100 m/min, 0.5 mm: 353 K."""
    assert temperature_rise_k(1.038, 0.003, 50, 100, 0.5) == pytest.approx(353, abs=1)
    assert temperature_rise_k(1.038, 0.003, 50, 800, 0.5) == pytest.approx(2 * 353, abs=3)  # v^(1/3)
    slow, fast = (edge_temperature_c(C45, 2500, vc, 0.2) for vc in (30, 200))
    assert slow is not None
    assert fast is not None
    assert slow < 600 < fast  # high-speed steel lives at 30 m/min and softens at 200
    bare = C45.changed(conductivity_w_m_k=None)
    assert edge_temperature_c(bare, 2500, 100, 0.2) is None


def test_lives_for_output_and_for_cost_as_in_the_worked_example() -> None:
    """Manufacturing textbook: n 0.125, C 70 m/min, change 2 min, edge 3.00, 0.50 a minute: 14 and 56 min, 50 and 42."""
    fastest, cheapest = fastest_life_min(0.125, 2.0), economic_life_min(0.125, 2.0, 3.0, 0.5)
    assert (fastest, cheapest) == (14, 56)
    assert speed_for_life(70, 0.125, fastest) == pytest.approx(50, abs=0.5)
    assert speed_for_life(70, 0.125, cheapest) == pytest.approx(42, abs=0.5)


USUAL = {"d_mm": 50.0, "stick_out_mm": 60.0, "nose_mm": 0.8, "entering_deg": 95.0, "tool_material": "coated carbide"}


def lab(material: str, machine: Machine, **changes: Any) -> tuple[Situation, Cut]:
    """A free cut, and what it is made in."""
    cut = Cut(changes.pop("ap_mm", 1.5), changes.pop("feed_mm_rev", 0.25), changes.pop("vc_m_min", 150.0))
    return free_situation(materials()[material], machine, **{**USUAL, **changes}), cut


def test_each_limit_ends_a_cut_of_its_own() -> None:
    """One case for every limit, so that none is there for show."""
    slant, toolroom = machines()["slant-bed"], machines()["toolroom lathe"]
    hss = "high-speed steel"
    cases: dict[str, tuple[Situation, Cut]] = {
        "power": lab("42CrMo4", toolroom, ap_mm=6.0, feed_mm_rev=0.35, vc_m_min=130.0),
        "spindle speed": lab("CuZn39Pb3", slant, d_mm=6.0, ap_mm=0.5, stick_out_mm=5.0),
        "corner strength": lab("C45", slant, nose_mm=0.2, feed_mm_rev=0.2, ap_mm=0.5),
        "thin chip": lab("C45", slant, feed_mm_rev=0.01, ap_mm=0.05),
        "heat": lab("C45", slant, tool_material="PCD", vc_m_min=200.0),
        "bend of the piece": lab("C45", slant, d_mm=8.0, stick_out_mm=120.0, vc_m_min=90.0, ap_mm=1.0),
        "edge life": lab("C45", slant, tool_material=hss, vc_m_min=40.0, ap_mm=6.0, feed_mm_rev=0.35),
    }
    for name, (situation, cut) in cases.items():
        worst = try_cut(situation, cut).worst
        assert worst.kind.name == name
        assert worst.share > 1
        assert worst.kind.why.endswith(".")


def test_a_usual_cut_goes() -> None:
    for name in ("C45", "42CrMo4", "GJL-250", "AlMgSi1"):
        material = materials()[name]
        row = next(one for one in material.speeds if one.tool_material == "coated carbide")
        result = try_cut(*lab(name, machines()["slant-bed"], vc_m_min=row.rough_m_min))
        assert result.worst.share <= 1.0, (name, result.worst.kind.name)


def test_the_ladder_ends_where_the_handbooks_say() -> None:
    """High-speed steel gives up by wear and heat between 25 and 63 m/min in C45; carbide on a small machine stalls."""
    rungs = {r.vc_m_min: r for r in ladder(*lab("C45", machines()["slant-bed"], tool_material="high-speed steel"))}
    assert rungs[25].share < 1 < rungs[63].share
    assert rungs[63].limit in ("edge life", "heat")
    small = ladder(*lab("C45", machines()["toolroom lathe"], ap_mm=3.0))
    ends = next(r for r in small if r.share > 1)
    assert ends.limit == "power"


def test_heat_and_life_never_fall_with_speed() -> None:
    shares: dict[str, list[float]] = {"heat": [], "edge life": [], "spindle speed": []}
    for vc in (20, 50, 120, 300, 700):
        for one in try_cut(*lab("C45", machines()["slant-bed"], vc_m_min=float(vc))).limits:
            if one.kind.name in shares:
                shares[one.kind.name].append(one.share)
    for values in shares.values():
        assert values == sorted(values)


def test_materials_are_many_and_whole() -> None:
    every = materials()
    assert len(every) >= 40
    for material in every.values():
        assert material.source
        assert material.coolant
        assert material.conductivity_w_m_k
        assert material.heat_j_kg_k
        assert 100 <= material.kc11_n_mm2 <= 5000
        assert material.speeds, material.name
        for row in material.speeds:
            assert row.part_off_m_min < row.rough_m_min <= row.finish_m_min
    assert all(m.work_hardens for m in every.values() if m.group == "S")
    assert "class D" in every["Ti-6Al-4V"].caution


def test_a_bar_gives_way_as_a_cantilever_and_stiffer_material_less() -> None:
    """Steel bar of 20 mm, 80 mm out, 500 N: 500 80^3 / (3 210000 7854) = 0.0517 mm; carbide 2.86 times stiffer."""
    bar = Bar(entering_angle_deg=95, diameter_mm=20, functional_width_mm=13, functional_length_mm=180, least_bore_mm=25)
    assert 500 * bar_compliance_mm_n(bar, 80) == pytest.approx(0.0517, abs=5e-5)
    carbide = bar.changed(material="carbide")
    assert bar_compliance_mm_n(bar, 80) / bar_compliance_mm_n(carbide, 80) == pytest.approx(600 / 210)
    assert bar_held(bar, 124, 0.05).overhang_ratio == pytest.approx(6.2)
    assert [bar_limit(one) for one in (bar, carbide, bar.changed(damped=True))] == [4.0, 7.0, 10.0]


def test_the_share_of_a_turn_of_a_hexagon() -> None:
    """Round up to the flats, nothing beyond the corners; at 20.785 mm on a hexagon of 36 mm half the turn."""
    assert polygon_share(6, 36, 18) == 1
    assert polygon_share(6, 36, 36 / math.sqrt(3)) == pytest.approx(0, abs=1e-9)
    half = 18 / math.cos(math.pi / 12)  # where each side lies open over 30 degrees
    assert polygon_share(6, 36, half) == pytest.approx(0.5)
    assert hits_per_s(6, 1000) == 100
