"""A line may have several tubes: a making and a cut name theirs.

Until now a line had one, which documents brought up to date call `s1`.
"""

from __future__ import annotations

import json

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"

ONLY = "s1"


def upgrade() -> None:
    op.add_column("makings", sa.Column("span", sa.String(20), nullable=False, server_default=ONLY))
    bind = op.get_bind()
    for key, text in bind.execute(sa.text("SELECT id, items FROM cuttings")).all():
        items = json.loads(text)
        for item in items:
            item["pieces"] = {f"{line}/{ONLY}": mm for line, mm in item["pieces"].items()}
        bind.execute(
            sa.text("UPDATE cuttings SET items = :items WHERE id = :id"),
            {"items": json.dumps(items), "id": key},
        )
