"""What tools reach, why they do not, and which is advised."""

import math
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.test_tool_shapes import boring, turning
from tests.support.engine import proved
from tests.support.kept import plan
from tests.support.long import everyday
from toreuma.core.advise import Wish, advise, compare, seated, tried, wishes
from toreuma.core.advise.carriers import bar_limit
from toreuma.core.advise.seated import STRENGTH
from toreuma.core.geometry.minkowski import sweep
from toreuma.core.geometry.shape import ToolShape
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import Job, Part
from toreuma.core.plan.sides.second_side import second_side
from toreuma.core.reach.tight import plunge_deg, tight_spots
from toreuma.core.reach.tool_reach import Surface, ToolReach, reach_of_shape, reach_on, surface_metal
from toreuma.core.scene import Scene, build_scene
from toreuma.shipped.library import catalogue, demo_job, demo_names, known_threads

OUTSIDE, BORE = Surface("outside"), Surface("bore")


SHUT_OUT = {("sheave", "rough bore"), ("sheave", "finish bore"), ("seat-ring", "groove 0")}
"""Behind the centre, and inside the jaws: for another hold."""


def advice(job: Job, scene: Scene, wish: Wish, rack: tuple[str, ...] = ()):  # type: ignore[no-untyped-def]
    return advise(job, scene, wish, catalogue(), rack, known_threads(job.part))


def part_of(points: list[tuple[float, float]]) -> Part:
    return Part.model_validate({"outside": [{"z_mm": z, "d_mm": d} for z, d in points]})


def test_the_catalogue_is_wide_enough_and_goes_together() -> None:
    store = catalogue()
    assert len(store.inserts) >= 60
    assert len(store.carriers) >= 40
    assert len(store.tools) >= 40
    assert all(any(carrier.seat.takes(insert) for insert in store.inserts) for carrier in store.carriers)
    codes = [insert.code for insert in store.inserts] + [carrier.code for carrier in store.carriers]
    assert len(set(codes)) == len(codes)
    for tool in store.tools:
        assert shape_of(tool).cutting.area > 0


@given(steps=st.lists(st.tuples(st.floats(3, 12), st.floats(12, 36)), min_size=2, max_size=4), d=st.floats(12, 36))
@settings(max_examples=12, deadline=None)
def test_left_hand_tools_leave_the_mirror_image(steps: list[tuple[float, float]], d: float) -> None:
    """On a part that is its own mirror image the other hand leaves what this one leaves, mirrored."""
    half = [(length, round(d2, 3)) for length, d2 in steps]
    run = [*half, (6.0, round(d, 3)), *half[::-1]]
    z, points = 0.0, [(0.0, run[0][1])]
    for length, diameter in run:
        points += [(z, diameter)] if points[-1][1] != diameter else []
        z -= round(length, 3)
        points.append((round(z, 3), diameter))
    base = demo_job("spear")
    stock = base.stock.changed(d_mm=40.0, face_allowance_mm=0.0)
    hold = base.setup.hold.changed(stick_out_mm=-z + 150.0)
    job = base.changed(part=part_of(points), stock=stock).with_setup(hold=hold)
    scene = build_scene(job)
    # the bar behind would stand in the way of one hand only: take a piece that ends with the part
    z = scene.profile.back_z
    piece = scene.stock.intersection(shapely.box(z, 0, 0, 100))
    scene = replace(scene, stock=piece, jaws=shapely.Polygon(), chuck=shapely.Polygon())
    tool = turning("D", 93, ic=9.525, radius=0.4)
    right, left = (reach_on(scene, tool.changed(hand=hand), OUTSIDE) for hand in ("right", "left"))
    turned, path = (
        shapely.transform(region, lambda p: p * [-1.0, 1.0] + [z, 0.0]) for region in (left.leftover, left.free)
    )
    near = shapely.box(z, 0, 0, 20)
    assert right.free.symmetric_difference(path).intersection(near).area < 0.05 * (1 - z)  # so its edge, the path
    metal = surface_metal(scene, OUTSIDE).area
    assert abs(right.area_mm2 - left.area_mm2) < 2e-3 * metal + 0.02
    assert right.leftover.symmetric_difference(turned).area < 4e-3 * metal + 0.05


def test_the_trailing_edge_and_the_corner_are_named() -> None:
    scene = build_scene(demo_job("spear"))
    strong = turning("C", 95)
    reach = reach_on(scene, strong, OUTSIDE)
    spots = tight_spots(scene, strong, OUTSIDE, reach)
    assert spots[0].reason == "trailing edge"
    assert (spots[0].from_z, spots[0].to_z) == (pytest.approx(-36, abs=0.2), pytest.approx(-54, abs=0.2))
    assert plunge_deg(shape_of(strong)) == pytest.approx(5, abs=1e-6)
    assert {spot.reason for spot in spots[1:]} == {"nose radius"}
    slim = turning("D", 93, ic=9.525, radius=0.4)
    assert plunge_deg(shape_of(slim)) == pytest.approx(32, abs=1e-6)
    assert reach_on(scene, slim, OUTSIDE).area_mm2 < 0.1


def test_what_is_left_in_a_square_corner_is_the_nose(spear: Job) -> None:
    part = part_of([(0, 20), (-20, 20), (-20, 30), (-40, 30)])
    scene = build_scene(spear.changed(part=part))
    pieces = shapely.get_parts(reach_on(scene, turning("C", 95), OUTSIDE).leftover)
    left = max(piece.area for piece in pieces if abs(piece.centroid.x + 20) < 0.8)
    assert left == pytest.approx((1 - math.pi / 4) * 0.8**2, rel=0.05)


def test_a_bar_too_thick_touches_the_far_wall() -> None:
    job = demo_job("runner-hub")
    scene = build_scene(job)
    assert reach_on(scene, boring("C", 12), BORE).area_mm2 < 1.0
    fat = boring("C", 12)
    fat = fat.changed(bar=fat.bar.changed(diameter_mm=22.0))
    reach = reach_on(scene, fat, BORE)
    assert reach.area_mm2 > 50
    assert tight_spots(scene, fat, BORE, reach)[0].reason == "bar against the far wall"


@pytest.mark.parametrize("name", everyday(demo_names(), "spear"))
def test_every_wish_of_the_demo_jobs_has_an_answer_and_slim_ones_only_where_strong_ones_leave_metal(name: str) -> None:
    job = demo_job(name)
    scene = build_scene(job)
    asked = wishes(job, scene)
    assert asked
    for wish in asked:
        found = advice(job, scene, wish)
        if found.best is None:
            assert "stand in" in found.rejected[0].why, wish.words
            assert (name, wish.key) in SHUT_OUT
            continue
        assert all(candidate.against for candidate in found.candidates[1:])
        if wish.use != "finish" or found.best.tool.kind not in ("turning", "boring"):
            continue
        chosen = found.best.tool.insert.shape
        stronger = {s for s in STRENGTH if STRENGTH[s] > STRENGTH[chosen] and s != "R"}
        for rival in found.rejected:
            code = rival.title.split(", ")[-1].split(" in ")[0]
            if " in " in rival.title and code[:1] in stronger:
                assert "leaves" in rival.why, rival


@pytest.mark.parametrize("name", ["spear", "vane-stud"])
def test_the_advised_finishing_tool_is_confirmed_by_the_proof(name: str) -> None:
    """Turn with the advised tools and cut the program: nothing touched, and no more left than was said."""
    job, spear = demo_job(name), demo_job("spear")
    scene = build_scene(job)
    found = {wish.key: advice(job, scene, wish) for wish in wishes(job, scene)}
    rough, finish = (found[key] for key in ("rough outside", "finish outside"))
    assert rough.best is not None
    assert finish.best is not None
    tools = [rough.best.tool.changed(id="T1", station=1), finish.best.tool.changed(id="T2", station=2)]
    operations: list[Any] = [op for op in spear.operations if op.kind in ("rough_od", "finish_od")]
    kept = [op.changed(tool="T1" if op.kind == "rough_od" else "T2", pins={}) for op in operations]
    tried = job.changed(tools=tuple(tools)).with_setup(operations=tuple(kept))
    proof = proved(tried)
    assert not proof.contacts
    assert proof.gouge_um < 2
    assert proof.leftover_um < 2


def test_what_sits_in_the_turret_comes_first() -> None:
    job = demo_job("spear")
    scene = build_scene(job)
    asked = {w.key: w for w in wishes(job, scene)}
    rough, finish = advice(job, scene, asked["rough outside"]), advice(job, scene, asked["finish outside"])
    assert (rough.best.tool.id, finish.best.tool.id) == ("T1", "T2")
    assert rough.best.in_turret
    assert rough.split is not None
    assert rough.split.candidate.tool.id == "T2"
    weaker = advice(job.changed(tools=()), scene, asked["rough outside"], ("WNMG080412-bold", "PWLNR2020K08"))
    assert weaker.candidates[0].on_rack
    assert "the first is at hand" in {c.against for c in weaker.candidates if c.strength > weaker.best.strength}


@pytest.mark.long
def test_the_rack_comes_first_and_the_strong_tool_has_a_slim_helper() -> None:
    job = demo_job("spear").changed(tools=())
    scene = build_scene(job)
    rough = next(w for w in wishes(job, scene) if w.key == "rough outside")
    plain = advice(job, scene, rough)
    assert plain.best.codes[0].startswith("CNMG")
    assert plain.split is not None
    assert (plain.split.from_z, plain.split.to_z) == (pytest.approx(-36, abs=0.3), pytest.approx(-54, abs=0.3))
    finish = next(w for w in wishes(job, scene) if w.key == "finish outside")
    assert any("leaves" in r.why and "edge stands at" in r.why for r in advice(job, scene, finish).rejected)
    drawer = ("WNMG080412-bold", "PWLNR2020K08")
    assert advice(job, scene, rough, drawer).best.codes == drawer
    assert advice(job, scene, rough, drawer).best.on_rack


SPARED = ("strainer-union", "gate-spindle", "vane-stud", "seat-ring")


@pytest.mark.parametrize("name", everyday(SPARED, "strainer-union"))
def test_what_is_not_looked_at_would_not_have_been_chosen(name: str, monkeypatch: pytest.MonkeyPatch) -> None:
    """With every tool's reach computed the same edge is chosen, leaving no less, and its helper leaves no less."""
    job = demo_job(name)
    bare, scene = job.changed(tools=()), build_scene(job)
    asked = [wish for wish in wishes(job, scene) if wish.use in ("rough", "finish", "face")]
    spared = [advice(bare, scene, wish) for wish in asked]
    monkeypatch.setattr(seated, "looked_at", lambda tools, *_: list(tools))
    for wish, found in zip(asked, spared, strict=True):
        whole = advice(bare, scene, wish)
        assert (found.best is None) is (whole.best is None)
        if found.best is None or whole.best is None:
            continue
        assert found.best.strength == whole.best.strength, wish.words
        assert found.best.left_mm2 <= whole.best.left_mm2 + 0.02, wish.words
        assert (found.split is None) is (whole.split is None)
        if found.split is not None and whole.split is not None:
            assert found.split.left_mm2 == pytest.approx(whole.split.left_mm2, abs=0.1)


def test_ten_times_as_many_tools_ask_for_no_more_geometry(monkeypatch: pytest.MonkeyPatch) -> None:
    """Holders a little longer each, of the same edge: the handiest is looked at, and the others are known by it."""
    job, store = demo_job("strainer-union"), catalogue()
    bare, scene = job.changed(tools=()), build_scene(job)
    reached: list[bool] = []

    def counted(scene: Scene, shape: ToolShape, surface: Surface, with_body: bool = True) -> ToolReach:
        reached.append(with_body)
        return reach_of_shape(scene, shape, surface, with_body)

    monkeypatch.setattr(tried, "reach_of_shape", counted)
    many = [
        carrier.changed(code=f"{carrier.code}-{n}")
        for carrier in store.carriers
        if carrier.holder is not None
        for n in range(10)
    ]
    counts, best = [], []
    for carriers in (store.carriers, tuple(many)):
        reached.clear()
        found = [
            advise(bare, scene, wish, store.changed(carriers=carriers))
            for wish in wishes(job, scene)
            if wish.surface == OUTSIDE
        ]
        counts.append(len(reached))
        best.append([one.best.left_mm2 for one in found])
    assert counts[0] > 0
    assert counts[1] == counts[0]
    assert best[1] == best[0]


def test_holes_threads_and_grooves_get_the_tool_that_fits() -> None:
    stud = demo_job("vane-stud")
    scene = build_scene(stud)
    best = {w.use: advice(stud, scene, w).best.title for w in wishes(stud, scene)}
    assert best["thread"] == "TE 24UN 60F"
    assert "tap" not in best  # the tapped hole is in the back: the second side's
    other = second_side(stud, plan(stud))
    scene = build_scene(other)
    best = {w.use: advice(other, scene, w).best.title for w in wishes(other, scene)}
    assert best["drill"].startswith("TD #36")
    assert best["tap"] == "TP 6-32 UNC C"  # a blind hole: chips go out backward
    assert "thread" not in best  # cut already
    hub = demo_job("runner-hub")
    drill = next(w for w in wishes(hub, build_scene(hub)) if w.use == "drill")
    found = advice(hub, build_scene(hub), drill)
    assert found.best.title.startswith("SD 24")
    assert any("flutes" in r.why for r in found.rejected)


def test_bars_have_limits_by_material() -> None:
    job = demo_job("runner-hub")
    scene = build_scene(job)
    bore = next(w for w in wishes(job, scene) if w.key == "finish bore")
    why = {r.title: r.why for r in advice(job, scene, bore).rejected}
    assert "L/D" in why["A06F-SCLCR06"]
    assert "needs a bore" in why["A32U-PCLNR12"]
    bar = boring().bar
    limits = [bar_limit(bar.changed(material=m)) for m in ("steel", "tungsten alloy", "carbide")]
    assert limits == [4, 6, 7]
    assert bar_limit(bar.changed(damped=True)) == 10


def test_two_tools_stand_side_by_side() -> None:
    job = demo_job("spear")
    scene = build_scene(job)
    table = compare(job, scene, turning("C", 95), turning("S", 75), OUTSIDE, 0.3, 2.0)
    rows = {row[0].name: row for row in table.rows if row[0] is not None}
    straight, leaning = rows["left standing at a shoulder"]
    assert straight is not None
    assert leaning is not None
    assert straight.number == 0
    assert leaning.number == pytest.approx(2.0 * math.tan(math.radians(15)))
    force = [value.number for value in rows["cutting force"] if value is not None]
    assert force[1] > force[0] * 0.99  # a thinner chip needs more force per area
    assert rows["left on the part"][0].number > 20  # type: ignore[union-attr]


@pytest.mark.parametrize("name", everyday(demo_names(), "spear"))
def test_the_advised_tool_led_along_its_free_boundary_touches_nothing_and_leaves_what_was_said(name: str) -> None:
    """Independent of the reach: sweep insert and holder along the edge of the free positions and look at the metal."""
    job = demo_job(name)
    scene = build_scene(job)
    for wish in wishes(job, scene):
        if wish.surface is None or wish.use == "rough":
            continue
        best = advice(job, scene, wish).best
        if best is None:
            assert (name, wish.key) in SHUT_OUT
            continue
        shape, reach = shape_of(best.tool), reach_on(scene, best.tool, wish.surface)
        if reach.free.is_empty:
            continue
        swept, bodies = [], []
        for piece in shapely.get_parts(reach.free):
            path = np.asarray(piece.exterior.simplify(0.0005).coords)
            swept.append(sweep(path, shape.core, shape.nose_radius, 0.001))
            bodies += [sweep(path, body, 0.0) for body in shape.bodies]
        cut = shapely.union_all(swept)
        target = scene.part if wish.surface.kind == "groove" else scene.shape.solid
        assert cut.intersection(target).buffer(-0.004).area < 1e-4, wish.words
        touched = shapely.union_all(bodies).intersection(shapely.union_all([target, scene.jaws, scene.chuck]))
        assert touched.area < 1e-4, wish.words
        metal = surface_metal(scene, wish.surface)
        skin = metal.intersection(target.buffer(0.05)).difference(cut)
        unsaid = skin.difference(reach.leftover.buffer(0.02))
        assert unsaid.buffer(-0.004).area < 1e-4, wish.words


@pytest.mark.parametrize(
    ("name", "cut_with"),
    [
        ("spear", {"Thread M24x2-6g": ["T5"], "Thread relief": ["T4"], "Rough the outside": ["T1", "T2"]}),
        ("sheave", {"Rough the bore": ["T2", "T3"], "Belt groove 1": ["T8"], "Belt groove 2": ["T8"]}),
        ("seat-ring", {"Snap ring groove": [], "Inner ring groove": ["T7"]}),
        ("gate-spindle", {"Centre hole": ["T3"]}),
        ("runner-hub", {"Drill for the bore": ["T5"]}),
        ("bleed-screw", {"Grip": ["T3"], "Run-out": ["T5"]}),
    ],
)
def test_a_wish_knows_the_operations_that_cut_it(name: str, cut_with: dict[str, list[str]]) -> None:
    job = demo_job(name)
    of = {one.words: one for one in wishes(job, build_scene(job))}
    for words, tools in cut_with.items():
        assert [one.tool for one in job.operations if of[words].is_cut_by(one, job.tool(one.tool))] == tools, words


def test_of_tools_that_cannot_do_it_the_nearest_is_told_first() -> None:
    """A bore too deep for every drill and bar: the longest drill of the size that is wanted, the stiffest bar."""
    part = {"outside": [{"z_mm": 0, "d_mm": 30}, {"z_mm": -180, "d_mm": 30}],
            "inside": [{"z_mm": 0, "d_mm": 8.5}, {"z_mm": -180, "d_mm": 8.5}]}  # fmt: skip
    spear = demo_job("spear").changed(tools=()).with_setup(operations=())
    job = spear.changed(part=Part.model_validate(part))
    scene = build_scene(job)
    first = {wish.key: advice(job, scene, wish).rejected[0] for wish in wishes(job, scene)
             if wish.key in ("drill bore", "rough bore")}  # fmt: skip
    assert (first["drill bore"].title, "flutes" in first["drill bore"].why) == ("TD 7.5 HSS XL 118", True)
    assert first["rough bore"].title.startswith("E06")
    assert "L/D" in first["rough bore"].why
