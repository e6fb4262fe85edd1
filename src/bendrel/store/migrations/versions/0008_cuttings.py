"""What was cut from the stock for a job, so that it is not cut twice and can be taken back.

Tube had a figure in the catalogue beside the pieces in the stock. The pieces are what counts now: where
there was only the figure, it becomes one coil of that length.
"""

from __future__ import annotations

from datetime import UTC, datetime
from uuid import uuid4

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"


def upgrade() -> None:
    op.create_table(
        "cuttings",
        sa.Column("id", sa.String(32), primary_key=True),
        sa.Column(
            "job_id", sa.String(32), sa.ForeignKey("jobs.id", ondelete="CASCADE"), nullable=False, index=True
        ),
        sa.Column("items", sa.JSON, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("undone_at", sa.DateTime),
    )

    bind = op.get_bind()
    holdings = sa.table("holdings", sa.column("ref"), sa.column("have"))
    texts = ("id", "tube", "form", "length_mm", "count", "label", "finished", "note")
    times = (sa.column("at", sa.DateTime), sa.column("deleted_at", sa.DateTime))
    stock = sa.table("stock", *(sa.column(name) for name in texts), *times)
    known = set(bind.scalars(sa.select(stock.c.tube).where(stock.c.deleted_at.is_(None))))
    numbers = [int(label[1:]) for label in bind.scalars(sa.select(stock.c.label)) if label[1:].isdigit()]
    figures = sa.select(holdings).where(holdings.c.ref.startswith("tube:"), holdings.c.have > 0)
    for number, (ref, have) in enumerate(bind.execute(figures).all(), max(numbers, default=0) + 1):
        if (tube := ref.removeprefix("tube:")) not in known:
            row = {"id": uuid4().hex[:16], "tube": tube, "form": "coil", "length_mm": have, "count": 1}
            row |= {"label": f"C{number}", "finished": "", "note": "from the catalogue: look what lies there"}
            op.bulk_insert(stock, [row | {"at": datetime.now(UTC).replace(tzinfo=None)}])
    op.execute(holdings.update().where(holdings.c.ref.startswith("tube:")).values(have=0.0))
