"""Bendrel: plan, make and prove rigid and flexible fluid lines."""

__version__ = "0.1.0"
