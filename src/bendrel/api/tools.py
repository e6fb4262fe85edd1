"""Tools and their test pieces."""

from __future__ import annotations

from typing import Annotated

from annotated_types import MaxLen

from bendrel.api.rooms import room
from bendrel.api.state import Services
from bendrel.core.record import record
from bendrel.core.units.notation import Unit
from bendrel.services.shelf.trials import ToolCard, TrialFields

router = room("/api/tools", "tools")


@record
class NewTrial:
    """A test piece as typed; bare figures are in `unit`."""

    fields: TrialFields
    unit: Unit = "mm"


@record
class Calibrated:
    """A tool and material that test pieces have been bent in."""

    bender: Annotated[str, MaxLen(80)]
    material: Annotated[str, MaxLen(40)]
    pieces: int


@router.get("")
def calibrated(services: Services) -> tuple[Calibrated, ...]:
    """Every tool that has test pieces."""
    return tuple(
        Calibrated(bender=bender, material=material, pieces=told.pieces)
        for (bender, material), told in services.kit.calibrations.items()
    )


@router.get("/{bender}/{material}")
def card(bender: str, material: str, services: Services) -> ToolCard:
    """One tool in one material: its pieces, what they tell, and the next one."""
    return services.shelf.card(bender, material)


@router.post("/{bender}/{material}", status_code=201)
def add_trial(bender: str, material: str, body: NewTrial, services: Services) -> ToolCard:
    """Keep a test piece."""
    return services.shelf.try_tool(bender, material, body.fields, body.unit)


@router.delete("/trials/{trial_id}")
def take_out(trial_id: str, services: Services) -> ToolCard:
    """Take a test piece out of the reckoning; it can be put back."""
    return services.shelf.take_out_trial(trial_id)


@router.post("/trials/{trial_id}/restore")
def put_back(trial_id: str, services: Services) -> ToolCard:
    """Put a test piece back."""
    return services.shelf.take_out_trial(trial_id, back=True)
