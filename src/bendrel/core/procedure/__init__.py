"""The order of work at the bench, in words."""
