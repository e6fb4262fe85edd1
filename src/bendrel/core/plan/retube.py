"""Another tube, or another end on it: what hangs on that comes along."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.findings import EndName
from bendrel.core.ids import NotAChain
from bendrel.core.joints.face import Face
from bendrel.core.joints.faces import port_face
from bendrel.core.joints.pieces import best_clamp
from bendrel.core.joints.put_in import component_between
from bendrel.core.line.document import ComponentSpan, HoseSpan, Line, Port, Side, TubeEnd
from bendrel.core.line.edits.chain import fresh_id, insert_beside, rigid_at
from bendrel.core.line.opened import stays
from bendrel.core.line.run import ENDS, Run, RunEnd, run_of, with_span
from bendrel.core.parts.fits import best_bore, bore_fits, nut_for_port
from bendrel.core.parts.fitting import Fitting, Nut
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.picking import bender_for, ends_for, nearest_size, tube_for, verdict_order
from bendrel.core.parts.tube import Tube
from bendrel.core.record import record

MOST_BEYOND = 6


def retubed(line: Line, kit: Kit, span_id: str, material: str = "", size: str = "") -> Line:
    """`line` with a tube of another material or size (blank: as now) in the thinnest wall that holds what the
    line usually works at, and what hangs on it. Raises NotAChain for what the catalogue has not got."""
    span, run = rigid_at(line, span_id), run_of(line, span_id)
    now = kit.tubes.get(span.tube)
    if run is None or now is None:
        raise NotAChain("Choose a tube of the catalogue first.")
    own = [tube for tube in kit.tubes.values() if tube.material == (material or now.material)]
    wanted = [tube for tube in own if tube.size == (size or now.size)]
    if size and not wanted:
        raise NotAChain(f"The catalogue has no “{size[:40]}” in this material; choose a size that is listed.")
    near = wanted or nearest_size(own, now.od_mm)
    best = tube_for(kit, kit.services.get(line.service), near, wall_mm=now.wall_mm if size else None)
    if best is None:
        raise NotAChain(f"The catalogue has no tube of “{material[:40]}”; choose a material that is listed.")
    made = with_tube(run, kit, best, keep=True)
    if made is None:
        raise NotAChain("No tool of the catalogue bends this tube; add the shop's own first.")
    return made.line


def ended(line: Line, kit: Kit, span_id: str, end: EndName, fitting: str) -> Line:
    """`line` with another end on a tube, and the nut that its port takes. Raises NotAChain."""
    span, run, row = rigid_at(line, span_id), run_of(line, span_id), kit.fittings.get(fitting)
    tube = kit.tubes.get(span.tube)
    if run is None or row is None or tube is None:
        raise NotAChain("Choose an end and a tube that are listed.")
    at = run.end(end)
    name = nut_for_port(kit, row, tube.size, at.meets.thread) or nut_for_port(kit, row, tube.size)
    made = replace(span.end(end), fitting=fitting, nut=name.id if name else None)
    changed = with_span(line, span.with_end(end, made))
    if not at.at_port:
        return changed
    port = replace(line.port(end), proved=False)
    return changed.with_port(end, port)


def with_tube(run: Run, kit: Kit, tube: Tube, *, keep: bool = False) -> Run | None:
    """The line with another tube in one of its places: the tool that bends it, its ends with the nuts that
    their ports take, an adapter where an end of another type needs one, and the bore of a hose that is
    clamped on it. `keep` leaves an end in its port that is hard to form in the tube, not impossible: its
    finding offers the other. None where no tool bends it."""
    span, bender = run.span, bender_for(kit, tube, kit.benders.get(run.span.bender))
    if bender is None:
        return None
    line, ends = run.line, {end: _end(run, kit, tube, end, keep=keep) for end in ENDS}
    for end, made in ends.items():
        line = line.with_port(end, made.port)
        if made.adapter is not None and len(run.end(end).beyond) < MOST_BEYOND:
            line = insert_beside(line, span.id, end, made.adapter)
    changed = replace(span, tube=tube.id, bender=bender.id, end_a=ends["A"].tube, end_b=ends["B"].tube)
    return run_of(_hosed(with_span(line, changed), kit, run, tube), span.id)


def _hosed(line: Line, kit: Kit, run: Run, tube: Tube) -> Line:
    """Clamped hoses beside a tube in the bore that goes on it, with the clamp that holds them there."""
    for end in ENDS:
        hose = next(iter(run.end(end).beyond), None)
        row = kit.hoses.get(hose.hose) if isinstance(hose, HoseSpan) and hose.joined == "clamps" else None
        if not isinstance(hose, HoseSpan) or row is None or stays(hose) or bore_fits(kit, row, tube.od_mm):
            continue
        best = best_bore(kit, row.hose_class, (tube.od_mm,))
        if best is not None:
            clamp = best_clamp(kit, line.service, best, tube.od_mm) if hose.clamp else None
            line = with_span(line, replace(hose, hose=best.id, clamp=clamp))
    return line


@record
class _End:
    """An end as it is with another tube: the tube's end, the port, and an adapter that comes between."""

    tube: TubeEnd
    port: Port
    adapter: ComponentSpan | None = None


def _end(run: Run, kit: Kit, tube: Tube, end: EndName, *, keep: bool) -> _End:
    """The present end where it can stay, else the best that service and material allow: one that
    suits the port, or one with an adapter in the port."""
    at = run.end(end)
    now, port = at.tube, run.line.port(end)
    seat = kit.seats.get(at.port.seat)
    able = ends_for(
        kit, run.line.service, tube, words=("right", "acceptable", "caution", "refused"), insert=now.insert
    )

    def rank(fitting: Fitting) -> tuple[int, bool, bool]:
        word = verdict_order(kit, "end", fitting.id, run.line.service)
        fits = _fitting_nut(kit, fitting, tube, at) is not None or not fitting.screwed
        seats = seat is None or fitting.id in seat.takes
        flared = kit.fittings[now.fitting].flared
        return max(word, 1), fitting.flared != flared, not (fits and seats)

    kept = next((f for f in able if f.id == now.fitting and rank(f)[0] <= 1), None)
    if kept is None and keep:
        kept = _hard(kit, kit.fittings[now.fitting], tube)
    if kept is None and not able:
        return _End(tube=now, port=port)
    best = kept or min(able, key=rank)
    nut = _fitting_nut(kit, best, tube, at)
    same = best.id == now.fitting
    if nut is None and best.screwed and not same and at.at_port:
        return _adapted(run, kit, best, tube, at)
    chosen = nut or nut_for_port(kit, best, tube.size)
    name = chosen.id if chosen else None
    proved = port.proved and (not at.at_port or name == now.nut)
    return _End(tube=replace(now, fitting=best.id, nut=name), port=replace(port, proved=proved))


def _hard(kit: Kit, fitting: Fitting, tube: Tube) -> Fitting | None:
    """A flare that the tube takes only with trouble, where its size has a nut; None where it takes none."""
    pair = kit.pairs.get((fitting.id, tube.material))
    refused = pair is not None and pair.verdict == "refused"
    flares = fitting.flared and kit.materials[tube.material].flares != "not at all"
    return fitting if flares and not refused and kit.nuts_for(fitting.id, tube.size) else None


def _fitting_nut(kit: Kit, fitting: Fitting, tube: Tube, end: RunEnd) -> Nut | None:
    """A nut for this end type and tube that goes into the port: the present one, or one with the port's
    thread; the usual one where the port's thread is not known."""
    now = kit.fittings[end.tube.fitting].thread
    if end.port.thread.strip() and fitting.thread != now != "none":
        return None  # a nut that goes over does not suit a port that takes one in
    return nut_for_port(kit, fitting, tube.size, end.port.thread, end.tube.nut)


def _adapted(run: Run, kit: Kit, fitting: Fitting, tube: Tube, at: RunEnd) -> _End:
    """The end with an adapter in its port, so that another end type screws on: as it is sold, else one of
    the person's own. What a port without a seat seals on is taken from the end that is in it now."""
    nut = kit.nuts_for(fitting.id, tube.size)[0]
    now = at.tube.fitting
    seat = at.port.seat or next((s.id for s in kit.seats.values() if now in s.takes), "")
    port = port_face(kit, replace(at.port, seat=seat))
    end = replace(at.tube, fitting=fitting.id, nut=nut.id)
    plug = Face(kind="plug", name=fitting.name, of=fitting.id, thread=nut.thread)
    left, right = (port, plug) if at.end == "A" else (plug, port)
    made = component_between(kit, run.line.service, "adapter", left, right)
    if made is None:
        cone = next((s.id for s in kit.seats.values() if fitting.id in s.takes), "")
        inner = Side(kind="socket", of=cone, thread=nut.thread)
        outer = Side(kind="plug", of=now, thread=at.port.thread.strip())
        sides = (outer, inner) if at.end == "A" else (inner, outer)
        made = ComponentSpan(what="adapter", side_a=sides[0], side_b=sides[1])
    name = fresh_id(run.line, f"adapter-{at.end.lower()}")
    return _End(tube=end, port=replace(at.port, proved=False), adapter=replace(made, id=name))
