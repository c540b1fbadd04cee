"""A seat beside a thread: where the thread runs out into it, that is told with its length, not passed over."""

import pytest
from shapely import box

from tests.engine.test_held_well import job_of
from toreuma.core.geometry.part_shape import build_part
from toreuma.core.prove.threads import thread_zone
from toreuma.core.standards.threads.form import form_of
from toreuma.engine.engine import Engine
from toreuma.engine.judging import prove_whole
from toreuma.shipped.library import known_threads


def rows_of(line: str):  # type: ignore[no-untyped-def]
    engine = Engine()
    found = engine.route(job_of(line))
    verdict = prove_whole(engine.sides(found.job), engine.language(found.job)).verdict
    return verdict, {row.what.partition(",")[0]: row for row in verdict.rows}


@pytest.mark.parametrize(
    "line", ["20 x 20, thread M20 x 20 / 20 h6 x 25 / 30 x 10", "20 h6 x 25, thread M20x1.5 x 15 / 30 x 10"]
)
def test_the_run_out_of_a_thread_in_a_seat_is_told_with_its_length(line: str) -> None:
    verdict, rows = rows_of(line)
    seat = rows["Ø 19.9935"]
    assert seat.state == "allowed"
    assert "run-out of the thread" in seat.left
    assert 0.3 < float(str(seat.left).split()[0]) < 3 * 2.5
    assert verdict.state == "finished but for"
    assert "run-out" in verdict.words


def test_a_relief_between_them_leaves_the_seat_whole() -> None:
    _, rows = rows_of("20 x 20 relief, thread M20 / 20 h6 x 25 / 30 x 10")
    assert "run-out" not in rows["Ø 19.9935"].left


def test_a_thread_runs_out_into_the_land_before_a_groove_and_no_farther() -> None:
    line = "50 x 40 c1; thread M50x2 x 10; g 3 x 46 at 12.5"
    verdict, _ = rows_of(line)
    assert verdict.finished, verdict.words
    job = job_of(line)
    thread = next(one for one in job.part.features if one.kind == "thread")
    form = form_of(known_threads(job.part)[thread.designation], "outside", thread.designation)
    zone = thread_zone(thread, form, build_part(job.part).region)
    high = zone.intersection(box(-100, 24.95, 0, 30))
    assert -12.5 - 0.3 < high.bounds[0] < -12.4
