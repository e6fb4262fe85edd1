"""A job that waits: for what, and what was tried until then."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"


def upgrade() -> None:
    op.add_column("jobs", sa.Column("parked", sa.String(200), nullable=False, server_default=""))
    op.add_column("jobs", sa.Column("tried", sa.String(500), nullable=False, server_default=""))
