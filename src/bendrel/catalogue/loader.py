"""Read the data files once and hand them out as one typed kit."""

from __future__ import annotations

import csv
import tomllib
from collections.abc import Iterator
from functools import cache
from importlib.resources import files
from typing import Any, TypeVar

from pydantic import TypeAdapter

from bendrel.core.bending.bender import Bender
from bendrel.core.ends.fitting import Fitting, FlareSize, Nut
from bendrel.core.findings import Source
from bendrel.core.plan.kit import Advice, Kit, Limit
from bendrel.core.removal.advice import RemovalRule
from bendrel.core.removal.log import SingleUse
from bendrel.core.repair.recommend import Argument
from bendrel.core.service import Service
from bendrel.core.tube.material import Material, Tube

T = TypeVar("T")

GIVEN_RADII = "given_any"
"""The bender that makes whatever radius is asked, for shapes read from a file."""


@cache
def load_kit() -> Kit:
    """The whole catalogue. Raises pydantic.ValidationError when a data file is not as it should be."""
    rules, removal = _toml("rules.toml"), _toml("removal.toml")
    tubes = _typed(Tube, _rows("tubes.csv"))
    flare_sizes = _typed(FlareSize, _rows("flare_sizes.csv"))
    return Kit(
        rules_version=rules["version"],
        materials={m.id: m for m in _typed(Material, _toml("materials.toml")["material"])},
        tubes={t.id: t for t in tubes},
        benders={b.id: b for b in _typed(Bender, _rows("benders.csv"))},
        fittings={f.id: f for f in _typed(Fitting, map(_with_angle, _toml("fittings.toml")["fitting"]))},
        flare_sizes={(f.fitting, f.size): f for f in flare_sizes},
        nuts={n.id: n for n in _typed(Nut, _rows("nuts.csv"))},
        services={s.id: s for s in _typed(Service, _toml("services.toml")["service"])},
        advice=TypeAdapter(dict[str, Advice]).validate_python(rules["advice"]),
        limits=TypeAdapter(dict[str, Limit]).validate_python(rules["limits"]),
        arguments=_typed(Argument, _toml("repair.toml")["argument"]),
        removal={r.service: r for r in _typed(RemovalRule, removal["rule"])},
        single_use=TypeAdapter(SingleUse).validate_python(removal["single_use"]),
        pan_share=Limit(value=removal["pan"]["share"], source=Source(**removal["pan"]["source"])),
    )


def _typed(kind: type[T], rows: Any) -> tuple[T, ...]:
    adapter = TypeAdapter(kind)
    return tuple(adapter.validate_python(row) for row in rows)


def _rows(name: str) -> Iterator[dict[str, Any]]:
    """CSV rows with `source_kind` and `source` folded into one Source; blank cells are None."""
    with (files(__package__) / "data" / name).open(encoding="utf-8") as file:
        for row in csv.DictReader(file):
            source = {"kind": row.pop("source_kind"), "text": row.pop("source")}
            yield {key: value or None for key, value in row.items()} | {"source": source}


def _toml(name: str) -> dict[str, Any]:
    return tomllib.loads((files(__package__) / "data" / name).read_text(encoding="utf-8"))


def _with_angle(row: dict[str, Any]) -> dict[str, Any]:
    return {"half_angle_deg": None} | row
