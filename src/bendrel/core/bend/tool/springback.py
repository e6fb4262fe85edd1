"""Spring-back from the tube's own properties, for a tool that has not been calibrated yet."""

from __future__ import annotations

from math import pi

from bendrel.core.parts.tube import Material, Tube


def springback_prior(material: Material, tube: Tube, radius_mm: float) -> float:
    """Share `a` of the bend angle that springs back: dial = (1 + a)·θ.

    Elastic-plastic bending of a tube at its fully plastic moment M_p:
    a ≈ M_p·R/(E·I), M_p = σ_y·(D³ − d³)/6, I = π·(D⁴ − d⁴)/64. It leaves out work-hardening, so
    the true figure is this or more. Source: derived from beam theory; σ_y and E of the material.
    """
    outside, inside = tube.od_mm, tube.bore_mm
    plastic_moment = material.yield_mpa * (outside**3 - inside**3) / 6
    second_moment = pi * (outside**4 - inside**4) / 64
    return plastic_moment * radius_mm / (material.modulus_mpa * second_moment)
