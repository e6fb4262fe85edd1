"""How tight each joint goes: a published torque, or what the shop does where there is none."""

from __future__ import annotations

from bendrel.core.ends.fitting import Fitting, Nut, Torque
from bendrel.core.quantities import format_torque
from bendrel.core.shop.kit import Kit
from bendrel.core.units import Unit


def tightening(
    kit: Kit, fitting: Fitting, nut: Nut | None, torque: Torque | None, unit: Unit
) -> tuple[str, str]:
    """What is said at the joint, and why; "" where a school says how it is closed, or nothing is screwed.
    Source: the catalogue's torques; the service manual's figure comes first."""
    if not fitting.screwed or fitting.closing or nut is None:
        return "", ""
    feel = kit.preferences["tightening"] == "feel"
    by_feel = "by feel with a second wrench holding, look, wait, nip again"
    if torque is None:
        said = f"{nut.thread} {by_feel}; no torque is published for this tube."
        return said, "The machine's own manual may give one, and comes first."
    figure = format_torque(torque.least_nm, torque.most_nm, unit)
    why = f"{torque.source.text} ({torque.source.kind})."
    if feel:
        return f"{nut.thread} {by_feel}; {figure} is published.", why
    return f"the {nut.thread} goes to {figure}, a second wrench holding.", why
