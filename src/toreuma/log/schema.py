"""The tables of the log. Moments are seconds since 1970 (UTC), lengths mm, diameters on diameter.

What stands here is what the newest migration leaves behind; a test holds the one against the other.
"""

from sqlalchemy import (
    Boolean,
    Column,
    Float,
    ForeignKey,
    Index,
    Integer,
    LargeBinary,
    MetaData,
    String,
    Table,
    Text,
    UniqueConstraint,
)

__all__ = ["EDGE", "JOB", "MEASUREMENT", "METADATA", "NOTE", "OBSERVATION", "OFFSET", "PART", "REVISION", "RUN", "STOP"]

METADATA = MetaData(
    naming_convention={
        "ix": "ix_%(table_name)s_%(column_0_N_name)s",
        "uq": "uq_%(table_name)s_%(column_0_N_name)s",
        "fk": "fk_%(table_name)s_%(column_0_name)s",
        "pk": "pk_%(table_name)s",
    }
)


def _id() -> Column[int]:
    return Column("id", Integer, primary_key=True, autoincrement=True)


def _run() -> Column[int]:
    return Column("run_id", Integer, ForeignKey("run.id", ondelete="CASCADE"), nullable=False)


JOB = Table(
    "job", METADATA, _id(),
    Column("ident", String(200), nullable=False),
    Column("name", String(200), nullable=False),
    UniqueConstraint("ident"),
)  # fmt: skip

REVISION = Table(
    "revision", METADATA, _id(),
    Column("job_id", Integer, ForeignKey("job.id", ondelete="CASCADE"), nullable=False),
    Column("fingerprint", String(16), nullable=False),
    Column("revision", String(120), nullable=False),
    Column("at", Float, nullable=False),
    Column("content", Text, nullable=False),
    Column("programs", Text, nullable=False),
    UniqueConstraint("job_id", "fingerprint"),
)  # fmt: skip

RUN = Table(
    "run", METADATA, _id(),
    Column("revision_id", Integer, ForeignKey("revision.id", ondelete="CASCADE"), nullable=False),
    Column("machine", String(120), nullable=False),
    Column("material", String(120), nullable=False),
    Column("batch", Integer, nullable=False),
    Column("begun", Float, nullable=False),
    Column("ended", Float),
    Column("planned_s", Float, nullable=False),
    Column("simulated", Boolean, nullable=False),
    Column("constants", Text, nullable=False),
    Index(None, "revision_id"),
)  # fmt: skip

PART = Table(
    "part", METADATA, _id(), _run(),
    Column("number", Integer, nullable=False),
    Column("at", Float, nullable=False),
    Column("seconds", Float),
    UniqueConstraint("run_id", "number"),
)  # fmt: skip

MEASUREMENT = Table(
    "measurement", METADATA, _id(), _run(),
    Column("part", Integer, nullable=False),
    Column("size", String(120), nullable=False),
    Column("value", Float, nullable=False),
    Column("at", Float, nullable=False),
    Column("gauge", String(120), nullable=False),
    Column("uncertainty", Float, nullable=False),
    Column("struck", Boolean, nullable=False),
    Index(None, "run_id", "size", "part"),
    Index(None, "run_id", "part"),
)  # fmt: skip

OFFSET = Table(
    "offset_set", METADATA, _id(), _run(),
    Column("after_part", Integer, nullable=False),
    Column("tool", String(40), nullable=False),
    Column("axis", String(1), nullable=False),
    Column("mm", Float, nullable=False),
    Column("at", Float, nullable=False),
    Column("why", Text, nullable=False),
    Index(None, "run_id"),
)  # fmt: skip

EDGE = Table(
    "edge", METADATA, _id(), _run(),
    Column("tool", String(40), nullable=False),
    Column("code", String(120), nullable=False),
    Column("corner", Integer, nullable=False),
    Column("from_part", Integer, nullable=False),
    Column("to_part", Integer),
    Column("minutes", Float, nullable=False),
    Column("metres", Float, nullable=False),
    Column("vc_m_min", Float, nullable=False),
    Column("cutting", String(60), nullable=False),
    Column("planned_min", Float),
    Column("seen", String(40), nullable=False),
    Column("wear_mm", Float),
    Column("worn", Boolean, nullable=False),
    Column("note", Text, nullable=False),
    Column("at", Float, nullable=False),
    Index(None, "run_id"),
)  # fmt: skip

STOP = Table(
    "stop", METADATA, _id(), _run(),
    Column("part", Integer, nullable=False),
    Column("operation", String(120), nullable=False),
    Column("kind", String(40), nullable=False),
    Column("seconds", Float, nullable=False),
    Column("note", Text, nullable=False),
    Column("at", Float, nullable=False),
    Index(None, "run_id"),
)  # fmt: skip

NOTE = Table(
    "note", METADATA, _id(),
    Column("job_id", Integer, ForeignKey("job.id", ondelete="CASCADE"), nullable=False),
    Column("run_id", Integer, ForeignKey("run.id", ondelete="CASCADE")),
    Column("kind", String(40), nullable=False),
    Column("words", Text, nullable=False),
    Column("picture", LargeBinary),
    Column("at", Float, nullable=False),
    Index(None, "job_id"),
)  # fmt: skip

OBSERVATION = Table(
    "observation", METADATA, _id(), _run(),
    Column("kind", String(40), nullable=False),
    Column("of", String(200), nullable=False),
    Column("computed", Float, nullable=False),
    Column("found", Float, nullable=False),
    Column("at", Float, nullable=False),
    Index(None, "kind", "of"),
)  # fmt: skip
