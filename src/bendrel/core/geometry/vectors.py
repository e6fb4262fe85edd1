"""The few operations on 3-vectors that the shape rooms need. Plain tuples: quick for short lists."""

from __future__ import annotations

from math import atan2, cos, degrees, radians, sin, sqrt

Vector = tuple[float, float, float]


def add(a: Vector, b: Vector) -> Vector:
    """a + b."""
    return (a[0] + b[0], a[1] + b[1], a[2] + b[2])


def subtract(a: Vector, b: Vector) -> Vector:
    """a - b."""
    return (a[0] - b[0], a[1] - b[1], a[2] - b[2])


def scale(a: Vector, k: float) -> Vector:
    """k · a."""
    return (a[0] * k, a[1] * k, a[2] * k)


def along(start: Vector, direction: Vector, distance: float) -> Vector:
    """The point `distance` from `start` in `direction`."""
    return add(start, scale(direction, distance))


def dot(a: Vector, b: Vector) -> float:
    """a · b."""
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]


def cross(a: Vector, b: Vector) -> Vector:
    """a × b, right-handed."""
    return (
        a[1] * b[2] - a[2] * b[1],
        a[2] * b[0] - a[0] * b[2],
        a[0] * b[1] - a[1] * b[0],
    )


def length(a: Vector) -> float:
    """|a|."""
    return sqrt(dot(a, a))


def unit(a: Vector) -> Vector:
    """a / |a|. Raises ZeroDivisionError for the zero vector."""
    return scale(a, 1.0 / length(a))


def angle_between(a: Vector, b: Vector) -> float:
    """Angle between two vectors in degrees, 0 to 180, accurate near both limits."""
    return degrees(atan2(length(cross(a, b)), dot(a, b)))


def signed_angle(a: Vector, b: Vector, axis: Vector) -> float:
    """Angle from `a` to `b` in degrees about the unit `axis`, right-hand rule, in [-180, 180]."""
    return degrees(atan2(dot(cross(a, b), axis), dot(a, b)))


def rotated(a: Vector, axis: Vector, angle_deg: float) -> Vector:
    """`a` turned about the unit `axis` by `angle_deg`, right-hand rule (Rodrigues' formula)."""
    c, s = cos(radians(angle_deg)), sin(radians(angle_deg))
    return add(
        add(scale(a, c), scale(cross(axis, a), s)),
        scale(axis, dot(axis, a) * (1.0 - c)),
    )
