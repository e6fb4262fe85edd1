"""A simulated supplier: answers what things cost from its own invented list, or does not answer."""

from __future__ import annotations

import tomllib
from functools import cache
from importlib.resources import files
from typing import Any

from bendrel.core.errors import BendrelError
from bendrel.core.parts.kit import Kit


class SupplierAway(BendrelError, ConnectionError):
    """The supplier does not answer."""


@cache
def _list() -> dict[str, Any]:
    return tomllib.loads((files(__package__) / "price_list.toml").read_text(encoding="utf-8"))


class Supplier:
    """The stand-in behind the same call that a real price service would answer."""

    def __init__(self) -> None:
        self.answers = True

    def quote(self, kit: Kit, ref: str) -> int | None:
        """Cents for a metre, a piece or a litre of `ref`; None for what the supplier does not sell.

        Raises SupplierAway.
        """
        if not self.answers:
            raise SupplierAway("The supplier does not answer.")
        prices, (group, _, item) = _list(), ref.partition(":")
        if group == "tube" and item in kit.tubes:
            tube = kit.tubes[item]
            return _times(prices["tube"].get(tube.material), tube.od_mm)
        if group == "hose" and item in kit.hoses:
            hose = kit.hoses[item]
            return _times(prices["hose"].get(hose.hose_class), hose.id_mm)
        if group == "nut" and item in kit.nuts:
            return _cents(prices["nut"].get(kit.nuts[item].fitting))
        if group == "clamp" and item in kit.clamps:
            return _cents(prices["clamp"].get(kit.clamps[item].kind))
        if group == "fluid":
            return _cents(prices["fluid"].get(item))
        return _cents(prices["each"].get(group))


def _times(cents: int | None, size: float) -> int | None:
    return None if cents is None else round(cents * size)


def _cents(listed: Any) -> int | None:
    return None if listed is None else int(listed)
