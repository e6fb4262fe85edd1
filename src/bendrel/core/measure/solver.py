"""The one solver behind everything that is read: what a line, a bought part and a part in the making most
likely are.

Whatever is unknown is told in standard deviations of what is thought of it before anything is read, so each
unknown is a standard normal figure; an observation is a row of slopes, what it is off, and its own variance.
"""

from __future__ import annotations

from typing import TYPE_CHECKING

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]


def gain(slopes: Array, variances: Array) -> Array:
    """How what the observations are off moves the unknowns, (unknowns, observations).

    `slopes` is (observations, unknowns), in the observation's unit a standard deviation; `variances`
    (observations,), each above nought, in that unit squared. Source: the posterior of a linear model with
    normal errors, Hᵀ·(H·Hᵀ + T)⁻¹; JCGM 102:2011, 6. Raises nothing.

    One unknown read as well as it was known before is moved by half of what the reading is off:

    >>> import numpy as np
    >>> float(gain(np.array([[2.0]]), np.array([4.0]))[0, 0]) * 2.0
    0.5
    """
    import numpy as np

    inner = slopes @ slopes.T + np.diag(variances)
    return np.asarray(np.linalg.solve(inner, slopes).T, dtype=np.float64)


def loadings(slopes: Array, variances: Array) -> Array:
    """How every standard normal error, of what was thought before and of the observations, moves each
    unknown as it is taken: (unknowns, unknowns + observations). The covariance of the unknowns is this by
    its own transpose. Takes and raises what `gain` does.

    >>> import numpy as np
    >>> after = loadings(np.array([[2.0]]), np.array([4.0]))
    >>> round(float((after @ after.T)[0, 0]), 6)
    0.5
    """
    import numpy as np

    taken = gain(slopes, variances)
    both: Array = np.hstack([np.eye(slopes.shape[1]) - taken @ slopes, taken * np.sqrt(variances)])
    return both
