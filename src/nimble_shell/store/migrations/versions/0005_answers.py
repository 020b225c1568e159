"""Answers that took long are kept."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    op.create_table(
        "answer",
        sa.Column("key", sa.String(), nullable=False, primary_key=True),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("body", sa.LargeBinary(), nullable=False),
        sa.Column("asked_at", sa.String(), nullable=False),
    )
