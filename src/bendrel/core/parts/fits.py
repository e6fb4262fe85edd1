"""What goes on what, asked of the catalogue alone: ends in a tube, nuts in a port, hoses on a spigot."""

from __future__ import annotations

from collections.abc import Sequence

from bendrel.core.parts.fitting import Fitting, Nut
from bendrel.core.parts.hose import Hose
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.service import Duty
from bendrel.core.parts.threads.designation import ThreadError
from bendrel.core.parts.threads.fit import ThreadFit, thread_fit
from bendrel.core.parts.tube import Material, Tube
from bendrel.core.parts.tube_strength import TubeStrength, tube_strength


def formed_in(material: Material, fitting: Fitting) -> bool:
    """An end of this type can be formed in this material. Source: the material's own row."""
    kind = fitting.kind
    if fitting.beaded and not material.beads:
        return False
    if material.flares == "not at all" and kind in ("double", "single", "bulb"):
        return False
    return kind not in ("double", "bulb") or material.double_flare


def goes_on_tube(kit: Kit, fitting: Fitting, tube: Tube, *, insert: bool = False) -> bool:
    """The end can be formed in the tube, does it no harm, and is made in its size."""
    material = kit.materials[tube.material]
    pair = kit.pairs.get((fitting.id, material.id))
    harmed = pair is not None and pair.verdict == "refused" and not (pair.needs == "insert" and insert)
    sized = not fitting.screwed or bool(kit.nuts_for(fitting.id, tube.size))
    thin = fitting.kind == "bite" and tube.wall_mm / tube.od_mm < kit.limits["sleeve_wall"].value
    return formed_in(material, fitting) and not harmed and sized and not thin


def joint_holds(kit: Kit, fitting: Fitting, size: str, working_kpa: float) -> bool:
    """The rating of an end in its size is known and is enough; what hose and clamps hold is judged with
    them."""
    if fitting.takes_hose:
        return True
    row = kit.end_size(fitting.id, size)
    if row is None:
        return False
    return fitting.strong_as_tube or (row.rated_kpa is not None and row.rated_kpa >= working_kpa)


def usual_strength(kit: Kit, duty: Duty, tube: Tube, radius_mm: float | None = None) -> TubeStrength:
    """What a tube stands at the usual of a service, with the fluid that it usually carries."""
    return tube_strength(
        tube,
        kit.materials[tube.material],
        radius_mm=radius_mm,
        temperature_c=duty.hot_c,
        factor=duty.design_factor,
        family="" if duty.vacuum or duty.open else kit.fluids[duty.fluid].family,
    )


def stands(kit: Kit, duty: Duty | None, tube: Tube, radius_mm: float | None = None) -> bool:
    """The tube stands the usual of a service, bent to `radius_mm` (None: straight); where nothing is asked of
    it, or nothing is known, it does."""
    if duty is None or duty.vacuum or duty.open:
        return True
    return usual_strength(kit, duty, tube, radius_mm).holds(duty.working_kpa, duty.test_kpa)


def nut_for_port(
    kit: Kit, fitting: Fitting, size: str, port_thread: str = "", present: str | None = None
) -> Nut | None:
    """The nut of this end that goes into (or over) the port: the `present` one where it is of this end, the
    usual one where the port's thread is not known or cannot be read."""
    nuts = kit.nuts_for(fitting.id, size)
    kept = next((nut for nut in nuts if nut.id == present), None)
    if kept is not None:
        return kept
    if not port_thread.strip():
        return nuts[0] if nuts else None
    try:
        kit.thread(port_thread)
    except ThreadError:
        return nuts[0] if nuts else None
    for nut in nuts:
        try:
            fit = nut_in_port(kit, fitting, nut, port_thread)
        except ThreadError:
            continue
        if fit.verdict == "fits":
            return nut
    return None


def nut_in_port(kit: Kit, fitting: Fitting, nut: Nut, port_thread: str) -> ThreadFit:
    """The nut in the port, or over it where its thread is the female one. Raises ThreadError."""
    own, port = kit.thread(nut.thread), kit.thread(port_thread)
    pair = (port, own) if fitting.thread == "female" else (own, port)
    return thread_fit(*pair, kit.least_engagement)


def bore_fits(kit: Kit, hose: Hose, on_mm: float) -> bool:
    """The hose is neither loose nor too tight on this diameter."""
    share = (on_mm - hose.id_mm) / hose.id_mm
    return kit.limits["hose_loose"].value <= share <= kit.limits["hose_warm"].value


def best_bore(kit: Kit, hose_class: str, on_mm: Sequence[float]) -> Hose | None:
    """The hose of a class that goes on all these diameters, and on the first most easily; None where none
    does."""
    fits = [
        hose
        for hose in kit.hoses.values()
        if hose.hose_class == hose_class and all(bore_fits(kit, hose, size) for size in on_mm)
    ]
    return min(fits, key=lambda hose: abs(on_mm[0] - hose.id_mm), default=None)
