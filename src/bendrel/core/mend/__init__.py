"""Mending a damaged tube: every way ranked, where to cut, how long the new piece is."""
