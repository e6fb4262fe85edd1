"""Looking at an old line: what is wrong with it, why, and whether to replace or splice."""
