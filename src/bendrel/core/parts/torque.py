"""A torque wrench with a crowfoot on it."""

from __future__ import annotations

from math import cos, radians


def set_torque(wanted_nm: float, length_mm: float, offset_mm: float, angle_deg: float = 0.0) -> float:
    """What to set for `wanted_nm` at the nut: T·L/(L + E·cos α), L from grip to square, E from square to nut,
    α between crowfoot and handle (0 in line, 90 at a right angle: no correction).

    Source: lever arms; a crowfoot in line lengthens the wrench. Valid for L + E·cos α over 0.
    Raises ValueError beyond that.

    >>> round(set_torque(20, 300, 50), 2), set_torque(20, 300, 50, 90)
    (17.14, 20.0)
    """
    arm = length_mm + offset_mm * cos(radians(angle_deg))
    if length_mm <= 0 or arm <= 0:
        raise ValueError("A wrench of no length turns nothing; its length from grip to square is over 0.")
    return wanted_nm * length_mm / arm
