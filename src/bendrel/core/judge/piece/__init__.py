"""Rules on one rigid piece."""
