"""The part at the tool: can it be made in this order, and if not, how; as built, corrected, the ways out."""
