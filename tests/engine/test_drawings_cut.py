"""Ten drawings from the bench planned to the end: finished, or what is open told in one line."""

import pytest

from tests.support.bench_drawings import DRAWINGS, Drawing
from tests.support.long import everyday
from toreuma.engine.engine import Engine
from toreuma.engine.fresh import new_job

STANDS_STILL = {"screen bush": "holes", "gate nut": "flats", "hand wheel hub": "holes", "dashpot piston": "holes"}
"""What is left on a machine that drives no tools, by drawing."""

BY_NAME = {one.name: one for one in DRAWINGS}


@pytest.mark.parametrize("name", everyday(BY_NAME, "lever stud"))
def test_a_drawing_is_finished_or_what_is_open_is_told(name: str) -> None:
    one: Drawing = BY_NAME[name]
    job, _ = new_job(one.name, one.units, one.material, one.machine, one.line)
    found = Engine().route(job)
    open_ = STANDS_STILL.get(name)
    told = [line.what for line in found.without]
    if open_ is None:
        assert found.state in ("finished", "finished but for"), found.words
        assert told == []
    else:
        assert found.state == "not finished"
        assert found.words.startswith(f"not finished: {open_}: it is not cut"), found.words
        assert told
        assert all(line == f"{open_}: no tool can do it" for line in told)
