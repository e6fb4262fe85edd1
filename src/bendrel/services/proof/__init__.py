"""Closing and proving a line; hold tests recorded live."""
