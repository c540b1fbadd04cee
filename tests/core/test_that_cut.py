"""Passes that take nothing are left out, and nothing else."""

import numpy as np
import pytest

from toreuma.core.geometry.region import box
from toreuma.core.geometry.tool_shapes import shape_of
from toreuma.core.memo import Memo
from toreuma.core.model import RoughOd
from toreuma.core.plan import plan
from toreuma.core.plan.turn import rough
from toreuma.core.plan.turn.levels import LevelCut
from toreuma.core.plan.turn.that_cut import LEAST_MM2, that_cut
from toreuma.engine.engine import Engine
from toreuma.engine.fresh import new_job
from toreuma.shipped.library import demo_job

STOCK = box(-40.0, 0.0, 0.0, 20.0)
CORE = np.array([[0.0, 0.0], [0.87, 10.0], [10.0, 5.0]])
NOSE = 0.8


def cut(level: float, above: float, end: float = -30.0, climb: bool = True) -> LevelCut:
    up = np.array([[end, level + NOSE], [end, above + NOSE]]) if climb else np.zeros((0, 2))
    return LevelCut(level=level + NOSE, above=above + NOSE, start_z=1.0, end_z=end, entry=np.zeros((0, 2)),
                    climb=up, meets_z=0.0, leaves_z=end)  # fmt: skip


def test_a_pass_over_what_is_gone_is_left_out() -> None:
    cuts = [cut(18, 20), cut(18, 20), cut(16, 18), cut(17, 18)]
    assert [one.level - NOSE for one in that_cut(cuts, STOCK, CORE, NOSE)] == [18, 16]


def test_a_way_up_a_wall_stays_where_the_edge_leans_away_from_it() -> None:
    leaning = np.array([[0.0, 0.0], [6.0, 10.0], [10.0, 5.0]])
    square = np.array([[0.0, 0.0], [0.0, 10.0], [10.0, 5.0]])
    (stays,) = that_cut([cut(16, 20)], STOCK, leaning, NOSE)
    (gone,) = that_cut([cut(16, 20)], STOCK, square, NOSE)
    assert len(stays.climb) == 2
    assert len(gone.climb) == 0


def test_how_an_edge_leans_is_told_by_its_entering_angle() -> None:
    lean = {tool.name: shape_of(tool).leading_lean for tool in demo_job("spear").tools if tool.kind == "turning"}
    for tool in (one for one in demo_job("spear").tools if one.kind == "turning"):
        entering = tool.holder.entering_angle_deg if hasattr(tool.holder, "entering_angle_deg") else None
        if entering is not None and entering >= 90:
            assert lean[tool.name] == pytest.approx(np.tan(np.radians(entering - 90)), abs=2e-3), tool.name


def every_cut(cuts: list[LevelCut], *_: object) -> list[LevelCut]:
    return cuts


@pytest.mark.parametrize(
    "line",
    ["50 x 20 / 40 x 15 / 60 x 20", "24 x 20 c1 / 14 x 40 / 24 x 20 c1", "M20 x 20 relief / 30 x 12 / 45 x 15 c2"],
)
def test_what_is_left_out_would_have_taken_next_to_nothing(line: str, monkeypatch: pytest.MonkeyPatch) -> None:
    engine = Engine()
    drawn, _ = new_job("Strange", "mm", "C45", "slant-bed", line)
    job = engine.route(drawn).job
    few = plan(job, Memo())
    monkeypatch.setattr(rough, "that_cut", every_cut)
    every = plan(job, Memo())
    seconds = [sum(one.times.cutting_s for one in planned.operations) for planned in (few, every)]
    assert seconds[0] <= seconds[1]
    assert seconds[0] < seconds[1] or "14 x 40" not in line
    for done, whole in zip(few.operations, every.operations, strict=True):
        if isinstance(done.operation, RoughOd):
            out = sum(one.feed is not None for one in whole.motions) - sum(one.feed is not None for one in done.motions)
            more = done.after.difference(whole.after)
            assert more.area <= LEAST_MM2 * (out + 1), done.operation.name
