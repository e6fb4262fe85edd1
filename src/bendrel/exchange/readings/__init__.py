"""Readings, pictures and dates in and out."""
