"""Undercuts in the finishing cut: which tools slide in, and what the proof says of it."""

import pytest

from tests.support.long import everyday
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.model import FinishOd, Relief
from toreuma.core.model.tool import TurningTool
from toreuma.core.reach.relieved import slides_in
from toreuma.engine.engine import Engine
from toreuma.engine.fresh import new_job
from toreuma.shipped.library import catalogue

E, F = (
    Relief(form=form, z_mm=-26, length_mm=2.5, depth_mm=0.3, radius_mm=0.6, face_depth_mm=face)  # type: ignore[arg-type]
    for form, face in (("E", 0.0), ("F", 0.2))
)


def tool(insert: str, holder: str) -> TurningTool:
    store = catalogue()
    found = next(one for one in store.inserts if one.code.startswith(insert))
    carrier = next(one for one in store.carriers if one.holder is not None and one.holder.code == holder)
    hand = "left" if "L2525" in holder else "right"
    return TurningTool(id="T1", station=1, insert=found, holder=carrier.holder, hand=hand)


@pytest.mark.parametrize(
    ("insert", "holder", "slides"),
    [
        ("CNMG120404", "PCLNR2525M12", (False, False)),  # its trailing edge stands at five degrees
        ("DNMG150604", "PDJNR2525M15", (True, False)),  # 93 degrees lean back three
        ("VBMT160404", "SVHBR2525M16", (True, True)),  # 107.5 degrees lean back far enough for the shoulder
        ("DNMG150604", "PDJNL2525M15", (False, False)),  # it comes from the other side
        ("DNMG150608", "PDJNR2525M15", (False, False)),  # its nose is larger than the round
    ],
)
def test_tools_that_slide_in(insert: str, holder: str, slides: tuple[bool, bool]) -> None:
    shape = shape_of(tool(insert, holder))
    assert (slides_in(shape, E), slides_in(shape, F)) == slides


@pytest.mark.parametrize("form", everyday(["E 0.8x0.3", "F 0.6x0.3"], "F 0.6x0.3"))
def test_a_high_shoulder_has_its_undercut_finished_with_the_seat(form: str) -> None:
    """No blade reaches down beside the flange."""
    job, _ = new_job("flange", "mm", "C45", "slant-bed", f"60 h6 x 30 relief {form} / 150 x 20")
    found = Engine().route(job)
    assert found.state in ("finished", "finished but for"), found.words
    assert all(one.kind != "groove" for setup in found.job.setups for one in setup.operations)
    away = [one.allow_away for setup in found.job.setups for one in setup.operations if isinstance(one, FinishOd)]
    assert any(away) is form.startswith("F")
