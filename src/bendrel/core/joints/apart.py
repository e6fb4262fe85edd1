"""What to try on each old end that will not come, by how it closes."""

from __future__ import annotations

from bendrel.core.findings import EndName
from bendrel.core.joints.closing import closed_by
from bendrel.core.joints.pieces import Pieces
from bendrel.core.line.apart import end_state
from bendrel.core.line.condition import EndState
from bendrel.core.line.document import Line
from bendrel.core.line.opened import port_opened, stays
from bendrel.core.line.run import ENDS
from bendrel.core.parts.apart import ApartWay
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record


@record
class ComesApart:
    """One old end: `name` is what closes it, `ways` what to try in order, `warning` what must not be; `state`
    what it is by all that is known."""

    end: EndName
    name: str
    ways: tuple[ApartWay, ...]
    warning: str
    state: EndState


def apart_of(line: Line, kit: Kit, pieces: Pieces) -> tuple[ComesApart, ...]:
    """The old ends of the line; of one that has new pieces those alone that are opened, or were noted. No
    warmth goes near what burns, nor near what nobody has named."""
    service, known = kit.services.get(line.service), kit.apart
    duty = service.duty if service is not None else None
    burns = duty is None or any(family in known.burns for family in duty.families)
    never = known.unsaid if duty is None else known.no_warmth if burns else ""
    noted = {one.end for one in line.removal.apart}
    renewed = not all(stays(span) for span in line.spans)
    found = []
    for end in ENDS:
        if renewed and end not in noted and not port_opened(line, end):
            continue
        closes, name = closed_by(line, kit, pieces, end)
        ways = tuple(way for way in known.ways if closes in way.closes)
        found.append(
            ComesApart(
                end=end,
                name=name,
                ways=tuple(way for way in ways if not (way.warm and burns)),
                warning=never if any(way.warm for way in ways) else "",
                state=end_state(line, kit, end),
            )
        )
    return tuple(found)
