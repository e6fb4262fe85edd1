"""Hoses: the shape that one takes, where it lies on the line, what holds it, how it is put together."""
