"""Writing in full or not at all: mode, owner and links stay, nothing is left behind, a save is read back."""

import os
import stat
import subprocess
import sys
from pathlib import Path

import pytest

from toreuma.core.errors import JobError
from toreuma.core.model import Job
from toreuma.files import jobs, writing
from toreuma.files.jobs import load_job, save_job
from toreuma.files.writing import write_atomically


def test_mode_links_and_second_names_stay(tmp_path: Path) -> None:
    kept = tmp_path / "real.txt"
    kept.write_text("old")
    kept.chmod(0o600)
    (tmp_path / "link.txt").symlink_to(kept)
    write_atomically(tmp_path / "link.txt", "new")
    assert (tmp_path / "link.txt").is_symlink()
    assert kept.read_text() == "new"
    assert stat.S_IMODE(kept.stat().st_mode) == 0o600
    os.link(kept, tmp_path / "second.txt")
    write_atomically(kept, "newer")
    assert (tmp_path / "second.txt").read_text() == "newer"
    assert kept.stat().st_nlink == 2
    fresh = tmp_path / "fresh.txt"
    write_atomically(fresh, "x")
    (tmp_path / "usual.txt").write_text("x")
    assert fresh.stat().st_mode == (tmp_path / "usual.txt").stat().st_mode


def test_a_read_only_file_stays_as_it_is(tmp_path: Path, spear: Job) -> None:
    path = tmp_path / "job.toreuma"
    save_job(spear, path)
    path.chmod(0o444)
    with pytest.raises(JobError, match="read-only"):
        save_job(spear.changed(name="other"), path)
    assert load_job(path) == spear
    assert stat.S_IMODE(path.stat().st_mode) == 0o444


@pytest.mark.skipif(os.getuid() != 0, reason="only root can give files away")
def test_the_owner_stays(tmp_path: Path, spear: Job) -> None:
    path = tmp_path / "job.toreuma"
    save_job(spear, path)
    os.chown(path, 12345, 12345)
    save_job(spear.changed(name="other"), path)
    assert (path.stat().st_uid, path.stat().st_gid) == (12345, 12345)


def test_what_a_writer_that_was_killed_left_is_cleared(tmp_path: Path) -> None:
    path = tmp_path / "job.txt"
    gone = subprocess.Popen([sys.executable, "-c", ""])
    gone.wait()
    old, mine = (tmp_path / f".job.txt.{pid}-abc.part" for pid in (gone.pid, os.getpid()))
    for left in (old, mine):
        left.write_text("half")
        os.utime(left, (1e9, 1e9))
    write_atomically(path, "whole")
    assert not old.exists()
    assert mine.exists(), "its writer still runs"
    assert sorted(one.name for one in tmp_path.iterdir()) == sorted([path.name, mine.name])


def test_a_full_disk_leaves_the_file_and_nothing_else(
    tmp_path: Path, spear: Job, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "job.toreuma"
    save_job(spear, path)

    def full(_: int) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(writing.os, "fsync", full)
    with pytest.raises(JobError, match="No space left"):
        save_job(spear.changed(name="other"), path)
    assert load_job(path) == spear
    assert [one.name for one in tmp_path.iterdir()] == ["job.toreuma"]


def test_a_save_that_is_not_read_back_equal_is_none(
    tmp_path: Path, spear: Job, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "job.toreuma"
    save_job(spear, path)
    monkeypatch.setattr(jobs, "bytes_of", lambda path, most: b"{}")
    with pytest.raises(JobError, match="not read back"):
        save_job(spear.changed(name="other"), path)


def test_what_cannot_be_written_is_refused_before_anything_is_touched(tmp_path: Path, spear: Job) -> None:
    path = tmp_path / "job.toreuma"
    save_job(spear, path)
    nested: object = "end"
    for _ in range(3000):
        nested = [nested]
    for bad in ({"note": "half \ud800 a character"}, {"note": nested}):
        with pytest.raises(JobError):
            save_job(spear.model_copy(update=bad), path)
    assert load_job(path) == spear


def test_what_is_no_file_is_never_written_over(tmp_path: Path, spear: Job) -> None:
    os.mkfifo(tmp_path / "pipe.toreuma")
    (tmp_path / "folder.toreuma").mkdir()
    (tmp_path / "link.toreuma").symlink_to("/dev/null")
    for name in ("pipe", "folder", "link"):
        with pytest.raises(JobError):
            save_job(spear, tmp_path / f"{name}.toreuma")
    assert stat.S_ISFIFO((tmp_path / "pipe.toreuma").stat().st_mode)
    assert stat.S_ISCHR(Path("/dev/null").stat().st_mode)
    assert len(list(tmp_path.iterdir())) == 3
