"""Tube: materials, sizes, and what bending does to them."""
