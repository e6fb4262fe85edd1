"""Rules on the whole line."""
