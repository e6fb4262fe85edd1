"""Line documents of version 1 brought up to date: one tube with what lies beyond its ends becomes a chain.

Version 1 spoke of bends and pieces by number; here every number becomes the id of what it meant then. The
same document always gets the same ids.
"""

from __future__ import annotations

import re
from typing import Any

from bendrel.exchange.errors import FileError

Value = dict[str, Any]

TUBE = "s1"
OF_THE_TUBE = {
    "material_refused", "material_care", "bender_size", "check_wire", "check_tape", "check_way_a",
    "check_way_b", "alongside", "fluid_tube",
}  # fmt: skip
"""Findings on the tube as a whole that are about this one tube, not about the whole line."""
_PIECE = re.compile(r"piece ([0-9]+) beyond ([AB])")
_BEND = re.compile(r"(bend|straight) ([0-9]+)")
_NUMBERED = re.compile(r"(old_contact|fixture|opening)_([0-9]+)")
_SIDED = re.compile(r"(.+)_(near|far)")
_ITEMS = {"old_contact": "d", "fixture": "f", "opening": "o"}
_TOKEN = re.compile(r"([ABab])([0-9]+)")


def up_to_date(value: Any) -> Any:
    """The document as version 2; what is no version 1 document comes back as it is, to be judged by the
    reader. Raises FileError for a later version."""
    if not isinstance(value, dict) or value.get("format", "bendrel-line") != "bendrel-line":
        return value
    version = value.get("version", 2 if "port_a" in value else 1 if "end_a" in value else 2)
    if isinstance(version, int) and version > 2:
        raise FileError(
            f"version: This document is of version {version}; this Bendrel reads up to version 2."
        )
    return _upgraded(value) if version == 1 else _with_ticks(value)


def _with_ticks(value: Value) -> Value:
    """A tick was its step's id alone before it had a time and a name."""
    proving = value.get("proving")
    done = proving.get("done") if isinstance(proving, dict) else None
    if not isinstance(proving, dict) or not isinstance(done, list):
        return value
    ticks = [{"step": one} if isinstance(one, str) else one for one in done]
    return {**value, "proving": {**proving, "done": ticks}}


def _upgraded(old: Value) -> Value:
    _known_ends(old)
    new: Value = {
        key: old[key]
        for key in (
            "format",
            "name",
            "service",
            "unit",
            "carries",
            "removal",
            "open_items",
            "finished",
            "notes",
        )
        if key in old
    }
    new["version"] = 2
    ends = {end: _record(old.get(f"end_{end.lower()}")) for end in "AB"}
    tube = _record(next(iter(_list(old.get("spans"))), {}))
    rows = _rows(tube)
    before = [_piece(piece, "A", k) for k, piece in enumerate(_list(ends["A"].get("beyond")), start=1)]
    behind = [_piece(piece, "B", k) for k, piece in enumerate(_list(ends["B"].get("beyond")), start=1)]
    new["port_a"], new["port_b"] = _port(ends["A"]), _port(ends["B"])
    new["spans"] = [*reversed(before), _tube(old, tube, ends, rows), *behind]
    condition = dict(_record(old.get("condition")))
    for field, letter in (("damage", "d"), ("fixtures", "f")):
        found = _list(condition.get(field))
        if found:
            condition[field] = [
                {**_record(item), "id": f"{letter}{k}"} for k, item in enumerate(found, start=1)
            ]
    new["condition"] = condition
    new["set_aside"] = [_set_aside(_record(item), rows) for item in _list(old.get("set_aside"))]
    return new


def _known_ends(old: Value) -> None:
    stray = next((key for key in old if re.fullmatch(r"end_(?![ab]$)\w{0,20}", str(key))), None)
    if stray is not None:
        raise FileError(f"{stray}: A line of version 1 has end_a and end_b and no other end.")


def _list(value: Any) -> list[Any]:
    return value if isinstance(value, list) else []


def _record(value: Any) -> Value:
    return value if isinstance(value, dict) else {}


def _rows(tube: Value) -> list[str]:
    """Ids of the rows that are bends, in their order: of corner points only the inner ones."""
    readings = _record(tube.get("readings"))
    ids = [f"r{k}" for k, _ in enumerate(_list(readings.get("rows")), start=1)]
    return ids[1:-1] if readings.get("kind") == "corners" else ids


def _row(rows: list[str], number: Any) -> str | None:
    return rows[number - 1] if isinstance(number, int) and 1 <= number <= len(rows) else None


_OF_PORT = {"label": "label", "port_thread": "thread", "seat": "seat", "body": "body", "role": "role",
            "role_how": "role_how", "tag": "tag", "proved": "proved"}  # fmt: skip
_OF_TUBE_END = ("fitting", "nut", "insert", "leave_long", "ready", "flarer")
_OF_TRIAL = {"measured_use": "used", "measured_fitting": "fitting", "measured_size": "size"}


def _port(end: Value) -> Value:
    return {new: end[old] for old, new in _OF_PORT.items() if old in end}


def _tube_end(end: Value) -> Value:
    made = {key: end[key] for key in _OF_TUBE_END if key in end}
    if end.get("measured_use") is not None:
        made["trial"] = {new: end[old] for old, new in _OF_TRIAL.items() if old in end}
    known = {*_OF_PORT, *_OF_TUBE_END, *_OF_TRIAL, "beyond"}
    return made | {key: value for key, value in end.items() if key not in known}


def _tube(old: Value, tube: Value, ends: dict[str, Value], rows: list[str]) -> Value:
    made = {key: value for key, value in tube.items() if key not in ("order", "left_open", "readings")}
    made |= {"id": TUBE, "end_a": _tube_end(ends["A"]), "end_b": _tube_end(ends["B"])}
    readings = dict(_record(tube.get("readings")))
    readings["rows"] = [
        {**_record(row), "id": f"r{k}"} for k, row in enumerate(_list(readings.get("rows")), start=1)
    ]
    made["readings"] = readings
    made["order"] = [
        {"row": row, "held": found[1].upper()}
        for found in _TOKEN.finditer(str(tube.get("order", "")))
        if (row := _row(rows, int(found[2]))) is not None
    ]
    made["left_open"] = [
        {**{key: value for key, value in item.items() if key != "bend"}, "row": row}
        for item in map(_record, _list(tube.get("left_open")))
        if (row := _row(rows, item.get("bend"))) is not None
    ]
    for key in ("checks", "openings"):
        if key in old:
            made[key] = old[key]
    made["bought"] = [_bought(_record(item), rows) for item in _list(old.get("bought"))]
    return made


def _bought(item: Value, rows: list[str]) -> Value:
    made = {key: value for key, value in item.items() if key != "number"}
    whole = item.get("kind") in ("rim to rim", "whole length")
    number = item.get("number", 1)
    if not whole and number != len(rows) + 1:
        made["row"] = _row(rows, number) or f"gone{number}"
    return made


def _piece(piece: Any, end: str, number: int) -> Value:
    made = dict(_record(piece))
    made["id"] = f"{end.lower()}{number}"
    near, far = ("b", "a") if end == "A" else ("a", "b")
    if made.get("kind") == "part":
        made["kind"] = "component"
        made["what"] = made.pop("part", "")
    for old, new in (("near", f"on_{near}"), ("far", f"on_{far}"), ("far_plain", f"plain_{far}")):
        if old in made:
            made[new] = made.pop(old)
    return made


def _set_aside(item: Value, rows: list[str]) -> Value:
    code, where = str(item.get("code", "")), str(item.get("where", ""))
    made = {key: value for key, value in item.items() if key not in ("code", "where")}
    at = _spot(where, rows)
    if (found := _NUMBERED.fullmatch(code)) is not None:
        code = found[1]
        at["item"] = f"{_ITEMS[code]}{found[2]}"
        if code == "opening":
            at["span"] = TUBE
    elif (found := _SIDED.fullmatch(code)) is not None and (piece := _PIECE.fullmatch(where)) is not None:
        code = found[1]
        near = "B" if piece[2] == "A" else "A"
        at["end"] = near if found[2] == "near" else piece[2]
    code = code.replace("check_way_A", "check_way_a").replace("check_way_b", "check_way_b")
    if at == {"kind": "tube"} and code in OF_THE_TUBE:
        at["span"] = TUBE
    return made | {"code": code, "at": at}


def _spot(where: str, rows: list[str]) -> Value:
    if (piece := _PIECE.fullmatch(where)) is not None:
        return {"kind": "span", "span": f"{piece[2].lower()}{piece[1]}"}
    if (bend := _BEND.fullmatch(where)) is not None:
        number = int(bend[2])
        row = _row(rows, number)
        last = bend[1] == "straight" and number == len(rows) + 1
        return {"kind": bend[1], "span": TUBE, "row": "" if last else row or f"gone{number}"}
    if where in ("end A", "end B"):
        return {"kind": "end", "span": TUBE, "end": where[-1]}
    return {"kind": "tube"}
