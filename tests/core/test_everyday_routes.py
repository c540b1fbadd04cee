"""Everyday parts whose routes once were roundabout or not finished, each by what was in the way."""

import pytest

from tests.support.long import everyday
from toreuma.engine.engine import Engine
from toreuma.engine.fresh import new_job

HUB = "110 x 14 / 70 h7 x 18, bore 40 H7, holes 6 x 9 on 90"
"""A rim behind the bore kept the finishing bar from going through."""

PARTS = [
    (HUB, "twin-spindle mill-turn", "C45"),
    ("G 3/4 x 18 relief / 32 x 10 / G 1/2 x 16 relief, bore 12", "slant-bed", "CuZn39Pb3"),  # jaws beside a relief
    ("16 x 90, M16 x 30 both ends", "slant-bed", "42CrMo4"),  # the shaft had no limits for its threads
    ("150 x 20, bore 80 H7", "slant-bed", "GJL-250"),  # the nose left the wall before the back face
    ("33.4 x 14.3; bore 24.1 through / 19.4 x 6.5 from back; break 0.2", "gang lathe", "CuSn8"),  # an edge of a bore
    ("Tr20x4 x 60 / 20 x 40 / 15 h7 x 20", "slant-bed", "C45"),  # a cone where two limits met
    ("20 k6 x 25 / 20 h9 x 30 / 30 x 10", "slant-bed", "C45"),
    ("32 x 40 c1 both; hole M16 x 18", "slant-bed", "16MnCr5"),  # the core was measured on a tooth
    ("54 x 20 c1; bore 35 H7; 3 x M5 on 44", "twin-spindle mill-turn", "AlMgSi1"),  # through, deeper than flutes are
    ("42 x 38; cross 6 at 17", "twin-spindle mill-turn", "42CrMo4"),  # its own drill, not the longer one beside it
    ("12 x 8 c0.5 / 20 x 14 knurl diamond 1 c1 both; hole M6 x 12", "gang lathe", "EN AW-7075"),  # wheels at the jaws
]


@pytest.mark.parametrize(("line", "machine", "material"), everyday(PARTS, PARTS[2], PARTS[6]))
def test_it_is_finished(line: str, machine: str, material: str) -> None:
    job, _ = new_job("part", "mm", material, machine, line)
    found = Engine().route(job)
    assert found.state in ("finished", "finished but for"), found.words


@pytest.mark.long
def test_a_flange_is_begun_from_its_hub() -> None:
    """What is turned in one hold is not gone over again in the next; every cut toward the chuck, with plain tools."""
    job, _ = new_job("part", "mm", "C45", "twin-spindle mill-turn", HUB)
    found = Engine().route(job)
    tools = [found.job.tool(op.tool) for setup in found.job.setups for op in setup.operations]
    turning = [tool for tool in tools if tool is not None and tool.kind == "turning"]
    assert {tool.hand for tool in turning} == {"right"}
    assert len({tool.name for tool in turning}) == 2
    assert found.job.part.outside[1].d_mm == 70
