"""The shop's own catalogue entries, what it has in stock at what price, and its preferences."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    op.create_table(
        "own_entries",
        sa.Column("id", sa.String(32), primary_key=True),
        sa.Column("shelf", sa.String(20), nullable=False),
        sa.Column("fields", sa.JSON, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("deleted_at", sa.DateTime),
    )
    op.create_table(
        "holdings",
        sa.Column("ref", sa.String(120), primary_key=True),
        sa.Column("have", sa.Double, nullable=False),
        sa.Column("unit_cents", sa.Integer),
    )
    op.create_table(
        "preferences",
        sa.Column("question", sa.String(40), primary_key=True),
        sa.Column("answer", sa.String(40), nullable=False),
    )
