"""The hoses and components of a line, with the catalogue rows and figures that they mean."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal, assert_never

from bendrel.core.findings import EndName
from bendrel.core.joints.face import Face
from bendrel.core.joints.faces import end_kind, face_of, row_of, side_of
from bendrel.core.joints.hose_read import BoughtRead, PatternRead, bought_of, clock_of, pattern_of, read_mm
from bendrel.core.joints.lap import Lap, lap_on
from bendrel.core.line.document import ComponentSpan, HoseSpan, Line, RigidSpan, Span
from bendrel.core.line.paths import span_path
from bendrel.core.line.resolve import Problem
from bendrel.core.line.run import ENDS
from bendrel.core.parts.component import Component
from bendrel.core.parts.hose import Clamp, ClampKindId, Hose, HoseClass
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.picking import verdict_order
from bendrel.core.parts.push_fit import HoseFit, PushBands, clamp_holds, clamps_for, hose_fit
from bendrel.core.parts.verdict import VERDICT_ORDER
from bendrel.core.record import record
from bendrel.core.units.notation import UnitError
from bendrel.core.units.quantities import parse_pressure, parse_volume

Side = Literal["near", "far"]


@record
class HoseEndFit:
    """One end of a hose on what it goes on. `faces` is the end of the line that it looks to, `near` the
    side of the tube that it hangs on. `on_mm` is that diameter; `bare` says that there is neither bead nor
    barb, `tube` that it is a tube; `lap` how far it lies on it;
    `holds` whether the chosen clamp takes it; `offers` the clamps that do."""

    side: Side
    faces: EndName
    on_mm: float
    bare: bool
    tube: bool
    fit: HoseFit
    lap: Lap
    holds: bool | None
    offers: tuple[str, ...]


@record
class Stands:
    """Where a hose or component stands: `told` in words, such as "beyond B"; `end` and `index` where it lies
    between a rigid piece and a port, counted from the tube outwards."""

    span: str
    told: str
    end: EndName | None
    index: int


@record
class PlacedHose:
    """One hose of the line. `near` is the side towards the tube that it hangs on, A between two tubes.
    `length_mm` is None while not measured; `laps` is how far it lies on what it goes on at A
    and B, None of ends of its own; `takes_mm` what its own ends add to its length, None of ends without
    figures; `cut_mm` the hose alone, None while that is not known; `clock_deg` how its
    elbows were said to stand to each other."""

    stands: Stands
    piece: HoseSpan
    hose: Hose
    hose_class: HoseClass
    clamp: Clamp | None
    length_mm: float | None
    ends: tuple[HoseEndFit, ...]
    laps: tuple[Lap | None, Lap | None]
    takes_mm: tuple[float | None, float | None]
    cut_mm: float | None
    clock_deg: float | None
    pattern: PatternRead | None
    bought: BoughtRead | None

    def side(self, end: EndName) -> HoseEndFit | None:
        """What one end of it goes on."""
        return next((side for side in self.ends if side.faces == end), None)

    @property
    def on_ends_mm(self) -> float:
        """Hose that lies on what it is pushed on, both ends together; none where its ends are its own."""
        return sum(lap.mm for lap in self.laps if lap is not None)


@record
class PlacedComponent:
    """One component of the line; `row` is the catalogue's, None of one of the person's own, `offers` the rows
    of its kind that the service does not refuse, the best first, and `faces` what its sides are. A
    restrictor's bore and land in mm; the bore is None of others, and while it is not measured. What its maker
    says is None while not known. `on_a_mm` and `on_b_mm` are what is joined on its two sides: as typed or
    sold, else the size of the next tube."""

    stands: Stands
    piece: ComponentSpan
    bore_mm: float | None
    land_mm: float
    row: Component | None
    faces: tuple[Face, Face]
    offers: tuple[str, ...]
    length_mm: float | None = None
    rated_kpa: float | None = None
    highest_c: float | None = None
    holds_ml: float | None = None
    loses_kpa: float | None = None
    on_a_mm: float | None = None
    on_b_mm: float | None = None


@record
class Pieces:
    """Every hose and component of the line: those before the first tube from it outwards, then the others on
    the way to port B."""

    hoses: tuple[PlacedHose, ...]
    components: tuple[PlacedComponent, ...]


def place_pieces(line: Line, kit: Kit, problems: list[Problem]) -> Pieces:
    """Look up and measure every hose and component. What cannot be read is a problem."""
    hoses: list[PlacedHose] = []
    components: list[PlacedComponent] = []
    for k in _outwards(line):
        span = line.spans[k]
        match span:
            case ComponentSpan():
                components.append(_component(line, kit, k, span, problems))
            case HoseSpan():
                placed = _hose(line, kit, k, span, problems)
                if placed is not None:
                    hoses.append(placed)
            case RigidSpan():
                pass  # tubes are planned by themselves
            case _:
                assert_never(span)
    return Pieces(hoses=tuple(hoses), components=tuple(components))


def _outwards(line: Line) -> list[int]:
    first = next((k for k, span in enumerate(line.spans) if isinstance(span, RigidSpan)), 0)
    return [*range(first - 1, -1, -1), *range(first, len(line.spans))]


def _stands(line: Line, k: int) -> Stands:
    tubes = [n for n, span in enumerate(line.spans) if isinstance(span, RigidSpan)]
    before, behind = [n for n in tubes if n < k], [n for n in tubes if n > k]
    span, which = line.spans[k].id, _which(line, k, before, behind)
    if before and behind:
        told = f"between tube {len(before)} and tube {len(before) + 1}{which}"
        return Stands(span=span, told=told, end=None, index=k - before[-1] - 1)
    if before:
        return Stands(span=span, told=f"beyond B{which}", end="B", index=k - before[-1] - 1)
    if behind:
        return Stands(span=span, told=f"beyond A{which}", end="A", index=behind[0] - k - 1)
    return Stands(span=span, told=f"of the line{which}", end=None, index=k)


def _which(line: Line, k: int, before: list[int], behind: list[int]) -> str:
    """Which one of its kind it is, where several stand in one place; blank where it is the only one."""

    def kind(span: Span) -> str:
        return span.what if isinstance(span, ComponentSpan) else span.kind

    first, last = (before[-1] + 1 if before else 0), (behind[0] if behind else len(line.spans))
    alike = [n for n in range(first, last) if kind(line.spans[n]) == kind(line.spans[k])]
    if len(alike) == 1:
        return ""
    if len(alike) == 2:
        return ", nearer to A" if k == alike[0] else ", nearer to B"
    return f", no. {alike.index(k) + 1} from A"


def _component(line: Line, kit: Kit, k: int, span: ComponentSpan, problems: list[Problem]) -> PlacedComponent:
    def at(*steps: str) -> str:
        return span_path(span.id, *steps)

    def said(name: str, text: str, parse: Callable[[str], float]) -> float | None:
        if not text.strip():
            return None
        try:
            return parse(text)
        except UnitError as error:
            problems.append(Problem(path=at(name), message=str(error)))
            return None

    restrictor, row = span.what == "restrictor", row_of(kit, span)
    rated = said("rated", span.rated, parse_pressure)
    return PlacedComponent(
        stands=_stands(line, k),
        on_a_mm=_size_of(line, kit, k, span, "A", problems),
        on_b_mm=_size_of(line, kit, k, span, "B", problems),
        piece=span,
        bore_mm=read_mm(span.bore, at("bore"), problems) if restrictor else None,
        land_mm=read_mm(span.land, at("land"), problems) or kit.limits["land_mm"].value,
        length_mm=read_mm(span.length, at("length"), problems),
        row=row,
        faces=(face_of(kit, span, "A"), face_of(kit, span, "B")),
        offers=component_offers(kit, line.service, span.what),
        rated_kpa=row.rated_kpa if rated is None and row is not None else rated,
        highest_c=row.highest_c if row is not None else None,
        holds_ml=_ml(said("holds", span.holds, parse_volume)),
        loses_kpa=said("loses", span.loses, parse_pressure),
    )


def component_offers(kit: Kit, service: str, what: str) -> tuple[str, ...]:
    """The rows of one kind that a service does not refuse, the best first, by catalogue id."""
    able = [
        (verdict_order(kit, "component", row.family, service), row.id)
        for row in kit.components.values()
        if row.what == what
    ]
    return tuple(
        name for order, name in sorted(able, key=lambda one: one[0]) if order < VERDICT_ORDER["refused"]
    )


def _hose(line: Line, kit: Kit, k: int, piece: HoseSpan, problems: list[Problem]) -> PlacedHose | None:
    hose = kit.hoses.get(piece.hose)
    clamp = kit.clamps.get(piece.clamp) if piece.clamp else None
    for name, wanted, found in (("hose", piece.hose, hose), ("clamp", piece.clamp, clamp)):
        if wanted and found is None:
            message = f"The catalogue has no {name} “{wanted}”; choose one that is listed."
            problems.append(Problem(path=span_path(piece.id, name), message=message))
    if hose is None:
        return None
    stands = _stands(line, k)
    near: EndName = "B" if stands.end == "A" else "A"
    far: EndName = "A" if near == "B" else "B"
    ends: tuple[HoseEndFit, ...] = ()
    sides: list[tuple[Side, EndName]] = [("near", near), ("far", far)]
    on = {end: _goes_on(line, kit, k, piece, end, side, problems) for side, end in sides}
    laps: tuple[Lap | None, Lap | None] = (None, None)
    if piece.joined == "clamps":
        lies = {end: _lap(kit, hose, clamp, piece, end, on[end], problems) for end in ENDS}
        laps = (lies["A"], lies["B"])
        ends = tuple(
            _end_fit(
                kit, line.service, hose, clamp, side, end, lies[end], on_mm=met[0], bare=met[1], tube=met[2]
            )
            for side, end in sides
            if (met := on[end]) is not None
        )
    length = read_mm(piece.length, span_path(piece.id, "length"), problems)
    takes = _takes(kit, piece, hose)
    return PlacedHose(
        stands=stands,
        piece=piece,
        hose=hose,
        hose_class=kit.hose_classes[hose.hose_class],
        clamp=clamp,
        length_mm=length,
        ends=ends,
        laps=laps,
        takes_mm=takes,
        clock_deg=clock_of(piece, problems),
        pattern=pattern_of(piece, problems),
        bought=bought_of(piece, problems),
        cut_mm=length if piece.joined == "clamps" else _between(length, takes),
    )


def _takes(kit: Kit, piece: HoseSpan, hose: Hose) -> tuple[float | None, float | None]:
    """What the ends of its own add to the length of a hose, at A and at B; None of ends without figures."""
    kind = end_kind(kit, piece, hose)
    size = kind.size_for(hose.size) if kind else None
    if size is None:
        return (None, None)
    return (size.takes_mm(piece.angle_a), size.takes_mm(piece.angle_b))


def _between(length: float | None, takes: tuple[float | None, float | None]) -> float | None:
    """What is left of a length between two ends."""
    at_a, at_b = takes
    return None if length is None or at_a is None or at_b is None else length - at_a - at_b


def _lap(
    kit: Kit,
    hose: Hose,
    clamp: Clamp | None,
    piece: HoseSpan,
    end: EndName,
    met: tuple[float, bool, bool] | None,
    problems: list[Problem],
) -> Lap:
    """How far one end lies on what it goes on; of a diameter that nobody knows, on one of its own bore."""
    reading = piece.lap_a if end == "A" else piece.lap_b
    typed = read_mm(reading, span_path(piece.id, f"lap_{end.lower()}"), problems)
    on_mm = met[0] if met is not None else hose.id_mm
    return lap_on(kit, hose, on_mm, clamps=piece.clamps_each, clamp=clamp, typed_mm=typed)


def _goes_on(
    line: Line, kit: Kit, k: int, piece: HoseSpan, end: EndName, side: Side, problems: list[Problem]
) -> tuple[float, bool, bool] | None:
    """What one end of a hose goes on: the diameter, whether it is bare, and whether it is a tube. It comes
    from the neighbour unless it was typed; None where nobody knows it."""
    typed = read_mm(
        piece.on_a if end == "A" else piece.on_b, span_path(piece.id, f"on_{end.lower()}"), problems
    )
    plain = piece.plain_a if end == "A" else piece.plain_b
    other = k - 1 if end == "A" else k + 1
    neighbour = line.spans[other] if 0 <= other < len(line.spans) else None
    if isinstance(neighbour, RigidSpan):
        tube = kit.tubes.get(neighbour.tube)
        fitting = kit.fittings.get(neighbour.end("B" if end == "A" else "A").fitting)
        bare = fitting is None or fitting.kind != "hose"
        size = typed or (tube.od_mm if tube else None)
        return None if size is None else (size, bare, True)
    if typed is None and isinstance(neighbour, ComponentSpan):
        spigot: EndName = "B" if end == "A" else "A"
        typed = _own_size(kit, neighbour, spigot, [])  # the component says itself what cannot be read
        # beyond the last tube nobody knows a spigot's size; between two it is that of the next one
        if typed is None and all(_nearest_tube_mm(line, kit, other, way) for way in ENDS):
            typed = _nearest_tube_mm(line, kit, other, spigot)
    if typed is None and side == "near":
        typed = _nearest_tube_mm(line, kit, k, end)
    return None if typed is None else (typed, plain, False)


def _own_size(kit: Kit, span: ComponentSpan, side: EndName, problems: list[Problem]) -> float | None:
    """The diameter of one side of a component: as typed, else its row's."""
    name = "on_a" if side == "A" else "on_b"
    typed = read_mm(span.on_a if side == "A" else span.on_b, span_path(span.id, name), problems)
    row = side_of(kit, span, side)
    return row.on_mm if typed is None and row is not None else typed


def _size_of(
    line: Line, kit: Kit, k: int, span: ComponentSpan, side: EndName, problems: list[Problem]
) -> float | None:
    """What is joined on one side of a component: as typed, else the size of the next tube on that side, else
    of the next on the other; None where there is none."""
    typed = _own_size(kit, span, side, problems)
    if typed is not None:
        return typed
    other: EndName = "B" if side == "A" else "A"
    return _nearest_tube_mm(line, kit, k, side) or _nearest_tube_mm(line, kit, k, other)


def _nearest_tube_mm(line: Line, kit: Kit, k: int, end: EndName) -> float | None:
    """Outside diameter of the next tube on one side: what hangs on it is of its size unless somebody says
    otherwise."""
    step = -1 if end == "A" else 1
    k += step
    while 0 <= k < len(line.spans):
        span = line.spans[k]
        if isinstance(span, RigidSpan):
            tube = kit.tubes.get(span.tube)
            return tube.od_mm if tube else None
        k += step
    return None


def _ml(litres: float | None) -> float | None:
    return None if litres is None else litres * 1000


def push_bands(kit: Kit) -> PushBands:
    """Where the words for a push fit change, by the rules."""
    return PushBands(
        loose=kit.limits["hose_loose"].value,
        slides=kit.limits["hose_slides"].value,
        warm=kit.limits["hose_warm"].value,
    )


def clamp_offers(
    kit: Kit, service: str, hose: Hose, kinds: tuple[ClampKindId, ...], sizes_mm: tuple[float, ...]
) -> tuple[str, ...]:
    """Clamps that hold `hose` on every diameter that it goes on and are not refused in the service; the
    shop's own kind first, then as the service judges them."""
    bands = push_bands(kit)
    over = [hose_fit(hose, size, bands).over_mm for size in sizes_mm]
    fits = clamps_for(over, kinds, kit.clamps.values(), kit.limits["clamp_left"].value)
    refused = VERDICT_ORDER["refused"]
    allowed = [c for c in fits if verdict_order(kit, "clamp", c.kind, service) < refused]
    preferred = kit.preferences.get("clamps", "")

    def rank(clamp: Clamp) -> tuple[bool, int]:
        return clamp.kind != preferred, verdict_order(kit, "clamp", clamp.kind, service)

    return tuple(clamp.id for clamp in sorted(allowed, key=rank))


def best_clamp(kit: Kit, service: str, hose: Hose, on_mm: float) -> str | None:
    """The first of the clamps offered for `hose` on one diameter (mm) of which two have room on the usual
    lap, by its catalogue id; None without."""
    kinds = kit.hose_classes[hose.hose_class].clamps
    offers = clamp_offers(kit, service, hose, kinds, (on_mm,))
    usual = lap_on(kit, hose, on_mm, clamps=2, clamp=None).mm
    room = (
        name
        for name in offers
        if lap_on(kit, hose, on_mm, clamps=2, clamp=kit.clamps[name]).clamps_mm <= usual
    )
    return next(room, next(iter(offers), None))


def _end_fit(
    kit: Kit,
    service: str,
    hose: Hose,
    clamp: Clamp | None,
    side: Side,
    faces: EndName,
    lap: Lap,
    *,
    on_mm: float,
    bare: bool,
    tube: bool,
) -> HoseEndFit:
    fit = hose_fit(hose, on_mm, push_bands(kit))
    left = kit.limits["clamp_left"].value
    return HoseEndFit(
        side=side,
        faces=faces,
        on_mm=on_mm,
        bare=bare,
        tube=tube,
        fit=fit,
        lap=lap,
        holds=None if clamp is None else clamp_holds(clamp, fit.over_mm, left),
        offers=clamp_offers(kit, service, hose, kit.hose_classes[hose.hose_class].clamps, (on_mm,)),
    )
