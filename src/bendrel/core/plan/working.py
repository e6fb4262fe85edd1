"""What is asked for when it is opened: the working behind the figures of a line, and its order of work."""

from __future__ import annotations

from bendrel.core.bend.tube.planned import plan_rigid
from bendrel.core.bend.tube.working import derivations
from bendrel.core.findings import Derivation
from bendrel.core.flow.along import flow_of_line
from bendrel.core.flow.carried import carried
from bendrel.core.flow.shown import chosen_derivations
from bendrel.core.flow.strength import strength_of
from bendrel.core.joints.pieces import place_pieces
from bendrel.core.line.document import Line
from bendrel.core.line.run import main_run, run_of, runs
from bendrel.core.parts.kit import Kit
from bendrel.core.work.steps import Step
from bendrel.core.work.tube_work import cautioned, steps_for
from bendrel.core.work.words import closing_steps


def order_of_work(line: Line, kit: Kit, span: str = "") -> tuple[Step, ...]:
    """The steps of one tube, the main one's unless another is asked for, and behind the main one's those of
    fitting and proving the whole line; none while the tube cannot be planned. Of a line without a tube to
    make the latter alone."""
    main = main_run(line)
    run = run_of(line, span) if span else main
    rigid = plan_rigid(run, kit).rigid if run else None
    if run is not None and rigid is None:
        return ()
    made = steps_for(rigid, kit) if rigid is not None and rigid.new else ()
    whole = run is None or (main is not None and run.span.id == main.span.id)
    return cautioned((*made, *(closing_steps(line, kit) if whole else ())), kit, line.service)


def working_of(line: Line, kit: Kit, span: str = "") -> tuple[Derivation, ...]:
    """The working of one tube's figures (the main one's unless another is asked for), then that of the
    line's strength and flow. What cannot be planned has no working; raises nothing."""
    main = main_run(line)
    asked = span or (main.span.id if main else "")
    planned = [plan_rigid(run, kit) for run in runs(line)]
    rigids = [one.rigid for one in planned if one.rigid is not None]
    own = tuple(one for rigid in rigids if rigid.run.span.id == asked for one in derivations(rigid))
    if len(rigids) < len(planned) or line.service not in kit.services:
        return own
    duty = carried(line, kit, [])
    if duty is None:
        return own
    pieces = place_pieces(line, kit, [])
    strength = strength_of(kit, rigids, pieces, duty)
    flowing = flow_of_line(line, kit, rigids, pieces, duty)
    return (*own, *chosen_derivations(rigids, duty, strength, flowing, line.unit))
