"""A job that waits: for what, and what was tried until then."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("jobs", sa.Column("parked", sa.String(200), nullable=False, server_default=""))
    op.add_column("jobs", sa.Column("tried", sa.String(500), nullable=False, server_default=""))


def downgrade() -> None:
    with op.batch_alter_table("jobs") as table:
        table.drop_column("tried")
        table.drop_column("parked")
