"""Benders, marks, spring-back, what stands round them, and the moves at the bench."""
