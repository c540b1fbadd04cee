"""Runs the steps on the connection it is given."""

from alembic import context

from toreuma.log.schema import METADATA

connection = context.config.attributes["connection"]
context.configure(connection=connection, target_metadata=METADATA, render_as_batch=True)
with context.begin_transaction():
    context.run_migrations()
