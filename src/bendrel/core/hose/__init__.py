"""Hose and clamps: classes, sizes, and what fits on what."""
