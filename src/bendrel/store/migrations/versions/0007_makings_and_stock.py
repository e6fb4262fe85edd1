"""Parts being made with their readings, and the sticks, coils and offcuts they are cut from."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"


def upgrade() -> None:
    op.create_table(
        "makings",
        sa.Column("id", sa.String(32), primary_key=True),
        sa.Column(
            "line_id",
            sa.String(32),
            sa.ForeignKey("lines.id", ondelete="CASCADE"),
            nullable=False,
            index=True,
        ),
        sa.Column("document", sa.JSON, nullable=False),
        sa.Column("state", sa.JSON, nullable=False),
        sa.Column("departures", sa.JSON, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("outcome", sa.String(20), nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("ended_at", sa.DateTime),
    )
    op.create_table(
        "stock",
        sa.Column("id", sa.String(32), primary_key=True),
        sa.Column("tube", sa.String(80), nullable=False),
        sa.Column("form", sa.String(12), nullable=False),
        sa.Column("length_mm", sa.Double, nullable=False),
        sa.Column("count", sa.Integer, nullable=False),
        sa.Column("label", sa.String(20), nullable=False),
        sa.Column("finished", sa.String(120), nullable=False),
        sa.Column("note", sa.String(120), nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("deleted_at", sa.DateTime),
    )
