"""Customer and promised date of a job; time and material booked to whoever pays."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    with op.batch_alter_table("jobs") as jobs:
        jobs.add_column(sa.Column("customer", sa.String(200), nullable=False, server_default=""))
        jobs.add_column(sa.Column("promised", sa.Date))
    op.create_table(
        "bookings",
        sa.Column("id", sa.String(32), primary_key=True),
        sa.Column("job_id", sa.String(32), sa.ForeignKey("jobs.id", ondelete="CASCADE"), nullable=False),
        sa.Column("account", sa.String(20), nullable=False),
        sa.Column("what", sa.String(200), nullable=False),
        sa.Column("minutes", sa.Integer, nullable=False),
        sa.Column("material_cents", sa.Integer, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("deleted_at", sa.DateTime),
    )
    op.create_index("ix_bookings_job_id", "bookings", ["job_id"])
