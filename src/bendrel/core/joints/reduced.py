"""A reducer put in where two sizes meet that nothing joins: between two tubes, or within a hose."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.ids import NotAChain
from bendrel.core.joints.pieces import clamp_offers
from bendrel.core.line.document import ComponentSpan, HoseSpan, Line
from bendrel.core.line.edits.chain import fresh_id, insert, place_of
from bendrel.core.line.rewrite import computed_length
from bendrel.core.line.run import with_span
from bendrel.core.parts.fits import best_bore
from bendrel.core.parts.kit import Kit
from bendrel.core.units.lengths import Length
from bendrel.core.units.notation import format_small


def reduced(line: Line, kit: Kit, span_id: str, a_mm: float, b_mm: float) -> Line:
    """`line` with a reducer from `a_mm` (outside diameter on the side of port A) to `b_mm`.

    Behind a tube or a component it stands between that and the next, held by the joint that was there twice.
    A hose that goes on both sizes is cut in two about it, each in the bore that goes on its own side. Raises
    NotAChain where no hose of the class does, and where nothing is behind.
    """
    at = place_of(line, span_id)
    span = line.spans[at]
    what = ComponentSpan(
        id=fresh_id(line, "c"),
        what="reducer",
        on_a=computed_length(a_mm, line.unit),
        on_b=computed_length(b_mm, line.unit),
    )
    if not isinstance(span, HoseSpan):
        if at + 1 >= len(line.spans):
            raise NotAChain("There is nothing behind this that a reducer could join it with.")
        joint = replace(line.joints[at], apart=Length())
        return insert(line, at + 1, what, joint, joint)
    row = kit.hoses.get(span.hose)
    if row is None:
        raise NotAChain("Choose a hose of the catalogue first.")
    first = _on(kit, line, span, row.hose_class, a_mm, span.id)
    second = _on(kit, line, span, row.hose_class, b_mm, fresh_id(line, "h", (what.id,)))
    made = with_span(line, replace(first, on_a=span.on_a, plain_a=span.plain_a))
    made = insert(made, at + 1, what, behind=line.joints[at] if at < len(line.joints) else None)
    return insert(made, at + 2, replace(second, on_b=span.on_b, plain_b=span.plain_b))


def _on(kit: Kit, line: Line, span: HoseSpan, hose_class: str, on_mm: float, name: str) -> HoseSpan:
    hose = best_bore(kit, hose_class, (on_mm,))
    if hose is None:
        on = format_small(on_mm, line.unit)
        raise NotAChain(f"No {kit.hose_classes[hose_class].name} of the catalogue goes on {on}.")
    offers = clamp_offers(kit, line.service, hose, kit.hose_classes[hose_class].clamps, (on_mm,))
    clamp = span.clamp if span.clamp in offers else (offers[0] if offers else None)
    blank = Length()
    return replace(
        span,
        id=name,
        hose=hose.id,
        clamp=clamp,
        length=blank,
        on_a=blank,
        on_b=blank,
        plain_a=False,
        plain_b=False,
        shape=None,
    )
