"""The log's database: SQLite in the shop's folder, or PostgreSQL for a shop with several seats.

Every entry is one transaction that is on the disk before the call returns.
"""

import json
import os
from collections.abc import Iterable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import asdict
from pathlib import Path
from typing import Any

from sqlalchemy import (
    ColumnElement,
    Connection,
    Engine,
    Row,
    Select,
    Table,
    create_engine,
    event,
    func,
    insert,
    select,
    text,
    update,
)
from sqlalchemy.engine import make_url
from sqlalchemy.exc import ArgumentError, DBAPIError, NoSuchModuleError, SQLAlchemyError

from toreuma.core.errors import ToreumaError
from toreuma.files.home import home
from toreuma.log import schema as s
from toreuma.log.entries import EdgeUsed, JobKept, Measurement, Note, Observation, OffsetSet, PartMade, RunKept, Stop
from toreuma.log.migrating import HEAD, upgraded

__all__ = ["LogFault", "Store", "open_store", "store_url"]

FILE = "log.sqlite"
BUSY_MS = 10_000


class LogFault(ToreumaError):
    """The log cannot be read or written."""


def store_url() -> str:
    """``TOREUMA_STORE``, else a file in the shop's folder."""
    return os.environ.get("TOREUMA_STORE") or f"sqlite:///{home() / FILE}"


def open_store(url: str | None = None) -> "Store":
    """The log, brought to the newest tables. Raises `LogFault`."""
    return Store(url or store_url())


def _engine(url: str) -> Engine:
    try:
        parsed = make_url(url)
        if parsed.get_backend_name() == "sqlite" and parsed.database:
            Path(parsed.database).parent.mkdir(parents=True, exist_ok=True)
        made = create_engine(parsed, pool_pre_ping=parsed.get_backend_name() != "sqlite")
    except (ArgumentError, NoSuchModuleError, ImportError) as error:
        raise LogFault(
            "log", f"'{url}' is no database ({error})", "give sqlite:///FILE or postgresql+psycopg://…"
        ) from None
    except OSError as error:
        raise LogFault("log", f"its folder cannot be made ({error.strerror})", "choose another place") from None
    if made.dialect.name == "sqlite":
        event.listen(made, "connect", _as_it_lasts)
    return made


def _as_it_lasts(connection: Any, _: object) -> None:
    """A write-ahead log that is flushed at every commit; keys between tables hold; others are waited for."""
    cursor = connection.cursor()
    for words in (f"busy_timeout={BUSY_MS}", "journal_mode=WAL", "synchronous=FULL", "foreign_keys=ON"):
        cursor.execute(f"PRAGMA {words}")
    cursor.close()


class Store:
    """Entries in and out. A method raises `LogFault` where the database cannot be read or written."""

    def __init__(self, url: str) -> None:
        self.url = url
        self._engine = _engine(url)
        with self._said(), self._engine.connect() as connection:
            upgraded(connection)

    def close(self) -> None:
        self._engine.dispose()

    @contextmanager
    def _said(self) -> Iterator[None]:
        try:
            yield
        except DBAPIError as error:
            what = str(error.orig).strip().splitlines()[0] if error.orig is not None else str(error)
            cure = "look whether it may be written and whether another program holds it"
            raise LogFault("log", f"the database says: {what}", cure) from None
        except SQLAlchemyError as error:
            raise LogFault("log", f"the database says: {str(error).splitlines()[0]}", "look at TOREUMA_STORE") from None

    @contextmanager
    def _writing(self) -> Iterator[Connection]:
        with self._said(), self._engine.begin() as connection:
            yield connection

    @contextmanager
    def _reading(self) -> Iterator[Connection]:
        with self._said(), self._engine.connect() as connection:
            yield connection

    # Jobs and runs

    def keep_job(
        self, ident: str, name: str, fingerprint: str, revision: str, content: str, at: float, programs: str = "[]"
    ) -> int:
        """A job in this state, kept once; gives the number of the revision."""
        with self._writing() as c:
            job = c.execute(select(s.JOB.c.id).where(s.JOB.c.ident == ident)).scalar()
            if job is None:
                job = _added(c, s.JOB, {"ident": ident, "name": name})
            else:
                c.execute(update(s.JOB).where(s.JOB.c.id == job).values(name=name))
            known = (s.REVISION.c.job_id == job) & (s.REVISION.c.fingerprint == fingerprint)
            found = c.execute(select(s.REVISION.c.id).where(known)).scalar()
            values = {"job_id": job, "fingerprint": fingerprint, "revision": revision, "at": at, "content": content}
            return int(found) if found is not None else _added(c, s.REVISION, {**values, "programs": programs})

    def begin_run(
        self, revision: int, machine: str, material: str, batch: int, at: float, planned_s: float,
        simulated: bool = False, constants: str = "{}",
    ) -> int:  # fmt: skip
        """A run begins; gives its number."""
        with self._writing() as c:
            return _added(
                c, s.RUN,
                {"revision_id": revision, "machine": machine, "material": material, "batch": batch, "begun": at,
                 "planned_s": planned_s, "simulated": simulated, "constants": constants},
            )  # fmt: skip

    def end_run(self, run: int, at: float) -> None:
        with self._writing() as c:
            c.execute(update(s.RUN).where(s.RUN.c.id == run).values(ended=at))

    def jobs(self) -> list[JobKept]:
        """Every job, the one that ran last first."""
        runs = (
            select(s.REVISION.c.job_id, func.count(s.RUN.c.id).label("runs"), func.max(s.RUN.c.begun).label("last"))
            .join(s.RUN, s.RUN.c.revision_id == s.REVISION.c.id).group_by(s.REVISION.c.job_id).subquery()
        )  # fmt: skip
        newest = (
            select(s.REVISION.c.job_id, func.max(s.REVISION.c.id).label("id")).group_by(s.REVISION.c.job_id).subquery()
        )
        query = (
            select(*s.JOB.c["ident", "name"], *s.REVISION.c["fingerprint", "revision"], *runs.c["runs", "last"])
            .join(newest, newest.c.job_id == s.JOB.c.id).join(s.REVISION, s.REVISION.c.id == newest.c.id)
            .outerjoin(runs, runs.c.job_id == s.JOB.c.id)
        )  # fmt: skip
        with self._reading() as c:
            found = [
                JobKept(ident=r[0], name=r[1], fingerprint=r[2], revision=r[3], runs=r[4] or 0, last_run=r[5])
                for r in c.execute(query)
            ]
        return sorted(found, key=lambda one: -(one.last_run or 0.0))

    def content_of(self, run: int) -> str:
        """The job of a run as it stood, as the text of its file."""
        query = (
            select(s.REVISION.c.content).join(s.RUN, s.RUN.c.revision_id == s.REVISION.c.id).where(s.RUN.c.id == run)
        )
        with self._reading() as c:
            found = c.execute(query).scalar()
        return str(self._there(found, f"run {run}"))

    def programs_of(self, run: int) -> list[tuple[str, str]]:
        """Names and texts of the programs a run was sent off with."""
        query = select(s.REVISION.c.programs).join(s.RUN, s.RUN.c.revision_id == s.REVISION.c.id)
        with self._reading() as c:
            found = c.execute(query.where(s.RUN.c.id == run)).scalar()
        return [(str(name), str(text)) for name, text in json.loads(self._there(found, f"run {run}"))]

    def runs(self, ident: str = "") -> list[RunKept]:
        """Runs of a job, or of all, the last one first."""
        query = _RUNS.order_by(s.RUN.c.begun.desc(), s.RUN.c.id.desc())
        query = query.where(s.JOB.c.ident == ident) if ident else query
        with self._reading() as c:
            return [RunKept(**row._mapping) for row in c.execute(query)]

    def run(self, run: int) -> RunKept:
        """Raises `LogFault` for one that is not there."""
        with self._reading() as c:
            row = c.execute(_RUNS.where(s.RUN.c.id == run)).first()
        return RunKept(**self._there(row, f"run {run}")._mapping)

    @staticmethod
    def _there(found: Any, where: str) -> Any:
        if found is None:
            raise LogFault("log", f"there is no {where}", "look at the list of runs")
        return found

    # What happens in a run

    def add(
        self, run: int, *entries: PartMade | Measurement | OffsetSet | EdgeUsed | Stop | Observation,
        instead_of: Sequence[int] = (),
    ) -> list[int]:  # fmt: skip
        """Entries of a run, all of them or none; gives their numbers. Sizes that are numbered in ``instead_of`` are
        struck with it."""
        with self._writing() as c:
            if instead_of:
                c.execute(update(s.MEASUREMENT).where(s.MEASUREMENT.c.id.in_(instead_of)).values(struck=True))
            return [_added(c, *_row_of(run, one)) for one in entries]

    def add_many(self, run: int, entries: Sequence[Measurement]) -> None:
        """Many sizes at once, as another program hands them over."""
        with self._writing() as c:
            c.execute(insert(s.MEASUREMENT), [_row_of(run, one)[1] for one in entries])

    def strike(self, measurement: int, struck: bool = True) -> None:
        """Take a size back, or take that back."""
        with self._writing() as c:
            c.execute(update(s.MEASUREMENT).where(s.MEASUREMENT.c.id == measurement).values(struck=struck))

    def end_edge(self, edge: EdgeUsed) -> None:
        """What became of an edge that was in."""
        values = {k: v for k, v in asdict(edge).items() if k not in ("id", "at", "tool", "code", "corner", "from_part")}
        with self._writing() as c:
            c.execute(update(s.EDGE).where(s.EDGE.c.id == edge.id).values(**values))

    def note(self, ident: str, note: Note) -> int:
        """Words about a job. Raises `LogFault` for one that was never kept."""
        with self._writing() as c:
            job = c.execute(select(s.JOB.c.id).where(s.JOB.c.ident == ident)).scalar()
            values = {k: v for k, v in asdict(note).items() if k not in ("id", "run")}
            return _added(c, s.NOTE, {**values, "job_id": self._there(job, f"job '{ident}'"), "run_id": note.run})

    def parts(self, run: int) -> list[PartMade]:
        return [PartMade(**r) for r in self._of(s.PART, run, s.PART.c.number, leave=("id",))]

    def measurements(
        self, run: int, size: str = "", with_struck: bool = False, part: int | None = None, last: int | None = None
    ) -> list[Measurement]:
        """Sizes of a run in the order they were made: of a line (at any place of it), of a part, the last so many."""
        m = s.MEASUREMENT.c
        query = select(s.MEASUREMENT).where(m.run_id == run)
        query = query.where(_of_line(size)) if size else query
        query = query if part is None else query.where(m.part == part)
        query = query if with_struck else query.where(m.struck.is_(False))
        query = query.order_by(m.part.desc(), m.id.desc()).limit(last) if last else query.order_by(m.part, m.id)
        found = [Measurement(**r) for r in self._rows(query)]
        return found[::-1] if last else found

    def sizes(self, run: int) -> dict[str, int]:
        """Keys that were measured in a run, and how often, without what was struck."""
        m = s.MEASUREMENT.c
        with self._reading() as c:
            query = select(m.size, func.count()).where((m.run_id == run) & m.struck.is_(False)).group_by(m.size)
            return {str(key): int(count) for key, count in c.execute(query)}

    def last_part(self, run: int) -> int:
        """The highest part of a run, made or measured; 0 for none."""
        with self._reading() as c:
            made = c.execute(select(func.max(s.PART.c.number)).where(s.PART.c.run_id == run)).scalar()
            seen = c.execute(select(func.max(s.MEASUREMENT.c.part)).where(s.MEASUREMENT.c.run_id == run)).scalar()
        return max(int(made or 0), int(seen or 0))

    def series(self, run: int, size: str) -> list[tuple[int, float, float]]:
        """Part, moment and value of one size, for a chart of very many."""
        m = s.MEASUREMENT.c
        query = select(m.part, m.at, m.value).where((m.run_id == run) & _of_line(size) & m.struck.is_(False))
        with self._reading() as c:
            return list(map(tuple, c.execute(query.order_by(m.part, m.id))))

    def offsets(self, run: int) -> list[OffsetSet]:
        return [OffsetSet(**r) for r in self._of(s.OFFSET, run, s.OFFSET.c.id)]

    def edges(self, run: int | None = None) -> list[EdgeUsed]:
        """Edges of a run, or of all runs."""
        return [EdgeUsed(**r) for r in self._of(s.EDGE, run, s.EDGE.c.id)]

    def edges_of(self, material: str) -> list[EdgeUsed]:
        """Edges that were used on a material."""
        query = select(s.EDGE).join(s.RUN, s.RUN.c.id == s.EDGE.c.run_id).where(s.RUN.c.material == material)
        return [EdgeUsed(**r) for r in self._rows(query.order_by(s.EDGE.c.id))]

    def stops(self, run: int) -> list[Stop]:
        return [Stop(**r) for r in self._of(s.STOP, run, s.STOP.c.id)]

    def observations(self, kind: str, of: str = "") -> list[Observation]:
        query = select(s.OBSERVATION).where(s.OBSERVATION.c.kind == kind)
        query = query.where(s.OBSERVATION.c.of == of) if of else query
        return [Observation(**r) for r in self._rows(query.order_by(s.OBSERVATION.c.id))]

    def notes(self, ident: str) -> list[Note]:
        """Notes of a job, the last one first."""
        query = select(s.NOTE).join(s.JOB, s.JOB.c.id == s.NOTE.c.job_id).where(s.JOB.c.ident == ident)
        with self._reading() as c:
            rows = [dict(row._mapping) for row in c.execute(query.order_by(s.NOTE.c.id.desc()))]
        return [
            Note(**{k: v for k, v in row.items() if k not in ("job_id", "run_id")}, run=row["run_id"]) for row in rows
        ]

    def counts(self) -> dict[str, int]:
        """How many entries there are, by table."""
        with self._reading() as c:
            return {
                name: int(c.execute(select(func.count()).select_from(t)).scalar() or 0) for name, t in _TABLES.items()
            }

    def rows(self, table: str) -> Iterator[dict[str, Any]]:
        """Everything of a table as it stands, for others to read."""
        with self._reading() as c:
            yield from (dict(row._mapping) for row in c.execute(select(_TABLES[table]).order_by(_TABLES[table].c.id)))

    @property
    def tables(self) -> tuple[str, ...]:
        return tuple(_TABLES)

    def _of(self, table: Table, run: int | None, order: Any, leave: Iterable[str] = ()) -> list[dict[str, Any]]:
        query = select(table).order_by(order)
        return self._rows(query if run is None else query.where(table.c.run_id == run), leave)

    def _rows(self, query: Select[Any], leave: Iterable[str] = ()) -> list[dict[str, Any]]:
        without = {"run_id", *leave}
        with self._reading() as c:
            return [{k: v for k, v in row._mapping.items() if k not in without} for row in c.execute(query)]

    @property
    def version(self) -> str:
        """The step of the tables it stands at."""
        with self._reading() as c:
            return str(c.execute(text("SELECT version_num FROM alembic_version")).scalar() or HEAD)


_TABLES = {table.name: table for table in s.METADATA.sorted_tables}

_RUNS = (
    select(
        s.RUN.c.id, s.JOB.c.ident, s.JOB.c.name, s.REVISION.c.fingerprint, s.REVISION.c.revision, s.RUN.c.machine,
        s.RUN.c.material, s.RUN.c.batch, s.RUN.c.begun, s.RUN.c.ended, s.RUN.c.planned_s, s.RUN.c.simulated,
        s.RUN.c.constants,
    )
    .join(s.REVISION, s.REVISION.c.id == s.RUN.c.revision_id).join(s.JOB, s.JOB.c.id == s.REVISION.c.job_id)
)  # fmt: skip

_TABLE_OF: dict[type, Table] = {
    PartMade: s.PART, Measurement: s.MEASUREMENT, OffsetSet: s.OFFSET, EdgeUsed: s.EDGE, Stop: s.STOP,
    Observation: s.OBSERVATION,
}  # fmt: skip


def _of_line(line: str) -> ColumnElement[bool]:
    """Sizes of a line of the inspection list: as it is, or at a place of it."""
    size = s.MEASUREMENT.c.size
    return (size == line) | size.startswith(f"{line}@", autoescape=True)


def _row_of(run: int, entry: Any) -> tuple[Table, dict[str, Any]]:
    return _TABLE_OF[type(entry)], {**{k: v for k, v in asdict(entry).items() if k != "id"}, "run_id": run}


def _added(connection: Connection, table: Table, values: dict[str, Any]) -> int:
    key: Row[Any] | None = connection.execute(insert(table).values(**values)).inserted_primary_key
    assert key is not None
    return int(key[0])
