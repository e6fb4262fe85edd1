"""Where jobs and lines are kept: SQLite through SQLAlchemy, migrated by Alembic."""
