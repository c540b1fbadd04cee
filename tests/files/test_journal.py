"""The journal of unsaved work: kept in time, whole whatever is cut off, offered until it is answered."""

import os
import random
import time
from collections.abc import Iterator
from pathlib import Path

import pytest

from toreuma.core.model import Job
from toreuma.files import journal as J
from toreuma.files.jobs import print_of, save_job
from toreuma.files.journal import Journal, State, left_behind

LATEST_S = 2.0


@pytest.fixture(autouse=True)
def home(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setenv("TOREUMA_HOME", str(tmp_path / "home"))
    monkeypatch.setattr("tempfile.gettempdir", lambda: str(tmp_path / "tmp"))
    return tmp_path / "home"


@pytest.fixture
def journal() -> Iterator[Journal]:
    found = Journal()
    yield found
    found.close()


def ended(journal: Journal) -> Path:
    """The window of this journal is killed: nothing more is written, the system lets go of its file."""
    assert journal.keep_now()
    path = journal.path
    assert path is not None
    held = journal._held
    assert held is not None
    held.let_go()
    journal._held, journal._end = None, 0
    return path


def test_a_first_edit_is_on_the_disk_within_two_seconds_and_more_edits_do_not_starve_it(
    journal: Journal, spear: Job
) -> None:
    begun = time.monotonic()
    seen = []
    while time.monotonic() - begun < 3.2:
        journal.put(State(spear.changed(name=f"edit {time.monotonic() - begun:.2f}")))
        if journal.path is not None and journal.path.exists():
            seen.append((time.monotonic() - begun, journal.path.stat().st_size))
        time.sleep(0.05)
    sizes = [size for _, size in seen if size]
    assert next(at for at, size in seen if size) < LATEST_S
    assert len(set(sizes)) >= 2, "edits go on and are kept meanwhile"


def test_only_what_a_window_that_ended_left_is_offered(journal: Journal, spear: Job) -> None:
    journal.put(State(spear, Path("/jobs/spear.toreuma"), "base"))
    assert journal.keep_now()
    assert left_behind() == ([], []), "its window still runs"
    ended(journal)
    (left,), faults = left_behind()
    assert not faults
    assert (left.state.job, left.state.file, left.state.base) == (spear, Path("/jobs/spear.toreuma"), "base")
    assert left_behind()[0] == [left], "asked again, it is still there"
    assert left.drop()
    assert left_behind() == ([], [])


def test_work_that_was_saved_or_dropped_does_not_come_back(journal: Journal, spear: Job, tmp_path: Path) -> None:
    journal.put(State(spear))
    journal.keep_now()
    journal.put(State(spear.changed(name="later")))
    journal.rest()
    time.sleep(1.2)
    assert journal.path is not None
    assert journal.path.stat().st_size == 0
    file = tmp_path / "job.toreuma"
    journal.put(State(spear.changed(name="saved"), file, ""))
    journal.keep_now()
    save_job(spear.changed(name="saved"), file)  # and the window is killed before it says so
    ended(journal)
    assert left_behind() == ([], [])


def test_every_place_a_journal_can_be_cut_off_at_gives_a_state_that_stood(journal: Journal, spear: Job) -> None:
    names = [f"state {n}" for n in range(6)]
    for name in names:
        journal.put(State(spear.changed(name=name)))
        assert journal.keep_now()
    path = ended(journal)
    whole = path.read_bytes()
    ends = [i + 1 for i, byte in enumerate(whole) if byte == 10]
    chance = random.Random(4)
    for cut in (*ends, *(end - 1 for end in ends[1:]), *(chance.randrange(ends[0], len(whole)) for _ in range(40))):
        path.write_bytes(whole[:cut] + bytes(chance.randrange(3) * [0]))
        complete = sum(end <= cut for end in ends)
        (left,), _ = left_behind()
        assert left.state.job.name in (names[complete - 1], names[min(complete, 5)])
    path.write_bytes(whole[: ends[0] // 2])
    assert left_behind() == ([], []), "nothing was ever written in full"
    spoiled = bytearray(whole)
    for _ in range(30):
        spoiled[chance.randrange(ends[3], len(whole))] ^= 0x5A
    path.write_bytes(spoiled)
    (left,), _ = left_behind()
    assert left.state.job.name in names[3:]


def test_a_journal_of_nonsense_is_named_and_left_where_it_is(home: Path) -> None:
    (home / "journal").mkdir(parents=True)
    path = home / "journal" / "0123.log"
    path.write_bytes(b"nothing of ours\n" * 20)
    (home / "journal" / "empty.log").touch()
    os.mkfifo(home / "journal" / "pipe.log")
    (home / "journal" / "folder.log").mkdir()
    found, faults = left_behind()
    assert not found
    assert any("0123.log" in str(fault) and "cannot be read" in str(fault) for fault in faults)
    assert path.exists()
    assert not (home / "journal" / "empty.log").exists()


def test_a_full_disk_is_told_and_the_state_before_it_is_still_there(
    journal: Journal, spear: Job, monkeypatch: pytest.MonkeyPatch
) -> None:
    journal.put(State(spear.changed(name="before")))
    assert journal.keep_now()
    real = os.write

    def full(handle: int, data: bytes) -> int:
        if len(data) > 100:
            return real(handle, data[:100])
        raise OSError(28, "No space left on device")

    with monkeypatch.context() as patch:
        patch.setattr(os, "write", full)
        journal.put(State(spear.changed(name="lost")))
        assert not journal.keep_now()
        assert "No space left" in journal.problem
    journal.put(State(spear.changed(name="after")))
    assert journal.keep_now()
    assert not journal.problem
    path = ended(journal)
    assert path.read_bytes().count(b"\n") == 2
    assert left_behind()[0][0].state.job.name == "after"


def test_a_home_that_cannot_be_written_to_has_its_journals_with_the_system(
    journal: Journal, spear: Job, home: Path, tmp_path: Path
) -> None:
    home.write_text("a file where a folder should be")
    journal.put(State(spear))
    assert journal.keep_now()
    assert journal.path is not None
    assert journal.path.is_relative_to(tmp_path / "tmp")
    ended(journal)
    assert left_behind()[0][0].state.job == spear


def test_a_long_afternoon_does_not_fill_the_disk(
    journal: Journal, spear: Job, monkeypatch: pytest.MonkeyPatch, home: Path
) -> None:
    monkeypatch.setattr(J, "TURN_BYTES", 200_000)
    for n in range(30):
        journal.put(State(spear.changed(name=f"state {n}")))
        assert journal.keep_now()
    assert sum(path.stat().st_size for path in (home / "journal").iterdir()) < 400_000
    assert len(list((home / "journal").iterdir())) == 1
    ended(journal)
    assert left_behind()[0][0].state.job.name == "state 29"


def test_the_clock_plays_no_part(journal: Journal, spear: Job, tmp_path: Path) -> None:
    file = tmp_path / "job.toreuma"
    save_job(spear, file)
    os.utime(file, (4e9, 4e9))
    journal.put(State(spear.changed(name="mine"), file, print_of(file), at=5.0))
    ended(journal)
    assert left_behind()[0][0].state.job.name == "mine"
