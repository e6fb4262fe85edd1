"""Shown working: the derivation behind every figure of the plan."""

from __future__ import annotations

from math import radians, tan

from bendrel.core.bend.tool.springback import springback_prior
from bendrel.core.bend.tube.ends import EndParts
from bendrel.core.bend.tube.part import Move, PlannedBend
from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.findings import DERIVED, Derivation, Input, Source, given, shown
from bendrel.core.geometry.bends import NO_CORNER_DEG
from bendrel.core.geometry.tool_radius import usual_at
from bendrel.core.parts.calibration import Calibration
from bendrel.core.units.notation import format_length

OWN_PIECE = Source(kind="derived", text="your own flared test piece, before less after")
CUT = Source(kind="common practice", text="pattern length plus flares plus a chosen spare")
SLANT = Source(kind="derived", text="slant geometry of the cone")
ROTARY = Source(kind="derived", text="geometry of a rotary-draw bender")
COLD = Source(kind="common practice", text="plastic tube keeps the shape it cools in")
UNCALIBRATED = Source(kind="derived", text="plastic bending of a tube, no calibration yet")

SAME_RADIUS_MM = 0.005


def derivations(rigid: Rigid) -> tuple[Derivation, ...]:
    """Working for cut length, each of its terms, and each bend's arc, mark and dial."""
    found = [_cut(rigid), _developed(rigid), *(_end(rigid, parts) for parts in rigid.ends)]
    for move in rigid.part.moves:
        bend = rigid.part.bends[move.bend - 1]
        found += [_arc(rigid, bend), _mark(rigid, move, bend), _dial(rigid, move, bend)]
    return tuple(found)


def _both(rigid: Rigid, mm: float) -> str:
    """A length in the person's unit with hundredths of a millimetre beside it."""
    exact = f"{mm:.2f} mm"
    return exact if rigid.run.line.unit == "mm" else f"{format_length(mm, 'in')} ({exact})"


def _cut(rigid: Rigid) -> Derivation:
    formula = "cut = along the tube + allowance A + allowance B + spare"
    terms = [given(term.label, _both(rigid, term.mm)) for term in rigid.part.terms]
    return shown("cut", "Cut length", formula, terms, _both(rigid, rigid.part.cut_mm), CUT)


def _developed(rigid: Rigid) -> Derivation:
    shape = rigid.shape
    straights, arcs = sum(shape.straights_mm), sum(bend.arc_mm for bend in shape.bends)
    inputs = [
        given(f"{len(shape.straights_mm)} straights", _both(rigid, straights)),
        given(f"{len(shape.bends)} arcs", _both(rigid, arcs)),
    ]
    result = _both(rigid, shape.developed_mm)
    return shown("developed", "Length along the tube", "L = Σ straights + Σ R·θ", inputs, result, DERIVED)


def _end(rigid: Rigid, parts: EndParts) -> Derivation:
    fitting, size, tube = parts.fitting, parts.size, rigid.tube
    name = f"end-{parts.end}"
    term = next(term for term in rigid.part.terms if term.id == name)
    formula, source = "nothing is used up", fitting.source
    inputs: list[Input] = []
    if parts.own_piece:
        formula, source = "as measured", OWN_PIECE
    elif size is not None and size.flare_diameter_mm is not None:
        folds = "2x" if fitting.kind == "double" else "x"
        formula, source = f"{folds}/sin β − x/tan β,  x = (F − D)/2", SLANT
        inputs = [
            given("F, flare diameter", f"{size.flare_diameter_mm:g} mm", size.source),
            given("D, tube", f"{tube.od_mm:g} mm", tube.source),
            given("β, half the cone", f"{fitting.half_angle_deg:g}°", fitting.source),
        ]
    elif size is not None and size.used_mm is not None:
        formula, source = "from the table, until you flare a test piece of your own", size.source
        inputs = [given(fitting.name, f"{size.used_mm:g} mm", size.source)]
    title = f"Tube used at end {parts.end}"
    return shown(name, title, formula, inputs, _both(rigid, term.mm), source)


def _arc(rigid: Rigid, bend: PlannedBend) -> Derivation:
    told, tool = rigid.choices.calibration, usual_at(rigid.choices.bender.radius, bend.angle_deg)
    source = rigid.choices.bender.source
    name = "R, centreline radius"
    if told is not None and tool is not None and abs(bend.radius_mm - tool) < SAME_RADIUS_MM:
        source, name = _pieces(told), "R, what the die leaves: R_die·dial/θ"
    inputs = [given(name, f"{bend.radius_mm:.2f} mm", source), given("θ", f"{bend.angle_deg:.2f}°")]
    title, result = f"Tube in bend {bend.number}", _both(rigid, bend.arc_mm)
    return shown(f"arc-{bend.number}", title, "arc = R·θ  (θ in radians)", inputs, result, DERIVED)


def _pieces(told: Calibration) -> Source:
    pieces = "piece" if told.pieces == 1 else "pieces"
    return Source(kind="shop's own", text=f"calibration from {told.pieces} test {pieces}")


def _mark(rigid: Rigid, move: Move, bend: PlannedBend) -> Derivation:
    bender, style = rigid.choices.bender, rigid.part.mark_style
    held, allowance = move.held, rigid.part.beyond_mm[move.held]
    from_held = bend.start_mm if held == "A" else rigid.shape.developed_mm - bend.end_mm
    inputs = [given(f"bend starts, from rim {held}", _both(rigid, from_held))]
    formula = "mark = start of bend"
    if move.measured_from == "cut_end":
        formula += " + allowance"
        inputs.append(given(f"not cut off or flared yet at {held}", _both(rigid, allowance)))
    offset = bender.zero_offset_mm
    if offset:
        formula += " − zero offset"
        inputs.append(given("zero offset", f"{offset:g} mm", bender.source))
    if style == "middle":
        formula += " + R·θ/2"
        inputs.append(given("half the arc", _both(rigid, bend.arc_mm / 2)))
    if style == "corner" and bend.angle_deg < NO_CORNER_DEG:
        reach = bend.radius_mm * tan(radians(bend.angle_deg) / 2)
        formula = "mark = corner − take-up,  take-up = R·tan(θ/2) + zero offset"
        inputs = [
            given("corner", _both(rigid, from_held + allowance + reach)),
            given("take-up", _both(rigid, reach + offset)),
        ]
    result = "no corner mark from 170° up" if move.mark_mm is None else _both(rigid, move.mark_mm)
    return shown(f"mark-{bend.number}", f"Mark for bend {bend.number}", formula, inputs, result, ROTARY)


def _dial(rigid: Rigid, move: Move, bend: PlannedBend) -> Derivation:
    told, material = rigid.choices.calibration, rigid.choices.material
    inputs, title = [given("θ", f"{bend.angle_deg:.2f}°")], f"Dial for bend {bend.number}"
    if told is not None:
        source = _pieces(told)
        formula = "dial = (1 + a)·θ + b"
        inputs += [
            given("a", f"{told.springback:.4f} ± {told.doubt[2]:.4f}", source),
            given("b", f"{told.springback_deg:+.2f}° ± {told.doubt[3]:.2f}°", source),
        ]
    elif material.family == "plastic":
        title, source = f"Form for bend {bend.number}", COLD
        formula = "angle as drawn: formed warm over the block and held there until it is cold"
    else:
        share = springback_prior(material, rigid.tube, bend.radius_mm)
        formula, source = (
            "dial = θ·(1 + a),  a = M_p·R/(E·I); at least this, hardening left out",
            UNCALIBRATED,
        )
        inputs.append(
            given(f"a, {material.name} at R {bend.radius_mm:g} mm", f"{share:.5f}", material.source)
        )
    return shown(f"dial-{bend.number}", title, formula, inputs, f"{move.dial_deg:.1f}°", source)
