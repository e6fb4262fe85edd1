"""Runs of a pressure gauge that prove a line, kept reading by reading."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"


def upgrade() -> None:
    op.create_table(
        "proof_runs",
        sa.Column("id", sa.String(32), primary_key=True),
        sa.Column("line_id", sa.String(32), sa.ForeignKey("lines.id", ondelete="CASCADE"), nullable=False),
        sa.Column("source", sa.String(12), nullable=False),
        sa.Column("absolute", sa.Boolean, nullable=False),
        sa.Column("marks", sa.JSON, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("ended_at", sa.DateTime, nullable=True),
    )
    op.create_index("ix_proof_runs_line_id", "proof_runs", ["line_id"])
    op.create_table(
        "proof_chunks",
        sa.Column("id", sa.Integer, primary_key=True, autoincrement=True),
        sa.Column(
            "run_id", sa.String(32), sa.ForeignKey("proof_runs.id", ondelete="CASCADE"), nullable=False
        ),
        sa.Column("count", sa.Integer, nullable=False),
        sa.Column("readings", sa.LargeBinary, nullable=False),
    )
    op.create_index("ix_proof_chunks_run_id", "proof_chunks", ["run_id"])
