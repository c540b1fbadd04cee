"""A day at the machine, simulated: all devices together, and the log keeps size."""

from pathlib import Path

import pytest

from tests.support.engine import recorded
from tests.support.long import everyday
from toreuma.core.errors import ToreumaError
from toreuma.core.model import Job
from toreuma.engine.day import machine_settings, run_day
from toreuma.log import open_store
from toreuma.shipped.library import demo_job


@pytest.fixture
def spear() -> Job:
    """The whole demo job."""
    return demo_job("spear")


@pytest.mark.parametrize("seed", everyday([1, 2, 3], 1))
def test_a_batch_of_85_keeps_size_with_what_the_log_says(seed: int, spear: Job, tmp_path: Path) -> None:
    store = open_store(f"sqlite:///{tmp_path / 'log.sqlite'}")
    report = run_day(store, spear, batch=85, speed=4000.0, seed=seed, engine=recorded())
    assert report.parts == 85
    assert report.within >= 81  # 95 %
    assert report.without < 50
    assert report.offsets >= 2
    assert report.edges >= 6
    assert report.bars >= 1
    assert report.alarms == 1
    assert report.preset == len(spear.tools)
    told = " ".join(words for words in report.told["Guide, Ø 22"])
    assert "edge wear" in told
    (run,) = store.runs()
    assert run.simulated
    assert run.ended is not None
    assert len(store.parts(run.id)) == 85
    assert len(store.offsets(run.id)) == report.offsets
    worn = [one for one in store.edges(run.id) if one.to_part is not None]
    assert len(worn) == report.edges
    assert {one.kind for one in store.stops(run.id)} == {"bar end", "broken tool"}
    measured = store.measurements(run.id, "outside 2 d")
    assert len(measured) == 18
    assert all("simulated" in one.gauge for one in measured)
    store.close()


def test_the_machine_follows_the_lines_of_the_proved_program(spear: Job) -> None:
    outcome = recorded().follow(spear)
    settings = machine_settings(outcome.timeline, "O1001", 5, spear)
    lines = [line for _, line, _ in settings["steps"]]
    assert set(lines) <= {span.motion.line for span in outcome.timeline.spans}
    assert settings["cycle_s"] == pytest.approx(1.03 * outcome.timeline.total_s)
    starts = [at for at, _, _ in settings["steps"]]
    assert starts == sorted(starts)


def test_a_part_without_a_size_to_follow_says_so(tmp_path: Path) -> None:
    stud = demo_job("vane-stud")
    store = open_store(f"sqlite:///{tmp_path / 'log.sqlite'}")
    with pytest.raises(ToreumaError, match="no diameter with limits"):
        run_day(store, stud, batch=3, engine=recorded())
    store.close()
