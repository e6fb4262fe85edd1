"""How an end is flared, step by step, with pictures of right and wrong."""

from __future__ import annotations

from collections.abc import Iterator
from math import floor

from bendrel.core.bend.tube.ends import EndParts, flare_use
from bendrel.core.findings import EndName
from bendrel.core.geometry.flare import Stroke, flare_profile, folded_layer, torn
from bendrel.core.parts.fitting import Fitting, Flarer, Nut
from bendrel.core.parts.flaring import FlarePicture, FlarePictureRow, Flaring, FlaringTold
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.tube import Tube
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, format_small


@record
class ToFlare:
    """An end that is to be flared, lengths in mm: what one flare uses up, the straight behind the rim (None
    where nothing bends behind it, or nobody knows), what the tool holds of that, and the tube that is there
    for a failure."""

    end: EndName
    tube: Tube
    fitting: Fitting
    tool: Flarer | None
    nut: Nut | None
    unit: Unit
    uses_mm: float
    grip_mm: float
    straight_mm: float | None = None
    spare_mm: float = 0.0

    def said(self, mm: float) -> str:
        """A length in the person's unit."""
        return format_small(mm, self.unit)


def to_flare(
    kit: Kit, tube: Tube, parts: EndParts, unit: Unit, *, spare_mm: float, bends: bool
) -> ToFlare | None:
    """A planned end, with `spare_mm` beyond it or at the other end; `bends` says that there is one behind it.
    None for an end that is not flared, and for one that comes finished."""
    if parts.ready or not parts.fitting.flared:
        return None
    tool = kit.flarers.get(parts.choice.tube.flarer)
    return ToFlare(
        end=parts.end,
        tube=tube,
        fitting=parts.fitting,
        tool=tool,
        nut=parts.nut,
        unit=unit,
        uses_mm=parts.allowance_mm,
        grip_mm=tool.grip_mm if tool is not None else parts.fitting.grip_mm,
        straight_mm=parts.room.straight_mm if bends and parts.order == "after" else None,
        spare_mm=spare_mm,
    )


def old_to_flare(
    kit: Kit, tube: Tube, fitting: Fitting, end: EndName, tool: Flarer, nut: Nut | None, unit: Unit
) -> ToFlare:
    """The end of an old tube that stays, flared on the machine."""
    return ToFlare(
        end=end,
        tube=tube,
        fitting=fitting,
        tool=tool,
        nut=nut,
        unit=unit,
        uses_mm=flare_use(kit, fitting.id, tube),
        grip_mm=tool.grip_mm,
    )


def flaring_of(kit: Kit, one: ToFlare) -> Flaring:
    """How an end is flared.

    Source: `flaring.toml`; a failed flare costs its cone, what it has used, and a cutter's room behind it.
    """
    size = kit.end_size(one.fitting.id, one.tube.size)
    deep = size.length_mm if size is not None else 0.0
    wide = kit.flare_range(one.fitting.id, one.tube.size)
    lost = deep + one.uses_mm + kit.flaring.behind_mm
    failures = None
    if one.straight_mm is not None:
        held = deep + (one.nut.length_mm if one.nut is not None else 0.0) + one.grip_mm
        failures = max(0, floor((one.straight_mm - held) / lost + 1e-9))
    return Flaring(
        end=one.end,
        steps=tuple(_told(kit, one)),
        od_mm=one.tube.od_mm,
        wall_mm=one.tube.wall_mm,
        least_mm=wide.least_mm if wide is not None else None,
        most_mm=wide.most_mm if wide is not None else None,
        lost_mm=lost,
        spare_mm=one.spare_mm,
        failures=failures,
    )


def _told(kit: Kit, one: ToFlare) -> Iterator[FlaringTold]:
    family, kind, words = kit.materials[one.tube.material].family, one.fitting.kind, _words(kit, one)
    for row in kit.flaring.steps:
        other = row.families and family not in row.families
        if kind not in row.forms or other or (row.id == "nut" and one.nut is None):
            continue
        yield FlaringTold(
            id=row.id,
            text=row.text.format(**words),
            why=row.why.format(**words),
            pictures=tuple(
                _drawn(kit, one, picture)
                for picture in kit.flaring.pictures
                if row.id in picture.after and kind in picture.forms
            ),
        )


def _words(kit: Kit, one: ToFlare) -> dict[str, str]:
    size = one.tube.size
    alike = " and ".join(kit.stands_in.get(size, ()))
    wide = kit.flare_range(one.fitting.id, size)
    across = "no range is known for this size, so hold it against the old end"
    if wide is not None:
        across = f"{one.said(wide.least_mm)} to {one.said(wide.most_mm)}"
    return {
        "tool": f"the {one.tool.name}" if one.tool is not None else "the flaring tool",
        "size": size,
        "others": f" ({alike} is the same tube with a die of its own: take the one of your set)"
        if alike
        else "",
        "nut": f"the nut {one.nut.thread}{', then its sleeve,' if one.fitting.new_parts else ''}"
        if one.nut is not None
        else "",
        "end": one.end,
        "stands": one.said(one.uses_mm),
        "across": across,
    }


def _drawn(kit: Kit, one: ToFlare, row: FlarePictureRow) -> FlarePicture:
    tube, size = one.tube, kit.end_size(one.fitting.id, one.tube.size)
    across = size.flare_diameter_mm if size is not None else None
    if row.shape == "bulb" or across is None:
        across = kit.flaring.bulb_per_od * tube.od_mm
    angle = one.fitting.half_angle_deg or kit.flaring.cone_deg

    def half(share: float) -> Stroke:
        return flare_profile(
            row.shape, tube.od_mm, tube.wall_mm, tube.od_mm + share * (across - tube.od_mm), angle
        )

    sides = []
    for share, side in ((row.size, 1), (row.size * row.other_side, -1)):
        profile = half(share)
        layers = [profile, folded_layer(profile, tube.wall_mm)] if row.shape == "folded" else [profile]
        sides += [tuple((x, side * y) for x, y in layer) for layer in layers]
    return FlarePicture(
        id=row.id,
        right=row.right,
        text=row.text,
        strokes=tuple(sides),
        cracks=(torn(sides[0], tube.wall_mm),) if row.split else (),
    )
