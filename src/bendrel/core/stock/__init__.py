"""Sticks, coils and offcuts, and what is cut from them."""
