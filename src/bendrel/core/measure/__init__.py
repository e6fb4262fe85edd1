"""How good the readings are: checks against them, what they are worth, and which one is wrong."""
