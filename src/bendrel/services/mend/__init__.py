"""Ways to mend, letting in, gaps."""
