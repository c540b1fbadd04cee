"""Parts of the sluice above the turbine: the spindle that lifts the gate, and the union of the strainer."""

import math

from demo_builders import edited, hold, job, line, one_of, used_only, with_tool

from toreuma.core.model import DrillHole, Job

__all__ = ["bleed_screw", "caught", "gate_spindle", "lifted", "strainer_union", "united"]


ACROSS_MM = 27.0
ACROSS_CORNERS_MM = round(ACROSS_MM / math.cos(math.pi / 6) - 0.001, 3)


def gate_spindle() -> Job:
    """A slender spindle between chuck and centre: two-start left-hand trapezoidal thread, and a blind flat hole in the
    end of its second side."""
    part = {
        "name": "Sluice gate spindle, Fennow Leat",
        "outside": [
            line(0, 18, "Pivot end", corner="C1"),
            line(-28, 18, "Pivot", "f7", 1.6),
            line(-28, 24, "Thread end", corner="C2.5"),
            line(-128, 24, "Lifting thread", corner="C3"),
            line(-128, 17.5, "Thread run-out"),
            line(-146, 17.5, "Neck"),
            line(-146, 34, "Collar face", corner="C0.5"),
            line(-168, 34, "Collar", corner="C1"),
            line(-168, 26, "Shank face"),
            line(-198, 26, "Drive shank", corner="C1"),
        ],
        "features": [
            {"kind": "centre_hole", "d_mm": 4, "mouth_d_mm": 8.5, "name": "Centre"},
            {
                "kind": "thread",
                "designation": "Tr24x10(P5)LH",
                "from_z_mm": -28,
                "length_mm": 98,
                "name": "Lifting thread",
            },
            {"kind": "groove", "z_mm": -147.5, "width_mm": 3.0, "d_mm": 31.0, "wall_deg": 45.0, "name": "Travel mark"},
            {"kind": "axial_hole", "end": "back", "d_mm": 10, "depth_mm": 12, "point_deg": 180, "name": "Pin hole"},
        ],
        "edge_break_mm": 0.3,
        "general_tolerance": "m",
        "ra_um": 3.2,
    }
    stock = {"kind": "round", "d_mm": 36, "length_mm": 200, "face_allowance_mm": 1}
    centre = {"name": "live centre", "d_mm": 16, "body_length_mm": 60, "max_rpm": 5000}
    held = hold("three-jaw chuck 200", stick_out_mm=174, grip_length_mm=25)
    setup = {"name": "Thread side", "hold": held, "centre": centre}
    second = {"element": 7, "grip_length_mm": 14, "clearance_mm": 1, "jaws": "soft"}
    return job("Sluice gate spindle", "slant-bed", part, stock, "X20Cr13", setup, second_hold=second)


def lifted(job: Job) -> Job:
    """The long outside pulled away from the chuck, toward the centre: thin chips, little force square to the piece."""
    job, puller = with_tool(job, "PL 6 25")
    rough = one_of(job, "rough_od")
    job = edited(job, rough.id, tool=puller, pattern="pull", to_z_mm=-167.0, name="Pull toward the centre")
    job, blade = with_tool(job, "GO 4 18")
    neck = one_of(job, "rough_od", nth=1)
    job = edited(job, neck.id, tool=blade, pattern="plunge", from_z_mm=-128.0, to_z_mm=-146.0, name="Plunge the neck")
    return used_only(job)


def bleed_screw() -> Job:
    """Turned by hand: a thread, and a head with a crossing knurl, from bar on a gang lathe."""
    part = {
        "name": "Penstock bleed screw, Fennow Leat",
        "outside": [
            line(0, 10, "Thread end", corner="C1.2"),
            line(-16, 10, "Thread"),
            line(-16, 12, "Seat face", corner="C0.3"),
            line(-20, 12, "Neck"),
            line(-20, 22, "Head face", corner="C0.8"),
            line(-32, 22, "Head", corner="C0.8"),
        ],
        "features": [
            {"kind": "thread", "designation": "M10", "from_z_mm": 0, "length_mm": 12, "name": "Thread"},
            {"kind": "groove", "z_mm": -12.6, "width_mm": 3.4, "d_mm": 7.7, "name": "Run-out"},
            {"kind": "knurl", "form": "RGE", "pitch_mm": 1.0, "from_z_mm": -20.8, "length_mm": 10.4, "name": "Grip"},
        ],
        "ra_um": 3.2,
    }
    supply = {"bar_length_mm": 3000, "remnant_mm": 90, "batch": 60}
    stock = {"kind": "round", "d_mm": 24, "face_allowance_mm": 0.5, "supply": supply}
    held = hold("collet 42", stick_out_mm=48, grip_length_mm=35, bar_behind_mm=300)
    return job("Penstock bleed screw", "gang lathe", part, stock, "CuZn39Pb3", {"name": "From bar", "hold": held})


def caught(job: Job) -> Job:
    """The part is caught when it comes off."""
    return edited(job, one_of(job, "part_off").id, taken="caught")


def strainer_union() -> Job:
    """Hexagon bar, complete from one side: taper thread, bore and its counterbore with one step drill."""
    part = {
        "name": "Strainer union, Fennow Leat",
        "outside": [
            line(0, 20.4425, "Thread end", corner="C1.2"),
            line(-17, 21.505, "Taper thread"),
            line(-17, 26.5, "Washer face", corner="C0.5"),
            line(-19, 26.5, "Washer seat"),
            line(-19, ACROSS_CORNERS_MM, "Hexagon face", corner="C1"),
            line(-28, ACROSS_CORNERS_MM, "Hexagon", corner="C1"),
        ],
        "inside": [
            line(0, 12, "Mouth"),
            line(-7, 12, "Strainer seat"),
            line(-7, 8.5, "Seat floor"),
            line(-28, 8.5, "Bore"),
        ],
        "features": [
            {"kind": "thread", "designation": "R1/2", "from_z_mm": 0.0, "length_mm": 12.6, "name": "Taper thread"},
            {"kind": "groove", "z_mm": -13, "width_mm": 4, "d_mm": 17.9, "edge_break_mm": 0.2, "name": "Run-out"},
            {
                "kind": "flats",
                "count": 6,
                "distance_mm": ACROSS_MM / 2,
                "from_z_mm": -19,
                "to_z_mm": -28,
                "name": "Hexagon of the bar",
            },
        ],
        "ra_um": 3.2,
    }
    supply = {"bar_length_mm": 3000, "remnant_mm": 90, "batch": 40}
    stock = {"kind": "polygon", "sides": 6, "across_mm": ACROSS_MM, "face_allowance_mm": 0.5, "supply": supply}
    held = hold("collet 42", stick_out_mm=42, grip_length_mm=35, bar_behind_mm=300)
    return job("Strainer union", "slant-bed", part, stock, "CuZn39Pb3", {"name": "From bar", "hold": held})


def united(job: Job) -> Job:
    """One step drill makes bore and counterbore; the part is held by the pick-off while it is cut off."""
    job, drill = with_tool(job, "ST 8.5-12 180")
    inside = ("drill", "rough_bore", "finish_bore")
    kept = [one for one in job.operations if one.kind not in inside]
    at = next((i + 1 for i, one in enumerate(kept) if one.kind == "face"), 0)
    bored = DrillHole(id="bore", name="Bore and strainer seat", tool=drill)
    job = job.with_setup(operations=(*kept[:at], bored, *kept[at:]))
    return used_only(edited(job, one_of(job, "part_off").id, taken="picked"))
