"""The shop's own catalogue rows: what a person types for one, and what it becomes."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import replace
from typing import Annotated, Any, Literal

from annotated_types import MaxLen
from pydantic import TypeAdapter, ValidationError

from bendrel.core.errors import BendrelError
from bendrel.core.findings import Source
from bendrel.core.line.document import COMPONENT_KINDS
from bendrel.core.parts.bender import Bender
from bendrel.core.parts.component import Component
from bendrel.core.parts.fitting import Flarer, Nut
from bendrel.core.parts.hose import Clamp, Hose
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.threads.designation import ThreadError
from bendrel.core.parts.tool_kind import Bench
from bendrel.core.parts.tube import Tube
from bendrel.core.record import record
from bendrel.core.units.notation import UnitError, parse_angle, parse_length
from bendrel.core.units.quantities import parse_pressure

ShelfName = Literal["tubes", "nuts", "hoses", "clamps", "benders", "flarers", "benches", "components"]
FieldKind = Literal["length", "room", "angle", "pressure", "thread", "name", "pick"]
OwnFields = dict[Annotated[str, MaxLen(30)], Annotated[str, MaxLen(120)]]


@record
class OwnField:
    """One field of the form for an entry; `picks` names the part of the kit to choose from. One that is
    `optional` may stay blank."""

    name: str
    label: str
    kind: FieldKind
    example: str = ""
    picks: str = ""
    optional: bool = False


FIELDS: dict[ShelfName, tuple[OwnField, ...]] = {
    "tubes": (
        OwnField(name="material", label="Material", kind="pick", picks="materials"),
        OwnField(name="size", label="Size, as you say it", kind="name", example="3/16 in"),
        OwnField(name="od_mm", label="Outside diameter", kind="length", example="4.76 mm"),
        OwnField(name="wall_mm", label="Wall", kind="length", example="0.9 mm"),
    ),
    "nuts": (
        OwnField(name="fitting", label="End type", kind="pick", picks="fittings"),
        OwnField(name="size", label="Tube size", kind="name", example="3/16 in"),
        OwnField(name="thread", label="Thread", kind="thread", example="3/8-24"),
        OwnField(name="length_mm", label="Length", kind="length", example="16 mm"),
        OwnField(name="hex_mm", label="Hex across flats", kind="length", example="11 mm"),
    ),
    "hoses": (
        OwnField(name="hose_class", label="Class", kind="pick", picks="hose_classes"),
        OwnField(name="size", label="Size, as you say it", kind="name", example="9 mm"),
        OwnField(name="id_mm", label="Bore", kind="length", example="9 mm"),
        OwnField(name="od_mm", label="Outside diameter", kind="length", example="15 mm"),
        OwnField(name="pressure_kpa", label="Working pressure", kind="pressure", example="10 bar"),
        OwnField(name="least_radius_mm", label="Least bend radius", kind="length", example="90 mm"),
        OwnField(
            name="overlap_mm",
            label="Pushed on by, as its maker says",
            kind="length",
            example="25 mm",
            optional=True,
        ),
    ),
    "clamps": (
        OwnField(name="kind", label="Kind", kind="pick", picks="clamp_kinds"),
        OwnField(name="closed_mm", label="Closed", kind="length", example="12 mm"),
        OwnField(name="open_mm", label="Open", kind="length", example="20 mm"),
        OwnField(name="width_mm", label="Width", kind="length", example="9 mm"),
    ),
    "benders": (
        OwnField(name="name", label="Name of the tool", kind="name", example="vise bender"),
        OwnField(name="kind", label="Kind", kind="pick", picks="tool_kinds", optional=True),
        OwnField(name="size", label="Tube size", kind="name", example="3/16 in"),
        OwnField(name="od_mm", label="Tube outside", kind="length", example="4.76 mm"),
        OwnField(name="radius_mm", label="Radius of the die", kind="length", example="15 mm"),
        OwnField(name="greatest_angle_deg", label="Greatest angle", kind="angle", example="180"),
        OwnField(name="least_before_first_mm", label="Grip before a bend", kind="room", example="20 mm"),
        OwnField(name="least_between_mm", label="Between bends", kind="room", example="12 mm"),
        OwnField(name="least_after_last_mm", label="After the last", kind="room", example="15 mm"),
        OwnField(
            name="behind_mm", label="Body behind the zero", kind="room", example="180 mm", optional=True
        ),
        OwnField(name="beside_mm", label="Width of the body", kind="room", example="25 mm", optional=True),
        OwnField(name="lever_mm", label="Lever from the zero", kind="room", example="200 mm", optional=True),
        OwnField(
            name="above_bench_mm", label="Tube above the bench", kind="room", example="110 mm", optional=True
        ),
    ),
    "flarers": (
        OwnField(name="name", label="Name of the tool", kind="name", example="lever press"),
        OwnField(name="forms", label="Forms", kind="pick", picks="flare_kinds"),
        OwnField(name="grip_mm", label="Grip behind the flare", kind="room", example="22 mm"),
        OwnField(name="use", label="Used", kind="pick", picks="flare_places"),
    ),
    "benches": (
        OwnField(name="name", label="Name of the bench", kind="name", example="bench by the door"),
        OwnField(name="ahead_mm", label="Top ahead of the zero", kind="room", example="700 mm"),
        OwnField(name="behind_mm", label="Top behind the zero", kind="room", example="900 mm"),
        OwnField(name="far_mm", label="Top away from you", kind="room", example="550 mm"),
        OwnField(name="near_mm", label="Top towards you", kind="room", example="80 mm"),
        OwnField(name="floor_mm", label="Height of the top", kind="length", example="900 mm"),
        OwnField(name="wall_mm", label="Wall from the zero", kind="length", example="650 mm", optional=True),
        OwnField(
            name="vise_long_mm", label="Vise along the tube", kind="length", example="140 mm", optional=True
        ),
        OwnField(name="vise_wide_mm", label="Vise across", kind="length", example="110 mm", optional=True),
        OwnField(
            name="vise_tall_mm", label="Vise above the top", kind="length", example="120 mm", optional=True
        ),
    ),
}
FIELDS["components"] = (
    OwnField(name="what", label="Kind", kind="pick", picks="component_kinds"),
    OwnField(name="name", label="Name, as you say it", kind="name", example="filter head, 1/2 in"),
    OwnField(name="family", label="Made of and for", kind="pick", picks="component_families"),
    *(
        field
        for side in ("a", "b")
        for field in (
            OwnField(
                name=f"{side}_seat", label=f"Side {side}: its seat", kind="pick", picks="seats", optional=True
            ),
            OwnField(
                name=f"{side}_end", label=f"Side {side}: seals as", kind="pick", picks="fittings",
                optional=True,
            ),
            OwnField(
                name=f"{side}_mm", label=f"Side {side}: spigot of", kind="length", example="10 mm",
                optional=True,
            ),
            OwnField(
                name=f"{side}_thread", label=f"Side {side}: thread", kind="thread", example="9/16-18",
                optional=True,
            ),
        )
    ),
    OwnField(name="rated_kpa", label="Rated for", kind="pressure", example="10 bar", optional=True),
)  # fmt: skip
BENCH_AS_USUAL = ("thick_mm", "vise_long_mm", "vise_wide_mm", "vise_tall_mm")
NOTE = OwnField(name="note", label="Where the figures come from", kind="name", example="maker's sheet")

_TYPES: dict[ShelfName, TypeAdapter[Any]] = {
    "tubes": TypeAdapter(Tube),
    "nuts": TypeAdapter(Nut),
    "hoses": TypeAdapter(Hose),
    "clamps": TypeAdapter(Clamp),
    "benders": TypeAdapter(Bender),
    "flarers": TypeAdapter(Flarer),
    "benches": TypeAdapter(Bench),
    "components": TypeAdapter(Component),
}

PICKS: dict[str, tuple[str, ...]] = {
    "flare_kinds": ("every flare", "double", "single", "bulb"),
    "flare_places": ("bench", "on the machine"),
    "component_kinds": COMPONENT_KINDS,
}
"""What a field picks from that is no part of the kit."""


class OwnError(BendrelError, ValueError):
    """An entry that cannot be used. The text is one sentence for the person."""


def own_row(kit: Kit, shelf: ShelfName, entry_id: str, fields: Mapping[str, str]) -> Any:
    """The typed catalogue row that `fields` mean. Raises OwnError, naming the field."""
    values: dict[str, Any] = {"id": f"own_{entry_id}"}
    for field in FIELDS[shelf]:
        text = fields.get(field.name, "").strip()
        if not text and field.optional:
            values[field.name] = None
            continue
        if not text:
            raise OwnError(
                f"{field.label} is missing" + (f"; such as {field.example}." if field.example else ".")
            )
        try:
            values[field.name] = _value(kit, field, text)
        except (UnitError, ThreadError) as error:
            raise OwnError(f"{field.label}: {error}") from error
    _check(shelf, values)
    if shelf == "benders":
        values |= {
            "zero_offset_mm": 0.0,
            "plastic": values["kind"] == "form",
            "kind": values["kind"] or "lever",
        }
    if shelf == "benches":
        # what was not measured is as usual
        usual = {name: getattr(kit.bench, name) for name in BENCH_AS_USUAL}
        values |= {name: size for name, size in usual.items() if values.get(name) is None}
    if shelf == "flarers":
        forms = values["forms"]
        values["forms"] = ("double", "single", "bulb") if forms == "every flare" else (forms,)
    if shelf == "components":
        values |= {side: _side(kit, side, values) for side in ("a", "b")}
        values = {name: value for name, value in values.items() if name[1:2] != "_"}
        values |= {"highest_c": None, "one_way": False}
    if shelf == "clamps":
        values["name"] = f"{values['closed_mm']:g}-{values['open_mm']:g}"
    values["source"] = Source(kind="shop's own", text=fields.get("note", "").strip() or "entered by the shop")
    try:
        return _TYPES[shelf].validate_python(values)
    except ValidationError as error:  # every field was read above: only a bound can be wrong
        name = str(error.errors()[0]["loc"][-1])
        raise OwnError(f"{name.replace('_', ' ')}: that figure is not possible.") from error


def _side(kit: Kit, side: str, values: Mapping[str, Any]) -> dict[str, Any]:
    """One side of a component: a seat, an end or a spigot, one of the three. Raises OwnError."""
    seat, end, on_mm = (values[f"{side}_{name}"] for name in ("seat", "end", "mm"))
    thread = values[f"{side}_thread"] or ""
    if sum(value is not None for value in (seat, end, on_mm)) != 1:
        raise OwnError(f"Side {side}: say one of its seat, what it seals as, or the spigot's diameter.")
    if end is not None and kit.fittings[end].takes_hose:
        raise OwnError(f"Side {side}: an end under a hose is a spigot; say its diameter instead.")
    if seat is not None:
        return {"kind": "socket", "of": seat, "thread": thread, "on_mm": None}
    if end is not None:
        return {"kind": "plug", "of": end, "thread": thread, "on_mm": None}
    return {"kind": "spigot", "of": "barb", "thread": "", "on_mm": on_mm}


def with_own(kit: Kit, entries: Iterable[tuple[str, ShelfName, Mapping[str, str]]]) -> Kit:
    """`kit` with the shop's own rows added; one that no longer makes sense is left out."""
    tubes, nuts = dict(kit.tubes), dict(kit.nuts)
    hoses, clamps, benders = dict(kit.hoses), dict(kit.clamps), dict(kit.benders)
    flarers, benches = dict(kit.flarers), {kit.bench.id: kit.bench}
    components = dict(kit.components)
    shelves: dict[ShelfName, dict[str, Any]] = {
        "tubes": tubes,
        "nuts": nuts,
        "hoses": hoses,
        "clamps": clamps,
        "benders": benders,
        "flarers": flarers,
        "benches": benches,
        "components": components,
    }
    for entry_id, shelf, fields in entries:
        try:
            row = own_row(kit, shelf, entry_id, fields)
        except OwnError:
            continue
        shelves[shelf][row.id] = row
    return replace(
        kit,
        tubes=tubes,
        nuts=nuts,
        hoses=hoses,
        clamps=clamps,
        benders=benders,
        flarers=flarers,
        components=components,
        bench=list(benches.values())[-1],  # the newest one is the bench that is used
    )


def _value(kit: Kit, field: OwnField, text: str) -> Any:
    if field.kind == "length":
        return parse_length(text)
    if field.kind == "room":
        return parse_length(text, sign="not_negative")
    if field.kind == "angle":
        return parse_angle(text)
    if field.kind == "pressure":
        return parse_pressure(text)
    if field.kind == "thread":
        return kit.thread(text).designation
    if field.kind == "pick" and text not in (PICKS.get(field.picks) or getattr(kit, field.picks)):
        raise OwnError(f"{field.label}: the catalogue has no “{text[:40]}”; choose one that is listed.")
    return text


def _check(shelf: ShelfName, values: Mapping[str, Any]) -> None:
    if shelf == "tubes" and values["wall_mm"] * 2 >= values["od_mm"]:
        raise OwnError("Wall: two walls must leave a bore within the outside diameter.")
    if shelf == "hoses" and values["id_mm"] >= values["od_mm"]:
        raise OwnError("Outside diameter: it must be more than the bore.")
    if shelf == "clamps" and values["closed_mm"] >= values["open_mm"]:
        raise OwnError("Open: it must be more than closed.")
