"""Hoses on the screen and by the command line."""
