"""Alembic's entry: runs inside the connection that the database hands over."""

from __future__ import annotations

from alembic import context

from bendrel.store.models import Base

context.configure(
    connection=context.config.attributes["connection"],
    target_metadata=Base.metadata,
    render_as_batch=True,
)
context.run_migrations()
