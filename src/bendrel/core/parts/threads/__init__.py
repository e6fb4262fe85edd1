"""Threads: reading a designation, tolerances, and one thread in another."""
