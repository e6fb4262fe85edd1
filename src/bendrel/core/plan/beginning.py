"""A line begins with what it is: like an old one, a hose, an old tube that stays, by points, alongside."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Literal, assert_never

from annotated_types import MaxLen

from bendrel.core.joints.put_in import usual_hose
from bendrel.core.line.document import BendReadings, CornerReadings, CornerRow, Line
from bendrel.core.line.run import main_run
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.core.units.lengths import Length, Text, length_if_read

Begins = Literal["like the old one", "hose", "old tube", "corners", "alongside"]


@record
class Beginning:
    """What a new line is, and the first that is known of it, as typed: the `length` of the hose or of the old
    part, and the diameter that a hose `goes_on`. What cannot be read is kept, and said where it stands. One
    that is made `like` another line, by its id, takes all from that, or its `mirror` image."""

    begins: Begins = "like the old one"
    length: Text = ""
    goes_on: Text = ""
    like: Annotated[str, MaxLen(40)] = ""
    mirror: bool = False


def begun(line: Line, kit: Kit, said: Beginning) -> Line:
    """`line`, which is one tube without readings, as what it begins with. An old tube stays, and its bends
    are not read: its whole length is enough to mend it."""
    run = main_run(line)
    assert run is not None
    tube = run.span
    length = Length(text=said.length, unit=line.unit)
    copied = BendReadings(last=length, last_by="string", alongside=True)
    match said.begins:
        case "like the old one":
            return line
        case "alongside":
            return replace(line, spans=(replace(tube, readings=copied),))
        case "old tube":
            kept = replace(tube, readings=copied, state="stays", spare=Length(text="0", unit=line.unit))
            return replace(line, spans=(kept,))
        case "corners":
            return replace(
                line, spans=(replace(tube, readings=CornerReadings(rows=(CornerRow(), CornerRow()))),)
            )
        case "hose":
            on = Length(text=said.goes_on, unit=line.unit)
            size = length_if_read(on) or kit.tubes[tube.tube].od_mm
            hose = replace(usual_hose(line, kit, "h1", (size,)), length=length, on_a=on, on_b=on)
            return replace(line, spans=(hose,))
        case _:
            assert_never(said.begins)
