"""The part while it is made."""
