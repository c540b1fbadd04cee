"""Tables brought to what this version needs. What a newer version left is refused, and nothing is changed."""

from pathlib import Path

from sqlalchemy import Connection, inspect, text

from toreuma.core.errors import ToreumaError

__all__ = ["HEAD", "upgraded"]

HEAD = "0001"
"""The newest step."""

STEPS = Path(__file__).parent / "migrations"


def upgraded(connection: Connection) -> None:
    """Run the steps that are missing, all of them or none. Raises `ToreumaError` for tables of a newer version."""
    now = _version(connection)
    if now == HEAD:
        return
    from alembic import command
    from alembic.config import Config
    from alembic.script import ScriptDirectory

    config = Config()
    config.set_main_option("script_location", str(STEPS))
    known = {one.revision for one in ScriptDirectory.from_config(config).walk_revisions()}
    if now is not None and now not in known:
        what = f"its tables are of a newer Toreuma (step {now}, this one knows {HEAD})"
        raise ToreumaError("log", what, "use that version, or another TOREUMA_STORE")
    connection.rollback()
    with connection.begin():
        config.attributes["connection"] = connection
        command.upgrade(config, "head")


def _version(connection: Connection) -> str | None:
    if not inspect(connection).has_table("alembic_version"):
        return None
    found = connection.execute(text("SELECT version_num FROM alembic_version")).scalar()
    return None if found is None else str(found)
