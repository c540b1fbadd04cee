"""The parts of the water turbine, from their dimensions, with the drawing and the model two of them come from."""

from pathlib import Path

import ezdxf
from demo_builders import DEMO, INCH, edited, hold, job, line, one_of, used_only, with_tool

from toreuma.core.model import Element, FeedBar, FinishBore, Job, Part, ReamHole
from toreuma.core.plan import plan
from toreuma.core.standards.fits import tolerance_of
from toreuma.exchange.reading import read_part
from toreuma.exchange.step_out import part_solid, write_step
from toreuma.shipped.standards import fit_tables


def seat_ring() -> Job:
    """Nozzle seat of tin bronze: taper and bore inside, thread at the back, a snap ring groove on both sides."""
    part = {
        "name": "Nozzle seat ring, Fennow Leat turbine",
        "outside": [
            line(0, 96, "Front face", corner="C1"),
            line(-14, 96, "Spigot", "h7", 1.6),
            line(-14, 118, "Shoulder", corner="C1"),
            line(-40, 118, "Rim", "h9", corner="C1"),
        ],
        "inside": [
            line(0, 72, "Mouth"),
            line(-16, 60, "Seat", ra=0.8),
            line(-27, 60, "Throat", "H7", 1.6),
            line(-27, 61.835, "Thread face"),
            line(-40, 61.835, "Thread bore", corner="C1"),
        ],
        "features": [
            {
                "kind": "groove",
                "z_mm": -22,
                "width_mm": 4.15,
                "d_mm": 113,
                "edge_break_mm": 0.2,
                "name": "Snap ring groove",
            },
            {
                "kind": "groove",
                "side": "inside",
                "z_mm": -21,
                "width_mm": 2.15,
                "d_mm": 63,
                "floor_round_mm": 0.2,
                "name": "Inner ring groove",
            },
            {
                "kind": "thread",
                "side": "inside",
                "designation": "M64x2-6H",
                "from_z_mm": -31,
                "length_mm": 9,
                "name": "Nozzle thread",
            },
        ],
        "edge_break_mm": 0.3,
        "general_tolerance": "m",
        "ra_um": 3.2,
    }
    stock = {"kind": "tube", "d_mm": 125, "bore_d_mm": 55, "length_mm": 44, "face_allowance_mm": 2}
    setup = {"name": "Front side", "hold": hold("three-jaw chuck 250", stick_out_mm=32, grip_length_mm=12)}
    second = {"element": 1, "grip_length_mm": 12, "clearance_mm": 1, "jaws": "soft"}
    return job("Nozzle seat", "slant-bed", part, stock, "CuSn8", setup, second_hold=second)


def runner_hub_part() -> Part:
    """The hub as its model has it: bore with fit, bolt circle through the flange, two wrench flats."""
    return Part.model_validate(
        {
            "outside": [
                line(0, 50, corner="C1"),
                line(-22, 50),
                line(-22, 78, corner="C1"),
                line(-42, 78, corner="C1"),
            ],
            "inside": [line(0, 25, corner="C1"), line(-42, 25, corner="C1")],
            "features": [
                {"kind": "holes", "on": "front", "count": 6, "d_mm": 6.6, "circle_d_mm": 64, "z_mm": -22},
                {"kind": "flats", "count": 2, "distance_mm": 22, "from_z_mm": 0, "to_z_mm": -12, "start_deg": 0},
                {
                    "kind": "slot",
                    "on": "outside",
                    "width_mm": 10,
                    "depth_mm": 4,
                    "from_z_mm": 0,
                    "to_z_mm": -14,
                    "start_deg": 90,
                },
            ],
        }
    )


def runner_hub() -> Job:
    """Complete on two spindles; the part comes from the STEP model beside the job."""
    path = DEMO / "runner-hub.step"
    write_step(part_solid(runner_hub_part()), path)
    part = read_part(path).part
    outside = _named(part.outside, "Front face", "Spigot", "Flange face", "Flange")
    inside = [_sized(element, 25.0, "H7", "Shaft bore") for element in part.inside]
    features = tuple(
        one.changed(name={"holes": "bolt holes", "flats": "wrench flats", "slot": "driver slot"}[one.kind])
        for one in part.features
    )
    named = part.changed(
        features=features,
        name="Runner hub, Fennow Leat turbine",
        outside=outside,
        inside=tuple(inside),
        general_tolerance="m",
    )
    stock = {"kind": "round", "d_mm": 80, "length_mm": 46, "face_allowance_mm": 2}
    setup = {"name": "Main spindle", "hold": hold("three-jaw chuck 200", stick_out_mm=34, grip_length_mm=12)}
    flange = max(i for i, e in enumerate(named.outside) if abs(e.d_mm - 78) < 0.01)
    second = {"element": flange, "grip_length_mm": 5, "clearance_mm": 0.5}
    return job("Runner hub", "twin-spindle mill-turn", named, stock, "C45", setup, second_hold=second, hand_over={})


def _named(elements: tuple[Element, ...], *names: str) -> tuple[Element, ...]:
    return tuple(element.changed(name=name) for element, name in zip(elements, names, strict=True))


def _sized(element: Element, d_mm: float, fit: str, name: str) -> Element:
    if abs(element.d_mm - d_mm) > 0.01 or element.z_mm > -5:
        return element
    limits = tolerance_of(d_mm, fit, fit_tables())
    size = {"fit": fit, "lower_um": limits.lower_um, "upper_um": limits.upper_um}
    return element.changed(size=size, name=name, ra_um=1.6)


def sheave() -> Job:
    """Grey iron casting with a cored hole and two V-grooves; soft jaws, and a bull-nosed centre in the bore."""
    v_groove = {"kind": "groove", "width_mm": 13.0, "d_mm": 118.0, "wall_deg": 17.0, "floor_round_mm": 1.0}
    part = {
        "name": "Generator belt sheave, Fennow Leat turbine",
        "outside": [
            line(0, 140, "Rim face", corner="C1"),
            line(-40, 140, "Rim", "h9", corner="C1"),
            line(-40, 66, "Web face"),
            line(-52, 66, "Hub", corner="C1"),
        ],
        "inside": [
            line(0, 42, "Mouth"),
            line(-3.4641, 38, "Cone 60°"),
            line(-15, 38, "Front land", "H7", 1.6),
            line(-15, 44, "Chamber front"),
            line(-28, 44, "Grease chamber"),
            line(-34, 38, "Chamber back"),
            line(-52, 38, "Shaft bore", "H7", 1.6, corner="C1"),
        ],
        "features": [
            {**v_groove, "z_mm": -4.5, "name": "Belt groove 1"},
            {**v_groove, "z_mm": -22.5, "name": "Belt groove 2"},
            {
                "kind": "face_groove",
                "end": "back",
                "d_mm": 60,
                "width_mm": 5,
                "depth_mm": 3,
                "name": "Felt ring groove",
            },
            {
                "kind": "slot",
                "on": "inside",
                "width_mm": 10,
                "depth_mm": 3.3,
                "from_z_mm": 0,
                "to_z_mm": -52,
                "round_ends": False,
                "name": "Keyway",
            },
        ],
        "edge_break_mm": 0.5,
        "general_tolerance": "m",
        "ra_um": 6.3,
    }
    stock = {
        "kind": "free",
        "allowance_mm": 3,
        "face_allowance_mm": 3,
        "skin": "hard",
        "skin_mm": 0.8,
        "runout_mm": 1.0,
    }
    held = hold("soft jaws 250", stick_out_mm=46, grip_length_mm=11, bored_d_mm=72, bored_depth_mm=12)
    centre = {
        "name": "bull-nosed live centre",
        "d_mm": 70,
        "point_length_mm": 42,
        "largest_mouth_mm": 60,
        "max_rpm": 2500,
    }
    second = {"element": 1, "grip_length_mm": 3, "clearance_mm": 1}
    setup = {"name": "Rim side", "hold": held, "centre": centre}
    return job("Belt sheave", "slant-bed", part, stock, "GJL-250", setup, second_hold=second)


def vane_stud_drawing(path: Path) -> None:
    """The stud as its drawing has it, in inches: half section, centre line, dimensions left to the text."""
    document = ezdxf.new("R2010", setup=True, units=1)
    space = document.modelspace()
    document.layers.add("PROFILE")
    document.layers.add("CENTER", linetype="CENTER")
    hexagon = 0.4375 / 0.8660254037844386
    corners = [
        (0.0, 0.0),
        (0.0, 0.3125 / 2 - 0.03),
        (-0.03, 0.3125 / 2),
        (-0.75, 0.3125 / 2),
        (-0.75, hexagon / 2 - 0.02),
        (-0.77, hexagon / 2),
        (-1.0, hexagon / 2),
        (-1.0, 0.125),
        (-1.48, 0.125),
        (-1.5, 0.105),
        (-1.5, 0.0),
    ]
    space.add_lwpolyline(corners, dxfattribs={"layer": "PROFILE"})
    space.add_line((-1.6, 0), (0.1, 0), dxfattribs={"layer": "CENTER"})
    space.add_text("5/16-24 UNF-2A", height=0.05, dxfattribs={"layer": "0"}).set_placement((-0.6, 0.3))
    document.saveas(path)


def vane_stud() -> Job:
    """Free-cutting brass, hexagon bar, inches; the profile comes from the drawing beside the job."""
    path = DEMO / "vane-stud.dxf"
    vane_stud_drawing(path)
    read = read_part(path, layers=["PROFILE", "CENTER"]).part
    names = ("Front face", "Stud", "Collar face", "Collar", "Collar back", "Pivot")
    part = read.changed(
        outside=_named(read.outside, *names),
        name="Guide-vane stud, Fennow Leat turbine",
        features=[
            {
                "kind": "thread",
                "designation": "5/16-24 UNF-2A",
                "from_z_mm": 0.0,
                "length_mm": round(0.6 * INCH, 4),
                "name": "Stud thread",
            },
            {
                "kind": "relief",
                "form": "thread",
                "z_mm": round(-0.75 * INCH, 4),
                "length_mm": round(0.1 * INCH, 4),
                "depth_mm": round(0.03 * INCH, 4),
                "radius_mm": round(0.015 * INCH, 4),
                "name": "Thread relief",
            },
            {
                "kind": "axial_hole",
                "end": "back",
                "d_mm": round(0.1065 * INCH, 4),
                "depth_mm": round(0.4 * INCH, 4),
                "thread": "#6-32 UNC",
                "thread_length_mm": round(0.3 * INCH, 4),
                "name": "Tapped hole",
            },
            {
                "kind": "flats",
                "count": 6,
                "distance_mm": round(0.4375 / 2 * INCH, 5),
                "from_z_mm": round(-0.75 * INCH, 4),
                "to_z_mm": round(-1.0 * INCH, 4),
                "name": "Hexagon of the bar",
            },
        ],
        ra_um=1.6,
    )
    supply = {"bar_length_mm": 3657.6, "remnant_mm": 127, "part_off_mm": 2.5, "batch": 500, "price_per_kg": 9.5}
    stock = {"kind": "polygon", "sides": 6, "across_mm": 0.4375 * INCH, "face_allowance_mm": 0.5, "supply": supply}
    setup = {"name": "From the bar", "hold": hold("collet 42", stick_out_mm=46, grip_length_mm=30, bar_behind_mm=250)}
    second = {"element": 3, "grip_length_mm": 4, "clearance_mm": 1.8, "jaws": "soft"}
    conditions = {"attended": False}
    return job(
        "Guide-vane stud", "twin-spindle bar lathe", part, stock, "CuZn39Pb3", setup, units="inch", second_hold=second,
        hand_over={"how": "parted", "rpm": 2000}, conditions=conditions,
    )  # fmt: skip


def fed(job: Job) -> Job:
    """Run from the bar with nobody watching: the bar is fed to a stop, and the parts of one bar are one run."""
    job, stop = with_tool(job, "BS 20")
    parts = plan(job).supply.parts
    operations = (FeedBar(id="feed", name="Feed the bar", tool=stop), *job.operations)
    job = job.changed(program=job.program.changed(parts=parts))
    job = job.with_setup(operations=operations)
    return edited(job, one_of(job, "thread").id, written="passes")


def reamed(job: Job) -> Job:
    """The bore roughed to what a reamer takes, its edge broken, and reamed; the outside roughed toward the axis; cycles
    of the control."""
    job, reamer = with_tool(job, "RM 25 H7")
    bar = one_of(job, "finish_bore").tool
    changed = []
    for operation in job.operations:
        if operation.kind == "rough_bore":
            operation = operation.changed(leave_radial_mm=0.27)
        if operation.kind == "finish_bore":
            changed.append(FinishBore(id="edge", name="Break the bore's edge", tool=bar, to_z_mm=-1.1))
            operation = ReamHole(id=operation.id, name="Ream the bore", tool=reamer)
        changed.append(operation)
    job = used_only(job.with_setup(operations=tuple(changed)))
    job = edited(job, one_of(job, "face").id, written="passes")
    job = edited(job, one_of(job, "drill").id, written="whole")
    job = edited(job, one_of(job, "rough_od").id, pattern="along_x", written="whole")
    return edited(job, one_of(job, "rough_bore").id, written="whole")


def sealed(job: Job) -> Job:
    """Cycles of the control for the outside, groove and thread."""
    job = edited(job, one_of(job, "rough_od").id, written="whole")
    job = edited(job, one_of(job, "finish_od").id, written="whole")
    groove, thread = (one_of(job, kind, 1) for kind in ("groove", "thread"))
    job = edited(job, groove.id, 1, written="whole")
    return edited(job, thread.id, 1, written="whole")


def layered(job: Job) -> Job:
    """The skin of the casting taken off in one layer all along its outside."""
    return edited(job, one_of(job, "rough_od").id, pattern="contour")
