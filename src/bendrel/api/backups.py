"""How the backups stand, and what could not be read at the start."""

from __future__ import annotations

from bendrel.api.rooms import room
from bendrel.api.state import Services
from bendrel.services.kept.backups import BackupState
from bendrel.services.kept.legible import UnreadRow, all_set_aside, looked_at

router = room("/api/backups", "backups")


@router.get("")
def state(services: Services) -> BackupState:
    """The newest backup, how many there are, and why the last try failed."""
    return services.backups.state()


@router.get("/set-aside")
def set_aside(services: Services) -> tuple[UnreadRow, ...]:
    """Rows that could not be read and that nobody has looked at yet."""
    return all_set_aside(services.database)


@router.post("/set-aside/{row_id}/seen")
def seen(services: Services, row_id: int) -> tuple[UnreadRow, ...]:
    """Somebody has looked at it; what is left."""
    looked_at(services.database, row_id)
    return all_set_aside(services.database)
