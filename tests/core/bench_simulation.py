"""A literal bender: a straight tube of material points, carried through the moves as hands would.

It shares nothing with the planner but the instruction itself: which end is clamped, where the
mark is, how far to turn, which way the tool swings. A stripe is painted along the straight tube
before the first bend, as a fabricator would scribe one; a turn is made against that stripe.

The bench: the clamp holds the tube along x with the held end towards −x, the tool's tangent
point is the origin and the plane of bending is z = 0. A left-hand tool swings the free side
towards +y.
"""

from __future__ import annotations

import numpy as np

X = np.array([1.0, 0.0, 0.0])


def about(axis: int, degrees: float) -> np.ndarray:
    """Right-handed rotation about x (0), y (1) or z (2)."""
    c, s = np.cos(np.radians(degrees)), np.sin(np.radians(degrees))
    i, j = [(1, 2), (2, 0), (0, 1)][axis]
    m = np.eye(3)
    m[i, i] = m[j, j] = c
    m[i, j], m[j, i] = -s, s
    return m


class Tube:
    """A straight tube lying on the bench with end A held, cut to `cut_mm`."""

    def __init__(self, cut_mm: float, stations_mm: list[float]) -> None:
        self.cut = cut_mm
        self.at = np.array(stations_mm)
        count = len(self.at)
        self.points = np.column_stack([self.at, np.zeros((count, 2))])
        self.ways = np.tile(X, (count, 1))  # from end A to end B
        self.stripes = np.tile([0.0, 0.0, 1.0], (count, 1))
        self.held = "A"
        self.sense = "left"
        self.seen = np.array([0.0, 0.0, 1.0])  # where the stripe points at the clamp just now

    def copy(self) -> Tube:
        """The same tube once more, to be bent another way."""
        twin = Tube(self.cut, list(self.at))
        twin.points, twin.ways, twin.stripes = self.points.copy(), self.ways.copy(), self.stripes.copy()
        twin.held, twin.sense, twin.seen = self.held, self.sense, self.seen.copy()
        return twin

    def bend(
        self,
        *,
        held: str,
        mark_mm: float,
        zero_mm: float,
        turn_deg: float,
        angle_deg: float,
        radius_mm: float,
        sense: str,
    ) -> None:
        """Clamp with `held` in the hand, put the mark on the tool's zero, turn, swing."""
        if held != self.held:  # swung end for end, flat on the bench
            self._carry(about(2, 180))
            self.held = held
        tangent = mark_mm + zero_mm  # the zero lies `zero_mm` from the tangent towards the clamp
        from_held = self.at if held == "A" else self.cut - self.at
        here = int(np.argmin(np.abs(from_held - tangent)))
        assert abs(from_held[here] - tangent) < 1e-6, "the mark is not where this bend starts"
        along = self.ways[here] if held == "A" else -self.ways[here]
        stripe = self.stripes[here]
        self.points = self.points - self.points[here]
        lab = np.column_stack([X, self.seen, np.cross(X, self.seen)])
        now = np.column_stack([along, stripe, np.cross(along, stripe)])
        seen = self.seen
        self._carry(lab @ now.T)
        self.seen = seen
        # clockwise as seen looking from the held end along the tube is right-handed about +x
        self._carry(about(0, turn_deg))
        self._swing(from_held - tangent, angle_deg, radius_mm, 1.0 if sense == "left" else -1.0)

    def _carry(self, turn: np.ndarray) -> None:
        self.points = self.points @ turn.T
        self.ways = self.ways @ turn.T
        self.stripes = self.stripes @ turn.T
        self.seen = turn @ self.seen

    def _swing(self, beyond: np.ndarray, angle_deg: float, radius: float, side: float) -> None:
        arc = radius * np.radians(angle_deg)
        centre = np.array([0.0, side * radius, 0.0])
        free = beyond > 0
        wrapped = np.minimum(beyond[free], arc)
        turned = side * wrapped / radius
        c, s, zero, one = np.cos(turned), np.sin(turned), np.zeros(len(turned)), np.ones(len(turned))
        roll = np.array([[c, -s, zero], [s, c, zero], [zero, zero, one]]).transpose(2, 0, 1)
        # what has gone round the die comes off it where the arc ends
        off = self.points[free] - np.column_stack([wrapped, zero, zero])
        self.points[free] = np.einsum("nij,nj->ni", roll, off - centre) + centre
        self.ways[free] = np.einsum("nij,nj->ni", roll, self.ways[free])
        self.stripes[free] = np.einsum("nij,nj->ni", roll, self.stripes[free])


def misfit_mm(made: np.ndarray, planned: np.ndarray, *, mirrored: bool = False) -> float:
    """Greatest distance after the best rigid motion (Kabsch); a mirror is not a rigid motion."""
    a, b = made - made.mean(0), planned - planned.mean(0)
    if mirrored:
        b = b * np.array([1.0, 1.0, -1.0])
    u, _, vt = np.linalg.svd(a.T @ b)
    keep = np.diag([1.0, 1.0, np.sign(np.linalg.det(u @ vt))])
    return float(np.abs(a @ (u @ keep @ vt) - b).max())
