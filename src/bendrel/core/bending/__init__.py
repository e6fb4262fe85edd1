"""Benders, marks, spring-back and the moves at the bench."""
