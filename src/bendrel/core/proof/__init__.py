"""Proving a line: what a hold test says, what a fill took, how each joint was looked at, and what is due."""
