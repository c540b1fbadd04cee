"""The first tables: jobs, runs, parts, sizes, offsets, edges, stops, notes, observations."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def _id() -> sa.Column[int]:
    return sa.Column("id", sa.Integer, autoincrement=True, nullable=False)


def _run(table: str, nullable: bool = False) -> tuple[sa.Column[int], sa.ForeignKeyConstraint]:
    column = sa.Column("run_id", sa.Integer, nullable=nullable)
    return column, sa.ForeignKeyConstraint(["run_id"], ["run.id"], name=f"fk_{table}_run_id", ondelete="CASCADE")


def _key(table: str) -> sa.PrimaryKeyConstraint:
    return sa.PrimaryKeyConstraint("id", name=f"pk_{table}")


def upgrade() -> None:
    op.create_table(
        "job", _id(), sa.Column("ident", sa.String(200), nullable=False),
        sa.Column("name", sa.String(200), nullable=False), _key("job"),
        sa.UniqueConstraint("ident", name="uq_job_ident"),
    )  # fmt: skip
    op.create_table(
        "revision", _id(), sa.Column("job_id", sa.Integer, nullable=False),
        sa.Column("fingerprint", sa.String(16), nullable=False), sa.Column("revision", sa.String(120), nullable=False),
        sa.Column("at", sa.Float, nullable=False), sa.Column("content", sa.Text, nullable=False),
        sa.Column("programs", sa.Text, nullable=False), _key("revision"),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name="fk_revision_job_id", ondelete="CASCADE"),
        sa.UniqueConstraint("job_id", "fingerprint", name="uq_revision_job_id_fingerprint"),
    )  # fmt: skip
    op.create_table(
        "run", _id(), sa.Column("revision_id", sa.Integer, nullable=False),
        sa.Column("machine", sa.String(120), nullable=False), sa.Column("material", sa.String(120), nullable=False),
        sa.Column("batch", sa.Integer, nullable=False), sa.Column("begun", sa.Float, nullable=False),
        sa.Column("ended", sa.Float), sa.Column("planned_s", sa.Float, nullable=False),
        sa.Column("simulated", sa.Boolean, nullable=False), sa.Column("constants", sa.Text, nullable=False),
        _key("run"),
        sa.ForeignKeyConstraint(["revision_id"], ["revision.id"], name="fk_run_revision_id", ondelete="CASCADE"),
    )  # fmt: skip
    op.create_index("ix_run_revision_id", "run", ["revision_id"])
    op.create_table(
        "part", _id(), *_run("part"), sa.Column("number", sa.Integer, nullable=False),
        sa.Column("at", sa.Float, nullable=False), sa.Column("seconds", sa.Float), _key("part"),
        sa.UniqueConstraint("run_id", "number", name="uq_part_run_id_number"),
    )  # fmt: skip
    op.create_table(
        "measurement", _id(), *_run("measurement"), sa.Column("part", sa.Integer, nullable=False),
        sa.Column("size", sa.String(120), nullable=False), sa.Column("value", sa.Float, nullable=False),
        sa.Column("at", sa.Float, nullable=False), sa.Column("gauge", sa.String(120), nullable=False),
        sa.Column("uncertainty", sa.Float, nullable=False), sa.Column("struck", sa.Boolean, nullable=False),
        _key("measurement"),
    )  # fmt: skip
    op.create_index("ix_measurement_run_id_size_part", "measurement", ["run_id", "size", "part"])
    op.create_index("ix_measurement_run_id_part", "measurement", ["run_id", "part"])
    op.create_table(
        "offset_set", _id(), *_run("offset_set"), sa.Column("after_part", sa.Integer, nullable=False),
        sa.Column("tool", sa.String(40), nullable=False), sa.Column("axis", sa.String(1), nullable=False),
        sa.Column("mm", sa.Float, nullable=False), sa.Column("at", sa.Float, nullable=False),
        sa.Column("why", sa.Text, nullable=False), _key("offset_set"),
    )  # fmt: skip
    op.create_index("ix_offset_set_run_id", "offset_set", ["run_id"])
    op.create_table(
        "edge", _id(), *_run("edge"), sa.Column("tool", sa.String(40), nullable=False),
        sa.Column("code", sa.String(120), nullable=False), sa.Column("corner", sa.Integer, nullable=False),
        sa.Column("from_part", sa.Integer, nullable=False), sa.Column("to_part", sa.Integer),
        sa.Column("minutes", sa.Float, nullable=False), sa.Column("metres", sa.Float, nullable=False),
        sa.Column("vc_m_min", sa.Float, nullable=False),
        sa.Column("cutting", sa.String(60), nullable=False), sa.Column("planned_min", sa.Float),
        sa.Column("seen", sa.String(40), nullable=False),
        sa.Column("wear_mm", sa.Float), sa.Column("worn", sa.Boolean, nullable=False),
        sa.Column("note", sa.Text, nullable=False), sa.Column("at", sa.Float, nullable=False), _key("edge"),
    )  # fmt: skip
    op.create_index("ix_edge_run_id", "edge", ["run_id"])
    op.create_table(
        "stop", _id(), *_run("stop"), sa.Column("part", sa.Integer, nullable=False),
        sa.Column("operation", sa.String(120), nullable=False), sa.Column("kind", sa.String(40), nullable=False),
        sa.Column("seconds", sa.Float, nullable=False), sa.Column("note", sa.Text, nullable=False),
        sa.Column("at", sa.Float, nullable=False), _key("stop"),
    )  # fmt: skip
    op.create_index("ix_stop_run_id", "stop", ["run_id"])
    op.create_table(
        "note", _id(), sa.Column("job_id", sa.Integer, nullable=False), *_run("note", nullable=True),
        sa.Column("kind", sa.String(40), nullable=False), sa.Column("words", sa.Text, nullable=False),
        sa.Column("picture", sa.LargeBinary), sa.Column("at", sa.Float, nullable=False), _key("note"),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name="fk_note_job_id", ondelete="CASCADE"),
    )  # fmt: skip
    op.create_index("ix_note_job_id", "note", ["job_id"])
    op.create_table(
        "observation", _id(), *_run("observation"), sa.Column("kind", sa.String(40), nullable=False),
        sa.Column("of", sa.String(200), nullable=False), sa.Column("computed", sa.Float, nullable=False),
        sa.Column("found", sa.Float, nullable=False), sa.Column("at", sa.Float, nullable=False), _key("observation"),
    )  # fmt: skip
    op.create_index("ix_observation_kind_of", "observation", ["kind", "of"])


def downgrade() -> None:
    for table in ("observation", "note", "stop", "edge", "offset_set", "measurement", "part", "run", "revision", "job"):
        op.drop_table(table)
