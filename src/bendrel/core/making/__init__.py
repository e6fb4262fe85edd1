"""The part while it is made: as built, corrected, the ways out."""
