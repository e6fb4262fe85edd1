"""How the backups stand."""

from __future__ import annotations

from bendrel.api.rooms import room
from bendrel.api.state import Services
from bendrel.services.kept.backups import BackupState

router = room("/api/backups", "backups")


@router.get("")
def state(services: Services) -> BackupState:
    """The newest backup, how many there are, and why the last try failed."""
    return services.backups.state()
