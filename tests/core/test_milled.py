"""Driven tools: holes beside the axis, flats and slots are planned, written, read back and cut in space."""

import itertools
import math
import random
import re

import numpy as np
import pytest
import shapely
from shapely import LineString, Point, Polygon

from tests.support.kept import plan, plan_sides, prove
from tests.support.long import everyday
from tests.support.milled import driven, milled_job
from toreuma.core.auto.propose import propose_route
from toreuma.core.critic import critique
from toreuma.core.cutting.holes import mill_feed_mm
from toreuma.core.dialect import Dialect
from toreuma.core.errors import PartError
from toreuma.core.findings import Finding
from toreuma.core.geometry.milled import metal_of_turn, sunk_of
from toreuma.core.geometry.region import Region, region_from_points
from toreuma.core.geometry.solids import prism
from toreuma.core.model import Flats, HolePattern, HolesBeside, Job, MillFlats, MillSlot, Slot
from toreuma.core.model.tool import Drill
from toreuma.core.plan import Plan
from toreuma.core.plan.mill.outward import Outward
from toreuma.core.post import post
from toreuma.core.prove import Proof
from toreuma.core.prove.layers import Layers
from toreuma.core.prove.metal import Metal
from toreuma.core.read import read
from toreuma.core.simulate.clock import motion_time_s
from toreuma.engine.proving import prove_plan as prove_afresh
from toreuma.shipped.library import catalogue, demo_job, machines

SQUARE = np.array([[-10.0, -10.0], [10.0, -10.0], [10.0, 10.0], [-10.0, 10.0]])
HOLES = HolePattern(count=6, d_mm=6.6, circle_d_mm=64, depth_mm=30)
BLIND = HolePattern(on="outside", count=3, d_mm=6.6, depth_mm=8, z_mm=-10, start_deg=15)
FLATS = Flats(count=2, distance_mm=22, from_z_mm=0, to_z_mm=-12)
KEYWAY = Slot(width_mm=8, depth_mm=4, from_z_mm=-2, to_z_mm=-18, start_deg=90)
SPOT, DRILL, MILL = "SP 10 90", "TD 6.6 HM5D 140", "EM 16 HM"


def drilled(feature: HolePattern = HOLES, mount: str = "axial") -> Job:
    tools = (driven(SPOT, "T13", 13, mount), driven(DRILL, "T14", 14, mount))
    names = ("T13", "T14")
    operations = [HolesBeside(id=f"h{n}", tool=name, feature=0) for n, name in enumerate(names)]
    return milled_job([feature], tools, operations)


def milled(feature: Flats | Slot, code: str = MILL, mount: str = "radial", **changes: object) -> Job:
    kind = MillFlats if isinstance(feature, Flats) else MillSlot
    return milled_job([feature], [driven(code, "T13", 13, mount)], [kind(id="m", tool="T13", feature=0, **changes)])


def text_of(planned: Plan, language: Dialect) -> str:
    return post(planned, language).text


def proof_of(planned: Plan, text: str, language: Dialect) -> Proof:
    return prove(planned.job, planned.scene, read(text, language, planned.scene.reference), planned.declared)


def errors(proof: Proof) -> set[str]:
    return {one.code for one in proof.findings if one.severity == "error"}


POCKET = Slot(on="front", width_mm=24, depth_mm=6, length_mm=32, round_ends=False, corner_radius_mm=4)


def begun() -> Job:
    """A pocket in which the mill goes down in a drilled hole."""
    tools = (driven("EM 8 HM", "T13", 13).changed(centre_cutting=False), driven(DRILL, "T14", 14))
    cuts = [MillSlot(id="m", tool="T13", feature=0, start_tool="T14")]
    return milled_job([POCKET.changed(corner_radius_mm=5)], tools, cuts)


def edged(feature: Slot | Flats, mount: str, breaker: str = SPOT) -> Job:
    """A slot, pocket or flat whose edge a spot drill or a chamfer mill breaks."""
    kind, code = (MillSlot, "EM 6 HM") if isinstance(feature, Slot) else (MillFlats, MILL)
    tools = (driven(code, "T13", 13, mount), driven(breaker, "T14", 14, mount))
    return milled_job([feature], tools, [kind(id="m", tool="T13", feature=0, edge_tool="T14")])


CUT = {
    "holes in a face": drilled(),
    "holes round the outside": drilled(BLIND, "radial"),
    "flats from above": milled(FLATS),
    "flats from their side": milled(FLATS, mount="axial"),
    "flats by turning the work": milled(FLATS, mount="axial", by="polar"),
    "a hexagon": milled(Flats(count=6, distance_mm=23, from_z_mm=0, to_z_mm=-10), by="y"),
    "flats between walls": milled(Flats(count=4, distance_mm=35, from_z_mm=-24, to_z_mm=-38), "EM 10 HM"),
    "a keyway as wide as its mill": milled(KEYWAY, "EM 8 HM"),
    "a keyway with walls of its own": milled(KEYWAY, "EM 6 HM"),
    "a wide pocket": milled(Slot(width_mm=14, depth_mm=5, from_z_mm=0, to_z_mm=-18, count=2), "EM 6 HM"),
    "a slot in the face": milled(Slot(on="front", width_mm=8, depth_mm=3, length_mm=30), "EM 6 HM", "axial"),
    "a pocket in the face": milled(POCKET, "EM 6 HM", "axial"),
    "pockets beside the axis": milled(
        Slot(
            on="front",
            width_mm=10,
            depth_mm=4,
            length_mm=12,
            off_mm=15,
            count=3,
            round_ends=False,
            corner_radius_mm=3.2,
        ),
        "EM 6 HM",
        "axial",
    ),
    "a pocket round the outside": milled(
        Slot(width_mm=12, depth_mm=4, from_z_mm=-3, to_z_mm=-20, round_ends=False, corner_radius_mm=4), "EM 6 HM"
    ),
    "a pocket with a start hole": begun(),
    "a pocket with its edge broken": edged(POCKET, "axial"),
    "flats with their edges broken": edged(FLATS, "radial"),
    "flats from their side, edges broken": edged(FLATS, "axial"),
    "a keyway with its edge broken": edged(KEYWAY.changed(width_mm=8, to_z_mm=-14), "radial"),
    "a pocket, its edge broken by a chamfer mill": edged(POCKET, "axial", "CM 6 90"),
    "flats, their edges broken by a chamfer mill": edged(FLATS, "radial", "CM 6 90"),
    "flats from their side, by a chamfer mill": edged(FLATS, "axial", "CM 10 90"),
    "a keyway, its edge broken by a chamfer mill": edged(KEYWAY.changed(width_mm=8, to_z_mm=-14), "radial", "CM 4 90"),
    "slots right across": milled(Slot(on="front", width_mm=20, depth_mm=3, count=2), "EM 16 HM", "axial", leave_mm=0),
}


@pytest.mark.parametrize("name", CUT)
def test_an_inch_program_makes_the_same_moves(name: str, language: Dialect) -> None:
    moves = []
    for units in ("mm", "inch"):
        planned = plan(CUT[name].changed(units=units))
        moves.append(read(text_of(planned, language), language, planned.scene.reference).motions)
    assert len(moves[0]) == len(moves[1])
    for one, other in zip(*moves, strict=True):
        assert (one.event, one.is_rapid, one.station) == (other.event, other.is_rapid, other.station)
        assert math.dist(one.end, other.end) < 0.001
        assert (one.driven is None) == (other.driven is None)
        if one.driven is not None and other.driven is not None:
            assert one.driven.y[1] == pytest.approx(other.driven.y[1], abs=0.001)
            assert one.driven.c_deg == pytest.approx(other.driven.c_deg, abs=0.001)
        assert (one.feed or 0) == pytest.approx(other.feed or 0, rel=0.002, abs=0.1)


@pytest.mark.parametrize("name", everyday(CUT, "a pocket in the face"))
def test_what_is_planned_is_what_is_cut(name: str, language: Dialect) -> None:
    planned = plan(CUT[name])
    assert all(one.motions for one in planned.operations), [one.findings for one in planned.operations]
    assert not any(one.severity == "error" for one in planned.all_findings)
    proof = proof_of(planned, text_of(planned, language), language)
    assert errors(proof) == set()
    assert proof.gouge_um <= 2
    assert proof.leftover_um == 0
    assert proof.contacts == ()
    assert proof.time_s == pytest.approx(planned.times.total_s, rel=0.02, abs=4)


@pytest.mark.long
def test_random_features_close(language: Dialect) -> None:
    rng = random.Random(7)
    for _ in range(5):
        count = rng.randint(1, 5)
        holes = HolePattern(
            count=count, d_mm=6.6, circle_d_mm=round(rng.uniform(60, 68), 1), start_deg=rng.uniform(-90, 90),
            depth_mm=round(rng.uniform(5, 30), 2),
        )  # fmt: skip
        flats = Flats(
            count=rng.randint(1, 6), distance_mm=round(rng.uniform(21, 24.5), 2), from_z_mm=0,
            to_z_mm=-round(rng.uniform(8, 20), 2), start_deg=rng.uniform(0, 90),
        )  # fmt: skip
        tools = (driven(DRILL, "T14", 14), driven(rng.choice(["EM 8 HM", MILL]), "T15", 15, "radial"))
        operations = (HolesBeside(id="h", tool="T14", feature=0), MillFlats(id="f", tool="T15", feature=1))
        planned = plan(milled_job([holes, flats], tools, operations))
        proof = proof_of(planned, text_of(planned, language), language)
        assert (errors(proof), proof.contacts, proof.leftover_um) == (set(), (), 0), (holes, flats)
        assert proof.gouge_um <= 2


SABOTAGE = [
    ("holes in a face", r"X64\.", "X64.2", {"milled.gouge", "milled.left"}),
    ("holes in a face", r"G0 C120\.", "G0 C121.", {"milled.gouge", "milled.left"}),
    ("holes round the outside", r"\n(N\d+ )M61", "", {"c_axis.off"}),
    ("flats from above", r"X44\.(?!\d)", "X43.9", {"milled.gouge"}),
    ("flats from above", r"X44\.(?!\d)", "X44.1", {"milled.left"}),
    ("flats from above", r"M64\n(N\d+ )G0 C180\.", "G0 C180.", {"c_axis.braked"}),
    ("a keyway as wide as its mill", r"N130 X54\.", "N130 X44.", {"contact"}),
    ("flats by turning the work", r"(N\d+ )G12\.1\n", "", {"milled.left"}),
    ("holes in a face", r"M53 S\d+", "M55", {"spindle.stopped"}),
]


@pytest.mark.parametrize(("name", "pattern", "instead", "wanted"), SABOTAGE)
def test_spoiled_programs_are_caught(
    name: str, pattern: str, instead: str, wanted: set[str], language: Dialect
) -> None:
    planned = plan(CUT[name])
    text = text_of(planned, language)
    spoiled = re.sub(pattern, instead, text)
    assert spoiled != text
    assert wanted <= errors(proof_of(planned, spoiled, language))


def findings_of(job: Job) -> dict[str, Finding]:
    return {one.code: one for one in plan(job).all_findings}


def test_what_cannot_be_is_said_with_its_cure() -> None:
    still = drilled(HOLES, "still")
    found = findings_of(still)["tool.still"]
    assert not any(one.severity == "error" for one in plan(found.cures[0].apply(still)).of("h1").findings)
    assert "tool.mount" in findings_of(drilled(HOLES, "radial"))
    assert "carrier.live" in findings_of(
        milled_job([HOLES], (driven(SPOT, "T13", 3),), drilled().operations[:1], "slant-bed")
    )
    assert "mill.wide" in findings_of(milled(KEYWAY, "EM 10 HM"))
    assert "mill.wide" in findings_of(milled(Flats(count=1, distance_mm=35, from_z_mm=-24, to_z_mm=-36), MILL))
    assert "polar.radial" in findings_of(milled(FLATS, by="polar"))
    assert "holes.size" in findings_of(drilled(HOLES.changed(d_mm=7.0)))
    assert "feature.back" in findings_of(drilled(HOLES.changed(on="back")))
    assert "flats.behind" in findings_of(milled(FLATS.changed(from_z_mm=-2), mount="axial"))
    assert "feature.none" in findings_of(drilled().with_setup(operations=(HolesBeside(id="x", tool="T13", feature=9),)))


def test_a_carrier_without_y_turns_the_work() -> None:
    job = milled(FLATS, mount="axial")
    plain = job.machine.carriers[1].changed(y_mm=0.0)
    machine = job.machine.changed(carriers=(job.machine.carriers[0], plain))
    planned = plan(job.changed(machine=machine))
    assert any(one.driven is not None and one.driven.polar for one in planned.of("m").motions)
    assert "y.none" in findings_of(milled(FLATS).changed(machine=machine))
    short = job.machine.changed(carriers=(job.machine.carriers[0], job.machine.carriers[1].changed(y_mm=10.0)))
    found = findings_of(job.changed(machine=short))["y.travel"]
    assert plan(found.cures[0].apply(job.changed(machine=short))).of("m").motions


def test_chip_thinning_raises_the_feed_of_a_narrow_cut() -> None:
    wide, narrow = plan(milled(FLATS)).of("m"), plan(milled(FLATS, mount="axial")).of("m")
    ae, d = narrow.reasons["ae"].number, 16.0
    thin = 1 / math.sqrt(1 - (1 - 2 * ae / d) ** 2)  # h = fz sqrt(1 - (1 - 2 ae/D)^2)
    usual = mill_feed_mm(milled(FLATS).stock.material, "coated carbide", d)
    assert usual == pytest.approx(0.05 * 1.6**0.85)  # C45, a mill of 16
    assert narrow.reasons["fz"].number == pytest.approx(usual * min(thin, 2.0), abs=1e-4)
    assert wide.reasons["fz"].number == pytest.approx(usual, abs=1e-4)
    assert wide.reasons["mill_bend"].number <= 30.001


def test_the_axis_of_rotation_takes_its_time() -> None:
    job = drilled()
    axis = machines()[job.machine.name].c_axis
    events = [one for one in plan(job).of("h0").motions if one.event]
    begun = ["c_axis_on", "index", "brake_on", "brake_off", "index"]
    assert [one.event for one in events[:5]] == begun
    assert motion_time_s(events[1], job.machine) == 0
    assert motion_time_s(events[4], job.machine) == pytest.approx(60 / axis.rapid_deg_s)
    assert motion_time_s(events[2], job.machine) == axis.brake_s


def test_an_angle_that_is_not_told_is_said(language: Dialect) -> None:
    planned = plan(drilled())
    text = text_of(planned, language)
    assert len(re.findall(r"C0\.\n", text)) == 2  # one for each tool, though it stands there
    reading = read(text.replace("G0 C0.\n", "M0\n", 1), language, planned.scene.reference)
    assert [one.code for one in reading.findings if one.code == "c_axis.untold"] == ["c_axis.untold"]


PART = region_from_points([(0.0, 0.0), (0.0, 40.0), (-50.0, 40.0), (-50.0, 0.0)])


def test_the_share_of_a_turn_that_is_metal() -> None:
    """A circle through holes: each takes 2 acos((r^2 + a^2 - R^2) / 2ra); a flat takes 2 acos(a/r)."""
    holes = sunk_of(0, HolePattern(count=6, d_mm=8, circle_d_mm=60), PART)
    taken = 6 * 2 * math.acos((30**2 + 31**2 - 4**2) / (2 * 30 * 31)) / (2 * math.pi)
    turn = metal_of_turn(holes, -10, 31)
    assert turn.share == pytest.approx(1 - taken, abs=0.006)
    assert turn.hits == 6
    assert turn.gap_deg == pytest.approx(360 * taken / 6, abs=0.5)
    assert metal_of_turn(holes, -10, 20).share == 1
    flats = sunk_of(0, Flats(count=2, distance_mm=36, from_z_mm=0, to_z_mm=-12), PART)
    assert metal_of_turn(flats, -5, 39).share == pytest.approx(1 - 2 * math.acos(36 / 39) / math.pi, abs=0.003)
    assert metal_of_turn(flats, -20, 39).share == 1
    slot = sunk_of(0, Slot(width_mm=10, depth_mm=4, from_z_mm=0, to_z_mm=-20, round_ends=False), PART)
    assert metal_of_turn(slot, -10, 38).gap_deg == pytest.approx(math.degrees(2 * math.asin(5 / 38)), abs=0.5)
    blind = sunk_of(0, HolePattern(on="back", count=1, d_mm=8, circle_d_mm=60, depth_mm=10), PART)
    assert metal_of_turn(blind, -45, 30).hits == 1
    assert metal_of_turn(blind, -35, 30).hits == 0


def test_pecks_begin_where_metal_begins() -> None:
    """A deep hole is pecked, and a spot goes in as far as its cone makes the edge."""
    planned = plan(drilled(HOLES.changed(depth_mm=None)))
    assert sum(one.feed is not None for one in planned.of("h1").motions) > 6
    spot = planned.job.tool("T13")
    assert isinstance(spot, Drill)
    deepest = min(one.end[0] for one in planned.of("h0").motions if one.feed is not None)
    assert deepest == pytest.approx(-22 - (6.6 / 2 + 0.3))


def hammered() -> Job:
    """The runner hub with its holes and flats cut first."""
    job = demo_job("runner-hub")
    first = [one for one in job.operations if one.kind in ("holes", "flats")]
    return job.with_setup(operations=(*first, *(one for one in job.operations if one not in first)))


@pytest.mark.long
def test_holes_drilled_first_hammer_the_turning_and_one_click_mends_it() -> None:
    planned = plan(hammered())
    rough = next(one for one in planned.operations if one.operation.kind == "rough_od")
    assert rough.reasons["hits"].number > 20
    assert rough.reasons["interrupted"].number > 5
    assert any("air" in one.what for one in rough.findings if one.code == "cut.interrupted")
    factor = next(entry for entry in rough.reasons["vc"].inputs if entry.label == "interrupted cut")
    assert factor.number == 0.8
    found = [one for one in critique(planned) if one.code == "order.opened"]
    assert found
    job = planned.job
    for one in found:
        job = one.cures[0].apply(job)
    after = plan(job)
    assert not any("interrupted" in one.reasons for one in after.operations)
    assert after.times.total_s < planned.times.total_s - 5


def test_the_second_side_knows_what_the_first_has_opened() -> None:
    job = demo_job("runner-hub")
    first, second = plan_sides(job)
    assert first.opened == (0, 1, 2)
    assert second.job.stock.opened == (0, 1, 2)
    through = [one.operation.kind for one in second.operations if "interrupted" in one.reasons]
    assert through  # the bolt holes come out in the face that is turned there


@pytest.mark.long
def test_a_whole_route_cuts_what_is_milled() -> None:
    whole = propose_route(demo_job("runner-hub"), catalogue())
    kinds = [one.kind for one in whole.job.operations]
    assert kinds[-4:] == ["holes", "holes", "flats", "slot"]
    assert not any("bolt" in one.what or "wrench" in one.what for one in whole.without)
    plain = demo_job("runner-hub").changed(machine=machines()["slant-bed"], second_hold=None, hand_over=None)
    told = propose_route(plain.changed(setups=plain.setups[:1]), catalogue()).without
    assert any("drives no tools" in one.why for one in told)


def test_slots_that_cannot_be_are_refused_before_they_are_cut() -> None:
    assert "feature.place" in findings_of(milled(KEYWAY.changed(from_z_mm=-2, to_z_mm=-2), "EM 5 HM"))
    assert "feature.place" in findings_of(milled(KEYWAY.changed(to_z_mm=-9), "EM 6 HM"))
    assert "feature.place" in findings_of(milled(KEYWAY.changed(on="inside"), "EM 6 HM"))
    found = findings_of(milled(Flats(count=2, distance_mm=30, from_z_mm=-30, to_z_mm=-55), "EM 8 HM"))["hold.short"]
    assert "too close to the hold" in found.what
    assert "mill.corner" in findings_of(milled(KEYWAY.changed(round_ends=False), "EM 6 HM"))


def test_a_mill_that_cannot_go_down_is_helped_by_a_drill() -> None:
    job = begun().with_operation("m", lambda op: op.changed(start_tool=None))
    found = next(one for one in plan(job).all_findings if one.code == "mill.start")
    helped = found.cures[0].apply(job)
    made = plan(helped).of("m")
    assert made is not None
    assert "mill.start" not in {one.code for one in made.findings}
    stations = [one.station for one in made.motions]
    assert stations == sorted(stations, reverse=True)  # the drill first, in one go, then the mill
    # The mill goes down only where the hole is.
    downs = [m for m in made.motions if m.station == 13 and m.feed and m.end[0] < m.start[0] - 1e-6]
    assert len({(round(m.end[1], 3), m.driven.y[1]) for m in downs}) == 1


def test_every_ring_takes_one_width_of_cut() -> None:
    """No point of a ring is farther from the ring before than a step: the engagement never grows, in corners least."""
    way = Outward(start=-4.0, end=4.0, aside=9.0, corner=1.0, round_ends=False)
    rings = [LineString([(-4.0, 0.0), (4.0, 0.0)]), *(Polygon(ring) for ring in way.rings(0.2, 2.4, 0.01))]
    for inner, outer in itertools.pairwise(rings):
        farthest = max(inner.distance(Point(place)) for place in outer.exterior.coords)
        assert farthest <= 2.4 + 0.02
    assert rings[-1].symmetric_difference(Polygon(way.last(0.001)).buffer(-0.2)).area < 0.6


def test_a_mill_too_large_for_a_corner_says_what_stays() -> None:
    planned = plan(milled(POCKET.changed(corner_radius_mm=2), "EM 8 HM", "axial"))
    found = next(one for one in planned.all_findings if one.code == "mill.corner")
    assert "R 4" in found.what
    with pytest.raises(PartError, match="do not go into"):
        sunk_of(0, POCKET.changed(corner_radius_mm=13), PART)


def test_a_holder_in_the_jaws_is_seen_from_the_plan_and_drawn_out() -> None:
    near = milled(
        Slot(width_mm=12, depth_mm=4, from_z_mm=-24, to_z_mm=-38, round_ends=False, corner_radius_mm=4), "EM 6 HM"
    )
    found = next(one for one in plan(near).all_findings if one.code == "driven.holder")
    assert "jaws" in found.what
    cured = [cure.apply(near) for cure in found.cures]
    assert cured
    assert all("driven.holder" not in {one.code for one in plan(job).all_findings} for job in cured)


@pytest.mark.parametrize("name", ["a pocket with its edge broken", "a keyway with its edge broken"])
def test_an_edge_is_broken_as_wide_as_the_part_wants(name: str) -> None:
    """The cone is as wide at the surface as the edge and the way beside it; a wider edge goes deeper."""
    job = CUT[name]
    wide = job.changed(part=job.part.changed(edge_break_mm=0.5))
    made = plan(wide).of("m")
    assert made is not None
    told = {key: one.number for key, one in made.reasons.items()}
    assert told["edge"] == 0.5
    assert told["edge_deep"] == pytest.approx((0.5 + 0.3) / math.tan(math.radians(45)))
    assert made.motions[-1].station == 14
    deeper = plan(job.changed(part=job.part.changed(edge_break_mm=9.0))).all_findings
    assert "edge.deep" in {one.code for one in deeper}


def test_an_edge_is_broken_alike_on_both_sides() -> None:
    assert "edge.angle" in findings_of(edged(FLATS, "radial", "CM 6 60"))
    assert "edge.angle" not in findings_of(edged(FLATS, "radial", "CM 6 90"))


def test_a_blunt_mill_runs_farther_beside_the_edge_than_a_pointed_one() -> None:
    """Half its end more, and as deep: the cone cuts, the end does not."""
    pointed, blunt = (plan(CUT[name]).of("m") for name in ("a pocket with its edge broken",
                      "a pocket, its edge broken by a chamfer mill"))  # fmt: skip
    assert pointed is not None
    assert blunt is not None
    assert blunt.reasons["edge_deep"].number == pytest.approx(pointed.reasons["edge_deep"].number)
    widest = [max(abs(one.driven.y[1]) for one in made.motions if one.station == 14 and one.driven is not None)
              for made in (pointed, blunt)]  # fmt: skip
    assert widest[0] - widest[1] == pytest.approx(0.5, abs=0.01)


def test_a_shoulder_beside_the_edge_is_seen_from_the_plan() -> None:
    near = edged(KEYWAY.changed(width_mm=10), "radial")  # ends 4 mm before the flange
    assert "edge.shoulder" in {one.code for one in plan(near).all_findings}


def test_the_whole_body_is_not_cut_anew_for_every_move(language: Dialect, monkeypatch: pytest.MonkeyPatch) -> None:
    """A pocket of hundreds of moves is weighed by its layers: the metal as a whole is made a few times only."""
    made: list[int] = []
    whole = Metal.whole
    monkeypatch.setattr(Metal, "whole", lambda metal: made.append(1) or whole(metal))  # type: ignore[func-returns-value]
    planned = plan(CUT["a wide pocket"])
    prove_afresh(planned, language)
    assert sum(len(one.motions) for one in planned.operations) > 500
    assert len(made) < 20


@pytest.mark.parametrize("seed", range(6))
def test_layers_weigh_what_is_cut_in_space(seed: int) -> None:
    """Random ways at random levels in a block, weighed layer by layer and cut out in space."""
    rng = random.Random(seed)
    solid, layers, top = prism([SQUARE], -20.0, 0.0), Layers(), 0.0

    def metal_mm3(over: Region, low: float, high: float | None) -> float:
        return float(over.intersection(Polygon(SQUARE)).area * ((top if high is None else high) - low))

    for _ in range(12):
        ends = [(rng.uniform(-12, 12), rng.uniform(-12, 12)) for _ in range(2)]
        region, level = LineString(ends).buffer(rng.uniform(1, 4)), -rng.choice([2.0, 4.0, 4.0, 7.5])
        way = prism([shapely.get_coordinates(region.exterior)[:-1]], level, 5.0)
        assert layers.cut(region, level, metal_mm3) == pytest.approx((solid ^ way).volume(), abs=2e-3)
        solid -= way
