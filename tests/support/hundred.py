"""A job of a hundred operations: a long bar with a comb of grooves."""

from tests.support.routes import tool_of
from toreuma.core.model import CutGroove, Face, FinishOd, Job, Part, PartOff, RoughOd, Setup
from toreuma.core.model.feature import Groove
from toreuma.core.model.part import Element
from toreuma.shipped.library import demo_job

__all__ = ["hundred_operations"]

PITCH_MM = 3.0


def hundred_operations(grooves: int = 96) -> Job:
    """Faced, turned, grooved ``grooves`` times and parted off."""
    base = demo_job("gate-spindle")
    length = round(grooves * PITCH_MM + 10, 1)
    features = tuple(Groove(z_mm=round(-6 - i * PITCH_MM, 2), width_mm=1.6, d_mm=26.0) for i in range(grooves))
    part = Part(outside=(Element(z_mm=0, d_mm=30), Element(z_mm=-length, d_mm=30)), features=features)
    turner = next(tool for tool in base.tools if tool.kind == "turning")
    blade, parting = tool_of("GO 1.5 4", 5), tool_of("PB 3 22", 12)
    operations = (
        Face(id="face", tool=turner.id),
        RoughOd(id="rough", tool=turner.id),
        FinishOd(id="finish", tool=turner.id),
        *(CutGroove(id=f"g{i}", tool=blade.id, feature=i, name=f"Groove {i + 1}") for i in range(grooves)),
        PartOff(id="off", tool=parting.id),
    )
    hold = base.setup.hold.changed(stick_out_mm=length + 25, grip_length_mm=40)
    stock = base.stock.changed(d_mm=32.0, length_mm=None)
    setup = Setup(hold=hold, operations=operations)
    return base.changed(part=part, stock=stock, tools=(turner, blade, parting), setups=(setup,), second_hold=None)
