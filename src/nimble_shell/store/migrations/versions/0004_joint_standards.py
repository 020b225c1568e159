"""The practice keeps joints as standards."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    op.create_table(
        "joint_standard",
        sa.Column("id", sa.String(), nullable=False, primary_key=True),
        sa.Column("version", sa.Integer(), nullable=False, primary_key=True),
        sa.Column("document", sa.String(), nullable=False),
        sa.Column("saved_at", sa.String(), nullable=False),
        sa.Column("withdrawn_at", sa.String()),
    )
