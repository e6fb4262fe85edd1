"""Rows that could not be read, as they were kept."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"


def upgrade() -> None:
    op.create_table(
        "set_aside",
        sa.Column("id", sa.Integer, primary_key=True, autoincrement=True),
        sa.Column("of", sa.String(40), nullable=False),
        sa.Column("columns", sa.JSON, nullable=False),
        sa.Column("kept", sa.Text, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("seen_at", sa.DateTime, nullable=True),
    )
