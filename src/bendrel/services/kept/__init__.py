"""Backups, archives, the whole shop."""
