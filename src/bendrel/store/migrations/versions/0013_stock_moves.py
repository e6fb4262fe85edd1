"""A ledger of what came to the stock and went, and a version on all that people edit."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0013"
down_revision = "0012"


def upgrade() -> None:
    op.create_table(
        "stock_moves",
        sa.Column("id", sa.Integer, primary_key=True, autoincrement=True),
        sa.Column("stock_id", sa.String(32), sa.ForeignKey("stock.id", ondelete="CASCADE"), nullable=False),
        sa.Column("kind", sa.String(12), nullable=False),
        sa.Column("pieces", sa.Integer, nullable=False),
        sa.Column("mm", sa.Double, nullable=False),
        sa.Column("cutting_id", sa.String(32), nullable=False, server_default=""),
        sa.Column("at", sa.DateTime, nullable=False),
    )
    op.create_index("ix_stock_moves_stock_id", "stock_moves", ["stock_id"])
    # the table is made anew below, which would take its moves with it
    op.execute("create table stock_before as select id, form, length_mm, count, at, deleted_at from stock")
    with op.batch_alter_table("stock") as table:
        table.add_column(sa.Column("version", sa.Integer, nullable=False, server_default="1"))
        table.drop_column("count")
        table.drop_column("deleted_at")
    # what lies there now is what came; of what is gone already no more is known than that it went
    op.execute(
        "insert into stock_moves (stock_id, kind, pieces, mm, cutting_id, at) "
        "select id, 'put in', count, case form when 'coil' then length_mm else 0 end, '', at "
        "from stock_before"
    )
    op.execute(
        "insert into stock_moves (stock_id, kind, pieces, mm, cutting_id, at) "
        "select id, 'taken out', -count, case form when 'coil' then -length_mm else 0 end, '', deleted_at "
        "from stock_before where deleted_at is not null"
    )
    op.drop_table("stock_before")
    for name in ("holdings", "preferences"):
        with op.batch_alter_table(name) as table:
            table.add_column(sa.Column("version", sa.Integer, nullable=False, server_default="1"))
