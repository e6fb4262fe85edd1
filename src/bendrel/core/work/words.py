"""The steps of fitting and proving as they are read from paper: with the joint that each is done at."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from bendrel.core.joints.closing import MANUAL, LineJoint, joints_of
from bendrel.core.line.document import Line
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.step import Step
from bendrel.core.units.notation import Unit
from bendrel.core.units.quantities import format_torque
from bendrel.core.work.closing import work_of


def closing_steps(line: Line, kit: Kit) -> Iterator[Step]:
    """Every step of *Fit* and *Prove*, in their order; none of a service that the catalogue lacks."""
    if line.service not in kit.proving.by_service:
        return
    joints = joints_of(line, kit)
    at = {joint.id: joint for joint in joints}
    for step in work_of(line, kit, joints).steps:
        yield replace(step, text=step_words(step, at.get(step.joint), line.unit))


def step_words(step: Step, joint: LineJoint | None, unit: Unit) -> str:
    """A step with its joint's place, what goes on it and how far it is tightened."""
    if joint is None:
        return step.text
    said = f"{joint.place[0].upper()}{joint.place[1:]}: {step.text}"
    if step.does == "starts":
        return f"{said} On it: {joint.applied}."
    if step.does == "tightens" and step.round == 1 and joint.torque is not None:
        figure = format_torque(joint.torque.least_nm, joint.torque.most_nm, unit)
        if joint.torque.source == MANUAL:
            return f"{said} {figure}, as the machine's manual says."
        return f"{said} {figure} is published." if joint.by_feel else f"{said} {figure}."
    return said
