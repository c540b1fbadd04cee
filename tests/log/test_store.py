"""The log lasts: the same on SQLite and PostgreSQL, over kills, over versions, and read by other tools."""

import csv
import io
import json
import os
import random
import signal
import sqlite3
import subprocess
import sys
import time
import zipfile
from collections.abc import Iterator
from pathlib import Path

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy import create_engine, text

from tests.support.long import everyday
from tests.support.postgres import installed, server
from toreuma.core.errors import ToreumaError
from toreuma.log import EdgeUsed, Measurement, Note, Observation, OffsetSet, PartMade, Stop, Store, open_store
from toreuma.log.exported import as_csv, as_csv_archive, as_json
from toreuma.log.schema import METADATA


@pytest.fixture(scope="module")
def postgres() -> Iterator[str]:
    if not installed():
        pytest.skip("no PostgreSQL server is installed here")
    with server() as url:
        yield url


def fresh_postgres(url: str) -> str:
    engine = create_engine(url)
    with engine.begin() as connection:
        connection.execute(text("DROP SCHEMA public CASCADE"))
        connection.execute(text("CREATE SCHEMA public"))
    engine.dispose()
    return url


def filled(store: Store) -> int:
    """A small run with something of everything in it."""
    revision = store.keep_job("spear", "Regulating spear", "c5575113", "A", '{"name": "x"}', 100.0)
    assert store.keep_job("spear", "Regulating spear", "c5575113", "A", "{}", 200.0) == revision
    other = store.keep_job("ring", "Nozzle seat", "60a47dd6", "", "{}", 110.0)
    store.begin_run(other, "slant-bed", "CuSn8", 4, 150.0, 300.0)
    run = store.begin_run(
        revision, "toolroom lathe", "1.4404", 85, 200.0, 143.2, simulated=True, constants='{"m": 0.25}'
    )
    for part in (2, 1, 3):
        store.add(run, PartMade(number=part, at=200.0 + part, seconds=143.0))
        store.add(
            run,
            Measurement(part=part, size="outside 2 d", value=round(21.96 + part / 1000, 3), at=210.0 + part,
                        gauge="micrometer", uncertainty=0.004),
            Measurement(part=part, size="overall", value=76.01, at=211.0 + part),
        )  # fmt: skip
    store.add(run, OffsetSet(after_part=2, tool="T2", axis="X", mm=-0.005, at=220.0, why="first article"))
    store.add(
        run, Stop(part=3, operation="Rough outside", kind="bird's nest", at=230.0, seconds=60.0, note="long chip")
    )
    store.add(run, Observation(kind="power", of="1.4404", computed=3.4, found=3.7, at=231.0))
    (edge,) = store.add(run, EdgeUsed(tool="T1", code="CNMG120408", corner=1, from_part=1, at=200.0))
    store.end_edge(
        EdgeUsed(id=edge, tool="T1", code="CNMG120408", corner=1, from_part=1, at=200.0, to_part=3, minutes=2.7,
                 metres=395.0, vc_m_min=146.0, seen="flank", wear_mm=0.18, worn=True)
    )  # fmt: skip
    store.note("spear", Note(words="holds size after ten minutes", at=240.0, run=run, picture=b"\x89PNG"))
    store.strike(store.measurements(run, "overall")[0].id)
    store.end_run(run, 250.0)
    return run


def everything(store: Store) -> object:
    run = filled(store)
    return (
        store.jobs(), store.runs(), store.run(run), store.content_of(run), store.parts(run), store.measurements(run),
        store.measurements(run, with_struck=True), store.series(run, "outside 2 d"), store.offsets(run),
        store.edges(run), store.edges_of("1.4404"), store.stops(run), store.observations("power"), store.notes("spear"),
        store.counts(), as_json(store), {name: as_csv(store, name) for name in store.tables},
    )  # fmt: skip


def test_sqlite_and_postgres_give_the_same_answers(tmp_path: Path, postgres: str) -> None:
    one, other = open_store(f"sqlite:///{tmp_path / 'log.sqlite'}"), open_store(fresh_postgres(postgres))
    assert everything(one) == everything(other)
    one.close()
    other.close()


def test_what_went_in_comes_out(tmp_path: Path) -> None:
    store = open_store(f"sqlite:///{tmp_path / 'log.sqlite'}")
    run = filled(store)
    assert [one.number for one in store.parts(run)] == [1, 2, 3]
    assert [one.value for one in store.measurements(run, "outside 2 d")] == [21.961, 21.962, 21.963]
    assert len(store.measurements(run, "overall")) == 2  # one was struck
    assert len(store.measurements(run, "overall", with_struck=True)) == 3
    assert store.edges(run)[0].worn
    assert store.edges(run)[0].minutes == 2.7
    assert store.runs("spear")[0].ended == 250.0
    assert [one.ident for one in store.jobs()] == ["spear", "ring"]
    assert store.notes("spear")[0].picture == b"\x89PNG"
    store.close()
    again = open_store(f"sqlite:///{tmp_path / 'log.sqlite'}")
    assert again.counts()["measurement"] == 6
    again.close()


@pytest.mark.parametrize("kind", ["sqlite", "postgres"])
def test_the_steps_lead_to_the_tables_the_code_knows(kind: str, tmp_path: Path, request: pytest.FixtureRequest) -> None:
    url = f"sqlite:///{tmp_path / 'log.sqlite'}"
    if kind == "postgres":
        url = fresh_postgres(request.getfixturevalue("postgres"))
    open_store(url).close()
    engine = create_engine(url)
    with engine.connect() as connection:
        context = MigrationContext.configure(connection, opts={"compare_type": True})
        assert compare_metadata(context, METADATA) == []
    engine.dispose()


def test_tables_of_a_newer_version_are_refused_and_left_alone(tmp_path: Path) -> None:
    path = tmp_path / "log.sqlite"
    open_store(f"sqlite:///{path}").close()
    with sqlite3.connect(path) as connection:
        connection.execute("UPDATE alembic_version SET version_num = '0999'")
    before = path.read_bytes()
    with pytest.raises(ToreumaError, match="newer Toreuma"):
        open_store(f"sqlite:///{path}")
    assert path.read_bytes() == before


def test_entries_come_all_or_none(tmp_path: Path) -> None:
    store = open_store(f"sqlite:///{tmp_path / 'log.sqlite'}")
    run = filled(store)
    before = store.counts()
    with pytest.raises(ToreumaError):  # the second part is there already
        store.add(run, Measurement(part=9, size="overall", value=76.0, at=1.0), PartMade(number=1, at=1.0))
    assert store.counts() == before
    with pytest.raises(ToreumaError, match="no run 99"):
        store.run(99)
    with pytest.raises(ToreumaError):
        store.add(99, PartMade(number=1, at=1.0))
    with pytest.raises(ToreumaError, match="no job"):
        store.note("nobody", Note(words="x", at=1.0))
    store.close()


@pytest.mark.parametrize(
    "url",
    ["nonsense", "sqlite:////proc/nowhere/log.sqlite", "oracle://x", "postgresql+psycopg://shop@127.0.0.1:1/none"],
)
def test_a_log_that_cannot_be_says_so_in_a_line(url: str) -> None:
    with pytest.raises(ToreumaError) as caught:
        open_store(url)
    assert "\n" not in str(caught.value)
    assert str(caught.value).startswith("log: ")


def test_a_file_that_is_no_database_says_so(tmp_path: Path) -> None:
    path = tmp_path / "log.sqlite"
    path.write_bytes(b"this is a letter to my aunt" * 100)
    with pytest.raises(ToreumaError, match="log: the database says"):
        open_store(f"sqlite:///{path}")


def test_others_can_read_it(tmp_path: Path) -> None:
    path = tmp_path / "log.sqlite"
    store = open_store(f"sqlite:///{path}")
    filled(store)
    rows = list(csv.DictReader(io.StringIO(as_csv(store, "measurement"))))
    assert [row["value"] for row in rows if row["size"] == "outside 2 d"] == ["21.962", "21.961", "21.963"]
    with zipfile.ZipFile(io.BytesIO(as_csv_archive(store))) as archive:
        assert set(archive.namelist()) == {f"{name}.csv" for name in store.tables}
    everything = json.loads(as_json(store))
    assert everything["tables"]["offset_set"][0]["mm"] == -0.005
    store.close()
    with sqlite3.connect(path) as connection:
        assert connection.execute("SELECT count(*) FROM measurement").fetchone() == (6,)


WRITER = """
import sys
from toreuma.log import Measurement, open_store
store = open_store(sys.argv[1])
run = int(sys.argv[2])
print("ready", flush=True)
n = 0
while True:
    n += 1
    (key,) = store.add(run, Measurement(part=n, size="overall", value=76.0, at=float(n)))
    print(key, flush=True)
"""


@pytest.mark.parametrize("kills", everyday([4, 100], 4))
def test_nothing_committed_is_lost_when_it_is_killed(kills: int, tmp_path: Path) -> None:
    url = f"sqlite:///{tmp_path / 'log.sqlite'}"
    store = open_store(url)
    run = store.begin_run(store.keep_job("a", "A", "f", "", "{}", 1.0), "m", "steel", 1, 1.0, 1.0)
    store.close()
    source, told = random.Random(9), set()
    for _ in range(kills):
        child = subprocess.Popen(
            [sys.executable, "-c", WRITER, url, str(run)], stdout=subprocess.PIPE, text=True, env=dict(os.environ)
        )
        assert child.stdout is not None
        assert child.stdout.readline() == "ready\n"
        time.sleep(source.uniform(0.0, 0.15))
        child.send_signal(signal.SIGKILL)
        lines = child.stdout.read().splitlines(keepends=True)
        child.wait()
        told |= {int(one) for one in lines if one.endswith("\n")}
    assert len(told) > kills
    again = open_store(url)
    kept = {one.id for one in again.measurements(run)}
    assert told <= kept
    assert len(kept - told) <= kills  # the one that was under way may have come through
    with sqlite3.connect(tmp_path / "log.sqlite") as connection:
        assert connection.execute("PRAGMA integrity_check").fetchone() == ("ok",)
    again.close()


def test_a_hundred_thousand_sizes_stay_small_and_are_all_there(tmp_path: Path) -> None:
    path = tmp_path / "log.sqlite"
    store = open_store(f"sqlite:///{path}")
    run = store.begin_run(store.keep_job("a", "A", "f", "", "{}", 1.0), "m", "steel", 100_000, 1.0, 1.0)
    many = [
        Measurement(
            part=n, size="outside 2 d", value=20 + n % 7 / 1000, at=60.0 * n, gauge="micrometer", uncertainty=0.004
        )
        for n in range(100_000)
    ]
    store.add_many(run, many)
    series = store.series(run, "outside 2 d")
    assert len(series) == 100_000
    assert series[-1][:2] == (99_999, 60.0 * 99_999)
    store.close()
    assert sum(one.stat().st_size for one in tmp_path.iterdir()) < 100e6
