"""Every hose of a line whose ends are known: how it lies, over its whole travel, beside what stands
there."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache

import numpy as np

from bendrel.core.geometry.obstacles import Array, distances_mm
from bendrel.core.geometry.vectors import Vector
from bendrel.core.hose.read import BesideHose, beside_hose, ends_of, moves_of, seat_of
from bendrel.core.hose.shape.laid import HoseEnds, HoseError, HoseShape, hose_shape
from bendrel.core.hose.shape.moving import AtPosition, Move, Position, out_of_plane_deg, over_travel, travel
from bendrel.core.hose.shape.windows import Windows, windows_over
from bendrel.core.joints.pieces import Pieces, PlacedHose
from bendrel.core.line.paths import span_path
from bendrel.core.line.resolve import Problem, Reader
from bendrel.core.parts.hose_end import clocking_deg, elbow
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.core.units.lengths_error import said_in

_BETWEEN = 3
"""Points looked at between two of the hose's own when its distance from something is measured."""


@record
class Near:
    """The least distance in mm between the hose's outside and one thing beside it, over the whole travel:
    where
    along the hose, at which position, and how much is wanted."""

    item: str
    what: str
    kind: str
    distance_mm: float
    wanted_mm: float
    at_mm: float
    gone: tuple[float, ...]


@record
class LaidHose:
    """One hose between its ends. `needs_mm` is the least radius of its centreline; `least_mm` the length
    that just reaches in every position, `pulls_at` the position that needs it; `length_mm` is the free
    length, what lies on its ends (`on_ends_mm`) taken off, `seat_a` and `seat_b` the ways from the hose
    into its ports. While no length is known, what follows from it is None. `radius_mm` is the tightest
    radius over the travel, 0 where the hose would kink or does not reach, None of a straight one;
    `tightest_at_mm` and `tightest_gone` say where and when. `bows`: flat only while its ends cannot turn
    in their seats. `twist_deg` is the greatest twist, `off_plane_deg` how far the motion leaves the plane
    of the hose. `clock_deg` is how its two elbows stand to each other, as typed or else as it lies."""

    span: str
    ends: HoseEnds
    moves: tuple[Move, ...]
    move_names: tuple[str, ...]
    needs_mm: float
    least_mm: float
    pulls_at: tuple[float, ...]
    length_mm: float | None
    on_ends_mm: float
    seat_a: Vector | None
    seat_b: Vector | None
    radius_mm: float | None = None
    tightest_at_mm: float = 0.0
    tightest_gone: tuple[float, ...] = ()
    reach_mm: float | None = None
    spare_mm: float | None = None
    bows: bool = False
    twist_deg: float | None = None
    twist_gone: tuple[float, ...] = ()
    off_plane_deg: float | None = None
    nearest: tuple[Near, ...] = ()
    clock_deg: float | None = None


def lay_hoses(kit: Kit, pieces: Pieces, reader: Reader) -> tuple[LaidHose, ...]:
    """Every hose with known ends. What cannot be read or cannot be is a problem of `reader`."""
    laid = (lay_hose(kit, hose, reader) for hose in pieces.hoses if hose.piece.way is not None)
    return tuple(one for one in laid if one is not None)


def lay_hose(kit: Kit, hose: PlacedHose, reader: Reader) -> LaidHose | None:
    """One hose; None while its ends are not known."""
    way = hose.piece.way
    ends = None if way is None else ends_of(kit, hose, way, reader)
    if way is None or ends is None:
        return None
    named = moves_of(hose, way, reader)
    moves = tuple(move for _, move in named)
    beside = beside_hose(kit, hose, way, reader)
    try:
        places = travel_of(ends, moves)
    except HoseError as error:
        at = span_path(hose.piece.id, "way", "moves")
        reader.problems.append(Problem(path=at, message=said_in(error, reader.unit)))
        moves, places = (), travel_of(ends, ())
    pulls = max(places, key=lambda place: place.ends.least_mm)
    known = LaidHose(
        span=hose.piece.id,
        ends=ends,
        moves=moves,
        move_names=tuple(name for name, _ in named) if moves else (),
        needs_mm=hose.hose_class.least_radius_mm(hose.hose),
        least_mm=pulls.ends.least_mm,
        pulls_at=pulls.gone,
        length_mm=None if hose.length_mm is None else hose.length_mm - hose.on_ends_mm,
        on_ends_mm=hose.on_ends_mm,
        seat_a=seat_of(hose, "a", way.a, reader),
        seat_b=seat_of(hose, "b", way.b, reader),
        off_plane_deg=out_of_plane_deg(ends, moves) if moves else None,
        clock_deg=hose.clock_deg,
    )
    if known.length_mm is None or known.length_mm <= 0:
        return replace(known, length_mm=None)
    return _with_length(kit, hose, known, beside)


def _with_length(kit: Kit, hose: PlacedHose, known: LaidHose, beside: Sequence[BesideHose]) -> LaidHose:
    assert known.length_mm is not None
    told = told_over(known.ends, known.moves, known.length_mm)
    tightest = min(told, key=lambda at: np.inf if at.radius_mm is None else at.radius_mm)
    twisted = max(told, key=lambda at: abs(at.twist_deg))
    at_home = shape_or_none(known.ends, known.length_mm)
    return replace(
        known,
        radius_mm=tightest.radius_mm,
        tightest_at_mm=tightest.tightest_at_mm,
        tightest_gone=tightest.gone,
        reach_mm=max(at.reach_mm for at in told),
        spare_mm=min(at.spare_mm for at in told),
        bows=at_home is not None and at_home.bows,
        clock_deg=_clock(hose, known, at_home) if known.clock_deg is None else known.clock_deg,
        twist_deg=abs(twisted.twist_deg),
        twist_gone=twisted.gone,
        nearest=tuple(near_to(kit, hose, told, item) for item in beside),
    )


def _clock(hose: PlacedHose, known: LaidHose, lies: HoseShape | None) -> float | None:
    """How two elbows stand to each other as the hose lies; None where either end is straight."""
    if lies is None or not (hose.piece.angle_a and hose.piece.angle_b):
        return None
    if known.seat_a is None or known.seat_b is None:
        return None
    a, b = known.ends.a.way, known.ends.b.way
    elbow_a, elbow_b = elbow(a, known.seat_a), elbow(b, known.seat_b)
    if elbow_a is None or elbow_b is None:
        return None
    return clocking_deg(lies.points, a, b, elbow_a, elbow_b)


@lru_cache(maxsize=64)
def travel_of(ends: HoseEnds, moves: tuple[Move, ...]) -> tuple[Position, ...]:
    """Every position of the travel. Raises HoseError."""
    return travel(ends, moves)


@lru_cache(maxsize=32)
def told_over(ends: HoseEnds, moves: tuple[Move, ...], length_mm: float) -> tuple[AtPosition, ...]:
    """The hose at every position; kept, as typing elsewhere in the line does not change it."""
    return over_travel(travel_of(ends, moves), length_mm)


@lru_cache(maxsize=32)
def windows_at_the_limits(ends: HoseEnds, moves: tuple[Move, ...], radius_mm: float, share: float) -> Windows:
    """The same at the fitted position and where every move is at one of its ends: quick, and mostly the
    same; what comes of it is looked at over the whole travel. Raises HoseError."""
    places = travel_of(ends, moves)
    limits = [(min(gone), max(gone)) for gone in zip(*(place.gone for place in places), strict=True)]

    def limit(gone: tuple[float, ...]) -> bool:
        return all(far in both for far, both in zip(gone, limits, strict=True))

    some = [place for place in places if limit(place.gone) or not any(place.gone)]
    return _windows(places, some, radius_mm, share)


@lru_cache(maxsize=32)
def windows_of(ends: HoseEnds, moves: tuple[Move, ...], radius_mm: float, share: float) -> Windows:
    """The lengths that keep a radius over the whole travel, up to a share of the distance that must be
    reached. Raises HoseError."""
    places = travel_of(ends, moves)
    return _windows(places, places, radius_mm, share)


def _windows(places: Sequence[Position], some: Sequence[Position], radius_mm: float, share: float) -> Windows:
    least = max(place.ends.least_mm for place in places)
    longest = max(share * max(place.ends.distance_mm for place in places), 1.5 * least)
    return windows_over([place.ends for place in some], radius_mm, longest)


def shape_or_none(ends: HoseEnds, length: float) -> HoseShape | None:
    """The shape as fitted; None where there is none."""
    try:
        return hose_shape(ends, length)
    except HoseError:
        return None


def touches(kit: Kit, distance_mm: float) -> bool:
    """Nearer to something than an eye can tell, in mm."""
    return distance_mm < kit.limits["hand_mm"].value


def near_to(kit: Kit, hose: PlacedHose, told: Sequence[AtPosition], item: BesideHose) -> Near:
    """How near one hose comes to one thing over its travel."""
    each = distances_along(hose, told, item)
    where = min(range(len(told)), key=lambda k: float(each[k][1].min()))
    along, off = each[where]
    k = int(off.argmin())
    return Near(
        item=item.item,
        what=item.what,
        kind=item.kind,
        distance_mm=float(off[k]),
        wanted_mm=kit.clearances[item.kind].least_mm,
        at_mm=float(along[k]),
        gone=told[where].gone,
    )


def distances_along(
    hose: PlacedHose, told: Sequence[AtPosition], item: BesideHose
) -> list[tuple[Array, Array]]:
    """For every position places along the hose, in mm from end A, and how far its outside is there from one
    thing."""
    share = (np.arange(_BETWEEN + 1) / (_BETWEEN + 1))[:, None]
    found: list[tuple[Array, Array]] = [(np.zeros(0), np.zeros(0))] * len(told)
    for count in {len(at.points) for at in told}:
        same = [k for k, at in enumerate(told) if len(at.points) == count]
        points = np.array([told[k].points for k in same])
        steps = np.diff(points, axis=1)
        close = points[:, :-1, None] + share * steps[:, :, None]
        whole = np.concatenate([close.reshape(len(same), -1, 3), points[:, -1:]], axis=1)
        gone = np.repeat(np.linalg.norm(steps, axis=2) / (_BETWEEN + 1), _BETWEEN + 1, axis=1)
        along = np.concatenate([np.zeros((len(same), 1)), np.cumsum(gone, axis=1)], axis=1)
        off = distances_mm(whole, item.shape) - hose.hose.od_mm / 2
        for n, k in enumerate(same):
            found[k] = (along[n], off[n])
    return found
