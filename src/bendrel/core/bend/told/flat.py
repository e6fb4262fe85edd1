"""A small miss at end B as four plain figures, with what roll and trim take up left out."""

from __future__ import annotations

from typing import TYPE_CHECKING

from bendrel.core.bend.told.many import Places
from bendrel.core.bend.told.standing import Reach
from bendrel.core.measure.landing import Port

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]


class Flat:
    """Off and tilt towards clock 0 and 90, each in shares of the reach; good to first order, for misses of a
    few millimetres and degrees. `base` is one part near its port, whose roll is left out."""

    def __init__(self, base: Places, port: Port, reach: Reach) -> None:
        import numpy as np

        self._sides = np.array([port.noon, port.three])
        self._port, self._way, self._reach = np.array(port.point), np.array(port.way), reach
        axis = np.array([1.0, 0.0, 0.0])
        self._roll = np.zeros(4)
        roll = self.of(np.cross(axis, base.point[:, 0]), np.cross(axis, base.way[:, 0]))
        size = float(roll @ roll) ** 0.5
        if size > 1e-6:
            self._roll = roll / size

    def of(self, moved: Array, leant: Array) -> Array:
        """A small movement of end B and a small change of its way, (3,) or (3, parts)."""
        import numpy as np

        figures = np.concatenate(
            [self._sides @ moved / self._reach.mm, np.degrees(self._sides @ leant) / self._reach.deg]
        )
        kept: Array = figures - np.multiply.outer(self._roll, self._roll @ figures)
        return kept

    def miss(self, ends: Places) -> Array:
        """The misses of parts, (4, parts)."""
        return self.of(ends.point - self._port[:, None], ends.way - self._way[:, None])

    def fits(self, figures: Array) -> Array:
        """Which of the misses (4, …) lie within the reach."""
        inside: Array = (figures[0] ** 2 + figures[1] ** 2 <= 1) & (figures[2] ** 2 + figures[3] ** 2 <= 1)
        return inside
