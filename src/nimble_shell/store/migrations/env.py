"""Alembic's entry: runs on the connection the Database hands over, inside its transaction."""

from alembic import context

from nimble_shell.store.rows import Base

context.configure(
    connection=context.config.attributes["connection"],
    target_metadata=Base.metadata,
    render_as_batch=True,
    transaction_per_migration=False,
)
context.run_migrations()
