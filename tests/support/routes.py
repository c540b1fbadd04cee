"""Small jobs with a route, and their proof."""

import shapely

from tests.support.kept import plan, prove_plan
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.model import DrillHole, Feature, FinishBore, FreeBlank, Insert, Job, Part, RoughBore, Tool
from toreuma.core.model.part import Element
from toreuma.core.model.tool import BoringTool, Drill
from toreuma.core.prove import Proof
from toreuma.shipped.library import catalogue, demo_job, dialect

__all__ = ["bored_job", "boring_tool", "insert", "proof_of"]


def insert(code: str) -> Insert:
    return next(one for one in catalogue().inserts if one.code == code)


def boring_tool(bar: str, code: str, station: int) -> BoringTool:
    carrier = next(one for one in catalogue().carriers if one.code == bar)
    tool = carrier.with_insert(insert(code), f"T{station}", station)
    assert isinstance(tool, BoringTool)
    return tool


def bored_job(
    inside: tuple[Element, ...],
    bar: str = "A16R-SCLCR09",
    insert: str = "CCMT09T304-fine",
    drill_d: float = 26.0,
    point_deg: float = 140.0,
) -> Job:
    """A bush of C45 in a chuck: drilled, roughed and finished inside with one bar."""
    base = demo_job("runner-hub")
    length = max(50.0, -inside[-1].z_mm)
    blind = inside[-1].z_mm > -50.0
    outside = (Element(z_mm=0, d_mm=70), Element(z_mm=-(length + 10.0 if blind else length), d_mm=70))
    drill = Drill(
        id="T1", station=1, d_mm=max(drill_d, 1.0), point_deg=point_deg, flute_length_mm=140, overall_length_mm=180,
        shank_d_mm=20,
    )  # fmt: skip
    tool = boring_tool(bar, insert, 2)
    operations = (
        *((DrillHole(id="drill", tool="T1", peck=False),) if drill_d else ()),
        RoughBore(id="rough", tool="T2"),
        FinishBore(id="finish", tool="T2"),
    )
    stock = base.stock.changed(d_mm=72.0, face_allowance_mm=0.0, length_mm=length + 12.0 if blind else length)
    hold = base.setup.hold.changed(stick_out_mm=length - 15.0, grip_length_mm=14.0)
    setup = base.setup.changed(hold=hold, operations=operations)
    return base.changed(
        part=Part(outside=outside, inside=inside), stock=stock, tools=(drill, tool), setups=(setup,), second_hold=None
    )


def proof_of(job: Job) -> Proof:
    return prove_plan(plan(job), dialect(job.program.dialect))


def tool_of(name: str, station: int) -> Tool:
    """A whole tool of the shipped catalogue."""
    tool = next(one for one in catalogue().tools if one.name == name)
    return tool.changed(id=f"T{station}", station=station)


def turned_job(
    features: tuple[Feature, ...],
    tools: tuple[Tool, ...],
    bore_d: float,
    neck_d: float = 70.0,
    cut: tuple[Feature, ...] = (),
) -> Job:
    """A bush of C45 whose blank is turned and bored to size but for its features: 40 mm of neck, then a collar.

    ``cut`` are features that the blank has already.
    """
    base = demo_job("runner-hub")
    collar = neck_d + 20.0
    outside = (
        Element(z_mm=0, d_mm=neck_d), Element(z_mm=-40, d_mm=neck_d),
        Element(z_mm=-40, d_mm=collar), Element(z_mm=-70, d_mm=collar),
    )  # fmt: skip
    inside = (Element(z_mm=0, d_mm=bore_d), Element(z_mm=-70, d_mm=bore_d)) if bore_d else ()
    made = build_part(Part(outside=outside, inside=inside, features=cut)).region
    ring = tuple((float(z), float(r)) for z, r in shapely.get_coordinates(made.exterior)[:-1])
    stock = FreeBlank(material=base.stock.material, face_allowance_mm=0.0, outline=ring)
    hold = base.setup.hold.changed(stick_out_mm=52.0, grip_length_mm=15.0)
    setup = base.setup.changed(hold=hold, operations=())
    part = Part(outside=outside, inside=inside, features=features)
    return base.changed(part=part, stock=stock, tools=tools, setups=(setup,), second_hold=None)
