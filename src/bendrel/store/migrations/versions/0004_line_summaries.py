"""What the board says of every line, kept between starts."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    op.create_table(
        "line_summaries",
        sa.Column("line_id", sa.String(32), sa.ForeignKey("lines.id", ondelete="CASCADE"), primary_key=True),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("stamp", sa.String(64), nullable=False),
        sa.Column("summary", sa.JSON, nullable=False),
    )
