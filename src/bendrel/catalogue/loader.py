"""Read the data files once and hand them out as one typed kit."""

from __future__ import annotations

import csv
import tomllib
from collections.abc import Iterator, Mapping
from functools import cache
from importlib.resources import files
from typing import Any, TypeVar

from pydantic import TypeAdapter

from bendrel.core.findings import Source
from bendrel.core.geometry.clips import Clip, ClipSpacing
from bendrel.core.parts.apart import Apart
from bendrel.core.parts.bender import Bender
from bendrel.core.parts.circuit_row import CircuitRow
from bendrel.core.parts.clearance import Clearance
from bendrel.core.parts.component import Component, ComponentFamily
from bendrel.core.parts.finding_row import FindingRow
from bendrel.core.parts.fitting import EndSize, Fitting, Flarer, Nut, Torque
from bendrel.core.parts.flaring import FlarePictureRow, FlareRange, FlaringRow, FlaringRules
from bendrel.core.parts.fluid import Fluid
from bendrel.core.parts.hose import Clamp, ClampKind, Hose, HoseClass
from bendrel.core.parts.hose_end import HoseEndKind
from bendrel.core.parts.kit import Advice, Body, Kit, Limit
from bendrel.core.parts.owner import OwnerWords
from bendrel.core.parts.pace import Pace
from bendrel.core.parts.pair import Pair, index_pairs
from bendrel.core.parts.proving import ClosingRule, Ladder, ProvingRule, ProvingRules, Watch
from bendrel.core.parts.removal import RemovalRule
from bendrel.core.parts.rule_names import AdviceName, LimitName
from bendrel.core.parts.school import School
from bendrel.core.parts.seat import Seat, SharedThread
from bendrel.core.parts.service import Caution, Service
from bendrel.core.parts.single_use import SingleUse
from bendrel.core.parts.splicing import Argument, Cutter, Margin, Overlap, Splice, Splicing, Weigh
from bendrel.core.parts.spread import Spread
from bendrel.core.parts.step_row import StepRow
from bendrel.core.parts.threads.designation import KnownThread, PipeThread, WhitworthSize
from bendrel.core.parts.threads.wrench import Wrench
from bendrel.core.parts.tool_kind import Bench, ToolKind
from bendrel.core.parts.tube import Material, Tube
from bendrel.core.parts.verdict import Joint, Verdict, index_verdicts

T = TypeVar("T")

GIVEN_RADII = "given_any"
"""The bender that makes whatever radius is asked, for shapes read from a file."""


@cache
def load_kit() -> Kit:
    """The whole catalogue. Raises pydantic.ValidationError when a data file is not as it should be."""
    rules, removal, tools = toml_file("rules.toml"), toml_file("removal.toml"), toml_file("tool_kinds.toml")
    end_sizes = _typed(EndSize, _rows("end_sizes.csv"))
    joints = _by_id(Joint, _tables("joint"))
    splicing = _splicing(joints)
    schools = _by_id(School, _tables("school"))
    return Kit(
        rules_version=rules["version"],
        materials=_by_id(Material, _tables("material")),
        tubes=_by_id(Tube, _with_laws(_rows("tubes.csv"))),
        benders=_by_id(Bender, _rows("benders.csv")),
        tool_kinds=_by_id(ToolKind, tools["tool_kind"]),
        bench=_by_id(Bench, ({"wall_mm": None} | row for row in tools["bench"]))["usual"],
        flarers=_by_id(Flarer, tools["flarer"]),
        fittings=_by_id(Fitting, map(_with_angle, _tables("fitting"))),
        end_sizes={(f.fitting, f.size): f for f in end_sizes},
        flaring=_flaring(),
        nuts=_by_id(Nut, _rows("nuts.csv")),
        torques=_by_id(Torque, _rows("torques.csv")),
        clips=_typed(Clip, _rows("clips.csv")),
        clip_spacing=_typed(ClipSpacing, rules["clip_spacing"]),
        clearances=_by_id(Clearance, _tables("clearance")),
        seats=_by_id(Seat, _tables("seat")),
        shared_threads=_typed(SharedThread, toml_file("seats.toml")["shared"]),
        pairs=index_pairs(_typed(Pair, _tables("pair"))),
        bodies=_by_id(Body, toml_file("bodies.toml")["body"]),
        pipes={p.designation: p for p in _typed(PipeThread, _rows("pipe_threads.csv"))},
        whitworth={w.size: w for w in _typed(WhitworthSize, _rows("whitworth.csv"))},
        threads={t.designation: t for t in _typed(KnownThread, _rows("threads.csv"))},
        wrenches=_typed(Wrench, _rows("wrenches.csv")),
        hose_classes=_by_id(HoseClass, toml_file("hose_classes.toml")["hose_class"]),
        hoses=_by_id(Hose, _rows("hoses.csv")),
        hose_ends=_by_id(HoseEndKind, _tables("hose_end")),
        clamp_kinds=_by_id(ClampKind, _tables("clamp_kind")),
        clamps=_by_id(Clamp, _rows("clamps.csv")),
        fluids=_by_id(Fluid, _tables("fluid")),
        joints=joints,
        component_families=_by_id(ComponentFamily, toml_file("component_families.toml")["family"]),
        components=_by_id(Component, _sided(_rows("components.csv"))),
        services=_by_id(Service, _tables("service")),
        cautions=_by_id(Caution, _tables("caution")),
        verdicts=index_verdicts(_typed(Verdict, _tables("verdict"))),
        schools=schools,
        preferences={school.id: school.start for school in schools.values()},
        own_figures={},
        calibrations={},
        pace=Pace(bend_minutes=splicing.weigh.bend_minutes),
        spread=Spread(
            straight_mm=rules["limits"]["spread_straight_mm"]["value"],
            angle_deg=rules["limits"]["spread_angle_deg"]["value"],
            rotation_deg=rules["limits"]["spread_rotation_deg"]["value"],
            readings=0,
        ),
        advice=TypeAdapter(dict[AdviceName, Advice]).validate_python(rules["advice"]),
        limits=TypeAdapter(dict[LimitName, Limit]).validate_python(rules["limits"]),
        circuit_findings=_by_id(CircuitRow, _named("circuit_findings.toml")),
        circuit_source=Source(**toml_file("circuit_findings.toml")["source"]),
        steps=_by_id(StepRow, _named("steps.toml")),
        findings=_by_id(FindingRow, _named("findings.toml")),
        arguments=_typed(Argument, toml_file("repair.toml")["argument"]),
        splicing=splicing,
        removal={r.service: r for r in _typed(RemovalRule, removal["rule"])},
        apart=_apart(),
        single_use=TypeAdapter(SingleUse).validate_python(removal["single_use"]),
        proving=_proving(),
        owner=OwnerWords(**{name: table["words"] for name, table in toml_file("owner.toml").items()}),
        pan_share=Limit(value=removal["pan"]["share"], source=Source(**removal["pan"]["source"])),
    )


def _flaring() -> FlaringRules:
    data = toml_file("flaring.toml")
    return FlaringRules(
        steps=_typed(FlaringRow, data["step"]),
        pictures=_typed(FlarePictureRow, data["picture"]),
        ranges={(row.fitting, row.size): row for row in _typed(FlareRange, _rows("flare_ranges.csv"))},
        behind_mm=data["behind"]["mm"],
        bulb_per_od=data["drawn"]["bulb_per_od"],
        cone_deg=data["drawn"]["cone_deg"],
    )


def _apart() -> Apart:
    rows = toml_file("apart.toml")
    warmth = rows["warmth"]
    return TypeAdapter(Apart).validate_python(
        {
            "clean": rows["clean"]["step"],
            "shut": rows["shut"]["steps"],
            "ways": rows["way"],
            "ended": [{"id": row["id"], "is_": row["is"]} for row in rows["ended"]],
            "burns": warmth["burns"],
            "no_warmth": warmth["never"],
            "unsaid": warmth["unsaid"],
        }
    )


def _named(file: str) -> Iterator[dict[str, Any]]:
    """The tables of a file, each with its own name as its id."""
    for name, row in toml_file(file).items():
        if name != "source":
            yield {"id": name} | row


def _sided(rows: Iterator[dict[str, Any]]) -> Iterator[dict[str, Any]]:
    """Components with the cells of their two sides folded together."""
    for row in rows:
        for side in ("a", "b"):
            cells = {name: row.pop(f"{side}_{name}") for name in ("kind", "of", "thread", "mm")}
            row[side] = {
                "kind": cells["kind"],
                "of": cells["of"],
                "thread": cells["thread"] or "",
                "on_mm": cells["mm"],
            }
        yield row | {"one_way": row["one_way"] == "yes"}


def _splicing(joints: Mapping[str, Joint]) -> Splicing:
    """The ways to mend; one by a union takes the ends that its union takes."""
    data = toml_file("splices.toml")
    for row in data["splice"]:
        row.setdefault("ends", joints[row["joint"]].ends if row["joint"] else ())
    return Splicing(
        methods={row.id: row for row in _typed(Splice, data["splice"])},
        margins={row.damage: row for row in _typed(Margin, data["margin"])},
        overlaps={row.clamps: row for row in _typed(Overlap, data["overlap"])},
        weigh=TypeAdapter(Weigh).validate_python(data["weigh"]),
        cutters=_typed(Cutter, data["cutter"]),
    )


def _proving() -> ProvingRules:
    data = toml_file("proving.toml")
    rules = _typed(ProvingRule, data.pop("proving"))
    ladders, closings = _typed(Ladder, data.pop("ladder")), _typed(ClosingRule, data.pop("closing"))
    return TypeAdapter(ProvingRules).validate_python(
        data
        | {
            "by_service": {service: rule for rule in rules for service in rule.services},
            "watches": {row.id: row for row in _typed(Watch, data.pop("watch"))},
            "ladders": {kind: row for row in ladders for kind in row.joints},
            "closings": {kind: row for row in closings for kind in row.closes},
        }
    )


def _with_laws(rows: Iterator[dict[str, Any]]) -> Iterator[dict[str, Any]]:
    """Tubes with the law that each is sold under. Raises ValueError where a law names a tube that is none."""
    laws = {tube: law for law in _tables("tube_law") for tube in law.pop("tubes")}
    for row in rows:
        yield row | {"law": laws.pop(row["id"], None)}
    if laws:
        raise ValueError(f"tube_laws.toml names tubes that are not there: {', '.join(laws)}.")


def _typed(kind: type[T], rows: Any) -> tuple[T, ...]:
    adapter = TypeAdapter(kind)
    return tuple(adapter.validate_python(row) for row in rows)


def _by_id(kind: type[T], rows: Any) -> dict[str, T]:
    found: dict[str, T] = {}
    for row in _typed(kind, rows):
        key = row.id  # type: ignore[attr-defined]
        if key in found:
            raise ValueError(f"The catalogue has {key} twice.")
        found[key] = row
    return found


def _tables(name: str) -> Any:
    """The rows of a file that holds one kind: `materials.toml` holds [[material]]."""
    return toml_file(f"{name}s.toml")[name]


def _rows(name: str) -> Iterator[dict[str, Any]]:
    """CSV rows with `source_kind` and `source` folded into one Source; blank cells are None."""
    with (files(__package__) / "data" / name).open(encoding="utf-8") as file:
        for row in csv.DictReader(file):
            source = {"kind": row.pop("source_kind"), "text": row.pop("source")}
            yield {key: value or None for key, value in row.items()} | {"source": source}


def toml_file(name: str) -> dict[str, Any]:
    """One data file, read."""
    return tomllib.loads((files(__package__) / "data" / name).read_text(encoding="utf-8"))


def _with_angle(row: dict[str, Any]) -> dict[str, Any]:
    return {"half_angle_deg": None} | row
