"""What is asked for when it is opened: the working behind the figures of a line, and its order of work."""

from __future__ import annotations

from bendrel.core.bend.tube.working import derivations
from bendrel.core.findings import Derivation
from bendrel.core.flow.shown import chosen_derivations
from bendrel.core.line.document import Line
from bendrel.core.line.run import main_run
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.step import Step, cautioned
from bendrel.core.plan.planner import planned, tube_of_plan
from bendrel.core.work.making import steps_for
from bendrel.core.work.words import closing_steps


def order_of_work(line: Line, kit: Kit, span: str = "") -> tuple[Step, ...]:
    """The steps of one tube, the main one's unless another is asked for, and behind the main one's those of
    fitting and proving the whole line; none while the tube cannot be planned. Of a line without a tube to
    make the latter alone."""
    main = main_run(line)
    name = span or (main.span.id if main else "")
    rigid, _ = tube_of_plan(line, kit, name)
    if name and rigid is None:
        return ()
    made = steps_for(rigid, kit) if rigid is not None and rigid.new else ()
    whole = main is None or name == main.span.id
    return cautioned((*made, *(closing_steps(line, kit) if whole else ())), kit, line.service)


def working_of(line: Line, kit: Kit, span: str = "") -> tuple[Derivation, ...]:
    """The working of one tube's figures (the main one's unless another is asked for), then that of the
    line's strength and flow. What cannot be planned has no working; raises nothing."""
    whole, rigid = planned(line, kit), tube_of_plan(line, kit, span)[0]
    own = tuple(derivations(rigid)) if rigid is not None else ()
    chosen = whole.plan.chosen
    if chosen is None or chosen.carried is None or chosen.strength is None or chosen.flowing is None:
        return own
    told = chosen_derivations(whole.rigids, chosen.carried, chosen.strength, chosen.flowing, line.unit)
    return (*own, *told)
