"""Test pieces bent to find out what a tool really does."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"


def upgrade() -> None:
    op.create_table(
        "trials",
        sa.Column("id", sa.String(32), primary_key=True),
        sa.Column("bender", sa.String(80), nullable=False),
        sa.Column("material", sa.String(40), nullable=False),
        sa.Column("fields", sa.JSON, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("deleted_at", sa.DateTime),
    )
